"""A service as it is cooked: what is said of its tasks at any device, written down once and shown at all of them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.supply.occurrences import run_day
from vianda.core.timetable.run import Mark, RunEvent, marks_of
from vianda.storage import run_repository, service_repository
from vianda.storage.transaction import transaction

# More than anybody says in an evening.
MOST_EVENTS = 5000


@dataclass(frozen=True, slots=True)
class Run:
    """All that was said of a service on its day, and what stands; ``number`` is of what was said last.

    ``changed`` is false where nothing was said since the number that was known: ``events`` and ``marks`` are empty.
    """

    service_id: int
    day: date
    number: int
    changed: bool
    events: tuple[RunEvent, ...]
    marks: tuple[Mark, ...]


def open_run(service_id: int, *, now: datetime) -> Run:
    """The run of the day on which a service comes next, by the kitchen's clock."""
    return _run(service_id, run_day(service_repository.get_service(service_id).service, now=now))


def follow_run(service_id: int, day: date, *, known: int) -> Run:
    """The run of a day, whole, if anything was said since the number that is known."""
    newest = run_repository.newest_event(service_id, day)
    if newest == known:
        return Run(service_id, day, newest, False, (), ())
    return _run(service_id, day)


def note_event(service_id: int, day: date, event: RunEvent) -> Run:
    """Write down what was said of a task; said again under the same token it counts once."""
    if event.kind == "take-back" and not event.of:
        raise OutOfRangeError("What is taken back?", field="/event/of")
    if event.kind in ("begin", "end", "longer") and not event.task:
        raise OutOfRangeError("Of which task is that said?", field="/event/task")
    if event.kind == "longer" and event.value is None:
        raise OutOfRangeError("Until when does it take?", field="/event/value")
    service_repository.get_service(service_id)
    with transaction():
        run_id = run_repository.begin_run(service_id, day)
        if run_repository.count_events(run_id) >= MOST_EVENTS:
            raise OutOfRangeError(f"At most {MOST_EVENTS} things are said of one evening.", field="/event")
        run_repository.add_event(run_id, event)
    return _run(service_id, day)


def _run(service_id: int, day: date) -> Run:
    found = run_repository.find_run(service_id, day)
    if found is None:
        return Run(service_id, day, 0, True, (), ())
    return Run(service_id, day, found.number, True, found.events, marks_of(found.events))
