"""The computed curve of a formula's piece, in this kitchen."""

from __future__ import annotations

from vianda.core.compute import compute
from vianda.core.formula import Formula
from vianda.core.heat.curve import HeatCurve, NotModelled, heat_curve
from vianda.services.bench import surroundings


def curve_of(formula: Formula) -> HeatCurve | NotModelled:
    """What goes on inside the piece; the core keeps what it computed for the same piece before."""
    larder, kitchen = surroundings()
    return heat_curve(compute(formula, larder=larder, kitchen=kitchen))
