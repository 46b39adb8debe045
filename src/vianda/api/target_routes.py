"""Ways to a target: many meats, the square, a mend, and words of taste."""

from __future__ import annotations

from flask import Blueprint

from vianda.api import larder_schemas as s
from vianda.api.contract import operation
from vianda.core.target.pearson import FirstSquare
from vianda.services import targets

blueprint = Blueprint("target", __name__, url_prefix="/api/target")


@operation(
    blueprint,
    "POST",
    "/solve",
    summary="Blends of many meats that meet a target",
    body=s.SolveRequest,
    answer=s.SolveAnswer,
)
def solve(body: s.SolveRequest) -> s.SolveAnswer:
    return targets.solve_for(body.formula, body.wish(), body.typed.typed())


@operation(
    blueprint, "POST", "/square", summary="The Pearson square of two meats", body=s.SquareRequest, answer=s.SquareAnswer
)
def square(body: s.SquareRequest) -> s.SquareAnswer:
    return targets.square_for(body.one.to_core(), body.two.to_core(), body.target)


@operation(
    blueprint,
    "POST",
    "/square/first",
    summary="The square that a formula's cook is shown first",
    body=s.FirstSquareRequest,
    answer=FirstSquare,
)
def first_square(body: s.FirstSquareRequest) -> FirstSquare:
    return targets.first_square_for(body.formula)


@operation(blueprint, "POST", "/mend", summary="What to add to a batch", body=s.MendRequest, answer=s.MendAnswer)
def mend(body: s.MendRequest) -> s.MendAnswer:
    found = targets.mend(
        batch=body.batch,
        fat=body.fat,
        target=body.target,
        candidates=[c.to_core() for c in body.candidates],
        unit_system=body.unit_system,
    )
    return s.MendAnswer(additions=list(found))


@operation(
    blueprint,
    "POST",
    "/propose",
    summary="A formula from words of taste",
    body=s.ProposeRequest,
    answer=s.ProposeAnswer,
)
def propose(body: s.ProposeRequest) -> s.ProposeAnswer:
    return s.propose_answer(targets.propose_for(body.formula, body.words))
