"""Composition per 100 g from the USDA nutrient database SR28 (public domain), copied beside this file."""

from __future__ import annotations

import csv
from collections.abc import Mapping
from dataclasses import dataclass, fields
from functools import cache
from importlib.resources import files
from typing import Annotated

from annotated_types import Ge, Le

from vianda.core.basis.bounds import GramsPer100g
from vianda.core.basis.errors import UnknownItemError


@dataclass(frozen=True, slots=True)
class Composition:
    """Grams of each part in 100 g of the food as bought raw.

    The parts need not sum to 100: the analyses are separate, and some acids are not counted (SR28 notes). Sugars are
    a part of the carbohydrate; where SR28 has no analysis of them, zero stands here.
    """

    water_g_per_100g: GramsPer100g
    protein_g_per_100g: GramsPer100g
    fat_g_per_100g: GramsPer100g
    carbohydrate_g_per_100g: GramsPer100g
    ash_g_per_100g: GramsPer100g
    sodium_mg_per_100g: Annotated[float, Ge(0), Le(40_000)]
    sugars_g_per_100g: GramsPer100g = 0.0

    def salt_frac(self) -> float:
        """Salt equivalent 0–1 of the food: sodium × 2.542 (the mass of NaCl by that of Na).

        Returns
        -------
        float
            Salt by mass, from its sodium, 0–1.
        """
        return self.sodium_mg_per_100g * SALT_PER_SODIUM / 100_000.0


# The parts of a composition, in the order of its fields.
PARTS: tuple[str, ...] = tuple(f.name for f in fields(Composition))
# Molar masses 58.443 / 22.990 g/mol; the factor that food tables use. EU 1169/2011, Annex I, rounds it to 2.5.
SALT_PER_SODIUM = 2.542


@cache
def _rows() -> Mapping[str, tuple[str, Composition]]:
    text = (files("vianda.core.inventory") / "data" / "composition_sr28.csv").read_text(encoding="utf-8")
    return {
        row["ndb_no"]: (
            row["usda_name"],
            Composition(
                water_g_per_100g=float(row["water_g"]),
                protein_g_per_100g=float(row["protein_g"]),
                fat_g_per_100g=float(row["fat_g"]),
                carbohydrate_g_per_100g=float(row["carbohydrate_g"]),
                ash_g_per_100g=float(row["ash_g"]),
                sodium_mg_per_100g=float(row["sodium_mg"]),
                sugars_g_per_100g=float(row["sugars_g"] or 0.0),
            ),
        )
        for row in csv.DictReader(text.splitlines())
    }


def sr28_composition(ndb_no: str) -> Composition:
    """Composition of one SR28 row by its number.

    Parameters
    ----------
    ndb_no : str
        Number of the row in SR28.

    Returns
    -------
    Composition
        Grams of each part in 100 g of the food as bought raw.

    Raises
    ------
    UnknownItemError
        When the number is not among the rows we carry.

    Examples
    --------
    >>> sr28_composition("23572").fat_g_per_100g
    20.0
    """
    try:
        return _rows()[ndb_no][1]
    except KeyError:
        raise UnknownItemError(f"SR28 row {ndb_no} is not among those shipped.") from None


def sr28_name(ndb_no: str) -> str:
    """The name SR28 gives one row.

    Parameters
    ----------
    ndb_no : str
        Number of the row in SR28.

    Returns
    -------
    str
        The text.
    """
    return _rows()[ndb_no][0]


@cache
def _from_memory() -> Mapping[str, tuple[str, Composition]]:
    return _by_key("composition_memory.csv")


@cache
def _from_food_data_central() -> Mapping[str, tuple[str, Composition]]:
    return _by_key("composition_fdc.csv")


def _by_key(file: str) -> Mapping[str, tuple[str, Composition]]:
    text = (files("vianda.core.inventory") / "data" / file).read_text(encoding="utf-8")
    return {
        row["key"]: (row["note"], Composition(*(float(row[name]) for name in _MEMORY_COLUMNS)))
        for row in csv.DictReader(text.splitlines())
    }


_MEMORY_COLUMNS = ("water_g", "protein_g", "fat_g", "carbohydrate_g", "ash_g", "sodium_mg", "sugars_g")


def remembered_composition(key: str) -> tuple[str, Composition]:
    """The note on its trust, and the composition, of a food that SR28 does not hold.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.

    Returns
    -------
    tuple[str, Composition]
        The note on its trust, and the composition, of a food that SR28 does not hold.

    Raises
    ------
    UnknownItemError
        When there is no such food among those written down from memory.
    """
    try:
        return _from_memory()[key]
    except KeyError:
        raise UnknownItemError(f"No composition is written down for “{key[:60]}”.") from None


def food_data_central_composition(key: str) -> tuple[str, Composition]:
    """The food of FoodData Central, and the composition, of what SR28 does not hold or holds less well.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.

    Returns
    -------
    tuple[str, Composition]
        The food it was taken from, and its composition.

    Raises
    ------
    UnknownItemError
        When there is no such food among those copied.

    Examples
    --------
    >>> food_data_central_composition("soft-onion")[1].sugars_g_per_100g
    4.99
    """
    try:
        return _from_food_data_central()[key]
    except KeyError:
        raise UnknownItemError(f"No composition is copied for “{key[:60]}”.") from None
