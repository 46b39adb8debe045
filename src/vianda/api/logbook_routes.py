"""The logbook looked through, and where a lot went, over the wire."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from flask import Blueprint, Response, request
from pydantic import Field

from vianda.api.attachment import csv_file, json_file
from vianda.api.contract import operation
from vianda.api.wire import Answer, KeyAsked, Moment, Text
from vianda.core.weighing.control_chart import Rule
from vianda.interchange.documents import Strict
from vianda.interchange.logbook_csv import logbook_csv, logbook_json
from vianda.services import logbook, trends
from vianda.storage.logbook_repository import LogLine, LogQuery, LogSort

blueprint = Blueprint("logbook", __name__, url_prefix="/api")
# A clock is at most so far from UTC, min.
MOST_OFFSET_MIN = 14 * 60


class LogFilter(Strict):
    """What is looked for; what is empty asks for nothing. Days are the kitchen's, ``utc_offset_min`` ahead of UTC."""

    text: Text = ""
    dish: KeyAsked = ""
    formula_id: Annotated[int, Field(ge=1)] | None = None
    from_day: date | None = None
    to_day: date | None = None
    least_score: Annotated[float, Field(ge=1, le=5)] | None = None
    lot: KeyAsked = ""
    utc_offset_min: Annotated[int, Field(ge=-MOST_OFFSET_MIN, le=MOST_OFFSET_MIN)] = 0
    sort: LogSort = "newest"

    def query(self) -> LogQuery:
        """The same as the services know it."""
        return logbook.asked_for(
            text=self.text,
            dish=self.dish,
            formula_id=self.formula_id,
            from_day=self.from_day,
            to_day=self.to_day,
            least_score=self.least_score,
            lot=self.lot,
            utc_offset_min=self.utc_offset_min,
            sort=self.sort,
        )


class LogRequest(LogFilter):
    """What is looked for, and ``before``: the last cook of the page before."""

    before: Annotated[int, Field(ge=1)] | None = None


class TrendRequest(Strict):
    """Of which formula, or of which kind of dish; nothing: of all."""

    formula_id: Annotated[int, Field(ge=1)] | None = None
    dish: KeyAsked = ""


class TrendPointAnswer(Answer):
    """One cook on a chart, and the range that was forecast."""

    cook_id: int
    formula_name: str
    started_at: Moment
    value: float
    low: float | None
    high: float | None


class TrendRule(Answer):
    """A rule of control charts that is broken at a point (index from 0)."""

    rule: Rule
    at: int


class TrendAnswer(Answer):
    """One figure over time: its points, mean and limits (None with too few), and the rules that are broken."""

    figure: trends.TrendFigure
    title: str
    points: list[TrendPointAnswer]
    mean: float | None
    lower: float | None
    upper: float | None
    broken: list[TrendRule]


class LogLineAnswer(Answer):
    """One cook in the logbook; ``score`` is how near its scores lie to what is wanted, 1 to 5."""

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
    page = logbook.log_page(body.query(), before=body.before)
    lines = [line_answer(line) for line in page.lines]
    return LogAnswer(lines=lines, total=page.total, next=page.next)


def _filter() -> LogFilter:
    """What the address asks for; the kitchen it names is not part of it."""
    return LogFilter.model_validate_strings({k: v for k, v in request.args.items() if k != "kitchen"})


@operation(blueprint, "GET", "/logbook/cooks.csv", summary="Cooks as CSV", gives="text/csv")
def logbook_as_csv() -> Response:
    return csv_file(logbook_csv(logbook.log_rows(_filter().query())), name="logbook")


@operation(blueprint, "GET", "/logbook/cooks.json", summary="Cooks as JSON", gives="application/json")
def logbook_as_json() -> Response:
    content = logbook_json(logbook.log_rows(_filter().query()))
    return json_file(content, name="logbook", ending="vianda", otherwise="logbook")


@operation(
    blueprint,
    "POST",
    "/logbook/trends",
    summary="Figures of cooks over time, with their control charts",
    body=TrendRequest,
    answer=list[TrendAnswer],
)
def logbook_trends(body: TrendRequest) -> list[TrendAnswer]:
    return [
        TrendAnswer(
            figure=t.figure,
            title=t.title,
            points=[
                TrendPointAnswer(
                    cook_id=p.cook_id,
                    formula_name=p.formula_name,
                    started_at=p.started_at,
                    value=p.value,
                    low=p.low,
                    high=p.high,
                )
                for p in t.points
            ],
            mean=t.chart.mean_g,
            lower=t.chart.lower_g,
            upper=t.chart.upper_g,
            broken=[TrendRule(rule=b.rule, at=b.at) for b in t.chart.broken],
        )
        for t in trends.trends(formula_id=body.formula_id, dish=body.dish)
    ]


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
