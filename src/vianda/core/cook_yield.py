"""What the heat leaves: cooked mass and cooked diameter, as ranges.

Yield by fat: USDA food-yield guidance for drained ground beef (from memory, medium-high confidence): 0.76 up
to 10 % fat, 0.75 at 15, 0.74 at 20, 0.70 at 30. SR28's own "yield from" weights for patties and loaves lie
at 0.61 to 0.73, up to a tenth lower at the same fat: end point and method decide, so the range reaches down.
Diameter: common practice (loses 10–30 % by fat), laid linearly over 10 to 30 % fat; no published source.
"""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

from vianda.core.errors import OutOfRangeError

YIELD_POINTS = ((0.10, 0.76), (0.15, 0.75), (0.20, 0.74), (0.30, 0.70))
YIELD_BELOW, YIELD_ABOVE = 0.10, 0.03
# What a panade and egg hold back: ours (common practice says that they do, no published source says how much).
BINDER_GAIN, BINDER_MOST = 0.4, 0.08
SHRINK_POINTS = ((0.10, 0.12), (0.30, 0.25))
SHRINK_DOUBT = 0.05


@dataclass(frozen=True, slots=True)
class Band:
    """A usual value with its range."""

    low: float
    usual: float
    high: float


def along(points: tuple[tuple[float, float], ...], x: float) -> float:
    """Straight lines between points; beyond the ends the last line runs on.

    Examples
    --------
    >>> along(((0.0, 0.0), (1.0, 10.0)), 1.5)
    15.0
    """
    if len(points) == 1:
        return points[0][1]
    pairs = list(pairwise(points))
    (x0, y0), (x1, y1) = next((p for p in pairs if x <= p[1][0]), pairs[-1])
    return y0 + (y1 - y0) * (x - x0) / (x1 - x0)


def cooked_yield_frac(fat_frac: float, *, binder_frac: float = 0.0) -> Band:
    """Cooked mass by raw mass for the fat fraction 0–1 of a mix (beef, drained).

    ``binder_frac``: crumb, bread, starch and egg by mass of the meat; it holds juice, so the yield rises with it.

    Raises
    ------
    OutOfRangeError
        Above 60 % fat, where no table reaches.

    Examples
    --------
    >>> cooked_yield_frac(0.20).usual
    0.74
    """
    if not 0.0 <= fat_frac <= 0.60:
        raise OutOfRangeError(
            f"No yield is known for {fat_frac * 100:.0f} % fat; the table serves 0 to 60 %.", field="/parts"
        )
    usual = YIELD_POINTS[0][1] if fat_frac <= YIELD_POINTS[0][0] else along(YIELD_POINTS, fat_frac)
    usual += min(BINDER_MOST, BINDER_GAIN * binder_frac)
    return Band(usual - YIELD_BELOW, usual, usual + YIELD_ABOVE)


def diameter_shrink_frac(fat_frac: float) -> Band:
    """Share of the raw diameter that is lost in the heat, for a fat fraction 0–1.

    Examples
    --------
    >>> round(diameter_shrink_frac(0.20).usual, 3)
    0.185
    """
    if not 0.0 <= fat_frac <= 0.60:
        raise OutOfRangeError(
            f"No shrink is known for {fat_frac * 100:.0f} % fat; the rule serves 0 to 60 %.", field="/parts"
        )
    usual = along(SHRINK_POINTS, fat_frac)
    return Band(usual - SHRINK_DOUBT, usual, usual + SHRINK_DOUBT)
