"""Edits of what goes with a formula: put beside, taken away, dosed; and the layers of its build."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError, UnreadableEntryError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import ingredient_of
from vianda.core.model import edit as e
from vianda.core.model.formula import BREAD_LAYERS, MOST_BESIDE, MOST_LAYERS, Accompaniment, Formula
from vianda.core.reading.amount_entry import read_amount
from vianda.core.reading.entry import read_count, read_length_mm
from vianda.core.sauce.dose import grams_for
from vianda.core.sauce.figures import usual_grams

MOST_DOSE_G, MOST_MADE_G, MOST_COATS = 5000.0, 1_000_000.0, 12


def put_beside(formula: Formula, edit: e.PutBeside, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """The formula with one more thing that goes with it, in the usual dose of its role.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.PutBeside
        What, and what it is for.
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
        When there is no room for one more.
    UnknownItemError
        When the pantry does not hold it.
    """
    ingredient_of(inventory.pantry, edit.ingredient, field="/beside")
    bread = _bread_mm(formula, kitchen)
    coats = 2 if edit.role == "glaze" else 0
    put = Accompaniment(edit.role, edit.ingredient, usual_grams(edit.role, bread_mm=bread).usual, coats=coats)
    known = [a.ingredient for a in formula.beside]
    if edit.ingredient in known:
        at = known.index(edit.ingredient)
        put = replace(put, made_g=formula.beside[at].made_g)
        return replace(formula, beside=(*formula.beside[:at], put, *formula.beside[at + 1 :]))
    if len(formula.beside) >= MOST_BESIDE:
        raise OutOfRangeError(f"At most {MOST_BESIDE} things go with one formula.", field="/beside")
    return replace(formula, beside=(*formula.beside, put))


def take_beside(formula: Formula, ingredient: str) -> Formula:
    """The formula without one thing that went with it, and without its layers in the build.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    ingredient : str
        Key of the thing.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    UnknownItemError
        When it does not go with it.
    """
    _index(formula, ingredient)
    return replace(
        formula,
        beside=tuple(a for a in formula.beside if a.ingredient != ingredient),
        stack=tuple(x for x in formula.stack if x.kind != "sauce" or x.ingredient != ingredient),
    )


def type_beside(formula: Formula, edit: e.TypeBeside, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """A figure of what goes with it, from what was typed.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.TypeBeside
        Which figure, and the text.
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
    UnknownItemError
        When it does not go with the formula.
    UnreadableEntryError
        When the text is no amount of it.
    OutOfRangeError
        When it is more than can be.
    """
    at = _index(formula, edit.ingredient)
    now = formula.beside[at]
    if edit.what == "coats":
        coats = read_count(edit.text, field="/beside")
        if not 0 <= coats <= MOST_COATS:
            raise OutOfRangeError(f"A glaze has 0 to {MOST_COATS} coats.", field="/beside")
        changed = replace(now, coats=coats)
    else:
        thing = ingredient_of(inventory.pantry, edit.ingredient, field="/beside")
        bread_mm = _bread_mm(formula, kitchen) if now.role == "burger-sauce" else 0.0
        coat_mm = _coat_mm(edit.text) if edit.what == "dose" and bread_mm > 0.0 else None
        if coat_mm is not None:
            grams = grams_for(coat_mm, diameter_mm=bread_mm)
        else:
            grams = read_amount(
                edit.text, thing, meat_mass_g=1000.0, unit_system=kitchen.unit_system, field="/beside"
            ).mass_g
        most = MOST_DOSE_G if edit.what == "dose" else MOST_MADE_G
        if grams > most:
            raise OutOfRangeError(f"That is more than {most:.0f} g.", field="/beside")
        changed = replace(now, dose_g=grams) if edit.what == "dose" else replace(now, made_g=grams)
    return replace(formula, beside=(*formula.beside[:at], changed, *formula.beside[at + 1 :]))


def _bread_mm(formula: Formula, kitchen: Kitchen) -> float:
    return next((b.diameter_mm for b in kitchen.buns if b.key == formula.shape.bun), 0.0)


def _coat_mm(text: str) -> float | None:
    """How thick a sauce is to lie on its bread, where that is what was typed: only what names a length."""
    if not any(unit in text.casefold() for unit in ("mm", "cm", "in", '"', "″")):
        return None
    try:
        return read_length_mm(text, field="/beside")
    except UnreadableEntryError:
        return None


def set_stack(formula: Formula, edit: e.SetStack, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """The formula with these layers; none goes back to the usual build.

    A layer of bread brings the kitchen's first bread where the formula has none: it is eaten, and counts.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    edit : e.SetStack
        Layers from below.
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
        When there are too many layers, one weighs too much, or there is no bread for a layer of it.
    UnknownItemError
        When a layer names what the pantry does not hold.
    """
    if len(edit.layers) > MOST_LAYERS:
        raise OutOfRangeError(f"A build has at most {MOST_LAYERS} layers.", field="/stack")
    for at, layer in enumerate(edit.layers):
        if layer.ingredient:
            ingredient_of(inventory.pantry, layer.ingredient, field=f"/stack/{at}/ingredient")
        if not 0.0 <= layer.mass_g <= 2000.0:
            raise OutOfRangeError("A layer weighs 0 to 2000 g.", field=f"/stack/{at}/mass_g")
    changed = replace(formula, stack=edit.layers)
    built = any(layer.kind in BREAD_LAYERS for layer in edit.layers)
    if not built or kitchen.bun(formula.shape.bun).diameter_mm > 0:
        return changed
    bread = next((bun for bun in kitchen.buns if bun.diameter_mm > 0), None)
    if bread is None:
        raise OutOfRangeError("This kitchen has no bread to build with: write one down in the kitchen.", field="/stack")
    return replace(changed, shape=replace(formula.shape, bun=bread.key))


def _index(formula: Formula, ingredient: str) -> int:
    for at, a in enumerate(formula.beside):
        if a.ingredient == ingredient:
            return at
    raise UnknownItemError(f"“{ingredient[:60]}” does not go with this formula.", field="/beside")
