"""How many lie on a surface at once: never overlapping, never worse than the square grid, near the known optimum."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.equipment.kitchen import Surface
from vianda.core.shape.laying import blocks_at_once, discs_at_once


def _plate(w: float, h: float) -> Surface:
    return Surface("s", "s", "plate", w, h, False)


def _pan(d: float) -> Surface:
    return Surface("s", "s", "pan", d, d, True)


@given(st.floats(40, 300), st.floats(0, 20), st.floats(100, 900), st.floats(100, 600), st.booleans())
def test_pieces_neither_overlap_nor_hang_over(d: float, gap: float, w: float, h: float, pan: bool) -> None:
    laid = discs_at_once(surface=_pan(w) if pan else _plate(w, h), diameter_mm=d, gap_mm=gap)
    for (x1, y1), (x2, y2) in itertools.combinations(laid.centres_mm, 2):
        assert math.hypot(x1 - x2, y1 - y2) >= d + gap - 1e-3
    for x, y in laid.centres_mm:
        if pan:
            assert math.hypot(x - w / 2, y - w / 2) + d / 2 <= w / 2 + 1e-3
        else:
            assert d / 2 - 1e-6 <= x <= w - d / 2 + 1e-6
            assert d / 2 - 1e-6 <= y <= h - d / 2 + 1e-6


@given(st.floats(40, 300), st.floats(0, 20), st.floats(100, 900), st.floats(100, 600), st.booleans())
def test_never_fewer_than_the_square_grid(d: float, gap: float, w: float, h: float, pan: bool) -> None:
    laid = discs_at_once(surface=_pan(w) if pan else _plate(w, h), diameter_mm=d, gap_mm=gap)
    if pan:
        # A grid of squares with a disc, an edge or a corner of it in the middle of the pan.
        pitch, reach, best = d + gap, (w - d) / 2, 0
        for off in itertools.product((0.0, 0.5), repeat=2):
            spots = itertools.product(range(-20, 21), repeat=2)
            best = max(best, sum(math.hypot((i + off[0]) * pitch, (j + off[1]) * pitch) <= reach for i, j in spots))
    else:
        best = math.floor((w + gap) / (d + gap)) * math.floor((h + gap) / (d + gap))
    assert len(laid.centres_mm) >= best


@given(st.floats(60, 200), st.floats(200, 900), st.floats(200, 600))
def test_a_wider_plate_or_a_smaller_piece_never_holds_fewer(d: float, w: float, h: float) -> None:
    here = len(discs_at_once(surface=_plate(w, h), diameter_mm=d, gap_mm=5).centres_mm)
    assert len(discs_at_once(surface=_plate(w * 1.3, h), diameter_mm=d, gap_mm=5).centres_mm) >= here
    assert len(discs_at_once(surface=_plate(h, w), diameter_mm=d, gap_mm=5).centres_mm) == here


def test_a_piece_wider_than_the_surface_lies_nowhere() -> None:
    assert discs_at_once(surface=_plate(200, 100), diameter_mm=101, gap_mm=0).centres_mm == ()
    assert discs_at_once(surface=_pan(100), diameter_mm=101, gap_mm=0).centres_mm == ()


def test_rows_set_off_against_each_other_lay_fourteen_where_squares_lay_ten() -> None:
    laid = discs_at_once(surface=_plate(700, 400), diameter_mm=132, gap_mm=6)
    assert (len(laid.centres_mm), laid.in_squares) == (14, 10)


@pytest.mark.parametrize(("length", "width", "most"), [(250, 150, 3), (180, 120, 4), (600, 100, 0)])
def test_loaves_lie_in_the_fuller_of_both_ways(length: float, width: float, most: int) -> None:
    laid = blocks_at_once(surface=_plate(530, 325), length_mm=length, width_mm=width, gap_mm=40)
    assert len(laid.centres_mm) == most
