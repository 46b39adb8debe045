"""The piece that a style starts with, of plain ground beef."""

from __future__ import annotations

from vianda.core.equipment.kitchen import NO_BUN
from vianda.core.model.formula import Shape
from vianda.core.model.styles import Style
from vianda.core.shape.figures import ShapeFigures, shape_figures
from vianda.core.shape.piece_composition import plain_composition


def start_piece(style: Style, *, fat_frac: float) -> ShapeFigures:
    """The usual piece of a style at a fat (0–1), without bread, ring or tin.

    Parameters
    ----------
    style : Style
        The style whose usual values count.
    fat_frac : float
        Fat by mass, 0–1.

    Returns
    -------
    ShapeFigures
        One piece, raw and cooked (lengths in mm, masses in g).

    Examples
    --------
    >>> from vianda.core.model.styles import style_of
    >>> round(start_piece(style_of("smashed"), fat_frac=0.235).raw_diameter_mm)
    133
    """
    mass = style.piece_mass_start_g
    shape = Shape("by_piece", mass, mass, style.thickness_start_mm, "none")
    return shape_figures(
        style=style,
        shape=shape,
        piece_mass_g=mass,
        composition=plain_composition(fat_frac),
        bun=NO_BUN,
        surface_kind=style.surfaces[0],
    )
