"""A lot: one delivery of a meat, with what is known of its fat."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Annotated

from annotated_types import Ge, Le, Len

from vianda.core.basis.bounds import Key, Name, Price
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.evidence import Evidence

MOST_EVIDENCE = 20


@dataclass(frozen=True, slots=True)
class Lot:
    """A delivery: what is left of it in grams, the price paid, its days, and the evidence on its fat.

    ``use_by`` None means that no day is known. A closed lot is not offered any more but still serves old formulas.
    """

    key: Key
    meat: Key
    name: Name
    left_mass_g: Annotated[float, Ge(0), Le(1_000_000)]
    price_per_kg: Price
    delivered: date
    use_by: date | None = None
    evidence: Annotated[tuple[Evidence, ...], Len(0, MOST_EVIDENCE)] = ()
    closed: bool = False

    def __post_init__(self) -> None:
        if not 0.0 <= self.left_mass_g <= 1_000_000:
            raise OutOfRangeError(f"{self.name}: a lot holds 0 g to 1000 kg.", field="/left_mass_g")
        if self.price_per_kg < 0:
            raise OutOfRangeError(f"{self.name}: a price cannot be below zero.", field="/price_per_kg")
        if self.use_by is not None and self.use_by < self.delivered:
            raise OutOfRangeError(f"{self.name}: it must be used before it came.", field="/use_by")
        if len(self.evidence) > MOST_EVIDENCE:
            raise OutOfRangeError(f"{self.name}: a lot keeps at most {MOST_EVIDENCE} findings.", field="/evidence")
