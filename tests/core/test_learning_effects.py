"""Effects that add up: against integration on a grid, against refits, and against what must hold of any data."""

from __future__ import annotations

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from vianda.core.learning.effects import OUTLIER_Z, SCALE_HIGH, SCALE_LOW, Seen, _left_out, learn, posterior

PRIOR = {"kitchen": 0.10, "smashed": 0.15, "thick": 0.20}
SEEN = [
    Seen(0.31, 0.10, ("kitchen", "smashed")),
    Seen(0.12, 0.20, ("kitchen", "thick")),
    Seen(0.22, 0.12, ("kitchen", "smashed")),
    Seen(-0.05, 0.15, ("kitchen", "thick")),
]


def _normal(x: np.ndarray, sd: float) -> np.ndarray:
    return np.exp(-0.5 * (x / sd) ** 2)


def test_the_closed_form_is_the_integral() -> None:
    """Three effects on a grid, weighed by the densities themselves: no linear algebra in it."""
    axes = [np.linspace(-6 * sd, 6 * sd, 161) for sd in PRIOR.values()]
    kitchen, smashed, thick = np.meshgrid(*axes, indexing="ij")
    at = {"kitchen": kitchen, "smashed": smashed, "thick": thick}
    weight = math.prod(_normal(at[k], sd) for k, sd in PRIOR.items())
    for s in SEEN:
        weight = weight * _normal(s.value - sum(at[e] for e in s.effects), s.sd)
    weight /= weight.sum()
    found = posterior(SEEN, PRIOR)
    for effects in (("kitchen",), ("smashed",), ("kitchen", "smashed"), ("kitchen", "thick")):
        x = sum(at[e] for e in effects)
        mean = float((weight * x).sum())
        sd = math.sqrt(float((weight * (x - mean) ** 2).sum()))
        assert found.of(*effects).mean == pytest.approx(mean, abs=1e-6)
        assert found.of(*effects).sd == pytest.approx(sd, rel=1e-5)


def test_one_after_the_other_is_all_at_once_in_any_order() -> None:
    whole = posterior(SEEN, PRIOR)
    for order in itertools.permutations(SEEN):
        again = posterior(order, PRIOR)
        for key in PRIOR:
            assert again.of(key).mean == pytest.approx(whole.of(key).mean, abs=1e-12)
            assert again.of(key).sd == pytest.approx(whole.of(key).sd, abs=1e-12)


def test_what_was_never_seen_has_its_prior_and_the_next_cook_its_own_chance() -> None:
    found = posterior(SEEN[:1], PRIOR)
    assert (found.of("thick").mean, found.of("thick").sd) == (0.0, 0.20)
    assert found.of("kitchen", "thick").sd == pytest.approx(math.hypot(found.of("kitchen").sd, 0.20))
    assert found.next("kitchen", sd=0.3).sd == pytest.approx(math.hypot(found.of("kitchen").sd, 0.3))
    assert posterior([], PRIOR).of("kitchen").sd == 0.10
    assert learn([], PRIOR).outliers == ()


def test_leaving_one_out_is_refitting_without_it() -> None:
    short = _left_out(SEEN, range(len(SEEN)), PRIOR)
    for n, one in enumerate(SEEN):
        others = posterior([s for s in SEEN if s is not one], PRIOR)
        told = others.next(*one.effects, sd=one.sd)
        assert short[n] == pytest.approx((one.value - told.mean) / told.sd, abs=1e-9)


@given(st.lists(st.floats(-0.5, 0.5), min_size=1, max_size=12), st.floats(0.02, 0.5))
def test_more_is_known_after_each_cook_and_the_mean_lies_between_prior_and_data(values: list[float], sd: float) -> None:
    seen = [Seen(v, sd, ("kitchen",)) for v in values]
    sds = [posterior(seen[:n], PRIOR).of("kitchen").sd for n in range(len(seen) + 1)]
    assert all(b < a for a, b in itertools.pairwise(sds))
    mean = posterior(seen, PRIOR).of("kitchen").mean
    assert min(0.0, *values) - 1e-12 <= mean <= max(0.0, *values) + 1e-12


