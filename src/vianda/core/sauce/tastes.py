"""What a sauce tastes of: sugar, salt, acid and fat by mass, how sharp it bites, and how savoury it is.

Sugar, salt and fat come from the analyses of what is in it. Acid, pungency and free glutamate stand in no such table:
they are written down in ``data/tastes.csv`` with their confidence. Pungency and savouriness are indices that rank, no
measure of what a tongue feels: a hundred is as sharp as mustard, and a hundred milligrams of glutamate is a hundred.
"""

from __future__ import annotations

import csv
import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.pantry import Ingredient, Pantry, ingredient_of

Acid = Literal["acetic", "citric", "lactic", "tartaric", "none"]
Confidence = Literal["high", "medium", "low"]
TasteName = Literal["sugar", "salt", "acid", "fat", "pungency", "savour", "water", "dry"]
TASTES: tuple[TasteName, ...] = TasteName.__args__  # type: ignore[attr-defined]
# Molar masses and dissociating hydrogens, to state every acid as acetic acid: IUPAC masses, exact to their digits.
GRAMS_PER_MOLE: Mapping[Acid, float] = {"acetic": 60.05, "citric": 192.12, "lactic": 90.08, "tartaric": 150.09}
HYDROGENS: Mapping[Acid, int] = {"acetic": 1, "citric": 3, "lactic": 1, "tartaric": 2}


@dataclass(frozen=True, slots=True)
class TasteTitle:
    """How a taste is named and shown: its unit per 100 g, and digits after the point."""

    key: TasteName
    title: str
    unit: str
    digits: int


TASTE_TITLES: tuple[TasteTitle, ...] = (
    TasteTitle("sugar", "Sweet: sugar", " %", 1),
    TasteTitle("salt", "Salty: salt", " %", 2),
    TasteTitle("acid", "Sharp: acid, as acetic", " %", 2),
    TasteTitle("fat", "Rich: fat", " %", 1),
    TasteTitle("pungency", "Hot: 100 is mustard", "", 0),
    TasteTitle("savour", "Savoury: glutamate", " mg", 0),
    TasteTitle("water", "Thin: water", " %", 1),
    TasteTitle("dry", "Thick: dry matter", " %", 1),
)


@dataclass(frozen=True, slots=True)
class WrittenTaste:
    """What no analysis prints of an ingredient: acid as grams of its own kind, pungency and glutamate, per 100 g.

    ``sugars_g_per_100g`` None: as in its analysis.
    """

    acid_g_per_100g: float
    acid: Acid
    pungency: float
    glutamate_mg_per_100g: float
    sugars_g_per_100g: float | None
    confidence: Confidence
    note: str

    @property
    def acetic_g_per_100g(self) -> float:
        """The acetic acid that as much lye would take up, g per 100 g.

        Examples
        --------
        >>> round(tastes_written()["lemon-juice"].acetic_g_per_100g, 2)
        4.69
        """
        if self.acid == "none":
            return 0.0
        moles = self.acid_g_per_100g / GRAMS_PER_MOLE[self.acid] * HYDROGENS[self.acid]
        return moles * GRAMS_PER_MOLE["acetic"]


NOTHING = WrittenTaste(0.0, "none", 0.0, 0.0, None, "high", "")


@dataclass(frozen=True, slots=True)
class Taste:
    """Per 100 g: sugar, salt, acid (as acetic), fat, water, dry matter in g; pungency; savour in mg of glutamate.

    ``unsure``: names of ingredients that bring a tenth or more of a figure that is known with low confidence only.
    """

    sugar: float
    salt: float
    acid: float
    fat: float
    pungency: float
    savour: float
    water: float
    dry: float
    unsure: tuple[str, ...] = ()

    @classmethod
    def of_sums(cls, sums: Sequence[float], *, unsure: tuple[str, ...]) -> Taste:
        """From sums in the order of ``TASTES``; dry matter is what is not water.

        Parameters
        ----------
        sums : Sequence[float]
            Figures per 100 g.
        unsure : tuple[str, ...]
            Names of what is known badly.

        Returns
        -------
        Taste
            The taste.
        """
        sugar, salt, acid, fat, pungency, savour, water = (float(v) for v in sums[:7])
        return cls(sugar, salt, acid, fat, pungency, savour, water, 100.0 - water, unsure)

    def of(self, name: TasteName) -> float:
        """One of its figures.

        Parameters
        ----------
        name : TasteName
            Which.

        Returns
        -------
        float
            The figure, per 100 g.
        """
        return float(getattr(self, name))


