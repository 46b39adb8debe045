"""Groups of a mix moved as one, and ingredients swapped at equal effect."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.batch.lines import entering
from vianda.core.editing.mix_lines import by_key, line_of, take_out, with_lines
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient, ingredient_of
from vianda.core.mix.panade import as_milk_frac, dry_matter_frac, mixed_water_uptake, same_place, water_uptake_of
from vianda.core.mix.schools import BandGroup, schools_for
from vianda.core.model.formula import Formula, MixLine

# What a group is begun with when no school of the dish uses it.
_USUAL: Mapping[BandGroup, str] = {
    "crumb": "panko",
    "bread": "fresh-crumbs",
    "starch": "rice",
    "liquid": "milk",
    "egg": "egg",
    "white": "egg-white",
    "cheese": "parmesan",
    "onion": "soft-onion",
    "tomato": "tomatoes",
}


def set_group(formula: Formula, group: BandGroup, per_meat_frac: float, *, inventory: Inventory) -> Formula:
    """A whole group moved to so much by mass of the meat: its unlocked lines keep their ratio to each other.

    An empty group is begun with what a school of this dish uses, or the usual one. Liquid is computed as milk.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    group : BandGroup
        Group of the mix.
    per_meat_frac : float
        Mass by that of the meat, 0–5.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        Below what its locked lines hold.
    """
    entered = [x for x in entering(formula.mix.lines, pantry=inventory.pantry) if x.group == group]
    weight = {x.ingredient.key: as_milk_frac(x.ingredient) if group == "liquid" else 1.0 for x in entered}
    held = sum(x.line.per_meat_frac * weight[x.ingredient.key] for x in entered if x.line.locked)
    free = [x for x in entered if not x.line.locked]
    wanted = per_meat_frac - held
    if wanted < -1e-9:
        raise OutOfRangeError(
            f"Locked lines hold {held * 100:.3g} parts of it; let one go to come below.", field="/mix/lines"
        )
    now = sum(x.line.per_meat_frac * weight[x.ingredient.key] for x in free)
    lines = by_key(formula)
    if not free and wanted > 1e-12:
        usual = _begun_with(formula, group, inventory)
        share = as_milk_frac(usual) if group == "liquid" else 1.0
        lines[usual.key] = MixLine(usual.key, wanted / share, counted=group in ("egg", "white"))
    for x in free:
        part = x.line.per_meat_frac / now if now > 0 else 1.0 / len(free) / weight[x.ingredient.key]
        lines[x.ingredient.key] = replace(x.line, per_meat_frac=max(0.0, wanted) * part)
    return with_lines(formula, lines)


def set_panade(formula: Formula, ratio: float, *, inventory: Inventory) -> Formula:
    """The liquid moved to so many parts (as milk) to one of crumb.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ratio : float
        Parts of liquid (as milk) to one of dry crumb, 0 or more.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        Without crumb there is no panade to wet.
    """
    entered = entering(formula.mix.lines, pantry=inventory.pantry)
    crumb = sum(x.line.per_meat_frac for x in entered if water_uptake_of(x.ingredient))
    if crumb <= 0:
        raise OutOfRangeError("There is no crumb or bread in the mix to wet.", field="/mix/lines")
    return set_group(formula, "liquid", ratio * crumb, inventory=inventory)


def _begun_with(formula: Formula, group: BandGroup, inventory: Inventory) -> Ingredient:
    taken = {line.ingredient for line in formula.mix.lines}
    offered = [key for school in schools_for(formula.dish.dish) for key, _ in school.lines] + [_USUAL[group]]
    for key in offered:
        if key in inventory.pantry and key not in taken and inventory.pantry[key].group == group:
            return inventory.pantry[key]
    for ingredient in inventory.pantry.values():
        if ingredient.group == group and ingredient.key not in taken and not ingredient.retired:
            return ingredient
    raise UnknownItemError("The pantry holds nothing of that kind.", field="/mix/lines")


def swap_ingredient(formula: Formula, ingredient: str, to: str, *, inventory: Inventory) -> Formula:
    """One ingredient for another at equal effect.

    Crumb for crumb: equal dry matter, and the unlocked liquid is moved so that the panade stays as wet as it was.
    Liquid for liquid: equal water. Anything else: equal mass. "" for ``to`` leaves it out.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ingredient : str
        Key of the ingredient.
    to : str
        Key of the ingredient that takes its place.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        … is in the mix already.
    """
    if not to:
        return take_out(formula, ingredient)
    line = line_of(formula.mix, ingredient)
    old = ingredient_of(inventory.pantry, ingredient, field="/mix/lines")
    new = ingredient_of(inventory.pantry, to, field="/mix/lines")
    lines = by_key(formula)
    if to in lines:
        raise OutOfRangeError(f"{new.name} is in the mix already.", field="/mix/lines")
    per = line.per_meat_frac
    if water_uptake_of(old) and water_uptake_of(new):
        per *= dry_matter_frac(old) / dry_matter_frac(new)
    elif old.group == new.group == "liquid" and as_milk_frac(new) > 0:
        per *= as_milk_frac(old) / as_milk_frac(new)
    moved = {
        (to if key == ingredient else key): (
            replace(old_line, ingredient=to, per_meat_frac=per, uncertainty_frac=0.0, temp_c=None, counted=False)
            if key == ingredient
            else old_line
        )
        for key, old_line in lines.items()
    }
    changed = with_lines(formula, moved)
    entering(changed.mix.lines, pantry=inventory.pantry)
    if water_uptake_of(old) and water_uptake_of(new):
        changed = _as_wet(formula, changed, inventory)
    return changed


def _as_wet(before: Formula, after: Formula, inventory: Inventory) -> Formula:
    """The liquid moved so that the panade is as far along as it was; locked liquid stays, and decides."""
    old, new = (entering(f.mix.lines, pantry=inventory.pantry) for f in (before, after))
    uptake_old, uptake_new = mixed_water_uptake(old), mixed_water_uptake(new)
    liquids = [x for x in new if x.group == "liquid"]
    if uptake_old is None or uptake_new is None or not any(not x.line.locked for x in liquids):
        return after
    crumb_old = sum(x.line.per_meat_frac for x in old if water_uptake_of(x.ingredient))
    crumb_new = sum(x.line.per_meat_frac for x in new if water_uptake_of(x.ingredient))
    liquid = sum(x.line.per_meat_frac * as_milk_frac(x.ingredient) for x in liquids)
    held = sum(x.line.per_meat_frac * as_milk_frac(x.ingredient) for x in liquids if x.line.locked)
    wanted = same_place(liquid / crumb_old, uptake_old, uptake_new) * crumb_new
    return set_group(after, "liquid", max(held, wanted), inventory=inventory)
