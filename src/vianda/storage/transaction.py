"""One transaction round a use case."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from vianda.storage.database import proxy


@contextmanager
def transaction() -> Iterator[None]:
    """All or nothing: commit at the end, roll back when anything is raised."""
    with proxy.atomic():
        yield
