"""Short ways to say a formula in a test."""

from __future__ import annotations

from dataclasses import fields, replace
from types import SimpleNamespace

from vianda.core.demo.formulas import slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.choose import choose_style
from vianda.core.evaluation.evaluate import evaluate, sheets
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.formula import BlendPart, Formula, MixLine


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


def mixed(*, style: str = "ball-baked", lines: tuple[MixLine, ...] | None = None, **changes: object) -> Formula:
    """The demo smash made into another style, half pork, with these lines; fields of mix, shape and so on change."""
    formula = choose_style(smash(), style, inventory=starter_inventory(), kitchen=yard_galley())
    formula = replace(formula, parts=blended(chuck=0.5, pork_shoulder=0.5))
    if lines is not None:
        formula = replace(formula, mix=replace(formula.mix, lines=lines))
    for name, value in changes.items():
        if name == "parts":
            formula = replace(formula, parts=value)
            continue
        for section in ("mix", "dish", "shape", "heat", "seasoning"):
            if hasattr(getattr(formula, section), name):
                formula = replace(formula, **{section: replace(getattr(formula, section), **{name: value})})
                break
        else:
            raise AttributeError(name)
    return formula


def whole(formula: Formula, **given: object) -> SimpleNamespace:
    """Every figure of a formula, with what is opened beside them."""
    evaluation, behind = evaluate(formula, **given), sheets(formula, **given)  # type: ignore[arg-type]
    named = {f.name: getattr(part, f.name) for part in (evaluation, behind) for f in fields(part)}
    return SimpleNamespace(**named)


def lines(**per_hundred: float) -> tuple[MixLine, ...]:
    """Lines from keyword parts to a hundred of meat; underscores stand for the hyphens of keys."""
    return tuple(MixLine(key.replace("_", "-"), value / 100.0) for key, value in per_hundred.items())
