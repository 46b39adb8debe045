"""Three ways to plan an evening, on evenings that none of them has seen: ours is on time and lets food wait least.

The seventy-fifth of a hundred minutes with a cushion chosen by simulation, against the ninetieth of everything, and
against usual minutes with a cushion chosen on other drawn evenings.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.demo.formulas import (
    beacon_grill,
    harbour_light_pub,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.model.formula import Formula, Timing
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.chance import LATE_FROM_MIN, drawn_min, evenings
from vianda.core.schedule.model import Plan, Problem
from vianda.core.schedule.solve import solve
from vianda.core.timetable.sheet import LAST, Dish
from vianda.core.timetable.tasks import tasks_together
from vianda.core.timetable.timetable import CUSHIONS_MIN, timetable_together

# Evenings of another seed than any plan was chosen by.
HIDDEN, DRAWS = 20261129, 4000


def _for(make: Callable[[], Formula], guests: int) -> Formula:
    formula = make()
    return replace(formula, dish=replace(formula.dish, guests=guests)) if guests else formula


Part = tuple[Callable[[], Formula], int]
EVENINGS: dict[str, tuple[tuple[Part, ...], int]] = {
    "smash": (((slipway_smash, 0),), 1),
    "grill": (((beacon_grill, 0),), 1),
    "pub": (((harbour_light_pub, 0),), 1),
    "loaf": (((keepers_loaf, 0),), 1),
    "balls": (((night_watch_balls, 0),), 1),
    "ragu": (((supply_boat_ragu, 0),), 1),
    "burger night for 40": (((slipway_smash, 40),), 2),
    "loaf and balls": (((keepers_loaf, 0), (night_watch_balls, 12)), 2),
    "loaf, balls and burgers": (((keepers_loaf, 0), (night_watch_balls, 0), (slipway_smash, 0)), 2),
    "pot and grill": (((supply_boat_ragu, 0), (beacon_grill, 0)), 2),
}


def _dishes(parts: tuple[Part, ...]) -> list[Dish]:
    return [
        Dish(f"f{n}-", make.__name__, compute(_for(make, guests), inventory=INVENTORY, kitchen=KITCHEN))
        for n, (make, guests) in enumerate(parts)
    ]


def _fared(problem: Problem, plan: Plan, seed: int = HIDDEN, draws: int = DRAWS) -> tuple[float, float]:
    """Share of evenings on time, and minutes hot food waits on average."""
    at = {t.key: n for n, t in enumerate(problem.tasks)}
    starts, ends = evenings(problem, plan, drawn_min(problem.tasks, draws=draws, seed=seed))
    served = ends[:, at[LAST]]
    hot = [lag for lag in problem.lags if lag.hot]
    waits = sum((starts[:, at[x.after]] - ends[:, at[x.before]] for x in hot), start=np.zeros(draws))
    waits = (waits + np.maximum(0.0, -served)) / max(1, len(hot) + 1)
    return float(np.mean(served <= LATE_FROM_MIN)), float(np.mean(waits))


def _all_ninetieth(problem: Problem) -> Plan | None:
    slow = tuple(replace(t, usual_min=max(t.usual_min, t.high_min)) for t in problem.tasks)
    return solve(replace(problem, tasks=slow))


def _sampled(problem: Problem) -> Plan | None:
    """Usual minutes, and the least cushion that served on time often enough on some hundred drawn evenings."""
    usual = replace(problem, tasks=tuple(replace(t, high_min=t.usual_min) for t in problem.tasks))
    for cushion in CUSHIONS_MIN:
        plan = solve(usual, cushion_min=cushion)
        if plan is not None and _fared(problem, plan, seed=1, draws=600)[0] >= 0.93:
            return plan
    return None


@pytest.mark.parametrize("name", sorted(EVENINGS))
def test_ours_is_on_time_and_food_waits_hardly_longer_than_by_the_best(name: str) -> None:
    parts, cooks = EVENINGS[name]
    dishes, timing = _dishes(parts), Timing(cooks=cooks)
    problem = tasks_together(dishes, timing=timing)
    table = timetable_together(dishes, timing=timing)
    ours = solve(problem, cushion_min=table.cushion_min)
    assert ours is not None
    on_time, waits = _fared(problem, ours)
    assert on_time >= 0.90
    others = [_fared(problem, plan) for plan in (_all_ninetieth(problem), _sampled(problem)) if plan is not None]
    # One that is late more often does not count, however short the food waits.
    best = min([waits, *(w for share, w in others if share >= 0.90)])
    assert waits <= 1.2 * best
