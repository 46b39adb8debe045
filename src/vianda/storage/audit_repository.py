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
from vianda.storage.tables import AuditRow, CookRow, FormulaRow, PersonRow, ServiceRow, WeighingRow

PAGE = 100
# Where the name of a thing stands; a service keeps it in its document.
_NAMED: Mapping[str, tuple[Any, Any]] = {
    "formulas": (FormulaRow, FormulaRow.name),
    "cooks": (CookRow, CookRow.formula_name),
    "services": (ServiceRow, fn.JSON_VALUE(ServiceRow.document, "$.name")),
    "weighings": (WeighingRow, WeighingRow.formula_name),
    "people": (PersonRow, PersonRow.name),
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
    note(found.action, found.about, person=found.name, person_id=found.person_id)
    found.noted = True


def forget_noted() -> None:
    """What was written down was taken back with its transaction."""
    found = actor()
    if found is not None:
        found.noted = False


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


def names_of(things: Iterable[tuple[str, int]]) -> dict[tuple[str, int], str]:
    """What things of several kinds are called, each by its kind and number; what is gone is left out."""
    numbers: dict[str, list[int]] = {}
    for kind, number in things:
        numbers.setdefault(kind, []).append(number)
    found: dict[tuple[str, int], str] = {}
    for kind, wanted in numbers.items():
        row, column = _NAMED[kind]
        for number, name in row.select(row.id, column).where(row.id.in_(wanted)).tuples():
            found[kind, number] = name
    return found


def forget_before(at: datetime) -> int:
    """Forget what is older; how many lines that were."""
    return int(AuditRow.delete().where(AuditRow.at < at).execute())
