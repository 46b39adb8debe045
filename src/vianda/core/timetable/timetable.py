"""The timetable of a formula: its tasks on the clock, who does them, what binds each, and how surely it is on time."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.model.edit import DropAway, PinTask, TimingEdit, TypeTiming
from vianda.core.model.formula import Timing
from vianda.core.pipeline.figures import Figures
from vianda.core.reading.clock import DAY_MIN, clock_text
from vianda.core.schedule.chance import WANTED_FRAC, Chances, chances
from vianda.core.schedule.model import Plan, Problem, UnsettledError
from vianda.core.schedule.relief import Relief, reliefs
from vianda.core.schedule.solve import Solver, solve
from vianda.core.timetable.on_clock import AwayOnClock, Lane, TimedTask, away_on_clock, lanes_of, timed_tasks
from vianda.core.timetable.remarks import TimeRemark, remarks_on
from vianda.core.timetable.sheet import Dish
from vianda.core.timetable.tasks import tasks_of, tasks_together

# Served this much before the hour, at most, so that it is on time often enough. Ours.
CUSHIONS_MIN = (0, 2, 4, 7, 10, 15, 20, 30, 45, 60)
MOST_OFFERS = 4


@dataclass(frozen=True, slots=True)
class Offer:
    """What would help a timetable that is late, what comes of it, and the edit that does it, where there is one."""

    what: Phrase
    comes: Phrase
    edit: TimingEdit | None


@dataclass(frozen=True, slots=True)
class Timetable:
    """Every task in time, or what stands in the way.

    ``ready`` is the hour wanted on the plate, ``ready_min`` the same from midnight; ``served`` is when it comes there,
    ``late_min`` after that hour. ``on_time_frac`` is the share of evenings on which it is at most five minutes late,
    ``tenth_late_min`` how late one evening of ten is at least, ``waits_hot_min`` how long food waits hot on average.
    ``impossible``: no order of the tasks keeps every limit; ``unsettled``: none was found in the time given.
    """

    ready: str
    ready_min: int
    served: str
    late_min: int
    cushion_min: int
    on_time_frac: float
    tenth_late_min: float
    waits_hot_min: float
    impossible: bool
    unsettled: bool
    says: Phrase
    tasks: tuple[TimedTask, ...]
    lanes: tuple[Lane, ...]
    away: tuple[AwayOnClock, ...]
    offers: tuple[Offer, ...]
    remarks: tuple[TimeRemark, ...]


def timetable(figures: Figures, *, solver: Solver = solve) -> Timetable:
    """When to do what, backwards from the plate.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    solver : Solver
        Who looks for plans: ``solve``, or a process of its own that does the same.

    Returns
    -------
    Timetable
        Equal formulas, kitchens and hours give equal timetables.

    References
    ----------
    Planned with the seventy-fifth of a hundred of each task's minutes and a cushion before the plate that is chosen by
    simulated evenings: ours.
    """
    return _of(tasks_of(figures), figures.context.formula.timing, solver)


def timetable_together(dishes: Sequence[Dish], *, timing: Timing, solver: Solver = solve) -> Timetable:
    """When to do what for dishes that are served together.

    Parameters
    ----------
    dishes : Sequence[Dish]
        One or more, computed for the same kitchen.
    timing : Timing
        The hour, the cooks, own tasks and pins.
    solver : Solver
        Who looks for plans.

    Returns
    -------
    Timetable
        One timetable for all.

    Raises
    ------
    OutOfRangeError
        When there is no dish, or more to do than one timetable holds.
    """
    return _of(tasks_together(dishes, timing=timing), timing, solver)


def _of(problem: Problem, timing: Timing, solver: Solver) -> Timetable:
    unsettled = ""
    try:
        plan, cushion, found = _planned(problem, solver)
    except UnsettledError as error:
        plan, cushion, found, unsettled = None, 0, None, error.detail
    if plan is None or found is None:
        return Timetable(
            ready=clock_text(timing.ready_min),
            ready_min=timing.ready_min,
            served="",
            late_min=0,
            cushion_min=0,
            on_time_frac=0.0,
            tenth_late_min=0.0,
            waits_hot_min=0.0,
            impossible=not unsettled,
            unsettled=bool(unsettled),
            says=say(unsettled or "No order of these tasks keeps every limit. One of these would."),
            tasks=(),
            lanes=(),
            away=(),
            offers=_offers(problem, timing, solver),
            remarks=(),
        )
    return Timetable(
        ready=clock_text(timing.ready_min),
        ready_min=timing.ready_min,
        served=clock_text(timing.ready_min + plan.late_min),
        late_min=plan.late_min,
        cushion_min=cushion,
        on_time_frac=found.on_time_frac,
        tenth_late_min=found.tenth_late_min,
        waits_hot_min=found.waits_hot_min,
        impossible=False,
        unsettled=False,
        says=_said(plan, timing.ready_min),
        tasks=timed_tasks(problem, plan, found, ready_min=timing.ready_min),
        lanes=lanes_of(problem, plan),
        away=away_on_clock(problem, ready_min=timing.ready_min),
        offers=_offers(problem, timing, solver) if plan.late_min > 0 else (),
        remarks=remarks_on(problem, plan, found, ready_min=timing.ready_min),
    )


def _planned(problem: Problem, solver: Solver) -> tuple[Plan | None, int, Chances | None]:
    """The plan with the smallest cushion that is on time often enough; a late one has no room for a cushion."""
    best: tuple[Plan | None, int, Chances | None] = (None, 0, None)
    for cushion in CUSHIONS_MIN:
        try:
            plan = solver(problem, cushion_min=cushion)
        except UnsettledError:
            # Without a cushion there was a plan: that one stands.
            if best[0] is None:
                raise
            return best
        if plan is None or (cushion > 0 and best[0] is not None and plan.late_min > best[0].late_min):
            return best
        # Late is late: what is served then counts, not the cushion before it.
        best = (plan, cushion, chances(problem, plan))
        if plan.late_min > 0 or (best[2] is not None and best[2].on_time_frac >= WANTED_FRAC):
            return best
    return best


def _said(plan: Plan, ready_min: int) -> Phrase:
    first = min((s.start_min for s in plan.slots if s.start_min > -DAY_MIN), default=0)
    begins = ph.word(clock_text(ready_min + first))
    if plan.late_min > 0:
        return say(
            "It cannot be on the plate before {served}: {late} late.",
            served=ph.word(clock_text(ready_min + plan.late_min)),
            late=ph.minutes(float(plan.late_min)),
        )
    return say("Begin at {begins} to have it on the plate at {at}.", begins=begins, at=ph.word(clock_text(ready_min)))


def _offers(problem: Problem, timing: Timing, solver: Solver) -> tuple[Offer, ...]:
    titles = {r.key: r.title for r in problem.resources}
    found = reliefs(problem, solver=solver)[:MOST_OFFERS]
    return tuple(_offer(x, problem, titles, timing.ready_min, timing.opens_min) for x in found)


def _offer(x: Relief, problem: Problem, titles: Mapping[str, str], ready_min: int, opens_min: int) -> Offer:
    comes = say("On time.") if x.late_min == 0 else say("{m} late.", m=ph.minutes(float(x.late_min)))
    if x.kind == "later":
        at = clock_text(ready_min + x.minutes)
        return Offer(say("On the plate at {at}", at=ph.word(at)), comes, TypeTiming("ready", at))
    if x.kind == "earlier":
        at = clock_text(opens_min - x.minutes)
        return Offer(say("Begin at {at}", at=ph.word(at)), comes, TypeTiming("opens", at))
    if x.kind == "cook":
        return Offer(say("One more cook"), comes, TypeTiming("cooks", str(problem.cooks + 1)))
    if x.kind == "stay":
        cook = int(x.what) + 1
        return Offer(say("Cook {n} stays", n=ph.count(cook)), comes, DropAway(cook))
    if x.kind == "unpin":
        what = say("Let what is pinned go") if x.what else say("Let all that is pinned go")
        return Offer(what, comes, PinTask(x.what, None))
    # A kitchen is not changed from here: what it would take is said.
    return Offer(say("One more of {what}", what=ph.word(titles[x.what].lower())), comes, None)
