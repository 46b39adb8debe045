"""Text as it is kept: what nobody sees is left out, and a word is of one script among those that look alike.

The classes of signs are Unicode's own, from the tables that come with Python; examples of what is spoofed with them
follow Unicode Technical Standard 39 and Standard Annex 9, from memory.
"""

from __future__ import annotations

import sys
import unicodedata

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vianda.core.basis.seen_text import is_seen, mixed_word, scripts_of, seen_text, told_scripts

EMOJI = "👩\u200d🍳"
PERSIAN, DEVANAGARI = "می\u200cخواهم", "क्\u200dष"


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("chuck", "chuck"), ("", ""), ("two\tlines\r\n", "two\tlines\r\n"), ("a\vb\fc", "a b c"),
        ("\x00chuck\x7f", "chuck"), ("chu\u200bck", "chuck"), ("chu\u00adck", "chuck"), ("\ufeffchuck", "chuck"),
        ("\u202egnis\u202c", "gnis"), ("\u2066lot\u2069", "lot"), ("\u200elot\u200f", "lot"), ("lot\ue000", "lot"),
        ("Rago\u0302t", "Ragôt"), ("½ tsp", "½ tsp"), ("\x85line", "line"), ("a\u2028b", "a\u2028b"),
    ],
)  # fmt: skip
def test_what_nobody_sees_is_left_out(typed: str, kept: str) -> None:
    assert seen_text(typed) == kept
    assert is_seen(kept)


@pytest.mark.parametrize("text", ["Slip\x00way", "\u202echuck", "chuck\u200b", "a\vb", "a\u200db"])
def test_a_text_with_something_unseen_is_known(text: str) -> None:
    assert not is_seen(text)


@pytest.mark.parametrize("text", [EMOJI, PERSIAN, DEVANAGARI, f"the cook {EMOJI} and {PERSIAN}"])
def test_a_joiner_stays_where_a_script_or_an_emoji_needs_it(text: str) -> None:
    assert seen_text(text) == text
    assert is_seen(text)


@pytest.mark.parametrize("joiner", ["\u200c", "\u200d"])
@pytest.mark.parametrize(
    "around", ["a{}b", "а{}б", "α{}β", "{}می", "می{}", "1{}2", "क {}क", "क{} क", "a{}क", "क{}a", "й{}क"]
)
def test_a_joiner_that_joins_nothing_is_left_out(around: str, joiner: str) -> None:
    assert seen_text(around.format(joiner)) == around.format("")


def test_every_control_format_and_private_sign_but_line_ends_goes_and_every_other_stays() -> None:
    for code in range(sys.maxunicode + 1):
        sign, kind = chr(code), unicodedata.category(chr(code))
        if kind == "Cs" or unicodedata.normalize("NFC", sign) != sign:
            continue
        kept = seen_text(sign)
        wanted = "" if kind in ("Cc", "Cf", "Co") else sign
        assert kept == {"\t": "\t", "\n": "\n", "\r": "\r", "\v": " ", "\f": " "}.get(sign, wanted), hex(code)


@given(st.text())
def test_what_was_kept_once_is_kept_as_it_is(text: str) -> None:
    once = seen_text(text)
    assert seen_text(once) == once
    assert unicodedata.is_normalized("NFC", once)


@pytest.mark.parametrize(
    ("name", "word"),
    [
        ("chuck", ""), ("говядина", ""), ("κιμάς", ""), ("chuck говядина", ""), ("ceux-là говядина-chuck", ""),
        ("cаke", "cаke"), ("beef сhuck", "сhuck"), ("Οld rusk", "Οld"), ("кoфе", "кoфе"), ("αа", "αа"),
        ("牛chuck", ""), ("牛肉", ""), ("می chuck", ""), ("chuck_а", ""), ("2а", ""), ("µm", ""),
    ],
)  # fmt: skip
def test_a_word_of_letters_that_pass_for_others_is_named(name: str, word: str) -> None:
    assert mixed_word(name) == word


def test_scripts_are_told_in_one_order() -> None:
    assert scripts_of("аαa") == ("LATIN", "GREEK", "CYRILLIC")
    assert told_scripts(("LATIN", "GREEK")) == "Latin and Greek"
