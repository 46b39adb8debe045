"""What each way of saying an ingredient of a mix is taken for: its amount before or behind it, or none."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.inventory.pantry import Ingredient
from vianda.core.reading.amounts import ReadAmount, amount_of
from vianda.core.reading.atom import Atom
from vianda.core.reading.grammar import Grammar, Match
from vianda.core.reading.lexicon import substitutes
from vianda.core.reading.mix_item import MixDraft, MixItem
from vianda.core.reading.which_ingredient import SPOONS, thing_named

# Juice and zest of one fruit, g (juice: SR28 household measure of lemon juice, 47 g; zest: from memory).
JUICE_G, ZEST_G = 47.0, 6.0
JUICES = {"lemon": "lemon-juice", "lime": "lime-juice", "orange": "orange-juice"}

MIX: Grammar[MixDraft] = Grammar()
rule = MIX.rule
_HOW = "PREP|SIZE|GRIND*"
_MEASURE = "UNIT_PIECE|HOLDER|VAGUE"


def _amount(atoms: Sequence[Atom], thing: Ingredient, draft: MixDraft) -> ReadAmount | None:
    draft.refused = ""
    try:
        return amount_of(atoms, thing, meat_mass_g=draft.meat_g, unit_system=draft.system)
    except CoreError as refused:
        draft.refused = refused.detail
        return None


def _named(a: Atom) -> Atom:
    """A bare number beside the food's name counts pieces of it."""
    return replace(a, kinds=a.kinds | {"NAMED"}) if "NUM" in a.kinds else a


def _how_much(amount: ReadAmount | None) -> ph.Amount:
    if amount is None:
        return ph.word("")
    return ph.mass(amount.low_g, amount.high_g) if amount.guessed else ph.mass(amount.mass_g)


def _take(m: Match, draft: MixDraft, amount_atoms: Sequence[Atom], ing: Atom, *, factor: float = 1.0) -> Phrase | None:
    notes = [a.text for a in m.atoms if a.kinds & {"PREP", "SIZE", "GRIND"} and "ING" not in a.kinds]
    measures = [a.text for a in amount_atoms if a.kinds & {"UNIT_PIECE", "HOLDER"}]
    measures += [a.unit for a in amount_atoms if a.unit in SPOONS]
    thing = thing_named(ing, draft, notes, measures)
    if thing is None:
        return None
    used = [_named(a) for a in amount_atoms]
    if "UNIT_PIECE" in ing.kinds and any("NUM" in a.kinds for a in used) and not measures:
        used = [*used, ing]
    read = _amount(used, thing, draft)
    if read is None and notes:
        read = _amount([a for a in used if not a.kinds & {"PREP", "SIZE"} or "UNIT_PIECE" in a.kinds], thing, draft)
    note = ", ".join(notes)
    text = " ".join(a.text for a in m.atoms)
    if read is None:
        why = draft.refused or f"no measure of {thing.name.lower()} here; type grams"
        draft.items.append(MixItem(thing.key, None, note, draft.at, text))
        return say("{what}: {why}", what=ph.word(thing.name), why=ph.word(why))
    read = read.times(factor)
    draft.items.append(MixItem(thing.key, read, note, draft.at, text))
    if note:
        return say("{m} of {what}; {note}", m=_how_much(read), what=ph.word(thing.name.lower()), note=ph.word(note))
    return say("{m} of {what}", m=_how_much(read), what=ph.word(thing.name.lower()))


