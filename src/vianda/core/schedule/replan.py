"""A plan mended from now on: what is done stands, what runs goes on, and the rest moves as little as it can."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.schedule.assign import assigned
from vianda.core.schedule.model import EARLIEST_MIN, LATEST_MIN, Absence, Lag, Plan, Problem, Slot, Task
from vianda.core.schedule.solve import Solver, planned_min, solve


@dataclass(frozen=True, slots=True)
class Progress:
    """What has happened so far, minutes from the hour on the plate.

    ``done``: when a task began and ended. ``running``: when it began. ``still`` is how many minutes from now a running
    task still takes, where the cook says; else it takes as long as was planned, and a minute at least.
    """

    now_min: int
    done: Mapping[str, tuple[int, int]] = field(default_factory=dict)
    running: Mapping[str, int] = field(default_factory=dict)
    still: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Overrun:
    """A limit that gives: the wait between two tasks is ``over_min`` longer than the ``most_min`` it may be."""

    before: str
    after: str
    most_min: int
    over_min: int


@dataclass(frozen=True, slots=True)
class Moved:
    """A task that begins at another minute than planned."""

    task: str
    from_min: int
    to_min: int


@dataclass(frozen=True, slots=True)
class Replan:
    """The mended plan with what is done in it, what of the problem is left, and all that gives."""

    plan: Plan
    left: Problem
    moved: tuple[Moved, ...]
    overruns: tuple[Overrun, ...]
    # Pairs of tasks at one place or one pair of hands that change their order: the first now comes before the second.
    swapped: tuple[tuple[str, str], ...]


def replan(problem: Problem, stood: Mapping[str, Slot], progress: Progress, *, solver: Solver = solve) -> Replan:
    """The rest of a plan from now on.

    Parameters
    ----------
    problem : Problem
        What was planned.
    stood : Mapping[str, Slot]
        When each was to be done last, by whom and where; a task that is missing is new.
    progress : Progress
        What happened, and what time it is.
    solver : Solver
        Who looks for plans.

    Returns
    -------
    Replan
        Limits are overrun least, then it is late least, then as little as possible is moved.

    Raises
    ------
    OutOfRangeError
        When something is said of a task that is not there, or both begun after now and done, or all is served already.

    References
    ----------
    Least disruption: minutes moved and five for each task that moves, so that no single task pays for all. Ours, by
    trying: counting moves alone moved one task by a hundred minutes.
    """
    _check(problem, progress)
    left = remaining(problem, stood, progress)
    found = solver(left)
    if found is None:
        raise OutOfRangeError("What is under way leaves no room for the rest within half a day.", field="/now_min")
    starts = {s.task: s.start_min for s in found.slots}
    lengths = {s.task: s.end_min - s.start_min for s in found.slots}
    # Where somebody comes and goes, whose each task is was looked for with its start.
    cooks = {s.task: s.cook for s in found.slots if s.cook is not None} if left.away else None
    slots = {s.task: s for s in assigned(left, starts, lengths, was=stood, cooks=cooks)}
    for key, (begun, ended) in progress.done.items():
        there = stood.get(key)
        slots[key] = Slot(key, begun, ended, there.cook if there else None, there.places if there else ())
    mended = Plan(tuple(sorted(slots.values(), key=lambda s: (s.start_min, s.task))), found.late_min, found.proved)
    return Replan(
        mended,
        left,
        tuple(
            Moved(s.task, stood[s.task].start_min, s.start_min)
            for s in mended.slots
            if s.task not in progress.done and s.task not in progress.running
            if s.task in stood and s.start_min != stood[s.task].start_min
        ),
        tuple(_overruns(problem, slots, progress)),
        tuple(_swapped(left, stood, slots, progress)),
    )


def _check(problem: Problem, progress: Progress) -> None:
    known = {t.key for t in problem.tasks}
    if not {*progress.done, *progress.running, *progress.still} <= known:
        raise OutOfRangeError("A task is named that is not in this timetable.", field="/marks")
    if problem.last in progress.done:
        raise OutOfRangeError("It is on the plate: nothing is left to plan.", field="/marks")
    if progress.done.keys() & progress.running.keys():
        raise OutOfRangeError("A task is either under way or done.", field="/marks")
    if not EARLIEST_MIN <= progress.now_min <= LATEST_MIN:
        raise OutOfRangeError(
            "It is too long before or after the hour on the plate to plan from now.", field="/now_min"
        )
    ends = [end for _, end in progress.done.values()]
    if any(x > progress.now_min for x in (*progress.running.values(), *ends)):
        raise OutOfRangeError("A task is said to have begun or ended after now.", field="/marks")
    if any(begun > end for begun, end in progress.done.values()):
        raise OutOfRangeError("A task is said to have ended before it began.", field="/marks")
    if any(minutes < 0 or minutes > LATEST_MIN for minutes in progress.still.values()):
        raise OutOfRangeError("A task still takes from no time to half a day.", field="/marks")


def remaining(problem: Problem, stood: Mapping[str, Slot], progress: Progress) -> Problem:
    """What is left to plan: without what is done, with what runs where it stands, nothing before now.

    Parameters
    ----------
    problem : Problem
        What was planned.
    stood : Mapping[str, Slot]
        When each was to be done last.
    progress : Progress
        What happened, and what time it is.

    Returns
    -------
    Problem
        Its limits from what is done are bounds of starts. What runs has a fixed length; of two that run where there is
        room for one, the one that ends last holds the place.
    """
    now, done, running = progress.now_min, progress.done, progress.running
    tasks = [_running(t, progress) if t.key in running else t for t in problem.tasks if t.key not in done]
    earliest = {t.key: now for t in tasks if t.key not in running}
    latest: dict[str, int] = {}
    lags: list[Lag] = []
    for lag in problem.lags:
        if lag.after in done or lag.after in running:
            continue
        if lag.before in done:
            end = done[lag.before][1]
            earliest[lag.after] = max(earliest[lag.after], end + lag.least_min)
            if lag.most_min is not None:
                latest[lag.after] = min(latest.get(lag.after, LATEST_MIN), end + lag.most_min)
        else:
            lags.append(lag)
    held = _room(tasks, problem, running)
    return replace(
        problem,
        tasks=tuple(held),
        lags=tuple(lags),
        opens_min=None,
        pinned=dict(running),
        earliest=earliest,
        latest=latest,
        near={key: stood[key].start_min for key in earliest if key in stood},
        away=tuple(_away(held, problem, running)),
    )


def _away(tasks: Iterable[Task], problem: Problem, running: Mapping[str, int]) -> Iterable[Absence]:
    """Who is away; while something runs that hands are at, nobody goes: it is ended first."""
    ends = [running[t.key] + math.ceil(t.usual_min) for t in tasks if t.hands and t.key in running]
    free = max(ends, default=EARLIEST_MIN)
    return (replace(a, from_min=max(a.from_min, free)) for a in problem.away if a.to_min > free)


def _running(task: Task, progress: Progress) -> Task:
    begun = progress.running[task.key]
    planned = begun + planned_min(task)
    ends = progress.now_min + progress.still[task.key] if task.key in progress.still else planned
    length = float(max(ends, progress.now_min + 1) - begun)
    return replace(task, low_min=length, usual_min=length, high_min=length)


def _room(tasks: Iterable[Task], problem: Problem, running: Mapping[str, int]) -> list[Task]:
    """What runs at once holds no more hands and places than there are."""
    tasks = list(tasks)
    under_way = [t for t in tasks if t.key in running]
    under_way.sort(key=lambda t: (-(running[t.key] + t.usual_min), t.key))
    free = {r.key: r.places for r in problem.resources}
    cooks = problem.cooks
    held: dict[str, Task] = {}
    for task in under_way:
        hands = task.hands and cooks > 0
        cooks -= hands
        needs = tuple(key for key in task.needs if free[key] > 0)
        for key in needs:
            free[key] -= 1
        held[task.key] = replace(task, hands=hands, needs=needs, oven_c=task.oven_c if needs == task.needs else None)
    return [held.get(t.key, t) for t in tasks]


def _overruns(problem: Problem, slots: Mapping[str, Slot], progress: Progress) -> Iterable[Overrun]:
    for lag in problem.lags:
        if lag.most_min is None or lag.after in progress.done or lag.after in progress.running:
            continue
        over = slots[lag.after].start_min - slots[lag.before].end_min - lag.most_min
        if over > 0:
            yield Overrun(lag.before, lag.after, lag.most_min, over)


def _swapped(
    left: Problem, was: Mapping[str, Slot], slots: Mapping[str, Slot], progress: Progress
) -> Iterable[tuple[str, str]]:
    waiting = [t for t in left.tasks if t.key not in progress.running and t.key in was]
    for n, a in enumerate(waiting):
        for b in waiting[n + 1 :]:
            if not (set(a.needs) & set(b.needs) or (a.hands and b.hands and left.cooks == 1)):
                continue
            before = was[a.key].end_min <= was[b.key].start_min, was[b.key].end_min <= was[a.key].start_min
            now = slots[a.key].end_min <= slots[b.key].start_min, slots[b.key].end_min <= slots[a.key].start_min
            if before == (True, False) and now == (False, True):
                yield b.key, a.key
            elif before == (False, True) and now == (True, False):
                yield a.key, b.key
