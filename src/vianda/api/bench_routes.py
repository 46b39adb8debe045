"""Evaluate, open from a line, and what there is to choose from."""

from __future__ import annotations

from pathlib import Path

from flask import Blueprint, Response, current_app

from vianda.api import schemas as s
from vianda.api.contract import JSON_TYPE, operation
from vianda.api.pantry_schemas import PantryItem
from vianda.api.wire import Answer
from vianda.core.basis.option import Option
from vianda.core.blend.schools import all_schools
from vianda.core.carried.carried import Carried
from vianda.core.evaluation.evaluate import Sheets, figure_ranges
from vianda.core.evaluation.style_preview import preview
from vianda.core.heat.doneness import DONENESS
from vianda.core.mix.limits import TITLES as LIMIT_TITLES
from vianda.core.mix.schools import mix_schools
from vianda.core.model.formula import OwnTask
from vianda.core.model.styles import all_styles
from vianda.core.orders.as_they_come import OrdersFigures
from vianda.core.reading.mix_line import MixReading
from vianda.core.sauce.schools import ROLES
from vianda.core.sauce.tastes import TASTE_TITLES
from vianda.core.stack.layers import layer_choices
from vianda.core.target.wish import AIMS
from vianda.core.timetable.short_of_time import ShortOfTime
from vianda.core.timetable.timetable import Timetable
from vianda.runtime.searching import Search
from vianda.services import bench, larders, targets, timetables
from vianda.storage.migrate import pending_here
from vianda.storage.records import NotFoundError

blueprint = Blueprint("bench", __name__, url_prefix="/api")


@operation(
    blueprint,
    "GET",
    "/certificate",
    summary="The certificate of the kitchen's own authority, for telephones to trust",
    gives="application/x-x509-ca-cert",
    problems=(404,),
)
def authority_certificate() -> Response:
    path = current_app.config.get("AUTHORITY")
    if not path:
        raise NotFoundError("certificate: Vianda is open on this machine only")
    named = {"Content-Disposition": 'attachment; filename="vianda-kitchen.crt"'}
    return Response(Path(path).read_bytes(), content_type="application/x-x509-ca-cert", headers=named)


class ReadyAnswer(Answer):
    """Whether it can serve: the database answers and has the newest shape; else why not."""

    ready: bool
    why: str


@operation(
    blueprint,
    "GET",
    "/ready",
    summary="Whether the database answers and has the newest shape; 503 where not",
    answer=ReadyAnswer,
)
def ready() -> ReadyAnswer | Response:
    waiting = pending_here()
    if waiting:
        why = f"The database waits for an upgrade ({', '.join(waiting)}): vianda prepare."
        body = ReadyAnswer(ready=False, why=why).model_dump_json()
        return Response(body, status=503, content_type=JSON_TYPE)
    return ReadyAnswer(ready=True, why="")


@operation(blueprint, "GET", "/live", summary="Whether the server answers", answer=dict[str, bool])
def live() -> dict[str, bool]:
    return {"live": True}


@operation(
    blueprint,
    "POST",
    "/evaluate",
    summary="Apply edits to a formula and evaluate it",
    body=s.EvaluateRequest,
    answer=bench.Bench,
)
def evaluate(body: s.EvaluateRequest) -> bench.Bench:
    return bench.evaluate_formula(body.formula, edits=tuple(body.edits), unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/sheets",
    summary="What is opened beside a formula's figures: workings, sheets, slip, steps",
    body=s.SheetsRequest,
    answer=Sheets,
)
def sheets(body: s.SheetsRequest) -> Sheets:
    return bench.sheets_of(body.formula, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/timetable",
    summary="When to do what for a formula, backwards from the plate",
    body=s.SheetsRequest,
    answer=Timetable,
    searched=True,
)
def timetable(body: s.SheetsRequest) -> Search[Timetable]:
    return timetables.timetable_of(body.formula, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/orders",
    summary="A formula cooked to order: how many portions an hour, how long guests wait, what to hold ready",
    body=s.OrdersRequest,
    answer=OrdersFigures,
)
def orders(body: s.OrdersRequest) -> OrdersFigures:
    return timetables.orders_of(body.formula, body.orders, unit_system=body.unit_system)


@operation(
    blueprint,
    "GET",
    "/own-tasks",
    summary="Own tasks of this kitchen's formulas and services, one of each name, the newest first",
    answer=list[OwnTask],
)
def own_tasks() -> list[OwnTask]:
    return list(timetables.own_tasks())


@operation(
    blueprint,
    "POST",
    "/carried",
    summary="A formula's raw pieces carried elsewhere: box, ice, papers, minutes out of the cold",
    body=s.CarriedRequest,
    answer=Carried,
)
def carried(body: s.CarriedRequest) -> Carried:
    return timetables.carried_of(body.formula, body.trip, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/short-of-time",
    summary="Whether a formula is on the plate within so many minutes, and the cheapest changes that make it fit",
    body=s.ShortOfTimeRequest,
    answer=ShortOfTime,
    searched=True,
)
def short_of_time(body: s.ShortOfTimeRequest) -> Search[ShortOfTime]:
    return timetables.short_of_time_for(body.formula, body.minutes, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/opening",
    summary="A first formula from one line",
    body=s.OpeningRequest,
    answer=s.OpeningAnswer,
)
def opening(body: s.OpeningRequest) -> s.OpeningAnswer:
    opened, evaluation = targets.open_or_propose(body.line, unit_system=body.unit_system)
    return s.OpeningAnswer.model_construct(opening=opened, evaluation=evaluation)


@operation(blueprint, "POST", "/read", summary="Read a typed quantity", body=s.ReadRequest, answer=s.ReadAnswer)
def read(body: s.ReadRequest) -> s.ReadAnswer:
    return s.ReadAnswer(value=bench.read_quantity(body.kind, body.text, unit_system=body.unit_system))


@operation(
    blueprint,
    "POST",
    "/read/mix",
    summary="Read what goes into a mix: each piece marked, amounts in grams, what is asked back",
    body=s.ReadMixRequest,
    answer=MixReading,
)
def read_mix(body: s.ReadMixRequest) -> MixReading:
    return bench.read_mix_here(body.formula, body.text, unit_system=body.unit_system)


@operation(
    blueprint, "GET", "/catalogue", summary="Styles, meats, lots and schools to choose from", answer=s.CatalogueAnswer
)
def catalogue() -> s.CatalogueAnswer:
    larder = larders.get_inventory()
    return s.CatalogueAnswer(
        styles=[preview(style) for style in all_styles().values()],
        meats=list(larder.meats.values()),
        lots=list(larder.lots.values()),
        schools=list(all_schools().values()),
        pantry=[
            PantryItem(
                key=i.key, name=i.name, group=i.group, house=i.house is not None, retired=i.retired, remark=i.remark
            )
            for i in larder.pantry.values()
        ],
        mix_schools=list(mix_schools().values()),
        ranges=figure_ranges(),
        aims=list(AIMS),
        limits=[Option(key, title) for key, title in LIMIT_TITLES.items()],
        roles=[Option(key, title) for key, title in ROLES.items()],
        layers=list(layer_choices(larder.pantry)),
        tastes=list(TASTE_TITLES),
        doneness=list(DONENESS),
    )
