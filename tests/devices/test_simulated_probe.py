"""The simulated thermometer: the same for the same seed, late, a little off, and beside the middle."""

from __future__ import annotations

import statistics

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.devices.probe import ProbeMake
from vianda.devices.simulated_probe import SimulatedProbe, Truth

STEADY = Truth((0.0, 600.0), (0.0, 0.5, 1.0), ((90.0, 60.0, 80.0), (90.0, 60.0, 80.0)))
RAMP = Truth((0.0, 100.0), (0.0, 1.0), ((10.0, 10.0), (60.0, 60.0)))


def _probe(truth: Truth = STEADY, *, seed: int = 1, **make: float) -> SimulatedProbe:
    return SimulatedProbe(ProbeMake(**{"noise_sd_k": 0.0, "misplaced_frac": 0.0, **make}), truth, seed)


def test_it_settles_on_the_truth_and_is_late_before() -> None:
    probe = _probe(lag_s=4.0)
    # A first-order lag has 63 % of the step after one time constant.
    assert probe.read_c(4.0) == pytest.approx(22 + 0.632 * (60 - 22), abs=0.2)
    assert probe.read_c(60.0) == 60.0
    assert _probe(lag_s=12.0).read_c(4.0) < probe.read_c(4.0)


def test_on_a_ramp_it_stays_behind_by_its_lag() -> None:
    # Half a kelvin a second, four seconds late: two kelvins.
    assert _probe(RAMP, lag_s=4.0).read_c(90.0) == pytest.approx(55.0 - 2.0, abs=0.15)


def test_a_tip_beside_the_middle_reads_what_is_there() -> None:
    assert _probe(misplaced_frac=0.25).read_c(120.0) == pytest.approx(70.0)
    assert _probe(misplaced_frac=-0.25).read_c(120.0) == pytest.approx(75.0)
    assert _probe(offset_k=1.5).read_c(120.0) == 61.5


def test_noise_is_the_same_for_the_same_seed_and_as_large_as_it_says() -> None:
    probe = _probe(noise_sd_k=0.5)
    shown = [probe.read_c(100.0 + n) for n in range(150)]
    assert shown == [probe.read_c(100.0 + n) for n in range(150)]
    assert statistics.pstdev(shown) == pytest.approx(0.5, rel=0.2)
    assert _probe(noise_sd_k=0.5, seed=2).read_c(100.0) != shown[0]


@pytest.mark.parametrize("bad", [{"lag_s": 0.0}, {"noise_sd_k": 9.0}, {"misplaced_frac": 0.9}, {"offset_k": -20.0}])
def test_a_thermometer_nobody_has_is_refused(bad: dict) -> None:
    with pytest.raises(OutOfRangeError):
        ProbeMake(**bad)


def test_beyond_what_is_known_it_holds() -> None:
    assert STEADY.at(9e9, 2.0) == 80.0
    assert STEADY.at(-5.0, -1.0) == 90.0
