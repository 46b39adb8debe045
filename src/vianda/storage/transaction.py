"""One transaction round a use case."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from vianda.storage.caches import forget_all
from vianda.storage.database import proxy


@contextmanager
def transaction() -> Iterator[None]:
    """All or nothing: commit at the end; when anything is raised, roll back and forget what was read meanwhile."""
    committed = False
    try:
        with proxy.atomic():
            yield
        committed = True
    finally:
        if not committed:
            forget_all()
