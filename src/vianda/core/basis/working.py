"""The working behind a figure: the arithmetic with the numbers in it, and where the numbers come from."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.phrase import Phrase


@dataclass(frozen=True, slots=True)
class Working:
    """How one figure came about.

    ``steps`` are read from top to bottom; the last one ends in the figure itself. ``source`` names the
    standard, table or dataset, or says "common practice, no published source" or "from memory".
    """

    title: str
    steps: tuple[Phrase, ...]
    source: str
