"""The prep plan of a week: what is made when, for which days, in which batches, and what is told where it cannot be."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import HouseFormula, HouseLine
from vianda.core.model.formula import Accompaniment
from vianda.core.model.stocked import Stocked
from vianda.core.pipeline.compute import compute
from vianda.core.supply.made_ahead import GRINDER_SET_UP_MIN, WAYS, GroundBlend, made_ahead_of
from vianda.core.supply.needs import Need
from vianda.core.supply.prep_plan import PrepLine, PrepPlan, prep_plan
from vianda.core.supply.shopping import Demand, Make, shopping

MONDAY = date(2026, 11, 30)
FRIDAY, SUNDAY = MONDAY + timedelta(days=4), MONDAY + timedelta(days=6)


def _inventory(**houses: HouseFormula) -> Inventory:
    like = INVENTORY.pantry["ketchup"]
    made = [
        replace(like, key=key.replace("_", "-"), name=key.replace("_", " "), aliases=(), house=house)
        for key, house in houses.items()
    ]
    return Inventory.of(INVENTORY.meats.values(), (), [*INVENTORY.pantry.values(), *made])


def _house(*lines: tuple[str, float], keeps: int = 5) -> HouseFormula:
    return HouseFormula(tuple(HouseLine(k, g) for k, g in lines), 0.0, keeps)


def _plan(makes=(), grounds=(), *, inventory: Inventory = INVENTORY, **more) -> PrepPlan:
    return prep_plan(makes, grounds, first=MONDAY, last=SUNDAY, inventory=inventory, **more)


def _lines(plan: PrepPlan) -> list[tuple[date, PrepLine]]:
    return [(day.day, line) for day in plan.days for line in day.lines]


def _make(day: date, grams: float = 800.0, *, key: str = "own", keeps: int = 5) -> Make:
    return Make(key, "Own sauce", grams, day, keeps, ("Slipway smash",))


def test_two_days_of_one_sauce_are_one_making_where_it_keeps() -> None:
    plan = _plan([_make(FRIDAY - timedelta(days=2)), _make(FRIDAY, 400.0)])
    ((day, line),) = _lines(plan)
    assert day == FRIDAY - timedelta(days=2)
    assert line.mass_g == pytest.approx(1200.0)
    assert [(x.day, round(x.mass_g)) for x in line.for_days] == [(day, 800), (FRIDAY, 400)]
    assert line.use_by == day + timedelta(days=5)
    assert (plan.makings, plan.apart) == (1, 2)
    assert plan.minutes < plan.apart_min


@pytest.mark.parametrize(("keeps", "makings"), [(2, 1), (1, 2)])
def test_nothing_is_kept_longer_than_it_keeps(keeps: int, makings: int) -> None:
    plan = _plan([_make(FRIDAY - timedelta(days=2), keeps=keeps), _make(FRIDAY, keeps=keeps)])
    assert plan.makings == makings
    assert all(line.use_by >= max(x.day for x in line.for_days) for _, line in _lines(plan))


def test_ground_meat_keeps_a_day_and_is_not_mixed_with_another_dishs() -> None:
    smash, grill = GroundBlend("1", "Slipway smash", 4000.0, 12.0), GroundBlend("2", "Slipway smash", 3000.0, 9.0)
    days = [FRIDAY, FRIDAY + timedelta(days=1), FRIDAY + timedelta(days=2)]
    plan = _plan(grounds=[(days[0], smash), (days[1], smash), (days[2], smash), (days[0], grill)])
    mine = [(d, line) for d, line in _lines(plan) if line.key == "ground/1"]
    assert [len(line.for_days) for _, line in mine] in ([2, 1], [1, 2])
    assert sum(line.mass_g for _, line in mine) == pytest.approx(12_000.0)
    (other,) = [line for _, line in _lines(plan) if line.key == "ground/2"]
    # 3 kg: the grinder washed once, 3 min a kilogram to cut, and its 9 min.
    assert other.minutes == pytest.approx(GRINDER_SET_UP_MIN + 3 * 3 + 9)


def test_what_goes_into_a_sauce_is_made_by_the_day_on_which_the_sauce_is() -> None:
    inventory = _inventory(
        own=_house(("base", 500.0), ("mayonnaise", 500.0)), base=_house(("ketchup", 900.0), ("sugar", 100.0), keeps=1)
    )
    early = FRIDAY - timedelta(days=3)
    makes = [_make(early, 1000.0), _make(FRIDAY, 1000.0), Make("base", "base", 500.0, early, 1), Make("base", "base", 500.0, FRIDAY, 1)]  # fmt: skip # noqa: E501
    plan = _plan(makes, inventory=inventory)
    found = {line.key: (day, line.mass_g) for day, line in _lines(plan)}
    # One sauce for both days, so all of its base by then: it keeps a day only, but the sauce keeps five.
    assert found["own"] == (early, pytest.approx(2000.0))
    assert found["base"] == (early, pytest.approx(1000.0))
    assert plan.makings == 2


def test_a_pickle_is_put_up_the_day_before_and_a_ferment_three_before() -> None:
    ways = {"jar": WAYS["pickle"], "crock": WAYS["ferment"]}
    plan = _plan([_make(FRIDAY, key="jar", keeps=60), _make(FRIDAY, key="crock", keeps=60)], ways=ways)
    assert {line.key: day for day, line in _lines(plan)} == {
        "jar": FRIDAY - timedelta(days=1),
        "crock": FRIDAY - timedelta(days=3),
    }
    assert not plan.remarks


def test_what_should_have_been_begun_before_is_told() -> None:
    plan = _plan([_make(MONDAY + timedelta(days=1), key="crock", keeps=60)], ways={"crock": WAYS["ferment"]})
    ((day, line),) = _lines(plan)
    assert (day, line.ready, line.late) == (MONDAY, MONDAY + timedelta(days=3), True)
    assert "Own sauce" in str(plan.remarks[0].amounts)
    # A day later it is ready in time.
    on_time = _plan([_make(MONDAY + timedelta(days=3), key="crock", keeps=60)], ways={"crock": WAYS["ferment"]})
    assert not on_time.remarks
    assert not _lines(on_time)[0][1].late


def test_whole_batches_are_made_and_what_goes_into_them_is_bought() -> None:
    inventory = _inventory(own=_house(("ketchup", 600.0), ("mayonnaise", 400.0)))
    stock = (Stocked("thing", "own", pack=1000.0),)
    demands = [Demand(FRIDAY, (Need("thing", "own", "Own sauce", 1200.0, "Smash"),))]
    bought = shopping(demands, inventory=inventory, kitchen=KITCHEN, stock=stock)
    # 1,200 g are two batches: 2 × 600 g of ketchup.
    assert next(x for x in bought.lines if x.key == "ketchup").buy == pytest.approx(1200.0)
    plan = _plan(bought.makes, inventory=inventory, stock=stock)
    ((_, line),) = _lines(plan)
    assert (line.batches, line.mass_g, line.spare_g) == (2, pytest.approx(2000.0), pytest.approx(800.0))
    assert plan.spare_g == pytest.approx(800.0)


@pytest.mark.parametrize(("on_hand", "made"), [(0.0, 900.0), (500.0, 400.0), (900.0, 0.0)])
def test_what_always_should_be_there_of_a_made_thing_is_made_not_bought(on_hand: float, made: float) -> None:
    inventory = _inventory(own=_house(("ketchup", 600.0), ("mayonnaise", 400.0)))
    stock = (Stocked("thing", "own", on_hand=on_hand, par=900.0),)
    demands = [Demand(FRIDAY, (Need("thing", "sugar", "Sugar", 10.0, "Smash"),))]
    found = shopping(demands, inventory=inventory, kitchen=KITCHEN, stock=stock)
    assert sum(m.mass_g for m in found.makes) == pytest.approx(made)
    assert all(x.buy == 0.0 for x in found.lines if x.key == "own")
    assert sum(x.buy for x in found.lines if x.key == "ketchup") == pytest.approx(0.6 * made)


def test_a_full_day_is_told_with_its_minutes_and_a_plan_within_the_limit_says_nothing() -> None:
    makes = [_make(FRIDAY, 5000.0, keeps=0), _make(FRIDAY, 5000.0, key="other", keeps=3)]
    free = _plan(makes)
    assert [d.day for d in free.days] == [FRIDAY]
    # 8 min and 2 a kilogram each: 18. What keeps is made the day before.
    limited = _plan(makes, day_min=20.0)
    assert len(limited.days) == 2
    assert not limited.remarks
    tight = _plan(makes, day_min=10.0)
    # The fresh one has 8 min too many on its day; of the other a kilogram is made on each of three days before, and the
    # last two are 4 min too many on one of them.
    assert sum(d.over_min for d in tight.days) == pytest.approx(12.0, abs=0.1)
    assert len(tight.remarks) == sum(d.over_min > 0.5 for d in tight.days)


@pytest.mark.parametrize("minutes", [-1.0, 1441.0, float("nan")])
def test_a_day_of_no_length_is_refused(minutes: float) -> None:
    with pytest.raises(OutOfRangeError):
        _plan(day_min=minutes)


def test_a_demo_formula_says_what_it_has_made_ahead() -> None:
    formula = replace(slipway_smash(), beside=(Accompaniment("pickle", "own-jar", 15.0),))
    inventory = _inventory(own_jar=_house(("cucumber" if "cucumber" in INVENTORY.pantry else "onion", 800.0), keeps=60))
    found = made_ahead_of(compute(formula, inventory=inventory, kitchen=KITCHEN), dish="Slipway smash", key="7")
    assert found.ways["own-jar"] == WAYS["pickle"]
    figures = compute(formula, inventory=inventory, kitchen=KITCHEN)
    assert found.ground == GroundBlend(
        "7", "Slipway smash", figures.meat.grind.ground_mass_g, figures.meat.grind.minutes
    )
    assert found.ground.minutes > 0
    loaf = made_ahead_of(compute(keepers_loaf(), inventory=INVENTORY, kitchen=KITCHEN))
    assert loaf.ways == {}
