"""The fire under a grate: how much fuel holds a temperature for so long, and when it is fed.

Orders of magnitude: grates, fuels and wind differ, so a band of a third to both sides stands beside every mass. Vents,
lid and wood for smoke are not computed; they are said as reminders.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Amount, mass
from vianda.core.equipment.heating import FIRE_H, LASTS_MIN, LIGHT_MIN, FireLayout, Fuel
from vianda.core.equipment.kitchen import Surface

# Heat of combustion, MJ/kg: charcoal 28–31, air-dry wood 14–16, propane 46. Handbook values, from memory, high.
HEAT_MJ_KG: Mapping[Fuel, float] = {"charcoal": 29.0, "wood": 15.0, "gas": 46.0}
# How much of it reaches what lies on the grate; the rest warms kettle, ash and yard. Ours, low.
REACHES_FRAC: Mapping[Fuel, float] = {"charcoal": 0.35, "wood": 0.25, "gas": 0.35}
# What share of the grate lies over fire, by how it is laid. Ours.
OVER_FIRE: Mapping[FireLayout, float] = {"even": 1.0, "two-zones": 0.5, "ring": 0.6}
# What the fire works against: meat as it browns, °C. Ours.
MEAT_C = 70.0
# How far the truth may lie to both sides, 0–1. Ours.
DOUBT_FRAC = 0.35
# A fist of dry wood for each half hour of smoke, g and min: common practice, no published source.
SMOKE_G, SMOKE_EVERY_MIN = Band(60.0, 80.0, 120.0), 30.0
# Less than this is weighed more finely, g.
FINE_BELOW_G = 300.0
# A fire cooks on for so much of its time when it is past its best. Ours.
PAST_ITS_BEST_FRAC = 0.1


@dataclass(frozen=True, slots=True)
class FirePlan:
    """Fuel for one fire: all of it and the first load, g; minutes it is lit before the first wave.

    ``fed_min``: when it is fed, minutes from the first wave, each time ``feed_g`` of fuel: coals that already burn, or
    wood as it is.
    """

    fuel: Fuel
    mass_g: Band
    first_g: Band
    lit_before_min: float
    fed_min: tuple[float, ...]
    feed_g: Band


def fire_plan(surface: Surface, *, fire_c: float, needed_min: float) -> FirePlan | None:
    """What a fire takes to hold a temperature at the grate.

    Parameters
    ----------
    surface : Surface
        The grate.
    fire_c : float
        What it is to measure at the grate, °C.
    needed_min : float
        From the first wave laid on to the last one off, min.

    Returns
    -------
    FirePlan | None
        None for what is no grate.

    References
    ----------
    Heat flux to the grate as the heat model has it, over the share of the fuel's heat that arrives there. Ours, low.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> grate = yard_galley().surface("charcoal-grate", field="")
    >>> plan = fire_plan(grate, fire_c=230, needed_min=20)
    >>> round(plan.first_g.usual, -1), plan.fed_min
    (1140.0, ())
    """
    if surface.kind != "grate":
        return None
    heating = surface.heating
    area_m2 = surface.width_mm * surface.depth_mm / 1e6 * (math.pi / 4 if surface.round_shape else 1.0)
    watts = FIRE_H[heating.fuel] * max(0.0, fire_c - MEAT_C) * area_m2 * OVER_FIRE[heating.layout]
    g_per_min = watts * 60.0 / (HEAT_MJ_KG[heating.fuel] * 1e6 * REACHES_FRAC[heating.fuel]) * 1000.0
    lasts = heating.lasts_min or LASTS_MIN[heating.fuel]
    if heating.fuel == "gas":
        burns = g_per_min * (LIGHT_MIN["gas"] + needed_min)
        return FirePlan("gas", _about(burns), _about(burns), LIGHT_MIN["gas"], (), _about(0.0))
    # A load is laid for all the time that it lasts, however short the cooking is.
    load = g_per_min * lasts
    # A fire that is a little past its best still cooks: that little is not fed.
    feeds = max(0, math.ceil(needed_min / lasts - PAST_ITS_BEST_FRAC) - 1)
    fed = tuple(lasts * (n + 1) for n in range(feeds))
    feed_g = g_per_min * (needed_min - lasts) / feeds if feeds else 0.0
    return FirePlan(
        heating.fuel, _about(load + feeds * feed_g), _about(load), LIGHT_MIN[heating.fuel], fed, _about(feed_g)
    )


def smoke_wood(minutes: float) -> Band:
    """Dry wood that is laid on a fire for smoke: a reminder, nothing is computed of it.

    Parameters
    ----------
    minutes : float
        How long the meat is to take smoke, min, above 0.

    Returns
    -------
    Band
        Mass, g: a fist of wood for each half hour begun. Common practice, no published source.

    Examples
    --------
    >>> smoke_wood(30).usual, smoke_wood(31).usual
    (80.0, 160.0)
    """
    return SMOKE_G.times(max(1, math.ceil(minutes / SMOKE_EVERY_MIN)))


def as_poured(mass_g: Band) -> Amount:
    """Fuel as it is poured or laid on.

    Parameters
    ----------
    mass_g : Band
        Its mass with its doubt, g.

    Returns
    -------
    Amount
        Low to high, to 50 g and never none; what is below 300 g to 10 g.

    Examples
    --------
    >>> a = as_poured(Band(741, 1140, 1539)); (a.value, a.high)
    (750.0, 1550.0)
    """
    step = 10.0 if mass_g.high < FINE_BELOW_G else 50.0
    return mass(*(max(step, step * round(g / step)) for g in (mass_g.low, mass_g.high)))


def _about(mass_g: float) -> Band:
    return Band(mass_g * (1.0 - DOUBT_FRAC), mass_g, mass_g * (1.0 + DOUBT_FRAC))
