"""A plan that is late, or none at all: the smallest things that would make it possible, each tried."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from vianda.core.schedule.model import MOST_COOKS, Plan, Problem, Resource, UnsettledError
from vianda.core.schedule.solve import Solver, solve

ReliefKind = Literal["later", "earlier", "cook", "place", "unpin", "stay"]


@dataclass(frozen=True, slots=True)
class Relief:
    """One thing that helps: of which resource, task or cook, by how many minutes, and how late it still is."""

    kind: ReliefKind
    what: str
    minutes: int
    late_min: int


def _tried_once(problem: Problem, solver: Solver) -> Plan | None:
    """How late it is at least; what is not settled in time is not offered as help."""
    try:
        return solver(problem, goals=1)
    except UnsettledError:
        return None


def reliefs(problem: Problem, *, solver: Solver = solve) -> tuple[Relief, ...]:
    """What would make a late or impossible timetable possible, the most helpful first.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    solver : Solver
        Who looks for plans.

    Returns
    -------
    tuple[Relief, ...]
        Only what really helps: each was solved. Empty for a plan that is on time.
    """
    now = _tried_once(problem, solver)
    if now is not None and now.late_min == 0:
        return ()
    late = None if now is None else now.late_min
    found = []
    if late:
        found.append(Relief("later", "", late, 0))
        found += _earlier(problem, late, solver)
    for relief, changed in _tried(problem):
        plan = _tried_once(changed, solver)
        if plan is not None and (late is None or plan.late_min < late):
            found.append(replace(relief, late_min=plan.late_min))
    order = {"unpin": 0, "stay": 1, "place": 2, "cook": 3, "earlier": 4, "later": 5}
    return tuple(sorted(found, key=lambda r: (r.late_min, order[r.kind], r.what)))


def _tried(problem: Problem) -> Iterator[tuple[Relief, Problem]]:
    for key in problem.pinned:
        rest = {k: v for k, v in problem.pinned.items() if k != key}
        yield Relief("unpin", key, 0, 0), replace(problem, pinned=rest)
    if len(problem.pinned) > 1:
        yield Relief("unpin", "", 0, 0), replace(problem, pinned={})
    for cook in sorted({a.cook for a in problem.away}):
        there = tuple(a for a in problem.away if a.cook != cook)
        yield Relief("stay", str(cook), 0, 0), replace(problem, away=there)
    if problem.cooks < MOST_COOKS:
        yield Relief("cook", "", 0, 0), replace(problem, cooks=problem.cooks + 1)
    for n, resource in enumerate(problem.resources):
        more = Resource(resource.key, resource.title, resource.places + 1)
        changed = (*problem.resources[:n], more, *problem.resources[n + 1 :])
        yield Relief("place", resource.key, 0, 0), replace(problem, resources=changed)


def _earlier(problem: Problem, late: int, solver: Solver) -> list[Relief]:
    """How much earlier the kitchen would have to open: the least that serves on time, by halving."""
    if problem.opens_min is None:
        return []

    def on_time(by: int) -> bool:
        assert problem.opens_min is not None
        plan = _tried_once(replace(problem, opens_min=problem.opens_min - by), solver)
        return plan is not None and plan.late_min == 0

    low, high = 0, late
    while not on_time(high):
        low, high = high, 2 * high
        if high > 1440:
            return []
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if on_time(middle) else (middle, high)
    return [Relief("earlier", "", high, 0)]
