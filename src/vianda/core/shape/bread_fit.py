"""How a cooked piece compares with its bread, and the raw size that is as wide."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.equipment.kitchen import Bun
from vianda.core.model.styles import Form

# A piece is as wide as its bread within this: ours.
AS_WIDE_MM = 2.0


@dataclass(frozen=True, slots=True)
class Fit:
    """The raw size that comes out as wide as the bread: by pressing the same mass thinner, or by taking more of it.

    ``off_mm`` is how much wider (or, below zero, narrower) it comes out now; 0 when nobody would see the difference.
    """

    wanted_mm: float
    off_mm: float
    raw_mm: float
    thickness_mm: float
    mass_g: float


def bread_fit(
    form: Form, bun: Bun, *, raw_mm: float, shrink: Band, volume_ml: float, thickness_mm: float, mass_g: float
) -> Fit | None:
    """How far off its bread a piece comes out, and the raw size that does not.

    Parameters
    ----------
    form : Form
        Form of the piece; meat spread on its bread fits by itself.
    bun : Bun
        The bread.
    raw_mm : float
        Raw diameter, mm.
    shrink : Band
        Share of the diameter that is lost, 0–1.
    volume_ml : float
        Volume of the raw piece, ml.
    thickness_mm : float
        Raw thickness, mm.
    mass_g : float
        Mass of the raw piece, g.

    Returns
    -------
    Fit | None
        The raw size as wide as the bread. None without a bread.
    """
    if bun.across_mm <= 0 or form == "spread":
        return None
    raw = bun.across_mm / (1.0 - shrink.usual)
    off = raw_mm * (1.0 - shrink.usual) - bun.across_mm
    area = math.pi * raw**2 / 4
    return Fit(
        wanted_mm=bun.across_mm,
        off_mm=off if abs(off) >= AS_WIDE_MM else 0.0,
        raw_mm=raw,
        thickness_mm=volume_ml * 1000.0 / area,
        mass_g=mass_g * area * thickness_mm / (volume_ml * 1000.0),
    )
