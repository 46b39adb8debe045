"""How many will come: against SciPy's own t, and how often the count suffices on drawn evenings."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from vianda.core.model.service import Count
from vianda.core.supply.covers import LAST_COUNTS, LEAST_COUNTS, forecast


def _counts(*guests: int, lacking: tuple[int, ...] = ()) -> list[Count]:
    more = (*lacking, *([0] * (len(guests) - len(lacking))))
    return [
        Count(f"2026-{1 + n // 28:02d}-{1 + n % 28:02d}", g, lacking=short)
        for n, (g, short) in enumerate(zip(guests, more, strict=True))
    ]


@pytest.mark.parametrize("n", [0, 1, 2, 3])
def test_three_evenings_are_the_least(n: int) -> None:
    found = forecast(_counts(*[40] * n))
    assert (found is None) is (n < LEAST_COUNTS)


@given(st.lists(st.integers(0, 400), min_size=3, max_size=LAST_COUNTS))
def test_the_bound_is_the_prediction_bound_of_the_books(guests: list[int]) -> None:
    found = forecast(_counts(*guests))
    assert found is not None
    values, n = np.array(guests, dtype=float), len(guests)
    # SciPy's distribution of Student's t, with the spread of a next value.
    bound = stats.t(n - 1, values.mean(), values.std(ddof=1) * math.sqrt(1 + 1 / n) or 1e-12).ppf(0.9)
    assert found.enough == pytest.approx(math.ceil(bound - 1e-6), abs=1e-9)
    assert found.low <= found.usual <= found.enough == found.high
    assert found.counts == n


@pytest.mark.parametrize("n", [4, 6, 12, 30])
@pytest.mark.parametrize("drawn", ["normal", "poisson"])
def test_it_suffices_on_about_nine_evenings_of_ten(n: int, drawn: str) -> None:
    rng = np.random.default_rng(7)
    held = 0
    rounds = 3000
    for _ in range(rounds):
        many = rng.normal(60, 9, n + 1) if drawn == "normal" else rng.poisson(60, n + 1)
        *past, came = (max(0, round(x)) for x in many)
        found = forecast(_counts(*past))
        assert found is not None
        held += came <= found.enough
    # Whole guests round up, which adds a little; four standard errors are 0.022.
    assert 0.89 <= held / rounds <= 0.95


def test_where_numbers_grow_the_last_twelve_are_looked_at() -> None:
    old, new = [20] * 30, [60, 61, 59, 62, 60, 58, 61, 60, 59, 60, 61, 60]
    found, only = forecast(_counts(*old, *new)), forecast(_counts(*new))
    assert found is not None
    assert only is not None
    assert (found.usual, found.enough, found.counts) == (only.usual, only.enough, 12)
    # Whatever order they were written in.
    assert forecast(list(reversed(_counts(*old, *new)))) == found


def test_who_went_without_would_have_come() -> None:
    plain, short = forecast(_counts(40, 40, 40)), forecast(_counts(40, 40, 40, lacking=(0, 6, 0)))
    assert plain is not None
    assert short is not None
    assert (plain.usual, plain.enough, plain.unmet) == (40, 40, 0)
    assert (short.usual, short.unmet) == (42, 1)
    assert short.enough > 42
    assert "went without" in short.says.text
    assert "went without" not in plain.says.text


@pytest.mark.parametrize(("n", "rough"), [(3, True), (5, True), (6, False)])
def test_few_evenings_are_said_to_be_few(n: int, rough: bool) -> None:
    found = forecast(_counts(*range(40, 40 + n)))
    assert found is not None
    assert ("the range is wide" in found.says.text) is rough


def test_nobody_is_fewer_than_none() -> None:
    found = forecast(_counts(0, 30, 0))
    assert found is not None
    assert found.low == 0
