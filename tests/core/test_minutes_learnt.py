"""Minutes of tasks: what a run says of them, what is learnt, and what the timetable makes of it."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.equipment.task_pace import TASK_KINDS, TaskPace
from vianda.core.learning.figures import FIGURES, Observation
from vianda.core.learning.from_run import CLOCK_SD_MIN, minutes_observations
from vianda.core.learning.in_use import all_in_use, with_factor
from vianda.core.learning.learnt import fitted, learnt_of
from vianda.core.learning.scores import scores_of
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.model import Task
from vianda.core.timetable.run import RunEvent
from vianda.core.timetable.tasks import tasks_of

NAMES = {("task", key): title for key, title in TASK_KINDS.items()}


def _tasks(formula, kitchen=KITCHEN) -> dict[str, Task]:
    return {t.key: t for t in tasks_of(compute(formula, inventory=INVENTORY, kitchen=kitchen)).tasks}


SMASH = _tasks(slipway_smash())


def _timed(key: str, took: int, *, start: int = -60) -> list[RunEvent]:
    return [RunEvent(f"{key}-b", "begin", start, key), RunEvent(f"{key}-e", "end", start + took, key)]


def _observed(*events: RunEvent, tasks=SMASH) -> list[Observation]:
    return list(minutes_observations(7, 0.0, events, tasks.values()))


def test_what_was_begun_and_ended_by_somebody_says_how_long_it_took() -> None:
    [one] = _observed(*_timed("build-1", 12))
    usual = SMASH["build-1"].usual_min
    assert (one.figure, one.cook, one.thing, one.observed, one.usual) == ("minutes", 7, "build", 12.0, usual)
    assert one.value == pytest.approx(math.log(12.0 / usual))
    # Which task of the evening it was tells two of one kind apart.
    assert [o.piece for o in _observed(*_timed("build-1", 12), *_timed("build-2", 9))] == [
        list(SMASH).index("build-1"), list(SMASH).index("build-2"),
    ]  # fmt: skip


def test_a_clock_of_whole_minutes_is_worth_what_it_is() -> None:
    """Both ends lie evenly within their minute: the spread of what is drawn so is the one that is reckoned with."""
    rng = np.random.default_rng(5)
    begun, took = rng.uniform(0, 1, 200_000), 6.0
    read = np.floor(begun + took + rng.uniform(0, 1, begun.size)) - np.floor(begun + rng.uniform(0, 1, begun.size))
    assert pytest.approx(math.sqrt(1 / 6)) == CLOCK_SD_MIN
    assert np.std(np.round(begun + took) - np.round(begun)) <= CLOCK_SD_MIN * 1.01
    assert read.mean() == pytest.approx(took, abs=0.01)


@pytest.mark.parametrize(
    "events",
    [
        # Only said to be done, with or without how long it takes as a rule.
        [RunEvent("a", "end", -40, "build-1", 6)],
        [RunEvent("a", "begin", -40, "build-1")],
        # Begun and ended in one minute: ticked off.
        _timed("build-1", 0),
        # Taken back, or begun anew.
        [*_timed("build-1", 12), RunEvent("x", "take-back", -40, of="build-1-e")],
        [*_timed("build-1", 12), RunEvent("x", "restart", -40)],
        # No hands stand at it, or it is of no kind that comes again.
        _timed("preheat", 20),
        _timed("serve", 3),
        _timed("wave-1", 3),
        _timed("no-such-task", 3),
    ],
)
def test_what_was_not_timed_says_nothing(events) -> None:
    assert _observed(*events) == []


def test_just_ticked_and_just_timed() -> None:
    short = {"cut": replace(SMASH["build-1"], key="cut", kind="cut", usual_min=1.9)}
    long = {"cut": replace(short["cut"], usual_min=2.0)}
    assert [o.observed for o in _observed(*_timed("cut", 0), tasks=short)] == [0.5]
    assert _observed(*_timed("cut", 0), tasks=long) == []
    assert [o.observed for o in _observed(*_timed("cut", 1), tasks=long)] == [1.0]


def _evenings(factor: float, count: int, *, key: str = "build-1") -> list[Observation]:
    usual = SMASH[key].usual_min
    found: list[Observation] = []
    for n in range(count):
        found += [replace(o, cook=n, at=float(n)) for o in _observed(*_timed(key, round(usual * factor)))]
    return found


def test_slow_hands_are_learnt_and_shared_in_part_with_what_nobody_timed() -> None:
    seen = _evenings(1.5, 8)
    [build] = learnt_of(seen, names=NAMES, in_use={})
    assert (build.name, build.level, build.counted) == ("Building", "task", 8)
    assert build.sure
    assert 1.3 < build.posterior.usual < 1.5
    assert "Takes longer than the tables say" in build.says.text
    # One evening of shaping, as usual: the slow hands of the kitchen are in it, and pull it less than building.
    both = learnt_of([*seen, *_evenings(1.0, 1, key="shape")], names=NAMES, in_use={})
    shaping = next(x for x in both if x.key == "shape")
    assert 1.0 < shaping.posterior.usual < build.posterior.usual
    assert {s.figure for s in scores_of(seen)} == {"minutes"}


def test_the_update_is_that_of_a_grid() -> None:
    """Kitchen and task add up; integrated over both, with the same spreads and the error as it turned out."""
    seen = _evenings(1.5, 3)
    [build] = learnt_of(seen, names=NAMES, in_use={})
    scale = fitted("minutes", seen).scale
    model = FIGURES["minutes"]
    k = np.linspace(-1.2, 1.2, 601)[:, None]
    t = np.linspace(-1.2, 1.2, 601)[None, :]
    log = -0.5 * (k / model.kitchen_sd) ** 2 - 0.5 * (t / model.level_sd["task"]) ** 2
    for one in seen:
        log = log - 0.5 * ((one.value - k - t) / (scale * math.hypot(one.sd, model.cook_sd))) ** 2
    p = np.exp(log - log.max())
    p /= p.sum()
    assert build.posterior.usual == pytest.approx(math.exp(float((p * (k + t)).sum())), rel=1e-3)


def test_a_factor_in_use_moves_its_tasks_alone_and_is_no_news() -> None:
    kitchen = with_factor(KITCHEN, figure="minutes", level="task", key="build", factor=1.4)
    slow = _tasks(slipway_smash(), kitchen)
    for key, task in SMASH.items():
        times = 1.4 if task.kind == "build" else 1.0
        assert slow[key].usual_min == pytest.approx(times * task.usual_min)
        assert slow[key].high_min == pytest.approx(times * task.high_min)
    assert all_in_use(kitchen)["minutes", "task", "build"] == 1.4
    # The same minutes ask for the same factor, whatever they were planned with.
    [plain], [used] = _observed(*_timed("build-1", 12)), _observed(*_timed("build-1", 12), tasks=slow)
    assert used.value == pytest.approx(plain.value)
    assert used.usual == pytest.approx(1.4 * plain.usual)
    assert with_factor(kitchen, figure="minutes", level="task", key="build", factor=1.0).paces == ()


@pytest.mark.parametrize(("factor", "taken"), [(0.5, True), (0.49, False), (2.0, True), (2.01, False)])
def test_a_pace_has_the_bounds_of_every_factor(factor, taken) -> None:
    if taken:
        moved = with_factor(KITCHEN, figure="minutes", level="task", key="shape", factor=factor)
        assert moved.paces == (TaskPace("shape", factor),)
    else:
        with pytest.raises(OutOfRangeError):
            with_factor(KITCHEN, figure="minutes", level="task", key="shape", factor=factor)


@pytest.mark.parametrize(("level", "key"), [("task", "juggling"), ("style", "smashed"), ("surface", "yard-plate")])
def test_minutes_are_learnt_of_kinds_of_tasks_alone(level, key) -> None:
    with pytest.raises(OutOfRangeError):
        with_factor(KITCHEN, figure="minutes", level=level, key=key, factor=1.2)


def test_every_kind_is_of_tasks_with_hands() -> None:
    found = {t.kind: t for make in (slipway_smash, keepers_loaf) for t in _tasks(make()).values() if t.kind}
    assert {"shape", "build", "mix", "plate"} <= set(found) <= set(TASK_KINDS)
    assert all(t.hands for t in found.values())
