"""What may be written down: each bound just inside and just outside, read as a document is."""

from __future__ import annotations

import json
from dataclasses import make_dataclass
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from vianda.core.basis import bounds as b
from vianda.core.demo.formulas import DEMO_FORMULAS
from vianda.core.inventory.inventory import starter_inventory
from vianda.interchange.documents import MOST_KEPT, Document
from vianda.interchange.kinds import FORMULAS, MEATS


def _document(kind: object) -> Document:
    return Document(make_dataclass("One", [("value", kind)], frozen=True))


def _read(kind: object, value: object) -> object:
    return _document(kind).read(json.dumps({"value": value})).value


NUMBERS = [
    (b.Share, 0.0, 1.0, 1e-9),
    (b.TempC, -50.0, 1000.0, 1e-6),
    (b.LengthMm, 0.0, 3000.0, 1e-6),
    (b.GramsPer100g, 0.0, 100.0, 1e-9),
    (b.Minutes, 0.0, 10_000.0, 1e-6),
    (b.Seconds, 0.0, 100_000.0, 1e-6),
]


@pytest.mark.parametrize(("kind", "low", "high", "step"), NUMBERS)
def test_a_number_is_taken_at_its_bounds_and_refused_beyond_them(kind, low, high, step) -> None:
    assert (_read(kind, low), _read(kind, high)) == (low, high)
    for outside in (low - step, high + step, 1e308, -1e308):
        with pytest.raises(ValidationError):
            _read(kind, outside)


def test_a_mass_is_more_than_nothing_and_at_most_ten_tonnes() -> None:
    assert _read(b.MassG, 1e-9) == 1e-9
    assert _read(b.MassG, 10_000_000) == 10_000_000
    for outside in (0, -1e-9, 10_000_001):
        with pytest.raises(ValidationError):
            _read(b.MassG, outside)


@pytest.mark.parametrize(("text", "good"), [("0", True), ("1000000", True), ("-0.01", False), ("1000000.01", False)])
def test_a_price_is_nothing_to_a_million(text: str, good: bool) -> None:
    if good:
        assert _read(b.Price, text) == Decimal(text)
    else:
        with pytest.raises(ValidationError):
            _read(b.Price, text)


@pytest.mark.parametrize(("text", "good"), [("1.2345", True), ("1.23450", False), ("1.23456", False), ("12e3", True)])
def test_a_price_has_at_most_four_decimal_places(text: str, good: bool) -> None:
    assert b.is_price(Decimal(text)) is good
    # Neither endless nor no number at all.
    assert not b.is_price(Decimal("NaN"))
    assert not b.is_price(Decimal("Infinity"))


@pytest.mark.parametrize("bad", ["NaN", "Infinity", "-Infinity", '"1"', "true", "null", "[1]"])
def test_what_is_no_plain_number_is_refused(bad: str) -> None:
    with pytest.raises(ValidationError):
        _document(b.Share).read(f'{{"value": {bad}}}')


@pytest.mark.parametrize(
    ("text", "good"),
    [("a", True), ("iron-pan", True), ("7-spice", True), ("-a", False), ("A", False), ("a b", False), ("", False)],
)
def test_a_key_is_small_letters_digits_and_hyphens(text: str, good: bool) -> None:
    assert b.is_key(text) is good
    # Nothing is a key only where there may be none.
    assert b.is_key_or_empty(text) is (good or text == "")
    if good:
        assert _read(b.Key, text) == text
    else:
        with pytest.raises(ValidationError):
            _read(b.Key, text)


@pytest.mark.parametrize(("kind", "most"), [(b.Key, 64), (b.KeyOrEmpty, 64), (b.Name, 80), (b.ShortText, 200)])
def test_a_text_is_as_long_as_it_may_be(kind, most: int) -> None:
    assert _read(kind, "a" * most) == "a" * most
    with pytest.raises(ValidationError):
        _read(kind, "a" * (most + 1))


def test_a_name_is_something_and_a_remark_may_be_nothing() -> None:
    assert _read(b.ShortText, "") == ""
    with pytest.raises(ValidationError):
        _read(b.Name, "")


@given(st.text(max_size=70))
def test_whatever_is_typed_a_key_that_is_taken_has_nothing_but_its_letters(text: str) -> None:
    assert b.is_key(text) == (
        bool(text) and all(c in "abcdefghijklmnopqrstuvwxyz0123456789-" for c in text) and text[0] != "-"
    )


def test_a_field_that_is_not_known_is_refused() -> None:
    with pytest.raises(ValidationError):
        _document(b.Share).read('{"value": 0.5, "more": 1}')


# ------------------------------------------------------------------------------------------------ remembered texts


def test_a_text_of_our_own_is_read_once_and_is_the_same_object() -> None:
    document = _document(b.Share)
    text = '{"value": 0.5}'
    assert document.kept(text) is document.kept(text)
    # What somebody sends is read anew each time: nobody fills our memory from outside.
    assert document.read(text) is not document.read(text)
    assert document.kept(text) == document.read(text)


def test_the_memory_of_texts_is_bounded() -> None:
    document = _document(b.Minutes)
    first = document.kept('{"value": 0}')
    for n in range(1, MOST_KEPT + 1):
        document.kept(json.dumps({"value": n}))
    again = document.kept('{"value": 0}')
    assert again == first
    assert again is not first


def test_a_text_that_is_refused_is_refused_every_time() -> None:
    document = _document(b.Share)
    for _ in range(2):
        with pytest.raises(ValidationError):
            document.kept('{"value": 2}')


@pytest.mark.parametrize("make", DEMO_FORMULAS)
def test_a_formula_comes_back_as_it_was_written(make) -> None:
    formula = make()
    assert FORMULAS.kept(FORMULAS.text(formula)) == formula


@pytest.mark.parametrize("text", ["", " ", "{meat},{meat}", "{meat}]", "[{meat}"])
def test_a_document_is_one_object_and_nothing_beside(text: str) -> None:
    meat = MEATS.text(next(iter(starter_inventory().meats.values())))
    with pytest.raises(ValidationError):
        MEATS.read(text.replace("{meat}", meat))
    assert MEATS.read(meat)
