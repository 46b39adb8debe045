"""What a line of a mix says goes in, and what is gathered while the line is read."""

from __future__ import annotations

from dataclasses import dataclass, field

from vianda.core.basis.phrase import Phrase
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.reading.amounts import ReadAmount


@dataclass(frozen=True, slots=True)
class MixItem:
    """One ingredient of a line: how much (None when not said), its note, and the piece that said it.

    ``left_out``: it was ruled out ("no egg"). ``to_taste``: as much as tastes right.
    """

    ingredient: str
    amount: ReadAmount | None
    note: str
    piece: int
    text: str
    left_out: bool = False
    to_taste: bool = False


@dataclass(slots=True)
class MixDraft:
    """What is gathered of a line, piece by piece; ``at`` is the piece that is read now."""

    inventory: Inventory
    kitchen: Kitchen
    meat_g: float
    system: UnitSystem
    at: int = 0
    items: list[MixItem] = field(default_factory=list)
    asks: list[tuple[Phrase, int, list[tuple[Phrase, str]]]] = field(default_factory=list)
    refused: str = ""
