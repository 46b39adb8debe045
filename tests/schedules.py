"""Small kitchens to plan: tasks of known length, and whatever is drawn."""

from __future__ import annotations

import itertools
from dataclasses import replace

from hypothesis import strategies as st

from vianda.core.basis.phrase import say
from vianda.core.schedule.model import Absence, Lag, Problem, Resource, Task


def task_of(key: str, minutes: float, **more: object) -> Task:
    return Task(key, say(key.replace("-", " ")), minutes, minutes, minutes, **more)  # type: ignore[arg-type]


LAST = task_of("serve", 1)


def problem_of(tasks: list[Task], lags: list[Lag], **more: object) -> Problem:
    """All of them before serving."""
    ends = [Lag(t.key, "serve") for t in tasks]
    return Problem((*tasks, LAST), (*lags, *ends), last="serve", **{"resources": (), **more})  # type: ignore[arg-type]


@st.composite
def kitchens(draw: st.DrawFn) -> Problem:
    count = draw(st.integers(1, 6))
    resources = tuple(Resource(f"place{n}", f"Place {n}", draw(st.integers(1, 2))) for n in range(2))
    tasks = [
        task_of(
            f"t{n}",
            draw(st.integers(1, 12)),
            hands=draw(st.booleans()),
            needs=tuple(r.key for r in resources if draw(st.booleans())),
        )
        for n in range(count)
    ]
    lags = []
    for a, b in itertools.combinations(range(count), 2):
        if draw(st.integers(0, 2)) == 0:
            least = draw(st.integers(0, 8))
            most = draw(st.none() | st.integers(least, least + 30))
            lags.append(Lag(f"t{a}", f"t{b}", least, most, hot=draw(st.booleans()), cold=draw(st.booleans())))
    opens = draw(st.none() | st.integers(-60, -1))
    return problem_of(tasks, lags, resources=resources, cooks=draw(st.integers(1, 2)), opens_min=opens)


@st.composite
def kitchens_with_absences(draw: st.DrawFn) -> Problem:
    """A small kitchen in which cooks come and go."""
    problem = draw(kitchens())
    away = []
    for _ in range(draw(st.integers(1, 3))):
        start = draw(st.integers(-40, 10))
        away.append(Absence(draw(st.integers(0, problem.cooks - 1)), start, start + draw(st.integers(1, 20))))
    return replace(problem, away=tuple(away))
