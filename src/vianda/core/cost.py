"""What a batch and a portion cost, in the kitchen's currency, as Decimal."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.blend import PartFigures
from vianda.core.kitchen import Bun
from vianda.core.larder import Larder


@dataclass(frozen=True, slots=True)
class CostFigures:
    """Cost of meat, of buns, of a portion; and of a kilogram of the blend."""

    meat_cost: Decimal
    buns: int
    bun_cost: Decimal
    portion_cost: Decimal
    blend_price_per_kg: Decimal
    part_costs: tuple[Decimal, ...]


def cost_figures(parts: Sequence[PartFigures], *, larder: Larder, bun: Bun, buns: int, guests: int) -> CostFigures:
    """Cost of meat as weighed, plus ``buns`` buns, divided by guests.

    Examples
    --------
    A kilogram of chuck at 9.40 for ten guests is 0.94 a portion.
    """
    grams = Decimal(1000)
    part_costs = tuple(Decimal(p.mass_g) / grams * larder.meat(p.meat).price_per_kg for p in parts)
    meat = sum(part_costs, Decimal(0))
    buns_cost = bun.price_each * buns
    batch_g = sum(p.mass_g for p in parts)
    return CostFigures(
        meat_cost=meat,
        buns=buns,
        bun_cost=buns_cost,
        portion_cost=(meat + buns_cost) / guests,
        blend_price_per_kg=meat / Decimal(batch_g) * grams,
        part_costs=part_costs,
    )
