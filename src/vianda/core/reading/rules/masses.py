"""Rules for masses: of all, of each piece, a person, a pack."""

from __future__ import annotations

from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.atom import Atom
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import (
    HEAVIEST_EACH_G,
    LINE,
    count_said,
    dish_of,
    is_whole,
    mass_said,
    meat_name,
    meat_said,
    take_meats,
    take_pieces,
)
from vianda.core.reading.said import Said

rule = LINE.rule


@rule(
    "MASS of? MEATP",
    "MASS of? raw? MEATP",
    "from MASS of? MEATP",
    "with|and|plusword MASS of? MEATP",
    "MASS total of? MEATP",
    "MASS of PREP MEATP",
    "MASS PREP MEATP",
    "PIECE MASS of? MEATP",
)
def _mass_of_meat(m: Match, s: Said) -> Phrase:
    a, meat = m.one("MASS"), m.one("MEATP")
    assert a is not None
    assert meat is not None
    if m.one("PIECE"):
        take_pieces(m, s)
    said = meat_said(meat, s)
    said.mass = s.figure(a.value, a.low, a.high)
    s.meats.append(said)
    return say("{mass} of {meat}", mass=mass_said(a), meat=ph.word(meat_name(meat, s)))


@rule(
    "MASS eachof|each MEATP and|SEP MEATP",
    "MASS eachof|each of? MEATP and|SEP MEATP and|SEP MEATP",
    "MASS eachof|each of? MEATP SEP MEATP SEP and MEATP",
    "MEATP and|SEP MEATP SEP? MASS eachof|each",
    "MASS of? MEATP and|plusword asmuch MEATP",
    "MASS of? MEATP and|SEP MEATP each",
)
def _mass_of_each_meat(m: Match, s: Said) -> Phrase | None:
    a = m.one("MASS")
    assert a is not None
    names = []
    for atom in m.all("MEATP"):
        said = meat_said(atom, s)
        said.mass = s.figure(a.value, a.low, a.high)
        s.meats.append(said)
        names.append(meat_name(atom, s))
    return say("{mass} each of {meats}", mass=mass_said(a), meats=ph.word(", ".join(names)))


@rule("MASS SEP MASS of? MEATP and|SEP? MEATP", "MASS and MASS of? MEATP and|SEP? MEATP")
def _in_turn(m: Match, s: Said) -> Phrase | None:
    """``500 g/300 g beef/pork``: the first weight is of the first meat."""
    if (sep := m.one("SEP")) is not None and sep.text not in "/:,+":
        return None
    said = []
    for a, meat in zip(m.all("MASS"), m.all("MEATP"), strict=True):
        said.append(meat_said(meat, s))
        said[-1].mass = s.figure(a.value, a.low, a.high)
    s.meats += said
    one, two = (ph.word(meat_name(x, s)) for x in m.all("MEATP"))
    first, second = (mass_said(x) for x in m.all("MASS"))
    return say("{a} of {one}, {b} of {two}", a=first, one=one, b=second, two=two)


@rule("u:mass of MEATP")
def _one_of_meat(m: Match, s: Said) -> Phrase | None:
    """``pound of beef``: one of that unit."""
    unit, meat = m.one("u:mass"), m.one("MEATP")
    assert unit is not None
    assert meat is not None
    sense = unit.sense("u:mass")
    assert sense is not None
    said = meat_said(meat, s)
    said.mass = s.figure(sense.value)
    s.meats.append(said)
    return say("{mass} of {meat}", mass=ph.mass(sense.value), meat=ph.word(meat_name(meat, s)))


@rule("MEATP MASS", "MEATP SEP MASS", "MASS SEP MEATP")
def _meat_mass(m: Match, s: Said) -> Phrase | None:
    sep = m.one("SEP")
    if sep is not None and sep.text not in ":(–—":
        return None
    return _mass_of_meat(m, s)


@rule("MASS total", "total of? MASS", "from MASS total?", "MASS of? MEATP total", "PIECE of? MASS total")
def _total(m: Match, s: Said) -> Phrase | None:
    a = m.one("MASS")
    assert a is not None
    meat = m.one("MEATP")
    if meat is not None:
        s.meats.append(meat_said(meat, s))
    if m.one("PIECE"):
        take_pieces(m, s)
    s.totals.append(s.figure(a.value, a.low, a.high))
    return say("{mass} in all", mass=mass_said(a))


@rule("within|least")
def _bound(m: Match, s: Said) -> Phrase:
    """``at most 1 kg``: planned for the figure itself."""
    return say("planned for the figure that follows")


@rule("MASS", "MASS raw", "with MASS", "weight SEP? of? MASS")
def _mass(m: Match, s: Said) -> Phrase:
    a = m.one("MASS")
    assert a is not None
    s.masses.append(s.figure(a.value, a.low, a.high))
    return say("{mass}", mass=mass_said(a))


