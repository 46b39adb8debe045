"""Job shops of the literature reach their published shortest time.

FT06 (Fisher & Thompson 1963), 55, and LA01 (Lawrence 1984), 666: data and optima from memory, high.
"""

from __future__ import annotations

import pytest

from vianda.core.basis.phrase import say
from vianda.core.schedule.check import broken
from vianda.core.schedule.model import Lag, Problem, Resource, Task
from vianda.core.schedule.solve import solve

FT06 = """
2 1 0 3 1 6 3 7 5 3 4 6
1 8 2 5 4 10 5 10 0 10 3 4
2 5 3 4 5 8 0 9 1 1 4 7
1 5 0 5 2 5 3 3 4 8 5 9
2 9 1 3 4 5 5 4 0 3 3 1
1 3 3 3 5 9 0 10 4 4 2 1
"""
LA01 = """
1 21 0 53 4 95 3 55 2 34
0 21 3 52 4 16 2 26 1 71
3 39 4 98 1 42 2 31 0 12
1 77 0 55 4 79 2 66 3 77
0 83 3 34 2 64 1 19 4 37
1 54 2 43 4 79 0 92 3 62
3 69 4 77 1 87 2 87 0 93
2 38 0 60 1 41 3 24 4 83
3 17 1 49 4 25 0 44 2 98
4 77 3 79 2 43 1 75 0 96
"""


def _shop(text: str) -> Problem:
    """Each job's operations in order, a machine a place of its own; serving takes the last minute."""
    tasks, lags, machines = [], [], set()
    for j, row in enumerate(text.strip().splitlines()):
        numbers = [int(n) for n in row.split()]
        for o, (machine, minutes) in enumerate(zip(numbers[::2], numbers[1::2], strict=True)):
            key = f"j{j}-{o}"
            tasks.append(Task(key, say(key), minutes, minutes, minutes, needs=(f"m{machine}",)))
            machines.add(machine)
            if o:
                lags.append(Lag(f"j{j}-{o - 1}", key))
        lags.append(Lag(key, "done"))
    tasks.append(Task("done", say("done"), 1, 1, 1))
    resources = tuple(Resource(f"m{m}", f"Machine {m}") for m in sorted(machines))
    return Problem(tuple(tasks), tuple(lags), resources, "done", opens_min=0)


@pytest.mark.parametrize(("text", "shortest"), [(FT06, 55), (LA01, 666)], ids=["FT06", "LA01"])
def test_a_job_shop_is_done_in_its_published_shortest_time(text: str, shortest: int) -> None:
    problem = _shop(text)
    plan = solve(problem, goals=1)
    assert plan is not None
    assert plan.late_min == shortest + 1
    assert plan.proved
    assert broken(problem, plan) == []
