"""How warm a delivery may be: taken in, taken in with a word, or refused; each country's own line."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.units import UnitSystem, c_from_f
from vianda.core.equipment.kitchen import Country
from vianda.core.inventory.inventory import POULTRY as POULTRY_SPECIES
from vianda.core.inventory.inventory import Meat

Taken = Literal["taken", "refused", "unmeasured"]
COLDEST_C, HOTTEST_C = -40.0, 60.0


@dataclass(frozen=True, slots=True)
class ArrivalLimit:
    """The warmest a delivery may be, °C, and who says so."""

    most_c: float
    source: str


# US: FDA Food Code 2022, 3-202.11(A): 41 °F or below. Canada: Food Retail and Food Services Code, 4 °C or below. EU and
# UK (retained): Regulation 853/2004, annex III, section V, chapter III: minced meat 2 °C, section I chapter VII: meat
# 7 °C, offal 3 °C, section II chapter V: poultry 4 °C. All from memory; the US line high, the others medium.
FOOD_CODE = ArrivalLimit(c_from_f(41.0), "FDA Food Code 3-202.11")
CANADA = ArrivalLimit(4.0, "Canada, Food Retail and Food Services Code")
MINCED, MEAT = ArrivalLimit(2.0, "Regulation (EC) 853/2004, minced meat"), ArrivalLimit(7.0, "Regulation (EC) 853/2004")
OFFAL, POULTRY = (
    ArrivalLimit(3.0, "Regulation (EC) 853/2004, offal"),
    ArrivalLimit(4.0, "Regulation (EC) 853/2004, poultry"),
)
FLAT: Mapping[str, ArrivalLimit] = {"US": FOOD_CODE, "CA": CANADA}


@dataclass(frozen=True, slots=True)
class Arrival:
    """Whether a delivery is taken in: the limit, °C, and what to do."""

    taken: Taken
    most_c: float
    source: str
    says: Phrase


def limit_for(meat: Meat, *, country: Country) -> ArrivalLimit:
    """The line for a meat in a country.

    Parameters
    ----------
    meat : Meat
        What is delivered.
    country : Country
        Where the kitchen is. Where no line of its own is known, the European ones stand.

    Returns
    -------
    ArrivalLimit
        The warmest it may be, °C.

    References
    ----------
    FDA Food Code 3-202.11; Canada's Food Retail and Food Services Code; Regulation (EC) 853/2004, annex III: from
    memory.
    """
    if country in FLAT:
        return FLAT[country]
    if meat.kind == "ground":
        return MINCED
    if meat.kind == "offal":
        return OFFAL
    return POULTRY if meat.species in POULTRY_SPECIES else MEAT


def limit_ground(meats: Iterable[Meat], *, country: Country) -> ArrivalLimit:
    """The line for meats that are delivered ground together: the strictest of them, as minced meat.

    Parameters
    ----------
    meats : Iterable[Meat]
        What is in the blend; one at least.
    country : Country
        Where the kitchen is.

    Returns
    -------
    ArrivalLimit
        The warmest it may be, °C.

    References
    ----------
    See ``limit_for``.
    """
    return min((limit_for(replace(m, kind="ground"), country=country) for m in meats), key=lambda x: x.most_c)


def arrival(meat: Meat, temp_c: float | None, *, country: Country, unit_system: UnitSystem = "metric") -> Arrival:
    """Whether a delivery is taken in by its temperature.

    Parameters
    ----------
    meat : Meat
        What is delivered.
    temp_c : float | None
        Measured between two packs, °C; None where nobody measured.
    country : Country
        Where the kitchen is.
    unit_system : UnitSystem, default "metric"
        A thermometer in °F is judged in whole degrees, one in °C in tenths.

    Returns
    -------
    Arrival
        Taken, refused, or not measured.

    Raises
    ------
    OutOfRangeError
        A temperature that no delivery has.
    """
    line = limit_for(meat, country=country)
    if temp_c is None:
        return Arrival(
            "unmeasured",
            line.most_c,
            line.source,
            say("Measure it between two packs: {most} is the most.", most=ph.temp(line.most_c)),
        )
    if not COLDEST_C <= temp_c <= HOTTEST_C:
        raise OutOfRangeError("A delivery has −40 to 60 °C.", field="/temp_c")
    step = 5.0 / 9.0 if unit_system == "us" else 0.1
    if temp_c > line.most_c + step / 2 - 1e-9:
        return Arrival(
            "refused",
            line.most_c,
            line.source,
            say(
                "Refuse it: {t} is above {most}, the warmest it may arrive. Nobody knows how long it was warm.",
                t=ph.temp(temp_c),
                most=ph.temp(line.most_c),
            ),
        )
    return Arrival("taken", line.most_c, line.source, say("Taken in at {t}.", t=ph.temp(temp_c)))
