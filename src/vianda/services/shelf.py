"""The shelf: every formula with what it comes to, the ones that cannot be worked out too, and what would break them."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.storage.formula_repository import list_formulas
from vianda.storage.records import StoredFormula


@dataclass(frozen=True, slots=True)
class Shelved:
    """A formula of the shelf and what it comes to; ``problem`` says why nothing does ("" when it does)."""

    stored: StoredFormula
    evaluation: Evaluation | None
    problem: str


def shelf() -> list[Shelved]:
    """Every formula, the one touched last first. One that cannot be worked out hides none of the others."""
    inventory, kitchen = context()
    return [_shelved(stored, inventory, kitchen) for stored in list_formulas()]


def _shelved(stored: StoredFormula, inventory: Inventory, kitchen: Kitchen) -> Shelved:
    try:
        return Shelved(stored, evaluate(stored.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE), "")
    except CoreError as refused:
        return Shelved(stored, None, refused.detail)


def refuse_breaking(after: Kitchen, *, before: Kitchen, inventory: Inventory) -> None:
    """Refuse a change of the kitchen that would leave a formula of the shelf without what it needs.

    Raises
    ------
    OutOfRangeError
        Names the first such formula and why. One that could not be worked out before is no reason.
    """
    for stored in list_formulas():
        why = _refusal(stored.formula, inventory, after)
        if why and not _refusal(stored.formula, inventory, before):
            raise OutOfRangeError(
                f"“{stored.formula.name}” could not be worked out any more: {why} Change it on its bench, or archive "
                "it, first.",
                field="/kitchen",
            )


def _refusal(formula: Formula, inventory: Inventory, kitchen: Kitchen) -> str:
    try:
        evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    except CoreError as refused:
        return refused.detail
    return ""
