"""The best timetable: served on time, then hot food waits least, then cold things have a cushion, then all begins late.

Each goal is brought to its best before the next is looked at, and the whole plan is handed on as a hint. One worker, a
seed and deterministic time: the same kitchen has the same plan on every machine.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Mapping
from typing import TYPE_CHECKING, Any, Protocol

from vianda.core.schedule.assign import assigned
from vianda.core.schedule.model import (
    EARLIEST_MIN,
    LATEST_MIN,
    Absence,
    Plan,
    Problem,
    Task,
    UnsettledError,
    change_min,
)

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

# Units of deterministic time for a goal; the whole lasts some tenths of a second.
STAGE_UNITS, SEED = 0.15, 7
# A task that is moved costs as much as five minutes of moving: fewer are moved further.
MOVED_COSTS_MIN = 5
# Food that is mended to wait hot longer than this counts as overrun, however early something else was begun. Ours.
HOT_WAITS_MOST_MIN = 30
# A minute too long in the cold spoils less than one in the warm: ours.
WARM_COUNTS = 20
# A cushion that cold things are given where there is room: ours, by simulation.
CUSHION_MIN = 20
# Planned with this share of a task's way from usual to high: the seventy-fifth of a hundred.
Z_HIGH, Z_PLANNED = 1.2816, 0.6745


def planned_min(task: Task) -> int:
    """Minutes that are kept free for a task: as long as it takes in three of four.

    Parameters
    ----------
    task : Task
        The task, with its range.

    Returns
    -------
    int
        Whole minutes, at least 1.

    References
    ----------
    The upper half of a two-piece lognormal: usual · (high / usual)^(0.6745 / 1.2816).

    Examples
    --------
    >>> from vianda.core.basis.phrase import say
    >>> planned_min(Task("mix", say("Mix"), 5, 8, 12))
    10
    """
    if task.usual_min <= 0.0:
        return 1
    grown: float = task.usual_min * (max(task.high_min, task.usual_min) / task.usual_min) ** (Z_PLANNED / Z_HIGH)
    return max(1, math.ceil(grown - 1e-9))


def joined(away: Iterable[Absence]) -> list[Absence]:
    """Absences of each cook that touch or overlap as one.

    Parameters
    ----------
    away : Iterable[Absence]
        Who is away when, minutes from serving.

    Returns
    -------
    list[Absence]
        By cook and time, none touching another of the same cook.

    Examples
    --------
    >>> [(a.from_min, a.to_min) for a in joined([Absence(0, -60, -30), Absence(0, -40, -10)])]
    [(-60, -10)]
    """
    found: list[Absence] = []
    for one in sorted(away, key=lambda a: (a.cook, a.from_min)):
        last = found[-1] if found else None
        if last is not None and last.cook == one.cook and one.from_min <= last.to_min:
            found[-1] = Absence(one.cook, last.from_min, max(last.to_min, one.to_min))
        else:
            found.append(one)
    return found


class _Model:
    """The problem in the solver's words."""

    def __init__(self, problem: Problem, cushion_min: int) -> None:
        from ortools.sat.python import cp_model

        self.problem = problem
        self.cp: cp_model.CpModel = cp_model.CpModel()
        self.length = {t.key: planned_min(t) for t in problem.tasks}
        self.start: dict[str, Any] = {}
        self.end: dict[str, Any] = {}
        self.interval: dict[str, Any] = {}
        # Whose a task is, where that has to be looked for.
        self.mine: dict[str, list[Any]] = {}
        for task in problem.tasks:
            length = self.length[task.key]
            low = EARLIEST_MIN
            if problem.opens_min is not None and task.when == "today":
                low = problem.opens_min
            low = max(low, problem.earliest.get(task.key, low))
            pinned = problem.pinned.get(task.key)
            if pinned is not None:
                low = high = pinned
            else:
                high = LATEST_MIN - length
            start = self.cp.new_int_var(low, max(low, high), task.key)
            self.start[task.key] = start
            self.end[task.key] = start + length
            self.interval[task.key] = self.cp.new_fixed_size_interval_var(start, length, task.key)
        self.late = self.cp.new_int_var(0, LATEST_MIN, "late")
        self.cp.add(self.end[problem.last] + cushion_min <= self.late)
        self.over: list[Any] = []
        self._between()
        if problem.near is not None and problem.last in problem.near:
            # Guests come at their hour: nothing that was done too early is saved by serving a day before it. Where it
            # stood past the hour, nearer to the hour is better.
            served = min(problem.near[problem.last], -self.length[problem.last] - cushion_min)
            self._at_most(served - self.start[problem.last], 0, "early", weight=WARM_COUNTS)
        for key, latest in problem.latest.items():
            self._at_most(self.start[key], latest, key)
        self._places()

    def _between(self) -> None:
        hot, missing = [], []
        for n, lag in enumerate(self.problem.lags):
            gap = self.start[lag.after] - self.end[lag.before]
            self.cp.add(gap >= lag.least_min)
            most = lag.most_min
            if most is None and lag.hot and self.problem.near is not None:
                # What goes out as it comes has no limit; but to mend a plan nothing is cooked hours before it is eaten.
                most = HOT_WAITS_MOST_MIN
            if most is not None:
                self._at_most(gap, most, f"{n}", weight=1 if lag.cold else WARM_COUNTS)
            if lag.hot:
                hot.append(gap)
            if lag.cold:
                short = self.cp.new_int_var(0, CUSHION_MIN, f"short{n}")
                self.cp.add(short >= lag.least_min + CUSHION_MIN - gap)
                missing.append(short)
        self.hot, self.missing = sum(hot), sum(missing)

    def _at_most(self, what: Any, most: int, name: str, *, weight: int = 1) -> None:
        """A limit; where a plan is only mended, one that may be overrun."""
        if self.problem.near is None:
            self.cp.add(what <= most)
            return
        over = self.cp.new_int_var(0, LATEST_MIN - EARLIEST_MIN, f"over{name}")
        self.cp.add(what <= most + over)
        self.over.append(weight * over)

    def _moves(self) -> Any:
        """How far starts lie from where they were, and how many do."""
        costs = []
        for key, stood in (self.problem.near or {}).items():
            away = self.cp.new_int_var(0, LATEST_MIN - EARLIEST_MIN, f"away {key}")
            moved = self.cp.new_bool_var(f"moved {key}")
            self.cp.add_abs_equality(away, self.start[key] - stood)
            self.cp.add(away == 0).only_enforce_if(~moved)
            costs.append(away + MOVED_COSTS_MIN * moved)
        return sum(costs)

    def _places(self) -> None:
        tasks = self.problem.tasks
        for resource in self.problem.resources:
            there = [t for t in tasks if resource.key in t.needs]
            if resource.places == 1:
                self.cp.add_no_overlap([self.interval[t.key] for t in there])
            elif there:
                self.cp.add_cumulative([self.interval[t.key] for t in there], [1] * len(there), resource.places)
            # Two heats in one oven: one after the other, with the time it takes to change.
            for a, b in itertools.combinations([t for t in there if t.oven_c is not None], 2):
                to, back = change_min(a.oven_c or 0.0, b.oven_c or 0.0), change_min(b.oven_c or 0.0, a.oven_c or 0.0)
                if to or back:
                    first = self.cp.new_bool_var(f"{a.key}<{b.key}")
                    self.cp.add(self.start[b.key] >= self.end[a.key] + to).only_enforce_if(first)
                    self.cp.add(self.start[a.key] >= self.end[b.key] + back).only_enforce_if(~first)
        hands = [self.interval[t.key] for t in tasks if t.hands]
        if self.problem.away:
            self._each_cook()
        elif self.problem.cooks == 1:
            self.cp.add_no_overlap(hands)
        elif hands:
            self.cp.add_cumulative(hands, [1] * len(hands), self.problem.cooks)

    def _each_cook(self) -> None:
        """Who comes and goes is not like the others: each task is somebody's."""
        tasks = [t for t in self.problem.tasks if t.hands]
        for task in tasks:
            self.mine[task.key] = [self.cp.new_bool_var(f"{n} at {task.key}") for n in range(self.problem.cooks)]
            self.cp.add_exactly_one(self.mine[task.key])
        for n in range(self.problem.cooks):
            busy = [
                self.cp.new_optional_fixed_size_interval_var(
                    self.start[t.key], self.length[t.key], self.mine[t.key][n], f"{n}: {t.key}"
                )
                for t in tasks
            ]
            away = [
                self.cp.new_fixed_size_interval_var(a.from_min, a.to_min - a.from_min, f"{n} away")
                for a in joined(self.problem.away)
                if a.cook == n
            ]
            self.cp.add_no_overlap([*busy, *away])

    def goals(self) -> list[Any]:
        """What is brought to its least, one after the other."""
        # Serving itself is not put off once it is as early as it can be.
        waits = self.hot + self.late - self.end[self.problem.last]
        if self.problem.near is not None:
            return [sum(self.over), self.late, self._moves(), waits]
        early = sum(-self.start[t.key] for t in self.problem.tasks)
        return [self.late, waits, self.missing, early]


