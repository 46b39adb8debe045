"""Read an opening line: every token ends as understood, as a function word, or as unread; nothing is dropped."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from rapidfuzz import fuzz, process

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.reading.atom import Atom, Atoms
from vianda.core.reading.atoms import atoms_of
from vianda.core.reading.gathered import gathered
from vianda.core.reading.lexicon import Lexicon, lexicon_of
from vianda.core.reading.piece import Alternative, Piece, Span, replaced
from vianda.core.reading.rules import LINE
from vianda.core.reading.rules.rest import unread_reason
from vianda.core.reading.said import Said

_SEPARATED = {"SEP"}


@dataclass(frozen=True, slots=True)
class LineReading:
    """A line as it was read: its pieces in the order of the text, and what it said."""

    text: str
    pieces: tuple[Piece, ...]
    said: Said

    @property
    def unread(self) -> tuple[str, ...]:
        """What was not understood."""
        return tuple(p.text for p in self.pieces if p.status == "unread")


def _spans(indexes: Iterable[int], atoms: Atoms) -> tuple[Span, ...]:
    """Tokens as stretches of the text; neighbours run together."""
    spans: list[Span] = []
    last = -2
    for i in sorted(set(indexes)):
        token = atoms.tokens[i]
        if spans and i == last + 1:
            spans[-1] = Span(spans[-1].start, token.end)
        else:
            spans.append(Span(token.start, token.end))
        last = i
    return tuple(spans)


def _text(spans: Sequence[Span], text: str) -> str:
    return " … ".join(text[s.start : s.end] for s in spans)


_JOINING = frozenset({"w:and", "w:with", "w:to", "w:for", "w:in", "w:of", "w:from", "w:some", "w:have"})


def _joins_only(atoms: Sequence[Atom], at: int) -> bool:
    """Whether an "and", "with" or "to" only joins: what follows it is read further without it than with it."""
    if at + 1 >= len(atoms) or not atoms[at].kinds & _JOINING:
        return False

    def reach(n: int) -> int:
        return max((n + match.end for match, _ in LINE.candidates(atoms[n:], 0)), default=n)

    return reach(at + 1) > reach(at)


def read_line(text: str, *, inventory: Inventory, kitchen: Kitchen) -> LineReading:
    """A line as it was read.

    Parameters
    ----------
    text : str
        What was typed.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    LineReading
        The line's pieces, and what it said.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> line = read_line("8 burgers of 125 g for four", inventory=starter_inventory(), kitchen=yard_galley())
    >>> [(p.text, p.kind, p.status) for p in line.pieces]
    [('8 burgers of 125 g', 'count', 'understood'), ('for four', 'people', 'understood')]
    """
    lexicon = lexicon_of(inventory=inventory, kitchen=kitchen)
    read = atoms_of(text, lexicon=lexicon, imperial=kitchen.country == "UK", system=kitchen.unit_system, points=True)
    species = {key: meat.species for key, meat in inventory.meats.items()}
    atoms = gathered(read.atoms, species)
    said = Said(inventory, kitchen, kitchen.unit_system, text)
    pieces: list[Piece] = []
    noise: set[int] = set(read.noise)
    at = 0
    while at < len(atoms):
        taken = False
        if _joins_only(atoms, at):
            noise.update(atoms[at].tokens)
            at += 1
        for match, action in LINE.candidates(atoms[at:], 0):
            said.at = len(pieces)
            said.guessed = False
            said.linked = at > 0 and bool(atoms[at - 1].kinds & {"w:and", "w:plusword"})
            label = action(match, said)
            if not label:
                continue
            spans = _spans((i for a in match.atoms for i in a.tokens), read)
            spelt = next((a.spelt for a in match.atoms if a.spelt), "")
            kind = _KINDS.get(action.__name__[1:], action.__name__[1:])
            status = "assumed" if spelt or said.guessed else "understood"
            pieces.append(Piece(spans, _text(spans, text), status, kind, label))  # type: ignore[arg-type]
            at += match.end
            taken = True
            break
        if taken:
            continue
        a = atoms[at]
        if a.kinds == _SEPARATED or "noise" in a.kinds or a.kinds <= {"about", "w:a", "SEP"} or a.kinds <= _QUIET:
            noise.update(a.tokens)
        else:
            spans = _spans(a.tokens, read)
            pieces.append(Piece(spans, _text(spans, text), "unread", "unread", unread_reason([a])))
        at += 1
    for i in sorted(read.unread):
        spans = _spans((i,), read)
        pieces.append(Piece(spans, _text(spans, text), "unread", "unread", say("not understood")))
    for i in sorted(noise):
        if read.tokens[i].kind == "word":
            spans = _spans((i,), read)
            pieces.append(Piece(spans, _text(spans, text), "noise", "noise", say("a joining word")))
    ordered = _in_order(pieces, said)
    finished = tuple(replace(p, alternatives=_alternatives(p, lexicon, said)) for p in ordered)
    return LineReading(text, finished, said)


# Joining words of the grammar that say nothing on their own.
_QUIET = frozenset(
    {
        "w:for",
        "w:of",
        "w:and",
        "w:with",
        "w:in",
        "w:into",
        "w:on",
        "w:at",
        "w:to",
        "w:from",
        "w:by",
        "w:some",
        "w:have",
        "w:makes",
        "w:serves",
        "w:per",
        "w:plusword",
        "noise",
        "about",
        "w:all",
        "w:a",
        "w:times",
        "w:weare",
        "w:letme",
        "w:weight",
        "w:counted",
        "w:spare",
    }
    - {"w:per", "w:times", "w:serves"}
)
_KINDS = {
    "count_pieces": "count",
    "count_each": "count",
    "count_of_mass": "count",
    "sized_pieces": "count",
    "pieces": "dish",
    "party": "people",
    "open_party": "people",
    "mass_of_meat": "meat",
    "meat_mass": "meat",
    "meat": "meat",
    "packs": "meat",
    "pack_of_unknown": "meat",
    "share": "share",
    "part": "share",
    "ratio": "share",
    "halves": "share",
    "halves_alone": "share",
    "loosely": "share",
    "either": "share",
    "total": "mass",
    "each": "mass",
    "ahead": "mass",
    "cooked": "mass",
    "thickness": "size",
    "across": "size",
    "length": "size",
    "likeness": "size",
    "bun_size": "bread",
    "bun": "bread",
    "no_bun": "bread",
    "core_bare": "core",
    "surface_temp": "surface",
    "surface_temp_bare": "surface",
    "grinder": "tool",
    "salt_share": "salt",
    "salt_mass": "salt",
    "salt_spoons": "salt",
    "no_salt": "salt",
    "salt_usual": "salt",
    "avoid": "limit",
    "diet": "limit",
    "low_salt": "limit",
    "no_surface": "surface",
    "in_a_bun": "count",
    "buns": "count",
    "including": "people",
    "summed": "meat",
    "summed_alone": "mass",
    "served": "note",
    "mass_of_fat": "meat",
    "mass_of_each_meat": "meat",
    "at_hand": "time",
    "stage_minutes": "time",
    "ready": "ready",
    "not_made": "not made",
    "ingredient_amount": "ingredient",
    "grind": "note",
    "prepared": "note",
    "result": "note",
    "either_dish": "dish",
    "bound": "note",
    "money": "note",
    "in_turn": "meat",
    "one_of_meat": "meat",
    "spare": "count",
    "loss": "note",
    "days": "note",
    "boxes": "note",
    "joint": "meat",
    "one_each": "count",
    "count_of_grams": "count",
    "not_so": "dish",
    "twice": "share",
    "sauced": "dish",
    "for_children": "people",
    "at_risk": "people",
    "some_at_risk": "people",
    "steaks": "meat",
}


def _in_order(pieces: list[Piece], said: Said) -> list[Piece]:
    """Pieces in the order of the text. Facts keep pointing to theirs: their indexes are renumbered."""
    order = sorted(range(len(pieces)), key=lambda i: pieces[i].spans[0].start)
    said.order = {old: new for new, old in enumerate(order)}
    return [pieces[i] for i in order]


def _alternatives(piece: Piece, lexicon: Lexicon, said: Said) -> tuple[Alternative, ...]:
    """How else a piece may be meant, as texts that would say so; leaving it out is always one."""
    out: list[Alternative] = []
    t = piece.text
    if piece.status == "unread":
        pool = sorted({w for w in lexicon.all_words() if len(w) > 2})
        near = process.extract(t.lower(), pool, scorer=fuzz.ratio, score_cutoff=60, limit=3)
        out += [Alternative(say("{w}", w=ph.word(w)), w) for w, _, _ in near]
        if t.replace(",", "").replace(".", "").isdigit():
            out += [
                Alternative(say("{n} people", n=ph.word(t)), f"{t} people"),
                Alternative(say("{n} pieces", n=ph.word(t)), f"{t} pieces"),
                Alternative(say("{n} g", n=ph.word(t)), f"{t} g"),
            ]
    elif piece.kind == "mass":
        bare = t.removesuffix(" each").removesuffix(" in all").removesuffix(" a person").strip()
        for label, text in (("in all", " in all"), ("for each piece", " each"), ("a person", " a person")):
            if not t.endswith(text):
                out.append(Alternative(say("{m} {role}", m=ph.word(bare), role=ph.word(label)), bare + text))
    elif piece.kind == "people" and (n := _figures(t)):
        out.append(Alternative(say("{n} pieces", n=ph.word(n)), f"{n} pieces"))
    elif piece.kind == "count" and (n := _figures(t)) and " " in t:
        out.append(Alternative(say("for {n} people", n=ph.word(n)), f"for {n} people"))
    elif piece.kind == "size" and piece.text.split()[-1] not in ("thick", "across"):
        out.append(Alternative(say("{t} thick", t=ph.word(t)), f"{t} thick"))
        out.append(Alternative(say("{t} across", t=ph.word(t)), f"{t} across"))
    elif piece.kind in ("core", "surface") and any(c.isdigit() for c in t):
        bare = t.removeprefix("core ").removeprefix("at ").removeprefix("to ")
        if piece.kind == "core":
            out.append(Alternative(say("the surface at {t}", t=ph.word(bare)), f"at {bare}"))
        else:
            out.append(Alternative(say("the core at {t}", t=ph.word(bare)), f"core {bare}"))
    elif piece.kind == "meat":
        out += _other_meats(piece, said)
    out.append(Alternative(say("leave it out"), ""))
    return tuple(replace(a, text=replaced(said.text, piece.spans, a.text)) for a in out)


def _figures(text: str) -> str:
    digits = [w for w in text.split() if w.isdigit()]
    return digits[0] if len(digits) == 1 else ""


def _other_meats(piece: Piece, said: Said) -> list[Alternative]:
    """Meats of the same species that a meat word may have meant."""
    index = {new: old for old, new in said.order.items()}
    meat = next((m for m in said.meats if said.order.get(m.piece) is not None and piece.text.endswith(m.word)), None)
    del index
    if meat is None:
        return []
    species = said.inventory.meat(meat.key).species if meat.key else meat.any
    near = [m for m in said.inventory.meats.values() if m.species == species and m.key != meat.key and not m.retired]
    words = set(meat.word.lower().split())
    near.sort(key=lambda m: (-len(words & set(m.name.lower().split())), m.kind != "ground"))
    before = piece.text[: -len(meat.word)]
    return [Alternative(say("{m}", m=ph.word(m.name)), before + m.name.split(" (")[0].lower()) for m in near[:4]]
