"""Rounding that is a rule: what a scale can show, with parts that still sum to the whole."""

from __future__ import annotations

import math
from collections.abc import Sequence

from vianda.core.basis.errors import OutOfRangeError

# A sum of shares is taken as whole within this; JSON carries decimals, not exact thirds.
SHARE_SLACK = 1e-6


def whole_steps(mass_g: float, *, step_g: int) -> int:
    """How many whole scale steps fit into a mass (rounded down, forgiving float dust).

    Parameters
    ----------
    mass_g : float
        Mass, g, 0 or more.
    step_g : int
        Step of the scale, g, above 0.

    Returns
    -------
    int
        How many whole scale steps fit into a mass (rounded down, forgiving float dust).

    Raises
    ------
    OutOfRangeError
        A mass to weigh must be a number of grams, zero or more.

    Examples
    --------
    >>> whole_steps(87.5, step_g=5)
    17
    """
    if not math.isfinite(mass_g) or mass_g < 0:
        raise OutOfRangeError("A mass to weigh must be a number of grams, zero or more.")
    return math.floor(mass_g / step_g + 1e-9)


def nearest_step(mass_g: float, *, step_g: int) -> int:
    """The mass in grams, on the scale's step, nearest to the one wanted (half goes up).

    Parameters
    ----------
    mass_g : float
        Mass, g, 0 or more.
    step_g : int
        Step of the scale, g, above 0.

    Returns
    -------
    int
        The mass in grams, on the scale's step, nearest to the one wanted (half goes up).

    Examples
    --------
    >>> nearest_step(87.5, step_g=5)
    90
    """
    return whole_steps(mass_g + step_g / 2, step_g=step_g) * step_g


def shares_on_scale(shares_frac: Sequence[float], *, batch_g: int, step_g: int) -> tuple[int, ...]:
    """Grams of each part on the scale's step, summing to the batch exactly (largest remainder method).

    Parameters
    ----------
    shares_frac : Sequence[float]
        Shares 0–1 which sum to 1.
    batch_g : int
        Batch in grams, a whole number of steps.
    step_g : int
        Step of the scale, g, above 0.

    Returns
    -------
    tuple[int, ...]
        Grams of each part on the scale's step, summing to the batch exactly (largest remainder method).

    Raises
    ------
    OutOfRangeError
        When the shares do not sum to 1, or the batch is not a whole number of steps.

    Notes
    -----
    No part is further than one step from its exact share. Ties go to the part named first.

    Examples
    --------
    >>> shares_on_scale([1/3, 1/3, 1/3], batch_g=100, step_g=1)
    (34, 33, 33)
    """
    if abs(sum(shares_frac) - 1.0) > SHARE_SLACK:
        raise OutOfRangeError("The shares of a blend must sum to the whole.", field="/parts")
    if batch_g % step_g:
        raise OutOfRangeError(f"A batch of {batch_g} g is not a whole number of {step_g} g steps.")
    steps = batch_g // step_g
    exact = [share * steps for share in shares_frac]
    given = [math.floor(e + 1e-9) for e in exact]
    order = sorted(range(len(exact)), key=lambda i: (given[i] - exact[i], i))
    for i in order[: steps - sum(given)]:
        given[i] += 1
    return tuple(g * step_g for g in given)
