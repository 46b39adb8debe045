"""Orders as they come: the line against queueing theory and by hand, and what is advised for a formula."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash, supply_boat_ragu
from vianda.core.orders.arrivals import Orders, drawn
from vianda.core.orders.as_they_come import CHANGE_MIN, EVENINGS, as_they_come, line_of
from vianda.core.orders.line import Line, served
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import Figures

# One place, no hands to speak of: an M/D/1 queue.
ONE = Line(places=1, lies_min=4.0, rests_min=0.0, keeps_min=10.0, pieces=1, hands_min=1e-9, cooks=1)
USUAL = Orders(per_hour=40, portions=2, open_min=120, rush_factor=1, rush_from_min=0, rush_min=0, wait_min=15)


def _figures(formula=None) -> Figures:
    return compute(formula or slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN)


# ------------------------------------------------------------------------------------------- against queueing theory


@pytest.mark.parametrize(("busy", "within"), [(0.3, 0.05), (0.6, 0.08), (0.8, 0.14)])
def test_one_place_waits_as_pollaczek_and_khinchine_say(busy: float, within: float) -> None:
    """M/D/1: mean wait before service = ρ·D / (2·(1 − ρ)) (Pollaczek 1930, Khinchine 1932; any queueing textbook).

    Waits that follow each other hang together: over 24 seeds of forty thousand orders the mean strays by 1.6, 2.6 and
    4.5 in a hundred (one standard deviation). Three of them are let pass.
    """
    rng = np.random.default_rng(5)
    gaps = rng.exponential(ONE.lies_min / busy, 40_000)
    found = served(ONE, [(float(t), 1) for t in np.cumsum(gaps)], ready=0)
    wait = float(np.mean(found.waits_min)) - ONE.lies_min
    assert wait == pytest.approx(busy * ONE.lies_min / (2 * (1 - busy)), rel=within)


def test_one_place_waits_order_by_order_as_lindley_says() -> None:
    """W(n + 1) = max(0, W(n) + D − A(n)), Lindley 1952: exact for every order of a queue with one place."""
    gaps = np.random.default_rng(6).exponential(5.0, 3000)
    found = served(ONE, [(float(t), 1) for t in np.cumsum(gaps)], ready=0)
    wait, waits = 0.0, [0.0]
    for gap in gaps[1:]:
        wait = max(0.0, wait + ONE.lies_min - float(gap))
        waits.append(wait)
    assert found.waits_min == pytest.approx([w + ONE.lies_min for w in waits], abs=1e-6)


def test_with_places_and_hands_enough_nobody_waits_for_another() -> None:
    wide = replace(ONE, places=500, cooks=500, rests_min=1.0, hands_min=2.0)
    found = served(wide, [(0.1 * n, 1) for n in range(300)], ready=0)
    assert found.waits_min == pytest.approx([4.0 + 1.0 + 2.0] * 300)


def test_the_orders_in_the_house_are_those_that_come_times_how_long_they_stay() -> None:
    """Little's law (1961): the mean number of orders in the house is their rate times their mean stay."""
    line = replace(ONE, places=3, pieces=2, hands_min=0.7, cooks=1)
    rng = np.random.default_rng(9)
    orders = [(float(t), 1) for t in np.cumsum(rng.exponential(3.5, 5000))]
    found = served(line, orders, ready=0)
    begins = np.array([t for t, _ in orders])
    ends = begins + np.array(found.waits_min)
    span = float(ends.max())
    minutes = np.linspace(0.0, span, 20_001)
    inside = np.searchsorted(np.sort(begins), minutes, "right") - np.searchsorted(np.sort(ends), minutes, "right")
    assert float(np.mean(inside)) == pytest.approx(len(orders) / span * np.mean(found.waits_min), rel=0.01)
    assert int(inside.max()) <= found.longest_queue


# ------------------------------------------------------------------------------------------------------- by hand


def test_three_orders_at_two_places_by_hand() -> None:
    # Two places, 4 min each, then a minute of rest; one cook puts a portion of one piece together in 2 min.
    line = Line(places=2, lies_min=4.0, rests_min=1.0, keeps_min=10.0, pieces=1, hands_min=2.0, cooks=1)
    found = served(line, [(0.0, 1), (1.0, 1), (1.5, 1)], ready=0)
    # Ready for hands at 5, 6 and (laid at 4, when a place is free) 9; built by 7, 9 and 11.
    assert found.waits_min == pytest.approx((7.0, 8.0, 9.5))
    assert (found.cooked, found.wasted, found.longest_queue) == (3, 0, 3)


def test_an_order_is_served_when_its_last_portion_is() -> None:
    line = Line(places=2, lies_min=4.0, rests_min=0.0, keeps_min=10.0, pieces=2, hands_min=1.0, cooks=1)
    # Two portions of two pieces: the second pair is laid at 4 and off at 8.
    assert served(line, [(0.0, 2)], ready=0).waits_min == pytest.approx((9.0,))


