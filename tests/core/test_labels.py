"""Labels of containers: what stands on them, how a making is shared out, and where each is printed."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.pipeline.compute import compute
from vianda.core.supply.labels import (
    MOST_CONTAINERS,
    PT_MM,
    SHEETS,
    SMALL_MM2,
    X_HEIGHT_FRAC,
    Label,
    contained,
    label_of_mix,
    laid_out,
    sheet_of,
    type_size_pt,
)

DAY = date(2026, 12, 4)
WHOLE = Label("Smash", 3400.0, DAY, DAY, (), "L1", pieces=40, piece_g=85.0)


def test_a_raw_mix_carries_the_name_its_rule_allows_its_pieces_and_its_allergens() -> None:
    smash = label_of_mix(compute(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN), key="f1", served=DAY)
    assert (smash.allowed_name, smash.pieces, smash.piece_g) == ("ground beef", 40, 85.0)
    loaf = label_of_mix(compute(keepers_loaf(), inventory=INVENTORY, kitchen=KITCHEN), key="f2", served=DAY)
    # With pork and panade it is no ground beef, and no protected name fits.
    assert loaf.allowed_name == ""
    assert {"gluten (wheat)", "milk", "egg"} <= set(loaf.allergens)


@given(st.integers(1, 400), st.integers(1, 100), st.floats(1, 500))
def test_containers_hold_all_pieces_whole_and_all_of_the_mass(pieces: int, containers: int, piece_g: float) -> None:
    whole = replace(WHOLE, pieces=pieces, piece_g=piece_g, mass_g=pieces * piece_g)
    if containers > pieces:
        with pytest.raises(OutOfRangeError):
            contained(whole, containers)
        return
    each = contained(whole, containers)
    assert sum(one.pieces for one in each) == pieces
    assert sum(one.mass_g for one in each) == pytest.approx(whole.mass_g)
    assert max(one.pieces for one in each) - min(one.pieces for one in each) <= 1


def test_what_has_no_pieces_is_shared_out_evenly_and_edges_are_refused() -> None:
    relish = replace(WHOLE, pieces=0, piece_g=0.0, mass_g=900.0)
    assert [one.mass_g for one in contained(relish, 3)] == [300.0] * 3
    assert len(contained(relish, MOST_CONTAINERS)) == MOST_CONTAINERS
    for wrong in (0, -1, MOST_CONTAINERS + 1):
        with pytest.raises(OutOfRangeError):
            contained(relish, wrong)
    with pytest.raises(OutOfRangeError, match="40 pieces"):
        contained(WHOLE, 41)


@pytest.mark.parametrize("sheet", SHEETS.values(), ids=lambda sheet: sheet.key)
def test_every_sheet_has_its_labels_on_the_page_and_none_over_another(sheet) -> None:
    places = laid_out([(replace(WHOLE, pieces=0), min(sheet.per_page, MOST_CONTAINERS))], sheet)
    assert {p.page for p in places} == {0}
    for p in places:
        assert p.x_mm >= 0
        assert p.x_mm + sheet.width_mm <= sheet.page_width_mm + 0.05
        assert p.y_mm + sheet.height_mm <= sheet.page_height_mm + 0.05
    for a in places:
        for b in places:
            if a is not b:
                assert (
                    # Sums of tenths are not exact to the last digit.
                    abs(a.x_mm - b.x_mm) > sheet.width_mm - 1e-9 or abs(a.y_mm - b.y_mm) > sheet.height_mm - 1e-9
                )


@pytest.mark.parametrize("sheet", SHEETS.values(), ids=lambda sheet: sheet.key)
def test_type_is_never_smaller_than_the_regulation_lets_it_be(sheet) -> None:
    # Regulation (EU) 1169/2011, article 13 (2) and (3): x-height 1.2 mm, 0.9 mm where the largest surface is < 80 cm2.
    least_mm = 0.9 if sheet.width_mm * sheet.height_mm < SMALL_MM2 else 1.2
    assert type_size_pt(sheet) * PT_MM * X_HEIGHT_FRAC >= least_mm - 1e-9


def test_a_used_sheet_is_begun_where_it_is_free() -> None:
    sheet = SHEETS["a4-8"]
    first, second, third = laid_out([(WHOLE, 3)], sheet, first=7)
    assert (first.page, second.page, third.page) == (0, 0, 1)
    assert (third.x_mm, third.y_mm) == (sheet.left_mm, sheet.top_mm)
    for wrong in (0, 9):
        with pytest.raises(OutOfRangeError):
            laid_out([(WHOLE, 1)], sheet, first=wrong)
    with pytest.raises(UnknownItemError):
        sheet_of("a3-2")
