"""The published floors for minced meat, and which one leads in a kitchen.

Values from memory with high confidence, to be read against the current text and local codes. US rules are in
°F: 155 °F is 68.3 °C. A floor is shown beside the cook's wish; nothing here says that a burger is safe.
"""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.units import UnitSystem, c_from_f, f_from_c
from vianda.core.equipment.kitchen import Country, Setting

AT_RISK = "children, pregnant women, older people and anyone with weak immunity"


@dataclass(frozen=True, slots=True)
class Floor:
    """A published minimum: core at ``temp_c`` for ``hold_s`` seconds (0: reached)."""

    key: str
    authority: str
    temp_c: float
    hold_s: float
    rule: str
    source: str


USDA_GROUND = Floor(
    "usda-ground", "USDA consumer advice", c_from_f(160), 0, "ground beef, pork, veal, lamb to 160 °F", "USDA FSIS"
)
USDA_POULTRY = Floor(
    "usda-poultry", "USDA consumer advice", c_from_f(165), 0, "ground poultry and mixes to 165 °F", "USDA FSIS"
)
FOOD_CODE = Floor(
    "food-code", "FDA Food Code", c_from_f(155), 17, "comminuted meat, 155 °F for 17 s", "FDA Food Code 2022, 3-401.11"
)
FOOD_CODE_POULTRY = Floor(
    "food-code-poultry", "FDA Food Code", c_from_f(165), 0, "poultry, 165 °F", "FDA Food Code 2022, 3-401.11"
)
FOOD_CODE_STUFFED = Floor(
    "food-code-stuffed", "FDA Food Code", c_from_f(165), 0, "stuffed meat, 165 °F", "FDA Food Code 2022, 3-401.11"
)
CANADA_GROUND = Floor("canada-ground", "Canada", 71.0, 0, "minced beef and pork to 71 °C", "Health Canada")
CANADA_POULTRY = Floor("canada-poultry", "Canada", 74.0, 0, "minced poultry to 74 °C", "Health Canada")
UK_FSA = Floor("uk-fsa", "UK FSA advice", 70.0, 120, "70 °C for 2 min or the like", "UK Food Standards Agency")


@dataclass(frozen=True, slots=True)
class FloorChoice:
    """The floor that leads here, the others, and why."""

    leading: Floor
    others: tuple[Floor, ...]
    why: str


def shown_c(temp_c: float, *, unit_system: UnitSystem) -> float:
    """A temperature as a screen shows it: to 0.1 °C, or to 1 °F.

    Parameters
    ----------
    temp_c : float
        A temperature, °C.
    unit_system : UnitSystem
        The units on the screen.

    Returns
    -------
    float
        The figure shown, °C.

    Examples
    --------
    >>> shown_c(68.333, unit_system="metric"), shown_c(74.0, unit_system="us") == c_from_f(165)
    (68.3, True)
    """
    return c_from_f(round(f_from_c(temp_c))) if unit_system == "us" else round(temp_c, 1)


def target_meant(target_c: float, floor: Floor, *, unit_system: UnitSystem) -> float:
    """The core temperature wanted; the floor itself where a screen shows the same figure for both.

    155 °F is 68.33 °C and shown as 68.3: who types 68.3 means the floor, and gets all of it.

    Parameters
    ----------
    target_c : float
        Core temperature as kept, °C.
    floor : Floor
        The leading floor.
    unit_system : UnitSystem
        The units on the screen.

    Returns
    -------
    float
        The core temperature to cook to, °C; never below what is kept.

    Examples
    --------
    >>> target_meant(68.3, FOOD_CODE, unit_system="metric") == FOOD_CODE.temp_c
    True
    >>> target_meant(68.2, FOOD_CODE, unit_system="metric"), target_meant(75.0, FOOD_CODE, unit_system="us")
    (68.2, 75.0)
    """
    if target_c < floor.temp_c and shown_c(target_c, unit_system=unit_system) >= shown_c(
        floor.temp_c, unit_system=unit_system
    ):
        return floor.temp_c
    return target_c


def floors_for(*, country: Country, setting: Setting, poultry: bool, stuffed: bool = False) -> FloorChoice:
    """The floor that leads for a country and setting; the others stand behind it.

    ``stuffed``: another thing lies in the middle, such as boiled eggs in a loaf.

    Parameters
    ----------
    country : Country
        Country of the kitchen.
    setting : Setting
        At home or a food service.
    poultry : bool
        Whether there is poultry in it.
    stuffed : bool, default False
        Whether something else lies in the middle.

    Returns
    -------
    FloorChoice
        The floor that leads here, the others, and why.

    References
    ----------
    USDA FSIS; FDA Food Code 2022, 3-401.11; Health Canada; UK Food Standards Agency. All from memory, high
    confidence.

    Examples
    --------
    >>> floors_for(country="US", setting="home", poultry=False).leading.key
    'usda-ground'
    """
    ground = (USDA_GROUND, FOOD_CODE, CANADA_GROUND, UK_FSA)
    birds = (USDA_POULTRY, FOOD_CODE_POULTRY, CANADA_POULTRY, UK_FSA)
    known = birds if poultry else ground
    consumer, food_code, canada, uk = known
    if stuffed and not poultry:
        # The Food Code counts meat with a filling as stuffed, whatever it is filled with.
        food_code = FOOD_CODE_STUFFED
        known = (consumer, food_code, canada, uk)
    if country == "US" and setting == "food-service":
        leading, why = food_code, "the kitchen is a food service in the United States"
    elif country == "US":
        leading, why = consumer, "the kitchen is a home in the United States"
    elif country == "CA":
        leading, why = canada, "the kitchen is in Canada"
    elif country == "UK":
        leading, why = uk, "the kitchen is in the United Kingdom"
    else:
        leading = max(known, key=lambda f: f.temp_c)
        why = "no floor of this country is held here, so the hottest one leads; ask the local authority"
    if poultry:
        why += "; there is poultry in the blend"
    if stuffed:
        why += "; it is filled"
    return FloorChoice(leading, tuple(f for f in known if f is not leading), why)
