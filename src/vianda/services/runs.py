"""A service as it is cooked: what is said of its tasks at any device, written down once and shown at all of them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.checks.judge import COLDEST_C, HOTTEST_C, MOST_READINGS
from vianda.core.checks.sheet import kind_of
from vianda.core.supply.occurrences import run_day
from vianda.core.timetable.run import Mark, RunEvent, marks_of
from vianda.storage import run_repository, service_repository
from vianda.storage.transaction import transaction

# More than anybody says in an evening.
MOST_EVENTS = 5000
# What is said of no service: the kitchen's own day.
KITCHENS_OWN = 0


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
    service = service_repository.get_service(service_id).service
    _note(service_id, day, event, name=service.name, ready_min=service.timing.ready_min)
    return _run(service_id, day)


def note_check(day: date, event: RunEvent) -> None:
    """Write down a check of the kitchen's own, of no service: a delivery, the fridge in the morning."""
    if event.kind not in ("measured", "acted", "take-back"):
        raise OutOfRangeError("Of no service only checks are written down.", field="/event/kind")
    if event.kind == "take-back" and not event.of:
        raise OutOfRangeError("What is taken back?", field="/event/of")
    _note(KITCHENS_OWN, day, event, name="", ready_min=0)


def _note(service_id: int, day: date, event: RunEvent, *, name: str, ready_min: int) -> None:
    if event.kind in ("measured", "acted"):
        _check(event)
    with transaction():
        run_id = run_repository.begin_run(service_id, day, name=name, ready_min=ready_min)
        if run_repository.count_events(run_id) >= MOST_EVENTS:
            raise OutOfRangeError(f"At most {MOST_EVENTS} things are said of one evening.", field="/event")
        if event.kind == "measured" and run_repository.count_of_check(run_id, event.check) >= MOST_READINGS:
            raise OutOfRangeError(f"A check is measured {MOST_READINGS} times at most.", field="/event/check")
        run_repository.add_event(run_id, event)


def _check(event: RunEvent) -> None:
    """Refuse what cannot stand in a record."""
    kind_of(event.check)
    if event.kind == "acted" and not event.remark.strip():
        raise OutOfRangeError("What was done?", field="/event/remark")
    if event.kind == "measured":
        if event.temp_c is None:
            raise OutOfRangeError("What did it measure?", field="/event/temp")
        if not COLDEST_C <= event.temp_c <= HOTTEST_C:
            raise OutOfRangeError("Food has −40 to 150 °C.", field="/event/temp")
    if not 0 <= (event.value or 0) <= 59:
        raise OutOfRangeError("A minute has seconds to 59.", field="/event/value")


def _run(service_id: int, day: date) -> Run:
    found = run_repository.find_run(service_id, day)
    if found is None:
        return Run(service_id, day, 0, True, (), ())
    return Run(service_id, day, found.number, True, found.events, marks_of(found.events))
