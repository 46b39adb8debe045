"""What a piece is made of, as far as its size and its losses ask."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from vianda.core.batch.batch import Batch
from vianda.core.batch.lines import Entering, per_meat
from vianda.core.blend.blend import BlendFigures
from vianda.core.inventory.composition import PARTS, Composition
from vianda.core.inventory.inventory import Inventory
from vianda.core.mix.whole import BINDERS, meat_compositions
from vianda.core.shape.density import ground_beef_composition


@dataclass(frozen=True, slots=True)
class PieceComposition:
    """A piece by mass: the mix round it, and what lies whole in the middle (``filling_frac`` of the piece, 0 for none).

    ``fat_frac`` and ``water_frac`` are of the whole piece, ``meat_fat_frac`` of its meat, ``meat_frac`` the meat's
    share in the piece, ``binder_frac`` crumb, starch and egg by mass of the meat, ``filling_piece_g`` one boiled egg,
    ``species`` the animals of the meat with their shares.
    """

    mix: Composition
    fat_frac: float
    water_frac: float
    meat_fat_frac: float
    meat_frac: float
    binder_frac: float = 0.0
    filling: Composition | None = None
    filling_name: str = ""
    filling_frac: float = 0.0
    filling_piece_g: float = 0.0
    species: tuple[tuple[str, float], ...] = (("beef", 1.0),)


def plain_composition(fat_frac: float) -> PieceComposition:
    """Ground beef of a fat and nothing else, for previews.

    Parameters
    ----------
    fat_frac : float
        Fat by mass, 0–1.

    Returns
    -------
    PieceComposition
        A piece by mass.
    """
    beef = ground_beef_composition(fat_frac)
    return PieceComposition(beef, fat_frac, beef.water_g_per_100g / 100.0, fat_frac, 1.0)


def _blended(parts: Iterable[tuple[float, Composition]]) -> Composition:
    """The weighted mean of compositions: Σ mᵢ xᵢ ÷ Σ mᵢ."""
    held = [(m, c) for m, c in parts if m > 0]
    total = math.fsum(m for m, _ in held)
    return Composition(*(math.fsum(m * getattr(c, name) for m, c in held) / total for name in PARTS))


_SALT = Composition(0.0, 0.0, 0.0, 0.0, 100.0, 39_340.0)


def piece_composition(blend: BlendFigures, *, batch: Batch, inventory: Inventory) -> PieceComposition:
    """The composition of one piece of a formula's batch. Masses by that of the meat.

    Parameters
    ----------
    blend : BlendFigures
        The blend on the scale.
    batch : Batch
        The mix divided into pieces, and the meat in it.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    PieceComposition
        A piece by mass.
    """
    meats = list(
        zip((p.share_frac for p in blend.parts), meat_compositions(blend.parts, inventory=inventory), strict=True)
    )
    filling = [e for e in batch.entered if e.group == "filling" and e.line.per_meat_frac > 0]
    mixed = [_held(e) for e in batch.entered if e.group != "filling"]
    salt = batch.mix_per_meat - 1.0 - per_meat(batch.entered)
    mix = _blended([*meats, *mixed, (max(0.0, salt), _SALT)])
    filling_per_meat = sum(e.line.per_meat_frac for e in filling)
    whole = _blended([(batch.mix_per_meat - filling_per_meat, mix), *(_held(e) for e in filling)])
    largest = max(filling, key=lambda e: e.line.per_meat_frac) if filling else None
    return PieceComposition(
        mix=mix,
        fat_frac=whole.fat_g_per_100g / 100.0,
        water_frac=min(1.0, whole.water_g_per_100g / 100.0),
        meat_fat_frac=blend.fat_frac,
        meat_frac=1.0 / batch.mix_per_meat,
        binder_frac=per_meat(batch.entered, *BINDERS),
        filling=_blended(_held(e) for e in filling) if filling else None,
        filling_name=largest.ingredient.name if largest else "",
        filling_frac=filling_per_meat / batch.mix_per_meat,
        filling_piece_g=largest.ingredient.pieces[0].mass_g if largest and largest.ingredient.pieces else 0.0,
        species=_animals(blend),
    )


def _animals(blend: BlendFigures) -> tuple[tuple[str, float], ...]:
    found: dict[str, float] = {}
    for part in blend.parts:
        if part.share_frac > 0:
            found[part.species] = found.get(part.species, 0.0) + part.share_frac
    total = math.fsum(found.values())
    return tuple((animal, share / total) for animal, share in found.items())


def _held(entered: Entering) -> tuple[float, Composition]:
    return entered.line.per_meat_frac, entered.ingredient.composition
