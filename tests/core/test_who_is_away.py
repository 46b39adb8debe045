"""Cooks who come and go: what is theirs waits for them or is another's, and small kitchens equal brute force."""

from __future__ import annotations

import itertools
from dataclasses import replace

import pytest
from hypothesis import assume, given, settings

from heat_formulas import KITCHEN
from schedules import kitchens_with_absences, problem_of, task_of
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.editing.set_timing import edited_timing, keep_away
from vianda.core.model.edit import AddAway, DropAway
from vianda.core.model.formula import MOST_AWAY, Away, Timing
from vianda.core.reading.entry import UnreadableEntryError
from vianda.core.schedule.chance import chances
from vianda.core.schedule.check import broken
from vianda.core.schedule.model import Absence, Problem, Task
from vianda.core.schedule.relief import reliefs
from vianda.core.schedule.replan import Progress, replan
from vianda.core.schedule.solve import joined, planned_min, solve

OPENS = 5


@settings(max_examples=50, deadline=None)
@given(kitchens_with_absences())
def test_nobody_works_while_away_and_equal_problems_have_equal_plans(problem: Problem) -> None:
    plan = solve(problem)
    assume(plan is not None)
    assert plan is not None
    assert broken(problem, plan) == []
    assert solve(problem) == plan
    # Nothing is uncertain here: every evening is as planned.
    assert chances(problem, plan, draws=20).on_time_frac == 1.0


def _forward(problem: Problem, order: tuple[Task, ...], whose: dict[str, int]) -> int:
    """When the last task ends if each in turn begins as early as it can, minutes from opening."""
    ends: dict[str, int] = {}
    placed: list[tuple[int, int, Task]] = []
    for task in order:
        lags = [x for x in problem.lags if x.after == task.key]
        if any(x.before not in ends for x in lags):
            return 10**6
        start = max([0, *(ends[x.before] + x.least_min for x in lags)])
        while not _fits(problem, placed, task, start, whose):
            start += 1
        ends[task.key] = start + planned_min(task)
        placed.append((start, ends[task.key], task))
    return ends[problem.last]


def _fits(problem: Problem, placed: list, task: Task, start: int, whose: dict[str, int]) -> bool:
    for minute in range(start, start + planned_min(task)):
        there = [t for a, b, t in placed if a <= minute < b]
        if task.hands:
            mine = whose[task.key]
            if any(t.hands and whose[t.key] == mine for t in there):
                return False
            if any(a.cook == mine and a.from_min <= minute - OPENS < a.to_min for a in problem.away):
                return False
        for resource in problem.resources:
            if resource.key in task.needs and sum(resource.key in t.needs for t in there) >= resource.places:
                return False
    return True


@settings(max_examples=25, deadline=None)
@given(kitchens_with_absences())
def test_a_small_kitchen_is_as_late_as_brute_force_says(problem: Problem) -> None:
    """Serial schedules over every order and every sharing of the work hold an optimum (Sprecher et al. 1995)."""
    assume(len(problem.tasks) <= 5)
    *jobs, serve = problem.tasks
    free = replace(problem, lags=tuple(replace(x, most_min=None) for x in problem.lags), opens_min=-OPENS)
    plan = solve(free, goals=1)
    assert plan is not None
    hands = [t.key for t in jobs if t.hands]
    best = min(
        _forward(free, (*order, serve), dict(zip(hands, cooks, strict=True)))
        for cooks in itertools.product(range(free.cooks), repeat=len(hands))
        for order in itertools.permutations(jobs)
    )
    assert plan.late_min == max(0, best - OPENS)


def test_staggered_breaks_leave_nobody_for_a_long_task_though_a_hand_is_always_free() -> None:
    # At every minute one of two is there, and neither is there for 40 in a row.
    away = (Absence(0, -60, -30), Absence(1, -30, 0))
    long, short = task_of("roast", 40, hands=True), task_of("cut", 25, hands=True)
    late = solve(problem_of([long], [], cooks=2, opens_min=-60, away=away), goals=1)
    # Cook 1 is back half an hour before the hour: 40 min and a minute to serve.
    assert late is not None
    assert late.late_min == 11
    on_time = solve(problem_of([short], [], cooks=2, opens_min=-60, away=away), goals=1)
    assert on_time is not None
    assert on_time.late_min == 0


