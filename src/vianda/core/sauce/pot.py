"""A pot and what is in it: how high it stands, balls in it, liquid that covers them, and fat to skim."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.kitchen import Surface
from vianda.core.shape.laying import discs_at_once

# Water and the sauces here weigh 1.0 to 1.1 g/cm³: from memory, high.
SAUCE_G_CM3 = 1.05
# Balls in a second layer sit in the gaps of the first: its centres lie this much of a diameter higher. Spheres on a
# square of four touching ones lie 1/√2 higher; geometry. Covered to two thirds at least: common practice.
LAYER_RISE, COVERED_FRAC = 1.0 / math.sqrt(2.0), 2.0 / 3.0
# Room that boiling and stirring want above the surface, mm: ours.
HEADROOM_MM = 30.0
# Smaller ones are no balls, and counting how many lie in a pot would take for ever.
LEAST_BALL_MM, WIDEST_MM = 10.0, 2000.0


@dataclass(frozen=True, slots=True)
class BallsInPot:
    """Balls lying in a pot, and the sauce that covers them.

    ``lying`` is how many one layer takes, ``pile_mm`` how high they lie; ``cover_g`` covers to two thirds, ``drown_g``
    to the top; ``level_mm`` is where this much sauce stands between them, ``covered_frac`` of the pile, 0–1;
    ``sauce_short_g`` is lacking to two thirds.
    """

    balls: int
    lying: int
    layers: int
    pile_mm: float
    cover_g: float
    drown_g: float
    level_mm: float
    covered_frac: float
    sauce_per_ball_g: float
    sauce_short_g: float


def level_mm(mass_g: float, *, diameter_mm: float) -> float:
    """How high a sauce stands in a round pot.

    Parameters
    ----------
    mass_g : float
        What is in it, g, 0 or more.
    diameter_mm : float
        Inner width, mm, above 0.

    Returns
    -------
    float
        mm.

    Examples
    --------
    >>> round(level_mm(800, diameter_mm=240), 1)
    16.8
    """
    return mass_g / SAUCE_G_CM3 / _floor_cm2(diameter_mm) * 10.0


def balls_in_pot(sauce_g: float, *, balls: int, ball_mm: float, diameter_mm: float) -> BallsInPot:
    """Balls in a sauce: layers, what covers them, and where the sauce stands.

    Parameters
    ----------
    sauce_g : float
        Sauce in the pot, g, 0 or more.
    balls : int
        How many (count), at least 1.
    ball_mm : float
        Diameter of one, mm, 10 or more and no wider than the pot.
    diameter_mm : float
        Inner width of the pot, mm.

    Returns
    -------
    BallsInPot
        How they lie, and the grams that cover them.

    Raises
    ------
    OutOfRangeError
        When there are none, or one is smaller than 10 mm or wider than the pot.

    References
    ----------
    Geometry: caps of spheres below a level; discs packed in a circle (``shape.laying``). Balls covered to two thirds
    at least: common practice, no published source.

    Examples
    --------
    >>> found = balls_in_pot(900, balls=20, ball_mm=42, diameter_mm=280)
    >>> found.layers, round(found.cover_g), round(found.covered_frac, 2)
    (1, 1207, 0.47)
    """
    if balls < 1 or not LEAST_BALL_MM <= ball_mm <= diameter_mm <= WIDEST_MM:
        raise OutOfRangeError(
            f"There is one ball at least, of {LEAST_BALL_MM:.0f} mm or more and no wider than the pot.", field="/balls"
        )
    pot = Surface("pot", "Pot", "pan", diameter_mm, diameter_mm, True)
    lying = max(1, len(discs_at_once(surface=pot, diameter_mm=ball_mm, gap_mm=0.0).centres_mm))
    layers = math.ceil(balls / lying)
    pile = ball_mm * (1.0 + (layers - 1) * LAYER_RISE)
    counts = [min(lying, balls - lying * n) for n in range(layers)]
    floor = _floor_cm2(diameter_mm)

    def sauce_below(height_mm: float) -> float:
        """Grams of sauce between the balls up to a height."""
        taken = math.fsum(
            count * _cap_cm3(ball_mm, height_mm - n * ball_mm * LAYER_RISE) for n, count in enumerate(counts)
        )
        return max(0.0, floor * height_mm / 10.0 - taken) * SAUCE_G_CM3

    cover, drown = sauce_below(COVERED_FRAC * pile), sauce_below(pile)
    if sauce_g >= drown:
        level = pile + level_mm(sauce_g - drown, diameter_mm=diameter_mm)
    else:
        low, high = 0.0, pile
        for _ in range(60):
            middle = (low + high) / 2
            low, high = (middle, high) if sauce_below(middle) < sauce_g else (low, middle)
        level = (low + high) / 2
    return BallsInPot(
        balls,
        lying,
        layers,
        pile,
        cover,
        drown,
        level,
        min(1.0, level / pile),
        sauce_g / balls,
        max(0.0, cover - sauce_g),
    )


def fat_to_skim_g(mass_g: float, fat_frac: float, *, wanted_frac: float) -> float:
    """Fat to take off so that a sauce holds no more than is wanted.

    Parameters
    ----------
    mass_g : float
        What is in the pot, g, above 0.
    fat_frac : float
        Fat in it, 0–1.
    wanted_frac : float
        Fat wanted of what is left, a share of 0 or more and below 1.

    Returns
    -------
    float
        Grams, 0 when it holds no more already. What is skimmed is taken as pure fat.

    Raises
    ------
    OutOfRangeError
        When the share is not one.

    References
    ----------
    A mass balance: (F − s) ÷ (M − s) = wanted.

    Examples
    --------
    >>> round(fat_to_skim_g(1000, 0.15, wanted_frac=0.08), 1)
    76.1
    """
    if not mass_g > 0.0 or not 0.0 <= fat_frac <= 1.0 or not 0.0 <= wanted_frac < 1.0:
        raise OutOfRangeError("Fat is a share of what is in the pot: 0 to below 100 %.", field="/fat_frac")
    return max(0.0, (fat_frac - wanted_frac) * mass_g / (1.0 - wanted_frac))


def height_needed_mm(mass_g: float, *, diameter_mm: float) -> float:
    """How deep a pot must be for this much, with room to boil.

    Parameters
    ----------
    mass_g : float
        What goes in, g.
    diameter_mm : float
        Inner width, mm.

    Returns
    -------
    float
        mm; the room above is ours.

    Examples
    --------
    >>> round(height_needed_mm(800, diameter_mm=240))
    47
    """
    return level_mm(mass_g, diameter_mm=diameter_mm) + HEADROOM_MM


def _floor_cm2(diameter_mm: float) -> float:
    return math.pi / 4 * (diameter_mm / 10.0) ** 2


def _cap_cm3(ball_mm: float, height_mm: float) -> float:
    """Volume of a ball below a height over its lowest point."""
    h = min(max(height_mm, 0.0), ball_mm) / 10.0
    return math.pi * h * h * (3.0 * ball_mm / 20.0 - h) / 3.0
