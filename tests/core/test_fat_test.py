from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.fat_test import FAT_LEFT, fat_test


@pytest.mark.parametrize("fat", [0.05, 0.10, 0.20, 0.30])
def test_a_sample_made_of_the_tables_own_rows_is_read_back(fat: float) -> None:
    # 200 g raw; residue as SR28's rows would leave it; the fat that ran out is the rest.
    left = dict(FAT_LEFT)[fat]
    lean_g = 130.0
    found = (
        fat_test(raw_g=200, lean_g=lean_g, fat_g=200 * fat - left * lean_g, liquid_g=5, step_g=1)
        if (200 * fat > left * lean_g)
        else None
    )
    if found is not None:
        assert found.fat_frac == pytest.approx(fat, abs=1e-6)


@given(st.floats(50, 1000), st.floats(0.4, 0.8), st.floats(0, 0.35), st.sampled_from([1, 2, 5]))
def test_a_test_is_a_fraction_with_a_doubt_made_of_its_parts(raw: float, lean: float, fat: float, step: int) -> None:
    assume(lean + fat <= 1)
    found = fat_test(raw_g=raw, lean_g=raw * lean, fat_g=raw * fat, liquid_g=0, step_g=step)
    assert fat <= found.fat_frac <= 1
    parts = (found.sd_weighing_frac, found.sd_left_frac, found.sd_lost_frac, found.sd_sample_frac)
    assert found.sd_frac == pytest.approx(math.hypot(*parts))
    assert found.steam_g == pytest.approx(raw * (1 - lean - fat), abs=1e-6)


def test_a_coarser_scale_and_a_smaller_sample_know_less() -> None:
    fine = fat_test(raw_g=200, lean_g=130, fat_g=20, liquid_g=5, step_g=1)
    coarse = fat_test(raw_g=200, lean_g=130, fat_g=20, liquid_g=5, step_g=5)
    small = fat_test(raw_g=50, lean_g=32.5, fat_g=5, liquid_g=1.25, step_g=1)
    assert fine.sd_frac < coarse.sd_frac
    assert fine.sd_frac < small.sd_frac


@pytest.mark.parametrize(
    ("weights", "says"),
    [
        ({"raw_g": 10, "lean_g": 5, "fat_g": 1, "liquid_g": 0}, "A sample weighs"),
        ({"raw_g": 100, "lean_g": 90, "fat_g": 30, "liquid_g": 0}, "was a pan"),
        ({"raw_g": 100, "lean_g": 0, "fat_g": 30, "liquid_g": 0}, "residue"),
        ({"raw_g": 100, "lean_g": 60, "fat_g": -1, "liquid_g": 0}, "fat weighs"),
        ({"raw_g": float("nan"), "lean_g": 60, "fat_g": 1, "liquid_g": 0}, "sample weighs"),
    ],
)
def test_weights_that_cannot_be_are_refused_in_words(weights: dict[str, float], says: str) -> None:
    with pytest.raises(OutOfRangeError, match=says):
        fat_test(**weights, step_g=1)
