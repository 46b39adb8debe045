"""A plan on the clock: every task with its hours, who does it and where, what binds it and how far it may slip."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.clock import DAY_MIN, clock_text
from vianda.core.schedule.chance import Arc, Chances, arcs_of
from vianda.core.schedule.model import Plan, Problem, Slot, Task, When
from vianda.core.schedule.solve import joined
from vianda.core.timetable.remarks import named
from vianda.core.timetable.sheet import LAST

# Where a task stands: before it is begun, while a cook is at it, and after.
Status = Literal["to-do", "running", "done"]


@dataclass(frozen=True, slots=True)
class TimedTask:
    """One task on the clock.

    Minutes are from the hour on the plate; ``day`` is 0 on the day itself, −1 on the day before. ``lane`` names what
    it is drawn under: a cook, a place, or what waits by itself. ``float_min`` is how long it may slip until serving is
    late, None for more than an hour; ``critical``: it may not slip at all. ``why`` says what binds its start.
    ``dish`` is whose it is, "" where there is one only. ``status`` is "to-do" until something is said of it.
    """

    key: str
    title: Phrase
    start_min: int
    end_min: int
    starts: str
    ends: str
    day: int
    when: When
    hands: bool
    lanes: tuple[str, ...]
    float_min: int | None
    critical: bool
    why: Phrase
    slip: Phrase
    pinned: bool
    own: bool
    dish: str
    status: Status = "to-do"


@dataclass(frozen=True, slots=True)
class Lane:
    """One row of the picture: a cook, a place of the kitchen, or what waits by itself."""

    key: str
    title: str
    kind: str


@dataclass(frozen=True, slots=True)
class AwayOnClock:
    """A cook who is away: the lane, minutes from the hour on the plate, and the same as the clock shows it."""

    lane: str
    start_min: int
    end_min: int
    starts: str
    ends: str


def away_on_clock(problem: Problem, *, ready_min: int) -> tuple[AwayOnClock, ...]:
    """Who is away, for the picture.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    ready_min : int
        The hour on the plate, minutes from midnight.

    Returns
    -------
    tuple[AwayOnClock, ...]
        By cook and time; what touches is one.
    """
    return tuple(
        AwayOnClock(
            f"cook-{a.cook}", a.from_min, a.to_min, clock_text(ready_min + a.from_min), clock_text(ready_min + a.to_min)
        )
        for a in joined(problem.away)
    )


def timed_task(
    task: Task,
    slot: Slot,
    *,
    ready_min: int,
    why: Phrase,
    slip: Phrase,
    float_min: int | None = None,
    pinned: bool = False,
    status: Status = "to-do",
) -> TimedTask:
    """One task on the clock.

    Parameters
    ----------
    task : Task
        The task.
    slot : Slot
        When it is done, by whom and where.
    ready_min : int
        The hour on the plate, minutes from midnight.
    why : Phrase
        What binds its start.
    slip : Phrase
        How far it may slip, in words.
    float_min : int | None, default None
        How far it may slip until the plate is late, min; None for more than an hour.
    pinned : bool, default False
        Whether it begins when the cook said.
    status : Status, default "to-do"
        Where it stands.

    Returns
    -------
    TimedTask
        The task with its hours, its lanes and its words.
    """
    lanes = tuple(f"{key}-{n}" for key, n in slot.places)
    if slot.cook is not None:
        lanes = (f"cook-{slot.cook}", *lanes)
    at = ready_min + slot.start_min
    return TimedTask(
        key=task.key,
        title=task.title,
        start_min=slot.start_min,
        end_min=slot.end_min,
        starts=clock_text(at),
        ends=clock_text(ready_min + slot.end_min),
        day=at // DAY_MIN,
        when=task.when,
        hands=task.hands,
        lanes=lanes or ("waits",),
        float_min=float_min,
        critical=float_min == 0,
        why=why,
        slip=slip,
        pinned=pinned,
        own=task.own,
        dish=task.dish,
        status=status,
    )


def timed_tasks(
    problem: Problem, plan: Plan, found: Chances, *, ready_min: int, running: Mapping[str, int] | None = None
) -> tuple[TimedTask, ...]:
    """Every task of a plan but serving itself, in the order in which they begin.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        When each is done.
    found : Chances
        How far each may slip.
    ready_min : int
        The hour on the plate, minutes from midnight.
    running : Mapping[str, int] | None, default None
        What is under way, and since when, minutes from the hour on the plate.

    Returns
    -------
    tuple[TimedTask, ...]
        The same tasks on the clock.
    """
    begun = running or {}
    arcs = arcs_of(problem, plan)
    task = {t.key: t for t in problem.tasks}
    slots = {s.task: s for s in plan.slots}
    places = {r.key: r.title for r in problem.resources}
    timed = []
    for slot in plan.slots:
        if slot.task == LAST:
            continue
        slip, runs = found.float_min[slot.task], slot.task in begun
        why = _why(problem, slot, slots, arcs, places, ready_min)
        if runs:
            why = say("Under way since {at}.", at=ph.word(clock_text(ready_min + slot.start_min)))
        timed.append(
            timed_task(
                task[slot.task],
                slot,
                ready_min=ready_min,
                why=why,
                slip=_slip(slip, found.breaks_min[slot.task]),
                float_min=slip,
                pinned=slot.task in problem.pinned and not runs,
                status="running" if runs else "to-do",
            )
        )
    return tuple(timed)


def _slip(late: int | None, breaks: int | None) -> Phrase:
    """How far a task may slip, in words."""
    if late == 0:
        return say("Every minute it slips, the plate is late.")
    if breaks is not None and (late is None or breaks < late):
        if breaks == 0:
            return say("It follows at once, or something waits too long.")
        return say("It may slip {n}; then something waits too long.", n=ph.minutes(float(breaks)))
    if late is None:
        return say("It may slip for more than an hour.")
    return say("It may slip {n}; then the plate is late.", n=ph.minutes(float(late)))


def _why(
    problem: Problem,
    slot: Slot,
    slots: Mapping[str, Slot],
    arcs: tuple[Arc, ...],
    places: Mapping[str, str],
    ready_min: int,
) -> Phrase:
    """What would be broken if it began later: what comes after it, a place, a cook, or how long something may wait."""
    tasks = {t.key: t for t in problem.tasks}
    if slot.task in problem.pinned:
        return say("Pinned: it begins when you said.")

    tight = [a for a in arcs if a.before == slot.task and slots[a.after].start_min - slot.end_min <= a.least_min]
    order = {"lag": 0, "place": 1, "cook": 2}
    for arc in sorted(tight, key=lambda a: (order[a.because], slots[a.after].start_min)):
        then = ph.word(clock_text(ready_min + slots[arc.after].start_min))
        if arc.because == "lag" and arc.after == LAST:
            return say("It goes to the plate at once.")
        after = named(tasks[arc.after])
        if arc.because == "lag":
            if arc.least_min >= DAY_MIN:
                return say("{wait} h before “{after}”.", wait=ph.count(round(arc.least_min / 60)), after=after)
            if arc.least_min > 0:
                wait = ph.minutes(float(arc.least_min))
                return say("{wait} before “{after}” at {then}.", wait=wait, after=after, then=then)
            return say("“{after}” follows at {then}.", after=after, then=then)
        if arc.because == "place":
            where = ph.word(places[arc.resource].lower())
            return say("From {then} the {where} is taken by “{after}”.", then=then, where=where, after=after)
        return say("From {then} the same hands are at “{after}”.", then=then, after=after)
    cold = [x for x in problem.lags if x.before == slot.task and x.cold]
    if cold:
        return say("Early enough that it cannot hold up “{after}”.", after=named(tasks[cold[0].after]))
    return say("Nothing binds it more closely.")


def lanes_of(problem: Problem, plan: Plan) -> tuple[Lane, ...]:
    """The rows of the picture: cooks at work, places in use, and what waits by itself.

    Parameters
    ----------
    problem : Problem
        The tasks and the kitchen.
    plan : Plan
        When each is done.

    Returns
    -------
    tuple[Lane, ...]
        Cooks first.
    """
    cooks = [
        Lane(f"cook-{n}", "Cook" if problem.cooks == 1 else f"Cook {n + 1}", "cook")
        for n in range(problem.cooks)
        if any(s.cook == n for s in plan.slots) or any(a.cook == n for a in problem.away)
    ]
    used = {place for s in plan.slots for place in s.places}
    rows = [
        Lane(f"{r.key}-{n}", r.title if r.places == 1 else f"{r.title}, {n + 1}", "place")
        for r in problem.resources
        for n in range(r.places)
        if (r.key, n) in used
    ]
    waits = any(s.cook is None and not s.places and s.task != LAST for s in plan.slots)
    return (*cooks, *rows, *([Lane("waits", "Waits by itself", "waits")] if waits else []))
