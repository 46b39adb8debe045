"""House formulas: rubs, crumbs, sauces, ferments and stocks made of the pantry, and used like anything else in it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from decimal import Decimal

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.pantry import MOST_HOUSE_LINES, Ingredient, Pantry, ingredient_of

MOST_KEEPS_DAYS = 1000
_PARTS = (
    "water_g_per_100g",
    "protein_g_per_100g",
    "fat_g_per_100g",
    "carbohydrate_g_per_100g",
    "ash_g_per_100g",
    "sodium_mg_per_100g",
    "sugars_g_per_100g",
)


class CircularHouseError(CoreError):
    """A house formula that would be an ingredient of itself."""

    code = "circular-house"
    title = "A house formula cannot hold itself"


@dataclass(frozen=True, slots=True)
class HouseFigures:
    """What a house formula comes to: per kilogram made, and the water that left it.

    ``salt_frac`` is salt equivalent by mass of what is made.
    """

    input_g: float
    yield_g: float
    water_lost_g: float
    composition: Composition
    salt_frac: float
    allergens: tuple[str, ...]
    price_per_kg: Decimal


def house_figures(ingredient: Ingredient, *, pantry: Pantry) -> HouseFigures:
    """Composition, allergens and cost of a house formula.

    Every part but water is kept: part per 100 g = Σ mᵢ pᵢ ÷ yield; water = Σ mᵢ wᵢ − (Σ mᵢ − yield).

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    HouseFigures
        What a house formula comes to.

    Raises
    ------
    CircularHouseError, OutOfRangeError, UnknownItemError
        It holds itself; it gives more than went in, or less than its dry matter; a line is unknown.

    Examples
    --------
    A kilogram of bread dried to 660 g has lost 340 g of water, and its salt stands half as high again.
    """
    return _figures(ingredient, pantry=pantry, above=())


def _figures(ingredient: Ingredient, *, pantry: Pantry, above: tuple[str, ...]) -> HouseFigures:
    house = ingredient.house
    if house is None:
        raise OutOfRangeError(f"{ingredient.name} is bought, not made in the house.", field="/house")
    path = (*above, ingredient.key)
    if not 1 <= len(house.lines) <= MOST_HOUSE_LINES:
        raise OutOfRangeError(f"A house formula has 1 to {MOST_HOUSE_LINES} lines.", field="/house/lines")
    if not 0 <= house.keeps_days <= MOST_KEEPS_DAYS:
        raise OutOfRangeError(f"It keeps 0 to {MOST_KEEPS_DAYS} days.", field="/house/keeps_days")
    parts = []
    for at, line in enumerate(house.lines):
        if not 0.0 < line.mass_g <= 1_000_000.0:
            raise OutOfRangeError("A line weighs more than zero.", field=f"/house/lines/{at}/mass_g")
        if line.ingredient in path:
            name = ingredient_of(pantry, line.ingredient).name if line.ingredient in pantry else ingredient.name
            raise CircularHouseError(f"{name} would be an ingredient of itself.", field=f"/house/lines/{at}/ingredient")
        found = ingredient_of(pantry, line.ingredient, field=f"/house/lines/{at}/ingredient")
        if found.house is not None:
            figures = _figures(found, pantry=pantry, above=path)
            parts.append((line.mass_g, figures.composition, figures.price_per_kg, figures.allergens))
        else:
            parts.append((line.mass_g, found.composition, found.price_per_kg, found.allergens))
    return _summed(ingredient, parts, yield_g=house.yield_g)


def _summed(
    ingredient: Ingredient, parts: list[tuple[float, Composition, Decimal, tuple[str, ...]]], *, yield_g: float
) -> HouseFigures:
    total = math.fsum(mass for mass, *_ in parts)
    # Nothing was said of what comes out: nothing is lost.
    yield_g = yield_g or total
    if not 0.0 < yield_g <= total * (1 + 1e-9):
        raise OutOfRangeError(
            f"{ingredient.name}: {total:.0f} g go in, so 1 to {total:.0f} g can come out.", field="/house/yield_g"
        )
    lost = total - yield_g
    sums = {name: math.fsum(m * getattr(c, name) for m, c, *_ in parts) / yield_g for name in _PARTS}
    sums["water_g_per_100g"] -= lost / yield_g * 100.0
    if sums["water_g_per_100g"] < -1e-6:
        dry = total - math.fsum(m * c.water_g_per_100g / 100.0 for m, c, *_ in parts)
        raise OutOfRangeError(
            f"{ingredient.name}: without a drop of water it would still weigh {dry:.0f} g.", field="/house/yield_g"
        )
    sums["water_g_per_100g"] = max(0.0, sums["water_g_per_100g"])
    cost = sum((Decimal(repr(m)) / 1000 * price for m, _, price, _ in parts), Decimal(0))
    allergens = tuple(dict.fromkeys(a for *_, found in parts for a in found))
    composition = Composition(**sums)
    return HouseFigures(
        total, yield_g, lost, composition, composition.salt_frac(), allergens, cost / Decimal(repr(yield_g)) * 1000
    )


def made(ingredient: Ingredient, *, pantry: Pantry) -> Ingredient:
    """The ingredient with the composition, allergens and price that its house formula gives it; else itself.

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    Ingredient
        One thing of the pantry as it goes into the bowl.
    """
    if ingredient.house is None:
        return ingredient
    f = house_figures(ingredient, pantry=pantry)
    return replace(ingredient, composition=f.composition, allergens=f.allergens, price_per_kg=f.price_per_kg)


def with_house_made(pantry: Mapping[str, Ingredient]) -> Pantry:
    """The pantry with every house formula worked out. One that cannot be is left out of use, not out of sight.

    Parameters
    ----------
    pantry : Mapping[str, Ingredient]
        Ingredients by key.

    Returns
    -------
    Pantry
        The pantry with every house formula worked out.
    """
    worked: dict[str, Ingredient] = {}
    for key, ingredient in pantry.items():
        try:
            worked[key] = made(ingredient, pantry=pantry)
        except CoreError:
            worked[key] = replace(ingredient, retired=True)
    return worked


def needs(key: str, *, pantry: Pantry) -> Iterator[str]:
    """Every ingredient a key stands on, itself first, each once: what a file must carry along.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    pantry : Pantry
        Ingredients by key.

    Yields
    ------
    str
        Every ingredient a key stands on, itself first, each once: what a file must carry along.
    """
    seen: set[str] = set()
    waiting = [key]
    while waiting:
        now = waiting.pop(0)
        if now in seen:
            continue
        seen.add(now)
        yield now
        house = ingredient_of(pantry, now).house
        waiting.extend(line.ingredient for line in house.lines) if house else None


def used_in(key: str, *, pantry: Pantry) -> tuple[str, ...]:
    """Names of the house formulas that hold this ingredient, straight or through another.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    tuple[str, ...]
        Names of the house formulas that hold this ingredient, straight or through another.
    """
    return tuple(
        other.name
        for other in pantry.values()
        if other.house and other.key != key and key in needs(other.key, pantry=pantry)
    )
