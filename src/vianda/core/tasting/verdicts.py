"""What the answers of a tasting say, exactly, and what so few tasters could have found at all."""

from __future__ import annotations

import math
from bisect import bisect_left
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import permutations

import numpy as np
from scipy import stats

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say

# One chance in twenty of calling a difference that is none; four in five of finding one that is there: the usual lines.
ALPHA, POWER = 0.05, 0.80
BY_CHANCE = 1.0 / 3.0
# Rank sums are counted out exactly up to so many, else by the chi-squared approximation.
MOST_STATES = 60_000
SIMULATED = 2000
# Further apart than four spreads nothing is looked for, in tenths.
FURTHEST_TENTHS = 40


@dataclass(frozen=True, slots=True)
class TastingVerdict:
    """What the answers say.

    Attributes
    ----------
    p_value : float
        Chance of answers at least as far from chance, where there is no difference, 0–1.
    found : bool
        Whether that is below one in twenty.
    smallest : float | None
        The smallest difference that so many tasters find in four of five tastings: of a triangle the share who really
        taste it, of a preference the share who prefer it, of a ranking steps of one spread of taste between the best
        and the worst. None where not even the largest is found.
    says, says_power : Phrase
        In words: what it says, and what it could have found.
    """

    p_value: float
    found: bool
    smallest: float | None
    says: Phrase
    says_power: Phrase


def triangle_verdict(right: int, tasters: int) -> TastingVerdict:
    """Whether the odd sample was found more often than by guessing.

    Parameters
    ----------
    right : int
        How many named the odd one (count).
    tasters : int
        How many tasted, 1 or more (count).

    Returns
    -------
    TastingVerdict
        One-sided, by the binomial distribution with a third.

    Raises
    ------
    OutOfRangeError
        More right answers than tasters, or none who tasted.

    References
    ----------
    ISO 4120 and Roessler et al. 1978: 9 of 15 are needed at one in twenty, 5 of 7, 7 of 11 (from memory; checked).

    Examples
    --------
    >>> triangle_verdict(9, 15).found, triangle_verdict(8, 15).found
    (True, False)
    """
    _check(right, tasters)
    p = float(stats.binom.sf(right - 1, tasters, BY_CHANCE))
    smallest = _smallest(tasters, lambda share: share + (1 - share) * BY_CHANCE, BY_CHANCE, sides=1)
    said = say(
        "{right} of {all} named the odd one; guessing names it in one of three",
        right=ph.count(right),
        all=ph.count(tasters),
    )
    says = _joined(said, "The difference is tasted" if p < ALPHA else "No difference was shown")
    return TastingVerdict(p, p < ALPHA, smallest, says, _power_of(smallest, tasters, "really taste it"))


def paired_verdict(first: int, tasters: int) -> TastingVerdict:
    """Whether one of two is preferred.

    Parameters
    ----------
    first : int
        How many preferred the first version (count).
    tasters : int
        How many chose, 1 or more (count).

    Returns
    -------
    TastingVerdict
        Two-sided, by the binomial distribution with a half.

    Raises
    ------
    OutOfRangeError
        More than tasted, or none who tasted.

    References
    ----------
    The sign test; ISO 5495 (from memory): 12 of 15 are needed at one in twenty, two-sided.

    Examples
    --------
    >>> paired_verdict(12, 15).found, paired_verdict(11, 15).found
    (True, False)
    """
    _check(first, tasters)
    p = float(stats.binomtest(first, tasters, 0.5).pvalue)
    smallest = _smallest(tasters, lambda share: share, 0.5, sides=2)
    more = max(first, tasters - first)
    said = say("{more} of {all} prefer the same one", more=ph.count(more), all=ph.count(tasters))
    says = _joined(said, "That is more than chance" if p < ALPHA else "That may be chance")
    return TastingVerdict(p, p < ALPHA, smallest, says, _power_of(smallest, tasters, "prefer the same one"))


