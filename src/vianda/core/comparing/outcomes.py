"""What came of two versions, and how sure the difference is."""

from __future__ import annotations

import statistics
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from scipy import stats

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.cook.scores import SCALES

# One chance in twenty: the usual line.
ALPHA = 0.05
FEWEST = 2
# What is compared, in its order on the page.
TITLES: Mapping[str, str] = {
    "yield": "Yield",
    "shrink": "Drew in",
    "thick": "Thickness, cooked",
    "near": "As wanted, of five",
    **{key: scale.title for key, scale in SCALES.items()},
}


@dataclass(frozen=True, slots=True)
class ComparedFigure:
    """One figure of two versions: means, how many cooks, and the difference with the range it lies in (95 %).

    ``difference`` is after less before; ``range_of`` None: too few cooks to say.
    """

    key: str
    title: str
    before: float | None
    after: float | None
    before_cooks: int
    after_cooks: int
    difference: float | None
    range_of: Band | None
    says: Phrase


def compared(figures: Mapping[str, tuple[Sequence[float], Sequence[float]]]) -> tuple[ComparedFigure, ...]:
    """Figures of two versions side by side.

    Parameters
    ----------
    figures : Mapping[str, tuple[Sequence[float], Sequence[float]]]
        Of each figure of ``TITLES`` what was seen of the first and of the second version.

    Returns
    -------
    tuple[ComparedFigure, ...]
        Those that anything was seen of.

    References
    ----------
    Welch 1947: means of unequal spread, by SciPy.

    Examples
    --------
    >>> [one] = compared({"crust": ([3, 3, 4], [5, 4, 5])})
    >>> round(one.difference, 2), one.says.text
    (1.33, 'More than chance')
    """
    return tuple(_one(key, a, b) for key, (a, b) in figures.items() if a or b)


def _one(key: str, a: Sequence[float], b: Sequence[float]) -> ComparedFigure:
    before = statistics.fmean(a) if a else None
    after = statistics.fmean(b) if b else None
    if before is None or after is None:
        return ComparedFigure(
            key, TITLES[key], before, after, len(a), len(b), None, None, say("Seen of one version only")
        )
    off = after - before
    if len(a) < FEWEST or len(b) < FEWEST:
        return ComparedFigure(
            key, TITLES[key], before, after, len(a), len(b), off, None, say("One cook of a version says nothing")
        )
    if statistics.pvariance(a) == 0.0 and statistics.pvariance(b) == 0.0:
        # All alike in both: no spread to measure a difference by.
        says = say("All cooks of each version alike") if off else say("No difference")
        return ComparedFigure(key, TITLES[key], before, after, len(a), len(b), off, Band(off, off, off), says)
    test = stats.ttest_ind(b, a, equal_var=False)
    span = test.confidence_interval(0.95)
    says = say("More than chance") if float(test.pvalue) < ALPHA else say("May be chance")
    return ComparedFigure(
        key, TITLES[key], before, after, len(a), len(b), off, Band(float(span.low), off, float(span.high)), says
    )
