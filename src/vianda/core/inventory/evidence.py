"""What is known of one delivery's fat, and what it does to the range of its meat: a Bayesian update.

Prior: the range of the meat, as two half normals; one delivery in fifty is taken to be not what its name says
(any fat at all). Evidence: a normal error round the figure told or measured. Both on a grid of a tenth of a point.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from annotated_types import Ge, Le

from vianda.core.basis import phrase as ph
from vianda.core.basis.bounds import Share, ShortText
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import say
from vianda.core.basis.working import Working
from vianda.core.inventory.fat_range import Z_90, FatRange

EvidenceKind = Literal["label", "butcher", "fat-test", "laboratory"]

# Standard errors in points of fat (fraction). A label's claim holds to about two points nine times in ten, a
# butcher's word to about five, a laboratory's analysis to under one. Our estimates, no published source.
SD_FRAC: dict[EvidenceKind, float] = {"label": 0.012, "butcher": 0.03, "laboratory": 0.005}
# What measures a delivery, where the rest only says something of it.
MEASURED: tuple[EvidenceKind, ...] = ("fat-test", "laboratory")
# A kitchen fat test brings its own error; this is the usual one, for saying beforehand what a test would gain.
USUAL_TEST_SD_FRAC = 0.024
# Deliveries that are not what their name says (ours).
MISNAMED_FRAC = 0.02
GRID = 1001
# Evidence this many standard errors from the meat's range is a disagreement worth a word (ours).
FAR = 3.0

KIND_NAMES: dict[EvidenceKind, str] = {
    "label": "Label",
    "butcher": "Butcher's word",
    "fat-test": "Fat test",
    "laboratory": "Laboratory",
}
ROUGHNESS: dict[EvidenceKind, str] = {
    "label": "A label is a claim about the whole lot: right to about two points, nine times in ten.",
    "butcher": "A butcher's word is an eye's judgement: right to about five points, nine times in ten.",
    "fat-test": "A kitchen fat test is as good as its scale, its sample and its draining: about four points, nine "
    "times in ten.",
    "laboratory": "A laboratory's analysis: right to under a point, if the sample was mixed well.",
}


@dataclass(frozen=True, slots=True)
class Evidence:
    """One thing known about a delivery: fat 0–1 and its standard error; ``detail`` says how it came about."""

    kind: EvidenceKind
    fat_frac: Share
    sd_frac: Annotated[float, Ge(0.001), Le(0.2)]
    detail: ShortText = ""

    def __post_init__(self) -> None:
        if not (math.isfinite(self.fat_frac) and 0.0 <= self.fat_frac <= 1.0):
            raise OutOfRangeError("Fat lies between 0 and 100 % of the meat.", field="/fat_frac")
        if not (math.isfinite(self.sd_frac) and 0.001 <= self.sd_frac <= 0.2):
            raise OutOfRangeError("The error of a fat figure lies between 0.1 and 20 points.", field="/sd_frac")


def evidence_of(kind: EvidenceKind, fat_frac: float, *, detail: str = "") -> Evidence:
    """Evidence of a kind whose error is the usual one for it.

    Parameters
    ----------
    kind : EvidenceKind
        Which kind.
    fat_frac : float
        Fat by mass, 0–1.
    detail : str, default ''
        How it came about.

    Returns
    -------
    Evidence
        One thing known about a delivery.
    """
    return Evidence(kind, fat_frac, SD_FRAC.get(kind, USUAL_TEST_SD_FRAC), detail)


def updated(prior: FatRange, evidence: Sequence[Evidence], *, misnamed_frac: float = MISNAMED_FRAC) -> FatRange:
    """The range of a delivery after its evidence: prior × likelihood, and its 5, 50 and 95 % quantiles.

    Parameters
    ----------
    prior : FatRange
        The range of fat before this evidence.
    evidence : Sequence[Evidence]
        What is known of the delivery, oldest first.
    misnamed_frac : float, default MISNAMED_FRAC
        Share of deliveries taken as misnamed, 0–1.

    Returns
    -------
    FatRange
        Fat by mass of raw meat, 0–1.

    Examples
    --------
    A label of 20 % narrows unknown mince from 5–30 % to about two points either way:

    >>> r = updated(FatRange(0.05, 0.20, 0.30), [evidence_of("label", 0.20)])
    >>> round(r.low_frac, 2), round(r.usual_frac, 2), round(r.high_frac, 2)
    (0.18, 0.2, 0.22)
    """
    # The same thing entered twice is known once.
    return _updated(prior, tuple(dict.fromkeys(evidence)), misnamed_frac) if evidence else prior


def _updated(prior: FatRange, evidence: tuple[Evidence, ...], misnamed_frac: float) -> FatRange:
    """The grid itself; one formula asks for the same lot several times."""
    at = np.linspace(0.0, 1.0, GRID)
    below, above = max(prior.sd_below, 1e-4), max(prior.sd_above, 1e-4)
    under = at < prior.middle_frac
    side = np.where(under, below, above)
    # Each half holds its share of the chance, so its density is divided by its own width.
    held = 2.0 * np.where(under, prior.below_share, 1.0 - prior.below_share)
    density = held * np.exp(-0.5 * ((at - prior.middle_frac) / side) ** 2) / side / math.sqrt(2.0 * math.pi)
    log = np.log((1.0 - misnamed_frac) * density + misnamed_frac + 1e-300)
    for found in evidence:
        log = log - 0.5 * ((at - found.fat_frac) / found.sd_frac) ** 2
    weight = np.exp(log - log.max())
    grown = np.concatenate(([0.0], np.cumsum((weight[1:] + weight[:-1]) / 2.0)))
    low, high = (float(v) for v in np.interp([0.05, 0.95], grown / grown[-1], at))
    # Rounded, so that the order of the findings leaves nothing.
    mean = round(float((weight * at).sum() / weight.sum()), 12)
    return FatRange(low, min(high, max(low, mean)), high)


def disagrees(prior: FatRange, evidence: Evidence) -> bool:
    """Whether a figure lies so far from the meat's range that weighing, label or box should be looked at again.

    Parameters
    ----------
    prior : FatRange
        The range of fat before this evidence.
    evidence : Evidence
        One thing known of the delivery.

    Returns
    -------
    bool
        Whether a figure lies so far from the meat's range that weighing, label or box should be looked at again.
    """
    side = prior.sd_below if evidence.fat_frac < prior.middle_frac else prior.sd_above
    return abs(evidence.fat_frac - prior.middle_frac) > FAR * math.hypot(side, evidence.sd_frac)


def width_after_test(fat: FatRange, *, test_sd_frac: float = USUAL_TEST_SD_FRAC) -> float:
    """Half width of the 90 % range that one kitchen fat test would leave, on average.

    Precisions add: 1/σ² = 1/σ₀² + 1/σₜ². Returned as a fraction.

    Parameters
    ----------
    fat : FatRange
        The range of fat.
    test_sd_frac : float, default USUAL_TEST_SD_FRAC
        Standard deviation of the kitchen fat test, 0–1.

    Returns
    -------
    float
        Half width of the 90 % range that one kitchen fat test would leave, on average.
    """
    if fat.sd == 0.0:
        return 0.0
    return Z_90 / math.sqrt(1.0 / fat.sd**2 + 1.0 / test_sd_frac**2)


def update_working(prior: FatRange, evidence: Sequence[Evidence]) -> Working:
    """How the evidence on a delivery narrows its range: precisions and weights, then the grid's own answer.

    Parameters
    ----------
    prior : FatRange
        The range of fat before this evidence.
    evidence : Sequence[Evidence]
        What is known of the delivery, oldest first.

    Returns
    -------
    Working
        How one figure came about.
    """
    steps = [
        say(
            "By its name {usual} fat, one standard error {sd}: weight 1 ÷ ({sd})² = {w}",
            usual=ph.fine_frac(prior.usual_frac),
            sd=ph.fine_frac(prior.sd),
            w=ph.number(_weight(prior.sd)),
        )
    ]
    for found in evidence:
        steps.append(
            say(
                "{kind}: {fat} ± {sd}, weight {w}",
                kind=ph.word(KIND_NAMES[found.kind]),
                fat=ph.fine_frac(found.fat_frac),
                sd=ph.fine_frac(found.sd_frac),
                w=ph.number(_weight(found.sd_frac)),
            )
        )
    weights = [_weight(prior.sd), *(_weight(e.sd_frac) for e in evidence)]
    fats = [prior.usual_frac, *(e.fat_frac for e in evidence)]
    mean = math.fsum(w * f for w, f in zip(weights, fats, strict=True)) / math.fsum(weights)
    after = updated(prior, evidence)
    steps += [
        say(
            "Weighed together {mean}, one standard error 1 ÷ √{w} = {sd}",
            mean=ph.fine_frac(mean),
            w=ph.number(math.fsum(weights)),
            sd=ph.fine_frac(0.01 / math.sqrt(math.fsum(weights))),
        ),
        say(
            "With the skew of the range, and one delivery in fifty not what its name says: {usual}, nine times in "
            "ten {band}",
            usual=ph.fine_frac(after.usual_frac),
            band=ph.fine_frac(after.low_frac, after.high_frac),
        ),
    ]
    return Working("What is in it", tuple(steps), "Bayes' rule. Errors of labels, words and tests: our estimates.")


def _weight(sd_frac: float) -> float:
    """Precision in 1 ÷ points², so that the figures are small."""
    return 1.0 / max(sd_frac * 100.0, 0.05) ** 2
