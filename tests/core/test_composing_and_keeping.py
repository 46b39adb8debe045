"""A sauce from what a cook says, scaled, and a tray of it cooled against the published limits."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError, UnreadableEntryError
from vianda.core.heat.after import cools_in_time
from vianda.core.sauce.compose import Lines, composed, scaled
from vianda.core.sauce.keep import AROUND, Cooled, centre_s, keep

SAUCE: Lines = (("mayonnaise", 150.0), ("ketchup", 60.0))


def _said(text: str, lines: Lines = SAUCE) -> dict[str, float]:
    return dict(composed(lines, text, inventory=INVENTORY, kitchen=KITCHEN).lines)


def test_what_is_said_goes_in_by_its_own_measure() -> None:
    now = _said("3 tbsp yoghurt, 2 tsp mustard, 10 g capers")
    # SR28: 245 g of yogurt and 249 g of mustard to a cup of 16 tablespoons or 48 teaspoons.
    assert now["yogurt"] == pytest.approx(3 * 245 / 16, rel=0.05)
    assert now["mustard"] == pytest.approx(2 * 249 / 48, rel=0.05)
    assert now["capers"] == 10.0
    assert now["mayonnaise"] == 150.0


def test_more_of_what_is_there_is_added_to_it_and_no_takes_it_out() -> None:
    assert _said("20 g ketchup")["ketchup"] == 80.0
    assert "ketchup" not in _said("no ketchup")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("20 g unicorn", "unicorn"),
        ("20 g ketchup, 5 g blarg", "blarg"),
        ("mustard", "How much"),
        ("", "Nothing in it names"),
        ("   ", "Nothing in it names"),
        ("1 cup rice", "Say which"),
        ("no ketchup, no mayonnaise", "Nothing in it names"),
    ],
)
def test_a_line_is_taken_whole_or_not_at_all(text: str, words: str) -> None:
    with pytest.raises(UnreadableEntryError, match=words):
        _said(text)


@given(
    st.lists(st.tuples(st.sampled_from("abcdef"), st.floats(0.1, 5000)), min_size=1, unique_by=lambda p: p[0]),
    st.floats(0.1, 1e5),
)
def test_a_scaled_sauce_is_the_same_sauce(lines: list[tuple[str, float]], wanted: float) -> None:
    whole = scaled(lines, whole_g=wanted)
    assert sum(g for _, g in whole) == pytest.approx(wanted, rel=1e-9)
    first, had = lines[0]
    assert dict(whole)[first] / wanted == pytest.approx(had / sum(g for _, g in lines), rel=1e-9)
    if wanted * sum(g for _, g in lines) / had <= 1e6:
        assert dict(scaled(lines, ingredient=first, mass_g=wanted))[first] == pytest.approx(wanted, rel=1e-9)


def test_what_cannot_be_scaled_is_refused() -> None:
    for wrong in (
        {"whole_g": 0.0},
        {"whole_g": float("nan")},
        {"whole_g": 2e6},
        {"ingredient": "ketchup", "mass_g": 9e5},
    ):
        with pytest.raises(OutOfRangeError):
            scaled(SAUCE, **wrong)  # type: ignore[arg-type]
    with pytest.raises(UnknownItemError):
        scaled(SAUCE, ingredient="honey", mass_g=5)


# --- a tray ----------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("cooled", sorted(AROUND))
def test_a_tray_just_shallower_than_the_deepest_does_and_just_deeper_does_not(cooled: Cooled) -> None:
    deepest = keep(30, cooled).deepest_mm
    assert keep(deepest - 0.1, cooled).within
    too_deep = keep(deepest + 0.1, cooled)
    assert not too_deep.within
    assert "too slow" in too_deep.said.text
    found = keep(deepest - 0.1, cooled)
    assert cools_in_time(found.first_h.usual * 3600, found.whole_h.usual * 3600)
    assert not found.surely_within
    assert "not surely" in found.said.text
    sure = keep(deepest * 0.4, cooled)
    assert sure.surely_within
    assert "measure it" in sure.said.text


def test_deeper_is_slower_and_ice_water_faster() -> None:
    shallow, deep, ice = keep(20, "fridge"), keep(60, "fridge"), keep(60, "ice-bath")
    assert shallow.whole_h.usual < deep.whole_h.usual
    assert ice.whole_h.usual < deep.whole_h.usual
    for found in (shallow, deep, ice):
        assert found.first_h.low <= found.first_h.usual <= found.first_h.high
        assert found.first_h.usual < found.whole_h.usual
        assert "Local codes decide" in found.said.text
    for depth in (4.9, 300.1, float("nan")):
        with pytest.raises(OutOfRangeError):
            keep(depth, "fridge")


def test_four_times_the_depth_takes_sixteen_times_as_long_where_the_face_takes_no_part() -> None:
    one, four = (centre_s(d, h=1e6, around_c=0, from_c=57, to_c=21) for d in (20, 40))
    assert four / one == pytest.approx(4.0, rel=0.01)
