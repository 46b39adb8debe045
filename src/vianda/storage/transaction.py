"""One transaction round a use case."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from vianda.storage.audit_repository import forget_noted, note_change
from vianda.storage.caches import forget_all
from vianda.storage.database import proxy


@contextmanager
def transaction() -> Iterator[None]:
    """All or nothing: commit at the end; when anything is raised, roll back and forget what was read meanwhile."""
    committed = False
    outermost = proxy.transaction_depth() == 0
    try:
        with proxy.atomic():
            yield
            if outermost:
                # Who changed it stands or falls with the change.
                note_change()
        committed = True
    finally:
        if not committed:
            forget_all()
            forget_noted()
