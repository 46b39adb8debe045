"""Waves: each finds the plate as the one before has left it, and how long it takes to come back."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest

from heat_formulas import INVENTORY, KITCHEN, curve_of, edited, kitchen_with
from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, slipway_smash
from vianda.core.equipment.heating import HOT_ENOUGH_K, heated_c
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import sheets
from vianda.core.heat.conduction.run import Cooked, times_of
from vianda.core.heat.conduction.slab import KEPT_STORE_LOW
from vianda.core.heat.cooked import cooked_of, wanted_of
from vianda.core.heat.remarks import plate_facts
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.waves import CHANGE_S, wait_s, waves_of
from vianda.core.model.edit import SetFigure
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import prepare


def _cooked(formula: Formula, kitchen: Kitchen = KITCHEN) -> Cooked:
    case = prepare(formula, inventory=INVENTORY, kitchen=kitchen).case
    return cooked_of(setup_of(case), wanted_of(case))


def test_each_wave_finds_the_plate_a_little_cooler_and_takes_a_little_longer() -> None:
    waves = waves_of(_cooked(slipway_smash()), 4)
    assert len(waves) == 4
    assert waves[0].laid_c == 240
    assert all(a.laid_c > b.laid_c and a.off_s < b.off_s for a, b in pairwise(waves))
    # They settle: the last two are more alike than the first two.
    assert waves[2].laid_c - waves[3].laid_c < (waves[0].laid_c - waves[1].laid_c) / 2


def test_more_fire_holds_the_second_wave_up() -> None:
    def second(power: str) -> float:
        return waves_of(_cooked(slipway_smash(), kitchen_with("yard-plate", power=power)), 2)[1].laid_c

    assert second("gentle") < second("usual") < second("strong")


def test_a_thin_plate_falls_farther_and_comes_back_sooner() -> None:
    thin, thick = (_cooked(slipway_smash(), kitchen_with("yard-plate", thickness_mm=mm)) for mm in (3.0, 20.0))
    lows = [plate_facts(c)[0] for c in (thin, thick)]
    assert lows[0] is not None
    assert lows[1] is not None
    assert lows[0] < lows[1]
    assert wait_s(thin) < wait_s(thick)


@pytest.mark.parametrize("formula", [slipway_smash(), harbour_light_pub()], ids=["smash", "pub"])
def test_whoever_waits_finds_it_as_hot_as_meant(formula: Formula) -> None:
    cooked = _cooked(formula)
    metal = cooked.setup.stages[0].low
    left = float(cooked.at_pull.edge[6])
    now = heated_c(metal.store, metal.power, metal.gain, wait_s(cooked), metal.temp_c, from_c=left)
    assert now == pytest.approx(metal.temp_c - HOT_ENOUGH_K, abs=0.1)
    # A gentle finish leaves the pan far cooler than a scraping brings it back from.
    if formula.name.startswith("Harbour"):
        assert wait_s(cooked) > 2 * CHANGE_S


@pytest.mark.parametrize("formula", [beacon_grill(), keepers_loaf()], ids=["grate", "oven"])
def test_where_no_metal_is_drawn_down_there_are_no_waves_to_tell(formula: Formula) -> None:
    cooked = _cooked(formula)
    assert wait_s(cooked) == 0.0
    assert waves_of(cooked, 3) == ()


def test_the_bench_says_what_a_hurried_wave_costs_and_the_stove_what_it_waits_for() -> None:
    many, one = slipway_smash(), edited(slipway_smash(), SetFigure("guests", 2))
    said = next(r for r in curve_of(many).remarks if r.key == "waves")
    assert said.title.amounts["laid"].value == pytest.approx(waves_of(_cooked(many), 3)[-1].laid_c)
    assert said.reason.amounts["off"].value > said.reason.amounts["usual"].value
    assert all(r.key != "waves" for r in curve_of(one).remarks)
    lay = sheets(many, inventory=INVENTORY, kitchen=KITCHEN).stove.each_wave[0]
    assert lay.cue.amounts["wait"].value == pytest.approx(said.reason.amounts["wait"].value)
    alone = sheets(one, inventory=INVENTORY, kitchen=KITCHEN).stove
    assert alone.waves == 1
    assert "wait" not in alone.each_wave[0].cue.amounts


@pytest.mark.parametrize(
    "heating",
    [
        {"thickness_mm": 1.0, "metal": "aluminium", "power": "strong", "heat_factor": 2.0},
        {"thickness_mm": 1.0, "metal": "steel"},
        {"thickness_mm": 2.0, "metal": "copper", "power": "strong"},
    ],
)
def test_a_plate_that_holds_little_is_followed_closely_enough(heating: dict[str, object]) -> None:
    cooked = _cooked(slipway_smash(), kitchen_with("yard-plate", **heating))
    usual, finer = (times_of(cooked.setup, step_factor=f)[0] for f in (1.0, 0.2))
    assert usual == pytest.approx(finer, rel=0.01)
    metal = cooked.more[:, KEPT_STORE_LOW]
    assert np.all(metal <= 240.0 + 1e-6)
    # It falls when a face is laid on and comes back: it does not swing.
    turns = np.diff(np.sign(np.diff(metal)))
    assert np.count_nonzero(np.abs(turns) > 1) <= 4
