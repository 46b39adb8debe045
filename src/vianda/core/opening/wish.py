"""What is to be made, as a line says it, and the line with one of its pieces said otherwise."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from vianda.core.basis.phrase import Phrase
from vianda.core.model.formula import BlendPart
from vianda.core.reading.line import LineReading
from vianda.core.reading.piece import Ask, replaced

# Whole and pieces may differ by so much before they cannot hold together (ours).
APART = 0.08


@dataclass(slots=True)
class Wish:
    """What is to be made, as settled; None where the line does not say.

    Masses in g. ``pieces`` are made, ``per_guest`` of them for each; ``multiple`` patties lie in one bun. ``notes`` say
    what was decided, ``asks`` what cannot hold together.
    """

    parts: tuple[BlendPart, ...] = ()
    parts_said: bool = False
    aim_fat: float | None = None
    style: str = ""
    dish_said: bool = False
    total_g: float | None = None
    each_g: float | None = None
    head_g: float | None = None
    cooked_g: float | None = None
    pieces: int | None = None
    per_guest: int | None = None
    multiple: int = 1
    guests: int | None = None
    children: int = 0
    assumed: list[Phrase] = field(default_factory=list)
    remarks: list[Phrase] = field(default_factory=list)
    asks: list[Ask] = field(default_factory=list)


def respelt(reading: LineReading, piece: int, by: str) -> str:
    """The line with one piece said otherwise.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.
    piece : int
        Number of the piece in the line, from 0 (count).
    by : str
        What stands there instead.

    Returns
    -------
    str
        The new line.
    """
    at = reading.said.order.get(piece, piece)
    return replaced(reading.text, reading.pieces[at].spans, by)


def left_out(reading: LineReading, pieces: Sequence[int]) -> str:
    """The line without some of its pieces, and without the joining words that would be left hanging.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.
    pieces : Sequence[int]
        Which pieces.

    Returns
    -------
    str
        The new line.
    """
    spans = sorted(
        (s for p in pieces for s in reading.pieces[reading.said.order.get(p, p)].spans), key=lambda s: -s.start
    )
    text = reading.text
    for span in spans:
        text = text[: span.start] + text[span.end :]
    plain = " ".join(text.replace(" and ,", ",").split())
    while ", ," in plain:
        plain = plain.replace(", ,", ",")
    return plain.strip(" ,&").removeprefix("and ").removesuffix(" and")
