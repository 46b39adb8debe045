"""A timetable under way: what gives is said in words, and what was not told of before is planned all the same."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.model.formula import Pin, Timing
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.model import Slot
from vianda.core.schedule.replan import Progress
from vianda.core.schedule.solve import solve
from vianda.core.timetable.sheet import LAST, Dish
from vianda.core.timetable.tasks import tasks_together
from vianda.core.timetable.underway import Underway, underway

TIMING = Timing(cooks=2)
DISHES = tuple(
    Dish(prefix, name, compute(make(), inventory=INVENTORY, kitchen=KITCHEN))
    for prefix, name, make in (("l-", "Loaf", keepers_loaf), ("s-", "Smash", slipway_smash))
)


@pytest.fixture(scope="module")
def stood() -> dict[str, Slot]:
    plan = solve(tasks_together(DISHES, timing=TIMING), cushion_min=7)
    assert plan is not None
    return {s.task: s for s in plan.slots if s.task != LAST}


def _so_far(stood: dict[str, Slot], now: int, *, idle: tuple[str, ...] = ()) -> Progress:
    """As planned until now, but for what nobody has begun and all that comes after it."""
    done, running = {}, {}
    for key, slot in stood.items():
        if key in idle:
            continue
        if slot.end_min <= now:
            done[key] = (slot.start_min, slot.end_min)
        elif slot.start_min < now:
            running[key] = slot.start_min
    return Progress(now, done, running)


def _says(found: Underway) -> str:
    words = []
    for text in found.gives:
        amounts = {k: a.text if a.text is not None else f"{a.value:.0f}" for k, a in text.amounts.items()}
        words.append(text.text.format(**amounts))
    return " | ".join(words)


def test_an_evening_as_planned_gives_nothing(stood: dict[str, Slot]) -> None:
    for now in (-300, -90, -30):
        found = underway(DISHES, timing=TIMING, stood=stood, progress=_so_far(stood, now))
        assert (found.late_min, found.gives, found.moved) == (0, (), ())
        assert found.says.text.startswith("Still on the plate")
        assert {t.key for t in found.tasks} == stood.keys()


def test_a_loaf_that_is_done_waits_for_a_plate_that_is_not(stood: dict[str, Slot]) -> None:
    plate = stood["s-preheat"]
    now = plate.start_min + 25
    after = tuple(k for k in stood if k.startswith(("s-preheat", "s-wave", "s-build", "s-toast")))
    found = underway(DISHES, timing=TIMING, stood=stood, progress=_so_far(stood, now, idle=after))
    assert found.late_min > 0
    assert found.served > found.ready
    # The loaf waits hot, or is plated later: either way its dish is named, because two dishes are on.
    assert "Loaf" in _says(found) or any(m.dish == "Loaf" for m in found.moved)
    assert all(m.later_min > 0 for m in found.moved if m.key in after)
    status = {t.key: t.status for t in found.tasks}
    assert status["s-preheat"] == "to-do"
    assert "done" in status.values()


def test_a_pin_no_longer_binds_once_it_is_passed(stood: dict[str, Slot]) -> None:
    key = "s-shape"
    pinned = replace(TIMING, pins=(Pin(key, stood[key].start_min),))
    now = stood[key].start_min + 20
    after = tuple(k for k, s in stood.items() if s.start_min >= stood[key].start_min)
    found = underway(DISHES, timing=pinned, stood=stood, progress=_so_far(stood, now, idle=after))
    shape = next(t for t in found.tasks if t.key == key)
    assert shape.start_min >= now
    assert not shape.pinned


def test_a_task_of_another_service_is_refused(stood: dict[str, Slot]) -> None:
    with pytest.raises(OutOfRangeError, match="not in this timetable"):
        underway(DISHES, timing=TIMING, stood=stood, progress=Progress(-30, {"x-mix": (-60, -50)}))


def test_what_is_begun_days_early_moves_nothing_hot_to_days_before_it_is_eaten() -> None:
    dish = Dish(
        "",
        "Smash",
        compute(
            replace(slipway_smash(), dish=replace(slipway_smash().dish, guests=40)),
            inventory=INVENTORY,
            kitchen=KITCHEN,
        ),
    )
    plan = solve(tasks_together((dish,), timing=TIMING), cushion_min=7)
    assert plan is not None
    stood = {s.task: s for s in plan.slots if s.task != LAST}
    early = -3 * 1440
    progress = Progress(early + 20, {"cut-cubes": (early, early + 15)})
    found = underway((dish,), timing=TIMING, stood=stood, progress=progress)
    hot = [t for t in found.tasks if t.key.startswith(("wave", "build", "toast"))]
    assert hot
    assert all(t.start_min >= -180 for t in hot), [(t.key, t.start_min) for t in hot]
    # That the cubes wait too long is said.
    assert any("at most" in text.text for text in found.gives)