@rule(
    f"MASS|VOL {_HOW} of? {_HOW} ING {_HOW}",
    f"MASS|VOL and|plusword MASS|VOL of? {_HOW} ING {_HOW}",
    f"PREP MASS|VOL of? {_HOW} ING {_HOW}",
    f"NUM {_HOW} ING {_HOW}",
    f"NUM of {_HOW} ING {_HOW}",
    f"NUM times {_HOW} ING {_HOW}",
    f"NUM {_HOW} ING UNIT_PIECE {_HOW}",
    f"NUM {_HOW} {_MEASURE} {_HOW} of? {_HOW} ING {_HOW}",
    f"NUM PREP* VOL of? {_HOW} ING {_HOW}",
    f"NUM SEP? MASS SEP? HOLDER|UNIT_PIECE? of? {_HOW} ING {_HOW}",
    f"NUM times MASS HOLDER? of? {_HOW} ING {_HOW}",
    f"NUM HOLDER|UNIT_PIECE SEP MASS SEP of? {_HOW} ING {_HOW}",
    f"NUM HOLDER of? {_HOW} ING SEP MASS SEP",
    f"MASS HOLDER of? {_HOW} ING {_HOW}",
    f"{_MEASURE} of? {_HOW} ING {_HOW}",
    f"PREP {_MEASURE} of? {_HOW} ING {_HOW}",
    f"PCT of? {_HOW} ING {_HOW}",
    f"MASS SEP MASS SEP of? {_HOW} ING {_HOW}",
    f"VOL SEP MASS|VOL SEP of? {_HOW} ING {_HOW}",
    f"MASS SEP VOL SEP of? {_HOW} ING {_HOW}",
)
def _amount_first(m: Match, draft: MixDraft) -> Phrase | None:
    ing = m.all("ING")[-1]
    at = m.atoms.index(ing)
    before = [a for a in m.atoms[:at] if not a.kinds & {"w:of"}]
    if any(a.text not in "()" for a in before if "SEP" in a.kinds):
        return None
    # A weight in brackets beside a measure says the same again, surer.
    masses = [a for a in before if "MASS" in a.kinds]
    if not masses and sum("VOL" in a.kinds for a in before) > 1 and any("SEP" in a.kinds for a in before):
        before = [a for a in before if "VOL" in a.kinds][-1:]
    if (masses and any("VOL" in a.kinds for a in before) and any("SEP" in a.kinds for a in before)) or (
        len(masses) == 2 and any("SEP" in a.kinds for a in before)
    ):
        before = masses[:1]
    if at + 1 < len(m.atoms) and "UNIT_PIECE" in m.atoms[at + 1].kinds and not m.atoms[at + 1].kinds & {"PREP"}:
        before = [*before, m.atoms[at + 1]]
    behind = [a for a in m.atoms[at + 1 :] if "MASS" in a.kinds]
    if behind:
        number = next((a for a in before if "NUM" in a.kinds), None)
        before = [a for a in (number,) if a] + [a for a in before if "HOLDER" in a.kinds] + behind
    return _take(m, draft, before, ing)


@rule(f"NUM {_HOW} ING {_HOW} SEP MASS SEP", f"NUM {_HOW} ING SEP {_HOW} SEP MASS SEP")
def _weighed(m: Match, draft: MixDraft) -> Phrase | None:
    """``2 carrots (160 g)``: what they weigh is said, so no size is guessed."""
    ing, mass = m.one("ING"), m.one("MASS")
    assert ing is not None
    assert mass is not None
    if [a.text for a in m.atoms if "SEP" in a.kinds][-2:] != ["(", ")"]:
        return None
    return _take(m, draft, [mass], ing)


@rule(
    f"{_HOW} ING {_HOW} SEP? MASS|VOL|PCT",
    f"{_HOW} ING SEP? NUM {_MEASURE}",
    f"{_HOW} ING {_HOW} SEP? NUM {_MEASURE}",
    f"{_HOW} ING SEP? {_MEASURE}",
    f"{_HOW} ING SEP? NUM",
    f"{_HOW} ING times NUM",
    f"{_HOW} ING SEP MASS|VOL SEP",
    f"{_HOW} ING {_HOW} SEP MASS|VOL|PCT SEP|END",
    f"{_HOW} ING SEP NUM {_MEASURE} SEP|END",
)
def _amount_last(m: Match, draft: MixDraft) -> Phrase | None:
    sep = m.one("SEP")
    closed = "END" in m.atoms[-1].kinds or "SEP" in m.atoms[-1].kinds
    if sep is not None and sep.text not in ":(–—-" and not (sep.text == "," and closed):
        return None
    ing = m.one("ING")
    assert ing is not None
    at = m.atoms.index(ing)
    return _take(m, draft, [a for a in m.atoms[at + 1 :] if not a.kinds & {"SEP", "PREP", "END", "w:times"}], ing)


