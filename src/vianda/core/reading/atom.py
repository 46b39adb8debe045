"""What the grammar sees of a text: atoms, each with the tokens it stands for and what it may mean."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from vianda.core.reading.lexicon import Sense
from vianda.core.reading.numbers import Number
from vianda.core.reading.tokens import Token


@dataclass(frozen=True, slots=True)
class Atom:
    """What the grammar sees: the tokens it stands for, the kinds it may be, and its quantity in base units.

    ``value`` with ``low`` and ``high`` is in g, ml, mm, s, °C, a fraction (PCT) or a count (NUM); ``parts`` are the
    figures of a ratio, dimensions or a clock. ``spelt`` is the known word that a misspelt one was taken for.
    """

    tokens: tuple[int, ...]
    kinds: frozenset[str]
    senses: tuple[Sense, ...] = ()
    value: float = 0.0
    low: float = 0.0
    high: float = 0.0
    number: Number | None = None
    parts: tuple[float, ...] = ()
    unit: str = ""
    glued: bool = False
    spelt: str = ""
    text: str = ""
    article: bool = False

    def sense(self, kind: str) -> Sense | None:
        """Its sense of a kind, if it has one.

        Parameters
        ----------
        kind : str
            Kind of sense.

        Returns
        -------
        Sense | None
            The sense.
        """
        return next((s for s in self.senses if s.kind == kind), None)

    def all(self, kind: str) -> tuple[Sense, ...]:
        """All senses of a kind.

        Parameters
        ----------
        kind : str
            Kind of sense.

        Returns
        -------
        tuple[Sense, ...]
            The senses.
        """
        return tuple(s for s in self.senses if s.kind == kind)


@dataclass(frozen=True, slots=True)
class Atoms:
    """A text as atoms, with the tokens no list knows (``unread``) and those that are function words (``noise``)."""

    text: str
    tokens: tuple[Token, ...]
    atoms: tuple[Atom, ...]
    unread: frozenset[int]
    noise: frozenset[int]
    spelt: Mapping[int, str] = field(default_factory=dict)
