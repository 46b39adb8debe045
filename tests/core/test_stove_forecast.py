"""The forecast of a wave at the stove: what a reading moves, what cannot be, what the next wave waits for."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest

from vianda.core.cook.stove_forecast import stove_forecast, without_slips
from vianda.core.cook.stove_log import StoveEvent, wave_logs
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, slipway_smash
from vianda.core.heat.conduction.run import Setup, times_of
from vianda.core.heat.cooked import cooked_of, wanted_of
from vianda.core.heat.fit import ProbeReading, model_cores
from vianda.core.heat.forecast import WaveForecast, wave_forecast
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.uncertainty import P90, causes_of, moved
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import prepare


@pytest.fixture(scope="module")
def planned(inventory, kitchen) -> Callable[[Formula], Setup]:
    def of(formula: Formula) -> Setup:
        case = prepare(formula, inventory=inventory, kitchen=kitchen).case
        return cooked_of(setup_of(case), wanted_of(case)).setup

    return of


@pytest.fixture(scope="module")
def grill(planned) -> Setup:
    return planned(beacon_grill())


def _forecast(setup: Setup, *readings: tuple[float, float], ended_s: tuple[float, ...] = ()) -> WaveForecast:
    found = wave_forecast(setup, ended_s=ended_s, readings=[ProbeReading(*r) for r in readings])
    assert found is not None
    return found


def test_before_any_reading_it_is_the_plan(grill: Setup) -> None:
    found = _forecast(grill)
    off = found.ends_s[-1]
    assert off.usual == pytest.approx(times_of(grill)[0][-1])
    assert found.planned_off_s == pytest.approx(off.usual)
    assert off.low < off.usual < off.high
    assert found.read_at_s == pytest.approx(0.7 * off.usual)
    assert not found.doubtful
    assert not found.off_now


@pytest.mark.parametrize("make", [beacon_grill, keepers_loaf, slipway_smash])
@pytest.mark.parametrize("hidden", [0.8, 1.25])
def test_a_reading_finds_when_the_true_piece_is_done(planned, make, hidden: float) -> None:
    """The reading is the model's own of a piece that conducts otherwise: the time is then within a twentieth."""
    setup = planned(make())
    true = replace(setup, factors=replace(setup.factors, k=setup.factors.k * hidden))
    took = times_of(true)[0][-1]
    at_s = 0.8 * min(took, times_of(setup)[0][-1])
    [core] = model_cores(true, (at_s,))
    found = _forecast(setup, (at_s, core))
    off = found.ends_s[-1]
    assert found.readings[0].used
    # One unknown moved alone, and the forecast shares it out over all that could be: most of the way, not all of it.
    before = abs(math.log(times_of(setup)[0][-1] / took))
    assert abs(math.log(off.usual / took)) < max(0.4 * before, 0.03)
    assert (off.usual < found.planned_off_s) == (hidden > 1.0)
    assert off.low <= took <= off.high
    assert ("sooner" in found.message.text) == (hidden > 1.0)


def test_the_update_is_that_of_weighted_draws(grill: Setup) -> None:
    """Importance sampling of the same unknowns through the heat model: mean and spread of the time it comes off."""
    at_s, core_c = 280.0, 57.0
    found = _forecast(grill, (at_s, core_c)).ends_s[-1]
    rng, causes = np.random.default_rng(5), causes_of(grill)
    logs, weights = [], []
    for draw in rng.normal(size=(800, len(causes))):
        setup = grill
        for cause, by in zip(causes, draw, strict=True):
            setup = moved(setup, cause, float(by))
        [core] = model_cores(setup, (at_s,))
        # A thick piece: the probe is out by 1.5 K, and read within 2 s at 0.2 K/s.
        weights.append(math.exp(-0.5 * ((core - core_c) / 1.55) ** 2))
        logs.append(math.log(times_of(setup)[0][-1]))
    w, x = np.array(weights) / sum(weights), np.array(logs)
    mean = float(w @ x)
    sd = math.sqrt(float(w @ (x - mean) ** 2))
    drawn = 1.0 / float(w @ w)
    assert drawn > 100
    # Three standard errors of so many draws. The unknowns bend (a lid that is twice as damp saves more than one half as
    # damp costs) and the update is straight: 3 % of the time and a fifth of the spread are what that may cost.
    assert math.log(found.usual) == pytest.approx(mean, abs=3 * sd / math.sqrt(drawn) + 0.03)
    assert math.log(found.high / found.low) / 2 / P90 == pytest.approx(sd, rel=0.2)


def test_the_band_narrows_with_each_reading(grill: Setup) -> None:
    def width(found: WaveForecast) -> float:
        return math.log(found.ends_s[-1].high / found.ends_s[-1].low)

    cores = model_cores(grill, (200.0, 280.0))
    none = _forecast(grill)
    one = _forecast(grill, (200.0, cores[0]))
    two = _forecast(grill, (200.0, cores[0]), (280.0, cores[1]))
    assert width(none) > 1.2 * width(one) > 1.2 * width(two)
    # What reads as computed leaves the time where it is.
    assert two.ends_s[-1].usual == pytest.approx(none.ends_s[-1].usual, rel=0.01)


