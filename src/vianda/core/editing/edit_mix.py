"""Changes to the mix: amounts as they are said, groups moved as one, ingredients swapped at equal effect."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.basis.scale_step import nearest_step
from vianda.core.batch.batch import batch_of, mix_per_meat
from vianda.core.batch.lines import entering
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient, ingredient_of
from vianda.core.mix.by_eye import MEAT, Reading, inferred
from vianda.core.mix.panade import as_milk_frac, dry_matter_frac, mixed_water_uptake, same_place, water_uptake_of
from vianda.core.mix.schools import BAND_GROUPS, BandGroup, schools_for
from vianda.core.model import edit as e
from vianda.core.model.formula import MOST_LINES, MOST_PER_MEAT, Formula, Mix, MixLine
from vianda.core.reading.amount_entry import ReadAmount, read_additions, read_amount
from vianda.core.reading.entry import read_mass_g

SALT = "salt"
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


def line_of(mix: Mix, ingredient: str) -> MixLine:
    """The line of an ingredient, or ``UnknownItemError``.

    Parameters
    ----------
    mix : Mix
        Lines of the mix, and how it is worked.
    ingredient : str
        Key of the ingredient.

    Returns
    -------
    MixLine
        One ingredient of the mix by mass of the raw meat (0–5).

    Raises
    ------
    UnknownItemError
        “…” is not in this mix.
    """
    for line in mix.lines:
        if line.ingredient == ingredient:
            return line
    raise UnknownItemError(f"“{ingredient[:60]}” is not in this mix.", field="/mix/lines")


def known_group(name: str) -> BandGroup:
    """The group of that name, or ``UnknownItemError``.

    Parameters
    ----------
    name : str
        Its name, for people.

    Returns
    -------
    BandGroup
        The group of that name, or ``UnknownItemError``.

    Raises
    ------
    UnknownItemError
        No group “…” in a mix.
    """
    for group in BAND_GROUPS:
        if group == name:
            return group
    raise UnknownItemError(f"No group “{name[:40]}” in a mix.", field="/mix/lines")


def _with_lines(formula: Formula, lines: Mapping[str, MixLine]) -> Formula:
    if len(lines) > MOST_LINES:
        raise OutOfRangeError(f"A mix has at most {MOST_LINES} lines.", field="/mix/lines")
    return replace(formula, mix=replace(formula.mix, lines=tuple(lines.values())))


def _by_key(formula: Formula) -> dict[str, MixLine]:
    return {line.ingredient: line for line in formula.mix.lines}


def change_line(formula: Formula, ingredient: str, **changes: object) -> Formula:
    """One line with other fields; it must be there.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ingredient : str
        Key of the ingredient.
    **changes : object
        Changes.

    Returns
    -------
    Formula
        The changed formula.
    """
    line = line_of(formula.mix, ingredient)
    return _with_lines(formula, {**_by_key(formula), ingredient: replace(line, **changes)})  # type: ignore[arg-type]


def put_in(formula: Formula, ingredient: str, per_meat_frac: float, *, inventory: Inventory) -> Formula:
    """So much of an ingredient by mass of the meat; it joins when it was not in.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ingredient : str
        Key of the ingredient.
    per_meat_frac : float
        Mass by that of the meat, 0–5.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Formula
        The changed formula.
    """
    ingredient_of(inventory.pantry, ingredient, field="/mix/lines")
    line = _by_key(formula).get(ingredient, MixLine(ingredient, 0.0))
    lines = {**_by_key(formula), ingredient: replace(line, per_meat_frac=per_meat_frac, uncertainty_frac=0.0)}
    entering(tuple(lines.values()), pantry=inventory.pantry)
    return _with_lines(formula, lines)


def take_out(formula: Formula, ingredient: str) -> Formula:
    """An ingredient leaves.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ingredient : str
        Key of the ingredient.

    Returns
    -------
    Formula
        The changed formula.
    """
    line_of(formula.mix, ingredient)
    return _with_lines(formula, {k: line for k, line in _by_key(formula).items() if k != ingredient})


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
        lines = _by_key(formula)
        for key, amount in amounts.items():
            if amount.mass_g > MOST_PER_MEAT * meat:
                name = inventory.pantry[key].name
                raise OutOfRangeError(
                    f"{amount.mass_g:.0f} g of {name.lower()} to {meat:.0f} g of meat is more than a mix can hold.",
                    field="/mix/lines",
                )
            line = lines.get(key, MixLine(key, 0.0))
            lines[key] = replace(line, per_meat_frac=amount.mass_g / meat, uncertainty_frac=amount.uncertainty_frac)
        changed = _with_lines(formula, lines)
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
    read = read_additions(text, inventory.pantry, meat_mass_g=meat, unit_system=kitchen.unit_system, field="/mix/lines")
    in_bowl = {line.ingredient: ReadAmount(line.per_meat_frac * meat, 0.0, 0.0) for line in formula.mix.lines}
    sums: dict[str, ReadAmount] = {}
    salt_g = 0.0
    for one in read:
        if inventory.pantry[one.ingredient].group == "salt":
            salt_g += one.amount.mass_g
            continue
        before = sums.get(one.ingredient)
        if before is None and one.ingredient in in_bowl:
            now = in_bowl[one.ingredient].mass_g
            before = ReadAmount(now, now, now)
        sums[one.ingredient] = one.amount if before is None else before + one.amount
    changed = with_amounts(formula, sums, inventory=inventory, kitchen=kitchen) if sums else formula
    for one in read:
        if one.amount.pieces and one.ingredient in sums:
            changed = change_line(changed, one.ingredient, counted=True)
    return _more_salt(changed, salt_g, inventory=inventory, kitchen=kitchen) if salt_g > 0 else changed


def _more_salt(formula: Formula, salt_g: float, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    batch = batch_of(formula, inventory=inventory, kitchen=kitchen)
    frac = batch.ledger.brought_frac + salt_g / batch.meat_mass_g
    return replace(formula, seasoning=replace(formula.seasoning, salt_place="mixed", salt_frac=frac))


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
    lines = _by_key(formula)
    if not free and wanted > 1e-12:
        usual = _begun_with(formula, group, inventory)
        share = as_milk_frac(usual) if group == "liquid" else 1.0
        lines[usual.key] = MixLine(usual.key, wanted / share, counted=group in ("egg", "white"))
    for x in free:
        part = x.line.per_meat_frac / now if now > 0 else 1.0 / len(free) / weight[x.ingredient.key]
        lines[x.ingredient.key] = replace(x.line, per_meat_frac=max(0.0, wanted) * part)
    return _with_lines(formula, lines)


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
    lines = _by_key(formula)
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
    changed = _with_lines(formula, moved)
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
    before = _by_key(formula)
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
    changed = _with_lines(changed, lines)
    entering(changed.mix.lines, pantry=inventory.pantry)
    return _more_salt(changed, salt, inventory=inventory, kitchen=kitchen) if salt > 0 else changed
