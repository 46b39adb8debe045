"""A timetable under way: what happened so far, when the plate is now, what gives, and what moves."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.formula import Timing
from vianda.core.reading.clock import clock_text
from vianda.core.schedule.chance import chances
from vianda.core.schedule.model import Plan, Problem, Slot, Task
from vianda.core.schedule.replan import Progress, Replan, replan
from vianda.core.schedule.solve import Solver, solve
from vianda.core.timetable.on_clock import Lane, TimedTask, lanes_of, timed_task, timed_tasks
from vianda.core.timetable.remarks import named
from vianda.core.timetable.sheet import LAST, Dish
from vianda.core.timetable.tasks import tasks_together

MOST_SWAPS = 3


@dataclass(frozen=True, slots=True)
class MovedTask:
    """A task that begins at another hour than planned last."""

    key: str
    title: Phrase
    dish: str
    was: str
    now: str
    later_min: int


@dataclass(frozen=True, slots=True)
class Underway:
    """The rest of a timetable from now on.

    ``gives`` says what gives, the most important first: another order, food that waits longer than it should, hot food
    that waits longer than planned. ``on_time_frac`` is the share of drawn evenings on which it is on the plate at most
    five minutes after ``served``.
    """

    now: str
    ready: str
    served: str
    late_min: int
    on_time_frac: float
    says: Phrase
    gives: tuple[Phrase, ...]
    moved: tuple[MovedTask, ...]
    tasks: tuple[TimedTask, ...]
    lanes: tuple[Lane, ...]


def underway(
    dishes: Sequence[Dish], *, timing: Timing, stood: Mapping[str, Slot], progress: Progress, solver: Solver = solve
) -> Underway:
    """The rest of a timetable, planned from now on.

    Parameters
    ----------
    dishes : Sequence[Dish]
        One or more, computed for the same kitchen.
    timing : Timing
        The hour, the cooks and own tasks. Pins no longer count: what is not begun moves where it must.
    stood : Mapping[str, Slot]
        When each task was to be done last; empty for the plan that was never changed.
    progress : Progress
        What happened, and what time it is.
    solver : Solver
        Who looks for plans.

    Returns
    -------
    Underway
        What is done stands, what runs goes on, the rest moves as little as it can.

    Raises
    ------
    OutOfRangeError
        When what is said of a task cannot be.

    References
    ----------
    ``schedule.replan``.
    """
    problem = tasks_together(dishes, timing=timing)
    if not stood:
        plan = solver(problem)
        stood = {s.task: s for s in plan.slots} if plan else {}
    elif LAST not in stood:
        # Serving is no task of the picture: it was to be at its hour.
        stood = {**stood, LAST: Slot(LAST, -1, 0, None, ())}
    found = replan(problem, stood, progress, solver=solver)
    rest = Plan(
        tuple(s for s in found.plan.slots if s.task not in progress.done), found.plan.late_min, found.plan.proved
    )
    chance = chances(found.left, rest)
    timed = timed_tasks(found.left, rest, chance, ready_min=timing.ready_min, running=progress.running)
    late = found.plan.late_min
    served = clock_text(timing.ready_min + late)
    said = say("Still on the plate at {at}.", at=ph.word(served))
    if late > 0:
        said = say("On the plate at {at}: {late} late.", at=ph.word(served), late=ph.minutes(float(late)))
    task = {t.key: t for t in problem.tasks}
    return Underway(
        now=clock_text(timing.ready_min + progress.now_min),
        ready=clock_text(timing.ready_min),
        served=served,
        late_min=late,
        on_time_frac=chance.on_time_frac,
        says=said,
        gives=tuple(_gives(problem, found, stood, task, progress)),
        moved=tuple(
            MovedTask(
                m.task,
                task[m.task].title,
                task[m.task].dish,
                clock_text(timing.ready_min + m.from_min),
                clock_text(timing.ready_min + m.to_min),
                m.to_min - m.from_min,
            )
            for m in found.moved
            if m.task != LAST
        ),
        tasks=(*_done(problem, found.plan, progress, timing.ready_min), *timed),
        lanes=lanes_of(problem, found.plan),
    )


def _done(problem: Problem, plan: Plan, progress: Progress, ready_min: int) -> Iterator[TimedTask]:
    """What is done, as it was; the one that began first comes first."""
    task = {t.key: t for t in problem.tasks}
    for slot in plan.slots:
        if slot.task not in progress.done:
            continue
        yield timed_task(task[slot.task], slot, ready_min=ready_min, why=say("Done."), slip=say("Done."), status="done")


def _gives(
    problem: Problem, found: Replan, stood: Mapping[str, Slot], task: Mapping[str, Task], progress: Progress
) -> Iterator[Phrase]:
    for first, then in found.swapped[:MOST_SWAPS]:
        yield say("First “{first}”, then “{then}”.", first=_who(task[first]), then=_who(task[then]))
    over = set()
    for x in found.overruns:
        over.add((x.before, x.after))
        yield say(
            "“{after}” comes {wait} after “{before}”; at most {most} is good.",
            after=_who(task[x.after]),
            before=_who(task[x.before]),
            wait=ph.minutes(float(x.most_min + x.over_min)),
            most=ph.minutes(float(x.most_min)),
        )
    now = {s.task: s for s in found.plan.slots}
    for lag in problem.lags:
        if (
            not lag.hot
            or (lag.before, lag.after) in over
            or lag.after in progress.done
            or lag.after in progress.running
        ):
            continue
        if lag.before not in stood or lag.after not in stood:
            continue
        before = stood[lag.after].start_min - stood[lag.before].end_min
        longer = now[lag.after].start_min - now[lag.before].end_min - before
        if longer > 0:
            yield say(
                "After “{before}” it waits hot {n} longer.", before=_who(task[lag.before]), n=ph.minutes(float(longer))
            )


def _who(task: Task) -> ph.Amount:
    """A task in a sentence, with its dish where there are several."""
    name = named(task)
    return ph.word(f"{name.text}, {task.dish}") if task.dish else name
