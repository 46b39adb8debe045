"""The sheet of an evening: what is asked for, what was read, what was done when it was missed, and what remains."""

from __future__ import annotations

from itertools import count

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import say
from vianda.core.checks.due import Due
from vianda.core.checks.limits import CheckKind, CheckLimit, limit_of
from vianda.core.checks.sheet import OVERDUE_MIN, CheckRow, kind_of, line_of, sheet_of
from vianda.core.timetable.run import RunEvent, marks_of

READY_MIN = 1110
_tokens = count()


def _limit(kind: CheckKind, task: str) -> CheckLimit:
    return limit_of(kind, country="US", setting="food-service", poultry=task.startswith("f2-"))


def _core(task: str = "f1-wave-1", at_min: int = -10) -> Due:
    return Due(f"core/{task}", "core", task, "Smash", say("The middle of one piece"), at_min)


def _read(check: str, temp_c: float, minute: int, second: int = 0, **more: str) -> RunEvent:
    return RunEvent(f"t{next(_tokens)}", "measured", minute, value=second, check=check, temp_c=temp_c, **more)


def _did(check: str, minute: int, second: int = 0, remark: str = "Back on the plate") -> RunEvent:
    return RunEvent(f"t{next(_tokens)}", "acted", minute, value=second, check=check, remark=remark)


def _sheet(due: list[Due], *events: RunEvent, now_min: int | None = 0, **more: object) -> list[CheckRow]:
    return list(sheet_of(due, events, limit=_limit, ready_min=READY_MIN, now_min=now_min, **more))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("now_min", "state"),
    [(-11, "coming"), (-10, "due"), (-10 + OVERDUE_MIN, "due"), (-9 + OVERDUE_MIN, "overdue"), (None, "not-measured")],
)
def test_what_nobody_measured_is_coming_due_overdue_and_in_the_end_not_measured(now_min, state) -> None:
    [row] = _sheet([_core()], now_min=now_min)
    assert (row.state, row.due, row.readings) == (state, "18:20", ())
    assert row.line.text == "at least {line} for {hold}"


def test_a_core_is_kept_when_it_was_held_and_asks_again_until_then() -> None:
    """155 °F for 17 s: FDA Food Code 3-401.11, from memory."""
    first = _read("core/f1-wave-1", 68.4, -10, 5, who="Ines")
    [row] = _sheet([_core()], first)
    assert (row.state, row.next) == ("running", "18:21")
    assert row.readings[0].who == "Ines"
    [row] = _sheet([_core()], first, _read("core/f1-wave-1", 68.4, -10, 21))
    assert row.state == "running"
    [row] = _sheet([_core()], first, _read("core/f1-wave-1", 68.4, -10, 22))
    assert (row.state, row.next_min) == ("kept", None)
    # Seconds of two minutes count on.
    late = _read("core/f1-wave-1", 68.4, -10, 55), _read("core/f1-wave-1", 68.4, -9, 12)
    assert _sheet([_core()], *late)[0].state == "kept"


def test_what_is_missed_says_what_to_do_until_it_was_done_or_measured_well() -> None:
    missed = _read("core/f1-wave-1", 60.0, -10)
    [row] = _sheet([_core()], missed)
    assert row.state == "missed"
    assert row.corrective is not None
    assert "Back to the heat" in row.corrective.text
    [row] = _sheet([_core()], missed, _did("core/f1-wave-1", -9))
    assert (row.state, row.corrective) == ("settled", None)
    assert [a.remark for a in row.actions] == ["Back on the plate"]
    # It was done about the first reading, not about the second.
    again = _read("core/f1-wave-1", 61.0, -8)
    assert _sheet([_core()], missed, _did("core/f1-wave-1", -9), again)[0].state == "missed"
    # Hot enough at once for less than a second of hold.
    [row] = _sheet([_core()], missed, _did("core/f1-wave-1", -9), _read("core/f1-wave-1", 75.0, -7))
    assert row.state == "kept"
    assert [r.temp_c for r in row.readings] == [60.0, 75.0]


