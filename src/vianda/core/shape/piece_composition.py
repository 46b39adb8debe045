"""What a piece is made of, as far as its size and its losses ask."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from vianda.core.batch.batch import Batch
from vianda.core.batch.lines import Entering, per_meat
from vianda.core.blend.blend import BlendFigures
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.inventory import Larder
from vianda.core.mix.whole import BINDERS, meat_compositions
from vianda.core.shape.density import ground_beef_composition


@dataclass(frozen=True, slots=True)
class Stuff:
    """A piece by mass: the mix round it, and what lies whole in the middle (``core_frac`` of the piece, 0 for none).

    ``fat_frac`` and ``water_frac`` are of the whole piece, ``meat_fat_frac`` of its meat, ``meat_frac`` the meat's
    share in the piece, ``binder_frac`` crumb, starch and egg by mass of the meat, ``core_piece_g`` one boiled egg.
    """

    mix: Composition
    fat_frac: float
    water_frac: float
    meat_fat_frac: float
    meat_frac: float
    binder_frac: float = 0.0
    core: Composition | None = None
    core_name: str = ""
    core_frac: float = 0.0
    core_piece_g: float = 0.0


def plain_stuff(fat_frac: float) -> Stuff:
    """Ground beef of a fat and nothing else, for previews."""
    beef = ground_beef_composition(fat_frac)
    return Stuff(beef, fat_frac, beef.water_g_per_100g / 100.0, fat_frac, 1.0)


def _blended(parts: Iterable[tuple[float, Composition]]) -> Composition:
    """The weighted mean of compositions: Σ mᵢ xᵢ ÷ Σ mᵢ."""
    held = [(m, c) for m, c in parts if m > 0]
    total = math.fsum(m for m, _ in held)
    names = (
        "water_g_per_100g",
        "protein_g_per_100g",
        "fat_g_per_100g",
        "carbohydrate_g_per_100g",
        "ash_g_per_100g",
        "sodium_mg_per_100g",
        "sugars_g_per_100g",
    )
    return Composition(*(math.fsum(m * getattr(c, name) for m, c in held) / total for name in names))


_SALT = Composition(0.0, 0.0, 0.0, 0.0, 100.0, 39_340.0)


def stuff_of(blend: BlendFigures, *, batch: Batch, larder: Larder) -> Stuff:
    """The stuff of one piece of a formula's batch. Masses by that of the meat."""
    meats = list(zip((p.share_frac for p in blend.parts), meat_compositions(blend.parts, larder=larder), strict=True))
    core = [e for e in batch.entered if e.group == "filling" and e.line.per_meat_frac > 0]
    mixed = [_held(e) for e in batch.entered if e.group != "filling"]
    salt = batch.mix_per_meat - 1.0 - per_meat(batch.entered)
    mix = _blended([*meats, *mixed, (max(0.0, salt), _SALT)])
    core_per_meat = sum(e.line.per_meat_frac for e in core)
    whole = _blended([(batch.mix_per_meat - core_per_meat, mix), *(_held(e) for e in core)])
    largest = max(core, key=lambda e: e.line.per_meat_frac) if core else None
    return Stuff(
        mix=mix,
        fat_frac=whole.fat_g_per_100g / 100.0,
        water_frac=min(1.0, whole.water_g_per_100g / 100.0),
        meat_fat_frac=blend.fat_frac,
        meat_frac=1.0 / batch.mix_per_meat,
        binder_frac=per_meat(batch.entered, *BINDERS),
        core=_blended(_held(e) for e in core) if core else None,
        core_name=largest.ingredient.name if largest else "",
        core_frac=core_per_meat / batch.mix_per_meat,
        core_piece_g=largest.ingredient.pieces[0].mass_g if largest and largest.ingredient.pieces else 0.0,
    )


def _held(entered: Entering) -> tuple[float, Composition]:
    return entered.line.per_meat_frac, entered.ingredient.composition
