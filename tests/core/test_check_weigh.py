"""Verdicts on pieces, the running batch, and whether the count will come out."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.weighing.check_weigh import bowl_forecast, tolerance_g, verdict
from vianda.core.weighing.weighing_run import Kept, WeighingPlan, judge, plan_of_weighing, running

PLAN = WeighingPlan("disc", 12, 85, 0, 85, False, 1020, 0, 1, 5000, 2)


@pytest.mark.parametrize(
    ("target", "step", "wanted"),
    # Two grams at least; a fortieth of what is heavy; whole steps, rounded down; never finer than a step.
    [(40, 1, 2), (85, 1, 2), (180, 1, 4), (180, 2, 4), (200, 5, 5), (85, 5, 5), (1250, 1, 31), (1250, 5, 30)],
)
def test_the_tolerance_is_whole_steps(target: float, step: float, wanted: float) -> None:
    assert tolerance_g(target_g=target, step_g=step) == wanted


@pytest.mark.parametrize(
    ("shown", "kind", "change"),
    [
        (0, "empty", 85),
        (8, "empty", 77),
        (-40, "odd", 125),
        (50, "odd", 35),
        (57, "light", 28),
        (82, "light", 3),
        (83, "good", 2),
        (87, "good", -2),
        (88, "heavy", -3),
        (113, "heavy", -28),
        (114, "odd", -29),
        (397, "odd", -312),
    ],
)
def test_what_is_said_of_a_reading(shown: float, kind: str, change: float) -> None:
    said = verdict(shown_g=shown, target_g=85, tolerance=2)
    assert (said.kind, said.change_g) == (kind, change)


def test_a_bad_reading_is_on_record_and_counts_nowhere() -> None:
    kept = [Kept(1, 85, 1), Kept(2, 86, 2), Kept(3, 397, 3, "odd"), Kept(4, 84, 4)]
    now = running(PLAN, kept)
    assert [r.number for r in now.records] == [1, 2, 0, 3]
    assert (now.counted, now.good, now.next_number) == (3, 3, 4)
    assert now.chart.mean_g == pytest.approx(85)
    assert now.bowl.left_g == 1020 - 255


def test_a_heavier_piece_is_no_outlier_when_it_is_meant_to_be_heavier() -> None:
    plan = WeighingPlan("disc", 7, 85, 1, 120, True, 630, 0, 1, 5000, 2)
    kept = [Kept(n, plan.target_g(n) + (n % 2) - 0.5, n) for n in range(1, 8)]
    now = running(plan, kept)
    assert now.records[-1].target_g == 120
    assert now.records[-1].verdict == "good"
    assert now.broken == ()
    assert now.complete


def test_the_forecast_says_when_the_count_will_not_come_out() -> None:
    # Each three grams too heavy: four pieces on, twelve grams are missing from the rest.
    now = running(PLAN, [Kept(n, 88, n) for n in range(1, 9)])
    assert now.bowl.over_g == pytest.approx(-24)
    assert not now.bowl.comes_out
    assert now.bowl.each_g == pytest.approx((1020 - 8 * 88) / 4)
    assert "short" in now.bowl.line.text


@given(
    st.lists(st.integers(60, 110), max_size=30), st.integers(1, 30), st.floats(0, 60), st.booleans(), st.integers(0, 5)
)
def test_the_bowl_closes(shown: list[int], pieces: int, loss: float, last: bool, heavier: int) -> None:
    heavier = min(heavier, pieces)
    plan = WeighingPlan(
        "disc",
        pieces,
        85,
        min(heavier, 1) if last else heavier,
        87,
        last,
        pieces * 85 + 2 * heavier + loss,
        loss,
        1,
        5000,
        2,
    )
    now = running(plan, [Kept(n, g, n) for n, g in enumerate(shown)])
    assert now.bowl.left_g == pytest.approx(plan.bowl_g - sum(shown))
    to_come = sum(plan.target_g(n) for n in range(len(shown) + 1, pieces + 1))
    assert now.bowl.over_g == pytest.approx(now.bowl.left_g - loss - to_come)
    assert now.complete == (len(shown) >= pieces)
    assert now.counted == len(shown)


def test_the_bowl_that_is_empty_too_soon() -> None:
    said = bowl_forecast(bowl_g=340, shaped_g=340, to_come=2, to_come_g=170, loss_g=0, tolerance=2)
    assert not said.comes_out
    assert "empty" in said.line.text


def test_the_plan_is_that_of_the_formula() -> None:
    inventory, kitchen = starter_inventory(), yard_galley()
    formula = smash()
    for edit in (Choose("portioning", "by_batch"), SetFigure("batch_mass", 3415.0), Choose("remainder", "last")):
        formula = apply_edit(formula, edit, inventory=inventory, kitchen=kitchen)
    plan = plan_of_weighing(evaluate(formula, inventory=inventory, kitchen=kitchen), step_g=1, capacity_g=5000)
    assert (plan.pieces, plan.piece_g, plan.heavier_g, plan.last) == (40, 85, 100, True)
    assert sum(plan.target_g(n) for n in range(1, 41)) == 3415
    assert judge(plan, shown_g=100, number=40).kind == "good"
