"""What became of the rows of a table that was taken in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

RowOutcome = Literal["added", "corrected", "unchanged", "refused"]


@dataclass(frozen=True, slots=True)
class RowReport:
    """What became of one row of a file."""

    line: int
    key: str
    outcome: RowOutcome
    reason: str
