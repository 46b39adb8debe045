"""How scores follow levers: a small Bayesian linear model, one a score, with the table of faults as its prior."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vianda.core.cook.scores import ScoreKey
from vianda.core.improving.levers import Lever, LeverKey, prior_slope
from vianda.core.model.styles import Form

Array = NDArray[np.floating[Any]]
# Standard deviations in points: of one score given by one person of one batch; of what a design scores before it was
# ever cooked, about the middle; of a slope besides half of itself. Ours.
SCORE_SD, DESIGN_MEAN, DESIGN_SD = 0.7, 3.0, 1.5
SLOPE_SD, SLOPE_SHARE = 0.3, 0.5


@dataclass(frozen=True, slots=True)
class ScoredCook:
    """A cook that was scored: where its levers stood, and its scores, 1 to 5."""

    levers: Mapping[LeverKey, float]
    scores: Mapping[ScoreKey, float]


@dataclass(frozen=True)
class ScoreModel:
    """What is known of one score: of the design asked about first, then of a step of each lever.

    ``mean`` and ``cov`` are of both together, points; ``prior`` is the mean before any cook; ``cooks``: how many
    counted.
    """

    mean: Array
    cov: Array
    prior: Array
    cooks: int


def score_model(
    score: ScoreKey, levers: Sequence[Lever], base: Mapping[LeverKey, float], cooks: Sequence[ScoredCook], *, form: Form
) -> ScoreModel:
    """What is known of a score after the cooks.

    Parameters
    ----------
    score : ScoreKey
        What is scored.
    levers : Sequence[Lever]
        What may be changed.
    base : Mapping[LeverKey, float]
        Where the levers of the design stand that is asked about.
    cooks : Sequence[ScoredCook]
        Cooks; those without this score do not count.
    form : Form
        Form of the piece.

    Returns
    -------
    ScoreModel
        Normal, in closed form.

    References
    ----------
    Bayesian linear regression with a known variance; textbook. Its prior is the table of faults; spreads are ours.
    """
    mine = [c for c in cooks if score in c.scores]
    slopes = np.array([prior_slope(lever, score, form) for lever in levers])
    prior = np.concatenate([[DESIGN_MEAN], slopes])
    sds = np.concatenate([[DESIGN_SD], SLOPE_SD + SLOPE_SHARE * np.abs(slopes)])
    precision = np.diag(1.0 / sds**2)
    pull = precision @ prior
    for cook in mine:
        x = np.array([1.0, *((cook.levers[lever.key] - base[lever.key]) / lever.step for lever in levers)])
        precision = precision + np.outer(x, x) / SCORE_SD**2
        pull = pull + x * cook.scores[score] / SCORE_SD**2
    cov = np.linalg.inv(precision)
    return ScoreModel(cov @ pull, cov, prior, len(mine))


def squared_gain(model: ScoreModel, lever_at: int, steps: float, wanted: float) -> tuple[float, float]:
    """How much nearer to where it is wanted a score comes, squared points: expected, and its variance.

    Parameters
    ----------
    model : ScoreModel
        What is known of the score.
    lever_at : int
        Which lever is moved (count).
    steps : float
        Steps it is moved by (no unit).
    wanted : float
        Where the score is wanted, 1–5 (no unit).

    Returns
    -------
    tuple[float, float]
        Mean and variance of (y − wanted)² − (y + steps × slope − wanted)²; above 0 where it comes nearer.

    References
    ----------
    Moments of a quadratic form of two normal quantities, exact; textbook.
    """
    at = 1 + lever_at
    m = np.array([model.mean[0] - wanted, model.mean[at] * steps])
    s = model.cov[np.ix_([0, at], [0, at])] * np.outer([1.0, steps], [1.0, steps])
    # u² − (u + v)² = −2uv − v² = z'Az
    a = np.array([[0.0, -1.0], [-1.0, -1.0]])
    mean = float(np.trace(a @ s) + m @ a @ m)
    variance = float(2.0 * np.trace(a @ s @ a @ s) + 4.0 * m @ a @ s @ a @ m)
    return mean, max(0.0, variance)
