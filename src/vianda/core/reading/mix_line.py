"""Read what goes into a mix or a sauce: one thing or many, each with its amount, its preparation kept as a note.

One bad phrase never refuses the rest: what is understood is taken, what is not stands marked beside it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from rapidfuzz import fuzz, process

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.basis.units import UnitSystem
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import Ingredient
from vianda.core.reading.amounts import ReadAmount, amount_of
from vianda.core.reading.atoms import Atom, Atoms, atoms_of
from vianda.core.reading.grammar import Grammar, Match
from vianda.core.reading.lexicon import lexicon_of, names_of, stems_of, substitutes
from vianda.core.reading.piece import Alternative, Ask, Choice, Piece, Span, replaced

# Juice and zest of one fruit, g (juice: SR28 household measure of lemon juice, 47 g; zest: from memory).
JUICE_G, ZEST_G = 47.0, 6.0
JUICES = {"lemon": "lemon-juice", "lime": "lime-juice", "orange": "orange-juice"}


@dataclass(frozen=True, slots=True)
class MixItem:
    """One ingredient of a line: how much (None when not said), its note, and the piece that said it.

    ``left_out``: it was ruled out ("no egg"). ``to_taste``: as much as tastes right.
    """

    ingredient: str
    amount: ReadAmount | None
    note: str
    piece: int
    text: str
    left_out: bool = False
    to_taste: bool = False


@dataclass(frozen=True, slots=True)
class MixReading:
    """A line as it was read: the pieces in order, what goes in, and what is asked back."""

    text: str
    pieces: tuple[Piece, ...]
    items: tuple[MixItem, ...]
    asks: tuple[Ask, ...]

    @property
    def unread(self) -> tuple[str, ...]:
        """What was not understood, each with its words."""
        return tuple(p.text for p in self.pieces if p.status == "unread")

    @property
    def waiting(self) -> tuple[MixItem, ...]:
        """What was named without an amount."""
        return tuple(i for i in self.items if i.amount is None and not i.left_out and not i.to_taste)


@dataclass(slots=True)
class _Draft:
    inventory: Inventory
    kitchen: Kitchen
    meat_g: float
    system: UnitSystem
    at: int = 0
    items: list[MixItem] = field(default_factory=list)
    asks: list[tuple[Phrase, int, list[tuple[Phrase, str]]]] = field(default_factory=list)
    refused: str = ""


MIX: Grammar[_Draft] = Grammar()
rule = MIX.rule
_HOW = "PREP|SIZE|GRIND*"
_MEASURE = "UNIT_PIECE|HOLDER|VAGUE"


def _thing(a: Atom, draft: _Draft, note: Sequence[str], measures: Sequence[str] = ()) -> Ingredient | None:
    """The ingredient an atom names; several by one name are asked back, unless a note says which."""
    keys = list(dict.fromkeys(s.key for s in a.all("ING")))
    closer = _with_notes(a, draft, note) if note else None
    if closer is not None:
        return closer
    things = [draft.inventory.pantry[k] for k in keys if k in draft.inventory.pantry]
    if not things:
        return None
    salts = [t for t in things if t.group == "salt"]
    if salts and len(salts) == len(things):
        return next((t for t in salts if t.key == draft.kitchen.salt), salts[0])
    measured = [
        t
        for t in things
        if any(stems_of(w) and stems_of(w)[0] in {s for p in t.pieces for s in stems_of(p.name)} for w in measures)
    ]
    if len(things) > 1 and len(measured) == 1:
        return measured[0]
    tinned = [t for t in things if t.group == "tomato"]
    if (
        len(things) > 1
        and tinned
        and {"can", "tin", "jar", "carton"} & {stems_of(w)[0] for w in measures if stems_of(w)}
    ):
        return tinned[0]
    if {t.key for t in things} == {"passata", "tomato-paste"}:
        # "Tomato purée" by the spoon is the concentrated one; by the cup or the can it is sieved tomatoes.
        spooned = bool(_SPOONS & {w for m in measures for w in stems_of(m)})
        return next(t for t in things if (t.key == "tomato-paste") == spooned)
    if len(things) > 1:
        # The one whose key is the word itself is the plain one: an onion is raw unless said otherwise.
        word = tuple(w for w in stems_of(a.text) if w not in _SIZE_WORDS)
        plain = [t for t in things if stems_of(t.key) == word]
        if len(plain) == 1 and not _states(plain[0], things):
            return plain[0]
        said = {w for n in note for w in n.lower().split()}
        named = [t for t in things if said & set(t.name.lower().replace(",", " ").split())]
        if len(named) == 1:
            return named[0]
        draft.asks.append(
            (
                say("{what}: which one?", what=ph.word(a.text)),
                draft.at,
                [(say("{t}", t=ph.word(t.name)), t.name.lower()) for t in things],
            )
        )
    return things[0]


_SPOONS = frozenset({"tsp", "tbsp", "dessertspoon"})
_SIZE_WORDS = frozenset({"large", "medium", "small", "jumbo", "extra", "thick", "thin", "big"})


def _with_notes(a: Atom, draft: _Draft, note: Sequence[str]) -> Ingredient | None:
    """What a word of preparation and the name make together: fresh and breadcrumbs are fresh breadcrumbs."""
    bare = stems_of(a.text)
    said = [stems_of(n) for n in note]
    wanted = {(*n[-1:], *bare) for n in said if n} | {(*n, *bare) for n in said}
    wanted |= {(*first, *bare) for n in said for first in ((w,) for w in n)}
    for thing in draft.inventory.pantry.values():
        if not thing.retired and any(stems_of(name) in wanted for name in names_of(thing)):
            return thing
    return None


# Foods that take up so much water that raw and cooked are two things (rice three times its mass).
SWELLS = frozenset({"rice", "bulgur", "lentils", "couscous", "beans", "chickpeas", "barley", "quinoa", "semolina"})


def _states(plain: Ingredient, things: Sequence[Ingredient]) -> bool:
    """Whether raw and cooked differ so much that neither may be assumed."""
    return plain.key in SWELLS and len(things) > 1


def _amount(atoms: Sequence[Atom], thing: Ingredient, draft: _Draft) -> ReadAmount | None:
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


def _take(m: Match, draft: _Draft, amount_atoms: Sequence[Atom], ing: Atom, *, factor: float = 1.0) -> Phrase | None:
    notes = [a.text for a in m.atoms if a.kinds & {"PREP", "SIZE", "GRIND"} and "ING" not in a.kinds]
    measures = [a.text for a in amount_atoms if a.kinds & {"UNIT_PIECE", "HOLDER"}]
    measures += [a.unit for a in amount_atoms if a.unit in _SPOONS]
    thing = _thing(ing, draft, notes, measures)
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
def _amount_first(m: Match, draft: _Draft) -> Phrase | None:
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
def _weighed(m: Match, draft: _Draft) -> Phrase | None:
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
def _amount_last(m: Match, draft: _Draft) -> Phrase | None:
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
def _per_meat(m: Match, draft: _Draft) -> Phrase | None:
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
def _each_of_these(m: Match, draft: _Draft) -> Phrase | None:
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
def _of_fruit(m: Match, draft: _Draft) -> Phrase | None:
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
def _no_amount(m: Match, draft: _Draft) -> Phrase | None:
    names = []
    taste = m.one("totaste") is not None
    seasoning = [s.key for a in m.all("ING") for s in a.all("ING")]
    # "salt and pepper" without an amount are always to taste.
    taste = taste or all(k == "pepper" or k.startswith("salt") for k in seasoning)
    for ing in m.all("ING"):
        notes = [a.text for a in m.atoms if a.kinds & {"PREP", "SIZE"} and "ING" not in a.kinds]
        thing = _thing(ing, draft, notes)
        if thing is None:
            return None
        draft.items.append(
            MixItem(thing.key, None, ", ".join(notes), draft.at, " ".join(a.text for a in m.atoms), to_taste=taste)
        )
        names.append(thing.name.lower())
    what = ph.word(" and ".join(names))
    return say("{what}: to taste", what=what) if taste else say("{what}: how much?", what=what)


@rule("no PREP* ING", "no PREP* ING or|and|no ING")
def _left_out(m: Match, draft: _Draft) -> Phrase | None:
    for ing in m.all("ING"):
        for sense in ing.all("ING"):
            draft.items.append(MixItem(sense.key, None, "", draft.at, ing.text, left_out=True))
    return say("left out: {what}", what=ph.word(", ".join(a.text for a in m.all("ING"))))


@rule(
    f"MASS|VOL|NUM {_MEASURE}? of? {_HOW} ING or {_HOW} ING",
    f"{_HOW} ING or {_HOW} ING",
    f"MASS|VOL|NUM of? {_HOW} ING or MASS|VOL|NUM {_HOW} ING",
)
def _either(m: Match, draft: _Draft) -> Phrase | None:
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
def _a_meat(m: Match, draft: _Draft) -> Phrase | None:
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
def _not_held(m: Match, draft: _Draft) -> Phrase | None:
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
def _prepared(m: Match, draft: _Draft) -> Phrase | None:
    text = " ".join(a.text for a in m.atoms)
    if draft.items:
        last = draft.items[-1]
        draft.items[-1] = replace(last, note=f"{last.note}, {text}".strip(", "))
    return say("note: {what}", what=ph.word(text))


_QUIET = frozenset(
    {
        "SEP",
        "noise",
        "about",
        "w:and",
        "w:with",
        "w:of",
        "w:plusword",
        "w:a",
        "w:for",
        "w:in",
        "w:into",
        "w:on",
        "w:at",
        "w:to",
        "w:some",
        "w:from",
        "w:by",
        "w:soakedin",
    }
)


def read_mix(
    text: str, *, inventory: Inventory, kitchen: Kitchen, meat_mass_g: float, unit_system: UnitSystem | None = None
) -> MixReading:
    """What goes in, from one line: ``1/2 cup panko, 1 egg, beaten + 3 yolks, salt to taste``.

    Parameters
    ----------
    text : str
        What was typed.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    meat_mass_g : float
        Mass of the meat, g, for per cent of it.
    unit_system : UnitSystem | None, default None
        Units that a bare number has; the kitchen's when None.

    Returns
    -------
    MixReading
        The line as it was read.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> read = read_mix(
    ...     "1 egg, beaten, 2-3 cloves garlic, salt to taste",
    ...     inventory=starter_inventory(), kitchen=yard_galley(), meat_mass_g=700,
    ... )
    >>> [(i.ingredient, i.amount and i.amount.mass_g, i.note) for i in read.items]
    [('egg', 50.0, 'beaten'), ('garlic', 7.5, ''), ('salt-fine', None, '')]
    """
    system = unit_system or kitchen.unit_system
    lexicon = lexicon_of(inventory=inventory, kitchen=kitchen)
    read = atoms_of(text, lexicon=lexicon, imperial=kitchen.country == "UK", system=system)
    draft = _Draft(inventory, kitchen, meat_mass_g, system)
    pieces: list[Piece] = []
    noise: set[int] = set(read.noise)
    atoms, at = [*read.atoms, Atom((), frozenset({"END"}))], 0
    while at < len(atoms):
        taken = False
        for match, action in MIX.candidates(atoms[at:], 0):
            draft.at = len(pieces)
            label = action(match, draft)
            if not label:
                continue
            spans = _spans(match.atoms, read)
            status = "understood"
            if action in (_a_meat, _not_held):
                status = "unread"
            elif any(a.spelt for a in match.atoms):
                status = "assumed"
            pieces.append(Piece(spans, _text(spans, text), status, action.__name__[1:], label))  # type: ignore[arg-type]
            at += match.end
            taken = True
            break
        if taken:
            continue
        a = atoms[at]
        if "END" in a.kinds or a.kinds & {"noise"} or a.kinds <= _QUIET:
            noise.update(a.tokens)
        else:
            spans = _spans([a], read)
            pieces.append(Piece(spans, _text(spans, text), "unread", "unread", say("not understood")))
        at += 1
    for i in sorted(read.unread):
        span = Span(read.tokens[i].start, read.tokens[i].end)
        pieces.append(Piece((span,), read.tokens[i].text, "unread", "unread", say("not in the pantry")))
    order = sorted(range(len(pieces)), key=lambda i: pieces[i].spans[0].start)
    place = {old: new for new, old in enumerate(order)}
    items = tuple(replace(i, piece=place[i.piece]) for i in draft.items)
    ordered = tuple(replace(pieces[i], alternatives=_others(pieces[i], text, inventory)) for i in order)
    asks = tuple(
        Ask(
            what,
            tuple(
                Choice(label, replaced(text, ordered[place[p]].spans, _swapped(ordered[place[p]].text, what, by)))
                for label, by in choices
            ),
        )
        for what, p, choices in draft.asks
    )
    return MixReading(text, ordered, items, asks)


def _swapped(piece: str, what: Phrase, by: str) -> str:
    """A piece with its ambiguous word said otherwise; a whole alternative stands for the piece."""
    word = what.amounts.get("what")
    if word is not None and word.text and word.text in piece:
        return piece.replace(word.text, by)
    return by


def _spans(atoms: Sequence[Atom], read: Atoms) -> tuple[Span, ...]:
    spans: list[Span] = []
    last = -2
    for i in sorted({i for a in atoms for i in a.tokens}):
        token = read.tokens[i]
        if spans and i == last + 1:
            spans[-1] = Span(spans[-1].start, token.end)
        else:
            spans.append(Span(token.start, token.end))
        last = i
    return tuple(spans)


def _text(spans: Sequence[Span], text: str) -> str:
    return " … ".join(text[s.start : s.end] for s in spans)


def _others(piece: Piece, text: str, inventory: Inventory) -> tuple[Alternative, ...]:
    """Nearest names of the pantry for what is not known, and leaving it out."""
    out: list[Alternative] = []
    if piece.status == "unread":
        lowered = piece.text.lower()
        for name, (nearest, change) in substitutes().items():
            if name in lowered and nearest in inventory.pantry:
                thing = inventory.pantry[nearest].name.lower()
                label = say("{n} instead: {change}", n=ph.word(thing), change=ph.word(change))
                out.append(Alternative(label, lowered.replace(name, thing)))
        if not out:
            names = {n: i.name for i in inventory.pantry.values() if not i.retired for n in names_of(i)}
            near = process.extract(lowered, list(names), scorer=fuzz.ratio, score_cutoff=70, limit=3)
            out = [Alternative(say("{n}", n=ph.word(name)), name) for name, _, _ in near]
    out.append(Alternative(say("leave it out"), ""))
    return tuple(replace(a, text=replaced(text, piece.spans, a.text)) for a in out)
