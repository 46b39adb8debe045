"""Yields of what is cooked beside the meat, sauce between balls, ferments and shakers, against something outside."""

from __future__ import annotations

import math
import random

import numpy as np
import pytest
from scipy.integrate import solve_ivp
from sr28_rows import rows_of

from vianda.core.equipment.kitchen import Surface
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.sauce.ferment import FULL_DAYS, ferment
from vianda.core.sauce.from_raw import COOKED_BESIDE
from vianda.core.sauce.keep import CP_J_KG_K, K_W_M_K, RHO_KG_M3, centre_s
from vianda.core.sauce.pot import LAYER_RISE, SAUCE_G_CM3, balls_in_pot
from vianda.core.shape.laying import discs_at_once

NUTRIENTS = {"protein": "203", "fat": "204", "ash": "207", "water": "255"}


def _per_100g(number: str) -> dict[str, float]:
    return {
        name: float(row[2])
        for row in rows_of("NUT_DATA.txt")
        if row[0] == number
        for name, code in NUTRIENTS.items()
        if row[1] == code
    }


def _household_g(number: str, words: str) -> float:
    return next(float(r[4]) / float(r[2]) for r in rows_of("WEIGHT.txt") if r[0] == number and r[3].startswith(words))


def test_bacon_loses_what_sr28_says() -> None:
    """SR28 10123 raw and 10862 pan-fried: protein and ash stay, so their shares tell the yield; rashers do too."""
    raw, fried = _per_100g("10123"), _per_100g("10862")
    low, usual, high = COOKED_BESIDE["crisp-bacon"].left_frac
    by_protein, by_ash = raw["protein"] / fried["protein"], raw["ash"] / fried["ash"]
    by_rasher = _household_g("10862", "slice") / _household_g("10123", "slice raw")
    assert usual == pytest.approx(by_protein, abs=0.01)
    for found in (by_protein, by_ash, by_rasher):
        assert low - 0.001 <= found <= high + 0.001
    # What fat is not in the fried rasher is in the pan.
    assert COOKED_BESIDE["crisp-bacon"].fat_frac == pytest.approx((raw["fat"] - usual * fried["fat"]) / 100, abs=0.01)


@pytest.mark.parametrize(
    ("key", "raw", "raw_words", "cooked", "cooked_words"),
    [
        # SR28 household weights of one and the same piece, raw and cooked in water.
        ("grilled-onion", "11282", 'slice, large (1/4" thick)', "11283", 'slice, large (1/4" thick)'),
        ("cooked-mushroom", "11260", "medium", "11261", "mushroom"),
    ],
)
def test_a_piece_loses_about_what_sr28s_pieces_lose(
    key: str, raw: str, raw_words: str, cooked: str, cooked_words: str
) -> None:
    """Boiled there and fried here: the yield lies within our band, which is wider for that."""
    low, _, high = COOKED_BESIDE[key].left_frac
    assert low <= _household_g(cooked, cooked_words) / _household_g(raw, raw_words) <= high + 0.01


def test_dry_matter_of_caramelised_onion_is_that_of_the_raw_one_boiled_down() -> None:
    """SR28 11282 has 10.9 % of dry matter: at 25 to 35 % of its mass half to three quarters are still water, as in the
    pantry's row, which comes from memory."""
    water = _per_100g("11282")["water"] / 100
    low, usual, high = COOKED_BESIDE["brown-onion"].left_frac
    for left in (low, usual, high):
        assert 0.5 < 1 - (1 - water) / left < 0.75
    pantry = starter_pantry()["brown-onion"].composition.water_g_per_100g / 100
    assert 0.5 < pantry < 0.75


def test_sauce_between_balls_by_throwing_points() -> None:
    """Independent of caps and layers: points thrown into the pot that hit no ball are sauce (Monte Carlo)."""
    pot_mm, ball_mm, balls = 200.0, 44.0, 20
    centres = discs_at_once(
        surface=Surface("pot", "Pot", "pan", pot_mm, pot_mm, True), diameter_mm=ball_mm, gap_mm=0.0
    ).centres_mm
    found = balls_in_pot(800, balls=balls, ball_mm=ball_mm, diameter_mm=pot_mm)
    assert found.layers == 2
    counts = (found.lying, balls - found.lying)
    rise = ball_mm * LAYER_RISE
    # The second layer's places do not matter for the volume below a height, only how many there are.
    spots = [(x, y, ball_mm / 2 + n * rise) for n in range(2) for x, y in list(centres)[: counts[n]]]
    rng = random.Random(7)
    height = found.pile_mm * 2 / 3
    hits, thrown = 0.0, 60_000
    for _ in range(thrown):
        angle, away = rng.uniform(0, 2 * math.pi), pot_mm / 2 * math.sqrt(rng.random())
        x, y, z = pot_mm / 2 + away * math.cos(angle), pot_mm / 2 + away * math.sin(angle), rng.uniform(0, height)
        # Two balls drawn over each other count twice, as two balls apart would.
        hits += sum((x - a) ** 2 + (y - b) ** 2 + (z - c) ** 2 <= (ball_mm / 2) ** 2 for a, b, c in spots)
    floor = math.pi / 4 * (pot_mm / 10) ** 2
    sauce = floor * height / 10 * (1 - hits / thrown) * SAUCE_G_CM3
    assert found.cover_g == pytest.approx(sauce, rel=0.02)