@rule(
    "MASS|VOL of? PREP* ING per|for|to MASS",
    "MASS|VOL of? PREP* ING per u:mass",
    "NUM PREP* ING per|for|to MASS",
    "NUM PREP* ING per u:mass",
    "NUM UNIT_PIECE of? PREP* ING per|for|to MASS",
    "NUM UNIT_PIECE of? PREP* ING per u:mass",
    "MASS per u:mass of? PREP* ING",
)
def _per_meat(m: Match, draft: MixDraft) -> Phrase | None:
    unit = m.one("u:mass")
    ing = m.one("ING")
    assert ing is not None
    masses = m.all("MASS")
    base = unit.sense("u:mass").value if unit is not None else masses[-1].value  # type: ignore[union-attr]
    if base <= 0:
        return None
    at = m.atoms.index(ing)
    before = [a for a in m.atoms[:at] if not a.kinds & {"w:of", "w:per", "u:mass"}]
    if unit is not None and not before:
        before = list(masses[:1])
    return _take(m, draft, before, ing, factor=draft.meat_g / base)


@rule(
    "MASS|VOL|NUM UNIT_PIECE|HOLDER|VAGUE? each|eachof of? PREP* ING and|SEP PREP* ING",
    "MASS|VOL each|eachof PREP* ING SEP PREP* ING SEP? and PREP* ING",
)
def _each_of_these(m: Match, draft: MixDraft) -> Phrase | None:
    first = next(i for i, a in enumerate(m.atoms) if a.kinds & {"w:each", "w:eachof"})
    labels = [_take(m, draft, m.atoms[:first], ing) for ing in m.all("ING")]
    if any(label is None for label in labels):
        return None
    return say("the same of each: {what}", what=ph.word(", ".join(a.text for a in m.all("ING"))))


@rule(
    "juiceof NUM ING",
    "NUM ING juiceof",
    "juiceof PREP* ING",
    "zestof NUM ING",
    "zestof PREP* ING",
    "juiceof NUM PREP* ING",
)
def _of_fruit(m: Match, draft: MixDraft) -> Phrase | None:
    ing, number = m.one("ING"), m.one("NUM")
    assert ing is not None
    keys = [s.key for s in ing.all("ING")]
    fruit = next((f for f in JUICES if any(f in k for k in keys)), None)
    count = number.value if number is not None else 1.0
    zest = m.one("zestof") is not None
    target = f"{fruit}-zest" if zest else JUICES.get(fruit or "", "")
    if fruit is None or target not in draft.inventory.pantry:
        return None
    grams = count * (ZEST_G if zest else JUICE_G)
    read = ReadAmount(grams, grams * 0.7, grams * 1.3, guessed=True)
    draft.items.append(MixItem(target, read, "", draft.at, " ".join(a.text for a in m.atoms)))
    return say("{m} of {what}", m=_how_much(read), what=ph.word(draft.inventory.pantry[target].name.lower()))


@rule(
    f"{_HOW} ING {_HOW}",
    f"some|plusword {_HOW} ING {_HOW}",
    f"{_HOW} ING totaste",
    f"{_HOW} ING and {_HOW} ING SEP? totaste",
    f"{_HOW} ING SEP totaste",
    f"{_HOW} ING for PREP",
)
def _no_amount(m: Match, draft: MixDraft) -> Phrase | None:
    names = []
    taste = m.one("totaste") is not None
    seasoning = [s.key for a in m.all("ING") for s in a.all("ING")]
    # "salt and pepper" without an amount are always to taste.
    taste = taste or all(k == "pepper" or k.startswith("salt") for k in seasoning)
    for ing in m.all("ING"):
        notes = [a.text for a in m.atoms if a.kinds & {"PREP", "SIZE"} and "ING" not in a.kinds]
        thing = thing_named(ing, draft, notes)
        if thing is None:
            return None
        draft.items.append(
            MixItem(thing.key, None, ", ".join(notes), draft.at, " ".join(a.text for a in m.atoms), to_taste=taste)
        )
        names.append(thing.name.lower())
    what = ph.word(" and ".join(names))
    return say("{what}: to taste", what=what) if taste else say("{what}: how much?", what=what)


