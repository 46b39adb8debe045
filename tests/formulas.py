"""Short ways to say a formula in a test."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.demo import slipway_smash
from vianda.core.formula import BlendPart, Formula


def blended(**shares: float) -> tuple[BlendPart, ...]:
    """Parts from keyword shares; underscores stand for the hyphens of keys."""
    return tuple(BlendPart(key.replace("_", "-"), share) for key, share in shares.items())


def smash(**changes: object) -> Formula:
    """The demo smash with changes to its parts: ``parts``, or fields of dish, shape, heat, seasoning."""
    formula = slipway_smash()
    for name, value in changes.items():
        if name == "parts":
            formula = replace(formula, parts=value)
            continue
        for section in ("dish", "shape", "heat", "seasoning"):
            if hasattr(getattr(formula, section), name):
                formula = replace(formula, **{section: replace(getattr(formula, section), **{name: value})})
                break
        else:
            raise AttributeError(name)
    return formula
