"""The documents that are kept and exchanged, one a class of the core."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

from vianda.core.equipment.kitchen import Grinder, Kitchen
from vianda.core.equipment.moulds import Mould
from vianda.core.inventory.inventory import Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient
from vianda.core.model.formula import Formula
from vianda.core.model.service import Service
from vianda.core.model.stocked import Stocked
from vianda.core.tasting.tasting import Tasting
from vianda.interchange.documents import Document

FORMULAS = Document(Formula)
SERVICES = Document(Service)
STOCK = Document(Stocked)
KITCHENS = Document(Kitchen)
GRINDERS = Document(Grinder)
MOULDS = Document(Mould)
MEATS = Document(Meat)
LOTS = Document(Lot)
INGREDIENTS = Document(Ingredient)
TASTINGS = Document(Tasting)


def as_kept(ingredient: Ingredient) -> Ingredient:
    """An ingredient without what follows from its lines: a house formula's price is worked out where it is read."""
    return ingredient if ingredient.house is None else replace(ingredient, price_per_kg=Decimal(0))
