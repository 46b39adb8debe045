"""Give an edit its meaning: a formula and an edit in, the changed formula out."""

from __future__ import annotations

from dataclasses import replace
from typing import assert_never

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.seen_text import is_seen
from vianda.core.blend import shares
from vianda.core.blend.blend import blend_meats
from vianda.core.editing.choose import choose
from vianda.core.editing.mix_amounts import add_to_mix, type_line, weigh_bowl
from vianda.core.editing.mix_groups import swap_ingredient
from vianda.core.editing.mix_lines import change_line, put_in, take_out
from vianda.core.editing.set_beside import put_beside, set_stack, take_beside, type_beside
from vianda.core.editing.set_figure import nudge_figure, read_figure, set_figure
from vianda.core.editing.set_timing import edited_timing
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.methods import check_stages
from vianda.core.inventory.inventory import Inventory
from vianda.core.model import edit as e
from vianda.core.model.formula import LONGEST_NAME, LONGEST_REMARK, MOST_STAGES, BlendPart, Formula
from vianda.core.model.styles import style_of


def apply_edit(formula: Formula, edit: e.Edit, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """The formula after one edit.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.Edit
        The edit.
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
    CoreError
        With the field and what would be accepted. The formula given is never changed.
    """
    match edit:
        case e.TypeFigure():
            return _typed(formula, edit, inventory, kitchen)
        case e.NudgeFigure():
            return nudge_figure(formula, edit, inventory=inventory, kitchen=kitchen)
        case e.SetFigure():
            return set_figure(formula, edit.figure, edit.value, edit.item, inventory=inventory, kitchen=kitchen)
        case e.MoveEdge():
            return replace(formula, parts=shares.move_edge(formula.parts, index=edit.index, at_frac=edit.at_frac))
        case e.AddMeat():
            inventory.meat(edit.meat)
            return replace(formula, parts=shares.add_meat(formula.parts, meat=edit.meat))
        case e.SwapMeat():
            return _swap(formula, edit, inventory)
        case e.RemoveMeat():
            return replace(formula, parts=shares.remove_meat(formula.parts, meat=edit.meat))
        case e.LockMeat():
            at = shares.index_of(formula.parts, edit.meat)
            parts = list(formula.parts)
            parts[at] = replace(parts[at], locked=edit.locked)
            return replace(formula, parts=tuple(parts))
        case e.PickLot():
            if edit.lot:
                inventory.lot(edit.lot, meat=edit.meat, field="/parts")
            at = shares.index_of(formula.parts, edit.meat)
            lotted = list(formula.parts)
            lotted[at] = replace(lotted[at], lot=edit.lot)
            return replace(formula, parts=tuple(lotted))
        case e.LayOut():
            return _lay_out(formula, edit, inventory)
        case e.Choose():
            return choose(formula, edit, inventory=inventory, kitchen=kitchen)
        case e.AddToMix():
            return add_to_mix(formula, edit.text, inventory=inventory, kitchen=kitchen)
        case e.PutIn():
            return put_in(formula, edit.ingredient, edit.per_meat_frac, inventory=inventory)
        case e.TakeOut():
            return take_out(formula, edit.ingredient)
        case e.SwapIngredient():
            return swap_ingredient(formula, edit.ingredient, edit.to, inventory=inventory)
        case e.HoldLine():
            return change_line(formula, edit.ingredient, locked=edit.locked)
        case e.CountLine():
            return change_line(formula, edit.ingredient, counted=edit.counted)
        case e.KeepLimit():
            kept = tuple(limit for limit in formula.mix.avoid if limit != edit.limit)
            return replace(formula, mix=replace(formula.mix, avoid=(*kept, edit.limit) if edit.on else kept))
        case e.KeepOut():
            out = tuple(thing for thing in formula.mix.without if thing != edit.thing)
            return replace(formula, mix=replace(formula.mix, without=(*out, edit.thing) if edit.on else out))
        case e.WeighBowl():
            return weigh_bowl(formula, edit, inventory=inventory, kitchen=kitchen)
        case e.SetStages():
            return _with_stages(formula, edit, kitchen)
        case e.PutBeside():
            return put_beside(formula, edit, inventory=inventory, kitchen=kitchen)
        case e.TakeBeside():
            return take_beside(formula, edit.ingredient)
        case e.TypeBeside():
            return type_beside(formula, edit, inventory=inventory, kitchen=kitchen)
        case e.SetStack():
            return set_stack(formula, edit, inventory=inventory, kitchen=kitchen)
        case e.TypeTiming() | e.AddTask() | e.DropTask() | e.PinTask() | e.AddAway() | e.DropAway():
            return replace(formula, timing=edited_timing(formula.timing, edit, kitchen=kitchen))
        case e.Rename():
            return replace(formula, name=checked_name(edit.name))
        case e.WriteRemark():
            if len(edit.text) > LONGEST_REMARK:
                raise OutOfRangeError(f"A remark has at most {LONGEST_REMARK} characters.", field="/remark")
            return replace(formula, remark=edit.text)
        case _:
            assert_never(edit)


def _typed(formula: Formula, edit: e.TypeFigure, inventory: Inventory, kitchen: Kitchen) -> Formula:
    if edit.figure == "line":
        return type_line(formula, edit.item, edit.text, inventory=inventory, kitchen=kitchen)
    value = read_figure(formula, edit, inventory=inventory, kitchen=kitchen)
    return set_figure(formula, edit.figure, value, edit.item, inventory=inventory, kitchen=kitchen)


def checked_name(name: str) -> str:
    """A formula's name without outer blanks, or ``OutOfRangeError`` when empty or too long.

    Parameters
    ----------
    name : str
        Its name, for people.

    Returns
    -------
    str
        The text.

    Raises
    ------
    OutOfRangeError
        A name has 1 to … visible characters.
    """
    name = " ".join(name.split())
    if not name or len(name) > LONGEST_NAME or not is_seen(name):
        raise OutOfRangeError(f"A name has 1 to {LONGEST_NAME} visible characters.", field="/name")
    return name


def _swap(formula: Formula, edit: e.SwapMeat, inventory: Inventory) -> Formula:
    inventory.meat(edit.to)
    at = shares.index_of(formula.parts, edit.meat)
    if any(p.meat == edit.to for p in formula.parts):
        raise OutOfRangeError("That meat is in the blend already.", field="/parts")
    parts = list(formula.parts)
    parts[at] = replace(parts[at], meat=edit.to, lot="")
    return replace(formula, parts=tuple(parts))


def _lay_out(formula: Formula, edit: e.LayOut, inventory: Inventory) -> Formula:
    if len(edit.meats) != len(edit.shares_frac):
        raise OutOfRangeError("A blend names one share for each meat.", field="/parts")
    before = {p.meat: p for p in formula.parts}
    parts = tuple(
        replace(before.get(meat, BlendPart(meat, 0.0)), share_frac=share)
        for meat, share in zip(edit.meats, edit.shares_frac, strict=True)
    )
    blend_meats(parts, inventory=inventory)
    return replace(formula, parts=parts)


def _with_stages(formula: Formula, edit: e.SetStages, kitchen: Kitchen) -> Formula:
    if len(edit.stages) > MOST_STAGES:
        raise OutOfRangeError(f"A cook has at most {MOST_STAGES} stages.", field="/heat/stages")
    surface = kitchen.surface(formula.heat.surface, field="/heat/surface")
    check_stages(edit.stages, form=style_of(formula.dish.style).form, on=surface.kind, kitchen=kitchen)
    return replace(formula, heat=replace(formula.heat, stages=edit.stages))