@rule(
    "MASS each",
    "MASS of? MEATP each",
    "PIECE MASS of? MEATP each",
    "at|of MASS each",
    "at MASS",
    "each of? MASS",
    "each PIECE of? MASS",
    "in|into PIECE of MASS",
    "makes PIECE of MASS each?",
    "PIECE of? MASS each?",
    "PIECE at MASS each?",
    "MASS per PIECE",
    "in|into MASS PIECE",
    "makes MASS PIECE",
    "makes MASS STYLE* PIECE",
    "PIECE MASS each",
    "each MASS",
    "PIECE weight? of MASS",
    "PIECE of? MASS raw",
    "into MASS",
)
def _each(m: Match, s: Said) -> Phrase | None:
    a = m.one("MASS")
    assert a is not None
    meat = m.one("MEATP")
    if meat is not None:
        s.meats.append(meat_said(meat, s))
    word = m.one("PIECE")
    if word is not None:
        take_pieces(m, s)
        loose = not (m.one("each") or m.one("of") or m.one("at") or m.one("per"))
        if loose:
            # "meatballs 600 g" are that much of them, "burgers 150 g" weigh that: its size tells.
            s.masses.append(s.figure(a.value, a.low, a.high))
            return say("{name}, {mass}", name=ph.word(word.text), mass=mass_said(a))
        if word.article and not word.text.lower().endswith("s"):
            s.pieces[-1] = replace(s.pieces[-1], single=True)
    s.eachs.append(s.figure(a.value, a.low, a.high))
    return say("{mass} each", mass=mass_said(a))


@rule("MASS raw? cooked each?", "cooked? weight? MASS cooked", "MASS each cooked", "cooked of? MASS each?")
def _cooked(m: Match, s: Said) -> Phrase:
    a = m.one("MASS")
    assert a is not None
    s.cooked.append(s.figure(a.value, a.low, a.high))
    return say("{mass} each, cooked", mass=mass_said(a))


@rule(
    "MASS ahead",
    "MASS of? MEATP ahead",
    "PIECE MASS of? MEATP? ahead",
    "MASS per PEOPLE",
    "MASS of? MEATP per PEOPLE",
    "MASS for each PEOPLE",
)
def _ahead(m: Match, s: Said) -> Phrase:
    a = m.one("MASS")
    assert a is not None
    meat = m.one("MEATP")
    if meat is not None:
        s.meats.append(meat_said(meat, s))
    if m.one("PIECE"):
        take_pieces(m, s)
    s.heads.append(s.figure(a.value, a.low, a.high))
    return say("{mass} a person", mass=mass_said(a))


# Plural burgers of more than this, said before their name, may as well be all of them (ours), g.
LIGHTEST_OF_ALL_G = 300.0


# "mince 2 x 400 g" are packs from this weight on, "chuck 6 x 150 g" are pieces of it (ours), g.
LIGHTEST_PACK_G = 250.0
# A bare number behind "10 burgers of" is grams from here on (ours).
LIGHTEST_G = 30.0


def singular_loaf(word: Atom | None) -> bool:
    """Whether a word names one loaf.

    Parameters
    ----------
    word : Atom | None
        The word for pieces.

    Returns
    -------
    bool
        Whether it does.
    """
    if word is None or not (sense := word.sense("PIECE")):
        return False
    return sense.key.startswith("loaf") and not word.text.lower().rstrip("s").endswith(("loave", "meatloave"))


@rule("MASS STYLE* SIZE* MEATP? STYLE* PIECE", "MASS MULTIPLE STYLE* PIECE?", "POUNDER STYLE* PIECE?", "MASS STYLE+")
def _sized_pieces(m: Match, s: Said) -> Phrase | None:
    a = m.one("MASS") or m.one("POUNDER")
    assert a is not None
    word = m.one("PIECE")
    sense = word.sense("PIECE") if word else None
    key = sense.key if sense else "burger"
    loaf = key.startswith("loaf") or key == "ragu"
    if "POUNDER" not in a.kinds:
        if not m.one("PIECE") and not m.one("MULTIPLE"):
            return None
        burger = dish_of(key) == "burger" and key != ""
        singular = burger and word is not None and not word.text.lower().endswith("s") and not loaf
        one_loaf = a.article and singular_loaf(word)
        heavy = a.value > (HEAVIEST_EACH_G[dish_of(key)] if not singular else 1000.0)
        # "2 persons 400 g burgers": either; its size and the count tell.
        either = not singular and dish_of(key) == "burger" and a.value > LIGHTEST_OF_ALL_G and not a.article
        if (loaf or heavy or either) and not one_loaf:
            take_meats(m, s)
            take_pieces(m, s)
            s.masses.append(s.figure(a.value, a.low, a.high))
            return say("{name} from {mass}", name=ph.word(word.text if word else ""), mass=mass_said(a))
    take_meats(m, s)
    take_pieces(m, s)
    if s.pieces[-1].style == "":
        s.pieces[-1] = replace(s.pieces[-1], style="burger" if "POUNDER" in a.kinds else "")
    if a.article and word is not None and not word.text.lower().endswith("s"):
        s.pieces[-1] = replace(s.pieces[-1], single=True)
    s.eachs.append(s.figure(a.value, a.low, a.high))
    return say("{name} of {mass} each", name=ph.word(word.text if word else "burgers"), mass=mass_said(a))


