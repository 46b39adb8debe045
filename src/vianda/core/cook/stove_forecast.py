"""The stove as it goes: when each stage of a wave ends, and when the surface is hot enough for the next."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, delta_temp, duration, say, temp
from vianda.core.cook.stove_log import StoveEvent, WaveLog, stage_places, wave_logs
from vianda.core.equipment.heating import HOT_ENOUGH_K
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.run import Cooked
from vianda.core.heat.cooked import cooked_of, wanted_of
from vianda.core.heat.engine import DIRECT, Engine, once
from vianda.core.heat.fit import ProbeReading
from vianda.core.heat.forecast import JudgedReading, WaveForecast, wave_forecast
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.waves import hot_after_s, surface_after_c

# A time this near the planned one is the planned one: the model's steps resolve no less of a thin piece. Ours.
SAME_TIME_FRAC = 0.05
# A surface that reads this much more than it is meant to is told: ours.
TOO_HOT_K = 20.0


@dataclass(frozen=True, slots=True)
class StepEnd:
    """When a step ends, seconds from the start of the cook, and what its timer is set to.

    Where nobody can probe a piece that is to come to the floor, the timer keeps to the cold edge of the band.
    """

    place: int
    end_s: Band
    timer_end_s: float


@dataclass(frozen=True, slots=True)
class OnTheHeat:
    """A wave on the heat: the first is 1. ``laid_s`` and the ends of its steps are seconds from the start of the cook.

    ``off_s`` is counted from when it was laid on, as is ``planned_off_s``. ``read_at_s`` is when a core reading tells
    most, from the start of the cook. ``moved``: it goes otherwise than planned, so that these are its timers and not
    the plan's. ``off_now``: it reads what it is taken off at. ``doubtful``: what was read last
    cannot be, and does not count.
    """

    wave: int
    laid_s: float
    ends: tuple[StepEnd, ...]
    off_s: Band
    planned_off_s: float
    read_at_s: float
    readings: tuple[JudgedReading, ...]
    moved: bool
    off_now: bool
    doubtful: bool
    message: Phrase


@dataclass(frozen=True, slots=True)
class SurfaceWait:
    """When the surface is hot enough for the wave laid on at ``place``, seconds from the start of the cook."""

    place: int
    hot_at_s: float
    message: Phrase


@dataclass(frozen=True, slots=True)
class StoveForecast:
    """What is on the heat, and what the next wave waits for; None where nothing is or can be foretold.

    ``metal``: its surface can be read before a wave is laid on.
    """

    on_the_heat: OnTheHeat | None = None
    surface: SurfaceWait | None = None
    metal: bool = False


def stove_forecast(
    stove: Mapping[str, Any], events: Sequence[StoveEvent], case: CookCase, *, engine: Engine = DIRECT
) -> StoveForecast:
    """What is foretold of a cook as it stands.

    Parameters
    ----------
    stove : Mapping[str, Any]
        The stove plan as the cook keeps it.
    events : Sequence[StoveEvent]
        What was said at the stove, in order.
    case : CookCase
        The piece and how it is cooked.
    engine : Engine, default DIRECT
        Who runs the simulations.

    Returns
    -------
    StoveForecast
        Nothing where the plan is usual practice's, or where its stages are no longer those of the plan.
    """
    setup, metal = setup_of(case), case.surface.kind in ("plate", "pan")
    places = stage_places(stove, 0)
    if setup.stages[-1].end != "core" or len(places) != len(setup.stages):
        return StoveForecast(metal=metal)
    wanted = wanted_of(case)
    cooked = once(engine, cooked_of, setup, wanted)
    logs = wave_logs(stove, events)
    laid = [log for log in logs if log.laid_s is not None]
    now = laid[-1] if laid else None
    heat = None
    if now is not None and len(now.ended_s) < len(places):
        # Nobody can probe it: who wants the floor keeps to the cold edge of the uncertainty.
        blind = wanted.wants_floor and not case.usual.probe
        heat = _on_the_heat(stove, now, _surface_c(cooked, now, logs), cooked, blind, engine)
    return StoveForecast(heat, _wait(stove, logs, now, cooked) if heat is None else None, metal)


def without_slips(
    stove: Mapping[str, Any], events: Sequence[StoveEvent], case: CookCase, *, engine: Engine = DIRECT
) -> list[StoveEvent]:
    """What was said at the stove without the core readings that cannot have been right.

    Parameters
    ----------
    stove : Mapping[str, Any]
        The stove plan as the cook keeps it.
    events : Sequence[StoveEvent]
        What was said, in order.
    case : CookCase
        The piece and how it is cooked.
    engine : Engine, default DIRECT
        Who runs the simulations.

    Returns
    -------
    list[StoveEvent]
        A reading that its wave's forecast does not count is left out where another of that wave counts: a probe that
        slipped through must not hide the reading before it. A single reading stays: whoever learns from it judges it.
    """
    said = list(events)
    setup = setup_of(case)
    if setup.stages[-1].end != "core" or len(stage_places(stove, 0)) != len(setup.stages):
        return said
    logs = wave_logs(stove, events)
    several = [log for log in logs if log.laid_s is not None and len(log.cores) > 1]
    cooked = once(engine, cooked_of, setup, wanted_of(case)) if several else None
    slips: set[tuple[float, float | None]] = set()
    for log in several:
        assert cooked is not None
        # As it stood before it came off: of what is over nothing is foretold.
        on = replace(log, ended_s=log.ended_s[: len(setup.stages) - 1])
        found = _wave(on, _surface_c(cooked, log, logs), cooked, engine)
        # The forecast looks at the newest few, by time.
        judged = zip(sorted(log.cores)[-len(found.readings) :], found.readings, strict=True) if found else ()
        mine = {core: r.used for core, r in judged}
        if any(mine.values()):
            slips |= {core for core, used in mine.items() if not used}
    return [e for e in said if e.kind != "probe" or (e.at_s, e.value) not in slips]


def _surface_c(cooked: Cooked, log: WaveLog, logs: Sequence[WaveLog]) -> float:
    """What a wave was laid on: as it was measured, or as the wave before and the time since have left it."""
    if log.surface is not None:
        return log.surface[1]
    before = logs[log.wave - 1] if log.wave > 0 else None
    if before is None or not before.ended_s or log.laid_s is None:
        return cooked.setup.surface_c
    left = surface_after_c(cooked, max(0.0, log.laid_s - before.ended_s[-1]))
    return cooked.setup.surface_c if left is None else left


def _on_the_heat(
    stove: Mapping[str, Any], log: WaveLog, surface_c: float, cooked: Cooked, blind: bool, engine: Engine
) -> OnTheHeat | None:
    laid = log.laid_s or 0.0
    found = _wave(log, surface_c, cooked, engine)
    if found is None:
        return None
    used = any(r.used for r in found.readings)
    places = stage_places(stove, log.wave)
    last = len(places) - 1
    ends = tuple(
        StepEnd(
            place,
            Band(laid + b.low, laid + b.usual, laid + b.high),
            laid + (b.high if blind and n == last else b.usual),
        )
        for n, (place, b) in enumerate(zip(places, found.ends_s, strict=True))
        if n >= len(log.ended_s)
    )
    return OnTheHeat(
        wave=log.wave + 1,
        laid_s=laid,
        ends=ends,
        off_s=found.ends_s[-1],
        planned_off_s=found.planned_off_s,
        read_at_s=laid + found.read_at_s,
        readings=found.readings,
        moved=used or abs(found.ends_s[-1].usual / found.planned_off_s - 1.0) >= SAME_TIME_FRAC,
        off_now=found.off_now,
        doubtful=found.doubtful,
        message=found.message,
    )


def _wave(log: WaveLog, surface_c: float, cooked: Cooked, engine: Engine) -> WaveForecast | None:
    laid = log.laid_s or 0.0
    return wave_forecast(
        replace(cooked.setup, surface_c=surface_c),
        ended_s=[end - laid for end in log.ended_s],
        readings=[ProbeReading(max(1.0, at - laid), core) for at, core in log.cores],
        planned_off_s=cooked.ended_s[-1],
        engine=engine,
    )


def _wait(
    stove: Mapping[str, Any], logs: Sequence[WaveLog], last: WaveLog | None, cooked: Cooked
) -> SurfaceWait | None:
    """What the next wave waits for: the surface as it was read, or as the last wave has left it."""
    wave = 0 if last is None else last.wave + 1
    if wave >= len(logs):
        return None
    log, place = logs[wave], len(stove["before"]) + wave * len(stove["each_wave"])
    wanted = cooked.setup.stages[0].low.temp_c
    if log.surface is not None:
        at_s, read_c = log.surface
        wait = hot_after_s(cooked, read_c)
        if wait is None:
            return None
        if read_c > wanted + TOO_HOT_K:
            text = say(
                "It reads {read}, {gap} more than planned: browns sooner, and the time counts it.",
                read=temp(read_c), gap=delta_temp(read_c - wanted),
            )  # fmt: skip
        elif wait > 0.0:
            text = say(
                "It reads {read}: hot enough, {t}, in {wait}.",
                read=temp(read_c), wait=duration(wait), t=temp(wanted - HOT_ENOUGH_K),
            )  # fmt: skip
        else:
            text = say("It reads {read}: hot enough.", read=temp(read_c))
        return SurfaceWait(place, at_s + wait, text)
    if last is None or not last.ended_s:
        return None
    left = surface_after_c(cooked, 0.0)
    wait = None if left is None else hot_after_s(cooked, left)
    if left is None or wait is None:
        return None
    text = say(
        "The last wave left it at {left}: hot enough, {t}, after {wait}. A reading is surer.",
        left=temp(left), wait=duration(wait), t=temp(wanted - HOT_ENOUGH_K),
    )  # fmt: skip
    return SurfaceWait(place, last.ended_s[-1] + wait, text)
