"""Meats, lots and the pantry in the database, with a cache that one small query keeps honest across processes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from peewee import Expression

from vianda.core.inventory.composition import Composition
from vianda.core.inventory.inventory import Inventory, Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient
from vianda.interchange.kinds import INGREDIENTS, LOTS, as_kept
from vianda.storage.actor import made
from vianda.storage.caches import on_rollback
from vianda.storage.here import kitchen_here
from vianda.storage.records import ConflictError, NotFoundError, standing_or_conflict
from vianda.storage.revisions import revision_number, touch
from vianda.storage.tables import IngredientRow, LotRow, MeatRow

_COMPOSITION = (
    "water_g_per_100g",
    "protein_g_per_100g",
    "fat_g_per_100g",
    "carbohydrate_g_per_100g",
    "ash_g_per_100g",
    "sodium_mg_per_100g",
    "sugars_g_per_100g",
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
    "connective",
    "cured",
    "trim_loss_frac",
    "pack_mass_g",
    "retired",
)


# The larder of each kitchen, with the revision it was read at.
_cache: dict[int, tuple[int, Inventory]] = {}
MOST_CACHED = 8
# Rows written at once.
CHUNK = 200

on_rollback(_cache.clear)


def larder_here() -> str:
    """The name under which this kitchen's larder counts its changes."""
    return f"larder:{kitchen_here()}"


def _meat(row: MeatRow) -> Meat:
    composition = Composition(**{name: getattr(row, name) for name in _COMPOSITION})
    return Meat(composition=composition, **{name: getattr(row, name) for name in _PLAIN})


def load_inventory() -> Inventory:
    """The larder; parsed again only when its revision moved."""
    here, number = kitchen_here(), revision_number(larder_here())
    known = _cache.get(here)
    if known is not None and known[0] == number:
        return known[1]
    inventory = Inventory.of(
        (
            _meat(row)
            for row in MeatRow.select().where(MeatRow.kitchen_id == here).order_by(MeatRow.position, MeatRow.name)
        ),
        (lot.lot for lot in list_lots()),
        (thing.ingredient for thing in list_ingredients()),
    )
    while len(_cache) >= MOST_CACHED:
        _cache.pop(next(iter(_cache)))
    _cache[here] = (number, inventory)
    return inventory


@dataclass(frozen=True, slots=True)
class StoredLot:
    """A lot with its revision."""

    revision: int
    lot: Lot


def _lot_here(key: str) -> Expression:
    return (LotRow.key == key) & (LotRow.kitchen_id == kitchen_here())


def _meat_here(key: str) -> Expression:
    return (MeatRow.key == key) & (MeatRow.kitchen_id == kitchen_here())


def _thing_here(key: str) -> Expression:
    return (IngredientRow.key == key) & (IngredientRow.kitchen_id == kitchen_here())


def _lot(row: LotRow) -> StoredLot:
    return StoredLot(row.revision, LOTS.read(row.document))


def list_lots() -> list[StoredLot]:
    """All lots, closed ones too."""
    return [_lot(row) for row in LotRow.select().where(LotRow.kitchen_id == kitchen_here()).order_by(LotRow.key)]


def get_lot(key: str) -> StoredLot:
    """One lot."""
    row = LotRow.get_or_none(_lot_here(key))
    if row is None:
        raise NotFoundError(f"lot {key}")
    return _lot(row)


def create_lot(lot: Lot) -> StoredLot:
    """Write a delivery down; ``ConflictError`` when the key is taken."""
    taken = LotRow.get_or_none(_lot_here(lot.key))
    if taken is not None:
        raise ConflictError(_lot(taken))
    LotRow.insert(kitchen_id=kitchen_here(), key=lot.key, meat=lot.meat, document=LOTS.text(lot), revision=1).execute()
    touch(larder_here())
    made(f"/api/larder/lots/{lot.key}")
    return get_lot(lot.key)


def save_lot(lot: Lot, *, revision: int) -> StoredLot:
    """Save over the revision seen, or raise ``ConflictError`` with what stands now."""
    changed = (
        LotRow.update(document=LOTS.text(lot), revision=LotRow.revision + 1)
        .where(_lot_here(lot.key) & (LotRow.revision == revision))
        .execute()
    )
    if not changed:
        stored = get_lot(lot.key)
        return standing_or_conflict(stored, same=stored.lot == lot)
    touch(larder_here())
    return get_lot(lot.key)


def take_from_lots(taken: Mapping[str, float]) -> None:
    """So many grams less of each lot, down to nothing; a lot that is not there has nothing to give."""
    # Held until the transaction ends: two cooks that finish at once both take theirs. All of them before the first is
    # written, and in one order: the count of changes of the larder, which every writer waits for, comes last.
    held = [LotRow.select().where(_lot_here(key)).for_update().first() for key in sorted(taken)]
    for row in held:
        if row is not None:
            stored = _lot(row)
            left_g = max(0.0, stored.lot.left_mass_g - taken[stored.lot.key])
            save_lot(replace(stored.lot, left_mass_g=left_g), revision=stored.revision)


def save_meat(meat: Meat, *, seen: Meat | None) -> Meat:
    """Write a meat over the one that was seen (None: a new one); ``ConflictError`` when another stands there."""
    # Held until the transaction ends, so that no one writes between the look and the change.
    row = MeatRow.select().where(_meat_here(meat.key)).for_update().first()
    standing = _meat(row) if row is not None else None
    if standing != seen:
        if standing is None:
            raise NotFoundError(f"meat {meat.key}")
        return standing_or_conflict(standing, same=standing == meat)
    if standing is None:
        add_meats([meat])
    else:
        MeatRow.update(**_columns(meat)).where(_meat_here(meat.key)).execute()
        touch(larder_here())
    return meat


