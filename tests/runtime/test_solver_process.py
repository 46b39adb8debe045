"""The search for timetables in a process of its own: the same plans, another process, and it comes back when killed."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from vianda.core.basis.phrase import say
from vianda.core.schedule.model import Lag, Problem, Resource, Task
from vianda.core.schedule.solve import solve
from vianda.runtime.solver import SolverProcess

PAN = Resource("pan", "Pan")


def _problem(n: int = 4, *, cooks: int = 1) -> Problem:
    tasks = [Task(f"t{i}", say("Task"), 4.0, 5.0 + i, 9.0 + i, hands=i % 2 == 0, needs=("pan",)) for i in range(n)]
    tasks.append(Task("last", say("On the plate"), 1.0, 1.0, 1.0))
    lags = tuple(Lag(f"t{i}", "last", hot=i == n - 1) for i in range(n))
    return Problem(tuple(tasks), lags, (PAN,), "last", cooks=cooks)


@pytest.fixture
def solver() -> Iterator[SolverProcess]:
    found = SolverProcess()
    yield found
    found.close()


def test_it_finds_what_the_core_finds(solver: SolverProcess) -> None:
    for n in (1, 3, 6):
        for goals in (1, 4):
            assert solver(_problem(n), cushion_min=5, goals=goals) == solve(_problem(n), cushion_min=5, goals=goals)


def test_what_is_impossible_is_so_there_too(solver: SolverProcess) -> None:
    never = replace(_problem(2), pinned={"t0": -30, "t1": -30})
    assert solve(never) is None
    assert solver(never) is None


def test_a_process_that_was_killed_is_started_again(solver: SolverProcess) -> None:
    first = solver(_problem())
    assert solver._process is not None
    old = solver._process.pid
    solver._process.kill()
    solver._process.wait()
    assert solver(_problem()) == first
    assert solver._process.pid != old


def test_many_ask_at_once_and_each_gets_its_own(solver: SolverProcess) -> None:
    problems = [_problem(n, cooks=c) for n in (1, 2, 3, 4) for c in (1, 2)]
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(solver, problems))
    assert found == [solve(p) for p in problems]


def test_the_service_never_loads_the_library_itself() -> None:
    # In an interpreter of its own, since a test before this one may have loaded it here.
    asks = (
        "import sys, vianda.app, vianda.services.timetables, vianda.services.services\n"
        "from vianda.runtime.solver import SOLVER\n"
        "from vianda.core.schedule.model import Problem, Task\n"
        "from vianda.core.basis.phrase import say\n"
        "p = Problem((Task('last', say('x'), 1.0, 1.0, 1.0),), (), (), 'last')\n"
        "assert SOLVER(p) is not None\n"
        "assert not any(m.startswith('ortools') for m in sys.modules), 'loaded'\n"
        "SOLVER.close()\n"
    )
    done = subprocess.run([sys.executable, "-c", asks], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
