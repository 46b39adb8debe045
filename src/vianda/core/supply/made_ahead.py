"""How what is made ahead is made: at which station, how long the hands take, when it is ready, and how long it keeps.

Minutes and days are common practice, no published source, where nothing else is said.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.model.formula import Role
from vianda.core.pipeline.figures import Figures

PrepStation = Literal["grinder", "bench", "hob", "jars"]
STATION_TITLES: Mapping[PrepStation, str] = {
    "grinder": "Grinder",
    "bench": "Cold bench",
    "hob": "Hob",
    "jars": "Jars and crocks",
}
# Raw and ground, in the cold: a day. FSIS, Refrigeration and Food Safety, has 1 to 2 days (from memory, high).
GROUND_KEEPS_DAYS = 1
# A jar or a crock keeps a week at least.
JAR_KEEPS_DAYS = 7
# A grinder taken apart, washed and dried; cubes cut; a kilogram of them.
GRINDER_SET_UP_MIN, CUT_MIN_PER_KG = 12.0, 3.0


@dataclass(frozen=True, slots=True)
class Way:
    """How a thing is made: hands, minutes whatever the amount and for a kilogram more; days until it is ready."""

    station: PrepStation
    set_up_min: float
    per_kg_min: float
    ready_days: int = 0


STIRRED = Way("bench", 8.0, 2.0)
COOKED_SOFT = Way("hob", 8.0, 8.0)
COOKED_SAUCE = Way("hob", 12.0, 3.0)
# A jar stands a day, a ferment is eaten young from the third (``sauce.brine``).
WAYS: Mapping[Role, Way] = {
    "pickle": Way("jars", 18.0, 10.0, 1),
    "ferment": Way("jars", 30.0, 12.0, 3),
    "cooking-sauce": COOKED_SAUCE,
    "sauce-base": COOKED_SAUCE,
    "gravy": COOKED_SAUCE,
}


@dataclass(frozen=True, slots=True)
class GroundBlend:
    """The meat of a dish that is ground here: grams as they go into the grinder, and the minutes at it.

    ``key`` tells blends apart: two dishes may have one name.
    """

    key: str
    dish: str
    mass_g: float
    minutes: float


@dataclass(frozen=True, slots=True)
class MadeAhead:
    """What a dish has made ahead: its ground meat, None where it is bought ground, and the ways of its house things."""

    ground: GroundBlend | None
    ways: Mapping[str, Way]


NOTHING_AHEAD = MadeAhead(None, {})


def made_ahead_of(figures: Figures, *, dish: str = "", key: str = "") -> MadeAhead:
    """What a dish has made ahead.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    dish : str, default ""
        What the dish is called.
    key : str, default ""
        What tells its blend from others.

    Returns
    -------
    MadeAhead
        Ground meat, and how each house thing beside the meat is made, by its key.
    """
    grind = figures.meat.grind
    ground = None
    if grind.minutes > 0 and grind.ground_mass_g > 0:
        ground = GroundBlend(key, dish, float(grind.ground_mass_g), grind.minutes)
    ways = {x.ingredient: WAYS[x.role] for x in figures.beside.things if x.house and x.role in WAYS}
    return MadeAhead(ground, ways)
