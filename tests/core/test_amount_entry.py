from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.core.basis.units import G_PER_OZ
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.reading.amount_entry import read_amount
from vianda.core.reading.lexicon import word_lists

PANTRY = starter_pantry()


def _g(text: str, key: str, *, meat: float = 700.0, system: str = "metric") -> float:
    return read_amount(text, PANTRY[key], meat_mass_g=meat, unit_system=system).mass_g


@pytest.mark.parametrize(
    ("text", "key", "grams"),
    [
        ("40 g", "panko", 40),
        ("40", "panko", 40),
        ("0,5 kg", "milk", 500),
        ("1 lb 4 oz", "milk", 566.99),
        ("1/3 cup", "dry-crumbs", 36),
        ("1 1/2 cups", "milk", 366),
        ("½ cup", "parmesan", 50),
        ("1 cup + 2 tbsp", "milk", 274.5),
        ("1 cup 2 tbsp", "milk", 274.5),
        ("2 tsp", "salt-fine", 12),
        ("2 tsp", "salt-flake", 6),
        ("3 cloves", "garlic", 9),
        ("three cloves garlic", "garlic", 9),
        ("2 large eggs", "egg", 100),
        ("2 medium eggs", "egg", 88),
        ("1 jumbo egg", "egg", 63),
        ("2 eggs", "egg", 100),
        ("half an egg", "egg", 25),
        ("5 slices", "white-bread", 145),
        ("2 thin slices", "white-bread", 40),
        ("8 %", "panko", 56),
        ("12.5 percent", "panko", 87.5),
    ],
)
def test_an_amount_is_read_as_cooks_say_it(text: str, key: str, grams: float) -> None:
    assert _g(text, key) == pytest.approx(grams, abs=0.02)


def test_a_bare_number_is_ounces_when_the_screen_shows_ounces() -> None:
    assert _g("4", "milk", system="us") == pytest.approx(4 * G_PER_OZ)


VAGUE = word_lists()["vague"]


@pytest.mark.parametrize("word", sorted(VAGUE))
def test_a_vague_word_is_a_guess_whose_doubt_is_shown(word: str) -> None:
    amount = read_amount(f"a {word}", PANTRY["olive-oil"], meat_mass_g=700)
    assert amount.guessed
    assert amount.low_g < amount.mass_g < amount.high_g
    assert amount.high_g / amount.mass_g == pytest.approx(VAGUE[word]["factor"])


def test_a_weighing_is_surer_than_a_cup_and_a_cup_than_a_glug() -> None:
    uncertainties = [
        read_amount(t, PANTRY["olive-oil"], meat_mass_g=700).uncertainty_frac for t in ("13 g", "1 tbsp", "a glug")
    ]
    assert uncertainties == sorted(uncertainties)
    assert uncertainties[0] == 0
    assert read_amount("1/3 cup", PANTRY["panko"], meat_mass_g=700).uncertainty_frac > uncertainties[1]


@pytest.mark.parametrize(
    ("text", "key", "says"),
    [
        ("", "milk", "Nothing was typed"),
        ("a lot", "milk", "not an amount of whole milk"),
        ("3 cloves", "milk", "not an amount"),
        ("-2 eggs", "egg", "below zero"),
        ("1/0 cup", "milk", "divides by zero"),
        ("1e308 cups", "milk", "not an amount"),
        ("99999999999 kg", "milk", "more than a tonne"),
        ("nan", "milk", "not an amount"),
        ("☕", "milk", "not an amount"),
        ("x" * 61, "milk", "61 characters"),
    ],
)
def test_what_is_no_amount_is_refused_in_words(text: str, key: str, says: str) -> None:
    with pytest.raises(CoreError, match=says):
        _g(text, key)


def test_a_cup_of_what_nobody_measures_so_asks_for_grams() -> None:
    from dataclasses import replace

    odd = replace(PANTRY["milk"], g_per_cup=0.0)
    with pytest.raises(UnreadableEntryError, match="type grams"):
        read_amount("1 cup", odd, meat_mass_g=700)


@given(st.text(max_size=80))
def test_any_amount_is_read_or_refused(text: str) -> None:
    try:
        answer = _g(text, "egg")
    except (UnreadableEntryError, OutOfRangeError) as refused:
        assert refused.detail
        return
    assert answer >= 0


@given(st.sampled_from(sorted(PANTRY)), st.floats(0.01, 5000))
def test_grams_are_read_back_as_they_were_written(key: str, grams: float) -> None:
    assert _g(f"{grams:.3f} g", key) == pytest.approx(round(grams, 3))
