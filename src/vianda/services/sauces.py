"""The taste of a sauce, its nudges, its pot and its brine, against this kitchen's pantry."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase
from vianda.core.basis.units import UnitSystem
from vianda.core.batch.shaker import Shaker, ShakerTrial, calibrate, poured_g
from vianda.core.equipment.heating import POWER_W_M2
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.inventory.pantry import HouseLine, ingredient_of
from vianda.core.model.formula import Role
from vianda.core.reading.mix_line import MixReading
from vianda.core.sauce.brine import USUAL_H, AtRest, Bath, at_rest, keeping, pickled_frac, ready_after_h, usual_wait
from vianda.core.sauce.compose import composed, scaled
from vianda.core.sauce.cook_down import Boil, CookDown, cook_down, left_for_dry_frac, pot_key
from vianda.core.sauce.ferment import Ferment, FermentKind, ferment
from vianda.core.sauce.keep import Cooled, TrayCooling, keep
from vianda.core.sauce.nudge import Handle, Nudge, nudge
from vianda.core.sauce.pot import BallsInPot, balls_in_pot, fat_to_skim_g, height_needed_mm, level_mm
from vianda.core.sauce.schools import AgainstBand, SauceSchool, against, nearest_school, sauce_school, sauce_schools
from vianda.core.sauce.swap import Swapped, swaps_for
from vianda.core.sauce.tastes import Taste, taste_of
from vianda.core.sauce.thicken import Body, StarchStep, Thickener, Thickening, one_step_thicker, thickening
from vianda.services.bench import context

# Sauces that stand at a simmer anyway: starch thickens them. What lies cold on bread is not boiled for it.
COOKED: tuple[Role, ...] = ("cooking-sauce", "sauce-base", "gravy")
# Less of a line than this is none of it, g.
LEAST_LINE_G = 0.005


@dataclass(frozen=True, slots=True)
class SauceTaste:
    """A sauce's taste beside a school's bands; no school where its role has none.

    ``whole_g`` goes in, ``left_g`` of it is left, which is ``left_frac``.
    """

    whole_g: float
    left_g: float
    left_frac: float
    taste: Taste
    school: str
    school_title: str
    why: str
    bands: tuple[AgainstBand, ...]


@dataclass(frozen=True, slots=True)
class NudgeAnswer:
    """The change a word proposes with its taste beside the same bands; none where there is none.

    ``lines`` are the sauce after it, and ``left_frac`` what cooking down leaves of them. ``starch`` thickens a cooked
    sauce instead, where thicker was asked for.
    """

    nudge: Nudge | None
    bands: tuple[AgainstBand, ...]
    lines: tuple[HouseLine, ...]
    left_frac: float
    starch: StarchStep | None


def _pairs(lines: tuple[HouseLine, ...]) -> list[tuple[str, float]]:
    # The same thing twice is one line of both.
    found: dict[str, float] = {}
    for line in lines:
        found[line.ingredient] = found.get(line.ingredient, 0.0) + line.mass_g
    return list(found.items())


def _school(taste: Taste, role: Role, school: str) -> SauceSchool | None:
    return sauce_school(school) if school else nearest_school(taste, role)


def _left(pairs: list[tuple[str, float]], left_g: float, left_frac: float) -> tuple[float, float]:
    """What goes in and what is left of it, g: said in grams, or as a share."""
    whole = math.fsum(grams for _, grams in pairs)
    return whole, left_g or (left_frac * whole if 0.0 < left_frac < 1.0 else whole)


def taste_lines(
    lines: tuple[HouseLine, ...], *, left_g: float, left_frac: float, role: Role, school: str
) -> SauceTaste:
    """How a sauce tastes, beside the school named or the nearest of its role."""
    inventory, _ = context()
    pairs = _pairs(lines)
    whole, left = _left(pairs, left_g, left_frac)
    taste = taste_of(pairs, pantry=inventory.pantry, left_g=left)
    found = _school(taste, role, school)
    share = left / whole
    if found is None:
        return SauceTaste(whole, left, share, taste, "", "", "", ())
    return SauceTaste(whole, left, share, taste, found.key, found.title, found.why, against(taste, found))


def nudge_lines(
    lines: tuple[HouseLine, ...],
    handle: Handle,
    *,
    left_g: float,
    left_frac: float,
    locked: tuple[str, ...],
    only_add: bool,
    role: Role,
    school: str,
) -> NudgeAnswer:
    """The smallest change that does what a word asks."""
    inventory, _ = context()
    pairs = _pairs(lines)
    whole, left = _left(pairs, left_g, left_frac)
    found = nudge(pairs, handle, pantry=inventory.pantry, locked=frozenset(locked), only_add=only_add, left_g=left)
    cooked = role in COOKED or left < whole
    starch = one_step_thicker(left) if handle == "thicker" and cooked else None
    if found is None:
        return NudgeAnswer(None, (), lines, left / whole, starch)
    now = dict(pairs)
    now.update({m.ingredient: m.after_g for m in found.moved})
    after = tuple(HouseLine(key, grams) for key, grams in now.items() if grams > LEAST_LINE_G)
    # What goes into the pot stays in it.
    added = math.fsum(m.change_g for m in found.moved)
    beside = _school(found.before, role, school)
    bands = against(found.after, beside) if beside else ()
    return NudgeAnswer(found, bands, after, (left + added) / (whole + added), starch)


@dataclass(frozen=True, slots=True)
class Bound:
    """A sauce's lines with starch in it, and what cooking down leaves of them, 0–1."""

    lines: tuple[HouseLine, ...]
    left_frac: float