def ranking_verdict(ranks: Sequence[Sequence[int]]) -> TastingVerdict:
    """Whether some versions are ranked before others.

    Parameters
    ----------
    ranks : Sequence[Sequence[int]]
        One a taster: the rank of each version, 1 the best; no ties.

    Returns
    -------
    TastingVerdict
        By Friedman's statistic; exact where it can be counted out.

    Raises
    ------
    OutOfRangeError
        Ranks that are not each of 1 to their number once.

    References
    ----------
    Friedman 1937; Hollander & Wolfe, Nonparametric Statistical Methods, table A.22 (from memory; checked).

    Examples
    --------
    >>> round(ranking_verdict([(1, 2, 3)] * 3).p_value, 4)
    0.0278
    """
    if not ranks:
        raise OutOfRangeError("Nobody ranked them.", field="/answers")
    versions = len(ranks[0])
    for n, row in enumerate(ranks):
        if sorted(row) != list(range(1, versions + 1)):
            raise OutOfRangeError(f"Each of 1 to {versions} once.", field=f"/answers/{n}")
    sums = [sum(row[v] for row in ranks) for v in range(versions)]
    q = friedman(sums, len(ranks))
    p = friedman_p(q, versions=versions, tasters=len(ranks))
    smallest = _smallest_ranked(len(ranks), versions)
    said = say("Friedman’s statistic is {q}, from {n} tasters", q=ph.number(q), n=ph.count(len(ranks)))
    says = _joined(said, "They are not ranked alike" if p < ALPHA else "No order was shown")
    if smallest is None:
        power = say("So few tasters cannot find even a very large difference")
    else:
        power = say(
            "{n} tasters find it in four of five tastings when best and worst lie {d} spreads of taste apart",
            n=ph.count(len(ranks)),
            d=ph.number(smallest),
        )
    return TastingVerdict(p, p < ALPHA, smallest, says, power)


def friedman(rank_sums: Sequence[int], tasters: int) -> float:
    """Friedman's statistic: 12 Σ R² ÷ (n k (k + 1)) − 3 n (k + 1).

    Parameters
    ----------
    rank_sums : Sequence[int]
        Sum of the ranks of each version.
    tasters : int
        How many ranked, 1 or more (count).

    Returns
    -------
    float
        0 where all are ranked alike.

    References
    ----------
    Friedman 1937.

    Examples
    --------
    >>> friedman([3, 6, 9], 3)
    6.0
    """
    k, n = len(rank_sums), tasters
    return 12.0 * sum(r * r for r in rank_sums) / (n * k * (k + 1)) - 3.0 * n * (k + 1)


def friedman_p(statistic: float, *, versions: int, tasters: int) -> float:
    """Chance of a statistic as large where all are alike.

    Parameters
    ----------
    statistic : float
        Friedman's, 0 or more.
    versions : int
        How many were ranked, 2 or more (count).
    tasters : int
        How many ranked, 1 or more (count).

    Returns
    -------
    float
        Counted out over all orders where there are few enough sums of ranks, else by chi-squared, 0–1.
    """
    exact = _statistics(versions, tasters)
    if exact is None:
        return float(stats.chi2.sf(statistic, versions - 1))
    return math.fsum(chance for q, chance in exact.items() if q >= statistic - 1e-9)


def _statistics(versions: int, tasters: int) -> dict[float, float] | None:
    """Every value of the statistic with its chance; None where there are too many sums of ranks."""
    orders = list(permutations(range(1, versions + 1)))
    # All is alike under a new naming of the versions: sums are kept sorted, and the first taster's order is fixed.
    states: Counter[tuple[int, ...]] = Counter({orders[0]: 1})
    for _ in range(tasters - 1):
        following: Counter[tuple[int, ...]] = Counter()
        for sums, count in states.items():
            for order in orders:
                following[tuple(sorted(a + b for a, b in zip(sums, order, strict=True)))] += count
        if len(following) * len(orders) > MOST_STATES:
            return None
        states = following
    whole = sum(states.values())
    found: dict[float, float] = {}
    for sums, count in states.items():
        q = round(friedman(sums, tasters), 9)
        found[q] = found.get(q, 0.0) + count / whole
    return found


