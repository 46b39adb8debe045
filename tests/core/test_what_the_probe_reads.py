"""Carry-over by where the probe is, when cooks turn, and the causes that carry the answer."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from heat_formulas import BAKED, CASES, INVENTORY, KITCHEN, curve_of, edited, whole_curve
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.explain import heat as explained
from vianda.core.heat.conduction.run import Cooked, Factors
from vianda.core.heat.cooked import cooked_of, wanted_of
from vianda.core.heat.off_centre import OFF_MM, STEM_MM, probe_places
from vianda.core.heat.run_setup import setup_of
from vianda.core.heat.turning import turning_s
from vianda.core.heat.uncertainty import UNMEASURED, damper, uncertainty_pairs
from vianda.core.model.edit import Choose, Edit
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import compute, prepare


def _cooked(formula: Formula, *edits: Edit, factors: Factors | None = None) -> Cooked:
    case = prepare(edited(formula, *edits), inventory=INVENTORY, kitchen=KITCHEN).case
    setup = setup_of(case)
    return cooked_of(replace(setup, factors=factors or setup.factors), wanted_of(case))


@pytest.mark.parametrize("case", [(keepers_loaf(),), BAKED], ids=["loaf", "baked ball"])
def test_off_the_middle_a_probe_reads_more_and_gains_less(case: tuple) -> None:
    middle, aside, stem = probe_places(_cooked(*case))
    assert (middle.from_mm, aside.from_mm, aside.to_mm) == (0.0, OFF_MM, OFF_MM)
    assert 18.0 < stem.to_mm <= STEM_MM
    assert middle.reads_c < aside.reads_c < stem.reads_c
    assert middle.gains_k > aside.gains_k > stem.gains_k >= 0.0
    # Common practice, no published source: 2 to 5 K. It lies between a tip a little off and a dial's stem.
    assert stem.gains_k < 5.0 < middle.gains_k


@pytest.mark.parametrize(
    "factors", [Factors(k=1.25), Factors(air=0.8), Factors(feed=0.9), Factors(feed=0.6, k=1.25, air=0.8)]
)
def test_no_doubtful_factor_brings_a_loafs_carry_over_down_to_what_cooks_count(factors: Factors) -> None:
    # So it is no dry skin and no coefficient: the outer half is near boiling when the middle is at 69 °C.
    assert probe_places(_cooked(keepers_loaf(), factors=factors))[0].gains_k > 8.0


def test_the_middle_is_what_the_curve_takes_off_and_lets_rise() -> None:
    curve = curve_of(keepers_loaf())
    middle = probe_places(_cooked(keepers_loaf()))[0]
    # The two cells round the middle plane are a couple of millimetres thick.
    assert middle.reads_c == pytest.approx(curve.pull_core_c, abs=0.1)
    assert middle.reads_c + middle.gains_k == pytest.approx(curve.peak_c, abs=0.1)


def test_a_loaf_says_why_it_gains_more_than_usual_and_a_patty_or_a_simmered_ball_does_not() -> None:
    said = {r.key for r in curve_of(keepers_loaf()).remarks}
    assert "carries-over" in said
    for formula in (slipway_smash(), beacon_grill(), night_watch_balls()):
        assert "carries-over" not in {r.key for r in curve_of(formula).remarks}
    loaf = compute(keepers_loaf(), inventory=INVENTORY, kitchen=KITCHEN)
    assert any("Its outer half is near boiling" in s.text for s in explained.core(loaf).steps)
    smash = compute(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN)
    assert not any("near boiling" in s.text for s in explained.core(smash).steps)


def test_a_smashed_piece_is_turned_where_cooks_turn_it_and_the_working_says_both() -> None:
    case = prepare(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN).case
    turned = turning_s(case)
    assert turned is not None
    assert turned.low < turned.usual < turned.high
    curve = curve_of(slipway_smash())
    assert curve.flip_s is not None
    assert turned.usual == pytest.approx(curve.flip_s.usual, rel=0.02)
    # Common practice, no published source: 60 to 110 s at 6 mm, where 35 to 55 % is grey. They overlap.
    usual = case.usual.practice.flip_s
    assert turned.high > usual.low
    steps = explained.minutes(compute(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN)).steps
    habit = next(s for s in steps if s.text.startswith("Usual practice"))
    assert (habit.amounts["low"].value, habit.amounts["high"].value) == case.style.surface_temp_c
    turn = next(s for s in steps if "35 to 55 %" in s.text)
    assert turn.amounts["usual"].value == pytest.approx(turned.usual)
    assert "crust grows" in turn.text


def test_what_is_not_turned_by_its_grey_has_no_such_band() -> None:
    for case in ((keepers_loaf(),), BAKED):
        assert turning_s(prepare(edited(*case), inventory=INVENTORY, kitchen=KITCHEN).case) is None


def test_how_damp_it_is_under_a_lid_is_a_cause_and_carries_a_grilled_burger() -> None:
    grill = whole_curve(beacon_grill())
    assert grill.uncertainty is not None
    shares = {c.cause: c.share for c in grill.uncertainty}
    assert shares["lid"] > 0.25
    assert {"contact", "drip"} <= shares.keys()
    smash = whole_curve(slipway_smash())
    assert smash.uncertainty is not None
    assert "lid" not in {c.cause for c in smash.uncertainty}
    assert {"contact", "drip"} <= {c.cause for c in smash.uncertainty}


def test_damper_moves_only_damp_air_and_never_past_steam() -> None:
    setup = setup_of(prepare(beacon_grill(), inventory=INVENTORY, kitchen=KITCHEN).case)
    assert damper(setup, 2.0).stages[0].high.vapour_pa == pytest.approx(2.0 * setup.stages[0].high.vapour_pa)
    assert damper(setup, 1e6).stages[0].high.vapour_pa == 90_000.0
    open_ = setup_of(prepare(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN).case)
    assert damper(open_, 2.0) == open_
    assert "lid" not in uncertainty_pairs(open_, UNMEASURED)


def test_every_cause_says_what_to_measure() -> None:
    for case in CASES.values():
        found = whole_curve(*case).uncertainty
        assert found is not None
        assert all(re.match(r"^[A-Z].+\.$", c.advice.text) for c in found)


def test_a_press_is_held_for_a_moment_not_for_the_whole_side() -> None:
    setup = setup_of(prepare(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN).case)
    first = setup.stages[0]
    assert first.pressed is not None
    assert first.pressed.h > first.low.h

    def flip_s(pressed: bool, h: float) -> float:
        under = replace(first.low, h=h)
        stage = replace(first, low=under, pressed=replace(under, h=600.0) if pressed else None)
        case = cooked_of(replace(setup, stages=(stage, *setup.stages[1:])), wanted)
        return case.ended_s[0]

    wanted = wanted_of(prepare(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN).case)
    assert flip_s(False, 600.0) < flip_s(True, 350.0) < flip_s(False, 350.0)


def test_the_style_says_at_what_heat_its_minutes_hold() -> None:
    balls = compute(edited(night_watch_balls(), Choose("style", "ball-baked")), inventory=INVENTORY, kitchen=KITCHEN)
    habit = next(s for s in explained.minutes(balls).steps if s.text.startswith("Usual practice"))
    assert (habit.amounts["low"].value, habit.amounts["high"].value) == (175.0, 220.0)
