"""What the services of a span take: bought, made, taken in; and what of it is in the basket."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import date

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.units import UnitSystem, f_from_c
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.lot import Lot
from vianda.core.model.formula import Formula
from vianda.core.model.service import Service
from vianda.core.model.stocked import ItemKind, Stocked
from vianda.core.pipeline.compute import compute
from vianda.core.supply.arrival import Arrival, arrival
from vianda.core.supply.made_ahead import NOTHING_AHEAD, MadeAhead, made_ahead_of
from vianda.core.supply.mise import Label, Mise, label_of, mise_en_place
from vianda.core.supply.needs import Need, needs_of
from vianda.core.supply.occurrences import check_span, days_of
from vianda.core.supply.prep_plan import PrepPlan, prep_plan
from vianda.core.supply.scarcity import GoesShort, who_goes_short
from vianda.core.supply.shopping import Demand, Shopping, shopping
from vianda.runtime.engine import ENGINE
from vianda.services import larders
from vianda.services.bench import context
from vianda.services.larders import KnownLot
from vianda.services.remembered import Remembered
from vianda.storage import formula_repository, service_repository, supply_repository
from vianda.storage.transaction import transaction

# What a kitchen writes down about things of its own.
MOST_STOCKED = 1000


@dataclass(frozen=True, slots=True)
class Serving:
    """One service of a span: its name and day, how many guests it has, and which of its dishes cannot be worked out."""

    service_id: int
    name: str
    day: date
    guests: int
    problems: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class SpanShopping:
    """The list of a span, what of it is in the basket, whose services it is for, and how many have no day."""

    servings: tuple[Serving, ...]
    undated: int
    shopping: Shopping
    ticked: tuple[tuple[ItemKind, str], ...]
    currency_code: str


@dataclass(frozen=True, slots=True)
class Received:
    """What was said to a delivery, and the lot it became."""

    arrival: Arrival
    lot: KnownLot


@dataclass(frozen=True, slots=True)
class Taken:
    """What a dish takes and has made ahead, for how many guests, and the reason why it takes nothing."""

    needs: tuple[Need, ...]
    guests: int
    problem: str = ""
    ahead: MadeAhead = NOTHING_AHEAD


_NEEDS: Remembered[Taken] = Remembered()


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
        return Taken(needs_of(figures, dish=name), formula.dish.guests, "", made_ahead_of(figures, dish=name, key=key))


@dataclass(frozen=True, slots=True)
class _Span:
    """Everything that is served in a span of days, and what it takes."""

    servings: tuple[Serving, ...]
    undated: int
    taken: tuple[tuple[date, Taken], ...]
    demands: tuple[Demand, ...]
    inventory: Inventory
    kitchen: Kitchen
    stock: list[Stocked]

    def shopping(self) -> Shopping:
        """The list that follows."""
        return shopping(self.demands, inventory=self.inventory, kitchen=self.kitchen, stock=self.stock)


def _span(first: date, last: date, unit_system: UnitSystem | None) -> _Span:
    check_span(first, last)
    stored = service_repository.list_services()
    needs = _Needs({d.formula_id for s in stored for d in s.service.dishes}, unit_system)
    servings: list[Serving] = []
    demands: list[Demand] = []
    taken: list[tuple[date, Taken]] = []
    for one in stored:
        for day in days_of(one.service, first=first, last=last):
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
    return _Span(
        tuple(sorted(servings, key=lambda s: (s.day, s.name))),
        sum(not s.service.day for s in stored),
        tuple(taken),
        tuple(demands),
        needs.inventory,
        needs.kitchen,
        supply_repository.list_stock(),
    )


def span_shopping(first: date, last: date, *, unit_system: UnitSystem | None = None) -> SpanShopping:
    """What has to be bought for everything that is served in a span of days."""
    span = _span(first, last, unit_system)
    ticks = tuple((kind, key) for kind, key in supply_repository.ticks(str(first), str(last)))
    code = span.kitchen.currency_code
    return SpanShopping(span.servings, span.undated, span.shopping(), ticks, code)  # type: ignore[arg-type]


def scarcity(first: date, last: date, *, unit_system: UnitSystem | None = None) -> tuple[GoesShort, ...]:
    """Who goes short in a span if no more meat comes."""
    span = _span(first, last, unit_system)
    return who_goes_short([(day, x.needs) for day, x in span.taken], inventory=span.inventory, stock=span.stock)


@dataclass(frozen=True, slots=True)
class SpanPrep:
    """What is made on which day of a span, and whose services it is for."""

    servings: tuple[Serving, ...]
    plan: PrepPlan


def span_prep(first: date, last: date, *, day_min: float = 0.0, unit_system: UnitSystem | None = None) -> SpanPrep:
    """What is made on which day for everything that is served in a span, with so many minutes of hands a day."""
    span = _span(first, last, unit_system)
    plan = prep_plan(
        span.shopping().makes,
        [(day, x.ahead.ground) for day, x in span.taken if x.ahead.ground is not None],
        first=first,
        last=last,
        inventory=span.inventory,
        ways={key: way for _, x in span.taken for key, way in x.ahead.ways.items()},
        stock=span.stock,
        day_min=day_min,
    )
    return SpanPrep(span.servings, plan)


@dataclass(frozen=True, slots=True)
class SetOut:
    """A service set out: its dishes by station, why some cannot be, and the labels of what is made ahead."""

    name: str
    day: str
    dishes: tuple[Mise, ...]
    problems: tuple[str, ...]
    labels: tuple[Label, ...]


def set_out(service: Service, served_on: date, *, unit_system: UnitSystem | None = None) -> SetOut:
    """Everything of a service weighed and in order, with the labels of what is made ahead for the day given."""
    inventory, kitchen = context(unit_system)
    formulas = formula_repository.formulas_of({d.formula_id for d in service.dishes})
    dishes: list[Mise] = []
    problems: list[str] = []
    needs: list[Need] = []
    for served in service.dishes:
        stored = formulas.get(served.formula_id)
        if stored is None:
            problems.append("A dish is no longer on the shelf.")
            continue
        formula = stored.formula
        if served.guests:
            formula = replace(formula, dish=replace(formula.dish, guests=served.guests))
        try:
            figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
        except CoreError as error:
            problems.append(f"{formula.name}: {error}")
            continue
        dishes.append(mise_en_place(figures, dish=formula.name))
        needs += needs_of(figures, dish=formula.name)
    stock = supply_repository.list_stock()
    makes = shopping([Demand(served_on, tuple(needs))], inventory=inventory, kitchen=kitchen, stock=stock).makes
    labels = tuple(label_of(make, inventory=inventory, served=served_on) for make in makes)
    return SetOut(service.name, service.day, tuple(dishes), tuple(problems), labels)


def set_tick(first: date, last: date, kind: ItemKind, key: str, *, ticked: bool) -> None:
    """Put one thing of a span's list into the basket, or take it out."""
    check_span(first, last)
    with transaction():
        supply_repository.set_tick(str(first), str(last), kind, key, ticked=ticked)


