"""Mise en place: everything weighed and in its bowl, in the order of the hands, before the first piece is cooked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.batch.salt_ledger import kitchen_salt
from vianda.core.cook.balance import BesideKind
from vianda.core.inventory.pantry import Group
from vianda.core.model.stocked import ItemKind
from vianda.core.pipeline.figures import Figures

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
