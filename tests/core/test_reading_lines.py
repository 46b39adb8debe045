"""Opening lines: the corpus, what a stray word may change, and what a changed figure must change."""

from __future__ import annotations

import random

import pytest

from opening_corpus import cases, opened, wrong
from vianda.core.basis.errors import CoreError, OutOfRangeError, UnreadableEntryError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.opening.opening import LONGEST_LINE
from vianda.core.pipeline.compute import prepare
from vianda.core.reading.lexicon import base_lexicon, noise_words, stems_of, word_lists
from vianda.core.reading.line import read_line
from vianda.core.reading.tokens import tokens_of

LINES = cases()
# No list of ours holds these, and none is a letter or two from a word that one holds.
NONSENSE = ("zorbleflux", "quxwump", "vlimmfag", "Wjypqo", "ßchnørz", "zzzzkrq")


@pytest.mark.parametrize(("line", "want"), LINES, ids=[line for line, _ in LINES])
def test_a_line_is_read_as_a_cook_means_it(line: str, want: dict[str, str]) -> None:
    assert wrong(line, want) == []


def test_the_corpus_is_large_and_of_one_kind_nowhere() -> None:
    assert len(LINES) >= 250
    assert len({line for line, _ in LINES}) == len(LINES)


def _formula(line: str):
    try:
        o = opened(line)
    except CoreError as refused:
        return refused.code
    return o.formula, tuple(a.text for a in o.asks)


@pytest.mark.parametrize("seed", range(60))
def test_a_nonsense_word_anywhere_shows_up_as_unread_and_changes_nothing_else(seed: int) -> None:
    rng = random.Random(seed)
    line, _ = rng.choice(LINES)
    words = line.split()
    at, nonsense = rng.randrange(len(words) + 1), rng.choice(NONSENSE)
    spoilt = " ".join([*words[:at], nonsense, *words[at:]])
    before, after = _formula(line), _formula(spoilt)
    assert after == before, spoilt
    if not isinstance(after, str):
        assert nonsense in opened(spoilt).unread


@pytest.mark.parametrize("seed", range(60))
def test_every_token_of_a_line_stands_in_exactly_one_piece(seed: int) -> None:
    line, _ = LINES[seed * 5]
    pieces = read_line(line, inventory=starter_inventory(), kitchen=yard_galley()).pieces
    for token in tokens_of(line):
        if token.kind == "sign":
            continue
        holders = [p for p in pieces if any(s.start <= token.start and token.end <= s.end for s in p.spans)]
        assert len(holders) == 1, (token.text, [p.text for p in holders])


MASS_LINES = (
    "{} g mince for 6",
    "{} g of chuck and 500 g of pork, meatballs",
    "8 burgers, {} g in all",
    "{} g 80/20, 10 people",
)


@pytest.mark.parametrize("line", MASS_LINES)
def test_another_mass_gives_another_batch(line: str) -> None:
    def meat(grams: int) -> float:
        formula = opened(line.format(grams)).formula
        return prepare(formula, inventory=starter_inventory(), kitchen=yard_galley()).batch.meat_mass_g

    assert meat(1300) - meat(900) == pytest.approx(400, abs=1)


@pytest.mark.parametrize("n", [5, 7, 13, 20, 41, 113])
def test_counts_said_are_counts_made(n: int) -> None:
    for line in (f"{n} meatballs for 6", f"{n} burgers for 4", f"{n} sliders", f"1.9 kg mince into {n}"):
        formula = opened(line).formula
        made = prepare(formula, inventory=starter_inventory(), kitchen=yard_galley()).batch.portions.pieces
        assert made == n == formula.dish.pieces, line


@pytest.mark.parametrize(("share", "other"), [(70, 30), (60, 40), (55, 45), (90, 10)])
def test_another_share_gives_another_blend(share: int, other: int) -> None:
    parts = opened(f"{share}% chuck and {other}% pork, meatballs").formula.parts
    assert {p.meat: round(p.share_frac, 6) for p in parts} == {"chuck": share / 100, "pork-ground": other / 100}


