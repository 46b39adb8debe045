"""What was said at the stove, wave by wave: when it was laid on, when each stage ended, what was read."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from vianda.core.basis.errors import OutOfRangeError

# What a thermometer at the stove can read, °C.
READS_C: Mapping[str, tuple[str, float, float]] = {
    "probe": ("A core reads", -20.0, 120.0),
    "surface": ("A surface reads", 0.0, 500.0),
}
# Steps of a wave that are no stage of the heat.
_NO_STAGE = ("lay", "press")


@dataclass(frozen=True, slots=True)
class StoveEvent:
    """Something said at the stove: ``place`` counts the steps of all waves; ``value`` is °C of a reading."""

    kind: str
    place: int
    value: float | None
    at_s: float


@dataclass(slots=True)
class WaveLog:
    """One wave: seconds from the start of the cook when it was laid on (None: not yet) and when its stages ended.

    ``cores`` are readings, seconds from the start and °C. ``surface`` is what the surface measured last before it was
    laid on.
    """

    wave: int
    laid_s: float | None = None
    ended_s: list[float] = field(default_factory=list)
    cores: list[tuple[float, float]] = field(default_factory=list)
    surface: tuple[float, float] | None = None


def check_reading(kind: str, value: float | None) -> None:
    """Refuse what no thermometer can have read; what else is said has no bounds here.

    Parameters
    ----------
    kind : str
        What was said.
    value : float | None
        The reading, °C; None: none was given.

    Raises
    ------
    OutOfRangeError
        Below or above what such a thermometer reads.
    """
    if value is None or kind not in READS_C:
        return
    name, low, high = READS_C[kind]
    if not low <= value <= high:
        raise OutOfRangeError(f"{name} {low:.0f} to {high:.0f} °C.".replace("-", "−"), field="/value")


def stage_places(stove: Mapping[str, Any], wave: int) -> list[int]:
    """The places of a wave's stages on the heat.

    Parameters
    ----------
    stove : Mapping[str, Any]
        The stove plan as a cook keeps it.
    wave : int
        Which wave, the first is 0 (count).

    Returns
    -------
    list[int]
        One place a stage, in order (count).
    """
    first = len(stove["before"]) + wave * len(stove["each_wave"])
    return [first + n for n, step in enumerate(stove["each_wave"]) if step["kind"] not in _NO_STAGE]


def wave_logs(stove: Mapping[str, Any], events: Sequence[StoveEvent]) -> list[WaveLog]:
    """What was said, by wave.

    Parameters
    ----------
    stove : Mapping[str, Any]
        The stove plan as a cook keeps it.
    events : Sequence[StoveEvent]
        In the order in which they happened.

    Returns
    -------
    list[WaveLog]
        One a wave of the plan. A step back takes what followed of that wave back; its readings stay until it is laid
        on anew.
    """
    before, each = len(stove["before"]), len(stove["each_wave"])
    logs = [WaveLog(n) for n in range(stove["waves"])]
    for event in events:
        wave, step = divmod(event.place - before, each)
        if event.place < before:
            wave, step = 0, 0
        if wave >= len(logs):
            continue
        log = logs[wave]
        stages = stage_places(stove, wave)
        if event.kind == "surface" and event.value is not None and step == 0:
            log.surface = (event.at_s, event.value)
        elif event.place < before:
            continue
        elif event.kind == "done" and step == 0:
            log.laid_s, log.ended_s, log.cores = event.at_s, [], []
        elif event.kind == "done" and event.place in stages and log.laid_s is not None:
            log.ended_s = [*log.ended_s[: stages.index(event.place)], event.at_s]
        elif event.kind == "back" and step == 0:
            log.laid_s, log.ended_s = None, []
        elif event.kind == "back":
            log.ended_s = log.ended_s[: sum(1 for place in stages if place < event.place)]
        elif event.kind == "probe" and event.value is not None and step > 0 and log.laid_s is not None:
            log.cores.append((event.at_s, event.value))
    return logs
