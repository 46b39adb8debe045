"""A glaze: what shows of the loaf, what the coats take, and what the rest comes to when it is cooked down."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.pantry import Pantry
from vianda.core.model.styles import Form
from vianda.core.sauce.tastes import Taste, taste_of
from vianda.core.shape.figures import ShapeFigures
from vianda.core.shape.solids import section_frac

# A coat is 1 to 2 mm: common practice, no published source. A glaze weighs a fifth more than water: ours.
COAT_MM, COAT_LOW_MM, COAT_HIGH_MM, DENSITY_G_CM3 = 1.5, 1.0, 2.0, 1.2
# Sugar catches from about 160 to 180 °C at the surface: common practice; sooner where there is more of it: ours.
CATCHES_C, MUCH_SUGAR_G = (160.0, 180.0), 33.0
CHORDS = 200


@dataclass(frozen=True, slots=True)
class GlazePlan:
    """Area that shows, grams a coat, all coats, what remains of the batch, and its taste before and cooked to half.

    ``catches_c`` is the surface temperature from which its sugar burns.
    """

    area_dm2: float
    coat_g: Band
    coats: int
    coats_g: float
    rest_g: float
    lacking_g: float
    taste: Taste
    reduced: Taste | None
    reduced_g: float
    catches_c: float


def showing_dm2(shape: ShapeFigures, form: Form, *, pieces: int) -> float:
    """The area that a brush reaches, of all pieces, dm²: top and sides of a loaf, the top in a tin or a tray.

    Parameters
    ----------
    shape : ShapeFigures
        Size of the raw piece, mm.
    form : Form
        Form of the piece.
    pieces : int
        How many (count).

    Returns
    -------
    float
        Area, dm².

    References
    ----------
    Geometry: a free loaf's section is half a superellipse; its arch by chords, its ends as two more such sections.
    """
    if form == "ball":
        # The upper half, which a brush reaches.
        one = math.pi * shape.raw_diameter_mm**2 / 2
    elif form in ("tin", "tray"):
        one = shape.length_mm * shape.width_mm
    elif form == "loaf":
        arch = _arch_mm(shape.width_mm, shape.thickness_mm, shape.section_power)
        ends = 2 * section_frac(shape.section_power) * shape.width_mm * shape.thickness_mm
        one = arch * (shape.length_mm - 2 * shape.end_mm) + arch * shape.end_mm + ends * 0.5
    else:
        one = math.pi / 4 * shape.raw_diameter_mm**2
    return pieces * one / 10_000.0


def _arch_mm(width_mm: float, height_mm: float, power: float) -> float:
    """Length of half a superellipse over its base, by chords at even angles."""
    points = []
    for n in range(CHORDS + 1):
        angle = math.pi * n / CHORDS
        x = math.copysign(abs(math.cos(angle)) ** (2 / power), math.cos(angle))
        points.append((x * width_mm / 2, math.sin(angle) ** (2 / power) * height_mm))
    return math.fsum(math.dist(a, b) for a, b in itertools.pairwise(points))


def glaze_plan(
    lines: Sequence[tuple[str, float]],
    *,
    shape: ShapeFigures,
    form: Form,
    pieces: int,
    coats: int,
    pantry: Pantry,
    coat_mm: float = COAT_MM,
) -> GlazePlan:
    """What the coats take of a glaze, and what the rest becomes at half its mass.

    Parameters
    ----------
    lines : Sequence[tuple[str, float]]
        Ingredient and grams.
    shape : ShapeFigures
        Size of the raw piece, mm.
    form : Form
        Form of the piece.
    pieces : int
        How many (count).
    coats : int
        How often it is brushed on (count), 0 or more.
    pantry : Pantry
        Ingredients by key, house formulas worked out.
    coat_mm : float, default COAT_MM
        How thick a coat lies, mm.

    Returns
    -------
    GlazePlan
        Area, coats, rest, and tastes.

    Raises
    ------
    OutOfRangeError
        When there are fewer than no coats, or the glaze is empty.

    References
    ----------
    A coat of 1 to 2 mm; sugar catches at 160 to 180 °C: common practice, no published source.
    """
    if coats < 0 or not 0.0 < coat_mm <= 10.0:
        raise OutOfRangeError("Coats are counted from 0, and lie up to 10 mm thick.", field="/coats")
    area = showing_dm2(shape, form, pieces=pieces)
    one = coat_g(area, coat_mm=coat_mm)
    made = math.fsum(g for _, g in lines)
    taken = coats * one.usual
    rest = max(0.0, made - taken)
    taste = taste_of(lines, pantry=pantry)
    # Half of it is water at least, or it cannot be cooked to half.
    halves = taste.water > 50.0 and rest > 0.0
    reduced = taste_of(lines, pantry=pantry, left_g=made / 2) if halves else None
    catches = CATCHES_C[0] if taste.sugar > MUCH_SUGAR_G else sum(CATCHES_C) / 2
    return GlazePlan(area, one, coats, taken, rest, max(0.0, taken - made), taste, reduced, rest / 2, catches)


def coat_g(area_dm2: float, *, coat_mm: float = COAT_MM) -> Band:
    """What one coat takes.

    Parameters
    ----------
    area_dm2 : float
        Area that is brushed, dm².
    coat_mm : float, default COAT_MM
        How thick it lies, mm.

    Returns
    -------
    Band
        Grams of a thin, a usual and a thick coat.

    References
    ----------
    1 to 2 mm: common practice, no published source.

    Examples
    --------
    >>> round(coat_g(6.0).usual)
    108
    """
    low, usual, high = (area_dm2 * mm * DENSITY_G_CM3 * 10.0 for mm in _coats(coat_mm))
    return Band(low, usual, high)


def _coats(coat_mm: float) -> tuple[float, float, float]:
    by = coat_mm / COAT_MM
    return COAT_LOW_MM * by, coat_mm, COAT_HIGH_MM * by