def test_what_is_ready_is_used_at_once_replaced_and_thrown_away_when_it_is_old() -> None:
    line = replace(ONE, hands_min=1.0, keeps_min=10.0)
    # Ready at opening: the first order at 3 takes it and another is laid, ready at 7, old at 17, laid again, ready at
    # 21 just as the second order comes; nothing is laid for the shelf once the last has ordered.
    found = served(line, [(3.0, 1), (21.0, 1)], ready=1)
    assert found.waits_min == pytest.approx((1.0, 1.0))
    assert (found.cooked, found.wasted) == (3, 1)


def test_nothing_is_cooked_for_the_shelf_after_the_last_order() -> None:
    line = replace(ONE, places=4, keeps_min=2.0)
    found = served(line, [(1.0, 1)], ready=2)
    assert found.waits_min == pytest.approx((0.0,), abs=1e-6)
    # Two were ready, one is eaten, one is left over; none is laid after it.
    assert (found.cooked, found.wasted) == (2, 1)


def test_a_service_without_guests_wastes_what_was_ready() -> None:
    found = served(ONE, [], ready=3)
    assert (found.waits_min, found.cooked, found.wasted) == ((), 3, 3)


@st.composite
def services(draw: st.DrawFn) -> tuple[Line, list[tuple[float, int]], int]:
    line = Line(
        places=draw(st.integers(1, 8)),
        lies_min=draw(st.floats(0.5, 12)),
        rests_min=draw(st.floats(0, 5)),
        keeps_min=draw(st.floats(1, 15)),
        pieces=draw(st.integers(1, 3)),
        hands_min=draw(st.floats(0.1, 4)),
        cooks=draw(st.integers(1, 3)),
    )
    gaps = draw(st.lists(st.floats(0, 10), max_size=25))
    orders = [(math.fsum(gaps[: n + 1]), draw(st.integers(1, 4))) for n in range(len(gaps))]
    return line, orders, draw(st.integers(0, 10))


@settings(max_examples=200, deadline=None)
@given(services())
def test_every_piece_is_eaten_or_thrown_away_and_nobody_is_served_before_it_can_be(drawn_service) -> None:
    line, orders, ready = drawn_service
    found = served(line, orders, ready=ready)
    assert len(found.waits_min) == len(orders)
    assert found.cooked == sum(n for _, n in orders) * line.pieces + found.wasted
    least = line.hands_min if ready else line.lies_min + line.rests_min + line.hands_min
    assert all(w >= least - 1e-9 for w in found.waits_min)
    assert 0 <= found.longest_queue <= len(orders)
    # First come, first served: nobody's last portion is begun before that of somebody who came earlier.
    ends = [t + w for (t, _), w in zip(orders, found.waits_min, strict=True)]
    if line.cooks == 1:
        assert ends == sorted(ends)
    assert served(line, orders, ready=ready) == found


@settings(max_examples=60, deadline=None)
@given(services())
def test_more_places_and_more_hands_keep_no_order_waiting_longer(drawn_service) -> None:
    line, orders, _ = drawn_service
    waits = served(line, orders, ready=0).waits_min
    for better in (replace(line, places=line.places + 1), replace(line, cooks=line.cooks + 1)):
        assert all(b <= a + 1e-9 for a, b in zip(waits, served(better, orders, ready=0).waits_min, strict=True))


# ------------------------------------------------------------------------------------------------------- arrivals


def test_orders_come_as_many_as_expected_and_the_rush_holds_its_share() -> None:
    orders = Orders(30, 2.5, 120, 3, 40, 30, 10)
    evenings = [drawn(orders, np.random.default_rng([1, n])) for n in range(400)]
    counts = np.array([len(e) for e in evenings])
    rush = np.array([sum(40 <= t < 70 for t, _ in e) for e in evenings])
    portions = np.array([n for e in evenings for _, n in e])
    # 90 min at 30 an hour and 30 min at 90; four standard errors of a Poisson mean.
    assert orders.expected() == 90.0
    assert abs(counts.mean() - 90.0) < 4 * math.sqrt(90 / 400)
    assert abs(rush.mean() - 45.0) < 4 * math.sqrt(45 / 400)
    assert abs(portions.mean() - 2.5) < 4 * math.sqrt(1.5 / len(portions))
    assert portions.min() == 1
    assert all(e == sorted(e) for e in evenings)
    assert all(0 <= t <= 120 for e in evenings for t, _ in e)


