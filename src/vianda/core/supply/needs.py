"""What a dish takes, as it is bought: every meat, everything of the pantry, the bread."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.inventory.pantry import Pantry
from vianda.core.model.stocked import ItemKind
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.from_raw import COOKED_BESIDE

# Cooked in this kitchen, bought raw. A peeled egg weighs what the egg of its size is said to.
RAW: Mapping[str, str] = {
    "brown-onion": "onion",
    "soft-onion": "onion",
    "grilled-onion": "onion",
    "cooked-mushroom": "mushroom",
    "soft-pepper": "sweet-pepper",
    "boiled-egg": "egg",
}


@dataclass(frozen=True, slots=True)
class Need:
    """So much of one thing for one dish: grams as bought, pieces of bread. ``lot`` "" means any."""

    kind: ItemKind
    key: str
    name: str
    amount: float
    dish: str
    lot: str = ""


def needs_of(figures: Figures, *, dish: str = "") -> tuple[Need, ...]:
    """Everything that one dish takes, each thing once.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    dish : str, default ""
        What the dish is called.

    Returns
    -------
    tuple[Need, ...]
        Meats as bought, with what trimming and the grinder take; the mix; what comes in at the heat and round the meat;
        the salt that is added; bread in pieces.

    References
    ----------
    The same lines that cost and allergens count: ``blend.cost``, ``batch.lines``, ``cook.served``.
    """
    found: dict[tuple[str, str, str], Need] = {}
    for kind, key, name, amount, lot in _all(figures):
        if amount <= 0.0:
            continue
        at = (kind, key, lot)
        now = found[at].amount if at in found else 0.0
        found[at] = Need(kind, key, name, now + amount, dish, lot)
    return tuple(found.values())


def _all(figures: Figures) -> Iterator[tuple[ItemKind, str, str, float, str]]:
    context = figures.context
    for part, line in zip(context.formula.parts, figures.trade.cost.parts, strict=True):
        yield "meat", part.meat, context.inventory.meat(part.meat).name, line.bought_g, part.lot
    for entry in figures.mix.lines:
        yield "thing", entry.ingredient, entry.name, entry.mass_g, ""
    for thing in figures.served.things:
        if thing.kind == "bread":
            yield "bread", thing.key, thing.name, float(round(thing.used_g / context.bun.mass_g)), ""
        else:
            yield "thing", thing.key, thing.name, thing.used_g, ""
    salt = kitchen_salt(context.kitchen.salt, context.inventory.pantry)
    if salt is not None:
        yield "thing", salt.key, salt.name, figures.salt.batch_salt_g, ""


def made_of(key: str, amount_g: float, *, pantry: Pantry) -> tuple[tuple[str, float], ...]:
    """What goes into so much of what is made in the kitchen, g; nothing for what is bought.

    A house formula is made of its lines; what is cooked before it goes in, of so much more of the raw thing.

    Parameters
    ----------
    key : str
        Key of the ingredient.
    amount_g : float
        How much is made of it, g.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    tuple[tuple[str, float], ...]
        Key and grams of each line.

    Examples
    --------
    A sauce of 150 g of mayonnaise and 50 g of ketchup, 100 g made: 75 g and 25 g.
    """
    raw = RAW.get(key)
    if raw is not None and raw in pantry:
        left = COOKED_BESIDE[key].left_frac[1] if key in COOKED_BESIDE else 1.0
        return ((raw, amount_g / left),)
    thing = pantry.get(key)
    if thing is None or thing.house is None:
        return ()
    made = thing.house.yield_g or math.fsum(line.mass_g for line in thing.house.lines)
    return tuple((line.ingredient, line.mass_g * amount_g / made) for line in thing.house.lines)
