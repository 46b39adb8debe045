"""Rules for sizes, breads, tins and scoops."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, is_whole, length_said, take_pieces
from vianda.core.reading.said import PieceWord, Said

rule = LINE.rule

# No burger is so narrow: "1.5 inch burgers" are so thick (ours), mm.
THICKEST_MM = 45.0


@rule(
    "LEN thick",
    "thick of? LEN",
    "LEN thick PIECE",
    "NUM LEN thick STYLE* PIECE",
    "thick SEP LEN",
    "LEN SIZE STYLE* PIECE",
    "NUM LEN SIZE STYLE* PIECE",
    "LEN SIZE",
    "makes? LEN thick PIECE",
)
def _thickness(m: Match, s: Said) -> Phrase | None:
    a, n = m.one("LEN"), m.one("NUM")
    assert a is not None
    if n is not None and not is_whole(n):
        return None
    if (word := m.one("SIZE")) is not None and word.sense("SIZE").key not in ("thick", "thin"):  # type: ignore[union-attr]
        return None
    if m.one("PIECE"):
        take_pieces(Match(tuple(t for t in m.taken if "SIZE" not in t[0]), m.end), s, count=n)
    s.thickness.append(s.figure(a.value, a.low, a.high))
    return say("{l} thick", l=length_said(a))


@rule(
    "LEN across",
    "across of? LEN",
    "LEN across PIECE",
    "LEN STYLE* PIECE",
    "NUM LEN STYLE* PIECE",
    "NUM LEN across STYLE* PIECE",
    "PIECE of LEN",
    "PIECE LEN across",
    "NUM PIECE of? LEN across",
    "NUM PIECE LEN across",
)
def _across(m: Match, s: Said) -> Phrase | None:
    a, n = m.one("LEN"), m.one("NUM")
    assert a is not None
    if n is not None and not is_whole(n):
        return None
    word = m.one("PIECE")
    if word is not None:
        take_pieces(m, s, count=n)
        # "1 inch thick burgers" is a thickness; "4 inch burgers" lie across.
        flat = not word.sense("PIECE").key.startswith(("ball", "loaf")) and a.value <= THICKEST_MM  # type: ignore[union-attr]
        if not m.one("across") and (flat or {"thick", "thin"} & set(word.text.lower().split())):
            s.thickness.append(s.figure(a.value, a.low, a.high))
            return say("{l} thick", l=length_said(a))
    s.across.append(s.figure(a.value, a.low, a.high))
    return say("{l} across", l=length_said(a))


@rule("LEN")
def _length(m: Match, s: Said) -> Phrase:
    a = m.atoms[0]
    s.lengths.append(s.figure(a.value, a.low, a.high))
    return say("{l} thick", l=length_said(a)) if a.value <= 45 else say("{l} across", l=length_said(a))


@rule("LIKENESS PIECE?", "NUM LIKENESS PIECE?", "PIECE LIKENESS", "LIKENESS sized PIECE?", "NUM LIKENESS STYLE* PIECE")
def _likeness(m: Match, s: Said) -> Phrase:
    a, n = m.one("LIKENESS"), m.one("NUM")
    assert a is not None
    sense = a.sense("LIKENESS")
    assert sense is not None
    if m.one("PIECE"):
        take_pieces(m, s, count=n)
    elif n is not None:
        s.pieces.append(PieceWord("ball-baked", s.at, s.figure(n.value)))
    else:
        s.pieces.append(PieceWord("ball-baked", s.at))
    s.across.append(s.figure(sense.value))
    return say("{word}: {l} across", word=ph.word(a.text), l=ph.length(sense.value))


@rule("fit? LEN bun", "bun of? LEN", "fit LEN BUN_HERE", "for|on|with LEN bun", "LEN bun")
def _bun_size(m: Match, s: Said) -> Phrase:
    a = m.one("LEN")
    assert a is not None
    s.bun_mm.append(s.figure(a.value))
    return say("bun of {l}", l=length_said(a))


@rule("on|in|with? BUN_HERE", "on|in|with? bun", "on|in|with? MASS bun")
def _bun(m: Match, s: Said) -> Phrase:
    here = m.one("BUN_HERE")
    if here is not None:
        s.bun = here.sense("BUN_HERE").key  # type: ignore[union-attr]
        return say("{bun}", bun=ph.word(s.kitchen.bun(s.bun).name))
    return say("in a bun")


@rule("on|in|with BREAD")
def _bread(m: Match, s: Said) -> Phrase | None:
    kind = m.one("BREAD").sense("BREAD").key  # type: ignore[union-attr]
    found = next((b for b in s.kitchen.buns if b.kind == kind), None)
    if found is None:
        s.tools.append((m.one("BREAD").text, "", s.at))  # type: ignore[union-attr]
        return say("{b}: not among this kitchen's breads", b=ph.word(m.one("BREAD").text))  # type: ignore[union-attr]
    s.bun = found.key
    return say("{bun}", bun=ph.word(found.name))


@rule("no bun", "no MEATP bun", "no BUN_HERE", "nobun")
def _no_bun(m: Match, s: Said) -> Phrase:
    s.no_bun = True
    return say("no bun")


@rule(
    "in|with|on? DIMS MOULD",
    "MOULD of? DIMS",
    "in|with|on? LEN MOULD",
    "in|with|on? MASS MOULD",
    "in|with|on? MOULD",
    "in|with|on? VOL MOULD",
    "in|with NUM MOULD",
    "in|with SIZE MOULD",
    "with MOULD NUM",
    "MOULD SEP DIMS",
    "in NUM MASS MOULD",
    "in NUM DIMS MOULD",
    "in|with? DIMS SURFACE",
)
def _mould(m: Match, s: Said) -> Phrase | None:
    a, n = m.one("MOULD"), m.one("NUM")
    # "a 9 x 5 pan" has corners: a tin.
    key = a.sense("MOULD").key if a is not None else "tin"  # type: ignore[union-attr]
    dims = m.one("DIMS") or m.one("LEN")
    sizes = dims.parts or (dims.value,) if dims else ()
    if n is not None:
        if not is_whole(n):
            return None
        if key == "scoop":
            sizes = (n.value,)
        else:
            s.loaves.append(s.figure(n.value))
    s.moulds.append((key, sizes, s.at))
    return say(
        "{mould}", mould=ph.word(" ".join(x.text for x in m.atoms if "w:in" not in x.kinds and "w:with" not in x.kinds))
    )
