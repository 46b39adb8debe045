"""Sauces and brines against published and independent figures; the source stands beside each."""

from __future__ import annotations

import math

import numpy as np
import pytest
from CoolProp.CoolProp import PropsSI
from scipy.integrate import solve_ivp

from vianda.core.heat.conduction.props import LATENT_J_KG
from vianda.core.heat.conduction.skin import drying_kg_m2_s, vapour_pressure_pa
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.sauce.brine import acetic_ph, uptake_frac
from vianda.core.sauce.cook_down import cook_down
from vianda.core.sauce.tastes import taste_of


@pytest.mark.parametrize("ratio", [0.5, 1.5, 4.0])
@pytest.mark.parametrize("fourier", [0.02, 0.1, 0.4, 1.0])
def test_the_series_for_a_slice_in_little_brine_against_lines_solved_by_scipy(ratio: float, fourier: float) -> None:
    """Half a sheet in 400 cells beside a stirred bath of limited volume: method of lines, SciPy's BDF."""
    n = 400
    dx = 1.0 / n

    def rate(_: float, c: np.ndarray) -> np.ndarray:
        sheet, bath = c[:n], c[n]
        out = np.empty(n + 1)
        flux = np.empty(n + 1)
        flux[0] = 0.0
        flux[1:n] = (sheet[:-1] - sheet[1:]) / dx
        flux[n] = (sheet[-1] - bath) / (dx / 2)
        out[:n] = (flux[:-1] - flux[1:]) / dx
        out[n] = flux[n] / ratio
        return out

    start = np.zeros(n + 1)
    start[n] = 1.0
    end = solve_ivp(rate, (0.0, fourier), start, method="BDF", rtol=1e-7, atol=1e-10).y[:, -1]
    taken = float(np.mean(end[:n])) / (ratio / (1.0 + ratio))
    assert uptake_frac(fourier, ratio) == pytest.approx(taken, abs=2e-3)


def test_a_large_bath_is_the_textbook_series() -> None:
    # Crank (1975), 4.18: 1 − 8/π² Σ exp(−(2n+1)² π² Fo ÷ 4) ÷ (2n+1)².
    for fourier in (0.1, 0.3, 0.8):
        left = 8 / math.pi**2 * sum(
            math.exp(-((2 * n + 1) ** 2) * math.pi**2 * fourier / 4) / (2 * n + 1) ** 2 for n in range(50)
        )  # fmt: skip
        assert uptake_frac(fourier, 1e6) == pytest.approx(1 - left, abs=1e-4)


@pytest.mark.parametrize(("mol", "ph"), [(1.0, 2.38), (0.1, 2.88), (0.01, 3.38)])
def test_acetic_acid_has_the_ph_that_textbooks_print(mol: float, ph: float) -> None:
    # CRC Handbook of Chemistry and Physics, pKa 4.756 at 25 °C: table values without activities, from memory.
    assert acetic_ph(mol) == pytest.approx(ph, abs=0.02)


def test_vinegar_of_five_per_cent_lies_where_makers_say() -> None:
    # 5 g of acetic acid in 100 g: pH 2.4 to 2.5 in food science texts, from memory, high.
    assert acetic_ph(50.0 / 60.05) == pytest.approx(2.42, abs=0.05)


def test_what_boils_away_takes_the_latent_heat_of_water() -> None:
    # CoolProp 8.0.0, IAPWS-95: 2256.5 kJ/kg at 100 °C.
    latent = PropsSI("H", "T", 373.124, "Q", 1, "Water") - PropsSI("H", "T", 373.124, "Q", 0, "Water")
    assert pytest.approx(latent, rel=3e-3) == LATENT_J_KG
    # A litre to half over 1 kW at a rolling boil: the energy balance alone.
    area = math.pi / 4 * 0.24**2
    found = cook_down(1000, 500, "rolling", diameter_mm=240, burner_w_m2=1000.0 / area)
    assert found.minutes.usual * 60 == pytest.approx(0.5 * latent / 1000.0, rel=5e-3)


@pytest.mark.parametrize("temp_c", [60.0, 75.0, 90.0])
def test_what_the_surface_gives_follows_from_waters_vapour(temp_c: float) -> None:
    # CoolProp's vapour pressure, and Stefan's law with the Lewis relation written out: h ÷ (c_p · 0.9) · 0.622 · ln.
    p = PropsSI("P", "T", temp_c + 273.15, "Q", 0, "Water")
    assert vapour_pressure_pa(temp_c) == pytest.approx(p, rel=5e-3)
    by_hand = 10.0 / (1006.0 * 0.9) * 0.622 * math.log((101_325 - 1300) / (101_325 - p))
    assert drying_kg_m2_s(temp_c, 10.0, 1300.0) == pytest.approx(by_hand, rel=1e-2)


def test_a_sauce_is_the_weighted_sum_of_sr28s_rows() -> None:
    """SR28 04025 mayonnaise, 11935 ketchup: fat, sodium, sugars and water from the published rows."""
    from sr28_rows import rows_of

    pantry = starter_pantry()
    cited = {k: pantry[k].composition_note[5:10] for k in ("mayonnaise", "ketchup")}
    rows = {(r[0], r[1]): float(r[2]) for r in rows_of("NUT_DATA.txt") if r[0] in cited.values()}
    taste = taste_of([("mayonnaise", 200.0), ("ketchup", 100.0)], pantry=pantry)
    numbers = (("204", "fat", 1.0), ("269", "sugar", 1.0), ("255", "water", 1.0), ("307", "salt", 2.542e-3))
    for number, name, factor in numbers:
        by_hand = (2 * rows[(cited["mayonnaise"], number)] + rows[(cited["ketchup"], number)]) / 3 * factor
        assert taste.of(name) == pytest.approx(by_hand, rel=1e-3), name
