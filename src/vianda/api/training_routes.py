"""The trainer over the wire: the next round, an answer, and a new beginning."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Token
from vianda.core.training.rounds import RoundKind
from vianda.interchange.documents import Strict
from vianda.services import training

blueprint = Blueprint("training", __name__, url_prefix="/api")


class TrainingAnswerRequest(Strict):
    """The round that was shown, the number of the answer from 0, and how sure the cook is."""

    kind: RoundKind
    formula_id: Annotated[int, Field(ge=1)]
    seed: Annotated[int, Field(ge=0, lt=2**31)]
    stamp: Annotated[str, Field(max_length=32)]
    choice: Annotated[int, Field(ge=0, le=20)]
    confidence: Annotated[float, Field(ge=0, le=1)]
    token: Token


@operation(blueprint, "GET", "/training", summary="The trainer's next round", answer=training.Training)
def next_round() -> training.Training:
    return training.training()


@operation(
    blueprint, "POST", "/training/answers", summary="Answer a round", body=TrainingAnswerRequest, answer=training.Judged
)
def answer_round(body: TrainingAnswerRequest) -> training.Judged:
    return training.answer(
        body.kind,
        body.formula_id,
        body.seed,
        body.stamp,
        choice=body.choice,
        confidence=body.confidence,
        token=body.token,
    )


@operation(blueprint, "DELETE", "/training", summary="Begin the trainer anew", answer=training.Training)
def begin_anew() -> training.Training:
    return training.begin_anew()
