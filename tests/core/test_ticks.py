"""What is ticked stays done while the list is as it was, and no longer when it has grown."""

from __future__ import annotations

import pytest

from vianda.core.supply.ticks import SAME_FRAC, SAME_G, Listed, Tick, ticked


def _more(then: float | None, now: float, *, counted: bool = False) -> float:
    (mark,) = ticked("prep/2026-12-04", [Tick("relish", then)], {"relish": Listed(now, counted)})
    return mark.more


@pytest.mark.parametrize(
    ("then", "now", "more"),
    [
        (300.0, 300.0, 0.0),
        (300.0, 450.0, 150.0),
        # It takes less by now: what was weighed is enough.
        (450.0, 300.0, 0.0),
        (0.0, 5.0, 5.0),
        # Just within a scale's last digits, and just outside.
        (50.0, 50.0 + SAME_G, 0.0),
        (50.0, 50.0 + SAME_G + 0.1, SAME_G + 0.1),
        # Just within one in a hundred of a large amount, and just outside.
        ((1 - SAME_FRAC) * 5000.0, 5000.0, 0.0),
        ((1 - SAME_FRAC) * 5000.0 - 1.0, 5000.0, 51.0),
        # Of a tick of long ago nobody knows how much it was.
        (None, 450.0, 0.0),
    ],
)
def test_grams_that_have_grown(then: float | None, now: float, more: float) -> None:
    assert _more(then, now) == pytest.approx(more)


def test_a_piece_more_is_one_however_many_there_are() -> None:
    assert _more(300.0, 301.0, counted=True) == 1.0
    assert _more(300.0, 300.0, counted=True) == 0.0


def test_a_line_that_is_gone_has_no_tick_and_others_have_none() -> None:
    assert ticked("prep/2026-12-04", [Tick("relish", 300.0)], {"onion": Listed(300.0)}) == ()
