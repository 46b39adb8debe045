"""What the kitchen has learnt, over the wire."""

from __future__ import annotations

from typing import Annotated

from flask import Blueprint
from pydantic import Field

from vianda.api.contract import operation
from vianda.api.wire import Answer, Moment
from vianda.core.learning.fat_of_cuts import LearntFat
from vianda.core.learning.figures import LearntFigure, Level
from vianda.core.learning.learnt import Learnt
from vianda.core.learning.scores import ForecastScore
from vianda.core.sauce.cook_down import Boil
from vianda.interchange.documents import Strict
from vianda.services import learning

blueprint = Blueprint("learning", __name__, url_prefix="/api")


class UseRequest(Strict):
    """A factor to put to use, and the revision of the kitchen seen; 1 is what the tables say."""

    figure: LearntFigure
    level: Level
    key: Annotated[str, Field(min_length=1, max_length=64)]
    factor: float
    revision: Annotated[int, Field(ge=1)]


class UseFatRequest(Strict):
    """Whether blends are reckoned with how fat a meat comes to this kitchen; the revision of the kitchen seen."""

    meat: Annotated[str, Field(min_length=1, max_length=64)]
    use: bool
    revision: Annotated[int, Field(ge=1)]


class PotTookRequest(Strict):
    """A pot that was cooked down: g before and after, s from the boil, how hard, and its inner width, mm."""

    start_g: Annotated[float, Field(gt=0, le=1_000_000, allow_inf_nan=False)]
    left_g: Annotated[float, Field(gt=0, le=1_000_000, allow_inf_nan=False)]
    took_s: Annotated[float, Field(ge=60, le=86_400, allow_inf_nan=False)]
    boil: Boil
    diameter_mm: Annotated[float, Field(ge=10, le=2000, allow_inf_nan=False)]


class AsideRequest(Strict):
    """One observation, and whether it is left out; of minutes ``cook`` is the run and ``piece`` the task's place."""

    figure: LearntFigure
    cook: Annotated[int, Field(ge=1, le=2_000_000_000)]
    piece: Annotated[int, Field(ge=0, le=100_000)] = 0
    aside: bool


class SeenInAnswer(Answer):
    """A cook that something was observed in."""

    cook_id: int
    formula_name: str
    started_at: Moment


class SeenRunAnswer(Answer):
    """A service under way that minutes were observed in."""

    run_id: int
    service_id: int
    service_name: str
    day: str


class LearningAnswer(Answer):
    """What was learnt, how good forecasts were, the cooks and runs it comes from, and the revision of the kitchen."""

    learnt: list[Learnt]
    scores: list[ForecastScore]
    cooks: list[SeenInAnswer]
    runs: list[SeenRunAnswer]
    fats: list[LearntFat]
    revision: int


def _answer(found: learning.Learning) -> LearningAnswer:
    cooks = [SeenInAnswer(cook_id=c.cook_id, formula_name=c.formula_name, started_at=c.started_at) for c in found.cooks]
    runs = [
        SeenRunAnswer(run_id=r.run_id, service_id=r.service_id, service_name=r.service_name, day=r.day)
        for r in found.runs
    ]
    return LearningAnswer(
        learnt=list(found.learnt),
        scores=list(found.scores),
        cooks=cooks,
        runs=runs,
        fats=list(found.fats),
        revision=found.revision,
    )


@operation(blueprint, "GET", "/learning", summary="What the kitchen has learnt from its cooks", answer=LearningAnswer)
def get_learning() -> LearningAnswer:
    return _answer(learning.learning())


@operation(
    blueprint,
    "POST",
    "/learning/use",
    summary="Put a learnt factor to use: forecasts follow from now on",
    body=UseRequest,
    answer=LearningAnswer,
    problems=(404, 409),
    once=True,
)
def use_factor(body: UseRequest) -> LearningAnswer:
    return _answer(learning.use_factor(body.figure, body.level, body.key, body.factor, revision=body.revision))


@operation(
    blueprint,
    "POST",
    "/learning/use-fat",
    summary="Reckon blends with how fat a cut comes to this kitchen, or with the table again",
    body=UseFatRequest,
    answer=LearningAnswer,
    problems=(404, 409),
    once=True,
)
def use_fat(body: UseFatRequest) -> LearningAnswer:
    return _answer(learning.use_fat(body.meat, use=body.use, revision=body.revision))


@operation(
    blueprint,
    "POST",
    "/learning/pot",
    summary="Write down how long a pot took to boil off so much",
    body=PotTookRequest,
    answer=LearningAnswer,
    once=True,
)
def note_pot(body: PotTookRequest) -> LearningAnswer:
    return _answer(
        learning.note_pot(
            start_g=body.start_g,
            left_g=body.left_g,
            minutes=body.took_s / 60.0,
            boil=body.boil,
            diameter_mm=body.diameter_mm,
        )
    )


@operation(
    blueprint,
    "POST",
    "/learning/aside",
    summary="Leave one observation out of what is learnt, or count it again",
    body=AsideRequest,
    answer=LearningAnswer,
    problems=(404,),
)
def set_observation_aside(body: AsideRequest) -> LearningAnswer:
    return _answer(learning.set_aside(body.figure, body.cook, body.piece, aside=body.aside))
