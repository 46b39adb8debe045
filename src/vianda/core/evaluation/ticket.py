"""The ticket and the rail: the vital figures, and one line of each step's present answer."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis import phrase as ph
from vianda.core.basis.phrase import Phrase, say
from vianda.core.counsel.rule import Counsel, Severity, Step
from vianda.core.model.styles import FLAT
from vianda.core.pipeline.figures import Figures
from vianda.core.reading.clock import clock_text


@dataclass(frozen=True, slots=True)
class TicketFigure:
    """A vital figure: label, value, what stands small beside it, its working, and the step that decides it."""

    id: str
    label: str
    value: Phrase
    aside: Phrase
    working: str
    step: Step


@dataclass(frozen=True, slots=True)
class RailStep:
    """A step of the path with its present answer and the gravest counsel waiting there."""

    step: Step
    number: int
    title: str
    answer: Phrase
    waiting: Severity | None


def _piece(f: Figures) -> ph.Amount:
    """The raw piece; a range when some pieces take a step of the remainder, so that it multiplies back."""
    p = f.batch.portions
    return ph.mass(p.piece_mass_g, p.heavier_mass_g if p.heavier_pieces else None)


def ticket_of(f: Figures) -> tuple[TicketFigure, ...]:
    """The vital figures of a formula, in the order in which a cook asks for them.

    Parameters
    ----------
    f : Figures
        The results of all stages.

    Returns
    -------
    tuple[TicketFigure, ...]
        Each: a vital figure with its working and the step that decides it.
    """
    allergens = f.served.allergens
    # A kitchen of one's own begins without prices: zero is no price.
    priced = f.trade.cost.portion_cost > 0
    return (
        TicketFigure(
            "lean_to_fat",
            "Lean to fat",
            say("{r}", r=ph.lean_to_fat(f.meat.blend.fat_frac)),
            say("fat {band}", band=ph.frac(f.meat.blend.fat_low_frac, f.meat.blend.fat_high_frac)),
            "lean_to_fat",
            "meat",
        ),
        TicketFigure("salt", "Salt", say("{s}", s=ph.fine_frac(f.salt.salt_frac)), _salt_aside(f), "salt", "mix"),
        TicketFigure(
            "pieces",
            "Pieces",
            say("{n} × {m}", n=ph.count(f.batch.portions.pieces), m=_piece(f)),
            say("{cooked} cooked", cooked=ph.mass(f.piece.shape.cooked_mass_g.low, f.piece.shape.cooked_mass_g.high)),
            "pieces",
            "shape",
        ),
        TicketFigure(
            "core",
            "Core",
            say("{t}", t=ph.temp(f.cook.plan.target_c)),
            say("{time} on the heat", time=_on_heat(f)),
            "core",
            "heat",
        ),
        TicketFigure(
            "cost",
            "A portion",
            say("{c}", c=ph.money(f.trade.cost.portion_cost)) if priced else say("no price"),
            say("{p}", p=ph.price(f.trade.cost.blend_price_per_kg)) if priced else say("enter prices in the larder"),
            "cost",
            "meat",
        ),
        TicketFigure(
            "allergens",
            "Allergens",
            say("{a}", a=ph.word(_allergen_names(f) or "none declared")),
            say("from {n} things", n=ph.count(len({s for a in allergens for s in a.sources})))
            if len(allergens) > 2
            else say(
                "from {what}", what=ph.word(", ".join(dict.fromkeys(s for a in allergens for s in a.sources)).lower())
            )
            if allergens
            else say(""),
            "allergens",
            "mix",
        ),
    )


def _allergen_names(f: Figures) -> str:
    return ", ".join(dict.fromkeys(a.name.split(" (")[0] for a in f.served.allergens))


def _salt_aside(f: Figures) -> Phrase:
    ledger = f.salt.ledger
    if not f.salt.salt_frac:
        return say("")
    if ledger.over_frac > 0:
        return say("{over} too much comes along", over=ph.mass(ledger.over_frac * f.batch.meat_mass_g))
    if f.salt.salt_place == "mixed":
        return say(
            "{add} to add, {brought} comes along", add=ph.mass(f.salt.batch_salt_g), brought=ph.mass(f.salt.brought_g)
        )
    return say("{piece} a piece, on the surface", piece=ph.mass(f.salt.piece_salt_g))


def _dish_answer(f: Figures) -> Phrase:
    dish, style = f.context.formula.dish, ph.word(f.context.style.title)
    if dish.guests_per_piece > 1:
        return say(
            "{style}, {guests} guests, {n} in all",
            style=style,
            guests=ph.count(dish.guests),
            n=ph.count(f.batch.portions.pieces),
        )
    if dish.spare_pieces > 0:
        return say(
            "{style}, {guests} guests × {each}, and {spare} over",
            style=style,
            guests=ph.count(dish.guests),
            each=ph.count(dish.pieces_per_guest),
            spare=ph.count(dish.spare_pieces),
        )
    return say(
        "{style}, {guests} guests × {each}",
        style=style,
        guests=ph.count(dish.guests),
        each=ph.count(dish.pieces_per_guest),
    )


def _mix_answer(f: Figures) -> Phrase:
    if not any(line.per_meat_frac > 0 for line in f.mix.lines):
        if not f.salt.salt_frac:
            return say("Nothing added")
        place = "worked in" if f.salt.salt_place == "mixed" else "on the surface"
        return say(f"Salt {{s}}, {place}", s=ph.fine_frac(f.salt.salt_frac))
    return say("{school}", school=ph.word(f.mix.resemblance.title))


# From here on seconds say more than anyone knows.
LONG_S = 1200.0


def _on_heat(f: Figures) -> ph.Amount:
    spread = f.cook.plan.on_heat_s
    if spread.high < LONG_S:
        return ph.duration(spread.low, spread.high)
    return ph.minutes(spread.low / 60.0, spread.high / 60.0)


def _heat_answer(f: Figures) -> Phrase:
    surface = ph.temp(f.context.formula.heat.surface_temp_c)
    if f.context.style.form in FLAT:
        return say("{t}, flip {flip}", t=surface, flip=ph.duration(f.cook.plan.flip_s.low, f.cook.plan.flip_s.high))
    return say("{t}, {time}", t=surface, time=_on_heat(f))


def _shape_answer(f: Figures) -> Phrase:
    mass, s = ph.mass(f.batch.portions.piece_mass_g), f.piece.shape
    if s.form == "ball":
        return say("{m}, {d} across", m=mass, d=ph.length(s.raw_diameter_mm))
    if s.form == "crumbled":
        return say("{m} a portion", m=mass)
    if s.form in ("loaf", "tin", "tray"):
        return say(
            "{m}, {l} × {w} × {h}",
            m=mass,
            l=ph.length(s.length_mm),
            w=ph.length(s.width_mm),
            h=ph.length(s.thickness_mm),
        )
    return say("{m}, {t} thick", m=mass, t=ph.length(s.thickness_mm))


def _cook_answer(f: Figures) -> Phrase:
    stove = f.cook.stove
    if stove.load_mass_g > 0:
        if stove.waves > 1:
            return say("Browned in {w} loads of {m}", w=ph.count(stove.waves), m=ph.mass(stove.load_mass_g))
        return say("Browned in one load")
    if stove.waves > 1:
        return say("{w} waves of {n}", w=ph.count(stove.waves), n=ph.count(stove.at_once))
    return say("One wave of {n}", n=ph.count(stove.at_once))


_GRAVER: dict[Severity, int] = {"limit": 2, "check": 1, "note": 0}


def _sauce_answer(f: Figures) -> Phrase:
    things, build = f.beside.things, f.beside.build
    if not things:
        return say("Nothing yet")
    named = ", ".join(t.name for t in things[:2]) + (" …" if len(things) > 2 else "")
    if len(build.layers) < 3:
        return say("{things}", things=ph.word(named))
    return say("{things}; {h} high", things=ph.word(named), h=ph.length(build.height_mm))


def _time_answer(f: Figures) -> Phrase:
    timing = f.context.formula.timing
    return say("On the plate at {at}, {n} cooks", at=ph.word(clock_text(timing.ready_min)), n=ph.count(timing.cooks))


def rail_of(f: Figures, counsel: tuple[Counsel, ...]) -> tuple[RailStep, ...]:
    """One line of each step's present answer, with the gravest counsel that waits there.

    Parameters
    ----------
    f : Figures
        The results of all stages.
    counsel : tuple[Counsel, ...]
        Remarks in the order of their weight.

    Returns
    -------
    tuple[RailStep, ...]
        Each: a step of the path.
    """

    def waiting(step: Step) -> Severity | None:
        found = [c.severity for c in counsel if c.step == step and c.severity != "note"]
        return max(found, key=_GRAVER.__getitem__, default=None)

    meats = " · ".join(p.name.split(" (")[0] for p in f.meat.blend.parts)
    answers: tuple[tuple[Step, int, str, Phrase], ...] = (
        ("dish", 1, "Dish", _dish_answer(f)),
        ("meat", 2, "Meat", say("{meats}", meats=ph.word(meats))),
        ("mix", 3, "Mix", _mix_answer(f)),
        ("shape", 4, "Shape", _shape_answer(f)),
        ("heat", 5, "Heat", _heat_answer(f)),
        ("sauce", 6, "Sauce", _sauce_answer(f)),
        ("time", 7, "Time", _time_answer(f)),
        ("cook", 8, "Cook", _cook_answer(f)),
        ("notes", 9, "Notes", say("Versions and cooks")),
    )
    return tuple(RailStep(step, n, title, answer, waiting(step)) for step, n, title, answer in answers)
