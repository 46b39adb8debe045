"""The opening line: one typed line in, a whole first formula out, with what was assumed and what to ask.

Everything the line does not say is assumed openly.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.batch.salt_ledger import START_SALT_FRAC
from vianda.core.equipment.kitchen import Kitchen, SurfaceKind
from vianda.core.heat.doneness import DONENESS, target_for
from vianda.core.heat.floor import floors_for
from vianda.core.inventory.inventory import POULTRY, Inventory, Meat
from vianda.core.mix.schools import schools_for
from vianda.core.model.formula import BlendPart, DishChoice, Formula, Heat, Seasoning, Shape
from vianda.core.model.styles import Style, style_of
from vianda.core.opening.dishes import DISHES, NOUNS, PIECES_EACH, made_as
from vianda.core.opening.questions import Question, questions_of
from vianda.core.pipeline.compute import prepare
from vianda.core.pipeline.figures import Prepared
from vianda.core.reading.entry import MASS_UNITS, NUMBER_WORDS, read_mass_g
from vianda.core.shape.bun_fit import fitting_bun

LONGEST_LINE = 300
USUAL_MEAT_PER_GUEST_G = 170.0


@dataclass(frozen=True, slots=True)
class Opening:
    """A first formula, what was read from the line, what was assumed, and what to ask next."""

    formula: Formula
    read: tuple[Phrase, ...]
    assumed: tuple[Phrase, ...]
    unread: tuple[str, ...]
    questions: tuple[Question, ...]


_NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?|[¼½¾⅓⅔])"
_MASS_NAMES = "|".join(sorted((re.escape(u) for u in MASS_UNITS), key=len, reverse=True))
_MASS = re.compile(rf"((?:{_NUMBER}\s*(?:{_MASS_NAMES})(?![a-z])\s*(?:and\s+)?)+)", re.IGNORECASE)
_COUNT_WORD = r"(\d+|" + "|".join(sorted(NUMBER_WORDS, key=len, reverse=True)) + r")"
_EATERS = r"(?:people|persons|guests|eaters|mouths|of us|crew)"
_PEOPLE = re.compile(rf"(?:\bfor\s+{_COUNT_WORD}\b(?!\s*(?:min|h))(?:\s+{_EATERS}\b)?|\b{_COUNT_WORD}\s+{_EATERS}\b)")
_PIECES = re.compile(
    rf"\b{_COUNT_WORD}\s+(?:[\w·]+\s+){{0,2}}(?:burgers|patties|pieces|(?:meat ?)?balls|(?:meat ?)?loaves)\b"
)
_RATIO = re.compile(r"\b(\d{1,2})\s*/\s*(\d{1,2})\b")
_FAT = re.compile(r"\b(\d{1,2})\s*(?:%|per ?cent)\s*fat\b")
_LEAN = re.compile(r"\b(\d{1,2})\s*(?:%|per ?cent)\s*lean\b")
_NAME = re.compile(r"\b(doubles?|singles?)\b")
# Dishes this bench does not make yet; named so that the answer is not a silent burger.

_SURFACES: tuple[tuple[str, SurfaceKind], ...] = (
    (r"\b(?:iron |frying |cast[- ]iron )?(?:pan|skillet)\b", "pan"),
    (r"\b(?:flat[- ]?top|(?:flat )?plate|griddle)\b", "plate"),
    (r"\b(?:grate|grill|coals|charcoal|barbecue|bbq)\b", "grate"),
)
_STYLES = (
    (r"\bsmash(?:ed|es)?\b", "smashed"),
    (r"\b(?:pub|thick)\b", "thick"),
    (r"\bsliders?\b", "slider"),
    (r"\bsmoked?\b", "smoked"),
    (r"\b(?:grilled)\b", "grilled"),
    (r"\b(?:pre-?pressed|thin)\b", "pre-pressed"),
)
_MINCE = re.compile(r"\b(?:unknown |some )?(?:minced? (?:beef|meat)|mince|ground (?:beef|meat)|beef|hamburger meat)\b")
_NOISE = frozenset(
    "a an and at for from have i in it make my of on or some the to we with burger burgers us dish".split()  # noqa: SIM905
)


_ONES = "|".join(sorted((w for w in NUMBER_WORDS if w.isalpha()), key=len, reverse=True))
_HALF_MORE = re.compile(rf"\b({_ONES}) and a half (?={_MASS_NAMES})")
_HALF = re.compile(rf"\b(?:a )?half (?:an? )?(?={_MASS_NAMES})")
_WORDED = re.compile(rf"\b({_ONES}|an?) (?=(?:{_MASS_NAMES})\b)")


def _with_digits(text: str) -> str:
    """Masses said in words, as digits: "half a kilo", "one and a half pounds", "two kilos"."""
    text = _HALF_MORE.sub(lambda m: f"{NUMBER_WORDS[m.group(1)]}.5 ", text)
    text = _HALF.sub("0.5 ", text)
    return _WORDED.sub(lambda m: f"{NUMBER_WORDS.get(m.group(1), 1)} ", text)


class _Line:
    """The line, from which each reader takes what it understood."""

    def __init__(self, text: str) -> None:
        self.rest = _with_digits(text.lower())

    def take(self, pattern: re.Pattern[str] | str) -> re.Match[str] | None:
        match = re.search(pattern, self.rest)
        if match:
            self.rest = self.rest[: match.start()] + " · " + self.rest[match.end() :]
        return match

    def unread(self) -> tuple[str, ...]:
        words = re.findall(r"[^\W_]+(?:[-'][^\W_]+)*", self.rest)
        return tuple(w[:30] for w in words if w not in _NOISE)


def _count(match: re.Match[str]) -> int:
    word = next(g for g in match.groups() if g)
    return int(word) if word.isdigit() else NUMBER_WORDS[word]


def open_line(line: str, *, inventory: Inventory, kitchen: Kitchen) -> Opening:
    """A whole first formula from one line.

    Parameters
    ----------
    line : str
        The opening line as typed.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.

    Returns
    -------
    Opening
        A first formula, what was read from the line, what was assumed, and what to ask next.

    Raises
    ------
    UnreadableEntryError
        When the line is empty, too long, or nothing in it was understood.
    OutOfRangeError
        No meat, no burger: say how much there is.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> line = "700 g unknown mince, iron pan, four people"
    >>> o = open_line(line, inventory=starter_inventory(), kitchen=yard_galley())
    >>> o.formula.dish.style, o.formula.dish.guests, o.formula.shape.batch_mass_g
    ('smashed', 4, 700.0)
    """
    text = " ".join(line.split())
    if not text:
        raise UnreadableEntryError("Say what you have: a weight, a pan, for how many.", field="/line")
    if len(text) > LONGEST_LINE:
        raise UnreadableEntryError(f"One line of at most {LONGEST_LINE} characters, please.", field="/line")
    rest = _Line(text)
    read: list[Phrase] = []
    assumed: list[Phrase] = []

    parts = _read_meats(rest, inventory, read, assumed)
    mass_match = rest.take(_MASS)
    batch_g = None
    if mass_match:
        batch_g = read_mass_g(re.sub(r"\band\b", " ", mass_match.group(1)), field="/line")
        if batch_g <= 0:
            raise OutOfRangeError("No meat, no burger: say how much there is.", field="/line")
        read.append(say("{mass} of meat", mass=ph.mass(batch_g)))
    people = rest.take(_PEOPLE)
    # "8 thick burgers" names pieces and style at once, so the style is looked up before either is taken.
    style_key = next((key for pattern, key in _STYLES if re.search(pattern, rest.rest)), None)
    made = next((key for pattern, key in DISHES if pattern.search(rest.rest)), None)
    pieces = rest.take(_PIECES)
    for name, _ in DISHES:
        rest.take(name)
    surface_kind = next((kind for pattern, kind in _SURFACES if rest.take(pattern)), None)
    for pattern, _ in _STYLES:
        rest.take(pattern)
    doneness = next(
        (d for d in sorted(DONENESS, key=lambda d: -len(d.key)) if rest.take(d.key.replace("-", "[- ]"))), None
    )
    rest.take(_NAME)
    if not (read or people or pieces or surface_kind or style_key or made):
        raise UnreadableEntryError(
            f"Nothing in “{text[:60]}” was understood. Try: 700 g unknown mince, iron pan, four people.", field="/line"
        )

    guests = _guests(people, pieces, batch_g, read, assumed, each=PIECES_EACH if made and "ball" in made else 1)
    formula = _assemble(
        kitchen=kitchen,
        parts=parts,
        batch_g=batch_g,
        guests=guests,
        style_key=style_key,
        surface_kind=surface_kind,
        pieces=_count(pieces) if pieces else None,
        read=[] if made else read,
        assumed=[] if made else assumed,
    )
    if made:
        count = _count(pieces) if pieces else None
        formula = made_as(formula, made, meat_g=batch_g, pieces=count, inventory=inventory, kitchen=kitchen)
        formula = replace(formula, name=f"{style_of(made).title} for {guests}")
        _say_dish(formula, inventory, kitchen, read, assumed)
    poultry = any(inventory.meat(p.meat).species in POULTRY for p in parts)
    stuffed = style_of(formula.dish.style).filled
    floors = floors_for(country=kitchen.country, setting=kitchen.setting, poultry=poultry, stuffed=stuffed)
    target = target_for(doneness.key if doneness else "well-done", floor_c=floors.leading.temp_c)
    if doneness:
        read.append(say("{name}: core {t}", name=ph.word(doneness.title), t=ph.temp(target)))
    else:
        assumed.append(
            say("well-done, core {t}; the published floor is {f}", t=ph.temp(target), f=ph.temp(floors.leading.temp_c))
        )
    formula = replace(formula, heat=replace(formula.heat, target_core_temp_c=target))
    ready = prepare(formula, inventory=inventory, kitchen=kitchen)
    if made:
        assumed.append(_pieces_said(ready))
        return Opening(formula, tuple(read), tuple(assumed), rest.unread(), questions_of(ready))
    bun = fitting_bun(kitchen, cooked_diameter_mm=ready.piece.shape.cooked_diameter_mm.usual)
    portions = ready.batch.portions
    heaviest = portions.heavier_mass_g if portions.heavier_pieces else None
    assumed.append(
        say(
            "{n} pieces each of {m}, {t} thick, for a {bun}",
            n=ph.count(formula.dish.pieces_per_guest),
            m=ph.mass(portions.piece_mass_g, heaviest),
            t=ph.length(formula.shape.thickness_mm),
            bun=ph.word(bun.name.lower()),
        )
    )
    formula = replace(formula, shape=replace(formula.shape, bun=bun.key))
    ready = prepare(formula, inventory=inventory, kitchen=kitchen)
    return Opening(
        formula=formula, read=tuple(read), assumed=tuple(assumed), unread=rest.unread(), questions=questions_of(ready)
    )


def _say_dish(
    formula: Formula, inventory: Inventory, kitchen: Kitchen, read: list[Phrase], assumed: list[Phrase]
) -> None:
    """What dish was read, and what its school of mixing puts in."""
    style = style_of(formula.dish.style)
    read.append(say("{dish}", dish=ph.word(NOUNS[formula.dish.dish])))
    assumed.append(say("{style}", style=ph.word(style.title.lower())))
    surface = kitchen.surface(formula.heat.surface)
    assumed.append(
        say("{surface} at {t}, measured", surface=ph.word(surface.name), t=ph.temp(formula.heat.surface_temp_c))
    )
    school = next(s for s in schools_for(style.dish) if not style.mix_school or s.key == style.mix_school)
    what = ", ".join(inventory.pantry[line.ingredient].name.split(",")[0].lower() for line in formula.mix.lines[:4])
    assumed.append(
        say(
            "{school}: {what} and more, salt {s} in all",
            school=ph.word(school.title.lower()),
            what=ph.word(what),
            s=ph.fine_frac(formula.seasoning.salt_frac),
        )
    )


def _pieces_said(ready: Prepared) -> Phrase:
    portions = ready.batch.portions
    heaviest = portions.heavier_mass_g if portions.heavier_pieces else None
    mass = ph.mass(portions.piece_mass_g, heaviest)
    if ready.context.style.form == "crumbled":
        return say("{n} portions of {m}", n=ph.count(portions.pieces), m=mass)
    if ready.context.style.form == "ball":
        return say(
            "{n} balls of {m}, {d} across",
            n=ph.count(portions.pieces),
            m=mass,
            d=ph.length(ready.piece.shape.raw_diameter_mm),
        )
    return say("{n} of {m}, {l} long", n=ph.count(portions.pieces), m=mass, l=ph.length(ready.piece.shape.length_mm))


def _read_meats(rest: _Line, inventory: Inventory, read: list[Phrase], assumed: list[Phrase]) -> tuple[BlendPart, ...]:
    fat: float | None = None
    if match := rest.take(_RATIO):
        one, two = int(match.group(1)), int(match.group(2))
        if one + two == 100:
            # Said both ways round; the lean is always the larger share of what is sold as mince.
            fat = min(one, two) / 100
    if fat is None and (match := rest.take(_FAT)):
        fat = int(match.group(1)) / 100
    if fat is None and (match := rest.take(_LEAN)):
        fat = 1 - int(match.group(1)) / 100
    found = _named_meats(rest, inventory)
    if not found:
        generic = rest.take(_MINCE)
        if fat is not None:
            meat = inventory.label_for_fat(fat)
            found = [meat]
            read.append(say("{meat}", meat=ph.word(meat.name)))
        else:
            meat = inventory.meat("mince-unknown")
            found = [meat]
            note = say("unknown mince, {band} fat", band=ph.frac(meat.fat_low_frac, meat.fat_high_frac))
            (read if generic else assumed).append(note)
    else:
        rest.take(_MINCE)
        read.append(say("{meats}", meats=ph.word(" and ".join(m.name for m in found))))
        if len(found) > 1:
            assumed.append(say("equal shares of each meat"))
    found = found[:8]
    share = 1.0 / len(found)
    shares = [share] * len(found)
    shares[-1] = 1.0 - sum(shares[:-1])
    return tuple(BlendPart(m.key, s) for m, s in zip(found, shares, strict=True))


# What people call a meat without saying which one: the usual reading (ours).
_ALIASES = {
    "short rib": "short-rib-plate",
    "brisket": "brisket",
    "marrow": "marrow",
    "pork": "pork-shoulder",
    "veal": "veal-ground",
    "lamb": "lamb-ground",
    "turkey": "turkey-ground",
    "chicken": "chicken-ground",
    "venison": "venison-ground",
}


def _named_meats(rest: _Line, inventory: Inventory) -> list[Meat]:
    """Meats of the larder named in the line, by name or by what people call them for short, the longest first."""
    # A name with a comma says more than people type; ground beef is read by its ratio.
    offered = [m for m in inventory.meats.values() if not m.retired and "," not in m.name]
    words = {re.sub(r"\s*\(.*\)", "", m.name).lower(): m for m in offered if m.kind != "ground" or m.species != "beef"}
    for alias, key in _ALIASES.items():
        if key in inventory.meats:
            words.setdefault(alias, inventory.meat(key))
    found: list[Meat] = []
    for name in sorted(words, key=lambda w: -len(w)):
        if words[name] not in found and rest.take(rf"\b{re.escape(name)}s?\b"):
            found.append(words[name])
    return found


def _guests(
    people: re.Match[str] | None,
    pieces: re.Match[str] | None,
    batch_g: float | None,
    read: list[Phrase],
    assumed: list[Phrase],
    *,
    each: int,
) -> int:
    if people:
        guests = _count(people)
        if guests < 1:
            raise OutOfRangeError("Nobody to eat it: say for how many.", field="/line")
        read.append(say("{n} people", n=ph.count(guests)))
        return guests
    if pieces:
        guests = max(1, round(_count(pieces) / each))
        assumed.append(say("{each} each for {n} people", each=ph.count(each), n=ph.count(guests)))
        return guests
    guests = max(1, round(batch_g / USUAL_MEAT_PER_GUEST_G)) if batch_g else 4
    assumed.append(say("{n} people, at about {m} each", n=ph.count(guests), m=ph.mass(USUAL_MEAT_PER_GUEST_G)))
    return guests


def _style_for(per_guest_g: float | None, surface_kind: SurfaceKind | None) -> str:
    """The style a cook would reach for, given the meat for each and the fire."""
    if surface_kind == "grate":
        return "thick" if per_guest_g is not None and per_guest_g >= 225 else "grilled"
    return "smashed"


def _assemble(
    *,
    kitchen: Kitchen,
    parts: tuple[BlendPart, ...],
    batch_g: float | None,
    guests: int,
    style_key: str | None,
    surface_kind: SurfaceKind | None,
    pieces: int | None,
    read: list[Phrase],
    assumed: list[Phrase],
) -> Formula:
    per_guest = batch_g / guests if batch_g else None
    style = style_of(style_key or _style_for(per_guest, surface_kind))
    (read if style_key else assumed).append(say("{style} burgers", style=ph.word(style.title)))
    surface = kitchen.surface_of_kind(surface_kind) if surface_kind else None
    if surface is not None:
        read.append(say("{surface}", surface=ph.word(surface.name)))
    else:
        surface = next((s for k in style.surfaces if (s := kitchen.surface_of_kind(k))), kitchen.surfaces[0])
        assumed.append(say("on the {surface}", surface=ph.word(surface.name)))
    each = _pieces_each(style, per_guest, pieces, guests)
    piece_g = per_guest / each if per_guest else style.piece_mass_start_g
    assumed.append(say("surface at {t}, measured", t=ph.temp(style.surface_temp_start_c)))
    assumed.append(say("salt {s} on the surface", s=ph.fine_frac(START_SALT_FRAC)))
    return Formula(
        name=f"{style.title} for {guests}",
        dish=DishChoice("burger", style.key, guests, each),
        parts=parts,
        seasoning=Seasoning(START_SALT_FRAC, "surface"),
        shape=Shape(
            "by_batch" if batch_g else "by_piece",
            max(10.0, min(1000.0, piece_g)),
            batch_g if batch_g else piece_g * guests * each,
            style.thickness_start_mm,
            kitchen.buns[0].key,
        ),
        heat=Heat(surface.key, style.surface_temp_start_c, 71.0),
    )


def _pieces_each(style: Style, per_guest_g: float | None, pieces: int | None, guests: int) -> int:
    if pieces and pieces >= guests:
        return max(1, min(12, pieces // guests))
    if per_guest_g is None:
        return style.pieces_per_guest_start
    return max(1, min(12, round(per_guest_g / style.piece_mass_start_g)))
