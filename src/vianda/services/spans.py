"""Everything that is served in a span of days, and what it takes; each dish of a service is worked out once."""

from __future__ import annotations

from collections.abc import Collection, Hashable
from dataclasses import dataclass, replace
from datetime import date

from vianda.core.basis.errors import CoreError
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula
from vianda.core.model.stocked import Stocked
from vianda.core.pipeline.compute import compute
from vianda.core.supply.butcher import BlendTaken, blend_taken
from vianda.core.supply.made_ahead import NOTHING_AHEAD, MadeAhead, made_ahead_of
from vianda.core.supply.needs import Need, needs_of
from vianda.core.supply.occurrences import check_span, days_of
from vianda.core.supply.shopping import Demand, Shopping, shopping
from vianda.runtime.engine import ENGINE
from vianda.runtime.newest import Newest
from vianda.services.bench import context
from vianda.services.remembered import Remembered
from vianda.storage import formula_repository, service_repository, supply_repository
from vianda.storage.caches import on_rollback


@dataclass(frozen=True, slots=True)
class Serving:
    """One service of a span: its name and day, how many guests it has, and which of its dishes cannot be worked out."""

    service_id: int
    name: str
    day: date
    guests: int
    problems: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Taken:
    """What a dish takes, has made ahead and orders of its butcher, for how many guests; or why it takes nothing."""

    needs: tuple[Need, ...]
    guests: int
    problem: str = ""
    ahead: MadeAhead = NOTHING_AHEAD
    blend: BlendTaken | None = None


_NEEDS: Remembered[Taken] = Remembered()
# Lists of as many spans, kitchens and units: each tick on a phone asks for its list again.
MOST_LISTS = 64
_LISTS: Newest[Shopping] = Newest(MOST_LISTS)
on_rollback(_LISTS.forget)


class _Needs:
    """What each dish takes for so many guests, worked out once."""

    def __init__(self, formula_ids: Collection[int], unit_system: UnitSystem | None) -> None:
        self.remembered = _NEEDS.here(unit_system)
        self.inventory, self.kitchen = context(unit_system)
        self.formulas = formula_repository.formulas_of(formula_ids)

    def of(self, formula_id: int, guests: int) -> Taken:
        """What it takes, or the reason why it takes nothing."""
        stored = self.formulas.get(formula_id)
        if stored is None:
            return Taken((), guests, "A dish is no longer on the shelf.")
        return self.remembered.of(
            stored, lambda formula: self._worked_out(formula, guests, str(formula_id)), guests=guests
        )

    def _worked_out(self, formula: Formula, guests: int, key: str) -> Taken:
        if guests:
            formula = replace(formula, dish=replace(formula.dish, guests=guests))
        try:
            figures = compute(formula, inventory=self.inventory, kitchen=self.kitchen, engine=ENGINE)
        except CoreError as error:
            return Taken((), formula.dish.guests, f"{formula.name}: {error}")
        name = formula.name
        return Taken(
            needs_of(figures, dish=name),
            formula.dish.guests,
            "",
            made_ahead_of(figures, dish=name, key=key),
            blend_taken(figures, name=name, key=key),
        )


@dataclass(frozen=True, slots=True)
class Span:
    """Everything that is served in a span of days, and what it takes."""

    servings: tuple[Serving, ...]
    undated: int
    taken: tuple[tuple[date, Taken], ...]
    demands: tuple[Demand, ...]
    inventory: Inventory
    kitchen: Kitchen
    stock: list[Stocked]
    # Everything that the figures of this span depend on.
    key: tuple[Hashable, ...]

    def shopping(self) -> Shopping:
        """The list that follows; its linear programmes are solved once for what they depend on."""
        return _LISTS.of(
            self.key, lambda: shopping(self.demands, inventory=self.inventory, kitchen=self.kitchen, stock=self.stock)
        )


def span_of(first: date, last: date, unit_system: UnitSystem | None) -> Span:
    """Everything that the services of a span of days take."""
    check_span(first, last)
    coming = [
        (one, days)
        for one in service_repository.services_between(first, last)
        if (days := days_of(one.service, first=first, last=last))
    ]
    needs = _Needs({d.formula_id for s, _ in coming for d in s.service.dishes}, unit_system)
    servings: list[Serving] = []
    demands: list[Demand] = []
    taken: list[tuple[date, Taken]] = []
    for one, days in coming:
        for day in days:
            found = [needs.of(d.formula_id, d.guests) for d in one.service.dishes]
            servings.append(
                Serving(
                    one.id,
                    one.service.name,
                    day,
                    max((x.guests for x in found), default=0),
                    tuple(x.problem for x in found if x.problem),
                )
            )
            demands.append(Demand(day, tuple(need for x in found for need in x.needs)))
            taken += [(day, x) for x in found]
    stock = supply_repository.list_stock()
    of = tuple((one.id, one.revision, days) for one, days in coming)
    made_of = tuple(sorted((n, f.revision) for n, f in needs.formulas.items()))
    return Span(
        tuple(sorted(servings, key=lambda s: (s.day, s.name))),
        service_repository.count_undated(),
        tuple(taken),
        tuple(demands),
        needs.inventory,
        needs.kitchen,
        stock,
        (needs.remembered.stamp, first, last, of, made_of, tuple(stock)),
    )
