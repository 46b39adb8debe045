"""The opening line: one typed line in, a whole first formula out, with how it was read and what to ask.

Everything the line does not say is assumed openly; what cannot hold together, or is not made here, is asked back.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError, UnreadableEntryError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.editing.choose import choose_style
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.doneness import DONENESS, target_for
from vianda.core.heat.floor import floors_for, target_meant
from vianda.core.inventory.inventory import POULTRY, Inventory
from vianda.core.mix.schools import schools_for
from vianda.core.model.formula import Formula
from vianda.core.model.styles import Style, style_of
from vianda.core.opening.draft import PlanDraft
from vianda.core.opening.kept import not_kept
from vianda.core.opening.plan import planned
from vianda.core.opening.questions import Question, questions_of
from vianda.core.opening.settle import DISH_NOUNS, settled
from vianda.core.opening.wish import Wish
from vianda.core.pipeline.compute import prepare
from vianda.core.pipeline.figures import Prepared
from vianda.core.reading.line import LineReading, read_line
from vianda.core.reading.piece import Ask, Choice, Piece, replaced
from vianda.core.shape.bun_fit import fitting_bun

LONGEST_LINE = 300
# Kinds of piece that say something to cook; a word on how it should eat alone does not.
_NOTHING = frozenset({"noise", "unread", "note", "fat", "size", "bare_number", "style"})
EXAMPLE = "700 g unknown mince, iron pan, four people"


@dataclass(frozen=True, slots=True)
class Opening:
    """A first formula with how the line was read, what was assumed, what to know, and what to ask next.

    ``formula`` is None when something must be settled first: then ``asks`` hold the choices, each a whole line.
    """

    text: str
    formula: Formula | None
    pieces: tuple[Piece, ...]
    assumed: tuple[Phrase, ...]
    remarks: tuple[Phrase, ...]
    asks: tuple[Ask, ...]
    questions: tuple[Question, ...]

    @property
    def unread(self) -> tuple[str, ...]:
        """What was not understood."""
        return tuple(p.text for p in self.pieces if p.status == "unread")


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
        A first formula with how the line was read, what was assumed, and what to ask next.

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
    reading = read_line(text, inventory=inventory, kitchen=kitchen)
    if all(p.kind in _NOTHING for p in reading.pieces) and not reading.said.says_something:
        raise UnreadableEntryError(f"Nothing in “{text[:60]}” was understood. Try: {EXAMPLE}.", field="/line")
    if reading.said.meatless and not reading.said.says_something and not reading.said.meats:
        reading.said.not_made.clear()
    if reading.said.not_made and not any(w.style for w in reading.said.pieces):
        return _not_made(reading)
    wish = settled(reading)
    contradiction = _contradictions(reading, wish)
    if wish.asks or contradiction:
        return Opening(text, None, reading.pieces, (), tuple(wish.remarks), (*wish.asks, *contradiction), ())
    return _planned(reading, wish, inventory=inventory, kitchen=kitchen)


def _not_made(reading: LineReading) -> Opening:
    """A dish that is not made here: named as such, with the nearest that are."""
    name, near, piece = reading.said.not_made[0]
    spans = reading.pieces[reading.said.order.get(piece, piece)].spans
    offers = [style_of(near).dish] if near else []
    for dish in ("burger", "meatball", "sauce", "meatloaf"):
        if dish not in offers and len(offers) < 3 and near:
            offers.append(dish)
    choices = tuple(
        Choice(
            say("Make {dish} of it", dish=ph.word(DISH_NOUNS[dish])), replaced(reading.text, spans, DISH_NOUNS[dish])
        )
        for dish in offers
    )
    if not choices:
        choices = (Choice(say("leave it out"), replaced(reading.text, spans, "")),)
    return Opening(
        reading.text,
        None,
        reading.pieces,
        (),
        (),
        (
            Ask(
                say(
                    "{name}: not made here. Vianda makes burgers, meatballs, meatloaf and meat sauce.",
                    name=ph.word(name[0].upper() + name[1:]),
                ),
                choices,
            ),
        ),
        (),
    )


def _contradictions(reading: LineReading, wish: Wish) -> tuple[Ask, ...]:
    """A meat named and ruled out in one line."""
    said = reading.said
    found = []
    for limit, species in (("no-pork", "pork"), ("halal", "pork"), ("no-beef", "beef")):
        if limit not in said.limits:
            continue
        named = [m for m in said.meats if m.key and said.inventory.meat(m.key).species == species]
        if species == "beef":
            named += [m for m in said.meats if m.any == "beef" and m.piece >= 0]
        for meat in named[:1]:
            at = said.order.get(meat.piece, meat.piece)
            limit_at = next(i for i, p in enumerate(reading.pieces) if p.kind == "limit")
            found.append(
                Ask(
                    say(
                        "{meat} is named, and {limit} is kept. Which holds?",
                        meat=ph.word(meat.word),
                        limit=ph.word(limit.replace("-", " ")),
                    ),
                    (
                        Choice(
                            say("leave out the {m}", m=ph.word(meat.word)),
                            replaced(reading.text, reading.pieces[at].spans, ""),
                        ),
                        Choice(say("drop the limit"), replaced(reading.text, reading.pieces[limit_at].spans, "")),
                    ),
                )
            )
    del wish
    return tuple(found)


def _planned(reading: LineReading, wish: Wish, *, inventory: Inventory, kitchen: Kitchen) -> Opening:
    said = reading.said
    draft = PlanDraft(wish, said, inventory=inventory, kitchen=kitchen)
    formula = planned(draft)
    assumed, remarks = draft.assumed, draft.remarks
    for name, _, _ in said.not_made:
        remarks.append(say("{name}: not made here; kept as a note.", name=ph.word(name[0].upper() + name[1:])))
    style = style_of(formula.dish.style)
    if not wish.parts_said:
        meat = inventory.meat(formula.parts[0].meat)
        assumed.append(
            say(
                "{meat}, {band} fat",
                meat=ph.word(meat.name.lower()),
                band=ph.frac(meat.fat_low_frac, meat.fat_high_frac),
            )
        )
    if not wish.dish_said or wish.style in ("", "burger"):
        assumed.append(say("{style} {noun}", style=ph.word(style.title.lower()), noun=ph.word(DISH_NOUNS[style.dish])))
    if not draft.surface_said:
        assumed.append(say("on {surface}", surface=ph.word(kitchen.surface(formula.heat.surface).name)))
    if not said.surface_temp:
        assumed.append(say("surface at {t}, measured", t=ph.temp(formula.heat.surface_temp_c)))
    formula = _cored(formula, said.doneness, bool(said.core), assumed, inventory=inventory, kitchen=kitchen)
    ready = prepare(formula, inventory=inventory, kitchen=kitchen)
    bread_said = said.bun or said.no_bun or said.bun_mm or formula.mix.avoid
    in_bun = style.dish == "burger" and style.form != "spread" and kitchen.bun(formula.shape.bun).kind == "bun"
    if in_bun and not bread_said and formula.shape.bun != "none":
        bun = fitting_bun(kitchen, cooked_diameter_mm=ready.piece.shape.cooked_diameter_mm.usual)
        formula = replace(formula, shape=replace(formula.shape, bun=bun.key))
        ready = prepare(formula, inventory=inventory, kitchen=kitchen)
    assumed += _mix_said(formula, style, said.salt_frac or said.salt_mass or said.no_salt, inventory=inventory)
    assumed.append(_pieces_said(ready, kitchen))
    remarks += not_kept(wish, said, ready, told=draft.told)
    asks: list[Ask] = []
    if said.minutes:
        asks += _time_said(ready, reading, remarks)
    if said.open_party and not said.people and wish.pieces is None and wish.total_g is None:
        asks.append(_how_many(reading))
    return Opening(
        reading.text, formula, reading.pieces, tuple(assumed), tuple(remarks), tuple(asks), questions_of(ready)
    )


def _cored(
    formula: Formula,
    doneness: list[tuple[str, int]],
    core_said: bool,
    assumed: list[Phrase],
    *,
    inventory: Inventory,
    kitchen: Kitchen,
) -> Formula:
    poultry = any(inventory.meat(p.meat).species in POULTRY for p in formula.parts)
    stuffed = style_of(formula.dish.style).filled
    floors = floors_for(country=kitchen.country, setting=kitchen.setting, poultry=poultry, stuffed=stuffed)
    if core_said:
        said_c = formula.heat.target_core_temp_c
        if target_meant(said_c, floors.leading, unit_system=kitchen.unit_system) < floors.leading.temp_c:
            assumed.append(say("core as said; the published floor is {f}", f=ph.temp(floors.leading.temp_c)))
        return formula
    key = doneness[0][0] if doneness else "well-done"
    target = target_for(key, floor_c=floors.leading.temp_c)
    title = next(d.title for d in DONENESS if d.key == key)
    assumed.append(
        say(
            "{name}, core {t}; the published floor is {f}",
            name=ph.word(title),
            t=ph.temp(target),
            f=ph.temp(floors.leading.temp_c),
        )
    )
    return replace(formula, heat=replace(formula.heat, target_core_temp_c=target))


def _mix_said(formula: Formula, style: Style, salt_said: object, *, inventory: Inventory) -> list[Phrase]:
    """What the school of the dish puts in, and the salt where the line does not say it."""
    out: list[Phrase] = []
    if style.dish == "burger":
        if not salt_said:
            out.append(say("salt {s} on the surface", s=ph.fine_frac(formula.seasoning.salt_frac)))
        return out
    school = next(s for s in schools_for(style.dish) if not style.mix_school or s.key == style.mix_school)
    lines = [inventory.pantry[line.ingredient].name.split(",")[0].lower() for line in formula.mix.lines[:4]]
    if lines:
        out.append(
            say(
                "{school}: {what} and more, salt {s} in all",
                school=ph.word(school.title.lower()),
                what=ph.word(", ".join(lines)),
                s=ph.fine_frac(formula.seasoning.salt_frac),
            )
        )
    return out


def _pieces_said(ready: Prepared, kitchen: Kitchen) -> Phrase:
    portions, style = ready.batch.portions, ready.context.style
    heaviest = portions.heavier_mass_g if portions.heavier_pieces else None
    mass = ph.mass(portions.piece_mass_g, heaviest)
    n = ph.count(portions.pieces)
    if style.form == "crumbled":
        return say("{n} portions of {m}", n=n, m=mass)
    if style.form == "ball":
        return say("{n} balls of {m}, {d} across", n=n, m=mass, d=ph.length(ready.piece.shape.raw_diameter_mm))
    if style.dish == "meatloaf":
        return say("{n} of {m}, {l} long", n=n, m=mass, l=ph.length(ready.piece.shape.length_mm))
    return say(
        "{n} pieces of {m}, {t} thick, for {bun}",
        n=n,
        m=mass,
        t=ph.length(ready.context.formula.shape.thickness_mm),
        bun=ph.word(kitchen.bun(ready.context.formula.shape.bun).name.lower()),
    )


def _needed_s(ready: Prepared) -> float:
    """From the first piece on the heat to the last one rested: waves one after another, then the rest, s."""
    usual = ready.case.usual
    return usual.on_heat_s.usual * ready.case.laying.waves + usual.rest_s.usual


def _time_said(ready: Prepared, reading: LineReading, remarks: list[Phrase]) -> list[Ask]:
    """Whether it fits into the time at hand, and what would."""
    hand_s = min(f.value for f in reading.said.minutes) * 60.0
    needed = _needed_s(ready)
    waves = ready.case.laying.waves
    if needed <= hand_s:
        remarks.append(
            say(
                "{hand} at hand: heat and rest take about {t} ({w}). It fits once the surface is hot.",
                hand=ph.duration(hand_s),
                t=ph.duration(needed),
                w=ph.word("one wave" if waves == 1 else f"{waves} waves"),
            )
        )
        return []
    remarks.append(
        say(
            "{hand} at hand: heat and rest alone take about {t} ({w}), so it does not fit.",
            hand=ph.duration(hand_s),
            t=ph.duration(needed),
            w=ph.word("one wave" if waves == 1 else f"{waves} waves"),
        )
    )
    context = ready.context
    fitting: list[tuple[float, Style]] = []
    for key in ("smashed", "pre-pressed", "slider", "grilled", "ball-baked", "ball-simmered"):
        style = style_of(key)
        if key == context.style.key or not any(context.kitchen.surface_of_kind(k) for k in style.surfaces):
            continue
        try:
            other = prepare(
                choose_style(context.formula, key, inventory=context.inventory, kitchen=context.kitchen),
                inventory=context.inventory,
                kitchen=context.kitchen,
            )
        except CoreError:
            continue
        fitting.append((_needed_s(other), style))
    fitting.sort(key=lambda f: f[0])
    choices = tuple(
        Choice(
            say(
                "{style} {noun}, about {t}",
                style=ph.word(style.title),
                noun=ph.word(DISH_NOUNS[style.dish]),
                t=ph.duration(t),
            ),
            _as_style(reading, style),
        )
        for t, style in fitting[:2]
        if t <= hand_s
    )
    if not choices:
        remarks.append(say("No style here is quicker for so many; a larger surface or fewer pieces would be."))
        return []
    return [Ask(say("What would fit into {hand}?", hand=ph.duration(hand_s)), choices)]


_STYLE_WORDS = {
    "smashed": "smashed burgers",
    "pre-pressed": "thin burgers",
    "slider": "sliders",
    "grilled": "grilled burgers",
    "ball-baked": "meatballs",
    "ball-simmered": "meatballs in sauce",
}


def _as_style(reading: LineReading, style: Style) -> str:
    dish = next((i for i, p in enumerate(reading.pieces) if p.kind == "dish"), None)
    words = _STYLE_WORDS[style.key]
    if dish is not None:
        return replaced(reading.text, reading.pieces[dish].spans, words)
    # The dish may stand inside a larger piece ("20 min meatballs"): then only its word gives way.
    for said in reading.said.pieces:
        if said.word and said.word in reading.text:
            return reading.text.replace(said.word, words, 1)
    return f"{reading.text}, {words}"


def _how_many(reading: LineReading) -> Ask:
    at = next((p for p in reading.pieces if p.kind == "people"), None)
    return Ask(
        say("How many will eat?"),
        tuple(
            Choice(
                say("{n} people", n=ph.count(n)),
                replaced(reading.text, at.spans, f"for {n} people") if at else f"{reading.text} for {n} people",
            )
            for n in (4, 8, 12)
        ),
    )
