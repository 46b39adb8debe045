"""Rules for how many pieces, of what kind and way."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, count_said, counted, is_whole, take_meats, take_pieces
from vianda.core.reading.said import Noted, PieceWord, Said

rule = LINE.rule


@rule(
    "NUM times? SIZE|equal* MULTIPLE? SIZE* RESULT* STYLE* SIZE* MEATP? PIECE",
    "NUM MULTIPLE",
    "NUM STYLE* MULTIPLE STYLE* PIECE",
    "for NUM SIZE* MULTIPLE? STYLE* SIZE* MEATP? PIECE",
    "makes NUM SIZE* MULTIPLE? STYLE* MEATP? PIECE",
    "makes NUM SIZE* MULTIPLE? STYLE* times? PIECE",
    "makes NUM",
    "serves NUM MULTIPLE? STYLE* PIECE",
    "PIECE times NUM",
    "NUM PIECE STYLE",
    "NUM of STYLE* MEATP? PIECE",
)
def _count_pieces(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or (a.number is not None and a.number.fraction) or a.value > 100_000:
        return None
    if not m.one("PIECE") and not m.one("MULTIPLE") and any("PEOPLE" in x.kinds for x in m.atoms):
        return None
    take_meats(m, s)
    name = take_pieces(m, s, count=a)
    times = s.pieces[-1].times
    if times > 1:
        return say(
            "{n} {name}: {p} patties",
            n=count_said(a),
            name=ph.word("doubles" if times == 2 else "triples" if times == 3 else f"of {times}"),
            p=ph.count(round(a.value) * times),
        )
    return say("{n} {name}", n=count_said(a), name=ph.word(name))


@rule(
    "NUM SIZE* STYLE* MEATP? PIECE each|ahead",
    "NUM ahead",
    "NUM each",
    "NUM PIECE? for? each PEOPLE",
    "NUM PIECE per PEOPLE",
    "NUM per PEOPLE",
)
def _count_each(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a):
        return None
    take_meats(m, s)
    name = take_pieces(m, s, each=True, count=a)
    return say("{n} {name} each", n=count_said(a), name=ph.word(name if name != "pieces" else "pieces"))


@rule(
    "SIZE* MULTIPLE? SIZE* RESULT* STYLE* SIZE* PIECE",
    "MULTIPLE STYLE* PIECE?",
    "in|into|as|makes PIECE",
    "PIECE STYLE",
    "STYLE MEATP PIECE",
)
def _pieces(m: Match, s: Said) -> Phrase:
    take_meats(m, s)
    name = take_pieces(m, s)
    times = s.pieces[-1].times
    if times > 1:
        return say("{n} patties in a bun", n=ph.count(times))
    return say("{name}", name=ph.word(name))


@rule("NUM per bun", "NUM in each? bun", "NUM each bun")
def _in_a_bun(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or not 1 <= a.value <= 4:
        return None
    s.pieces.append(PieceWord("burger", s.at, times=round(a.value)))
    return say("{n} patties in a bun", n=count_said(a))


@rule("NUM bun", "for NUM bun", "NUM BUN_HERE")
def _buns(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or (a.number is not None and a.number.fraction) or a.value < 1:
        return None
    s.pieces.append(PieceWord("burger", s.at, counted(s, a)))
    return say("{n} buns, one burger in each", n=count_said(a))


@rule("STYLE")
def _style(m: Match, s: Said) -> Phrase:
    key = m.atoms[0].sense("STYLE").key  # type: ignore[union-attr]
    s.styles.append((key, s.at))
    return say("style: {key}", key=ph.word(m.atoms[0].text))


@rule("SIZE")
def _size(m: Match, s: Said) -> Phrase:
    s.sizes.append((m.atoms[0].sense("SIZE").key, s.at))  # type: ignore[union-attr]
    return say("size: {key}", key=ph.word(m.atoms[0].text))


@rule("RESULT+", "RESULT and RESULT", "RESULT SEP RESULT SEP RESULT")
def _result(m: Match, s: Said) -> Phrase:
    words = [a.text for a in m.atoms if "RESULT" in a.kinds]
    s.results += words
    s.notes.append(Noted("result", "Should eat: " + ", ".join(words), s.at))
    return say("how it should eat: {words}", words=ph.word(", ".join(words)))