@rule("no PREP* ING", "no PREP* ING or|and|no ING")
def _left_out(m: Match, draft: MixDraft) -> Phrase | None:
    for ing in m.all("ING"):
        for sense in ing.all("ING"):
            draft.items.append(MixItem(sense.key, None, "", draft.at, ing.text, left_out=True))
    return say("left out: {what}", what=ph.word(", ".join(a.text for a in m.all("ING"))))


@rule(
    f"MASS|VOL|NUM {_MEASURE}? of? {_HOW} ING or {_HOW} ING",
    f"{_HOW} ING or {_HOW} ING",
    f"MASS|VOL|NUM of? {_HOW} ING or MASS|VOL|NUM {_HOW} ING",
)
def _either(m: Match, draft: MixDraft) -> Phrase | None:
    one, two = m.all("ING")[:2]
    before = [a for a in m.atoms[: m.atoms.index(one)] if not a.kinds & {"PREP", "SIZE"}]
    front = " ".join(a.text for a in before)
    second = m.atoms[m.atoms.index(one) + 1 :]
    own = " ".join(a.text for a in second if not a.kinds & {"w:or"})
    choices = [(say("{w}", w=ph.word(one.text)), f"{front} {one.text}".strip())]
    own_amount = any(a.kinds & {"MASS", "VOL", "NUM"} for a in second)
    choices.append((say("{w}", w=ph.word(two.text)), own if own_amount else f"{front} {two.text}".strip()))
    draft.asks.append((say("{a} or {b}?", a=ph.word(one.text), b=ph.word(two.text)), draft.at, choices))
    return say("one of two")


@rule("MASS|VOL|NUM|PCT UNIT_PIECE? of? PREP* MEAT|ANY PREP*", "PREP* MEAT|ANY PREP*")
def _a_meat(m: Match, draft: MixDraft) -> Phrase | None:
    atom = m.one("MEAT") or m.one("ANY")
    assert atom is not None
    if "ING" in atom.kinds:
        return None
    return say("{what}: a meat; it joins the blend on the Meat step", what=ph.word(atom.text))


@rule(
    f"MASS|VOL {_HOW} of? {_HOW} LIKE {_HOW}",
    f"NUM {_HOW} {_MEASURE} of? {_HOW} LIKE",
    f"{_MEASURE} of? {_HOW} LIKE",
    f"NUM {_HOW} LIKE",
    f"{_HOW} LIKE {_HOW}",
)
def _not_held(m: Match, draft: MixDraft) -> Phrase | None:
    sense = m.one("LIKE").sense("LIKE")  # type: ignore[union-attr]
    assert sense is not None
    nearest, change = substitutes()[sense.name]
    thing = draft.inventory.pantry.get(nearest)
    if thing is None or thing.retired:
        return say("not in the pantry")
    return say(
        "not in the pantry; nearest is {what}: {change}", what=ph.word(thing.name.lower()), change=ph.word(change)
    )


@rule("PREP|SIZE|GRIND+", "PREP and PREP", "PREP PREP and PREP", "PREP and PREP PREP")
def _prepared(m: Match, draft: MixDraft) -> Phrase | None:
    text = " ".join(a.text for a in m.atoms)
    if draft.items:
        last = draft.items[-1]
        draft.items[-1] = replace(last, note=f"{last.note}, {text}".strip(", "))
    return say("note: {what}", what=ph.word(text))


# Meats, and what the pantry has not: told, but nothing goes in.
NOT_TAKEN = (_a_meat, _not_held)