class Solver(Protocol):
    """Whoever finds a plan: ``solve`` here, or a process of its own that does the same."""

    def __call__(self, problem: Problem, *, cushion_min: int = 0, goals: int = 4) -> Plan | None:
        """The plan, or None where none exists."""


def solve(problem: Problem, *, cushion_min: int = 0, goals: int = 4, stage_units: float = STAGE_UNITS) -> Plan | None:
    """The best plan that can be found, or None where it is proved that none exists.

    Parameters
    ----------
    problem : Problem
        Tasks, what lies between them, and the kitchen.
    cushion_min : int, default 0
        Minutes before the moment of serving at which it is to be ready.
    goals : int, default 4
        How many goals are looked at (count): 1 only asks how late it has to be.
    stage_units : float, default 0.15
        Deterministic time for a goal, the solver's units; limits and the hour have eight times as much.

    Returns
    -------
    Plan | None
        Equal problems have equal plans. ``proved`` says that no plan is less late.

    Raises
    ------
    UnsettledError
        When the time given ends before there is a plan, or a proof that none exists.

    References
    ----------
    Interval constraints of OR-Tools' CP-SAT; goals in lexicographic order.
    """
    from ortools.sat.python import cp_model

    if not problem.tasks:
        return Plan((), 0, True)
    model = _Model(problem, cushion_min)
    starts: Mapping[str, int] = {}
    cooks: Mapping[str, int] = {}
    proved = True
    for key, stood in (problem.near or {}).items():
        # A plan is mended from where it stood.
        model.cp.add_hint(model.start[key], max(stood, problem.earliest.get(key, stood)))
    # Where a plan is mended, the limits come before the hour.
    late_at = 0 if problem.near is None else 1
    for n, goal in enumerate(model.goals()[:goals]):
        solver = cp_model.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = SEED
        # Whether there is a plan at all gets the most time.
        solver.parameters.max_deterministic_time = stage_units * (8 if n <= late_at else 1)
        model.cp.minimize(goal)
        status = solver.solve(model.cp)
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            if n == 0 and status == cp_model.INFEASIBLE:
                return None
            if n == 0:
                raise UnsettledError("No plan was found in the time given; that does not mean there is none.")
            break
        starts = {key: solver.value(var) for key, var in model.start.items()}
        cooks = {key: [solver.value(var) for var in mine].index(1) for key, mine in model.mine.items()}
        if n == late_at:
            proved = status == cp_model.OPTIMAL
        model.cp.clear_hints()  # type: ignore[no-untyped-call]
        for key, var in model.start.items():
            model.cp.add_hint(var, starts[key])
        for key, mine in model.mine.items():
            for at, var in enumerate(mine):
                model.cp.add_hint(var, at == cooks[key])
        if not isinstance(goal, int):
            model.cp.add(goal <= math.floor(solver.objective_value + 0.5))
    lengths = model.length
    late = max(0, starts[problem.last] + lengths[problem.last] + cushion_min)
    return Plan(assigned(problem, starts, lengths, cooks=cooks), late, proved)
