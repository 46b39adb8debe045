"""Rounds of the trainer that were answered, each once; each kitchen's own."""

from __future__ import annotations

from datetime import UTC
from typing import cast

from vianda.core.training.practice import Answered
from vianda.core.training.rounds import RoundKind
from vianda.storage.clock import now_utc
from vianda.storage.here import kitchen_here
from vianda.storage.said_once import write_once
from vianda.storage.tables import TrainingAnswerRow

# The newest are enough to say how somebody stands.
MOST_READ = 500


def add_answer(token: str, kind: RoundKind, *, right: bool, confidence: float) -> None:
    """Keep an answer; the same token twice counts once."""
    write_once(
        TrainingAnswerRow.insert(
            kitchen_id=kitchen_here(), token=token, kind=kind, correct=right, confidence=confidence, at=now_utc()
        )
    )


def answers() -> list[Answered]:
    """The newest answers, in the order in which they were given."""
    rows = (
        TrainingAnswerRow.select()
        .where(TrainingAnswerRow.kitchen_id == kitchen_here())
        .order_by(TrainingAnswerRow.id.desc())
        .limit(MOST_READ)
    )
    return [
        Answered(cast(RoundKind, r.kind), bool(r.correct), r.confidence, r.at.replace(tzinfo=UTC).timestamp())
        for r in reversed(list(rows))
    ]


def forget_answers() -> None:
    """Begin anew: nothing was answered."""
    TrainingAnswerRow.delete().where(TrainingAnswerRow.kitchen_id == kitchen_here()).execute()
