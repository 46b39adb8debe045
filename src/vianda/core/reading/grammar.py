"""A small grammar engine: rules are patterns over kinds of atoms, and the longest one that its action takes wins.

A pattern is written as a cook would say it: ``"NUM of MASS each?"``. Small letters are joining words (``w:of``),
capitals are kinds of atoms, ``|`` parts alternatives, ``?`` may be missing, ``*`` and ``+`` repeat.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Generic, TypeVar

from vianda.core.basis.phrase import Phrase
from vianda.core.reading.atom import Atom

D = TypeVar("D")


@dataclass(frozen=True, slots=True)
class _Element:
    kinds: frozenset[str]
    least: int
    many: bool


def _element(text: str) -> _Element:
    least, many = 1, False
    if text[-1] in "?*+" and len(text) > 1:
        least, many = (0 if text[-1] in "?*" else 1), text[-1] in "*+"
        text = text[:-1]
    kinds = frozenset(k if k.isupper() or k.startswith("u:") else f"w:{k}" for k in text.split("|"))
    return _Element(kinds, least, many)


@dataclass(frozen=True, slots=True)
class Match:
    """What a pattern took: the atoms by element, in order."""

    taken: tuple[tuple[frozenset[str], Atom], ...]
    end: int

    def one(self, kind: str) -> Atom | None:
        """The first atom taken for an element of a kind.

        Parameters
        ----------
        kind : str
            Kind, or a joining word.

        Returns
        -------
        Atom | None
            The atom.
        """
        return next(iter(self.all(kind)), None)

    def all(self, kind: str) -> tuple[Atom, ...]:
        """All atoms taken for elements of a kind.

        Parameters
        ----------
        kind : str
            Kind, or a joining word.

        Returns
        -------
        tuple[Atom, ...]
            The atoms.
        """
        name = kind if kind.isupper() or ":" in kind else f"w:{kind}"
        return tuple(a for kinds, a in self.taken if name in kinds and name in a.kinds)

    @property
    def atoms(self) -> tuple[Atom, ...]:
        """Every atom taken."""
        return tuple(a for _, a in self.taken)


def _match(pattern: Sequence[_Element], atoms: Sequence[Atom], at: int) -> Match | None:
    """The longest way a pattern fits from a place, by backtracking."""

    def fit(element: int, n: int) -> tuple[tuple[frozenset[str], Atom], ...] | None:
        if element == len(pattern):
            return ()
        e = pattern[element]
        if n < len(atoms) and e.kinds & atoms[n].kinds:
            here = ((e.kinds, atoms[n]),)
            if e.many:
                again = fit(element, n + 1) if n + 1 < len(atoms) and e.kinds & atoms[n + 1].kinds else None
                rest = again if again is not None else fit(element + 1, n + 1)
            else:
                rest = fit(element + 1, n + 1)
            if rest is not None:
                return here + rest
        return fit(element + 1, n) if e.least == 0 else None

    taken = fit(0, at)
    return Match(taken, at + len(taken)) if taken else None


Action = Callable[[Match, D], Phrase | None]


@dataclass(frozen=True, slots=True)
class _Rule(Generic[D]):
    name: str
    pattern: tuple[_Element, ...]
    action: Action[D]
    order: int


@dataclass(slots=True)
class Grammar(Generic[D]):
    """Rules with their actions; an action answers None to refuse a match."""

    rules: list[_Rule[D]] = field(default_factory=list)
    _by_kind: dict[str, list[_Rule[D]]] = field(default_factory=dict)

    def rule(self, *patterns: str) -> Callable[[Action[D]], Action[D]]:
        """Let an action answer for patterns.

        Parameters
        ----------
        *patterns : str
            Each in the notation of this module.

        Returns
        -------
        Callable[[Action[D]], Action[D]]
            A decorator.
        """

        def bind(action: Action[D]) -> Action[D]:
            for text in patterns:
                elements = tuple(_element(part) for part in text.split())
                rule = _Rule(action.__name__, elements, action, len(self.rules))
                self.rules.append(rule)
                first = 0
                while True:
                    for kind in elements[first].kinds:
                        self._by_kind.setdefault(kind, []).append(rule)
                    if elements[first].least or first + 1 == len(elements):
                        break
                    first += 1
            return action

        return bind

    def candidates(self, atoms: Sequence[Atom], at: int) -> list[tuple[Match, Action[D]]]:
        """Every way a rule fits at a place, the longest first.

        Parameters
        ----------
        atoms : Sequence[Atom]
            The text as atoms.
        at : int
            Index of the first atom (count).

        Returns
        -------
        list[tuple[Match, Action[D]]]
            Matches with their actions.
        """
        seen: set[int] = set()
        found: list[tuple[int, int, Match, Action[D]]] = []
        for kind in atoms[at].kinds:
            for rule in self._by_kind.get(kind, ()):
                if rule.order in seen:
                    continue
                seen.add(rule.order)
                match = _match(rule.pattern, atoms, at)
                if match is not None:
                    found.append((-match.end, rule.order, match, rule.action))
        return [(m, a) for _, _, m, a in sorted(found, key=lambda f: (f[0], f[1]))]