def critical_count(tasters: int, chance: float, *, sides: int) -> int | None:
    """How many of so many are needed for a verdict.

    Parameters
    ----------
    tasters : int
        How many, 1 or more (count).
    chance : float
        Of each by guessing, 0–1.
    sides : int
        1 or 2 (count): whether too few count as well.

    Returns
    -------
    int | None
        The least count; None where not even all are enough.

    Examples
    --------
    >>> critical_count(15, 1 / 3, sides=1), critical_count(15, 0.5, sides=2), critical_count(3, 0.5, sides=2)
    (9, 12, None)
    """
    for needed in range(tasters + 1):
        if float(stats.binom.sf(needed - 1, tasters, chance)) * sides < ALPHA:
            return needed
    return None


def _smallest(tasters: int, right_of: Callable[[float], float], chance: float, *, sides: int) -> float | None:
    """The smallest share that is found in four of five tastings, to the nearest hundredth."""
    needed = critical_count(tasters, chance, sides=sides)
    if needed is None:
        return None
    start = 50 if sides == 2 else 0
    for percent in range(start, 101):
        right = right_of(percent / 100)
        found = float(stats.binom.sf(needed - 1, tasters, right))
        if sides == 2:
            found += float(stats.binom.cdf(tasters - needed, tasters, right))
        if found >= POWER:
            return percent / 100
    return None


def _smallest_ranked(tasters: int, versions: int) -> float | None:
    """How far best and worst must lie apart, in spreads of taste, to be found in four of five: simulated, seeded."""
    rng = np.random.default_rng(20_000 + 100 * versions + tasters)
    # Every taster's liking of every version, without what really sets them apart.
    chance = rng.normal(size=(SIMULATED, tasters, versions))
    critical = _critical_statistic(versions, tasters)
    if critical is None:
        return None

    def found(tenths: int) -> bool:
        apart = np.linspace(0.0, tenths / 10.0, versions)
        ranks = np.argsort(np.argsort(chance + apart, axis=2), axis=2) + 1
        sums = ranks.sum(axis=1)
        q = 12.0 * (sums**2).sum(axis=1) / (tasters * versions * (versions + 1)) - 3.0 * tasters * (versions + 1)
        return float(np.mean(q >= critical - 1e-9)) >= POWER

    if not found(FURTHEST_TENTHS):
        return None
    return bisect_left(range(FURTHEST_TENTHS), True, lo=1, key=found) / 10.0


def _critical_statistic(versions: int, tasters: int) -> float | None:
    exact = _statistics(versions, tasters)
    if exact is None:
        return float(stats.chi2.isf(ALPHA, versions - 1))
    tail, least = 0.0, None
    for q in sorted(exact, reverse=True):
        tail += exact[q]
        if tail >= ALPHA:
            break
        least = q
    return least


def _check(count: int, tasters: int) -> None:
    if tasters < 1:
        raise OutOfRangeError("Nobody tasted.", field="/answers")
    if not 0 <= count <= tasters:
        raise OutOfRangeError("More answers than tasters.", field="/answers")


def _joined(said: Phrase, verdict: str) -> Phrase:
    return Phrase(f"{verdict}. {said.text}.", said.amounts)


def _power_of(smallest: float | None, tasters: int, who: str) -> Phrase:
    if smallest is None:
        return say("So few tasters cannot find even a difference that everybody tastes")
    return say(
        f"{{n}} tasters find it in four of five tastings when {{share}} of people {who}",
        n=ph.count(tasters),
        share=ph.frac(smallest),
    )
