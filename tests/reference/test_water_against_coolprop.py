"""Water's own constants against CoolProp 8.0.0 (IAPWS-95 and ASHRAE's moist air), and radiation against SciPy."""

from __future__ import annotations

import pytest
from CoolProp.CoolProp import HAPropsSI, PropsSI
from scipy import constants

from vianda.core.heat.conduction.props import LATENT_J_KG
from vianda.core.heat.conduction.skin import (
    AIR_CP,
    LEWIS,
    MM_HG_PA,
    STEFAN_BOLTZMANN,
    WATER_TO_AIR,
    drying_kg_m2_s,
    vapour_pressure_pa,
)


@pytest.mark.parametrize("temp_c", [1, 5, 20, 40, 60, 80, 99])
def test_the_pressure_of_vapour_is_that_of_the_steam_tables(temp_c: float) -> None:
    # Antoine's three constants lie 0.9 % low at 1 °C and 0.1 % at 100, as the docstring says.
    tables = PropsSI("P", "T", temp_c + 273.15, "Q", 1, "Water")
    assert vapour_pressure_pa(temp_c) == pytest.approx(tables, rel=9e-3)


def test_heat_of_boiling_is_that_of_the_steam_tables_at_100_degrees() -> None:
    # 2.26 MJ/kg is the value at 100 °C; what dries at 60 °C takes 4 % more, which is left out (docs/heat-model.md).
    latent = {
        t: PropsSI("H", "T", t + 273.15, "Q", 1, "Water") - PropsSI("H", "T", t + 273.15, "Q", 0, "Water")
        for t in (60, 100)
    }
    assert latent[100] == pytest.approx(LATENT_J_KG, rel=2e-3)
    assert 1.03 < latent[60] / LATENT_J_KG < 1.05


@pytest.mark.parametrize("temp_c", [20, 60, 100])
def test_air_holds_the_heat_of_dry_air(temp_c: float) -> None:
    assert PropsSI("C", "T", temp_c + 273.15, "P", 101325, "Air") == pytest.approx(AIR_CP, rel=6e-3)


def test_the_ratio_of_water_to_air_is_that_of_their_molar_masses() -> None:
    ratio = PropsSI("M", "Water") / PropsSI("M", "Air")
    assert pytest.approx(0.622, rel=2e-2) == WATER_TO_AIR * 101325 or pytest.approx(ratio, rel=2e-2) == WATER_TO_AIR


def test_wet_meat_in_still_air_cools_to_about_the_wet_bulb() -> None:
    """Heat from the air meets drying at the wet bulb of ASHRAE's moist air, for which Lewis's number is near one."""
    air_c, humidity = 60.0, 0.1
    wet_bulb = HAPropsSI("B", "T", air_c + 273.15, "P", 101325, "R", humidity) - 273.15
    vapour = humidity * vapour_pressure_pa(air_c)
    low, high = 0.0, air_c
    for _ in range(60):
        here = (low + high) / 2
        brought = 10.0 * (air_c - here)
        taken = LATENT_J_KG * drying_kg_m2_s(here, 10.0, vapour)
        low, high = (here, high) if brought > taken else (low, here)
    # 0.9 for Lewis's number and 2.26 for 2.4 MJ/kg nearly cancel.
    assert low == pytest.approx(wet_bulb, abs=1.5)
    assert pytest.approx(0.9, abs=0.05) == LEWIS


def test_radiation_and_pressure_have_the_constants_of_codata() -> None:
    assert pytest.approx(constants.Stefan_Boltzmann, rel=1e-9) == STEFAN_BOLTZMANN
    assert pytest.approx(constants.mmHg, rel=1e-5) == MM_HG_PA