def test_the_dish_decides_the_line_of_its_core() -> None:
    rows = _sheet([_core(), _core("f2-wave-1")], _read("core/f1-wave-1", 73.0, -9), _read("core/f2-wave-1", 73.0, -9))
    assert [r.state for r in rows] == ["kept", "missed"]


def test_a_reading_typed_wrong_is_taken_back_and_stays_on_the_record() -> None:
    wrong = _read("core/f1-wave-1", 17.0, -10)
    back = RunEvent("b", "take-back", -9, of=wrong.token)
    [row] = _sheet([_core()], wrong, back, now_min=-9)
    assert row.state == "due"
    assert [(r.temp_c, r.taken_back) for r in row.readings] == [(17.0, True)]
    # A check that nobody planned goes with its only reading.
    own = _read("cool/own-1", 57.0, 20, remark="Gravy")
    assert _sheet([], own, RunEvent("c", "take-back", 21, of=own.token)) == []


def test_readings_of_two_devices_count_in_the_order_in_which_they_were_made() -> None:
    late, early = _read("cold", 9.0, -60), _read("cold", 3.0, -90)
    [row] = _sheet([], late, early)
    assert [r.temp_c for r in row.readings] == [3.0, 9.0]
    assert row.state == "missed"


def test_cooling_that_nobody_planned_runs_from_its_first_reading_to_its_last_step() -> None:
    """57 to 21 °C in 2 h and to 5 °C in 6 h: FDA Food Code 3-501.14, from memory."""
    began = _read("cool/own-1", 57.0, 20, remark="Gravy, 6 L tray")
    [row] = _sheet([], began)
    assert (row.state, row.what, row.due, row.next_min) == ("running", "Gravy, 6 L tray", "", 20 + 120)
    assert row.line.text == "to {to0} within {in0}, to {to1} within {in1}"
    step = _read("cool/own-1", 21.0, 139)
    [row] = _sheet([], began, step)
    assert (row.state, row.next_min) == ("running", 20 + 360)
    assert _sheet([], began, step, _read("cool/own-1", 5.0, 379))[0].state == "kept"
    assert _sheet([], began, step, _read("cool/own-1", 5.0, 381))[0].state == "missed"
    # An evening that is over has nothing running: what was not measured to the end is told as that.
    assert _sheet([], began, step, now_min=None)[0].state == "unfinished"


def test_what_was_measured_stays_though_the_plan_no_longer_asks_for_it_and_the_evening_begins_again() -> None:
    events = [
        RunEvent("a", "begin", -20, "f1-wave-1"), _read("core/f1-wave-9", 75.0, -10), RunEvent("r", "restart", -5),
    ]  # fmt: skip
    assert marks_of(events) == ()
    rows = _sheet([_core()], *events)
    assert [(r.key, r.state, r.task) for r in rows] == [
        ("core/f1-wave-1", "due", "f1-wave-1"),
        ("core/f1-wave-9", "kept", "f1-wave-9"),
    ]


def test_what_was_done_without_a_reading_settles_a_check() -> None:
    """The wave was thrown away before anybody measured it."""
    assert _sheet([_core()], _did("core/f1-wave-1", -9, remark="Dropped"))[0].state == "settled"


def test_the_screen_decides_at_which_figure_a_line_is_met() -> None:
    """5 °C are 41 °F: 41.4 °F shows as 41, 5.2 °C does not show as 5."""
    reading = _read("cold", 5.2, -60)
    assert _sheet([], reading)[0].state == "missed"
    assert _sheet([], reading, unit_system="us")[0].state == "kept"


def test_only_known_kinds_are_checks() -> None:
    assert kind_of("reheat/own-9") == "reheat"
    for key in ("", "/core", "fridge", "Core/f1"):
        with pytest.raises(OutOfRangeError):
            kind_of(key)


@pytest.mark.parametrize(
    ("kind", "text"),
    [
        ("cold", "at most {line}"), ("hot", "at least {line}"), ("reheat", "at least {line} within {within}"),
    ],
)  # fmt: skip
def test_each_line_is_told_in_words(kind: CheckKind, text: str) -> None:
    assert line_of(_limit(kind, "")).text == text
