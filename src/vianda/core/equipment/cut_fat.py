"""How fat a cut comes to this kitchen, by its own tests, where the tables say how fat it is anywhere."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.bounds import Key, Share
from vianda.core.basis.errors import OutOfRangeError


@dataclass(frozen=True, slots=True)
class CutFat:
    """Fat of a meat as it is bought here, 0–1 by mass: in one delivery of twenty less than the low, in one more."""

    meat: Key
    low_frac: Share
    usual_frac: Share
    high_frac: Share

    def __post_init__(self) -> None:
        if not 0.0 <= self.low_frac <= self.usual_frac <= self.high_frac <= 1.0:
            raise OutOfRangeError("A fat range rises from low over usual to high, all within 0 to 100 %.")
