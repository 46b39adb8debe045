"""What goes into a mix: the corpus, one bad phrase among good ones, amounts that follow what was said."""

from __future__ import annotations

import random
from dataclasses import replace

import pytest

from formulas import mixed
from mix_corpus import read, wrong_phrase
from opening_corpus import cases
from vianda.core.basis.errors import UnreadableEntryError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.model.edit import AddToMix
from vianda.core.reading.lexicon import ML_PER_UK_FL_OZ, ML_PER_UK_PINT, substitutes
from vianda.core.reading.mix_line import read_mix

PHRASES = cases("mix_phrases.txt")
NONSENSE = ("zorbleflux", "quxwump", "vlimmfag", "Wjypqo")


@pytest.mark.parametrize(("phrase", "want"), PHRASES, ids=[p for p, _ in PHRASES])
def test_a_phrase_is_read_as_a_cook_means_it(phrase: str, want: dict[str, str]) -> None:
    assert wrong_phrase(phrase, want) == []


def test_the_corpus_of_phrases_is_large() -> None:
    assert len(PHRASES) >= 250
    assert len({p for p, _ in PHRASES}) == len(PHRASES)


def _read(phrase: str):
    r = read(phrase)
    return [(i.ingredient, i.amount, i.left_out, i.to_taste) for i in r.items], [a.text for a in r.asks]


@pytest.mark.parametrize("seed", range(60))
def test_a_nonsense_word_anywhere_is_unread_and_changes_no_amount(seed: int) -> None:
    rng = random.Random(seed)
    phrase, _ = rng.choice(PHRASES)
    words = phrase.split()
    at, nonsense = rng.randrange(len(words) + 1), rng.choice(NONSENSE)
    spoilt = " ".join([*words[:at], nonsense, *words[at:]])
    assert _read(spoilt) == _read(phrase), spoilt
    assert nonsense in read(spoilt).unread


@pytest.mark.parametrize("grams", [3, 40, 125, 999.5])
def test_another_mass_is_another_amount(grams: float) -> None:
    for phrase in (f"{grams} g panko", f"panko {grams} g", f"2 eggs, {grams} g panko, salt to taste"):
        amounts = {i.ingredient: i.amount.mass_g for i in read(phrase).items if i.amount}
        assert amounts["panko"] == pytest.approx(grams)


def _added(text: str, **lines: float):
    formula = mixed(lines=())
    return apply_edit(formula, AddToMix(text), inventory=starter_inventory(), kitchen=yard_galley())


def test_one_bad_phrase_does_not_refuse_the_rest_and_is_not_lost() -> None:
    formula = _added("1 egg, beaten, 12 widgets, 40 g panko")
    assert [line.ingredient for line in formula.mix.lines] == ["egg", "panko"]
    assert "widgets" in formula.remark


@pytest.mark.parametrize(
    "text", ["12 widgets", "<b>1 cup</b>", "1 cup; DROP TABLE meat", ", ,", "parsley", "butter or oil"]
)
def test_a_line_of_which_nothing_can_be_taken_is_refused_in_words(text: str) -> None:
    with pytest.raises(UnreadableEntryError) as caught:
        _added(text)
    assert caught.value.field == "/mix/lines"


def test_a_thing_ruled_out_leaves_the_mix() -> None:
    formula = _added("1 egg, 40 g panko")
    without = apply_edit(formula, AddToMix("no egg"), inventory=starter_inventory(), kitchen=yard_galley())
    assert [line.ingredient for line in without.mix.lines] == ["panko"]


def test_a_choice_is_settled_by_its_own_text() -> None:
    asked = read("1 cup rice, 1 egg")
    grams = {read(c.text).items[0].ingredient: read(c.text).items[0].amount.mass_g for c in asked.asks[0].choices}
    # SR28: a cup of cooked long-grain rice 158 g (20045) or medium 186 g (20051), of raw long-grain 185 g (20044).
    assert grams == {"rice": pytest.approx(186), "rice-raw": pytest.approx(185)}


def test_pints_and_fluid_ounces_are_imperial_in_a_uk_kitchen() -> None:
    # UK Weights and Measures Act 1985, schedule 1: a gallon of 4.54609 dm3 has 8 pints and 160 fluid ounces.
    assert pytest.approx(568.26125) == ML_PER_UK_PINT
    assert pytest.approx(28.4130625) == ML_PER_UK_FL_OZ
    kitchens = {"US": yard_galley(), "UK": replace(yard_galley(), country="UK")}
    grams = {
        country: read_mix("1 pint water", inventory=starter_inventory(), kitchen=k, meat_mass_g=500)
        .items[0]
        .amount.mass_g
        for country, k in kitchens.items()
    }
    assert grams["UK"] / grams["US"] == pytest.approx(568.26125 / 473.176473)


def test_a_heaped_spoon_is_more_than_a_level_one_and_less_sure() -> None:
    level, heaped = (read(f"1 {fill} tbsp flour").items[0].amount for fill in ("level", "heaped"))
    assert heaped.mass_g > level.mass_g
    assert heaped.uncertainty_frac > level.uncertainty_frac


def test_what_is_not_held_is_offered_its_nearest_with_what_changes(inventory: Inventory) -> None:
    for name, (nearest, change) in substitutes().items():
        assert nearest in inventory.pantry, name
        assert change
    offered = read("2 tbsp gochujang").pieces[0].alternatives[0]
    assert "thinner" in offered.label.amounts["change"].text
    assert read(offered.text).items[0].ingredient == "hot-sauce"


def test_the_larder_and_the_pantry_hold_what_cooks_of_several_cuisines_name(inventory: Inventory) -> None:
    assert len(inventory.meats) >= 80
    assert len(inventory.pantry) >= 250
    for thing in (*inventory.meats.values(), *inventory.pantry.values()):
        assert thing.composition_note
