"""What came of two versions, and how sure the difference is."""

from __future__ import annotations

import statistics
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from scipy import stats

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.cook.measures import title_of_height
from vianda.core.cook.scores import SCALES
from vianda.core.model.styles import BLOCKS, FLAT, Form

# One chance in twenty: the usual line.
ALPHA = 0.05
FEWEST = 2
# What is compared, in its order on the page.
TITLES: Mapping[str, str] = {
    "yield": "Yield",
    "shrink": "Drew in",
    "thick": "Thickness or height, cooked",
    "near": "As wanted, of five",
    **{key: scale.title for key, scale in SCALES.items()},
}
# What is measured of a piece along its length and its height.
SIZES = ("shrink", "thick")


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


def compared(
    figures: Mapping[str, tuple[Sequence[float], Sequence[float]]], *, forms: tuple[Form, Form]
) -> tuple[ComparedFigure, ...]:
    """Figures of two versions side by side.

    Parameters
    ----------
    figures : Mapping[str, tuple[Sequence[float], Sequence[float]]]
        Of each figure of ``TITLES`` what was seen of the first and of the second version.
    forms : tuple[Form, Form]
        What each of them makes: sizes of a patty and of a loaf are shown, but no difference between them.

    Returns
    -------
    tuple[ComparedFigure, ...]
        Those that anything was seen of.

    References
    ----------
    Welch 1947: means of unequal spread, by SciPy.

    Examples
    --------
    >>> [one] = compared({"crust": ([3, 3, 4], [5, 4, 5])}, forms=("disc", "disc"))
    >>> round(one.difference, 2), one.says.text
    (1.33, 'More than chance')
    """
    shapes = {_shape(form) for form in forms}
    titles = TITLES if len(shapes) > 1 else {**TITLES, "thick": title_of_height(forms[0])}
    found = []
    for key, (a, b) in figures.items():
        if a or b:
            one = _one(key, titles[key], a, b)
            if key in SIZES and len(shapes) > 1 and a and b:
                one = replace(one, difference=None, range_of=None, says=say("Of other shapes: not compared"))
            found.append(one)
    return tuple(found)


def _shape(form: Form) -> str:
    """Forms of one shape are measured alike."""
    return "flat" if form in FLAT else "block" if form in BLOCKS else form


def _one(key: str, title: str, a: Sequence[float], b: Sequence[float]) -> ComparedFigure:
    before = statistics.fmean(a) if a else None
    after = statistics.fmean(b) if b else None
    if before is None or after is None:
        return ComparedFigure(key, title, before, after, len(a), len(b), None, None, say("Seen of one version only"))
    off = after - before
    if len(a) < FEWEST or len(b) < FEWEST:
        return ComparedFigure(
            key, title, before, after, len(a), len(b), off, None, say("One cook of a version says nothing")
        )
    if statistics.pvariance(a) == 0.0 and statistics.pvariance(b) == 0.0:
        # All alike in both: no spread to measure a difference by.
        says = say("All cooks of each version alike") if off else say("No difference")
        return ComparedFigure(key, title, before, after, len(a), len(b), off, Band(off, off, off), says)
    test = stats.ttest_ind(b, a, equal_var=False)
    span = test.confidence_interval(0.95)
    says = say("More than chance") if float(test.pvalue) < ALPHA else say("May be chance")
    return ComparedFigure(
        key, title, before, after, len(a), len(b), off, Band(float(span.low), off, float(span.high)), says
    )
