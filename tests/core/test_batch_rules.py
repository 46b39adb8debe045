"""Figures once worked out on the screen: what a batch loses, what the salt of a line weighs, the bowl of a scoop."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest

from formulas import smash
from vianda.core.demo.formulas import HOUSE_FORMULAS, keepers_loaf, night_watch_balls
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.house import house_figures
from vianda.core.inventory.pantry import starter_pantry

pytestmark = pytest.mark.usefixtures("by_practice")


def test_what_goes_into_the_bowl_is_cooked_lost_left_or_stays_behind(inventory: Any, kitchen: Any) -> None:
    v = evaluate(smash(loss_g=20.0), inventory=inventory, kitchen=kitchen)
    y = v.batch_yield
    assert y.cooked_g.usual + y.water_g + y.fat_g + y.left_g + y.loss_g == pytest.approx(y.bowl_g)
    assert not y.allows_expected
    usual = evaluate(smash(loss_g=y.expected_loss_g), inventory=inventory, kitchen=kitchen)
    assert usual.batch_yield.allows_expected


def test_the_ledger_in_grams_is_the_ledger_by_the_mass_of_the_meat(inventory: Any, kitchen: Any) -> None:
    v = evaluate(keepers_loaf(), inventory=inventory, kitchen=kitchen)
    salt, meat = v.salt, v.mix.whole.meat_g
    assert salt.entries_g == pytest.approx([e.per_meat_frac * meat for e in salt.ledger.entries])
    assert sum(salt.entries_g) + salt.to_add_g == pytest.approx(salt.wanted_g)


def test_a_scoops_bowl_is_half_a_sphere(inventory: Any, kitchen: Any) -> None:
    scoop = evaluate(night_watch_balls(), inventory=inventory, kitchen=kitchen).shape.scoop
    assert scoop is not None
    holds = next(m.holds_ml for m in kitchen.moulds if m.key == scoop.key)
    assert math.pi * scoop.bowl_mm**3 / 12_000 == pytest.approx(holds)


def test_a_target_below_the_floor_is_said_by_the_plan(inventory: Any, kitchen: Any) -> None:
    floor = evaluate(smash(), inventory=inventory, kitchen=kitchen).heat.floors.leading.temp_c
    below = evaluate(smash(target_core_temp_c=floor - 0.1), inventory=inventory, kitchen=kitchen)
    at = evaluate(smash(target_core_temp_c=floor), inventory=inventory, kitchen=kitchen)
    assert (below.heat.below_floor, at.heat.below_floor) == (True, False)


def test_a_house_formula_without_a_yield_loses_nothing() -> None:
    rub = HOUSE_FORMULAS[0]
    assert rub.house is not None
    said = replace(rub, house=replace(rub.house, yield_g=200.0))
    unsaid = replace(rub, house=replace(rub.house, yield_g=0.0))
    pantry = starter_pantry()
    assert house_figures(unsaid, pantry=pantry) == house_figures(said, pantry=pantry)
