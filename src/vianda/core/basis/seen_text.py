"""Text as it is kept: composed letters, no signs that nobody sees, no word of letters that are taken for others.

What cannot be seen makes two names that look the same and are not, or turns the order of what is read round
(Unicode Standard Annex 9, Unicode Technical Standard 39). What people type never holds it; what they paste does.
"""

from __future__ import annotations

import re
import unicodedata

# Scripts whose letters are taken for one another: a word is written in one of them.
ALIKE = ("LATIN", "GREEK", "CYRILLIC")

# Controls, formats and private use. Not what is unassigned: it may be newer than our tables.
_UNSEEN = frozenset({"Cc", "Cf", "Co"})
_SPACES = "\t\n\r"
# They join letters of scripts that need them, and the parts of an emoji; between others nobody sees them.
_JOINERS = "\u200c\u200d"
_WORD = re.compile(r"[^\W\d_]+")


def seen_text(text: str) -> str:
    """A text without what cannot be seen, its letters composed (NFC). Tabs and ends of lines stay.

    A vertical tab and a form feed become a space; a joiner stays where it joins.

    Parameters
    ----------
    text : str
        Of any length.

    Returns
    -------
    str
        The same text where nothing was to be done.

    Examples
    --------
    >>> seen_text("chu\\u200bck \\u202egnis")
    'chuck gnis'
    >>> seen_text("two\\nlines")
    'two\\nlines'
    """
    if text.isascii() and text.isprintable():
        return text
    composed = unicodedata.normalize("NFC", text)
    kept = [_kept(composed, place) for place in range(len(composed))]
    return "".join(kept)


def is_seen(text: str) -> bool:
    """Whether a text holds nothing that ``seen_text`` would leave out.

    Parameters
    ----------
    text : str
        Of any length.

    Returns
    -------
    bool
        True where it would be kept as it is, but for composed letters.

    Examples
    --------
    >>> is_seen("Slipway smash"), is_seen("Slip\\x00way")
    (True, False)
    """
    return seen_text(text) == unicodedata.normalize("NFC", text)


def _kept(text: str, place: int) -> str:
    sign = text[place]
    if sign in _SPACES or unicodedata.category(sign) not in _UNSEEN:
        return sign
    if sign in "\v\f":
        return " "
    if sign in _JOINERS and 0 < place < len(text) - 1 and _joined(text[place - 1]) and _joined(text[place + 1]):
        return sign
    return ""


def _joined(sign: str) -> bool:
    """Whether a joiner beside this sign may be needed: not by a letter of ours, a digit, a space or a stop."""
    return not sign.isascii() and not sign.isspace() and not scripts_of(sign)


def scripts_of(text: str) -> tuple[str, ...]:
    """Which of the scripts that are taken for one another a text holds, in the order of ``ALIKE``.

    Parameters
    ----------
    text : str
        Of any length; signs of other scripts count for nothing.

    Returns
    -------
    tuple[str, ...]
        Of ``ALIKE``; none where no letter is of them.

    Examples
    --------
    >>> scripts_of("cаke")
    ('LATIN', 'CYRILLIC')
    """
    held = {script for sign in text for script in ALIKE if unicodedata.name(sign, "").startswith(script)}
    return tuple(script for script in ALIKE if script in held)


def mixed_word(text: str) -> str:
    """The first word whose letters are of two scripts that are taken for one another, or nothing.

    Parameters
    ----------
    text : str
        Of any length.

    Returns
    -------
    str
        The word as it stands there; "" where there is none.

    Examples
    --------
    >>> mixed_word("chuck cаke")
    'cаke'
    >>> mixed_word("chuck говядина")
    ''
    """
    if text.isascii():
        return ""
    return next((word for word in _WORD.findall(text) if len(scripts_of(word)) > 1), "")


def told_scripts(scripts: tuple[str, ...]) -> str:
    """Scripts for a sentence.

    Parameters
    ----------
    scripts : tuple[str, ...]
        Two or more of ``ALIKE``.

    Returns
    -------
    str
        Their names, the last behind "and".

    Examples
    --------
    >>> told_scripts(("LATIN", "CYRILLIC"))
    'Latin and Cyrillic'
    """
    return " and ".join(script.capitalize() for script in scripts)
