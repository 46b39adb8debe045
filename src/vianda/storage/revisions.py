"""Counters of shared things: each change counts, so that caches know when they are stale, and changes come in turn."""

from __future__ import annotations

from vianda.storage.tables import RevisionRow


def revision_number(name: str) -> int:
    """The revision of a shared thing; 0 when it was never touched."""
    row = RevisionRow.get_or_none(RevisionRow.name == name)
    return row.number if row else 0


def touch(name: str) -> None:
    """Count a change of a shared thing. Whoever touches it too waits, or on another node is done again."""
    changed = RevisionRow.update(number=RevisionRow.number + 1).where(RevisionRow.name == name).execute()
    if not changed:
        RevisionRow.insert(name=name, number=1).on_conflict_ignore().execute()
