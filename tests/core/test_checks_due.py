"""When an evening asks for its checks: at the end of each wave, while food waits hot, before work begins."""

from __future__ import annotations

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.phrase import say, word
from vianda.core.checks.due import HOT_EVERY_MIN, HOT_FROM_MIN, Due, due_of
from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.model.formula import Timing
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.model import Lag, Problem, Slot, Task
from vianda.core.schedule.solve import solve
from vianda.core.timetable.sheet import Dish
from vianda.core.timetable.tasks import tasks_together


def _task(key: str, **more: object) -> Task:
    return Task(key, say("Task {n}", n=word(key)), 1.0, 2.0, 3.0, **more)  # type: ignore[arg-type]


def _due(tasks: list[Task], at: dict[str, tuple[int, int]], *lags: Lag) -> list[Due]:
    problem = Problem((*tasks, _task("serve")), lags, (), "serve")
    return list(due_of(problem, {k: Slot(k, a, b, None, ()) for k, (a, b) in at.items()}))


@pytest.mark.parametrize(
    ("waits", "asked"),
    [
        (HOT_FROM_MIN, 0),
        (HOT_FROM_MIN + 1, 1),
        (HOT_FROM_MIN + HOT_EVERY_MIN, 1),
        (HOT_FROM_MIN + HOT_EVERY_MIN + 1, 2),
    ],
)
def test_what_waits_hot_is_measured_after_half_an_hour_and_every_two(waits: int, asked: int) -> None:
    end = -waits
    found = _due([_task("wave-1")], {"wave-1": (end - 5, end), "serve": (0, 1)}, Lag("wave-1", "serve", hot=True))
    hot = [d for d in found if d.kind == "hot"]
    assert [d.at_min for d in hot] == [end + HOT_FROM_MIN + n * HOT_EVERY_MIN for n in range(asked)]
    assert len({d.key for d in found}) == len(found)


def test_what_waits_cold_or_was_not_done_asks_for_nothing() -> None:
    lag = Lag("wave-1", "serve", cold=True)
    assert [d.kind for d in _due([_task("wave-1")], {"wave-1": (-205, -200), "serve": (0, 1)}, lag)] == ["core"]
    assert _due([_task("wave-1")], {"serve": (0, 1)}, Lag("wave-1", "serve", hot=True)) == []


def test_the_fridge_is_looked_at_when_the_first_hands_of_the_day_begin() -> None:
    tasks = [_task("jar", hands=True, when="ahead"), _task("soak"), _task("mix", hands=True)]
    found = _due(tasks, {"jar": (-3000, -2990), "soak": (-90, -80), "mix": (-60, -50), "serve": (0, 1)})
    assert [(d.kind, d.at_min) for d in found] == [("cold", -60)]


def test_each_wave_of_each_dish_is_measured_once_and_balls_when_they_come_out_of_their_sauce() -> None:
    dishes = [
        Dish(f"f{n}-", make.__name__, compute(make(), inventory=INVENTORY, kitchen=KITCHEN))
        for n, make in enumerate((slipway_smash, keepers_loaf, night_watch_balls))
    ]
    problem = tasks_together(dishes, timing=Timing(cooks=2))
    plan = solve(problem)
    assert plan is not None
    slots = {s.task: s for s in plan.slots}
    found = due_of(problem, slots)
    cores = {d.task: d for d in found if d.kind == "core"}
    in_sauce = {t.dish for t in problem.tasks if t.key.endswith("-simmer")}
    wanted = {
        t.key for t in problem.tasks if t.key.endswith("-simmer") or ("-wave-" in t.key and t.dish not in in_sauce)
    }
    assert cores.keys() == wanted
    assert all(d.at_min == slots[d.task].end_min for d in cores.values())
    assert [d.at_min for d in found] == sorted(d.at_min for d in found)
    assert {d.dish for d in cores.values()} == {d.name for d in dishes}