def save_meats(changes: Sequence[tuple[Meat, Meat | None]]) -> None:
    """Write many meats, each over the one that was seen (None: a new one); ``ConflictError`` when another stands."""
    # All that stand are held until the transaction ends, in one question and in one order.
    held = {
        row.key: _meat(row)
        for row in MeatRow.select().where(MeatRow.kitchen_id == kitchen_here()).order_by(MeatRow.key).for_update()
    }
    for meat, seen in changes:
        standing = held.get(meat.key)
        if standing != seen:
            if standing is None:
                raise NotFoundError(f"meat {meat.key}")
            raise ConflictError(standing)
        if seen is not None:
            MeatRow.update(**_columns(meat)).where(_meat_here(meat.key)).execute()
    if not add_meats(meat for meat, seen in changes if seen is None) and changes:
        touch(larder_here())


def _columns(meat: Meat) -> dict[str, Any]:
    return {name: getattr(meat, name) for name in _PLAIN} | {
        name: getattr(meat.composition, name) for name in _COMPOSITION
    }


def add_meats(meats: Iterable[Meat]) -> int:
    """Add meats that are not there yet; those that are stay as they are. Returns how many were added."""
    known = {
        row.key for row in MeatRow.select(MeatRow.kitchen_id, MeatRow.key).where(MeatRow.kitchen_id == kitchen_here())
    }
    new = {meat.key: meat for meat in reversed(list(meats)) if meat.key not in known}
    rows = [
        {"kitchen_id": kitchen_here(), "position": len(known) + n, **_columns(meat)}
        for n, meat in enumerate(reversed(new.values()))
    ]
    for start in range(0, len(rows), CHUNK):
        MeatRow.insert_many(rows[start : start + CHUNK]).execute()
    if rows:
        touch(larder_here())
    return len(rows)


@dataclass(frozen=True, slots=True)
class StoredIngredient:
    """An ingredient with its revision, as it was written down: a house formula is not worked out here."""

    revision: int
    ingredient: Ingredient


def _ingredient(row: IngredientRow) -> StoredIngredient:
    return StoredIngredient(row.revision, INGREDIENTS.read(row.document))


def list_ingredients() -> list[StoredIngredient]:
    """The whole pantry, retired things too."""
    return [
        _ingredient(row)
        for row in IngredientRow.select()
        .where(IngredientRow.kitchen_id == kitchen_here())
        .order_by(IngredientRow.position)
    ]


def get_ingredient(key: str) -> StoredIngredient:
    """One ingredient."""
    row = IngredientRow.get_or_none(_thing_here(key))
    if row is None:
        raise NotFoundError(f"ingredient {key}")
    return _ingredient(row)


def add_ingredients(ingredients: Iterable[Ingredient]) -> int:
    """Add ingredients that are not there yet; those that are stay as they are. Returns how many were added."""
    known = {
        row.key
        for row in IngredientRow.select(IngredientRow.kitchen_id, IngredientRow.key).where(
            IngredientRow.kitchen_id == kitchen_here()
        )
    }
    position = len(known)
    rows = []
    for ingredient in ingredients:
        if ingredient.key not in known:
            document = INGREDIENTS.text(as_kept(ingredient))
            rows.append(
                {
                    "kitchen_id": kitchen_here(),
                    "key": ingredient.key,
                    "position": position,
                    "document": document,
                    "revision": 1,
                }
            )
            known.add(ingredient.key)
            position += 1
    if rows:
        IngredientRow.insert_many(rows).execute()
        touch(larder_here())
    return len(rows)


def save_ingredients(changes: Sequence[tuple[Ingredient, int]]) -> None:
    """Write many ingredients, each over the revision that was seen (0: a new one); ``ConflictError`` for another."""
    # All that stand are held until the transaction ends, in one question and in one order.
    held = {
        row.key: row
        for row in IngredientRow.select()
        .where(IngredientRow.kitchen_id == kitchen_here())
        .order_by(IngredientRow.key)
        .for_update()
    }
    for ingredient, seen in changes:
        standing = held.get(ingredient.key)
        if (standing.revision if standing is not None else 0) != seen:
            if standing is None:
                raise NotFoundError(f"ingredient {ingredient.key}")
            raise ConflictError(_ingredient(standing))
        if seen:
            document = INGREDIENTS.text(as_kept(ingredient))
            IngredientRow.update(document=document, revision=seen + 1).where(_thing_here(ingredient.key)).execute()
    if not add_ingredients(ingredient for ingredient, seen in changes if not seen) and changes:
        touch(larder_here())


def save_ingredient(ingredient: Ingredient, *, revision: int) -> StoredIngredient:
    """Save over the revision seen (0: a new one), or raise ``ConflictError`` with what stands now."""
    if revision == 0:
        if not add_ingredients([ingredient]):
            here = get_ingredient(ingredient.key)
            return standing_or_conflict(here, same=here.ingredient == as_kept(ingredient))
        return get_ingredient(ingredient.key)
    changed = (
        IngredientRow.update(document=INGREDIENTS.text(as_kept(ingredient)), revision=IngredientRow.revision + 1)
        .where(_thing_here(ingredient.key) & (IngredientRow.revision == revision))
        .execute()
    )
    if not changed:
        there = get_ingredient(ingredient.key)
        return standing_or_conflict(there, same=there.ingredient == as_kept(ingredient))
    touch(larder_here())
    return get_ingredient(ingredient.key)
