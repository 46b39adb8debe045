"""What is cooked beside the meat: raw mass for so many portions, loads, minutes, and the fat it leaves in the pan."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, say
from vianda.core.equipment.kitchen import Surface


@dataclass(frozen=True, slots=True)
class CookedBeside:
    """How one thing is cooked: what is left of it, how long a load takes, what a square metre holds raw, kg.

    ``fat_frac`` is the fat it gives to the pan, by its raw mass, 0–1. ``turn`` is when it goes on; ``with_meat``:
    beside the first wave, where it takes pieces' places.
    """

    raw_name: str
    left_frac: tuple[float, float, float]
    minutes: tuple[float, float, float]
    holds_kg_m2: float
    turn: str
    fat_frac: float = 0.0
    with_meat: bool = False


# Onions lose about 70 % over 20 to 40 min, and a pan holds 8 to 10 kg/m² of them: common practice, no published source.
# Bacon's yield and fat by SR28 10123 and 10862 (protein 12.62 to 33.92); the rest from memory and ours, low.
COOKED_BESIDE: Mapping[str, CookedBeside] = {
    "brown-onion": CookedBeside(
        "raw onion", (0.25, 0.30, 0.35), (20.0, 30.0, 40.0), 9.0, "Before the meat, or the day before and kept cold."
    ),
    "soft-onion": CookedBeside(
        "raw onion", (0.55, 0.70, 0.80), (8.0, 12.0, 15.0), 9.0, "Before the meat, or the day before and kept cold."
    ),
    "grilled-onion": CookedBeside(
        "raw onion slabs",
        (0.75, 0.82, 0.88),
        (8.0, 10.0, 14.0),
        6.0,
        "Beside the first wave, at the edge where it is less hot.",
        with_meat=True,
    ),
    "cooked-mushroom": CookedBeside(
        "raw mushrooms",
        (0.45, 0.55, 0.67),
        (8.0, 10.0, 14.0),
        6.0,
        "Before the meat, hot and with room: they weep first.",
    ),
    "soft-pepper": CookedBeside(
        "raw sweet pepper", (0.70, 0.80, 0.88), (8.0, 12.0, 16.0), 6.0, "Before the meat, or with the onions."
    ),
    "crisp-bacon": CookedBeside(
        "raw bacon",
        (0.33, 0.37, 0.41),
        (6.0, 8.0, 12.0),
        3.7,
        "First: its fat then fries the onions or toasts the bread.",
        0.27,
    ),
}


@dataclass(frozen=True, slots=True)
class FromRaw:
    """What so many portions take raw, g, in how many loads, how long in all, and the fat that comes of it, g.

    ``surface_frac`` is the share of the surface that one load lies on, 0–1.
    """

    raw_name: str
    raw_g: Band
    loads: int
    minutes: Band
    surface_frac: float
    fat_g: float
    turn: Phrase


def area_m2(surface: Surface) -> float:
    """Area of a surface.

    Parameters
    ----------
    surface : Surface
        A surface of the kitchen.

    Returns
    -------
    float
        m².
    """
    whole = surface.width_mm * surface.depth_mm / 1e6
    return whole * math.pi / 4 if surface.round_shape else whole


def from_raw(ingredient: str, cooked_g: float, *, surface: Surface) -> FromRaw | None:
    """What has to go raw into the pan.

    Parameters
    ----------
    ingredient : str
        Key of the cooked thing.
    cooked_g : float
        What is wanted of it cooked, g, 0 or more.
    surface : Surface
        Where it is cooked.

    Returns
    -------
    FromRaw | None
        None for what is not cooked beside the meat.

    References
    ----------
    ``COOKED_BESIDE``.

    Examples
    --------
    >>> plate = Surface("plate", "Plate", "plate", 600, 400, False)
    >>> found = from_raw("brown-onion", 600, surface=plate)
    >>> round(found.raw_g.usual), found.loads
    (2000, 1)
    """
    rule = COOKED_BESIDE.get(ingredient)
    if rule is None or cooked_g <= 0.0:
        return None
    low, usual, high = (cooked_g / f for f in reversed(rule.left_frac))
    holds = rule.holds_kg_m2 * area_m2(surface) * 1000.0
    loads = loads_for(usual, holds_g=holds)
    fast, mid, slow = (loads * m for m in rule.minutes)
    fat = rule.fat_frac * usual
    turn = say(rule.turn)
    if fat >= 1.0:
        turn = say(rule.turn + " About {m} of fat comes of it.", m=ph.mass(fat))
    return FromRaw(
        rule.raw_name, Band(low, usual, high), loads, Band(fast, mid, slow), min(1.0, usual / loads / holds), fat, turn
    )


# More of the surface than this, or more than one load, and it is cooked before the meat instead: ours.
MOST_BESIDE_FRAC = 0.5


def taken_frac(beside: Sequence[tuple[str, float]], *, surface: Surface) -> float:
    """The share of the surface that the first wave does not get, because something is cooked beside it.

    Parameters
    ----------
    beside : Sequence[tuple[str, float]]
        Keys of what goes with the formula, and what is wanted of each cooked, g.
    surface : Surface
        The meat's surface.

    Returns
    -------
    float
        0–0.5; 0 where nothing lies there, or so much that it goes on before the meat.

    Examples
    --------
    >>> plate = Surface("plate", "Plate", "plate", 600, 400, False)
    >>> round(taken_frac([("grilled-onion", 300.0)], surface=plate), 2)
    0.25
    """
    found = 0.0
    for key, grams in beside:
        rule = COOKED_BESIDE.get(key)
        if rule is not None and rule.with_meat and grams > 0.0:
            found += grams / rule.left_frac[1] / (rule.holds_kg_m2 * area_m2(surface) * 1000.0)
    return found if found <= MOST_BESIDE_FRAC else 0.0


def loads_for(mass_g: float, *, holds_g: float) -> int:
    """How many loads a surface takes for so much.

    Parameters
    ----------
    mass_g : float
        What is cooked, g.
    holds_g : float
        What it holds at once, g, above 0.

    Returns
    -------
    int
        Loads, at least 1.

    Examples
    --------
    >>> loads_for(2000, holds_g=636)
    4
    """
    return max(1, math.ceil(mass_g / holds_g - 1e-9))
