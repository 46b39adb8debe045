"""The raw piece to scale: density, diameter against bun, and how many lie on the surface at once."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.cook_yield import Band, cooked_yield_frac, diameter_shrink_frac
from vianda.core.errors import OutOfRangeError
from vianda.core.kitchen import Surface

# g/ml; from memory, high confidence: skeletal muscle 1.06, beef fat 0.92.
LEAN_DENSITY = 1.06
FAT_DENSITY = 0.92


@dataclass(frozen=True, slots=True)
class ShapeFigures:
    """One piece, raw and cooked (lengths in mm, masses in g)."""

    density_g_per_ml: float
    thickness_mm: float
    raw_diameter_mm: float
    cooked_diameter_mm: Band
    cooked_mass_g: Band
    cooked_yield_frac: Band
    dimple: bool
    bun_diameter_mm: float
    bun_name: str


def raw_density_g_per_ml(fat_frac: float, *, packing: float) -> float:
    """Density of a raw patty: packing ÷ (F/ρfat + (1−F)/ρlean).

    Parameters
    ----------
    fat_frac : float
        0–1.
    packing : float
        1 for pressed, less for loosely formed (air between the strands).

    Examples
    --------
    >>> round(raw_density_g_per_ml(0.2, packing=1.0), 3)
    1.029
    """
    return packing / (fat_frac / FAT_DENSITY + (1.0 - fat_frac) / LEAN_DENSITY)


def disc_diameter_mm(*, mass_g: float, thickness_mm: float, density_g_per_ml: float) -> float:
    """Diameter of a flat disc: √(4 m / (π ρ t)), lengths in mm (1 ml = 1000 mm³).

    Examples
    --------
    >>> round(disc_diameter_mm(mass_g=85, thickness_mm=6, density_g_per_ml=1.03))
    132
    """
    if mass_g <= 0 or thickness_mm <= 0:
        raise OutOfRangeError("A piece needs a mass and a thickness above nought.", field="/shape/thickness_mm")
    return math.sqrt(4.0 * mass_g * 1000.0 / (math.pi * density_g_per_ml * thickness_mm))


def centres_at_once(*, surface: Surface, diameter_mm: float, gap_mm: float) -> tuple[tuple[float, float], ...]:
    """Where the discs of one wave lie: centres in mm from the surface's left and far edge.

    A rectangle holds a square grid, ⌊(W+gap)/(d+gap)⌋ × ⌊(D+gap)/(d+gap)⌋, spread evenly. A round pan holds one,
    or a ring of ⌊π / arcsin((d+gap) / 2r)⌋ with centres r = R − d/2 out, and one more in the middle when there is
    room. Empty when a single piece does not fit.

    Examples
    --------
    >>> from vianda.core.kitchen import Surface
    >>> plate = Surface("p", "plate", "plate", 700, 400, False)
    >>> len(centres_at_once(surface=plate, diameter_mm=132, gap_mm=10))
    10
    """
    pitch = diameter_mm + gap_mm
    if not surface.round_shape:
        across = math.floor((surface.width_mm + gap_mm) / pitch + 1e-9)
        deep = math.floor((surface.depth_mm + gap_mm) / pitch + 1e-9)
        return tuple(
            (surface.width_mm * (column + 0.5) / across, surface.depth_mm * (row + 0.5) / deep)
            for row in range(deep)
            for column in range(across)
        )
    middle = surface.width_mm / 2
    out = middle - diameter_mm / 2
    if out < 0:
        return ()
    if 2 * out < pitch:
        return ((middle, middle),)
    ring = math.floor(math.pi / math.asin(min(1.0, pitch / (2 * out))) + 1e-9)
    angles = [2 * math.pi * at / ring for at in range(ring)]
    places = tuple((middle + out * math.cos(a), middle + out * math.sin(a)) for a in angles)
    return (*places, (middle, middle)) if out >= pitch else places


def shape_figures(
    *,
    piece_mass_g: float,
    thickness_mm: float,
    fat_frac: float,
    packing: float,
    dimple: bool,
    bun_diameter_mm: float,
    bun_name: str,
) -> ShapeFigures:
    """One piece raw and cooked, to scale against its bun."""
    density = raw_density_g_per_ml(fat_frac, packing=packing)
    raw = disc_diameter_mm(mass_g=piece_mass_g, thickness_mm=thickness_mm, density_g_per_ml=density)
    shrink = diameter_shrink_frac(fat_frac)
    left = cooked_yield_frac(fat_frac)
    return ShapeFigures(
        density_g_per_ml=density,
        thickness_mm=thickness_mm,
        raw_diameter_mm=raw,
        cooked_diameter_mm=Band(raw * (1 - shrink.high), raw * (1 - shrink.usual), raw * (1 - shrink.low)),
        cooked_mass_g=Band(piece_mass_g * left.low, piece_mass_g * left.usual, piece_mass_g * left.high),
        cooked_yield_frac=left,
        dimple=dimple,
        bun_diameter_mm=bun_diameter_mm,
        bun_name=bun_name,
    )
