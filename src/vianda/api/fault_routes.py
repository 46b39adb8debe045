"""What went wrong with a cook, and what to change next, over the wire."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Units
from vianda.core.faults.causes import Symptom
from vianda.core.faults.network import MOST_SYMPTOMS
from vianda.core.improving.next_change import NextChanges
from vianda.interchange.documents import Strict
from vianda.services import faults, improving

blueprint = Blueprint("faults", __name__, url_prefix="/api")


CauseKey = Annotated[str, Field(max_length=40)]


class FaultRequest(Strict):
    """What is wrong with a cook, what is certainly not, and answers to questions by the cause they are of.

    ``surface_c`` and ``core_c`` are what was measured, where the record does not say.
    """

    symptoms: Annotated[tuple[Symptom, ...], Field(max_length=MOST_SYMPTOMS)] = ()
    absent: Annotated[tuple[Symptom, ...], Field(max_length=20)] = ()
    answers: Annotated[dict[CauseKey, bool], Field(default_factory=dict, max_length=60)]
    surface_c: float | None = None
    core_c: float | None = None
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


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/next-change",
    summary="What to change next of a formula, by what its cooks scored",
    answer=NextChanges,
    problems=(404,),
)
def next_change(formula_id: int) -> NextChanges:
    return improving.next_change_of(formula_id)
