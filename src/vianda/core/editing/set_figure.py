"""Figures typed, nudged or set: read in the cook's units, bounded, and written into the formula."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.batch.batch import batch_of
from vianda.core.batch.lines import Entering, entering, line_temp_c
from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.blend import shares
from vianda.core.editing.mix_groups import set_group, set_panade
from vianda.core.editing.mix_lines import change_line, known_group, line_of, put_in
from vianda.core.editing.set_shape import filling_frac, set_filling, set_size, set_thickness, size_now, with_piece_mass
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.panade import panade_figures
from vianda.core.mix.schools import group_amounts
from vianda.core.model import edit as e
from vianda.core.model.field_table import FIGURES, range_text, stored_value, with_stored
from vianda.core.model.formula import Formula, Portioning
from vianda.core.model.styles import style_of
from vianda.core.reading import entry
from vianda.core.reading.amount_entry import read_amount
from vianda.core.shape.piece import piece_now


def current_value(formula: Formula, figure: e.Figure, item: str, inventory: Inventory, kitchen: Kitchen) -> float:
    """What a figure is now.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    figure : e.Figure
        Which figure.
    item : str
        Key of what the figure is about; "" for none.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    float
        The value, in the base unit of the figure.
    """
    match figure:
        case "piece_mass" if formula.shape.portioning == "by_batch":
            return batch_of(formula, inventory=inventory, kitchen=kitchen).portions.wanted_piece_g
        case "batch_mass":
            return float(batch_of(formula, inventory=inventory, kitchen=kitchen).meat_weighed_g)
        case "thickness":
            return piece_now(formula, inventory=inventory, kitchen=kitchen).thickness_mm
        case "diameter" | "cooked_diameter" | "cooked_mass" | "length":
            return size_now(formula, figure, inventory=inventory, kitchen=kitchen)
        case "width":
            return formula.shape.width_mm or style_of(formula.dish.style).width_mm
        case "filling":
            return filling_frac(formula, inventory=inventory)
        case "share":
            return formula.parts[shares.index_of(formula.parts, item)].share_frac
        case "part_mass":
            share = formula.parts[shares.index_of(formula.parts, item)].share_frac
            return share * batch_of(formula, inventory=inventory, kitchen=kitchen).meat_weighed_g
        case "line":
            return line_of(formula.mix, item).per_meat_frac
        case "line_temp":
            return line_temp_c(Entering(line_of(formula.mix, item), inventory.pantry[item]))
        case "panade":
            return panade_figures(entering(formula.mix.lines, pantry=inventory.pantry), meat_mass_g=1.0).ratio
        case "group":
            return group_amounts(entering(formula.mix.lines, pantry=inventory.pantry))[known_group(item)]
        case _:
            return stored_value(formula, figure)


def read_figure(formula: Formula, edit: e.TypeFigure, *, inventory: Inventory, kitchen: Kitchen) -> float:
    """The typed text as a number in the figure's base unit.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.TypeFigure
        The edit.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    float
        The typed text as a number in the figure's base unit.
    """
    rule = FIGURES[edit.figure]
    system = kitchen.unit_system
    pointer = rule.pointer
    if edit.figure == "salt":
        return _read_salt(formula, edit.text, inventory, kitchen)
    readers: dict[str, Callable[[], float]] = {
        "count": lambda: entry.read_count(edit.text, field=pointer),
        "mass_g": lambda: entry.read_mass_g(edit.text, unit_system=system, field=pointer),
        "length_mm": lambda: entry.read_length_mm(edit.text, unit_system=system, field=pointer),
        "temp_c": lambda: entry.read_temp_c(edit.text, unit_system=system, field=pointer),
        "frac": lambda: entry.read_frac(edit.text, field=pointer),
        "per_hundred": lambda: entry.read_frac(edit.text, field=pointer),
        "number": lambda: entry.read_frac(edit.text, field=pointer) * 100.0,
        "minutes": lambda: entry.read_seconds(edit.text, bare_s=60.0, field=pointer) / 60.0,
        "time_s": lambda: entry.read_seconds(edit.text, bare_s=1.0, field=pointer),
    }
    return readers[rule.unit]()


def _read_salt(formula: Formula, text: str, inventory: Inventory, kitchen: Kitchen) -> float:
    """All the salt by mass of the meat: as per cent, or as what is put in (grams, teaspoons) with what comes along."""
    pointer = FIGURES["salt"].pointer
    try:
        return entry.read_frac(text, field=pointer)
    except UnreadableEntryError:
        pass
    batch = batch_of(formula, inventory=inventory, kitchen=kitchen)
    salt = kitchen_salt(kitchen.salt, inventory.pantry)
    if salt is None:
        grams = entry.read_mass_g(text, field=pointer)
    else:
        try:
            grams = read_amount(
                text, salt, meat_mass_g=batch.meat_mass_g, unit_system=kitchen.unit_system, field=pointer
            ).mass_g
        except UnreadableEntryError:
            raise UnreadableEntryError(
                f"“{text[:60]}” is not an amount of salt. Type something like 1.1 %, 37 g or 2 tsp.", field=pointer
            ) from None
    return batch.ledger.brought_frac + grams / batch.meat_mass_g


def nudge_figure(formula: Formula, edit: e.NudgeFigure, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """So many steps up or down, from one whole multiple of the step to another.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.NudgeFigure
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
    rule = FIGURES[edit.figure]
    step = rule.nudge
    if edit.figure == "piece_mass":
        step = max(step, kitchen.scale.step_g)
    # Nudges land on whole multiples of the step, so that a nudge after a typed 87 g gives 90, not 92.
    now = current_value(formula, edit.figure, edit.item, inventory, kitchen)
    ratio = now / step
    base = math.floor(ratio + 1e-9) if edit.steps > 0 else math.ceil(ratio - 1e-9)
    wanted = round((base + edit.steps) * step, 9)
    bounded = min(max(wanted, rule.low), rule.high)
    return set_figure(formula, edit.figure, bounded, edit.item, inventory=inventory, kitchen=kitchen)