def test_what_cannot_be_the_middle_is_said_and_does_not_count(grill: Setup) -> None:
    found = _forecast(grill, (120.0, 97.0))
    assert found.doubtful
    assert not found.readings[0].used
    assert found.ends_s[-1].usual == pytest.approx(found.planned_off_s)
    assert "cannot be the middle" in found.message.text
    low, high = found.readings[0].low_c, found.readings[0].high_c
    assert 0 < low < high < 60
    # A good one after it counts.
    [core] = model_cores(grill, (250.0,))
    after = _forecast(grill, (120.0, 97.0), (250.0, core + 5.0))
    assert [r.used for r in after.readings] == [False, True]
    assert after.ends_s[-1].usual < after.planned_off_s


def test_just_inside_and_just_outside_of_what_can_be(grill: Setup) -> None:
    plain = _forecast(grill, (250.0, 40.0)).readings[0]
    middle, sd = (plain.low_c + plain.high_c) / 2, (plain.high_c - plain.low_c) / 2 / P90
    assert _forecast(grill, (250.0, middle + 3.45 * sd)).readings[0].used
    assert not _forecast(grill, (250.0, middle + 3.55 * sd)).readings[0].used
    assert _forecast(grill, (250.0, middle - 3.45 * sd)).readings[0].used
    assert not _forecast(grill, (250.0, middle - 3.55 * sd)).readings[0].used


def test_two_that_agree_and_do_not_fit_send_the_cook_to_the_probe(grill: Setup) -> None:
    cores = model_cores(grill, (100.0, 130.0))
    agree = _forecast(grill, (100.0, cores[0] + 60.0), (130.0, cores[1] + 61.0))
    assert "Go by the probe" in agree.message.text
    differ = _forecast(grill, (100.0, cores[0] + 60.0), (130.0, cores[1] + 70.0))
    assert "cannot be" in differ.message.text


def test_a_reading_at_the_pull_says_off_now(grill: Setup) -> None:
    first = times_of(grill)[0][0]
    at_s = times_of(grill)[0][-1] - 5.0
    found = _forecast(grill, (at_s, grill.pull_c - 0.2), ended_s=(first,))
    assert found.off_now
    assert "off now" in found.message.text
    assert not _forecast(grill, (at_s, grill.pull_c - 0.3), ended_s=(first,)).off_now
    # Not before it was turned: that side is raw.
    assert not _forecast(grill, (at_s, grill.pull_c), ended_s=()).off_now


def test_turned_late_the_second_side_is_shorter(grill: Setup) -> None:
    first, off = times_of(grill)[0]
    late = _forecast(grill, ended_s=(first + 40.0,))
    assert late.ends_s[0].low == late.ends_s[0].high == pytest.approx(first + 40.0)
    second = late.ends_s[-1].usual - late.ends_s[0].usual
    assert 20.0 < second < off - first - 20.0
    assert wave_forecast(grill, ended_s=times_of(grill)[0]) is None


PLAN = {
    "before": [{"kind": "ready"}],
    "each_wave": [{"kind": "lay"}, {"kind": "press"}, {"kind": "first-side"}, {"kind": "second-side"}],
    "waves": 3,
    "after": [{"kind": "rest"}],
}


def _said(*events: tuple[str, int, float | None, float]) -> list[StoveEvent]:
    return [StoveEvent(*e) for e in events]


FIRST = [("done", 0, None, 60.0), ("done", 1, None, 70.0), ("done", 2, None, 80.0), ("done", 3, None, 130.0)]


def test_what_was_said_is_put_to_its_wave() -> None:
    logs = wave_logs(PLAN, _said(("surface", 0, 228.0, 50.0), *FIRST, ("probe", 4, 60.0, 150.0)))
    assert (logs[0].laid_s, logs[0].ended_s, logs[0].surface) == (70.0, [130.0], (50.0, 228.0))
    assert logs[0].cores == [(150.0, 60.0)]
    assert logs[1].laid_s is None
    # A press is no stage; a step back takes the turn back, and laying anew the readings.
    back = wave_logs(PLAN, _said(*FIRST, ("back", 3, None, 140.0)))
    assert back[0].ended_s == []
    anew = wave_logs(PLAN, _said(*FIRST, ("probe", 4, 60.0, 150.0), ("back", 1, None, 160.0)))
    assert anew[0].laid_s is None


@pytest.fixture(scope="module")
def smash_case(inventory, kitchen):
    return prepare(slipway_smash(), inventory=inventory, kitchen=kitchen).case


