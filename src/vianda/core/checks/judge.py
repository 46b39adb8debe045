"""A reading held against its line, in the figures a screen shows, and what is done when it is missed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.units import UnitSystem
from vianda.core.checks.limits import CheckKind, CheckLimit, CoolStep, lasting
from vianda.core.heat.floor import shown_c

COLDEST_C, HOTTEST_C = -40.0, 150.0
LONGEST_S = 72 * 3600.0
# Readings of one cooling are written down in this number at most.
MOST_READINGS = 40
Verdict = Literal["kept", "missed", "running"]
# What a kitchen does, by kind: the Food Code's corrective actions in our words (3-401 to 3-501), common practice.
CORRECTIVE: Mapping[CheckKind, str] = {
    "delivery": "Refuse it: nobody knows how long it was warm. Write down who was told.",
    "cold": (
        "Move it to where it is cold at once. What was above {most} for 4 h or longer, or nobody knows how long, is "
        "thrown away. Turn the fridge down or have it mended."
    ),
    "core": "Back to the heat until {least}, and measure the same piece again in its middle.",
    "hot": (
        "Below {least} for less than 2 h: bring it to {reheat} once, and hold it hotter. For longer, or nobody knows "
        "how long: throw it away."
    ),
    "cool": (
        "Too slow: within the first 2 h warm it to {reheat} once, divide it into shallower trays and cool it in ice. "
        "After that: throw it away."
    ),
    "reheat": "On until {least} in the middle. What took longer than it may is thrown away.",
}


@dataclass(frozen=True, slots=True)
class Reading:
    """A temperature, °C, so many seconds after the first one of its row."""

    temp_c: float
    at_s: float = 0.0


@dataclass(frozen=True, slots=True)
class Judged:
    """What came of a check: kept, missed, or running while something is still to be measured.

    ``says`` is the line and the figure, ``corrective`` what to do when it is missed, ``next_s`` when to measure again,
    seconds after the first reading.
    """

    verdict: Verdict
    says: Phrase
    corrective: Phrase | None = None
    next_s: float | None = None


def judge(
    limit: CheckLimit, readings: Sequence[Reading], *, reheat: CheckLimit, unit_system: UnitSystem = "metric"
) -> Judged:
    """What readings say of a line.

    Parameters
    ----------
    limit : CheckLimit
        The line.
    readings : Sequence[Reading]
        Of one thing, in the order of time; of cooling and warming up the first one starts the clock, of the
        core the first one that is hot enough.
    reheat : CheckLimit
        The line of warming up, for what is done when holding or cooling is missed.
    unit_system : UnitSystem, default "metric"
        Readings and lines are compared as the screen shows them: 0.1 °C, or 1 °F.

    Returns
    -------
    Judged
        The last reading decides; of cooling every step, of the core any hold of its floor.

    Raises
    ------
    OutOfRangeError
        Without a reading, with too many, with temperatures that no food has, or with times that run backwards.

    References
    ----------
    ``checks.limits``; corrective actions: FDA Food Code 2022, 3-401.11 to 3-501.19, from memory, and common practice.
    """
    _check(readings)
    last = readings[-1]
    if limit.kind == "cool":
        return _cooling(limit, readings, reheat, unit_system)
    if limit.kind == "core":
        return _core(limit, readings, reheat, unit_system)
    shown = shown_c(last.temp_c, unit_system=unit_system)
    too_cold = limit.least_c is not None and shown < shown_c(limit.least_c, unit_system=unit_system)
    too_warm = limit.most_c is not None and shown > shown_c(limit.most_c, unit_system=unit_system)
    late = limit.within_s is not None and last.at_s > limit.within_s
    if too_cold and limit.within_s is not None and not late:
        says = say("{t} so far; {line} within {within}.", t=ph.temp(last.temp_c), **_bounds(limit))
        return Judged("running", says, None, limit.within_s)
    if too_cold or too_warm or late:
        return Judged("missed", _line(limit, last), _corrective(limit, reheat))
    return Judged("kept", _line(limit, last))


def _check(readings: Sequence[Reading]) -> None:
    if not 1 <= len(readings) <= MOST_READINGS:
        raise OutOfRangeError(f"A check has 1 to {MOST_READINGS} readings.", field="/readings")
    for n, reading in enumerate(readings):
        if not COLDEST_C <= reading.temp_c <= HOTTEST_C:
            raise OutOfRangeError("Food has −40 to 150 °C.", field=f"/readings/{n}/temp_c")
        if not 0.0 <= reading.at_s <= LONGEST_S:
            raise OutOfRangeError("A check lasts three days at most.", field=f"/readings/{n}/at_s")
        if n and reading.at_s < readings[n - 1].at_s:
            raise OutOfRangeError("Readings are in the order of time.", field=f"/readings/{n}/at_s")


def _bounds(limit: CheckLimit) -> dict[str, ph.Amount]:
    found = {}
    if limit.least_c is not None:
        found["line"] = ph.temp(limit.least_c)
    elif limit.most_c is not None:
        found["line"] = ph.temp(limit.most_c)
    if limit.within_s is not None:
        found["within"] = lasting(limit.within_s)
    return found


def _line(limit: CheckLimit, last: Reading) -> Phrase:
    side = "at least" if limit.least_c is not None else "at most"
    held = " for {hold}" if limit.hold_s else ""
    more = {"hold": lasting(limit.hold_s)} if limit.hold_s else {}
    bounds = _bounds(limit)
    if limit.within_s is not None:
        return say(
            f"{{t}} after {{at}}; {side} {{line}}{held} within {{within}} ({limit.source}).",
            t=ph.temp(last.temp_c), at=lasting(last.at_s), **bounds, **more,
        )  # fmt: skip
    return say(f"{{t}}; {side} {{line}}{held} ({limit.source}).", t=ph.temp(last.temp_c), **bounds, **more)


def _corrective(limit: CheckLimit, reheat: CheckLimit) -> Phrase:
    text = CORRECTIVE[limit.kind]
    values = {"least": limit.least_c, "most": limit.most_c, "reheat": reheat.least_c}
    return say(text, **{k: ph.temp(v) for k, v in values.items() if v is not None and f"{{{k}}}" in text})


def _core(limit: CheckLimit, readings: Sequence[Reading], reheat: CheckLimit, unit_system: UnitSystem) -> Judged:
    """Any hold of the floor will do; one moment at a temperature that must be held is not enough."""
    says = _line(limit, readings[-1])
    waits: list[float] = []
    for hold in limit.holds:
        line, since = shown_c(hold.temp_c, unit_system=unit_system), None
        for reading in readings:
            if shown_c(reading.temp_c, unit_system=unit_system) < line:
                since = None
                continue
            since = reading.at_s if since is None else since
            if reading.at_s - since >= hold.time_s:
                return Judged("kept", says)
        if since is not None:
            waits.append(since + hold.time_s)
    if waits:
        return Judged("running", says, None, min(waits))
    return Judged("missed", says, _corrective(limit, reheat))


def _cooling(limit: CheckLimit, readings: Sequence[Reading], reheat: CheckLimit, unit_system: UnitSystem) -> Judged:
    """Each step by the first reading that is as cold as it wants; the clock starts with the first reading."""
    last = readings[-1]
    for step in limit.steps:
        line = shown_c(step.to_c, unit_system=unit_system)
        there = next((r for r in readings if shown_c(r.temp_c, unit_system=unit_system) <= line), None)
        if (there is None and last.at_s >= step.within_s) or (there is not None and there.at_s > step.within_s):
            return Judged("missed", _cooled(limit, step, last), _corrective(limit, reheat))
        if there is None:
            return Judged("running", _cooled(limit, step, last), None, step.within_s)
    return Judged("kept", _cooled(limit, limit.steps[-1], last))


def _cooled(limit: CheckLimit, step: CoolStep, last: Reading) -> Phrase:
    return say(
        f"{{t}} after {{at}}; at most {{line}} within {{within}} ({limit.source}).",
        t=ph.temp(last.temp_c),
        at=lasting(last.at_s),
        line=ph.temp(step.to_c),
        within=lasting(step.within_s),
    )
