"""Rules for meats, their shares and their fat."""

from __future__ import annotations

import math

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import (
    EXTRA_LEAN_FAT,
    LEAN_FAT,
    LEAST_LEAN,
    LINE,
    RICH_FAT,
    mass_said,
    meat_name,
    meat_said,
    take_pieces,
)
from vianda.core.reading.said import MeatSaid, PieceWord, Said

rule = LINE.rule


@rule("MEATP", "with MEATP", "of? MEATP")
def _meat(m: Match, s: Said) -> Phrase:
    a = m.one("MEATP")
    assert a is not None
    said = meat_said(a, s)
    said.joined = s.linked and bool(s.meats) and s.meats[-1].piece == s.at - 1
    s.meats.append(said)
    return say("{meat}", meat=ph.word(meat_name(a, s)))


@rule("PCT of? MEATP", "MEATP PCT", "MEATP SEP PCT", "with PCT MEATP", "MEATP at PCT", "with MEATP at? PCT")
def _share(m: Match, s: Said) -> Phrase | None:
    a, meat_atom, sep = m.one("PCT"), m.one("MEATP"), m.one("SEP")
    assert a is not None
    assert meat_atom is not None
    if (sep is not None and sep.text not in ":(") or a.value > 1:
        return None
    said = meat_said(meat_atom, s)
    said.share = a.value
    s.meats.append(said)
    return say("{share} {meat}", share=ph.frac(a.value), meat=ph.word(meat_name(meat_atom, s)))


@rule("PCT of? MEATP and|plusword? PCT of? MEATP STYLE* PIECE")
def _shares_of_pieces(m: Match, s: Said) -> Phrase | None:
    """``20 % pork 80 % beef meatballs``: the second meat belongs to its share, not to the name of the dish."""
    shares, meats = m.all("PCT"), m.all("MEATP")
    if abs(math.fsum(a.value for a in shares) - 1.0) > 0.005:
        return None
    for share, meat_atom in zip(shares, meats, strict=True):
        said = meat_said(meat_atom, s)
        said.share = share.value
        s.meats.append(said)
    name = take_pieces(m, s)
    one, two = (meat_name(a, s) for a in meats)
    return say(
        "{p} {one}, {q} {two}: {name}",
        p=ph.frac(shares[0].value),
        one=ph.word(one),
        q=ph.frac(shares[1].value),
        two=ph.word(two),
        name=ph.word(name),
    )


@rule("NUM of? MEATP", "NUM MEATP", "with? NUM of? MEATP", "NUM part of? MEATP", "MEATP NUM part")
def _part(m: Match, s: Said) -> Phrase | None:
    a, meat_atom = m.one("NUM"), m.one("MEATP")
    assert a is not None
    assert meat_atom is not None
    assert a.number is not None
    said = meat_said(meat_atom, s)
    if m.one("part"):
        said.part = a.value
        s.meats.append(said)
        return say("{n} parts {meat}", n=ph.number(a.value), meat=ph.word(meat_name(meat_atom, s)))
    if not a.number.fraction or not 0 < a.value <= 1:
        return None
    said.share = a.value
    s.meats.append(said)
    return say("{share} {meat}", share=ph.frac(a.value), meat=ph.word(meat_name(meat_atom, s)))


@rule("MASS of? FAT", "with|and|plusword MASS of? FAT", "MASS SEP FAT SEP")
def _mass_of_fat(m: Match, s: Said) -> Phrase | None:
    """``1.5 lb 90/10``: so much mince of that label."""
    a, fat, sep = m.one("MASS"), m.one("FAT"), m.one("SEP")
    assert a is not None
    assert fat is not None
    if sep is not None and sep.text != "(":
        return None
    said = MeatSaid(s.at, any="beef", fat=fat.value, mass=s.figure(a.value, a.low, a.high), word=fat.text)
    s.meats.append(said)
    return say("{mass} of mince, {r} lean to fat", mass=mass_said(a), r=ph.lean_to_fat(fat.value))


_JOIN = "and|to|SEP|with|plusword*"


@rule(
    f"RATIO split? of? MEATP {_JOIN} MEATP",
    f"RATIO split? of? MEATP {_JOIN} MEATP {_JOIN} MEATP",
    f"RATIO split? of? MEATP {_JOIN} MEATP {_JOIN} MEATP {_JOIN} MEATP",
    f"MEATP {_JOIN} MEATP in|at|SEP? RATIO",
    f"MASS of? MEATP {_JOIN} MEATP in|at|SEP? RATIO",
    f"MASS of? MEATP {_JOIN} MEATP {_JOIN} MEATP in|at|SEP? RATIO",
    f"MASS RATIO split? of? MEATP {_JOIN} MEATP",
    f"MASS RATIO split? of? MEATP {_JOIN} MEATP {_JOIN} MEATP",
    f"MEATP {_JOIN} MEATP {_JOIN} MEATP in|at|SEP? RATIO",
    f"MEATP {_JOIN} MEATP {_JOIN} MEATP {_JOIN} MEATP in|at|SEP? RATIO",
)
def _ratio(m: Match, s: Said) -> Phrase | None:
    r, meats_said = m.one("RATIO"), m.all("MEATP")
    assert r is not None
    if len(r.parts) != len(meats_said) or any(p <= 0 for p in r.parts):
        return None
    sums_to_fat = sum(r.parts) == 100 and max(r.parts) >= 65
    said = [meat_said(a, s) for a in meats_said]
    species = {s.inventory.meat(x.key).species if x.key else x.any for x in said}
    if sums_to_fat and len(species) == 1:
        names = [meat_name(a, s).lower() for a in meats_said]
        lean, fat = max(r.parts), min(r.parts)
        whole = " and ".join(a.text for a in meats_said)
        s.asks.append(
            (
                say("{r}: shares of the two meats, or lean to fat?", r=ph.word(r.text)),
                [
                    (
                        say(
                            "{a} and {b} as shares",
                            a=ph.word(f"{r.parts[0]:g} % {names[0]}"),
                            b=ph.word(f"{r.parts[1]:g} % {names[1]}"),
                        ),
                        s.at,
                        f"{r.parts[0]:g} % {meats_said[0].text} and {r.parts[1]:g} % {meats_said[1].text}",
                    ),
                    (
                        say("{l} lean to {f} fat, from both", l=ph.number(lean), f=ph.number(fat)),
                        s.at,
                        f"{whole}, {fat:g} % fat",
                    ),
                ],
            )
        )
    if (total := m.one("MASS")) is not None:
        s.totals.append(s.figure(total.value, total.low, total.high))
    for record, p in zip(said, r.parts, strict=True):
        record.part = p
        s.meats.append(record)
    return say(
        "{what}",
        what=ph.word(" : ".join(f"{p:g} {meat_name(a, s).lower()}" for a, p in zip(meats_said, r.parts, strict=True))),
    )


