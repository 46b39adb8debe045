"""Meats in the database, with a cache that one small query keeps honest across processes."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from vianda.core.composition import Composition
from vianda.core.larder import Larder, Meat
from vianda.storage.tables import MeatRow, RevisionRow

_COMPOSITION = (
    "water_g_per_100g",
    "protein_g_per_100g",
    "fat_g_per_100g",
    "carbohydrate_g_per_100g",
    "ash_g_per_100g",
    "sodium_mg_per_100g",
)
_PLAIN = (
    "key",
    "name",
    "species",
    "kind",
    "composition_note",
    "fat_low_frac",
    "fat_usual_frac",
    "fat_high_frac",
    "price_per_kg",
    "range_source",
    "remark",
)


@dataclass
class _Cache:
    number: int = -1
    larder: Larder | None = None


_cache = _Cache()


def _meat(row: MeatRow) -> Meat:
    composition = Composition(**{name: getattr(row, name) for name in _COMPOSITION})
    return Meat(composition=composition, **{name: getattr(row, name) for name in _PLAIN})


def revision_number(name: str) -> int:
    """The revision of a shared thing; 0 when it was never touched."""
    row = RevisionRow.get_or_none(RevisionRow.name == name)
    return row.number if row else 0


def touch(name: str) -> None:
    """Count a change of a shared thing."""
    changed = RevisionRow.update(number=RevisionRow.number + 1).where(RevisionRow.name == name).execute()
    if not changed:
        RevisionRow.insert(name=name, number=1).on_conflict_ignore().execute()


def load_larder() -> Larder:
    """The larder; parsed again only when its revision moved."""
    number = revision_number("larder")
    if _cache.number != number or _cache.larder is None:
        _cache.larder = Larder.of(_meat(row) for row in MeatRow.select().order_by(MeatRow.position, MeatRow.name))
        _cache.number = number
    return _cache.larder


def add_meats(meats: Iterable[Meat]) -> int:
    """Add meats that are not there yet; those that are stay as they are. Returns how many were added."""
    known = {row.key for row in MeatRow.select(MeatRow.key)}
    position = len(known)
    added = 0
    for meat in meats:
        if meat.key in known:
            continue
        values = {name: getattr(meat, name) for name in _PLAIN}
        values |= {name: getattr(meat.composition, name) for name in _COMPOSITION}
        MeatRow.insert(position=position, **values).execute()
        position += 1
        added += 1
    if added:
        touch("larder")
    return added
