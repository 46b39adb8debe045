"""Shopping for a span of days, what is kept of things, and deliveries."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from flask import Blueprint, Response, request
from pydantic import Field

from vianda.api.attachment import csv_file
from vianda.api.contract import operation
from vianda.api.larder_schemas import LotAnswer, lot_answer
from vianda.api.wire import Answer, DayMinute, Units, Who, day_of
from vianda.core.basis.bounds import TempC
from vianda.core.inventory.lot import Lot
from vianda.core.model.service import MOST_COUNTS, Count
from vianda.core.model.stocked import Stocked
from vianda.core.supply.arrival import Arrival
from vianda.core.supply.covers import Forecast, forecast
from vianda.core.supply.labels import MOST_CONTAINERS, SHEETS, LabelSheet
from vianda.core.supply.prep_plan import MOST_DAY_MIN
from vianda.core.supply.scarcity import GoesShort
from vianda.core.supply.ticks import Tick
from vianda.interchange.documents import Strict
from vianda.interchange.supply_csv import butcher_csv, prep_csv, shopping_csv
from vianda.services import services, supply, ticks
from vianda.services import set_out as set_out_service

blueprint = Blueprint("supply", __name__, url_prefix="/api")


class SpanRequest(Strict):
    """A span of days, both counted."""

    from_day: date
    to_day: date
    unit_system: Units


class PrepRequest(Strict):
    """A span of days, both counted, and the hands there are for prep on one, minutes; 0: as many as it takes."""

    from_day: date
    to_day: date
    day_min: Annotated[float, Field(ge=0, le=MOST_DAY_MIN)] = 0.0
    unit_system: Units


class SetOutRequest(Strict):
    """A service, and the day it is now: it is set out for the day on which it comes next."""

    service_id: Annotated[int, Field(ge=1, le=2_000_000_000)]
    today: date
    unit_system: Units


class TickRequest(Strict):
    """One line of a list: done or not, and how much it is, g or pieces.

    Lists have names: ``shopping/2026-12-01/2026-12-07``, ``prep/2026-12-03``, ``set-out/12/2026-12-04``.
    """

    sheet: Annotated[str, Field(max_length=60)]
    line: Annotated[str, Field(min_length=1, max_length=200, pattern=r"^[a-z0-9._/-]+$")]
    amount: Annotated[float | None, Field(ge=0, le=1e9)] = None
    ticked: bool


class StockedRequest(Strict):
    """What is kept of a thing."""

    stocked: Stocked


class MeasuredModel(Strict):
    """When a delivery was measured by the kitchen's clock, minutes from midnight, and by whom."""

    token: Annotated[str, Field(min_length=8, max_length=36, pattern=r"^[A-Za-z0-9-]+$")]
    day: date
    minute: DayMinute
    who: Who = ""

    def measured(self) -> supply.Measured:
        """The same as the services know it."""
        return supply.Measured(self.token, self.day, self.minute, self.who.strip())


class ReceiveRequest(Strict):
    """A delivery: the lot it becomes, and how warm it came; None where nobody measured.

    ``measured`` is when, for the record of the day.
    """

    lot: Lot
    temp_c: TempC | None = None
    unit_system: Units
    measured: MeasuredModel | None = None


class CoversRequest(Strict):
    """How many came, a day each."""

    counts: Annotated[tuple[Count, ...], Field(max_length=MOST_COUNTS)]


class CoversAnswer(Answer):
    """How many will come, or nothing."""

    forecast: Forecast | None


class ReceivedAnswer(Answer):
    """What was said to a delivery, and the lot it became."""

    arrival: Arrival
    lot: LotAnswer


@operation(
    blueprint,
    "POST",
    "/shopping",
    summary="What to buy for everything that is served in a span of days",
    body=SpanRequest,
    answer=supply.SpanShopping,
)
def span_shopping(body: SpanRequest) -> supply.SpanShopping:
    return supply.span_shopping(body.from_day, body.to_day, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/shopping/scarcity",
    summary="Who goes short, and by how much, if no more meat comes in a span of days",
    body=SpanRequest,
    answer=list[GoesShort],
)
def scarcity(body: SpanRequest) -> list[GoesShort]:
    return list(supply.scarcity(body.from_day, body.to_day, unit_system=body.unit_system))


@operation(
    blueprint,
    "POST",
    "/butcher",
    summary="One slip for the butcher for everything that is served in a span of days: blends, days, cuts",
    body=SpanRequest,
    answer=supply.SpanButcher,
)
def butcher(body: SpanRequest) -> supply.SpanButcher:
    return supply.butcher(body.from_day, body.to_day, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/prep",
    summary="What to make on which day for everything that is served in a span, at least work and waste",
    body=PrepRequest,
    answer=supply.SpanPrep,
)
def span_prep(body: PrepRequest) -> supply.SpanPrep:
    return supply.span_prep(body.from_day, body.to_day, day_min=body.day_min, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/services/set-out",
    summary="A service weighed and in its bowls, and the labels of what is made ahead",
    body=SetOutRequest,
    answer=set_out_service.SetOut,
)
def set_out(body: SetOutRequest) -> set_out_service.SetOut:
    return set_out_service.set_out(body.service_id, body.today, unit_system=body.unit_system)


