"""The parts of a kitchen archive: what one item of each holds. Numbers are the archive's own; times are UTC."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Annotated, Any

from pydantic import AwareDatetime, Field

from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Meat
from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient
from vianda.core.learning.figures import LearntFigure
from vianda.core.model.formula import Formula
from vianda.core.model.service import Service
from vianda.core.model.stocked import Stocked
from vianda.core.tasting.tasting import Tasting
from vianda.core.timetable.run import RunEventKind
from vianda.core.training.rounds import RoundKind
from vianda.core.weighing.weighing_run import WeighingPlan
from vianda.interchange.documents import Strict
from vianda.interchange.kept_cook import OutcomeModel

Number = Annotated[int, Field(ge=0, lt=2**31)]
Name = Annotated[str, Field(min_length=1, max_length=80)]
Token = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9-]+$")]
Word = Annotated[str, Field(max_length=16, pattern=r"^[a-z-]+$")]
# Who did it, "" where nobody was signed in; what an archive of before there were accounts does not say.
Who = Annotated[str, Field(max_length=40)]
Real = Annotated[float, Field(ge=-1e12, le=1e12)]


class VersionItem(Strict):
    """A version that was kept."""

    number: Annotated[int, Field(ge=1, le=1_000_000)]
    name: Name
    created_at: AwareDatetime
    formula: Formula
    kept_by: Who = ""


class FormulaItem(Strict):
    """A formula with all its kept versions; an archived one is there too."""

    id: Number
    formula: Formula
    created_at: AwareDatetime
    updated_at: AwareDatetime
    archived: bool
    versions: Annotated[list[VersionItem], Field(max_length=100_000)]
    changed_by: Who = ""


class ServiceItem(Strict):
    """A service; its dishes name formulas of the archive."""

    id: Number
    service: Service
    changed_by: Who = ""


class HeldItem(Strict):
    """A lot that went into a cook, g; its day "" where none was known."""

    lot: Annotated[str, Field(max_length=64)]
    name: Annotated[str, Field(max_length=200)]
    meat: Annotated[str, Field(max_length=64)]
    mass_g: Real
    use_by: Annotated[str, Field(max_length=10)]


class CookEventItem(Strict):
    """Something that happened at the stove."""

    token: Token
    kind: Word
    place: Annotated[int, Field(ge=0, le=100_000)]
    value: Real | None
    at: AwareDatetime


class CookItem(Strict):
    """One run of a formula: what was planned, what happened, and what came of it."""

    id: Number
    formula_id: Number
    formula: Formula
    plan: dict[str, Any]
    started_at: AwareDatetime
    finished_at: AwareDatetime | None
    outcome: OutcomeModel | None
    events: Annotated[list[CookEventItem], Field(max_length=10_000)]
    lots: Annotated[list[HeldItem], Field(max_length=500)]
    begun_by: Who = ""
    noted_by: Who = ""


class WeighingEventItem(Strict):
    """Something done to the scale or to the record; ``about`` is the ``id`` of another of the same weighing."""

    id: Number
    token: Token
    kind: Word
    value: Real | None
    about: Number | None
    at_s: Real


class WeighingItem(Strict):
    """A run of check-weighing."""

    id: Number
    formula_id: Number
    formula_name: Name
    plan: WeighingPlan
    seed: Number
    started_at: AwareDatetime
    finished_at: AwareDatetime | None
    left_g: Real | None
    events: Annotated[list[WeighingEventItem], Field(max_length=100_000)]
    begun_by: Who = ""


class TastingItem(Strict):
    """A blind tasting."""

    formula_id: Number
    created_at: AwareDatetime
    tasting: Tasting


class CheckEventItem(Strict):
    """What was said of a task, or measured."""

    token: Token
    kind: RunEventKind
    task: Annotated[str, Field(max_length=120)]
    minute: Annotated[int, Field(ge=-1_000_000, le=1_000_000)]
    value: Annotated[int, Field(ge=-1_000_000, le=1_000_000)] | None
    of_token: Annotated[str, Field(max_length=40)]
    at: AwareDatetime
    check_key: Annotated[str, Field(max_length=140)]
    temp_c: Real | None
    who: Who
    remark: Annotated[str, Field(max_length=200)]


class EveningItem(Strict):
    """A service as it was cooked on a day, with the food-safety record; service 0 is the kitchen's own checks."""

    id: Number
    service_id: Number
    day: date
    started_at: AwareDatetime
    name: Annotated[str, Field(max_length=200)]
    ready_min: Annotated[int, Field(ge=-100_000, le=100_000)] | None
    learnt: bool
    events: Annotated[list[CheckEventItem], Field(max_length=100_000)]


class ObservationItem(Strict):
    """What a cook, or of minutes an evening, says of one figure that is learnt."""

    figure: LearntFigure
    source_id: Number
    piece: Annotated[int, Field(ge=-1, le=1_000_000)]
    style: Annotated[str, Field(max_length=64)]
    surface: Annotated[str, Field(max_length=64)]
    at: AwareDatetime
    observed: Real
    low: Real
    usual: Real
    high: Real
    value: Real
    sd: Real
    aside: bool
    thing: Annotated[str, Field(max_length=40)]


class TrainingItem(Strict):
    """A round of the trainer that was answered."""

    token: Token
    kind: RoundKind
    correct: bool
    confidence: Annotated[float, Field(ge=0, le=1)]
    at: AwareDatetime


class PhotographItem(Strict):
    """A photograph; its file stands beside as ``photographs/<id>.jpg``."""

    id: Number
    cook_id: Number
    caption: Annotated[str, Field(max_length=120)]
    at: AwareDatetime
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]


@dataclass(frozen=True, slots=True)
class Part:
    """A part of the archive: what an item is, the version of its shape, and what it is called on a screen."""

    item: Any
    version: int
    title: str


# In the order in which they are brought in: what is named by another comes before it.
PARTS: Mapping[str, Part] = {
    "kitchen": Part(Kitchen, 1, "Kitchen"),
    "meats": Part(Meat, 1, "Meats"),
    "lots": Part(Lot, 1, "Lots"),
    "pantry": Part(Ingredient, 1, "Pantry and house formulas"),
    "stock": Part(Stocked, 1, "Stock"),
    "formulas": Part(FormulaItem, 2, "Formulas"),
    "services": Part(ServiceItem, 2, "Services"),
    "cooks": Part(CookItem, 2, "Cooks"),
    "weighings": Part(WeighingItem, 2, "Weighings"),
    "tastings": Part(TastingItem, 1, "Blind tastings"),
    "evenings": Part(EveningItem, 1, "Evenings and checks"),
    "observations": Part(ObservationItem, 1, "What was learnt from"),
    "training": Part(TrainingItem, 1, "Rounds of the trainer"),
    "photographs": Part(PhotographItem, 1, "Photographs"),
}


def utc(naive: datetime) -> datetime:
    """A time of the database, which keeps UTC without saying so."""
    return naive.replace(tzinfo=UTC)


def naive(moment: datetime) -> datetime:
    """A time as the database keeps it."""
    return moment.astimezone(UTC).replace(tzinfo=None)
