"""From tokens to atoms: phrases of the lexicon, and numbers with their units, ready for the grammar.

Words that no list holds are set aside first, so that a stray word changes nothing of what stands round it.
"""

from __future__ import annotations

from collections.abc import Sequence

from vianda.core.basis.units import UnitSystem
from vianda.core.reading.atom import Atoms
from vianda.core.reading.lexicon import Lexicon
from vianda.core.reading.numbers import Item
from vianda.core.reading.quantities import SEPARATORS, AtomBuilder
from vianda.core.reading.tokens import Token, tokens_of


def _stream(
    tokens: Sequence[Token], lexicon: Lexicon
) -> tuple[list[tuple[int, str]], set[int], set[int], dict[int, str]]:
    """The tokens that count, as (index, stem); those unread, those dropped as noise, and corrected spellings."""
    stream: list[tuple[int, str]] = []
    unread: set[int] = set()
    noise: set[int] = set()
    spelt: dict[int, str] = {}
    for at, token in enumerate(tokens):
        before = tokens[at - 1] if at else None
        after = tokens[at + 1] if at + 1 < len(tokens) else None
        if token.kind == "word":
            if lexicon.knows(token.stem):
                stream.append((at, token.stem))
            elif meant := lexicon.spelt(token.stem):
                spelt[at] = meant
                stream.append((at, meant))
            else:
                unread.add(at)
            continue
        words = [t for t in (before, after) if t is not None and t.kind == "word"]
        joiner = token.text in "-‐‑" and token.glued and after is not None and after.glued and words
        # A dot behind a short word or a letter is an abbreviation's.
        dot = token.text == "." and before is not None and before.kind == "word" and token.glued
        short = dot and before is not None and (len(before.text) <= 2 or lexicon.longest([before.stem], 0)[0] == 1)
        if joiner or (short and after is not None and (after.glued or not after.text[:1].isupper())):
            noise.add(at)
            continue
        known_sign = token.kind == "sign" and lexicon.knows(token.stem)
        if token.kind == "sign" and not known_sign and token.text not in SEPARATORS:
            unread.add(at)
            continue
        stream.append((at, token.stem))
    return stream, unread, noise, spelt


def _items(tokens: Sequence[Token], stream: Sequence[tuple[int, str]], lexicon: Lexicon) -> list[Item]:
    stems = [s for _, s in stream]
    items: list[Item] = []
    at = 0
    while at < len(stream):
        index = stream[at][0]
        token = tokens[index]
        if token.kind in ("number", "fraction", "ratio", "clock"):
            items.append(Item((index,), token, (), token.glued))
            at += 1
            continue
        length, senses = lexicon.longest(stems, at)
        length = max(1, length)
        indexes = tuple(i for i, _ in stream[at : at + length])
        items.append(Item(indexes, token, senses, token.glued))
        at += length
    return items


def atoms_of(
    text: str, *, lexicon: Lexicon, imperial: bool = False, system: UnitSystem = "metric", points: bool = False
) -> Atoms:
    """A text as atoms.

    Parameters
    ----------
    text : str
        What was typed.
    lexicon : Lexicon
        What the words may mean.
    imperial : bool, default False
        Whether pints and fluid ounces are imperial ones.
    system : UnitSystem, default 'metric'
        Units that a bare degree has.
    points : bool, default False
        Whether a point before three digits of grams parts thousands, as it does where meat is said in kilos.

    Returns
    -------
    Atoms
        The atoms, and the tokens that were set aside.
    """
    tokens = tokens_of(text)
    stream, unread, noise, spelt = _stream(tokens, lexicon)
    items = _items(tokens, stream, lexicon)
    builder = AtomBuilder(tokens, items, spelt=spelt, imperial=imperial, system=system, points=points)
    atoms = builder.run()
    return Atoms(text, tokens, tuple(atoms), frozenset(unread), frozenset(noise | builder.noise), spelt)
