"""What a sauce tastes of: balances close, house formulas count through, schools start inside their own bands."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.inventory.house import with_house_made
from vianda.core.inventory.pantry import HouseFormula, HouseLine, starter_pantry
from vianda.core.sauce.schools import against, nearest_school, sauce_school, sauce_schools
from vianda.core.sauce.tastes import TASTES, taste_of, tastes_of, tastes_written

PANTRY = starter_pantry()
SAUCY = sorted(
    k for k, i in PANTRY.items() if i.group in ("sauce", "acid", "sweet", "tomato", "vegetable", "liquid", "fat")
)
SAUCE = [("mayonnaise", 150.0), ("ketchup", 60.0), ("relish", 30.0)]
grams = st.floats(0.5, 5000.0)


@given(st.lists(st.tuples(st.sampled_from(SAUCY), grams), min_size=1, max_size=12), st.floats(0.0, 1.0))
def test_nothing_is_lost_but_water(lines: list[tuple[str, float]], boiled: float) -> None:
    whole = math.fsum(g for _, g in lines)
    before = taste_of(lines, pantry=PANTRY)
    lost = boiled * 0.9 * before.water / 100.0 * whole
    left = whole - lost
    after = taste_of(lines, pantry=PANTRY, left_g=left)
    for name in ("sugar", "salt", "acid", "fat", "pungency", "savour"):
        assert after.of(name) * left == pytest.approx(before.of(name) * whole, rel=1e-9, abs=1e-9)
    assert after.water * left / 100.0 == pytest.approx(before.water * whole / 100.0 - lost, rel=1e-9, abs=1e-6)
    assert after.water + after.dry == pytest.approx(100.0)


@given(st.lists(st.tuples(st.sampled_from(SAUCY), grams), min_size=2, max_size=8), st.floats(0.1, 20.0))
def test_twice_as_much_tastes_the_same(lines: list[tuple[str, float]], factor: float) -> None:
    once, more = taste_of(lines, pantry=PANTRY), taste_of([(k, g * factor) for k, g in lines], pantry=PANTRY)
    for name in TASTES:
        assert more.of(name) == pytest.approx(once.of(name), rel=1e-9, abs=1e-9)


def test_a_house_formula_tastes_of_its_lines_cooked_down_or_not() -> None:
    house = HouseFormula((HouseLine("tomatoes", 800), HouseLine("sugar", 10), HouseLine("olive-oil", 30)), 600.0, 4)
    made = replace(PANTRY["ketchup"], key="pot-sauce", name="Pot sauce", house=house)
    pantry = with_house_made({**PANTRY, made.key: made})
    direct = taste_of([("tomatoes", 800), ("sugar", 10), ("olive-oil", 30)], pantry=PANTRY, left_g=600.0)
    through = taste_of([("pot-sauce", 200.0)], pantry=pantry)
    for name in TASTES:
        assert through.of(name) == pytest.approx(direct.of(name), rel=1e-9), name


@pytest.mark.parametrize(
    ("lines", "left", "said"),
    [
        ([], 0.0, "at least one line"),
        ([("ketchup", 0.0)], 0.0, "more than zero"),
        ([("ketchup", -1.0)], 0.0, "more than zero"),
        ([("ketchup", math.nan)], 0.0, "more than zero"),
        ([("ketchup", math.inf)], 0.0, "more than zero"),
        (SAUCE, 500.0, "can be left"),
        (SAUCE, 10.0, "Without a drop of water"),
    ],
)
def test_what_cannot_be_is_refused_with_a_reason(lines: list, left: float, said: str) -> None:
    with pytest.raises(OutOfRangeError, match=said):
        taste_of(lines, pantry=PANTRY, left_g=left)


def test_an_unknown_thing_is_named() -> None:
    with pytest.raises(UnknownItemError, match="unicorn"):
        taste_of([("unicorn", 10.0)], pantry=PANTRY)


def test_what_is_badly_known_is_said_where_it_weighs() -> None:
    assert taste_of([("mayonnaise", 150.0), ("hot-sauce", 20.0)], pantry=PANTRY).unsure == ("Hot pepper sauce",)
    assert taste_of([("vinegar", 100.0), ("sugar", 50.0)], pantry=PANTRY).unsure == ()


def test_every_written_taste_is_of_something_in_the_pantry_and_within_reason() -> None:
    for key, written in tastes_written().items():
        assert key in PANTRY
        assert 0.0 <= written.acid_g_per_100g <= 8.0
        assert (written.acid == "none") == (written.acid_g_per_100g == 0.0)
        assert 0.0 <= written.pungency <= 2000.0
        assert written.confidence in ("high", "medium", "low")
        # Sugar is written down only where the analysis prints none.
        if written.sugars_g_per_100g is not None:
            assert PANTRY[key].composition.sugars_g_per_100g == 0.0
            assert written.sugars_g_per_100g <= PANTRY[key].composition.carbohydrate_g_per_100g


def test_every_acid_is_stated_as_acetic_by_its_protons() -> None:
    # Molar masses by IUPAC: citric 192.12 with three, lactic 90.08 with one, tartaric 150.09 with two, acetic 60.05.
    assert tastes_written()["lemon-juice"].acetic_g_per_100g == pytest.approx(5.0 / 192.12 * 3 * 60.05)
    assert tastes_written()["yogurt"].acetic_g_per_100g == pytest.approx(0.95 / 90.08 * 60.05)
    assert tastes_written()["red-wine"].acetic_g_per_100g == pytest.approx(0.6 / 150.09 * 2 * 60.05)
    assert tastes_written()["vinegar"].acetic_g_per_100g == pytest.approx(5.0)


@pytest.mark.parametrize("key", sorted(sauce_schools()))
def test_a_school_starts_inside_its_own_bands_and_is_its_own_nearest(key: str) -> None:
    school = sauce_school(key)
    left = school.left_frac * sum(g for _, g in school.lines)
    taste = taste_of(school.lines, pantry=PANTRY, left_g=left)
    assert [b.taste for b in against(taste, school) if b.where != "within"] == []
    for role in school.roles:
        found = nearest_school(taste, role)
        assert found is not None
        assert sum(b.outside for b in against(taste, found)) == pytest.approx(0.0)


def test_mayonnaise_is_half_to_two_thirds_of_a_burger_sauce() -> None:
    # Common practice, no published source. Horseradish shares its base with sour cream.
    for school in sauce_schools().values():
        if "burger-sauce" in school.roles:
            whole = sum(g for _, g in school.lines)
            base = sum(g for k, g in school.lines if k in ("mayonnaise", "sour-cream"))
            assert 0.5 <= base / whole <= 0.85, school.key


def test_a_band_says_below_within_and_above() -> None:
    school = sauce_school("sweet-tomato")
    plain = {b.taste: b.where for b in against(taste_of([("mayonnaise", 100.0)], pantry=PANTRY), school)}
    assert (plain["sugar"], plain["fat"], plain["acid"]) == ("below", "above", "below")
    assert nearest_school(taste_of(SAUCE, pantry=PANTRY), "side") is None
    with pytest.raises(UnknownItemError, match="known are"):
        sauce_school("nobody")


@given(st.sampled_from(SAUCY))
def test_what_an_ingredient_brings_adds_up(key: str) -> None:
    brings = dict(zip(TASTES, tastes_of(PANTRY[key], pantry=PANTRY), strict=True))
    assert brings["water"] + brings["dry"] == pytest.approx(100.0)
    assert all(v >= 0.0 for v in brings.values())
    assert brings["sugar"] + brings["fat"] <= brings["dry"] + 6.0