@rule(
    "halfandhalf of? MEATP and|SEP|with? MEATP",
    "MEATP and|SEP MEATP SEP? halfandhalf",
    "half MEATP half MEATP",
    "MEATP MEATP halfandhalf",
)
def _halves(m: Match, s: Said) -> Phrase:
    names = []
    for a in m.all("MEATP"):
        said = meat_said(a, s)
        said.share = 0.5
        s.meats.append(said)
        names.append(meat_name(a, s).lower())
    return say("half {a}, half {b}", a=ph.word(names[0]), b=ph.word(names[1]))


@rule("halfandhalf", "equal part? of?", "equal", "in? equal part")
def _halves_alone(m: Match, s: Said) -> Phrase:
    s.equal = True
    return say("equal shares")


@rule(
    "mostly MEATP",
    "some MEATP",
    "with some MEATP",
    "rest MEATP",
    "rest of? MEATP",
    "MEATP rest",
    "all MEATP",
    "rest in MEATP",
)
def _loosely(m: Match, s: Said) -> Phrase:
    a = m.one("MEATP")
    assert a is not None
    said = meat_said(a, s)
    name = ph.word(meat_name(a, s).lower())
    if m.one("mostly"):
        said.part = -1.0
        text = say("mostly {meat}", meat=name)
    elif m.one("rest"):
        said.part = -3.0
        text = say("the rest {meat}", meat=name)
    elif m.one("all"):
        text = say("all {meat}", meat=name)
    else:
        said.part = -2.0
        text = say("some {meat}", meat=name)
    s.meats.append(said)
    return text


@rule("twice|thrice of? MEATP as|than? MEATP", "half asmuch MEATP as MEATP", "MEATP and|SEP twice|thrice of? MEATP")
def _twice(m: Match, s: Said) -> Phrase:
    """``twice as much beef as pork``: parts of two to one."""
    first, second = m.all("MEATP")
    times = 2.0 if m.one("twice") else 3.0 if m.one("thrice") else 0.5
    before = "MEATP" not in m.atoms[0].kinds
    for atom, part in ((first, times if before else 1.0), (second, 1.0 if before else times)):
        said = meat_said(atom, s)
        said.part = part
        s.meats.append(said)
    more, less = (first, second) if before else (second, first)
    return say(
        "{n} times as much {a} as {b}", n=ph.number(times), a=ph.word(meat_name(more, s)), b=ph.word(meat_name(less, s))
    )


@rule("MEATP or MEATP")
def _either(m: Match, s: Said) -> Phrase:
    one, two = m.all("MEATP")
    s.asks.append(
        (
            say("{a} or {b}?", a=ph.word(one.text), b=ph.word(two.text)),
            [
                (say("{a}", a=ph.word(meat_name(one, s))), s.at, one.text),
                (say("{a}", a=ph.word(meat_name(two, s))), s.at, two.text),
                (say("half of each"), s.at, f"half {one.text} and half {two.text}"),
            ],
        )
    )
    s.meats.append(meat_said(one, s))
    return say("one of two meats")


@rule("PIECE or PIECE")
def _either_dish(m: Match, s: Said) -> Phrase:
    one, two = m.all("PIECE")
    s.asks.append(
        (
            say("{a} or {b}?", a=ph.word(one.text), b=ph.word(two.text)),
            [(say("{a}", a=ph.word(x.text)), s.at, x.text) for x in (one, two)],
        )
    )
    s.pieces.append(PieceWord(one.sense("PIECE").key, s.at))  # type: ignore[union-attr]
    return say("one of two dishes")


@rule("FAT", "at|to|with FAT", "leanword", "extra leanword", "fatty")
def _fat(m: Match, s: Said) -> Phrase:
    a = m.one("FAT")
    if a is not None and a.parts and max(a.parts) < LEAST_LEAN and len(s.meats) == len(a.parts):
        # "turkey and pork, 50:50": no mince is so fat, so the meats are parted.
        for said, part in zip(s.meats, a.parts, strict=True):
            said.part = part
        return say("{r} of the two meats", r=ph.word(a.text))
    if a is not None:
        s.fats.append(s.figure(a.value, a.low, a.high))
        s.fat_figures = True
        return say("{r} lean to fat", r=ph.lean_to_fat(a.value))
    value = EXTRA_LEAN_FAT if m.one("extra") else LEAN_FAT if m.one("leanword") else RICH_FAT
    s.fats.append(s.figure(value))
    return say("{words}: taken as {fat} fat", words=ph.word(" ".join(x.text for x in m.atoms)), fat=ph.frac(value))
