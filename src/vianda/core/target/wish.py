"""What a cook wants of a blend: candidates, limits and an aim. Plain values; ``solve`` reads them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.option import Option
from vianda.core.model.formula import MOST_MEATS

Aim = Literal["cheapest", "nearest", "surest", "use-up-first"]
AIMS: tuple[Option, ...] = (
    Option("cheapest", "Cheapest", "least money for a kilo in the bowl"),
    Option("nearest", "Nearest to this blend", "moves the fewest grams"),
    Option("surest", "Surest", "the greatest chance of lying in the band"),
    Option("use-up-first", "Use up first", "lots whose day is soonest"),
)
MOST_CANDIDATES = 60
# Nobody weighs in less than a twentieth of something (ours).
LEAST_SHARE_FRAC = 0.05


@dataclass(frozen=True, slots=True)
class Candidate:
    """A meat that may come in: bounds on its share 0–1, and its share in the blend as it is."""

    meat: str
    lot: str = ""
    least_frac: float = 0.0
    most_frac: float = 1.0
    now_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class SpeciesLimit:
    """At least and at most so much of a species, as shares 0–1."""

    species: str
    least_frac: float = 0.0
    most_frac: float = 1.0


@dataclass(frozen=True, slots=True)
class Wish:
    """A target and how to choose among the blends that meet it.

    ``fat_low_frac`` to ``fat_high_frac`` is asked of the usual fat; with ``confidence_frac`` above zero, also of
    that many batches. ``collagen_most_frac`` limits collagen by protein. ``whole_packs`` counts the cost of packs
    that must be bought whole. ``today`` is the day, for what must be used up first.
    """

    candidates: tuple[Candidate, ...]
    fat_low_frac: float
    fat_high_frac: float
    aim: Aim = "cheapest"
    confidence_frac: float = 0.0
    species: tuple[SpeciesLimit, ...] = ()
    collagen_most_frac: float = 1.0
    most_meats: int = 4
    least_share_frac: float = LEAST_SHARE_FRAC
    whole_packs: bool = False
    use_stock: bool = True
    today: date | None = None

    def __post_init__(self) -> None:
        if not 1 <= len(self.candidates) <= MOST_CANDIDATES:
            raise OutOfRangeError(f"Choose 1 to {MOST_CANDIDATES} meats to mix from.", field="/candidates")
        if len({c.meat for c in self.candidates}) != len(self.candidates):
            raise OutOfRangeError("A meat is named twice among the candidates.", field="/candidates")
        if not 0.0 <= self.fat_low_frac <= self.fat_high_frac <= 1.0:
            raise OutOfRangeError(
                "The fat wanted rises from its least to its most, within 0 to 100 %.", field="/fat_low_frac"
            )
        if not 0.0 <= self.confidence_frac <= 0.99:
            raise OutOfRangeError("A confidence lies between 0 and 99 % of batches.", field="/confidence_frac")
        if not 1 <= self.most_meats <= MOST_MEATS:
            raise OutOfRangeError(f"A blend has 1 to {MOST_MEATS} meats.", field="/most_meats")
        if not 0.0 <= self.least_share_frac <= 0.5:
            raise OutOfRangeError("The smallest share lies between 0 and 50 %.", field="/least_share_frac")
        if not 0.0 <= self.collagen_most_frac <= 1.0:
            raise OutOfRangeError("Collagen by protein lies between 0 and 100 %.", field="/collagen_most_frac")
        for at, c in enumerate(self.candidates):
            if not (math.isfinite(c.least_frac) and 0.0 <= c.least_frac <= c.most_frac <= 1.0):
                raise OutOfRangeError(
                    "A share's bounds rise from least to most, within 0 to 100 %.", field=f"/candidates/{at}"
                )
        for at, limit in enumerate(self.species):
            if not 0.0 <= limit.least_frac <= limit.most_frac <= 1.0:
                raise OutOfRangeError(
                    "A species' bounds rise from least to most, within 0 to 100 %.", field=f"/species/{at}"
                )
