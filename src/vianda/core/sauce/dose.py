"""How much of a sauce a portion takes, by what it covers; how many portions a batch gives; what is left of it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError

# Common practice, no published source: 15–25 g a burger over both faces, 25–35 g to let it run; a film, a coat.
USUAL_G, RUNNING_G = (15.0, 25.0), (25.0, 35.0)
FILM_G_DM2, COAT_G_DM2 = (2.0, 3.0), (10.0, 15.0)
# A sauce weighs about as much as water: 0.95 for a rich mayonnaise, 1.1 for ketchup. Ours.
DENSITY_G_CM3 = 1.0
# What stays in the bowl and on the spoon: ours.
LEFT_BEHIND_FRAC = 0.03


@dataclass(frozen=True, slots=True)
class Dose:
    """Grams a portion, spread over faces of an area; how thick it lies, and what that is called."""

    grams: float
    faces: int
    area_dm2: float
    g_per_dm2: float
    thickness_mm: float
    word: str


@dataclass(frozen=True, slots=True)
class Batch:
    """What a batch gives: whole portions, what is left over, and what a wanted number of portions takes."""

    portions: int
    left_g: float
    needed_g: float
    lacking_g: float


def dose(grams: float, *, diameter_mm: float, faces: int = 2) -> Dose:
    """How thick so many grams lie on the faces of a bun.

    Parameters
    ----------
    grams : float
        Sauce a portion, g, 0 or more.
    diameter_mm : float
        Width of a face, mm, above 0.
    faces : int, default 2
        On how many faces (count), 1 or 2.

    Returns
    -------
    Dose
        Area, grams by area, thickness and what that is.

    Raises
    ------
    OutOfRangeError
        When a figure cannot be.

    References
    ----------
    2–3 g/dm² a film, 10–15 a coat: common practice, no published source.

    Examples
    --------
    Twenty grams over both halves of a bun of 100 mm.

    >>> d = dose(20, diameter_mm=100)
    >>> round(d.g_per_dm2, 1), round(d.thickness_mm, 1), d.word
    (12.7, 1.3, 'a coat')
    """
    if not 0.0 <= grams <= 10_000.0 or not 0.0 < diameter_mm <= 2000.0 or faces not in (1, 2):
        raise OutOfRangeError("A dose is 0 to 10 000 g on one face or two.", field="/dose_g")
    area = faces * math.pi / 4 * (diameter_mm / 100.0) ** 2
    per = grams / area
    return Dose(grams, faces, area, per, per / DENSITY_G_CM3 / 10.0, _word(per))


def _word(g_per_dm2: float) -> str:
    if g_per_dm2 < FILM_G_DM2[0]:
        return "less than a film"
    if g_per_dm2 <= FILM_G_DM2[1]:
        return "a film"
    if g_per_dm2 < COAT_G_DM2[0]:
        return "thin"
    return "a coat" if g_per_dm2 <= COAT_G_DM2[1] else "runs"


def grams_for(thickness_mm: float, *, diameter_mm: float, faces: int = 2) -> float:
    """Grams a portion for a thickness.

    Parameters
    ----------
    thickness_mm : float
        How thick it is to lie, mm, 0 or more.
    diameter_mm : float
        Width of a face, mm, above 0.
    faces : int, default 2
        On how many faces (count).

    Returns
    -------
    float
        Sauce a portion, g.

    Examples
    --------
    >>> round(grams_for(1.5, diameter_mm=100), 1)
    23.6
    """
    return thickness_mm / 10.0 * DENSITY_G_CM3 * faces * math.pi / 4 * (diameter_mm / 10.0) ** 2


def batch_of_sauce(made_g: float, dose_g: float, *, wanted: int) -> Batch:
    """How far a batch goes.

    Parameters
    ----------
    made_g : float
        What was made, g, 0 or more.
    dose_g : float
        A portion, g, above 0.
    wanted : int
        Portions wanted (count), 0 or more.

    Returns
    -------
    Batch
        Portions, what is left after those wanted, what they take, and what is lacking.

    Raises
    ------
    OutOfRangeError
        When a dose weighs nothing.

    Examples
    --------
    >>> batch_of_sauce(900, 20, wanted=40)
    Batch(portions=43, left_g=73.0, needed_g=824.7, lacking_g=0.0)
    """
    if not dose_g > 0.0 or made_g < 0.0 or wanted < 0:
        raise OutOfRangeError("A dose weighs more than zero.", field="/dose_g")
    usable = made_g * (1.0 - LEFT_BEHIND_FRAC)
    needed = wanted * dose_g / (1.0 - LEFT_BEHIND_FRAC)
    given = min(wanted, math.floor(usable / dose_g + 1e-9))
    return Batch(
        math.floor(usable / dose_g + 1e-9),
        round(usable - given * dose_g, 1),
        round(needed, 1),
        round(max(0.0, needed - made_g), 1),
    )


def usual_dose(diameter_mm: float) -> Band:
    """What is usual on a bun of this width: 15 to 25 g on one of 100 mm, by area.

    Parameters
    ----------
    diameter_mm : float
        Width of a face, mm, above 0.

    Returns
    -------
    Band
        Grams a portion over both faces.

    References
    ----------
    15 to 25 g a burger: common practice, no published source.

    Examples
    --------
    >>> usual_dose(100.0)
    Band(low=15.0, usual=20.0, high=25.0)
    """
    by = (diameter_mm / 100.0) ** 2
    return Band(USUAL_G[0] * by, sum(USUAL_G) / 2 * by, USUAL_G[1] * by)
