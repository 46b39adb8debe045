"""Who changed what, and when. Lines are added and read, and the oldest are forgotten by day; none is ever changed."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from peewee import fn

from vianda.storage.actor import actor
from vianda.storage.clock import now_utc
from vianda.storage.here import chosen_kitchen
from vianda.storage.tables import (
    AuditRow,
    CookRow,
    FormulaRow,
    IngredientRow,
    LotRow,
    MeatRow,
    PersonRow,
    ServiceRow,
    WeighingRow,
)

PAGE = 100
# Where the name of a thing stands; a service keeps it in its document.
_NAMED: Mapping[str, tuple[Any, Any]] = {
    "formulas": (FormulaRow, FormulaRow.name),
    "cooks": (CookRow, CookRow.formula_name),
    "services": (ServiceRow, fn.JSON_VALUE(ServiceRow.document, "$.name")),
    "weighings": (WeighingRow, WeighingRow.formula_name),
    "people": (PersonRow, PersonRow.name),
}
# Known by a key, in their kitchen.
_KEYED: Mapping[str, tuple[Any, Any]] = {
    "lots": (LotRow, fn.JSON_VALUE(LotRow.document, "$.name")),
    "meats": (MeatRow, MeatRow.name),
    "pantry": (IngredientRow, fn.JSON_VALUE(IngredientRow.document, "$.name")),
}
LONGEST_ABOUT = 120


@dataclass(frozen=True, slots=True)
class AuditLine:
    """One change or sign-in."""

    id: int
    at: datetime
    person: str
    kitchen_id: int | None
    action: str
    about: str


def note_change() -> None:
    """Write down what the one who is signed in asks for, once a request. Called at the end of each transaction."""
    found = actor()
    if found is None or found.noted or not found.action:
        return
    note(found.action, found.made or found.about, person=found.name, person_id=found.person_id)
    found.noted = True


def forget_noted() -> None:
    """What was written down was taken back with its transaction, and so was what was new."""
    found = actor()
    if found is not None:
        found.noted, found.made = False, ""


def note(action: str, about: str = "", *, person: str = "", person_id: int | None = None) -> None:
    """Write a line down."""
    AuditRow.insert(
        at=now_utc(), person_id=person_id, person=person, kitchen_id=chosen_kitchen(), action=action,
        about=about[:LONGEST_ABOUT],
    ).execute()  # fmt: skip


def lines(*, before: int | None = None, person: str = "", most: int = PAGE) -> list[AuditLine]:
    """The newest lines, those before a number."""
    rows = AuditRow.select().order_by(AuditRow.id.desc()).limit(most)
    if before is not None:
        rows = rows.where(AuditRow.id < before)
    if person:
        rows = rows.where(AuditRow.person == person)
    return [AuditLine(r.id, r.at, r.person, r.kitchen_id, r.action, r.about) for r in rows]


@dataclass(frozen=True, slots=True)
class Thing:
    """What a line is of: its kind ("" for none), its number or key ("" where the line has none), and its kitchen."""

    kind: str
    key: str
    kitchen_id: int | None


def names_of(things: Iterable[Thing]) -> dict[Thing, str]:
    """What things of several kinds are called now; what is gone is left out."""
    numbered: dict[str, dict[int, list[Thing]]] = {}
    keyed: dict[tuple[str, int], dict[str, list[Thing]]] = {}
    for thing in things:
        if thing.kind in _NAMED and thing.key.isdigit():
            numbered.setdefault(thing.kind, {}).setdefault(int(thing.key), []).append(thing)
        elif thing.kind in _KEYED and thing.key and thing.kitchen_id is not None:
            keyed.setdefault((thing.kind, thing.kitchen_id), {}).setdefault(thing.key, []).append(thing)
    found: dict[Thing, str] = {}
    for kind, wanted in numbered.items():
        row, column = _NAMED[kind]
        for number, name in row.select(row.id, column).where(row.id.in_(list(wanted))).tuples():
            found |= dict.fromkeys(wanted[number], name)
    for (kind, kitchen), named in keyed.items():
        row, column = _KEYED[kind]
        here = (row.kitchen_id == kitchen) & row.key.in_(list(named))
        for key, name in row.select(row.key, column).where(here).tuples():
            found |= dict.fromkeys(named[key], name)
    return found


def forget_before(at: datetime) -> int:
    """Forget what is older; how many lines that were."""
    return int(AuditRow.delete().where(AuditRow.at < at).execute())
