"""How a style looks at its usual start, for the choice on the first step."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.heat.practice import first_side_s
from vianda.core.model.formula import Dish
from vianda.core.model.styles import Form, Style
from vianda.core.shape.start_piece import start_piece


@dataclass(frozen=True, slots=True)
class StylePreview:
    """A style's usual piece: mass in g, height, length and width in mm, first side or baking in seconds."""

    key: str
    dish: Dish
    form: Form
    title: str
    line: str
    piece_mass_g: float
    thickness_mm: float
    raw_diameter_mm: float
    width_mm: float
    dimple: bool
    fat_band_frac: tuple[float, float]
    first_side_s: Band


def preview(style: Style) -> StylePreview:
    """The piece a new formula of this style starts with.

    Parameters
    ----------
    style : Style
        The style whose usual values count.

    Returns
    -------
    StylePreview
        A style's usual piece.

    Examples
    --------
    >>> from vianda.core.model.styles import style_of
    >>> round(preview(style_of("smashed")).raw_diameter_mm)
    133
    """
    piece = start_piece(style, fat_frac=style.fat_start_frac)
    return StylePreview(
        key=style.key,
        dish=style.dish,
        form=style.form,
        title=style.title,
        line=style.line,
        piece_mass_g=style.piece_mass_start_g,
        thickness_mm=piece.thickness_mm,
        raw_diameter_mm=piece.length_mm,
        width_mm=piece.width_mm,
        dimple=piece.dimple,
        fat_band_frac=style.fat_band_frac,
        first_side_s=first_side_s(style, thickness_mm=style.thickness_start_mm),
    )
