"""What is measured of a finished cook, by its form, and what cannot have been measured."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.cook.measures import Raw, check_measured, measures_of
from vianda.core.cook.outcome import outcome_figures

DISC = Raw("disc", 3400.0, 130.0, 8.0, 2500.0, 104.0, 9.0, 71.0)
SAUCE = Raw("crumbled", 3000.0, 0.0, 8.0, 2800.0, 0.0, 0.0, 71.0)


@pytest.mark.parametrize(
    ("form", "titles"),
    [
        ("disc", ["All pieces, cooked", "Diameter, cooked", "Thickness, cooked", "Core, last read"]),
        ("spread", ["All pieces, cooked", "Diameter, cooked", "Thickness, cooked", "Core, last read"]),
        ("ball", ["All pieces, cooked", "Diameter, cooked", "Core, last read"]),
        ("tin", ["All loaves, cooked", "Length, cooked", "Height, cooked", "Core, last read"]),
    ],
)
def test_a_form_is_asked_for_the_sizes_it_has(form, titles: list[str]) -> None:
    assert [m.title for m in measures_of(replace(DISC, form=form))] == titles


def test_crumbs_have_no_size_and_none_is_taken_down() -> None:
    assert [m.key for m in measures_of(SAUCE)] == ["cooked_mass_g", "core_c"]
    for key in ("cooked_diameter_mm", "cooked_thickness_mm"):
        with pytest.raises(OutOfRangeError, match="in crumbs") as refused:
            check_measured(SAUCE, {key: 10.0}, {})
        assert refused.value.field == f"/outcome/{key}"


@pytest.mark.parametrize(
    ("key", "inside", "outside"),
    [
        ("cooked_mass_g", 0.2 * 3400, 0.1999 * 3400),
        ("cooked_diameter_mm", 0.4 * 130, 0.399 * 130),
        ("cooked_diameter_mm", 1.5 * 130, 1.501 * 130),
        ("cooked_thickness_mm", 2.0, 1.99),
        ("cooked_thickness_mm", 24.0, 24.01),
        ("cooked_mass_g", 3400.0, 3400.1),
    ],
)
def test_what_no_cook_does_to_meat_is_asked_about(key: str, inside: float, outside: float) -> None:
    check_measured(DISC, {key: inside}, {})
    with pytest.raises(OutOfRangeError, match=r"unit\?|tray|diameter") as refused:
        check_measured(DISC, {key: outside}, {})
    assert refused.value.field == f"/outcome/{key}"
    # What was written down before this was asked can be noted on.
    check_measured(DISC, {key: outside}, {key: outside})


def test_an_ordinary_cook_is_taken_down_and_one_piece_is_not_taken_for_all() -> None:
    check_measured(DISC, {"cooked_mass_g": 2500.0, "cooked_diameter_mm": 104.0, "cooked_thickness_mm": 9.0}, {})
    with pytest.raises(OutOfRangeError, match=r"^62 g cooked is 2 % of the 3400 g that went on raw\. Was all of it"):
        check_measured(DISC, {"cooked_mass_g": 62.0}, {})


def test_a_diameter_that_was_once_noted_of_crumbs_says_nothing() -> None:
    none = Band(0.0, 0.0, 0.0)
    figures = outcome_figures(
        batch_mass_g=3000, pieces=1, expected_yield_frac=Band(0.8, 0.9, 1.0), raw_diameter_mm=0.0, cooked_mass_g=None,
        cooked_diameter_mm=80.0, expected_thickness_mm=none, cooked_thickness_mm=None,
    )  # fmt: skip
    assert figures.diameter_shrink_frac is None
