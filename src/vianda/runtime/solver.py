"""The search for timetables in a process of its own: its library takes over a second to load, and nobody waits for it.

The process is started when a timetable is first asked for or soon will be, answers one question after the other, and
ends when its input does. ``python -m vianda.runtime.solver`` is that process.
"""

from __future__ import annotations

import atexit
import contextlib
import pickle
import subprocess
import sys
from collections.abc import Callable
from threading import Lock, Thread
from typing import IO, Any

from vianda.core.basis.errors import CoreError
from vianda.core.schedule.model import Plan, Problem, UnsettledError
from vianda.core.schedule.solve import solve


class SolverProcess:
    """``solve`` in another process; safe to share between threads, which wait for one another."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._process: subprocess.Popen[bytes] | None = None

    def warm_up(self) -> None:
        """Have the process started and its library loaded, without waiting for it."""
        if self._process is None:
            Thread(target=self._warmed, name="solver", daemon=True).start()

    def _warmed(self) -> None:
        with self._lock:
            self._running()

    def _running(self) -> subprocess.Popen[bytes]:
        if self._process is not None and self._process.poll() is not None:
            self._stopped()
        if self._process is None:
            self._process = subprocess.Popen(
                [sys.executable, "-m", "vianda.runtime.solver"], stdin=subprocess.PIPE, stdout=subprocess.PIPE
            )
        return self._process

    def __call__(self, problem: Problem, *, cushion_min: int = 0, goals: int = 4) -> Plan | None:
        """The best plan that can be found, as ``solve`` finds it."""
        return self.asked(problem, cushion_min=cushion_min, goals=goals, before=lambda: None)

    def asked(self, problem: Problem, *, cushion_min: int, goals: int, before: Callable[[], None]) -> Plan | None:
        """The same; ``before`` is called when its turn has come, and may refuse by raising."""
        with self._lock:
            before()
            for last in (False, True):
                try:
                    return self._answered((problem, cushion_min, goals))
                except (OSError, EOFError, pickle.UnpicklingError) as error:
                    # It was killed or has run out of memory: a new one is asked once.
                    self._stopped()
                    if last:
                        raise UnsettledError("The search for a timetable broke off. Try again.") from error
        raise AssertionError

    def _answered(self, question: tuple[Problem, int, int]) -> Plan | None:
        process = self._running()
        assert process.stdin is not None
        assert process.stdout is not None
        pickle.dump(question, process.stdin)
        process.stdin.flush()
        found = pickle.load(process.stdout)
        if isinstance(found, CoreError):
            raise found
        return found  # type: ignore[no-any-return]

    def _stopped(self) -> None:
        if self._process is not None:
            # Leaving its block closes the pipes and waits for its end.
            with contextlib.suppress(OSError), self._process as process:
                process.kill()
            self._process = None

    def close(self) -> None:
        """End the process; the next question starts another."""
        with self._lock:
            self._stopped()


def answer(asked: IO[bytes], told: IO[bytes]) -> None:
    """Answer questions until there are no more.

    Parameters
    ----------
    asked : IO[bytes]
        Questions, pickled one after the other: the problem, the cushion in minutes, how many goals.
    told : IO[bytes]
        Where the plan goes, None, or the refusal.
    """
    # Loaded at once and not with the first question.
    from ortools.sat.python import cp_model as _loaded  # noqa: F401

    while True:
        try:
            problem, cushion_min, goals = pickle.load(asked)
        except EOFError:
            return
        found: Any
        try:
            found = solve(problem, cushion_min=cushion_min, goals=goals)
        except CoreError as error:
            found = error
        pickle.dump(found, told)
        told.flush()


# One a process of the service; it ends with it.
SOLVER = SolverProcess()
atexit.register(SOLVER.close)

if __name__ == "__main__":
    # Fork and signals are the parent's: Ctrl-C ends it, and with it this one's input.
    import signal

    signal.signal(signal.SIGINT, signal.SIG_IGN)
    answer(sys.stdin.buffer, sys.stdout.buffer)
