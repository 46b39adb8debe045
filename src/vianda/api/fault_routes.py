"""What went wrong with a cook, over the wire."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Units
from vianda.core.faults.causes import Symptom
from vianda.core.faults.network import MOST_SYMPTOMS
from vianda.interchange.documents import Strict
from vianda.services import faults

blueprint = Blueprint("faults", __name__, url_prefix="/api")


CauseKey = Annotated[str, Field(max_length=40)]


class FaultRequest(Strict):
    """What is wrong with a cook, what is certainly not, and answers to questions by the cause they are of.

    ``surface_c`` and ``core_c`` are what was measured, where the record does not say.
    """

    symptoms: Annotated[tuple[Symptom, ...], Field(max_length=MOST_SYMPTOMS)] = ()
    absent: Annotated[tuple[Symptom, ...], Field(max_length=20)] = ()
    answers: Annotated[dict[CauseKey, bool], Field(default_factory=dict, max_length=60)]
    surface_c: Annotated[float, Field(ge=0, le=500)] | None = None
    core_c: Annotated[float, Field(ge=-20, le=120)] | None = None
    unit_system: Units


@operation(
    blueprint,
    "POST",
    "/cooks/<int:cook_id>/faults",
    summary="What went wrong with a cook: causes, the likeliest first, and what to ask next",
    body=FaultRequest,
    answer=faults.FaultSearch,
    problems=(404,),
)
def look_for_fault(cook_id: int, body: FaultRequest) -> faults.FaultSearch:
    return faults.look_for_fault(
        cook_id,
        body.symptoms,
        absent=body.absent,
        answers=body.answers,
        surface_c=body.surface_c,
        core_c=body.core_c,
        unit_system=body.unit_system,
    )
