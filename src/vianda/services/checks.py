"""The checks of an evening: what is asked for, what was measured, and the record that remains."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date

from vianda.core.basis.errors import CoreError
from vianda.core.basis.units import UnitSystem
from vianda.core.checks.due import Due, due_of
from vianda.core.checks.limits import CheckKind, CheckLimit, core_limit, limit_of
from vianda.core.checks.sheet import CheckRow, sheet_of
from vianda.core.equipment.kitchen import Country, Kitchen, Setting
from vianda.core.schedule.model import Slot
from vianda.core.timetable.run import Mark, marks_of
from vianda.core.timetable.tasks import Dish, tasks_together
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
    _, kitchen = context(unit_system)
    run = run_repository.find_run(service_id, day)
    events = run.events if run else ()
    _, dishes = cooked_dishes(service, unit_system)
    due: tuple[Due, ...] = ()
    if dishes:
        try:
            due = due_of(tasks_together(dishes, timing=service.timing), _slots(stood, marks_of(events)))
        except CoreError:
            # What cannot be put in time asks for nothing; what was measured stands all the same.
            due = ()
    rows = sheet_of(
        due,
        events,
        limit=_Lines(kitchen, dishes).of,
        ready_min=service.timing.ready_min,
        now_min=now_min,
        unit_system=kitchen.unit_system,
    )
    return CheckSheet(service_id, service.name, day, kitchen.name, kitchen.country, kitchen.setting, rows)


def _slots(stood: Iterable[Stood], marks: Iterable[Mark]) -> dict[str, Slot]:
    """When each task is done: as it happened, else as it is planned."""
    slots = {x.task: x.slot() for x in stood}
    for mark in marks:
        if mark.ended_min is not None:
            slots[mark.task] = Slot(mark.task, mark.begun_min, mark.ended_min, None, ())
    return slots


class _Lines:
    """The line of each check in this kitchen; a core by the floor of its dish."""

    def __init__(self, kitchen: Kitchen, dishes: Sequence[Dish]) -> None:
        self._kitchen = kitchen
        self._floors = {d.prefix: d.figures.cook.plan.floors.leading for d in dishes}

    def of(self, kind: CheckKind, task: str) -> CheckLimit:
        """The line of a kind, for the task it is of."""
        if kind == "core" and self._floors:
            mine = [prefix for prefix in self._floors if task.startswith(prefix)]
            # Longer prefixes are of a dish that is served twice. Of what is nobody's, the most demanding dish counts.
            key = max(mine, key=len) if mine else max(self._floors, key=lambda p: self._floors[p].temp_c)
            return core_limit(self._floors[key])
        return limit_of(kind, country=self._kitchen.country, setting=self._kitchen.setting)
