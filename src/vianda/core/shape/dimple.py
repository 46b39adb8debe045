"""The dimple that keeps a thick patty from doming: whether it is wanted, and how large."""

from __future__ import annotations

import math
from dataclasses import dataclass

# Above this a patty domes: the rim sets first and pushes the middle up (common practice: thin ones need none).
NEEDED_FROM_MM = 12.0
# A small one is stiff enough to stay flat: ours.
NEEDED_FROM_ACROSS_MM = 75.0
# A third of the thickness deep, about four tenths of the diameter wide: common practice, no published source.
DEPTH_FRAC, WIDTH_FRAC = 0.33, 0.40


@dataclass(frozen=True, slots=True)
class Dimple:
    """A hollow pressed into the middle: across and deep in mm, and what it lifts the rest of the top by."""

    diameter_mm: float
    depth_mm: float
    rim_rise_mm: float


def dimple_for(*, diameter_mm: float, thickness_mm: float) -> Dimple | None:
    """The dimple of a flat patty, or None when it is too thin to dome.

    The hollow is the cap of a sphere: V = π h (3 a² + h²) ÷ 6; what is pushed aside lifts the ring round it.

    Parameters
    ----------
    diameter_mm : float
        Diameter of the raw piece, mm.
    thickness_mm : float
        Thickness of the raw piece, mm.

    Returns
    -------
    Dimple | None
        A hollow pressed into the middle. None where there is none.

    References
    ----------
    Sizes are common practice, no published source; the cap is geometry.

    Examples
    --------
    >>> dimple_for(diameter_mm=132, thickness_mm=6) is None
    True
    >>> d = dimple_for(diameter_mm=110, thickness_mm=20)
    >>> round(d.diameter_mm), round(d.depth_mm, 1)
    (44, 6.6)
    """
    if thickness_mm < NEEDED_FROM_MM or diameter_mm < NEEDED_FROM_ACROSS_MM:
        return None
    across, deep = WIDTH_FRAC * diameter_mm, DEPTH_FRAC * thickness_mm
    half = across / 2
    volume = math.pi * deep * (3 * half**2 + deep**2) / 6
    ring = math.pi * (diameter_mm**2 - across**2) / 4
    return Dimple(across, deep, volume / ring)
