"""The lines of a mix, one at a time: found, changed, put in and taken out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.batch.lines import entering
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import ingredient_of
from vianda.core.mix.schools import BAND_GROUPS, BandGroup
from vianda.core.model.formula import MOST_LINES, Formula, Mix, MixLine


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


def with_lines(formula: Formula, lines: Mapping[str, MixLine]) -> Formula:
    """The formula with these lines for its mix.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    lines : Mapping[str, MixLine]
        The lines by the key of their ingredient, in order.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        More lines than a mix has.
    """
    if len(lines) > MOST_LINES:
        raise OutOfRangeError(f"A mix has at most {MOST_LINES} lines.", field="/mix/lines")
    return replace(formula, mix=replace(formula.mix, lines=tuple(lines.values())))


def by_key(formula: Formula) -> dict[str, MixLine]:
    """The lines of a formula's mix by the key of their ingredient, in order.

    Parameters
    ----------
    formula : Formula
        The design of one dish.

    Returns
    -------
    dict[str, MixLine]
        The lines, free to be changed.
    """
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
    return with_lines(formula, {**by_key(formula), ingredient: replace(line, **changes)})  # type: ignore[arg-type]


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
    line = by_key(formula).get(ingredient, MixLine(ingredient, 0.0))
    lines = {**by_key(formula), ingredient: replace(line, per_meat_frac=per_meat_frac, uncertainty_frac=0.0)}
    entering(tuple(lines.values()), pantry=inventory.pantry)
    return with_lines(formula, lines)


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
    return with_lines(formula, {k: line for k, line in by_key(formula).items() if k != ingredient})
