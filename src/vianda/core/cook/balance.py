"""What each part of a portion brings: the mix, and everything round it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vianda.core.batch.lines import LineFigures
from vianda.core.inventory.composition import SALT_PER_SODIUM, Composition
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.whole import KCAL_PER_G, WholeMix
from vianda.core.sauce.tastes import TASTES, tastes_of

BesideKind = Literal["cheese", "glaze", "pan-fat", "frying-fat", "bread", "sauce", "layer"]
ACID = TASTES.index("acid")


@dataclass(frozen=True, slots=True)
class Part:
    """One part of a portion before it is weighed against the others: what it is, and what of it all guests eat, g."""

    kind: BesideKind
    key: str
    name: str
    eaten_g: float
    composition: Composition


@dataclass(frozen=True, slots=True)
class BalanceRow:
    """What one part brings to one portion, g and kcal; ``kind`` "mix" is the meat with all that is mixed in.

    ``acid_g`` is as acetic, where the pantry's list of tastes knows it.
    """

    kind: BesideKind | Literal["mix"]
    name: str
    mass_g: float
    energy_kcal: float
    protein_g: float
    fat_g: float
    sugars_g: float
    salt_g: float
    acid_g: float


def balance_of(
    parts: Sequence[Part], *, lines: Sequence[LineFigures], whole: WholeMix, guests: int, inventory: Inventory
) -> tuple[BalanceRow, ...]:
    """Rows of one portion, the mix first; together they are the portion as served. None where the mix is all of it.

    Parameters
    ----------
    parts : Sequence[Part]
        Everything round the mix.
    lines : Sequence[LineFigures]
        The lines of the mix.
    whole : WholeMix
        The raw mix, g.
    guests : int
        For how many (count), 1 or more.
    inventory : Inventory
        The ingredients a formula may name.

    Returns
    -------
    tuple[BalanceRow, ...]
        One row a part, per portion.

    References
    ----------
    Energy by the Atwater general factors, 4, 9 and 4 kcal/g (USDA Agriculture Handbook 74; EU 1169/2011 Annex XIV).
    """
    if not parts:
        return ()
    acid = math.fsum(_acid(line.ingredient, line.mass_g, inventory) for line in lines)
    mix = BalanceRow(
        "mix",
        "Meat and mix",
        whole.mass_g / guests,
        (
            whole.protein_g * KCAL_PER_G["protein"]
            + whole.fat_g * KCAL_PER_G["fat"]
            + whole.carbohydrate_g * KCAL_PER_G["carbohydrate"]
        )
        / guests,
        whole.protein_g / guests,
        whole.fat_g / guests,
        whole.sugars_g / guests,
        whole.salt_g / guests,
        acid / guests,
    )
    return (mix, *(_row(part, guests, inventory) for part in parts))


def _row(part: Part, guests: int, inventory: Inventory) -> BalanceRow:
    c, each = part.composition, part.eaten_g / guests
    by = each / 100.0
    energy = (
        c.protein_g_per_100g * KCAL_PER_G["protein"]
        + c.fat_g_per_100g * KCAL_PER_G["fat"]
        + c.carbohydrate_g_per_100g * KCAL_PER_G["carbohydrate"]
    )
    return BalanceRow(
        part.kind,
        part.name,
        each,
        by * energy,
        by * c.protein_g_per_100g,
        by * c.fat_g_per_100g,
        by * c.sugars_g_per_100g,
        by * c.sodium_mg_per_100g * SALT_PER_SODIUM / 1000.0,
        _acid(part.key, each, inventory),
    )


def _acid(key: str, mass_g: float, inventory: Inventory) -> float:
    thing = inventory.pantry.get(key)
    return 0.0 if thing is None else mass_g * tastes_of(thing, pantry=inventory.pantry)[ACID] / 100.0
