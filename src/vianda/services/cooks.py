"""Cook a formula and keep the logbook."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.cook.measures import Raw, check_measured
from vianda.core.cook.outcome import OutcomeFigures, outcome_figures
from vianda.core.cook.stove_log import check_reading
from vianda.core.evaluation.evaluate import Evaluation, Sheets, evaluate, sheets
from vianda.core.learning.in_use import FactorsInUse, factors_in_use
from vianda.interchange.kept_plan import up_to_date
from vianda.runtime.engine import ENGINE
from vianda.services import learning
from vianda.services.bench import context
from vianda.services.logbook import held_by
from vianda.storage import cook_repository as repository
from vianda.storage import logbook_repository
from vianda.storage.formula_repository import get_formula
from vianda.storage.larder_repository import take_from_lots
from vianda.storage.records import CookEvent, EventKind, StoredCook
from vianda.storage.transaction import transaction

# A long evening of readings has some hundred.
MOST_EVENTS = 2000


@dataclass(frozen=True, slots=True)
class CookStart:
    """A formula to cook, evaluated; the caller turns the plan into JSON and calls ``begin``."""

    formula_id: int
    evaluation: Evaluation
    sheets: Sheets
    factors: FactorsInUse


def prepare(formula_id: int) -> CookStart:
    """Evaluate the formula as it stands now."""
    inventory, kitchen = context()
    stored = get_formula(formula_id)
    given = stored.formula
    return CookStart(
        formula_id,
        evaluate(given, inventory=inventory, kitchen=kitchen, engine=ENGINE),
        sheets(given, inventory=inventory, kitchen=kitchen, engine=ENGINE),
        factors_in_use(kitchen, style=given.dish.style, surface=given.heat.surface),
    )


def begin(formula_id: int, plan: dict[str, Any]) -> StoredCook:
    """Begin a cook with the plan as it was shown."""
    inventory, _ = context()
    with transaction():
        cook = repository.create_cook(formula_id, get_formula(formula_id).formula, plan)
        logbook_repository.index_cook(cook, held_by(cook, inventory))
        return cook


def get_cook(cook_id: int) -> StoredCook:
    """One cook."""
    return repository.get_cook(cook_id)


@dataclass(frozen=True, slots=True)
class Happened:
    """When a cook began, and all that happened since."""

    started_at: datetime
    events: tuple[CookEvent, ...]


def list_cooks(*, formula_id: int | None = None) -> list[StoredCook]:
    """The logbook, newest first."""
    return repository.list_cooks(formula_id=formula_id)


def note_event(
    cook_id: int,
    *,
    token: str,
    kind: EventKind,
    place: int,
    value: float | None,
    late_s: float = 0.0,
    since_start_s: float | None = None,
) -> Happened:
    """Note what happened at the stove, so long after the start by the device's clock, or ``late_s`` seconds ago."""
    check_reading(kind, value)
    with transaction():
        if repository.count_others(cook_id, token) >= MOST_EVENTS:
            raise OutOfRangeError(f"At most {MOST_EVENTS} things are noted of one cook.", field="/token")
        started_at = repository.add_event(
            cook_id, token=token, kind=kind, place=place, value=value, late_s=late_s, since_start_s=since_start_s
        )
        return Happened(started_at, repository.events_of(cook_id))


def finish(cook_id: int, outcome: dict[str, Any], *, revision: int) -> StoredCook:
    """Weigh, rate and note. Refuses what cannot be, such as more coming off than went on.

    The first note ends the cook, and what it used is taken from the lots it came from. What the kitchen learns from
    it is taken down with it, in place of what an earlier note said.
    """
    begun = repository.get_cook(cook_id)
    check_measured(raw_of(begun), outcome, begun.outcome or {})
    said = learning.observations_of(begun, outcome)
    with transaction():
        cook = repository.get_cook(cook_id)
        saved = repository.save_outcome(cook_id, outcome, revision=revision)
        # The lots stay as they were known when it began.
        logbook_repository.index_cook(saved, logbook_repository.lots_of(cook_id))
        learning.keep(saved, said)
        if cook.finished_at is None:
            _take_from_lots(cook)
        return saved


def _take_from_lots(cook: StoredCook) -> None:
    cost = cook.plan.get("cost") or {"parts": []}
    lots = {part.meat: part.lot for part in cook.formula.parts if part.lot}
    taken: dict[str, float] = defaultdict(float)
    for line in cost["parts"]:
        if line["meat"] in lots:
            taken[lots[line["meat"]]] += line["bought_g"]
    take_from_lots(taken)


def raw_of(cook: StoredCook) -> Raw:
    """What went on and what is expected of it, by the plan that the cook began with."""
    plan = up_to_date(cook.plan)
    shape, batch = plan["shape"], plan["portions"]["batch_mass_g"]
    return Raw(
        form=shape["form"],
        batch_mass_g=batch,
        across_mm=shape["raw_diameter_mm"],
        thickness_mm=shape["thickness_mm"],
        expected_mass_g=batch * shape["cooked_yield_frac"]["usual"],
        expected_across_mm=shape["cooked_diameter_mm"]["usual"],
        expected_thickness_mm=shape["cooked_thickness_mm"]["usual"],
        target_core_c=cook.formula.heat.target_core_temp_c,
    )


def figures_of(cook: StoredCook, outcome: dict[str, Any] | None) -> OutcomeFigures | None:
    """Yield, shrink and thickness of a finished cook, or None while nothing was noted."""
    if outcome is None:
        return None
    # What a plan of before did not have yet is there.
    plan = up_to_date(cook.plan)
    shape, portions = plan["shape"], plan["portions"]
    return outcome_figures(
        batch_mass_g=portions["batch_mass_g"],
        pieces=portions["pieces"],
        expected_yield_frac=Band(**shape["cooked_yield_frac"]),
        raw_diameter_mm=shape["raw_diameter_mm"],
        cooked_mass_g=outcome.get("cooked_mass_g"),
        cooked_diameter_mm=outcome.get("cooked_diameter_mm"),
        expected_thickness_mm=Band(**shape["cooked_thickness_mm"]),
        cooked_thickness_mm=outcome.get("cooked_thickness_mm"),
    )
