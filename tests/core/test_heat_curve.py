"""The computed curve of whole formulas: it answers to what is changed, and says what it does not know."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest

from vianda.core.apply_edit import apply_edit
from vianda.core.compute import compute
from vianda.core.demo import beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.edit import Choose, Edit, SetFigure
from vianda.core.formula import Formula
from vianda.core.heat.curve import HeatCurve, NotModelled, heat_curve
from vianda.core.kitchen import yard_galley
from vianda.core.larder import starter_larder

LARDER, KITCHEN = starter_larder(), yard_galley()


def _answer(formula: Formula, *edits: Edit) -> HeatCurve | NotModelled:
    for edit in edits:
        formula = apply_edit(formula, edit, larder=LARDER, kitchen=KITCHEN)
    return heat_curve(compute(formula, larder=LARDER, kitchen=KITCHEN))


def _curve(formula: Formula, *edits: Edit) -> HeatCurve:
    found = _answer(formula, *edits)
    assert isinstance(found, HeatCurve)
    return found


BALLS = (night_watch_balls(), Choose("style", "ball-baked"))
ALL = [(slipway_smash(),), (beacon_grill(),), (harbour_light_pub(),), (night_watch_balls(),), BALLS]


@pytest.mark.parametrize("case", ALL, ids=["smash", "grill", "pub", "balls simmered", "balls baked"])
def test_a_curve_keeps_its_word(case: tuple) -> None:
    curve = _curve(*case)
    target = case[0].heat.core_target_c
    assert curve.reached
    assert all(b > a for a, b in pairwise(curve.times_s))
    assert len(curve.temp_c) == len(curve.times_s) == len(curve.core_c)
    assert all(len(row) == len(curve.depth_mm) for row in curve.temp_c)
    assert curve.peak_c >= target - 0.1
    assert curve.pull_s <= curve.target_s.usual + 1e-6
    assert curve.pull_core_c <= curve.peak_c + 1e-9
    assert curve.target_s.low < curve.target_s.usual < curve.target_s.high
    assert [m.at_s for m in curve.marks] == sorted(m.at_s for m in curve.marks)
    assert all(c <= core + 1e-6 for c, core in zip(curve.coldest_c, curve.core_c, strict=True))
    assert 0.05 < curve.water_lost_frac < 0.35


@pytest.mark.parametrize(
    ("case", "low_s", "high_s"),
    [
        # Common practice, no published source; the model is uncalibrated and trusted to a quarter.
        ((slipway_smash(),), 30, 90),
        ((beacon_grill(),), 180, 300),
    ],
)
def test_the_flip_is_about_where_cooks_make_it(case: tuple, low_s: float, high_s: float) -> None:
    flip = _curve(*case).flip_s
    assert flip is not None
    assert low_s <= flip.usual <= high_s


def test_balls_of_42_mm_take_about_a_quarter_of_an_hour_in_a_fan_oven() -> None:
    # Common practice at 218 °C (425 °F): 15 minutes.
    curve = _curve(*BALLS, SetFigure("surface_temp", 218.0))
    assert curve.target_s.usual == pytest.approx(15 * 60, rel=0.25)


@pytest.mark.parametrize(
    ("edit", "sooner"),
    [
        (SetFigure("surface_temp", 270.0), True), (SetFigure("surface_temp", 200.0), False),
        (SetFigure("thickness", 5.0), True), (SetFigure("thickness", 8.0), False),
        (SetFigure("core_target", 80.0), False),
    ],
)  # fmt: skip
def test_what_is_changed_moves_the_time_its_own_way(edit: Edit, sooner: bool) -> None:
    before, after = _curve(slipway_smash()).target_s.usual, _curve(slipway_smash(), edit).target_s.usual
    assert (after < before) is sooner


def test_a_thin_piece_is_in_doubt_by_its_thickness_and_a_thick_one_is_not() -> None:
    thin, thick = _curve(slipway_smash()), _curve(harbour_light_pub())
    assert thin.cause == "thickness"
    assert thick.cause != "thickness"
    spread = [c.target_s.high / c.target_s.low for c in (thin, thick)]
    assert spread[0] > spread[1]


def test_a_surface_too_cool_is_said_and_not_drawn_as_done() -> None:
    curve = _curve(harbour_light_pub(), SetFigure("core_target", 95.0))
    assert not curve.reached or curve.peak_c >= 94.9
    cold = _curve(*BALLS, SetFigure("surface_temp", 80.0), SetFigure("core_target", 90.0))
    assert not cold.reached
    assert cold.peak_c < 90
    assert "pull" not in {m.kind for m in cold.marks}


def test_a_plate_that_is_turned_down_did_not_fall() -> None:
    pub = _curve(harbour_light_pub())
    assert pub.plate_low_c is not None
    # Browned at 230 °C, finished at 120: under the browning it stays well above the finish.
    assert 150 < pub.plate_low_c < 230


@pytest.mark.parametrize(
    ("formula", "edits"),
    [
        (keepers_loaf(), ()), (harbour_light_pub(), (Choose("style", "filled-burger"),)),
        (slipway_smash(), (Choose("firmness", "frozen"),)),
    ],
)  # fmt: skip
def test_what_is_not_modelled_says_so(formula: Formula, edits: tuple[Edit, ...]) -> None:
    found = _answer(formula, *edits)
    assert isinstance(found, NotModelled)
    assert "not modelled yet" in found.why.text


def test_the_same_piece_is_reckoned_once() -> None:
    assert _curve(slipway_smash()) is _curve(replace(slipway_smash(), name="Another name", remark="x"))
