"""The salt ledger: all the salt wanted against the salt that comes along, and what is left to add."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.units import ML_PER_TSP
from vianda.core.batch.lines import Entering
from vianda.core.inventory.composition import SALT_PER_SODIUM
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient, Pantry
from vianda.core.model.formula import BlendPart, SaltPlace, Seasoning

# What a burger's rim is worth salting from: below, the faces are all there is (common practice: season the rim of a
# thick patty too).
RIM_FROM_MM = 15.0


@dataclass(frozen=True, slots=True)
class SaltEntry:
    """One thing that brings salt: its name and the salt by mass of the meat."""

    name: str
    per_meat_frac: float


@dataclass(frozen=True, slots=True)
class SaltLedger:
    """Salt by mass of the raw meat, 0–1: wanted in all, brought along, and what is left to add.

    ``over_frac`` is what comes along beyond what is wanted; then nothing is added, and it cannot be taken out.
    """

    wanted_frac: float
    place: SaltPlace
    entries: tuple[SaltEntry, ...]
    brought_frac: float
    to_add_frac: float
    over_frac: float


def salt_ledger(
    seasoning: Seasoning, *, entered: Sequence[Entering], parts: Sequence[BlendPart], inventory: Inventory
) -> SaltLedger:
    """The ledger of a mix.

    Counted as brought: every ingredient by its sodium × 2.542, and cured meat by its sodium beyond that of the same
    mass of fresh meat. The meat's own sodium is not counted against what is wanted: the old rule speaks of salt that is
    put in. Salt to add = wanted − brought, never below zero.

    Parameters
    ----------
    seasoning : Seasoning
        The salt wanted, and where it goes.
    entered : Sequence[Entering]
        The lines of the mix with their ingredients.
    parts : Sequence[BlendPart]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    SaltLedger
        Salt by mass of the raw meat, 0–1.

    Examples
    --------
    A loaf that wants 1.6 % and gets 0.7 % from cheese and crumbs is given 0.9 %.
    """
    entries = [
        SaltEntry(e.ingredient.name, e.line.per_meat_frac * e.ingredient.composition.salt_frac())
        for e in entered
        if e.ingredient.composition.sodium_mg_per_100g > 0 and e.line.per_meat_frac > 0
    ]
    for part in parts:
        meat = inventory.meat(part.meat)
        if meat.cured and part.share_frac > 0:
            extra = max(0.0, meat.composition.sodium_mg_per_100g - FRESH_SODIUM_MG_PER_100G)
            entries.append(SaltEntry(meat.name, part.share_frac * extra * SALT_PER_SODIUM / 100_000.0))
    wanted = seasoning.salt_frac if seasoning.salt_place != "none" else 0.0
    brought = math.fsum(entry.per_meat_frac for entry in entries)
    entries.sort(key=lambda entry: -entry.per_meat_frac)
    # Without salt wanted there is nothing to be over: the cook asked for none, and sees what comes along.
    over = max(0.0, brought - wanted) if seasoning.salt_place != "none" else 0.0
    return SaltLedger(wanted, seasoning.salt_place, tuple(entries), brought, max(0.0, wanted - brought), over)


# Fresh beef and pork hold 55 to 75 mg of sodium in 100 g (SR28 raw rows).
FRESH_SODIUM_MG_PER_100G = 65.0


@dataclass(frozen=True, slots=True)
class SaltFigures:
    """Salt of a batch: wanted, brought and to add in grams; teaspoons of this kitchen's salt; per piece and side.

    ``of_mix_frac`` is all salt put in or brought by mass of the whole mix, the meat's own left out. ``side_salt_g`` is
    for one face, ``rim_salt_g`` for the rim of a thick piece. ``entries_g``, ``to_add_g`` and ``over_g`` are the lines
    of the ledger in grams.
    """

    salt_frac: float
    salt_place: SaltPlace
    ledger: SaltLedger
    wanted_g: float
    brought_g: float
    batch_salt_g: float
    piece_salt_g: float
    side_salt_g: float
    rim_salt_g: float
    batch_salt_tsp: float
    salt_name: str
    g_per_tsp: float
    of_mix_frac: float
    entries_g: tuple[float, ...] = ()
    to_add_g: float = 0.0
    over_g: float = 0.0


def g_per_teaspoon(salt: Ingredient) -> float:
    """Grams of a salt in a US teaspoon.

    Parameters
    ----------
    salt : Ingredient
        The salt of this kitchen.

    Returns
    -------
    float
        Grams of a salt in a US teaspoon.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> [round(g_per_teaspoon(starter_pantry()[key]), 2) for key in ("salt-fine", "salt-flake")]
    [6.0, 3.0]
    """
    return salt.g_per_ml * ML_PER_TSP


def kitchen_salt(key: str, pantry: Pantry) -> Ingredient | None:
    """This kitchen's salt, or any that weighs by the spoon; None in a pantry without salt.

    Parameters
    ----------
    key : str
        Key of the thing, in small letters and hyphens.
    pantry : Pantry
        Ingredients by key.

    Returns
    -------
    Ingredient | None
        One thing of the pantry as it goes into the bowl. None where there is none.
    """
    found = pantry.get(key)
    if found is not None and found.group == "salt" and found.g_per_cup > 0:
        return found
    return next((i for i in pantry.values() if i.group == "salt" and i.g_per_cup > 0), None)


def salt_figures(
    ledger: SaltLedger,
    *,
    meat_mass_g: float,
    mix_mass_g: float,
    piece_mass_g: float,
    salt: Ingredient | None,
    thickness_mm: float = 0.0,
    diameter_mm: float = 0.0,
) -> SaltFigures:
    """Salt of a batch and of a piece.

    Salt on the surface of a piece at least 15 mm thick is spread by area: a face is π d² ÷ 4, the rim π d t.

    Parameters
    ----------
    ledger : SaltLedger
        What salt is brought and what is to be added.
    meat_mass_g : float
        Mass of the meat in the batch, g, above 0.
    mix_mass_g : float
        Mass of the whole mix, g, above 0.
    piece_mass_g : float
        Mass of one piece, g, above 0.
    salt : Ingredient | None
        The salt of this kitchen; None for none.
    thickness_mm : float, default 0.0
        Thickness of a raw piece, mm.
    diameter_mm : float, default 0.0
        Diameter of a raw piece, mm.

    Returns
    -------
    SaltFigures
        Salt of a batch.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> ledger = SaltLedger(0.011, "surface", (), 0.0, 0.011, 0.0)
    >>> s = salt_figures(
    ...     ledger, meat_mass_g=3400, mix_mass_g=3400, piece_mass_g=85, salt=starter_pantry()["salt-fine"])
    >>> round(s.batch_salt_g, 1), round(s.batch_salt_tsp, 1)
    (37.4, 6.2)
    """
    per_tsp = g_per_teaspoon(salt) if salt is not None else FINE_SALT_G_PER_TSP
    add_g = ledger.to_add_frac * meat_mass_g
    piece = add_g * piece_mass_g / mix_mass_g
    rim = 0.0
    if thickness_mm >= RIM_FROM_MM and diameter_mm > 0:
        rim = piece * thickness_mm / (thickness_mm + diameter_mm / 2)
    in_mix = (ledger.to_add_frac if ledger.place == "mixed" else 0.0) + ledger.brought_frac
    if ledger.place == "surface":
        in_mix += ledger.to_add_frac
    return SaltFigures(
        salt_frac=ledger.wanted_frac,
        salt_place=ledger.place,
        ledger=ledger,
        wanted_g=ledger.wanted_frac * meat_mass_g,
        brought_g=ledger.brought_frac * meat_mass_g,
        batch_salt_g=add_g,
        piece_salt_g=piece,
        side_salt_g=(piece - rim) / 2,
        rim_salt_g=rim,
        batch_salt_tsp=add_g / per_tsp,
        salt_name=salt.name if salt is not None else "Fine salt",
        g_per_tsp=per_tsp,
        of_mix_frac=in_mix * meat_mass_g / mix_mass_g,
        entries_g=tuple(entry.per_meat_frac * meat_mass_g for entry in ledger.entries),
        to_add_g=ledger.to_add_frac * meat_mass_g,
        over_g=ledger.over_frac * meat_mass_g,
    )


# A US teaspoon of fine table salt: 6 g (SR28 household weight of row 02047).
FINE_SALT_G_PER_TSP = 6.0
# The old rule of 1 to 1½ teaspoons of fine salt to a pound of meat, by mass (common practice).
USUAL_SALT_FRAC = (0.013, 0.020)
# Surface-salted burgers start a little under it: the salt sits where the tongue meets it (our default).
START_SALT_FRAC = 0.011
# Balls and loaves: all the salt together, in the middle of the old rule.
START_MIXED_SALT_FRAC = 0.016
