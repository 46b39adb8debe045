"""Services: what is served together, kept, and put in time."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from typing import Annotated

from annotated_types import Interval, Len

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.units import UnitSystem
from vianda.core.editing.set_timing import edited_timing, keep_away
from vianda.core.model.edit import TimingEdit
from vianda.core.model.formula import Away, Formula
from vianda.core.model.service import ServedDish, Service
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.model import EARLIEST_MIN, LATEST_MIN, Slot
from vianda.core.schedule.replan import Progress
from vianda.core.schedule.solve import Solver
from vianda.core.timetable.sheet import Dish
from vianda.core.timetable.timetable import Timetable, timetable_together
from vianda.core.timetable.underway import Underway, underway
from vianda.interchange.calendar_busy import busy_times
from vianda.interchange.calendar_file import Dated, calendar_file
from vianda.runtime.engine import ENGINE
from vianda.runtime.searching import Search
from vianda.services.bench import context
from vianda.services.supply import span_prep
from vianda.storage import formula_repository, service_repository, supply_repository
from vianda.storage.clock import now_utc
from vianda.storage.records import NotFoundError, StoredService
from vianda.storage.transaction import transaction

# What is made ahead is written into a calendar for so long (ours).
CALENDAR_DAYS = 28
# Bounds of what is said of a task over the wire.
Key = Annotated[str, Len(1, 120)]
Minute = Annotated[int, Interval(ge=EARLIEST_MIN, le=LATEST_MIN)]


@dataclass(frozen=True, slots=True)
class PlannedDish:
    """One dish of a service as it is planned: its formula's name and guests, or why it cannot be."""

    formula_id: int
    name: str
    guests: int
    problem: str


@dataclass(frozen=True, slots=True)
class PlannedService:
    """The dishes of a service, and when to do what for all of them; none where there is nothing to do."""

    dishes: tuple[PlannedDish, ...]
    timetable: Timetable | None


@dataclass(frozen=True, slots=True)
class Stood:
    """When a task was to be done last, minutes from the hour on the plate, and in which lanes of the timetable."""

    task: Key
    start_min: Minute
    end_min: Minute
    lanes: Annotated[tuple[Key, ...], Len(0, 8)]

    def slot(self) -> Slot:
        """The same as the planner knows it: "cook-1" is a cook, "grate-0" a place."""
        cook: int | None = None
        places: list[tuple[str, int]] = []
        for lane in self.lanes:
            where, _, number = lane.rpartition("-")
            if not number.isdecimal() or not where:
                continue
            if where == "cook":
                cook = int(number)
            else:
                places.append((where, int(number)))
        return Slot(self.task, self.start_min, self.end_min, cook, tuple(places))


def list_services() -> list[StoredService]:
    """The services of this kitchen, by their day; those without one last."""
    return sorted(service_repository.list_services(), key=lambda s: (not s.service.day, s.service.day))


def get_service(service_id: int) -> StoredService:
    """One service."""
    return service_repository.get_service(service_id)


def create_service(service: Service) -> StoredService:
    """Write a service down."""
    with transaction():
        return service_repository.create_service(service)


def save_service(service_id: int, service: Service, *, revision: int) -> StoredService:
    """Save a service over the revision seen."""
    with transaction():
        return service_repository.save_service(service_id, service, revision=revision)


def delete_service(service_id: int) -> None:
    """Delete a service; its formulas stay."""
    with transaction():
        service_repository.delete_service(service_id)
        supply_repository.clear_sheets(f"set-out/{service_id}/")


def edit_service(service: Service, edit: TimingEdit, *, unit_system: UnitSystem | None = None) -> Service:
    """A service with its hour, its cooks, its own tasks or its pins changed."""
    _, kitchen = context(unit_system)
    return replace(service, timing=edited_timing(service.timing, edit, kitchen=kitchen))


def busy_cook(service: Service, cook: int, calendar: str, *, utc_offset_min: int) -> Service:
    """A service with what a cook's calendar says of its day, in place of what was said of the cook before."""
    if not service.day:
        raise OutOfRangeError("Give the service a day first: a calendar is read for one.", field="/service/day")
    midnight = datetime.combine(date.fromisoformat(service.day), time())
    busy = busy_times(
        calendar,
        first=midnight - timedelta(days=1),
        last=midnight + timedelta(days=2),
        utc_offset=timedelta(minutes=utc_offset_min),
    )

    def minute(at: datetime) -> int:
        return int((at - midnight).total_seconds() // 60)

    away = [Away(cook, minute(b.begins), math.ceil((b.ends - midnight).total_seconds() / 60)) for b in busy]
    others = replace(service.timing, away=tuple(a for a in service.timing.away if a.cook != cook))
    return replace(service, timing=keep_away(others, away))


def plan_service(service: Service, *, unit_system: UnitSystem | None = None) -> Search[PlannedService]:
    """When to do what for all that is served together. A dish that cannot be is named, and the rest is planned."""
    planned, dishes = cooked_dishes(service, unit_system)

    def look(solver: Solver) -> PlannedService:
        found = timetable_together(dishes, timing=service.timing, solver=solver) if dishes else None
        return PlannedService(tuple(planned), found)

    return Search(look)


def service_under_way(
    service: Service, *, stood: tuple[Stood, ...], progress: Progress, unit_system: UnitSystem | None = None
) -> Search[Underway]:
    """The rest of a service from now on, as little as possible of it moved from where it stood."""
    _, dishes = cooked_dishes(service, unit_system)
    slots = {x.task: x.slot() for x in stood}
    return Search(lambda solver: underway(dishes, timing=service.timing, stood=slots, progress=progress, solver=solver))


def cooked_dishes(service: Service, unit_system: UnitSystem | None) -> tuple[list[PlannedDish], list[Dish]]:
    """What is told of each dish, and those that can be cooked."""
    inventory, kitchen = context(unit_system)
    planned: list[PlannedDish] = []
    dishes: list[Dish] = []
    for served in service.dishes:
        formula = _formula(served)
        if formula is None:
            planned.append(PlannedDish(served.formula_id, "", served.guests, "It is no longer on the shelf."))
            continue
        problem = ""
        try:
            figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
            # Named after the formula, so that what is pinned stays pinned when another dish comes or goes.
            again = sum(d.prefix.startswith(f"f{served.formula_id}-") for d in dishes)
            dishes.append(Dish(f"f{served.formula_id}-" + "again-" * again, formula.name, figures))
        except CoreError as error:
            problem = str(error)
        planned.append(PlannedDish(served.formula_id, formula.name, formula.dish.guests, problem))
    return planned, dishes


def _formula(served: ServedDish) -> Formula | None:
    try:
        formula = formula_repository.get_formula(served.formula_id).formula
    except NotFoundError:
        return None
    return replace(formula, dish=replace(formula.dish, guests=served.guests)) if served.guests else formula


def calendar() -> str:
    """The services of this kitchen as a calendar file, with what is made ahead for the weeks to come."""
    _, kitchen = context()
    stored = service_repository.list_services()
    names = formula_repository.formulas_of({d.formula_id for s in stored for d in s.service.dishes})
    dated = [
        Dated(
            s.id,
            s.updated_at,
            s.service,
            tuple(names[d.formula_id].formula.name for d in s.service.dishes if d.formula_id in names),
        )
        for s in stored
    ]
    first = now_utc().date()
    return calendar_file(kitchen.name, dated, span_prep(first, first + timedelta(days=CALENDAR_DAYS)).plan)
