"""What went wrong with a cook of the logbook."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vianda.core.basis.units import UnitSystem
from vianda.core.faults.causes import Symptom
from vianda.core.faults.evidence import BatchReadings
from vianda.core.faults.network import MOST_SYMPTOMS
from vianda.core.faults.ranking import SymptomChoice, WentWrong, symptoms_for, what_went_wrong
from vianda.core.faults.readings import readings_of_cook
from vianda.core.model.styles import style_of
from vianda.core.pipeline.compute import compute
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.services.stove import said_at_stove
from vianda.storage.cook_repository import get_cook


@dataclass(frozen=True, slots=True)
class FaultSearch:
    """What a cook can have wrong and how much of it at once, what was measured, and what it comes from, once said."""

    formula_name: str
    symptoms: tuple[SymptomChoice, ...]
    most: int
    readings: BatchReadings
    found: WentWrong | None


def look_for_fault(
    cook_id: int,
    symptoms: Sequence[Symptom],
    *,
    absent: Sequence[Symptom] = (),
    answers: Mapping[str, bool],
    surface_c: float | None = None,
    core_c: float | None = None,
    unit_system: UnitSystem | None = None,
) -> FaultSearch:
    """Causes of what is wrong with a cook, by its formula as it was cooked and by what was measured."""
    cook = get_cook(cook_id)
    events = said_at_stove(cook)
    said = [(e.kind, e.place, e.at_s) for e in events]
    if surface_c is None:
        # Of several the last: a surface that was too cold was waited for.
        surface_c = next((e.value for e in reversed(events) if e.kind == "surface"), None)
    readings = readings_of_cook(cook.plan, said, cook.outcome or {}, surface_c=surface_c, core_c=core_c)
    form = style_of(cook.formula.dish.style).form
    found = None
    if symptoms:
        inventory, kitchen = context(unit_system)
        figures = compute(cook.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
        found = what_went_wrong(figures, symptoms, readings=readings, answers=answers, absent=absent)
    return FaultSearch(cook.formula_name, symptoms_for(form), MOST_SYMPTOMS, readings, found)
