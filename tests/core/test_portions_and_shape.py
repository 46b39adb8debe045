from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.bun_fit import fitting_bun
from vianda.core.cook_yield import along, cooked_yield_frac, diameter_shrink_frac
from vianda.core.errors import OutOfRangeError
from vianda.core.kitchen import Kitchen, Surface
from vianda.core.portions import divide
from vianda.core.shape import centres_at_once, disc_diameter_mm, raw_density_g_per_ml


@given(st.integers(1, 500), st.floats(1, 100_000), st.sampled_from([1, 2, 5, 10]))
def test_pieces_multiply_back_to_the_batch(pieces: int, batch: float, step: int) -> None:
    try:
        p = divide(portioning="by_batch", pieces=pieces, piece_mass_g=1, batch_mass_g=batch, step_g=step)
    except OutOfRangeError:
        assert batch / pieces < step * 1.5
        return
    light = p.pieces - p.heavier_pieces
    assert p.heavier_pieces * p.heavier_mass_g + light * p.piece_mass_g == p.batch_mass_g
    assert p.heavier_pieces < p.pieces
    assert abs(p.batch_mass_g - batch) <= step / 2 + 1e-6


def test_seven_hundred_grams_into_eight_on_a_gram_scale() -> None:
    p = divide(portioning="by_batch", pieces=8, piece_mass_g=0, batch_mass_g=700, step_g=1)
    assert (p.heavier_pieces, p.heavier_mass_g, p.piece_mass_g, p.remainder_g) == (4, 88, 87, 4)


def test_a_coarse_scale_hands_out_whole_steps() -> None:
    p = divide(portioning="by_batch", pieces=8, piece_mass_g=0, batch_mass_g=700, step_g=5)
    assert (p.piece_mass_g, p.heavier_pieces) == (85, 4)


def test_by_piece_the_wanted_weight_decides_the_batch() -> None:
    p = divide(portioning="by_piece", pieces=40, piece_mass_g=85.04, batch_mass_g=0, step_g=1)
    assert (p.piece_mass_g, p.batch_mass_g, p.heavier_pieces) == (85, 3400, 0)


@pytest.mark.parametrize("pieces", [0, -3, 5001])
def test_an_impossible_count_is_refused(pieces: int) -> None:
    with pytest.raises(OutOfRangeError, match="1 to 5000"):
        divide(portioning="by_piece", pieces=pieces, piece_mass_g=85, batch_mass_g=0, step_g=1)


def test_a_piece_below_the_scale_is_refused() -> None:
    with pytest.raises(OutOfRangeError, match="step of 10 g"):
        divide(portioning="by_batch", pieces=100, piece_mass_g=0, batch_mass_g=500, step_g=10)


@given(st.floats(10, 1000), st.floats(3, 60), st.floats(0, 0.6))
def test_disc_volume_closes(mass: float, thickness: float, fat: float) -> None:
    density = raw_density_g_per_ml(fat, packing=1.0)
    d = disc_diameter_mm(mass_g=mass, thickness_mm=thickness, density_g_per_ml=density)
    volume_ml = math.pi * d * d / 4 * thickness / 1000
    assert volume_ml * density == pytest.approx(mass)


def test_fatter_meat_is_lighter_and_shrinks_more() -> None:
    assert raw_density_g_per_ml(0.3, packing=1) < raw_density_g_per_ml(0.1, packing=1)
    assert diameter_shrink_frac(0.3).usual > diameter_shrink_frac(0.1).usual
    assert cooked_yield_frac(0.3).usual < cooked_yield_frac(0.1).usual


def test_shrink_stays_within_what_cooks_report() -> None:
    # Common practice, no published source: the diameter loses 10 to 30 %.
    assert diameter_shrink_frac(0.10).usual >= 0.10
    assert diameter_shrink_frac(0.30).high <= 0.30 + 1e-12


def test_beyond_the_table_there_is_no_yield() -> None:
    with pytest.raises(OutOfRangeError, match="75 % fat"):
        cooked_yield_frac(0.75)


def test_lines_run_on_beyond_their_ends() -> None:
    assert along(((5, 45), (8, 90)), 4) == 30
    assert along(((5, 45), (8, 90)), 9) == 105


@given(st.floats(40, 300), st.floats(0, 20), st.floats(100, 900), st.floats(100, 600), st.booleans())
def test_pieces_on_a_surface_neither_overlap_nor_hang_over(
    d: float, gap: float, w: float, h: float, ring: bool
) -> None:
    surface = Surface("s", "s", "pan" if ring else "plate", w, w if ring else h, ring)
    centres = centres_at_once(surface=surface, diameter_mm=d, gap_mm=gap)
    for (x1, y1), (x2, y2) in itertools.combinations(centres, 2):
        assert math.hypot(x1 - x2, y1 - y2) >= d + gap - 1e-6 - (gap if not ring else 0)
    for x, y in centres:
        if ring:
            assert math.hypot(x - w / 2, y - w / 2) + d / 2 <= w / 2 + 1e-6
        else:
            assert d / 2 - 1e-6 <= x <= w - d / 2 + 1e-6
            assert d / 2 - 1e-6 <= y <= h - d / 2 + 1e-6


@pytest.mark.parametrize(("ratio", "most"), [(1.0, 1), (2.0, 2), (2.1547, 3), (2.4142, 4), (2.7013, 5), (3.0, 7)])
def test_a_pan_never_holds_more_than_the_densest_known_packing(ratio: float, most: int) -> None:
    # Densest packings of equal circles in a circle for n = 1–5 and 7 (from memory, high confidence): the radius
    # ratios 1, 2, 1 + 2/√3, 1 + √2, 1 + √(2(1 + 1/√5)), 3.
    pan = Surface("p", "p", "pan", 100 * ratio * 1.0001, 100 * ratio * 1.0001, True)
    assert len(centres_at_once(surface=pan, diameter_mm=100, gap_mm=0)) == most


@pytest.mark.parametrize(
    ("cooked_mm", "bun"), [(106, "soft-100"), (83, "soft-90"), (60, "slider-65"), (140, "soft-115"), (96, "soft-90")]
)
def test_the_bun_is_the_nearest_and_bare_bread_counts_double(kitchen: Kitchen, cooked_mm: float, bun: str) -> None:
    assert fitting_bun(kitchen, cooked_diameter_mm=cooked_mm).key == bun
