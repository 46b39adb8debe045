"""The kitchens in the database: the one a request is about, and the list of them."""

from __future__ import annotations

from dataclasses import dataclass

from peewee import fn

from vianda.core.equipment.kitchen import Kitchen
from vianda.interchange.kinds import KITCHENS
from vianda.storage.caches import on_rollback
from vianda.storage.here import choose_anew, kitchen_here
from vianda.storage.records import NotFoundError, standing_or_conflict
from vianda.storage.tables import (
    CookEventRow,
    CookLineRow,
    CookLotRow,
    CookRow,
    FormulaRow,
    IngredientRow,
    KitchenRow,
    LotRow,
    MeatRow,
    ObservationRow,
    PhotographRow,
    RevisionRow,
    RunRow,
    ServiceRow,
    ShelfFigureRow,
    StockedRow,
    TastingRow,
    TickRow,
    TrainingAnswerRow,
    VersionRow,
    WeighingEventRow,
    WeighingRow,
)


@dataclass(frozen=True, slots=True)
class StoredKitchen:
    """The kitchen with its revision."""

    revision: int
    kitchen: Kitchen


@dataclass(frozen=True, slots=True)
class ListedKitchen:
    """A kitchen in the list of them: its name, and whether it is the demo."""

    id: int
    name: str
    demo: bool


_cache: dict[int, StoredKitchen] = {}
MOST_CACHED = 32

on_rollback(_cache.clear)
on_rollback(choose_anew)


def load_kitchen() -> StoredKitchen:
    """The kitchen here as it stands; parsed again only when its revision moved."""
    here = kitchen_here()
    row = KitchenRow.get_or_none(KitchenRow.id == here)
    if row is None:
        raise NotFoundError("no kitchen")
    known = _cache.get(here)
    if known is None or known.revision != row.revision:
        known = StoredKitchen(row.revision, KITCHENS.read(row.document))
        while len(_cache) >= MOST_CACHED:
            _cache.pop(next(iter(_cache)))
        _cache[here] = known
    return known


def has_kitchen() -> bool:
    """Whether any kitchen was set up."""
    return bool(KitchenRow.select().exists())


def list_kitchens() -> list[ListedKitchen]:
    """All kitchens, the one opened last first."""
    rows = KitchenRow.select().order_by(KitchenRow.chosen.desc(), KitchenRow.id)
    return [ListedKitchen(row.id, KITCHENS.read(row.document).name, row.demo) for row in rows]


def is_kitchen(kitchen_id: int) -> bool:
    """Whether there is a kitchen of that number."""
    return bool(KitchenRow.select().where(KitchenRow.id == kitchen_id).exists())


def create_kitchen(kitchen: Kitchen, *, demo: bool = False) -> int:
    """Set a kitchen up, open it, and return its number."""
    number = KitchenRow.insert(document=KITCHENS.text(kitchen), revision=1, demo=demo, chosen=_next()).execute()
    choose_anew()
    return int(number)


def _next() -> int:
    return int(KitchenRow.select(fn.MAX(KitchenRow.chosen)).scalar() or 0) + 1


def choose_kitchen(kitchen_id: int) -> None:
    """Open a kitchen: it is the one meant where a request does not say which."""
    if not KitchenRow.update(chosen=_next()).where(KitchenRow.id == kitchen_id).execute():
        raise NotFoundError(f"kitchen {kitchen_id}")
    choose_anew()


def save_kitchen(kitchen: Kitchen, *, revision: int) -> StoredKitchen:
    """Save over the revision seen, or raise ``ConflictError`` with what stands now."""
    changed = (
        KitchenRow.update(document=KITCHENS.text(kitchen), revision=KitchenRow.revision + 1)
        .where((KitchenRow.id == kitchen_here()) & (KitchenRow.revision == revision))
        .execute()
    )
    if not changed:
        stored = load_kitchen()
        return standing_or_conflict(stored, same=stored.kitchen == kitchen)
    return load_kitchen()


def delete_kitchen(kitchen_id: int) -> None:
    """Delete a kitchen with all of its records, for good."""
    formulas = FormulaRow.select(FormulaRow.id).where(FormulaRow.kitchen_id == kitchen_id)
    cooks = CookRow.select(CookRow.id).where(CookRow.kitchen_id == kitchen_id)
    weighings = WeighingRow.select(WeighingRow.id).where(WeighingRow.kitchen_id == kitchen_id)
    WeighingEventRow.delete().where(WeighingEventRow.weighing.in_(weighings)).execute()
    CookEventRow.delete().where(CookEventRow.cook.in_(cooks)).execute()
    VersionRow.delete().where(VersionRow.formula.in_(formulas)).execute()
    ShelfFigureRow.delete().where(ShelfFigureRow.formula_id.in_(formulas)).execute()
    for table in (
        RunRow,
        TickRow,
        StockedRow,
        ServiceRow,
        TastingRow,
        TrainingAnswerRow,
        PhotographRow,
        WeighingRow,
        ObservationRow,
        CookLotRow,
        CookLineRow,
        CookRow,
        FormulaRow,
        LotRow,
        IngredientRow,
        MeatRow,
    ):
        table.delete().where(table.kitchen_id == kitchen_id).execute()
    RevisionRow.delete().where(RevisionRow.name == f"larder:{kitchen_id}").execute()
    KitchenRow.delete().where(KitchenRow.id == kitchen_id).execute()
    _cache.pop(kitchen_id, None)
    choose_anew()