def set_figure(
    formula: Formula, figure: e.Figure, value: float, item: str, *, inventory: Inventory, kitchen: Kitchen
) -> Formula:
    """The formula with one figure set, in its base unit; refused with the range when it is out of it.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    figure : e.Figure
        Which figure.
    value : float
        The value, in the base unit the name says.
    item : str
        Key of what the figure is about; "" for none.
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
        … is not a whole number.
    """
    rule = FIGURES[figure]
    if not rule.holds(value):
        raise OutOfRangeError(range_text(figure, value), field=rule.pointer)
    if rule.whole and value != int(value):
        raise OutOfRangeError(f"{value:g} is not a whole number.", field=rule.pointer)
    match figure:
        case "piece_mass":
            return with_piece_mass(formula, value)
        case "batch_mass":
            mode: Portioning = "by_weights" if formula.shape.portioning == "by_weights" else "by_batch"
            return replace(formula, shape=replace(formula.shape, batch_mass_g=value, portioning=mode))
        case "thickness":
            return set_thickness(formula, value, inventory=inventory, kitchen=kitchen)
        case "diameter" | "cooked_diameter" | "cooked_mass" | "length":
            return set_size(formula, figure, value, inventory=inventory, kitchen=kitchen)
        case "filling":
            return set_filling(formula, value, inventory=inventory)
        case "salt":
            place = formula.seasoning.salt_place
            if place == "none" and value:
                place = "surface" if formula.dish.dish == "burger" else "mixed"
            return replace(formula, seasoning=replace(formula.seasoning, salt_frac=value, salt_place=place))
        case "share":
            return replace(formula, parts=shares.set_share(formula.parts, meat=item, share_frac=value))
        case "part_mass":
            batch = batch_of(formula, inventory=inventory, kitchen=kitchen).meat_weighed_g
            if value > batch:
                raise OutOfRangeError(f"{value:.0f} g is more than the whole batch of {batch} g.", field="/parts")
            return replace(formula, parts=shares.set_share(formula.parts, meat=item, share_frac=value / batch))
        case "line":
            return put_in(formula, item, value, inventory=inventory)
        case "line_temp":
            return change_line(formula, item, temp_c=value)
        case "panade":
            return set_panade(formula, value, inventory=inventory)
        case "group":
            return set_group(formula, known_group(item), value, inventory=inventory)
        case _:
            return with_stored(formula, figure, value)
