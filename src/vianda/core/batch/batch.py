"""The batch: how much meat and how much mix, so that the pieces multiply back."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.scale_step import nearest_step
from vianda.core.batch.lines import Entering, entering, per_meat
from vianda.core.batch.portions import Portions, divide
from vianda.core.batch.salt_ledger import SaltLedger, salt_ledger
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula


@dataclass(frozen=True, slots=True)
class Batch:
    """The mix divided into pieces, and the meat in it.

    ``mix_per_meat`` is the mass of the whole mix by that of its meat, 1 when nothing goes in. ``meat_mass_g`` is exact;
    ``meat_weighed_g`` is what the scale shows for it. ``mix_mass_g`` is what the bowl must hold: the pieces, and
    ``loss_g`` that stays on bowl and gloves.
    """

    portions: Portions
    entered: tuple[Entering, ...]
    ledger: SaltLedger
    mix_per_meat: float
    meat_mass_g: float
    meat_weighed_g: int
    mix_mass_g: float
    loss_g: float


def mix_per_meat(formula: Formula, *, inventory: Inventory) -> tuple[tuple[Entering, ...], SaltLedger, float]:
    """The lines with their ingredients, the salt still to be added, and the mass of the mix by that of its meat.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    tuple[tuple[Entering, ...], SaltLedger, float]
        Lines, ledger, and 1 + Σ lines + salt worked in, 1 or more.
    """
    entered = entering(formula.mix.lines, pantry=inventory.pantry)
    ledger = salt_ledger(formula.seasoning, entered=entered, parts=formula.parts, inventory=inventory)
    return entered, ledger, 1.0 + per_meat(entered) + (ledger.to_add_frac if ledger.place == "mixed" else 0.0)


def batch_of(formula: Formula, *, inventory: Inventory, kitchen: Kitchen) -> Batch:
    """The batch of a formula on this kitchen's scale.

    ``by_piece``: the pieces decide the mix, and the mix its meat: meat = mix ÷ (1 + Σ lines + salt worked in).
    ``by_batch``: the meat at hand decides the mix.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Batch
        The mix divided into pieces, and the meat in it.

    Raises
    ------
    OutOfRangeError
        … g on bowl and gloves is all there is of … g.

    Examples
    --------
    >>> from vianda.core.demo.formulas import slipway_smash
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> batch_of(slipway_smash(), inventory=starter_inventory(), kitchen=yard_galley()).meat_weighed_g
    3400
    """
    entered, ledger, per = mix_per_meat(formula, inventory=inventory)
    step_g = kitchen.scale.step_g
    shape = formula.shape
    typed_meat = nearest_step(shape.batch_mass_g, step_g=step_g)
    loss = shape.loss_g
    by_piece = shape.portioning == "by_piece"
    if not by_piece and typed_meat * per <= loss:
        raise OutOfRangeError(
            f"{loss:.0f} g on bowl and gloves is all there is of {typed_meat * per:.0f} g.", field="/shape/loss_g"
        )
    portions = divide(
        portioning=shape.portioning,
        pieces=formula.dish.pieces,
        piece_mass_g=shape.piece_mass_g,
        batch_mass_g=typed_meat * per - loss,
        step_g=step_g,
        remainder=shape.remainder,
    )
    mix = portions.batch_mass_g + loss
    meat = mix / per
    weighed = max(step_g, nearest_step(meat, step_g=step_g)) if by_piece else typed_meat
    return Batch(portions, entered, ledger, per, meat, weighed, mix, loss)
