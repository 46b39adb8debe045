"""Which formulas a change of the kitchen may make impossible: none that is passed over becomes so."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields, replace
from typing import Any

import pytest

from vianda.core.basis.errors import CoreError
from vianda.core.demo.formulas import DEMO_FORMULAS, keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.cut_fat import CutFat
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.equipment.pot_rate import PotRate
from vianda.core.equipment.style_factor import StyleFactor
from vianda.core.equipment.task_pace import TaskPace
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.model.formula import OwnTask
from vianda.core.pipeline.reach import BY_KEY, EVERYWHERE, NOWHERE, reached

HERE = yard_galley()


def _without(many: tuple[Any, ...]) -> Iterator[tuple[Any, ...]]:
    for one in many:
        yield tuple(other for other in many if other is not one)


def _changes() -> Iterator[Kitchen]:
    """A kitchen that differs in one thing, in every way that is not everywhere's."""
    for field in ("surfaces", "buns", "moulds"):
        for fewer in _without(getattr(HERE, field)):
            if fewer:
                yield replace(HERE, **{field: fewer})
    for n, surface in enumerate(HERE.surfaces):
        smaller = replace(surface, width_mm=surface.width_mm / 3, depth_mm=surface.depth_mm / 3)
        yield replace(HERE, surfaces=(*HERE.surfaces[:n], smaller, *HERE.surfaces[n + 1 :]))
    for rule in ("US", "EU", "CA", "UK", "none"):
        yield replace(HERE, naming_rule=rule)
    yield replace(HERE, name="Other yard", unit_system="us", currency_code="XTS")
    yield replace(HERE, paces=(TaskPace("shape", 2.0),), pots=(PotRate("simmer-240", 0.5),))
    for style in ("smashed", "free-loaf"):
        for figure in ("loss", "shrink"):
            yield replace(HERE, learnt=(StyleFactor(figure, style, 2.0),))
    yield replace(HERE, fats=(CutFat("chuck", 0.30, 0.34, 0.39),))


@pytest.mark.parametrize("after", tuple(_changes()), ids=lambda _: "")
def test_a_formula_that_is_passed_over_can_still_be_worked_out(inventory, by_practice, after: Kitchen) -> None:
    reaches = reached(HERE, after)
    for make in DEMO_FORMULAS:
        formula = make()
        if not reaches(formula):
            evaluate(formula, inventory=inventory, kitchen=after)


def test_every_part_of_a_kitchen_is_known_here() -> None:
    # What a kitchen has next reaches every formula until somebody has thought about it.
    assert {f.name for f in fields(Kitchen)} == EVERYWHERE | NOWHERE | BY_KEY
    assert not EVERYWHERE & NOWHERE | EVERYWHERE & BY_KEY | NOWHERE & BY_KEY


def test_what_a_formula_is_made_on_or_for_reaches_it(inventory, by_practice) -> None:
    smash = slipway_smash()
    gone = replace(HERE, surfaces=tuple(s for s in HERE.surfaces if s.key != smash.heat.surface))
    assert reached(HERE, gone)(smash)
    with pytest.raises(CoreError):
        evaluate(smash, inventory=inventory, kitchen=gone)
    flat = next(s for s in HERE.surfaces if s.kind in ("plate", "pan") and s.key != smash.heat.surface)
    other = replace(HERE, surfaces=tuple(s for s in HERE.surfaces if s is not flat))
    assert not reached(HERE, other)(smash)
    beside = OwnTask("roots", "Roots", 30.0, surface=flat.key)
    assert reached(HERE, other)(replace(smash, timing=replace(smash.timing, own=(beside,))))


def test_an_oven_serves_stages_of_formulas_that_do_not_name_it() -> None:
    no_oven = replace(HERE, surfaces=tuple(s for s in HERE.surfaces if s.kind != "oven"))
    assert all(reached(HERE, no_oven)(make()) for make in DEMO_FORMULAS)


def test_what_is_learnt_reaches_its_style_and_its_meat() -> None:
    loss = reached(HERE, replace(HERE, learnt=(StyleFactor("loss", slipway_smash().dish.style, 1.2),)))
    assert (loss(slipway_smash()), loss(keepers_loaf())) == (True, False)
    fat = reached(HERE, replace(HERE, fats=(CutFat("shank", 0.05, 0.08, 0.12),)))
    assert (fat(supply_boat_ragu()), fat(night_watch_balls())) == (True, False)
    said = replace(supply_boat_ragu(), parts=(replace(supply_boat_ragu().parts[0], meat="shank-fat-12"),))
    assert fat(said)


@pytest.mark.parametrize("change", [{"country": "UK"}, {"setting": "food-service"}, {"trimmed_by": "one-hand"}])
def test_what_everything_is_worked_out_with_reaches_everything(change: dict[str, str]) -> None:
    after = replace(HERE, **change)
    if after != HERE:
        assert all(reached(HERE, after)(make()) for make in DEMO_FORMULAS)
