"""Services: what is served together, and its timetable."""

from __future__ import annotations

from typing import Annotated, Any

from flask import Blueprint, Response
from pydantic import Field

from vianda.api.attachment import json_file
from vianda.api.contract import operation
from vianda.api.wire import Answer, Moment, Units
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.model.edit import TimingEdit
from vianda.core.model.service import Service
from vianda.core.schedule.model import LATEST_MIN, MOST_COOKS, MOST_TASKS
from vianda.core.schedule.replan import Progress
from vianda.core.timetable.underway import Underway
from vianda.interchange.documents import Strict
from vianda.interchange.service_file import ServiceFile, service_file_schema
from vianda.runtime.searching import Search
from vianda.services import service_files, services
from vianda.storage.records import StoredService

blueprint = Blueprint("services", __name__, url_prefix="/api")


class ServiceAnswer(Answer):
    """A service as it stands."""

    id: int
    revision: int
    updated_at: Moment
    service: Service


class NewServiceRequest(Strict):
    """A service to write down."""

    service: Service


class ImportServiceRequest(Strict):
    """The content of a service file, as it is."""

    file: Any


class ImportedServiceAnswer(Answer):
    """What an import of a service did."""

    stored: ServiceAnswer
    formulas_added: list[str]
    remarks: list[str]


class SaveServiceRequest(Strict):
    """A service over the revision that was seen."""

    service: Service
    revision: Annotated[int, Field(ge=1)]


class EditServiceRequest(Strict):
    """A service and one change of its timing, as typed."""

    service: Service
    edit: Annotated[TimingEdit, Field(discriminator="kind")]
    unit_system: Units


class BusyCookRequest(Strict):
    """A cook's calendar, as its file has it, for the day of a service.

    ``utc_offset_min`` is what the kitchen's clock is ahead of UTC on that day.
    """

    service: Service
    cook: Annotated[int, Field(ge=1, le=MOST_COOKS)]
    calendar: str
    utc_offset_min: Annotated[int, Field(ge=-14 * 60, le=14 * 60)]


class PlanServiceRequest(Strict):
    """A service that is put in time."""

    service: Service
    unit_system: Units


class TaskMark(Strict):
    """What happened to a task: begun, and ended or not; how many minutes from now it still takes, where that is known.

    Minutes are from the hour on the plate.
    """

    task: services.Key
    begun_min: services.Minute
    ended_min: services.Minute | None = None
    still_min: Annotated[int, Field(ge=0, le=LATEST_MIN)] | None = None


class UnderwayRequest(Strict):
    """A service under way: what time it is, what happened, and where each task stood before."""

    service: Service
    unit_system: Units
    now_min: services.Minute
    marks: Annotated[list[TaskMark], Field(max_length=MOST_TASKS)]
    stood: Annotated[list[services.Stood], Field(max_length=MOST_TASKS)]


def service_answer(stored: StoredService) -> ServiceAnswer:
    """A stored service as it goes over the wire."""
    return ServiceAnswer.model_construct(
        id=stored.id, revision=stored.revision, updated_at=stored.updated_at, service=stored.service
    )


@operation(blueprint, "GET", "/services", summary="The services of this kitchen", answer=list[ServiceAnswer])
def list_services() -> list[ServiceAnswer]:
    return [service_answer(s) for s in services.list_services()]


@operation(
    blueprint,
    "POST",
    "/services",
    summary="Write a service down",
    body=NewServiceRequest,
    answer=ServiceAnswer,
    status=201,
    once=True,
)
def create_service(body: NewServiceRequest) -> ServiceAnswer:
    return service_answer(services.create_service(body.service))


@operation(blueprint, "GET", "/services/<int:service_id>", summary="One service", answer=ServiceAnswer, problems=(404,))
def get_service(service_id: int) -> ServiceAnswer:
    return service_answer(services.get_service(service_id))


@operation(
    blueprint,
    "PUT",
    "/services/<int:service_id>",
    summary="Save a service over the revision seen",
    body=SaveServiceRequest,
    answer=ServiceAnswer,
    problems=(404, 409),
    once=True,
)
def save_service(service_id: int, body: SaveServiceRequest) -> ServiceAnswer:
    return service_answer(services.save_service(service_id, body.service, revision=body.revision))


@operation(
    blueprint,
    "DELETE",
    "/services/<int:service_id>",
    summary="Delete a service; its formulas stay",
    answer=dict[str, bool],
    problems=(404,),
    once=True,
)
def delete_service(service_id: int) -> dict[str, bool]:
    services.delete_service(service_id)
    return {"deleted": True}


@operation(
    blueprint,
    "POST",
    "/services/import",
    summary="Add a service from a file, with those of its formulas that are not here",
    body=ImportServiceRequest,
    answer=ImportedServiceAnswer,
    status=201,
    once=True,
)
def import_service(body: ImportServiceRequest) -> ImportedServiceAnswer:
    done = service_files.import_service(body.file)
    return ImportedServiceAnswer(
        stored=service_answer(done.stored), formulas_added=list(done.formulas_added), remarks=list(done.remarks)
    )


@operation(
    blueprint,
    "GET",
    "/services/<int:service_id>/export",
    summary="The service as a file that stands alone",
    answer=ServiceFile,
    problems=(404,),
)
def export_service(service_id: int) -> Response:
    name, content = service_files.export_service(service_id)
    return json_file(content, name=name, ending="vianda-service", otherwise="service")


@operation(
    blueprint, "GET", "/schema/service-file", summary="The JSON Schema of the service file", answer=dict[str, object]
)
def service_schema() -> dict[str, object]:
    return service_file_schema()


@operation(
    blueprint,
    "POST",
    "/services/edit",
    summary="A service with one change of its timing",
    body=EditServiceRequest,
    answer=Service,
)
def edit_service(body: EditServiceRequest) -> Service:
    return services.edit_service(body.service, body.edit, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/services/busy",
    summary="A service with when a cook is busy on its day, out of an iCalendar file",
    body=BusyCookRequest,
    answer=Service,
)
def busy_cook(body: BusyCookRequest) -> Service:
    return services.busy_cook(body.service, body.cook, body.calendar, utc_offset_min=body.utc_offset_min)


@operation(
    blueprint,
    "POST",
    "/services/plan",
    summary="When to do what for everything that is served together",
    body=PlanServiceRequest,
    answer=services.PlannedService,
    searched=True,
)
def plan_service(body: PlanServiceRequest) -> Search[services.PlannedService]:
    return services.plan_service(body.service, unit_system=body.unit_system)


@operation(
    blueprint,
    "POST",
    "/services/under-way",
    summary="The rest of a service from now on: what is done stands, the rest moves as little as it can",
    body=UnderwayRequest,
    answer=Underway,
    searched=True,
)
def service_under_way(body: UnderwayRequest) -> Search[Underway]:
    if len({m.task for m in body.marks}) != len(body.marks):
        raise OutOfRangeError("Of one task something is said twice.", field="/marks")
    done = {m.task: (m.begun_min, m.ended_min) for m in body.marks if m.ended_min is not None}
    running = {m.task: m.begun_min for m in body.marks if m.ended_min is None}
    still = {m.task: m.still_min for m in body.marks if m.ended_min is None and m.still_min is not None}
    return services.service_under_way(
        body.service,
        stood=tuple(body.stood),
        progress=Progress(body.now_min, done, running, still),
        unit_system=body.unit_system,
    )
