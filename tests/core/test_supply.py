"""What dishes take, what is bought for them, what is taken in, and when a service comes again."""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

import pytest
from dateutil import rrule
from hypothesis import given, settings
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.units import c_from_f
from vianda.core.demo.formulas import (
    beacon_grill,
    harbour_light_pub,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import HouseFormula, HouseLine, starter_pantry
from vianda.core.model.formula import Accompaniment, BlendPart, Formula
from vianda.core.model.service import Service
from vianda.core.model.stocked import Stocked
from vianda.core.pipeline.compute import compute
from vianda.core.supply.arrival import arrival, limit_for
from vianda.core.supply.needs import RAW, Need, made_of, needs_of
from vianda.core.supply.occurrences import LONGEST_SPAN_DAYS, days_of, rule_of
from vianda.core.supply.shopping import Demand, ShopLine, Shopping, shopping

DAY = date(2026, 12, 4)
DEMO = (slipway_smash, beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, supply_boat_ragu)


def _needs(formula: Formula, inventory: Inventory = INVENTORY) -> tuple[Need, ...]:
    return needs_of(compute(formula, inventory=inventory, kitchen=KITCHEN), dish=formula.name)


def _lot(key: str, meat: str, grams: float, *, use_by: date | None = None, delivered: date = DAY) -> Lot:
    return Lot(key, meat, f"Lot {key}", grams, Decimal("11"), min(delivered, use_by or delivered), use_by)


def _with_lots(*lots: Lot) -> Inventory:
    return Inventory.of(INVENTORY.meats.values(), lots, INVENTORY.pantry.values())


def _bought(demands: list[Demand], *, inventory: Inventory = INVENTORY, stock: tuple[Stocked, ...] = ()) -> Shopping:
    return shopping(demands, inventory=inventory, kitchen=KITCHEN, stock=stock)


def _line(found: Shopping, key: str) -> ShopLine:
    return next(x for x in found.lines if x.key == key)


def _beef(grams: float, *, lot: str = "", dish: str = "Burgers") -> Need:
    return Need("meat", "chuck", "Chuck", grams, dish, lot)


# -------------------------------------------------------------------------------------------------------------- needs


@pytest.mark.parametrize("make", DEMO, ids=lambda m: m.__name__)
def test_everything_that_costs_something_is_needed(make) -> None:
    figures = compute(make(), inventory=INVENTORY, kitchen=KITCHEN)
    needs = {(n.kind, n.key): n.amount for n in needs_of(figures)}
    cost = figures.trade.cost
    for part, line in zip(figures.context.formula.parts, cost.parts, strict=True):
        assert needs["meat", part.meat] >= line.bought_g - 1e-9
    for entry in figures.mix.lines:
        if entry.mass_g > 0:
            assert needs["thing", entry.ingredient] >= entry.mass_g - 1e-9
    if cost.buns:
        assert needs["bread", figures.context.bun.key] == cost.buns
    assert figures.salt.batch_salt_g == 0 or needs["thing", "salt-fine"] >= figures.salt.batch_salt_g - 1e-9


@pytest.mark.parametrize("make", DEMO, ids=lambda m: m.__name__)
def test_what_is_bought_for_one_dish_costs_what_the_dish_costs(make) -> None:
    formula = make()
    figures = compute(formula, inventory=INVENTORY, kitchen=KITCHEN)
    cost = figures.trade.cost
    dish = float(cost.meat_cost + cost.mix_cost + cost.heat_cost + cost.bun_cost)
    found = _bought([Demand(DAY, _needs(formula))])
    priced = INVENTORY.pantry
    # What is cooked here is paid for raw, and salt is not in the cost of a dish.
    raw = sum(
        float(grams / 1000 * float(priced[k].price_per_kg))
        for made in found.makes
        for k, grams in made_of(made.key, made.mass_g, pantry=INVENTORY.pantry)
    )
    cooked = sum(made.mass_g / 1000 * float(priced[made.key].price_per_kg) for made in found.makes)
    salt = float(next((x.cost for x in found.lines if x.key == "salt-fine"), Decimal(0)))
    packed = sum(
        x.left_over / 1000 * float(INVENTORY.meats[x.key].price_per_kg) for x in found.lines if x.kind == "meat"
    )
    assert float(found.cost) == pytest.approx(dish - cooked + raw + salt + packed, abs=0.01 * (len(found.lines) + 2))


def test_a_thing_that_comes_twice_is_one_line() -> None:
    formula = replace(slipway_smash(), beside=(Accompaniment("burger-sauce", "ketchup", 20.0),))
    keys = [(n.kind, n.key) for n in _needs(formula)]
    assert len(set(keys)) == len(keys)
    two = _bought([Demand(DAY, _needs(formula)), Demand(DAY + timedelta(days=1), _needs(beacon_grill()))])
    items = [(x.kind, x.key) for x in two.lines]
    assert len(set(items)) == len(items)
    assert _line(two, "chuck").dishes == ("Slipway smash", "Beacon grill")


def test_cooked_onions_are_bought_raw_and_stand_on_the_list_of_what_is_made() -> None:
    found = _bought([Demand(DAY, (Need("thing", "soft-onion", "Onion, cooked soft", 350.0, "Loaf"),))])
    # 70 % of them are left.
    assert _line(found, "onion").buy == pytest.approx(500.0)
    assert [(m.key, m.mass_g) for m in found.makes] == [("soft-onion", 350.0)]
    assert _line(found, "soft-onion").buy == 0.0
    assert set(RAW.values()) <= set(starter_pantry())


def test_a_house_sauce_is_made_of_its_lines_less_what_stands_in_the_fridge() -> None:
    sauce = replace(
        starter_pantry()["mayonnaise"],
        key="own-sauce",
        name="Own sauce",
        house=HouseFormula((HouseLine("mayonnaise", 150.0), HouseLine("ketchup", 50.0)), 0.0, 5),
    )
    inventory = Inventory.of(INVENTORY.meats.values(), (), [*INVENTORY.pantry.values(), sauce])
    need = Need("thing", "own-sauce", "Own sauce", 800.0, "Burgers")
    found = _bought([Demand(DAY, (need,))], inventory=inventory, stock=(Stocked("thing", "own-sauce", on_hand=200.0),))
    assert [(m.key, m.mass_g, m.keeps_days) for m in found.makes] == [("own-sauce", 600.0, 5)]
    assert _line(found, "mayonnaise").buy == pytest.approx(450.0)
    assert _line(found, "ketchup").buy == pytest.approx(150.0)
    cooked_down = replace(sauce, house=replace(sauce.house, yield_g=100.0))
    assert made_of("own-sauce", 100.0, pantry={"own-sauce": cooked_down}) == (("mayonnaise", 150.0), ("ketchup", 50.0))


# ----------------------------------------------------------------------------------------------------- lots and stock


def test_the_lot_that_must_go_first_goes_first_and_none_past_its_day() -> None:
    inventory = _with_lots(
        _lot("late", "chuck", 1000.0, use_by=DAY + timedelta(days=9)),
        _lot("soon", "chuck", 300.0, use_by=DAY),
        _lot("gone", "chuck", 700.0, use_by=DAY - timedelta(days=1), delivered=DAY - timedelta(days=3)),
        _lot("open", "chuck", 5000.0),
    )
    line = _line(_bought([Demand(DAY, (_beef(1500.0),))], inventory=inventory), "chuck")
    assert [(u.key, u.mass_g) for u in line.lots] == [("soon", 300.0), ("late", 1000.0), ("open", 200.0)]
    assert line.buy == 0.0
    next_day = _bought([Demand(DAY + timedelta(days=1), (_beef(1500.0),))], inventory=inventory)
    assert [u.key for u in _line(next_day, "chuck").lots] == ["late", "open"]
    # What nobody uses in time is told.
    assert {(u.key, u.left_g) for u in next_day.unused} == {("soon", 300.0), ("gone", 700.0)}


def test_which_lot_goes_into_which_dish_is_told() -> None:
    inventory = _with_lots(_lot("one", "chuck", 1000.0, use_by=DAY + timedelta(days=2)))
    early, late = Demand(DAY, (_beef(800.0),)), Demand(DAY + timedelta(days=1), (_beef(800.0, dish="Loaf"),))
    found = _bought([late, early], inventory=inventory)
    # The earlier dish takes what it needs, the later the rest.
    assert [(u.dish, u.day, u.lot, u.mass_g) for u in found.from_lots] == [
        ("Burgers", DAY, "Lot one", 800.0),
        ("Loaf", DAY + timedelta(days=1), "Lot one", 200.0),
    ]
    assert found.strayed == ()


def test_a_lot_that_only_a_later_dish_can_still_use_is_left_for_it() -> None:
    inventory = _with_lots(
        _lot("soon", "chuck", 800.0, use_by=DAY), _lot("late", "chuck", 800.0, use_by=DAY + timedelta(days=5))
    )
    early, late = Demand(DAY, (_beef(800.0),)), Demand(DAY + timedelta(days=3), (_beef(800.0, dish="Loaf"),))
    found = _bought([early, late], inventory=inventory)
    assert {(u.dish, u.lot) for u in found.from_lots} == {("Burgers", "Lot soon"), ("Loaf", "Lot late")}
    assert _line(found, "chuck").buy == 0.0


def test_one_dish_twice_on_a_day_takes_its_lot_twice_and_no_more() -> None:
    inventory = _with_lots(_lot("one", "chuck", 1000.0))
    found = _bought([Demand(DAY, (_beef(600.0), _beef(700.0)))], inventory=inventory)
    line = _line(found, "chuck")
    assert (line.used, line.buy) == (1000.0, pytest.approx(300.0))
    assert [(u.key, u.mass_g) for u in line.lots] == [("one", 1000.0)]


def test_the_earlier_day_takes_first() -> None:
    inventory = _with_lots(_lot("one", "chuck", 1000.0))
    early, late = Demand(DAY, (_beef(800.0),)), Demand(DAY + timedelta(days=1), (_beef(800.0, dish="Loaf"),))
    for order in ([early, late], [late, early]):
        line = _line(_bought(order, inventory=inventory), "chuck")
        assert line.used == 1000.0
        assert line.buy == pytest.approx(600.0)
        assert line.first_day == DAY
        assert line.dishes == ("Burgers", "Loaf")


def test_a_lot_that_was_asked_for_and_does_not_suffice_is_named() -> None:
    inventory = _with_lots(_lot("mine", "chuck", 400.0), _lot("other", "chuck", 400.0, use_by=DAY))
    enough = _line(_bought([Demand(DAY, (_beef(400.0, lot="mine"),))], inventory=inventory), "chuck")
    assert ([u.key for u in enough.lots], enough.instead) == (["mine"], "")
    short = _line(_bought([Demand(DAY, (_beef(401.0, lot="mine"),))], inventory=inventory), "chuck")
    assert [u.key for u in short.lots] == ["mine", "other"]
    assert (short.buy, short.instead) == (0.0, "Lot mine")
    none = _line(_bought([Demand(DAY, (_beef(900.0, lot="mine"),))], inventory=inventory), "chuck")
    assert none.buy == pytest.approx(100.0)
    assert none.instead == "Lot mine"


def test_a_closed_lot_is_not_there() -> None:
    inventory = _with_lots(replace(_lot("shut", "chuck", 900.0), closed=True))
    found = _bought([Demand(DAY, (_beef(500.0),))], inventory=inventory)
    assert _line(found, "chuck").buy == 500.0
    assert found.unused == ()


@pytest.mark.parametrize(
    ("need", "pack", "packs", "left"),
    [(999.0, 500.0, 2, 1.0), (1000.0, 500.0, 2, 0.0), (1001.0, 500.0, 3, 499.0), (0.01, 500.0, 1, 499.99)],
)
def test_packs_are_whole(need: float, pack: float, packs: int, left: float) -> None:
    demand = Demand(DAY, (Need("thing", "milk", "Whole milk", need, "Loaf"),))
    line = _line(_bought([demand], stock=(Stocked("thing", "milk", pack=pack),)), "milk")
    assert (line.packs, line.bought) == (packs, packs * pack)
    assert line.left_over == pytest.approx(left)


def test_meat_in_packs_of_its_own_comes_in_those() -> None:
    packed = next(m for m in INVENTORY.meats.values() if m.pack_mass_g > 0)
    need = Need("meat", packed.key, packed.name, packed.pack_mass_g + 1.0, "Burgers")
    line = _line(_bought([Demand(DAY, (need,))]), packed.key)
    assert line.packs == 2
    assert line.cost == (Decimal(2) * Decimal(str(packed.pack_mass_g)) / 1000 * packed.price_per_kg).quantize(
        Decimal("0.01")
    )


def test_bread_is_bought_by_the_piece() -> None:
    demand = Demand(DAY, (Need("bread", "soft-100", "Soft bun", 41.0, "Burgers"),))
    stock = (Stocked("bread", "soft-100", on_hand=2.0, pack=6.0),)
    line = _line(_bought([demand], stock=stock), "soft-100")
    assert (line.used, line.buy, line.packs, line.bought, line.left_over) == (2.0, 39.0, 7, 42.0, 3.0)
    bun = next(b for b in KITCHEN.buns if b.key == "soft-100")
    assert line.cost == 42 * bun.price_each


def test_what_always_should_be_there_is_filled_up_whether_used_or_not() -> None:
    stock = (
        Stocked("thing", "salt-fine", on_hand=300.0, par=1000.0),
        Stocked("thing", "milk", on_hand=500.0, par=200.0),
        Stocked("thing", "vinegar", on_hand=500.0, par=500.0),
    )
    found = _bought([Demand(DAY, (Need("thing", "milk", "Whole milk", 400.0, "Loaf"),))], stock=stock)
    assert (_line(found, "salt-fine").buy, _line(found, "salt-fine").needed) == (700.0, 0.0)
    # 500 less 400 is 100: another 100 to the 200 that should be there.
    assert (_line(found, "milk").par_short, _line(found, "milk").buy) == (100.0, 100.0)
    assert all(x.key != "vinegar" for x in found.lines)


def test_an_order_goes_out_its_days_before() -> None:
    stock = (Stocked("meat", "chuck", lead_days=3, supplier="Norquay Butchery", shelf="Cold room"),)
    later = Demand(DAY + timedelta(days=7), (_beef(100.0),))
    line = _line(_bought([later, Demand(DAY, (_beef(100.0),))], stock=stock), "chuck")
    assert line.order_by == DAY - timedelta(days=3)
    assert (line.supplier, line.shelf) == ("Norquay Butchery", "Cold room")


def test_water_is_not_bought_and_nothing_asks_for_nothing() -> None:
    assert _bought([Demand(DAY, (Need("thing", "water", "Water", 900.0, "Loaf"),))]).lines == ()
    empty = _bought([])
    assert (empty.lines, empty.makes, empty.cost) == ((), (), Decimal(0))


def test_what_has_no_price_is_counted_and_not_called_free() -> None:
    thing = replace(INVENTORY.pantry["milk"], price_per_kg=Decimal(0))
    inventory = replace(INVENTORY, pantry={**INVENTORY.pantry, "milk": thing})
    found = _bought([Demand(DAY, (Need("thing", "milk", "Whole milk", 400.0, "Loaf"),))], inventory=inventory)
    assert found.unpriced == 1
    assert not _line(found, "milk").priced


def test_eggs_are_told_by_the_piece() -> None:
    found = _bought([Demand(DAY, (Need("thing", "egg", "Whole egg", 438.0, "Loaf"),))])
    egg = INVENTORY.pantry["egg"].pieces[0]
    about = _line(found, "egg").about
    assert about is not None
    assert (about.amounts["n"].value, about.amounts["what"].text) == (math.ceil(438.0 / egg.mass_g - 0.1), "large eggs")
    one = _line(_bought([Demand(DAY, (Need("thing", "egg", "Whole egg", 50.0, "Loaf"),))]), "egg").about
    assert one is not None
    assert one.amounts["what"].text == "large egg"
    many = _bought([Demand(DAY, (Need("thing", "parsley", "Parsley", 900.0, "Loaf"),))])
    assert _line(many, "parsley").about is None


grams = st.floats(1.0, 5000.0)


@settings(max_examples=120)
@given(
    st.lists(st.tuples(st.integers(0, 6), st.sampled_from(["chuck", "round"]), grams), min_size=1, max_size=12),
    st.lists(st.tuples(st.sampled_from(["chuck", "round"]), grams, st.integers(-2, 8)), max_size=6),
)
def test_nothing_is_lost_and_nothing_comes_from_nowhere(
    wanted: list[tuple[int, str, float]], there: list[tuple[str, float, int]]
) -> None:
    lots = tuple(
        _lot(f"lot-{n}", meat, left, use_by=DAY + timedelta(days=in_days), delivered=DAY - timedelta(days=5))
        for n, (meat, left, in_days) in enumerate(there)
    )
    demands = [Demand(DAY + timedelta(days=at), (Need("meat", meat, meat, g, "Dish"),)) for at, meat, g in wanted]
    found = _bought(demands, inventory=_with_lots(*lots))
    for line in found.lines:
        asked = sum(g for _, meat, g in wanted if meat == line.key)
        assert line.needed == pytest.approx(asked)
        assert line.used + line.buy == pytest.approx(asked, abs=0.01)
        assert sum(u.mass_g for u in line.lots) == pytest.approx(line.used)
        for use in line.lots:
            lot = next(x for x in lots if x.key == use.key)
            assert use.mass_g <= lot.left_mass_g + 1e-9
            # It went on some day on which the dish was cooked and the lot still good.
            assert lot.use_by is not None
            assert any(meat == line.key and DAY + timedelta(days=at) <= lot.use_by for at, meat, _ in wanted)


# ------------------------------------------------------------------------------------------------------------ arrival

# Source beside each: FDA Food Code 3-202.11 (41 °F); Canada, Food Retail and Food Services Code (4 °C); Regulation (EC)
# 853/2004, annex III (minced 2, meat 7, offal 3, poultry 4 °C). From memory.
LINES = [
    ("US", "chuck", c_from_f(41.0)),
    ("US", "ground-80", c_from_f(41.0)),
    ("CA", "chuck", 4.0),
    ("UK", "chuck", 7.0),
    ("UK", "ground-80", 2.0),
    ("UK", "turkey-thigh", 4.0),
    ("other", "pork-shoulder", 7.0),
]


@pytest.mark.parametrize(("country", "key", "most_c"), LINES)
def test_a_delivery_is_taken_at_its_countrys_line_and_refused_above(country: str, key: str, most_c: float) -> None:
    meat = INVENTORY.meats[key]
    assert limit_for(meat, country=country).most_c == pytest.approx(most_c)  # type: ignore[arg-type]
    for temp, taken in ((most_c - 0.1, "taken"), (most_c, "taken"), (most_c + 0.1, "refused"), (20.0, "refused")):
        assert arrival(meat, temp, country=country).taken == taken, temp  # type: ignore[arg-type]
    unmeasured = arrival(meat, None, country=country)  # type: ignore[arg-type]
    assert unmeasured.taken == "unmeasured"
    assert unmeasured.says.amounts["most"].value == pytest.approx(most_c)


def test_offal_has_its_own_line() -> None:
    offal = next(m for m in INVENTORY.meats.values() if m.kind == "offal")
    assert limit_for(offal, country="UK").most_c == 3.0


def test_a_thermometer_in_fahrenheit_is_judged_in_whole_degrees() -> None:
    meat = INVENTORY.meats["chuck"]
    for f, taken in ((41.0, "taken"), (41.4, "taken"), (41.6, "refused"), (42.0, "refused")):
        assert arrival(meat, c_from_f(f), country="US", unit_system="us").taken == taken


@pytest.mark.parametrize("temp", [-41.0, 61.0, float("nan"), float("inf"), 1e308])
def test_no_delivery_is_so_cold_or_so_hot(temp: float) -> None:
    with pytest.raises(OutOfRangeError):
        arrival(INVENTORY.meats["chuck"], temp, country="US")


# -------------------------------------------------------------------------------------------------------- occurrences


@settings(max_examples=150)
@given(
    st.dates(date(2026, 1, 1), date(2028, 12, 31)),
    st.sampled_from(["weekly", "fortnightly", "monthly"]),
    st.integers(-40, 120),
    st.integers(0, LONGEST_SPAN_DAYS - 1),
    st.none() | st.integers(-10, 150),
)
def test_days_are_those_of_the_written_rule(begins: date, repeat: str, off: int, length: int, ends: int | None) -> None:
    until = begins + timedelta(days=ends) if ends is not None else None
    service = Service("S", str(begins), repeat=repeat, until=str(until) if until else "")  # type: ignore[arg-type]
    first = begins + timedelta(days=off)
    last = first + timedelta(days=length)
    found = days_of(service, first=first, last=last)
    rule = rule_of(service)
    assert rule is not None
    # The rule as it goes into a calendar file, read by the library that reads such files.
    text = f"FREQ={rule['freq'].upper()}"
    text += f";INTERVAL={rule['interval']}" if "interval" in rule else f";BYDAY={rule['byday']}"
    read = rrule.rrulestr(text, dtstart=rrule.datetime.datetime.combine(begins, rrule.datetime.time(12)))
    expected = [
        at.date()
        for at in read.between(
            rrule.datetime.datetime.combine(first, rrule.datetime.time(0)),
            rrule.datetime.datetime.combine(last, rrule.datetime.time(23)),
        )
        if until is None or at.date() <= until
    ]
    assert list(found) == expected
    assert all(d.weekday() == begins.weekday() and d >= begins for d in found)


def test_a_service_without_a_day_comes_on_none_and_one_without_a_rule_once() -> None:
    assert days_of(Service("S"), first=DAY, last=DAY) == ()
    once = Service("S", str(DAY))
    assert days_of(once, first=DAY, last=DAY) == (DAY,)
    assert days_of(once, first=DAY + timedelta(days=1), last=DAY + timedelta(days=9)) == ()
    assert rule_of(once) is None


def test_the_fifth_friday_is_the_last() -> None:
    fifth = Service("S", "2026-10-30", repeat="monthly")
    assert days_of(fifth, first=date(2026, 11, 1), last=date(2026, 12, 31)) == (date(2026, 11, 27), date(2026, 12, 25))


@pytest.mark.parametrize("length", [LONGEST_SPAN_DAYS - 1, LONGEST_SPAN_DAYS])
def test_a_span_has_its_length(length: int) -> None:
    last = DAY + timedelta(days=length)
    if length < LONGEST_SPAN_DAYS:
        days_of(Service("S"), first=DAY, last=last)
        return
    with pytest.raises(OutOfRangeError, match="at most 62"):
        days_of(Service("S"), first=DAY, last=last)


def test_a_span_ends_after_it_begins() -> None:
    with pytest.raises(OutOfRangeError, match="before it begins"):
        days_of(Service("S"), first=DAY, last=DAY - timedelta(days=1))


def test_a_part_from_a_lot_stays_with_it() -> None:
    inventory = _with_lots(_lot("mine", "chuck", 9000.0), _lot("first", "chuck", 9000.0, use_by=DAY))
    formula = replace(beacon_grill(), parts=(BlendPart("chuck", 1.0, lot="mine"),))
    line = _line(_bought([Demand(DAY, _needs(formula, inventory))], inventory=inventory), "chuck")
    assert [u.key for u in line.lots] == ["mine"]