@cache
def tastes_written() -> Mapping[str, WrittenTaste]:
    """What is written down of acid, pungency and glutamate, by ingredient.

    Returns
    -------
    Mapping[str, WrittenTaste]
        By key; an ingredient that is not there has none of the three.

    References
    ----------
    Strengths of vinegars by their labels; the rest from memory, with its confidence beside it.

    Examples
    --------
    >>> tastes_written()["vinegar"].acid_g_per_100g
    5.0
    """
    text = (files("vianda.core.sauce") / "data" / "tastes.csv").read_text(encoding="utf-8")
    return {
        row["key"]: WrittenTaste(
            float(row["acid_g_per_100g"]),
            row["acid"],  # type: ignore[arg-type]
            float(row["pungency"]),
            float(row["glutamate_mg_per_100g"]),
            float(row["sugars_g_per_100g"]) if row["sugars_g_per_100g"] else None,
            row["confidence"],  # type: ignore[arg-type]
            row["note"],
        )
        for row in csv.DictReader(text.splitlines())
    }


def tastes_of(ingredient: Ingredient, *, pantry: Pantry) -> tuple[float, ...]:
    """What 100 g of an ingredient bring to each taste, in the order of ``TASTES``; of a house formula from its lines.

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient, a house formula worked out.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    tuple[float, ...]
        Figures per 100 g.
    """
    return _tastes(ingredient, pantry, {})


def _tastes(ingredient: Ingredient, pantry: Pantry, known: dict[str, tuple[float, ...]]) -> tuple[float, ...]:
    """Each house formula is worked out once, however many stand on it."""
    if ingredient.key in known:
        return known[ingredient.key]
    c = ingredient.composition
    house = ingredient.house
    if house is not None:
        whole = sum(line.mass_g for line in house.lines)
        left = house.yield_g or whole
        parts = [(line.mass_g, _tastes(pantry[line.ingredient], pantry, known)) for line in house.lines]
        sugar, _, acid, _, bite, savour, _, _ = (
            math.fsum(mass * part[n] for mass, part in parts) / left for n in range(len(TASTES))
        )
    else:
        written = tastes_written().get(ingredient.key, NOTHING)
        sugar = c.sugars_g_per_100g if written.sugars_g_per_100g is None else written.sugars_g_per_100g
        acid, bite, savour = written.acetic_g_per_100g, written.pungency, written.glutamate_mg_per_100g
    water = c.water_g_per_100g
    found = (sugar, 100.0 * c.salt_frac(), acid, c.fat_g_per_100g, bite, savour, water, 100.0 - water)
    known[ingredient.key] = found
    return found


def taste_of(lines: Iterable[tuple[str, float]], *, pantry: Pantry, left_g: float = 0.0) -> Taste:
    """The taste of what is stirred together, and cooked down where less is left than went in.

    What leaves is water; everything else is kept. Heat that drives off a little of the acid, or takes the bite of
    garlic, is not reckoned with.

    Parameters
    ----------
    lines : Iterable[tuple[str, float]]
        Ingredient and grams.
    pantry : Pantry
        Ingredients by key, house formulas worked out.
    left_g : float, default 0.0
        What is left in the end, g; 0: all of it.

    Returns
    -------
    Taste
        Figures per 100 g of what is left.

    Raises
    ------
    OutOfRangeError
        When nothing is in it, or more would be left than went in.
    UnknownItemError
        When a line names what is not in the pantry.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> t = taste_of([("mayonnaise", 150), ("ketchup", 60), ("relish", 30)], pantry=starter_pantry())
    >>> round(t.fat), round(t.sugar, 1), round(t.acid, 2)
    (47, 8.1, 0.73)
    """
    found = [(ingredient_of(pantry, key), grams) for key, grams in lines]
    whole = math.fsum(grams for _, grams in found)
    if not whole > 0.0 or any(grams < 0.0 or not math.isfinite(grams) for _, grams in found):
        raise OutOfRangeError("A sauce has at least one line that weighs more than zero.", field="/lines")
    left = left_g or whole
    if not 0.0 < left <= whole * (1 + 1e-9):
        raise OutOfRangeError(f"{whole:.0f} g go in, so 1 to {whole:.0f} g can be left.", field="/left_g")
    each = [(thing, grams, tastes_of(thing, pantry=pantry)) for thing, grams in found]
    sums = [math.fsum(grams * of[n] for _, grams, of in each) / left for n in range(len(TASTES))]
    # What left is water.
    sums[TASTES.index("water")] -= 100.0 * (whole - left) / left
    if sums[TASTES.index("water")] < -1e-6:
        raise OutOfRangeError("Without a drop of water it would still weigh more.", field="/left_g")
    return Taste.of_sums(sums, unsure=_unsure(each, sums, left))


def _unsure(each: list[tuple[Ingredient, float, tuple[float, ...]]], sums: list[float], left: float) -> tuple[str, ...]:
    """Who brings much of an acid, a bite or a savour that is known badly."""
    found = []
    for thing, grams, of in each:
        low = tastes_written().get(thing.key, NOTHING).confidence == "low"
        weighs = any(sums[n] > 0.0 and grams * of[n] / left >= 0.1 * sums[n] for n in (2, 4, 5))
        if low and weighs:
            found.append(thing.name)
    return tuple(found)
