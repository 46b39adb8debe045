"""A lot: one delivery of a meat, with what is known of its fat."""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.evidence import Evidence

_DAY = re.compile(r"\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])")
MOST_EVIDENCE = 20


@dataclass(frozen=True, slots=True)
class Lot:
    """A delivery: what is left of it in grams, the price paid, days as ISO dates, and the evidence on its fat.

    ``use_by`` "" means that no day is known. A closed lot is not offered any more but still serves old formulas.
    """

    key: str
    meat: str
    name: str
    left_mass_g: float
    price_per_kg: Decimal
    delivered: str
    use_by: str
    evidence: tuple[Evidence, ...] = ()
    closed: bool = False

    def __post_init__(self) -> None:
        if not 0.0 <= self.left_mass_g <= 1_000_000:
            raise OutOfRangeError(f"{self.name}: a lot holds 0 g to 1000 kg.", field="/left_mass_g")
        if self.price_per_kg < 0:
            raise OutOfRangeError(f"{self.name}: a price cannot be below nought.", field="/price_per_kg")
        if not _DAY.fullmatch(self.delivered):
            raise OutOfRangeError(f"{self.name}: the day of delivery is written 2026-11-24.", field="/delivered")
        if self.use_by and not _DAY.fullmatch(self.use_by):
            raise OutOfRangeError(f"{self.name}: the use-by day is written 2026-11-24.", field="/use_by")
        if self.use_by and self.use_by < self.delivered:
            raise OutOfRangeError(f"{self.name}: it must be used before it came.", field="/use_by")
        if len(self.evidence) > MOST_EVIDENCE:
            raise OutOfRangeError(f"{self.name}: a lot keeps at most {MOST_EVIDENCE} findings.", field="/evidence")
