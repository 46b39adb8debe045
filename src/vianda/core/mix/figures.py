"""Everything about what goes into the meat, for one batch."""

from __future__ import annotations

import math
from dataclasses import dataclass
from decimal import Decimal

from vianda.core.basis.band import Band
from vianda.core.batch.batch import Batch
from vianda.core.batch.lines import LineFigures, line_figures
from vianda.core.batch.salt_ledger import SaltFigures, kitchen_salt
from vianda.core.blend.blend import BlendFigures
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient
from vianda.core.mix.index import Index, MixFacts, bind_index, looseness_index
from vianda.core.mix.panade import PanadeFigures, panade_figures
from vianda.core.mix.schools import BAND_GROUPS, TITLES, BandGroup, Resemblance, group_amounts, resembles
from vianda.core.mix.temperature import chill_minutes, mixed_temp_c
from vianda.core.mix.whole import WholeMix, bowl_parts, composition_of_whole, whole_mix
from vianda.core.model.formula import Formula

COLD_C = 4.0
COARSE_PLATE_MM = 7.0


@dataclass(frozen=True, slots=True)
class GroupFigures:
    """One group of the mix, all its ingredients together, by mass of the meat and in grams. Liquid is computed as milk.

    ``held_frac`` is what its locked lines hold: it does not go below that.
    """

    group: BandGroup
    title: str
    per_meat_frac: float
    mass_g: float
    held_frac: float


@dataclass(frozen=True, slots=True)
class MixFigures:
    """The mix of a formula: its lines, its panade, the whole, how it holds, and how warm it comes out."""

    lines: tuple[LineFigures, ...]
    groups: tuple[GroupFigures, ...]
    panade: PanadeFigures
    resemblance: Resemblance
    whole: WholeMix
    bind: Index
    looseness: Index
    mix_temp_c: float
    chill_to_cold_min: Band
    cost: Decimal


def mix_figures(
    formula: Formula,
    *,
    batch: Batch,
    blend: BlendFigures,
    salt: SaltFigures,
    inventory: Inventory,
    kitchen: Kitchen,
    plate_mm: float,
) -> MixFigures:
    """All figures of a mix. Masses are exact; only the weighing out is rounded.

    Parameters
    ----------
    formula : Formula
        The design of one dish.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    blend : BlendFigures
        The blend on the scale.
    salt : SaltFigures
        The salt figures of the batch.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    plate_mm : float
        Holes of the last plate of the grinder, mm.

    Returns
    -------
    MixFigures
        The mix of a formula.
    """
    mix = formula.mix
    meat_g = batch.meat_mass_g
    lines = line_figures(batch.entered, meat_mass_g=meat_g)
    panade = panade_figures(batch.entered, meat_mass_g=meat_g)
    mixed_salt = salt.batch_salt_g if salt.salt_place == "mixed" else 0.0
    parts = bowl_parts(blend, lines, inventory=inventory, meat_mass_g=meat_g, meat_temp_c=mix.meat_temp_c)
    whole = whole_mix(
        parts,
        lines=lines,
        blend=blend,
        meat_mass_g=meat_g,
        mixed_salt_g=mixed_salt,
        surface_salt_g=salt.batch_salt_g - mixed_salt,
    )
    temp = mixed_temp_c(parts)
    facts = _facts(formula, lines=lines, panade=panade, salt=salt, blend=blend, temp_c=temp, plate_mm=plate_mm)
    salt_ingredient = kitchen_salt(kitchen.salt, inventory.pantry)
    return MixFigures(
        lines=lines,
        groups=_groups(batch, meat_g),
        panade=panade,
        resemblance=resembles(
            formula.dish.dish, batch.entered, place=salt.salt_place, parts=formula.parts, inventory=inventory
        ),
        whole=whole,
        bind=bind_index(facts),
        looseness=looseness_index(facts),
        mix_temp_c=temp,
        chill_to_cold_min=chill_minutes(from_c=temp, to_c=COLD_C, composition=composition_of_whole(whole)),
        cost=sum((line.cost for line in lines), Decimal(0)) + _salt_cost(salt, salt_ingredient),
    )


def _salt_cost(salt: SaltFigures, ingredient: Ingredient | None) -> Decimal:
    # Salt strewn at the stove is not in the price of the mix.
    if ingredient is None or salt.salt_place != "mixed":
        return Decimal(0)
    return Decimal(repr(salt.batch_salt_g)) / 1000 * ingredient.price_per_kg


def _groups(batch: Batch, meat_g: float) -> tuple[GroupFigures, ...]:
    amounts = group_amounts(batch.entered)
    locked = group_amounts(tuple(e for e in batch.entered if e.line.locked))
    return tuple(GroupFigures(g, TITLES[g], amounts[g], amounts[g] * meat_g, locked[g]) for g in BAND_GROUPS)


def _facts(
    formula: Formula,
    *,
    lines: tuple[LineFigures, ...],
    panade: PanadeFigures,
    salt: SaltFigures,
    blend: BlendFigures,
    temp_c: float,
    plate_mm: float,
) -> MixFacts:
    def share(*groups: str) -> float:
        return math.fsum(line.per_meat_frac for line in lines if line.group in groups)

    raw_onion = math.fsum(line.per_meat_frac for line in lines if line.ingredient in ("onion", "spring-onion"))
    wet = raw_onion + math.fsum(
        line.per_meat_frac
        for line in lines
        if line.ingredient in ("mushroom", "carrot", "celery", "sweet-pepper", "spinach")
    )
    in_mix = salt.ledger.brought_frac + (salt.ledger.to_add_frac if salt.salt_place == "mixed" else 0.0)
    return MixFacts(
        egg=share("egg"),
        white=share("white"),
        cheese=share("cheese"),
        raw_onion=raw_onion,
        raw_wet=wet,
        salt_in_mix=in_mix,
        fat_frac=blend.fat_frac,
        panade=panade,
        processor_s=formula.mix.work_s if formula.mix.work == "processor" else 0.0,
        work_s=formula.mix.work_s if formula.mix.work != "processor" and lines else 0.0,
        mix_temp_c=temp_c,
        coarse=plate_mm >= COARSE_PLATE_MM,
    )