def test_what_would_help_is_that_somebody_stays() -> None:
    problem = problem_of([task_of("cut", 25, hands=True)], [], opens_min=-30, away=(Absence(0, -30, -10),))
    found = {r.kind: r for r in reliefs(problem)}
    assert (found["stay"].what, found["stay"].late_min) == ("0", 0)


def test_whoever_runs_something_ends_it_before_going() -> None:
    tasks = [task_of("stir", 30, hands=True), task_of("cut", 10, hands=True)]
    problem = problem_of(tasks, [], away=(Absence(0, -50, -20),))
    stood = {s.task: s for s in (solve(problem) or pytest.fail("no plan")).slots}
    done = replan(problem, stood, Progress(now_min=-45, running={"stir": -60}))
    slots = {s.task: s for s in done.plan.slots}
    # Begun at −60, it takes until −30; then the cook is away, and cuts when they are back.
    assert slots["stir"].end_min == -30
    assert slots["cut"].start_min >= -20
    assert not [x for x in broken(done.left, done.plan) if "is not in it" not in x]


def test_what_touches_is_one_absence() -> None:
    away = (Absence(0, -10, 0), Absence(0, -30, -10), Absence(1, -30, -10), Absence(0, 5, 9))
    assert joined(away) == [Absence(0, -30, 0), Absence(0, 5, 9), Absence(1, -30, -10)]


@pytest.mark.parametrize("wrong", [Absence(1, -10, 0), Absence(-1, -10, 0), Absence(0, 0, 0), Absence(0, 5, 0)])
def test_somebody_who_is_not_there_cannot_be_away(wrong: Absence) -> None:
    with pytest.raises(OutOfRangeError):
        problem_of([task_of("cut", 5)], [], cooks=1, away=(wrong,))


# ----------------------------------------------------------------------------------------------------- what is typed

TWO = Timing(cooks=2)


@pytest.mark.parametrize(
    ("start", "end", "from_min", "to_min"),
    [("17:00", "17:45", 1020, 1065), ("", "", 0, 1440), ("22:00", "6:00", 1320, 1800), ("17:00", "", 1020, 1440)],
)
def test_hours_are_read_and_an_end_before_its_beginning_is_tomorrows(start, end, from_min, to_min) -> None:
    changed = edited_timing(TWO, AddAway(2, start, end), kitchen=KITCHEN)
    assert changed.away == (Away(2, from_min, to_min),)
    assert edited_timing(changed, AddAway(2, start, end), kitchen=KITCHEN) == changed
    assert edited_timing(changed, DropAway(2), kitchen=KITCHEN) == TWO
    assert edited_timing(changed, DropAway(1), kitchen=KITCHEN) == changed


@pytest.mark.parametrize(
    ("edit", "error"),
    [
        (AddAway(3, "17:00", "18:00"), OutOfRangeError),
        (AddAway(1, "17:00", "17:00"), OutOfRangeError),
        (AddAway(1, "soon", "18:00"), UnreadableEntryError),
        (AddAway(1, "25:00", "26:00"), UnreadableEntryError),
    ],
)
def test_what_is_no_absence_is_refused(edit: AddAway, error: type) -> None:
    with pytest.raises(error):
        edited_timing(TWO, edit, kitchen=KITCHEN)


def test_no_more_absences_than_fit_a_timetable() -> None:
    many = tuple(Away(1, n, n + 1) for n in range(MOST_AWAY))
    full = keep_away(TWO, many)
    assert len(full.away) == MOST_AWAY
    with pytest.raises(OutOfRangeError):
        keep_away(full, (Away(2, 0, 1),))
