"""What is ticked on a list, with how much it was then: a list that has grown since is not done."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

# A scale's last digits, and rounding of recipes, g and share: less than this has not changed. Ours.
SAME_G, SAME_FRAC = 2.0, 0.01


@dataclass(frozen=True, slots=True)
class Tick:
    """One line of a list and how much it was when it was ticked, g or pieces; None where nobody wrote it down."""

    line: str
    amount: float | None


@dataclass(frozen=True, slots=True)
class Listed:
    """How much a line has now, g, or pieces where it is ``counted``."""

    amount: float
    counted: bool = False


@dataclass(frozen=True, slots=True)
class Ticked:
    """A ticked line of a list: how much it was then (None: not known), and what it takes more by now; 0: it is done."""

    sheet: str
    line: str
    amount: float | None
    more: float


def ticked(sheet: str, ticks: Iterable[Tick], listed: Mapping[str, Listed]) -> tuple[Ticked, ...]:
    """Which lines of a list are done, and which have grown since.

    Parameters
    ----------
    sheet : str
        The name of the list.
    ticks : Iterable[Tick]
        What was ticked.
    listed : Mapping[str, Listed]
        The list as it is now, by line.

    Returns
    -------
    tuple[Ticked, ...]
        Ticks whose line is still on the list. A gram or two, or one in a hundred, is no change; a piece is one.

    Examples
    --------
    >>> [(t.line, t.more) for t in ticked("prep/2026-12-04", [Tick("relish", 300.0)], {"relish": Listed(450.0)})]
    [('relish', 150.0)]
    """
    found = []
    for tick in ticks:
        now = listed.get(tick.line)
        if now is None:
            continue
        more = 0.0 if tick.amount is None else now.amount - tick.amount
        same = 0.5 if now.counted else max(SAME_G, SAME_FRAC * now.amount)
        found.append(Ticked(sheet, tick.line, tick.amount, more if more > same else 0.0))
    return tuple(found)