STARCH, WATER = "cornflour", "water"


def bound(
    lines: tuple[HouseLine, ...], *, left_g: float, left_frac: float, cornflour_g: float, cold_water_g: float
) -> Bound:
    """The lines with cornflour in cold water: it goes in at the end, and none of it boils away."""
    inventory, _ = context()
    pairs = _pairs(lines)
    whole, left = _left(pairs, left_g, left_frac)
    more = ((STARCH, cornflour_g), (WATER, cold_water_g))
    for key, _ in more:
        ingredient_of(inventory.pantry, key, field="/lines")
    added = cornflour_g + cold_water_g
    after = _pairs((*lines, *(HouseLine(key, grams) for key, grams in more if grams > 0.0)))
    return Bound(_lines(after), (left + added) / (whole + added))


@dataclass(frozen=True, slots=True)
class Pot:
    """What is in a pot cooked down: how long, how high it stands before and after, and what it tastes of.

    ``depth_mm`` is how deep the pot has to be. ``before`` and ``after`` are its tastes where its lines are known.
    ``dry_frac`` is the dry matter of what is left, 0 where that is not known. ``skim_g`` is fat to take off for the fat
    wanted. ``balls``: in what is left.
    """

    cook: CookDown
    level_before_mm: float
    level_after_mm: float
    depth_mm: float
    before: Taste | None
    after: Taste | None
    dry_frac: float
    skim_g: float
    portion_g: float
    balls: BallsInPot | None


@dataclass(frozen=True, slots=True)
class PotAsked:
    """What goes into a pot: lines, or grams alone; what is to be left of it, by dry matter, as a share, or in grams.

    ``fat_wanted_frac`` 1: nothing is skimmed. ``portions`` and ``balls`` 0: none.
    """

    lines: tuple[HouseLine, ...]
    start_g: float
    left_g: float
    left_frac: float
    dry_frac: float
    boil: Boil
    diameter_mm: float
    fat_wanted_frac: float
    portions: int
    balls: int
    ball_mm: float


def burner_w_m2(kitchen: Kitchen) -> float:
    """What this kitchen's usual burner gives into the metal of a pot, W/m²."""
    pan = kitchen.surface_of_kind("pan") or kitchen.surface_of_kind("plate")
    return POWER_W_M2[pan.heating.power if pan is not None else "usual"]


