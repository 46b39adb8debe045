"""What a cook keeps as JSON: the figures it began with, and what was weighed, scored and said of it."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field, ValidationError

from vianda.core.batch.portions import Portions
from vianda.core.batch.salt_ledger import SaltFigures
from vianda.core.blend.blend import BlendFigures
from vianda.core.blend.cost import CostFigures
from vianda.core.cook.stove_plan import StovePlan
from vianda.core.evaluation.ticket import TicketFigure
from vianda.core.heat.plan import HeatPlan
from vianda.core.shape.figures import ShapeFigures
from vianda.core.stack.checklist import CheckLine
from vianda.interchange.documents import Json, Strict
from vianda.interchange.kept_plan import up_to_date

Score = Annotated[int, Field(ge=1, le=5)]


class OutcomeModel(Strict):
    """Weights, temperatures, scores 1–5 and what to change next time."""

    cooked_mass_g: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    cooked_diameter_mm: Annotated[float, Field(gt=0, le=1000)] | None = None
    cooked_thickness_mm: Annotated[float, Field(gt=0, le=1000)] | None = None
    core_c: Annotated[float, Field(ge=0, le=120)] | None = None
    crust: Score | None = None
    juice: Score | None = None
    bite: Score | None = None
    bind: Score | None = None
    grease: Score | None = None
    salt: Score | None = None
    looks: Score | None = None
    note: Annotated[str, Field(max_length=4000)] = ""
    next_time: Annotated[str, Field(max_length=1000)] = ""


class KeptPlan(BaseModel):
    """The figures a cook began with; shapes as in the evaluation."""

    ticket: list[TicketFigure]
    portions: Portions
    shape: ShapeFigures
    heat: HeatPlan
    stove: StovePlan
    salt: SaltFigures
    blend: BlendFigures
    # Cooks from before lots were kept have none.
    cost: CostFigures | None = None
    # Cooks from before builds were kept have none.
    checklist: tuple[CheckLine, ...] = ()
    builds: int = 0


def is_plan(plan: Json) -> bool:
    """Whether a document is a plan that a cook can be shown by."""
    try:
        KeptPlan.model_validate(up_to_date(plan))
    except (ValidationError, KeyError, TypeError, AttributeError, ValueError):
        return False
    return True
