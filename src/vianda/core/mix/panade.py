"""The panade: crumb and liquid, whether they make a stiff paste, a soft one or soup, and what to add.

Source of the limits: common practice, no published source (``data/crumbs.toml``).
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from vianda.core.basis.band import along
from vianda.core.batch.lines import Entering
from vianda.core.inventory.pantry import Ingredient

PanadeState = Literal["none", "dry", "damp", "stiff", "soft", "soup"]
# The water of whole milk (SR28 01077): liquids are computed as the milk that brings as much water.
MILK_WATER_FRAC = 0.8813
_GROUP_DEFAULT = {"crumb": "dry-crumbs", "bread": "white-bread"}


@dataclass(frozen=True, slots=True)
class WaterUptake:
    """Grams of milk to a gram of crumb at which each state begins, and the minutes it takes to drink them."""

    damp_from: float
    firm_from: float
    soft_from: float
    soup_from: float
    soak_min: float

    def edges(self) -> tuple[float, float, float, float]:
        """Where damp, stiff, soft and soup begin.

        Returns
        -------
        tuple[float, float, float, float]
            Where damp, stiff, soft and soup begin.
        """
        return (self.damp_from, self.firm_from, self.soft_from, self.soup_from)


@dataclass(frozen=True, slots=True)
class PanadeFigures:
    """Crumb and liquid by mass of the meat, the ratio of the two, its state, and what would change it.

    ``liquid_per_meat_frac`` is computed as milk. ``to_stiff_g`` and ``to_soft_g`` are grams of milk to add (below
    zero: to leave out) for the middle of these states. ``edges`` are the ratios at which damp, stiff, soft and soup
    begin for this crumb. ``wet_ratio`` counts the water of eggs, soft cheese, tomato and sauces too, as milk.
    """

    state: PanadeState
    crumb_g: float
    liquid_g: float
    crumb_per_meat_frac: float
    liquid_per_meat_frac: float
    ratio: float
    edges: tuple[float, float, float, float]
    soak_needed_min: float
    to_stiff_g: float
    to_soft_g: float
    wet_ratio: float = 0.0


@cache
def _water_uptakes() -> Mapping[str, WaterUptake]:
    text = (files("vianda.core.mix") / "data" / "crumbs.toml").read_text(encoding="utf-8")
    return {key: WaterUptake(**row) for key, row in tomllib.loads(text).items()}


def water_uptake_of(ingredient: Ingredient) -> WaterUptake | None:
    """What a crumb or bread drinks; one we have no row for drinks like the usual of its group; None for others.

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient.

    Returns
    -------
    WaterUptake | None
        Grams of milk to a gram of crumb at which each state begins, and the minutes it takes to drink them. None where
        there is none.

    References
    ----------
    Common practice, no published source, for panko and fine crumbs; the other rows are ours.
    """
    if ingredient.group not in _GROUP_DEFAULT:
        return None
    known = _water_uptakes()
    return known.get(ingredient.key, known[_GROUP_DEFAULT[ingredient.group]])


def as_milk_frac(ingredient: Ingredient) -> float:
    """Grams of milk that bring as much water as a gram of this liquid.

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient.

    Returns
    -------
    float
        Grams of milk a gram of it (ratio), 0 and above.

    References
    ----------
    Arithmetic over SR28's water of both.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> round(as_milk_frac(starter_pantry()["water"]), 3)
    1.134
    """
    return ingredient.composition.water_g_per_100g / 100.0 / MILK_WATER_FRAC


# Beside what is poured, crumb drinks from these; from a cheese only when it is soft: so much water, g in 100 g (ours).
WET_GROUPS = frozenset({"liquid", "egg", "white", "tomato", "sauce"})
SOFT_CHEESE_WATER_G = 55.0


def drinkable_frac(entered: Sequence[Entering]) -> float:
    """All water a crumb finds in the mix beside the meat's own, as milk by mass of the meat.

    Parameters
    ----------
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.

    Returns
    -------
    float
        Grams of milk a gram of meat, 0 and above.

    References
    ----------
    Arithmetic over SR28's water; which groups count is ours.
    """
    return sum(
        e.line.per_meat_frac * as_milk_frac(e.ingredient)
        for e in entered
        if e.group in WET_GROUPS
        or (e.group == "cheese" and e.ingredient.composition.water_g_per_100g >= SOFT_CHEESE_WATER_G)
    )


def mixed_water_uptake(entered: Sequence[Entering]) -> WaterUptake | None:
    """The water uptake of all crumb together, by mass; None without crumb.

    Parameters
    ----------
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.

    Returns
    -------
    WaterUptake | None
        Grams of milk to a gram of crumb at which each state begins, and the minutes it takes to drink them. None where
        there is none.

    References
    ----------
    Arithmetic; the rows are common practice or ours.
    """
    crumbs = [
        (e.line.per_meat_frac, t) for e in entered if (t := water_uptake_of(e.ingredient)) and e.line.per_meat_frac > 0
    ]
    total = sum(mass for mass, _ in crumbs)
    if total <= 0:
        return None

    def mean(at: int) -> float:
        return sum(mass * t.edges()[at] for mass, t in crumbs) / total

    return WaterUptake(mean(0), mean(1), mean(2), mean(3), max(t.soak_min for _, t in crumbs))


def state_at(ratio: float, uptake: WaterUptake) -> PanadeState:
    """The state of a panade at a ratio of liquid (as milk) to crumb.

    Parameters
    ----------
    ratio : float
        Parts of liquid (as milk) to one of dry crumb, 0 or more.
    uptake : WaterUptake
        How much liquid the crumb takes up.

    Returns
    -------
    PanadeState
        The state of a panade at a ratio of liquid (as milk) to crumb.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> [state_at(r, WaterUptake(0.25, 1.0, 1.5, 2.3, 10)) for r in (0.1, 0.5, 1.0, 1.5, 2.3)]
    ['dry', 'damp', 'stiff', 'soft', 'soup']
    """
    found: PanadeState = "dry"
    for edge, name in zip(uptake.edges(), ("damp", "stiff", "soft", "soup"), strict=True):
        if ratio >= edge - 1e-12:
            found = name  # type: ignore[assignment]
    return found


def panade_figures(entered: Sequence[Entering], *, meat_mass_g: float) -> PanadeFigures:
    """The panade of a mix; state "none" without crumb.

    Parameters
    ----------
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.
    meat_mass_g : float
        Meat mass, g.

    Returns
    -------
    PanadeFigures
        Crumb and liquid by mass of the meat, the ratio of the two, its state, and what would change it.

    References
    ----------
    Common practice, no published source.
    """
    liquid = sum(e.line.per_meat_frac * as_milk_frac(e.ingredient) for e in entered if e.group == "liquid")
    uptake = mixed_water_uptake(entered)
    if uptake is None:
        return PanadeFigures("none", 0.0, liquid * meat_mass_g, 0.0, liquid, 0.0, (0.0, 0.0, 0.0, 0.0), 0.0, 0.0, 0.0)
    crumb = sum(e.line.per_meat_frac for e in entered if water_uptake_of(e.ingredient))
    stiff, soft = (uptake.firm_from + uptake.soft_from) / 2, (uptake.soft_from + uptake.soup_from) / 2
    return PanadeFigures(
        state=state_at(liquid / crumb, uptake),
        crumb_g=crumb * meat_mass_g,
        liquid_g=liquid * meat_mass_g,
        crumb_per_meat_frac=crumb,
        liquid_per_meat_frac=liquid,
        ratio=liquid / crumb,
        edges=uptake.edges(),
        soak_needed_min=uptake.soak_min if liquid > 0 else 0.0,
        to_stiff_g=(stiff * crumb - liquid) * meat_mass_g,
        to_soft_g=(soft * crumb - liquid) * meat_mass_g,
        wet_ratio=drinkable_frac(entered) / crumb,
    )


_STATES = (0.0, 1.0, 2.0, 3.0, 4.0)


def same_place(ratio: float, before: WaterUptake, after: WaterUptake) -> float:
    """The ratio at which another crumb is as wet as this one: as far along between the same two edges.

    Parameters
    ----------
    ratio : float
        Parts of liquid (as milk) to one of dry crumb, 0 or more.
    before : WaterUptake
        The crumb before.
    after : WaterUptake
        The crumb after.

    Returns
    -------
    float
        The ratio at which another crumb is as wet as this one.

    Examples
    --------
    >>> panko, fine = WaterUptake(0.25, 1.0, 1.5, 2.3, 10), WaterUptake(0.25, 1.0, 2.0, 3.5, 20)
    >>> same_place(1.25, panko, fine)
    1.5
    """
    old, new = (0.0, *before.edges()), (0.0, *after.edges())
    # Two edges at one place (bread is paste without a drop) leave no line between them; the later state counts.
    points = [(x, s) for at, (x, s) in enumerate(zip(old, _STATES, strict=True)) if at == 4 or old[at + 1] > x]
    return max(0.0, along(tuple(zip(_STATES, new, strict=True)), along(tuple(points), ratio)))


def dry_matter_frac(ingredient: Ingredient) -> float:
    """What is left of a crumb without its own water, 0–1: crumbs replace one another at equal dry matter.

    Parameters
    ----------
    ingredient : Ingredient
        The ingredient.

    Returns
    -------
    float
        What is left without its water, 0–1.

    References
    ----------
    SR28's water of the crumb; that equal dry matter binds alike is ours.
    """
    return 1.0 - ingredient.composition.water_g_per_100g / 100.0