@pytest.mark.parametrize(
    ("rush_from", "rush", "expected"),
    [(0, 0, 60.0), (0, 60, 120.0), (30, 60, 90.0), (60, 60, 60.0), (200, 60, 60.0), (0, 720, 120.0)],
)
def test_a_rush_counts_as_far_as_it_lies_within_the_hours(rush_from: float, rush: float, expected: float) -> None:
    orders = Orders(60, 1, 60, 2, rush_from, rush, 10)
    assert orders.expected() == expected
    found = drawn(orders, np.random.default_rng(3))
    assert abs(len(found) - expected) < 5 * math.sqrt(expected)
    assert all(t <= 60 for t, _ in found)


# ------------------------------------------------------------------------------------------------------- a formula


def test_what_binds_is_said_with_the_figure_of_each() -> None:
    figures = _figures()
    line = line_of(figures, cooks=2)
    found = as_they_come(figures, USUAL, cooks=2)
    assert found.surface_per_hour == pytest.approx(60 * line.places / (line.lies_min * line.pieces))
    assert found.hands_per_hour == pytest.approx(120 / line.hands_min)
    assert found.per_hour == min(found.surface_per_hour, found.hands_per_hour)
    assert found.binds == ("surface" if found.surface_per_hour < found.hands_per_hour else "hands")
    assert found.rush_per_hour == 80.0
    assert found.soonest_min == pytest.approx(line.lies_min - CHANGE_MIN + line.rests_min + line.hands_min)
    assert [h.ready for h in found.held] == sorted({h.ready for h in found.held})
    assert found.held[0].ready == 0
    assert as_they_come(figures, USUAL, cooks=2) == found


def test_hands_are_relieved_by_a_cook_and_a_surface_by_a_second() -> None:
    figures = _figures()
    for cooks in (1, 6):
        found = as_they_come(figures, USUAL, cooks=cooks)
        cook, surface, both = (m.per_hour for m in found.more)
        helps, idle = (cook, surface) if found.binds == "hands" else (surface, cook)
        assert helps > found.per_hour
        assert idle == pytest.approx(found.per_hour)
        assert both >= helps


def test_a_quiet_evening_is_cooked_to_order_and_a_rush_beyond_the_kitchen_is_said() -> None:
    figures = _figures()
    quiet = as_they_come(figures, replace(USUAL, per_hour=6), cooks=3)
    assert (quiet.ready, quiet.enough) == (0, True)
    assert quiet.says.text.startswith("Cook to order")
    crowd = as_they_come(figures, replace(USUAL, per_hour=60, rush_factor=4, rush_min=60), cooks=1)
    assert not crowd.enough
    assert "asked for in the rush" in crowd.says.text
    assert crowd.rush_per_hour == 480.0
    assert crowd.held[0].within_frac < quiet.held[0].within_frac


def test_a_wait_shorter_than_cooking_takes_is_met_from_what_is_ready() -> None:
    figures = _figures()
    soonest = as_they_come(figures, replace(USUAL, per_hour=10, portions=1), cooks=3).soonest_min
    found = as_they_come(figures, replace(USUAL, per_hour=10, portions=1, wait_min=soonest - 0.5), cooks=3)
    assert found.held[0].within_frac == 0.0
    assert found.ready > 0
    assert found.enough
    assert found.says.text.startswith("Hold {r} pieces ready")
    # What is held ready costs something: a part of it is thrown away.
    chosen = next(h for h in found.held if h.ready == found.ready)
    assert chosen.wasted_frac > found.held[0].wasted_frac == 0.0


def test_a_wait_that_nothing_can_meet_is_said() -> None:
    found = as_they_come(_figures(), replace(USUAL, per_hour=6, portions=6, wait_min=1), cooks=1)
    assert not found.enough
    assert "whatever is held ready" in found.says.text


def test_raw_pieces_suffice_on_nine_evenings_of_ten() -> None:
    figures = _figures()
    found = as_they_come(figures, USUAL, cooks=2)
    pieces = figures.context.formula.dish.pieces_per_guest
    fresh = [drawn(USUAL, np.random.default_rng([77, n])) for n in range(400)]
    enough = np.mean([sum(n for _, n in e) * pieces <= found.raw - found.ready for e in fresh])
    # Thirty evenings tell the ninetieth of a hundred to within about eleven of a hundred (two binomial errors).
    assert enough == pytest.approx(0.9, abs=2 * math.sqrt(0.09 / EVENINGS) + 0.01)


@pytest.mark.parametrize("make", [keepers_loaf, supply_boat_ragu])
def test_what_is_not_cooked_to_order_is_refused_with_the_reason(make) -> None:
    with pytest.raises(OutOfRangeError, match="before guests come"):
        as_they_come(_figures(make()), USUAL, cooks=2)


def test_orders_are_drawn_up_to_a_bound() -> None:
    figures = _figures()
    with pytest.raises(OutOfRangeError, match="At most 2000"):
        as_they_come(figures, replace(USUAL, per_hour=600, open_min=201), cooks=2)