def test_the_wave_on_the_heat_is_foretold_from_the_start_of_the_cook(smash_case) -> None:
    found = stove_forecast(PLAN, _said(*FIRST), smash_case)
    heat = found.on_the_heat
    assert heat is not None
    assert found.surface is None
    assert (heat.wave, heat.laid_s) == (1, 70.0)
    assert [e.place for e in heat.ends] == [4]
    assert heat.ends[0].end_s.usual == pytest.approx(70.0 + heat.off_s.usual)
    # Too thin for a probe to be trusted: its timer keeps to the cold edge, which a reading moves.
    assert heat.ends[0].timer_end_s == heat.ends[0].end_s.high
    read = stove_forecast(PLAN, _said(*FIRST, ("probe", 4, 60.0, 145.0)), smash_case).on_the_heat
    assert read is not None
    assert read.moved
    assert read.ends[0].timer_end_s == read.ends[0].end_s.high < heat.ends[0].end_s.high


def test_a_slip_does_not_hide_the_reading_before_it(smash_case) -> None:
    """Of a wave that is over: learning takes its last reading, so one that cannot have been is left out."""
    laid = cooked_of(setup_of(smash_case), wanted_of(smash_case)).setup
    [good] = model_cores(laid, (70.0,))
    on = [*FIRST, ("done", 4, None, 210.0)]

    def kept(*cores: tuple[float, float]) -> list[tuple[float, float | None]]:
        said = _said(*on, *(("probe", 4, core, at) for at, core in cores))
        found = without_slips(PLAN, said, smash_case)
        assert [e for e in found if e.kind != "probe"] == _said(*on)
        return [(e.at_s, e.value) for e in found if e.kind == "probe"]

    assert kept((140.0, good), (150.0, 4.0)) == [(140.0, good)]
    assert kept((140.0, good), (150.0, good + 3.0)) == [(140.0, good), (150.0, good + 3.0)]
    # One alone stays, and so do two of which none can have been: whoever learns from them names them.
    assert kept((150.0, 4.0)) == [(150.0, 4.0)]
    assert kept((140.0, 2.0), (150.0, 4.0)) == [(140.0, 2.0), (150.0, 4.0)]


def test_as_planned_nothing_is_moved(smash_case) -> None:
    first = cooked_of(setup_of(smash_case), wanted_of(smash_case)).ended_s[0]
    as_planned = _said(("done", 0, None, 60.0), ("done", 1, None, 70.0), ("done", 3, None, 70.0 + first))
    found = stove_forecast(PLAN, as_planned, smash_case).on_the_heat
    assert found is not None
    assert not found.moved
    assert found.off_s.usual == pytest.approx(found.planned_off_s, rel=0.05)
    late = _said(("done", 0, None, 60.0), ("done", 1, None, 70.0), ("done", 3, None, 70.0 + 2 * first))
    moved_on = stove_forecast(PLAN, late, smash_case).on_the_heat
    assert moved_on is not None
    assert moved_on.moved


def test_a_cold_plate_is_waited_for_and_counted(smash_case) -> None:
    wanted = smash_case.heat.surface_temp_c
    cold = stove_forecast(PLAN, _said(("surface", 0, wanted - 60.0, 50.0)), smash_case)
    assert cold.on_the_heat is None
    assert cold.surface is not None
    assert (cold.surface.place, cold.surface.hot_at_s > 60.0) == (1, True)
    hot = stove_forecast(PLAN, _said(("surface", 0, wanted - 4.9, 50.0)), smash_case)
    assert hot.surface is not None
    assert hot.surface.hot_at_s == 50.0
    assert "hot enough" in hot.surface.message.text
    short = stove_forecast(PLAN, _said(("surface", 0, wanted - 5.1, 50.0)), smash_case)
    assert short.surface is not None
    assert short.surface.hot_at_s > 50.0
    # Laid on the cold plate all the same, it takes longer.
    usual = stove_forecast(PLAN, _said(*FIRST), smash_case).on_the_heat
    laid_cold = stove_forecast(PLAN, _said(("surface", 0, wanted - 60.0, 50.0), *FIRST), smash_case).on_the_heat
    assert usual is not None
    assert laid_cold is not None
    assert laid_cold.off_s.usual > usual.off_s.usual


def test_the_next_wave_waits_for_what_the_last_one_took(smash_case) -> None:
    over = [*FIRST, ("done", 4, None, 170.0)]
    waits = stove_forecast(PLAN, _said(*over), smash_case)
    assert waits.surface is not None
    assert waits.surface.place == 5
    assert 170.0 < waits.surface.hot_at_s < 170.0 + 300.0
    # Laid on at once it takes longer than after the wait.
    at_once = stove_forecast(PLAN, _said(*over, ("done", 5, None, 172.0)), smash_case).on_the_heat
    waited = stove_forecast(PLAN, _said(*over, ("done", 5, None, waits.surface.hot_at_s)), smash_case).on_the_heat
    assert at_once is not None
    assert waited is not None
    assert at_once.off_s.usual > waited.off_s.usual
    # After the last wave nothing waits.
    rest = [("done", n, None, 200.0 + n) for n in range(5, 13)]
    assert stove_forecast(PLAN, _said(*over, *rest), smash_case).surface is None


def test_a_plan_whose_stages_are_no_longer_those_is_not_foretold(smash_case) -> None:
    other = {**PLAN, "each_wave": [*PLAN["each_wave"], {"kind": "glaze"}]}
    assert stove_forecast(other, _said(*FIRST), smash_case).on_the_heat is None
