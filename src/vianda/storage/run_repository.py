"""Services as they were cooked, and what was said of their tasks; each kitchen's own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import cast

from peewee import fn

from vianda.core.timetable.run import RunEvent, RunEventKind
from vianda.storage.actor import actor_name
from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.records import StoredRun
from vianda.storage.said_once import write_once
from vianda.storage.tables import RunEventRow, RunRow


@dataclass(frozen=True, slots=True)
class SeenRun:
    """A run by its service's name and its day."""

    run_id: int
    service_id: int
    service_name: str
    day: str


def find_run(service_id: int, day: date) -> StoredRun | None:
    """The run of a service on a day with all that was said, or nothing."""
    row = RunRow.get_or_none(
        (RunRow.kitchen_id == kitchen_here()) & (RunRow.service_id == service_id) & (RunRow.day == str(day))
    )
    if row is None:
        return None
    rows = list(RunEventRow.select().where(RunEventRow.run == row.id).order_by(RunEventRow.id))
    return StoredRun(
        id=row.id,
        service_id=row.service_id,
        day=day,
        started_at=row.started_at,
        number=rows[-1].id if rows else 0,
        events=tuple(
            RunEvent(
                e.token,
                cast(RunEventKind, e.kind),
                e.minute,
                e.task,
                e.value,
                e.of_token,
                e.check_key,
                e.temp_c,
                e.who,
                e.remark,
            )
            for e in rows
        ),
        name=row.name,
        ready_min=row.ready_min,
    )


def runs_to_learn_from(most: int) -> list[tuple[int, date]]:
    """Service and day of the newest runs of which more was said than was taken down; none of the kitchen's own day."""
    newest = fn.MAX(RunEventRow.id)
    query = (
        RunRow.select(RunRow.id, RunRow.service_id, RunRow.day, RunRow.learnt)
        .join(RunEventRow)
        .where((RunRow.kitchen_id == kitchen_here()) & (RunRow.service_id > 0))
        .group_by(RunRow.id)
        .having(newest > RunRow.learnt)
        .order_by(RunRow.id.desc())
        .limit(most)
    )
    return [(row.service_id, date.fromisoformat(row.day)) for row in query]


def hold_to_learn(run_id: int, number: int) -> bool:
    """Hold a run until the transaction ends; whether its minutes are still to be taken down as far as that."""
    here = (RunRow.id == run_id) & (RunRow.kitchen_id == kitchen_here())
    row = RunRow.select(RunRow.learnt).where(here).for_update().get_or_none()
    return row is not None and row.learnt < number


def mark_learnt(run_id: int, number: int) -> None:
    """Its minutes were taken down as far as that."""
    RunRow.update(learnt=number).where((RunRow.id == run_id) & (RunRow.kitchen_id == kitchen_here())).execute()


def runs_seen(run_ids: Sequence[int]) -> list[SeenRun]:
    """Runs by their numbers."""
    if not run_ids:
        return []
    rows = RunRow.select().where((RunRow.kitchen_id == kitchen_here()) & RunRow.id.in_(sorted(set(run_ids))))
    return [SeenRun(r.id, r.service_id, r.name, r.day) for r in rows]


def runs_of_days(first: date, last: date) -> list[tuple[date, int]]:
    """The day and the service of every run of a span of days, in order; 0 is the kitchen's own."""
    query = (
        RunRow.select(RunRow.day, RunRow.service_id)
        .where((RunRow.kitchen_id == kitchen_here()) & RunRow.day.between(str(first), str(last)))
        .order_by(RunRow.day, RunRow.service_id)
    )
    return [(date.fromisoformat(row.day), row.service_id) for row in query]


def newest_event(service_id: int, day: date) -> int:
    """The number of what was said last, 0 for nothing: one small question for whoever asks every second."""
    query = (
        RunEventRow.select(RunEventRow.id)
        .join(RunRow)
        .where((RunRow.kitchen_id == kitchen_here()) & (RunRow.service_id == service_id) & (RunRow.day == str(day)))
        .order_by(RunEventRow.id.desc())
        .limit(1)
    )
    return next((row.id for row in query), 0)


def begin_run(service_id: int, day: date, *, name: str, ready_min: int) -> int:
    """The run of a service on a day; begun by whoever says something first, once. It knows its name and hour of now."""
    RunRow.insert(
        kitchen_id=kitchen_here(),
        service_id=service_id,
        day=str(day),
        started_at=now_utc(),
        name=name,
        ready_min=ready_min,
    ).on_conflict(update={RunRow.name: name, RunRow.ready_min: ready_min}).execute()
    # A locking read sees what another device has just begun; a plain one might still see the time before.
    here = (RunRow.kitchen_id == kitchen_here()) & (RunRow.service_id == service_id) & (RunRow.day == str(day))
    row = RunRow.select().where(here).for_update().get()
    return int(row.id)


def count_events(run_id: int) -> int:
    """How much was said."""
    return int(RunEventRow.select().where(RunEventRow.run == run_id).count())


def count_of_check(run_id: int, check: str) -> int:
    """How often a check was measured."""
    of_it = (RunEventRow.run == run_id) & (RunEventRow.check_key == check) & (RunEventRow.kind == "measured")
    return int(RunEventRow.select().where(of_it).count())


def add_event(run_id: int, event: RunEvent) -> None:
    """Write down what was said; the same token twice counts once."""
    write_once(
        RunEventRow.insert(
            run=run_id,
            token=event.token,
            kind=event.kind,
            task=event.task,
            minute=event.minute,
            value=event.value,
            of_token=event.of,
            at=now_utc(),
            check_key=event.check,
            temp_c=event.temp_c,
            # Who is signed in need not write their name.
            who=event.who or actor_name(),
            remark=event.remark,
        )
    )
