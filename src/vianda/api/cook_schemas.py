"""What the wire carries of cooks and the logbook."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter

from vianda.api.wire import Answer, Moment, Token
from vianda.core.cook.measures import Measure, measures_of
from vianda.core.cook.outcome import OutcomeFigures
from vianda.core.cook.scores import SCALES, ScoreScale
from vianda.core.cook.stove_plan import StovePlan
from vianda.core.evaluation.evaluate import Evaluation
from vianda.interchange.documents import Strict
from vianda.interchange.kept_cook import KeptPlan, OutcomeModel
from vianda.interchange.kept_plan import up_to_date
from vianda.services.cooks import CookStart, figures_of, raw_of
from vianda.storage.logbook_repository import HeldLot
from vianda.storage.records import CookEvent, StoredCook


class BeginRequest(Strict):
    """Which formula to cook."""

    formula_id: Annotated[int, Field(ge=1)]


class EventRequest(Strict):
    """Something that happened at the stove; ``token`` makes a repeat count once.

    ``since_start_s`` is when, by the device's clock; without it, it happened ``late_s`` before it was told.
    """

    token: Token
    kind: Literal["done", "extra", "probe", "surface", "back"]
    place: Annotated[int, Field(ge=0, le=100_000)]
    value: Annotated[float, Field(ge=-50, le=3600)] | None = None
    late_s: Annotated[float, Field(ge=0, le=86_400)] = 0.0
    since_start_s: Annotated[float, Field(ge=0, le=8_640_000)] | None = None


class SimulatedReadingRequest(Strict):
    """Which thermometer, and when, by the device's clock."""

    of: Literal["core", "surface"]
    since_start_s: Annotated[float, Field(ge=0, le=8_640_000)]


class FinishRequest(Strict):
    """The outcome and the revision of the cook seen."""

    outcome: OutcomeModel
    revision: Annotated[int, Field(ge=1)]


class EventAnswer(Answer):
    """Something that happened; ``since_start_s`` is told by the server's clock."""

    token: str
    kind: str
    place: int
    value: float | None
    since_start_s: float


class HappenedAnswer(Answer):
    """All that happened during a cook, in its order."""

    events: list[EventAnswer]


PLAN_PARTS = ("ticket", "portions", "shape", "heat", "salt", "blend", "cost")
_PLAN, _STOVE = TypeAdapter(Evaluation), TypeAdapter(StovePlan)


def plan_of(start: CookStart) -> dict[str, Any]:
    """The part of an evaluation that a cook keeps, and the factors it was made with."""
    whole: dict[str, Any] = _PLAN.dump_python(start.evaluation, mode="json")
    return {
        **{name: whole[name] for name in PLAN_PARTS},
        "stove": _STOVE.dump_python(start.sheets.stove, mode="json"),
        "factors": asdict(start.factors),
        "checklist": whole["beside"]["checklist"],
        "builds": whole["beside"]["builds"],
    }


class CookAnswer(Answer):
    """One cook. ``elapsed_s`` is how long ago it began, by the server's clock."""

    id: int
    formula_id: int
    formula_name: str
    revision: int
    started_at: Moment
    finished_at: Moment | None
    elapsed_s: float
    plan: KeptPlan
    outcome: OutcomeModel | None
    outcome_figures: OutcomeFigures | None
    events: list[EventAnswer]
    # Which lots went into it, and their days as they were known then.
    held: tuple[HeldLot, ...] = ()
    # Who began it and who noted what came of it, where there are accounts.
    begun_by: str = ""
    noted_by: str = ""
    # What is weighed and measured of it, and what is expected.
    measures: tuple[Measure, ...] = ()
    # What is scored, between which words, and where it is wanted.
    scales: tuple[ScoreScale, ...] = tuple(SCALES.values())


class CookLine(Answer):
    """One line of the logbook."""

    id: int
    formula_id: int
    formula_name: str
    started_at: Moment
    finished_at: Moment | None
    pieces: int
    piece_mass_g: int
    batch_mass_g: int
    fat_frac: float
    outcome: OutcomeModel | None


def event_answers(started_at: datetime, events: Sequence[CookEvent]) -> list[EventAnswer]:
    """What happened, by the time since the start. A clock set back gives zero, never a negative time."""
    return [
        EventAnswer(
            token=e.token,
            kind=e.kind,
            place=e.place,
            value=e.value,
            since_start_s=max(0.0, (e.at - started_at).total_seconds()),
        )
        for e in events
    ]


def cook_answer(cook: StoredCook, now: datetime, held: Sequence[HeldLot] = ()) -> CookAnswer:
    """One cook for the wire. A clock set back gives zero, never a negative time."""
    return CookAnswer(
        id=cook.id,
        formula_id=cook.formula_id,
        formula_name=cook.formula_name,
        revision=cook.revision,
        started_at=cook.started_at,
        finished_at=cook.finished_at,
        elapsed_s=max(0.0, (now - cook.started_at).total_seconds()),
        plan=KeptPlan.model_validate(up_to_date(cook.plan)),
        outcome=OutcomeModel.model_validate(cook.outcome) if cook.outcome else None,
        outcome_figures=figures_of(cook, cook.outcome),
        events=event_answers(cook.started_at, cook.events),
        held=tuple(held),
        begun_by=cook.begun_by,
        noted_by=cook.noted_by,
        measures=measures_of(raw_of(cook)),
    )


def cook_line(cook: StoredCook) -> CookLine:
    """One line of the logbook."""
    portions = cook.plan["portions"]
    return CookLine(
        id=cook.id,
        formula_id=cook.formula_id,
        formula_name=cook.formula_name,
        started_at=cook.started_at,
        finished_at=cook.finished_at,
        pieces=portions["pieces"],
        piece_mass_g=portions["piece_mass_g"],
        batch_mass_g=portions["batch_mass_g"],
        fat_frac=cook.plan["blend"]["fat_frac"],
        outcome=OutcomeModel.model_validate(cook.outcome) if cook.outcome else None,
    )
