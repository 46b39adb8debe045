"""The simulated bench scale: the same for the same seed, and a scale in all that a cook would notice."""

from __future__ import annotations

import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.devices.scale import ScaleMake
from vianda.devices.simulated_hand import correction_g, lean_g, piece_g
from vianda.devices.simulated_scale import LEAN_S, Done, SimulatedScale


def _scale(*actions: Done, step: int = 1, seed: int = 7, **make: float) -> SimulatedScale:
    return SimulatedScale(ScaleMake(step_g=step, capacity_g=make.pop("capacity_g", 5000), **make), seed, actions)  # type: ignore[arg-type]


def _still(*actions: Done, step: int = 1, **make: float) -> SimulatedScale:
    return _scale(*actions, step=step, noise_sd_g=0.0, drift_g_per_min=0.0, **make)


@given(st.integers(0, 2**31 - 1), st.floats(0, 600), st.floats(1, 4000))
def test_the_same_seed_shows_the_same(seed: int, at_s: float, grams: float) -> None:
    actions = (Done(1.0, "load", grams),)
    assert _scale(*actions, seed=seed).read(at_s) == _scale(*actions, seed=seed).read(at_s)


def test_another_seed_is_another_scale() -> None:
    ticks = [k / 10 for k in range(200)]
    readings = [[_scale(seed=s, noise_sd_g=2.0).read(t).shown_g for t in ticks] for s in (1, 2)]
    assert readings[0] != readings[1]


@pytest.mark.parametrize("step", [1, 2, 5])
def test_it_counts_in_its_step(step: int) -> None:
    scale = _scale(Done(1.0, "load", 86.4), step=step)
    for tick in range(100):
        shown = scale.read(tick / 10).shown_g
        assert shown is not None
        assert shown % step == 0
    assert abs(_still(Done(1.0, "load", 86.4), step=step).read(9.0).shown_g - 86.4) <= step / 2  # type: ignore[operator]


def test_it_swings_past_and_settles() -> None:
    scale = _still(Done(1.0, "load", 200.0))
    shown = [scale.read(1.0 + k / 10).shown_g for k in range(40)]
    assert max(shown) > 210  # type: ignore[type-var, operator]
    assert scale.read(1.2).state == "moving"
    # e^(−ζωt) has fallen below a four-hundredth after one second: ζω = 0.45 × 2π × 2.2 = 6.2 a second.
    assert shown[10] == pytest.approx(200, abs=1)
    assert scale.read(2.6).state == "steady"
    assert set(shown[20:]) == {200.0}


def test_the_swing_is_that_of_the_spring() -> None:
    # First peak of a damped spring: 1 + e^(−πζ/√(1−ζ²)), here 1.205, at π/ω_d = 0.254 s.
    scale = _still(Done(1.0, "load", 1000.0))
    peak = max(scale.read(1.0 + k / 10).shown_g or 0 for k in range(10))
    assert 1150 < peak <= 1206


def test_noise_is_about_nought_and_as_wide_as_said() -> None:
    scale = _scale(Done(0.0, "load", 500.0), noise_sd_g=3.0, drift_g_per_min=0.0)
    shown = [scale.read(20 + k / 10).shown_g or 0 for k in range(3000)]
    # Standard errors: of the mean 3/√3000 = 0.055, of the sd 0.039. Rounding to a gram adds 1/12 to the square.
    assert statistics.mean(shown) == pytest.approx(500, abs=0.2)
    assert statistics.stdev(shown) == pytest.approx((9 + 1 / 12) ** 0.5, abs=0.15)


def test_it_drifts_and_a_tare_takes_the_drift_away() -> None:
    actions = (Done(0.0, "load", 85.0),)
    scale = _scale(*actions, noise_sd_g=0.0, drift_g_per_min=0.5)
    assert scale.read(5).shown_g == 85
    assert scale.read(20 * 60).shown_g == 95
    tared = _scale(*actions, Done(1200.0, "load", -85.0), Done(1210.0, "tare"), noise_sd_g=0.0, drift_g_per_min=0.5)
    assert tared.read(1205).shown_g == 10
    assert tared.read(1215).shown_g == 0


def test_a_paper_is_tared_away_and_shows_when_it_is_gone() -> None:
    scale = _still(Done(1.0, "load", 4.0), Done(4.0, "tare"), Done(6.0, "load", 85.0), Done(12.0, "load", -89.0))
    assert scale.read(3.5).shown_g == 4
    assert scale.read(5.5).shown_g == 0
    assert scale.read(10.0).shown_g == 85
    assert scale.read(10.0).gross_g == 89
    assert scale.read(16.0).shown_g == -4


def test_beyond_its_capacity_it_shows_dashes() -> None:
    # Nine steps past its capacity it may still show a weight; beyond that it must not.
    assert _still(Done(0.0, "load", 2009.0), capacity_g=2000).read(9).state == "steady"
    over = _still(Done(0.0, "load", 2010.0), capacity_g=2000).read(9)
    assert (over.state, over.shown_g) == ("overload", None)
    # The tare does not make room.
    tared = _still(Done(0.0, "load", 1500.0), Done(5.0, "tare"), Done(6.0, "load", 600.0), capacity_g=2000)
    assert tared.read(9).state == "overload"
    assert _still(Done(0.0, "load", -300.0)).read(9).state == "underload"


def test_someone_leaning_looks_like_a_weight_and_goes_away() -> None:
    scale = _still(Done(0.0, "load", 85.0), Done(10.0, "lean", 300.0))
    assert scale.read(9.9).shown_g == 85
    during = scale.read(12.0)
    assert during.shown_g == pytest.approx(385, abs=2)
    # It is the treacherous part that a leaning hand can stand still.
    assert during.state == "steady"
    assert scale.read(10.3).state == "moving"
    assert scale.read(10.0 + LEAN_S + 2).shown_g == 85


@pytest.mark.parametrize(
    ("wrong", "where"), [({"step_g": 3}, "/step_g"), ({"capacity_g": 0}, "/capacity_g"), ({"damping": 1.0}, "/damping")]
)
def test_a_scale_that_cannot_be_is_refused(wrong: dict, where: str) -> None:
    with pytest.raises(OutOfRangeError) as refused:
        ScaleMake(**{"step_g": 1, "capacity_g": 5000, **wrong})
    assert refused.value.field == where


@given(st.integers(0, 2**31 - 1), st.integers(1, 500))
def test_hands_are_off_by_a_little_and_correct_towards_the_target(seed: int, number: int) -> None:
    took = piece_g(seed=seed, number=number, target_g=85)
    assert took > 0
    after = took + correction_g(seed=seed, number=number, wanted_g=85 - took)
    assert abs(after - 85) <= 0.15 * abs(took - 85) + 1e-9
    assert 150 < lean_g(seed=seed, number=number) < 450


def test_hands_are_off_by_as_much_as_said() -> None:
    taken = [piece_g(seed=3, number=n, target_g=100) for n in range(2000)]
    assert statistics.mean(taken) == pytest.approx(100, abs=0.3)
    assert statistics.stdev(taken) == pytest.approx(3.5, abs=0.25)
