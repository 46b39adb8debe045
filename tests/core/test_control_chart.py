"""The rules of the control chart on constructed runs, and what they must not say."""

from __future__ import annotations

import pytest

from vianda.core.weighing.control_chart import FEWEST, control_chart

# Ten readings that swing evenly, so that a run behind them stands out: mean about 100, moving range 2.
CALM = [99.0, 101.0] * 5


def _rules(readings: list[float]) -> set[tuple[str, int]]:
    return {(b.rule, b.at) for b in control_chart(readings).broken}


def test_few_readings_have_no_limits() -> None:
    for n in range(FEWEST):
        chart = control_chart([85.0 + k for k in range(n)])
        assert chart.upper_g is None
        assert chart.broken == ()
    assert control_chart([]).mean_g is None
    assert control_chart([85.0]).sd_g is None


def test_even_swings_break_no_rule() -> None:
    assert _rules(CALM * 3) == set()


def test_equal_readings_break_no_rule() -> None:
    assert control_chart([85.0] * 20).broken == ()


def test_one_far_out() -> None:
    assert ("beyond-3s", 20) in _rules([*CALM, *CALM, 112.0])
    assert ("beyond-3s", 20) in _rules([*CALM, *CALM, 88.0])


def test_two_of_three_beyond_two_sigma() -> None:
    chart = control_chart([*CALM, *CALM, 105.4, 100.0, 105.4])
    assert chart.sigma_g is not None
    z = [(x - chart.mean_g) / chart.sigma_g for x in (105.4, 100.0)]  # type: ignore[operator]
    assert 2 < z[0] < 3
    assert abs(z[1]) < 2
    assert ("2-of-3-beyond-2s", 22) in {(b.rule, b.at) for b in chart.broken}
    # On two sides they say nothing.
    assert not any(rule == "2-of-3-beyond-2s" for rule, _ in _rules([*CALM, *CALM, 105.4, 100.0, 94.6]))


def test_four_of_five_beyond_one_sigma() -> None:
    found = _rules([*CALM, *CALM, 102.9, 103.0, 100.5, 102.9, 103.0])
    assert ("4-of-5-beyond-1s", 24) in found


def test_eight_on_one_side() -> None:
    run = [100.9, 100.4] * 4
    found = _rules([*CALM, *CALM, 98.0, *run])
    assert ("8-on-one-side", 28) in found
    assert ("8-on-one-side", 27) not in found


def test_six_in_a_row_rising() -> None:
    found = _rules([*CALM, *CALM, 99.0, 99.4, 99.8, 100.2, 100.6, 101.0])
    assert ("6-in-a-row-rising-or-falling", 25) in found
    assert not any(rule.startswith("6-in") for rule, _ in _rules([*CALM, 99.0, 99.4, 99.8, 99.8, 100.2, 100.6, 101.0]))


@pytest.mark.parametrize("shift", [-40.0, 0.0, 900.0])
def test_the_rules_do_not_care_where_the_target_lies(shift: float) -> None:
    run = [*CALM, *CALM, 112.0, 98.0, *[100.9, 100.4] * 4]
    assert _rules(run) == _rules([x + shift for x in run])


def test_one_count_of_the_scale_is_no_signal() -> None:
    readings = [85.0] * 10 + [84.0, 85.0, 85.0]
    assert ("beyond-3s", 10) in {(b.rule, b.at) for b in control_chart(readings).broken}
    assert control_chart(readings, step_g=1).broken == ()
    # Two counts off among equals is one.
    assert ("beyond-3s", 10) in {(b.rule, b.at) for b in control_chart([85.0] * 10 + [83.0], step_g=1).broken}
