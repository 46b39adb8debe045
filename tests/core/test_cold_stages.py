"""Before the heat: in a fridge or a freezer, off the clock, and what it does to the minutes after it."""

from __future__ import annotations

from dataclasses import replace

import pytest

from formulas import whole
from heat_formulas import INVENTORY, KITCHEN, curve_of, edited
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import (
    harbour_light_pub,
    keepers_loaf,
    night_watch_balls,
    slipway_smash,
    supply_boat_ragu,
)
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.heat.conduction.run import Simulation, times_of
from vianda.core.heat.methods import before_heat, chilling_stage, on_heat, stages_of
from vianda.core.heat.run_setup import setup_of
from vianda.core.model.edit import Choose, SetStages
from vianda.core.model.formula import Formula, HeatStage
from vianda.core.pipeline.compute import prepare

FREEZER = HeatStage("freeze", "time", 1200.0)
FRIDGE = HeatStage("chill", "time", 1200.0)
ALL = {"smash": slipway_smash(), "pub": harbour_light_pub(), "ball": night_watch_balls(), "loaf": keepers_loaf()}


def _stages(formula: Formula) -> tuple[HeatStage, ...]:
    case = prepare(formula, inventory=INVENTORY, kitchen=KITCHEN).case
    return stages_of(formula.heat, case.style, case.surface)


def _after(formula: Formula, *cold: HeatStage) -> Formula:
    return edited(formula, SetStages((*cold, *_stages(formula))))


def _off_s(formula: Formula, *cold: HeatStage) -> float:
    return curve_of(_after(formula, *cold)).pull_s.usual


@pytest.mark.parametrize("formula", ALL.values(), ids=ALL.keys())
def test_the_colder_and_the_longer_it_lay_the_later_it_is_done(formula: Formula) -> None:
    times = [
        curve_of(formula).pull_s.usual,
        _off_s(formula, FRIDGE),
        _off_s(formula, FREEZER),
        _off_s(formula, replace(FREEZER, temp_c=-30.0)),
        _off_s(formula, replace(FREEZER, time_s=5400.0, temp_c=-30.0)),
    ]
    assert times == sorted(times)
    assert times[1] > times[0]
    # Both, one after the other, is more than either.
    assert _off_s(formula, FRIDGE, FREEZER) >= times[2]


@pytest.mark.parametrize("formula", ALL.values(), ids=ALL.keys())
def test_the_clock_begins_on_the_heat(formula: Formula) -> None:
    curve = curve_of(_after(formula, FREEZER))
    assert curve.times_s[0] == 0.0
    assert curve.stages[0].from_s == 0.0
    assert "freeze" not in {s.kind for s in curve.stages}
    assert curve.water_lost_frac == pytest.approx(curve_of(formula).water_lost_frac, abs=0.05)
    assert curve.start_c < curve_of(formula).start_c


def test_a_short_while_in_the_freezer_stiffens_the_outside_first() -> None:
    pub = prepare(
        _after(harbour_light_pub(), replace(FREEZER, time_s=720.0)), inventory=INVENTORY, kitchen=KITCHEN
    ).case
    temp = Simulation(setup_of(pub), keep_every_s=1e9).now.temp
    assert temp[0] < -1.0
    assert temp[-1] < -1.0
    assert temp[len(temp) // 2] > 1.0


def test_a_night_in_the_freezer_is_a_frozen_piece() -> None:
    night = _off_s(slipway_smash(), replace(FREEZER, time_s=6 * 3600.0))
    frozen = curve_of(edited(slipway_smash(), Choose("firmness", "frozen"))).pull_s.usual
    assert night == pytest.approx(frozen, rel=0.03)


@pytest.mark.parametrize("formula", ALL.values(), ids=ALL.keys())
def test_the_long_steps_in_the_cold_are_short_enough(formula: Formula) -> None:
    setup = setup_of(prepare(_after(formula, FREEZER), inventory=INVENTORY, kitchen=KITCHEN).case)
    usual = times_of(setup)[0][-1]
    finer = times_of(setup, step_factor=0.25)[0][-1]
    assert usual == pytest.approx(finer, rel=0.01)


def test_the_plan_and_the_stove_say_it_first_and_count_it_apart() -> None:
    plain = evaluate(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN)
    cold = whole(_after(slipway_smash(), FREEZER), inventory=INVENTORY, kitchen=KITCHEN)
    assert plain.heat.before == ()
    assert [s.timer_s for s in cold.heat.before] == [1200.0]
    assert [s.kind for s in cold.stove.before] == ["chill", "ready"]
    assert cold.stove.before[0].timer_s == 1200.0
    assert cold.heat.on_heat_s.usual < plain.heat.on_heat_s.usual + 60.0
    assert "chill" not in {s.kind for s in cold.heat.stages}


@pytest.mark.parametrize(
    ("stages", "field"),
    [
        ((HeatStage("surface", "core"), FREEZER), "/heat/stages/1/kind"),
        ((HeatStage("surface", "time", 60.0), FRIDGE, HeatStage("surface", "core")), "/heat/stages/1/kind"),
        ((HeatStage("freeze", "core"), HeatStage("surface", "core")), "/heat/stages/0/until"),
        ((replace(FREEZER, temp_c=20.0), HeatStage("surface", "core")), "/heat/stages/0/temp_c"),
        ((replace(FREEZER, temp_c=-60.0), HeatStage("surface", "core")), "/heat/stages/0/temp_c"),
        ((replace(FREEZER, time_s=1.0), HeatStage("surface", "core")), "/heat/stages/0/time_s"),
        ((replace(FREEZER, flip=True), HeatStage("surface", "core")), "/heat/stages/0/flip"),
        ((FREEZER,), "/heat/stages"),
    ],
)
def test_what_nobody_does_is_refused(stages: tuple[HeatStage, ...], field: str) -> None:
    with pytest.raises(OutOfRangeError) as refused:
        edited(harbour_light_pub(), SetStages(stages))
    assert refused.value.field == field


def test_crumbled_meat_is_not_chilled_as_a_piece() -> None:
    assert chilling_stage("crumbled") is None
    with pytest.raises(OutOfRangeError, match="from the bowl to the pan"):
        edited(supply_boat_ragu(), SetStages((FREEZER, HeatStage("surface", "core"))))


def test_before_and_on_the_heat_are_all_there_is() -> None:
    stages = (FRIDGE, FREEZER, HeatStage("surface", "two-fifths"), HeatStage("surface", "core", flip=True))
    assert (*before_heat(stages), *on_heat(stages)) == stages
