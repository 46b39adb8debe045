"""What was said at a device is written down once, however often it is sent."""

from __future__ import annotations

from typing import Any

from vianda.storage.actor import done_before


def write_once(insert: Any) -> None:
    """Write a row unless one of its token is there; a repeat changes nothing and leaves no line in the audit log."""
    if not insert.on_conflict_ignore().as_rowcount().execute():
        done_before()
