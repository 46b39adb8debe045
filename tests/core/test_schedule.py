"""Tasks in time: no plan breaks a need, a lag or a window; small ones equal brute force; offers really help."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from schedules import LAST, kitchens, problem_of, task_of
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import say
from vianda.core.schedule.chance import arcs_of, chances, drawn_min, evenings
from vianda.core.schedule.check import broken
from vianda.core.schedule.model import Lag, Plan, Problem, Resource, Slot, Task, change_min
from vianda.core.schedule.relief import Relief, reliefs
from vianda.core.schedule.solve import planned_min, solve


@settings(max_examples=60, deadline=None)
@given(kitchens())
def test_no_plan_breaks_anything_and_equal_problems_have_equal_plans(problem: Problem) -> None:
    plan = solve(problem)
    assume(plan is not None)
    assert plan is not None
    assert broken(problem, plan) == []
    assert solve(problem) == plan
    found = chances(problem, plan, draws=50)
    assert 0.0 <= found.on_time_frac <= 1.0
    # Nothing is uncertain here, so it is as late as planned, every evening.
    assert found.on_time_frac == 1.0
    assert found.tenth_late_min == 0.0


def _forward(problem: Problem, order: tuple[Task, ...]) -> int:
    """When the last task ends if each in turn begins as early as it can, minutes from opening."""
    ends: dict[str, int] = {}
    placed: list[tuple[int, int, Task]] = []
    for task in order:
        lags = [x for x in problem.lags if x.after == task.key]
        if any(x.before not in ends for x in lags):
            return 10**6
        start = max([0, *(ends[x.before] + x.least_min for x in lags)])
        while not _fits(problem, placed, task, start):
            start += 1
        ends[task.key] = start + planned_min(task)
        placed.append((start, ends[task.key], task))
    return ends[problem.last]


def _fits(problem: Problem, placed: list[tuple[int, int, Task]], task: Task, start: int) -> bool:
    for minute in range(start, start + planned_min(task)):
        there = [t for a, b, t in placed if a <= minute < b]
        if task.hands and sum(t.hands for t in there) >= problem.cooks:
            return False
        for resource in problem.resources:
            if resource.key in task.needs and sum(resource.key in t.needs for t in there) >= resource.places:
                return False
    return True


@settings(max_examples=40, deadline=None)
@given(kitchens())
def test_a_small_kitchen_is_as_late_as_brute_force_says(problem: Problem) -> None:
    """Serial schedules over every order hold an optimum where nothing may wait too long (Sprecher et al. 1995)."""
    assume(len(problem.tasks) <= 6)
    *jobs, serve = problem.tasks
    free = replace(problem, lags=tuple(replace(x, most_min=None) for x in problem.lags), opens_min=-5)
    plan = solve(free, goals=1)
    assert plan is not None
    best = min(_forward(free, (*order, serve)) for order in itertools.permutations(jobs))
    assert plan.late_min == max(0, best - 5)


# -------------------------------------------------------------------------------------------------- single promises


def test_one_cook_does_one_thing_and_two_do_two() -> None:
    tasks = [task_of("cut", 10, hands=True), task_of("stir", 10, hands=True)]
    alone, two = (solve(problem_of(tasks, [], cooks=n, opens_min=-15)) for n in (1, 2))
    assert alone is not None
    assert two is not None
    assert (alone.late_min, two.late_min) == (6, 0)
    assert {s.cook for s in two.slots if s.cook is not None} == {0, 1}


def test_a_place_holds_as_many_as_it_has_places() -> None:
    tasks = [task_of(f"tray{n}", 20, needs=("oven",)) for n in range(3)]
    for places, late in ((1, 41), (2, 21), (3, 1)):
        plan = solve(problem_of(tasks, [], resources=(Resource("oven", "Oven", places),), opens_min=-20))
        assert plan is not None
        assert plan.late_min == late


def test_two_heats_of_one_oven_lie_apart_by_what_it_takes_to_change() -> None:
    oven = (Resource("oven", "Oven", 2),)
    hot, mild = task_of("roots", 30, needs=("oven",), oven_c=200.0), task_of("loaf", 30, needs=("oven",), oven_c=160.0)
    plan = solve(problem_of([hot, mild], [], resources=oven, opens_min=-61))
    assert plan is not None
    # The mild one first: four minutes up, not ten down.
    assert plan.late_min == 4
    assert plan.slot("roots").start_min - plan.slot("loaf").end_min == 4
    # Nearer than ten degrees one heat serves both.
    near = replace(mild, oven_c=190.1)
    together = solve(problem_of([hot, near], [], resources=oven, opens_min=-31))
    assert together is not None
    assert together.late_min == 0


def test_hot_food_waits_least_and_cold_things_get_a_cushion() -> None:
    tasks = [task_of("wave", 5, hands=True), task_of("build", 3, hands=True), task_of("mix", 10, hands=True)]
    lags = [Lag("mix", "wave", 0, None, cold=True), Lag("wave", "build", 2, 20, hot=True)]
    plan = solve(problem_of(tasks, lags))
    assert plan is not None
    assert plan.slot("build").start_min - plan.slot("wave").end_min == 2
    assert plan.slot("wave").start_min - plan.slot("mix").end_min == 20
    assert plan.slot("serve").end_min == 0


def test_a_pinned_task_stays_where_it_is_put_and_the_rest_moves() -> None:
    tasks = [task_of("cut", 10, hands=True), task_of("stir", 10, hands=True)]
    plan = solve(problem_of(tasks, [], pinned={"cut": -200}))
    assert plan is not None
    assert plan.slot("cut").start_min == -200
    assert plan.slot("stir").end_min <= -1


def test_what_is_done_days_ahead_is_not_bound_by_the_hour_the_kitchen_opens() -> None:
    jar = task_of("jar", 15, hands=True, when="ahead")
    plan = solve(problem_of([jar, task_of("build", 5, hands=True)], [Lag("jar", "build", 1440)], opens_min=-30))
    assert plan is not None
    assert plan.late_min == 0
    assert plan.slot("jar").end_min <= -1440


def test_what_cannot_be_has_no_plan() -> None:
    tasks = [task_of("a", 5, hands=True), task_of("b", 5, hands=True), task_of("c", 5, hands=True)]
    # Both must be done in the minute after the first, by one pair of hands.
    lags = [Lag("a", "b", 0, 1), Lag("a", "c", 0, 1)]
    assert solve(problem_of(tasks, lags, cooks=1)) is None
    assert solve(problem_of(tasks, lags, cooks=2)) is not None
    assert [(r.kind, r.late_min) for r in reliefs(problem_of(tasks, lags, cooks=1))] == [("cook", 0)]


@pytest.mark.parametrize(
    "wrong",
    [
        {"tasks": (LAST, LAST)},
        {"lags": (Lag("serve", "nobody"),)},
        {"cooks": 0},
        {"cooks": 21},
        {"last": "nobody"},
        {"pinned": {"nobody": 0}},
        {"tasks": (LAST, task_of("bake", 5, needs=("oven",)))},
        {"tasks": tuple(task_of(f"t{n}", 1) for n in range(401))},
    ],
)
def test_a_problem_that_names_what_is_not_there_is_refused(wrong: dict) -> None:
    good: dict = {"tasks": (LAST,), "lags": (), "resources": (), "last": "serve"}
    with pytest.raises(OutOfRangeError):
        Problem(**{**good, **wrong})


def test_nothing_to_do_is_a_plan() -> None:
    assert solve(Problem((LAST,), (), (), "serve")) is not None


@pytest.mark.parametrize(
    ("low", "usual", "high", "planned"), [(5, 8, 12, 10), (10, 10, 10, 10), (0, 0, 0, 1), (3, 4, 3, 4)]
)
def test_three_of_four_evenings_fit_what_is_planned(low: float, usual: float, high: float, planned: int) -> None:
    task = Task("t", say("t"), low, usual, high)
    assert planned_min(task) == planned
    if usual > 0 and high > usual:
        drawn = drawn_min([task], draws=20_000)
        assert np.mean(drawn <= planned) >= 0.75


def test_an_oven_warms_faster_than_it_cools() -> None:
    assert change_min(160, 169.9) == 0
    assert change_min(160, 170) == 1
    assert change_min(170, 160) == 3
    assert change_min(180, 120) == 15


# -------------------------------------------------------------------------------------------------------- the checker


def test_the_checker_sees_what_is_broken() -> None:
    oven = (Resource("oven", "Oven"),)
    a, b = task_of("a", 10, hands=True, needs=("oven",), oven_c=200.0), task_of("b", 10, needs=("oven",), oven_c=100.0)
    problem = problem_of([a, b], [Lag("a", "b", 5, 8)], resources=oven, opens_min=-60, pinned={"b": -20})
    at = (("oven", 0),)

    def plan(*slots: Slot, late: int = 0) -> Plan:
        return Plan((*slots, Slot("serve", -1, 0, None, ())), late, True)

    good_a, good_b = Slot("a", -36, -26, 0, at), Slot("b", -20, -10, None, at)
    assert "two heats" in " ".join(broken(problem, plan(good_a, good_b)))
    same = replace(problem, tasks=(a, replace(b, oven_c=200.0), LAST))
    assert broken(same, plan(good_a, good_b)) == []
    for wrong, word in (
        (plan(good_b), "is not in it"),
        (plan(replace(good_a, start_min=-40, end_min=-30), good_b), "10 min"),
        (plan(good_a, replace(good_b, start_min=-19, end_min=-9)), "pinned"),
        (plan(replace(good_a, start_min=-70, end_min=-26), good_b), "opens"),
        (plan(replace(good_a, cook=None), good_b), "hands"),
        (plan(replace(good_a, end_min=-15), good_b), "too full"),
        (plan(replace(good_a, cook=3), replace(good_b, cook=3, start_min=-30)), "twice"),
        (plan(good_a, good_b, late=-5), "later than said"),
    ):
        assert word in " ".join(broken(same, wrong)), word


# ------------------------------------------------------------------------------------------------------ what helps


def _applied(problem: Problem, relief: Relief) -> Problem:
    if relief.kind == "cook":
        return replace(problem, cooks=problem.cooks + 1)
    if relief.kind == "earlier":
        assert problem.opens_min is not None
        return replace(problem, opens_min=problem.opens_min - relief.minutes)
    if relief.kind == "unpin":
        kept = {k: v for k, v in problem.pinned.items() if relief.what and k != relief.what}
        return replace(problem, pinned=kept)
    if relief.kind == "place":
        more = [replace(r, places=r.places + 1) if r.key == relief.what else r for r in problem.resources]
        return replace(problem, resources=tuple(more))
    return problem


@settings(max_examples=25, deadline=None)
@given(kitchens(), st.integers(-20, 0))
def test_what_is_offered_really_helps(problem: Problem, pin: int) -> None:
    tight = replace(problem, opens_min=-8, pinned={"t0": pin})
    now = solve(tight, goals=1)
    for relief in reliefs(tight):
        if relief.kind == "later":
            assert now is not None
            assert relief.minutes == now.late_min
            continue
        after = solve(_applied(tight, relief), goals=1)
        assert after is not None
        assert after.late_min == relief.late_min
        assert now is None or after.late_min < now.late_min


def test_an_earlier_hour_is_the_latest_that_serves_on_time() -> None:
    tasks = [task_of("cut", 25, hands=True), task_of("stir", 20, hands=True)]
    problem = problem_of(tasks, [], opens_min=-30)
    found = {r.kind: r for r in reliefs(problem)}
    assert found["earlier"].minutes == 16
    assert found["later"].minutes == 16
    assert found["cook"].late_min == 0
    assert reliefs(problem_of(tasks, [], opens_min=-46)) == ()


# ---------------------------------------------------------------------------------------------------------- chance


def _evening() -> tuple[Problem, Plan]:
    tasks = [
        Task("cut", say("cut"), 8, 10, 15, hands=True),
        Task("bake", say("bake"), 25, 30, 40, needs=("oven",)),
        Task("slice", say("slice"), 2, 3, 5, hands=True),
    ]
    lags = [Lag("cut", "bake", 0, 60, cold=True), Lag("bake", "slice", 5, 30, hot=True)]
    problem = problem_of(tasks, lags, resources=(Resource("oven", "Oven"),))
    plan = solve(problem)
    assert plan is not None
    return problem, plan


def test_a_cushion_makes_it_on_time_more_often_and_wait_longer() -> None:
    problem, plan = _evening()
    now = chances(problem, plan)
    with_cushion = solve(problem, cushion_min=8)
    assert with_cushion is not None
    then = chances(problem, with_cushion)
    assert then.on_time_frac > now.on_time_frac
    assert then.waits_hot_min > now.waits_hot_min
    assert 0.5 < now.on_time_frac < 1.0


def test_a_task_may_slip_as_long_as_is_said_and_not_a_minute_more() -> None:
    problem, plan = _evening()
    found = chances(problem, plan)
    keys = [t.key for t in problem.tasks]
    planned = np.array([[float(planned_min(t)) for t in problem.tasks]])
    last = keys.index("serve")
    for n, key in enumerate(keys):
        most = found.float_min[key]
        if most is None:
            continue
        for by, late in ((most, False), (most + 1, True)):
            slip = np.zeros_like(planned)
            slip[0, n] = by
            _, ends = evenings(problem, plan, planned, slip=slip)
            assert bool(ends[0, last] > plan.late_min) is late, key
    # The cushion before the oven is what cutting may slip.
    assert found.float_min["cut"] == 20
    assert found.float_min["bake"] == 0


def test_what_follows_closely_follows_what_is_done_and_not_the_clock() -> None:
    problem, plan = _evening()
    quick = np.array([[5.0, 20.0, 3.0, 1.0]])
    starts, ends = evenings(problem, plan, quick)
    # Slicing waits at most half an hour: it is not that close, so it keeps to the clock.
    assert starts[0, 2] == plan.slot("slice").start_min
    close = replace(problem, lags=(problem.lags[0], replace(problem.lags[1], most_min=10), *problem.lags[2:]))
    tight = solve(close)
    assert tight is not None
    starts, ends = evenings(close, tight, quick)
    assert starts[0, 2] == pytest.approx(ends[0, 1] + 5)


def test_the_same_evenings_are_drawn_and_their_tenths_are_what_was_said() -> None:
    task = Task("t", say("t"), 8.0, 10.0, 16.0, hands=True)
    drawn = drawn_min([task], draws=40_000)
    assert np.array_equal(drawn, drawn_min([task], draws=40_000))
    assert not np.array_equal(drawn, drawn_min([task], draws=40_000, seed=8))
    for share, minutes in ((0.1, 8.0), (0.5, 10.0), (0.9, 16.0)):
        assert np.quantile(drawn, share) == pytest.approx(minutes, rel=0.02)
    two = drawn_min([task, replace(task, key="u")], draws=40_000)
    luck = np.corrcoef(np.log(two[:, 0]), np.log(two[:, 1]))[0, 1]
    assert luck == pytest.approx(0.3, abs=0.03)
    alone = drawn_min([replace(task, hands=False), replace(task, key="u", hands=False)], draws=40_000)
    assert abs(np.corrcoef(alone[:, 0], alone[:, 1])[0, 1]) < 0.03


def test_arcs_say_who_waits_for_whom_and_why() -> None:
    problem, plan = _evening()
    found = {(a.before, a.after): a.because for a in arcs_of(problem, plan)}
    assert found["cut", "bake"] == "lag"
    assert found["cut", "slice"] == "cook"
