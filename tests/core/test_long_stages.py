"""Stages of hours are computed in steps that grow, and stay within the bar of 0.2 °C of steps a quarter as long."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.heat.conduction.line import step_after
from vianda.core.heat.conduction.run import Setup, cook
from vianda.core.heat.methods import MOST_TURNS
from vianda.core.heat.run_setup import setup_of
from vianda.core.model.formula import Formula, HeatStage
from vianda.core.pipeline.compute import compute, prepare


def _setup(formula: Formula, kind: str, temp_c: float | None, seconds: float) -> Setup:
    first = HeatStage(kind, "time", seconds, temp_c=temp_c)  # type: ignore[arg-type]
    stages = (first, HeatStage(kind, "core", 3600.0, temp_c=temp_c))  # type: ignore[arg-type]
    made = replace(formula, heat=replace(formula.heat, stages=stages))
    setup = setup_of(prepare(made, inventory=INVENTORY, kitchen=KITCHEN).case)
    return replace(setup, stages=setup.stages[:1])


def _middle(temp: np.ndarray) -> float:
    rows = temp[:, 0] if temp.ndim == 2 and temp.shape[0] > 1 else temp.ravel()
    return float(rows[len(rows) // 2])


@pytest.mark.parametrize(
    ("make", "kind", "temp_c"),
    [
        (beacon_grill, "smoke", 110.0),
        (beacon_grill, "oven", 85.0),
        (slipway_smash, "smoke", 110.0),
        (keepers_loaf, "oven", 120.0),
        (night_watch_balls, "simmer", None),
    ],
)
@pytest.mark.parametrize("hours", [1.5, 6.0])
def test_a_long_stage_ends_as_in_short_steps(make, kind: str, temp_c: float | None, hours: float) -> None:
    setup = _setup(make(), kind, temp_c, hours * 3600.0)
    usual = cook(setup, keep_every_s=1e9).at_pull
    fine = cook(setup, keep_every_s=1e9, step_factor=0.25).at_pull
    # The middle and the whole. One cell in which a front of drying stands differs by some tenths more as it passes.
    assert abs(_middle(usual.temp) - _middle(fine.temp)) < 0.2
    assert abs(float(usual.temp.mean() - fine.temp.mean())) < 0.1
    # Water and fat that left, kg of what they are of.
    assert usual.tally[:2] == pytest.approx(fine.tally[:2], rel=2e-3)


def test_the_first_hour_is_stepped_as_before_and_no_step_is_longer_than_a_minute() -> None:
    assert step_after(3599.0, 0.5, 60.0) == step_after(3700.0, 0.5, 60.0) == 0.5
    assert [step_after(s, 0.5, 60.0) for s in (4000.0, 7600.0, 1e6)] == [1.0, 10.0, 60.0]
    # What a store of heat bears is never passed.
    assert step_after(1e6, 0.5, 1.5) == 1.5


@pytest.mark.parametrize(("every_s", "fits"), [(15.0, True), (14.9, False)])
def test_a_stage_turns_a_piece_so_often_and_no_more(every_s: float, fits: bool) -> None:
    stages = (
        HeatStage("oven", "time", MOST_TURNS * 15.0, temp_c=80.0, turn_every_s=every_s),
        HeatStage("oven", "core", 3600.0, temp_c=120.0),
    )
    grill = beacon_grill()
    formula = replace(grill, heat=replace(grill.heat, stages=stages))
    if fits:
        compute(formula, inventory=INVENTORY, kitchen=KITCHEN)
        return
    with pytest.raises(OutOfRangeError, match="at most 240 times"):
        compute(formula, inventory=INVENTORY, kitchen=KITCHEN)
