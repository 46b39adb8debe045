"""What a pot that was weighed and a bowl that was scraped say, beside what was reckoned with."""

from __future__ import annotations

import math

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.batch.division import expected_loss_g
from vianda.core.learning.effects import P90
from vianda.core.learning.figures import Observation
from vianda.core.learning.in_use import BOWL
from vianda.core.sauce.cook_down import Boil, cook_down, pot_key

# Minutes are told to about one, a full pot weighed to a hundredth of what it holds. Ours.
TIMED_MIN, WEIGHED_FRAC = 1.0, 0.01
# A pot that lost less than this share says more of the scale than of the pot. Ours.
LEAST_BOILED_FRAC = 0.02
# The finest step of a kitchen's scale, g: what is less was not weighed. Ours.
LEAST_BOILED_G = 0.1
# The usual loss differs by a half from batch to batch, for the range that was forecast. Ours.
BOWL_SD = 0.5


def evaporation_observation(
    number: int, at: float, *, start_g: float, left_g: float, minutes: float, boil: Boil, diameter_mm: float,
    burner_w_m2: float, factor: float = 1.0,
) -> Observation:  # fmt: skip
    """What a pot says of how fast water leaves it.

    Parameters
    ----------
    number : int
        Number of the observation (count).
    at : float
        When, s from any fixed moment.
    start_g, left_g : float
        What was in the pot when it began to cook and when it was taken off, g.
    minutes : float
        How long it cooked from the boil on, min, 1 to 1440.
    boil : Boil
        How hard it cooked.
    diameter_mm : float
        Inner width of the pot, mm.
    burner_w_m2 : float
        What the burner gives into the metal, W/m².
    factor : float, default 1.0
        The ratio that its forecast was made with, 0.5 to 2 (times).

    Returns
    -------
    Observation
        Of the figure "evaporation", in minutes: above the forecast where it was slow.

    Raises
    ------
    OutOfRangeError
        When next to nothing boiled off, or less than a minute passed.
    """
    if not TIMED_MIN <= minutes <= 24 * 60:
        raise OutOfRangeError(
            f"It cooked for {minutes:.1f} min; a pot is told for {TIMED_MIN:.0f} min to a day, since minutes are told "
            "to about one.",
            field="/minutes",
        )
    told = cook_down(
        start_g, left_g, boil, diameter_mm=diameter_mm, burner_w_m2=burner_w_m2, rate_factor=factor
    ).minutes
    if start_g - left_g < max(LEAST_BOILED_FRAC * start_g, LEAST_BOILED_G):
        raise OutOfRangeError(
            f"{start_g - left_g:.0f} g of {start_g:.0f} boiled off: too little to tell by weighing.", field="/left_g"
        )
    weighed = math.hypot(WEIGHED_FRAC * start_g, WEIGHED_FRAC * left_g) / (start_g - left_g)
    return Observation(
        "evaporation", number, at, "", "", minutes, told.low, told.usual, told.high,
        math.log(told.usual / minutes) + math.log(factor), math.hypot(TIMED_MIN / minutes, weighed),
        thing=pot_key(boil, diameter_mm),
    )  # fmt: skip


def bowl_observation(
    weighing: int, at: float, *, mix_g: float, shaped_g: float, left_g: float, pieces: int, step_g: float,
    factor: float = 1.0,
) -> Observation | None:  # fmt: skip
    """What a batch that was portioned on the scale says of what stays on bowl and gloves.

    Parameters
    ----------
    weighing : int
        Number of the run of check-weighing (count).
    at : float
        When, s from any fixed moment.
    mix_g, shaped_g, left_g : float
        Mix that was in the bowl, all pieces as the scale showed them, and what was left to be used, g.
    pieces : int
        Pieces that were weighed, 1 or more (count).
    step_g : float
        Step of the scale, g, above 0.
    factor : float, default 1.0
        How many times the usual loss, 0.5 to 2.

    Returns
    -------
    Observation | None
        Of the figure "bowl", g; None where less is missing than the scale can tell.

    Raises
    ------
    OutOfRangeError
        When more came out of the bowl than was in it, by more than the scale can be off.

    References
    ----------
    Each reading lies evenly within a step: its spread is that of a uniform error, step ÷ √12; textbook.
    """
    lost = mix_g - shaped_g - left_g
    sd = step_g * math.sqrt((pieces + 2) / 12.0)
    if lost < -3.0 * sd:
        raise OutOfRangeError(
            f"{shaped_g:.0f} g in pieces and {left_g:.0f} g left are more than the {mix_g:.0f} g of the mix. "
            "Weigh the mix before it is portioned.",
            field="/left_g",
        )
    if lost <= sd:
        return None
    usual = expected_loss_g(pieces, factor=factor)
    spread = math.exp(P90 * BOWL_SD)
    return Observation(
        "bowl", weighing, at, "", "", lost, usual / spread, usual, usual * spread,
        math.log(lost / usual) + math.log(factor), sd / lost, thing=BOWL,
    )  # fmt: skip
