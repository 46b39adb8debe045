"""Discs on a surface against the densest packings known.

In a circle: Graham, Lubachevsky, Nurmela & Östergård (1998), "Dense packings of congruent circles in a circle", ratios
of the radii for 1 to 19. In a square: sides in radii, as tabulated by Specht. Both from memory, high confidence.
"""

from __future__ import annotations

import csv
from importlib.resources import files

import pytest

from vianda.core.equipment.kitchen import Surface
from vianda.core.shape.laying import discs_at_once

IN_CIRCLE = {
    1: 1.0,
    2: 2.0,
    3: 2.1547,
    4: 2.4142,
    5: 2.7013,
    6: 3.0,
    7: 3.0,
    8: 3.3048,
    9: 3.6131,
    10: 3.8130,
    11: 3.9238,
    12: 4.0296,
    13: 4.2361,
    14: 4.3284,
    15: 4.5214,
    16: 4.6154,
    17: 4.7920,
    18: 4.8637,
    19: 4.8637,
}
# Side in radii of a disc, and what our rows reach there. Rows are the optimum for 1, 2, 4, 5, 6, 9, 12 and 16; the
# other optima are irregular, and rows hold one fewer, at 8 two: pieces laid by hand lie in rows.
IN_SQUARE = {
    1: (2.0, 1),
    2: (3.4142, 2),
    3: (3.9319, 2),
    4: (4.0, 4),
    5: (4.8284, 5),
    6: (5.3282, 6),
    7: (5.7321, 6),
    8: (5.8637, 6),
    9: (6.0, 9),
    10: (6.7474, 9),
    11: (7.0225, 10),
    12: (7.1450, 12),
    16: (8.0, 16),
}


@pytest.mark.parametrize("n", IN_CIRCLE)
def test_our_table_is_the_published_one(n: int) -> None:
    text = (files("vianda.core.shape") / "data" / "circle_packings.csv").read_text(encoding="utf-8")
    ours = {float(row["pan_radius"]) for row in csv.DictReader(text.splitlines()) if int(row["n"]) == n}
    # Four decimals are what is remembered.
    assert len(ours) == 1
    assert ours.pop() == pytest.approx(IN_CIRCLE[n], abs=6e-5)


@pytest.mark.parametrize("n", IN_CIRCLE)
def test_a_pan_of_the_published_size_holds_them(n: int) -> None:
    across = 100 * IN_CIRCLE[n] * 1.0001
    most = max(k for k, ratio in IN_CIRCLE.items() if ratio <= IN_CIRCLE[n] * 1.0001)
    pan = Surface("p", "p", "pan", across, across, True)
    assert len(discs_at_once(surface=pan, diameter_mm=100, gap_mm=0).centres_mm) == most


@pytest.mark.parametrize(("n", "side", "reached"), [(n, side, reached) for n, (side, reached) in IN_SQUARE.items()])
def test_a_square_plate_of_the_published_size_holds_what_rows_can(n: int, side: float, reached: int) -> None:
    plate = Surface("p", "p", "plate", 50 * side * 1.0001, 50 * side * 1.0001, False)
    laid = len(discs_at_once(surface=plate, diameter_mm=100, gap_mm=0).centres_mm)
    assert laid == reached <= n
