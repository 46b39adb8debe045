"""Read an opening line: every token ends as understood, as a function word, or as unread; nothing is dropped."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from rapidfuzz import fuzz, process

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import say
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.reading.atoms import Atom, Atoms, atoms_of
from vianda.core.reading.lexicon import Lexicon, Sense, lexicon_of
from vianda.core.reading.piece import Alternative, Piece, Span, replaced
from vianda.core.reading.rules import LINE
from vianda.core.reading.rules.common import EXTRA_LEAN_FAT, LEAN_FAT, RICH_FAT
from vianda.core.reading.rules.rest import unread_reason
from vianda.core.reading.said import Said

# Ratios that packs of mince are sold by: lean to fat (US practice; 9 CFR 319.15 caps fat at 30 %).
_FAT_MOST = 60.0
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


def _fat_at(atoms: Sequence[Atom], at: int) -> tuple[Atom, int] | None:
    """A lean:fat or a fat content that begins at a place, in any spelling."""

    def has(n: int, kind: str) -> bool:
        return n < len(atoms) and kind in atoms[n].kinds

    def made(
        fat: float, end: int, low: float | None = None, high: float | None = None, *, ratio: Atom | None = None
    ) -> tuple[Atom, int]:
        span = tuple(i for a in atoms[at:end] for i in a.tokens)
        kinds = {"FAT"} | ({"RATIO"} if ratio is not None else set())
        return (
            Atom(
                span,
                frozenset(kinds),
                (),
                fat,
                fat if low is None else low,
                fat if high is None else high,
                parts=ratio.parts if ratio else (),
                text=" ".join(a.text for a in atoms[at:end]),
            ),
            end,
        )

    n = at
    while has(n, "w:within") or has(n, "w:least"):
        n += 1
    # "lean to fat 75:25": the words before the figures.
    if has(n, "w:leanword"):
        after = n + 1
        while after < len(atoms) and (atoms[after].kinds & {"w:to", "w:fat", "SEP"}):
            after += 1
        if after > n + 1 and after < len(atoms) and "RATIO" in atoms[after].kinds and sum(atoms[after].parts) == 100:
            return made(min(atoms[after].parts) / 100, after + 1)
    a = atoms[n] if n < len(atoms) else None
    if a is None:
        return None
    if "RATIO" in a.kinds and len(a.parts) == 2 and sum(a.parts) == 100 and min(a.parts) > 0:
        end, named = n + 1, False
        while end < len(atoms) and (
            {"w:leanword", "w:fat"} & atoms[end].kinds
            or (atoms[end].text in "/:" and has(end + 1, "w:fat"))
            or ("w:to" in atoms[end].kinds and has(end + 1, "w:fat"))
        ):
            named = named or bool({"w:leanword", "w:fat"} & atoms[end].kinds)
            end += 1
        return made(min(a.parts) / 100, end, ratio=None if named else a)
    quantity = "PCT" in a.kinds or ("NUM" in a.kinds and 1 < a.value <= 99 and not a.parts)
    scale = 1.0 if "PCT" in a.kinds else 0.01
    if quantity:
        end = n + 1
        if has(end, "w:of") and has(end + 1, "w:fat"):
            end += 1
        if has(end, "w:leanword"):
            end += 1
            more = end + 1 if has(end, "w:and") or has(end, "SEP") else end
            fatty = more < len(atoms) and {"PCT", "NUM"} & atoms[more].kinds and has(more + 1, "w:fat")
            return made(1 - a.value * scale, more + 2 if fatty else end, 1 - a.high * scale, 1 - a.low * scale)
        if has(end, "w:fat") and (a.value * scale * 100 <= _FAT_MOST):
            end += 1
            if has(end, "w:and") and has(end + 1, "PCT") and has(end + 2, "w:leanword"):
                end += 3
            return made(a.value * scale, end, a.low * scale, a.high * scale)
    if "w:fat" in a.kinds or "w:leanword" in a.kinds:
        end = n + 1
        while (
            has(end, "w:of") or has(end, "w:at") or (end < len(atoms) and atoms[end].text in ":=") or has(end, "about")
        ):
            end += 1
        if has(end, "PCT"):
            value = atoms[end]
            lean = "w:leanword" in a.kinds and "w:fat" not in a.kinds
            after_ok = not (has(end + 1, "MEAT") and "w:fat" not in atoms[end + 1].kinds)
            if after_ok or ":" in atoms[n + 1].text or has(end + 1, "SEP"):
                if lean:
                    return made(1 - value.value, end + 1, 1 - value.high, 1 - value.low)
                if value.value * 100 <= _FAT_MOST:
                    return made(value.value, end + 1, value.low, value.high)
    return None


# Of mince alone, a share up to here is taken for its fat: "5 % beef mince" (label practice of the UK and EU).
_MOST_LABELLED = 0.35


def _labelled_at(atoms: Sequence[Atom], at: int) -> tuple[Atom, int] | None:
    """``5 % beef mince``, ``turkey mince (7 %)``: a small per cent beside mince is its fat, unless shares are said."""
    a = atoms[at]
    if "PCT" not in a.kinds or not 0 < a.high <= _MOST_LABELLED:
        return None
    before = atoms[at - 1] if at else None
    if before is not None and before.text == "(" and at > 1:
        before = atoms[at - 2]
    after = atoms[at + 1] if at + 1 < len(atoms) else None
    if after is not None and (after.kinds & {"w:salt", "ING", "w:saltfree"} and not _is_meat(after)):
        return None
    if any("PCT" in x.kinds and x.value > _MOST_LABELLED for x in atoms):
        return None
    alone = all("MEAT" not in x.kinds for x in atoms)
    for x in (before, after):
        if x is None or not _is_meat(x):
            continue
        minced = bool({"mince", "minced", "ground", "hackfleisch", "hack"} & set(x.text.lower().split()))
        if minced or (alone and "ANY" in x.kinds):
            return Atom(a.tokens, frozenset({"FAT"}), (), a.value, a.low, a.high, text=a.text), at + 1
    return None


def _with_fat(atoms: Sequence[Atom]) -> list[Atom]:
    out: list[Atom] = []
    at = 0
    while at < len(atoms):
        found = _fat_at(atoms, at) or _labelled_at(atoms, at)
        if found:
            out.append(found[0])
            at = found[1]
        else:
            out.append(atoms[at])
            at += 1
    return out


def _is_meat(a: Atom) -> bool:
    return bool({"MEAT", "ANY"} & a.kinds)


def _meat_at(atoms: Sequence[Atom], at: int, *, blocked: bool) -> tuple[Atom, int] | None:
    """A meat with what is said of its fat before and after it: ``extra lean 5 % beef mince``."""
    n, fat, word = at, None, ""
    while n < len(atoms):
        a = atoms[n]
        if "FAT" in a.kinds and fat is None:
            fat, n = a.value, n + 1
        elif {"w:leanword", "w:fatty", "w:extra"} & a.kinds and not _is_meat(a):
            if "w:extra" in a.kinds and not (n + 1 < len(atoms) and "w:leanword" in atoms[n + 1].kinds):
                return None
            if "w:leanword" in a.kinds:
                extra = n > at and "w:extra" in atoms[n - 1].kinds
                fat = fat if fat is not None else (EXTRA_LEAN_FAT if extra else LEAN_FAT)
            elif "w:fatty" in a.kinds:
                fat = fat if fat is not None else RICH_FAT
            n += 1
        elif n > at and ("w:of" in a.kinds or (a.kinds & {"PREP"} and not _is_meat(a))):
            n += 1
        else:
            break
    if n >= len(atoms) or not _is_meat(atoms[n]):
        return None
    meat = atoms[n]
    first = atoms[at]
    end = n + 1
    # "beef chuck", "chuck beef": the species is an adjective.
    if end < len(atoms) and _is_meat(atoms[end]):
        here_any, next_any = "MEAT" not in meat.kinds, "MEAT" not in atoms[end].kinds
        if here_any and not next_any:
            meat, end = atoms[end], end + 1
        elif next_any and not here_any:
            end += 1
    # A bare ratio before several meats parts them; before one it is lean to fat.
    if "FAT" in first.kinds and "RATIO" in first.kinds and _more_meats(atoms, end):
        return None
    after = end
    if after < len(atoms) and ({"w:with", "w:at"} & atoms[after].kinds or atoms[after].text in ("(", ",")):
        after += 1
    closed = after < len(atoms) and "FAT" in atoms[after].kinds and fat is None
    if closed and not ("RATIO" in atoms[after].kinds and (blocked or _more_meats(atoms, after + 1))):
        comma = after > end and (atoms[after - 1].text == "," or "w:at" in atoms[after - 1].kinds)
        if not comma or not (_more_meats(atoms, after + 1) or blocked):
            fat, end = atoms[after].value, after + 1
            if end < len(atoms) and atoms[end].text == ")":
                end += 1
    senses = [s for s in meat.senses if s.kind in ("MEAT", "ANY", "AVOIDED", "ING", "w:fat")]
    if fat is not None:
        senses.append(Sense("FATSAID", value=fat))
    kinds = {s.kind for s in senses} | {"MEATP"}
    if fat is not None:
        kinds -= {"AVOIDED", "ING"}
    span = tuple(i for a in atoms[at:end] for i in a.tokens)
    word = " ".join(a.text for a in atoms[at:end])
    return Atom(span, frozenset(kinds), tuple(senses), value=fat or 0.0, spelt=meat.spelt, text=word), end


def _more_meats(atoms: Sequence[Atom], at: int) -> bool:
    """Whether another meat follows: after "and", a comma, "to" or "with"."""
    n = at
    while n < len(atoms) and (atoms[n].kinds & {"w:and", "w:to", "w:with", "SEP"}):
        n += 1
    return n > at and n < len(atoms) and _is_meat(atoms[n]) and not {"w:fat"} & atoms[n].kinds


def _with_meats(atoms: Sequence[Atom]) -> list[Atom]:
    out: list[Atom] = []
    at = 0
    while at < len(atoms):
        blocked = any("MEATP" in a.kinds for a in out)
        found = _meat_at(atoms, at, blocked=blocked)
        if found:
            out.append(found[0])
            at = found[1]
        else:
            out.append(atoms[at])
            at += 1
    return out


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
    atoms = _with_meats(_with_fat(read.atoms))
    said = Said(inventory, kitchen, kitchen.unit_system, text)
    pieces: list[Piece] = []
    noise: set[int] = set(read.noise)
    at = 0
    while at < len(atoms):
        taken = False
        for match, action in LINE.candidates(atoms[at:], 0):
            said.at = len(pieces)
            said.linked = at > 0 and bool(atoms[at - 1].kinds & {"w:and", "w:plusword"})
            label = action(match, said)
            if not label:
                continue
            spans = _spans((i for a in match.atoms for i in a.tokens), read)
            spelt = next((a.spelt for a in match.atoms if a.spelt), "")
            kind = _KINDS.get(action.__name__[1:], action.__name__[1:])
            status = "assumed" if spelt else "understood"
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
