"""Choices of shape: what a piece is shaped in and how, who gets the remainder, how much a guest eats."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.editing.set_shape import with_piece_mass
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model import edit as e
from vianda.core.model.formula import Formula
from vianda.core.model.styles import Style, style_of
from vianda.core.shape.figures import takes_mould
from vianda.core.shape.piece import piece_now
from vianda.core.shape.solids import END_FRAC
from vianda.core.shape.vessel import HEADSPACE_MM

# Raw grams for a guest by appetite: common practice, no published source.
APPETITE_G: dict[str, float] = {"light": 110.0, "usual": 150.0, "hearty": 220.0}
KNOWN: dict[str, tuple[str, ...]] = {
    "ends": tuple(END_FRAC),
    "packing": ("", "loose", "light", "firm"),
    "edges": ("rounded", "ragged"),
    "papers": ("yes", "no"),
    "firmness": ("soft", "chilled", "frozen"),
    "remainder": ("first", "last", "bowl"),
    "appetite": tuple(APPETITE_G),
}


def choose_shape(
    formula: Formula, field: e.ChoiceField, key: str, *, inventory: Inventory, kitchen: Kitchen
) -> Formula:
    """The formula with one choice of shape made.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    field : e.ChoiceField
        JSON pointer named in a refusal, such as ``/shape/bun``; "" for none.
    key : str
        Key of the thing, in small letters and hyphens.
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
        “…” is none of: ….
    """
    if field == "mould":
        return choose_ware(formula, key, inventory=inventory, kitchen=kitchen)
    if key not in KNOWN[field]:
        raise UnknownItemError(
            f"“{key[:60]}” is none of: {', '.join(k for k in KNOWN[field] if k)}.", field=f"/shape/{field}"
        )
    if field == "appetite":
        return _for_appetite(formula, APPETITE_G[key])
    value: dict[str, Any] = {field: key == "yes" if field == "papers" else key}
    return replace(formula, shape=replace(formula.shape, **value))


def choose_ware(formula: Formula, key: str, *, inventory: Inventory, kitchen: Kitchen) -> Formula:
    """Another tin, tray, scoop or ring, or none. A scoop also decides the weight: what it holds, level, of this mix.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    key : str
        Key of the thing, in small letters and hyphens.
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
        “…” is not shaped in a …; it takes ….
    """
    changed = replace(formula, shape=replace(formula.shape, mould=key))
    if not key:
        return changed
    mould = kitchen.mould(key, field="/shape/mould")
    style = style_of(formula.dish.style, field="/dish/style")
    if mould.kind not in takes_mould(style.form):
        kinds = " or a ".join(takes_mould(style.form)) or "nothing"
        raise OutOfRangeError(
            f"“{style.title}” is not shaped in a {mould.kind}; it takes {kinds}.", field="/shape/mould"
        )
    if mould.kind == "scoop":
        density = piece_now(formula, inventory=inventory, kitchen=kitchen).density_g_per_ml
        return with_piece_mass(changed, mould.holds_ml * density)
    return changed


# Density of a raw mix, g/ml, and how nearly a tin must hold it (ours).
MIX_G_PER_ML, NEARLY = 1.05, 0.97


def usual_mould(style: Style, *, kitchen: Kitchen, piece_mass_g: float | None = None) -> str:
    """The tin or tray a piece goes into: the smallest that holds it with headspace, else the largest there is.

    Parameters
    ----------
    style : Style
        The style whose usual values count.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    piece_mass_g : float | None, default None
        Raw mass of the piece, g; that usual of the style when None.

    Returns
    -------
    str
        Its key; "" where the kitchen has none of that kind.
    """
    offered = [w for w in kitchen.moulds if w.kind == style.form]
    if style.form not in ("tin", "tray") or not offered:
        return ""
    volume = (piece_mass_g or style.piece_mass_start_g) / MIX_G_PER_ML
    fitting = [w for w in offered if w.filled_ml(w.height_mm - HEADSPACE_MM) >= volume * NEARLY]
    if fitting:
        return min(fitting, key=lambda w: w.holds_ml).key
    # A batch larger than any: the largest; a new formula starts without one instead.
    return max(offered, key=lambda w: w.holds_ml).key if piece_mass_g else ""


def _for_appetite(formula: Formula, per_guest_g: float) -> Formula:
    """So much for a guest: in pieces of the style's usual weight, or from one piece that guests share."""
    style = style_of(formula.dish.style, field="/dish/style")
    low, high = style.piece_mass_g
    if style.guests_per_piece_start > 1:
        share = max(1, min(40, round(formula.shape.piece_mass_g / per_guest_g)))
        return replace(formula, dish=replace(formula.dish, guests_per_piece=share, pieces_per_guest=1))
    each = max(1, min(12, round(per_guest_g / style.piece_mass_start_g)))
    mass = min(max(per_guest_g / each, low), high)
    changed = replace(formula, dish=replace(formula.dish, pieces_per_guest=each))
    if formula.shape.portioning == "by_batch":
        changed = replace(changed, shape=replace(changed.shape, portioning="by_piece"))
    return with_piece_mass(changed, mass)
