"""The list of all rules of counsel, in the order in which they are read out."""

from __future__ import annotations

from vianda.core.counsel import (
    heat,
    limits,
    meat,
    mix_bind,
    mix_salt,
    mix_work,
    sauce_in_pot,
    scale,
    shape,
    shape_fit,
    shape_hold,
    stack,
)
from vianda.core.counsel.rule import Counsel, Rule
from vianda.core.pipeline.figures import Figures

ALL_RULES: tuple[Rule, ...] = (
    *heat.RULES,
    *meat.RULES,
    *mix_bind.RULES,
    *mix_salt.RULES,
    *mix_work.RULES,
    *limits.RULES,
    *shape.RULES,
    *shape_fit.RULES,
    *shape_hold.RULES,
    *stack.RULES,
    *sauce_in_pot.RULES,
    *scale.RULES,
)

_ORDER = {"limit": 0, "check": 1, "note": 2}


def counsel_on(figures: Figures) -> tuple[Counsel, ...]:
    """What the rules say about these figures: limits first, then what asks, then notes.

    Parameters
    ----------
    figures : Figures
        The results of all stages.

    Returns
    -------
    tuple[Counsel, ...]
        Each: a remark with the rule that made it.
    """
    found = [c for rule in ALL_RULES if (c := rule.counsel(figures)) is not None]
    return tuple(sorted(found, key=lambda c: _ORDER[c.severity]))
