"""A service as it is cooked, over the wire: opened, followed by every device, and said to."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Token
from vianda.core.timetable.run import RunEvent, RunEventKind
from vianda.interchange.documents import Strict
from vianda.services import runs, services

blueprint = Blueprint("runs", __name__, url_prefix="/api")


class OpenRunRequest(Strict):
    """What time it is by the kitchen's clock: the run of the day on which the service comes next is meant."""

    now: datetime


class FollowRunRequest(Strict):
    """The run of a day, if anything was said since the number ``known``."""

    day: date
    known: Annotated[int, Field(ge=0)] = 0


class RunEventModel(Strict):
    """What was said of a task at the minute ``minute`` from the hour on the plate; ``token`` makes a repeat count once.

    ``value``: of an end, the minutes it takes where nobody said it was begun; of longer, until which minute it goes on.
    ``of``: the token of what is taken back.
    """

    token: Token
    kind: RunEventKind
    minute: services.Minute
    task: Annotated[str, Field(max_length=120)] = ""
    value: services.Minute | None = None
    of: Annotated[str, Field(max_length=40, pattern=r"^[A-Za-z0-9-]*$")] = ""


class NoteEventRequest(Strict):
    """What was said, in the run of a day."""

    day: date
    event: RunEventModel


@operation(
    blueprint,
    "POST",
    "/services/<int:service_id>/run",
    summary="The run of the day on which a service comes next",
    body=OpenRunRequest,
    answer=runs.Run,
    problems=(404,),
)
def open_run(service_id: int, body: OpenRunRequest) -> runs.Run:
    return runs.open_run(service_id, now=body.now.replace(tzinfo=None))


@operation(
    blueprint,
    "POST",
    "/services/<int:service_id>/run/follow",
    summary="The run of a day, if anything was said since",
    body=FollowRunRequest,
    answer=runs.Run,
)
def follow_run(service_id: int, body: FollowRunRequest) -> runs.Run:
    return runs.follow_run(service_id, body.day, known=body.known)


@operation(
    blueprint,
    "POST",
    "/services/<int:service_id>/run/events",
    summary="Say that a task was begun, ended or takes longer; at any device, once",
    body=NoteEventRequest,
    answer=runs.Run,
    problems=(404,),
)
def note_run_event(service_id: int, body: NoteEventRequest) -> runs.Run:
    return runs.note_event(service_id, body.day, RunEvent(**body.event.model_dump()))
