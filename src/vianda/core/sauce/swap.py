"""What cannot be had: its nearest in the pantry at equal effect, with what has to be added to match it.

Only what cooks put in its place is tried (``data/families.toml``): figures alone would make mayonnaise of capers. Each
is dosed together with plain salt, sugar, vinegar and water so that the sauce's tastes are missed by as little as
possible: least squares over grams that are not negative.
"""

from __future__ import annotations

import math
import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

import numpy as np

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.inventory.pantry import Pantry, ingredient_of
from vianda.core.sauce.nudge import HELD
from vianda.core.sauce.tastes import TASTES, Taste, TasteName, taste_of, tastes_of

# Plain things that set right what the candidate brings too little of.
HELPERS = ("salt-fine", "sugar", "vinegar", "water")
# The sauce is watched in these, each by what a tongue would miss of it; water by what a spoon would. Ours.
WATCHED: Mapping[TasteName, tuple[float, float]] = {**HELD, "water": (2.0, 0.03)}
# Each helper is one more thing to weigh. Ours.
EACH_HELPER, MOST_OFFERED = 0.15, 3
# Less of the candidate than this share of what it replaces is no replacement by it.
LEAST_FRAC, LEAST_G, MOST_FRAC, LEAST_SAUCE_G = 0.15, 0.05, 4.0, 1.0


@cache
def families() -> tuple[frozenset[str], ...]:
    """Groups of things that stand in for each other.

    Returns
    -------
    tuple[frozenset[str], ...]
        Keys of the pantry.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> any({"ketchup", "tomato-paste"} <= family for family in families())
    True
    """
    text = (files("vianda.core.sauce") / "data" / "families.toml").read_text(encoding="utf-8")
    return tuple(frozenset(row.split()) for row in tomllib.loads(text).values())


@dataclass(frozen=True, slots=True)
class Swapped:
    """One replacement: what takes the place with its helpers, g, the sauce after it, and how far it is off.

    ``added`` pairs keys with grams, the replacement first. ``missed`` names tastes a tongue would miss, ``miss`` is how
    many times over, at most, what goes unnoticed.
    """

    ingredient: str
    added: tuple[tuple[str, float], ...]
    after: Taste
    missed: tuple[TasteName, ...]
    miss: float


def swaps_for(lines: Sequence[tuple[str, float]], ingredient: str, *, pantry: Pantry) -> tuple[Swapped, ...]:
    """What can take an ingredient's place in a sauce, the nearest first.

    Parameters
    ----------
    lines : Sequence[tuple[str, float]]
        Ingredient and grams, each ingredient once.
    ingredient : str
        What cannot be had; one of the lines.
    pantry : Pantry
        Ingredients by key, house formulas worked out.

    Returns
    -------
    tuple[Swapped, ...]
        At most three; none when nothing comes near.

    Raises
    ------
    UnknownItemError
        When it is not in the sauce.
    OutOfRangeError
        When there is less than a gram of sauce.

    References
    ----------
    Non-negative least squares (Lawson and Hanson, by SciPy); weights: ours.

    Examples
    --------
    >>> from vianda.core.inventory.pantry import starter_pantry
    >>> sauce = [("mayonnaise", 150.0), ("cider-vinegar", 10.0)]
    >>> swaps_for(sauce, "cider-vinegar", pantry=starter_pantry())[0].ingredient
    'vinegar'
    """
    present = dict(lines)
    if ingredient not in present:
        raise UnknownItemError(f"There is no {ingredient} in this sauce.", field="/ingredient")
    if math.fsum(present.values()) < LEAST_SAUCE_G:
        raise OutOfRangeError(f"A sauce weighs {LEAST_SAUCE_G:g} g or more.", field="/lines")
    kin = frozenset[str]().union(*(family for family in families() if ingredient in family))
    rest = [(key, grams) for key, grams in present.items() if key != ingredient]
    before = taste_of(list(present.items()), pantry=pantry)
    # Two vinegars for one lemon are no help: of its own kind the replacement stands alone.
    helpers = tuple(h for h in HELPERS if h in pantry and (h == "water" or h not in kin) and h != ingredient)
    tried = (
        _with(key, helpers, rest, present[ingredient], before, pantry)
        for key in sorted(kin - set(present))
        if key in pantry and not pantry[key].retired
    )
    found = [s for s in tried if s is not None]
    found.sort(key=lambda s: s.miss + EACH_HELPER * (len(s.added) - 1))
    return tuple(found[:MOST_OFFERED])


def _with(
    key: str, helpers: tuple[str, ...], rest: list[tuple[str, float]], grams: float, before: Taste, pantry: Pantry
) -> Swapped | None:
    """The best dose of one candidate and its helpers, or None where it hardly takes part."""
    from scipy.optimize import nnls

    keys = [key, *(h for h in helpers if h != key)]
    at = [TASTES.index(name) for name in WATCHED]
    table = np.array([[tastes_of(pantry[k], pantry=pantry)[n] for n in at] for k in keys])
    had = np.array([[tastes_of(ingredient_of(pantry, k), pantry=pantry)[n] for n in at] for k, _ in rest])
    held = np.array([g for _, g in rest])
    whole = math.fsum(held) + grams
    wanted = np.array([before.of(name) for name in WATCHED])
    noticed = np.array([max(least, frac * before.of(name)) for name, (least, frac) in WATCHED.items()])
    lacking = whole * wanted - (held @ had if len(rest) else 0.0)
    # The mass is kept as well, or a share would be matched by another amount of sauce.
    rows = np.vstack([table.T / noticed[:, None] / whole, np.full((1, len(keys)), 50.0 / whole)])
    aims = np.concatenate([lacking / noticed / whole, [50.0 * grams / whole]])
    dose, _ = nnls(rows, aims)
    if not LEAST_FRAC * grams <= dose[0] <= MOST_FRAC * grams:
        return None
    added = tuple((k, float(g)) for k, g in zip(keys, dose, strict=True) if g >= LEAST_G)
    after = taste_of([*rest, *added], pantry=pantry)
    off = {name: abs(after.of(name) - before.of(name)) / n for name, n in zip(WATCHED, noticed, strict=True)}
    return Swapped(key, added, after, tuple(n for n, v in off.items() if v > 1.0 + 1e-6), max(off.values()))