@rule(
    "NUM STYLE* PIECE of|at? MASS each?",
    "NUM STYLE* PIECE SEP MASS each",
    "NUM MULTIPLE? STYLE* MEATP? PIECE of|at|each MASS each?",
    "NUM STYLE* PIECE with MASS each",
    "makes NUM STYLE* PIECE of|at MASS each?",
    "NUM of MASS each?",
    "NUM at MASS each?",
    "makes NUM of|at MASS",
    "NUM MASS STYLE* SIZE* MEATP? PIECE",
    "NUM times MASS STYLE* MEATP? PIECE",
    "NUM SIZE|STYLE|RESULT* MASS STYLE* SIZE* MEATP? PIECE",
    "NUM times MASS ahead",
    "NUM of? MASS ahead",
    "NUM times MASS each?",
    "makes NUM MASS STYLE* PIECE",
    "makes NUM times MASS STYLE* PIECE",
    "NUM POUNDER STYLE* PIECE?",
    "POUNDER PIECE? times NUM",
    "MASS STYLE* MEATP? PIECE times NUM",
    "MASS times NUM",
    "PIECE of|at? MASS SEP? times NUM",
    "PIECE SEP? MASS SEP? times NUM",
    "MASS times NUM ahead",
    "MASS MULTIPLE? STYLE* PIECE times NUM ahead",
    "STYLE* PIECE MASS times NUM ahead",
    "for NUM MASS STYLE* PIECE",
    "NUM MASS MULTIPLE PIECE?",
    "NUM each MASS",
    "NUM MASS STYLE+",
    "NUM STYLE+ MASS each?",
    "each NUM times? MASS STYLE* PIECE",
)
def _count_of_mass(m: Match, s: Said) -> Phrase | None:
    n, a = m.one("NUM"), m.one("MASS") or m.one("POUNDER")
    assert n is not None
    assert a is not None
    if not is_whole(n) or n.value < 1 or (n.number is not None and n.number.fraction):
        return None
    word = m.one("PIECE")
    key = word.sense("PIECE").key if word else ""  # type: ignore[union-attr]
    if m.one("MEATP") and m.one("times") and a.value > HEAVIEST_EACH_G[dish_of(key)]:
        take_meats(m, s)
        take_pieces(m, s, count=n)
        s.masses.append(s.figure(a.value, a.low, a.high))
        return say("{n} pieces from {mass}", n=count_said(n), mass=mass_said(a))
    loose = not any(m.one(k) for k in ("of", "at", "each", "per", "times", "ahead"))
    after = word is not None and m.atoms.index(a) > m.atoms.index(word)
    if loose and after and a.value > HEAVIEST_EACH_G[dish_of(key)] and not key.startswith("loaf"):
        # "12 burgers 1 kg" are a kilogram of them, as "burgers 1 kg" are.
        take_meats(m, s)
        name = take_pieces(m, s, count=n)
        s.masses.append(s.figure(a.value, a.low, a.high))
        return say("{n} {name} from {mass}", n=count_said(n), name=ph.word(name), mass=mass_said(a))
    by = m.one("times")
    if by is not None and by.text.lower() == "by":
        # "1 kg by 7": divided, never times.
        s.masses.append(s.figure(a.value, a.low, a.high))
        take_pieces(m, s, count=n)
        return say("{n} pieces from {mass}", n=count_said(n), mass=mass_said(a))
    bare = not m.one("PIECE") and m.one("times") is not None and not m.one("each")
    if bare and a.value >= HEAVIEST_EACH_G["burger"]:
        s.totals.append(s.figure(n.value * a.value))
        s.packs.append(s.figure(n.value))
        return say("{n} × {mass}: {total} in all", n=count_said(n), mass=mass_said(a), total=ph.mass(n.value * a.value))
    take_meats(m, s)
    of_each = m.one("ahead") is not None or "w:each" in m.atoms[0].kinds
    name = take_pieces(m, s, count=n, each=of_each)
    if "POUNDER" in a.kinds and s.pieces[-1].style == "":
        s.pieces[-1] = replace(s.pieces[-1], style="burger")
    s.eachs.append(s.figure(a.value, a.low, a.high))
    return say("{n} {name} of {mass} each", n=count_said(n), name=ph.word(name), mass=mass_said(a))


