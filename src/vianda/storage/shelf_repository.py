"""The shelf as it is looked through: a narrow line a formula, and what each came to when it was last worked out."""

from __future__ import annotations

import json
from collections.abc import Collection, Iterable
from dataclasses import dataclass
from datetime import datetime
from functools import reduce
from operator import and_
from typing import Any, Literal

from peewee import JOIN, fn

from vianda.storage.folded import folded
from vianda.storage.here import kitchen_here
from vianda.storage.tables import CookLineRow, FormulaRow, ShelfFigureRow

Sort = Literal["touched", "name", "newest"]


@dataclass(frozen=True, slots=True)
class ShelfQuery:
    """What is looked for; what is empty asks for nothing. ``archived``: those that were put away, and only they."""

    text: str = ""
    dish: str = ""
    archived: bool = False
    sort: Sort = "touched"


@dataclass(frozen=True, slots=True)
class ShelfLine:
    """A formula without its document. ``stamp``: what ``comes_to`` and ``problem`` were worked out of ("": nothing)."""

    id: int
    name: str
    dish: str
    style: str
    revision: int
    updated_at: datetime
    stamp: str
    comes_to: Any
    problem: str


@dataclass(frozen=True, slots=True)
class Cooked:
    """How often a formula was cooked, and when last, UTC."""

    times: int
    last: datetime


def find_lines(query: ShelfQuery, *, before: int | None, most: int) -> list[ShelfLine]:
    """So many formulas in the order asked for, after the one of that number."""
    columns = (
        FormulaRow.id, FormulaRow.name, FormulaRow.dish, FormulaRow.style, FormulaRow.revision, FormulaRow.updated_at,
        ShelfFigureRow.stamp, ShelfFigureRow.comes_to, ShelfFigureRow.problem,
    )  # fmt: skip
    rows = (
        FormulaRow.select(*columns)
        .join(ShelfFigureRow, JOIN.LEFT_OUTER, on=(ShelfFigureRow.formula_id == FormulaRow.id))
        .where(_where(query))
    )
    if before is not None:
        last = FormulaRow.get_or_none((FormulaRow.id == before) & (FormulaRow.kitchen_id == kitchen_here()))
        if last is not None:
            rows = rows.where(_after(query.sort, last))
    found: list[Any] = list(rows.order_by(*_ORDERS[query.sort]).limit(most).tuples())
    return [_line(row) for row in found]


_ORDERS: dict[Sort, tuple[Any, ...]] = {
    "touched": (FormulaRow.updated_at.desc(), FormulaRow.id.desc()),
    "name": (FormulaRow.name, FormulaRow.id),
    "newest": (FormulaRow.id.desc(),),
}


def _after(sort: Sort, last: FormulaRow) -> Any:
    if sort == "newest":
        return FormulaRow.id < last.id
    if sort == "name":
        return (FormulaRow.name > last.name) | ((FormulaRow.name == last.name) & (FormulaRow.id > last.id))
    touched = FormulaRow.updated_at
    return (touched < last.updated_at) | ((touched == last.updated_at) & (FormulaRow.id < last.id))


def count_lines(query: ShelfQuery) -> int:
    """How many formulas there are of it."""
    return int(FormulaRow.select().where(_where(query)).count())


def dishes_here() -> list[str]:
    """Kinds of dish that stand on the shelf."""
    rows = FormulaRow.select(FormulaRow.dish).where(_where(ShelfQuery())).distinct()
    return sorted(row.dish for row in rows)


def names_here() -> list[ShelfLine]:
    """Every formula that stands on the shelf by its name and style alone, the one touched last first."""
    columns = (
        FormulaRow.id, FormulaRow.name, FormulaRow.dish, FormulaRow.style, FormulaRow.revision, FormulaRow.updated_at,
    )  # fmt: skip
    rows = FormulaRow.select(*columns).where(_where(ShelfQuery())).order_by(*_ORDERS["touched"])
    found: list[Any] = list(rows.tuples())
    return [_line((*row, None, None, None)) for row in found]


def cooked_of(formula_ids: Collection[int]) -> dict[int, Cooked]:
    """How often and when last, of those that were ever cooked."""
    if not formula_ids:
        return {}
    last = fn.MAX(CookLineRow.started_at)
    rows = (
        CookLineRow.select(CookLineRow.formula_id, fn.COUNT(CookLineRow.cook_id), last)
        .where((CookLineRow.kitchen_id == kitchen_here()) & CookLineRow.formula_id.in_(sorted(formula_ids)))
        .group_by(CookLineRow.formula_id)
    )
    found: list[Any] = list(rows.tuples())
    return {formula_id: Cooked(times, when) for formula_id, times, when in found}


def keep_figures(found: Iterable[tuple[int, str, Any, str]]) -> None:
    """Keep what formulas came to: number, stamp, figures (None: nothing) and why nothing."""
    rows = [
        {"formula_id": formula_id, "stamp": stamp, "comes_to": json.dumps(comes_to), "problem": problem}
        # In one order: two pages that are worked out at once wait for one another.
        for formula_id, stamp, comes_to, problem in sorted(found, key=lambda one: one[0])
    ]
    if rows:
        columns = [ShelfFigureRow.stamp, ShelfFigureRow.comes_to, ShelfFigureRow.problem]
        ShelfFigureRow.insert_many(rows).on_conflict(preserve=columns).execute()


def _where(query: ShelfQuery) -> Any:
    parts = [FormulaRow.kitchen_id == kitchen_here(), FormulaRow.deleted == query.archived]
    parts += [fn.LOCATE(word.encode(), FormulaRow.words) > 0 for word in folded(query.text).split()]
    if query.dish:
        parts.append(FormulaRow.dish == query.dish)
    return reduce(and_, parts)


def _line(row: tuple[Any, ...]) -> ShelfLine:
    number, name, dish, style, revision, updated_at, stamp, comes_to, problem = row
    figures = json.loads(comes_to) if comes_to else None
    return ShelfLine(number, name, dish, style, revision, updated_at, stamp or "", figures, problem or "")
