"""A piece of what was typed, as it was read: which characters, as what, and how else it could be meant."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.phrase import Phrase

Status = Literal["understood", "assumed", "noise", "unread"]


@dataclass(frozen=True, slots=True)
class Alternative:
    """Another reading of a piece: what it would be, and the whole text that says so."""

    label: Phrase
    text: str


@dataclass(frozen=True, slots=True)
class Span:
    """Characters ``start`` to ``end`` of the text (counted from 0, the end not included)."""

    start: int
    end: int


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece of the text: where it stands (in one or more stretches), what it was read as, and how sure that is.

    ``kind`` is what it is about ("mass", "people", "meat" …). ``label`` says it with its figure. ``alternatives`` are
    other readings, each with the whole text that says so.
    """

    spans: tuple[Span, ...]
    text: str
    status: Status
    kind: str
    label: Phrase
    alternatives: tuple[Alternative, ...] = ()


@dataclass(frozen=True, slots=True)
class Choice:
    """One way to settle a question about a text: what it would mean, and the whole text that says so."""

    label: Phrase
    text: str


@dataclass(frozen=True, slots=True)
class Ask:
    """What cannot be settled by the text alone, with its readings as choices."""

    text: Phrase
    choices: tuple[Choice, ...]


def replaced(text: str, spans: tuple[Span, ...], by: str) -> str:
    """A text with a piece of it said otherwise.

    Parameters
    ----------
    text : str
        What was typed.
    spans : tuple[Span, ...]
        Where the piece stands.
    by : str
        What stands there instead; "" leaves it out.

    Returns
    -------
    str
        The new text.

    Examples
    --------
    >>> replaced("500 g chuk", (Span(6, 10),), "chuck")
    '500 g chuck'
    """
    out, last = "", 0
    for at, span in enumerate(spans):
        out += text[last : span.start] + (by if at == 0 else "")
        last = span.end
    return " ".join((out + text[last:]).split()).strip(" ,")
