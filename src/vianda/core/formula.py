"""The formula: the design of one dish. Plain values; nothing here is computed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Dish = Literal["burger"]
Portioning = Literal["by_piece", "by_batch"]
SaltPlace = Literal["surface", "none"]
Keep = Literal["fresh", "made-ahead", "frozen"]

LONGEST_NAME = 80
LONGEST_REMARK = 2000
MOST_MEATS = 8


@dataclass(frozen=True, slots=True)
class DishChoice:
    """What it is, for how many, how many pieces each."""

    dish: Dish
    style: str
    guests: int
    pieces_per_guest: int

    @property
    def pieces(self) -> int:
        """Pieces in the batch: guests × pieces each."""
        return self.guests * self.pieces_per_guest


@dataclass(frozen=True, slots=True)
class BlendPart:
    """One meat and its share of the batch, 0–1. A locked share stays when others move. ``lot`` "" means any."""

    meat: str
    share_frac: float
    locked: bool = False
    lot: str = ""


@dataclass(frozen=True, slots=True)
class Grind:
    """How the meat is cut up, on which of the kitchen's tools ("" lets the plan choose), and when it is used."""

    tool: str = ""
    keep: Keep = "fresh"
    services_per_week: int = 1


@dataclass(frozen=True, slots=True)
class Seasoning:
    """Salt by mass of the raw meat, 0–1, and where it goes."""

    salt_frac: float
    salt_place: SaltPlace


@dataclass(frozen=True, slots=True)
class Shape:
    """How the batch is divided and how thick the raw piece is.

    ``by_piece``: the wanted piece decides the batch. ``by_batch``: the batch at hand decides the piece.
    Both masses are kept, so that switching back and forth loses neither.
    """

    portioning: Portioning
    piece_mass_g: float
    batch_mass_g: float
    thickness_mm: float
    bun: str


@dataclass(frozen=True, slots=True)
class Heat:
    """Where it cooks, how hot the surface is meant to be, and the core wanted."""

    surface: str
    surface_temp_c: float
    core_target_c: float


@dataclass(frozen=True, slots=True)
class Formula:
    """The design of one dish, complete enough to be evaluated."""

    name: str
    dish: DishChoice
    parts: tuple[BlendPart, ...]
    seasoning: Seasoning
    shape: Shape
    heat: Heat
    remark: str = ""
    grind: Grind = Grind()
