"""Which lot goes into which dish, so that every blend keeps its fat, at the least cost, the oldest first."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

import numpy as np

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.lot import Lot

# A blend may stray so far from its fat, of its mass: ours.
TOLERANCE_FRAC = 0.015
# A kilogram that must be used a day sooner counts so much less: far below any price, so that it only orders. Ours.
# One from another lot than was asked for counts more than that. Ours.
DAY_COUNTS, OTHER_COUNTS = 1e-4, 0.02
# What one goal reached may lose to the next, kg: the solver's own tolerance.
LOOSE_KG = 1e-7
MOST_BLENDS = 400
# Grams that are dust of the sums.
DUST_G = 0.05


@dataclass(frozen=True, slots=True)
class Portion:
    """So many grams of one meat in a blend; ``asked`` names the lot it was meant to be, "" for any."""

    meat: str
    mass_g: float
    asked: str = ""


@dataclass(frozen=True, slots=True)
class Blend:
    """One blend of one day: its meats, and the fat that it is to have, 0–1."""

    key: str
    name: str
    day: date
    portions: tuple[Portion, ...]
    fat_frac: float


@dataclass(frozen=True, slots=True)
class Share:
    """Grams of one lot, or bought ("" for the lot), in one portion of a blend, and the lot that it asked for."""

    blend: str
    meat: str
    lot: str
    mass_g: float
    asked: str = ""


@dataclass(frozen=True, slots=True)
class Short:
    """Grams of a meat that a blend goes without."""

    blend: str
    meat: str
    mass_g: float


@dataclass(frozen=True, slots=True)
class Worth:
    """What a kilogram more of a lot would save of what is bought, currency units."""

    lot: str
    per_kg: float


@dataclass(frozen=True, slots=True)
class Sharing:
    """Everything shared out: what goes where, who goes short, the fat each blend then has, and what binds.

    ``cost`` is of what is bought; ``fats`` holds the fat of each blend, 0–1, ``strays`` those that could not keep
    theirs, by how much.
    """

    shares: tuple[Share, ...]
    short: tuple[Short, ...]
    fats: Mapping[str, float]
    strays: Mapping[str, float]
    worths: tuple[Worth, ...]
    cost: float


def shared_out(blends: Iterable[Blend], *, inventory: Inventory, may_buy: bool = True) -> Sharing:
    """Share what lies in lots over the blends of a span.

    Parameters
    ----------
    blends : Iterable[Blend]
        What is made, each with its day.
    inventory : Inventory
        Lots with what is left of them, their fat and their days; prices of meats as bought.
    may_buy : bool, default True
        Whether what is lacking can still be bought; else somebody goes short.

    Returns
    -------
    Sharing
        Nobody goes short who need not; then blends keep their fat within 1.5 points where that can be done at all;
        then the least is spent; then what must be used first is used first.

    Raises
    ------
    OutOfRangeError
        For more blends than one span holds.

    References
    ----------
    Linear programmes, one goal after the other, solved by HiGHS; what a kilogram is worth is its shadow price.
    """
    made = sorted(blends, key=lambda b: (b.day, b.key))
    if len(made) > MOST_BLENDS:
        raise OutOfRangeError(f"At most {MOST_BLENDS} blends are shared out at once.", field="/blends")
    if not made:
        return Sharing((), (), {}, {}, (), 0.0)
    return _Programme(made, inventory, may_buy).solved()


class _Programme:
    """The blends in the solver's words: columns are grams of a lot, bought or lacking in each portion."""

    def __init__(self, blends: Sequence[Blend], inventory: Inventory, may_buy: bool) -> None:
        self.blends, self.inventory, self.may_buy = blends, inventory, may_buy
        self.lots = {k: x for k, x in sorted(inventory.lots.items()) if not x.closed and x.left_mass_g > 0.0}
        # Blend, portion, and the lot, "" for what is bought, None for what is lacking.
        self.columns: list[tuple[int, Portion, str | None]] = []
        # Columns of each portion, of each lot and of each blend.
        self.of_portion: list[list[int]] = []
        self.of_lot: dict[str, list[int]] = {key: [] for key in self.lots}
        self.of_blend: list[list[int]] = []
        for n, blend in enumerate(blends):
            first = len(self.columns)
            for portion in blend.portions:
                fit = [k for k, x in self.lots.items() if x.meat == portion.meat and _good(x, blend.day)]
                at = len(self.columns)
                self.columns += [(n, portion, key) for key in (*fit, "", None)]
                self.of_portion.append(list(range(at, len(self.columns))))
                for place, key in enumerate(fit):
                    self.of_lot[key].append(at + place)
            self.of_blend.append(list(range(first, len(self.columns))))

    def solved(self) -> Sharing:
        from scipy.optimize import linprog
        from scipy.sparse import csr_array, vstack

        n, blends = len(self.columns), len(self.blends)
        # Behind the kilograms, how far each blend strays above and below, kg of fat.
        width = n + 2 * blends
        equal, sums = self._needs(width)
        above, most = self._limits(width)
        bounds = [(0.0, 0.0 if key == "" and not self.may_buy else None) for _, _, key in self.columns]
        bounds += [(0.0, None)] * (2 * blends)
        lacking = np.array([key is None for _, _, key in self.columns] + [False] * (2 * blends), dtype=float)
        strays = np.array([False] * n + [True] * (2 * blends), dtype=float)
        for goal in (lacking, strays, self._costs(width)):
            done = linprog(goal, A_ub=above, b_ub=most, A_eq=equal, b_eq=sums, bounds=bounds, method="highs")
            assert done.success, done.message
            above, most = vstack([above, csr_array(goal.reshape(1, -1))]), np.append(most, done.fun + LOOSE_KG)
        return self._read(np.asarray(done.x) * 1000.0, np.asarray(done.ineqlin.marginals))

    def _needs(self, width: int) -> tuple[Any, np.ndarray]:
        portions = [portion for blend in self.blends for portion in blend.portions]
        rows = [[(i, 1.0) for i in at] for at in self.of_portion]
        return _sparse(rows, width), np.array([p.mass_g / 1000.0 for p in portions])

    def _limits(self, width: int) -> tuple[Any, np.ndarray]:
        """No more of a lot than there is; no more and no less fat than the blend may have."""
        rows = [[(i, 1.0) for i in at] for at in self.of_lot.values()]
        most = [lot.left_mass_g / 1000.0 for lot in self.lots.values()]
        n = len(self.columns)
        for b, blend in enumerate(self.blends):
            mass = sum(p.mass_g for p in blend.portions) / 1000.0
            off = [(i, self._fat(i) - blend.fat_frac) for i in self.of_blend[b] if self.columns[i][2] is not None]
            for sign, slack in ((1.0, n + 2 * b), (-1.0, n + 2 * b + 1)):
                rows.append([*((i, sign * fat) for i, fat in off), (slack, -1.0)])
                most.append(TOLERANCE_FRAC * mass)
        return _sparse(rows, width), np.array(most)

    def _costs(self, width: int) -> np.ndarray:
        """What is bought at its price; of what lies there, the sooner it must be used the less it counts."""
        costs = np.zeros(width)
        first = self.blends[0].day
        # What has no day keeps longer than all that has one.
        last = max([self.blends[-1].day, *(x.use_by for x in self.lots.values() if x.use_by)]) + timedelta(days=1)
        for i, (n, portion, key) in enumerate(self.columns):
            if key == "":
                costs[i] = float(self.inventory.meats[portion.meat].price_per_kg)
            elif key is not None:
                other = bool(portion.asked) and key != portion.asked
                # Of two days that could use it, the earlier does: a tenth, so that it only settles what is equal.
                days = ((self.lots[key].use_by or last) - first).days + 0.1 * (self.blends[n].day - first).days
                costs[i] = DAY_COUNTS * days + OTHER_COUNTS * other
        return costs

    def _fat(self, column: int) -> float:
        _, portion, lot = self.columns[column]
        return self.inventory.fat_of(portion.meat, lot or "").usual_frac

    def _read(self, x: np.ndarray, marginals: np.ndarray) -> Sharing:
        shares, short, used = [], [], dict.fromkeys(self.lots, 0.0)
        fat: dict[int, float] = {}
        mass: dict[int, float] = {}
        cost = 0.0
        for i, (b, portion, key) in enumerate(self.columns):
            # A milligram is dust of the solver.
            grams = round(float(x[i]), 3)
            if grams <= DUST_G:
                continue
            blend = self.blends[b]
            if key is None:
                short.append(Short(blend.key, portion.meat, grams))
                continue
            shares.append(Share(blend.key, portion.meat, key, grams, portion.asked))
            fat[b] = fat.get(b, 0.0) + grams * self._fat(i)
            mass[b] = mass.get(b, 0.0) + grams
            if key:
                used[key] += grams
            else:
                cost += float(self.inventory.meats[portion.meat].price_per_kg) / 1000.0 * grams
        fats = {self.blends[b].key: fat[b] / mass[b] for b in fat}
        strays = {
            blend.key: off
            for blend in self.blends
            if blend.key in fats and abs(off := fats[blend.key] - blend.fat_frac) > TOLERANCE_FRAC + 1e-6
        }
        worths = tuple(Worth(key, float(-marginals[i])) for i, key in enumerate(self.lots) if -marginals[i] > 0.005)
        return Sharing(tuple(shares), tuple(short), fats, strays, worths, cost)


def _sparse(rows: Sequence[Sequence[tuple[int, float]]], width: int) -> Any:
    from scipy.sparse import csr_array

    places = [(n, i) for n, row in enumerate(rows) for i, _ in row]
    values = [value for row in rows for _, value in row]
    return csr_array((values, ([n for n, _ in places], [i for _, i in places])), shape=(len(rows), width))


def _good(lot: Lot, day: date) -> bool:
    return lot.use_by is None or lot.use_by >= day