def test_days_of_a_ferment_are_those_published() -> None:
    """USDA Complete Guide to Home Canning, guide 6 (from memory, high): 70–75 °F 3 to 4 weeks, 60–65 °F 5 to 6."""
    warm, cool = ferment("cabbage", 1000, temp_c=21.5), ferment("cabbage", 1000, temp_c=16.0)
    assert (warm.full_days.low, warm.full_days.high) == (21, 28)
    assert (cool.full_days.low, cool.full_days.high) == (35, 42)
    assert [(32 + 1.8 * at) >= 59.9 for at, _, _ in FULL_DAYS] == [True] * 3
    # Just below and at the line between.
    assert ferment("cabbage", 1000, temp_c=20.9).full_days.low == 35
    assert ferment("cabbage", 1000, temp_c=21.0).full_days.low == 21


def test_salt_of_kraut_brackets_the_published_recipe() -> None:
    """The same guide: 25 lb of cabbage with three quarters of a cup of salt, some 205 to 220 g (from memory): 1.8 to
    1.9 % of the whole, which we take, and call a little less than usual."""
    share = 212 / (25 * 453.6 + 212)
    found = ferment("cabbage", 25 * 453.6, temp_c=21, salt_frac=share)
    assert 0.015 < share < found.usual_frac[0]
    assert "less than usual" in found.keeps.text


@pytest.mark.parametrize(
    ("biot", "first_root", "first_c"), [(0.1, 0.3111, 1.0161), (1.0, 0.8603, 1.1191), (10.0, 1.4289, 1.2620)]
)
def test_a_tray_cools_as_the_textbooks_first_term(biot: float, first_root: float, first_c: float) -> None:
    """Incropera, table 5.1, coefficients of the one-term solution for a plane wall (from memory, high)."""
    depth_mm = 40.0
    h = biot * K_W_M_K / (depth_mm / 2000)
    # Late enough that one term is all: a twentieth of the difference is left.
    seconds = centre_s(depth_mm, h=h, around_c=0.0, from_c=100.0, to_c=5.0)
    fourier = K_W_M_K / (RHO_KG_M3 * CP_J_KG_K) * seconds / (depth_mm / 2000) ** 2
    assert fourier > 0.2
    assert first_c * math.exp(-(first_root**2) * fourier) == pytest.approx(0.05, rel=2e-3)


@pytest.mark.parametrize("depth_mm", [15.0, 40.0, 90.0])
@pytest.mark.parametrize("h", [10.0, 150.0])
def test_a_tray_cools_as_lines_solved_by_scipy(depth_mm: float, h: float) -> None:
    """Half a tray in 200 cells with a convective face: method of lines, SciPy's BDF; early times too."""
    n, half = 200, depth_mm / 2000
    dx, alpha = half / n, K_W_M_K / (RHO_KG_M3 * CP_J_KG_K)

    def rate(_: float, t: np.ndarray) -> np.ndarray:
        flux = np.zeros(n + 1)
        flux[1:n] = K_W_M_K * (t[:-1] - t[1:]) / dx
        face = 1.0 / (1.0 / h + dx / 2 / K_W_M_K)
        flux[n] = face * (t[-1] - 3.0)
        return (flux[:-1] - flux[1:]) / dx / (K_W_M_K / alpha)

    for to_c in (50.0, 21.0, 5.0):
        seconds = centre_s(depth_mm, h=h, around_c=3.0, from_c=57.0, to_c=to_c)
        end = solve_ivp(rate, (0.0, seconds), np.full(n, 57.0), method="BDF", rtol=1e-8, atol=1e-8).y[0, -1]
        assert end == pytest.approx(to_c, abs=0.02)
