"""House formulas: rubs, crumbs, sauces, ferments and stocks made of the pantry, and used like anything else in it."""

from __future__ import annotations

import math
from collections import deque
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from decimal import Decimal

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.pantry import MOST_HOUSE_LINES, HouseFormula, Ingredient, Pantry, ingredient_of

MOST_KEEPS_DAYS = 1000
# House formulas that stand one on another (ours): a sauce of a stock of a ferment is three.
MOST_HOUSE_LEVELS = 12
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
    if ingredient.house is None:
        raise OutOfRangeError(f"{ingredient.name} is bought, not made in the house.", field="/house")
    held = {**pantry, ingredient.key: ingredient}
    figures, refused = all_house_figures(held)
    if ingredient.key in figures:
        return figures[ingredient.key]
    raise refused[ingredient.key]


def all_house_figures(pantry: Pantry) -> tuple[dict[str, HouseFigures], dict[str, CoreError]]:
    """Every house formula of a pantry, worked out once, and why those that cannot be are not.

    By levels, those that stand on bought things first, and not by recursion: a formula that many others hold is worked
    out once, and neither a circle nor a long chain takes more than 12 rounds.

    Parameters
    ----------
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    tuple[dict[str, HouseFigures], dict[str, CoreError]]
        Figures by key, and refusals by key; every house formula is in one of them.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> all_house_figures(starter_pantry())
    ({}, {})
    """
    figures: dict[str, HouseFigures] = {}
    refused: dict[str, CoreError] = {}
    waiting = {key: i.house for key, i in pantry.items() if i.house is not None}
    for _ in range(MOST_HOUSE_LEVELS):
        ready = [key for key, house in waiting.items() if not any(x.ingredient in waiting for x in house.lines)]
        # What has been found in this round serves the next one.
        for key in ready:
            try:
                figures[key] = _of_lines(pantry[key], pantry=pantry, figures=figures, refused=refused)
            except CoreError as error:
                refused[key] = error
        for key in ready:
            del waiting[key]
        if not ready:
            break
    for key in waiting:
        refused[key] = _endless(pantry[key], waiting, pantry=pantry)
    return figures, refused


def _endless(ingredient: Ingredient, waiting: Mapping[str, HouseFormula], *, pantry: Pantry) -> CoreError:
    """Why no round reached a formula: it holds itself, or it stands on too many others."""
    # What one line was found not to lead back from, no other line has to walk again.
    seen: set[str] = set()
    for at, line in enumerate(waiting[ingredient.key].lines):
        ahead = deque([line.ingredient] if line.ingredient not in seen else [])
        seen.add(line.ingredient)
        while ahead:
            key = ahead.popleft()
            if key == ingredient.key:
                name = pantry[line.ingredient].name
                return CircularHouseError(
                    f"{name} would be an ingredient of itself.", field=f"/house/lines/{at}/ingredient"
                )
            below = waiting[key].lines if key in waiting else ()
            ahead.extend(x.ingredient for x in below if x.ingredient not in seen)
            seen.update(x.ingredient for x in below)
    return OutOfRangeError(
        f"{ingredient.name} stands on more than {MOST_HOUSE_LEVELS} house formulas one above another, or on one that "
        "holds itself.",
        field="/house/lines",
    )


def _of_lines(
    ingredient: Ingredient, *, pantry: Pantry, figures: Mapping[str, HouseFigures], refused: Mapping[str, CoreError]
) -> HouseFigures:
    house = ingredient.house
    assert house is not None
    if not 1 <= len(house.lines) <= MOST_HOUSE_LINES:
        raise OutOfRangeError(f"A house formula has 1 to {MOST_HOUSE_LINES} lines.", field="/house/lines")
    if not 0 <= house.keeps_days <= MOST_KEEPS_DAYS:
        raise OutOfRangeError(f"It keeps 0 to {MOST_KEEPS_DAYS} days.", field="/house/keeps_days")
    parts = []
    for at, line in enumerate(house.lines):
        if not 0.0 < line.mass_g <= 1_000_000.0:
            raise OutOfRangeError("A line weighs more than zero.", field=f"/house/lines/{at}/mass_g")
        if line.ingredient in refused:
            raise refused[line.ingredient]
        made_here = figures.get(line.ingredient)
        if made_here is not None:
            parts.append((line.mass_g, made_here.composition, made_here.price_per_kg, made_here.allergens))
        else:
            found = ingredient_of(pantry, line.ingredient, field=f"/house/lines/{at}/ingredient")
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
    return _with_figures(ingredient, house_figures(ingredient, pantry=pantry))


def _with_figures(ingredient: Ingredient, f: HouseFigures) -> Ingredient:
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
    figures, refused = all_house_figures(pantry)
    worked: dict[str, Ingredient] = {}
    for key, ingredient in pantry.items():
        if key in figures:
            worked[key] = _with_figures(ingredient, figures[key])
        else:
            worked[key] = replace(ingredient, retired=True) if key in refused else ingredient
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
    seen = {key}
    waiting = deque(seen)
    while waiting:
        now = waiting.popleft()
        yield now
        house = ingredient_of(pantry, now).house
        for line in house.lines if house else ():
            if line.ingredient not in seen:
                seen.add(line.ingredient)
                waiting.append(line.ingredient)


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
    holders: dict[str, list[str]] = {}
    for other in pantry.values():
        for line in other.house.lines if other.house else ():
            holders.setdefault(line.ingredient, []).append(other.key)
    # Upwards from the thing, so that a pantry of many formulas is walked once.
    above, waiting = {key}, deque([key])
    while waiting:
        for holder in holders.get(waiting.popleft(), ()):
            if holder not in above:
                above.add(holder)
                waiting.append(holder)
    return tuple(other.name for other in pantry.values() if other.key in above and other.key != key)
