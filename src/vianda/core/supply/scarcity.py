"""No more meat comes: who goes short, and by how much."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from vianda.core.inventory.inventory import Inventory
from vianda.core.model.stocked import Stocked
from vianda.core.supply.blends import blends_of
from vianda.core.supply.needs import Need
from vianda.core.supply.sharing import shared_out

# Less is dust of sums, g.
DUST_G = 0.5


@dataclass(frozen=True, slots=True)
class GoesShort:
    """A dish of a day that lacks so much of a meat, of what it wants, g."""

    dish: str
    day: date
    meat: str
    lacks_g: float
    wants_g: float


def who_goes_short(
    days: Iterable[tuple[date, Sequence[Need]]], *, inventory: Inventory, stock: Sequence[Stocked] = ()
) -> tuple[GoesShort, ...]:
    """Who goes short where no more meat can be bought.

    Parameters
    ----------
    days : Iterable[tuple[date, Sequence[Need]]]
        What each day takes.
    inventory : Inventory
        Meats, and lots with what is left of them.
    stock : Sequence[Stocked], default ()
        What is there of meat that lies in no lot.

    Returns
    -------
    tuple[GoesShort, ...]
        The earliest first. The least meat is lacking in all; whose it is follows the fat that blends are to keep, and
        days: the cook may share it out otherwise.

    References
    ----------
    ``supply.sharing`` with nothing to buy.

    Examples
    --------
    Two dishes take 500 g of chuck each and 700 g lie there: 300 g are lacking in all.
    """
    blends = blends_of(sorted(days, key=lambda d: d[0]), inventory=inventory, all_meat=True)
    found = shared_out(blends, inventory=inventory, may_buy=False)
    loose = {s.key: s.on_hand for s in stock if s.kind == "meat"}
    lacking: dict[tuple[str, str], float] = {}
    for short in found.short:
        took = min(short.mass_g, loose.get(short.meat, 0.0))
        loose[short.meat] = loose.get(short.meat, 0.0) - took
        at = (short.blend, short.meat)
        lacking[at] = lacking.get(at, 0.0) + short.mass_g - took
    by_key = {b.key: b for b in blends}
    return tuple(
        GoesShort(
            by_key[blend].name,
            by_key[blend].day,
            inventory.meats[meat].name,
            grams,
            sum(p.mass_g for p in by_key[blend].portions if p.meat == meat),
        )
        for (blend, meat), grams in sorted(lacking.items(), key=lambda x: (by_key[x[0][0]].day, x[0]))
        if grams > DUST_G
    )
