"""What 100 g of a food can hold: just inside and just outside each line; every food of the starter tables is inside."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.inventory.plausible import check_composition

CHUCK = Composition(60.0, 18.0, 21.0, 0.0, 1.0, 70.0)


@pytest.mark.parametrize(
    ("part", "amount", "meat", "says"),
    [
        ("water_g_per_100g", 65.0, True, ""),
        ("water_g_per_100g", 65.1, True, "come to 105 g of 100 g"),
        ("water_g_per_100g", 50.0, True, ""),
        ("water_g_per_100g", 49.9, True, "nearly all"),
        ("water_g_per_100g", 0.0, False, ""),
        ("sugars_g_per_100g", 1.0, True, ""),
        ("sugars_g_per_100g", 1.1, True, "Sugars are a part"),
    ],
)
def test_each_line_just_inside_and_just_outside(part: str, amount: float, meat: bool, says: str) -> None:
    composition = replace(CHUCK, **{part: amount})
    if not says:
        check_composition(composition, meat=meat, field="/x")
        return
    with pytest.raises(OutOfRangeError, match=says):
        check_composition(composition, meat=meat, field="/x")


@pytest.mark.parametrize("meat", [True, False])
def test_nothing_at_all_and_five_times_too_much_are_no_food(meat: bool) -> None:
    with pytest.raises(OutOfRangeError, match="nothing at all"):
        check_composition(Composition(0, 0, 0, 0, 0, 0), meat=meat, field="/x")
    with pytest.raises(OutOfRangeError, match="come to 500 g"):
        check_composition(Composition(100, 100, 100, 100, 100, 0), meat=meat, field="/x")


def test_every_row_of_the_tables_is_a_food() -> None:
    for meat in starter_inventory().meats.values():
        check_composition(meat.composition, meat=True, field=meat.key)
    for thing in starter_pantry().values():
        if thing.house is None:
            check_composition(thing.composition, meat=False, field=thing.key)