def pot_of(asked: PotAsked) -> Pot:
    """How long it cooks down in a pot of this width on this kitchen's usual burner, and what comes of it."""
    inventory, kitchen = context()
    pairs, pantry = _pairs(asked.lines), inventory.pantry
    start = math.fsum(grams for _, grams in pairs) if pairs else asked.start_g
    before = taste_of(pairs, pantry=pantry) if pairs else None
    left = asked.left_frac * start or asked.left_g
    if asked.dry_frac > 0.0:
        if before is None:
            raise OutOfRangeError("How thick it is takes its lines: say what is in it.", field="/dry_frac")
        left = left_for_dry_frac(start, before.dry * start / 100.0, asked.dry_frac)
    cook = cook_down(
        start,
        left,
        asked.boil,
        diameter_mm=asked.diameter_mm,
        burner_w_m2=burner_w_m2(kitchen),
        rate_factor=kitchen.pot_rate(pot_key(asked.boil, asked.diameter_mm)),
    )
    after = taste_of(pairs, pantry=pantry, left_g=left) if pairs else None
    skim = 0.0
    if after is not None and asked.fat_wanted_frac < 1.0:
        skim = fat_to_skim_g(left, after.fat / 100.0, wanted_frac=asked.fat_wanted_frac)
    eaten = left - skim
    return Pot(
        cook,
        level_mm(start, diameter_mm=asked.diameter_mm),
        level_mm(left, diameter_mm=asked.diameter_mm),
        height_needed_mm(start, diameter_mm=asked.diameter_mm),
        before,
        after,
        after.dry / 100.0 if after is not None else 0.0,
        skim,
        eaten / asked.portions if asked.portions else 0.0,
        balls_in_pot(eaten, balls=asked.balls, ball_mm=asked.ball_mm, diameter_mm=asked.diameter_mm)
        if asked.balls
        else None,
    )


def thickened(liquid_g: float, thickener: Thickener, body: Body) -> Thickening:
    """What thickens so much liquid."""
    return thickening(liquid_g, thickener=thickener, body=body)


@dataclass(frozen=True, slots=True)
class UptakePoint:
    """How far a slice is after so many hours, 0–1: slow, usual, fast."""

    hours: float
    frac: Band


@dataclass(frozen=True, slots=True)
class Pickled:
    """A brine and its vegetable at rest, and how far a slice is hour by hour.

    ``ready_h`` is when nine tenths of the way are gone; ``usual_h`` and ``usual_said`` what cooks usually wait.
    ``keeps`` says what keeping rests on.
    """

    rest: AtRest
    brine_per_vegetable: float
    ready_h: Band
    usual_h: tuple[float, float]
    usual_said: Phrase
    course: tuple[UptakePoint, ...]
    keeps: Phrase


# Hours at which the way is drawn: close together while it is steep.
COURSE_H = (0.0, 0.5, 1.0, 2.0, 3.0, 4.5, 6.0, 9.0, 12.0, 18.0, 24.0, 36.0, 48.0, 60.0, 72.0)


def brine_of(
    lines: tuple[HouseLine, ...], vegetable: str, vegetable_g: float, *, slice_mm: float, cold: bool
) -> Pickled:
    """Where a brine of these things and a vegetable come to rest, and how soon."""
    inventory, _ = context()
    pantry = inventory.pantry
    brine = taste_of(_pairs(lines), pantry=pantry)
    grams = math.fsum(line.mass_g for line in lines) / 100.0
    thing = ingredient_of(pantry, vegetable, field="/vegetable")
    bath = Bath(
        water_g=brine.water * grams,
        salt_g=brine.salt * grams,
        sugar_g=brine.sugar * grams,
        acid_g=brine.acid * grams,
        vegetable_g=vegetable_g,
        vegetable_water_g=thing.composition.water_g_per_100g * vegetable_g / 100.0,
        vegetable_sugar_g=thing.composition.sugars_g_per_100g * vegetable_g / 100.0,
    )
    ratio = min(bath.water_g / max(bath.vegetable_water_g, 1e-9), 1e9)
    course = tuple(
        UptakePoint(h, pickled_frac(slice_mm, h * 3600.0, brine_per_vegetable=ratio, cold=cold)) for h in COURSE_H
    )
    ready = ready_after_h(slice_mm, brine_per_vegetable=ratio, cold=cold)
    rest = at_rest(bath)
    return Pickled(rest, ratio, ready, USUAL_H, usual_wait(), course, keeping(rest))


