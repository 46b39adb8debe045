"""A service: which formulas are on the plate together, for how many, and when."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len, Predicate

from vianda.core.basis.bounds import Name
from vianda.core.model.formula import LONGEST_REMARK, Timing

MOST_DISHES, MOST_GUESTS, MOST_COUNTS = 8, 10_000, 400
_DAY = re.compile(r"\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])")


def is_day_or_empty(text: str) -> bool:
    """Whether it is a day as year, month and day, or nothing.

    Parameters
    ----------
    text : str
        What was written.

    Returns
    -------
    bool
        Whether it is a day or nothing.

    Examples
    --------
    >>> is_day_or_empty("2026-12-04"), is_day_or_empty(""), is_day_or_empty("4 December")
    (True, True, False)
    """
    return not text or _DAY.fullmatch(text) is not None


Day = Annotated[str, Len(0, 10), Predicate(is_day_or_empty)]


@dataclass(frozen=True, slots=True)
class ServedDish:
    """One formula of a service by its number on the shelf, and for how many guests; 0: as many as the formula says."""

    formula_id: Annotated[int, Ge(1), Le(2_000_000_000)]
    guests: Annotated[int, Ge(0), Le(MOST_GUESTS)] = 0


@dataclass(frozen=True, slots=True)
class Count:
    """How many were served on a day, how many portions were left, and how many guests went without."""

    day: Annotated[str, Len(10, 10), Predicate(is_day_or_empty)]
    guests: Annotated[int, Ge(0), Le(MOST_GUESTS)]
    left: Annotated[int, Ge(0), Le(MOST_GUESTS)] = 0
    lacking: Annotated[int, Ge(0), Le(MOST_GUESTS)] = 0


# Half past six, one cook.
USUAL_TIMING = Timing()


# How a service comes again: never, every week, every second week, or on the same weekday of each month.
Repeat = Literal["", "weekly", "fortnightly", "monthly"]


@dataclass(frozen=True, slots=True)
class Service:
    """What is served together: its name, the day ("" where it is not fixed), the dishes, and their common timing.

    ``repeat`` counts from the day; ``until`` is the last day on which it may come again, "" without end. ``counts`` is
    how many came.
    """

    name: Name
    day: Day = ""
    dishes: Annotated[tuple[ServedDish, ...], Len(0, MOST_DISHES)] = ()
    timing: Timing = USUAL_TIMING
    remark: Annotated[str, Len(0, LONGEST_REMARK)] = ""
    repeat: Repeat = ""
    until: Day = ""
    counts: Annotated[tuple[Count, ...], Len(0, MOST_COUNTS)] = ()
