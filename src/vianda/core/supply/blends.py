"""The meat of every dish of a span as blends that lots can go into."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from vianda.core.inventory.inventory import Inventory
from vianda.core.supply.needs import Need
from vianda.core.supply.sharing import MOST_BLENDS, Blend, Portion


def blend_key(at: int, dish: str) -> str:
    """What tells a dish's blend from others: the place of its day in the span, and its name.

    Parameters
    ----------
    at : int
        The place of the demand in the span, from 0 (count).
    dish : str
        What the dish is called.

    Returns
    -------
    str
        The key.
    """
    return f"{at}/{dish}"


def blends_of(
    days: Sequence[tuple[date, Sequence[Need]]], *, inventory: Inventory, all_meat: bool = False
) -> list[Blend]:
    """The meat of every dish that a lot could go into, with the fat it is to have.

    Parameters
    ----------
    days : Sequence[tuple[date, Sequence[Need]]]
        What each day takes, the earliest first.
    inventory : Inventory
        Meats and lots with their fat.
    all_meat : bool, default False
        Dishes too whose meat lies in no lot.

    Returns
    -------
    list[Blend]
        The earliest first; 400 at most: what lies there is used up long before, and later ones are bought for.
    """
    found: list[Blend] = []
    held = {lot.meat for lot in inventory.lots.values() if not lot.closed and lot.left_mass_g > 0.0}
    for at, (day, needs) in enumerate(days):
        dishes: dict[str, dict[tuple[str, str], float]] = {}
        for need in needs:
            if need.kind == "meat" and need.amount > 0.0:
                portions = dishes.setdefault(need.dish, {})
                portions[need.key, need.lot] = portions.get((need.key, need.lot), 0.0) + need.amount
        for dish, portions in dishes.items():
            if not all_meat and held.isdisjoint(meat for meat, _ in portions):
                continue
            fat = sum(
                grams * inventory.fat_of(meat, lot if lot in inventory.lots else "").usual_frac
                for (meat, lot), grams in portions.items()
            )
            meats = tuple(Portion(meat, grams, lot) for (meat, lot), grams in portions.items())
            found.append(Blend(blend_key(at, dish), dish, day, meats, fat / sum(portions.values())))
    return found[:MOST_BLENDS]
