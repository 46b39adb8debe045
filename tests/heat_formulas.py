"""Whole formulas cooked: short ways to say them, and the pieces that every test of heat looks at."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.demo.formulas import (
    beacon_grill,
    harbour_light_pub,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.curve import HeatCurve, curve_steps, heat_curve
from vianda.core.heat.run_setup import Overrides
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.edit import Choose, Edit
from vianda.core.model.formula import Formula, HeatStage
from vianda.core.pipeline.compute import prepare

INVENTORY, KITCHEN = starter_inventory(), yard_galley()


def edited(formula: Formula, *edits: Edit) -> Formula:
    """A formula after edits, as the bench makes them."""
    for edit in edits:
        formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
    return formula


def curve_of(
    formula: Formula, *edits: Edit, kitchen: Kitchen = KITCHEN, overrides: Overrides | None = None
) -> HeatCurve:
    """The curve without its uncertainty."""
    case = prepare(edited(formula, *edits), inventory=INVENTORY, kitchen=kitchen).case
    return heat_curve(case, overrides=overrides or Overrides())


def whole_curve(formula: Formula, *edits: Edit) -> HeatCurve:
    """The curve with all its uncertainty."""
    steps = list(curve_steps(prepare(edited(formula, *edits), inventory=INVENTORY, kitchen=KITCHEN).case))
    last = steps[-1]
    assert isinstance(last, HeatCurve)
    return last


BAKED = (night_watch_balls(), Choose("style", "ball-baked"))
FILLED = (beacon_grill(), Choose("style", "filled-burger"))
EGGS = (keepers_loaf(), Choose("style", "loaf-filled"))
FROZEN = (beacon_grill(), Choose("firmness", "frozen"))
CASES = {
    "smash": (slipway_smash(),),
    "grill": (beacon_grill(),),
    "pub": (harbour_light_pub(),),
    "simmered": (night_watch_balls(),),
    "baked": BAKED,
    "loaf": (keepers_loaf(),),
    "filled": FILLED,
    "eggs": EGGS,
    "taco": (slipway_smash(), Choose("style", "smashed-taco")),
    "smoked": (beacon_grill(), Choose("style", "smoked")),
    "tin": (keepers_loaf(), Choose("style", "loaf-tin")),
    "tray": (keepers_loaf(), Choose("style", "loaf-tray")),
    "frozen": FROZEN,
    "crumbled": (supply_boat_ragu(),),
}


def kitchen_with(key: str, **change: object) -> Kitchen:
    """The demo kitchen with one surface that gives heat otherwise."""
    surfaces = tuple(
        replace(s, heating=replace(s.heating, **change)) if s.key == key else s  # type: ignore[arg-type]
        for s in KITCHEN.surfaces
    )
    return replace(KITCHEN, surfaces=surfaces)


FLAT_TWO = (HeatStage("surface", "two-fifths"), HeatStage("surface", "core", flip=True))
