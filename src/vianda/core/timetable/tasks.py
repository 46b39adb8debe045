"""The tasks that a formula's other steps decided, what must lie between them, and what they take of the kitchen."""

from __future__ import annotations

from collections.abc import Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import say
from vianda.core.model.formula import WHENEVER, Timing
from vianda.core.pipeline.figures import Figures
from vianda.core.schedule.model import Absence, Lag, Problem, Resource, Task
from vianda.core.timetable import practice as pr
from vianda.core.timetable.fire_tasks import shared_fires
from vianda.core.timetable.heat_tasks import onto_heat
from vianda.core.timetable.meat_tasks import make_mix, shape_pieces
from vianda.core.timetable.plate_tasks import onto_plate
from vianda.core.timetable.sheet import LAST, Dish, Sheet


def tasks_of(figures: Figures) -> Problem:
    """Everything there is to do for a formula, ready to be put in time.

    Parameters
    ----------
    figures : Figures
        The results of all stages.

    Returns
    -------
    Problem
        Tasks with their ranges, lags with their limits, and the places they take.

    References
    ----------
    ``timetable.practice``: common practice, no published source. Minutes on the heat, resting, grinding, soaking,
    chilling and cooking beside the meat are those of the other steps.
    """
    return tasks_together((Dish("", "", figures),), timing=figures.context.formula.timing)


def tasks_together(dishes: Sequence[Dish], *, timing: Timing) -> Problem:
    """Everything there is to do for dishes that are served together, in one kitchen.

    Parameters
    ----------
    dishes : Sequence[Dish]
        One or more, computed for the same kitchen.
    timing : Timing
        The hour, the cooks, own tasks and pins that count; a dish's own tasks join in, its pins do not.

    Returns
    -------
    Problem
        Tasks of all dishes; places and hands are shared.

    Raises
    ------
    OutOfRangeError
        When there is no dish.
    """
    if not dishes:
        raise OutOfRangeError("There is nothing to cook yet: choose a dish.", field="/dishes")
    tasks: list[Task] = []
    lags: list[Lag] = []
    places: dict[str, Resource] = {}
    fires = shared_fires((d.figures.context.surface, d.figures.cook.stove) for d in dishes)
    for dish in dishes:
        sheet = Sheet(dish.figures, tasks, lags, places, fires, dish.prefix, dish.name)
        waves, ends = onto_heat(sheet, shape_pieces(sheet, make_mix(sheet)))
        onto_plate(sheet, waves, ends)
        if dish.prefix:
            _own(sheet, dish.figures.context.formula.timing)
    whole = Sheet(dishes[0].figures, tasks, lags, places, fires)
    whole.task(LAST, say("On the plate"), Band(1.0, 1.0, 1.0), hands=False)
    _own(whole, timing)
    opens = None
    if timing.opens_min != WHENEVER:
        # What opens after the hour of serving opened the day before.
        opens = timing.opens_min - timing.ready_min
        opens -= 1440 if opens >= 0 else 0
    known = {t.key for t in tasks}
    return Problem(
        tasks=tuple(tasks),
        lags=tuple(lags),
        resources=tuple(places.values()),
        last=LAST,
        cooks=timing.cooks,
        opens_min=opens,
        pinned={p.task: p.start_min for p in timing.pins if p.task in known},
        # Of a cook who is not counted nothing is said.
        away=tuple(
            Absence(a.cook - 1, a.from_min - timing.ready_min, a.to_min - timing.ready_min)
            for a in timing.away
            if a.cook <= timing.cooks and a.to_min > a.from_min
        ),
    )


def _own(sheet: Sheet, timing: Timing) -> None:
    """The cook's own tasks, done before serving; what is eaten hot ends shortly before."""
    kitchen = sheet.figures.context.kitchen
    known = {s.key for s in kitchen.surfaces}
    for own in timing.own:
        # A surface that the kitchen no longer has takes no place.
        needs = (own.surface,) if own.surface in known else ()
        takes = Band(0.8 * own.minutes, own.minutes, 1.3 * own.minutes)
        title = say("{what}", what=ph.word(own.title))
        sheet.task(own.key, title, takes, hands=own.hands, needs=needs, oven_c=own.oven_c, own=True)
        if own.hot:
            sheet.lag(own.key, LAST, 0, pr.PLATED, hot=True)
        else:
            sheet.lag(own.key, LAST, 0, 12 * 60, cold=True)
