"""What is kept of a thing: how much is there, how much always should be, how it is sold, and by whom."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len

from vianda.core.basis.bounds import Key

ItemKind = Literal["meat", "thing", "bread"]
MOST_LEAD_DAYS = 30


@dataclass(frozen=True, slots=True)
class Stocked:
    """Amounts are grams; of bread they are pieces.

    Of a meat ``on_hand`` is looked at only where it lies in no lot. ``par``: so much always should be there.
    ``pack`` 0: sold loose, or in the meat's own packs. ``lead_days``: ordered so many days before it is needed.
    """

    kind: ItemKind
    key: Key
    on_hand: Annotated[float, Ge(0), Le(1_000_000)] = 0.0
    par: Annotated[float, Ge(0), Le(1_000_000)] = 0.0
    pack: Annotated[float, Ge(0), Le(100_000)] = 0.0
    supplier: Annotated[str, Len(0, 80)] = ""
    shelf: Annotated[str, Len(0, 40)] = ""
    lead_days: Annotated[int, Ge(0), Le(MOST_LEAD_DAYS)] = 0
