"""Runs of check-weighing in the database."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from dataclasses import asdict
from typing import cast

from peewee import Expression, fn

from vianda.core.weighing.weighing_run import WeighingPlan
from vianda.storage.actor import actor_name, made
from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.records import NotFoundError, StoredWeighing, WeighingEvent, WeighingEventKind
from vianda.storage.said_once import write_once
from vianda.storage.tables import WeighingEventRow, WeighingRow

MOST_LISTED = 50


def _here(weighing_id: int) -> Expression:
    """A run of this kitchen."""
    return (WeighingRow.id == weighing_id) & (WeighingRow.kitchen_id == kitchen_here())


def _row(weighing_id: int) -> WeighingRow:
    row = WeighingRow.get_or_none(_here(weighing_id))
    if row is None:
        raise NotFoundError(f"weighing {weighing_id}")
    return row


def _stored(row: WeighingRow, events: tuple[WeighingEvent, ...]) -> StoredWeighing:
    return StoredWeighing(
        id=row.id,
        formula_id=row.__data__["formula"],
        formula_name=row.formula_name,
        plan=WeighingPlan(**json.loads(row.plan)),
        seed=row.seed,
        started_at=row.started_at,
        finished_at=row.finished_at,
        events=events,
        left_g=row.left_g,
        begun_by=row.begun_by,
    )


def _events(weighing_id: int) -> tuple[WeighingEvent, ...]:
    return _events_of([weighing_id])[weighing_id]


def _events_of(weighing_ids: Sequence[int]) -> dict[int, tuple[WeighingEvent, ...]]:
    """What happened in each run, in its order, in one question."""
    found: dict[int, list[WeighingEvent]] = {number: [] for number in weighing_ids}
    here = WeighingEventRow.weighing.in_(list(weighing_ids))
    for e in WeighingEventRow.select().where(here).order_by(WeighingEventRow.id):
        event = WeighingEvent(e.id, e.token, cast(WeighingEventKind, e.kind), e.value, e.about, e.at_s)
        found[e.__data__["weighing"]].append(event)
    return {number: tuple(events) for number, events in found.items()}


def create_weighing(formula_id: int, formula_name: str, plan: WeighingPlan, *, seed: int) -> StoredWeighing:
    """Begin a run."""
    row = WeighingRow.create(
        kitchen_id=kitchen_here(),
        formula=formula_id,
        formula_name=formula_name,
        plan=json.dumps(asdict(plan)),
        seed=seed,
        started_at=now_utc(),
        begun_by=actor_name(),
    )
    made(f"/api/weighings/{row.id}")
    return _stored(row, ())


def get_weighing(weighing_id: int) -> StoredWeighing:
    """One run with all that happened."""
    return _stored(_row(weighing_id), _events(weighing_id))


def lock_weighing(weighing_id: int) -> StoredWeighing:
    """The same, with its row locked to the end of the transaction: two presses at once come one after the other."""
    row = WeighingRow.select().where(_here(weighing_id)).for_update().first()
    if row is None:
        raise NotFoundError(f"weighing {weighing_id}")
    return _stored(row, _events(weighing_id))


def newest_event(weighing_id: int) -> int:
    """The id of the newest event, 0 when nothing happened yet: cheap to ask many times a second."""
    return (
        WeighingEventRow.select(fn.MAX(WeighingEventRow.id)).where(WeighingEventRow.weighing == weighing_id).scalar()
        or 0
    )


def list_weighings(formula_id: int) -> list[StoredWeighing]:
    """The latest runs of a formula, newest first."""
    query = (
        WeighingRow.select()
        .where((WeighingRow.formula == formula_id) & (WeighingRow.kitchen_id == kitchen_here()))
        .order_by(WeighingRow.id.desc())
    )
    rows = list(query.limit(MOST_LISTED))
    events = _events_of([row.id for row in rows]) if rows else {}
    return [_stored(row, events[row.id]) for row in rows]


def every_weighing() -> Iterator[StoredWeighing]:
    """All runs of this kitchen, the oldest first, some at a time."""
    last = 0
    while True:
        here = (WeighingRow.kitchen_id == kitchen_here()) & (WeighingRow.id > last)
        rows = list(WeighingRow.select().where(here).order_by(WeighingRow.id).limit(MOST_LISTED))
        if not rows:
            return
        events = _events_of([row.id for row in rows])
        yield from (_stored(row, events[row.id]) for row in rows)
        last = rows[-1].id


def add_event(
    weighing_id: int, *, token: str, kind: WeighingEventKind, value: float | None, about: int | None, at_s: float
) -> None:
    """Note an event; the same token twice counts once."""
    write_once(
        WeighingEventRow.insert(weighing=weighing_id, token=token, kind=kind, value=value, about=about, at_s=at_s)
    )


def set_leftover(weighing_id: int, left_g: float | None) -> None:
    """Keep what was left in the bowl, g; None for nobody has weighed it."""
    WeighingRow.update(left_g=left_g).where(WeighingRow.id == weighing_id).execute()


def end_weighing(weighing_id: int, *, finished: bool) -> None:
    """Close a run, or open it again."""
    WeighingRow.update(finished_at=now_utc() if finished else None).where(WeighingRow.id == weighing_id).execute()
