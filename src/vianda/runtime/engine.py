"""An engine that remembers runs and has two of them under way at once."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from concurrent.futures import ThreadPoolExecutor
from threading import Lock
from typing import Any, TypeVar

from vianda.core.heat.conduction.run import Setup
from vianda.core.heat.engine import Key
from vianda.runtime.heavy import behind_others, in_a_long_run
from vianda.runtime.newest import Newest

Found = TypeVar("Found")
# Whole runs are a few hundred kilobytes each, everything else is small.
MOST_KEPT = {"cooked_of": 24}
MOST_OTHERS = 256
WORKERS = 2


class RememberingEngine:
    """Keeps the newest answers of each kind; safe to share between threads.

    The machine code of a run lets other threads go on, so that two runs of one question take the time of one.
    """

    def __init__(self) -> None:
        self._kinds: dict[object, Newest[Any]] = {}
        self._lock = Lock()
        self._pools: dict[bool, ThreadPoolExecutor] = {}

    def recall(self, key: Key) -> Any | None:
        """What was kept under a key, or None; it is then the newest again."""
        return self._kind(key).recall(key)

    def keep(self, key: Key, found: Any) -> None:
        """Keep an answer, and let the oldest of its kind go."""
        self._kind(key).keep(key, found)

    def _kind(self, key: Key) -> Newest[Any]:
        with self._lock:
            if key[0] not in self._kinds:
                self._kinds[key[0]] = Newest(MOST_KEPT.get(str(key[0]), MOST_OTHERS))
            return self._kinds[key[0]]

    def each(self, run: Callable[[Setup], Found], setups: Iterable[Setup]) -> list[Found]:
        """Two at a time, in the order of the setups."""
        # The runs of an edit do not stand in line behind those of a question.
        long = in_a_long_run()
        with self._lock:
            # Made when it is first needed: a process that was forked off has no threads of its parent's.
            if long not in self._pools:
                self._pools[long] = ThreadPoolExecutor(
                    WORKERS, thread_name_prefix="heat", initializer=behind_others if long else None
                )
            pool = self._pools[long]
        return list(pool.map(run, setups))


# One memory a process: the same question has the same answer everywhere.
ENGINE = RememberingEngine()
