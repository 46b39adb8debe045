"""A sauce's lines from what a cook says, and scaled to a mass, to what there is of one thing, or to portions."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError, UnreadableEntryError
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.reading.mix_line import MixReading, read_mix

Lines = tuple[tuple[str, float], ...]
# Per cent of a sauce that is not there yet are of this much, g.
OF_NOTHING_G, LEAST_G, MOST_G = 100.0, 0.01, 1e6


@dataclass(frozen=True, slots=True)
class Composed:
    """A sauce's lines with what was said, and how that was read."""

    lines: Lines
    reading: MixReading


def composed(lines: Sequence[tuple[str, float]], text: str, *, inventory: Inventory, kitchen: Kitchen) -> Composed:
    """The lines with everything in them that a line of text names with an amount; "no relish" takes the relish out.

    Parameters
    ----------
    lines : Sequence[tuple[str, float]]
        Ingredient and grams as they stand.
    text : str
        What was typed.
    inventory : Inventory
        The meats, lots and ingredients that can be named.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Composed
        The lines, each ingredient once.

    Raises
    ------
    UnreadableEntryError
        When a word of it was not read, a choice is open, or an amount is missing: nothing is taken by halves.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> found = composed((), "150 g mayonnaise, 2 tsp mustard", inventory=starter_inventory(), kitchen=yard_galley())
    >>> [(key, round(grams)) for key, grams in found.lines]
    [('mayonnaise', 150), ('mustard', 10)]
    """
    whole = math.fsum(grams for _, grams in lines) or OF_NOTHING_G
    reading = read_mix(text, inventory=inventory, kitchen=kitchen, meat_mass_g=whole)
    open_ways = sorted({choice.text for ask in reading.asks for choice in ask.choices})
    if open_ways:
        raise UnreadableEntryError(f"Say which is meant: {' or '.join(f'“{w}”' for w in open_ways)}.", field="/text")
    if reading.unread:
        raise UnreadableEntryError(f"Not read: {', '.join(f'“{w}”' for w in reading.unread)}.", field="/text")
    lacking = [i for i in reading.items if i.amount is None and not i.left_out]
    if lacking:
        names = ", ".join(f"“{i.text}”" for i in lacking)
        raise UnreadableEntryError(f"How much of {names}? Type something like 40 g or 2 tsp.", field="/text")
    now = dict(lines)
    for item in reading.items:
        if item.left_out:
            now.pop(item.ingredient, None)
        elif item.amount is not None:
            now[item.ingredient] = now.get(item.ingredient, 0.0) + item.amount.mass_g
    now = {key: grams for key, grams in now.items() if grams > 0.0}
    if not reading.items or not now:
        raise UnreadableEntryError(
            "Nothing in it names an ingredient. Try: 150 g mayonnaise, 2 tsp mustard.", field="/text"
        )
    return Composed(tuple(now.items()), reading)


def scaled(
    lines: Sequence[tuple[str, float]], *, whole_g: float = 0.0, ingredient: str = "", mass_g: float = 0.0
) -> Lines:
    """The same sauce to another mass, or to what there is of one ingredient.

    Parameters
    ----------
    lines : Sequence[tuple[str, float]]
        Ingredient and grams.
    whole_g : float, default 0.0
        What all of it is to weigh, g; looked at when no ingredient is named.
    ingredient : str, default ""
        Key of what there is only so much of.
    mass_g : float, default 0.0
        How much there is of it, g.

    Returns
    -------
    Lines
        Every line times the same factor.

    Raises
    ------
    OutOfRangeError
        When a mass is not above zero, or more than a tonne.
    UnknownItemError
        When the ingredient is not in the sauce.

    Examples
    --------
    >>> scaled((("mayonnaise", 150.0), ("ketchup", 50.0)), whole_g=400.0)
    (('mayonnaise', 300.0), ('ketchup', 100.0))
    """
    now = dict(lines)
    if ingredient and ingredient not in now:
        raise UnknownItemError(f"There is no {ingredient} in this sauce.", field="/ingredient")
    has, wanted = (now[ingredient], mass_g) if ingredient else (math.fsum(now.values()), whole_g)
    if not LEAST_G <= wanted <= MOST_G or not has >= LEAST_G:
        raise OutOfRangeError("A sauce is scaled to 0.01 g or more and at most 1000 kg.", field="/whole_g")
    by = wanted / has
    if math.fsum(now.values()) * by > MOST_G:
        raise OutOfRangeError("That would be more than 1000 kg of sauce.", field="/mass_g")
    return tuple((key, grams * by) for key, grams in now.items())
