"""What the wire carries of check-weighing."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from vianda.api.wire import Answer, Moment, Token
from vianda.core.weighing.check_weigh import Verdict
from vianda.core.weighing.weighing_run import Running, WeighingPlan
from vianda.devices.scale import Reading
from vianda.interchange.documents import Strict
from vianda.services.weighings import Action, Display, Weighing


class BeginWeighingRequest(Strict):
    """Which formula's pieces to weigh, and the step of the scale when it is not the kitchen's."""

    formula_id: Annotated[int, Field(ge=1)]
    step_g: Literal[1, 2, 5, 10] | None = None


class WeighingAction(Strict):
    """One thing done; ``token`` makes a repeat count once. ``seen_g`` and ``late_s`` speak of a press while away."""

    token: Token
    action: Action
    about: Annotated[int, Field(ge=1)] | None = None
    seen_g: Annotated[float, Field(ge=-200_000, le=200_000)] | None = None
    late_s: Annotated[float, Field(ge=0, le=86_400)] = 0.0


class LeftoverRequest(Strict):
    """What was left in the bowl, g."""

    left_g: Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)]


class DisplayAnswer(Answer):
    """The scale's display, what to say of it, and the newest event it knows of."""

    reading: Reading
    verdict: Verdict | None
    newest: int


class WeighingAnswer(Answer):
    """A run of check-weighing as it stands."""

    id: int
    formula_id: int
    formula_name: str
    started_at: Moment
    finished_at: Moment | None
    left_g: float | None
    begun_by: str
    newest: int
    on_record: bool
    plan: WeighingPlan
    running: Running


class WeighingLine(Answer):
    """One line of the runs of a formula."""

    id: int
    started_at: Moment
    finished_at: Moment | None
    counted: int
    good: int
    pieces: int
    mean_g: float | None
    begun_by: str


def display_answer(display: Display) -> DisplayAnswer:
    """The display as sent."""
    return DisplayAnswer(reading=display.reading, verdict=display.verdict, newest=display.newest)


def weighing_answer(weighing: Weighing) -> WeighingAnswer:
    """A run as sent."""
    stored = weighing.stored
    return WeighingAnswer(
        id=stored.id,
        formula_id=stored.formula_id,
        formula_name=stored.formula_name,
        started_at=stored.started_at,
        finished_at=stored.finished_at,
        left_g=stored.left_g,
        begun_by=stored.begun_by,
        newest=weighing.newest,
        on_record=weighing.on_record,
        plan=stored.plan,
        running=weighing.running,
    )


def weighing_line(weighing: Weighing) -> WeighingLine:
    """A run as one line."""
    stored, run = weighing.stored, weighing.running
    return WeighingLine(
        id=stored.id,
        started_at=stored.started_at,
        finished_at=stored.finished_at,
        counted=run.counted,
        good=run.good,
        pieces=stored.plan.pieces,
        mean_g=run.chart.mean_g,
        begun_by=stored.begun_by,
    )
