"""The normal distribution against SciPy (an independent implementation) and the tables."""

from __future__ import annotations

from statistics import NormalDist

import numpy as np
import pytest
from scipy.special import ndtr

from vianda.core.inventory.fat_range import Z_90, normal_cdf


def test_the_polynomial_is_as_near_as_the_handbook_says() -> None:
    # Abramowitz and Stegun 7.1.26 promises |error| of erf below 1.5e-7, so of Φ below half of that.
    z = np.linspace(-9, 9, 20_001)
    assert float(np.abs(normal_cdf(z) - ndtr(z)).max()) < 0.75e-7


def test_it_rises_from_nought_to_one() -> None:
    z = np.linspace(-40, 40, 4001)
    values = normal_cdf(z)
    assert (values[0], values[-1]) == (0.0, 1.0)
    assert float(np.diff(values).min()) >= -1e-12


def test_half_of_a_ninety_per_cent_range_is_the_tables_1_645() -> None:
    assert pytest.approx(1.6449, abs=1e-4) == Z_90
    assert NormalDist().cdf(Z_90) == pytest.approx(0.95)
