"""A control chart of single readings: mean, limits from the moving range, and the rules that call for a look."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Rule = Literal["beyond-3s", "2-of-3-beyond-2s", "4-of-5-beyond-1s", "8-on-one-side", "6-in-a-row-rising-or-falling"]

# Mean range of two in sigmas of a normal distribution: d2 = 2 ÷ √π.
D2 = 2.0 / math.sqrt(math.pi)
# With fewer the limits mean nothing yet: ours.
FEWEST = 5
# A spread below half a count of the scale cannot be told from its rounding: ours.
COARSE = 0.5


@dataclass(frozen=True, slots=True)
class Broken:
    """A rule broken at a reading (index from 0)."""

    rule: Rule
    at: int


@dataclass(frozen=True, slots=True)
class ControlChart:
    """Mean, spread and limits in g; None while there are too few readings.

    ``sd_g`` is the sample's own; ``sigma_g`` is the moving range's, mean |xᵢ − xᵢ₋₁| ÷ d₂, which a drift
    does not widen.
    """

    mean_g: float | None
    sd_g: float | None
    sigma_g: float | None
    upper_g: float | None
    lower_g: float | None
    broken: tuple[Broken, ...]


def control_chart(readings_g: Sequence[float], *, step_g: float = 0.0) -> ControlChart:
    """The chart of readings in the order they were taken.

    ``step_g`` is what the scale counts in: σ is never taken below half of it, since readings that differ by one count
    say nothing of the pieces.

    Limits: mean ± 3 σ with σ = mean moving range ÷ 1.128 (NIST/SEMATECH e-Handbook 6.3.2.2). Rules: the four of the
    Western Electric handbook (1956), and six in a row rising or falling (Nelson 1984).

    Parameters
    ----------
    readings_g : Sequence[float]
        Weights in the order they were taken, g.
    step_g : float, default 0.0
        Step of the scale, g, above 0.

    Returns
    -------
    ControlChart
        Mean, spread and limits in g.

    Examples
    --------
    >>> c = control_chart([49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1])
    >>> round(c.mean_g, 2), round(c.upper_g, 2), round(c.lower_g, 2), c.broken
    (50.81, 55.8, 45.82, ())
    """
    n = len(readings_g)
    if n == 0:
        return ControlChart(None, None, None, None, None, ())
    mean = math.fsum(readings_g) / n
    sd = math.sqrt(math.fsum((x - mean) ** 2 for x in readings_g) / (n - 1)) if n > 1 else None
    if n < FEWEST:
        return ControlChart(mean, sd, None, None, None, ())
    ranges = [abs(b - a) for a, b in itertools.pairwise(readings_g)]
    sigma = max(math.fsum(ranges) / len(ranges) / D2, COARSE * step_g)
    broken = (
        _broken([(x - mean) / sigma for x in readings_g], readings_g, count_z=COARSE * step_g / sigma)
        if sigma > 0
        else ()
    )
    return ControlChart(mean, sd, sigma, mean + 3 * sigma, mean - 3 * sigma, broken)


def _broken(z: Sequence[float], x: Sequence[float], *, count_z: float) -> tuple[Broken, ...]:
    """``count_z`` is half a count of the scale: what lies nearer to the mean lies on no side of it."""
    found: list[Broken] = []
    for at in range(len(z)):
        if abs(z[at]) > 3:
            found.append(Broken("beyond-3s", at))
        if _many(z, at, of=3, needed=2, beyond=2):
            found.append(Broken("2-of-3-beyond-2s", at))
        if _many(z, at, of=5, needed=4, beyond=1):
            found.append(Broken("4-of-5-beyond-1s", at))
        eight = z[max(0, at - 7) : at + 1]
        if len(eight) == 8 and (all(v > count_z for v in eight) or all(v < -count_z for v in eight)):
            found.append(Broken("8-on-one-side", at))
        if at >= 5:
            steps = [b - a for a, b in zip(x[at - 5 : at], x[at - 4 : at + 1], strict=True)]
            if all(s > 0 for s in steps) or all(s < 0 for s in steps):
                found.append(Broken("6-in-a-row-rising-or-falling", at))
    return tuple(found)


def _many(z: Sequence[float], at: int, *, of: int, needed: int, beyond: float) -> bool:
    """Whether the newest lies beyond, and with it enough of the last few on its side."""
    if abs(z[at]) <= beyond:
        return False
    lately, side = z[max(0, at - of + 1) : at + 1], 1 if z[at] > 0 else -1
    return sum(1 for v in lately if v * side > beyond) >= needed
