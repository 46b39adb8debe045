"""Fix this batch: what, and how much of it, to add to a batch that came out too lean or too fat."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.scale_step import nearest_step
from vianda.core.inventory.inventory import Inventory

HEAVIEST_G = 1_000_000.0
# Adding more than the batch itself is another batch, not a mend (ours): such answers come last.
SMALL_FRAC = 1.0


@dataclass(frozen=True, slots=True)
class Addition:
    """So many grams of a meat, on the scale's step; what the batch comes to, and what the addition costs."""

    meat: str
    name: str
    lot: str
    add_mass_g: int
    total_mass_g: float
    fat_frac: float
    cost: Decimal
    more_than_the_batch: bool


def additions(
    *,
    batch_mass_g: float,
    fat_frac: float,
    target_frac: float,
    candidates: Sequence[tuple[str, str]],
    inventory: Inventory,
    step_g: int,
) -> tuple[Addition, ...]:
    """Additions that bring a batch to a target, the smallest first; empty when none of the candidates can.

    x = m (t − f) ÷ (c − t), with c the candidate's usual fat.

    Parameters
    ----------
    batch_mass_g : float
        Mass of the batch, g, above 0.
    fat_frac : float
        Fat that it has, 0–1.
    target_frac : float
        Fat that is wanted, 0–1.
    candidates : Sequence[tuple[str, str]]
        Keys; lot "" for the meat in general.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    step_g : int
        Step of the scale, g, above 0.

    Returns
    -------
    tuple[Addition, ...]
        Each: so many grams of a meat, on the scale's step.

    Raises
    ------
    OutOfRangeError
        No batch, or fats outside 0 to 100 %.

    References
    ----------
    Arithmetic.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> found = additions(batch_mass_g=1000, fat_frac=0.10, target_frac=0.20, candidates=[("trim-50", "")],
    ...                   inventory=starter_inventory(), step_g=1)
    >>> found[0].add_mass_g, round(found[0].fat_frac, 3)
    (333, 0.2)
    """
    if not 0.0 < batch_mass_g <= HEAVIEST_G:
        raise OutOfRangeError("A batch to mend weighs more than 0 g and at most 1000 kg.", field="/batch_mass_g")
    for name, value in (("fat_frac", fat_frac), ("target_frac", target_frac)):
        if not 0.0 <= value <= 1.0:
            raise OutOfRangeError("Fat lies between 0 and 100 %.", field=f"/{name}")
    found = []
    for meat_key, lot in candidates:
        meat = inventory.meat(meat_key)
        own = inventory.fat_of(meat_key, lot).usual_frac
        # Only a meat on the far side of the target pulls the batch toward it.
        if (own - target_frac) * (target_frac - fat_frac) <= 1e-12:
            continue
        exact = batch_mass_g * (target_frac - fat_frac) / (own - target_frac)
        grams = nearest_step(exact, step_g=step_g)
        if grams == 0 or exact > HEAVIEST_G:
            continue
        total = batch_mass_g + grams
        found.append(
            Addition(
                meat=meat_key,
                name=meat.name,
                lot=lot,
                add_mass_g=grams,
                total_mass_g=total,
                fat_frac=(batch_mass_g * fat_frac + grams * own) / total,
                cost=Decimal(grams)
                / 1000
                * inventory.price_of(meat_key, lot)
                / Decimal(repr(1.0 - meat.trim_loss_frac)),
                more_than_the_batch=grams > batch_mass_g * SMALL_FRAC,
            )
        )
    return tuple(sorted(found, key=lambda a: (a.more_than_the_batch, a.add_mass_g)))
