"""Pasted recipes: read line by line, kept as a formula with its sauces, written out again."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.units import UnitSystem
from vianda.core.evaluation.evaluate import Evaluation, evaluate, sheets
from vianda.core.opening.recipe import RecipeReading, read_recipe
from vianda.interchange.recipe_ld import looks_like_json, recipe_text, write_recipe
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.services.formulas import checked
from vianda.services.pantry import admit
from vianda.storage import formula_repository
from vianda.storage.records import StoredFormula
from vianda.storage.transaction import transaction


@dataclass(frozen=True, slots=True)
class ReadRecipe:
    """A recipe as plain text, as it was read, and what its formula comes to (None while something is open)."""

    text: str
    recipe: RecipeReading
    evaluation: Evaluation | None


def _plain(text: str) -> str:
    return recipe_text(text) if looks_like_json(text) else text


def read(text: str, *, summary: str = "", unit_system: UnitSystem | None = None) -> ReadRecipe:
    """A pasted recipe, plain or schema.org JSON-LD, read."""
    inventory, kitchen = context(unit_system)
    plain = _plain(text)
    recipe = read_recipe(plain, inventory=inventory, kitchen=kitchen, summary=summary)
    if recipe.formula is None:
        return ReadRecipe(plain, recipe, None)
    return ReadRecipe(plain, recipe, evaluate(recipe.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE))


def keep(text: str, *, summary: str = "", unit_system: UnitSystem | None = None) -> StoredFormula:
    """Put a recipe on the shelf: its sauces join the pantry as house formulas, its formula stands first.

    Raises
    ------
    OutOfRangeError
        While something in its summary is open.
    """
    with transaction():
        inventory, kitchen = context(unit_system)
        recipe = read_recipe(_plain(text), inventory=inventory, kitchen=kitchen, summary=summary)
        if recipe.formula is None:
            raise OutOfRangeError("Settle what is asked first.", field="/text")
        admit(recipe.house)
        return formula_repository.create_formula(checked(recipe.formula))


def written(formula_id: int) -> tuple[str, dict[str, Any]]:
    """A formula's name, and the formula as a schema.org Recipe."""
    stored = formula_repository.get_formula(formula_id)
    inventory, kitchen = context()
    formula = stored.formula
    return formula.name, write_recipe(
        formula,
        evaluation=evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE),
        sheets=sheets(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE),
        inventory=inventory,
    )
