"""Effects that add up, each normal around zero before anything is seen: what observations make of them, in closed form.

An observation is a sum of effects and a normal error: the logarithm of what was observed over what was forecast, say,
is the kitchen's own effect, the style's, the surface's, and chance.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

# Further from the rest than so many standard deviations is an outlier: one in two thousand of what is not. Ours.
OUTLIER_Z = 3.5
# More outliers than this share, and more than one, are none: it is the error that is larger than was thought. Ours.
MOST_OUTLIERS = 0.25
# What was thought of the error counts like so many observations; it is never taken as less or more than this. Ours.
SCALE_COUNTS, SCALE_LOW, SCALE_HIGH = 8.0, 0.6, 2.5
P90 = 1.2816
# The largest power of e that is told, 1e30: one mistyped reading must not stop all that was learnt.
LARGEST = math.log(1e30)

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Seen:
    """One observation: its value, the standard deviation of its error, and the effects that add up to it."""

    value: float
    sd: float
    effects: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Estimate:
    """A normal estimate: mean and standard deviation."""

    mean: float
    sd: float

    def factor(self, z: float = 0.0) -> float:
        """e to the mean and so many standard deviations.

        Parameters
        ----------
        z : float, default 0.0
            How many standard deviations, −10 to 10 (about 1).

        Returns
        -------
        float
            Above 0, at most e to the power of ``LARGEST``.

        Examples
        --------
        >>> round(Estimate(0.1, 0.05).factor(1.0), 4)
        1.1618
        """
        return math.exp(min(self.mean + z * self.sd, LARGEST))


@dataclass(frozen=True, slots=True)
class Posterior:
    """Effects after what was seen.

    ``outliers`` are the positions of observations that were set aside since they do not belong to the rest; ``scale``
    multiplies the errors' standard deviations, as they turned out to be.
    """

    keys: tuple[str, ...]
    mean: tuple[float, ...]
    covariance: tuple[tuple[float, ...], ...]
    prior_sd: Mapping[str, float]
    outliers: tuple[int, ...] = ()
    scale: float = 1.0

    def of(self, *effects: str) -> Estimate:
        """The sum of some effects; of one that was never seen its prior.

        Parameters
        ----------
        *effects : str
            Their keys.

        Returns
        -------
        Estimate
            Mean and standard deviation of the sum.
        """
        mean, variance = 0.0, 0.0
        places = [self.keys.index(e) for e in effects if e in self.keys]
        for a in places:
            mean += self.mean[a]
            variance += math.fsum(self.covariance[a][b] for b in places)
        variance += math.fsum(self.prior_sd[e] ** 2 for e in effects if e not in self.keys)
        return Estimate(mean, math.sqrt(max(0.0, variance)))

    def next(self, *effects: str, sd: float) -> Estimate:
        """What the next observation will be.

        Parameters
        ----------
        *effects : str
            The effects that add up to it.
        sd : float
            Standard deviation of its error before the scale, as a fraction, 0 or more.

        Returns
        -------
        Estimate
            Mean and standard deviation of the observation.
        """
        own = self.of(*effects)
        return Estimate(own.mean, math.hypot(own.sd, sd * self.scale))


def posterior(seen: Sequence[Seen], prior_sd: Mapping[str, float], *, scale: float = 1.0) -> Posterior:
    """Effects after what was seen, every observation counted with its error.

    Parameters
    ----------
    seen : Sequence[Seen]
        The observations.
    prior_sd : Mapping[str, float]
        Standard deviation of each effect before anything is seen, above 0; its mean is 0.
    scale : float, default 1.0
        Multiplies every error, about 1.

    Returns
    -------
    Posterior
        Of the effects that were seen.

    References
    ----------
    The normal linear model with known variances: Gelman et al., Bayesian Data Analysis, 14.8; textbook, from memory;
    checked against integration on a grid.

    Examples
    --------
    One observation as uncertain as its effect moves it half way:

    >>> p = posterior([Seen(0.2, 0.1, ("kitchen",))], {"kitchen": 0.1})
    >>> round(p.of("kitchen").mean, 3), round(p.of("kitchen").sd, 4)
    (0.1, 0.0707)
    """
    keys = tuple(dict.fromkeys(e for s in seen for e in s.effects))
    if not keys:
        return Posterior((), (), (), dict(prior_sd))
    design, prior, value, error = _arrays(seen, keys, prior_sd, scale)
    gain = np.linalg.solve(design @ prior @ design.T + error, design @ prior).T
    mean = gain @ value
    left = prior - gain @ design @ prior
    rows = tuple(tuple(float(x) for x in row) for row in (left + left.T) / 2)
    return Posterior(keys, tuple(float(x) for x in mean), rows, dict(prior_sd), (), scale)


def learn(seen: Sequence[Seen], prior_sd: Mapping[str, float]) -> Posterior:
    """Effects after what was seen: what does not belong to the rest is named and set aside, and the error is learnt.

    Parameters
    ----------
    seen : Sequence[Seen]
        The observations.
    prior_sd : Mapping[str, float]
        Standard deviation of each effect before anything is seen, above 0; its mean is 0.

    Returns
    -------
    Posterior
        With the positions of the outliers.

    References
    ----------
    Each observation is foretold from all others (leave-one-out of a normal linear model: Rasmussen & Williams,
    Gaussian Processes, 5.4.2, from memory). Beyond 3.5 standard deviations it is set aside, the worst first: one, or at
    most a quarter of all. The bounds are ours.

    Examples
    --------
    >>> usual = [Seen(x, 0.05, ("kitchen",)) for x in (0.09, 0.12, 0.10, 0.08)]
    >>> learn([*usual, Seen(1.2, 0.05, ("kitchen",))], {"kitchen": 0.1}).outliers
    (4,)
    """
    used = list(range(len(seen)))
    aside: list[int] = []
    while used:
        z = _left_out(seen, used, prior_sd)
        worst = int(np.argmax(np.abs(z)))
        if abs(z[worst]) <= OUTLIER_Z:
            break
        aside.append(used.pop(worst))
    if len(aside) > max(1.0, MOST_OUTLIERS * len(seen)):
        used, aside = list(range(len(seen))), []
    scale = 1.0
    if used:
        z = _left_out(seen, used, prior_sd)
        squares = SCALE_COUNTS + float(np.sum(np.minimum(np.abs(z), OUTLIER_Z) ** 2))
        scale = min(SCALE_HIGH, max(SCALE_LOW, math.sqrt(squares / (SCALE_COUNTS + len(used)))))
    found = posterior([seen[n] for n in used], prior_sd, scale=scale)
    return Posterior(found.keys, found.mean, found.covariance, found.prior_sd, tuple(sorted(aside)), scale)


def _arrays(
    seen: Sequence[Seen], keys: tuple[str, ...], prior_sd: Mapping[str, float], scale: float
) -> tuple[Floats, Floats, Floats, Floats]:
    design = np.array([[float(s.effects.count(k)) for k in keys] for s in seen])
    prior = np.diag([prior_sd[k] ** 2 for k in keys])
    value = np.array([s.value for s in seen])
    error = np.diag([(s.sd * scale) ** 2 for s in seen])
    return design, prior, value, error


def _left_out(seen: Sequence[Seen], used: Sequence[int], prior_sd: Mapping[str, float]) -> Floats:
    """How far each lies from what all others foretell of it, in standard deviations."""
    mine = [seen[n] for n in used]
    keys = tuple(dict.fromkeys(e for s in mine for e in s.effects))
    design, prior, value, error = _arrays(mine, keys, prior_sd, 1.0)
    inverse = np.linalg.inv(design @ prior @ design.T + error)
    diagonal = np.diag(inverse)
    off: Floats = (inverse @ value) / diagonal * np.sqrt(diagonal)
    return off