def fermented(kind: FermentKind, vegetable_g: float, *, temp_c: float, salt_frac: float | None) -> Ferment:
    """Salt, days and yield of a ferment."""
    return ferment(kind, vegetable_g, temp_c=temp_c, salt_frac=salt_frac)


@dataclass(frozen=True, slots=True)
class SwapOffer:
    """One replacement, and the sauce's lines with it."""

    swapped: Swapped
    lines: tuple[HouseLine, ...]


def swaps_of(lines: tuple[HouseLine, ...], ingredient: str) -> tuple[SwapOffer, ...]:
    """What can take an ingredient's place."""
    inventory, _ = context()
    pairs = _pairs(lines)
    rest = tuple(HouseLine(key, grams) for key, grams in pairs if key != ingredient)

    def with_it(swapped: Swapped) -> tuple[HouseLine, ...]:
        return tuple(HouseLine(*p) for p in _pairs((*rest, *(HouseLine(key, grams) for key, grams in swapped.added))))

    return tuple(SwapOffer(s, with_it(s)) for s in swaps_for(pairs, ingredient, pantry=inventory.pantry))


def shaker_of(trials: tuple[ShakerTrial, ...], *, side_g: float, pieces: int) -> Shaker:
    """What a shaker gives, and how many shakes a side takes."""
    return calibrate(trials, side_g=side_g, pieces=pieces)


def poured(
    lines: tuple[HouseLine, ...], ingredient: str, *, before_g: float, after_g: float
) -> tuple[float, tuple[HouseLine, ...]]:
    """What was poured, g, by the scale before and after; and the lines with so much more of the ingredient."""
    found = poured_g(before_g, after_g)
    if not ingredient:
        return found, lines
    inventory, _ = context()
    ingredient_of(inventory.pantry, ingredient, field="/ingredient")
    return found, tuple(HouseLine(*p) for p in _pairs((*lines, HouseLine(ingredient, found))))


@dataclass(frozen=True, slots=True)
class ComposedSauce:
    """The lines with what was said, each ingredient once, and how it was read."""

    lines: tuple[HouseLine, ...]
    reading: MixReading


def compose(lines: tuple[HouseLine, ...], text: str, *, unit_system: UnitSystem | None) -> ComposedSauce:
    """The lines with everything a line of text names."""
    inventory, kitchen = context(unit_system)
    found = composed(_pairs(lines), text, inventory=inventory, kitchen=kitchen)
    return ComposedSauce(_lines(found.lines), found.reading)


def scale(lines: tuple[HouseLine, ...], *, whole_g: float, ingredient: str, mass_g: float) -> tuple[HouseLine, ...]:
    """The same sauce to another mass, or to what there is of one ingredient."""
    return _lines(scaled(_pairs(lines), whole_g=whole_g, ingredient=ingredient, mass_g=mass_g))


def _lines(pairs: Iterable[tuple[str, float]]) -> tuple[HouseLine, ...]:
    return tuple(HouseLine(key, grams) for key, grams in pairs)


def kept(depth_mm: float, cooled: Cooled) -> TrayCooling:
    """Whether a tray so deep cools as fast as published."""
    return keep(depth_mm, cooled)


def schools_offered() -> tuple[SauceSchool, ...]:
    """Every school of sauce."""
    return tuple(sauce_schools().values())
