"""Check-weighing: whether a piece is good, what to add or pinch off, and whether the count will come out."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.phrase import Phrase, count, mass, say

VerdictKind = Literal["empty", "light", "good", "heavy", "odd"]

# Two grams or a fortieth of a piece, and never finer than the scale can show: common practice, no published source.
LEAST_TOLERANCE_G, TOLERANCE_FRAC = 2.0, 0.025
# Beyond a third either way it is no piece, but a hand on the scale, two pieces, or a scrap: ours.
ODD_FRAC = 1.0 / 3.0


@dataclass(frozen=True, slots=True)
class Verdict:
    """Whether what lies on the scale is good. ``change_g`` is what to add, or, below zero, to pinch off."""

    kind: VerdictKind
    change_g: float


@dataclass(frozen=True, slots=True)
class BowlForecast:
    """What is left in the bowl, in g, and what the pieces still to come would weigh of it.

    ``each_g`` None when none is to come. ``over_g`` is what remains when all that come are right; below zero it is
    short.
    """

    bowl_g: float
    left_g: float
    to_come: int
    each_g: float | None
    over_g: float
    comes_out: bool
    line: Phrase


def tolerance_g(*, target_g: float, step_g: float) -> float:
    """How far a piece may be off, either way, in g, on the scale's step.

    Parameters
    ----------
    target_g : float
        What a piece should weigh, g.
    step_g : float
        Step of the scale, g, above 0.

    Returns
    -------
    float
        How far a piece may be off, g.

    Examples
    --------
    >>> tolerance_g(target_g=85, step_g=1), tolerance_g(target_g=180, step_g=1), tolerance_g(target_g=85, step_g=5)
    (2.0, 4.0, 5.0)
    """
    wide = max(LEAST_TOLERANCE_G, TOLERANCE_FRAC * target_g, step_g)
    return max(step_g, math.floor(wide / step_g + 1e-9) * step_g) + 0.0


def verdict(*, shown_g: float, target_g: float, tolerance: float) -> Verdict:
    """What to say of a reading.

    Parameters
    ----------
    shown_g : float
        What the scale shows, g.
    target_g : float
        What the piece should weigh, g.
    tolerance : float
        Tolerance, g, above 0.

    Returns
    -------
    Verdict
        Whether what lies on the scale is good.

    Examples
    --------
    >>> verdict(shown_g=91, target_g=85, tolerance=2)
    Verdict(kind='heavy', change_g=-6)
    >>> verdict(shown_g=300, target_g=85, tolerance=2).kind
    'odd'
    """
    change = target_g - shown_g
    if abs(shown_g) < 0.1 * target_g:
        return Verdict("empty", change)
    if abs(change) > ODD_FRAC * target_g:
        return Verdict("odd", change)
    if abs(change) <= tolerance:
        return Verdict("good", change)
    return Verdict("light" if change > 0 else "heavy", change)


def bowl_forecast(
    *, bowl_g: float, shaped_g: float, to_come: int, to_come_g: float, loss_g: float, tolerance: float
) -> BowlForecast:
    """Whether what is left makes the pieces still to come.

    ``shaped_g`` lies on the tray, ``to_come_g`` is what the others should weigh together, ``loss_g`` what
    stays on bowl and gloves.

    Parameters
    ----------
    bowl_g : float
        What was in the bowl before the first piece, g.
    shaped_g : float
        What has been shaped, g.
    to_come : int
        Pieces still to be shaped (count).
    to_come_g : float
        What the pieces still to come should weigh together, g.
    loss_g : float
        What is expected to stay on bowl and gloves, g.
    tolerance : float
        Tolerance, g, above 0.

    Returns
    -------
    BowlForecast
        What is left in the bowl, in g, and what the pieces still to come would weigh of it.

    Examples
    --------
    >>> f = bowl_forecast(bowl_g=1020, shaped_g=870, to_come=2, to_come_g=170, loss_g=0, tolerance=2)
    >>> f.left_g, f.over_g, f.comes_out
    (150, -20, False)
    """
    left = bowl_g - shaped_g
    over = left - loss_g - to_come_g
    each = (left - loss_g) / to_come if to_come else None
    out = abs(over) <= tolerance * max(1, to_come)
    return BowlForecast(bowl_g, left, to_come, each, over, out, _line(left, to_come, each, over, out))


def _line(left: float, to_come: int, each: float | None, over: float, out: bool) -> Phrase:
    if each is None:
        if left < 0:
            return say("All are weighed, with {over} more than the bowl was said to hold", over=mass(-left))
        return say("All are weighed; {left} should be left in the bowl", left=mass(left))
    if left <= 0:
        return say("The bowl should be empty, and {n} are still to come", n=count(to_come))
    if out:
        return say("The count comes out: {n} more at {each}", n=count(to_come), each=mass(each))
    if over < 0:
        return say(
            "{short} short: the last {n} would be {each} each",
            short=mass(-over),
            n=count(to_come),
            each=mass(max(0.0, each)),
        )
    return say("{over} over: the last {n} would be {each} each", over=mass(over), n=count(to_come), each=mass(each))
