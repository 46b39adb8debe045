"""How a style looks at its usual start, for the choice on the first step."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.cook_yield import Band
from vianda.core.heat.habit import first_side_s
from vianda.core.shape import disc_diameter_mm, raw_density_g_per_ml
from vianda.core.styles import Style


@dataclass(frozen=True, slots=True)
class StylePreview:
    """A style's usual piece: mass in g, thickness and diameter in mm, first side in seconds."""

    key: str
    title: str
    line: str
    piece_mass_g: float
    thickness_mm: float
    raw_diameter_mm: float
    dimple: bool
    fat_band_frac: tuple[float, float]
    first_side_s: Band


def preview(style: Style) -> StylePreview:
    """The piece a new formula of this style starts with.

    Examples
    --------
    >>> from vianda.core.styles import style_of
    >>> round(preview(style_of("smashed")).raw_diameter_mm)
    133
    """
    density = raw_density_g_per_ml(style.fat_start_frac, packing=style.packing)
    return StylePreview(
        key=style.key,
        title=style.title,
        line=style.line,
        piece_mass_g=style.piece_mass_start_g,
        thickness_mm=style.thickness_start_mm,
        raw_diameter_mm=disc_diameter_mm(
            mass_g=style.piece_mass_start_g, thickness_mm=style.thickness_start_mm, density_g_per_ml=density
        ),
        dimple=style.dimple,
        fat_band_frac=style.fat_band_frac,
        first_side_s=first_side_s(style, thickness_mm=style.thickness_start_mm),
    )
