"""Published temperatures with the time they must be held, and whether a piece's meat meets them, and when.

A line is met when every place in the meat has stood at the temperature for the whole time, without a break. Sums over
rising temperatures (an integral) are a second opinion and never replace the line.
"""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

import numpy as np
import numpy.typing as npt

from vianda.core.basis.units import c_from_f
from vianda.core.heat.conduction.held import last_held
from vianda.core.heat.floor import Floor, FloorChoice

Array = npt.NDArray[np.float64]
HoldKey = Literal["appendix-a-6.5", "appendix-a-7", "food-code", "patties-9cfr", "uk-fsa"]
# Of many cells only the least heated can be last; so many of them are looked at.
MOST_PLACES = 40


@dataclass(frozen=True, slots=True)
class Hold:
    """°C for so many seconds; 0 is reached."""

    temp_c: float
    time_s: float


@dataclass(frozen=True, slots=True)
class HoldTable:
    """A table of holds, any one of which will do; ``log10`` is the reduction it stands for, 0 when it does not say."""

    key: HoldKey
    title: str
    source: str
    log10: float
    holds: tuple[Hold, ...]


@dataclass(frozen=True, slots=True)
class HoldVerdict:
    """Whether a published line is met by the coldest meat, and when, in seconds from the start; None: not.

    ``by`` is the hold that is met first, or the line's own.
    """

    key: str
    authority: str
    rule: str
    source: str
    leads: bool
    met_at_s: float | None
    by: Hold


