"""Read an amount typed for one ingredient: ``1/3 cup``, ``3 cloves``, ``2 large eggs``, ``a glug``, ``8 %``."""

from __future__ import annotations

import re
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.units import UnitSystem
from vianda.core.inventory.pantry import Ingredient
from vianda.core.reading.amounts import HEAVIEST_G, ReadAmount, amount_of
from vianda.core.reading.atom import Atom
from vianda.core.reading.atoms import atoms_of
from vianda.core.reading.entry import cleaned_entry
from vianda.core.reading.lexicon import Lexicon, Sense, base_lexicon, names_of

__all__ = ["HEAVIEST_G", "ReadAmount", "read_amount"]


def _lexicon(ingredient: Ingredient) -> Lexicon:
    lexicon = Lexicon(base=base_lexicon())
    for name in names_of(ingredient):
        lexicon.add(name, Sense("ING", ingredient.key))
    for piece in ingredient.pieces:
        lexicon.add(piece.name, Sense("UNIT_PIECE", piece.name))
    return lexicon


def read_amount(
    text: str, ingredient: Ingredient, *, meat_mass_g: float, unit_system: UnitSystem = "metric", field: str = ""
) -> ReadAmount:
    """Grams of one ingredient from what was typed for it.

    Parameters
    ----------
    text : str
        Grams or ounces, a measure, a count of pieces, per cent of the meat, a vague word, or a sum with ``+``.
    ingredient : Ingredient
        The ingredient.
    meat_mass_g : float
        For per cent of the meat.
    unit_system : UnitSystem, default 'metric'
        Units that a bare number has.
    field : str, default ''
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.

    Returns
    -------
    ReadAmount
        An amount in grams with its range, and whether it was counted in whole pieces or guessed.

    Raises
    ------
    UnreadableEntryError, OutOfRangeError
    UnreadableEntryError
        “…” divides by zero.
    OutOfRangeError
        “…” is more than a tonne.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> round(read_amount("1/3 cup", starter_pantry()["dry-crumbs"], meat_mass_g=700).mass_g, 1)
    36.0
    >>> read_amount("2 large eggs", starter_pantry()["egg"], meat_mass_g=700).mass_g
    100.0
    """
    cleaned = cleaned_entry(text, field=field)
    if cleaned.startswith("-"):
        raise OutOfRangeError(f"“{cleaned}” is below zero, which nothing here can be.", field=field)
    if re.search(r"\d\s*/\s*0+(?![\d.,])", cleaned):
        raise UnreadableEntryError(f"“{cleaned}” divides by zero.", field=field)
    read = atoms_of(text, lexicon=_lexicon(ingredient), system=unit_system)
    if read.unread:
        raise _unread(text, ingredient, field)
    atoms: list[Atom] = []
    for a in read.atoms:
        if a.kinds & {"w:of"} or ("ING" in a.kinds and "UNIT_PIECE" not in a.kinds):
            if "ING" in a.kinds:
                # A number beside the name counts pieces: "2 eggs".
                atoms = [replace(x, kinds=x.kinds | {"NAMED"}) if "NUM" in x.kinds else x for x in atoms]
            continue
        atoms.append(a)
    amount = None
    if atoms:
        amount = amount_of(atoms, ingredient, meat_mass_g=meat_mass_g, unit_system=unit_system, field=field)
    if amount is None:
        raise _unread(text, ingredient, field)
    return amount


def _unread(text: str, ingredient: Ingredient, field: str) -> UnreadableEntryError:
    ways = ["40 g"]
    if ingredient.g_per_cup > 0:
        ways.append("1/3 cup")
    if ingredient.pieces:
        ways.append(f"2 × {ingredient.pieces[0].name}".replace(" ×", ""))
    return UnreadableEntryError(
        f"“{text[:40]}” is not an amount of {ingredient.name.lower()}. Type something like {', '.join(ways)}.",
        field=field,
    )
