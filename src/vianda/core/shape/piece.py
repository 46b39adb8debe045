"""One piece of a formula, from the formula itself: what an edit needs to turn a wanted size into a weight."""

from __future__ import annotations

from vianda.core.batch.batch import batch_of
from vianda.core.blend.blend import blend_figures, blend_spread
from vianda.core.equipment.kitchen import NO_BUN, Bun, Kitchen, Surface
from vianda.core.equipment.moulds import Mould
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import BREAD_LAYERS, Formula
from vianda.core.model.styles import Style, style_of
from vianda.core.shape.figures import ShapeFigures, shape_figures, takes_mould
from vianda.core.shape.piece_composition import PieceComposition, piece_composition


def bread_of(formula: Formula, *, style: Style, kitchen: Kitchen) -> Bun:
    """The bread a burger lies in or on; other dishes have none, unless their build has bread in it.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    style : Style
        The style whose usual values count.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Bun
        Bread.
    """
    built = any(layer.kind in BREAD_LAYERS for layer in formula.stack)
    return kitchen.bun(formula.shape.bun, field="/shape/bun") if style.dish == "burger" or built else NO_BUN


def mould_of(formula: Formula, *, style: Style, kitchen: Kitchen) -> Mould | None:
    """What it is shaped in, if this form can be.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    style : Style
        The style whose usual values count.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Mould | None
        A tin, tray, scoop or ring. None where there is none.
    """
    if not formula.shape.mould:
        return None
    mould = kitchen.mould(formula.shape.mould, field="/shape/mould")
    return mould if mould.kind in takes_mould(style.form) else None


def piece_shape(
    formula: Formula,
    *,
    style: Style,
    piece_mass_g: int,
    composition: PieceComposition,
    surface: Surface,
    kitchen: Kitchen,
) -> ShapeFigures:
    """The piece of a formula from its mass and what it is made of.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    style : Style
        The style whose usual values count.
    piece_mass_g : int
        Mass of one piece, g, above 0.
    composition : PieceComposition
        What the piece is made of.
    surface : Surface
        What it cooks on.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    ShapeFigures
        One piece, raw and cooked (lengths in mm, masses in g).
    """
    return shape_figures(
        style=style,
        shape=formula.shape,
        piece_mass_g=piece_mass_g,
        composition=composition,
        bun=bread_of(formula, style=style, kitchen=kitchen),
        mould=mould_of(formula, style=style, kitchen=kitchen),
        moulds=kitchen.moulds,
        surface_kind=surface.kind,
        end_temp_c=formula.heat.target_core_temp_c,
        loss_factor=surface.loss_factor * kitchen.style_factor("loss", style.key),
        shrink_factor=kitchen.style_factor("shrink", style.key),
    )


def piece_now(formula: Formula, *, inventory: Inventory, kitchen: Kitchen) -> ShapeFigures:
    """The piece as the formula stands, without evaluating the rest.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    ShapeFigures
        One piece, raw and cooked (lengths in mm, masses in g).
    """
    style = style_of(formula.dish.style, field="/dish/style")
    batch = batch_of(formula, inventory=inventory, kitchen=kitchen)
    blend = blend_figures(
        formula.parts,
        inventory=inventory,
        batch_mass_g=batch.meat_weighed_g,
        step_g=kitchen.scale.step_g,
        band_frac=style.fat_band_frac,
        spread=blend_spread(formula.parts, inventory=inventory),
    )
    surface = kitchen.surface(formula.heat.surface, field="/heat/surface")
    return piece_shape(
        formula,
        style=style,
        piece_mass_g=batch.portions.piece_mass_g,
        composition=piece_composition(blend, batch=batch, inventory=inventory),
        surface=surface,
        kitchen=kitchen,
    )
