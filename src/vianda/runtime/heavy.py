"""Long runs of the heat model: few at once, behind everything else, and none that nobody waits for any more.

An edit is answered in milliseconds, a question of heat may take a second of a whole processor. Asked often enough at
once, such questions held every thread, every connection to the database and every processor. Here they wait in one
line a process, run in threads that the system lets wait for all others, and are dropped when whoever asked has gone.
"""

from __future__ import annotations

import contextlib
import os
import threading
from collections.abc import Callable, Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from concurrent.futures import TimeoutError as NotYet
from contextvars import ContextVar
from typing import TypeVar

Found = TypeVar("Found")
# Runs at once, and how many may stand in line with them.
AT_ONCE, MOST_WAITING = 1, 12
# How far behind others they stand (nice), and how often it is asked whether somebody still waits, s.
BEHIND, LOOK_S = 10, 0.25
# Whether whoever asked has gone; the web sets it for each request.
GONE: ContextVar[Callable[[], bool]] = ContextVar("gone", default=lambda: False)
_here = threading.local()


class TooManyError(Exception):
    """More long runs than a kitchen's computer takes at once; asked again a little later, there is room."""


class NobodyWaitsError(Exception):
    """Whoever asked has hung up."""


def behind_others() -> None:
    """Let this thread wait for all others. On Linux each thread has a priority of its own."""
    with contextlib.suppress(OSError):
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), BEHIND)


def in_a_long_run() -> bool:
    """Whether this thread works on one."""
    return bool(getattr(_here, "long", False))


def _begin() -> None:
    behind_others()
    _here.long = True


class LongRuns:
    """One line of long runs; safe to share between threads.

    Examples
    --------
    >>> LongRuns().run(lambda: 6 * 7)
    42
    """

    def __init__(self, *, at_once: int = AT_ONCE, most: int = MOST_WAITING) -> None:
        self._at_once, self._most = at_once, most
        self._lock = threading.Lock()
        self._waiting = 0
        self._pool: ThreadPoolExecutor | None = None

    def run(self, work: Callable[[], Found]) -> Found:
        """Wait for one's turn and for the work; what it raises is raised here."""
        with self._in_line():
            return self._awaited(work, GONE.get())

    def steps(self, steps: Iterator[Found]) -> Iterator[Found]:
        """Each step of the work as one run, so that others come in between; its place in line is kept throughout."""
        gone, done = GONE.get(), object()
        with self._in_line():
            while True:
                step = self._awaited(lambda: next(steps, done), gone)
                if step is done:
                    return
                yield step  # type: ignore[misc]

    def _awaited(self, work: Callable[[], Found], gone: Callable[[], bool]) -> Found:
        at_work = self._submitted(work)
        while True:
            try:
                return at_work.result(timeout=LOOK_S)
            except NotYet:
                if at_work.done():
                    raise
                if gone():
                    # One that has begun goes on to its end, in its own thread.
                    at_work.cancel()
                    raise NobodyWaitsError from None

    @contextlib.contextmanager
    def _in_line(self) -> Iterator[None]:
        with self._lock:
            if self._waiting >= self._most:
                raise TooManyError
            self._waiting += 1
        try:
            yield
        finally:
            with self._lock:
                self._waiting -= 1

    def _submitted(self, work: Callable[[], Found]) -> Future[Found]:
        with self._lock:
            # Made when it is first needed: a process that was forked off has no threads of its parent's.
            if self._pool is None:
                self._pool = ThreadPoolExecutor(self._at_once, thread_name_prefix="long-run", initializer=_begin)
            return self._pool.submit(work)


LONG_RUNS = LongRuns()
