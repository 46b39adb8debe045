"""When to do what for a formula, in this kitchen."""

from __future__ import annotations

from vianda.core.basis.units import UnitSystem
from vianda.core.carried.carried import Carried, Trip, carried
from vianda.core.model.formula import Formula, OwnTask
from vianda.core.orders.arrivals import Orders
from vianda.core.orders.as_they_come import OrdersFigures, as_they_come
from vianda.core.pipeline.compute import compute
from vianda.core.schedule.solve import Solver
from vianda.core.timetable.short_of_time import ShortOfTime, short_of_time
from vianda.core.timetable.timetable import Timetable, timetable
from vianda.runtime.engine import ENGINE
from vianda.runtime.searching import Search
from vianda.services.bench import context
from vianda.storage import formula_repository, service_repository

# So many tasks of before are offered.
MOST_OFFERED = 12


def timetable_of(formula: Formula, *, unit_system: UnitSystem | None = None) -> Search[Timetable]:
    """The timetable of a formula as it stands, backwards from its hour on the plate."""
    inventory, kitchen = context(unit_system)
    figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    return Search(lambda solver: timetable(figures, solver=solver))


def short_of_time_for(formula: Formula, minutes: int, *, unit_system: UnitSystem | None = None) -> Search[ShortOfTime]:
    """Whether a formula is on the plate within so many minutes, and what would bring it there."""
    inventory, kitchen = context(unit_system)

    def look(solver: Solver) -> ShortOfTime:
        return short_of_time(
            formula, minutes=minutes, inventory=inventory, kitchen=kitchen, engine=ENGINE, solver=solver
        )

    return Search(look)


def carried_of(formula: Formula, trip: Trip, *, unit_system: UnitSystem | None = None) -> Carried:
    """What it takes to carry a formula's raw pieces elsewhere."""
    inventory, kitchen = context(unit_system)
    return carried(compute(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE), trip)


def own_tasks() -> tuple[OwnTask, ...]:
    """Own tasks of this kitchen's formulas and services, one of each name, the newest first: side dishes are reused."""
    dated = [
        *((f.updated_at, f.formula.timing.own) for f in formula_repository.list_formulas()),
        *((s.updated_at, s.service.timing.own) for s in service_repository.list_services()),
    ]
    found: dict[str, OwnTask] = {}
    for _, own in sorted(dated, key=lambda x: x[0], reverse=True):
        for task in own:
            found.setdefault(task.title.casefold(), task)
    return tuple(found.values())[:MOST_OFFERED]


def orders_of(formula: Formula, orders: Orders, *, unit_system: UnitSystem | None = None) -> OrdersFigures:
    """What this kitchen and the formula's cooks make of orders as they come."""
    inventory, kitchen = context(unit_system)
    figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
    return as_they_come(figures, orders, cooks=formula.timing.cooks)
