"""What the services of a span take: bought, made, taken in; and what of it is in the basket."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.units import UnitSystem, f_from_c
from vianda.core.inventory.lot import Lot
from vianda.core.model.stocked import Stocked
from vianda.core.supply.arrival import Arrival, arrival
from vianda.core.supply.butcher import ButcherSlip, butcher_slip_of
from vianda.core.supply.prep_plan import PrepPlan, prep_plan
from vianda.core.supply.scarcity import GoesShort, who_goes_short
from vianda.core.supply.shopping import Shopping
from vianda.core.supply.ticks import Listed, Ticked, ticked
from vianda.core.timetable.run import RunEvent
from vianda.runtime.newest import Newest
from vianda.services import larders, runs
from vianda.services.bench import context
from vianda.services.larders import KnownLot
from vianda.services.spans import Serving, Span, span_of
from vianda.services.ticks import prep_sheet, shopping_sheet
from vianda.storage import supply_repository
from vianda.storage.caches import on_rollback
from vianda.storage.transaction import transaction

# What a kitchen writes down about things of its own.
MOST_STOCKED = 1000
# Plans of as many spans and hands a day.
MOST_PLANS = 64
_PLANS: Newest[PrepPlan] = Newest(MOST_PLANS)
on_rollback(_PLANS.forget)


@dataclass(frozen=True, slots=True)
class SpanShopping:
    """The list of a span, what of it is in the basket, whose services it is for, and how many have no day.

    Lines are ticked on the list ``sheet`` by kind and key, as in ``meat/chuck``.
    """

    servings: tuple[Serving, ...]
    undated: int
    shopping: Shopping
    sheet: str
    ticked: tuple[Ticked, ...]
    currency_code: str


@dataclass(frozen=True, slots=True)
class SpanButcher:
    """The butcher's slip of a span, whose services it is for, and the kitchen that orders."""

    servings: tuple[Serving, ...]
    kitchen: str
    slip: ButcherSlip


@dataclass(frozen=True, slots=True)
class Measured:
    """When a delivery was measured by the kitchen's clock, minutes from midnight, by whom; a repeat counts once."""

    token: str
    day: date
    minute: int
    who: str = ""


@dataclass(frozen=True, slots=True)
class Received:
    """What was said to a delivery, and the lot it became."""

    arrival: Arrival
    lot: KnownLot


def span_shopping(first: date, last: date, *, unit_system: UnitSystem | None = None) -> SpanShopping:
    """What has to be bought for everything that is served in a span of days."""
    span = span_of(first, last, unit_system)
    found, sheet = span.shopping(), shopping_sheet(first, last)
    listed = {f"{x.kind}/{x.key}": Listed(x.bought, counted=x.kind == "bread") for x in found.lines}
    marks = ticked(sheet, supply_repository.ticks([sheet])[sheet], listed)
    return SpanShopping(span.servings, span.undated, found, sheet, marks, span.kitchen.currency_code)


def butcher(first: date, last: date, *, unit_system: UnitSystem | None = None) -> SpanButcher:
    """One slip for the butcher for everything that is served in a span of days."""
    span = span_of(first, last, unit_system)
    slip = butcher_slip_of(
        [(day, x.blend) for day, x in span.taken if x.blend is not None],
        meats=[line for line in span.shopping().lines if line.kind == "meat"],
        inventory=span.inventory,
        country=span.kitchen.country,
        span_days=(last - first).days + 1,
    )
    return SpanButcher(span.servings, span.kitchen.name, slip)


def scarcity(first: date, last: date, *, unit_system: UnitSystem | None = None) -> tuple[GoesShort, ...]:
    """Who goes short in a span if no more meat comes."""
    span = span_of(first, last, unit_system)
    return who_goes_short([(day, x.needs) for day, x in span.taken], inventory=span.inventory, stock=span.stock)


@dataclass(frozen=True, slots=True)
class SpanPrep:
    """What is made on which day of a span, whose services it is for, and what is ticked as made.

    Each day has a list of its own, and a thing is ticked on it by its key.
    """

    servings: tuple[Serving, ...]
    plan: PrepPlan
    ticked: tuple[Ticked, ...]


def span_prep(first: date, last: date, *, day_min: float = 0.0, unit_system: UnitSystem | None = None) -> SpanPrep:
    """What is made on which day for everything that is served in a span, with so many minutes of hands a day."""
    span = span_of(first, last, unit_system)
    plan = _PLANS.of((span.key, day_min), lambda: _prep_of(span, first, last, day_min))
    kept = supply_repository.ticks([prep_sheet(day.day) for day in plan.days])
    marks = [
        tick
        for day in plan.days
        for tick in ticked(prep_sheet(day.day), kept[prep_sheet(day.day)], {x.key: Listed(x.mass_g) for x in day.lines})
    ]
    return SpanPrep(span.servings, plan, tuple(marks))


def _prep_of(span: Span, first: date, last: date, day_min: float) -> PrepPlan:
    """The plan itself: a mixed-integer programme, solved once for what it depends on."""
    return prep_plan(
        span.shopping().makes,
        [(day, x.ahead.ground) for day, x in span.taken if x.ahead.ground is not None],
        first=first,
        last=last,
        inventory=span.inventory,
        ways={key: way for _, x in span.taken for key, way in x.ahead.ways.items()},
        stock=span.stock,
        day_min=day_min,
    )


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


def receive(
    lot: Lot, temp_c: float | None, *, unit_system: UnitSystem | None = None, at: Measured | None = None
) -> Received:
    """Take a delivery in as a lot. What is too warm is refused, with the line and who says so; both are on record."""
    inventory, kitchen = context(unit_system)
    meat = inventory.meat(lot.meat, field="/lot/meat")
    said = arrival(meat, temp_c, country=kitchen.country, unit_system=kitchen.unit_system)
    if temp_c is not None and at is not None:
        _on_record(lot, temp_c, at, refused=said.taken == "refused")
    if said.taken == "refused":
        raise TooWarmError(said)
    return Received(said, larders.add_lot(lot))


def _on_record(lot: Lot, temp_c: float, at: Measured, *, refused: bool) -> None:
    """The delivery among the checks of its day."""
    check = f"delivery/{lot.meat}/{at.token}"
    read = RunEvent(at.token, "measured", at.minute, check=check, temp_c=temp_c, who=at.who, remark=lot.name)
    runs.note_check(at.day, read)
    if refused:
        done = RunEvent(f"{at.token}-r", "acted", at.minute, check=check, who=at.who, remark="Refused")
        runs.note_check(at.day, done)


class TooWarmError(CoreError):
    """A delivery that is warmer than it may arrive."""

    code = "too-warm"
    title = "Refuse this delivery"

    def __init__(self, said: Arrival) -> None:
        # A refusal has no units of its own on the way to the screen: it says both.
        temps = {k: f"{a.value:.1f} °C ({f_from_c(a.value or 0.0):.0f} °F)" for k, a in said.says.amounts.items()}
        super().__init__(f"{said.says.text.format(**temps)} ({said.source})", field="/temp_c")
        self.said = said
