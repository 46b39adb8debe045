"""Individuals and moving range against the worked example of the NIST/SEMATECH e-Handbook, 6.3.2.2.

Flow rates of ten batches: mean 50.81, mean moving range 1.8778, limits 55.8041 and 45.8159, nothing out of control.
Data and limits from memory, high confidence; it divides by 1.128, we by 2/√π, which moves the limits by 0.002.
"""

from __future__ import annotations

import pytest

from vianda.core.weighing.control_chart import D2, control_chart

FLOW = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]


def test_the_handbooks_example() -> None:
    chart = control_chart(FLOW)
    assert chart.mean_g == pytest.approx(50.81)
    assert chart.sigma_g is not None
    assert chart.sigma_g * D2 == pytest.approx(1.8778, abs=5e-5)
    assert chart.upper_g == pytest.approx(55.8041, abs=0.003)
    assert chart.lower_g == pytest.approx(45.8159, abs=0.003)
    assert not [b for b in chart.broken if b.rule == "beyond-3s"]


def test_the_factor_is_the_published_one() -> None:
    # Mean range of two: 1.128 in every table of control chart constants.
    assert pytest.approx(1.128, abs=0.0005) == D2
