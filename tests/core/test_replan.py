"""A plan mended from now on: what is done stands, nothing begins before now, and what was on time is left alone."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from schedules import kitchens, problem_of, task_of
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.schedule.check import broken
from vianda.core.schedule.model import Lag, Plan, Problem, Resource, Slot
from vianda.core.schedule.replan import Progress, replan
from vianda.core.schedule.solve import solve


def _quick(problem: Problem, *, cushion_min: int = 0, goals: int = 4) -> Plan | None:
    """What is drawn is small: a fifth of the time suffices."""
    return solve(problem, cushion_min=cushion_min, goals=goals, stage_units=0.03)


def _slots(plan: Plan | None) -> dict[str, Slot]:
    assert plan is not None
    return {s.task: s for s in plan.slots}


def _as_planned(stood: dict[str, Slot], now: int, last: str) -> Progress:
    """Everything has gone as planned until now."""
    return Progress(
        now,
        {k: (s.start_min, s.end_min) for k, s in stood.items() if s.end_min <= now and k != last},
        {k: s.start_min for k, s in stood.items() if s.start_min < now < s.end_min and k != last},
    )


# ----------------------------------------------------------------------------------------------- whatever is drawn


@st.composite
def evenings_under_way(draw: st.DrawFn) -> tuple[Problem, dict[str, Slot], Progress]:
    """A plan, a minute of it, and what went otherwise: a task that takes longer, one that nobody has begun."""
    problem = draw(kitchens())
    plan = _quick(problem)
    assume(plan is not None)
    stood = _slots(plan)
    begins = min(s.start_min for s in stood.values())
    now = draw(st.integers(begins, max(begins, stood[problem.last].start_min)))
    so_far = _as_planned(stood, now, problem.last)
    done, running = dict(so_far.done), dict(so_far.running)
    # What nobody has begun has no task after it that is done.
    after = {key: {x.after for x in problem.lags if x.before == key} for key in stood}
    idle = sorted(k for k in (*done, *running) if not after[k] & {*done, *running})
    for key in draw(st.sets(st.sampled_from(idle), max_size=2)) if idle else ():
        done.pop(key, None)
        running.pop(key, None)
    still = {k: draw(st.integers(0, 25)) for k in sorted(running) if draw(st.booleans())}
    return problem, stood, Progress(now, done, running, still)


@settings(max_examples=80, deadline=None)
@given(evenings_under_way())
def test_a_mended_plan_breaks_nothing_and_rewrites_no_past(drawn: tuple[Problem, dict[str, Slot], Progress]) -> None:
    problem, stood, progress = drawn
    found = replan(problem, stood, progress, solver=_quick)
    now = {s.task: s for s in found.plan.slots}
    assert now.keys() == stood.keys()
    rest = Plan(tuple(s for k, s in now.items() if k not in progress.done), found.plan.late_min, True)
    assert broken(found.left, rest) == []
    for key, slot in now.items():
        if key in progress.done:
            assert (slot.start_min, slot.end_min) == progress.done[key]
        elif key in progress.running:
            assert slot.start_min == progress.running[key]
            assert slot.end_min > progress.now_min
            if key in progress.still:
                assert slot.end_min == progress.now_min + max(1, progress.still[key])
        else:
            assert slot.start_min >= progress.now_min
    # Every limit that is overrun is said, with the minutes, and no other.
    said = {(x.before, x.after): x.over_min for x in found.overruns}
    for lag in problem.lags:
        if lag.most_min is None or lag.after in progress.done or lag.after in progress.running:
            continue
        over = now[lag.after].start_min - now[lag.before].end_min - lag.most_min
        assert said.get((lag.before, lag.after), 0) == max(0, over)
    assert {m.task: (m.from_min, m.to_min) for m in found.moved} == {
        k: (stood[k].start_min, s.start_min)
        for k, s in now.items()
        if k not in progress.done and k not in progress.running and s.start_min != stood[k].start_min
    }
    assert replan(problem, stood, progress, solver=_quick) == found


@settings(max_examples=40, deadline=None)
@given(evenings_under_way())
def test_no_limit_is_overrun_and_nothing_is_late_that_need_not_be(
    drawn: tuple[Problem, dict[str, Slot], Progress],
) -> None:
    """The same rest, every limit kept, planned anew: where that can be done at all, mending is no later."""
    problem, stood, progress = drawn
    found = replan(problem, stood, progress, solver=_quick)
    anew = _quick(replace(found.left, near=None), goals=1)
    assume(found.plan.proved and (anew is None or anew.proved))
    if anew is None:
        assert found.overruns or any(k in found.left.latest for k in found.left.near or ())
    else:
        assert found.overruns == ()
        assert found.plan.late_min == anew.late_min


@settings(max_examples=40, deadline=None)
@given(kitchens(), st.integers(0, 100))
def test_an_evening_that_goes_as_planned_is_left_alone(problem: Problem, part: int) -> None:
    plan = _quick(problem)
    assume(plan is not None)
    stood = _slots(plan)
    begins = min(s.start_min for s in stood.values())
    now = begins + (stood[problem.last].start_min - begins) * part // 100
    found = replan(problem, stood, _as_planned(stood, now, problem.last), solver=_quick)
    assert found.moved == ()
    assert found.overruns == ()
    assert found.swapped == ()
    # The same hands at the same place.
    assert {s.task: (s.cook, s.places) for s in found.plan.slots} == {k: (s.cook, s.places) for k, s in stood.items()}


# -------------------------------------------------------------------------------------------------- single promises


def _burgers() -> tuple[Problem, dict[str, Slot]]:
    plate = Resource("plate", "Plate", 1)
    problem = problem_of(
        [
            task_of("heat-plate", 14, needs=("plate",)),
            task_of("cook", 6, hands=True, needs=("plate",)),
            task_of("toast", 2),
            task_of("build", 5, hands=True),
            task_of("salad", 10, hands=True),
        ],
        [
            Lag("heat-plate", "cook", 0, 15),
            Lag("cook", "build", 2, 8, hot=True),
            Lag("toast", "build", 0, 5),
            Lag("salad", "serve", 0, 720, cold=True),
        ],
        resources=(plate,),
    )
    return problem, _slots(solve(problem))


def test_a_plate_that_starts_late_moves_only_what_waits_for_it() -> None:
    problem, stood = _burgers()
    now = stood["heat-plate"].start_min + 15
    salad = stood["salad"]
    assert salad.end_min <= now
    found = replan(problem, stood, Progress(now, {"salad": (salad.start_min, salad.end_min)}))
    slots = {s.task: s for s in found.plan.slots}
    assert slots["heat-plate"].start_min == now
    assert found.plan.late_min == 15
    assert {m.task for m in found.moved} == {"heat-plate", "cook", "toast", "build", "serve"}
    # The heated plate may stand for a quarter of an hour, so not every step moves by as much; none is early.
    assert {m.task: m.to_min - m.from_min for m in found.moved}["serve"] == 15
    assert all(0 < m.to_min - m.from_min <= 15 for m in found.moved)
    assert found.overruns == ()


def test_an_evening_that_stood_late_comes_nearer_to_its_hour_but_not_before_it() -> None:
    """Guests come at their hour: late is mended where it can be, and nobody serves early."""
    problem, on_time = _burgers()
    late = {k: replace(s, start_min=s.start_min + 10, end_min=s.end_min + 10) for k, s in on_time.items()}
    begins = min(s.start_min for s in on_time.values())
    for ahead in (0, 30):
        found = replan(problem, late, Progress(begins - ahead))
        assert (found.plan.late_min, found.overruns) == (0, ())
        assert {s.task: s for s in found.plan.slots}["serve"].end_min == 0
    # Four minutes after the last moment: no later than that, and sooner than it stood.
    assert 0 < replan(problem, late, Progress(begins + 4)).plan.late_min <= 4


def test_a_limit_that_is_lost_already_is_said_and_the_rest_is_planned() -> None:
    problem, stood = _burgers()
    cooked = stood["cook"]
    now = cooked.end_min + 12
    done = {k: (stood[k].start_min, stood[k].end_min) for k in ("heat-plate", "salad", "cook")}
    found = replan(problem, stood, Progress(now, done))
    over = {(x.before, x.after): (x.most_min, x.over_min) for x in found.overruns}
    # Toast takes two minutes before it can be built: 14 after the meat came off, where 8 is the limit.
    assert over == {("cook", "build"): (8, 6)}


def test_a_running_task_takes_as_long_as_the_cook_says_else_as_planned_and_a_minute_at_least() -> None:
    problem, stood = _burgers()
    begun = stood["cook"].start_min
    before = {k: (stood[k].start_min, stood[k].end_min) for k in ("heat-plate", "salad")}
    for now, still, ends in (
        (begun + 2, {}, begun + 6),
        (begun + 9, {}, begun + 10),
        (begun + 2, {"cook": 8}, begun + 10),
    ):
        found = replan(problem, stood, Progress(now, before, {"cook": begun}, still))
        assert next(s for s in found.plan.slots if s.task == "cook").end_min == ends


def test_two_that_run_where_there_is_room_for_one_hold_it_until_the_later_ends() -> None:
    pan = Resource("pan", "Pan", 1)
    problem = problem_of(
        [task_of(k, 10, hands=True, needs=("pan",)) for k in ("onions", "mushrooms", "peppers")], [], resources=(pan,)
    )
    stood = _slots(solve(problem))
    found = replan(problem, stood, Progress(-30, {}, {"onions": -35, "mushrooms": -31}))
    slots = {s.task: s for s in found.plan.slots}
    assert slots["onions"].end_min == -25
    assert slots["mushrooms"].end_min == -21
    assert slots["peppers"].start_min >= -21


@pytest.mark.parametrize(("late", "moves"), [(2, [2, 2, 2, 2]), (10, [10, 30])])
def test_a_small_slip_moves_all_a_little_and_a_large_one_moves_one_task_behind_the_others(
    late: int, moves: list[int]
) -> None:
    """Three tasks of ten minutes: all moved by two cost 3 · (2 + 5), one moved by thirty costs 30 + 5; then serving."""
    problem = problem_of([task_of(k, 10, hands=True) for k in ("a", "b", "c")], [], cooks=1)
    stood = _slots(solve(problem))
    first = min(stood[k].start_min for k in ("a", "b", "c"))
    found = replan(problem, stood, Progress(first + late))
    assert sorted(m.to_min - m.from_min for m in found.moved) == moves
    assert found.plan.late_min == late


def test_orders_that_change_are_named() -> None:
    # The loaf is not mixed in time for its oven; balls, planned after it, go first.
    oven = Resource("oven", "Oven", 1)
    problem = problem_of(
        [
            task_of("mix-loaf", 5, hands=True),
            task_of("loaf", 30, needs=("oven",)),
            task_of("balls", 20, needs=("oven",)),
        ],
        [Lag("mix-loaf", "loaf"), Lag("loaf", "serve", 0, 40, hot=True)],
        resources=(oven,),
    )
    stood = {
        "mix-loaf": Slot("mix-loaf", -60, -55, 0, ()),
        "loaf": Slot("loaf", -55, -25, None, (("oven", 0),)),
        "balls": Slot("balls", -22, -2, None, (("oven", 0),)),
        "serve": Slot("serve", -1, 0, None, ()),
    }
    found = replan(problem, stood, Progress(-55, {}, {"mix-loaf": -60}, {"mix-loaf": 21}))
    assert found.swapped == (("balls", "loaf"),)
    assert found.plan.late_min == 0


def test_a_place_and_a_cook_are_kept_over_the_mending() -> None:
    pans = (Resource("pan", "Pan", 2),)
    problem = problem_of(
        [task_of("left", 10, hands=True, needs=("pan",)), task_of("right", 10, hands=True, needs=("pan",))],
        [],
        resources=pans,
        cooks=2,
    )
    stood = {
        "left": Slot("left", -20, -10, 1, (("pan", 1),)),
        "right": Slot("right", -20, -10, 0, (("pan", 0),)),
        "serve": Slot("serve", -1, 0, None, ()),
    }
    slots = {s.task: s for s in replan(problem, stood, Progress(-18)).plan.slots}
    assert (slots["left"].cook, slots["left"].places) == (1, (("pan", 1),))
    assert (slots["right"].cook, slots["right"].places) == (0, (("pan", 0),))


def test_a_task_that_is_new_is_planned_with_the_rest() -> None:
    problem, stood = _burgers()
    del stood["salad"]
    found = replan(problem, stood, Progress(-60))
    assert any(s.task == "salad" and s.start_min >= -60 for s in found.plan.slots)
    assert all(m.task != "salad" for m in found.moved)


@pytest.mark.parametrize(
    ("progress", "says"),
    [
        (Progress(0, {"soup": (-5, 0)}), "not in this timetable"),
        (Progress(0, {}, {"soup": -5}), "not in this timetable"),
        (Progress(0, {}, {}, {"soup": 5}), "not in this timetable"),
        (Progress(5, {"serve": (-1, 0)}), "on the plate"),
        (Progress(0, {"cook": (-9, -3)}, {"cook": -9}), "either under way or done"),
        (Progress(0, {}, {"cook": 1}), "after now"),
        (Progress(0, {"cook": (-3, 1)}), "after now"),
        (Progress(0, {"cook": (-3, -4)}), "before it began"),
        (Progress(0, {}, {"cook": -4}, {"cook": -1}), "from no time"),
        (Progress(0, {}, {"cook": -4}, {"cook": 721}), "from no time"),
        (Progress(721), "too long"),
        (Progress(-45 * 1440 - 1), "too long"),
        (Progress(719), "no room"),
    ],
)
def test_what_cannot_have_happened_is_refused(progress: Progress, says: str) -> None:
    problem, stood = _burgers()
    with pytest.raises(OutOfRangeError, match=says):
        replan(problem, stood, progress)
