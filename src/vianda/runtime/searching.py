"""A search for timetables that says how far it is, and ends when nobody waits for it any more."""

from __future__ import annotations

from collections.abc import Callable, Generator
from dataclasses import dataclass
from queue import Empty, SimpleQueue
from threading import Event, Thread
from time import monotonic
from typing import Generic, TypeVar

from vianda.core.schedule.model import Plan, Problem
from vianda.core.schedule.solve import Solver
from vianda.runtime.solver import SOLVER, SolverProcess

Found = TypeVar("Found")
# What is found before this needs no telling; after it, so often (ours).
FIRST_S, EVERY_S = 0.4, 0.25


class SearchStoppedError(Exception):
    """Nobody waits for what was searched; no refusal of the trade, so that no rule takes it for one."""


@dataclass(frozen=True, slots=True)
class Looking:
    """How far a search is: so many plans tried (count), so long (s)."""

    plans: int
    seconds: float


class _Watched:
    """A solver that counts what it is asked, and asks no more once it is stopped."""

    def __init__(self, solver: SolverProcess) -> None:
        self._solver = solver
        self._stopped = Event()
        self.plans = 0

    def stop(self) -> None:
        self._stopped.set()

    def check(self) -> None:
        if self._stopped.is_set():
            raise SearchStoppedError

    def __call__(self, problem: Problem, *, cushion_min: int = 0, goals: int = 4) -> Plan | None:
        self.check()
        # Others may be before it: whether it is still wanted is asked again when its turn comes.
        found = self._solver.asked(problem, cushion_min=cushion_min, goals=goals, before=self.check)
        self.plans += 1
        return found


@dataclass(frozen=True, slots=True)
class Search(Generic[Found]):
    """What looks for timetables with the solver it is given, and reads nothing that is kept: that was done before.

    Examples
    --------
    >>> Search(lambda solver: 7).found()
    7
    >>> list(Search(lambda solver: 7).steps())
    [7]
    """

    look: Callable[[Solver], Found]

    def found(self) -> Found:
        """The answer, waited for."""
        return self.look(SOLVER)

    def steps(self, *, solver: SolverProcess = SOLVER) -> Generator[Looking | Found]:
        """How far it is, again and again, and the answer last. Closing the iterator ends the search.

        Raises
        ------
        Exception
            Whatever the search itself raises.
        """
        watched = _Watched(solver)
        told: SimpleQueue[tuple[Found | None, Exception | None]] = SimpleQueue()

        def run() -> None:
            try:
                told.put((self.look(watched), None))
            except Exception as error:  # noqa: BLE001
                # It is raised where it is waited for.
                told.put((None, error))

        begun = monotonic()
        Thread(target=run, name="search", daemon=True).start()
        try:
            wait = FIRST_S
            while True:
                try:
                    found, error = told.get(timeout=wait)
                except Empty:
                    wait = EVERY_S
                    yield Looking(watched.plans, round(monotonic() - begun, 2))
                    continue
                if error is not None:
                    raise error
                yield found  # type: ignore[misc]
                return
        finally:
            watched.stop()
