"""Sweeter, sharper, saltier, hotter, richer, looser, thicker: the smallest change that does it and holds the rest.

Every taste is a share, so a wanted share is a linear condition on the grams: Σ xᵢ (aᵢ − wanted) = 0. The change with
the fewest grams that meets it, with every other taste kept within what a tongue would miss, is a small linear programme
(HiGHS by SciPy). Where none exists the held tastes give way together, a step at a time, and what gave way is told.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.pantry import Pantry, ingredient_of
from vianda.core.sauce.tastes import TASTES, Taste, TasteName, taste_of, tastes_of

Handle = Literal["sweeter", "sharper", "saltier", "hotter", "richer", "looser", "thicker"]
Direction = Literal["more", "less"]
Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class HandleRule:
    """What a word moves, which way and by how much: at least ``step`` per 100 g, or ``frac`` of what there is.

    ``helpers`` are what a cook would reach for; those already in the sauce are always allowed to move.
    """

    taste: TasteName
    direction: Direction
    step: float
    frac: float
    helpers: tuple[str, ...]


# How much a word asks for: about what most people notice (ours); what is reached for: common practice.
HANDLES: Mapping[Handle, HandleRule] = {
    "sweeter": HandleRule("sugar", "more", 1.0, 0.15, ("sugar", "honey", "ketchup")),
    "sharper": HandleRule("acid", "more", 0.1, 0.15, ("cider-vinegar", "lemon-juice", "vinegar")),
    "saltier": HandleRule("salt", "more", 0.15, 0.1, ("salt-fine", "soy-sauce")),
    "hotter": HandleRule("pungency", "more", 5.0, 0.25, ("hot-sauce", "mustard", "horseradish")),
    "richer": HandleRule("fat", "more", 3.0, 0.1, ("mayonnaise", "cream", "olive-oil", "butter")),
    "looser": HandleRule("water", "more", 3.0, 0.12, ("water", "milk", "stock")),
    "thicker": HandleRule("water", "less", 3.0, 0.12, ("tomato-paste", "mayonnaise", "sour-cream")),
}
# These break in a hot pot.
COLD_ONLY = frozenset({"mayonnaise", "sour-cream"})
# What the others may move and still be called the same, per 100 g or of what there is: ours.
HELD: Mapping[TasteName, tuple[float, float]] = {
    "sugar": (0.3, 0.06),
    "salt": (0.05, 0.04),
    "acid": (0.03, 0.06),
    "fat": (1.0, 0.04),
    "pungency": (1.0, 0.10),
    "savour": (10.0, 0.15),
}
# More water always thins the rest: looser and thicker hold it less closely.
THINNED = 2.0
# What is tried in turn: one line alone (as a cook would) or all together, and by how much the held tastes give way.
LADDER = ((True, 1.0), (True, 2.0), (False, 1.0), (False, 2.0), (True, 4.0), (False, 4.0), (True, 8.0), (False, 8.0))
# No line falls below half of what it is, and no more is added than a quarter of the sauce: beyond it is another sauce.
MOST_ADDED = 0.25
# A new thing costs a little more than one that is in the sauce already, so that what is there is moved first.
NEW_COSTS = 1.25
# Less of the whole than this is numerical dust; more is told, or the taste told would not be the taste made.
DUST_FRAC = 2e-5


@dataclass(frozen=True, slots=True)
class NudgedLine:
    """One line before, after and by how much, g; ``new`` when it was not in the sauce."""

    ingredient: str
    before_g: float
    after_g: float
    change_g: float
    new: bool


@dataclass(frozen=True, slots=True)
class Nudge:
    """A change that does what was asked: the lines that move, the taste before and after, and what gave way.

    ``gave_way``: tastes that move by more than they were to be held to.
    """

    handle: Handle
    moved: tuple[NudgedLine, ...]
    before: Taste
    after: Taste
    gave_way: tuple[TasteName, ...]


def nudge(
    lines: Sequence[tuple[str, float]],
    handle: Handle,
    *,
    pantry: Pantry,
    locked: frozenset[str] = frozenset(),
    only_add: bool = False,
    by: float | None = None,
    left_g: float = 0.0,
) -> Nudge | None:
    """The smallest change of a sauce that moves one taste by what a word asks.

    Parameters
    ----------
    lines : Sequence[tuple[str, float]]
        Ingredient and grams, each ingredient once.
    handle : Handle
        The word.
    pantry : Pantry
        Ingredients by key, house formulas worked out.
    locked : frozenset[str], default frozenset()
        Ingredients that stay as they are.
    only_add : bool, default False
        At the bowl nothing can be taken out.
    by : float | None, default None
        How much of the taste is asked for, per 100 g; None: what the word usually means.
    left_g : float, default 0.0
        What cooking down left of it, g, so that it is nudged in its pot; 0: nothing was cooked away.

    Returns
    -------
    Nudge | None
        The change; None when none exists, however much else gave way.

    Raises
    ------
    OutOfRangeError
        When nothing is in it, or what is asked is not above zero.
    UnknownItemError
        When a line names what is not in the pantry.

    References
    ----------
    One line alone where that does it, else a linear programme on grams; steps, holds and what is reached for: ours
    and common practice, no published source.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> sauce = [("mayonnaise", 150.0), ("ketchup", 60.0), ("relish", 30.0)]
    >>> found = nudge(sauce, "sharper", pantry=starter_pantry())
    >>> [(m.ingredient, round(m.after_g - m.before_g, 1)) for m in found.moved]
    [('cider-vinegar', 6.3)]
    """
    rule = HANDLES[handle]
    before = taste_of(lines, pantry=pantry, left_g=left_g)
    asked = _usual_step(rule, before) if by is None else by
    if not 0.0 < asked <= 100.0:
        raise OutOfRangeError("A nudge asks for more than zero and at most 100 in 100 g.", field="/by")
    wanted = before.of(rule.taste) + (asked if rule.direction == "more" else -asked)
    present = dict(lines)
    whole = math.fsum(present.values())
    left = left_g or whole
    cooked_down = left < whole * (1 - 1e-9)
    new = [key for key in rule.helpers if key in pantry and not pantry[key].retired and key not in present]
    if cooked_down:
        # What is in the pot stays in the pot; only more of something can go in.
        new = [key for key in rule.helpers if key in pantry and not pantry[key].retired and key not in COLD_ONLY]
    base = [] if cooked_down else list(present)
    rows = [tastes_of(ingredient_of(pantry, key), pantry=pantry) for key in [*base, *new]]
    grams = [present[key] for key in base] + [0.0] * len(new)
    if cooked_down:
        rows.append(tuple(before.of(name) for name in TASTES))
        grams.append(left)
    # What is in the pot has no key, and moves no more than what is locked.
    still, paired = locked | {""}, _paired(base, new, grams)
    bowl = _Bowl(
        keys=(*base, *new, *(("",) if cooked_down else ())),
        grams=np.array(grams),
        table=np.array(rows),
        least=np.array([g if only_add or key in still else 0.5 * g for key, g in paired]),
        most=np.array([g if key in still else g + MOST_ADDED * left for key, g in paired]),
        new=frozenset(new),
        taste=rule.taste,
        wanted=wanted,
        before=before,
    )
    for alone, give in LADDER:
        found = _one_line(bowl, give) if alone else _least(bowl, give)
        if found is not None:
            return _told(handle, bowl, found, present)
    return None


def _usual_step(rule: HandleRule, before: Taste) -> float:
    """What a word asks for. Water is asked for by the dry matter: a thin sauce is loosened by less."""
    if rule.taste == "water":
        return min(rule.step, max(0.3, rule.frac * before.dry))
    return max(rule.step, rule.frac * before.of(rule.taste))


@dataclass(frozen=True)
class _Bowl:
    """What may move: grams now, at least and at most, what each brings per 100 g, and what is wanted."""

    keys: tuple[str, ...]
    grams: Array
    table: Array
    least: Array
    most: Array
    new: frozenset[str]
    taste: TasteName
    wanted: float
    before: Taste

    def held(self, give: float) -> list[tuple[Array, float]]:
        """Linear conditions row · grams ≤ 0 that hold every other taste."""
        found = []
        for name, (least, frac) in HELD.items():
            if name == self.taste:
                continue
            now = self.before.of(name)
            within = give * max(least, frac * now) * (THINNED if self.taste == "water" else 1.0)
            column = self.table[:, TASTES.index(name)]
            found += [(column - (now + within), 0.0), ((now - within) - column, 0.0)]
        return found


def _paired(base: list[str], new: list[str], grams: list[float]) -> list[tuple[str, float]]:
    keys = [*base, *new]
    return list(zip(keys + [""] * (len(grams) - len(keys)), grams, strict=True))


def _one_line(bowl: _Bowl, give: float) -> Array | None:
    """One line alone, those first that are in the sauce and bring much of the taste, then what is reached for."""
    pull = bowl.table[:, TASTES.index(bowl.taste)] - bowl.wanted
    strong = 2.0 * bowl.before.of(bowl.taste)
    lacking = -float(pull @ bowl.grams)
    present = [
        n
        for n, key in enumerate(bowl.keys)
        if key not in bowl.new and bowl.table[n, TASTES.index(bowl.taste)] >= strong
    ]
    present.sort(key=lambda n: abs(lacking / pull[n]) if pull[n] else math.inf)
    for n in [*present, *(n for n, key in enumerate(bowl.keys) if key in bowl.new)]:
        if pull[n] == 0.0:
            continue
        after = bowl.grams.copy()
        after[n] += lacking / pull[n]
        if not bowl.least[n] - 1e-9 <= after[n] <= bowl.most[n] + 1e-9:
            continue
        if all(float(row @ after) <= edge + 1e-9 for row, edge in bowl.held(give)):
            return after
    return None


def _least(bowl: _Bowl, give: float) -> Array | None:
    """The fewest grams over all lines, or None. Unknowns: what is added to each, then what is taken away."""
    from scipy.optimize import linprog

    n = len(bowl.keys)
    pull = bowl.table[:, TASTES.index(bowl.taste)] - bowl.wanted
    held = bowl.held(give)
    cost = np.array([NEW_COSTS if key in bowl.new else 1.0 for key in bowl.keys])
    # All that is added together, too, is no more than a quarter of the sauce.
    rows = [np.concatenate([row, -row]) for row, _ in held] + [np.concatenate([np.ones(n), np.zeros(n)])]
    limits = [edge - float(row @ bowl.grams) for row, edge in held] + [MOST_ADDED * float(np.sum(bowl.grams))]
    answer = linprog(
        np.concatenate([cost, np.ones(n)]),
        A_ub=np.array(rows),
        b_ub=np.array(limits),
        A_eq=np.concatenate([pull, -pull])[None, :],
        b_eq=np.array([-float(pull @ bowl.grams)]),
        bounds=[(0.0, float(m)) for m in (*(bowl.most - bowl.grams), *(bowl.grams - bowl.least))],
        method="highs",
    )
    if answer.status != 0:
        return None
    return np.asarray(np.maximum(0.0, bowl.grams + answer.x[:n] - answer.x[n:]))


def _told(handle: Handle, bowl: _Bowl, after_g: Array, present: Mapping[str, float]) -> Nudge:
    after_taste = _mixed(bowl, after_g)
    moved = tuple(
        NudgedLine(
            key, present.get(key, 0.0), present.get(key, 0.0) + float(now - was), float(now - was), key not in present
        )
        for key, was, now in zip(bowl.keys, bowl.grams, after_g, strict=True)
        if key and abs(now - was) >= DUST_FRAC * float(np.sum(bowl.grams))
    )
    gave = tuple(
        name
        for name, (least, frac) in HELD.items()
        if name != HANDLES[handle].taste
        and abs(after_taste.of(name) - bowl.before.of(name)) > max(least, frac * bowl.before.of(name)) * (1 + 1e-6)
    )
    return Nudge(handle, moved, bowl.before, after_taste, gave)


def _mixed(bowl: _Bowl, after_g: Array) -> Taste:
    sums = after_g @ bowl.table / float(np.sum(after_g))
    return Taste.of_sums([float(v) for v in sums], unsure=bowl.before.unsure)
