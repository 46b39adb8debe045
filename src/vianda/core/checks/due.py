"""Which checks an evening asks for, and when: from the tasks as they are planned now, or as they happened."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from vianda.core.basis.phrase import Phrase, say
from vianda.core.checks.limits import CheckKind
from vianda.core.schedule.model import Problem, Slot, Task
from vianda.core.timetable.remarks import HELD_MIN, named

# What waits hot is measured when it has waited so long, and again and again after that, min: the Food Code asks for no
# interval; every two hours leaves time to act. Common practice, no published source.
HOT_FROM_MIN, HOT_EVERY_MIN = HELD_MIN, 120
# A wave, or what finishes in its sauce. Keys have the dish's own beginning.
_HEATED = re.compile(r"(?:^|-)(?:wave-\d+|simmer)$")
_IN_SAUCE = re.compile(r"(?:^|-)simmer$")


@dataclass(frozen=True, slots=True)
class Due:
    """One check: its kind and the task it is of, in words, and when it is due, minutes from the hour on the plate.

    ``key`` tells it apart from all others of the evening, however the plan moves.
    """

    key: str
    kind: CheckKind
    task: str
    dish: str
    title: Phrase
    at_min: int


def due_of(problem: Problem, slots: Mapping[str, Slot]) -> tuple[Due, ...]:
    """The checks of an evening.

    Parameters
    ----------
    problem : Problem
        Tasks and what must lie between them.
    slots : Mapping[str, Slot]
        When each is done, by its key; a task that is not there asks for nothing.

    Returns
    -------
    tuple[Due, ...]
        By time: the fridge before work begins, the core of one piece at the end of each wave, what waits hot.

    References
    ----------
    Common practice, no published source, for when; the lines: ``checks.limits``.
    """
    tasks = {t.key: t for t in problem.tasks if t.key in slots}
    found = [*_cold(problem, tasks, slots), *_cores(tasks, slots), *_hot(problem, tasks, slots)]
    return tuple(sorted(found, key=lambda d: (d.at_min, d.key)))


def _cold(problem: Problem, tasks: Mapping[str, Task], slots: Mapping[str, Slot]) -> Iterator[Due]:
    starts = [slots[k].start_min for k, t in tasks.items() if t.when == "today" and t.hands and k != problem.last]
    if starts:
        yield Due("cold", "cold", "", "", say("The fridge that the meat is in"), min(starts))


def _cores(tasks: Mapping[str, Task], slots: Mapping[str, Slot]) -> Iterator[Due]:
    # Where pieces finish in a sauce, they are measured when they come out of it.
    in_sauce = {t.dish for key, t in tasks.items() if _IN_SAUCE.search(key)}
    for key, task in tasks.items():
        if not _HEATED.search(key) or (task.dish in in_sauce and not _IN_SAUCE.search(key)):
            continue
        title = say("Core of one piece: {what}", what=named(task))
        yield Due(f"core/{key}", "core", key, task.dish, title, slots[key].end_min)


def _hot(problem: Problem, tasks: Mapping[str, Task], slots: Mapping[str, Slot]) -> Iterator[Due]:
    for lag in problem.lags:
        if not lag.hot or lag.before not in tasks or lag.after not in slots:
            continue
        since, until = slots[lag.before].end_min, slots[lag.after].start_min
        for n, at in enumerate(range(since + HOT_FROM_MIN, until, HOT_EVERY_MIN)):
            task = tasks[lag.before]
            title = say("What waits hot: {what}", what=named(task))
            yield Due(f"hot/{lag.before}/{n + 1}", "hot", lag.before, task.dish, title, at)
