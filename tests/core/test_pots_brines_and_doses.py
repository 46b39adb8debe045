"""Cooking down, brines, doses and glazes: balances, edges, and what cannot be."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.pipeline.compute import prepare
from vianda.core.sauce.brine import ACID_LINE_PH, Bath, acetic_ph, at_rest, pickled_frac, uptake_frac
from vianda.core.sauce.cook_down import Boil, cook_down, leaves_kg_s, left_for_dry_frac
from vianda.core.sauce.dose import batch_of_sauce, dose, grams_for, usual_dose
from vianda.core.sauce.glaze import glaze_plan, showing_dm2
from vianda.core.sauce.schools import sauce_school

PANTRY = INVENTORY.pantry
BATH = Bath(water_g=240, salt_g=8, sugar_g=60, acid_g=12, vegetable_g=200, vegetable_water_g=190)


@given(st.floats(10, 50_000), st.floats(0.05, 1.0), st.sampled_from(["gentle", "simmer", "rolling"]))
def test_cooking_down_keeps_its_balances(start: float, share: float, boil: Boil) -> None:
    found = cook_down(start, start * share, boil, diameter_mm=280, burner_w_m2=16_000)
    assert found.left_g + found.water_g == pytest.approx(found.start_g, rel=1e-9)
    assert found.concentrates * found.left_g == pytest.approx(found.start_g, rel=1e-9)
    assert found.minutes.low <= found.minutes.usual <= found.minutes.high
    # 2.26 MJ for every kilogram that leaves, and the heat to come to the boil.
    assert found.energy_j >= found.water_g / 1000 * 2.26e6


def test_harder_is_faster_and_wider_too() -> None:
    def usual(boil: Boil, diameter_mm: float = 240.0) -> float:
        return cook_down(1000, 700, boil, diameter_mm=diameter_mm, burner_w_m2=16_000).minutes.usual

    assert usual("rolling") < usual("simmer") < usual("gentle")
    assert usual("gentle", 300.0) < usual("gentle") < usual("gentle", 180.0)


def test_a_tin_of_tomatoes_takes_about_the_minutes_cooks_say() -> None:
    # Common practice, no published source: 400 g give about 330 g after 20 to 30 min.
    found = cook_down(400, 330, "gentle", diameter_mm=200, burner_w_m2=16_000)
    assert found.minutes.low < 20.0
    assert found.minutes.high > 30.0
    assert 10.0 < found.minutes.usual < 30.0


def test_a_weak_burner_binds_and_is_named() -> None:
    strong, weak = (leaves_kg_s("simmer", area_m2=0.06, burner_w=w) for w in (2000.0, 50.0))
    assert strong[1] == "surface"
    assert weak[1] == "burner"
    assert weak[0].usual == pytest.approx(50.0 / 2.26e6)
    assert leaves_kg_s("rolling", area_m2=0.06, burner_w=2000.0)[1] == "burner"


def test_nothing_to_lose_takes_no_time() -> None:
    found = cook_down(500, 500, "simmer", diameter_mm=240, burner_w_m2=16_000)
    assert found.minutes.high == 0.0
    assert found.bound_by == "nothing"


@pytest.mark.parametrize(
    ("start", "left", "wide", "power"),
    [(500, 501, 240, 16e3), (500, 0, 240, 16e3), (math.inf, 1, 240, 16e3), (500, 400, 0, 16e3), (500, 400, 240, 0)],
)
def test_a_pot_that_cannot_be_is_refused(start: float, left: float, wide: float, power: float) -> None:
    with pytest.raises(OutOfRangeError):
        cook_down(start, left, "simmer", diameter_mm=wide, burner_w_m2=power)


def test_thickness_is_dry_matter() -> None:
    assert left_for_dry_frac(1000, 60, 0.06) == pytest.approx(1000)
    assert left_for_dry_frac(1000, 60, 0.12) == pytest.approx(500)
    for wrong in (0.05, 1.01):
        with pytest.raises(OutOfRangeError, match="dry matter now"):
            left_for_dry_frac(1000, 60, wrong)


@given(*(st.floats(1, 2000) for _ in range(6)), st.floats(0, 50))
def test_brine_and_vegetable_come_to_rest_with_everything_kept(
    water: float, salt: float, sugar: float, acid: float, veg: float, inside: float, own: float
) -> None:
    bath = Bath(water, salt, sugar, acid, veg, inside, own)
    rest = at_rest(bath)
    outside = water / (water + inside)
    assert rest.vegetable_salt_g + outside * salt == pytest.approx(salt, rel=1e-9)
    assert rest.vegetable_sugar_g + outside * (sugar + own) == pytest.approx(sugar + own, rel=1e-9)
    assert rest.vegetable_acid_g + outside * acid == pytest.approx(acid, rel=1e-9)
    # Both hold the same share of their water.
    assert rest.vegetable_acid_g / inside == pytest.approx(outside * acid / water, rel=1e-9)
    assert rest.ph.low <= rest.ph.usual <= rest.ph.high


def test_more_vinegar_is_sharper_and_none_is_no_pickle() -> None:
    weak, strong = (at_rest(replace(BATH, acid_g=a)).ph for a in (2.0, 20.0))
    assert strong.usual < weak.usual < ACID_LINE_PH + 0.5
    assert at_rest(replace(BATH, acid_g=0.0)).ph.usual > ACID_LINE_PH


@pytest.mark.parametrize("change", [{"water_g": -1.0}, {"acid_g": math.nan}, {"vegetable_sugar_g": -1.0}])
def test_less_than_nothing_in_a_brine_is_refused(change: dict[str, float]) -> None:
    with pytest.raises(OutOfRangeError):
        at_rest(replace(BATH, **change))
    with pytest.raises(OutOfRangeError, match="water"):
        at_rest(Bath(0, 8, 60, 12, 200, 0))


def test_uptake_only_grows_and_thin_slices_are_first() -> None:
    hours = [pickled_frac(4, h * 3600, brine_per_vegetable=1.5).usual for h in (0, 1, 6, 24, 72)]
    assert hours == sorted(hours)
    assert hours[0] == 0.0
    assert hours[-1] > 0.99
    thin, thick = (pickled_frac(mm, 6 * 3600, brine_per_vegetable=1.5).usual for mm in (3, 12))
    assert thin > thick
    cold, warm = (pickled_frac(6, 6 * 3600, brine_per_vegetable=1.5, cold=c).usual for c in (True, False))
    assert cold < warm
    # Common practice, no published source: slices of 3 to 5 mm one to three days ahead are ready.
    assert pickled_frac(5, 86_400, brine_per_vegetable=1.5).low > 0.5
    assert pickled_frac(5, 3 * 86_400, brine_per_vegetable=1.5).low > 0.85


@pytest.mark.parametrize(("slice_mm", "seconds", "ratio"), [(0, 10, 1), (4, -1, 1), (4, 10, 0)])
def test_a_slice_that_cannot_be_is_refused(slice_mm: float, seconds: float, ratio: float) -> None:
    with pytest.raises(OutOfRangeError):
        pickled_frac(slice_mm, seconds, brine_per_vegetable=ratio)


def test_acid_that_all_gave_its_proton_away_is_none() -> None:
    assert acetic_ph(0.0) == 7.0
    assert acetic_ph(0.01, neutralised=0.02) == 7.0
    assert acetic_ph(0.1, neutralised=0.05) == pytest.approx(4.756, abs=0.01)
    assert uptake_frac(0.0, 1.0) == 0.0


@pytest.mark.parametrize(
    ("g_per_dm2", "word"),
    [
        (1.9, "less than a film"),
        (2.0001, "a film"),
        (2.9999, "a film"),
        (3.1, "thin"),
        (9.9, "thin"),
        (10.1, "a coat"),
        (14.9, "a coat"),
        (15.1, "runs"),
    ],
)
def test_a_dose_has_a_word_by_its_area(g_per_dm2: float, word: str) -> None:
    # Common practice, no published source: 2 to 3 g/dm² a film, 10 to 15 a coat.
    area = 2 * math.pi / 4 * 1.0**2
    assert dose(g_per_dm2 * area, diameter_mm=100).word == word


@given(st.floats(0.1, 10), st.floats(40, 300), st.sampled_from([1, 2]))
def test_grams_and_thickness_are_each_others_inverse(mm: float, wide: float, faces: int) -> None:
    grams = grams_for(mm, diameter_mm=wide, faces=faces)
    assert dose(grams, diameter_mm=wide, faces=faces).thickness_mm == pytest.approx(mm, rel=1e-9)


def test_a_dose_that_cannot_be_is_refused() -> None:
    for grams, wide, faces in ((-1, 100, 2), (20, 0, 2), (20, 100, 3), (math.nan, 100, 2)):
        with pytest.raises(OutOfRangeError):
            dose(grams, diameter_mm=wide, faces=faces)
    assert usual_dose(80).usual == pytest.approx(20 * 0.64)


@given(st.floats(0, 20_000), st.floats(1, 300), st.integers(0, 500))
def test_a_batch_never_gives_more_than_there_is(made: float, portion: float, wanted: int) -> None:
    found = batch_of_sauce(made, portion, wanted=wanted)
    assert found.portions * portion <= made
    assert 0.0 <= found.left_g <= made + 0.1
    # What is called enough is enough, and a gram of doubt in rounding.
    enough = batch_of_sauce(found.needed_g + 0.2, portion, wanted=wanted)
    assert enough.portions >= wanted
    assert (found.lacking_g == 0.0) == (made >= found.needed_g - 0.1) or abs(made - found.needed_g) < 0.2


def test_a_batch_of_doses_of_nothing_is_refused() -> None:
    for made, portion, wanted in ((100, 0, 1), (-1, 10, 1), (100, 10, -1)):
        with pytest.raises(OutOfRangeError):
            batch_of_sauce(made, portion, wanted=wanted)


def _shape(formula):
    ready = prepare(formula, inventory=INVENTORY, kitchen=KITCHEN)
    return ready.case.shape, ready.context.style.form


def test_what_shows_of_a_loaf_comes_from_its_shape() -> None:
    shape, form = _shape(keepers_loaf())
    area = showing_dm2(shape, form, pieces=1) * 10_000
    # Not less than its plan and two straight sides without the rounding, nor more than the box round it.
    low = shape.length_mm * shape.width_mm
    box = shape.length_mm * (shape.width_mm + 2 * shape.thickness_mm) + 2 * shape.width_mm * shape.thickness_mm
    assert low < area < box
    assert showing_dm2(shape, form, pieces=4) == pytest.approx(4 * area / 10_000)
    # In a tin only the top shows.
    assert showing_dm2(shape, "tin", pieces=1) * 10_000 == pytest.approx(low)
    ball, _ = _shape(night_watch_balls())
    assert showing_dm2(ball, "ball", pieces=1) * 10_000 == pytest.approx(math.pi * ball.raw_diameter_mm**2 / 2)
    disc, _ = _shape(slipway_smash())
    assert showing_dm2(disc, "disc", pieces=1) * 10_000 == pytest.approx(math.pi / 4 * disc.raw_diameter_mm**2)


def test_a_glaze_in_two_coats_and_the_rest_cooked_to_half() -> None:
    shape, form = _shape(keepers_loaf())
    lines = [(k, g * 5) for k, g in sauce_school("loaf-glaze").lines]
    whole = sum(g for _, g in lines)
    plan = glaze_plan(lines, shape=shape, form=form, pieces=4, coats=2, pantry=PANTRY)
    assert plan.coat_g.low == pytest.approx(plan.area_dm2 * 1.0 * 1.2 * 10)
    assert plan.coat_g.high == pytest.approx(plan.area_dm2 * 2.0 * 1.2 * 10)
    assert plan.coats_g + plan.rest_g == pytest.approx(whole)
    assert plan.lacking_g == 0.0
    assert plan.reduced is not None
    assert plan.reduced_g == pytest.approx(plan.rest_g / 2)
    for name in ("sugar", "salt", "acid"):
        assert plan.reduced.of(name) == pytest.approx(2 * plan.taste.of(name), rel=1e-9)


def test_a_glaze_too_short_or_too_dry_says_so() -> None:
    shape, form = _shape(keepers_loaf())
    short = glaze_plan(sauce_school("loaf-glaze").lines, shape=shape, form=form, pieces=4, coats=2, pantry=PANTRY)
    assert short.lacking_g > 0.0
    assert short.rest_g == 0.0
    assert short.reduced is None
    honey = glaze_plan([("honey", 500.0)], shape=shape, form=form, pieces=1, coats=1, pantry=PANTRY)
    # It holds no half of water, and so much sugar that it catches from the low end of the range.
    assert honey.reduced is None
    assert honey.catches_c == 160.0
    assert short.catches_c == 170.0
    for coats, mm in ((-1, 1.5), (1, 0.0), (1, 11.0)):
        with pytest.raises(OutOfRangeError):
            glaze_plan([("honey", 5.0)], shape=shape, form=form, pieces=1, coats=coats, pantry=PANTRY, coat_mm=mm)
