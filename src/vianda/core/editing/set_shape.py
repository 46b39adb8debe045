"""Sizes wanted, turned into what a formula holds: a weight, a thickness, a share of filling."""

from __future__ import annotations

import math
from dataclasses import replace

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.lines import entering, per_meat
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model import edit as e
from vianda.core.model.field_table import FIGURES, range_text
from vianda.core.model.formula import Formula, MixLine, Portioning
from vianda.core.model.styles import FLAT, style_of
from vianda.core.shape.figures import ShapeFigures, outline_mm
from vianda.core.shape.piece import bread_of, mould_of, piece_now
from vianda.core.shape.solids import loaf_volume_ml


def size_now(formula: Formula, figure: e.Figure, *, inventory: Inventory, kitchen: Kitchen) -> float:
    """The size as it stands, in mm or g.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    figure : e.Figure
        Which figure.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    float
        The size as it stands, in mm or g.
    """
    piece = piece_now(formula, inventory=inventory, kitchen=kitchen)
    if figure == "cooked_diameter":
        return piece.cooked_diameter_mm.usual
    if figure == "cooked_mass":
        return piece.cooked_mass_g.usual
    return piece.length_mm


def set_size(formula: Formula, figure: e.Figure, value: float, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """The formula whose piece comes to a size.

    A flat piece keeps its mass and changes its thickness, unless a ring or the bread fixes how wide it is; a ball and a
    loaf change their mass. A cooked weight is divided by the usual yield.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    figure : e.Figure
        Which figure.
    value : float
        The value, in the base unit the name says.
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
        When something else decides that size, or it asks for a thickness or a mass beyond its range.
    """
    piece = piece_now(formula, inventory=inventory, kitchen=kitchen)
    mass = _mass_now(formula, piece)
    if figure == "cooked_mass":
        return with_piece_mass(formula, value / piece.cooked_yield_frac.usual)
    if piece.form == "crumbled":
        raise OutOfRangeError("What is crumbled has no size; set its weight.", field="/shape/piece_mass_g")
    if figure == "cooked_diameter":
        value = value * piece.raw_diameter_mm / piece.cooked_diameter_mm.usual
    if piece.form in FLAT:
        _refuse_fixed(formula, kitchen)
        return with_thickness(formula, piece.volume_ml * 4000.0 / (math.pi * value**2))
    if piece.form == "ball":
        return with_piece_mass(formula, mass * (value / piece.raw_diameter_mm) ** 3)
    if piece.vessel is not None:
        raise OutOfRangeError(f"The length is that of “{piece.mould_name}”.", field="/shape/mould")
    if piece.form == "loaf":
        volume = loaf_volume_ml(
            length_mm=value, width_mm=piece.width_mm, height_mm=piece.thickness_mm, ends=formula.shape.ends
        )
        if volume <= 0:
            raise OutOfRangeError("That is shorter than its two ends.", field="/shape/piece_mass_g")
        return with_piece_mass(formula, mass * volume / piece.volume_ml)
    return with_piece_mass(formula, mass * value / piece.length_mm)


def _mass_now(formula: Formula, piece: ShapeFigures) -> float:
    return piece.cooked_mass_g.usual / piece.cooked_yield_frac.usual


def _refuse_fixed(formula: Formula, kitchen: Kitchen) -> None:
    style = style_of(formula.dish.style)
    bun, mould = bread_of(formula, style=style, kitchen=kitchen), mould_of(formula, style=style, kitchen=kitchen)
    if outline_mm(style.form, bun=bun, mould=mould):
        name = mould.name if mould is not None and mould.kind == "ring" else bun.name
        raise OutOfRangeError(f"“{name}” decides how wide it is; choose another, or none.", field="/shape/mould")


def set_thickness(formula: Formula, value: float, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """Another thickness or height. Where a ring, bread, tin or tray fixes the outline, the mass follows.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    value : float
        The value, in the base unit the name says.
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
        “…” is … mm high.
    """
    style = style_of(formula.dish.style, field="/dish/style")
    mould = mould_of(formula, style=style, kitchen=kitchen)
    fixed = outline_mm(style.form, bun=bread_of(formula, style=style, kitchen=kitchen), mould=mould)
    vessel = mould if style.form in ("tin", "tray") else None
    if not fixed and vessel is None:
        return with_thickness(formula, value)
    piece = piece_now(formula, inventory=inventory, kitchen=kitchen)
    mass = _mass_now(formula, piece)
    if vessel is None:
        return with_piece_mass(formula, mass * value / piece.thickness_mm)
    if value > vessel.height_mm:
        raise OutOfRangeError(f"“{vessel.name}” is {vessel.height_mm:.0f} mm high.", field="/shape/thickness_mm")
    return with_piece_mass(formula, mass * vessel.filled_ml(value) / piece.volume_ml)


def with_thickness(formula: Formula, value: float) -> Formula:
    """The formula with a thickness within its range.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    value : float
        The value, in the base unit the name says.

    Returns
    -------
    Formula
        The changed formula.
    """
    return replace(formula, shape=replace(formula.shape, thickness_mm=_within("thickness", value)))


def with_piece_mass(formula: Formula, value: float) -> Formula:
    """The formula whose piece has a mass within its range; the piece decides the batch from then on.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    value : float
        The value, in the base unit the name says.

    Returns
    -------
    Formula
        The changed formula.
    """
    mass = _within("piece_mass", value)
    portioning: Portioning = "by_weights" if formula.shape.portioning == "by_weights" else "by_piece"
    return replace(formula, shape=replace(formula.shape, piece_mass_g=mass, portioning=portioning))


def _within(figure: e.Figure, value: float) -> float:
    rule = FIGURES[figure]
    if not rule.holds(value):
        raise OutOfRangeError(range_text(figure, value), field=rule.pointer)
    return value


# What a filled burger holds until the cook says otherwise: a mild cheese that melts (common practice).
FILLING_INGREDIENT = "cheddar"


def filling_frac(formula: Formula, *, inventory: Inventory) -> float:
    """The share of the mix's mass that lies whole in the middle, salt aside.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    float
        Filling by mass of a piece, 0–1.
    """
    entered = entering(formula.mix.lines, pantry=inventory.pantry)
    return per_meat(entered, "filling") / (1.0 + per_meat(entered))


def set_filling(formula: Formula, value: float, *, inventory: Inventory) -> Formula:
    """Another share of filling, f: its lines together become f ÷ (1 − f) of all the rest, in the ratio they have.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    value : float
        The value, in the base unit the name says.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    Formula
        The changed formula.

    Raises
    ------
    OutOfRangeError
        Add the filling to the mix first.
    """
    entered = entering(formula.mix.lines, pantry=inventory.pantry)
    now, rest = per_meat(entered, "filling"), 1.0 + per_meat(entered) - per_meat(entered, "filling")
    wanted = value / (1.0 - value) * rest
    core = {e.line.ingredient for e in entered if e.group == "filling"}
    if not core or now <= 0:
        if FILLING_INGREDIENT not in inventory.pantry:
            raise OutOfRangeError("Add the filling to the mix first.", field="/mix/lines")
        kept = tuple(line for line in formula.mix.lines if line.ingredient not in {*core, FILLING_INGREDIENT})
        lines = (*kept, MixLine(FILLING_INGREDIENT, wanted, filling=True))
    else:
        lines = tuple(
            replace(line, per_meat_frac=line.per_meat_frac * wanted / now) if line.ingredient in core else line
            for line in formula.mix.lines
        )
    return replace(formula, mix=replace(formula.mix, lines=lines))
