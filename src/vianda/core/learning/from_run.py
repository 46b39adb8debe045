"""What a service under way says of how long this kitchen's hands take."""

from __future__ import annotations

import math
from collections.abc import Iterable

from vianda.core.learning.figures import Observation
from vianda.core.schedule.model import Task
from vianda.core.timetable.run import RunEvent, marks_of

# A beginning and an end are told to the whole minute: each lies evenly within one. Standard deviation of both, min.
CLOCK_SD_MIN = math.sqrt(2.0 / 12.0)
# What is begun and ended in one minute though it takes this many was ticked off, not timed. Ours.
TICKED_FROM_MIN = 2.0
# Nobody times less than this; an end in the minute of its beginning was half of one. Minutes.
SHORTEST_MIN = 0.5


def minutes_observations(
    run: int, at: float, events: Iterable[RunEvent], tasks: Iterable[Task]
) -> tuple[Observation, ...]:
    """What the tasks of one evening say of minutes.

    Parameters
    ----------
    run : int
        The run's number.
    at : float
        When it was, s from any fixed moment.
    events : Iterable[RunEvent]
        What was said, in order.
    tasks : Iterable[Task]
        The tasks of that evening with their usual minutes.

    Returns
    -------
    tuple[Observation, ...]
        Of the figure "minutes": one of each task of a kind that was begun and ended by somebody. What was only said to
        be done, or begun and ended in one minute, was not timed.

    References
    ----------
    Spread of a uniform minute: 1/12 each, textbook.
    """
    said = list(events)
    begun = {e.task for e in said if e.kind == "begin"}
    marks = {m.task: m for m in marks_of(said)}
    found = []
    for place, task in enumerate(tasks):
        mark = marks.get(task.key)
        if not task.kind or mark is None or mark.ended_min is None or task.key not in begun:
            continue
        took = float(mark.ended_min - mark.begun_min)
        if took < 1.0 and task.usual_min >= TICKED_FROM_MIN:
            continue
        took = max(SHORTEST_MIN, took)
        found.append(
            Observation(
                "minutes",
                run,
                at,
                "",
                "",
                took,
                task.low_min,
                task.usual_min,
                task.high_min,
                math.log(took / task.usual_min) + math.log(task.pace),
                CLOCK_SD_MIN / took,
                piece=place,
                thing=task.kind,
            )
        )
    return tuple(found)
