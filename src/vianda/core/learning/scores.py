"""How good the forecasts were: what was foretold before each cook beside what came, with and without what was learnt.

Each forecast is made again from what was known before that cook alone.
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass, replace

from scipy.stats import binomtest

from vianda.core.basis.band import Band
from vianda.core.learning.effects import P90
from vianda.core.learning.figures import FIGURES, LearntFigure, Observation
from vianda.core.learning.learnt import counted, effects_of, error_sd, fitted, prior_of


@dataclass(frozen=True, slots=True)
class ForecastScore:
    """How good the forecasts of a figure were.

    Attributes
    ----------
    cooks : int
        How many observations are scored.
    held_frac : Band
        Share of them inside the band of eight in ten, 0–1, with its own uncertainty (95 %).
    plan_held_frac : float
        Share inside the range that the plan itself showed, 0–1.
    off_frac, plan_off_frac : float
        Half of the forecasts were off by less than this, with what was learnt and without.
    """

    figure: LearntFigure
    title: str
    cooks: int
    held_frac: Band
    plan_held_frac: float
    off_frac: float
    plan_off_frac: float


@dataclass(frozen=True, slots=True)
class Foretold:
    """One forecast made from what was known before: off by so much in logarithms, and how sure it was."""

    observation: Observation
    off: float
    sd: float

    @property
    def held(self) -> bool:
        """Whether it came within the band of eight in ten."""
        return abs(self.off) <= P90 * self.sd


def foretold(observations: Sequence[Observation]) -> tuple[Foretold, ...]:
    """Each observation of one figure, foretold from those of earlier cooks.

    Parameters
    ----------
    observations : Sequence[Observation]
        Of one figure.

    Returns
    -------
    tuple[Foretold, ...]
        By time; those of one cook are foretold from other cooks alone.
    """
    mine = counted(observations)
    found = []
    for one in mine:
        before = [o for o in mine if (o.at, o.cook) < (one.at, one.cook) and o.cook != one.cook]
        told = fitted(one.figure, before)
        # A style or surface that is met for the first time has its prior.
        known = replace(told, prior_sd={**told.prior_sd, **prior_of(one.figure, [one])})
        guess = known.next(*effects_of(one), sd=error_sd(one))
        found.append(Foretold(one, one.value - guess.mean, guess.sd))
    return tuple(found)


def scores_of(observations: Sequence[Observation]) -> tuple[ForecastScore, ...]:
    """How good the forecasts of each figure were.

    Parameters
    ----------
    observations : Sequence[Observation]
        What the kitchen's cooks said.

    Returns
    -------
    tuple[ForecastScore, ...]
        Of each figure that anything was observed of.

    References
    ----------
    Forecasts judged by what was known before them: Dawid 1984, the prequential approach; the uncertainty of a share by
    Clopper & Pearson 1934 (SciPy).
    """
    found = []
    for figure, model in FIGURES.items():
        told = foretold([o for o in observations if o.figure == figure])
        if not told:
            continue
        held = sum(t.held for t in told)
        sure = binomtest(held, len(told)).proportion_ci(confidence_level=0.95)
        found.append(
            ForecastScore(
                figure,
                model.title,
                len(told),
                Band(float(sure.low), held / len(told), float(sure.high)),
                sum(t.observation.low <= t.observation.observed <= t.observation.high for t in told) / len(told),
                statistics.median(abs(math.exp(t.off) - 1.0) for t in told),
                statistics.median(abs(math.exp(t.observation.value) - 1.0) for t in told),
            )
        )
    return tuple(found)
