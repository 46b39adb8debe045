"""Salt from a shaker: grams a shake by weighing, shakes for a side, and how even it falls."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError

MOST_TRIALS = 20
# Whole shakes come within this of what is wanted, or the shaker is too coarse: ours.
CLOSE_FRAC = 0.1
SIDES = 2
# A scale shows no less.
LEAST_G = 0.001


@dataclass(frozen=True, slots=True)
class ShakerTrial:
    """One weighing: grams that fell in so many shakes."""

    grams: float
    shakes: int


@dataclass(frozen=True, slots=True)
class Shaker:
    """Milligrams a shake with the spread of single shakes, and what a side takes.

    ``shakes`` per side is whole and at least one; ``gives_g`` is what they give on average, ``off_frac`` how far that
    is from what was wanted (−1 to 1), ``close`` within a tenth, ``spread_frac`` how much one side differs from another
    (one standard deviation by the mean). ``known`` is false while one trial alone says nothing of the spread.
    ``tray_g`` is what all ``sides`` take.
    """

    per_shake_mg: float
    known: bool
    shakes: int
    gives_g: Band
    off_frac: float
    close: bool
    spread_frac: float
    sides: int
    tray_g: float


def calibrate(trials: Sequence[ShakerTrial], *, side_g: float, pieces: int) -> Shaker:
    """What a shaker gives, and how many shakes a side takes.

    Shakes are taken as independent, so the spread of a trial's mean grows smaller with its number of shakes.

    Parameters
    ----------
    trials : Sequence[ShakerTrial]
        Weighings, 1 to 20.
    side_g : float
        Salt wanted on one side, g, above 0.
    pieces : int
        Pieces of two sides each (count), 1 or more.

    Returns
    -------
    Shaker
        The calibration.

    Raises
    ------
    OutOfRangeError
        When nothing fell, nothing was shaken, or nothing is wanted.

    References
    ----------
    Weighted mean and its residual variance (textbook statistics); taken from memory, high.

    Examples
    --------
    >>> found = calibrate([ShakerTrial(2.4, 10), ShakerTrial(2.6, 10)], side_g=1.0, pieces=20)
    >>> round(found.per_shake_mg), found.shakes, round(found.tray_g)
    (250, 4, 40)
    """
    if not 1 <= len(trials) <= MOST_TRIALS:
        raise OutOfRangeError(f"A shaker is weighed 1 to {MOST_TRIALS} times.", field="/trials")
    if any(not LEAST_G <= t.grams <= 10_000.0 or not 1 <= t.shakes <= 10_000 for t in trials):
        raise OutOfRangeError("In each trial 0.001 g or more fell, in one shake or more.", field="/trials")
    if not LEAST_G <= side_g <= 1000.0 or pieces < 1:
        raise OutOfRangeError("A side wants more than no salt.", field="/side_g")
    shaken = sum(t.shakes for t in trials)
    mean = math.fsum(t.grams for t in trials) / shaken
    # Of a trial of n shakes the mean's variance is that of one shake by n.
    variance = (
        math.fsum(t.shakes * (t.grams / t.shakes - mean) ** 2 for t in trials) / (len(trials) - 1)
        if len(trials) > 1
        else 0.0
    )
    sd = math.sqrt(variance)
    shakes = max(1, round(side_g / mean))
    gives = shakes * mean
    spread = sd * math.sqrt(shakes)
    return Shaker(
        mean * 1000.0,
        len(trials) > 1,
        shakes,
        Band(max(0.0, gives - spread), gives, gives + spread),
        gives / side_g - 1.0,
        abs(gives / side_g - 1.0) <= CLOSE_FRAC + 1e-9,
        spread / gives,
        SIDES * pieces,
        gives * SIDES * pieces,
    )


def poured_g(before_g: float, after_g: float) -> float:
    """What was poured, by weighing before and after: the bowl that gained it, or the bottle that lost it.

    Parameters
    ----------
    before_g : float
        On the scale before, g, 0 or more.
    after_g : float
        On the scale after, g, 0 or more.

    Returns
    -------
    float
        g, above 0.

    Raises
    ------
    OutOfRangeError
        When the scale shows the same, or a figure is not one.

    Examples
    --------
    >>> poured_g(412.0, 431.5), poured_g(350.0, 330.0)
    (19.5, 20.0)
    """
    if not all(math.isfinite(v) and 0.0 <= v <= 1e6 for v in (before_g, after_g)):
        raise OutOfRangeError("A scale shows 0 g or more.", field="/after_g")
    if before_g == after_g:
        raise OutOfRangeError("The scale shows the same before and after: nothing was poured.", field="/after_g")
    return abs(after_g - before_g)
