"""Versions compared, and tasted blind, over the wire."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Answer, Moment, Units
from vianda.core.comparing.merging import Prefer
from vianda.core.model.formula import Formula
from vianda.core.tasting.serving import MOST_RANKED, MOST_TASTERS, Place, TastingKind
from vianda.core.tasting.tasting import TasterAnswer, Tasting, TastingResult
from vianda.interchange.documents import Strict
from vianda.services import comparing, tastings

blueprint = Blueprint("tastings", __name__, url_prefix="/api")
Number = Annotated[int, Field(ge=0, le=1_000_000)]


class CompareRequest(Strict):
    """Two versions by their numbers; 0 is the formula as it stands."""

    before: Number
    after: Number
    unit_system: Units


class MergeRequest(Strict):
    """What both began with, what each made of it, and whose value stands where both changed the same."""

    base: Formula
    mine: Formula
    theirs: Formula
    prefer: Prefer = "mine"


class TastingRequest(Strict):
    """A tasting to set up."""

    kind: TastingKind
    versions: Annotated[tuple[Number, ...], Field(min_length=2, max_length=MOST_RANKED)]
    tasters: Annotated[int, Field(ge=1, le=MOST_TASTERS)]


class AnswersRequest(Strict):
    """What the tasters said, and the revision seen."""

    answers: Annotated[tuple[TasterAnswer, ...], Field(max_length=MOST_TASTERS)]
    revision: Annotated[int, Field(ge=1)]


class TastingAnswer(Answer):
    """A tasting with who gets what, and what the answers say so far."""

    id: int
    formula_id: int
    formula_name: str
    revision: int
    created_at: Moment
    tasting: Tasting
    places: list[Place]
    result: TastingResult | None


def tasting_answer(t: tastings.ServedTasting) -> TastingAnswer:
    """A tasting for the wire."""
    return TastingAnswer(
        id=t.id,
        formula_id=t.formula_id,
        formula_name=t.formula_name,
        revision=t.revision,
        created_at=t.created_at,
        tasting=t.tasting,
        places=list(t.places),
        result=t.result,
    )


@operation(
    blueprint,
    "POST",
    "/formulas/merge",
    summary="Two edits of one formula put together, and what each changed, line by line",
    body=MergeRequest,
    answer=comparing.MergedHere,
)
def merge_edits(body: MergeRequest) -> comparing.MergedHere:
    return comparing.merge_edits(body.base, body.mine, body.theirs, prefer=body.prefer)


@operation(
    blueprint,
    "POST",
    "/formulas/<int:formula_id>/compare",
    summary="Two versions side by side: what differs, what is forecast, what came of them",
    body=CompareRequest,
    answer=comparing.Comparison,
    problems=(404,),
)
def compare_versions(formula_id: int, body: CompareRequest) -> comparing.Comparison:
    return comparing.compare(formula_id, body.before, body.after, unit_system=body.unit_system)


@operation(
    blueprint,
    "GET",
    "/formulas/<int:formula_id>/tastings",
    summary="Blind tastings of a formula, the newest first",
    answer=list[TastingAnswer],
)
def list_formula_tastings(formula_id: int) -> list[TastingAnswer]:
    return [tasting_answer(t) for t in tastings.list_tastings(formula_id)]


@operation(
    blueprint,
    "POST",
    "/formulas/<int:formula_id>/tastings",
    summary="Set up a blind tasting",
    body=TastingRequest,
    answer=TastingAnswer,
    status=201,
    problems=(404,),
    once=True,
)
def set_up_tasting(formula_id: int, body: TastingRequest) -> TastingAnswer:
    return tasting_answer(tastings.set_up(formula_id, body.kind, body.versions, body.tasters))


@operation(blueprint, "GET", "/tastings/<int:tasting_id>", summary="One tasting", answer=TastingAnswer, problems=(404,))
def get_tasting(tasting_id: int) -> TastingAnswer:
    return tasting_answer(tastings.get_tasting(tasting_id))


@operation(
    blueprint,
    "PUT",
    "/tastings/<int:tasting_id>/answers",
    summary="Write down what the tasters said",
    body=AnswersRequest,
    answer=TastingAnswer,
    problems=(404, 409),
)
def answer_tasting(tasting_id: int, body: AnswersRequest) -> TastingAnswer:
    return tasting_answer(tastings.answer(tasting_id, body.answers, revision=body.revision))
