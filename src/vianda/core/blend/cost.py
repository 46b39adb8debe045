"""Money and yield: what is bought, what trimming and grinding leave, and what a portion costs, as Decimal."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.blend.blend import PartFigures
from vianda.core.equipment.kitchen import Bun
from vianda.core.inventory.inventory import Inventory, Meat

_GRAMS = Decimal(1000)


@dataclass(frozen=True, slots=True)
class PartCost:
    """One meat from shop to bowl, in grams, with its cost; ``price_per_kg_used`` compares two cuts fairly.

    ``packs``: whole packs to buy when it is sold in packs, else 0.
    """

    meat: str
    bought_g: float
    trimmed_g: float
    used_g: int
    price_per_kg: Decimal
    price_per_kg_used: Decimal
    cost: Decimal
    packs: int


@dataclass(frozen=True, slots=True)
class CostFigures:
    """Cost of meat, of what goes into it and onto it at the heat, of buns, of a portion; and of a kilogram of the blend
    as used."""

    meat_cost: Decimal
    mix_cost: Decimal
    buns: int
    bun_cost: Decimal
    portion_cost: Decimal
    blend_price_per_kg: Decimal
    part_costs: tuple[Decimal, ...]
    parts: tuple[PartCost, ...] = ()
    heat_cost: Decimal = Decimal(0)


def usable_frac(meat: Meat, *, grind_loss_frac: float) -> float:
    """What is left of a bought kilogram in the bowl, 0–1: (1 − trim loss) × (1 − grind loss).

    What comes ground already loses nothing to a grinder.

    Parameters
    ----------
    meat : Meat
        The meat.
    grind_loss_frac : float
        What stays in the grinder of what goes in, 0–1.

    Returns
    -------
    float
        What is left of a bought gram, 0–1.

    References
    ----------
    Arithmetic; trim losses are our estimates.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> round(usable_frac(starter_inventory().meat("short-rib-plate"), grind_loss_frac=0.02), 3)
    0.608
    """
    loss = 0.0 if meat.kind == "ground" else grind_loss_frac
    return (1.0 - meat.trim_loss_frac) * (1.0 - loss)


def price_per_kg_used(meat: Meat, price_per_kg: Decimal, *, grind_loss_frac: float) -> Decimal:
    """Price of a kilogram in the bowl: price as bought ÷ usable fraction.

    Parameters
    ----------
    meat : Meat
        The meat.
    price_per_kg : Decimal
        Price, currency units a kilogram.
    grind_loss_frac : float
        What stays in the grinder of what goes in, 0–1.

    Returns
    -------
    Decimal
        Price of a kilogram in the bowl.

    References
    ----------
    Arithmetic.
    """
    return price_per_kg / Decimal(repr(usable_frac(meat, grind_loss_frac=grind_loss_frac)))


def cost_figures(
    parts: Sequence[PartFigures],
    *,
    inventory: Inventory,
    bun: Bun,
    buns: int,
    guests: int,
    grind_loss_frac: float,
    mix_cost: Decimal = Decimal(0),
    heat_cost: Decimal = Decimal(0),
) -> CostFigures:
    """Cost of the meat that must be bought for these parts, the mix and ``buns`` buns, divided by guests.

    Parameters
    ----------
    parts : Sequence[PartFigures]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    bun : Bun
        The bread.
    buns : int
        Buns bought (count).
    guests : int
        Guests, 1 or more (count).
    grind_loss_frac : float
        What stays in the grinder of what goes in, 0–1.
    mix_cost : Decimal, default Decimal(0)
        Cost of what goes into the meat, currency units.
    heat_cost : Decimal, default Decimal(0)
        Cost of what comes in at the heat, currency units.

    Returns
    -------
    CostFigures
        Cost of meat, of what goes into it, of buns, of a portion.

    Examples
    --------
    A kilogram of chuck at 9.40, of which 8 % is trimmed away, costs 10.22 in the bowl.
    """
    lines = tuple(_line(p, inventory=inventory, grind_loss_frac=grind_loss_frac) for p in parts)
    meat = sum((line.cost for line in lines), Decimal(0))
    buns_cost = bun.price_each * buns
    batch_g = sum(p.mass_g for p in parts)
    return CostFigures(
        meat_cost=meat,
        mix_cost=mix_cost,
        buns=buns,
        bun_cost=buns_cost,
        portion_cost=(meat + mix_cost + heat_cost + buns_cost) / guests,
        blend_price_per_kg=meat / Decimal(batch_g) * _GRAMS,
        part_costs=tuple(line.cost for line in lines),
        parts=lines,
        heat_cost=heat_cost,
    )


def _line(part: PartFigures, *, inventory: Inventory, grind_loss_frac: float) -> PartCost:
    meat = inventory.meat(part.meat)
    price = inventory.price_of(part.meat, part.lot)
    used_price = price_per_kg_used(meat, price, grind_loss_frac=grind_loss_frac)
    bought = part.mass_g / usable_frac(meat, grind_loss_frac=grind_loss_frac)
    return PartCost(
        meat=part.meat,
        bought_g=bought,
        trimmed_g=bought * (1.0 - meat.trim_loss_frac),
        used_g=part.mass_g,
        price_per_kg=price,
        price_per_kg_used=used_price,
        cost=Decimal(part.mass_g) / _GRAMS * used_price,
        packs=-int(-bought // meat.pack_mass_g) if meat.pack_mass_g > 0 and part.mass_g > 0 else 0,
    )
