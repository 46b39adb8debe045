"""Densities against CoolProp's food components; scoops, fluid ounces and one worked tin against other reckonings."""

from __future__ import annotations

import pint
import pytest

from vianda.core.equipment.moulds import SCOOP_NUMBERS, scoop_ml
from vianda.core.inventory.composition import Composition, sr28_composition
from vianda.core.shape.density import solid_density_g_per_ml

PURE = {
    "FoodProtein": Composition(0, 100, 0, 0, 0, 0),
    "FoodFat": Composition(0, 0, 100, 0, 0, 0),
    "FoodCarbohydrate": Composition(0, 0, 0, 100, 0, 0),
    "FoodAsh": Composition(0, 0, 0, 0, 100, 0),
    "FoodWater": Composition(100, 0, 0, 0, 0, 0),
}


@pytest.mark.parametrize("temp_c", [1.0, 4.0, 20.0])
@pytest.mark.parametrize("name", sorted(PURE))
def test_each_component_is_as_dense_as_in_the_library(name: str, temp_c: float) -> None:
    from CoolProp.CoolProp import PropsSI

    theirs = PropsSI("D", "T", temp_c + 273.15, "P", 101325, f"INCOMP::{name}") / 1000
    assert solid_density_g_per_ml(PURE[name], temp_c=temp_c) == pytest.approx(theirs, rel=2e-6)


def test_lean_and_fat_lie_about_where_meat_scientists_put_them() -> None:
    # Skeletal muscle about 1.06, beef fat about 0.92 to 0.94 g/ml: from memory, high confidence.
    assert solid_density_g_per_ml(sr28_composition("23477")) == pytest.approx(1.06, abs=0.01)
    assert solid_density_g_per_ml(PURE["FoodFat"]) == pytest.approx(0.925, abs=0.005)


@pytest.mark.parametrize("number", SCOOP_NUMBERS)
def test_a_scoop_is_a_quart_by_its_number(number: int) -> None:
    # Published convention: so many level scoops to 32 US fluid ounces. pint carries the ounce by itself.
    ounces = pint.UnitRegistry().Quantity(32.0 / number, "US_fluid_ounce")
    assert scoop_ml(number) == pytest.approx(ounces.to("millilitre").magnitude, rel=1e-12)
