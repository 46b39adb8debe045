"""A memory of bounded size that many threads share: the newest are kept, the oldest go."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

Kept = TypeVar("Kept")


class Newest(Generic[Kept]):
    """Keeps so many answers, those asked for last.

    Examples
    --------
    >>> two = Newest[int](2)
    >>> [two.of(n, lambda n=n: n * n) for n in (1, 2, 1, 3)]
    [1, 4, 1, 9]
    >>> two.recall(2) is None
    True
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._kept: OrderedDict[Hashable, Kept] = OrderedDict()
        self._lock = Lock()

    def recall(self, key: Hashable) -> Kept | None:
        """What was kept under a key, or None; it is then the newest again."""
        with self._lock:
            if key not in self._kept:
                return None
            self._kept.move_to_end(key)
            return self._kept[key]

    def keep(self, key: Hashable, found: Kept) -> None:
        """Keep an answer, and let the oldest go."""
        with self._lock:
            self._kept[key] = found
            self._kept.move_to_end(key)
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)

    def of(self, key: Hashable, work: Callable[[], Kept]) -> Kept:
        """What was kept under a key, else what the work comes to; two threads at once may both do it."""
        found = self.recall(key)
        if found is None:
            found = work()
            self.keep(key, found)
        return found

    def forget(self) -> None:
        """Keep nothing any more."""
        with self._lock:
            self._kept.clear()
