"""Counsel on what a sauce is made of: a gravy without enough starch, one cooked dry, pickles that were not drained."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.counsel.rule import PRACTICE, Remark, Rule
from vianda.core.inventory.pantry import HouseFormula, ingredient_of
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.figures import BesideFigures
from vianda.core.sauce.thicken import BY_FLOUR, FLOUR_FRAC, one_step_thicker

# What binds like flour, and what like starch alone.
BINDS: Mapping[str, float] = {
    "flour": BY_FLOUR["flour"],
    "wholemeal-flour": BY_FLOUR["flour"],
    "cornflour": BY_FLOUR["cornflour"],
}
# A sauce with more dry matter than this beside its fat is thick by what is in it, and one with less water than this
# beside its fat is a paste. Ours.
THICK_BY_ITSELF_FRAC, PASTE_WATER_FRAC = 0.20, 0.60
# Pickles in vinegar hold nine tenths of water; what brings more than a third of a sauce's water was not drained. Ours.
PICKLED, MOST_WATER_FRAC = ("relish", "dill-pickle", "sweet-pickle", "capers", "sauerkraut"), 1 / 3


def _in_pot(figures: Figures) -> Iterator[tuple[BesideFigures, HouseFormula]]:
    """Sauces of the house that stand at a simmer."""
    for thing in figures.beside.things:
        house = figures.context.inventory.pantry[thing.ingredient].house
        if house is not None and thing.role in ("cooking-sauce", "sauce-base", "gravy"):
            yield thing, house


def _beside_fat(thing: BesideFigures) -> float:
    """Water in what is not fat, 0–1."""
    rest = 100.0 - thing.taste.fat
    return thing.taste.water / rest if rest > 0.0 else 1.0


def _gravy_thin(figures: Figures) -> Remark | None:
    for thing, house in _in_pot(figures):
        if thing.role != "gravy" or 1.0 - _beside_fat(thing) > THICK_BY_ITSELF_FRAC:
            continue
        made = house.yield_g or math.fsum(line.mass_g for line in house.lines)
        liquid = thing.taste.water * made / 100.0
        flour = math.fsum(line.mass_g / BINDS[line.ingredient] for line in house.lines if line.ingredient in BINDS)
        low, high = FLOUR_FRAC["thin"][0], FLOUR_FRAC["coating"][2]
        if liquid <= 0.0 or flour >= low * liquid:
            continue
        step = one_step_thicker(liquid)
        return Remark(
            say("{name} will not thicken", name=ph.word(thing.name)),
            say(
                "Flour is {now} of its water; a gravy that coats a spoon takes {low} to {high}, cornflour half as "
                "much: {more} of it in {cold} of cold water is one step.",
                now=ph.fine_frac(flour / liquid),
                low=ph.fine_frac(FLOUR_FRAC["coating"][0]),
                high=ph.fine_frac(high),
                more=ph.mass(step.cornflour_g),
                cold=ph.mass(step.cold_water_g),
            ),
        )
    return None


def _dry(figures: Figures) -> Remark | None:
    for thing, _ in _in_pot(figures):
        if _beside_fat(thing) < PASTE_WATER_FRAC:
            return Remark(
                say("{name} is cooked dry", name=ph.word(thing.name)),
                say(
                    "Of what is not fat only {w} is water: it catches on the pan, and its salt of {s} has grown with "
                    "every gram that left. Leave more of it, or let it down with stock.",
                    w=ph.frac(_beside_fat(thing)),
                    s=ph.fine_frac(thing.taste.salt / 100.0),
                ),
            )
    return None


def _not_drained(figures: Figures) -> Remark | None:
    pantry = figures.context.inventory.pantry
    for thing in figures.beside.things:
        house = pantry[thing.ingredient].house
        if house is None or thing.role != "burger-sauce":
            continue
        water = [
            (line.ingredient, ingredient_of(pantry, line.ingredient).composition.water_g_per_100g * line.mass_g / 100.0)
            for line in house.lines
        ]
        whole = math.fsum(g for _, g in water)
        wet = {key: g for key, g in water if key in PICKLED}
        if not wet or math.fsum(wet.values()) <= MOST_WATER_FRAC * whole:
            continue
        return Remark(
            say("{name}: drain {what}", name=ph.word(thing.name), what=ph.word(_names(figures, wet))),
            say(
                "{share} of the sauce’s water comes with it. Left in a sieve until it stops dripping, the sauce stays "
                "on the bread.",
                share=ph.frac(math.fsum(wet.values()) / whole),
            ),
        )
    return None


def _names(figures: Figures, keys: Mapping[str, float]) -> str:
    return " and ".join(figures.context.inventory.pantry[key].name.lower() for key in keys)


RULES: tuple[Rule, ...] = (
    Rule(
        "sauce.cooked-dry",
        "sauce",
        "check",
        f"less than {PASTE_WATER_FRAC:.0%} of water in what is not fat",
        "ours",
        _dry,
    ),
    Rule(
        "sauce.gravy-thin",
        "sauce",
        "note",
        f"a gravy with less flour than {FLOUR_FRAC['thin'][0]:.0%} of its water, and not thick by itself",
        PRACTICE,
        _gravy_thin,
    ),
    Rule(
        "sauce.not-drained",
        "sauce",
        "note",
        "pickles that bring more than a third of a burger sauce's water",
        "ours",
        _not_drained,
    ),
)
