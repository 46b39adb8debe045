"""One of a list that a cook chooses from."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Option:
    """A choice: its key, what it is called, and why one would take it ("" when that is plain)."""

    key: str
    title: str
    why: str = ""
