"""Crumbled meat as lumps."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.model.styles import Form


@dataclass(frozen=True, slots=True)
class Lumps:
    """Crumbled meat: lumps as thick as long, how many in a portion, and how much surface they brown on, cm²."""

    lump_mm: float
    lump_mass_g: float
    per_portion: int
    surface_cm2: float


def lumps_of(form: Form, lump_mm: float, *, piece_mass_g: float, density_g_per_ml: float) -> Lumps | None:
    """Lumps as short rolls, as long as they are thick: V = π t³ ÷ 4, surface 3 π t² ÷ 2.

    Parameters
    ----------
    form : Form
        Form of the piece.
    lump_mm : float
        Thickness of a lump, mm.
    piece_mass_g : float
        Meat in a portion, g.
    density_g_per_ml : float
        Density of the mix, g/ml.

    Returns
    -------
    Lumps | None
        Size, number and surface of the lumps. None for what is not crumbled.
    """
    if form != "crumbled":
        return None
    each = math.pi * lump_mm**3 / 4000.0 * density_g_per_ml
    count = max(1, round(piece_mass_g / each))
    return Lumps(lump_mm, each, count, count * 1.5 * math.pi * lump_mm**2 / 100.0)