@rule("NUM STYLE* PIECE of|at NUM")
def _count_of_grams(m: Match, s: Said) -> Phrase | None:
    """``10 burgers of 150``: a number that is no count of people is the grams of each."""
    n, a = m.all("NUM")
    if s.system == "us" or not is_whole(n) or not is_whole(a) or not LIGHTEST_G <= a.value <= HEAVIEST_EACH_G["burger"]:
        return None
    name = take_pieces(m, s, count=n)
    s.guessed = True
    s.eachs.append(s.figure(a.value, a.low, a.high))
    return say("{n} {name} of {mass} each", n=count_said(n), name=ph.word(name), mass=ph.mass(a.value))


@rule(
    "NUM times? MASS HOLDER? of? MEATP",
    "NUM HOLDER of MASS of? MEATP?",
    "NUM MASS HOLDER of? MEATP?",
    "NUM HOLDER of? MEATP of MASS",
    "MASS HOLDER of? MEATP?",
    "NUM HOLDER of? MEATP SEP? MASS each?",
    "MEATP SEP? NUM times MASS",
)
def _packs(m: Match, s: Said) -> Phrase | None:
    n, a = m.one("NUM"), m.one("MASS")
    assert a is not None
    if "MEATP" in m.atoms[0].kinds and a.value < LIGHTEST_PACK_G:
        return None
    if n is not None and (not is_whole(n) or n.value > 1000):
        return None
    if n is not None and not m.one("HOLDER") and not m.one("times"):
        return None
    count = n.value if n else 1.0
    whole = count * a.value
    meat = m.one("MEATP")
    if meat is not None:
        said = meat_said(meat, s)
        said.mass = s.figure(whole, count * a.low, count * a.high)
        s.meats.append(said)
    else:
        s.totals.append(s.figure(whole, count * a.low, count * a.high))
    return say("{n} packs of {mass}: {total}", n=ph.count(round(count)), mass=mass_said(a), total=ph.mass(whole))


@rule("NUM MEATP SEP? MASS each", "NUM MEATP of|at MASS each?")
def _steaks(m: Match, s: Said) -> Phrase | None:
    """``2 chuck steaks of 400 g``: so many pieces of a cut, to be ground."""
    n, a, meat = m.one("NUM"), m.one("MASS"), m.one("MEATP")
    assert n is not None
    assert a is not None
    assert meat is not None
    sense = meat.sense("MEAT")
    if sense is None or s.inventory.meat(sense.key).kind != "cut" or not is_whole(n) or not 1 <= n.value <= 100:
        return None
    said = meat_said(meat, s)
    said.mass = s.figure(n.value * a.value, n.value * a.low, n.value * a.high)
    s.meats.append(said)
    return say(
        "{n} of {mass}: {total} of {meat}",
        n=count_said(n),
        mass=mass_said(a),
        total=ph.mass(said.mass.value),
        meat=ph.word(meat_name(meat, s)),
    )


@rule("HOLDER of? MEATP SEP? MASS", "MASS plusword MASS of? MEATP", "MASS plusword MASS plusword MASS of? MEATP")
def _summed(m: Match, s: Said) -> Phrase | None:
    masses, meat = m.all("MASS"), m.one("MEATP")
    assert meat is not None
    if (sep := m.one("SEP")) is not None and sep.text not in ":(,":
        return None
    said = meat_said(meat, s)
    said.mass = s.figure(sum(a.value for a in masses), sum(a.low for a in masses), sum(a.high for a in masses))
    s.meats.append(said)
    return say("{mass} of {meat}", mass=ph.mass(said.mass.value), meat=ph.word(meat_name(meat, s)))


@rule("MASS plusword MASS", "MASS plusword MASS plusword MASS")
def _summed_alone(m: Match, s: Said) -> Phrase:
    masses = m.all("MASS")
    s.totals.append(s.figure(sum(a.value for a in masses), sum(a.low for a in masses), sum(a.high for a in masses)))
    return say("{mass} in all", mass=ph.mass(s.totals[-1].value))


@rule("HOLDER of? MEATP", "NUM HOLDER of? MEATP")
def _pack_of_unknown(m: Match, s: Said) -> Phrase | None:
    n, meat = m.one("NUM"), m.one("MEATP")
    assert meat is not None
    count = n.value if n else 1.0
    s.meats.append(meat_said(meat, s))
    s.meats[-1].mass = s.figure(500.0 * count, 300.0 * count, 1000.0 * count)
    return say("{n} pack: taken as {mass} each, 300 g to 1 kg", n=ph.number(count), mass=ph.mass(500.0))
