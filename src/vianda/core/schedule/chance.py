"""What chance does to a plan: how often it is on time, how long a task may slip, and what binds each start."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.schedule.model import Absence, Plan, Problem, Slot, Task, change_min
from vianda.core.schedule.solve import Z_HIGH, joined, planned_min

Array = NDArray[np.float64]
# Evenings that are drawn; a guest waits so long without calling it late; a busy evening makes all hands slow. Ours.
DRAWS, LATE_FROM_MIN, TOGETHER, SEED = 1000, 5.0, 0.3, 7
# Planned so that it is on time on this share of drawn evenings, and on nine of ten for sure. Ours.
WANTED_FRAC = 0.93
# Nearer than this a step follows what comes before it and not the clock.
FOLLOWS_MIN, MOST_SLIP_MIN = 10, 60


@dataclass(frozen=True, slots=True)
class Arc:
    """One task waits for another, so many minutes at least: because of what is done, a cook, or a place."""

    before: str
    after: str
    least_min: int
    because: str
    resource: str = ""


@dataclass(frozen=True, slots=True)
class Chances:
    """How often it is served on time, 0–1; how late in one of ten evenings, min; how long food waits hot on average.

    ``float_min`` is how long each task may slip until serving is late; ``breaks_min`` until a limit is broken. None is
    more than an hour.
    """

    on_time_frac: float
    tenth_late_min: float
    waits_hot_min: float
    float_min: Mapping[str, int | None]
    breaks_min: Mapping[str, int | None]


def arcs_of(problem: Problem, plan: Plan) -> tuple[Arc, ...]:
    """Everything that a task has to wait for in a plan.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        The plan, which says who stands where.

    Returns
    -------
    tuple[Arc, ...]
        Lags first, then cooks and places in the order in which they are used.
    """
    task = {t.key: t for t in problem.tasks}
    found = [Arc(lag.before, lag.after, lag.least_min, "lag") for lag in problem.lags]
    by_cook: dict[int, list[Slot]] = {}
    by_place: dict[tuple[str, int], list[Slot]] = {}
    for slot in plan.slots:
        if slot.cook is not None:
            by_cook.setdefault(slot.cook, []).append(slot)
        for place in slot.places:
            by_place.setdefault(place, []).append(slot)
    for slots in by_cook.values():
        found += [Arc(a.task, b.task, 0, "cook") for a, b in pairwise(slots)]
    for (key, _), slots in by_place.items():
        for a, b in pairwise(slots):
            change = change_min(task[a.task].oven_c or 0.0, task[b.task].oven_c or 0.0) if task[a.task].oven_c else 0
            found.append(Arc(a.task, b.task, change, "place", key))
    return tuple(found)


def drawn_min(tasks: Sequence[Task], *, draws: int, seed: int = SEED) -> Array:
    """Minutes that tasks take on so many evenings.

    Parameters
    ----------
    tasks : Sequence[Task]
        Tasks with their ranges.
    draws : int
        Evenings (count).
    seed : int, default SEED
        Number of the seed (count): the same one draws the same evenings.

    Returns
    -------
    Array
        Minutes, evenings × tasks.

    References
    ----------
    Two-piece lognormal through the tenth, fiftieth and ninetieth of a hundred; tasks at which a cook stands share 0.3
    of their luck: ours.
    """
    rng = np.random.default_rng(seed)
    own = rng.standard_normal((draws, len(tasks)))
    shared = rng.standard_normal((draws, 1))
    hands = np.array([t.hands for t in tasks])
    luck = np.where(hands, math.sqrt(TOGETHER) * shared + math.sqrt(1.0 - TOGETHER) * own, own)
    usual = np.array([max(t.usual_min, 1e-6) for t in tasks])
    low = np.array([min(max(t.low_min, 1e-6), u) for t, u in zip(tasks, usual, strict=True)])
    high = np.array([max(t.high_min, u) for t, u in zip(tasks, usual, strict=True)])
    spread = np.where(luck < 0.0, np.log(usual / low), np.log(high / usual)) / Z_HIGH
    return np.asarray(usual * np.exp(spread * luck))


def _order(problem: Problem, arcs: Sequence[Arc]) -> list[str]:
    """Tasks so that each comes after all it waits for."""
    waits: dict[str, set[str]] = {t.key: set() for t in problem.tasks}
    for arc in arcs:
        waits[arc.after].add(arc.before)
    order: list[str] = []
    while waits:
        ready = sorted(key for key, before in waits.items() if not before & waits.keys())
        if not ready:
            raise OutOfRangeError("Tasks wait for each other in a ring.", field="/lags")
        order += ready
        for key in ready:
            del waits[key]
    return order


def evenings(problem: Problem, plan: Plan, minutes: Array, *, slip: Array | None = None) -> tuple[Array, Array]:
    """Starts and ends of every task on many evenings.

    A task begins when it is planned, or when what it waits for is done, whichever is later. One that has to follow
    closely begins as soon as it can.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        The plan.
    minutes : Array
        Minutes that tasks take, evenings × tasks, in the problem's order.
    slip : Array | None, default None
        Minutes by which each start is put off, of the same shape.

    Returns
    -------
    tuple[Array, Array]
        Starts and ends, minutes from serving, evenings × tasks.
    """
    arcs = arcs_of(problem, plan)
    at = {t.key: n for n, t in enumerate(problem.tasks)}
    slot = {s.task: s for s in plan.slots}
    follows = {
        lag.after
        for lag in problem.lags
        if lag.most_min is not None and lag.most_min - lag.least_min <= FOLLOWS_MIN and lag.after not in problem.pinned
    }
    into: dict[str, list[Arc]] = {t.key: [] for t in problem.tasks}
    for arc in arcs:
        into[arc.after].append(arc)
    away: dict[int | None, list[Absence]] = {}
    for one in joined(problem.away):
        away.setdefault(one.cook, []).append(one)
    starts, ends = np.empty_like(minutes), np.empty_like(minutes)
    for key in _order(problem, arcs):
        n = at[key]
        begin = np.full(len(minutes), float("-inf") if key in follows else float(slot[key].start_min))
        for arc in into[key]:
            begin = np.maximum(begin, ends[:, at[arc.before]] + arc.least_min)
        if slip is not None:
            begin = begin + slip[:, n]
        for absence in away.get(slot[key].cook, ()):
            # Whoever is gone begins when they are back; what was begun is ended first.
            begin = np.where((begin >= absence.from_min) & (begin < absence.to_min), absence.to_min, begin)
        starts[:, n] = begin
        ends[:, n] = begin + minutes[:, n]
    return starts, ends


def chances(problem: Problem, plan: Plan, *, draws: int = DRAWS) -> Chances:
    """How a plan fares when tasks take as long as they do.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        The plan.
    draws : int, default DRAWS
        Evenings that are drawn (count).

    Returns
    -------
    Chances
        Shares of evenings, and how far each task may slip.
    """
    at = {t.key: n for n, t in enumerate(problem.tasks)}
    starts, ends = evenings(problem, plan, drawn_min(problem.tasks, draws=draws))
    served = ends[:, at[problem.last]]
    hot = [lag for lag in problem.lags if lag.hot]
    waits = sum((starts[:, at[x.after]] - ends[:, at[x.before]] for x in hot), start=np.zeros(len(starts)))
    # What is served before the hour waits until it.
    waits = (waits + np.maximum(0.0, plan.late_min - served)) / max(1, len(hot) + 1)
    late = served - plan.late_min
    floats, breaks = _floats(problem, plan)
    return Chances(
        float(np.mean(late <= LATE_FROM_MIN)),
        float(max(0.0, np.quantile(late, 0.9))),
        float(np.mean(waits)),
        floats,
        breaks,
    )


def _floats(problem: Problem, plan: Plan) -> tuple[dict[str, int | None], dict[str, int | None]]:
    """Each task put off by a minute, two, up to an hour, all else as planned: one run for all of them."""
    tasks, count = problem.tasks, len(problem.tasks)
    at = {t.key: n for n, t in enumerate(tasks)}
    planned = np.array([float(planned_min(t)) for t in tasks])
    rows = count * MOST_SLIP_MIN
    slip = np.zeros((rows, count))
    for n in range(count):
        slip[n * MOST_SLIP_MIN : (n + 1) * MOST_SLIP_MIN, n] = np.arange(1, MOST_SLIP_MIN + 1)
    starts, ends = evenings(problem, plan, np.tile(planned, (rows, 1)), slip=slip)
    late = ends[:, at[problem.last]] > plan.late_min + 1e-9
    over = np.zeros(rows, dtype=bool)
    for lag in problem.lags:
        if lag.most_min is not None:
            over |= starts[:, at[lag.after]] - ends[:, at[lag.before]] > lag.most_min + 1e-9

    def first(marks: NDArray[np.bool_]) -> dict[str, int | None]:
        found: dict[str, int | None] = {}
        for n, task in enumerate(tasks):
            mine = marks[n * MOST_SLIP_MIN : (n + 1) * MOST_SLIP_MIN]
            found[task.key] = int(np.argmax(mine)) if mine.any() else None
        return found

    return first(late), first(over)
