"""When orders come, and how many portions each is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
from annotated_types import Interval


@dataclass(frozen=True, slots=True)
class Orders:
    """Orders of one service as they are expected.

    ``per_hour`` orders come outside the rush and ``rush_factor`` times as many in it, ``rush_from_min`` after opening,
    for ``rush_min``. One order has ``portions`` on average, one at least. ``wait_min`` is what nine of ten guests
    should wait at most.
    """

    per_hour: Annotated[float, Interval(gt=0, le=600)]
    portions: Annotated[float, Interval(ge=1, le=20)]
    open_min: Annotated[float, Interval(ge=15, le=720)]
    rush_factor: Annotated[float, Interval(ge=1, le=10)]
    rush_from_min: Annotated[float, Interval(ge=0, le=720)]
    rush_min: Annotated[float, Interval(ge=0, le=720)]
    wait_min: Annotated[float, Interval(ge=1, le=240)]

    @property
    def rush_ends_min(self) -> float:
        """When the rush is over, min after opening; never after closing."""
        return min(self.open_min, self.rush_from_min + self.rush_min)

    def expected(self) -> float:
        """Orders expected in the whole service.

        Returns
        -------
        float
            Orders (count, not whole).

        Examples
        --------
        >>> Orders(40, 2, 120, 3, 30, 30, 15).expected()
        120.0
        """
        rush = max(0.0, self.rush_ends_min - self.rush_from_min)
        return self.per_hour / 60.0 * (self.open_min - rush + self.rush_factor * rush)


def drawn(orders: Orders, rng: np.random.Generator) -> list[tuple[float, int]]:
    """The orders of one service: minute after opening, and portions.

    Parameters
    ----------
    orders : Orders
        What is expected.
    rng : numpy.random.Generator
        Where chance comes from.

    Returns
    -------
    list[tuple[float, int]]
        In the order in which they come.

    References
    ----------
    A Poisson process of steps: numbers by the Poisson distribution, minutes uniform within a step. Portions: one and a
    Poisson number more. Common practice in queueing; that guests come independently is ours.
    """
    rush_from = min(orders.rush_from_min, orders.open_min)
    rush_to = max(rush_from, orders.rush_ends_min)
    found: list[float] = []
    for begins, ends, factor in (
        (0.0, rush_from, 1.0),
        (rush_from, rush_to, orders.rush_factor),
        (rush_to, orders.open_min, 1.0),
    ):
        count = rng.poisson(orders.per_hour / 60.0 * factor * (ends - begins))
        found += list(rng.uniform(begins, ends, count))
    more = rng.poisson(orders.portions - 1.0, len(found))
    return [(float(at), 1 + int(n)) for at, n in zip(sorted(found), more, strict=True)]
