"""A fat content we only know as a range, and the sum of several of them.

Of a range low–usual–high one delivery in twenty lies below *low*, one in twenty above *high*, and *usual* is the mean:
that is what an analysis prints, and means add up, so the fat of a blend is one figure wherever it is stated. Between
them the fat follows two half normals that meet where the mean comes out so.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cache, cached_property
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from vianda.core.basis.errors import OutOfRangeError

Curve = NDArray[np.float64]

# Half of a 90 % range of a normal distribution, in standard deviations.
Z_90 = NormalDist().inv_cdf(0.95)
# Grid cells across a blend; against a draw of a million the quantiles agree within 0.05 points (tests).
CELLS = 512
# How far the grid reaches beyond the usual value, in standard deviations.
REACH = 4.0
# A milligram in a tonne carries no uncertainty.
NEGLIGIBLE_SHARE = 1e-9


# Abramowitz and Stegun, Handbook of Mathematical Functions (1964), 7.1.26: erf to 1.5e-7.
ERF_P = 0.3275911
ERF_A = (0.254829592, -0.284496736, 1.421413741, -1.453152027, 1.061405429)


def normal_cdf(z: Curve) -> Curve:
    """Φ, elementwise, to 1e-7: (1 + erf(z ÷ √2)) ÷ 2.

    By the handbook's polynomial: SciPy's own takes a second to import, and every evaluation needs this one.

    Parameters
    ----------
    z : Curve
        Standard score, shape ``(n,)`` (no unit).

    Returns
    -------
    Curve
        Φ, elementwise, to 1e-7.

    References
    ----------
    Abramowitz and Stegun (1964), 7.1.26; checked against SciPy in the tests.

    Examples
    --------
    >>> [round(float(v), 4) for v in normal_cdf(np.array([-1.6449, 0.0, 1.96]))]
    [0.05, 0.5, 0.975]
    """
    x = np.abs(z) * math.sqrt(0.5)
    t = 1.0 / (1.0 + ERF_P * x)
    polynomial = t * (ERF_A[0] + t * (ERF_A[1] + t * (ERF_A[2] + t * (ERF_A[3] + t * ERF_A[4]))))
    erf = 1.0 - polynomial * np.exp(-x * x)
    return np.asarray(0.5 * (1.0 + np.sign(z) * erf), dtype=np.float64)


# Mean of a half normal by its spread, √(2 ÷ π).
HALF_MEAN = math.sqrt(2.0 / math.pi)
# A mean nearer to one end than this, by the range, lies where no two halves of equal share bring it.
EVEN_LEAST = HALF_MEAN / (2.0 * Z_90)
BISECTIONS = 40


# Standard scores and their Φ, to read one from the other.
SCORES: Curve = np.linspace(-4.75, 4.75, 3801)
SCORE_CDF: Curve = normal_cdf(SCORES)
# Levels of a shared knife: half a standard deviation apart, a sum over them is as good as the integral.
LEVEL_REACH, LEVEL_COUNT = 4.0, 17
ONE_LEVEL: Curve = np.zeros(1)


@cache
def _levels() -> tuple[Curve, Curve]:
    """Levels of the shared knife and their weights, which sum to 1."""
    at = np.linspace(-LEVEL_REACH, LEVEL_REACH, LEVEL_COUNT)
    weight = np.exp(-0.5 * at * at)
    return at, weight / weight.sum()


def _reach(tail: float) -> float:
    """Standard deviations beyond which both tails of a normal together hold a share."""
    return NormalDist().inv_cdf(1.0 - tail / 2.0)


def _halves(low: float, usual: float, high: float) -> tuple[float, float]:
    """Where the halves meet, and the share below it, so that ends and mean come out as said."""
    width = high - low
    if width <= 0.0:
        return usual, 0.5
    place = (usual - low) / width
    if EVEN_LEAST <= place <= 1.0 - EVEN_LEAST:
        # mean = m + (σ₂ − σ₁) ÷ √(2π), with σ₁ = (m − low) ÷ z and σ₂ = (high − m) ÷ z.
        return low + width * (place - EVEN_LEAST) / (1.0 - 2.0 * EVEN_LEAST), 0.5
    # Very lopsided: one end holds more than half of the deliveries, and the other half reaches from there.
    short = min(place, 1.0 - place)

    def mean(far_share: float) -> float:
        return far_share * HALF_MEAN / _reach(0.05 / far_share)

    far_low, far_high = LEAST_FAR_SHARE, 0.5
    for _ in range(BISECTIONS):
        far = (far_low + far_high) / 2.0
        far_low, far_high = (far, far_high) if mean(far) < short else (far_low, far)
    far = (far_low + far_high) / 2.0
    return (low, 1.0 - far) if place < 0.5 else (high, far)


# The least share of deliveries on the long side; a mean still nearer to its end is not met (ours).
LEAST_FAR_SHARE = 0.12


@dataclass(frozen=True, slots=True)
class FatRange:
    """Fat by mass of raw meat, 0–1: the 5 % quantile, the mean, and the 95 % quantile.

    ``shared_frac``: correlation of this fat with the knife that trims all cuts, 0–1; two meats correlate by the product
    of theirs.
    """

    low_frac: float
    usual_frac: float
    high_frac: float
    shared_frac: float = 0.0
    _halves: tuple[float, float] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        if not 0.0 <= self.low_frac <= self.usual_frac <= self.high_frac <= 1.0:
            raise OutOfRangeError("A fat range rises from low over usual to high, all within 0 to 100 %.")
        if not 0.0 <= self.shared_frac < 1.0:
            raise OutOfRangeError("A correlation of cuts lies from 0 to below 1.")
        object.__setattr__(self, "_halves", _halves(self.low_frac, self.usual_frac, self.high_frac))

    @property
    def middle_frac(self) -> float:
        """Where the two halves meet."""
        return self._halves[0]

    @property
    def below_share(self) -> float:
        """Share of deliveries below the middle: a half, but for a very lopsided range."""
        return self._halves[1]

    @property
    def sd_below(self) -> float:
        """Spread of the lower half round the middle."""
        share = 2.0 * self.below_share
        return (self.middle_frac - self.low_frac) / _reach(0.1 / share) if share > 0.1 else 0.0

    @property
    def sd_above(self) -> float:
        """Spread of the upper half round the middle."""
        share = 2.0 * (1.0 - self.below_share)
        return (self.high_frac - self.middle_frac) / _reach(0.1 / share) if share > 0.1 else 0.0

    @property
    def sd(self) -> float:
        """Standard deviation: √(w₁ σ₁² + w₂ σ₂² − (mean − middle)²)."""
        w = self.below_share
        square = w * self.sd_below**2 + (1.0 - w) * self.sd_above**2 - (self.usual_frac - self.middle_frac) ** 2
        return math.sqrt(max(0.0, square))

    def cdf(self, at: Curve) -> Curve:
        """Chance that the fat is at or below each value.

        Parameters
        ----------
        at : Curve
            Where the distribution is asked, 0–1, shape ``(n,)``.

        Returns
        -------
        Curve
            Chance that the fat is at or below each value.
        """
        away, w = at - self.middle_frac, self.below_share
        side = np.where(away < 0, max(self.sd_below, 1e-12), max(self.sd_above, 1e-12))
        half = normal_cdf(away / side)
        return np.asarray(np.where(away < 0, 2.0 * w * half, 2.0 * (1.0 - w) * half + 2.0 * w - 1.0), dtype=np.float64)

    def cdf_at_levels(self, at: Curve, levels: Curve) -> Curve:
        """Chance that the fat is at or below each value, given how fat the knife trims that day.

        Parameters
        ----------
        at : Curve
            Where the distribution is asked, 0–1, shape ``(n,)``.
        levels : Curve
            Levels of the shared knife in standard deviations, shape ``(k,)``.

        Returns
        -------
        Curve
            Chances, shape ``(k, n)``, or ``(1, n)`` where the knife does not matter.
        """
        plain = self.cdf(at)
        if self.shared_frac == 0.0:
            return plain[None, :].copy()
        score = np.interp(plain, SCORE_CDF, SCORES)
        own = math.sqrt(1.0 - self.shared_frac**2)
        moved = normal_cdf((score[None, :] - self.shared_frac * levels[:, None]) / own)
        # Where all of the distribution is passed, all of it is passed at every level.
        return np.asarray(np.where(plain >= SCORE_CDF[-1], 1.0, np.where(plain <= SCORE_CDF[0], 0.0, moved)))


def correlated_variance(spreads: Sequence[float], shared: Sequence[float]) -> float:
    """Variance of a sum whose parts share one factor: Σ xᵢ² (1 − cᵢ²) + (Σ cᵢ xᵢ)².

    Parameters
    ----------
    spreads : Sequence[float]
        Share × standard deviation of each part, 0–1.
    shared : Sequence[float]
        Correlation of each part with the factor, 0–1.

    Returns
    -------
    float
        Variance of the sum.

    References
    ----------
    One-factor model; textbook. Exact for normal parts, near for skewed ones.

    Examples
    --------
    >>> round(correlated_variance([3.0, 4.0], [0.0, 0.0]), 6), round(correlated_variance([3.0, 4.0], [1.0, 1.0]), 6)
    (25.0, 49.0)
    """
    alone = math.fsum(x * x * (1.0 - c * c) for x, c in zip(spreads, shared, strict=True))
    return alone + math.fsum(c * x for x, c in zip(spreads, shared, strict=True)) ** 2


@dataclass(frozen=True)
class FatSpread:
    """The fat of a blend as a distribution: ``mass`` is the chance of each cell round ``at_frac``."""

    at_frac: Curve = field(repr=False)
    mass: Curve = field(repr=False)

    @cached_property
    def _edges(self) -> tuple[Curve, Curve]:
        step = float(self.at_frac[1] - self.at_frac[0])
        edges = np.concatenate(([self.at_frac[0] - step / 2], self.at_frac + step / 2))
        return edges, np.concatenate(([0.0], np.cumsum(self.mass)))

    def chance_above(self, limit_frac: float) -> float:
        """Chance 0–1 that a batch has more fat than a limit.

        Parameters
        ----------
        limit_frac : float
            The limit, 0–1.

        Returns
        -------
        float
            Chance 0–1 that a batch has more fat than a limit.
        """
        edges, below = self._edges
        # The sum of cells may pass one by float dust.
        return max(0.0, float(1.0 - np.interp(limit_frac, edges, below, left=0.0, right=1.0)))

    def chance_within(self, low_frac: float, high_frac: float) -> float:
        """Chance 0–1 that a batch lies in a band.

        Parameters
        ----------
        low_frac : float
            Lower end of the band, 0–1.
        high_frac : float
            Upper end of the band, 0–1.

        Returns
        -------
        float
            Chance 0–1 that a batch lies in a band.
        """
        return max(0.0, self.chance_above(low_frac) - self.chance_above(high_frac))

    def quantile(self, chance: float) -> float:
        """The fat below which that share of batches lies.

        Parameters
        ----------
        chance : float
            Share of batches that lie below, 0–1, ends left out.

        Returns
        -------
        float
            The fat below which that share of batches lies, 0–1.
        """
        edges, below = self._edges
        return float(min(1.0, max(0.0, np.interp(chance, below, edges))))

    def curve(self, points: int) -> tuple[tuple[float, float], ...]:
        """(fat, relative likelihood 0–1) for drawing, from the first to the last cell that matters.

        Parameters
        ----------
        points : int
            Points of the curve (count).

        Returns
        -------
        tuple[tuple[float, float], ...]
            (fat, relative likelihood 0–1) for drawing, from the first to the last cell that matters.
        """
        keep = np.nonzero(self.mass > self.mass.max() * 1e-3)[0]
        at = np.linspace(self.at_frac[keep[0]], self.at_frac[keep[-1]], points)
        height = np.interp(at, self.at_frac, self.mass) / float(self.mass.max())
        return tuple((float(a), float(h)) for a, h in zip(at, height, strict=True))


def spread_of(shares_frac: Sequence[float], ranges: Sequence[FatRange]) -> FatSpread:
    """The fat of a blend: the sum of share × fat over its meats.

    Each part is laid on a grid as the chance of each cell, and the parts are folded together by a fast Fourier
    transform. Where meats share a knife, this is done for each of its levels, and the answers are weighed together.

    Parameters
    ----------
    shares_frac : Sequence[float]
        Shares 0–1 that sum to 1.
    ranges : Sequence[FatRange]
        One a meat, in the same order.

    Returns
    -------
    FatSpread
        The fat of a blend as a distribution.

    Notes
    -----
    Correlation by a Gaussian copula with one factor (textbook): given the knife's level Z, a part's own score is normal
    round c Z with variance 1 − c². Means do not move; the spread grows. Checked against a draw in the tests.

    Examples
    --------
    >>> s = spread_of([0.5, 0.5], [FatRange(0.14, 0.19, 0.28), FatRange(0.18, 0.25, 0.36)])
    >>> 0.17 < s.quantile(0.05) < 0.22 < s.quantile(0.95) < 0.30
    True
    """
    lows = [s * max(0.0, r.middle_frac - REACH * r.sd_below) for s, r in zip(shares_frac, ranges, strict=True)]
    highs = [s * min(1.0, r.middle_frac + REACH * r.sd_above) for s, r in zip(shares_frac, ranges, strict=True)]
    low, width = math.fsum(lows), math.fsum(highs) - math.fsum(lows)
    step = max(width, 1e-6) / (CELLS - 16)
    levels, weights = _levels() if any(r.shared_frac > 0.0 for r in ranges) else (ONE_LEVEL, ONE_LEVEL + 1.0)
    total: NDArray[np.complex128] | None = None
    for share, fat, start in zip(shares_frac, ranges, lows, strict=True):
        if share < NEGLIGIBLE_SHARE or fat.low_frac == fat.high_frac:
            # A meat that is known exactly, or is hardly there, only moves the others.
            low += share * fat.usual_frac - start
            continue
        edges = np.clip((start + (np.arange(CELLS + 1) - 0.5) * step) / share, 0.0, 1.0)
        below = fat.cdf_at_levels(edges, levels)
        below[:, 0], below[:, -1] = 0.0, 1.0
        cells = np.diff(below, axis=1)
        # What lies beyond zero or beyond all fat is piled on the last real cell.
        transformed = np.fft.rfft(cells, 2 * CELLS, axis=1)
        total = transformed if total is None else total * transformed
    if total is None:
        return FatSpread(np.array([low - step, low, low + step]), np.array([0.0, 1.0, 0.0]))
    folded = np.fft.irfft(weights @ np.broadcast_to(total, (len(weights), CELLS + 1)), 2 * CELLS)[:CELLS]
    mass: Curve = np.asarray(np.clip(folded, 0.0, None), dtype=np.float64)
    at: Curve = np.asarray(low + np.arange(CELLS) * step, dtype=np.float64)
    return FatSpread(at, mass / float(mass.sum()))
