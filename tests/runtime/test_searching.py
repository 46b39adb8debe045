"""A search that tells how far it is: nothing of a quick one, counts of a slow one, and an end when nobody waits."""

from __future__ import annotations

from threading import Event

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import say
from vianda.core.schedule.model import Plan, Problem, Task
from vianda.core.schedule.solve import Solver
from vianda.runtime.searching import Looking, Search
from vianda.runtime.solver import SolverProcess

PROBLEM = Problem((Task("last", say("On the plate"), 1.0, 1.0, 1.0),), (), (), "last")


class SlowSolver(SolverProcess):
    """Answers one question each time it is let go on."""

    def __init__(self) -> None:
        super().__init__()
        self.go_on, self.begun, self.asked_of = Event(), Event(), 0

    def _answered(self, question: tuple[Problem, int, int]) -> Plan | None:
        self.asked_of += 1
        self.begun.set()
        assert self.go_on.wait(30)
        return Plan((), 0, True)


def _three(solver: Solver) -> int:
    return sum(solver(PROBLEM) is not None for _ in range(3))


def test_what_is_found_at_once_is_all_that_is_told() -> None:
    solver = SlowSolver()
    solver.go_on.set()
    assert list(Search(_three).steps(solver=solver)) == [3]


def test_a_slow_one_tells_how_many_plans_it_tried_and_then_what_it_found() -> None:
    solver = SlowSolver()
    steps = Search(_three).steps(solver=solver)
    first = next(steps)
    assert isinstance(first, Looking)
    assert first.plans == 0
    assert first.seconds >= 0.4
    solver.go_on.set()
    assert [step for step in steps if not isinstance(step, Looking)] == [3]


def test_when_nobody_waits_no_further_plan_is_asked_for() -> None:
    solver = SlowSolver()
    ended = Event()

    def look(watched: Solver) -> int:
        try:
            return _three(watched)
        finally:
            ended.set()

    steps = Search(look).steps(solver=solver)
    next(steps)
    assert solver.begun.is_set()
    steps.close()
    solver.go_on.set()
    assert ended.wait(30)
    assert solver.asked_of == 1


def test_one_that_waits_for_its_turn_behind_another_does_not_take_it() -> None:
    solver = SlowSolver()
    first, second = Search(_three).steps(solver=solver), Search(_three).steps(solver=solver)
    next(first)
    next(second)
    second.close()
    solver.go_on.set()
    assert [step for step in first if not isinstance(step, Looking)] == [3]
    assert solver.asked_of == 3


def test_a_stop_is_no_refusal_that_a_rule_of_the_trade_would_swallow() -> None:
    """What tries many changes goes on after one that cannot be made, and not after a stop."""
    solver = SlowSolver()
    ended = Event()

    def look(watched: Solver) -> int:
        tried = 0
        try:
            for _ in range(5):
                try:
                    watched(PROBLEM)
                except OutOfRangeError:
                    continue
                tried += 1
        finally:
            ended.set()
        return tried

    steps = Search(look).steps(solver=solver)
    next(steps)
    steps.close()
    solver.go_on.set()
    assert ended.wait(30)
    assert solver.asked_of == 1


def test_what_the_search_refuses_is_raised_where_it_is_waited_for() -> None:
    def look(_: Solver) -> int:
        raise OutOfRangeError("Not so many.")

    with pytest.raises(OutOfRangeError, match="Not so many"):
        list(Search(look).steps())
