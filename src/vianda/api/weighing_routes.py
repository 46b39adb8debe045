"""Check-weighing, with the scale's display as a stream of server-sent events."""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator

from flask import Blueprint, Response

from vianda.api import weighing_schemas as s
from vianda.api.attachment import csv_file
from vianda.api.contract import operation
from vianda.api.problems import ProblemError, problem
from vianda.interchange.weighings_csv import records_csv, weighings_csv
from vianda.services import weighings
from vianda.storage.database import DATABASE_AWAY, own_connection

blueprint = Blueprint("weighings", __name__, url_prefix="/api")

BEAT_S = 0.2
# A stream ends by itself and the browser opens the next one: no thread is held by a window that is long gone.
STREAM_S = 12.0
# Threads are few; windows beyond these ask for the display instead.
MOST_STREAMS = 6
_open_streams = threading.BoundedSemaphore(MOST_STREAMS)


@operation(
    blueprint,
    "POST",
    "/weighings",
    summary="Begin to weigh the pieces of a formula",
    body=s.BeginWeighingRequest,
    answer=s.WeighingAnswer,
    status=201,
    problems=(404,),
    once=True,
)
def begin_weighing(body: s.BeginWeighingRequest) -> s.WeighingAnswer:
    return s.weighing_answer(weighings.begin(body.formula_id, step_g=body.step_g))


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/weighings",
    summary="The weighings of a formula, newest first",
    answer=list[s.WeighingLine],
    problems=(404,),
)
def list_weighings(formula_id: int) -> list[s.WeighingLine]:
    return [s.weighing_line(w) for w in weighings.list_weighings(formula_id)]


@operation(
    blueprint, "GET", "/weighings/<int:weighing_id>", summary="One weighing", answer=s.WeighingAnswer, problems=(404,)
)
def get_weighing(weighing_id: int) -> s.WeighingAnswer:
    return s.weighing_answer(weighings.get_weighing(weighing_id))


@operation(
    blueprint,
    "POST",
    "/weighings/<int:weighing_id>/actions",
    summary="Do one thing to the scale or to the record",
    body=s.WeighingAction,
    answer=s.WeighingAnswer,
    problems=(404,),
)
def act(weighing_id: int, body: s.WeighingAction) -> s.WeighingAnswer:
    weighing = weighings.act(
        weighing_id, token=body.token, action=body.action, about=body.about, seen_g=body.seen_g, late_s=body.late_s
    )
    return s.weighing_answer(weighing)


@operation(
    blueprint,
    "PUT",
    "/weighings/<int:weighing_id>/leftover",
    summary="Write down what was left in the bowl",
    body=s.LeftoverRequest,
    answer=s.WeighingAnswer,
    problems=(404,),
)
def note_leftover(weighing_id: int, body: s.LeftoverRequest) -> s.WeighingAnswer:
    return s.weighing_answer(weighings.note_leftover(weighing_id, body.left_g))


@operation(
    blueprint,
    "GET",
    "/weighings/<int:weighing_id>/display",
    summary="What the scale shows now",
    answer=s.DisplayAnswer,
    problems=(404,),
)
def get_display(weighing_id: int) -> s.DisplayAnswer:
    return s.display_answer(weighings.display(weighings.get_weighing(weighing_id)))


@operation(blueprint, "GET", "/weighings.csv", summary="Every weighing, a reading a row, as CSV", gives="text/csv")
def weighings_as_csv() -> Response:
    return csv_file(weighings_csv(weighings.every_weighing()), name="weighings")


@operation(
    blueprint,
    "GET",
    "/weighings/<int:weighing_id>/records.csv",
    summary="One weighing, a reading a row, as CSV",
    gives="text/csv",
    problems=(404,),
)
def weighing_records(weighing_id: int) -> Response:
    weighing = weighings.get_weighing(weighing_id)
    return csv_file(records_csv(weighing.running), name=f"weighing-{weighing_id}")


@blueprint.get("/weighings/<int:weighing_id>/stream")
def stream(weighing_id: int) -> Response:
    """The display five times a second, until the stream ends by itself."""
    weighings.get_weighing(weighing_id)
    if not _open_streams.acquire(blocking=False):
        raise ProblemError(problem(503, "streams", "Too many windows watch the scale", "Ask for the display instead."))
    response = Response(_beats(weighing_id), content_type="text/event-stream")
    response.call_on_close(_open_streams.release)
    return response


def _beats(weighing_id: int) -> Iterator[str]:
    yield "retry: 400\n\n"
    until = time.monotonic() + STREAM_S
    weighing = None
    while time.monotonic() < until:
        began = time.monotonic()
        try:
            with own_connection():
                if weighing is None or weighings.newest_event(weighing_id) != weighing.newest:
                    weighing = weighings.get_weighing(weighing_id)
        except DATABASE_AWAY:
            # The window says that the scale does not answer, and opens another stream.
            return
        beat = s.display_answer(weighings.display(weighing))
        yield f"data: {beat.model_dump_json()}\n\n"
        time.sleep(max(0.0, BEAT_S - (time.monotonic() - began)))
