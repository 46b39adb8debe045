"""The pantry: everything beside meat that goes into a mix, with composition, measures, allergens and price."""

from __future__ import annotations

import csv
from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.basis.units import ML_PER_CUP
from vianda.core.inventory.composition import Composition, remembered_composition, sr28_composition, sr28_name

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
class Piece:
    """What one piece weighs: ``large egg`` 50 g, ``clove`` 3 g."""

    name: str
    mass_g: float


@dataclass(frozen=True, slots=True)
class HouseLine:
    """So many grams of an ingredient in a house formula."""

    ingredient: str
    mass_g: float


@dataclass(frozen=True, slots=True)
class HouseFormula:
    """A sub-formula: what goes in, what comes out, how long it keeps, and how it is made.

    ``yield_g`` is what is left at the end; what is lost on the way is taken to be water. ``acid`` says that it is
    below pH 4.6 by a test of one's own.
    """

    lines: tuple[HouseLine, ...]
    yield_g: float
    keeps_days: int
    method: str = ""
    acid: bool = False


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One thing of the pantry as it goes into the bowl.

    ``g_per_cup`` is grams in a US cup (0: nobody measures it so). ``pieces`` names what one piece weighs, the usual
    one first. ``temp_c`` is where it usually stands. ``house`` makes it a sub-formula, whose composition, allergens
    and price follow from its own lines; its group still says what it does in a mix.
    """

    key: str
    name: str
    group: Group
    composition: Composition
    composition_note: str
    g_per_cup: float
    volume_source: str
    pieces: tuple[Piece, ...]
    allergens: tuple[str, ...]
    temp_c: float
    price_per_kg: Decimal
    aliases: tuple[str, ...] = ()
    remark: str = ""
    house: HouseFormula | None = None
    retired: bool = False

    def __post_init__(self) -> None:
        if self.price_per_kg < 0:
            raise OutOfRangeError(f"{self.name}: a price cannot be below nought.", field="/price_per_kg")
        if not 0.0 <= self.g_per_cup <= 1000.0:
            raise OutOfRangeError(f"{self.name}: a cup holds 0 to 1000 g of anything.", field="/g_per_cup")
        if not -30.0 <= self.temp_c <= 100.0:
            raise OutOfRangeError(f"{self.name}: it stands at −30 to 100 °C.", field="/temp_c")
        for piece in self.pieces:
            if not 0.0 < piece.mass_g <= 5000.0:
                raise OutOfRangeError(f"{self.name}: a {piece.name} weighs more than nought.", field="/pieces")
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
    """The ingredient of that key, or ``UnknownItemError``."""
    try:
        return pantry[key]
    except KeyError:
        raise UnknownItemError(f"The pantry holds no “{key[:60]}”.", field=field) from None


@cache
def starter_pantry() -> Pantry:
    """The pantry a new kitchen starts with: SR28 analyses and household weights, else "from memory".

    Examples
    --------
    >>> starter_pantry()["panko"].allergens
    ('gluten (wheat)',)
    >>> starter_pantry()["egg"].pieces[0]
    Piece(name='large egg', mass_g=50.0)
    """
    text = (files("vianda.core.inventory") / "data" / "starter_pantry.csv").read_text(encoding="utf-8")
    return {row["key"]: _starter(row) for row in csv.DictReader(text.splitlines())}


def _starter(row: Mapping[str, str]) -> Ingredient:
    number = row["ndb_no"]
    if number == "memory":
        note, composition = remembered_composition(row["key"])
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


def _piece(text: str) -> Piece:
    name, mass = text.split("=")
    return Piece(name, float(mass))
