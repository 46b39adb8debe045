"""Cook a formula and keep the logbook."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from vianda.core.errors import OutOfRangeError
from vianda.core.evaluate import Evaluation, evaluate
from vianda.services.bench import surroundings
from vianda.storage import cook_repository as repository
from vianda.storage.formula_repository import get_formula
from vianda.storage.records import EventKind, StoredCook
from vianda.storage.transaction import transaction


@dataclass(frozen=True, slots=True)
class CookStart:
    """A formula to cook, evaluated; the caller turns the plan into JSON and calls ``begin``."""

    formula_id: int
    evaluation: Evaluation


def prepare(formula_id: int) -> CookStart:
    """Evaluate the formula as it stands now."""
    larder, kitchen = surroundings()
    stored = get_formula(formula_id)
    return CookStart(formula_id, evaluate(stored.formula, larder=larder, kitchen=kitchen))


def begin(formula_id: int, plan: dict[str, Any]) -> StoredCook:
    """Begin a cook with the plan as it was shown."""
    with transaction():
        return repository.create_cook(formula_id, get_formula(formula_id).formula, plan)


def get_cook(cook_id: int) -> StoredCook:
    """One cook."""
    return repository.get_cook(cook_id)


def list_cooks(*, formula_id: int | None = None) -> list[StoredCook]:
    """The logbook, newest first."""
    return repository.list_cooks(formula_id=formula_id)


def note_event(cook_id: int, *, token: str, kind: EventKind, place: int, value: float | None) -> StoredCook:
    """Note what happened at the stove."""
    with transaction():
        return repository.add_event(cook_id, token=token, kind=kind, place=place, value=value)


def finish(cook_id: int, outcome: dict[str, Any], *, revision: int) -> StoredCook:
    """Weigh, rate and note. The cooked mass cannot exceed the raw batch."""
    with transaction():
        cook = repository.get_cook(cook_id)
        cooked = outcome.get("cooked_mass_g")
        raw = cook.plan["portions"]["batch_mass_g"]
        if cooked is not None and cooked > raw:
            raise OutOfRangeError(
                f"{cooked:.0f} g cooked is more than the {raw} g that went on raw. Was the tray weighed too?",
                field="/outcome/cooked_mass_g",
            )
        return repository.save_outcome(cook_id, outcome, revision=revision)
