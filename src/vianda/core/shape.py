"""The raw piece to scale: density, size against bun, and how many lie on the surface at once."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.cook_yield import Band, cooked_yield_frac, diameter_shrink_frac
from vianda.core.errors import OutOfRangeError
from vianda.core.kitchen import Surface
from vianda.core.styles import Form

# g/ml; from memory, high confidence: skeletal muscle 1.06, beef fat 0.92.
LEAN_DENSITY = 1.06
FAT_DENSITY = 0.92


@dataclass(frozen=True, slots=True)
class ShapeFigures:
    """One piece, raw and cooked (lengths in mm, masses in g).

    ``thickness_mm`` is the height: a ball's diameter, a loaf's height. A loaf measures ``length_mm`` × ``width_mm``;
    of what is round both are the diameter. What is crumbled has no size.
    """

    form: Form
    density_g_per_ml: float
    thickness_mm: float
    length_mm: float
    width_mm: float
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


def ball_diameter_mm(*, mass_g: float, density_g_per_ml: float) -> float:
    """Diameter of a ball: ∛(6 m / (π ρ)), lengths in mm (1 ml = 1000 mm³).

    Examples
    --------
    >>> round(ball_diameter_mm(mass_g=40, density_g_per_ml=1.03), 1)
    42.0
    """
    if mass_g <= 0:
        raise OutOfRangeError("A piece needs a mass above nought.", field="/shape/piece_mass_g")
    return math.cbrt(6.0 * mass_g * 1000.0 / (math.pi * density_g_per_ml))


# How much of its length × width × height a loaf fills: rounded on a tray, the slope of a tin, a level tray (ours).
LOAF_FILL: dict[str, float] = {"loaf": 0.80, "tin": 0.92, "tray": 1.0}


def loaf_length_mm(*, mass_g: float, width_mm: float, height_mm: float, density_g_per_ml: float, form: Form) -> float:
    """Length of a loaf of a width and height: m / (ρ w h f), f the share of that block which it fills.

    Examples
    --------
    >>> round(loaf_length_mm(mass_g=1300, width_mm=120, height_mm=75, density_g_per_ml=1.04, form="loaf"))
    174
    """
    if mass_g <= 0 or height_mm <= 0:
        raise OutOfRangeError("A loaf needs a mass and a height above nought.", field="/shape/thickness_mm")
    return mass_g * 1000.0 / (density_g_per_ml * width_mm * height_mm * LOAF_FILL[form])


# A pan browns half a layer of crumbled meat at a time: grams to a square centimetre (common practice: in batches).
CRUMBLED_G_PER_CM2 = 0.7


def crumbled_at_once_g(surface: Surface) -> float:
    """Grams of crumbled meat that brown at once on a surface instead of stewing in their juice."""
    area_mm2 = surface.width_mm * surface.depth_mm * (math.pi / 4 if surface.round_shape else 1.0)
    return area_mm2 / 100.0 * CRUMBLED_G_PER_CM2


@dataclass(frozen=True, slots=True)
class Laid:
    """Where the pieces of one wave lie: centres in mm from the surface's left and far edge, and one piece's footprint
    in mm, across and deep as it lies."""

    centres_mm: tuple[tuple[float, float], ...]
    across_mm: float
    deep_mm: float


def blocks_at_once(*, surface: Surface, length_mm: float, width_mm: float, gap_mm: float) -> Laid:
    """Where loaves lie on a tray: the fuller of the two ways of laying them in rows, lengthwise when they tie.

    Examples
    --------
    >>> from vianda.core.kitchen import usual_oven
    >>> len(blocks_at_once(surface=usual_oven(), length_mm=180, width_mm=120, gap_mm=40).centres_mm)
    4
    """
    best = Laid((), length_mm, width_mm)
    for across_mm, deep_mm in ((length_mm, width_mm), (width_mm, length_mm)):
        across = math.floor((surface.width_mm + gap_mm) / (across_mm + gap_mm) + 1e-9)
        deep = math.floor((surface.depth_mm + gap_mm) / (deep_mm + gap_mm) + 1e-9)
        if across * deep > len(best.centres_mm):
            centres = tuple(
                (surface.width_mm * (column + 0.5) / across, surface.depth_mm * (row + 0.5) / deep)
                for row in range(deep)
                for column in range(across)
            )
            best = Laid(centres, across_mm, deep_mm)
    return best


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
    form: Form = "disc",
    width_mm: float = 0.0,
    binder_frac: float = 0.0,
) -> ShapeFigures:
    """One piece raw and cooked, to scale against its bun. ``fat_frac`` is that of the whole mix."""
    density = raw_density_g_per_ml(fat_frac, packing=packing)
    length, width, height = _size(
        form, mass_g=piece_mass_g, thickness_mm=thickness_mm, width_mm=width_mm, density_g_per_ml=density
    )
    left = cooked_yield_frac(fat_frac, binder_frac=binder_frac)
    shrink = diameter_shrink_frac(fat_frac)
    if form != "disc":
        # A ball or a loaf draws in alike on all sides: the cube root of what is left.
        shrink = Band(*(1.0 - y ** (1.0 / 3.0) for y in (left.high, left.usual, left.low)))
    return ShapeFigures(
        form=form,
        density_g_per_ml=density,
        thickness_mm=height,
        length_mm=length,
        width_mm=width,
        raw_diameter_mm=length,
        cooked_diameter_mm=Band(length * (1 - shrink.high), length * (1 - shrink.usual), length * (1 - shrink.low)),
        cooked_mass_g=Band(piece_mass_g * left.low, piece_mass_g * left.usual, piece_mass_g * left.high),
        cooked_yield_frac=left,
        dimple=dimple,
        bun_diameter_mm=bun_diameter_mm,
        bun_name=bun_name,
    )


def _size(
    form: Form, *, mass_g: float, thickness_mm: float, width_mm: float, density_g_per_ml: float
) -> tuple[float, float, float]:
    """Length, width and height of a raw piece, mm."""
    if form == "ball":
        d = ball_diameter_mm(mass_g=mass_g, density_g_per_ml=density_g_per_ml)
        return d, d, d
    if form in LOAF_FILL:
        length = loaf_length_mm(
            mass_g=mass_g, width_mm=width_mm, height_mm=thickness_mm, density_g_per_ml=density_g_per_ml, form=form
        )
        return length, width_mm, thickness_mm
    if form == "crumbled":
        return 0.0, 0.0, thickness_mm
    d = disc_diameter_mm(mass_g=mass_g, thickness_mm=thickness_mm, density_g_per_ml=density_g_per_ml)
    return d, d, thickness_mm
