"""The logbook looked through: cooks by text, dish, day, score and lot; and where a lot went."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from typing import Any

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.inventory import Inventory
from vianda.interchange.logbook_csv import logbook_rows
from vianda.storage import larder_repository, logbook_repository
from vianda.storage.logbook_repository import HeldLot, LogLine, LogQuery, LogSort
from vianda.storage.records import NotFoundError, StoredCook

PAGE = 50
# A file holds so many of the newest.
MOST_EXPORTED = 100_000


@dataclass(frozen=True, slots=True)
class Named:
    """A key and what it is called."""

    key: str
    name: str


@dataclass(frozen=True, slots=True)
class LogPage:
    """Cooks, newest first; how many there are in all; after which the next page begins (None: this is the last).

    Counted is on the first page only: later ones have None.
    """

    lines: tuple[LogLine, ...]
    total: int | None
    next: int | None


@dataclass(frozen=True, slots=True)
class LogChoices:
    """What can be asked for: kinds of dish, and lots that went into cooks."""

    dishes: tuple[str, ...]
    lots: tuple[Named, ...]


@dataclass(frozen=True, slots=True)
class Went:
    """A cook, and how much of a lot went into it, g."""

    cook: LogLine
    mass_g: float


@dataclass(frozen=True, slots=True)
class LotTrace:
    """Where a lot went: the lot as it was delivered, every cook that held it, g in all and what is left, g."""

    lot: str
    name: str
    meat: str
    delivered: date
    use_by: date | None
    left_g: float
    used_g: float
    cooks: tuple[Went, ...]


def asked_for(
    *,
    text: str = "",
    dish: str = "",
    formula_id: int | None = None,
    from_day: date | None = None,
    to_day: date | None = None,
    least_score: float | None = None,
    lot: str = "",
    utc_offset_min: int = 0,
    sort: LogSort = "newest",
) -> LogQuery:
    """What is looked for; days, both counted, are those of the kitchen's clock."""
    if from_day is not None and to_day is not None and to_day < from_day:
        raise OutOfRangeError("The span ends before it begins.", field="/to_day")
    return LogQuery(
        text,
        dish,
        formula_id,
        _begin(from_day, utc_offset_min),
        _begin(to_day, utc_offset_min, later=timedelta(days=1)),
        least_score,
        lot,
        sort,
    )


def _begin(day: date | None, offset_min: int, *, later: timedelta = timedelta()) -> datetime | None:
    """When a day of the kitchen's clock begins, in UTC; None for no day, and where no calendar has that moment."""
    if day is None:
        return None
    try:
        return datetime.combine(day, time()) + later - timedelta(minutes=offset_min)
    except OverflowError:
        # The first or the last day there is: nothing lies beyond it.
        return None


def log_page(query: LogQuery, *, before: int | None = None) -> LogPage:
    """A page of the logbook."""
    total = logbook_repository.count_lines(query) if before is None else None
    if total == 0:
        return LogPage((), 0, None)
    # One more than is shown tells whether there is another page.
    found = logbook_repository.find_lines(query, before=before, most=PAGE + 1)
    lines = tuple(found[:PAGE])
    return LogPage(lines, total, lines[-1].cook_id if len(found) > PAGE else None)


def log_rows(query: LogQuery) -> list[dict[str, Any]]:
    """Every cook that is asked for, newest first, with what was noted of it."""
    lines = logbook_repository.find_lines(query, before=None, most=MOST_EXPORTED)
    return logbook_rows(lines, logbook_repository.noted_of([line.cook_id for line in lines]))


def log_choices() -> LogChoices:
    """What the logbook can be asked for."""
    return LogChoices(
        tuple(logbook_repository.dishes_here()), tuple(Named(key, name) for key, name in logbook_repository.lots_here())
    )


def held_by(cook: StoredCook, inventory: Inventory) -> list[HeldLot]:
    """The lots that go into a cook, as they are known when it begins."""
    found: dict[str, HeldLot] = {}
    for part in cook.plan["blend"]["parts"]:
        key = part.get("lot")
        if not key:
            continue
        lot = inventory.lots.get(key)
        use_by = str(lot.use_by) if lot is not None and lot.use_by is not None else ""
        before = found[key].mass_g if key in found else 0.0
        found[key] = HeldLot(key, part["lot_name"], part["meat"], before + part["mass_g"], use_by)
    return list(found.values())


def held_in(cook_id: int) -> list[HeldLot]:
    """The lots that a cook held."""
    return logbook_repository.lots_of(cook_id)


def trace_lot(key: str) -> LotTrace:
    """Where a lot went."""
    stored = next((s for s in larder_repository.list_lots() if s.lot.key == key), None)
    if stored is None:
        raise NotFoundError(f"lot {key}")
    lot = stored.lot
    cooks = tuple(Went(line, mass_g) for line, mass_g in logbook_repository.cooks_with(key))
    used = sum(went.mass_g for went in cooks if went.cook.finished_at is not None)
    return LotTrace(lot.key, lot.name, lot.meat, lot.delivered, lot.use_by, lot.left_mass_g, used, cooks)
