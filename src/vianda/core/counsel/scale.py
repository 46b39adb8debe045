"""Counsel on the scale: what it cannot show, and what it cannot carry."""

from __future__ import annotations

import math

from vianda.core.basis.phrase import count, frac, mass, say
from vianda.core.counsel.rule import PRACTICE, Remark, Rule
from vianda.core.pipeline.figures import Figures

# Check-weighing aims for ±2–3 % (common practice): half a step may be at most this much of a piece.
FINEST_ERROR_FRAC = 0.025


def _cannot_weigh(figures: Figures) -> Remark | None:
    scale = figures.context.kitchen.scale
    piece = figures.batch.portions.piece_mass_g
    error = scale.step_g / 2 / piece
    if error > FINEST_ERROR_FRAC:
        together = math.ceil(scale.step_g / 2 / FINEST_ERROR_FRAC / piece)
        return Remark(
            say("The scale is too coarse for {piece}", piece=mass(piece)),
            say(
                "In steps of {step} a reading may be off by {error}; cooks aim for 2 to 3 %. Weigh {n} pieces "
                "together, or use a finer scale.",
                step=mass(scale.step_g),
                error=frac(error),
                n=count(together),
            ),
        )
    if figures.batch.portions.batch_mass_g > scale.capacity_g:
        loads = math.ceil(figures.batch.portions.batch_mass_g / scale.capacity_g)
        return Remark(
            say("{batch} is more than the scale carries", batch=mass(figures.batch.portions.batch_mass_g)),
            say(
                "It carries {capacity}: weigh the batch in {n} loads, each with the same shares.",
                capacity=mass(scale.capacity_g),
                n=count(loads),
            ),
        )
    return None


RULES = (
    Rule(
        "scale.cannot-weigh",
        "shape",
        "check",
        "half a scale step over 2.5 % of the piece, or batch above the scale's capacity",
        PRACTICE,
        _cannot_weigh,
    ),
)
