"""Rules for dishes not made here, ingredients, notes, and why something was not read."""

from __future__ import annotations

from collections.abc import Sequence

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.reading.atom import Atom
from vianda.core.reading.grammar import Match
from vianda.core.reading.rules.common import LINE, count_said, counted, is_whole, take_meats
from vianda.core.reading.said import MeatSaid, Noted, PieceWord, Said

rule = LINE.rule


_EATERS = frozenset({"vegetarian", "vegetarians", "vegan", "vegans", "veggie", "veggies"})


@rule(
    "NOT_MADE",
    "with|for NOT_MADE",
    "for? NUM NOT_MADE",
    "MEATP NOT_MADE",
    "PIECE NOT_MADE",
    "STYLE NOT_MADE",
    "RESULT NOT_MADE",
)
def _not_made(m: Match, s: Said) -> Phrase | None:
    sense = m.one("NOT_MADE").sense("NOT_MADE")  # type: ignore[union-attr]
    assert sense is not None
    take_meats(m, s)
    n = m.one("NUM")
    if n is not None and is_whole(n) and m.one("NOT_MADE").text.lower() in _EATERS:  # type: ignore[union-attr]
        s.meatless += round(n.value)
        return say("{n} of them eat no meat", n=count_said(n))
    if n is not None:
        s.notes.append(Noted("count", f"{n.text} {sense.name}", s.at))
    s.not_made.append((sense.name, sense.key, s.at))
    return say("{name}: not made here", name=ph.word(sense.name))


@rule("NUM NOT_MADE of|at MASS each?", "MASS of? NOT_MADE", "NUM MASS NOT_MADE", "from MASS NOT_MADE")
def _joint(m: Match, s: Said) -> Phrase | None:
    """``from a 700 g roast``, ``3 steaks of 250 g``: meat to be ground."""
    a, n = m.one("MASS"), m.one("NUM")
    sense = m.one("NOT_MADE").sense("NOT_MADE")  # type: ignore[union-attr]
    assert a is not None
    assert sense is not None
    if sense.name != "steak or roast" or (n is not None and not is_whole(n)):
        return None
    times = n.value if n is not None else 1.0
    name = m.one("NOT_MADE").text  # type: ignore[union-attr]
    mass = s.figure(times * a.value, times * a.low, times * a.high)
    s.meats.append(MeatSaid(s.at, any="beef", mass=mass, word=name))
    return say("{mass} of {name}", mass=ph.mass(mass.value), name=ph.word(name))


_AMOUNT = "MASS|VOL|NUM"


@rule(
    f"with? {_AMOUNT} HOLDER|VAGUE|UNIT_PIECE|PREP* of? PREP* ING PREP*",
    "with? VAGUE of? PREP* ING PREP*",
    "with? HOLDER of? PREP* ING PREP*",
    f"ING SEP? {_AMOUNT} HOLDER|VAGUE|UNIT_PIECE?",
    "PCT of? PREP* ING",
    f"with? {_AMOUNT} SIZE PREP* ING",
)
def _ingredient_amount(m: Match, s: Said) -> Phrase | None:
    sep = m.one("SEP")
    measured = m.one("MASS") or m.one("VOL") or m.one("HOLDER") or m.one("VAGUE") or m.one("UNIT_PIECE")
    if sep is not None and (sep.text != ":" or not measured):
        return None
    if m.one("MASS") and any("w:halfandhalf" in a.kinds for a in m.atoms):
        # "600 g of half and half mince": two meats, not cream.
        return None
    text = " ".join(a.text for a in m.atoms if a.kinds != {"w:with"})
    s.adds.append(text)
    return say("into the mix: {what}", what=ph.word(text))


@rule(
    "with|some? PREP* ING PREP*",
    "with? ING totaste",
    "some VAGUE? ING",
    "with some PREP* ING",
    "SIZE ING",
    "with SIZE ING",
)
def _ingredient(m: Match, s: Said) -> Phrase:
    name = " ".join(a.text for a in m.atoms if "w:with" not in a.kinds)
    s.notes.append(Noted("ingredient", f"With {name}, amount not said", s.at))
    return say("{name}: no amount said, kept as a note", name=ph.word(name))


