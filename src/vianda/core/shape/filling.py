"""What lies in the middle: the core of a filled burger between two discs, boiled eggs along a loaf."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError

# A boiled hen's egg of 50 g shelled, mm: from memory, medium confidence.
EGG_LENGTH_MM, EGG_WIDTH_MM = 57.0, 43.0
# A slice of loaf as it is served, and the meat wanted between egg and each end, mm: ours.
SLICE_MM = 15.0
END_WALL_MM = 20.0


@dataclass(frozen=True, slots=True)
class Filling:
    """A filling between two discs, mm and g: its disc, the rim of meat pressed shut round it, the meat above and below.

    ``fits`` is false when the rim leaves no room for it; the core is then drawn as wide as a coin.
    """

    name: str
    mass_g: float
    diameter_mm: float
    thickness_mm: float
    rim_mm: float
    wall_mm: float
    share_frac: float
    fits: bool


@dataclass(frozen=True, slots=True)
class EggRow:
    """Boiled eggs in a row along a loaf: how many, how many there is room for, and the slices that get some."""

    eggs: int
    room_for: int
    egg_length_mm: float
    egg_width_mm: float
    displaced_ml: float
    slices: int
    slices_with_egg: int
    side_wall_mm: float


SMALLEST_CORE_MM = 15.0


def filling_of(
    *,
    name: str,
    mass_g: float,
    density_g_per_ml: float,
    diameter_mm: float,
    thickness_mm: float,
    rim_mm: float,
    piece_mass_g: float,
) -> Filling:
    """The filling as a disc: as wide as the piece less its rim on both sides, as thick as its volume makes it.

    Parameters
    ----------
    name : str
        Its name, for people.
    mass_g : float
        Mass of the filling in one piece, g.
    density_g_per_ml : float
        Density of the filling, g/ml.
    diameter_mm : float
        Diameter of the raw piece, mm.
    thickness_mm : float
        Thickness of the raw piece, mm.
    rim_mm : float
        Meat left round the filling, mm.
    piece_mass_g : float
        Mass of one piece, g, above 0.

    Returns
    -------
    Filling
        A filling between two discs, mm and g.

    Raises
    ------
    OutOfRangeError
        When the filling is thicker than the whole piece, so that no meat covers it.

    Examples
    --------
    >>> c = filling_of(name="cheese", mass_g=30, density_g_per_ml=1.1, diameter_mm=110, thickness_mm=22, rim_mm=15,
    ...             piece_mass_g=200)
    >>> round(c.diameter_mm), round(c.thickness_mm, 1), round(c.wall_mm, 1)
    (80, 5.4, 8.3)
    """
    volume = mass_g / density_g_per_ml
    free = diameter_mm - 2 * rim_mm
    across = max(SMALLEST_CORE_MM, free)
    thick = 4000.0 * volume / (math.pi * across**2)
    wall = (thickness_mm - thick) / 2
    if wall <= 0:
        raise OutOfRangeError(
            f"{mass_g:.0f} g of {name} inside a rim of {rim_mm:.0f} mm is {thick:.0f} mm thick, and the whole piece "
            f"{thickness_mm:.0f} mm: less filling, a narrower rim, or a thicker piece.",
            field="/shape/rim_mm",
        )
    return Filling(name, mass_g, across, thick, rim_mm, wall, mass_g / piece_mass_g, free >= SMALLEST_CORE_MM)


def egg_row(
    *,
    mass_g: float,
    egg_mass_g: float,
    density_g_per_ml: float,
    loaf_length_mm: float,
    loaf_width_mm: float,
    loaf_height_mm: float,
) -> EggRow | None:
    """Boiled eggs end to end along the middle of one loaf; an egg's length and width go with the cube root of its mass.

    A slice gets egg when its middle lies over the row.

    Parameters
    ----------
    mass_g : float
        Mass of egg in one loaf, g.
    egg_mass_g : float
        Mass of one boiled egg without its shell, g.
    density_g_per_ml : float
        Density of egg, g/ml.
    loaf_length_mm : float
        Length of the raw loaf, mm.
    loaf_width_mm : float
        Width of the raw loaf, mm.
    loaf_height_mm : float
        Height of the raw loaf, mm.

    Returns
    -------
    EggRow | None
        Boiled eggs in a row along a loaf. None where there is none.

    References
    ----------
    A boiled egg of 57 × 43 mm, from memory, medium confidence.

    Examples
    --------
    >>> row = egg_row(mass_g=200, egg_mass_g=50, density_g_per_ml=1.05, loaf_length_mm=270, loaf_width_mm=120,
    ...               loaf_height_mm=80)
    >>> row.eggs, row.room_for, row.slices, row.slices_with_egg
    (4, 4, 18, 16)
    """
    eggs = round(mass_g / egg_mass_g)
    if eggs < 1:
        return None
    size = (egg_mass_g / 50.0) ** (1 / 3)
    long, wide = EGG_LENGTH_MM * size, EGG_WIDTH_MM * size
    room = max(0, math.floor((loaf_length_mm - 2 * END_WALL_MM) / long + 1e-9))
    slices = max(1, math.floor(loaf_length_mm / SLICE_MM + 1e-9))
    row = min(eggs * long, loaf_length_mm)
    start = (loaf_length_mm - row) / 2
    middles = [(k + 0.5) * loaf_length_mm / slices for k in range(slices)]
    with_egg = sum(1 for m in middles if start <= m <= start + row)
    wall = min(loaf_width_mm - wide, loaf_height_mm - wide) / 2
    return EggRow(eggs, room, long, wide, mass_g / density_g_per_ml, slices, with_egg, wall)