@given(st.floats(-0.2, 0.2), st.floats(1.0, 3.0), st.integers(0, 5), st.booleans())
def test_one_that_does_not_belong_is_named_and_moves_nothing(
    usual: float, off: float, place: int, upwards: bool
) -> None:
    rest = [Seen(usual + 0.01 * n, 0.08, ("kitchen",)) for n in range(5)]
    strange = Seen(usual + (off if upwards else -off), 0.08, ("kitchen",))
    found = learn([*rest[:place], strange, *rest[place:]], PRIOR)
    assert found.outliers == (place,)
    assert found.of("kitchen").mean == pytest.approx(learn(rest, PRIOR).of("kitchen").mean, abs=1e-12)


def test_just_inside_counts_and_just_outside_is_an_outlier() -> None:
    rest = [Seen(0.0, 0.1, ("kitchen",)) for _ in range(8)]
    told = posterior(rest, PRIOR).next("kitchen", sd=0.1)
    inside, outside = (Seen(told.mean + (OUTLIER_Z + by) * told.sd, 0.1, ("kitchen",)) for by in (-0.01, 0.01))
    assert learn([*rest, inside], PRIOR).outliers == ()
    assert learn([*rest, outside], PRIOR).outliers == (8,)


def test_when_many_do_not_belong_it_is_the_error_that_was_too_small() -> None:
    wild = [Seen(v, 0.05, ("kitchen",)) for v in (0.9, -0.8, 0.7, -0.9, 0.8, -0.7)]
    found = learn(wild, PRIOR)
    assert found.outliers == ()
    assert found.scale > 2.0
    wilder = [Seen(3 * s.value, s.sd, s.effects) for s in wild * 3]
    assert learn(wilder, PRIOR).scale == SCALE_HIGH
    usual, strange = Seen(0.0, 0.05, ("kitchen",)), Seen(2.0, 0.05, ("kitchen",))
    # A quarter of all is named, and the one that is there even where it is more; of two in seven neither.
    assert learn([*[usual] * 6, strange, replace(strange, value=-2.0)], PRIOR).outliers == (6, 7)
    assert learn([*[usual] * 5, strange, replace(strange, value=-2.0)], PRIOR).outliers == ()
    assert learn([usual, usual, strange], PRIOR).outliers == (2,)
    assert learn([strange], PRIOR).outliers == (0,)


@given(st.lists(st.floats(-3, 3), min_size=1, max_size=20))
def test_the_scale_of_errors_stays_in_its_bounds(values: list[float]) -> None:
    found = learn([Seen(v, 0.1, ("kitchen",)) for v in values], PRIOR)
    assert SCALE_LOW <= found.scale <= SCALE_HIGH


def test_cooks_that_agree_better_than_was_thought_narrow_the_error() -> None:
    same = [Seen(0.1, 0.2, ("kitchen",)) for _ in range(10)]
    found = learn(same, PRIOR)
    assert SCALE_LOW < found.scale < 0.8
    assert found.next("kitchen", sd=0.2).sd < posterior(same, PRIOR).next("kitchen", sd=0.2).sd


@given(st.integers(0, 2**31 - 1))
def test_styles_that_share_a_kitchen_learn_from_each_other(seed: int) -> None:
    rng = np.random.default_rng(seed)
    seen = [Seen(0.3 + float(rng.normal(0, 0.05)), 0.05, ("kitchen", "smashed")) for _ in range(6)]
    assume(all(s.value > 0.1 for s in seen))
    found = posterior(seen, PRIOR)
    # Nobody ever cooked a thick one here; the kitchen's share of the news is its news too.
    assert 0.0 < found.of("kitchen", "thick").mean < found.of("kitchen", "smashed").mean
