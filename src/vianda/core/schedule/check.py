"""A plan walked through minute by minute, by somebody who knows nothing of how it was found."""

from __future__ import annotations

from vianda.core.schedule.model import Plan, Problem, change_min


def broken(problem: Problem, plan: Plan) -> list[str]:
    """What a plan breaks, in words for whoever mends the solver.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        The plan.

    Returns
    -------
    list[str]
        Empty for a plan that keeps everything.
    """
    slot = {s.task: s for s in plan.slots}
    found = [f"{t.key} is not in it" for t in problem.tasks if t.key not in slot]
    if found:
        return found
    for lag in problem.lags:
        gap = slot[lag.after].start_min - slot[lag.before].end_min
        # Where a plan is mended its limits may be overrun; by how much is told apart.
        long = lag.most_min is not None and gap > lag.most_min and problem.near is None
        if gap < lag.least_min or long:
            found.append(f"{lag.before} to {lag.after}: {gap} min")
    for task in problem.tasks:
        mine = slot[task.key]
        if problem.pinned.get(task.key, mine.start_min) != mine.start_min:
            found.append(f"{task.key} is not where it was pinned")
        bound = task.when == "today" and problem.opens_min is not None and task.key not in problem.pinned
        if bound and mine.start_min < (problem.opens_min or 0):
            found.append(f"{task.key} begins before the kitchen opens")
        if task.key not in problem.pinned and mine.start_min < problem.earliest.get(task.key, mine.start_min):
            found.append(f"{task.key} begins before it can")
        if problem.near is None and mine.start_min > problem.latest.get(task.key, mine.start_min):
            found.append(f"{task.key} begins later than it may")
        if task.hands != (mine.cook is not None):
            found.append(f"{task.key}: hands")
        if any(a.cook == mine.cook and mine.start_min < a.to_min and a.from_min < mine.end_min for a in problem.away):
            found.append(f"{task.key} is done by somebody who is away")
    if slot[problem.last].end_min > plan.late_min:
        found.append("served later than said")
    return found + _crowded(problem, plan) + _ovens(problem, plan)


def _crowded(problem: Problem, plan: Plan) -> list[str]:
    """Minute by minute: who is where."""
    found = []
    tasks = {t.key: t for t in problem.tasks}
    places = {r.key: r.places for r in problem.resources}
    marks = sorted({m for s in plan.slots for m in (s.start_min, s.end_min)})
    for minute in marks:
        now = [s for s in plan.slots if s.start_min <= minute < s.end_min]
        cooks = [s.cook for s in now if s.cook is not None]
        if len(set(cooks)) != len(cooks) or len(cooks) > problem.cooks:
            found.append(f"a cook stands twice at {minute}")
        held = [place for s in now for place in s.places]
        if len(set(held)) != len(held):
            found.append(f"a place is taken twice at {minute}")
        for key, most in places.items():
            if sum(key in tasks[s.task].needs for s in now) > most:
                found.append(f"{key} is too full at {minute}")
    return found


def _ovens(problem: Problem, plan: Plan) -> list[str]:
    found = []
    tasks = {t.key: t for t in problem.tasks}
    for key in [r.key for r in problem.resources]:
        baked = [s for s in plan.slots if key in tasks[s.task].needs and tasks[s.task].oven_c is not None]
        baked.sort(key=lambda s: s.start_min)
        for n, a in enumerate(baked):
            for b in baked[n + 1 :]:
                before, after = tasks[a.task].oven_c, tasks[b.task].oven_c
                change = change_min(before or 0.0, after or 0.0)
                if change and b.start_min < a.end_min + change:
                    found.append(f"{a.task} and {b.task} want two heats of {key}")
    return found
