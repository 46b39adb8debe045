"""What stands after all that was said of an evening; the browser draws by the same cases while the line is down."""

from __future__ import annotations

import json
from datetime import date, datetime
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.model.service import Service
from vianda.core.supply.occurrences import DAY_BEGINS_H, run_day
from vianda.core.timetable.run import Mark, RunEvent, marks_of

CASES = json.loads((Path(__file__).parent.parent / "fixtures" / "run-events.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("case", CASES, ids=lambda c: c["what"])
def test_what_stands(case: dict) -> None:
    found = marks_of(RunEvent(**event) for event in case["events"])
    assert found == tuple(Mark(**mark) for mark in case["marks"])


EVENTS = st.builds(
    RunEvent,
    token=st.text("abcdef", min_size=1, max_size=2),
    kind=st.sampled_from(["begin", "end", "longer", "restart", "take-back"]),
    minute=st.integers(-600, 60),
    task=st.sampled_from(["mix", "grind", "wave-1"]),
    value=st.none() | st.integers(-60, 90),
    of=st.text("abcdef", max_size=2),
)


@given(st.lists(EVENTS, max_size=30, unique_by=lambda e: e.token))
def test_one_mark_a_task_and_none_ends_before_it_began(events: list[RunEvent]) -> None:
    marks = marks_of(events)
    assert len({m.task for m in marks}) == len(marks)
    assert all(m.ended_min is None or m.begun_min <= m.ended_min for m in marks)
    assert all(m.until_min is None or m.ended_min is None for m in marks)


@given(st.lists(EVENTS, max_size=12, unique_by=lambda e: e.token), st.integers(0, 11))
def test_taken_back_it_is_as_if_it_had_never_been_said(events: list[RunEvent], at: int) -> None:
    back = RunEvent("the-last", "take-back", 0, of=events[at % len(events)].token if events else "none")
    without = [e for e in events if e.token != back.of]
    assert marks_of([*events, back]) == marks_of(without)


def test_a_taking_back_that_was_taken_back_takes_nothing_back() -> None:
    begun = RunEvent("begun", "begin", -10, "mix")
    slip, sorry = RunEvent("slip", "take-back", 0, of="begun"), RunEvent("sorry", "take-back", 0, of="slip")
    assert marks_of([begun, slip]) == ()
    assert marks_of([begun, slip, sorry]) == marks_of([begun])
    assert marks_of([begun, slip, sorry, RunEvent("again", "take-back", 0, of="sorry")]) == ()


@pytest.mark.parametrize(
    ("now", "day"),
    [
        # Before it, on its day, and until five in the morning after it.
        (datetime(2026, 12, 1, 9, 0), date(2026, 12, 4)),
        (datetime(2026, 12, 4, 23, 0), date(2026, 12, 4)),
        (datetime(2026, 12, 5, DAY_BEGINS_H - 1, 59), date(2026, 12, 4)),
        (datetime(2026, 12, 5, DAY_BEGINS_H, 0), date(2026, 12, 11)),
    ],
)
def test_after_midnight_the_evening_before_goes_on(now: datetime, day: date) -> None:
    assert run_day(Service("Friday", day="2026-12-04", repeat="weekly"), now=now) == day


def test_a_service_that_does_not_come_again_keeps_its_day_and_one_without_a_day_has_today() -> None:
    assert run_day(Service("Once", day="2026-12-04"), now=datetime(2027, 1, 1, 12)) == date(2026, 12, 4)
    assert run_day(Service("Some day"), now=datetime(2027, 1, 1, 3)) == date(2026, 12, 31)
    ended = Service("Over", day="2026-12-04", repeat="weekly", until="2026-12-18")
    assert run_day(ended, now=datetime(2027, 1, 1, 12)) == date(2026, 12, 4)


@pytest.mark.parametrize("now", [datetime(1, 1, 1, 0), datetime(9999, 12, 31, 23), datetime(1989, 12, 31)])
def test_a_clock_that_is_wrong_by_ages_is_told(now: datetime) -> None:
    with pytest.raises(OutOfRangeError, match="1990 to 2999"):
        run_day(Service("Friday", day="2026-12-04"), now=now)