def list_stock() -> list[Stocked]:
    """What is kept of everything."""
    return supply_repository.list_stock()


def keep_stocked(stocked: Stocked) -> Stocked:
    """Write down what is there of a thing, how it is sold, and how much always should be there."""
    inventory, kitchen = context()
    known = {"meat": inventory.meats.keys(), "thing": inventory.pantry.keys(), "bread": {b.key for b in kitchen.buns}}[
        stocked.kind
    ]
    if stocked.key not in known:
        raise OutOfRangeError("That is not in this kitchen.", field="/stocked/key")
    with transaction():
        standing = supply_repository.list_stock()
        if len(standing) >= MOST_STOCKED and all((s.kind, s.key) != (stocked.kind, stocked.key) for s in standing):
            raise OutOfRangeError(f"At most {MOST_STOCKED} things are counted.", field="/stocked")
        return supply_repository.keep_stocked(stocked)


def receive(lot: Lot, temp_c: float | None, *, unit_system: UnitSystem | None = None) -> Received:
    """Take a delivery in as a lot. What is too warm is refused, with the line and who says so."""
    inventory, kitchen = context(unit_system)
    meat = inventory.meat(lot.meat, field="/lot/meat")
    said = arrival(meat, temp_c, country=kitchen.country, unit_system=kitchen.unit_system)
    if said.taken == "refused":
        raise TooWarmError(said)
    return Received(said, larders.add_lot(lot))


class TooWarmError(CoreError):
    """A delivery that is warmer than it may arrive."""

    code = "too-warm"
    title = "Refuse this delivery"

    def __init__(self, said: Arrival) -> None:
        # A refusal has no units of its own on the way to the screen: it says both.
        temps = {k: f"{a.value:.1f} °C ({f_from_c(a.value or 0.0):.0f} °F)" for k, a in said.says.amounts.items()}
        super().__init__(f"{said.says.text.format(**temps)} ({said.source})", field="/temp_c")
        self.said = said
