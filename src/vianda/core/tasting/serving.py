"""Serving orders and blind codes of a tasting, drawn from a seed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import permutations
from typing import Literal

import numpy as np

from vianda.core.basis.errors import OutOfRangeError

TastingKind = Literal["triangle", "paired", "ranking"]
# Two versions, or for a ranking up to five; tasters that can be served by hand. Ours.
FEWEST_RANKED, MOST_RANKED = 3, 5
FEWEST_TASTERS, MOST_TASTERS = 3, 60
# Three digits, none of which begins with 0: nobody reads a rank into them. Common practice of sensory tests.
FIRST_CODE, LAST_CODE = 100, 999
# Of two versions A and B three samples, one of them the odd one: each order as often as the others.
TRIANGLES = ("AAB", "ABA", "BAA", "ABB", "BAB", "BBA")


@dataclass(frozen=True, slots=True)
class Sample:
    """One sample in front of a taster: its blind code, and the version it is, 0 for the first."""

    code: int
    version: int


@dataclass(frozen=True, slots=True)
class Place:
    """What one taster gets, in the order in which it is eaten."""

    taster: int
    samples: tuple[Sample, ...]


def serving_plan(kind: TastingKind, *, versions: int, tasters: int, seed: int) -> tuple[Place, ...]:
    """Who gets what, in which order, under which codes.

    Parameters
    ----------
    kind : TastingKind
        Triangle and paired take 2 versions; a ranking 3 to 5.
    versions : int
        How many versions are tasted (count).
    tasters : int
        How many taste, 3 to 60 (count).
    seed : int
        Equal seeds give equal plans (no unit), from 0.

    Returns
    -------
    tuple[Place, ...]
        One a taster. Orders are used equally often, as far as the number of tasters divides; no code stands twice.

    Raises
    ------
    OutOfRangeError
        A number of versions or tasters that the test does not take.

    References
    ----------
    Orders of a triangle: ISO 4120, from memory. Orders of a ranking: Williams 1949, each version equally often in each
    place and after each other.

    Examples
    --------
    >>> plan = serving_plan("triangle", versions=2, tasters=6, seed=1)
    >>> sorted("".join("AB"[p.version] for p in place.samples) for place in plan)
    ['AAB', 'ABA', 'ABB', 'BAA', 'BAB', 'BBA']
    """
    least, most = (FEWEST_RANKED, MOST_RANKED) if kind == "ranking" else (2, 2)
    if not least <= versions <= most:
        span = f"{least} to {most}" if most > least else f"{least}"
        raise OutOfRangeError(f"This test takes {span} versions.", field="/versions")
    if not FEWEST_TASTERS <= tasters <= MOST_TASTERS:
        raise OutOfRangeError(f"A tasting has {FEWEST_TASTERS} to {MOST_TASTERS} tasters.", field="/tasters")
    rng = np.random.default_rng(seed)
    orders = _orders(kind, versions)
    # Whole rounds of all orders, each round shuffled: whoever does not come leaves it nearly balanced.
    rounds = -(-tasters // len(orders))
    served = [orders[n] for _ in range(rounds) for n in rng.permutation(len(orders))][:tasters]
    size = len(orders[0])
    codes = rng.permutation(np.arange(FIRST_CODE, LAST_CODE + 1))[: size * tasters].tolist()
    return tuple(
        Place(n + 1, tuple(Sample(codes[n * size + m], version) for m, version in enumerate(order)))
        for n, order in enumerate(served)
    )


def _orders(kind: TastingKind, versions: int) -> Sequence[tuple[int, ...]]:
    if kind == "triangle":
        return [tuple("AB".index(letter) for letter in order) for order in TRIANGLES]
    if kind == "paired":
        return [(0, 1), (1, 0)]
    if versions == FEWEST_RANKED:
        return list(permutations(range(versions)))
    return williams(versions)


def williams(versions: int) -> list[tuple[int, ...]]:
    """Orders in which every version stands equally often in each place, and equally often after each other.

    Parameters
    ----------
    versions : int
        How many, 2 or more (count).

    Returns
    -------
    list[tuple[int, ...]]
        As many orders as versions where that is even, else twice as many.

    References
    ----------
    Williams 1949: the first row 0, 1, n−1, 2, n−2 …, each next one a version on; mirrored as well where n is odd.

    Examples
    --------
    >>> williams(4)
    [(0, 1, 3, 2), (1, 2, 0, 3), (2, 3, 1, 0), (3, 0, 2, 1)]
    """
    first = [0]
    low, high = 1, versions - 1
    while len(first) < versions:
        first.append(low)
        low += 1
        if len(first) < versions:
            first.append(high)
            high -= 1
    rows = [tuple((x + step) % versions for x in first) for step in range(versions)]
    return rows if versions % 2 == 0 else [*rows, *(row[::-1] for row in rows)]
