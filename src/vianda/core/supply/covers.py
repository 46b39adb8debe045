"""How many will come: from how many came, with an honest range and the count that suffices nine times in ten."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.service import Count

# Fewer evenings say nothing of the spread; older ones than the last twelve say less than they mislead where numbers
# grow or fall: measured on drawn evenings, see the tests.
LEAST_COUNTS, LAST_COUNTS = 3, 12
# With fewer than this the range is as wide as it must be, and that is said. Ours.
ROUGH_BELOW = 6
ENOUGH_FRAC = 0.90


@dataclass(frozen=True, slots=True)
class Forecast:
    """How many are expected, whole guests.

    Eight of ten evenings lie from ``low`` to ``high``; ``enough`` suffices on nine of ten. ``counts`` is how many
    evenings it rests on, ``unmet`` on how many of those more would have come than there was for.
    """

    counts: int
    unmet: int
    usual: int
    low: int
    high: int
    enough: int
    says: Phrase


def forecast(counts: Sequence[Count]) -> Forecast | None:
    """How many will come next time.

    Parameters
    ----------
    counts : Sequence[Count]
        How many came, in any order; the last twelve count.

    Returns
    -------
    Forecast | None
        None with fewer than three evenings.

    References
    ----------
    Prediction bound of a normal sample with unknown spread: mean + t(p, n − 1) · s · √(1 + 1/n), Student's t by SciPy.
    The empirical quantile of so few falls short of nine in ten.

    Examples
    --------
    >>> found = forecast([Count("2026-11-06", 38), Count("2026-11-13", 44), Count("2026-11-20", 41)])
    >>> found.usual, found.enough
    (41, 48)
    """
    from scipy.special import stdtrit

    used = sorted(counts, key=lambda c: c.day)[-LAST_COUNTS:]
    n = len(used)
    if n < LEAST_COUNTS:
        return None
    wanted = [float(c.guests + c.lacking) for c in used]
    mean = math.fsum(wanted) / n
    spread = math.sqrt(math.fsum((x - mean) ** 2 for x in wanted) / (n - 1))
    half = float(stdtrit(n - 1, ENOUGH_FRAC)) * spread * math.sqrt(1.0 + 1.0 / n)
    unmet = sum(c.lacking > 0 for c in used)
    enough = math.ceil(mean + half - 1e-9)
    return Forecast(
        counts=n,
        unmet=unmet,
        usual=round(mean),
        low=max(0, math.floor(mean - half + 1e-9)),
        high=enough,
        enough=enough,
        says=_said(n, unmet, round(mean), enough),
    )


def _said(n: int, unmet: int, usual: int, enough: int) -> Phrase:
    text = "{usual} are expected; {enough} suffice on nine evenings of ten. It rests on {n} evenings"
    amounts = {"usual": ph.count(usual), "enough": ph.count(enough), "n": ph.count(n)}
    if n < ROUGH_BELOW:
        text += ", so the range is wide"
    if unmet:
        text += "; on {unmet} of them it did not suffice, and those who went without are counted"
        amounts["unmet"] = ph.count(unmet)
    return say(text + ".", **amounts)
