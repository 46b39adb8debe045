"""Rules for who eats: numbers of people, families, parties."""

from __future__ import annotations

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, count_said, counted, is_whole
from vianda.core.reading.said import Said

rule = LINE.rule


@rule(
    "for? NUM PEOPLE",
    "serves NUM PEOPLE?",
    "for NUM",
    "for? family|PARTY|PARTY_OPEN of NUM",
    "for? PARTY_OPEN of NUM PEOPLE?",
    "NUM PARTY_OPEN",
    "per NUM PEOPLE",
    "for NUM PARTY_OPEN",
)
def _people(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or (a.number is not None and a.number.fraction):
        return None
    who = m.one("PEOPLE")
    sense = who.sense("PEOPLE") if who else None
    s.people.append(counted(s, a))
    if sense and sense.key == "child":
        s.children += round(s.people[-1].high)
        return say("{n} children", n=count_said(a))
    return say("{n} people", n=count_said(a))


@rule("for? PARTY", "serves PARTY")
def _party(m: Match, s: Said) -> Phrase:
    a = m.one("PARTY")
    assert a is not None
    sense = a.sense("PARTY")
    assert sense is not None
    s.people.append(s.figure(sense.value))
    if sense.key == "4":
        return say("a family, taken as {n} people", n=ph.count(4))
    return say("{n} people", n=ph.count(round(sense.value)))


@rule("for? PARTY_OPEN", "for PEOPLE", "for some PEOPLE")
def _open_party(m: Match, s: Said) -> Phrase:
    s.open_party = " ".join(a.text for a in m.atoms if a.kinds & {"PARTY_OPEN", "PEOPLE"})
    return say("people to feed, without a number")


@rule("including NUM PEOPLE", "SEP including NUM PEOPLE", "including NUM PEOPLE SEP")
def _including(m: Match, s: Said) -> Phrase | None:
    a, who = m.one("NUM"), m.one("PEOPLE")
    assert a is not None
    assert who is not None
    if not is_whole(a):
        return None
    if who.sense("PEOPLE").key == "child":  # type: ignore[union-attr]
        s.children += round(a.high)
    return say("{n} of them {who}", n=count_said(a), who=ph.word(who.text))
