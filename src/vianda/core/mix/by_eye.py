"""By eye: the bowl is weighed again after each thing goes in, and the differences say what went in."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError

MEAT = "meat"


@dataclass(frozen=True, slots=True)
class Reading:
    """What the scale showed, bowl and all, after ``what`` went in: an ingredient's key, or "meat"."""

    what: str
    shown_g: float


@dataclass(frozen=True, slots=True)
class Inferred:
    """What went in between two readings, with what the scale's step leaves unknown (half range, g)."""

    what: str
    mass_g: float
    half_range_g: float


def inferred(bowl_g: float, readings: Sequence[Reading], *, step_g: int) -> tuple[Inferred, ...]:
    """What went in, in order: each reading less the one before it.

    Each reading may be off by half a step, so a difference is off by at most a whole one; as two independent errors,
    uniform over a step, its half range is taken as step ÷ √2.

    Parameters
    ----------
    bowl_g : float
        What the bowl weighs before the first of them goes in, g, 0 or more.
    readings : Sequence[Reading]
        The scale after each thing went in.
    step_g : int
        Step of the scale, g, above 0.

    Returns
    -------
    tuple[Inferred, ...]
        Each: what went in between two readings, with what the scale's step leaves unknown (half range, g).

    Raises
    ------
    OutOfRangeError
        The bowl got lighter, nothing was read, or the first reading is not the meat.

    Examples
    --------
    >>> inferred(820, [Reading("meat", 1520), Reading("panko", 1576)], step_g=1)[1].mass_g
    56
    """
    if not readings:
        raise OutOfRangeError("Read the scale at least once with meat in the bowl.", field="/readings")
    if readings[0].what != MEAT:
        raise OutOfRangeError("The meat goes in first: everything else is computed by it.", field="/readings/0/what")
    if sum(r.what == MEAT for r in readings) > 1:
        raise OutOfRangeError("The meat goes in once here; weigh it together.", field="/readings")
    found, before = [], bowl_g
    for at, reading in enumerate(readings):
        if reading.shown_g < before - 1e-9:
            raise OutOfRangeError(
                f"The scale shows {reading.shown_g:.0f} g after {before:.0f} g: nothing leaves the bowl.",
                field=f"/readings/{at}/shown",
            )
        found.append(Inferred(reading.what, reading.shown_g - before, step_g / math.sqrt(2)))
        before = reading.shown_g
    if found[0].mass_g <= 0:
        raise OutOfRangeError("There is no meat in the bowl yet.", field="/readings/0/shown")
    return tuple(found)
