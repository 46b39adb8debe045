"""Short of time: whether a dish is on the plate within so many minutes, and the cheapest changes that would do it."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from vianda.core.basis import phrase as ph
from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.edit import Choose, Edit, LayOut, SetFigure, SetStack, SwapIngredient, TakeBeside, TypeTiming
from vianda.core.model.formula import Formula
from vianda.core.model.styles import BLOCKS, FLAT
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import Figures
from vianda.core.sauce.from_raw import COOKED_BESIDE
from vianda.core.schedule.model import LATEST_MIN, MOST_COOKS, Plan, UnsettledError
from vianda.core.schedule.solve import Solver, solve
from vianda.core.timetable.plate_tasks import IN_POT
from vianda.core.timetable.tasks import tasks_of

LEAST_MIN, MOST_MIN = 1, LATEST_MIN
# Begins the key of a second one of a surface.
SECOND = "second:"
# So much thinner, or lighter, is still the same dish (ours).
THINNER, LIGHTER = 0.7, 0.5
# Changes go together three at most, and so many sets are tried (ours): beyond that it is another dish.
MOST_TOGETHER, MOST_TRIED, MOST_WAYS = 3, 40, 3


@dataclass(frozen=True, slots=True)
class Shortcut:
    """One change that saves time: what, what it costs in the dish, the minutes it saves by itself, and its edits.

    ``rank`` orders by what the guests lose: 0 nothing, 5 a part of the dish. Without edits it is the kitchen that has
    to have more.
    """

    key: str
    what: Phrase
    costs: Phrase
    rank: int
    saves_min: int
    edits: tuple[Edit, ...]


@dataclass(frozen=True, slots=True)
class QuickWay:
    """Changes together, how long it then takes, whether that fits, and what they do to cost and weight.

    ``portion_cost`` and ``cooked_g`` are of one portion and one piece after the changes.
    """

    shortcuts: tuple[Shortcut, ...]
    needs_min: int
    fits: bool
    portion_cost: Decimal
    cooked_g: float


@dataclass(frozen=True, slots=True)
class ShortOfTime:
    """A dish against so many minutes from now.

    ``needs_min`` is what it takes as it is; ``ways`` are the cheapest that fit, or the quickest there is where none
    does. ``portion_cost`` and ``cooked_g`` are those of now.
    """

    minutes: int
    needs_min: int
    fits: bool
    says: Phrase
    portion_cost: Decimal
    cooked_g: float
    ways: tuple[QuickWay, ...]
    shortcuts: tuple[Shortcut, ...]


def short_of_time(
    formula: Formula,
    *,
    minutes: int,
    inventory: Inventory,
    kitchen: Kitchen,
    engine: Engine = DIRECT,
    solver: Solver = solve,
) -> ShortOfTime:
    """What would bring a dish to the plate within so many minutes.

    Every change is made on the formula, computed anew and put in time; nothing is guessed.

    Parameters
    ----------
    formula : Formula
        The dish as it is.
    minutes : int
        Minutes from now to the plate, 1 to 720.
    inventory : Inventory
        Meats, lots and ingredients.
    kitchen : Kitchen
        Its equipment.
    engine : Engine
        Who computes the heat.
    solver : Solver
        Who looks for plans.

    Returns
    -------
    ShortOfTime
        What is made ahead (jars, sauces that keep) is taken to be there.

    Raises
    ------
    OutOfRangeError
        When the minutes are out of range.
    UnsettledError
        When no timetable of it was found in the time given.

    References
    ----------
    What a change costs the guests, and in which order cooks would give things up: common practice, no published source.
    """
    if not LEAST_MIN <= minutes <= MOST_MIN:
        raise OutOfRangeError(f"It is on the plate within {LEAST_MIN} to {MOST_MIN} min.", field="/minutes")
    case = _Case(formula, minutes, inventory, kitchen, engine, solver)
    now = case.tried(())
    if now is None:
        raise UnsettledError("No order of its tasks keeps every limit: see its timetable.")
    helpful: list[Shortcut] = []
    if not now.fits:
        for shortcut in _shortcuts(case.figures, inventory):
            way = case.tried((shortcut,))
            if way is not None and way.needs_min < now.needs_min:
                helpful.append(replace(shortcut, saves_min=now.needs_min - way.needs_min))
    ways = _ways(case, helpful) if helpful else []
    return ShortOfTime(
        minutes=minutes,
        needs_min=now.needs_min,
        fits=now.fits,
        says=_said(now, ways, minutes),
        portion_cost=now.portion_cost,
        cooked_g=now.cooked_g,
        ways=tuple(ways),
        shortcuts=tuple(sorted(helpful, key=lambda s: (s.rank, -s.saves_min, s.key))),
    )


class _Case:
    """The formula, and how long it takes with changes; each set is computed once."""

    def __init__(
        self, formula: Formula, minutes: int, inventory: Inventory, kitchen: Kitchen, engine: Engine, solver: Solver
    ) -> None:
        # Nothing was begun: pins and hours of another evening do not bind this one.
        self.formula = replace(formula, timing=replace(formula.timing, opens_min=-1, pins=(), away=()))
        self.minutes, self.inventory, self.kitchen = minutes, inventory, kitchen
        self.engine, self.solver = engine, solver
        self.figures = self._computed(self.formula)

    def _computed(self, formula: Formula, shortcuts: Sequence[Shortcut] = ()) -> Figures:
        kitchen = _with_second(self.kitchen, shortcuts)
        return compute(formula, inventory=self.inventory, kitchen=kitchen, engine=self.engine)

    def tried(self, shortcuts: Sequence[Shortcut]) -> QuickWay | None:
        """How long it takes with these changes; None where they cannot be made, or nothing was found."""
        try:
            formula = self.formula
            for edit in (e for s in shortcuts for e in s.edits):
                formula = apply_edit(formula, edit, inventory=self.inventory, kitchen=self.kitchen)
            figures = self._computed(formula, shortcuts) if shortcuts else self.figures
            # Asked for in a minute, it is as late as it takes: one plan tells for any number of minutes.
            problem = replace(tasks_of(figures), opens_min=-1)
            plan: Plan | None = self.solver(problem, goals=1)
        except CoreError:
            return None
        if plan is None:
            return None
        needs = 1 + plan.late_min
        return QuickWay(
            tuple(shortcuts),
            needs,
            needs <= self.minutes,
            figures.trade.cost.portion_cost,
            figures.piece.shape.cooked_mass_g.usual,
        )


def _with_second(kitchen: Kitchen, shortcuts: Sequence[Shortcut]) -> Kitchen:
    """The kitchen with a second one of a surface beside the first: as one that is twice as large."""
    where = {s.key.removeprefix(SECOND) for s in shortcuts if s.key.startswith(SECOND)}
    if not where:
        return kitchen
    grown = []
    for surface in kitchen.surfaces:
        # A round pan and its like hold what a round pan of twice the area holds.
        wider, deeper = (math.sqrt(2.0), math.sqrt(2.0)) if surface.round_shape else (2.0, 1.0)
        if surface.key in where:
            surface = replace(surface, width_mm=surface.width_mm * wider, depth_mm=surface.depth_mm * deeper)
        grown.append(surface)
    return replace(kitchen, surfaces=tuple(grown))


def _ways(case: _Case, helpful: Sequence[Shortcut]) -> list[QuickWay]:
    """The cheapest sets that fit, none holding another; else the quickest of those tried."""
    found: list[QuickWay] = []
    quickest: QuickWay | None = None
    tried = 0
    for size in range(1, MOST_TOGETHER + 1):
        sets = sorted(
            itertools.combinations(helpful, size),
            key=lambda s: (sum(x.rank for x in s), -sum(x.saves_min for x in s), [x.key for x in s]),
        )
        for shortcuts in sets:
            keys = {x.key for x in shortcuts}
            if any({x.key for x in way.shortcuts} <= keys for way in found):
                continue
            if tried == MOST_TRIED:
                break
            tried += 1
            way = case.tried(shortcuts)
            if way is None:
                continue
            if way.fits:
                found.append(way)
                if len(found) == MOST_WAYS:
                    return _cheapest(found)
            elif quickest is None or way.needs_min < quickest.needs_min:
                quickest = way
    return _cheapest(found) or ([quickest] if quickest is not None else [])


def _cheapest(ways: Sequence[QuickWay]) -> list[QuickWay]:
    return sorted(ways, key=lambda w: (sum(s.rank for s in w.shortcuts), len(w.shortcuts), w.needs_min))


def _said(now: QuickWay, ways: Sequence[QuickWay], minutes: int) -> Phrase:
    needs, asked = ph.minutes(float(now.needs_min)), ph.minutes(float(minutes))
    if now.fits:
        return say("It fits: begun now it takes {needs} of the {asked}.", needs=needs, asked=asked)
    if any(way.fits for way in ways):
        return say("As it is it takes {needs}, not {asked}. This would make it fit:", needs=needs, asked=asked)
    if not ways:
        return say(
            "As it is it takes {needs}, not {asked}, and nothing known here makes it quicker.", needs=needs, asked=asked
        )
    best = ph.minutes(float(ways[0].needs_min))
    return say(
        "As it is it takes {needs}, not {asked}. The quickest found takes {best}:", needs=needs, asked=asked, best=best
    )


def _shortcuts(f: Figures, inventory: Inventory) -> Iterator[Shortcut]:
    """What cooks give up when time is short, the least first."""
    formula = f.context.formula
    if formula.timing.cooks < MOST_COOKS:
        yield Shortcut(
            "cook",
            say("One more cook"),
            say("Nothing in the dish."),
            0,
            0,
            (TypeTiming("cooks", str(formula.timing.cooks + 1)),),
        )
    if f.cook.stove.waves > 1:
        name = ph.word(f.context.surface.name.lower())
        costs = say("Nothing in the dish: a second one has to be at hand and hot.")
        yield Shortcut(SECOND + f.context.surface.key, say("A second {what}", what=name), costs, 0, 0, ())
    if any(layer.toasted for layer in f.beside.stack):
        layers = tuple(replace(layer, toasted=False) for layer in f.beside.stack)
        costs = say("Bread takes up juice sooner: build it at the table.")
        yield Shortcut("untoasted", say("Bread not toasted"), costs, 1, 0, (SetStack(layers),))
    if formula.mix.lines and formula.mix.chill_min > 0:
        costs = say("It is softer to shape, and fat smears: wet or cold hands, and a firm press.")
        yield Shortcut("no-chill", say("The mix not chilled"), costs, 2, 0, (SetFigure("chill", 0.0),))
    if f.mix.panade.crumb_g > 0 and formula.mix.soak_min > 0:
        costs = say("Crumbs swell less: a coarser, firmer bite, and less juice is held.")
        yield Shortcut("no-soak", say("Crumbs not soaked first"), costs, 2, 0, (SetFigure("soak", 0.0),))
    if f.meat.grind.minutes > 0:
        ground = _ground_before(f, inventory)
        if ground is not None:
            yield ground
    for other in f.context.kitchen.surfaces:
        if other.kind in f.context.style.surfaces and other.key != formula.heat.surface:
            names = {"what": ph.word(other.name.lower()), "own": ph.word(f.context.surface.name.lower())}
            costs = say("Another crust than from the {own}: see the heat step before you begin.", own=names["own"])
            change = (Choose("surface", other.key),)
            yield Shortcut(f"on:{other.key}", say("On the {what}, not the {own}", **names), costs, 3, 0, change)
    for line in f.mix.lines:
        rule = COOKED_BESIDE.get(line.ingredient)
        if rule is not None and not rule.with_meat and "onion" in line.ingredient and "onion" in inventory.pantry:
            costs = say("Raw onion is sharper, wetter and stays crisp: grate or chop it fine.")
            edits = (SwapIngredient(line.ingredient, "onion"),)
            yield Shortcut(f"raw:{line.ingredient}", say("Onion raw, not cooked soft"), costs, 3, 0, edits)
    yield from _smaller(f)
    for thing in f.beside.things:
        cooked = COOKED_BESIDE.get(thing.ingredient)
        if (cooked is not None and not cooked.with_meat) or (thing.house and thing.role in IN_POT):
            costs = say("The dish goes without it.")
            what = say("Without {what}", what=ph.word(thing.name.lower()))
            yield Shortcut(f"without:{thing.ingredient}", what, costs, 5, 0, (TakeBeside(thing.ingredient),))


def _ground_before(f: Figures, inventory: Inventory) -> Shortcut | None:
    try:
        meat = inventory.label_for_fat(f.meat.blend.fat_frac)
    except CoreError:
        return None
    costs = say("{meat} in place of your own blend: another taste, and a tighter grind.", meat=ph.word(meat.name))
    return Shortcut("bought-ground", say("Meat bought ground"), costs, 4, 0, (LayOut((meat.key,), (1.0,)),))


def _smaller(f: Figures) -> Iterator[Shortcut]:
    """Pieces that cook through sooner: thinner, half as heavy, or a loaf for fewer."""
    formula, form, shape = f.context.formula, f.context.style.form, f.piece.shape
    piece = float(f.batch.portions.piece_mass_g)
    if form in FLAT:
        edits = (SetFigure("piece_mass", piece * THINNER), SetFigure("thickness", shape.thickness_mm * THINNER))
        costs = say(
            "A piece of {m}, not {now}: less to bite on, and drier by the same minutes.",
            m=ph.mass(piece * THINNER),
            now=ph.mass(piece),
        )
        yield Shortcut("thinner", say("Pieces thinner by a third"), costs, 4, 0, edits)
    elif form in BLOCKS and formula.dish.guests_per_piece > 1:
        half = max(1, formula.dish.guests_per_piece // 2)
        costs = say("Smaller loaves have more crust and lose more juice.")
        edits_of = (SetFigure("guests_per_piece", float(half)),)
        yield Shortcut("smaller-loaves", say("Loaves for {n} guests each", n=ph.count(half)), costs, 3, 0, edits_of)
    elif form == "ball":
        twice = float(formula.dish.pieces_per_guest * 2)
        edits = (SetFigure("piece_mass", piece * LIGHTER), SetFigure("pieces_per_guest", twice))
        costs = say(
            "Balls of {m}, twice as many: more to shape, more crust, less juicy middle.", m=ph.mass(piece * LIGHTER)
        )
        yield Shortcut("smaller-balls", say("Balls half as heavy"), costs, 3, 0, edits)
