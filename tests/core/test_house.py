from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.demo.formulas import HOUSE_FORMULAS
from vianda.core.inventory.house import CircularHouseError, house_figures, made, needs, used_in, with_house_made
from vianda.core.inventory.pantry import HouseFormula, HouseLine, Ingredient, starter_pantry

PANTRY = {**starter_pantry(), **{i.key: i for i in HOUSE_FORMULAS}}
RUB, CRUMBS, SAUCE = HOUSE_FORMULAS


def _house(key: str, *lines: tuple[str, float], out: float | None = None) -> Ingredient:
    total = sum(g for _, g in lines)
    return replace(
        RUB, key=key, name=key, house=HouseFormula(tuple(HouseLine(k, g) for k, g in lines), out or total, 7)
    )


def test_a_rub_is_two_fifths_salt_and_says_what_it_costs() -> None:
    figures = house_figures(RUB, pantry=PANTRY)
    assert figures.salt_frac == pytest.approx(0.395, abs=0.005)
    prices = {"salt-fine": 0.8, "paprika": 16, "pepper": 19, "garlic-powder": 15, "brown-sugar": 2.0}
    by_hand = sum(line.mass_g / 1000 * prices[line.ingredient] for line in RUB.house.lines) / 0.2
    assert float(figures.price_per_kg) == pytest.approx(by_hand)


def test_drying_bread_loses_water_and_nothing_else() -> None:
    figures = house_figures(CRUMBS, pantry=PANTRY)
    bread = PANTRY["crusty-bread"].composition
    assert figures.water_lost_g == pytest.approx(260)
    assert figures.composition.protein_g_per_100g * 0.74 == pytest.approx(bread.protein_g_per_100g)
    assert figures.composition.sodium_mg_per_100g * 0.74 == pytest.approx(bread.sodium_mg_per_100g)
    water_left = figures.composition.water_g_per_100g * 7.4
    assert water_left == pytest.approx(bread.water_g_per_100g * 10 - 260)


@given(
    st.lists(
        st.tuples(st.sampled_from(["milk", "panko", "pepper", "onion", "butter"]), st.floats(1, 500)),
        min_size=1,
        max_size=5,
        unique_by=lambda x: x[0],
    ),
    st.floats(0.05, 1),
)
def test_what_goes_in_comes_out_or_evaporates(lines: list[tuple[str, float]], share: float) -> None:
    total = sum(g for _, g in lines)
    try:
        figures = house_figures(_house("h", *lines, out=total * share), pantry=PANTRY)
    except OutOfRangeError as refused:
        assert "drop of water" in refused.detail
        return
    for name in ("protein_g_per_100g", "fat_g_per_100g", "carbohydrate_g_per_100g", "sodium_mg_per_100g"):
        before = sum(g * getattr(PANTRY[k].composition, name) for k, g in lines)
        assert getattr(figures.composition, name) * figures.yield_g == pytest.approx(before, rel=1e-9, abs=1e-9)
    water = sum(g * PANTRY[k].composition.water_g_per_100g / 100 for k, g in lines)
    left = figures.composition.water_g_per_100g / 100 * figures.yield_g
    assert left + figures.water_lost_g == pytest.approx(water, rel=1e-9, abs=1e-6)


def test_a_house_formula_may_hold_another_and_inherits_its_allergens() -> None:
    crust = _house("crust", ("boathouse-crumbs", 200), ("yard-rub", 20), ("butter", 50))
    figures = house_figures(crust, pantry=PANTRY)
    assert set(figures.allergens) == {"gluten (wheat)", "milk"}
    rub = house_figures(RUB, pantry=PANTRY).salt_frac * 20
    crumbs = house_figures(CRUMBS, pantry=PANTRY).salt_frac * 200
    butter = PANTRY["butter"].composition.salt_frac() * 50
    assert figures.salt_frac * 270 == pytest.approx(rub + crumbs + butter)


def test_a_house_formula_is_never_an_ingredient_of_itself() -> None:
    with pytest.raises(CircularHouseError):
        house_figures(_house("h", ("h", 10), ("milk", 10)), pantry={**PANTRY, "h": _house("h", ("h", 10))})
    one, two, three = _house("one", ("two", 10)), _house("two", ("three", 10)), _house("three", ("one", 10))
    ring = {**PANTRY, "one": one, "two": two, "three": three}
    for link in (one, two, three):
        with pytest.raises(CircularHouseError):
            house_figures(link, pantry=ring)
    # It is left out of use; the rest of the pantry goes on.
    worked = with_house_made(ring)
    assert worked["one"].retired
    assert not worked["milk"].retired


@pytest.mark.parametrize(
    ("made_of", "out", "says"),
    [
        ((("milk", 100),), 101, "can come out"),
        ((("milk", 100),), 5, "drop of water"),
        ((), 10, "1 to 30 lines"),
        ((("milk", 0),), 10, "more than zero"),
    ],
)
def test_what_cannot_be_is_refused(made_of: tuple, out: float, says: str) -> None:
    with pytest.raises(OutOfRangeError, match=says):
        house_figures(_house("h", *made_of, out=out), pantry=PANTRY)
    with pytest.raises(UnknownItemError):
        house_figures(_house("h", ("unicorn", 10)), pantry=PANTRY)


def test_where_a_thing_is_used_is_followed_through_other_formulas() -> None:
    pantry = {**PANTRY, "crust": _house("crust", ("boathouse-crumbs", 100))}
    assert used_in("crusty-bread", pantry=pantry) == ("Boathouse crumbs", "crust")
    assert list(needs("crust", pantry=pantry)) == ["crust", "boathouse-crumbs", "crusty-bread"]


def test_what_is_bought_stays_as_it_is() -> None:
    assert made(PANTRY["milk"], pantry=PANTRY) == PANTRY["milk"]
    assert made(SAUCE, pantry=PANTRY).price_per_kg > Decimal(0)
