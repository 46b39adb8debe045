"""What heat finds in a cell against CoolProp 8.0.0, incompressible food components and ice (Choi & Okos 1986).

Water differs on purpose: heat capacity by 1.15 % (4176.2 is nearer to IAPWS than 4128.9); everything else is the same
polynomial, so that only the digits of its coefficients may differ.
"""

from __future__ import annotations

import numpy as np
import pytest

from vianda.core.heat.conduction.meat import DENSITY, meat_of, polynomial
from vianda.core.heat.conduction.props import FAT_MELT_J_KG, FAT_MELTED_C, conductivity_of, heat_capacity, heat_content
from vianda.core.inventory.composition import Composition
from vianda.core.mix.temperature import heat_capacity_j_per_kg_k

NAMES = ("FoodWater", "FoodProtein", "FoodFat", "FoodCarbohydrate", "FoodAsh")


def _coolprop(what: str, name: str, temp_c: float) -> float:
    from CoolProp.CoolProp import PropsSI

    return float(PropsSI(what, "T", temp_c + 273.15, "P", 101325, f"INCOMP::{name}"))


def _only(name: str) -> np.ndarray:
    return np.eye(5)[NAMES.index(name)]


@pytest.mark.parametrize("temp_c", [5.0, 40.0, 75.0])
@pytest.mark.parametrize("name", NAMES)
def test_each_component_has_the_librarys_properties(name: str, temp_c: float) -> None:
    pure = _only(name)
    assert conductivity_of(pure, temp_c) == pytest.approx(_coolprop("L", name, temp_c), rel=2e-3)
    tolerance = 0.0116 if name == "FoodWater" else 2e-4
    # Choi & Okos know no melting; ours is even from 0 to 47 °C and comes on top.
    melts = FAT_MELT_J_KG / FAT_MELTED_C if name == "FoodFat" and temp_c < FAT_MELTED_C else 0.0
    assert heat_capacity(pure, temp_c) - melts == pytest.approx(_coolprop("C", name, temp_c), rel=tolerance)
    density = float(polynomial(DENSITY, np.array(temp_c))[NAMES.index(name)])
    assert density == pytest.approx(_coolprop("D", name, temp_c), rel=2e-3)


def test_heat_content_is_the_integral_of_heat_capacity() -> None:
    shares = np.array([0.6, 0.17, 0.22, 0.0, 0.01])
    for low, high in ((0.5, 30.0), (30.0, 95.0), (-30.0, -2.0)):
        grid = np.linspace(low, high, 4001)
        middles = (grid[1:] + grid[:-1]) / 2
        lethality_message = sum(heat_capacity(shares, t) for t in middles) * (grid[1] - grid[0])
        assert heat_content(shares, high) - heat_content(shares, low) == pytest.approx(lethality_message, rel=2e-4)


def test_the_mixs_temperature_and_the_march_know_the_same_heat() -> None:
    mince = Composition(60.0, 17.0, 22.0, 0.0, 1.0, 66.0)
    shares = np.array(meat_of(mince, packing=1.0).shares)
    # Cold fat neither melts nor sets in the minutes of mixing: the bowl leaves its melting out.
    for temp_c in (2.0, 20.0, 60.0):
        melts = shares[2] * FAT_MELT_J_KG / FAT_MELTED_C if temp_c < FAT_MELTED_C else 0.0
        assert heat_capacity(shares, temp_c) - melts == pytest.approx(
            heat_capacity_j_per_kg_k(mince, temp_c=temp_c), rel=1e-6
        )


def test_the_mixing_rule_is_the_upper_bound_and_lies_where_a_prototype_found_it() -> None:
    # A prototype: at 40 °C parallel 0.471, in series 0.339 W/mK for mince of about 20 % fat.
    shares = np.array([0.619, 0.172, 0.20, 0.0, 0.009])
    volumes = shares / polynomial(DENSITY, np.array(40.0))
    volumes = volumes / volumes.sum()
    each = np.array([conductivity_of(_only(n), 40.0) for n in NAMES])
    series = 1.0 / float(np.sum(volumes / each))
    parallel = conductivity_of(shares, 40.0)
    assert parallel == pytest.approx(float(volumes @ each), rel=1e-9)
    assert parallel == pytest.approx(0.471, abs=0.01)
    assert series == pytest.approx(0.339, abs=0.012)


def test_ice_conducts_four_times_as_well_as_water_and_holds_half_as_much() -> None:
    water = _only("FoodWater")
    # Pure water here has no bound share: nearly all of it is ice far below.
    assert conductivity_of(water, -30.0) > 3.2 * conductivity_of(water, 1.0)
    cold = (heat_content(water, -20.0) - heat_content(water, -40.0)) / 20.0
    assert cold == pytest.approx(2062 + 6.08 * -30, rel=0.35)
