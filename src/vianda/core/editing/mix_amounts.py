"""Amounts of a mix as they are said or weighed: typed lines, additions, a bowl on the scale."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.scale_step import nearest_step
from vianda.core.batch.batch import batch_of, mix_per_meat
from vianda.core.batch.lines import entering
from vianda.core.editing.mix_lines import by_key, change_line, with_lines
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import ingredient_of
from vianda.core.mix.by_eye import MEAT, Reading, inferred
from vianda.core.model import edit as e
from vianda.core.model.formula import LONGEST_REMARK, MOST_PER_MEAT, Formula, MixLine
from vianda.core.reading.amount_entry import read_amount
from vianda.core.reading.amounts import ReadAmount
from vianda.core.reading.entry import read_mass_g
from vianda.core.reading.mix_line import MixReading, read_mix

SALT = "salt"
# Salt and meat of a given batch settle to a milligram: each round is off by salt over batch of the one before.
ROUNDS = 4


def with_amounts(
    formula: Formula, amounts: Mapping[str, ReadAmount], *, inventory: Inventory, kitchen: Kitchen
) -> Formula:
    """The formula with so many grams of some ingredients in this batch; the other lines keep their ratio to the meat.

    Where the pieces decide the mix, the meat makes room: its mass is found by repeating meat = mix ÷ (1 + Σ) until it
    stands still.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    amounts : Mapping[str, ReadAmount]
        Amounts already in the bowl, by ingredient.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        More than the batch can hold.
    """
    now = batch_of(formula, inventory=inventory, kitchen=kitchen)
    meat = now.meat_mass_g
    by_piece = formula.shape.portioning == "by_piece"
    if formula.shape.portioning == "by_batch":
        meat = float(nearest_step(formula.shape.batch_mass_g, step_g=kitchen.scale.step_g))
    changed = formula
    for _ in range(200):
        lines = by_key(formula)
        for key, amount in amounts.items():
            if amount.mass_g > MOST_PER_MEAT * meat:
                name = inventory.pantry[key].name
                raise OutOfRangeError(
                    f"{amount.mass_g:.0f} g of {name.lower()} to {meat:.0f} g of meat is more than a mix can hold.",
                    field="/mix/lines",
                )
            line = lines.get(key, MixLine(key, 0.0))
            lines[key] = replace(line, per_meat_frac=amount.mass_g / meat, uncertainty_frac=amount.uncertainty_frac)
        changed = with_lines(formula, lines)
        if formula.shape.portioning == "by_batch":
            return changed
        # Pieces decide the mass of the mix, whatever is in it: only its meat is looked for.
        found = (
            now.mix_mass_g / mix_per_meat(changed, inventory=inventory)[2]
            if by_piece
            else batch_of(changed, inventory=inventory, kitchen=kitchen).meat_mass_g
        )
        if abs(found - meat) < 1e-9 * meat:
            return changed
        meat = found
    raise OutOfRangeError("That is more than the pieces of this batch can hold.", field="/mix/lines")


def type_line(formula: Formula, ingredient: str, text: str, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """A line set to what was typed, in any unit.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ingredient : str
        Key of the ingredient.
    text : str
        What was typed.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.
    """
    known = ingredient_of(inventory.pantry, ingredient, field="/mix/lines")
    meat = batch_of(formula, inventory=inventory, kitchen=kitchen).meat_mass_g
    amount = read_amount(text, known, meat_mass_g=meat, unit_system=kitchen.unit_system, field="/mix/lines")
    changed = with_amounts(formula, {ingredient: amount}, inventory=inventory, kitchen=kitchen)
    return change_line(changed, ingredient, counted=amount.pieces > 0)


def add_to_mix(formula: Formula, text: str, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """Everything one line of text names goes in; salt goes to the salt of the formula.

    One bad phrase does not refuse the rest: it is kept in the formula's remark.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    text : str
        What was typed.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.
    """
    meat = batch_of(formula, inventory=inventory, kitchen=kitchen).meat_mass_g
    reading = read_mix(text, inventory=inventory, kitchen=kitchen, meat_mass_g=meat)
    read = [(i.ingredient, i.amount) for i in reading.items if i.amount is not None and i.amount.mass_g > 0]
    out = [i.ingredient for i in reading.items if i.left_out]
    asked = {choice.text for ask in reading.asks for choice in ask.choices}
    if reading.asks or not (read or out or any(i.to_taste for i in reading.items)):
        raise _nothing_taken(reading, asked)
    in_bowl = {line.ingredient: line.per_meat_frac * meat for line in formula.mix.lines}
    changed = formula
    for key in out:
        if key in in_bowl:
            changed = with_lines(changed, {k: v for k, v in by_key(changed).items() if k != key})
    sums: dict[str, ReadAmount] = {}
    salt_g = 0.0
    for key, amount in read:
        if inventory.pantry[key].group == "salt":
            salt_g += amount.mass_g
            continue
        before = sums.get(key)
        if before is None and key in in_bowl and key not in out:
            before = ReadAmount(in_bowl[key], in_bowl[key], in_bowl[key])
        sums[key] = amount if before is None else before + amount
    changed = with_amounts(changed, sums, inventory=inventory, kitchen=kitchen) if sums else changed
    for key, amount in read:
        if amount.pieces and key in sums:
            changed = change_line(changed, key, counted=True)
    if salt_g > 0:
        changed = _more_salt(changed, salt_g, inventory=inventory, kitchen=kitchen)
    # What was not taken is not lost: it stands in the remark.
    left = [*reading.unread, *(i.text for i in reading.waiting)]
    if left:
        remark = "; ".join(x for x in (changed.remark, f"Not taken into the mix: {', '.join(left)}") if x)
        changed = replace(changed, remark=remark[:LONGEST_REMARK])
    return changed


def _nothing_taken(reading: MixReading, asked: set[str]) -> UnreadableEntryError:
    """Why a line gave nothing: a choice is open, an amount is missing, or nothing in it is known."""
    if asked:
        ways = " or ".join(f"“{a}”" for a in sorted(asked))
        return UnreadableEntryError(f"Say which is meant: {ways}.", field="/mix/lines")
    if reading.waiting:
        names = ", ".join(f"“{i.text}”" for i in reading.waiting)
        return UnreadableEntryError(f"How much of {names}? Type something like 40 g or 1/3 cup.", field="/mix/lines")
    if not reading.text.strip():
        return UnreadableEntryError("Nothing was typed; say what goes in and how much.", field="/mix/lines")
    return UnreadableEntryError(
        f"“{reading.text[:40]}” names nothing in the pantry. Try: 1/2 cup panko, 1 large egg, 2 cloves garlic.",
        field="/mix/lines",
    )


def _more_salt(formula: Formula, salt_g: float, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """So many grams of salt, as typed: where the piece is given, salt worked in leaves less meat in the batch."""
    changed = formula
    for _ in range(ROUNDS):
        batch = batch_of(changed, inventory=inventory, kitchen=kitchen)
        frac = batch.ledger.brought_frac + salt_g / batch.meat_mass_g
        changed = replace(changed, seasoning=replace(changed.seasoning, salt_place="mixed", salt_frac=frac))
    return changed


def weigh_bowl(formula: Formula, edit: e.WeighBowl, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """What the scale said went in becomes the formula: the meat decides the batch, the rest stands by it.

    What was not read did not go in and leaves, but for what is held or lies in the middle. The salt stays as it was
    wanted when it was not read.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.WeighBowl
        The edit.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Formula
        The changed formula.
    """
    system = kitchen.unit_system
    bowl = read_mass_g(edit.bowl, unit_system=system, field="/bowl")
    readings = [
        Reading(r.what, read_mass_g(r.shown, unit_system=system, field=f"/readings/{at}/shown"))
        for at, r in enumerate(edit.readings)
    ]
    found = inferred(bowl, readings, step_g=kitchen.scale.step_g)
    meat = found[0].mass_g
    changed = replace(formula, shape=replace(formula.shape, portioning="by_batch", batch_mass_g=meat))
    before = by_key(formula)
    stays = {
        key: line
        for key, line in before.items()
        if line.locked or line.filling or inventory.pantry[key].group == "filling"
    }
    lines = dict(stays)
    salt = 0.0
    for one in found[1:]:
        if one.what == MEAT:
            continue
        if one.what == SALT:
            salt += one.mass_g
            continue
        ingredient_of(inventory.pantry, one.what, field="/readings")
        uncertainty = one.half_range_g / one.mass_g if one.mass_g > 0 else 0.0
        line = before.get(one.what, MixLine(one.what, 0.0))
        lines[one.what] = replace(
            line, per_meat_frac=one.mass_g / meat, uncertainty_frac=min(1.0, uncertainty), counted=False
        )
    changed = with_lines(changed, lines)
    entering(changed.mix.lines, pantry=inventory.pantry)
    return _more_salt(changed, salt, inventory=inventory, kitchen=kitchen) if salt > 0 else changed
