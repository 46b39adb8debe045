"""Mise en place: everything weighed and in its bowl, in the order of the hands, before the first piece is cooked."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.cook.balance import BesideKind
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Group
from vianda.core.model.stocked import ItemKind
from vianda.core.pipeline.figures import Figures
from vianda.core.supply.made_ahead import GROUND_KEEPS_DAYS
from vianda.core.supply.shopping import COOKED_KEEPS_DAYS, Make

Station = Literal["meat", "dry", "wet", "cut", "heat", "build"]
# In which order a cook sets it out, and what each is called.
STATIONS: Mapping[Station, str] = {
    "meat": "Meat, trimmed and cold",
    "dry": "Dry bowl",
    "wet": "Wet bowl",
    "cut": "Cut, grated or cooked",
    "heat": "At the heat",
    "build": "At the build",
}
# What is stirred together before it meets the meat: common practice, no published source.
BOWLS: Mapping[Group, Station] = {
    "crumb": "dry",
    "bread": "cut",
    "starch": "dry",
    "liquid": "wet",
    "egg": "wet",
    "white": "wet",
    "filling": "cut",
    "cheese": "cut",
    "onion": "cut",
    "vegetable": "cut",
    "tomato": "wet",
    "herb": "cut",
    "spice": "dry",
    "sauce": "wet",
    "salt": "dry",
    "fat": "wet",
    "sweet": "dry",
    "acid": "wet",
}
AT_THE_HEAT: tuple[BesideKind, ...] = ("pan-fat", "frying-fat", "cheese", "glaze")


@dataclass(frozen=True, slots=True)
class Portion:
    """So much of one thing set out: g, of bread pieces. ``line`` tells it apart, ``note`` names its lot."""

    line: str
    kind: ItemKind
    key: str
    name: str
    amount: float
    note: str


@dataclass(frozen=True, slots=True)
class Bowl:
    """What stands together at one station."""

    station: Station
    title: str
    portions: tuple[Portion, ...]


@dataclass(frozen=True, slots=True)
class Mise:
    """One dish set out: its bowls in order, pieces and what one weighs, g."""

    dish: str
    guests: int
    pieces: int
    piece_g: float
    bowls: tuple[Bowl, ...]


@dataclass(frozen=True, slots=True)
class Label:
    """What is written on what is made ahead. ``use_by`` is the last day; ``allergens`` as they are declared.

    ``lot`` is its own code; ``from_lots`` names the lots of meat that are in it.
    """

    name: str
    mass_g: float
    made: date
    use_by: date
    allergens: tuple[str, ...]
    lot: str
    from_lots: tuple[str, ...] = ()


def mise_en_place(figures: Figures, *, dish: str = "", key: str = "") -> Mise:
    """Everything of one dish, by station.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    dish : str, default ""
        What the dish is called.
    key : str, default ""
        What tells its lines from those of other dishes.

    Returns
    -------
    Mise
        Masses as they are used: meat trimmed and before the grinder, the mix as it goes in.

    References
    ----------
    The same lines that cost and allergens count.
    """
    context = figures.context
    found: dict[Station, dict[str, Portion]] = {station: {} for station in STATIONS}

    def put(station: Station, kind: ItemKind, thing: str, name: str, amount: float, lot: str = "") -> None:
        note = context.inventory.lots[lot].name if lot in context.inventory.lots else ""
        line = "/".join((key, station, kind, thing, lot)).strip("/")
        # One thing for two ends, such as butter for pan and glaze, stands there once.
        there = found[station][line].amount if line in found[station] else 0.0
        found[station][line] = Portion(line, kind, thing, name, there + amount, note)

    for part, line in zip(context.formula.parts, figures.trade.cost.parts, strict=True):
        if line.trimmed_g > 0.0:
            put("meat", "meat", part.meat, context.inventory.meat(part.meat).name, line.trimmed_g, part.lot)
    for entry in figures.mix.lines:
        if entry.mass_g > 0.0:
            put(BOWLS[entry.group], "thing", entry.ingredient, entry.name, entry.mass_g)
    salt = kitchen_salt(context.kitchen.salt, context.inventory.pantry)
    if salt is not None and figures.salt.batch_salt_g > 0.0:
        where: Station = "dry" if figures.salt.salt_place == "mixed" else "heat"
        put(where, "thing", salt.key, salt.name, figures.salt.batch_salt_g)
    for thing in figures.served.things:
        if thing.kind == "bread":
            put("build", "bread", thing.key, thing.name, float(round(thing.used_g / context.bun.mass_g)))
        else:
            put("heat" if thing.kind in AT_THE_HEAT else "build", "thing", thing.key, thing.name, thing.used_g)
    portions = figures.batch.portions
    return Mise(
        dish=dish,
        guests=context.formula.dish.guests,
        pieces=portions.pieces,
        piece_g=float(portions.piece_mass_g),
        bowls=tuple(Bowl(s, STATIONS[s], tuple(each.values())) for s, each in found.items() if each),
    )


def label_of(make: Make, *, inventory: Inventory, served: date) -> Label:
    """The label of what is made ahead.

    Parameters
    ----------
    make : Make
        What is made, and how much.
    inventory : Inventory
        The pantry with what is declared of each thing.
    served : date
        The day for which it is made: the day before, where it keeps so long.

    Returns
    -------
    Label
        Used by the day it keeps to, the day it is made counted as none.
    """
    thing = inventory.pantry.get(make.key)
    keeps = thing.house.keeps_days if thing is not None and thing.house is not None else COOKED_KEEPS_DAYS
    made = served - timedelta(days=1 if keeps >= 1 else 0)
    allergens = thing.allergens if thing else ()
    return Label(make.name, make.mass_g, made, made + timedelta(days=keeps), allergens, lot_code(made, make.key))


def label_of_mix(figures: Figures, *, key: str, served: date, from_lots: Iterable[str] = ()) -> Label:
    """The label of a dish's raw mix, ground, mixed and shaped the day before.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    key : str
        What tells the dish from others.
    served : date
        The day for which it is made.
    from_lots : Iterable[str], default ()
        Names of the lots that its meat comes from.

    Returns
    -------
    Label
        Its mass is of meat and mix together, before it is cooked.
    """
    formula, pantry = figures.context.formula, figures.context.inventory.pantry
    lines = [x.ingredient for x in figures.mix.lines if x.mass_g > 0.0]
    made = served - timedelta(days=GROUND_KEEPS_DAYS)
    return Label(
        f"{formula.name}, raw mix",
        float(figures.batch.mix_mass_g),
        made,
        served,
        tuple(dict.fromkeys(a for ingredient in lines for a in pantry[ingredient].allergens)),
        lot_code(made, key),
        tuple(from_lots),
    )


def lot_code(made: date, key: str) -> str:
    """The code of what is made on a day; with a letter L before it, as lots are marked in the EU and the UK.

    Parameters
    ----------
    made : date
        The day on which it is made.
    key : str
        What it is.

    Returns
    -------
    str
        One a day and thing.

    References
    ----------
    Directive 2011/91/EU, article 4 (from memory, medium): any code that tells batches apart, after the letter L.

    Examples
    --------
    >>> lot_code(date(2026, 12, 3), "relish")
    'L261203-RELISH'
    """
    return f"L{made:%y%m%d}-{key.upper()}"
