"""Blind tastings in the database, each kitchen's own."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from peewee import Expression

from vianda.core.tasting.tasting import Tasting
from vianda.interchange.kinds import TASTINGS
from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.records import NotFoundError, standing_or_conflict
from vianda.storage.tables import TastingRow

MOST_LISTED = 50


@dataclass(frozen=True, slots=True)
class StoredTasting:
    """A tasting with its formula, its revision and when it was set up."""

    id: int
    formula_id: int
    revision: int
    created_at: datetime
    tasting: Tasting


def _here(tasting_id: int) -> Expression:
    return (TastingRow.id == tasting_id) & (TastingRow.kitchen_id == kitchen_here())


def _stored(row: TastingRow) -> StoredTasting:
    return StoredTasting(row.id, row.formula_id, row.revision, row.created_at, TASTINGS.read(row.document))


def create_tasting(formula_id: int, tasting: Tasting) -> StoredTasting:
    """Set a tasting up."""
    row = TastingRow.create(
        kitchen_id=kitchen_here(),
        formula_id=formula_id,
        document=TASTINGS.text(tasting),
        revision=1,
        created_at=now_utc(),
    )
    return get_tasting(row.id)


def get_tasting(tasting_id: int) -> StoredTasting:
    """One tasting."""
    row = TastingRow.get_or_none(_here(tasting_id))
    if row is None:
        raise NotFoundError(f"tasting {tasting_id}")
    return _stored(row)


def list_tastings(formula_id: int) -> list[StoredTasting]:
    """The newest tastings of a formula, the newest first."""
    rows = TastingRow.select().where((TastingRow.kitchen_id == kitchen_here()) & (TastingRow.formula_id == formula_id))
    return [_stored(row) for row in rows.order_by(TastingRow.id.desc()).limit(MOST_LISTED)]


def save_tasting(tasting_id: int, tasting: Tasting, *, revision: int) -> StoredTasting:
    """Save over the revision seen, or raise ``ConflictError`` with what stands now."""
    changed = (
        TastingRow.update(document=TASTINGS.text(tasting), revision=TastingRow.revision + 1)
        .where(_here(tasting_id) & (TastingRow.revision == revision))
        .execute()
    )
    stored = get_tasting(tasting_id)
    return stored if changed else standing_or_conflict(stored, same=stored.tasting == tasting)