def _rows(name: str) -> list[dict[str, str]]:
    text = (files("vianda.core.heat") / "data" / name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


@cache
def hold_tables() -> tuple[HoldTable, ...]:
    """The tables, in the order they are shown.

    Returns
    -------
    tuple[HoldTable, ...]
        Each: a table of holds, any one of which will do.

    References
    ----------
    USDA FSIS Appendix A (1999), both columns, high confidence; FDA Food Code 3-401.11, high; 9 CFR 318.23,
    medium; UK FSA advice, high. All from memory, to be read against the current text. US rules are in °F.

    Examples
    --------
    >>> [t.key for t in hold_tables()]
    ['food-code', 'patties-9cfr', 'appendix-a-6.5', 'appendix-a-7', 'uk-fsa']
    """
    appendix = _rows("lethality_beef_appendix_a.csv")

    def column(name: str) -> tuple[Hold, ...]:
        return tuple(Hold(c_from_f(float(r["temp_f"])), float(r[name])) for r in appendix)

    def fahrenheit(file: str) -> tuple[Hold, ...]:
        return tuple(Hold(c_from_f(float(r["temp_f"])), float(r["seconds"])) for r in _rows(file))

    uk = tuple(Hold(t, s) for t, s in ((60.0, 2700.0), (65.0, 600.0), (70.0, 120.0), (75.0, 30.0), (80.0, 6.0)))
    return (
        HoldTable(
            "food-code",
            "Food Code, comminuted meat",
            "FDA Food Code 3-401.11",
            0.0,
            fahrenheit("food_code_comminuted.csv"),
        ),
        HoldTable("patties-9cfr", "9 CFR 318.23, patties", "9 CFR 318.23", 0.0, fahrenheit("patties_9cfr_318_23.csv")),
        HoldTable(
            "appendix-a-6.5", "Appendix A, 6.5 log₁₀", "USDA FSIS Appendix A, 1999", 6.5, column("seconds_6_5_log10")
        ),
        HoldTable("appendix-a-7", "Appendix A, 7 log₁₀", "USDA FSIS Appendix A, 1999", 7.0, column("seconds_7_log10")),
        HoldTable("uk-fsa", "UK, 70 °C for 2 min or the like", "UK Food Standards Agency", 0.0, uk),
    )


def met_at(times_s: Array, temp_c: Array, hold: Hold) -> float | None:
    """When every place (columns) has stood at the hold's temperature for its time; straight lines between samples.

    Parameters
    ----------
    times_s : Array
        Moments, s, rising, shape ``(n,)``.
    temp_c : Array
        Temperatures, °C, shape ``(n,)``.
    hold : Hold
        A temperature and its time.

    Returns
    -------
    float | None
        When every place (columns) has stood at the hold's temperature for its time. None where there is none.

    References
    ----------
    Tables of USDA FSIS Appendix A (1999) and 9 CFR 318.23, from memory; between their lines, ours.

    Examples
    --------
    >>> t = np.arange(0.0, 200.0, 10.0)
    >>> ramp = np.minimum(20.0 + t, 75.0)[:, None]
    >>> met_at(t, ramp, Hold(70.0, 0.0)), met_at(t, ramp, Hold(70.0, 60.0)), met_at(t, ramp, Hold(76.0, 0.0))
    (50.0, 110.0, None)
    """
    last = last_held(np.asarray(times_s, dtype=float), np.ascontiguousarray(temp_c), hold.temp_c, hold.time_s)
    return last if last >= 0.0 else None


def least_heated(temp_c: Array, lethal: Array) -> Array:
    """Columns of the places that were heated least, which decide.

    Parameters
    ----------
    temp_c : Array
        Temperatures, °C, shape ``(n,)``.
    lethal : Array
        log₁₀ reductions of each place, shape ``(n,)``.

    Returns
    -------
    Array
        Values in the order of what was given.
    """
    return np.asarray(temp_c[:, np.argsort(lethal)[:MOST_PLACES]])


def verdicts(times_s: Array, temp_c: Array, *, floors: FloorChoice) -> tuple[HoldVerdict, ...]:
    """Each floor by its own line, then each table by whichever of its holds is met first.

    Parameters
    ----------
    times_s : Array
        Moments, s, rising, shape ``(n,)``.
    temp_c : Array
        Temperatures, °C, shape ``(n,)``.
    floors : FloorChoice
        The published floors that stand beside it.

    Returns
    -------
    tuple[HoldVerdict, ...]
        Each: whether a published line is met by the coldest meat, and when, in seconds from the start.

    References
    ----------
    USDA FSIS Appendix A (1999); 9 CFR 318.23; FDA Food Code 2022, 3-401.11; UK FSA. All from memory.
    """
    found = []
    for floor in (floors.leading, *floors.others):
        at, by = _first(times_s, temp_c, holds_of(floor))
        leads = floor is floors.leading
        found.append(HoldVerdict(floor.key, floor.authority, floor.rule, floor.source, leads, at, by))
    shown = {floor.key for floor in (floors.leading, *floors.others)}
    for table in hold_tables():
        if table.key in shown:
            continue
        at, by = _first(times_s, temp_c, table.holds)
        found.append(HoldVerdict(table.key, table.title, "any one of its holds", table.source, False, at, by))
    return tuple(found)


def holds_of(floor: Floor) -> tuple[Hold, ...]:
    """What meets a floor: its own line, or any hold of the table it comes from.

    Parameters
    ----------
    floor : Floor
        A published floor.

    Returns
    -------
    tuple[Hold, ...]
        Each: °C for so many seconds.
    """
    line = Hold(floor.temp_c, floor.hold_s)
    table = next((t for t in hold_tables() if t.key == floor.key), None)
    return (line, *(h for h in table.holds if h != line)) if table else (line,)


def hold_at(floor: Floor, *, target_c: float) -> Hold:
    """The hold that a floor's own table asks for at a core temperature: that of its hottest line not above it.

    Parameters
    ----------
    floor : Floor
        A published floor.
    target_c : float
        Core temperature wanted, °C; at or above the floor.

    Returns
    -------
    Hold
        °C for so many seconds; the floor's own line below all of them.

    Examples
    --------
    >>> from vianda.core.heat.floor import FOOD_CODE, UK_FSA
    >>> hold_at(FOOD_CODE, target_c=69.0).time_s, hold_at(FOOD_CODE, target_c=71.0).time_s
    (17, 0.0)
    >>> hold_at(UK_FSA, target_c=76.0)
    Hold(temp_c=75.0, time_s=30.0)
    """
    lines = holds_of(floor)
    reached = [h for h in lines if h.temp_c <= target_c + 1e-6]
    return max(reached, key=lambda h: h.temp_c, default=lines[0])


def line_c(floor: Floor, *, target_c: float) -> float:
    """What the coldest meat must come to for a cook who wants the floor: where it needs no hold, or the core wanted.

    Parameters
    ----------
    floor : Floor
        A published floor.
    target_c : float
        Core temperature that the cook wants, °C.

    Returns
    -------
    float
        What the coldest meat must come to, °C.

    References
    ----------
    The tables of the published floors, see ``floors_for``.

    Examples
    --------
    >>> from vianda.core.heat.floor import FOOD_CODE, USDA_GROUND
    >>> round(line_c(FOOD_CODE, target_c=71.1), 1), round(line_c(USDA_GROUND, target_c=71.2), 1)
    (70.0, 71.1)
    """
    without_hold = [h.temp_c for h in holds_of(floor) if h.time_s == 0]
    return min(target_c, min(without_hold, default=floor.temp_c))


def _first(times_s: Array, temp_c: Array, holds: tuple[Hold, ...]) -> tuple[float | None, Hold]:
    """The hold that is met first, and when; the first of them where none is."""
    best: tuple[float, Hold] | None = None
    for hold in holds:
        at = met_at(times_s, temp_c, hold)
        if at is not None and (best is None or at < best[0]):
            best = at, hold
    return (best[0], best[1]) if best else (None, holds[0])
