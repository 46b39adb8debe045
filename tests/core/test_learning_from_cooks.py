"""What one cook says of what is learnt: its scale, its ruler, its probe."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from vianda.core.cook.stove_log import StoveEvent
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, slipway_smash
from vianda.core.heat.conduction.run import times_of
from vianda.core.heat.fit import model_cores
from vianda.core.heat.run_setup import setup_of
from vianda.core.learning.figures import Observation
from vianda.core.learning.from_cook import (
    CookDone,
    CoreReading,
    heat_observation,
    loss_observation,
    readings_of,
    shrink_observation,
)
from vianda.core.pipeline.compute import prepare
from vianda.core.shape.cook_loss import done_factor

DONE = CookDone(7, 100.0, "smashed", "yard-plate")
EXPECTED = {"yield_low": 0.64, "yield_usual": 0.70, "yield_high": 0.76, "target_c": 71.1}


def _loss(cooked_mass_g: float, done: CookDone = DONE, **more: float) -> Observation | None:
    return loss_observation(done, batch_mass_g=1000.0, cooked_mass_g=cooked_mass_g, **{**EXPECTED, **more})


def test_a_cook_that_loses_as_foretold_says_one() -> None:
    found = _loss(700.0)
    assert found is not None
    assert (found.value, found.observed) == (pytest.approx(0.0), pytest.approx(0.3))
    assert (found.low, found.usual, found.high) == (pytest.approx(0.24), pytest.approx(0.30), pytest.approx(0.36))


def test_a_factor_that_was_in_use_is_no_news() -> None:
    """Forecast with 1.2 and lost what was forecast: the kitchen still loses 1.2 times what the tables say."""
    found = _loss(700.0, replace(DONE, loss_factor=1.2))
    assert found is not None
    assert found.value == pytest.approx(math.log(1.2))


def test_a_core_hotter_than_planned_explains_its_part_of_the_loss() -> None:
    hot = _loss(640.0, core_c=80.0)
    told = _loss(640.0)
    assert hot is not None
    assert told is not None
    assert hot.value == pytest.approx(told.value - math.log(done_factor(80.0) / done_factor(71.1)))


@pytest.mark.parametrize("cooked", [1000.0, 991.0])
def test_what_lost_nothing_was_weighed_raw_or_with_its_tray(cooked: float) -> None:
    assert _loss(cooked) is None


def test_just_enough_was_lost_to_count() -> None:
    assert _loss(989.0) is not None


def test_the_ruler_says_the_shrink() -> None:
    sizes = {"raw_mm": 120.0, "cooked_low_mm": 92.0, "cooked_usual_mm": 96.0, "cooked_high_mm": 100.0}
    found = shrink_observation(DONE, cooked_mm=90.0, **sizes)
    assert found is not None
    assert (found.observed, found.usual) == (pytest.approx(0.25), pytest.approx(0.20))
    assert found.value == pytest.approx(math.log(1.25))
    assert found.low == pytest.approx(1 - 100 / 120)
    # It did not shrink: that was not measured.
    assert shrink_observation(DONE, cooked_mm=120.0, **sizes) is None


STOVE = {
    "before": [{"kind": "ready"}],
    "each_wave": [{"kind": "lay"}, {"kind": "first-side"}, {"kind": "second-side"}],
    "waves": 2,
    "after": [{"kind": "rest"}],
}


def _said(*events: tuple[str, int, float | None, float]) -> list[StoveEvent]:
    return [StoveEvent(*event) for event in events]


def test_a_probe_reading_counts_from_when_its_wave_was_laid_on() -> None:
    events = _said(
        ("done", 0, None, 300.0), ("done", 1, None, 320.0), ("done", 2, None, 420.0), ("probe", 3, 61.0, 470.0),
        ("done", 3, None, 500.0), ("done", 4, None, 510.0), ("probe", 5, 40.0, 560.0), ("probe", 5, 55.0, 600.0),
        ("done", 5, None, 610.0), ("done", 6, None, 650.0), ("probe", 7, 70.0, 700.0),
    )  # fmt: skip
    assert readings_of(STOVE, events) == [CoreReading(0, 150.0, 61.0), CoreReading(1, 90.0, 55.0)]


def test_a_reading_before_the_wave_is_on_or_while_it_rests_says_nothing() -> None:
    assert readings_of(STOVE, _said(("probe", 0, 20.0, 10.0), ("probe", 1, 5.0, 20.0), ("probe", 7, 70.0, 900.0))) == []
    # Laid on a second time: the reading was of what lay there before.
    again = _said(("done", 1, None, 10.0), ("probe", 2, 30.0, 60.0), ("back", 1, None, 70.0), ("done", 1, None, 100.0))
    assert readings_of(STOVE, again) == []


@pytest.mark.parametrize("make", [beacon_grill, keepers_loaf])
@pytest.mark.parametrize("hidden", [0.75, 1.3])
def test_a_reading_of_a_hotter_surface_asks_for_its_factor(inventory, kitchen, make, hidden: float) -> None:
    """The reading is the model's own with that factor: what it asks for is the factor, within a twentieth."""
    case = prepare(make(), inventory=inventory, kitchen=kitchen).case
    heating = replace(case.surface.heating, heat_factor=hidden)
    true = setup_of(replace(case, surface=replace(case.surface, heating=heating)))
    at_s = 0.85 * times_of(true)[0][-1]
    [core] = model_cores(true, (at_s,))
    found = heat_observation(DONE, case, CoreReading(0, at_s, core))
    assert found is not None
    assert math.exp(found.value) == pytest.approx(hidden, rel=0.05)
    # The forecast of that moment was made with a factor of 1, and said its own uncertainty.
    assert found.low < found.usual < found.high
    assert (found.observed > found.usual) == (hidden < 1.0)


def test_a_factor_in_use_is_part_of_what_a_reading_asks_for(inventory, kitchen) -> None:
    case = prepare(beacon_grill(), inventory=inventory, kitchen=kitchen).case
    heating = replace(case.surface.heating, heat_factor=1.3)
    true = setup_of(replace(case, surface=replace(case.surface, heating=heating)))
    at_s = 0.85 * times_of(true)[0][-1]
    [core] = model_cores(true, (at_s,))
    found = heat_observation(replace(DONE, heat_factor=1.3), case, CoreReading(0, at_s, core))
    assert found is not None
    assert math.exp(found.value) == pytest.approx(1.3, rel=0.02)
    assert found.observed == pytest.approx(found.usual, rel=0.02)


@pytest.mark.parametrize(
    "reading", [CoreReading(0, 200.0, 2.0), CoreReading(0, 0.0, 50.0), CoreReading(0, 200.0, 104.0)]
)
def test_what_cannot_be_a_core_on_the_heat_says_nothing(inventory, kitchen, reading: CoreReading) -> None:
    case = prepare(beacon_grill(), inventory=inventory, kitchen=kitchen).case
    assert heat_observation(DONE, case, reading) is None


def test_a_core_that_was_reached_before_the_last_stage_is_not_compared(inventory, kitchen) -> None:
    case = prepare(slipway_smash(), inventory=inventory, kitchen=kitchen).case
    assert heat_observation(DONE, case, CoreReading(0, 20.0, 12.0)) is None
