"""Read what goes into a mix or a sauce: one thing or many, each with its amount, its preparation kept as a note.

One bad phrase never refuses the rest: what is understood is taken, what is not stands marked beside it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from rapidfuzz import fuzz, process

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.reading.atom import Atom, Atoms
from vianda.core.reading.atoms import atoms_of
from vianda.core.reading.lexicon import lexicon_of, names_of, substitutes
from vianda.core.reading.mix_item import MixDraft, MixItem
from vianda.core.reading.mix_rules import MIX, NOT_TAKEN
from vianda.core.reading.piece import Alternative, Ask, Choice, Piece, Span, replaced


@dataclass(frozen=True, slots=True)
class MixReading:
    """A line as it was read: the pieces in order, what goes in, and what is asked back."""

    text: str
    pieces: tuple[Piece, ...]
    items: tuple[MixItem, ...]
    asks: tuple[Ask, ...]

    @property
    def unread(self) -> tuple[str, ...]:
        """What was not understood, each with its words."""
        return tuple(p.text for p in self.pieces if p.status == "unread")

    @property
    def waiting(self) -> tuple[MixItem, ...]:
        """What was named without an amount."""
        return tuple(i for i in self.items if i.amount is None and not i.left_out and not i.to_taste)


_QUIET = frozenset(
    {
        "SEP",
        "noise",
        "about",
        "w:and",
        "w:with",
        "w:of",
        "w:plusword",
        "w:a",
        "w:for",
        "w:in",
        "w:into",
        "w:on",
        "w:at",
        "w:to",
        "w:some",
        "w:from",
        "w:by",
        "w:soakedin",
    }
)


def read_mix(
    text: str, *, inventory: Inventory, kitchen: Kitchen, meat_mass_g: float, unit_system: UnitSystem | None = None
) -> MixReading:
    """What goes in, from one line: ``1/2 cup panko, 1 egg, beaten + 3 yolks, salt to taste``.

    Parameters
    ----------
    text : str
        What was typed.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    meat_mass_g : float
        Mass of the meat, g, for per cent of it.
    unit_system : UnitSystem | None, default None
        Units that a bare number has; the kitchen's when None.

    Returns
    -------
    MixReading
        The line as it was read.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> read = read_mix(
    ...     "1 egg, beaten, 2-3 cloves garlic, salt to taste",
    ...     inventory=starter_inventory(), kitchen=yard_galley(), meat_mass_g=700,
    ... )
    >>> [(i.ingredient, i.amount and i.amount.mass_g, i.note) for i in read.items]
    [('egg', 50.0, 'beaten'), ('garlic', 7.5, ''), ('salt-fine', None, '')]
    """
    system = unit_system or kitchen.unit_system
    lexicon = lexicon_of(inventory=inventory, kitchen=kitchen)
    read = atoms_of(text, lexicon=lexicon, imperial=kitchen.country == "UK", system=system)
    draft = MixDraft(inventory, kitchen, meat_mass_g, system)
    pieces: list[Piece] = []
    noise: set[int] = set(read.noise)
    atoms, at = [*read.atoms, Atom((), frozenset({"END"}))], 0
    while at < len(atoms):
        taken = False
        for match, action in MIX.candidates(atoms[at:], 0):
            draft.at = len(pieces)
            label = action(match, draft)
            if not label:
                continue
            spans = _spans(match.atoms, read)
            status = "understood"
            if action in NOT_TAKEN:
                status = "unread"
            elif any(a.spelt for a in match.atoms):
                status = "assumed"
            pieces.append(Piece(spans, _text(spans, text), status, action.__name__[1:], label))  # type: ignore[arg-type]
            at += match.end
            taken = True
            break
        if taken:
            continue
        a = atoms[at]
        if "END" in a.kinds or a.kinds & {"noise"} or a.kinds <= _QUIET:
            noise.update(a.tokens)
        else:
            spans = _spans([a], read)
            pieces.append(Piece(spans, _text(spans, text), "unread", "unread", say("not understood")))
        at += 1
    for i in sorted(read.unread):
        span = Span(read.tokens[i].start, read.tokens[i].end)
        pieces.append(Piece((span,), read.tokens[i].text, "unread", "unread", say("not in the pantry")))
    order = sorted(range(len(pieces)), key=lambda i: pieces[i].spans[0].start)
    place = {old: new for new, old in enumerate(order)}
    items = tuple(replace(i, piece=place[i.piece]) for i in draft.items)
    ordered = tuple(replace(pieces[i], alternatives=_others(pieces[i], text, inventory)) for i in order)
    asks = tuple(
        Ask(
            what,
            tuple(
                Choice(label, replaced(text, ordered[place[p]].spans, _swapped(ordered[place[p]].text, what, by)))
                for label, by in choices
            ),
        )
        for what, p, choices in draft.asks
    )
    return MixReading(text, ordered, items, asks)


def _swapped(piece: str, what: Phrase, by: str) -> str:
    """A piece with its ambiguous word said otherwise; a whole alternative stands for the piece."""
    word = what.amounts.get("what")
    if word is not None and word.text and word.text in piece:
        return piece.replace(word.text, by)
    return by


def _spans(atoms: Sequence[Atom], read: Atoms) -> tuple[Span, ...]:
    spans: list[Span] = []
    last = -2
    for i in sorted({i for a in atoms for i in a.tokens}):
        token = read.tokens[i]
        if spans and i == last + 1:
            spans[-1] = Span(spans[-1].start, token.end)
        else:
            spans.append(Span(token.start, token.end))
        last = i
    return tuple(spans)


def _text(spans: Sequence[Span], text: str) -> str:
    return " … ".join(text[s.start : s.end] for s in spans)


def _others(piece: Piece, text: str, inventory: Inventory) -> tuple[Alternative, ...]:
    """Nearest names of the pantry for what is not known, and leaving it out."""
    out: list[Alternative] = []
    if piece.status == "unread":
        lowered = piece.text.lower()
        for name, (nearest, change) in substitutes().items():
            if name in lowered and nearest in inventory.pantry:
                thing = inventory.pantry[nearest].name.lower()
                label = say("{n} instead: {change}", n=ph.word(thing), change=ph.word(change))
                out.append(Alternative(label, lowered.replace(name, thing)))
        if not out:
            names = {n: i.name for i in inventory.pantry.values() if not i.retired for n in names_of(i)}
            near = process.extract(lowered, list(names), scorer=fuzz.ratio, score_cutoff=70, limit=3)
            out = [Alternative(say("{n}", n=ph.word(name)), name) for name, _, _ in near]
    out.append(Alternative(say("leave it out"), ""))
    return tuple(replace(a, text=replaced(text, piece.spans, a.text)) for a in out)
