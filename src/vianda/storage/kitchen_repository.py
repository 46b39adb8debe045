"""The kitchen in the database."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.equipment.kitchen import Kitchen
from vianda.interchange.kinds import KITCHENS
from vianda.storage.caches import on_rollback
from vianda.storage.records import ConflictError, NotFoundError
from vianda.storage.tables import KitchenRow


@dataclass(frozen=True, slots=True)
class StoredKitchen:
    """The kitchen with its revision."""

    revision: int
    kitchen: Kitchen


@dataclass
class _Cache:
    stored: StoredKitchen | None = None


_cache = _Cache()


def _forget() -> None:
    _cache.stored = None


on_rollback(_forget)


def load_kitchen() -> StoredKitchen:
    """The kitchen as it stands; parsed again only when its revision moved."""
    row = KitchenRow.select(KitchenRow.id, KitchenRow.revision).order_by(KitchenRow.id).first()
    if row is None:
        raise NotFoundError("no kitchen")
    if _cache.stored is None or _cache.stored.revision != row.revision:
        document = KitchenRow.get_by_id(row.id).document
        _cache.stored = StoredKitchen(row.revision, KITCHENS.read(document))
    return _cache.stored


def has_kitchen() -> bool:
    """Whether the kitchen was set up."""
    return KitchenRow.select().exists()


def create_kitchen(kitchen: Kitchen) -> None:
    """Set the kitchen up."""
    KitchenRow.insert(document=KITCHENS.text(kitchen), revision=1).execute()


def save_kitchen(kitchen: Kitchen, *, revision: int) -> StoredKitchen:
    """Save over the revision seen, or raise ``ConflictError`` with what stands now."""
    changed = (
        KitchenRow.update(document=KITCHENS.text(kitchen), revision=KitchenRow.revision + 1)
        .where(KitchenRow.revision == revision)
        .execute()
    )
    if not changed:
        raise ConflictError(load_kitchen())
    return load_kitchen()
