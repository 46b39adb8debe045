"""Cooking down: water to drive off, how long that takes over this pot and burner, and what it does to salt and sugar.

Two things bound how fast water leaves an open pot: what the air over its surface takes up, by how hot the surface is
(the Lewis relation, as for a skin that dries), and what the burner gives, at 2.26 MJ a kilogram. The slower one counts.
A thick sauce turns over slowly, so its surface lies well below its boiling point: that is most of what is not known.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.heat.conduction.props import LATENT_J_KG
from vianda.core.heat.conduction.skin import drying_kg_m2_s

Boil = Literal["gentle", "simmer", "rolling"]
# Surface of the pot's content, °C: least, usual, most. From the minutes a tin of tomatoes takes: ours, low.
SURFACE_C: Mapping[Boil, tuple[float, float, float]] = {
    "gentle": (58.0, 66.0, 76.0),
    "simmer": (78.0, 85.0, 92.0),
    "rolling": (99.0, 99.0, 99.0),
}
# Air over a pot, W/(m² K), and its vapour, Pa; a lid half on lets a third out: from memory and ours, low.
AIR_H, AIR_H_LOW, AIR_H_HIGH, ROOM_PA = 10.0, 7.0, 14.0, 1300.0
# What a burner gives into the metal is known to about a fifth (ours). Sauce takes about as much heat as water.
BURNER_DOUBT, SAUCE_CP, FROM_C, BOILS_C = 0.2, 3900.0, 20.0, 100.0
MOST_S = 24 * 3600.0
# Beyond these it is no pot, and nothing is left of it.
LEAST_LEFT_FRAC, LEAST_POT_MM, MOST_G = 0.001, 10.0, 1e6


@dataclass(frozen=True, slots=True)
class CookDown:
    """From what goes in to what is left: water to lose, how long it takes, and what holds it back.

    ``left_frac`` is the share that is left, 0–1; ``concentrates`` is by what salt, sugar and acid rise. ``heat_up_s``
    comes before, from room temperature.
    """

    start_g: float
    left_g: float
    left_frac: float
    water_g: float
    minutes: Band
    heat_up_s: float
    energy_j: float
    bound_by: Literal["surface", "burner", "nothing"]
    concentrates: float


def leaves_kg_s(boil: Boil, *, area_m2: float, burner_w: float) -> tuple[Band, Literal["surface", "burner"]]:
    """How fast water leaves an open pot.

    Parameters
    ----------
    boil : Boil
        How hard it cooks.
    area_m2 : float
        Surface of what is in the pot, m², above 0.
    burner_w : float
        What the burner gives into the metal, W, above 0.

    Returns
    -------
    tuple[Band, Literal["surface", "burner"]]
        kg/s, and which of the two bounds the usual value.

    References
    ----------
    Lewis relation and Stefan's law for the surface; 2.26 MJ/kg for the burner. Surface temperatures: ours, low.
    """
    air = [
        area_m2 * drying_kg_m2_s(at, h, ROOM_PA)
        for at, h in zip(SURFACE_C[boil], (AIR_H_LOW, AIR_H, AIR_H_HIGH), strict=True)
    ]
    heat = [burner_w * f / LATENT_J_KG for f in (1.0 - BURNER_DOUBT, 1.0, 1.0 + BURNER_DOUBT)]
    if boil == "rolling":
        # Bubbles carry steam through the surface: only the burner counts.
        return Band(heat[0], heat[1], heat[2]), "burner"
    found = [min(a, b) for a, b in zip(air, heat, strict=True)]
    return Band(found[0], found[1], found[2]), "surface" if air[1] <= heat[1] else "burner"


def pot_key(boil: Boil, diameter_mm: float) -> str:
    """How a pot at a boil is called where its rate is learnt.

    Parameters
    ----------
    boil : Boil
        How hard it cooks.
    diameter_mm : float
        Inner width of the pot, mm.

    Returns
    -------
    str
        Its key; a width to the centimetre.

    Examples
    --------
    >>> pot_key("simmer", 237.0)
    'simmer-240'
    """
    return f"{boil}-{10 * round(diameter_mm / 10):d}"


def pot_name(key: str) -> str:
    """A pot at a boil in words, from its key.

    Parameters
    ----------
    key : str
        As ``pot_key`` makes it.

    Returns
    -------
    str
        How hard it cooks, and how wide it is, cm.

    Examples
    --------
    >>> pot_name("simmer-240")
    'Simmer, pot of 24 cm'
    """
    boil, _, width_mm = key.partition("-")
    return f"{boil.capitalize()}, pot of {int(width_mm) // 10} cm"


def cook_down(
    start_g: float, left_g: float, boil: Boil, *, diameter_mm: float, burner_w_m2: float, rate_factor: float = 1.0
) -> CookDown:
    """How long it takes until so much is left.

    Parameters
    ----------
    start_g : float
        What goes in, g, above 0.
    left_g : float
        What is to be left, g, above 0 and at most what goes in.
    boil : Boil
        How hard it cooks.
    diameter_mm : float
        Inner width of the pot, mm, above 0.
    burner_w_m2 : float
        What the burner gives into the metal, W/m², above 0.
    rate_factor : float, default 1.0
        What this kitchen's own pots multiply the rate with, 0.5 to 2.

    Returns
    -------
    CookDown
        Water, minutes with their band, energy, and what binds.

    Raises
    ------
    OutOfRangeError
        When more is to be left than goes in, or a figure is not above zero.

    Examples
    --------
    A tin of 400 g of tomatoes to 330 g in a pan of 20 cm; usual practice says 20 to 30 min.

    >>> found = cook_down(400, 330, "gentle", diameter_mm=200, burner_w_m2=16_000)
    >>> round(found.minutes.usual), found.bound_by
    (19, 'surface')
    """
    if not 0.0 < start_g <= MOST_G or not LEAST_LEFT_FRAC * start_g <= left_g <= start_g:
        least = LEAST_LEFT_FRAC * start_g
        raise OutOfRangeError(
            f"Of {start_g:.0f} g between {least:.1f} and {start_g:.0f} g can be left.", field="/left_g"
        )
    if not LEAST_POT_MM <= diameter_mm <= 2000.0 or not 1.0 <= burner_w_m2 <= 1e6:
        raise OutOfRangeError("A pot is 10 to 2000 mm wide, and its burner gives something.", field="/diameter_mm")
    area = math.pi / 4 * (diameter_mm / 1000.0) ** 2
    water = start_g - left_g
    rate, bound = leaves_kg_s(boil, area_m2=area, burner_w=burner_w_m2 * area)
    rates = (rate_factor * r for r in (rate.low, rate.usual, rate.high))
    slow, usual, fast = (min(MOST_S, water / 1000.0 / r) / 60.0 for r in rates)
    heat_up = start_g / 1000.0 * SAUCE_CP * (BOILS_C - FROM_C)
    return CookDown(
        start_g,
        left_g,
        left_g / start_g,
        water,
        Band(fast, usual, slow),
        heat_up / (burner_w_m2 * area),
        heat_up + water / 1000.0 * LATENT_J_KG,
        bound if water > 0.0 else "nothing",
        start_g / left_g,
    )


def left_for_dry_frac(start_g: float, dry_g: float, wanted_frac: float) -> float:
    """What is to be left for a thickness, which is stated as dry matter.

    Parameters
    ----------
    start_g : float
        What goes in, g.
    dry_g : float
        What of it is not water, g.
    wanted_frac : float
        Dry matter wanted, 0–1.

    Returns
    -------
    float
        Grams left.

    Raises
    ------
    OutOfRangeError
        When it is that thick already, or thicker than no water at all.

    Examples
    --------
    >>> left_for_dry_frac(1000, 60, 0.08)
    750.0
    """
    now = dry_g / start_g
    if not now <= wanted_frac <= 1.0:
        raise OutOfRangeError(
            f"It holds {100 * now:.1f} % dry matter now; cooking down gives from that to 100 %.", field="/dry_frac"
        )
    return dry_g / wanted_frac
