"""What a change of the kitchen or the larder would break: formulas that could not be worked out any more."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.house import needs, with_house_made
from vianda.core.inventory.inventory import FAT_SAID, Inventory, Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient, Pantry
from vianda.core.model.formula import Formula
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.storage.formula_repository import list_formulas
from vianda.storage.records import StoredFormula

Here = tuple[Inventory, Kitchen]


def refuse_breaking(
    before: Here,
    after: Here,
    *,
    touched: Callable[[Formula], bool] = lambda _: True,
    field: str,
    shelf: Sequence[StoredFormula] | None = None,
) -> None:
    """Refuse a change of the kitchen or the larder that would leave a formula of the shelf impossible to work out.

    ``touched`` says which formulas the change can reach at all; ``shelf``: those that stand there, when they are known.

    Raises
    ------
    OutOfRangeError
        Names the first such formula and why. One that could not be worked out before is no reason.
    """
    for stored in list_formulas() if shelf is None else shelf:
        if not touched(stored.formula):
            continue
        why = _refusal(stored.formula, *after)
        if why and not _refusal(stored.formula, *before):
            raise OutOfRangeError(
                f"“{stored.formula.name}” could not be worked out any more: {why} Change it on its bench, or archive "
                "it, first.",
                field=field,
            )


def refuse_breaking_meat(meat: Meat, here: Here, *, shelf: Sequence[StoredFormula] | None = None) -> None:
    """Refuse a correction of a meat that would leave a formula with it impossible to work out."""
    inventory, kitchen = here
    after = replace(inventory, meats={**inventory.meats, meat.key: meat})
    refuse_breaking(
        (inventory, kitchen),
        (after, kitchen),
        touched=lambda f: any(p.meat == meat.key or p.meat.startswith(f"{meat.key}{FAT_SAID}") for p in f.parts),
        field="/meat",
        shelf=shelf,
    )


def refuse_breaking_lot(lot: Lot) -> None:
    """Refuse what is written down of a lot when a formula made of it would be impossible to work out."""
    inventory, kitchen = context()
    after = replace(inventory, lots={**inventory.lots, lot.key: lot})
    refuse_breaking(
        (inventory, kitchen),
        (after, kitchen),
        touched=lambda f: any(p.lot == lot.key for p in f.parts),
        field="/lot/evidence",
    )


def refuse_breaking_ingredient(ingredient: Ingredient, pantry: Pantry) -> None:
    """Refuse a correction of an ingredient that would leave a formula with it impossible to work out."""
    inventory, kitchen = context()
    after = replace(inventory, pantry=with_house_made(pantry))
    refuse_breaking(
        (inventory, kitchen),
        (after, kitchen),
        touched=lambda f: ingredient.key in needed_by(f, pantry),
        field="/ingredient",
    )


def needed_by(formula: Formula, pantry: Pantry) -> frozenset[str]:
    """Keys of all that a formula is made of from the pantry, through its house formulas too."""
    return frozenset(key for enters in _entering(formula) if enters in pantry for key in needs(enters, pantry=pantry))


def _entering(formula: Formula) -> tuple[str, ...]:
    """Keys of all that comes into a formula from the pantry, at the heat and round the meat too."""
    return (
        *(line.ingredient for line in formula.mix.lines),
        *(a.ingredient for a in formula.beside),
        *(layer.ingredient for layer in formula.stack if layer.ingredient),
        formula.heat.cheese,
        formula.heat.glaze,
    )


def _refusal(formula: Formula, inventory: Inventory, kitchen: Kitchen) -> str:
    try:
        evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    except CoreError as refused:
        return refused.detail
    return ""
