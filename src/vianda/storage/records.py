"""What repositories hand out: core values with their ids, revisions and times."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, Literal, TypeVar

from vianda.core.model.formula import Formula
from vianda.core.model.service import Service
from vianda.core.timetable.run import RunEvent
from vianda.core.weighing.weighing_run import WeighingPlan

EventKind = Literal["done", "extra", "probe", "surface", "back"]
WeighingEventKind = Literal["load", "paper", "tare", "lean", "keep", "set-aside", "count"]


class NotFoundError(LookupError):
    """There is nothing of that id."""


T = TypeVar("T")


class ConflictError(RuntimeError):
    """Someone saved in between; ``current`` is what stands now."""

    def __init__(self, current: Any) -> None:
        super().__init__("saved by someone else in between")
        self.current = current


def standing_or_conflict(stored: T, *, same: bool) -> T:
    """What stands when it is what was sent (the answer to it was lost), else ``ConflictError``."""
    if same:
        return stored
    raise ConflictError(stored)


@dataclass(frozen=True, slots=True)
class StoredFormula:
    """A formula as it stands."""

    id: int
    revision: int
    updated_at: datetime
    formula: Formula
    changed_by: str = ""


@dataclass(frozen=True, slots=True)
class StoredService:
    """A service as it stands."""

    id: int
    revision: int
    updated_at: datetime
    service: Service


@dataclass(frozen=True, slots=True)
class StoredVersion:
    """A kept version."""

    number: int
    name: str
    created_at: datetime
    formula: Formula
    kept_by: str = ""


@dataclass(frozen=True, slots=True)
class CookEvent:
    """Something that happened at the stove: at which place of the plan, and a value for probe readings."""

    token: str
    kind: EventKind
    place: int
    value: float | None
    at: datetime


@dataclass(frozen=True, slots=True)
class StoredCook:
    """One run of a formula. ``plan`` and ``outcome`` are JSON documents."""

    id: int
    formula_id: int
    formula_name: str
    revision: int
    started_at: datetime
    finished_at: datetime | None
    formula: Formula
    plan: dict[str, Any]
    outcome: dict[str, Any] | None
    events: tuple[CookEvent, ...]
    begun_by: str = ""
    noted_by: str = ""


@dataclass(frozen=True, slots=True)
class StoredRun:
    """A service as it was cooked on one day; ``number`` is of what was said last.

    ``name`` and ``ready_min`` (from midnight) are the service's when something was said last.
    """

    id: int
    service_id: int
    day: date
    started_at: datetime
    number: int
    events: tuple[RunEvent, ...]
    name: str
    ready_min: int | None


@dataclass(frozen=True, slots=True)
class WeighingEvent:
    """Something done to the scale (``value`` in g) or to the record (``about`` is the id of a reading kept)."""

    id: int
    token: str
    kind: WeighingEventKind
    value: float | None
    about: int | None
    at_s: float


@dataclass(frozen=True, slots=True)
class StoredWeighing:
    """A run of check-weighing with all that happened, in order."""

    id: int
    formula_id: int
    formula_name: str
    plan: WeighingPlan
    seed: int
    started_at: datetime
    finished_at: datetime | None
    events: tuple[WeighingEvent, ...]
    left_g: float | None = None
    begun_by: str = ""
