from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.core.reading import entry


@pytest.mark.parametrize(
    ("text", "grams"),
    [
        ("500g", 500),
        ("500", 500),
        (" 0,7 kg ", 700),
        ("1 lb 4 oz", 566.9904625),
        ("1/3 lb", 151.19745666),
        ("½ lb", 226.796185),
        ("1 ½ lb", 680.388555),
        ("1 1/2 lb", 680.388555),
        ("2 LB", 907.18474),
        ("3 oz.", 85.048569),
    ],
)
def test_masses_as_cooks_type_them(text: str, grams: float) -> None:
    assert entry.read_mass_g(text) == pytest.approx(grams, rel=1e-8)


@pytest.mark.parametrize(
    ("text", "celsius"),
    [("450F", 232.2222222), ("230 C", 230), ("230", 230), ("71.1 °C", 71.1), ("160 deg F", 71.1111111), ("-18 C", -18)],
)
def test_temperatures_as_cooks_type_them(text: str, celsius: float) -> None:
    assert entry.read_temp_c(text) == pytest.approx(celsius, rel=1e-8)


def test_a_bare_number_takes_the_unit_on_the_screen() -> None:
    assert entry.read_mass_g("3", unit_system="us") == pytest.approx(85.048569)
    assert entry.read_temp_c("160", unit_system="us") == pytest.approx(71.1111111)
    assert entry.read_length_mm("1/4", unit_system="us") == pytest.approx(6.35)


def test_two_teaspoons_and_a_third_of_a_cup() -> None:
    assert entry.read_volume_ml("2 tsp") == pytest.approx(9.857843)
    assert entry.read_volume_ml("1/3 cup") == pytest.approx(78.862745)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "Nothing was typed"),
        ("   ", "Nothing was typed"),
        ("abc", "was not understood"),
        ("12 stone", "not a unit of mass"),
        ("5 oz 1 lb", "larger unit to the smaller"),
        ("1 lb 4", "without a unit"),
        ("1/0 lb", "divides by zero"),
        ("nan", "was not understood"),
        ("1e308", "not a unit of mass"),
        ("1 g; DROP TABLE formula", "was not understood"),
        ("🍔", "was not understood"),
        ("1" * 61, "61 characters"),
    ],
)
def test_what_is_not_a_mass_is_refused_with_its_reason(text: str, says: str) -> None:
    with pytest.raises(UnreadableEntryError, match=says):
        entry.read_mass_g(text, field="/shape/piece_mass_g")


def test_a_negative_mass_is_out_of_range_and_names_its_field() -> None:
    with pytest.raises(OutOfRangeError) as caught:
        entry.read_mass_g("-5 g", field="/x")
    assert caught.value.field == "/x"


@pytest.mark.parametrize("text", ["4.5", "four and a half", "1 000", "−3"])
def test_a_count_is_a_whole_number(text: str) -> None:
    with pytest.raises(CoreError):
        entry.read_count(text)


def test_number_words_count() -> None:
    assert [entry.read_count(w) for w in ("four", "Twelve", "twenty", "40")] == [4, 12, 20, 40]


@given(st.text(max_size=80))
def test_any_text_is_read_or_refused_but_never_crashes(text: str) -> None:
    for read in (entry.read_mass_g, entry.read_temp_c, entry.read_frac, entry.read_count, entry.read_volume_ml):
        try:
            value = read(text)
        except CoreError as refused:
            assert refused.detail
        else:
            assert value == value
            assert abs(value) != float("inf")


@given(st.floats(0.1, 5000), st.sampled_from(["g", "kg", "oz", "lb"]))
def test_a_written_mass_reads_back(value: float, unit: str) -> None:
    written = f"{value:.4f} {unit}"
    assert entry.read_mass_g(written) == pytest.approx(float(f"{value:.4f}") * entry.MASS_UNITS[unit])


def test_colder_than_anything_can_be_is_refused() -> None:
    with pytest.raises(OutOfRangeError, match="colder"):
        entry.read_temp_c("-300 C")
