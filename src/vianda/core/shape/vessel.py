"""How a tin or tray is filled, and what room is left below its brim."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.equipment.moulds import Mould

# Room wanted between a raw loaf and the brim of its tin, for juice and fat that boil up: ours.
HEADSPACE_MM = 10.0


@dataclass(frozen=True, slots=True)
class VesselFill:
    """How a tin or tray is filled: ml, mm and g. ``over_g`` stands above the brim; ``fits_g`` leaves the headspace."""

    holds_ml: float
    filled_ml: float
    fill_height_mm: float
    height_mm: float
    headspace_mm: float
    over_g: float
    fits_g: float
    base_length_mm: float
    base_width_mm: float


def vessel_fill(mould: Mould, *, volume_ml: float, mass_g: float) -> VesselFill:
    """How so much of a mix stands in a tin or tray.

    Parameters
    ----------
    mould : Mould
        The tin or tray.
    volume_ml : float
        Volume of the raw mix, ml, above 0.
    mass_g : float
        Its mass, g.

    Returns
    -------
    VesselFill
        Height, headspace, what stands above the brim, and what would fit.

    References
    ----------
    Geometry; the headspace wanted is ours.
    """
    density = mass_g / volume_ml
    height = mould.height_of_mm(volume_ml)
    room = max(0.0, mould.height_mm - HEADSPACE_MM)
    return VesselFill(
        holds_ml=mould.holds_ml,
        filled_ml=volume_ml,
        fill_height_mm=height,
        height_mm=mould.height_mm,
        headspace_mm=mould.height_mm - height,
        over_g=max(0.0, volume_ml - mould.holds_ml) * density,
        fits_g=mould.filled_ml(room) * density,
        base_length_mm=mould.base_length_mm or mould.length_mm,
        base_width_mm=mould.base_width_mm or mould.width_mm,
    )
