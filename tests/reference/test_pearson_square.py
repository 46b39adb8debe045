"""The Pearson square against a worked example as extension leaflets print it.

From memory, high confidence: the classic exercise mixes maize of 9 % and soybean meal of 44 % crude protein to 16 %:
28 parts of maize and 7 of soybean meal, 80 and 20 per cent. The method is the same for any constituent.
"""

from __future__ import annotations

import pytest

from vianda.core.target.pearson import pearson_square


def test_the_textbook_example_of_maize_and_soybean_meal() -> None:
    # Exact arithmetic, so no tolerance beyond float dust.
    square = pearson_square(lean_fat_frac=0.09, rich_fat_frac=0.44, target_frac=0.16)
    assert (square.lean_parts, square.rich_parts) == pytest.approx((28, 7))
    assert (square.lean_share_frac, square.rich_share_frac) == pytest.approx((0.80, 0.20))
