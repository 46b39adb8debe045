"""Lots: every small case against all ways there are, and what may never happen in any."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.schedule.lot_sizes import GAP_FRAC, LotItem, LotPlan, lot_sizes

_amounts = st.integers(0, 9).map(float)


def _item(demands, *, set_up=5.0, hold=0.1, keeps=2, lead=0, batch=0.0, spare=0.0, unit=0.0) -> LotItem:
    demands = tuple(demands)
    costs = set_up if isinstance(set_up, tuple) else (set_up,) * len(demands)
    return LotItem(demands, costs, hold, keeps, lead, batch, spare, unit)


def _brute_force(item: LotItem) -> float:
    """The least cost over every set of days on which it is made; each demand takes the freshest that serves it."""
    days = range(len(item.demands))
    wanted = [d for d in days if item.demands[d] > 0]
    best = math.inf
    for made in itertools.chain.from_iterable(itertools.combinations(days, n) for n in range(len(item.demands) + 1)):
        cost = sum(item.set_up[t] for t in made)
        for d in wanted:
            serves = [t for t in made if 0 <= d - item.lead - t <= item.keeps]
            if not serves:
                break
            cost += item.hold * (d - item.lead - max(serves)) * item.demands[d]
        else:
            best = min(best, cost)
    return best


def _check(items: list[LotItem], plan: LotPlan) -> None:
    met: dict[tuple[int, int], float] = {}
    for making in plan.makings:
        item = items[making.item]
        used = 0.0
        for day, amount in making.for_days:
            kept = day - item.lead - making.day
            assert making.late or 0 <= kept <= item.keeps
            met[making.item, day] = met.get((making.item, day), 0.0) + amount
            used += amount
        assert making.amount >= used - 1e-6
        if item.batch:
            assert making.amount == pytest.approx(making.batches * item.batch)
            assert making.amount - used < item.batch
        else:
            assert making.amount == pytest.approx(used, abs=1e-6)
    for n, item in enumerate(items):
        for day, demand in enumerate(item.demands):
            assert met.get((n, day), 0.0) == pytest.approx(demand, abs=1e-4)


@settings(max_examples=60, deadline=None)
@given(st.lists(_amounts, min_size=1, max_size=7), st.floats(0.5, 20.0), st.floats(0.0, 2.0), st.integers(0, 4))
def test_one_thing_costs_what_the_best_of_all_ways_costs(demands, set_up, hold, keeps) -> None:
    item = _item(demands, set_up=set_up, hold=hold, keeps=keeps)
    plan = lot_sizes([item])
    _check([item], plan)
    assert plan.cost == pytest.approx(_brute_force(item), rel=GAP_FRAC, abs=1e-6)


@settings(max_examples=40, deadline=None)
@given(st.lists(st.tuples(_amounts, st.floats(0.5, 20.0)), min_size=2, max_size=7), st.floats(0.0, 2.0))
def test_where_days_cost_differently_a_cheap_day_before_is_found(days, hold) -> None:
    item = _item([d for d, _ in days], set_up=tuple(s for _, s in days), hold=hold, keeps=3)
    plan = lot_sizes([item])
    _check([item], plan)
    assert plan.cost == pytest.approx(_brute_force(item), rel=GAP_FRAC, abs=1e-6)


@settings(max_examples=40, deadline=None)
@given(
    st.lists(
        st.tuples(
            st.lists(_amounts, min_size=5, max_size=5),
            st.integers(0, 3),
            st.integers(0, 2),
            st.sampled_from([0.0, 2.0, 5.0]),
        ),
        min_size=1,
        max_size=4,
    ),
    st.sampled_from([None, 12.0, 30.0]),
)
def test_whatever_is_asked_every_demand_is_met_and_nothing_kept_too_long(asked, limit) -> None:
    items = [_item(d, keeps=k, lead=lead, batch=b, spare=1.0, unit=0.5) for d, k, lead, b in asked]
    limits = None if limit is None else [limit] * 5
    plan = lot_sizes(items, limits=limits)
    _check(items, plan)
    for making in plan.makings:
        # Late is what cannot be ready, and only that.
        assert making.late == any(d - items[making.item].lead < 0 for d, _ in making.for_days)
        assert not making.late or making.day == 0
    if limit is not None:
        for day, over in enumerate(plan.over):
            there = [m for m in plan.makings if m.day == day]
            minutes = sum(5.0 * m.batches + 0.5 * m.amount for m in there)
            assert over == pytest.approx(max(0.0, minutes - limit), abs=1e-4)


def test_a_day_that_is_full_sends_what_keeps_to_the_day_before() -> None:
    items = [_item([0, 4], set_up=5, keeps=1, unit=1), _item([0, 4], set_up=5, keeps=0, unit=1)]
    assert {(m.item, m.day) for m in lot_sizes(items).makings} == {(0, 1), (1, 1)}
    full = lot_sizes(items, limits=[10.0, 10.0])
    assert {(m.item, m.day) for m in full.makings} == {(0, 0), (1, 1)}
    assert full.over == (0.0, 0.0)
    # Nothing else keeps: then the day is overrun, and by how much is told.
    tight = lot_sizes(items, limits=[0.0, 10.0])
    assert sum(tight.over) == pytest.approx(8.0)


def test_whole_batches_share_what_one_leaves_over() -> None:
    # Two and two in batches of four: one batch, where it keeps; two with four thrown away, where it does not.
    kept = lot_sizes([_item([2, 2], batch=4.0, spare=1.0, keeps=1)])
    assert [(m.batches, m.amount) for m in kept.makings] == [(1, 4.0)]
    fresh = lot_sizes([_item([2, 2], batch=4.0, spare=1.0, keeps=0)])
    assert [(m.batches, m.amount) for m in fresh.makings] == [(1, 4.0), (1, 4.0)]
    assert fresh.cost == pytest.approx(5 + 5 + 4 * 1.0)


def test_what_a_batch_leaves_over_takes_hands_too() -> None:
    # One batch of 10 for a demand of 2: 5 to set up and 10 of the day's 12.
    found = lot_sizes([_item([2], batch=10.0, unit=1.0)], limits=[12.0])
    assert found.over == (3.0,)


def test_equal_questions_have_equal_answers() -> None:
    items = [_item([3, 0, 5, 2], keeps=n, unit=1, batch=float(n)) for n in range(4)]
    assert lot_sizes(items, limits=[14.0] * 4) == lot_sizes(items, limits=[14.0] * 4)


def test_nothing_to_make_is_an_empty_plan() -> None:
    assert lot_sizes([]).makings == ()
    assert lot_sizes([_item([0, 0])]).makings == ()
    assert lot_sizes([_item([0, 0])], limits=[5.0, 5.0]).makings == ()


@pytest.mark.parametrize(
    "wrong",
    [
        lambda: _item([]),
        lambda: _item([1.0, -1.0]),
        lambda: _item([math.nan]),
        lambda: _item([1.0], hold=math.inf),
        lambda: _item([1.0], batch=-2.0),
        lambda: lot_sizes([_item([1.0]), _item([1.0, 2.0])]),
        lambda: lot_sizes([_item([1.0])], limits=[math.nan]),
        lambda: lot_sizes([_item([1.0])], limits=[1.0, 2.0]),
    ],
)
def test_what_is_no_plan_is_refused(wrong) -> None:
    with pytest.raises(OutOfRangeError):
        wrong()
