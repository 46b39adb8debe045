"""The line a reading is held against: each kind of check by the kitchen's country and setting, with who says so."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.units import c_from_f
from vianda.core.equipment.kitchen import Country, Setting
from vianda.core.heat.after import HOT_HOLDS
from vianda.core.heat.floor import Floor, floors_for
from vianda.core.heat.holds import Hold, holds_of
from vianda.core.inventory.inventory import Meat
from vianda.core.supply.arrival import FLAT, MINCED, limit_for

CheckKind = Literal["delivery", "cold", "core", "hot", "cool", "reheat"]
KIND_TITLES: Mapping[CheckKind, str] = {
    "delivery": "Delivery",
    "cold": "Cold holding",
    "core": "Core at the end",
    "hot": "Hot holding",
    "cool": "Cooling",
    "reheat": "Warming up",
}


@dataclass(frozen=True, slots=True)
class CoolStep:
    """From one temperature to another, °C, within so many seconds of the first."""

    from_c: float
    to_c: float
    within_s: float


@dataclass(frozen=True, slots=True)
class CheckLimit:
    """A line: at least or at most so warm, °C (None: no such bound), held for ``hold_s`` seconds.

    ``within_s``: reached within so long, None without a limit. ``steps`` are of cooling, one after the other. ``holds``
    are of the core: any one of them will do, hotter for a shorter time.
    """

    kind: CheckKind
    source: str
    least_c: float | None = None
    most_c: float | None = None
    hold_s: float = 0.0
    within_s: float | None = None
    steps: tuple[CoolStep, ...] = ()
    holds: tuple[Hold, ...] = ()


HOUR_S = 3600.0
# All from memory. US: FDA Food Code 2022, 3-501.16 (41 °F), 3-501.14 (cooling), 3-403.11 (165 °F within 2 h): high.
# Canada: Food Retail and Food Services Code: medium. UK: Food Safety and Hygiene (England) Regulations 2013, schedule 4
# (8 °C): high; cooling within 90 min and warming up to 75 °C, guidance of the Food Standards Agency: medium. Elsewhere:
# WHO, Five Keys to Safer Food (5 °C, 60 °C), Codex Alimentarius CAC/RCP 39-1993 (60 to 10 °C within 2 h): medium.
COLD: Mapping[Country, tuple[float, str]] = {
    "US": (c_from_f(41.0), "FDA Food Code 3-501.16"),
    "CA": (4.0, "Canada, Food Retail and Food Services Code"),
    "UK": (8.0, "Food Safety and Hygiene (England) Regulations 2013, schedule 4"),
    "other": (5.0, "WHO, Five Keys to Safer Food"),
}
COOLING: Mapping[Country, tuple[tuple[CoolStep, ...], str]] = {
    "US": (
        (CoolStep(c_from_f(135.0), c_from_f(70.0), 2 * HOUR_S), CoolStep(c_from_f(135.0), c_from_f(41.0), 6 * HOUR_S)),
        "FDA Food Code 3-501.14",
    ),
    "CA": (
        (CoolStep(60.0, 20.0, 2 * HOUR_S), CoolStep(60.0, 4.0, 6 * HOUR_S)),
        "Canada, Food Retail and Food Services Code",
    ),
    "UK": ((CoolStep(63.0, 8.0, 1.5 * HOUR_S),), "UK Food Standards Agency, guidance"),
    "other": ((CoolStep(60.0, 10.0, 2 * HOUR_S),), "Codex Alimentarius, CAC/RCP 39-1993"),
}
REHEAT: Mapping[Country, tuple[float, float | None, str]] = {
    "US": (c_from_f(165.0), 2 * HOUR_S, "FDA Food Code 3-403.11"),
    "CA": (74.0, 2 * HOUR_S, "Canada, Food Retail and Food Services Code"),
    "UK": (75.0, None, "UK Food Standards Agency, guidance"),
    "other": (74.0, 2 * HOUR_S, "FDA Food Code 3-403.11, where no line of this country is held here"),
}


def lasting(seconds: float) -> ph.Amount:
    """How long, as a record says it.

    Parameters
    ----------
    seconds : float
        A time, s, at least 0.

    Returns
    -------
    Amount
        Words: to the second below two minutes, to the minute beyond.

    Examples
    --------
    >>> [lasting(s).text for s in (17.0, 180.0, 5400.0, 7200.0, 8100.0)]
    ['17 s', '3 min', '90 min', '2 h', '2 h 15 min']
    """
    if seconds < 120.0:
        return ph.word(f"{seconds:.0f} s")
    minutes = round(seconds / 60.0)
    hours, rest = divmod(minutes, 60)
    if minutes < 120:
        return ph.word(f"{minutes} min")
    return ph.word(f"{hours} h {rest} min" if rest else f"{hours} h")


def limit_of(
    kind: CheckKind, *, country: Country, setting: Setting, poultry: bool = False, stuffed: bool = False
) -> CheckLimit:
    """The line for a kind of check.

    Parameters
    ----------
    kind : CheckKind
        What is measured.
    country : Country
        Where the kitchen is.
    setting : Setting
        At home or a food service; it decides the floor of the core.
    poultry : bool, default False
        Whether there is poultry in it.
    stuffed : bool, default False
        Whether something else lies in the middle.

    Returns
    -------
    CheckLimit
        With who says so.

    References
    ----------
    The table of each kind; the core's floor and its holds: ``heat.floor``, ``heat.holds``; hot holding:
    ``heat.after.HOT_HOLDS``. All from memory.

    Examples
    --------
    >>> limit_of("hot", country="UK", setting="home").least_c
    63.0
    >>> round(limit_of("core", country="US", setting="food-service").least_c or 0.0, 1)
    68.3
    """
    if kind == "delivery":
        # Of what nobody knows the strictest line counts: that of minced meat.
        line = FLAT.get(country, MINCED)
        return CheckLimit(kind, line.source, most_c=line.most_c)
    if kind == "cold":
        most, source = COLD[country]
        return CheckLimit(kind, source, most_c=most)
    if kind == "hot":
        least, source = HOT_HOLDS[country]
        return CheckLimit(kind, source, least_c=least)
    if kind == "cool":
        steps, source = COOLING[country]
        return CheckLimit(kind, source, most_c=steps[-1].to_c, within_s=steps[-1].within_s, steps=steps)
    if kind == "reheat":
        least, within, source = REHEAT[country]
        return CheckLimit(kind, source, least_c=least, within_s=within)
    return core_limit(floors_for(country=country, setting=setting, poultry=poultry, stuffed=stuffed).leading)


def delivery_limit(meat: Meat, *, country: Country) -> CheckLimit:
    """The line of a delivery of meat.

    Parameters
    ----------
    meat : Meat
        What is delivered.
    country : Country
        Where the kitchen is.

    Returns
    -------
    CheckLimit
        How warm it may be at most, °C.

    References
    ----------
    ``supply.arrival.limit_for``.
    """
    line = limit_for(meat, country=country)
    return CheckLimit("delivery", line.source, most_c=line.most_c)


def core_limit(floor: Floor) -> CheckLimit:
    """The line of a core by its floor.

    Parameters
    ----------
    floor : Floor
        What leads for the dish.

    Returns
    -------
    CheckLimit
        Any of the floor's holds will do.
    """
    return CheckLimit("core", floor.source, least_c=floor.temp_c, hold_s=floor.hold_s, holds=holds_of(floor))