@rule("NUM")
def _bare_number(m: Match, s: Said) -> Phrase | None:
    a = m.atoms[0]
    if not is_whole(a) or a.value < 1 or a.number is None or a.number.fraction or a.value > 100_000:
        return None
    if {"dozen", "couple", "pair"} & {t.lower().rstrip("s") for t in a.text.split()}:
        s.pieces.append(PieceWord("", s.at, counted(s, a)))
        return say("{n} pieces", n=count_said(a))
    if a.text.split()[0].lower() in ("a", "an") or a.text.lower() == "one":
        # "one for the freezer": a pronoun, no count of people.
        return None
    s.numbers.append(counted(s, a))
    return say("{n}: of what?", n=count_said(a))


@rule("at|for? NUM money each|ahead|per?", "at|for? money NUM each|ahead|per?")
def _money(m: Match, s: Said) -> Phrase:
    """``at 8 € each``: a price, never a count."""
    text = " ".join(a.text for a in m.atoms)
    s.notes.append(Noted("note", text.capitalize(), s.at))
    return say("{what}, kept as a note", what=ph.word(text))


@rule("HOLDER of NUM", "in HOLDER of NUM")
def _boxes(m: Match, s: Said) -> Phrase:
    """``boxes of 16``: how they are packed."""
    text = " ".join(a.text for a in m.atoms)
    s.notes.append(Noted("note", text.capitalize(), s.at))
    return say("{what}, kept as a note", what=ph.word(text))


@rule("with|for|on? MASS|NUM? of? SERVED", "with? SERVED and SERVED")
def _served(m: Match, s: Said) -> Phrase:
    text = " ".join(a.text for a in m.atoms if not a.kinds & {"w:with", "w:for", "w:on"})
    s.notes.append(Noted("served", f"Served with {text}", s.at))
    return say("served with {what}, kept as a note", what=ph.word(text))


@rule("in|with PREP* ING* sauce", "in|with ING PREP* sauce")
def _sauced(m: Match, s: Said) -> Phrase:
    """``in cream sauce``: balls are finished in it; which sauce is kept as a note."""
    text = " ".join(a.text for a in m.atoms if not a.kinds & {"w:in", "w:with"})
    if m.one("in"):
        s.styles.append(("ball-simmered", s.at))
    s.notes.append(Noted("served", f"In {text}" if m.one("in") else f"With {text}", s.at))
    return say("{what}, kept as a note", what=ph.word(text))


@rule("GRIND", "GRINDER GRIND")
def _grind(m: Match, s: Said) -> Phrase:
    text = " ".join(a.text for a in m.atoms)
    s.notes.append(Noted("grind", text.capitalize(), s.at))
    return say("{what}, kept as a note", what=ph.word(text))


# What is done to a thing says nothing on its own: no note is made of it.
_EMPTY = frozenset(
    {
        "about",
        "more",
        "extra",
        "fresh",
        "cooked",
        "salted",
        "optional",
        "divided",
        "mixed",
        "plain",
        "quality",
        "prepared",
    }
)


@rule("PREP+")
def _prepared(m: Match, s: Said) -> Phrase:
    text = " ".join(a.text for a in m.atoms)
    if text.lower() in _EMPTY:
        return say("{what}: changes nothing here", what=ph.word(text))
    s.notes.append(Noted("note", text.capitalize(), s.at))
    return say("{what}, kept as a note", what=ph.word(text))


def unread_reason(atoms: Sequence[Atom]) -> Phrase:
    """Why a stretch was not read.

    Parameters
    ----------
    atoms : Sequence[Atom]
        Its atoms.

    Returns
    -------
    Phrase
        The sentence.
    """
    if any("BAD" in a.kinds for a in atoms):
        return say("not a figure that anything here can have")
    if any(a.kinds & {"NUM", "PCT", "RATIO", "MASS", "VOL", "TEMP", "TIME", "LEN"} for a in atoms):
        return say("a figure, but not of what")
    return say("not understood")
