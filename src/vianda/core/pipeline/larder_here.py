"""The larder as one kitchen has it: trimmed by its knives, bought from its suppliers."""

from __future__ import annotations

from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.fat_range import FatRange
from vianda.core.inventory.inventory import Inventory


def larder_here(inventory: Inventory, kitchen: Kitchen) -> Inventory:
    """The larder with what is the kitchen's own.

    Parameters
    ----------
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Inventory
        Cuts correlate as the kitchen's trim says; those it has learnt the fat of have that range, 0–1.
    """
    bought = {f.meat: FatRange(f.low_frac, f.usual_frac, f.high_frac) for f in kitchen.fats}
    return inventory.trimmed_by(kitchen.shared_trim_frac).bought_as(bought)