class LabelsRequest(Strict):
    """Which service, the sheet of labels with its first free place, and how many containers each lot goes into."""

    service_id: Annotated[int, Field(ge=1)]
    today: date
    sheet: Annotated[str, Field(max_length=40)] = "a4-21"
    first: Annotated[int, Field(ge=1, le=300)] = 1
    containers: Annotated[
        dict[str, Annotated[int, Field(ge=0, le=MOST_CONTAINERS)]], Field(max_length=200, default_factory=dict)
    ]


class LabelsAnswer(Answer):
    """The labels laid out, and every sheet there is to choose from."""

    found: set_out_service.LabelPages
    sheets: tuple[LabelSheet, ...]


@operation(
    blueprint,
    "POST",
    "/services/labels",
    summary="Labels for the containers of what a service makes ahead, laid out on a sheet",
    body=LabelsRequest,
    answer=LabelsAnswer,
    problems=(404,),
)
def container_labels(body: LabelsRequest) -> LabelsAnswer:
    found = set_out_service.labels(
        body.service_id, body.today, sheet=body.sheet, first=body.first, containers=body.containers
    )
    return LabelsAnswer(found=found, sheets=tuple(SHEETS.values()))


@operation(
    blueprint,
    "PUT",
    "/ticks",
    summary="Tick one line of a list as bought, made or weighed, or take the tick away",
    body=TickRequest,
    answer=dict[str, bool],
    once=True,
)
def set_tick(body: TickRequest) -> dict[str, bool]:
    ticks.set_tick(body.sheet, Tick(body.line, body.amount), ticked=body.ticked)
    return {"ticked": body.ticked}


@operation(blueprint, "GET", "/stock", summary="What is kept of everything", answer=list[Stocked])
def list_stock() -> list[Stocked]:
    return supply.list_stock()


@operation(
    blueprint,
    "PUT",
    "/stock",
    summary="Write down what is kept of one thing",
    body=StockedRequest,
    answer=Stocked,
    once=True,
)
def keep_stocked(body: StockedRequest) -> Stocked:
    return supply.keep_stocked(body.stocked)


@operation(
    blueprint,
    "POST",
    "/deliveries",
    summary="Take a delivery in as a lot; what is too warm is refused",
    body=ReceiveRequest,
    answer=ReceivedAnswer,
    status=201,
    once=True,
)
def receive(body: ReceiveRequest) -> ReceivedAnswer:
    at = body.measured.measured() if body.measured else None
    received = supply.receive(body.lot, body.temp_c, unit_system=body.unit_system, at=at)
    return ReceivedAnswer(arrival=received.arrival, lot=lot_answer(received.lot))


@operation(
    blueprint,
    "POST",
    "/covers",
    summary="How many will come, from how many came; nothing with fewer than three evenings",
    body=CoversRequest,
    answer=CoversAnswer,
)
def covers(body: CoversRequest) -> CoversAnswer:
    return CoversAnswer(forecast=forecast(body.counts))


@operation(
    blueprint,
    "GET",
    "/shopping/<from_day>/<to_day>/list.csv",
    summary="The shopping list of a span of days as CSV",
    gives="text/csv",
)
def export_shopping(from_day: str, to_day: str) -> Response:
    first, last = day_of(from_day), day_of(to_day)
    return csv_file(shopping_csv(supply.span_shopping(first, last).shopping), name=f"shopping-{first}-{last}")


@operation(
    blueprint,
    "GET",
    "/prep/<from_day>/<to_day>/list.csv",
    summary="The prep list of a span of days as CSV",
    gives="text/csv",
)
def export_prep(from_day: str, to_day: str) -> Response:
    first, last = day_of(from_day), day_of(to_day)
    # The list on the screen may be for so many minutes of hands a day.
    try:
        day_min = float(request.args.get("day_min", "0"))
    except ValueError:
        day_min = -1.0
    return csv_file(prep_csv(supply.span_prep(first, last, day_min=day_min).plan), name=f"prep-{first}-{last}")


@operation(
    blueprint,
    "GET",
    "/butcher/<from_day>/<to_day>/slip.csv",
    summary="The slip for the butcher of a span of days as CSV",
    gives="text/csv",
)
def export_butcher(from_day: str, to_day: str) -> Response:
    first, last = day_of(from_day), day_of(to_day)
    return csv_file(butcher_csv(supply.butcher(first, last).slip), name=f"butcher-{first}-{last}")


@operation(
    blueprint, "GET", "/services/calendar.ics", summary="The services as an iCalendar file", gives="text/calendar"
)
def export_calendar() -> Response:
    return Response(
        services.calendar(),
        content_type="text/calendar; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="services.ics"'},
    )
