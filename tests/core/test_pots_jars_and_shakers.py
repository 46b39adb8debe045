"""Balls in a pot, fat skimmed, gravies, ferments, what is cooked beside the meat, and salt from a shaker."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.shaker import ShakerTrial, calibrate, poured_g
from vianda.core.equipment.kitchen import Surface
from vianda.core.inventory.pantry import HouseFormula, HouseLine, starter_pantry
from vianda.core.sauce.brine import pickled_frac, ready_after_h
from vianda.core.sauce.compose import scaled
from vianda.core.sauce.cook_down import cook_down
from vianda.core.sauce.ferment import COLDEST_C, SALT_MOST, WARMEST_C, ferment
from vianda.core.sauce.from_raw import COOKED_BESIDE, from_raw, loads_for
from vianda.core.sauce.pot import COVERED_FRAC, SAUCE_G_CM3, balls_in_pot, fat_to_skim_g, height_needed_mm, level_mm
from vianda.core.sauce.swap import swaps_for
from vianda.core.sauce.tastes import tastes_of
from vianda.core.sauce.thicken import thickening

PAN = Surface("pan", "Pan", "pan", 280, 280, True)


# ---------------------------------------------------------------------------------------------------------- the pot


@given(st.floats(50, 20_000), st.integers(1, 120), st.floats(20, 80), st.floats(160, 500))
def test_sauce_and_balls_fill_what_they_say(sauce_g: float, balls: int, ball_mm: float, pot_mm: float) -> None:
    found = balls_in_pot(sauce_g, balls=balls, ball_mm=ball_mm, diameter_mm=pot_mm)
    assert found.lying * found.layers >= balls > found.lying * (found.layers - 1)
    assert 0.0 < found.cover_g <= found.drown_g
    # All of a pile's volume is balls or sauce.
    floor = math.pi / 4 * (pot_mm / 10) ** 2
    all_balls = balls * math.pi / 6 * (ball_mm / 10) ** 3
    assert found.drown_g / SAUCE_G_CM3 + all_balls == pytest.approx(floor * found.pile_mm / 10, rel=1e-9)
    assert found.covered_frac <= 1.0
    assert (found.sauce_short_g > 0.0) == (sauce_g < found.cover_g)
    assert found.sauce_per_ball_g * balls == pytest.approx(sauce_g)


def test_at_the_grams_that_cover_it_stands_at_two_thirds() -> None:
    asked = balls_in_pot(500, balls=30, ball_mm=42, diameter_mm=280)
    at = balls_in_pot(asked.cover_g, balls=30, ball_mm=42, diameter_mm=280)
    assert at.covered_frac == pytest.approx(COVERED_FRAC, rel=1e-6)
    assert at.sauce_short_g == pytest.approx(0.0, abs=1e-6)
    drowned = balls_in_pot(asked.drown_g + 100, balls=30, ball_mm=42, diameter_mm=280)
    assert drowned.covered_frac == 1.0
    assert drowned.level_mm == pytest.approx(drowned.pile_mm + level_mm(100, diameter_mm=280))


@pytest.mark.parametrize(
    ("balls", "ball_mm"), [(0, 40), (-1, 40), (3, 0), (3, 9.9), (3, 1e-9), (3, 281), (3, float("nan"))]
)
def test_balls_that_cannot_lie_in_the_pot_are_refused(balls: int, ball_mm: float) -> None:
    with pytest.raises(OutOfRangeError, match="no wider than the pot"):
        balls_in_pot(500, balls=balls, ball_mm=ball_mm, diameter_mm=280)


def test_a_pot_has_room_above_what_boils() -> None:
    assert height_needed_mm(1000, diameter_mm=240) - level_mm(1000, diameter_mm=240) == pytest.approx(30.0)


@given(st.floats(10, 50_000), st.floats(0, 0.6), st.floats(0, 0.5))
def test_after_skimming_it_holds_the_fat_that_was_wanted(mass_g: float, fat: float, wanted: float) -> None:
    skim = fat_to_skim_g(mass_g, fat, wanted_frac=wanted)
    assert skim >= 0.0
    if fat <= wanted:
        assert skim == 0.0
    else:
        assert (fat * mass_g - skim) / (mass_g - skim) == pytest.approx(wanted, abs=1e-9)


@pytest.mark.parametrize(
    ("mass_g", "fat", "wanted"), [(0, 0.1, 0.05), (100, 1.1, 0.05), (100, 0.1, 1.0), (100, 0.1, -0.1)]
)
def test_fat_that_is_no_share_is_refused(mass_g: float, fat: float, wanted: float) -> None:
    with pytest.raises(OutOfRangeError):
        fat_to_skim_g(mass_g, fat, wanted_frac=wanted)


# --------------------------------------------------------------------------------------------------------- thickened


def test_a_gravy_takes_what_cooks_say() -> None:
    # Common practice, no published source: flour a twentieth to a twelfth of the stock, fat one to two times the flour.
    found = thickening(1200, thickener="flour", body="coating")
    assert found.starch_g.low == pytest.approx(1200 / 20)
    assert found.starch_g.high == pytest.approx(1200 / 12, rel=0.01)
    assert found.fat_g.low == pytest.approx(found.starch_g.usual)
    assert found.fat_g.high == pytest.approx(2 * found.starch_g.usual)
    assert sum(found.additions_g) == pytest.approx(1200)
    assert found.additions_g[0] < found.additions_g[1] < found.additions_g[2]


def test_a_brown_roux_takes_more_and_cornflour_less() -> None:
    white, brown, corn = (thickening(600, thickener=t, body="thick") for t in ("flour", "brown-roux", "cornflour"))
    assert corn.starch_g.usual < white.starch_g.usual < brown.starch_g.usual
    assert corn.fat_g.high == 0.0
    assert corn.cold_water_g == pytest.approx(2 * corn.starch_g.usual)
    assert white.cold_water_g == 0.0
    thin = thickening(600, thickener="flour", body="thin")
    assert thin.starch_g.high <= white.starch_g.low


@pytest.mark.parametrize("liquid", [0.0, -1.0, float("nan"), 1e9])
def test_no_liquid_is_not_thickened(liquid: float) -> None:
    with pytest.raises(OutOfRangeError):
        thickening(liquid, thickener="flour", body="thin")


# ------------------------------------------------------------------------------------------------------------- jars


@given(st.floats(1, 30), st.floats(0.3, 5.0), st.booleans(), st.floats(0.05, 0.97))
def test_ready_is_when_the_slice_is_so_far(slice_mm: float, ratio: float, cold: bool, share: float) -> None:
    ready = ready_after_h(slice_mm, brine_per_vegetable=ratio, cold=cold, share=share)
    assert ready.low <= ready.usual <= ready.high
    at = pickled_frac(slice_mm, ready.usual * 3600, brine_per_vegetable=ratio, cold=cold)
    assert at.usual == pytest.approx(share, abs=2e-3)


def test_twice_as_thick_takes_four_times_as_long_and_cold_half_as_long_again() -> None:
    thin, thick = (ready_after_h(mm, brine_per_vegetable=1.5).usual for mm in (3, 6))
    assert thick == pytest.approx(4 * thin)
    warm = ready_after_h(3, brine_per_vegetable=1.5, cold=False).usual
    assert thin / warm == pytest.approx(1 / 0.65)
    for wrong in ({"share": 0.0}, {"share": 1.0}):
        with pytest.raises(OutOfRangeError):
            ready_after_h(3, brine_per_vegetable=1.5, **wrong)


@given(st.floats(1, 1e5), st.floats(0.015, 0.06))
def test_salt_of_a_ferment_is_by_the_whole(vegetable: float, share: float) -> None:
    found = ferment("cabbage", vegetable, temp_c=20, salt_frac=share)
    assert found.salt_g / (vegetable + found.salt_g) == pytest.approx(share)
    assert found.left_g.low < found.left_g.usual < found.left_g.high < vegetable


@pytest.mark.parametrize("edge", [0.015, SALT_MOST])
def test_salt_just_inside_is_taken(edge: float) -> None:
    assert ferment("cabbage", 1000, temp_c=20, salt_frac=edge).salt_frac == edge


@pytest.mark.parametrize("beyond", [0.0, 0.0149, 0.0601, 1.0])
def test_salt_just_outside_is_refused(beyond: float) -> None:
    with pytest.raises(OutOfRangeError, match=r"1\.5 to 6 %"):
        ferment("cabbage", 1000, temp_c=20, salt_frac=beyond)


def test_a_ferment_that_is_too_cold_or_warm_says_so() -> None:
    def said(temp_c: float, salt: float | None = None) -> str:
        return ferment("cabbage", 1000, temp_c=temp_c, salt_frac=salt).keeps.text

    assert "may not ferment" in said(COLDEST_C - 0.1)
    assert "may not ferment" not in said(COLDEST_C)
    assert "goes soft" in said(WARMEST_C + 0.1)
    assert "goes soft" not in said(WARMEST_C)
    assert "less than usual" in said(20, 0.019)
    assert "is usual" in said(20, 0.02)
    for temp_c in (10.0, 15.0, 20.0, 30.0):
        assert "measured" in said(temp_c)
        assert "Local codes" in said(temp_c)
    for beyond in (9.9, 30.1):
        with pytest.raises(OutOfRangeError, match="10 to 30"):
            ferment("cabbage", 1000, temp_c=beyond)
    with pytest.raises(OutOfRangeError, match="vegetable"):
        ferment("cabbage", 0, temp_c=20)


# ---------------------------------------------------------------------------------------------- beside the meat


@pytest.mark.parametrize("key", sorted(COOKED_BESIDE))
def test_raw_and_cooked_agree(key: str) -> None:
    assert key in starter_pantry()
    found = from_raw(key, 500, surface=PAN)
    assert found is not None
    rule = COOKED_BESIDE[key]
    assert found.raw_g.usual * rule.left_frac[1] == pytest.approx(500)
    assert found.raw_g.low < found.raw_g.usual < found.raw_g.high
    assert found.minutes.usual == pytest.approx(found.loads * rule.minutes[1])
    assert 0.0 < found.surface_frac <= 1.0
    # Every load fits, and one fewer would not.
    holds = rule.holds_kg_m2 * 1000 * math.pi / 4 * 0.28**2
    assert found.raw_g.usual <= found.loads * holds + 1e-6
    assert found.loads == 1 or found.raw_g.usual > (found.loads - 1) * holds


def test_a_pan_of_onions_holds_what_cooks_say() -> None:
    # Common practice, no published source: 8 to 10 kg/m² of raw onion.
    assert 8.0 <= COOKED_BESIDE["brown-onion"].holds_kg_m2 <= 10.0


def test_onions_lose_seven_tenths() -> None:
    # Common practice, no published source: they lose about 70 %.
    found = from_raw("brown-onion", 300, surface=PAN)
    assert found is not None
    assert found.raw_g.usual == pytest.approx(1000)


def test_only_what_is_cooked_beside_the_meat_comes_from_raw() -> None:
    assert from_raw("ketchup", 500, surface=PAN) is None
    assert from_raw("crisp-bacon", 0.0, surface=PAN) is None
    bacon = from_raw("crisp-bacon", 100, surface=PAN)
    assert bacon is not None
    assert bacon.fat_g == pytest.approx(0.27 * bacon.raw_g.usual)
    assert "of fat comes of it" in bacon.turn.text
    onion = from_raw("brown-onion", 100, surface=PAN)
    assert onion is not None
    assert onion.fat_g == 0.0
    assert "fat" not in onion.turn.text


def test_a_full_load_is_one_and_a_gram_more_is_two() -> None:
    assert loads_for(636, holds_g=636) == 1
    assert loads_for(637, holds_g=636) == 2
    assert loads_for(0, holds_g=636) == 1


# ------------------------------------------------------------------------------------------------------- the shaker

trials = st.lists(st.builds(ShakerTrial, st.floats(0.1, 50), st.integers(1, 60)), min_size=1, max_size=8)


@given(trials, st.floats(0.1, 5.0), st.integers(1, 200))
def test_a_shaker_gives_all_that_fell(weighed: list[ShakerTrial], side_g: float, pieces: int) -> None:
    found = calibrate(weighed, side_g=side_g, pieces=pieces)
    fell, shaken = sum(t.grams for t in weighed), sum(t.shakes for t in weighed)
    assert found.per_shake_mg * shaken == pytest.approx(1000 * fell)
    assert found.shakes >= 1
    assert found.gives_g.usual == pytest.approx(found.shakes * found.per_shake_mg / 1000)
    assert found.tray_g == pytest.approx(2 * pieces * found.gives_g.usual)
    assert found.known == (len(weighed) > 1)
    # No other whole number of shakes comes nearer.
    one = found.per_shake_mg / 1000
    off = abs(found.gives_g.usual - side_g)
    assert all(off <= abs(n * one - side_g) + 1e-9 for n in (found.shakes - 1, found.shakes + 1) if n >= 1)


def test_close_is_within_a_tenth() -> None:
    assert calibrate([ShakerTrial(1.1, 1)], side_g=1.0, pieces=1).close
    assert not calibrate([ShakerTrial(1.11, 1)], side_g=1.0, pieces=1).close
    assert calibrate([ShakerTrial(0.9, 1)], side_g=1.0, pieces=1).close
    assert not calibrate([ShakerTrial(0.89, 1)], side_g=1.0, pieces=1).close


def test_the_spread_is_that_of_single_shakes() -> None:
    # Ten shakes each, means 0.2 and 0.3 g: 10 × 0.05² twice, by one degree of freedom.
    found = calibrate([ShakerTrial(2.0, 10), ShakerTrial(3.0, 10)], side_g=1.0, pieces=4)
    assert found.spread_frac == pytest.approx(math.sqrt(2 * 10 * 0.05**2) / 0.25 / math.sqrt(found.shakes))
    assert found.sides == 8


@pytest.mark.parametrize(
    ("weighed", "side_g", "pieces"),
    [
        ([], 1.0, 1),
        ([ShakerTrial(1.0, 1)] * 21, 1.0, 1),
        ([ShakerTrial(0.0, 5)], 1.0, 1),
        ([ShakerTrial(-1.0, 5)], 1.0, 1),
        ([ShakerTrial(1.0, 0)], 1.0, 1),
        ([ShakerTrial(float("nan"), 5)], 1.0, 1),
        ([ShakerTrial(1.0, 5)], 0.0, 1),
        ([ShakerTrial(1.0, 5)], 1.0, 0),
    ],
)
def test_a_weighing_that_cannot_be_is_refused(weighed: list[ShakerTrial], side_g: float, pieces: int) -> None:
    with pytest.raises(OutOfRangeError):
        calibrate(weighed, side_g=side_g, pieces=pieces)


def test_what_was_poured_is_the_difference_either_way() -> None:
    assert poured_g(100, 130) == poured_g(130, 100) == 30
    for wrong in ((10, 10), (-1, 5), (float("inf"), 5), (5, 2e6)):
        with pytest.raises(OutOfRangeError):
            poured_g(*wrong)


# ------------------------------------------------------------------------------------------- what would never answer


def test_figures_at_the_end_of_the_numbers_are_refused_and_divide_nothing() -> None:
    with pytest.raises(OutOfRangeError):
        cook_down(1e6, 1e-300, "simmer", diameter_mm=240, burner_w_m2=16_000)
    with pytest.raises(OutOfRangeError):
        cook_down(800, 600, "simmer", diameter_mm=1e-200, burner_w_m2=16_000)
    for slice_mm in (1e-200, 0.09, 1001.0, float("nan")):
        with pytest.raises(OutOfRangeError):
            pickled_frac(slice_mm, 60, brine_per_vegetable=1.5)
        with pytest.raises(OutOfRangeError):
            ready_after_h(slice_mm, brine_per_vegetable=1.5)
    with pytest.raises(OutOfRangeError):
        calibrate([ShakerTrial(1e-320, 1)], side_g=1.0, pieces=1)
    with pytest.raises(OutOfRangeError):
        swaps_for([("ketchup", 1e-320)], "ketchup", pantry=starter_pantry())
    with pytest.raises(OutOfRangeError):
        scaled((("ketchup", 60.0),), whole_g=1e-300)


def test_tastes_of_house_formulas_inside_each_other_are_each_worked_out_once() -> None:
    """Nine levels of eight lines each: 8⁹ by the tree, nine by the sauces."""
    pantry = dict(starter_pantry())
    base = pantry["ketchup"]
    below = "ketchup"
    for level in range(9):
        key = f"level-{level}"
        # Eight kinds of line that all stand on the level below.
        names = [f"{key}-{n}" for n in range(8)]
        for name in names:
            pantry[name] = replace(base, key=name, house=HouseFormula((HouseLine(below, 10.0),), 0.0, 3))
        pantry[key] = replace(base, key=key, house=HouseFormula(tuple(HouseLine(n, 10.0) for n in names), 0.0, 3))
        below = key
    assert tastes_of(pantry[below], pantry=pantry)[0] == pytest.approx(tastes_of(base, pantry=pantry)[0])
