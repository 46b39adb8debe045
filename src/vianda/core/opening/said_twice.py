"""One thing said twice with two figures: a plan has room for one, so the other is asked for, never dropped."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Amount, Phrase, say
from vianda.core.opening.wish import left_out
from vianda.core.reading.line import LineReading
from vianda.core.reading.piece import Ask, Choice
from vianda.core.reading.said import Figure

# Figures within so much of each other say one thing (ours): "6 oz, 170 g".
SAME = 0.03


def asked_once(reading: LineReading) -> list[Ask]:
    """Questions for every kind of figure that the line gives twice, and not alike.

    Parameters
    ----------
    reading : LineReading
        The line as it was read.

    Returns
    -------
    list[Ask]
        One question for each kind, its choices leaving out all but one figure.
    """
    said = reading.said
    kinds: tuple[tuple[Phrase, Sequence[Figure], Callable[[float], Amount]], ...] = (
        (say("One plan makes pieces of one weight. Which first?"), said.eachs, ph.mass),
        (say("Two weights for a person. Which holds?"), said.heads, ph.mass),
        (say("Two weights in all. Which holds?"), said.totals, ph.mass),
        (say("Two cores. Which holds?"), said.core, ph.temp),
        (say("Two temperatures of the surface. Which first?"), said.surface_temp, ph.temp),
        (say("Two thicknesses. Which holds?"), said.thickness, ph.length),
        (say("Two widths. Which holds?"), said.across, ph.length),
        (say("Two shares of salt. Which holds?"), said.salt_frac, ph.fine_frac),
        (
            say("Two numbers for each. Which holds?"),
            [w.count for w in said.pieces if w.each and w.count is not None],
            ph.number,
        ),
    )
    return [ask for text, figures, shown in kinds if (ask := _ask(reading, text, figures, shown)) is not None]


def _ask(reading: LineReading, text: Phrase, figures: Sequence[Figure], shown: Callable[[float], Amount]) -> Ask | None:
    pieces = {f.piece for f in figures}
    if len(pieces) < 2 or max(f.value for f in figures) <= (1 + SAME) * min(f.value for f in figures):
        return None
    return Ask(
        text,
        tuple(
            Choice(say("{figure}", figure=shown(f.value)), left_out(reading, [p for p in pieces if p != f.piece]))
            for f in figures
        ),
    )
