"""Short of time: what is offered is computed, fits where it says so, and costs what it says."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.model.formula import Formula, Pin, Timing
from vianda.core.pipeline.compute import compute
from vianda.core.timetable.short_of_time import MOST_MIN, MOST_TOGETHER, ShortOfTime, short_of_time
from vianda.core.timetable.timetable import timetable

DEMO = {f.__name__: f for f in (slipway_smash, beacon_grill, keepers_loaf, night_watch_balls, supply_boat_ragu)}


def _short(formula: Formula, minutes: int) -> ShortOfTime:
    return short_of_time(formula, minutes=minutes, inventory=INVENTORY, kitchen=KITCHEN)


@cache
def _demo(name: str, minutes: int) -> ShortOfTime:
    return _short(DEMO[name](), minutes)


def _changed(formula: Formula, found: ShortOfTime, way: int) -> Formula:
    for shortcut in found.ways[way].shortcuts:
        for edit in shortcut.edits:
            formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
    return formula


@pytest.mark.parametrize("name", DEMO)
def test_a_change_saves_time_by_itself_and_a_way_is_quicker_than_what_is(name: str) -> None:
    found = _demo(name, 15)
    assert not found.fits
    assert found.shortcuts
    assert all(s.saves_min > 0 for s in found.shortcuts)
    assert [s.rank for s in found.shortcuts] == sorted(s.rank for s in found.shortcuts)
    for way in found.ways:
        assert way.needs_min < found.needs_min
        assert way.fits == (way.needs_min <= 15)
        assert 1 <= len(way.shortcuts) <= MOST_TOGETHER


@pytest.mark.parametrize("name", ["slipway_smash", "night_watch_balls"])
def test_what_is_changed_by_its_edits_takes_as_long_and_costs_as_much_as_it_says(name: str) -> None:
    found = _demo(name, 15)
    after = _changed(DEMO[name](), found, 0)
    again = _short(after, 15)
    assert again.needs_min == found.ways[0].needs_min
    assert again.portion_cost == found.ways[0].portion_cost
    assert again.cooked_g == pytest.approx(found.ways[0].cooked_g)


def test_within_so_many_minutes_as_it_takes_it_fits_and_within_one_less_it_does_not() -> None:
    needs = _demo("slipway_smash", 15).needs_min
    fits = _short(slipway_smash(), needs)
    assert (fits.fits, fits.ways, fits.needs_min) == (True, (), needs)
    short = _short(slipway_smash(), needs - 1)
    assert not short.fits
    # What costs the guests nothing comes first, and none holds another that suffices.
    assert [s.key for s in short.ways[0].shortcuts] == ["cook"]
    for a in short.ways:
        for b in short.ways:
            assert a is b or not {s.key for s in a.shortcuts} <= {s.key for s in b.shortcuts}


def test_the_timetable_takes_no_less_than_is_said() -> None:
    formula = slipway_smash()
    needs = _demo("slipway_smash", 15).needs_min
    # Asked for at seven, begun so long before: on time; a minute later: late.
    for opens, late in ((1140 - needs, 0), (1141 - needs, 1)):
        timed = replace(formula, timing=replace(formula.timing, ready_min=1140, opens_min=opens))
        found = timetable(compute(timed, inventory=INVENTORY, kitchen=KITCHEN))
        assert found.late_min == late


def test_pins_and_hours_of_another_evening_do_not_bind() -> None:
    timing = Timing(ready_min=1140, opens_min=1100, pins=(Pin("mix", -20),))
    assert _short(replace(slipway_smash(), timing=timing), 15) == _demo("slipway_smash", 15)


def test_a_second_pan_is_nothing_that_an_edit_can_do() -> None:
    seconds = [s for s in _demo("slipway_smash", 15).shortcuts if s.key.startswith("second:")]
    assert [s.edits for s in seconds] == [()]


@pytest.mark.parametrize("minutes", [0, -5, MOST_MIN + 1])
def test_no_minutes_and_more_than_half_a_day_are_refused(minutes: int) -> None:
    with pytest.raises(OutOfRangeError):
        _short(slipway_smash(), minutes)
