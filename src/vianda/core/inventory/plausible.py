"""Whether the parts of a composition can be those of a food: water, protein, fat, carbohydrate and ash of 100 g."""

from __future__ import annotations

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.composition import Composition

# SR28: raw meats sum to 98.2–101.2 g, every food without alcohol or acid to 84 g and more, baking soda to 37, spirits
# to 67. Analyses are separate, so a little over 100 g is usual.
LEAST_OF_MEAT_G, MOST_G = 90.0, 105.0


def parts_g(composition: Composition) -> float:
    """Grams that are accounted for in 100 g.

    Parameters
    ----------
    composition : Composition
        What 100 g of a food holds.

    Returns
    -------
    float
        The sum of its parts, g, 0 or more.

    Examples
    --------
    >>> parts_g(Composition(60.0, 18.0, 21.0, 0.0, 1.0, 70.0))
    100.0
    """
    c = composition
    return c.water_g_per_100g + c.protein_g_per_100g + c.fat_g_per_100g + c.carbohydrate_g_per_100g + c.ash_g_per_100g


def check_composition(composition: Composition, *, meat: bool, field: str) -> None:
    """Refuse what no 100 g of a food can hold.

    Parameters
    ----------
    composition : Composition
        As it is to be kept.
    meat : bool
        Meat is water, protein and fat; other food may hold alcohol or acid, which no part counts.
    field : str
        JSON pointer of the composition, for the refusal.

    Raises
    ------
    OutOfRangeError
        Parts of more than 105 g, of nothing, or of a meat of less than 90 g; more sugars than carbohydrate.

    References
    ----------
    USDA SR28, sums of its rows.
    """
    total = parts_g(composition)
    if total > MOST_G:
        raise OutOfRangeError(
            f"Water, protein, fat, carbohydrate and ash come to {total:.0f} g of 100 g. Is one of another mass?",
            field=field,
        )
    if total <= 0.0:
        raise OutOfRangeError("100 g of it hold nothing at all. Take what a food table says.", field=field)
    if meat and total < LEAST_OF_MEAT_G:
        raise OutOfRangeError(
            f"Water, protein, fat, carbohydrate and ash come to {total:.0f} g of 100 g; of meat they are nearly all.",
            field=field,
        )
    if composition.sugars_g_per_100g > composition.carbohydrate_g_per_100g + 1.0:
        raise OutOfRangeError("Sugars are a part of the carbohydrate, and cannot be more.", field=field)
