"""When to make what, and how much at once: as little setting up and as little waste as keeping allows."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.schedule.model import UnsettledError

# A minute beyond a day's limit counts as so many: it is done only where nothing else helps.
OVER_COUNTS = 1000.0
# The search ends at this gap, or after so many nodes: the same on every machine.
GAP_FRAC, MOST_NODES = 0.001, 4000
MOST_ITEMS, MOST_DAYS = 400, 64
# Amounts below this are dust of the solver.
DUST = 1e-6


@dataclass(frozen=True, slots=True)
class LotItem:
    """One thing that is made ahead, day by day from the first.

    ``demands`` is what each day takes. ``set_up`` is what making it on a day costs, whatever the amount; ``hold`` what
    a unit costs for each day that it is kept. It ``keeps`` so many days after it was made, and is ready ``lead`` days
    after. ``batch`` above 0: made in whole batches of so much, each set up anew; ``spare`` is what a unit too many
    costs. ``unit`` is what a unit takes of a day's limit, beside the setting up.
    """

    demands: tuple[float, ...]
    set_up: tuple[float, ...]
    hold: float
    keeps: int
    lead: int = 0
    batch: float = 0.0
    spare: float = 0.0
    unit: float = 0.0

    def __post_init__(self) -> None:
        if len(self.demands) != len(self.set_up) or not 1 <= len(self.demands) <= MOST_DAYS:
            raise OutOfRangeError(f"A plan has 1 to {MOST_DAYS} days, and a demand for each.", field="/demands")
        numbers = (*self.demands, *self.set_up, self.hold, self.batch, self.spare, self.unit, self.keeps, self.lead)
        if any(not math.isfinite(x) or x < 0 for x in numbers):
            raise OutOfRangeError("Amounts, costs and days of a plan are zero or more.", field="/demands")


@dataclass(frozen=True, slots=True)
class Making:
    """One item made on one day: how much, in how many batches (1 without batches), and for which days how much of it.

    ``late``: it should have been begun before the first day.
    """

    item: int
    day: int
    amount: float
    batches: int
    for_days: tuple[tuple[int, float], ...]
    late: bool = False


@dataclass(frozen=True, slots=True)
class LotPlan:
    """What is made when. ``cost`` is set-ups, keeping and spare; ``over`` what each day has beyond its limit."""

    makings: tuple[Making, ...]
    cost: float
    over: tuple[float, ...]


def lot_sizes(items: Sequence[LotItem], *, limits: Sequence[float] | None = None) -> LotPlan:
    """When to make what, so that every demand is met from what still keeps.

    minimise Σ set-up · batches + hold · days kept · amount + spare · amount too many, with
    amount for a day ≤ demand · made, and in whole batches amount ≤ batch · batches.

    Parameters
    ----------
    items : Sequence[LotItem]
        What is made, all over the same days.
    limits : Sequence[float] | None, default None
        What setting up and making may take on each day, in the units of ``set_up``; None: no limit.

    Returns
    -------
    LotPlan
        In the order of days and items. A demand that comes sooner than the item can be ready is made on the first day,
        and told as late.

    Raises
    ------
    OutOfRangeError
        For too many items, or items over different days.
    UnsettledError
        When the search ends before there is a plan.

    References
    ----------
    Lot sizing as a mixed-integer programme with the tight link between lots and demands (Krarup and Bilde, 1977, from
    memory), solved by HiGHS. Without a limit each item is a case of Wagner and Whitin (1958) with a shelf life.

    Examples
    --------
    Two demands a day apart are made at once where it keeps a day, and not where it does not.

    >>> kept = LotItem((2.0, 1.0), (10.0, 10.0), hold=1.0, keeps=1)
    >>> [(m.day, m.amount) for m in lot_sizes([kept]).makings]
    [(0, 3.0)]
    >>> fresh = LotItem((2.0, 1.0), (10.0, 10.0), hold=1.0, keeps=0)
    >>> [(m.day, m.amount) for m in lot_sizes([fresh]).makings]
    [(0, 2.0), (1, 1.0)]
    """
    if len(items) > MOST_ITEMS:
        raise OutOfRangeError(f"At most {MOST_ITEMS} things are planned at once.", field="/items")
    if not items:
        return LotPlan((), 0.0, ())
    days = len(items[0].demands)
    if any(len(x.demands) != days for x in items):
        raise OutOfRangeError("All things are planned over the same days.", field="/items")
    if limits is not None:
        if len(limits) != days or any(not x >= 0.0 for x in limits):
            raise OutOfRangeError("Each day has a limit of zero or more.", field="/limits")
        return _Programme(list(enumerate(items)), days, limits).solved()
    # Nothing binds them together: each on its own is quicker by far.
    plans = [_Programme([(n, item)], days, None).solved() for n, item in enumerate(items) if any(item.demands)]
    makings = sorted((m for p in plans for m in p.makings), key=lambda m: (m.day, m.item))
    return LotPlan(tuple(makings), math.fsum(p.cost for p in plans), (0.0,) * days)


class _Programme:
    """Items in the solver's words: columns are the shares of demands, then batches of lots, then minutes over."""

    def __init__(self, items: Sequence[tuple[int, LotItem]], days: int, limits: Sequence[float] | None) -> None:
        self.items, self.days, self.limits = items, days, limits
        # Item (its place), the day on which it is made, the day that it is for.
        self.shares: list[tuple[int, int, int]] = []
        self.lots: list[tuple[int, int]] = []
        for n, (_, item) in enumerate(items):
            wanted = [d for d, amount in enumerate(item.demands) if amount > 0.0]
            # Where nothing else binds, it is made on the last day that serves a demand, or on the first there is.
            free = limits is None and len(set(item.set_up)) == 1
            choice: Sequence[int] = sorted({max(0, d - item.lead) for d in wanted}) if free else range(days)
            made = set()
            for d in wanted:
                for t in self._days_for(item, d, choice):
                    self.shares.append((n, t, d))
                    made.add(t)
            self.lots += [(n, t) for t in sorted(made)]

    @staticmethod
    def _days_for(item: LotItem, day: int, choice: Sequence[int]) -> list[int]:
        ready = day - item.lead
        if ready < 0:
            return [0]
        return [t for t in choice if ready - item.keeps <= t <= ready]

    def solved(self) -> LotPlan:
        from scipy.optimize import Bounds, LinearConstraint, milp

        if not self.shares:
            return LotPlan((), 0.0, (0.0,) * self.days)
        n, m = len(self.shares), len(self.lots)
        width = n + m + (self.days if self.limits is not None else 0)
        done = milp(
            self._costs(width),
            constraints=[LinearConstraint(rows, low, high) for rows, low, high in self._rows(width)],
            bounds=Bounds(np.zeros(width), np.full(width, np.inf)),
            integrality=np.array([0] * n + [1] * m + [0] * (width - n - m)),
            options={"mip_rel_gap": GAP_FRAC, "node_limit": MOST_NODES},
        )
        if done.x is None:
            raise UnsettledError("No plan was found in the time given: choose fewer days, or more hands a day.")
        return self._read(np.asarray(done.x))

    def _costs(self, width: int) -> np.ndarray:
        costs = np.zeros(width)
        for i, (n, t, d) in enumerate(self.shares):
            item = self.items[n][1]
            kept = max(0, d - item.lead - t)
            # What is used is no spare: batches count whole below, and this is taken off.
            costs[i] = (item.hold * kept - (item.spare if item.batch else 0.0)) * item.demands[d]
        for i, (n, t) in enumerate(self.lots, start=len(self.shares)):
            item = self.items[n][1]
            costs[i] = item.set_up[t] + item.spare * item.batch
        costs[len(self.shares) + len(self.lots) :] = OVER_COUNTS
        return costs

    def _rows(self, width: int) -> list[tuple[object, np.ndarray, np.ndarray]]:
        at = {lot: len(self.shares) + i for i, lot in enumerate(self.lots)}
        met: dict[tuple[int, int], list[tuple[int, float]]] = {}
        linked: list[list[tuple[int, float]]] = []
        held: dict[tuple[int, int], list[tuple[int, float]]] = {}
        day: list[list[tuple[int, float]]] = [[] for _ in range(self.days)]
        for i, (n, t, d) in enumerate(self.shares):
            item = self.items[n][1]
            met.setdefault((n, d), []).append((i, 1.0))
            linked.append([(i, 1.0), (at[n, t], -1.0)])
            if item.batch:
                held.setdefault((n, t), []).append((i, item.demands[d]))
            # What whole batches take counts whole, with the batch.
            day[t].append((i, 0.0 if item.batch else item.unit * item.demands[d]))
        for (n, t), row in held.items():
            row.append((at[n, t], -self.items[n][1].batch))
        rows = [(_sparse(list(met.values()), width), np.ones(len(met)), np.ones(len(met)))]
        for each in (linked, list(held.values())):
            if each:
                rows.append((_sparse(each, width), np.full(len(each), -np.inf), np.zeros(len(each))))
        if self.limits is not None:
            for (n, t), i in at.items():
                item = self.items[n][1]
                day[t].append((i, item.set_up[t] + item.unit * item.batch))
            over = len(self.shares) + len(self.lots)
            most = [[*row, (over + t, -1.0)] for t, row in enumerate(day)]
            rows.append((_sparse(most, width), np.full(self.days, -np.inf), np.asarray(self.limits, dtype=float)))
        return rows

    def _read(self, x: np.ndarray) -> LotPlan:
        found: dict[tuple[int, int], dict[int, float]] = {}
        for i, (n, t, d) in enumerate(self.shares):
            amount = float(x[i]) * self.items[n][1].demands[d]
            if amount > DUST:
                found.setdefault((n, t), {})[d] = round(amount, 6)
        makings = []
        cost = []
        over = np.zeros(self.days)
        for (n, t), days in sorted(found.items(), key=lambda x: (x[0][1], x[0][0])):
            number, item = self.items[n]
            used = math.fsum(days.values())
            batches = max(1, math.ceil(used / item.batch - DUST)) if item.batch else 1
            made = batches * item.batch if item.batch else used
            late = any(d - item.lead < 0 for d in days)
            makings.append(Making(number, t, made, batches, tuple(sorted(days.items())), late))
            kept = math.fsum(item.hold * max(0, d - item.lead - t) * amount for d, amount in days.items())
            cost.append(item.set_up[t] * batches + kept + item.spare * (made - used))
            over[t] += item.set_up[t] * batches + item.unit * made
        most = self.limits if self.limits is not None else [math.inf] * self.days
        beyond = tuple(max(0.0, float(o) - limit) for o, limit in zip(over, most, strict=True))
        return LotPlan(tuple(makings), math.fsum(cost), beyond)


def _sparse(rows: Sequence[Sequence[tuple[int, float]]], width: int) -> object:
    from scipy.sparse import csr_array

    places = [(n, i) for n, row in enumerate(rows) for i, _ in row]
    values = [value for row in rows for _, value in row]
    return csr_array((values, ([n for n, _ in places], [i for _, i in places])), shape=(len(rows), width))
