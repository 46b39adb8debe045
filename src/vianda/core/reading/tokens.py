"""Text to tokens: numbers of every spelling, words folded for comparison, and signs.

Nothing is dropped here: every character that is not a blank belongs to exactly one token, so that a line can be shown
back with each of them marked.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from typing import Literal

TokenKind = Literal["number", "fraction", "ratio", "clock", "word", "sign"]

_VULGAR = "¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"
_TOKEN = re.compile(
    rf"""
    (?P<clock>(?<![\d:./])(?:[01]?\d|2[0-4]):[0-5]\d(?![\d:/]))
  | (?P<ratio>\d+(?:[.,]\d+)?(?:(?::|\s:\s)\d+(?:[.,]\d+)?){{1,3}}|\d+(?:/\d+){{2,3}})
  | (?P<fraction>\d+\s?[/⁄]\s?\d+(?![\d.,]*[/⁄]?\d)|[{_VULGAR}])
  | (?P<number>\d{{1,3}}(?:[,.'’\u00a0\u202f]\d{{3}})+(?![\d])(?:[.,]\d+)?|\d+(?:[.,]\d+)?|[.,]\d+)
  | (?P<word>[^\W\d_]+(?:['’][^\W\d_]+)*(?:(?<=s)['’](?!\w))?)
  | (?P<sign>\S)
    """,
    re.VERBOSE,
)
_IRREGULAR = {
    "loaves": "loaf",
    "halves": "half",
    "leaves": "leaf",
    "calves": "calf",
    "knives": "knife",
    "children": "child",
    "people": "person",
    "persons": "person",
    "women": "woman",
    "men": "man",
    "mice": "mouse",
    "patties": "patty",
    "cookies": "cookie",
    "brownies": "brownie",
    "pies": "pie",
    "chillies": "chilli",
    "geese": "goose",
    "ones": "ones",
}


def folded(word: str) -> str:
    """A word without case and accents: ``Ragù`` and ``ragu`` are one.

    Parameters
    ----------
    word : str
        One word.

    Returns
    -------
    str
        Small letters without accents.

    Examples
    --------
    >>> folded("Köttbullar")
    'kottbullar'
    """
    plain = unicodedata.normalize("NFKD", word.lower().replace("ß", "ss").replace("ø", "o").replace("æ", "ae"))
    return "".join(c for c in plain if not unicodedata.combining(c)).replace("’", "'")


def stem(word: str) -> str:
    """A word as it is looked up: folded, singular, without a possessive ending.

    Parameters
    ----------
    word : str
        One word.

    Returns
    -------
    str
        The stem.

    Examples
    --------
    >>> stem("Tomatoes"), stem("loaves"), stem("Butcher's"), stem("glass")
    ('tomato', 'loaf', 'butcher', 'glass')
    """
    plain = folded(word)
    plain = plain.removesuffix("'").removesuffix("'s")
    if plain in _IRREGULAR:
        return _IRREGULAR[plain]
    if len(plain) > 4 and plain.endswith("ies"):
        return plain[:-3] + "y"
    for ending in ("oes", "ches", "shes", "sses", "xes"):
        if len(plain) > len(ending) + 1 and plain.endswith(ending):
            return plain[:-2]
    if len(plain) > 3 and plain.endswith("s") and not plain.endswith(("ss", "us", "is")):
        return plain[:-1]
    return plain


@dataclass(frozen=True, slots=True)
class Token:
    """One token: where it stands in the text (``start`` to ``end``, counted in characters), and its stem or figures.

    ``parts`` are the figures of a number (one), a fraction (two) or a ratio (two to four); ``grouped`` when a comma or
    point may part thousands instead of decimals. ``glued``: no blank before it.
    """

    kind: TokenKind
    text: str
    start: int
    end: int
    stem: str = ""
    parts: tuple[float, ...] = ()
    grouped: str = ""
    glued: bool = False


def _decimal(text: str) -> tuple[float, str]:
    """A figure, and how its marks may be read the other way: "," or "." when one of them parts three digits."""
    plain = re.sub(r"['’\u00a0\u202f]", "", text)
    marks = [c for c in plain if c in ".,"]
    if not marks:
        return float(plain), ""
    if len(marks) > 1:
        # 1,234.5 and 1.234,5: the last mark is the decimal one, unless all are alike.
        if len(set(marks)) == 1:
            return float(plain.replace(marks[0], "")), ""
        return float(plain.replace(marks[0], "").replace(marks[-1], ".")), ""
    whole, part = re.split(r"[.,]", plain)
    grouped = marks[0] if len(part) == 3 and whole not in ("", "0") else ""
    return float(f"{whole or 0}.{part}"), grouped


def tokens_of(text: str) -> tuple[Token, ...]:
    """The tokens of a text, in order.

    Parameters
    ----------
    text : str
        What was typed.

    Returns
    -------
    tuple[Token, ...]
        Each: one token.

    Examples
    --------
    >>> [(t.kind, t.text) for t in tokens_of("1½ lb 80/20, 2:1")]
    [('number', '1'), ('fraction', '½'), ('word', 'lb'), ('fraction', '80/20'), ('sign', ','), ('ratio', '2:1')]
    """
    found: list[Token] = []
    for match in _TOKEN.finditer(text):
        kind: TokenKind = match.lastgroup  # type: ignore[assignment]
        piece = match.group()
        glued = match.start() > 0 and not text[match.start() - 1].isspace()
        parts: tuple[float, ...] = ()
        grouped = ""
        if kind == "number":
            value, grouped = _decimal(piece)
            parts = (value,)
        elif kind == "fraction":
            plain = unicodedata.normalize("NFKC", piece).replace("⁄", "/")
            parts = tuple(float(p) for p in plain.split("/"))
        elif kind == "ratio":
            parts = tuple(float(p.replace(",", ".")) for p in re.split("[:/]", piece))
        elif kind == "clock":
            parts = tuple(float(p) for p in piece.split(":"))
        found.append(
            Token(
                kind, piece, match.start(), match.end(), stem(piece) if kind == "word" else piece, parts, grouped, glued
            )
        )
    return tuple(found)
