"""The logbook looked through, and where a lot went, over the wire."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Answer, Moment, Text
from vianda.interchange.documents import Strict
from vianda.services import logbook
from vianda.storage.logbook_repository import LogLine

blueprint = Blueprint("logbook", __name__, url_prefix="/api")
# A clock is at most so far from UTC, min.
MOST_OFFSET_MIN = 14 * 60


class LogRequest(Strict):
    """What is looked for; what is empty asks for nothing. Days are the kitchen's, ``utc_offset_min`` ahead of UTC.

    ``before`` is the last cook of the page before.
    """

    text: Text = ""
    dish: Annotated[str, Field(max_length=40)] = ""
    formula_id: Annotated[int, Field(ge=1)] | None = None
    from_day: date | None = None
    to_day: date | None = None
    least_score: Annotated[float, Field(ge=1, le=5)] | None = None
    lot: Annotated[str, Field(max_length=64)] = ""
    before: Annotated[int, Field(ge=1)] | None = None
    utc_offset_min: Annotated[int, Field(ge=-MOST_OFFSET_MIN, le=MOST_OFFSET_MIN)] = 0


class LogLineAnswer(Answer):
    """One cook in the logbook; ``score`` is the mean of what was given, 1 to 5."""

    cook_id: int
    formula_id: int
    formula_name: str
    dish: str
    started_at: Moment
    finished_at: Moment | None
    pieces: int
    piece_mass_g: float
    batch_mass_g: float
    fat_frac: float
    score: float | None
    remark: str


class LogAnswer(Answer):
    """A page of the logbook, newest first; how many there are in all, on the first page."""

    lines: list[LogLineAnswer]
    total: int | None
    next: int | None


class WentAnswer(Answer):
    """A cook, and how much of the lot went into it, g."""

    cook: LogLineAnswer
    mass_g: float


class TraceAnswer(Answer):
    """Where a lot went; g that finished cooks took into their batches, and g that is left."""

    lot: str
    name: str
    meat: str
    delivered: date
    use_by: date | None
    left_g: float
    used_g: float
    cooks: list[WentAnswer]


def line_answer(line: LogLine) -> LogLineAnswer:
    """One line for the wire."""
    return LogLineAnswer(
        cook_id=line.cook_id,
        formula_id=line.formula_id,
        formula_name=line.formula_name,
        dish=line.dish,
        started_at=line.started_at,
        finished_at=line.finished_at,
        pieces=line.pieces,
        piece_mass_g=line.piece_mass_g,
        batch_mass_g=line.batch_mass_g,
        fat_frac=line.fat_frac,
        score=line.score,
        remark=line.remark,
    )


@operation(
    blueprint,
    "POST",
    "/logbook",
    summary="Cooks by text, dish, formula, day, score and lot, a page at a time",
    body=LogRequest,
    answer=LogAnswer,
)
def look_through_logbook(body: LogRequest) -> LogAnswer:
    page = logbook.log_page(
        text=body.text,
        dish=body.dish,
        formula_id=body.formula_id,
        from_day=body.from_day,
        to_day=body.to_day,
        least_score=body.least_score,
        lot=body.lot,
        before=body.before,
        utc_offset_min=body.utc_offset_min,
    )
    lines = [line_answer(line) for line in page.lines]
    return LogAnswer(lines=lines, total=page.total, next=page.next)


@operation(
    blueprint,
    "GET",
    "/logbook/choices",
    summary="Kinds of dish that were cooked, and lots that went into cooks",
    answer=logbook.LogChoices,
)
def logbook_choices() -> logbook.LogChoices:
    return logbook.log_choices()


@operation(blueprint, "GET", "/lots/<lot_key>/trace", summary="Where a lot went", answer=TraceAnswer, problems=(404,))
def trace_lot(lot_key: str) -> TraceAnswer:
    found = logbook.trace_lot(lot_key)
    return TraceAnswer(
        lot=found.lot,
        name=found.name,
        meat=found.meat,
        delivered=found.delivered,
        use_by=found.use_by,
        left_g=found.left_g,
        used_g=found.used_g,
        cooks=[WentAnswer(cook=line_answer(went.cook), mass_g=went.mass_g) for went in found.cooks],
    )
