"""Heat capacity and mixing against CoolProp 8.0.0, incompressible food components (Choi & Okos 1986)."""

from __future__ import annotations

import pytest

from vianda.core.inventory.composition import Composition, sr28_composition
from vianda.core.mix.temperature import Part, heat_capacity_j_per_kg_k, mixed_temp_c

PURE = {
    "FoodProtein": Composition(0, 100, 0, 0, 0, 0),
    "FoodFat": Composition(0, 0, 100, 0, 0, 0),
    "FoodCarbohydrate": Composition(0, 0, 0, 100, 0, 0),
    "FoodAsh": Composition(0, 0, 0, 0, 100, 0),
    "FoodWater": Composition(100, 0, 0, 0, 0, 0),
}


def _coolprop(name: str, temp_c: float) -> float:
    from CoolProp.CoolProp import PropsSI

    return PropsSI("C", "T", temp_c + 273.15, "P", 101325, f"INCOMP::{name}")


@pytest.mark.parametrize("temp_c", [0.0, 4.0, 20.0, 60.0])
@pytest.mark.parametrize("name", sorted(PURE))
def test_each_component_has_the_heat_capacity_of_the_library(name: str, temp_c: float) -> None:
    # Water's leading coefficient is 4176.2 with us (nearer to IAPWS) and 4128.9 there: 1.15 %. The rest to six digits.
    tolerance = 0.0116 if name == "FoodWater" else 2e-6
    assert heat_capacity_j_per_kg_k(PURE[name], temp_c=temp_c) == pytest.approx(_coolprop(name, temp_c), rel=tolerance)


def test_a_mix_of_meat_crumb_and_milk_ends_where_the_library_would_put_it() -> None:
    parts = [
        Part(1000, sr28_composition("23572"), 3.0),
        Part(80, sr28_composition("18079"), 20.0),
        Part(160, sr28_composition("01077"), 20.0),
        Part(100, sr28_composition("11286"), 30.0),
    ]

    def capacity(p: Part) -> float:
        c = p.composition
        shares = {
            "FoodWater": c.water_g_per_100g,
            "FoodProtein": c.protein_g_per_100g,
            "FoodFat": c.fat_g_per_100g,
            "FoodCarbohydrate": c.carbohydrate_g_per_100g,
            "FoodAsh": c.ash_g_per_100g,
        }
        return sum(x * _coolprop(n, 8.0) for n, x in shares.items()) / sum(shares.values())

    heats = [p.mass_g * capacity(p) for p in parts]
    theirs = sum(h * p.temp_c for h, p in zip(heats, parts, strict=True)) / sum(heats)
    # Capacities taken at one temperature, and 1 % other water: a tenth of a degree.
    assert mixed_temp_c(parts) == pytest.approx(theirs, abs=0.1)


def test_two_waters_meet_at_their_weighted_mean() -> None:
    # Analytic: one substance, capacity nearly constant (it changes by 0.04 % over this range).
    water = PURE["FoodWater"]
    assert mixed_temp_c([Part(300, water, 4.0), Part(100, water, 24.0)]) == pytest.approx(9.0, abs=0.01)
