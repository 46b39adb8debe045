"""Cooks and the logbook."""

from __future__ import annotations

from flask import Blueprint

from vianda.api import cook_schemas as s
from vianda.api.contract import operation
from vianda.services import cooks, logbook, stove, thermometers
from vianda.storage.clock import now_utc

blueprint = Blueprint("cooks", __name__, url_prefix="/api")


@operation(blueprint, "GET", "/cooks", summary="The logbook, newest first", answer=list[s.CookLine])
def list_cooks() -> list[s.CookLine]:
    return [s.cook_line(c) for c in cooks.list_cooks()]


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/cooks",
    summary="The logbook of one formula, newest first",
    answer=list[s.CookLine],
)
def list_formula_cooks(formula_id: int) -> list[s.CookLine]:
    return [s.cook_line(c) for c in cooks.list_cooks(formula_id=formula_id)]


@operation(
    blueprint,
    "POST",
    "/cooks",
    summary="Begin a cook",
    body=s.BeginRequest,
    answer=s.CookAnswer,
    status=201,
    problems=(404,),
    once=True,
)
def begin_cook(body: s.BeginRequest) -> s.CookAnswer:
    start = cooks.prepare(body.formula_id)
    return s.cook_answer(cooks.begin(start.formula_id, s.plan_of(start)), now_utc())


@operation(blueprint, "GET", "/cooks/<int:cook_id>", summary="One cook", answer=s.CookAnswer, problems=(404,))
def get_cook(cook_id: int) -> s.CookAnswer:
    return s.cook_answer(cooks.get_cook(cook_id), now_utc(), logbook.held_in(cook_id))


@operation(
    blueprint,
    "POST",
    "/cooks/<int:cook_id>/events",
    summary="Note what happened at the stove",
    body=s.EventRequest,
    answer=s.HappenedAnswer,
    problems=(404,),
)
def note_event(cook_id: int, body: s.EventRequest) -> s.HappenedAnswer:
    happened = cooks.note_event(
        cook_id,
        token=body.token,
        kind=body.kind,
        place=body.place,
        value=body.value,
        late_s=body.late_s,
        since_start_s=body.since_start_s,
    )
    return s.HappenedAnswer(events=s.event_answers(happened.started_at, happened.events))


@operation(
    blueprint,
    "PUT",
    "/cooks/<int:cook_id>/outcome",
    summary="Weigh, rate and note",
    body=s.FinishRequest,
    answer=s.CookAnswer,
    problems=(404, 409),
    once=True,
)
def save_outcome(cook_id: int, body: s.FinishRequest) -> s.CookAnswer:
    cook = cooks.finish(cook_id, body.outcome.model_dump(), revision=body.revision)
    return s.cook_answer(cook, now_utc())


@operation(
    blueprint,
    "GET",
    "/cooks/<int:cook_id>/forecast",
    summary="When what is on the heat comes off, after what was read, and when the surface is hot enough again",
    answer=stove.Foretold,
    problems=(404,),
)
def cook_forecast(cook_id: int) -> stove.Foretold:
    return stove.forecast_of(cook_id)


@operation(
    blueprint,
    "POST",
    "/cooks/<int:cook_id>/simulated-reading",
    summary="What a simulated thermometer shows of a cook",
    body=s.SimulatedReadingRequest,
    answer=thermometers.Read,
    problems=(404,),
)
def simulated_reading(cook_id: int, body: s.SimulatedReadingRequest) -> thermometers.Read:
    return stove.simulated_reading(cook_id, body.of, since_start_s=body.since_start_s)
