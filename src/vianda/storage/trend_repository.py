"""Figures of cooks in the order in which they were cooked; each kitchen's own."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from functools import reduce
from operator import and_
from typing import Any

from vianda.storage.here import kitchen_here
from vianda.storage.tables import CookLineRow, ObservationRow

# A chart shows so many of the newest: more are a smear.
MOST_POINTS = 200


@dataclass(frozen=True, slots=True)
class Point:
    """One figure of one cook, and what was forecast of it."""

    cook_id: int
    formula_name: str
    started_at: datetime
    value: float
    low: float | None = None
    usual: float | None = None
    high: float | None = None


def scores(*, formula_id: int | None, dish: str) -> list[Point]:
    """How near the scores of each cook lie to what is wanted, of those that have some, the oldest first."""
    rows = CookLineRow.select().where(_of(formula_id, dish) & CookLineRow.score.is_null(False))
    newest = rows.order_by(CookLineRow.started_at.desc(), CookLineRow.cook_id.desc()).limit(MOST_POINTS)
    return [Point(r.cook_id, r.formula_name, r.started_at, float(r.score or 0.0)) for r in newest][::-1]


def observed(figure: str, *, formula_id: int | None, dish: str) -> list[Point]:
    """What was observed of a figure, the oldest first; of several readings of one cook the first."""
    columns = (
        CookLineRow.cook_id, CookLineRow.formula_name, CookLineRow.started_at, ObservationRow.observed,
        ObservationRow.low, ObservationRow.usual, ObservationRow.high,
    )  # fmt: skip
    rows = (
        ObservationRow.select(*columns)
        .join(CookLineRow, on=(CookLineRow.cook_id == ObservationRow.cook_id))
        .where(
            _of(formula_id, dish)
            & (ObservationRow.kitchen_id == kitchen_here())
            & (ObservationRow.figure == figure)
            & (ObservationRow.piece == 0)
        )
        .order_by(CookLineRow.started_at.desc(), CookLineRow.cook_id.desc())
        .limit(MOST_POINTS)
    )
    found: list[Any] = list(rows.tuples())
    return [Point(*row) for row in found][::-1]


def _of(formula_id: int | None, dish: str) -> Any:
    parts = [CookLineRow.kitchen_id == kitchen_here()]
    if formula_id is not None:
        parts.append(CookLineRow.formula_id == formula_id)
    if dish:
        parts.append(CookLineRow.dish == dish)
    return reduce(and_, parts)
