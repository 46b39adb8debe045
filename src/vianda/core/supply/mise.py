"""Mise en place: everything weighed and in its bowl, in the order of the hands, before the first piece is cooked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.cook.balance import BesideKind
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Group
from vianda.core.model.stocked import ItemKind
from vianda.core.pipeline.figures import Figures
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
    """So much of one thing set out: g, of bread pieces. ``note`` names the lot it comes from."""

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
    """What is written on what is made ahead. ``use_by`` is the last day; ``allergens`` as they are declared."""

    name: str
    mass_g: float
    made: date
    use_by: date
    allergens: tuple[str, ...]


def mise_en_place(figures: Figures, *, dish: str = "") -> Mise:
    """Everything of one dish, by station.

    Parameters
    ----------
    figures : Figures
        The results of all stages.
    dish : str, default ""
        What the dish is called.

    Returns
    -------
    Mise
        Masses as they are used: meat trimmed and before the grinder, the mix as it goes in.

    References
    ----------
    The same lines that cost and allergens count.
    """
    context = figures.context
    found: dict[Station, list[Portion]] = {station: [] for station in STATIONS}
    for part, line in zip(context.formula.parts, figures.trade.cost.parts, strict=True):
        lot = context.inventory.lots.get(part.lot)
        if line.trimmed_g > 0.0:
            name = context.inventory.meat(part.meat).name
            found["meat"].append(Portion("meat", part.meat, name, line.trimmed_g, lot.name if lot else ""))
    for entry in figures.mix.lines:
        if entry.mass_g > 0.0:
            found[BOWLS[entry.group]].append(Portion("thing", entry.ingredient, entry.name, entry.mass_g, ""))
    salt = kitchen_salt(context.kitchen.salt, context.inventory.pantry)
    if salt is not None and figures.salt.batch_salt_g > 0.0:
        where: Station = "dry" if figures.salt.salt_place == "mixed" else "heat"
        found[where].append(Portion("thing", salt.key, salt.name, figures.salt.batch_salt_g, ""))
    for thing in figures.served.things:
        if thing.kind == "bread":
            pieces = float(round(thing.used_g / context.bun.mass_g))
            found["build"].append(Portion("bread", thing.key, thing.name, pieces, ""))
        else:
            station: Station = "heat" if thing.kind in AT_THE_HEAT else "build"
            found[station].append(Portion("thing", thing.key, thing.name, thing.used_g, ""))
    portions = figures.batch.portions
    return Mise(
        dish=dish,
        guests=context.formula.dish.guests,
        pieces=portions.pieces,
        piece_g=float(portions.piece_mass_g),
        bowls=tuple(Bowl(s, STATIONS[s], tuple(each)) for s, each in found.items() if each),
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
    return Label(make.name, make.mass_g, made, made + timedelta(days=keeps), thing.allergens if thing else ())
