"""Closed forms of the shapes that mince is given: disc, ball, and the loaf with its rounded section and ends."""

from __future__ import annotations

import math

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.model.formula import Ends

# How far an end is drawn out, by the loaf's width.
END_FRAC: dict[Ends, float] = {"round": 0.5, "blunt": 0.25, "square": 0.0}
# A loaf's section is half a superellipse |2x/w|ⁿ + |y/h|ⁿ = 1: upright sides, a rounded top. Ours.
SECTION_POWER = 3.0


def disc_diameter_mm(*, volume_ml: float, thickness_mm: float) -> float:
    """Diameter of a flat disc: √(4 V / (π t)), lengths in mm (1 ml = 1000 mm³).

    Parameters
    ----------
    volume_ml : float
        Volume of the disc, ml.
    thickness_mm : float
        Its thickness, mm, above 0.

    Returns
    -------
    float
        Its diameter, mm.

    Raises
    ------
    OutOfRangeError
        A piece needs a mass and a thickness above zero.

    References
    ----------
    Geometry.

    Examples
    --------
    >>> round(disc_diameter_mm(volume_ml=82.5, thickness_mm=6))
    132
    """
    if volume_ml <= 0 or thickness_mm <= 0:
        raise OutOfRangeError("A piece needs a mass and a thickness above zero.", field="/shape/thickness_mm")
    return math.sqrt(4000.0 * volume_ml / (math.pi * thickness_mm))


def disc_volume_ml(*, diameter_mm: float, thickness_mm: float) -> float:
    """Volume of a flat disc: π d² t ÷ 4.

    Parameters
    ----------
    diameter_mm : float
        Diameter of the disc, mm.
    thickness_mm : float
        Its thickness, mm.

    Returns
    -------
    float
        Its volume, ml.

    References
    ----------
    Geometry.

    Examples
    --------
    >>> round(disc_volume_ml(diameter_mm=132, thickness_mm=6), 1)
    82.1
    """
    return math.pi * diameter_mm**2 * thickness_mm / 4000.0


def ball_diameter_mm(*, volume_ml: float) -> float:
    """Diameter of a ball: ∛(6 V / π), in mm.

    Parameters
    ----------
    volume_ml : float
        Volume of the ball, ml.

    Returns
    -------
    float
        Its diameter, mm.

    Raises
    ------
    OutOfRangeError
        A piece needs a mass above zero.

    References
    ----------
    Geometry.

    Examples
    --------
    >>> round(ball_diameter_mm(volume_ml=38.8), 1)
    42.0
    """
    if volume_ml <= 0:
        raise OutOfRangeError("A piece needs a mass above zero.", field="/shape/piece_mass_g")
    return math.cbrt(6000.0 * volume_ml / math.pi)


def section_frac(power: float = SECTION_POWER) -> float:
    """How much of width × height half a superellipse fills: Γ(1 + 1/n)² ÷ Γ(1 + 2/n).

    Parameters
    ----------
    power : float, default SECTION_POWER
        Exponent of the superellipse, 2 for an ellipse (no unit).

    Returns
    -------
    float
        The share that is filled, 0–1.

    References
    ----------
    Area of a superellipse; textbook.

    Examples
    --------
    >>> round(section_frac(2.0), 4)  # half an ellipse: π/4
    0.7854
    """
    return math.gamma(1 + 1 / power) ** 2 / math.gamma(1 + 2 / power)


def loaf_length_mm(*, volume_ml: float, width_mm: float, height_mm: float, ends: Ends) -> float:
    """Length of a free-form loaf: V ÷ (w h k) + ⅔ e, k the share of the section, e the length of one drawn-out end.

    Each end shrinks to nothing as an ellipsoid does, so that it holds two thirds of what a straight piece would.

    Parameters
    ----------
    volume_ml : float
        Volume of the loaf, ml.
    width_mm : float
        Its width, mm.
    height_mm : float
        Its height, mm.
    ends : Ends
        Ends of the loaf.

    Returns
    -------
    float
        Its length, mm.

    Raises
    ------
    OutOfRangeError
        When it comes out shorter than its two ends: then it is a ball, not a loaf.

    References
    ----------
    Geometry; roundness of section and ends is ours.

    Examples
    --------
    >>> round(loaf_length_mm(volume_ml=1250, width_mm=120, height_mm=75, ends="blunt"))
    177
    """
    if volume_ml <= 0 or height_mm <= 0 or width_mm <= 0:
        raise OutOfRangeError("A loaf needs a mass, a width and a height above zero.", field="/shape/thickness_mm")
    end = END_FRAC[ends] * width_mm
    length = volume_ml * 1000.0 / (width_mm * height_mm * section_frac()) + 2.0 * end / 3.0
    if length < 2.0 * end:
        raise OutOfRangeError(
            f"{width_mm:.0f} mm wide and {height_mm:.0f} mm high it would be {length:.0f} mm long, less than its two "
            "ends: make it narrower or lower.",
            field="/shape/width_mm",
        )
    return length


def loaf_size_mm(*, volume_ml: float, width_mm: float, height_mm: float, ends: Ends) -> tuple[float, float, float]:
    """Length, width and height of a free-form loaf as wanted; too small for its two ends, it is lower and narrower.

    A loaf that is nothing but its ends is 2 e long; all three sides then go with the cube root of its volume.

    Parameters
    ----------
    volume_ml : float
        Volume of the loaf, ml.
    width_mm : float
        Width wanted, mm.
    height_mm : float
        Height wanted, mm.
    ends : Ends
        Ends of the loaf.

    Returns
    -------
    tuple[float, float, float]
        Length, width and height of a free-form loaf as wanted.

    References
    ----------
    Geometry; roundness of section and ends is ours.

    Examples
    --------
    >>> [round(side) for side in loaf_size_mm(volume_ml=250, width_mm=120, height_mm=75, ends="blunt")]
    [55, 111, 69]
    """
    end = END_FRAC[ends] * width_mm
    stub = loaf_volume_ml(length_mm=2.0 * end, width_mm=width_mm, height_mm=height_mm, ends=ends)
    if volume_ml >= stub:
        return (
            loaf_length_mm(volume_ml=volume_ml, width_mm=width_mm, height_mm=height_mm, ends=ends),
            width_mm,
            height_mm,
        )
    left = math.cbrt(volume_ml / stub)
    return 2.0 * end * left, width_mm * left, height_mm * left


def loaf_volume_ml(*, length_mm: float, width_mm: float, height_mm: float, ends: Ends) -> float:
    """Volume of a free-form loaf: w h k (L − ⅔ e), see ``loaf_length_mm``.

    Parameters
    ----------
    length_mm : float
        Length of the loaf, mm.
    width_mm : float
        Its width, mm.
    height_mm : float
        Its height, mm.
    ends : Ends
        Ends of the loaf.

    Returns
    -------
    float
        Its volume, ml.

    References
    ----------
    Geometry; roundness of section and ends is ours.

    Examples
    --------
    >>> round(loaf_volume_ml(length_mm=177.25, width_mm=120, height_mm=75, ends="blunt"))
    1250
    """
    end = END_FRAC[ends] * width_mm
    return width_mm * height_mm * section_frac() * (length_mm - 2.0 * end / 3.0) / 1000.0
