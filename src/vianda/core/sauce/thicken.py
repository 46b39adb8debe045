"""Thickening a gravy: starch by the liquid, the fat of its roux, and the liquid in stages."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say

Thickener = Literal["flour", "cornflour", "brown-roux"]
Body = Literal["thin", "coating", "thick"]
# Flour by mass of the liquid: a twentieth to a twelfth, of an onion gravy. Common practice, no published source.
FLOUR_FRAC: Mapping[Body, tuple[float, float, float]] = {
    "thin": (0.030, 0.040, 0.050),
    "coating": (0.050, 0.065, 0.083),
    "thick": (0.083, 0.095, 0.110),
}
# What each takes by what flour takes: starch without protein about half; browned flour binds a third less. From
# memory, medium.
BY_FLOUR: Mapping[Thickener, float] = {"flour": 1.0, "cornflour": 0.5, "brown-roux": 1.5}
# Fat one to two times the flour: common practice. Starch alone is stirred into twice its mass of cold water.
FAT_BY_FLOUR, COLD_WATER_BY_STARCH = (1.0, 1.25, 2.0), 2.0
# Wheat starch thickens from 75 to 95 °C and cooks out in some 5 min at a simmer: from memory, high; common practice.
SIMMER_MIN = (5.0, 5.0, 10.0)
ADDITIONS_MOST_G = 400.0


# How each is used: common practice; browned flour's loss as above.
USE: Mapping[Thickener, str] = {
    "flour": "Some minutes at a simmer, or it tastes of flour.",
    "cornflour": "Stirred in at a simmer; it thins again when it boils long.",
    "brown-roux": "Browned flour binds about a third less.",
}


@dataclass(frozen=True, slots=True)
class Thickening:
    """Starch and fat for a liquid, g, the water that starch is stirred into, the additions of liquid, and minutes.

    ``said`` is how the thickener is used.
    """

    starch_g: Band
    fat_g: Band
    cold_water_g: float
    additions_g: tuple[float, ...]
    minutes: Band
    said: Phrase


def thickening(liquid_g: float, *, thickener: Thickener, body: Body) -> Thickening:
    """What thickens so much liquid.

    Parameters
    ----------
    liquid_g : float
        Stock, milk or what is in the pan, g, above 0.
    thickener : Thickener
        White roux of flour, cornflour, or a roux cooked brown.
    body : Body
        How thick: runs, coats a spoon, or stands.

    Returns
    -------
    Thickening
        Grams and minutes with their bands.

    Raises
    ------
    OutOfRangeError
        When there is no liquid.

    References
    ----------
    Flour a twentieth to a twelfth of the stock, fat one to two times the flour, stock in several additions, some 5 min
    at a simmer: common practice, no published source.

    Examples
    --------
    >>> found = thickening(600, thickener="flour", body="coating")
    >>> round(found.starch_g.usual), round(found.fat_g.usual), found.additions_g
    (39, 49, (50.0, 150.0, 400.0))
    """
    if not 0.0 < liquid_g <= 1e6:
        raise OutOfRangeError("There is some liquid to thicken, at most 1000 kg.", field="/liquid_g")
    by = BY_FLOUR[thickener] * liquid_g
    starch = Band(*(f * by for f in FLOUR_FRAC[body]))
    roux = thickener != "cornflour"
    fat = Band(*(f * starch.usual for f in FAT_BY_FLOUR)) if roux else Band(0.0, 0.0, 0.0)
    return Thickening(
        starch,
        fat,
        0.0 if roux else COLD_WATER_BY_STARCH * starch.usual,
        _additions(liquid_g) if roux else (liquid_g,),
        Band(*SIMMER_MIN),
        say(USE[thickener]),
    )


@dataclass(frozen=True, slots=True)
class StarchStep:
    """Cornflour that makes a liquid one step thicker and the cold water it is stirred into, g; minutes at a simmer."""

    cornflour_g: float
    cold_water_g: float
    minutes: Band


def one_step_thicker(liquid_g: float) -> StarchStep:
    """Cornflour for a sauce that is to hold a little better, without cooking it down.

    Parameters
    ----------
    liquid_g : float
        What is in the pot, g, above 0.

    Returns
    -------
    StarchStep
        What goes in. The water it is stirred into is thickened with the rest.

    Raises
    ------
    OutOfRangeError
        When there is no liquid.

    References
    ----------
    Half of what parts a sauce that runs from one that coats a spoon, by ``FLOUR_FRAC``: ours; the rest as there.

    Examples
    --------
    >>> found = one_step_thicker(600)
    >>> round(found.cornflour_g, 1), round(found.cold_water_g, 1)
    (3.8, 7.6)
    """
    if not 0.0 < liquid_g <= 1e6:
        raise OutOfRangeError("There is some liquid to thicken, at most 1000 kg.", field="/liquid_g")
    by = (FLOUR_FRAC["coating"][1] - FLOUR_FRAC["thin"][1]) / 2 * BY_FLOUR["cornflour"]
    # Its own water wants binding too: s = by (liquid + water s).
    starch = by * liquid_g / (1.0 - by * COLD_WATER_BY_STARCH)
    return StarchStep(starch, COLD_WATER_BY_STARCH * starch, Band(*SIMMER_MIN))


def _additions(liquid_g: float) -> tuple[float, ...]:
    """A little first so that no lumps form, then more: a twelfth, a quarter, the rest."""
    first, second = liquid_g / 12.0, liquid_g / 4.0
    return (first, second, liquid_g - first - second)
