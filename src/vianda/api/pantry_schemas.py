"""What the wire carries of the pantry."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from vianda.api.wire import Text, Units
from vianda.core.basis.bounds import Key
from vianda.core.inventory.house import HouseFigures
from vianda.core.inventory.pantry import Group, Ingredient
from vianda.interchange.documents import Strict
from vianda.interchange.kinds import as_kept
from vianda.services.pantry import KnownIngredient


class IngredientRequest(Strict):
    """An ingredient to write down, and the revision it was opened at (0 for a new one)."""

    ingredient: Ingredient
    revision: Annotated[int, Field(ge=0)]


class HouseRequest(Strict):
    """A house formula to be worked out without keeping it."""

    ingredient: Ingredient


class AmountRequest(Strict):
    """An amount of an ingredient as typed."""

    ingredient: Key
    text: Text
    unit_system: Units


class AmountAnswer(BaseModel):
    """The amount in grams."""

    mass_g: float


class IngredientAnswer(BaseModel):
    """An ingredient, its salt 0–1, what its house formula comes to, and where it is used."""

    revision: int
    ingredient: Ingredient
    salt_frac: float
    figures: HouseFigures | None
    problem: str
    in_house: list[str]
    in_formulas: list[str]


class PantryAnswer(BaseModel):
    """The whole pantry."""

    ingredients: list[IngredientAnswer]


class PantryItem(BaseModel):
    """An ingredient to choose from. ``house``: it is made here;"""

    key: str
    name: str
    group: Group
    house: bool
    retired: bool
    remark: str


def ingredient_answer(known: KnownIngredient) -> IngredientAnswer:
    """A known ingredient for the wire."""
    return IngredientAnswer(
        revision=known.revision,
        ingredient=as_kept(known.ingredient),
        salt_frac=known.figures.salt_frac if known.figures else known.ingredient.composition.salt_frac(),
        figures=known.figures,
        problem=known.problem,
        in_house=list(known.in_house),
        in_formulas=list(known.in_formulas),
    )
