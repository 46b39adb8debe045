"""Lots shared over blends: by hand, against every other way there is, and what a kilogram more is worth."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.supply.sharing import MOST_BLENDS, TOLERANCE_FRAC, Blend, Portion, Sharing, shared_out

DAY = date(2026, 12, 4)
HOUSE = starter_inventory()


def _lot(key: str, meat: str, grams: float, *, days: int | None = 3) -> Lot:
    use_by = None if days is None else DAY + timedelta(days)
    return Lot(key, meat, key, grams, Decimal("10"), DAY - timedelta(2), use_by)


def _with(*lots: Lot) -> Inventory:
    return replace(HOUSE, lots={x.key: x for x in lots})


def _blend(key: str, day: int = 0, fat: float | None = None, **grams: float) -> Blend:
    portions = tuple(Portion(meat.replace("_", "-"), g) for meat, g in grams.items())
    if fat is None:
        total = sum(p.mass_g for p in portions)
        fat = sum(HOUSE.fat_of(p.meat).usual_frac * p.mass_g for p in portions) / total
    return Blend(key, key, DAY + timedelta(day), portions, fat)


def _of(found: Sharing, blend: str, lot: str) -> float:
    return sum(s.mass_g for s in found.shares if (s.blend, s.lot) == (blend, lot))


def test_what_lies_there_is_used_and_the_rest_is_bought() -> None:
    found = shared_out([_blend("smash", chuck=1500)], inventory=_with(_lot("old", "chuck", 600)))
    assert _of(found, "smash", "old") == pytest.approx(600)
    assert _of(found, "smash", "") == pytest.approx(900)
    assert found.cost == pytest.approx(0.9 * float(HOUSE.meats["chuck"].price_per_kg))
    assert found.short == ()


def test_what_must_be_used_first_is_used_first() -> None:
    larder = _with(_lot("late", "chuck", 1000, days=9), _lot("soon", "chuck", 1000, days=1), _lot("any", "chuck", 500))
    found = shared_out([_blend("smash", chuck=1200)], inventory=larder)
    assert _of(found, "smash", "soon") == pytest.approx(1000)
    assert _of(found, "smash", "any") == pytest.approx(200)
    assert _of(found, "smash", "late") == 0.0


def test_a_lot_past_its_day_goes_into_nothing() -> None:
    larder = _with(_lot("soon", "chuck", 1000, days=1))
    found = shared_out([_blend("friday", 0, chuck=300), _blend("sunday", 2, chuck=500)], inventory=larder)
    assert _of(found, "friday", "soon") == pytest.approx(300)
    assert _of(found, "sunday", "soon") == 0.0
    # On its last day it is still good.
    on = shared_out([_blend("saturday", 1, chuck=500)], inventory=larder)
    assert _of(on, "saturday", "soon") == pytest.approx(500)


def test_the_early_day_does_not_eat_what_only_the_late_one_could_use() -> None:
    # Friday could take either; on Sunday only the late lot is still good: it is kept for then.
    larder = _with(_lot("soon", "chuck", 500, days=1), _lot("late", "chuck", 500, days=5))
    found = shared_out([_blend("friday", 0, chuck=500), _blend("sunday", 2, chuck=500)], inventory=larder)
    assert _of(found, "friday", "soon") == pytest.approx(500)
    assert _of(found, "sunday", "late") == pytest.approx(500)
    assert found.cost == 0.0


def test_a_fat_lot_is_spread_so_that_no_blend_strays() -> None:
    usual = HOUSE.fat_of("ground-80").usual_frac
    larder = _with(_lot("near", "ground-80", 3000, days=9))
    lots_fat = larder.fat_of("ground-80", "near").usual_frac
    assert lots_fat == pytest.approx(usual, abs=0.02)
    # Each blend is to be leaner than its meat by as much as half the lot may bring.
    target = usual - TOLERANCE_FRAC
    found = shared_out(
        [_blend("a", fat=target, ground_80=1000), _blend("b", fat=target, ground_80=1000)], inventory=larder
    )
    for fat in found.fats.values():
        assert abs(fat - target) <= TOLERANCE_FRAC + 1e-6
    assert found.strays == {}


def test_a_fat_that_cannot_be_kept_is_strayed_from_as_little_as_can_be_and_said() -> None:
    usual = HOUSE.fat_of("chuck").usual_frac
    found = shared_out([_blend("lean", fat=usual - 0.10, chuck=1000)], inventory=_with())
    assert found.strays == pytest.approx({"lean": 0.10}, abs=1e-6)
    assert found.fats["lean"] == pytest.approx(usual)


@pytest.mark.parametrize(("off", "strays"), [(0.0149, False), (0.0151, True)])
def test_a_point_and_a_half_is_let_pass_and_no_more(off: float, strays: bool) -> None:
    usual = HOUSE.fat_of("chuck").usual_frac
    found = shared_out([_blend("a", fat=usual - off, chuck=1000)], inventory=_with())
    assert bool(found.strays) is strays


def test_who_goes_short_and_by_how_much_where_nothing_can_be_bought() -> None:
    larder = _with(_lot("left", "chuck", 700))
    found = shared_out([_blend("a", chuck=500), _blend("b", chuck=500)], inventory=larder, may_buy=False)
    assert sum(s.mass_g for s in found.short) == pytest.approx(300, abs=0.1)
    assert sum(s.mass_g for s in found.shares) == pytest.approx(700, abs=0.1)
    assert all(s.lot for s in found.shares)
    assert found.cost == 0.0


def test_a_kilogram_more_is_worth_what_it_would_save() -> None:
    blends = [_blend("a", chuck=900), _blend("b", 1, chuck=800)]
    larder = _with(_lot("some", "chuck", 500, days=9), _lot("plenty", "pork-shoulder", 900))
    found = shared_out(blends, inventory=larder)
    worth = {w.lot: w.per_kg for w in found.worths}
    more = shared_out(blends, inventory=_with(_lot("some", "chuck", 600, days=9), larder.lots["plenty"]))
    # The difference that 100 g make, by the kilogram; ageing counts a thousandth of a unit at most.
    assert worth == pytest.approx({"some": (found.cost - more.cost) / 0.1}, abs=0.002)
    assert worth["some"] == pytest.approx(float(HOUSE.meats["chuck"].price_per_kg), abs=0.002)


def test_closed_and_empty_lots_and_other_meats_give_nothing() -> None:
    larder = _with(
        replace(_lot("closed", "chuck", 900), closed=True),
        _lot("empty", "chuck", 0),
        _lot("pork", "pork-shoulder", 900),
    )
    found = shared_out([_blend("a", chuck=500)], inventory=larder)
    assert {s.lot for s in found.shares} == {""}


def test_nothing_to_share_and_too_much() -> None:
    assert shared_out([], inventory=_with()).shares == ()
    with pytest.raises(OutOfRangeError, match="At most 400"):
        shared_out([_blend(f"b{n}", chuck=1) for n in range(MOST_BLENDS + 1)], inventory=_with())


@st.composite
def weeks(draw: st.DrawFn) -> tuple[list[Blend], Inventory, bool]:
    meats = ("chuck", "pork-shoulder")
    days = st.none() | st.integers(0, 4)
    lots = [
        _lot(f"l{n}", draw(st.sampled_from(meats)), draw(st.integers(0, 2000)), days=draw(days))
        for n in range(draw(st.integers(0, 4)))
    ]
    blends = []
    for n in range(draw(st.integers(1, 4))):
        portions = tuple(Portion(m, float(draw(st.integers(1, 1500)))) for m in meats if draw(st.booleans()))
        assume(portions)
        fat = draw(st.floats(0.1, 0.35))
        blends.append(Blend(f"b{n}", f"b{n}", DAY + timedelta(draw(st.integers(0, 4))), portions, fat))
    return blends, _with(*lots), draw(st.booleans())


@settings(max_examples=120, deadline=None)
@given(weeks())
def test_every_gram_is_accounted_for_and_no_lot_is_used_up_twice(week: tuple[list[Blend], Inventory, bool]) -> None:
    blends, larder, may_buy = week
    found = shared_out(blends, inventory=larder, may_buy=may_buy)
    for blend in blends:
        for portion in blend.portions:
            given_g = sum(s.mass_g for s in found.shares if (s.blend, s.meat) == (blend.key, portion.meat))
            lacks = sum(s.mass_g for s in found.short if (s.blend, s.meat) == (blend.key, portion.meat))
            assert given_g + lacks == pytest.approx(portion.mass_g, abs=1.0)
    days = {b.key: b.day for b in blends}
    for key, lot in larder.lots.items():
        used = [s for s in found.shares if s.lot == key]
        assert sum(s.mass_g for s in used) <= lot.left_mass_g + 0.1
        assert all(s.meat == lot.meat and (lot.use_by is None or lot.use_by >= days[s.blend]) for s in used)
    if may_buy:
        assert found.short == ()
    else:
        assert all(s.lot for s in found.shares)
    assert shared_out(blends, inventory=larder, may_buy=may_buy) == found


@settings(max_examples=60, deadline=None)
@given(weeks(), st.integers(0, 2**32 - 1))
def test_no_other_way_of_sharing_that_keeps_all_fats_costs_less(week, seed: int) -> None:
    """Ways drawn at random, greedy over shuffled blends and lots: none is cheaper at no more stray."""
    blends, larder, _ = week
    found = shared_out(blends, inventory=larder)
    rng = np.random.default_rng(seed)
    left = {k: x.left_mass_g for k, x in larder.lots.items()}
    cost = strayed = 0.0
    for n in rng.permutation(len(blends)):
        blend, fat, mass = blends[n], 0.0, 0.0
        for portion in blend.portions:
            lacking = portion.mass_g
            for key in rng.permutation(sorted(left)):
                lot = larder.lots[str(key)]
                if lot.meat != portion.meat or (lot.use_by and lot.use_by < blend.day):
                    continue
                took = min(lacking, left[str(key)])
                left[str(key)] -= took
                lacking -= took
                fat += took * larder.fat_of(lot.meat, lot.key).usual_frac
            cost += lacking / 1000.0 * float(larder.meats[portion.meat].price_per_kg)
            fat += lacking * larder.fat_of(portion.meat).usual_frac
            mass += portion.mass_g
        strayed += max(0.0, abs(fat / mass - blend.fat_frac) - TOLERANCE_FRAC) * mass
    best = sum(
        max(0.0, abs(found.fats[b.key] - b.fat_frac) - TOLERANCE_FRAC) * sum(p.mass_g for p in b.portions)
        for b in blends
    )
    assert best <= strayed + 0.1
    if strayed <= best + 0.01:
        assert found.cost <= cost + 0.01