def test_the_joining_words_are_few_and_none_is_a_food_a_number_a_unit_or_a_negation() -> None:
    noise = noise_words()
    assert len(noise) <= 150
    lists = word_lists()
    numbers = {s for w in lists["number"] for s in stems_of(w)}
    units = {
        s for family in lists["unit"].values() for text in family.values() for w in text.split(",") for s in stems_of(w)
    }
    negations = {s for w in lists["joint"]["no"].split(",") for s in stems_of(w) if len(stems_of(w)) == 1}
    foods = {
        stems_of(name)[0]
        for table in (lists["pieces"].values(), (row[0] for row in lists["not_made"].values()))
        for text in table
        for name in text.split(",")
        if len(stems_of(name)) == 1
    }
    for table in (numbers, units - {"in"}, negations, foods):
        assert not noise & table


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("chuk burgers for 4", "chuck"),
        ("2 kg briskett", "brisket"),
        ("meetballs for 6", "ball-baked"),
        ("turkye burgers", "turkey-ground"),
    ],
)
def test_a_misspelt_word_is_read_and_marked_as_assumed(line: str, meant: str) -> None:
    o = opened(line)
    assert "assumed" in {p.status for p in o.pieces}
    assert meant in (o.formula.dish.style, *(p.meat for p in o.formula.parts))


@pytest.mark.parametrize("word", ["place", "there", "price", "blend", "form", "with", "later", "cold", "trout", "grit"])
def test_an_ordinary_word_is_not_bent_into_a_known_one(word: str) -> None:
    lexicon = base_lexicon()
    meant = None if lexicon.knows(word) else lexicon.spelt(word)
    assert meant is None


def test_a_piece_offers_other_readings_as_whole_lines() -> None:
    o = opened("8 burgers, 125 g, zorbleflux")
    unread = next(p for p in o.pieces if p.status == "unread")
    assert unread.alternatives[-1].text == "8 burgers, 125 g"
    mass = next(p for p in o.pieces if p.kind == "mass")
    again = {opened(a.text).formula.shape.portioning for a in mass.alternatives if a.text}
    assert {"by_piece", "by_batch"} <= again


def test_what_cannot_hold_together_is_asked_with_choices_that_do() -> None:
    o = opened("4 burgers of 500 g from 1 kg")
    assert o.formula is None
    settled = [opened(c.text) for c in o.asks[0].choices]
    assert all(s.formula is not None and not s.asks for s in settled)
    assert {(s.formula.dish.pieces) for s in settled} == {4, 2}


def test_a_dish_that_is_not_made_is_never_a_silent_burger() -> None:
    for name in ("lasagne", "chili con carne", "sausages", "pizza", "moussaka", "steak tartare"):
        o = opened(f"{name} for 4, 1 kg beef")
        assert o.formula is None
        assert "not made here" in o.asks[0].text.text
        assert opened(o.asks[0].choices[0].text).formula is not None


@pytest.mark.parametrize("line", ["0 g mince for 4", "1 kg mince for 0 people", "0 burgers"])
def test_nothing_for_nobody_is_refused(line: str) -> None:
    with pytest.raises(OutOfRangeError):
        opened(line)


@pytest.mark.parametrize(
    "line",
    [
        "",
        " ",
        "x" * (LONGEST_LINE + 1),
        "<script>alert(1)</script>",
        "nan",
        "1e308",
        "🍔" * 20,
        "'; DROP TABLE formula; --",
        "\u202e\u202e",
    ],
)
def test_a_line_that_says_nothing_is_refused_with_its_reason(line: str) -> None:
    with pytest.raises(UnreadableEntryError) as caught:
        opened(line)
    assert caught.value.field == "/line"


def test_figures_beyond_all_kitchens_are_refused_or_marked() -> None:
    for line in ("1e308 g mince", "99999999999999999999 kg mince for 4", "4 burgers of 1e9 kg", "mince for 1e99"):
        try:
            o = opened(line)
        except CoreError as refused:
            assert refused.detail
            continue
        assert o.unread or o.asks or o.formula is None, line


def test_who_gets_the_extra_is_shown_in_the_line_and_on_the_bench() -> None:
    o = opened("20 meatballs for 6")
    assert "one more" in o.remarks[0].text
    rail = evaluate(o.formula, inventory=starter_inventory(), kitchen=yard_galley()).rail
    dish = next(step for step in rail if step.step == "dish")
    assert (dish.answer.amounts["each"].value, dish.answer.amounts["spare"].value) == (3, 2)
