"""Cooks and what happened during them in the database."""

from __future__ import annotations

import json
from datetime import datetime, timedelta
from typing import Any, cast

from peewee import fn

from vianda.core.model.formula import Formula
from vianda.interchange.kinds import FORMULAS
from vianda.storage.actor import actor_name, made
from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.records import CookEvent, EventKind, NotFoundError, StoredCook, standing_or_conflict
from vianda.storage.said_once import write_once
from vianda.storage.tables import CookEventRow, CookRow

MOST_LISTED = 200


def _row(cook_id: int) -> CookRow:
    row = CookRow.get_or_none((CookRow.id == cook_id) & (CookRow.kitchen_id == kitchen_here()))
    if row is None:
        raise NotFoundError(f"cook {cook_id}")
    return row


def _begun(cook_id: int) -> CookRow:
    """The same without its formula and plan."""
    here = (CookRow.id == cook_id) & (CookRow.kitchen_id == kitchen_here())
    row = CookRow.select(CookRow.id, CookRow.started_at).where(here).first()
    if row is None:
        raise NotFoundError(f"cook {cook_id}")
    return row


def _stored(row: CookRow, *, with_events: bool = True) -> StoredCook:
    events = events_of(row.id) if with_events else ()
    return StoredCook(
        id=row.id,
        formula_id=row.__data__["formula"],
        formula_name=row.formula_name,
        revision=row.revision,
        started_at=row.started_at,
        finished_at=row.finished_at,
        formula=FORMULAS.read(row.document),
        plan=json.loads(row.plan),
        outcome=json.loads(row.outcome) if row.outcome else None,
        events=events,
        begun_by=row.begun_by,
        noted_by=row.noted_by,
    )


def events_of(cook_id: int) -> tuple[CookEvent, ...]:
    """What happened during a cook, in its order."""
    query = CookEventRow.select().where(CookEventRow.cook == cook_id).order_by(CookEventRow.at, CookEventRow.id)
    return tuple(CookEvent(e.token, cast(EventKind, e.kind), e.place, e.value, e.at) for e in query)


def count_others(cook_id: int, token: str) -> int:
    """How many things happened during a cook besides the one of that token."""
    here = (CookEventRow.cook == cook_id) & (CookEventRow.token != token)
    return int(CookEventRow.select().where(here).count())


def create_cook(formula_id: int, formula: Formula, plan: dict[str, Any]) -> StoredCook:
    """Begin a cook."""
    row = CookRow.create(
        kitchen_id=kitchen_here(),
        formula=formula_id,
        formula_name=formula.name,
        document=FORMULAS.text(formula),
        plan=json.dumps(plan),
        started_at=now_utc(),
        revision=1,
        begun_by=actor_name(),
    )
    made(f"/api/cooks/{row.id}")
    return _stored(row)


def get_cook(cook_id: int) -> StoredCook:
    """One cook with its events."""
    return _stored(_row(cook_id))


def list_cooks(*, formula_id: int | None = None) -> list[StoredCook]:
    """The latest cooks, newest first, without events."""
    here = CookRow.select().where(CookRow.kitchen_id == kitchen_here())
    query = here.order_by(CookRow.started_at.desc(), CookRow.id.desc()).limit(MOST_LISTED)
    if formula_id is not None:
        query = query.where(CookRow.formula == formula_id)
    return [_stored(row, with_events=False) for row in query]


def add_event(
    cook_id: int,
    *,
    token: str,
    kind: EventKind,
    place: int,
    value: float | None,
    late_s: float,
    since_start_s: float | None = None,
) -> datetime:
    """Note an event that happened ``late_s`` seconds ago; the same token twice counts once.

    ``since_start_s`` is when it happened by the device's own clock, and counts instead: what one device says stays in
    its order however long each message is on its way. Nothing happens after it was told. Returns when the cook began.
    """
    row = _begun(cook_id)
    # A clock that was set back is behind what was noted already; what is told now did not happen before that was told.
    last = CookEventRow.select(fn.MAX(CookEventRow.at)).where(CookEventRow.cook == row.id).scalar()
    now = max(now_utc(), row.started_at, last or row.started_at)
    at = now - timedelta(seconds=late_s)
    if since_start_s is not None:
        at = min(now, row.started_at + timedelta(seconds=since_start_s))
    write_once(CookEventRow.insert(cook=row.id, token=token, kind=kind, place=place, value=value, at=at))
    return row.started_at


def save_outcome(cook_id: int, outcome: dict[str, Any], *, revision: int) -> StoredCook:
    """Save weights, scores and notes over the revision seen; the first save ends the cook."""
    row = _row(cook_id)
    changed = (
        CookRow.update(
            outcome=json.dumps(outcome),
            finished_at=row.finished_at or now_utc(),
            revision=CookRow.revision + 1,
            noted_by=actor_name(),
        )
        .where((CookRow.id == cook_id) & (CookRow.revision == revision))
        .execute()
    )
    if not changed:
        stored = get_cook(cook_id)
        return standing_or_conflict(stored, same=stored.outcome == outcome)
    return get_cook(cook_id)
