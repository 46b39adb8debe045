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
    "per NUM",
    "for NUM PARTY_OPEN",
    "weare NUM PEOPLE?",
    "PEOPLE SEP NUM",
    "PEOPLE NUM",
    "for? eachof NUM PEOPLE?",
    "for|serves? PEOPLE of NUM",
)
def _people(m: Match, s: Said) -> Phrase | None:
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a) or (a.number is not None and a.number.fraction):
        return None
    if (sep := m.one("SEP")) is not None and sep.text not in ":=":
        return None
    who = m.one("PEOPLE")
    sense = who.sense("PEOPLE") if who else None
    s.people.append(counted(s, a))
    if sense and sense.key == "child":
        s.children += round(s.people[-1].high)
        return say("{n} children", n=count_said(a))
    return say("{n} people", n=count_said(a))


@rule("for? PARTY", "serves PARTY")
def _party(m: Match, s: Said) -> Phrase | None:
    a = m.one("PARTY")
    assert a is not None
    if a.text.lower() == "me" and len(m.atoms) == 1:
        # "my butcher gave me": nobody counts himself so.
        return None
    sense = a.sense("PARTY")
    assert sense is not None
    if sense.key == "4":
        s.family = s.figure(sense.value)
        return say("a family, taken as {n} people", n=ph.count(4))
    s.people.append(s.figure(sense.value))
    return say("{n} people", n=ph.count(round(sense.value)))


@rule("PEOPLE")
def _for_children(m: Match, s: Said) -> Phrase | None:
    """``kids' burgers``: for children, without a number; "and a toddler" is one more."""
    child = m.atoms[0].sense("PEOPLE").key == "child"  # type: ignore[union-attr]
    if m.atoms[0].article and s.people:
        s.people.append(s.figure(1.0))
        s.children += int(child)
        return say("and one more")
    if not child:
        return None
    s.for_children = True
    return say("for children")


@rule("for? PARTY_OPEN", "for PEOPLE", "for some PEOPLE")
def _open_party(m: Match, s: Said) -> Phrase:
    who = m.one("PEOPLE")
    s.for_children = s.for_children or (who is not None and who.sense("PEOPLE").key == "child")  # type: ignore[union-attr]
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


_AT_RISK = {
    "pregnant": "pregnancy",
    "old": "older people",
    "ill": "weak immunity",
    "care": "people in care",
    "young": "small children",
}


@rule("for? AT_RISK PEOPLE?", "for? AT_RISK PARTY")
def _at_risk(m: Match, s: Said) -> Phrase:
    """``my wife is pregnant``, ``for the care home``: whom undercooked mince can hurt most."""
    key = m.one("AT_RISK").sense("AT_RISK").key  # type: ignore[union-attr]
    s.at_risk.append(key)
    if (party := m.one("PARTY")) is not None:
        s.people.append(s.figure(party.sense("PARTY").value))  # type: ignore[union-attr]
    return say("at risk: {who}", who=ph.word(_AT_RISK[key]))


@rule(
    "for? NUM AT_RISK PEOPLE?",
    "NUM PEOPLE AT_RISK",
    "for? AT_RISK of NUM PEOPLE?",
    "including NUM AT_RISK",
    "SEP including NUM AT_RISK",
)
def _some_at_risk(m: Match, s: Said) -> Phrase | None:
    """``8 pensioners`` are eaters; after eaters were named they are some of them."""
    a = m.one("NUM")
    assert a is not None
    if not is_whole(a):
        return None
    key = m.one("AT_RISK").sense("AT_RISK").key  # type: ignore[union-attr]
    s.at_risk.append(key)
    of_them = bool(s.people) or any("including" in x.kinds for x in m.atoms) or m.one("PEOPLE") is m.atoms[1]
    if not of_them:
        s.people.append(counted(s, a))
        return say("{n} people, at risk: {who}", n=count_said(a), who=ph.word(_AT_RISK[key]))
    return say("{n} of them at risk: {who}", n=count_said(a), who=ph.word(_AT_RISK[key]))
