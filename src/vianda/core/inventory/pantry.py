"""The pantry: everything beside meat that goes into a mix, with composition, measures, allergens and price."""

from __future__ import annotations

import csv
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Le, Len

from vianda.core.basis.bounds import Key, Name, Price
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.basis.units import ML_PER_CUP
from vianda.core.inventory.composition import (
    Composition,
    food_data_central_composition,
    remembered_composition,
    sr28_composition,
    sr28_name,
)

Group = Literal[
    "crumb",
    "bread",
    "starch",
    "liquid",
    "egg",
    "white",
    "filling",
    "cheese",
    "onion",
    "vegetable",
    "tomato",
    "herb",
    "spice",
    "sauce",
    "salt",
    "fat",
    "sweet",
    "acid",
]
GROUPS: tuple[Group, ...] = Group.__args__  # type: ignore[attr-defined]

# EU Regulation 1169/2011, Annex II (the fourteen); true where US law (FALCPA and the FASTER Act) names it too.
ALLERGENS: Mapping[str, bool] = {
    "gluten": True,
    "crustaceans": True,
    "egg": True,
    "fish": True,
    "peanut": True,
    "soy": True,
    "milk": True,
    "nuts": True,
    "celery": False,
    "mustard": False,
    "sesame": True,
    "sulphites": False,
    "lupin": False,
    "molluscs": False,
}
MOST_HOUSE_LINES = 30


@dataclass(frozen=True, slots=True)
class PieceMass:
    """What one piece weighs: ``large egg`` 50 g, ``clove`` 3 g."""

    name: Name
    mass_g: Annotated[float, Gt(0), Le(5000)]


@dataclass(frozen=True, slots=True)
class HouseLine:
    """So many grams of an ingredient in a house formula."""

    ingredient: Key
    mass_g: Annotated[float, Gt(0), Le(1_000_000)]


@dataclass(frozen=True, slots=True)
class HouseFormula:
    """A sub-formula: what goes in, what comes out, how long it keeps, and how it is made.

    ``yield_g`` is what is left at the end, 0 when nothing is lost; what is lost on the way is taken to be water.
    ``acid`` says that it is below pH 4.6 by a test of one's own.
    """

    lines: Annotated[tuple[HouseLine, ...], Len(1, MOST_HOUSE_LINES)]
    yield_g: Annotated[float, Ge(0), Le(1_000_000)]
    keeps_days: Annotated[int, Ge(0), Le(1000)]
    method: Annotated[str, Len(0, 1000)] = ""
    acid: bool = False


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One thing of the pantry as it goes into the bowl.

    ``g_per_cup`` is grams in a US cup (0: nobody measures it so). ``pieces`` names what one piece weighs, the usual
    one first. ``temp_c`` is where it usually stands. ``house`` makes it a sub-formula, whose composition, allergens
    and price follow from its own lines; its group still says what it does in a mix.
    """

    key: Key
    name: Name
    group: Group
    composition: Composition
    composition_note: Annotated[str, Len(0, 300)]
    g_per_cup: Annotated[float, Ge(0), Le(1000)]
    volume_source: Annotated[str, Len(0, 100)]
    pieces: Annotated[tuple[PieceMass, ...], Len(0, 10)]
    allergens: Annotated[tuple[Name, ...], Len(0, 14)]
    temp_c: Annotated[float, Ge(-30), Le(100)]
    price_per_kg: Price
    aliases: Annotated[tuple[Name, ...], Len(0, 20)] = ()
    remark: Annotated[str, Len(0, 500)] = ""
    house: HouseFormula | None = None
    retired: bool = False

    def __post_init__(self) -> None:
        if self.price_per_kg < 0:
            raise OutOfRangeError(f"{self.name}: a price cannot be below zero.", field="/price_per_kg")
        if not 0.0 <= self.g_per_cup <= 1000.0:
            raise OutOfRangeError(f"{self.name}: a cup holds 0 to 1000 g of anything.", field="/g_per_cup")
        if not -30.0 <= self.temp_c <= 100.0:
            raise OutOfRangeError(f"{self.name}: it stands at −30 to 100 °C.", field="/temp_c")
        for piece in self.pieces:
            if not 0.0 < piece.mass_g <= 5000.0:
                raise OutOfRangeError(f"{self.name}: a {piece.name} weighs more than zero.", field="/pieces")
        for allergen in self.allergens:
            if allergen.split(" (")[0] not in ALLERGENS:
                raise OutOfRangeError(
                    f"{self.name}: “{allergen[:40]}” is none of the fourteen allergens.", field="/allergens"
                )

    @property
    def g_per_ml(self) -> float:
        """Bulk density, grams in a millilitre of a measure; 0 when nobody measures it so."""
        return self.g_per_cup / ML_PER_CUP


Pantry = Mapping[str, Ingredient]


def ingredient_of(pantry: Pantry, key: str, *, field: str = "") -> Ingredient:
    """The ingredient of that key, or ``UnknownItemError``.

    Parameters
    ----------
    pantry : Pantry
        Ingredients by key.
    key : str
        Key of the thing, in small letters and hyphens.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    Ingredient
        One thing of the pantry as it goes into the bowl.

    Raises
    ------
    UnknownItemError
        The pantry holds no “…”.
    """
    try:
        return pantry[key]
    except KeyError:
        raise UnknownItemError(f"The pantry holds no “{key[:60]}”.", field=field) from None


@cache
def starter_pantry() -> Pantry:
    """The pantry a new kitchen starts with: SR28 analyses and household weights, else "from memory".

    Returns
    -------
    Pantry
        The pantry a new kitchen starts with.

    Examples
    --------
    >>> starter_pantry()["panko"].allergens
    ('gluten (wheat)',)
    >>> starter_pantry()["egg"].pieces[0]
    PieceMass(name='large egg', mass_g=50.0)
    """
    text = (files("vianda.core.inventory") / "data" / "starter_pantry.csv").read_text(encoding="utf-8")
    return {row["key"]: _starter(row) for row in csv.DictReader(text.splitlines())}


def _starter(row: Mapping[str, str]) -> Ingredient:
    number = row["ndb_no"]
    if number == "memory":
        note, composition = remembered_composition(row["key"])
    elif number == "fdc":
        note, composition = food_data_central_composition(row["key"])
    else:
        note, composition = f"SR28 {number}: {sr28_name(number)}", sr28_composition(number)
    return Ingredient(
        key=row["key"],
        name=row["name"],
        group=row["group"],  # type: ignore[arg-type]
        composition=composition,
        composition_note=note,
        g_per_cup=float(row["g_per_cup"] or 0.0),
        volume_source=row["volume_source"],
        pieces=tuple(_piece(text) for text in row["pieces"].split(";") if text),
        allergens=tuple(text.strip() for text in row["allergens"].split(",") if text.strip()),
        temp_c=float(row["temp_c"]),
        price_per_kg=Decimal(row["price_per_kg"]),
        aliases=tuple(text.strip() for text in row["aliases"].split(",") if text.strip()),
        remark=row["remark"],
    )


def _piece(text: str) -> PieceMass:
    name, mass = text.split("=")
    return PieceMass(name, float(mass))
