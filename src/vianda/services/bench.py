"""The bench: apply an edit, evaluate, and read an opening line, against this kitchen and larder."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from vianda.core.basis.units import UnitSystem
from vianda.core.batch.batch import batch_of
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import Evaluation, Sheets, evaluate, sheets
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import Edit
from vianda.core.model.formula import Formula
from vianda.core.opening.opening import Opening, open_line
from vianda.core.pipeline.larder_here import larder_here
from vianda.core.reading.entry import (
    read_delta_temp_k,
    read_frac,
    read_length_mm,
    read_mass_g,
    read_number,
    read_seconds,
    read_temp_c,
)
from vianda.core.reading.mix_line import MixReading, read_mix
from vianda.runtime.engine import ENGINE
from vianda.storage.kitchen_repository import load_kitchen
from vianda.storage.larder_repository import load_inventory


@dataclass(frozen=True, slots=True)
class Bench:
    """A formula after its edit, and everything Vianda says about it."""

    formula: Formula
    evaluation: Evaluation


def context(unit_system: UnitSystem | None = None) -> tuple[Inventory, Kitchen]:
    """The larder as this kitchen has it trimmed, and the kitchen, thinking in the units on the screen."""
    kitchen = load_kitchen().kitchen
    if unit_system is not None and unit_system != kitchen.unit_system:
        kitchen = replace(kitchen, unit_system=unit_system)
    return larder_here(load_inventory(), kitchen), kitchen


def evaluate_formula(formula: Formula, *, edits: tuple[Edit, ...] = (), unit_system: UnitSystem | None = None) -> Bench:
    """Apply edits in order, then evaluate. A refused edit refuses all, and changes nothing."""
    inventory, kitchen = context(unit_system)
    for edit in edits:
        formula = apply_edit(formula, edit, inventory=inventory, kitchen=kitchen)
    return Bench(formula, evaluate(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE))


def sheets_of(formula: Formula, *, unit_system: UnitSystem | None = None) -> Sheets:
    """What stands behind a formula's figures."""
    inventory, kitchen = context(unit_system)
    return sheets(formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)


def open_line_here(line: str, *, unit_system: UnitSystem | None = None) -> tuple[Opening, Evaluation | None]:
    """A first formula from one line, evaluated; no evaluation while something must be settled first."""
    inventory, kitchen = context(unit_system)
    opening = open_line(line, inventory=inventory, kitchen=kitchen)
    if opening.formula is None:
        return opening, None
    return opening, evaluate(opening.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)


def read_mix_here(formula: Formula, text: str, *, unit_system: UnitSystem | None = None) -> MixReading:
    """What a line says goes into a formula's mix, beside its meat."""
    inventory, kitchen = context(unit_system)
    meat = batch_of(formula, inventory=inventory, kitchen=kitchen).meat_mass_g
    return read_mix(text, inventory=inventory, kitchen=kitchen, meat_mass_g=meat)


def read_quantity(
    kind: Literal["mass_g", "length_mm", "temp_c", "frac", "number", "time_s", "delta_temp_k"],
    text: str,
    *,
    unit_system: UnitSystem,
) -> float:
    """What a cook typed outside a formula (a weighing, a reading), in its base unit."""
    if kind == "frac":
        return read_frac(text, field="/text")
    if kind == "number":
        return read_number(text, field="/text")
    if kind == "time_s":
        # A bare number of a time on the heat is minutes.
        return read_seconds(text, bare_s=60.0, field="/text")
    readers = {
        "mass_g": read_mass_g,
        "length_mm": read_length_mm,
        "temp_c": read_temp_c,
        "delta_temp_k": read_delta_temp_k,
    }
    return readers[kind](text, unit_system=unit_system, field="/text")
