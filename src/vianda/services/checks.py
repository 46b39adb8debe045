"""The checks of an evening: what is asked for, what was measured, and the record that remains."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from vianda.core.basis.errors import CoreError
from vianda.core.basis.units import UnitSystem
from vianda.core.checks.due import Due, due_of
from vianda.core.checks.limits import CheckKind, CheckLimit, core_limit, delivery_limit, limit_of
from vianda.core.checks.sheet import CheckRow, sheet_of
from vianda.core.equipment.kitchen import Country, Kitchen, Setting
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.service import Service
from vianda.core.reading.clock import DAY_MIN
from vianda.core.schedule.model import Slot
from vianda.core.supply.occurrences import check_span
from vianda.core.timetable.run import Mark, marks_of
from vianda.core.timetable.sheet import Dish
from vianda.core.timetable.tasks import tasks_together
from vianda.services.bench import context
from vianda.services.services import Stood, cooked_dishes
from vianda.storage import run_repository, service_repository


@dataclass(frozen=True, slots=True)
class CheckSheet:
    """The checks of a service on its day, by the lines of this country and setting as the kitchen stands now."""

    service_id: int
    name: str
    day: date
    kitchen: str
    country: Country
    setting: Setting
    rows: tuple[CheckRow, ...]


@dataclass(frozen=True, slots=True)
class CheckRecord:
    """What a kitchen measured in a span of days: its own checks and those of each service, a sheet each, by day."""

    kitchen: str
    country: Country
    setting: Setting
    sheets: tuple[CheckSheet, ...]


def check_sheet(
    service_id: int,
    day: date,
    *,
    stood: Sequence[Stood] = (),
    now_min: int | None = None,
    unit_system: UnitSystem | None = None,
) -> CheckSheet:
    """What is to be measured by the plan as it stands; without a plan, the record of what was cooked and measured."""
    service = service_repository.get_service(service_id).service
    inventory, kitchen = context(unit_system)
    return _sheet(service_id, service, day, inventory, kitchen, stood=stood, now_min=now_min)


def check_record(
    first: date, last: date, *, now: datetime | None = None, unit_system: UnitSystem | None = None
) -> CheckRecord:
    """The record of a span of days; an evening on which nothing was measured and nothing cooked has no sheet.

    ``now`` is by the kitchen's clock: what is not long ago may still be going on.
    """
    check_span(first, last)
    inventory, kitchen = context(unit_system)
    runs = run_repository.runs_of_days(first, last)
    services = {n: s.service for n, s in service_repository.services_of({n for _, n in runs}).items()}
    sheets = [
        # What was measured stays on record though its service was deleted.
        _sheet(service_id, services.get(service_id), day, inventory, kitchen, now=now)
        for day, service_id in runs
    ]
    return CheckRecord(kitchen.name, kitchen.country, kitchen.setting, tuple(s for s in sheets if s.rows))


def _sheet(
    service_id: int,
    service: Service | None,
    day: date,
    inventory: Inventory,
    kitchen: Kitchen,
    *,
    stood: Sequence[Stood] = (),
    now_min: int | None = None,
    now: datetime | None = None,
) -> CheckSheet:
    run = run_repository.find_run(service_id, day)
    events = run.events if run else ()
    # The hour of the evening itself: a service that was moved since moves no record.
    ready_min = run.ready_min if run is not None else None
    if ready_min is None:
        ready_min = service.timing.ready_min if service is not None else 0
    if now is not None:
        since_min = int((now - datetime.combine(day, time()) - timedelta(minutes=ready_min)).total_seconds() // 60)
        # The kitchen's own day counts from midnight, and what began late in it goes on through the next.
        still_min = DAY_MIN if service_id else 2 * DAY_MIN
        now_min = since_min if abs(since_min) <= still_min else None
    dishes: list[Dish] = []
    due: tuple[Due, ...] = ()
    if service is not None:
        _, dishes = cooked_dishes(service, kitchen.unit_system)
    if dishes and service is not None:
        try:
            due = due_of(tasks_together(dishes, timing=service.timing), _slots(stood, marks_of(events)))
        except CoreError:
            # What cannot be put in time asks for nothing; what was measured stands all the same.
            due = ()
    rows = sheet_of(
        due,
        events,
        limit=_Lines(inventory, kitchen, dishes).of,
        ready_min=ready_min,
        now_min=now_min,
        unit_system=kitchen.unit_system,
    )
    name = service.name if service is not None else run.name if run is not None else ""
    return CheckSheet(service_id, name, day, kitchen.name, kitchen.country, kitchen.setting, rows)


def _slots(stood: Iterable[Stood], marks: Iterable[Mark]) -> dict[str, Slot]:
    """When each task is done: as it happened, else as it is planned."""
    slots = {x.task: x.slot() for x in stood}
    for mark in marks:
        if mark.ended_min is not None:
            slots[mark.task] = Slot(mark.task, mark.begun_min, mark.ended_min, None, ())
    return slots


class _Lines:
    """The line of each check in this kitchen; a core by the floor of its dish."""

    def __init__(self, inventory: Inventory, kitchen: Kitchen, dishes: Sequence[Dish]) -> None:
        self._inventory, self._kitchen = inventory, kitchen
        self._floors = {d.prefix: d.figures.cook.plan.floors.leading for d in dishes}

    def of(self, kind: CheckKind, task: str) -> CheckLimit:
        """The line of a kind, for the task it is of."""
        if kind == "core" and self._floors:
            mine = [prefix for prefix in self._floors if task.startswith(prefix)]
            # Longer prefixes are of a dish that is served twice. Of what is nobody's, the most demanding dish counts.
            key = max(mine, key=len) if mine else max(self._floors, key=lambda p: self._floors[p].temp_c)
            return core_limit(self._floors[key])
        if kind == "delivery" and task in self._inventory.meats:
            return delivery_limit(self._inventory.meats[task], country=self._kitchen.country)
        # Of what nobody knows any more, or never said, the strictest line counts: none is kept by a lower one.
        return limit_of(kind, country=self._kitchen.country, setting=self._kitchen.setting, poultry=kind == "core")
