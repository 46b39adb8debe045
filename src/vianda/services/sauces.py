"""The taste of a sauce, its nudges, its pot and its brine, against this kitchen's pantry."""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase
from vianda.core.equipment.heating import POWER_W_M2
from vianda.core.inventory.pantry import HouseLine, ingredient_of
from vianda.core.model.formula import Role
from vianda.core.sauce.brine import AtRest, Bath, at_rest, keeping, pickled_frac
from vianda.core.sauce.cook_down import Boil, CookDown, cook_down
from vianda.core.sauce.nudge import Handle, Nudge, nudge
from vianda.core.sauce.schools import AgainstBand, SauceSchool, against, nearest_school, sauce_school, sauce_schools
from vianda.core.sauce.tastes import Taste, taste_of
from vianda.services.bench import context

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

    ``lines`` are the sauce after it, and ``left_frac`` what cooking down leaves of them.
    """

    nudge: Nudge | None
    bands: tuple[AgainstBand, ...]
    lines: tuple[HouseLine, ...]
    left_frac: float


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
    if found is None:
        return NudgeAnswer(None, (), lines, left / whole)
    now = dict(pairs)
    now.update({m.ingredient: m.after_g for m in found.moved})
    after = tuple(HouseLine(key, grams) for key, grams in now.items() if grams > LEAST_LINE_G)
    # What goes into the pot stays in it.
    added = math.fsum(m.change_g for m in found.moved)
    beside = _school(found.before, role, school)
    bands = against(found.after, beside) if beside else ()
    return NudgeAnswer(found, bands, after, (left + added) / (whole + added))


def pot_of(start_g: float, left_g: float, boil: Boil, *, diameter_mm: float) -> CookDown:
    """How long it cooks down in a pot of this width on this kitchen's usual burner."""
    _, kitchen = context()
    pan = kitchen.surface_of_kind("pan") or kitchen.surface_of_kind("plate")
    power = pan.heating.power if pan is not None else "usual"
    return cook_down(start_g, left_g, boil, diameter_mm=diameter_mm, burner_w_m2=POWER_W_M2[power])


@dataclass(frozen=True, slots=True)
class Pickled:
    """A brine and its vegetable at rest, and how far a slice is after a day and after three, 0–1.

    ``keeps`` says what keeping rests on.
    """

    rest: AtRest
    brine_per_vegetable: float
    after_day: Band
    after_three_days: Band
    keeps: Phrase


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
    ratio = bath.water_g / max(bath.vegetable_water_g, 1e-9)
    day, three = (pickled_frac(slice_mm, days * 86_400.0, brine_per_vegetable=ratio, cold=cold) for days in (1.0, 3.0))
    return Pickled(at_rest(bath), ratio, day, three, keeping(at_rest(bath)))


def schools_offered() -> tuple[SauceSchool, ...]:
    """Every school of sauce."""
    return tuple(sauce_schools().values())
