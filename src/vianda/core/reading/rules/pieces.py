"""Rules for how many pieces, of what kind and way."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, count_said, counted, is_whole, length_said, take_meats, take_pieces
from vianda.core.reading.said import Noted, PieceWord, Said

rule = LINE.rule

# "Trim 10 %" is lost up to here; more of it is meat that is called trim (ours).
MOST_TRIMMED = 0.15
# A bare number "each" from here on is grams (ours).
LEAST_GRAMS = 40.0


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
    "NUM STYLE+ SIZE* MULTIPLE",
    "NUM ofthem",
    "NUM STYLE* PIECE total",
    "times NUM SIZE* STYLE* PIECE?",
    "NUM times",
    "counted SEP? NUM",
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


@rule("SIZE* STYLE* MEATP? PIECE each|ahead")
def _one_each(m: Match, s: Said) -> Phrase | None:
    """``a burger each``: the article counts one."""
    word = m.one("PIECE")
    assert word is not None
    if not m.atoms[0].article or word.text.lower().endswith("s"):
        return None
    take_meats(m, s)
    name = take_pieces(m, s)
    s.pieces[-1] = replace(s.pieces[-1], count=s.figure(1.0), each=True)
    return say("one {name} each", name=ph.word(name))


@rule(
    "NUM SIZE* STYLE* MEATP? PIECE each|ahead",
    "NUM ahead",
    "NUM each",
    "NUM PIECE? for? each PEOPLE",
    "NUM PIECE per PEOPLE",
    "NUM per PEOPLE",
    "each NUM SIZE* STYLE* MEATP? PIECE",
    "each NUM",
    "NUM STYLE* PIECE for? eachof NUM PEOPLE?",
)
def _count_each(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a):
        return None
    if not m.one("PIECE") and not m.one("PEOPLE") and m.one("each") and a.value >= LEAST_GRAMS and s.system != "us":
        # "180 each": no one eats so many; it is their weight.
        s.guessed = True
        s.eachs.append(s.figure(a.value, a.low, a.high))
        return say("{m} each", m=ph.mass(a.value))
    take_meats(m, s)
    if m.one("eachof") and not m.one("PIECE"):
        return None
    if len(numbers := m.all("NUM")) > 1:
        s.people.append(counted(s, numbers[1]))
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


@rule("plusword? NUM spare PIECE?", "PCT spare PIECE?", "plusword PCT spare?")
def _spare(m: Match, s: Said) -> Phrase | None:
    """``10 burgers plus 2 spare``, ``20 % extra``: more pieces, no more people."""
    n, share = m.one("NUM"), m.one("PCT")
    if n is not None:
        if not is_whole(n) or (n.number is not None and n.number.fraction):
            return None
        s.extra += round(n.value)
        return say("{n} more pieces", n=count_said(n))
    assert share is not None
    if share.value > 1 or not m.one("spare"):
        return None
    s.extra_frac += share.value
    return say("{share} more pieces", share=ph.frac(share.value))


@rule("plusword|with|and? PCT|MASS of? loss", "loss SEP? PCT")
def _loss(m: Match, s: Said) -> Phrase | None:
    """``10 % trim loss``: what the bench asks under Meat and Shape. "Trim 30 %" is meat."""
    share = m.one("PCT")
    meat = "MEATP" in m.one("loss").kinds  # type: ignore[union-attr]
    if meat and (share is None or share.value > MOST_TRIMMED or s.fats):
        return None
    text = " ".join(a.text for a in m.atoms if "PCT" in a.kinds or "MASS" in a.kinds or "w:loss" in a.kinds)
    s.notes.append(Noted("note", text.capitalize(), s.at))
    return say("{what}, kept as a note", what=ph.word(text))


@rule("NUM STYLE* PIECE? atatime")
def _at_a_time(m: Match, s: Said) -> Phrase | None:
    """``2 smashed burgers at a time``: how the cook works, never how many there are."""
    a = m.one("NUM")
    assert a is not None
    if m.one("PIECE") or m.one("STYLE"):
        take_pieces(m, s)
    s.notes.append(Noted("note", " ".join(x.text for x in m.atoms), s.at))
    return say("{n} at a time, kept as a note", n=count_said(a))


@rule("NUM per bun", "NUM in each? bun", "NUM each bun")
def _in_a_bun(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or not 1 <= a.value <= 4:
        return None
    s.pieces.append(PieceWord("burger", s.at, times=round(a.value)))
    return say("{n} patties in a bun", n=count_said(a))


@rule("NUM SIZE* bun", "for NUM SIZE* bun", "NUM BUN_HERE", "for? NUM SIZE* bun of LEN", "for? NUM LEN bun")
def _buns(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or (a.number is not None and a.number.fraction) or a.value < 1:
        return None
    s.pieces.append(PieceWord("burger", s.at, counted(s, a)))
    if (wide := m.one("LEN")) is not None:
        s.bun_mm.append(s.figure(wide.value))
        return say("{n} buns of {l}, one burger in each", n=count_said(a), l=length_said(wide))
    return say("{n} buns, one burger in each", n=count_said(a))


@rule("no STYLE", "no SIZE")
def _not_so(m: Match, s: Said) -> Phrase | None:
    """``not smashed``: any other way."""
    way = m.one("STYLE") or m.one("SIZE")
    assert way is not None
    sense = way.sense("STYLE") or way.sense("SIZE")
    assert sense is not None
    s.not_styles.append({"thin": "smashed"}.get(sense.key, sense.key))
    return say("not {way}", way=ph.word(way.text))


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
