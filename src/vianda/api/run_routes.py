"""A service as it is cooked, over the wire: opened, followed by every device, and said to."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated

from flask import Blueprint, Response
from pydantic import Field

from vianda.api.attachment import csv_file
from vianda.api.contract import operation
from vianda.api.wire import Text, Token, Units, Who, day_of
from vianda.core.basis.units import c_from_f
from vianda.core.schedule.model import MOST_TASKS
from vianda.core.timetable.run import RunEvent, RunEventKind
from vianda.interchange.checks_csv import checks_csv
from vianda.interchange.documents import Strict
from vianda.services import checks, runs, services

blueprint = Blueprint("runs", __name__, url_prefix="/api")


class OpenRunRequest(Strict):
    """What time it is by the kitchen's clock: the run of the day on which the service comes next is meant."""

    now: datetime


class FollowRunRequest(Strict):
    """The run of a day, if anything was said since the number ``known``."""

    day: date
    known: Annotated[int, Field(ge=0)] = 0


class CheckSheetRequest(Strict):
    """The day, the plan as it stands at minute ``now_min``; without it the record of what was cooked and measured."""

    day: date
    stood: Annotated[tuple[services.Stood, ...], Field(max_length=MOST_TASKS)] = ()
    now_min: services.Minute | None = None
    unit_system: Units | None = None


class CheckRecordRequest(Strict):
    """A span of days, both counted; ``now`` by the kitchen's clock, for what is still going on."""

    from_day: date
    to_day: date
    now: datetime | None = None
    unit_system: Units | None = None


class RunEventModel(Strict):
    """What was said of a task at the minute ``minute`` from the hour on the plate; ``token`` makes a repeat count once.

    ``value``: of an end, the minutes it takes where nobody said it was begun; of longer, until which minute it goes on.
    ``of``: the token of what is taken back. ``measured`` has its ``check``, the figure that was read as ``temp`` in the
    units of ``unit_system``, and the second of the minute as ``value``; ``acted`` has what was done as ``remark``.
    """

    token: Token
    kind: RunEventKind
    minute: services.Minute
    task: Annotated[str, Field(max_length=120)] = ""
    value: services.Minute | None = None
    of: Annotated[str, Field(max_length=40, pattern=r"^[A-Za-z0-9-]*$")] = ""
    check: Annotated[str, Field(max_length=140)] = ""
    temp: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)] | None = None
    unit_system: Units = "metric"
    who: Who = ""
    remark: Text = ""

    def event(self) -> RunEvent:
        """The same as the core keeps it."""
        temp_c = self.temp
        if temp_c is not None and self.unit_system == "us":
            temp_c = c_from_f(temp_c)
        return RunEvent(
            self.token, self.kind, self.minute, self.task, self.value, self.of,
            self.check, temp_c, self.who.strip(), self.remark.strip(),
        )  # fmt: skip


class KitchenCheckModel(RunEventModel):
    """The same of no service; minutes are from midnight, and go on after the next one: a tray cools overnight."""

    minute: Annotated[int, Field(ge=0, le=2879)]


class NoteCheckRequest(Strict):
    """A check of the kitchen's own on a day: measured, acted, or taken back; minutes are from midnight."""

    day: date
    event: KitchenCheckModel


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
    return runs.note_event(service_id, body.day, body.event.event())


@operation(
    blueprint,
    "POST",
    "/services/<int:service_id>/run/checks",
    summary="What is to be measured in an evening, what was, and what came of it",
    body=CheckSheetRequest,
    answer=checks.CheckSheet,
    problems=(404,),
)
def check_sheet(service_id: int, body: CheckSheetRequest) -> checks.CheckSheet:
    return checks.check_sheet(
        service_id, body.day, stood=body.stood, now_min=body.now_min, unit_system=body.unit_system
    )


@operation(
    blueprint,
    "GET",
    "/services/<int:service_id>/checks/<day>/record.csv",
    summary="The food-safety record of one evening as CSV",
    gives="text/csv",
    problems=(404,),
)
def check_record(service_id: int, day: str) -> Response:
    on = day_of(day)
    return csv_file(checks_csv([checks.check_sheet(service_id, on)]), name=f"checks-{on}")


@operation(
    blueprint,
    "POST",
    "/checks",
    summary="What a kitchen measured in a span of days: its own checks and those of each service",
    body=CheckRecordRequest,
    answer=checks.CheckRecord,
)
def kitchen_checks(body: CheckRecordRequest) -> checks.CheckRecord:
    now = body.now.replace(tzinfo=None) if body.now else None
    return checks.check_record(body.from_day, body.to_day, now=now, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/checks/events",
    summary="Write down a check of the kitchen's own, of no service",
    body=NoteCheckRequest,
    answer=checks.CheckRecord,
    once=True,
)
def note_kitchen_check(body: NoteCheckRequest) -> checks.CheckRecord:
    runs.note_check(body.day, body.event.event())
    return checks.check_record(body.day, body.day, unit_system=body.event.unit_system)


@operation(
    blueprint,
    "GET",
    "/checks/<from_day>/<to_day>/record.csv",
    summary="The food-safety record of a span of days as CSV",
    gives="text/csv",
)
def export_checks(from_day: str, to_day: str) -> Response:
    first, last = day_of(from_day), day_of(to_day)
    return csv_file(checks_csv(checks.check_record(first, last).sheets), name=f"checks-{first}-{last}")
