"""The logbook as it is looked through: a narrow line a cook, and which lots each cook held; each kitchen's own."""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import reduce
from operator import and_
from typing import Any, Literal

from peewee import fn

from vianda.core.cook.scores import nearness
from vianda.storage.folded import folded
from vianda.storage.here import kitchen_here
from vianda.storage.records import StoredCook
from vianda.storage.tables import CookLineRow, CookLotRow, CookRow

LogSort = Literal["newest", "best", "worst"]
REMARK_LETTERS = 200
MOST_LOTS = 200
CHUNK = 1000


@dataclass(frozen=True, slots=True)
class LogLine:
    """One cook in the logbook; ``score`` is how near its scores lie to what is wanted, 1 to 5, None for none."""

    cook_id: int
    formula_id: int
    formula_name: str
    dish: str
    started_at: datetime
    finished_at: datetime | None
    pieces: int
    piece_mass_g: float
    batch_mass_g: float
    fat_frac: float
    score: float | None
    remark: str


@dataclass(frozen=True, slots=True)
class HeldLot:
    """A lot that went into a cook: how much, g, and its day ("" where none was known)."""

    lot: str
    name: str
    meat: str
    mass_g: float
    use_by: str


@dataclass(frozen=True, slots=True)
class LogQuery:
    """What is looked for; what is empty or None asks for nothing. Times are UTC, ``until`` not counted.

    In the order of how near they came to what is wanted, only cooks that were scored are looked at.
    """

    text: str = ""
    dish: str = ""
    formula_id: int | None = None
    since: datetime | None = None
    until: datetime | None = None
    least_score: float | None = None
    lot: str = ""
    sort: LogSort = "newest"


def index_cook(cook: StoredCook, held: Sequence[HeldLot]) -> None:
    """Write a cook's line and its lots, in place of what stood there."""
    portions, blend, outcome = cook.plan["portions"], cook.plan["blend"], cook.outcome or {}
    CookLineRow.replace(
        cook_id=cook.id,
        kitchen_id=kitchen_here(),
        formula_id=cook.formula_id,
        formula_name=cook.formula_name,
        dish=cook.formula.dish.dish,
        started_at=cook.started_at,
        finished_at=cook.finished_at,
        pieces=portions["pieces"],
        piece_mass_g=portions["piece_mass_g"],
        batch_mass_g=portions["batch_mass_g"],
        fat_frac=blend["fat_frac"],
        score=nearness(outcome),
        remark=(outcome.get("next_time") or outcome.get("note") or "")[:REMARK_LETTERS],
        words=folded(" ".join(_words(cook, outcome, held))),
    ).execute()
    for one in held:
        CookLotRow.replace(
            cook_id=cook.id,
            kitchen_id=kitchen_here(),
            lot=one.lot,
            name=one.name,
            meat=one.meat,
            mass_g=one.mass_g,
            use_by=one.use_by,
        ).execute()


def _words(cook: StoredCook, outcome: dict[str, Any], held: Iterable[HeldLot]) -> Iterable[str]:
    yield cook.formula_name
    yield outcome.get("note", "")
    yield outcome.get("next_time", "")
    yield from (one.name for one in held)
    yield from (part["name"] for part in cook.plan["blend"]["parts"])


def find_lines(query: LogQuery, *, before: int | None, most: int) -> list[LogLine]:
    """So many cooks in the order asked for, after the one of that number."""
    rows = CookLineRow.select().where(_where(query))
    if before is not None:
        last = CookLineRow.get_or_none((CookLineRow.cook_id == before) & (CookLineRow.kitchen_id == kitchen_here()))
        if last is not None:
            rows = rows.where(_after(query.sort, last))
    newest = (CookLineRow.started_at.desc(), CookLineRow.cook_id.desc())
    score = CookLineRow.score
    first = {"newest": (), "best": (score.desc(),), "worst": (score.asc(),)}[query.sort]
    return [_line(row) for row in rows.order_by(*first, *newest).limit(most)]


def _after(sort: LogSort, last: CookLineRow) -> Any:
    started, score = CookLineRow.started_at, CookLineRow.score
    older = (started < last.started_at) | ((started == last.started_at) & (CookLineRow.cook_id < last.cook_id))
    if sort == "newest" or last.score is None:
        return older
    return ((score < last.score) if sort == "best" else (score > last.score)) | ((score == last.score) & older)


def noted_of(cook_ids: Sequence[int]) -> dict[int, dict[str, Any]]:
    """What was noted of cooks, by number, with ``begun_by`` and ``noted_by``."""
    found: dict[int, dict[str, Any]] = {}
    for start in range(0, len(cook_ids), CHUNK):
        some = list(cook_ids[start : start + CHUNK])
        here = (CookRow.kitchen_id == kitchen_here()) & CookRow.id.in_(some)
        asked = CookRow.select(CookRow.id, CookRow.outcome, CookRow.begun_by, CookRow.noted_by).where(here)
        rows: list[Any] = list(asked.tuples())
        for cook_id, outcome, begun_by, noted_by in rows:
            found[cook_id] = {**json.loads(outcome or "{}"), "begun_by": begun_by, "noted_by": noted_by}
    return found


def count_lines(query: LogQuery) -> int:
    """How many cooks there are of it."""
    return int(CookLineRow.select().where(_where(query)).count())


def dishes_here() -> list[str]:
    """Kinds of dish that were cooked in this kitchen."""
    query = CookLineRow.select(CookLineRow.dish).where(CookLineRow.kitchen_id == kitchen_here()).distinct()
    return sorted(row.dish for row in query if row.dish)


def lots_here() -> list[tuple[str, str]]:
    """Lots that went into cooks of this kitchen, their keys and names, the newest first."""
    query = (
        CookLotRow.select(CookLotRow.lot, fn.MAX(CookLotRow.name).alias("name"))
        .where(CookLotRow.kitchen_id == kitchen_here())
        .group_by(CookLotRow.lot)
        .order_by(fn.MAX(CookLotRow.cook_id).desc())
        .limit(MOST_LOTS)
    )
    return [(row.lot, row.name) for row in query]


def lots_of(cook_id: int) -> list[HeldLot]:
    """What a cook held."""
    query = CookLotRow.select().where((CookLotRow.cook_id == cook_id) & (CookLotRow.kitchen_id == kitchen_here()))
    return [HeldLot(r.lot, r.name, r.meat, r.mass_g, r.use_by) for r in query.order_by(CookLotRow.lot)]


def cooks_with(lot: str) -> list[tuple[LogLine, float]]:
    """Every cook that held a lot, and how much of it, g; newest first."""
    held = CookLotRow.select().where((CookLotRow.kitchen_id == kitchen_here()) & (CookLotRow.lot == lot))
    mass_g = {row.cook_id: row.mass_g for row in held}
    if not mass_g:
        return []
    rows = CookLineRow.select().where(CookLineRow.cook_id.in_(list(mass_g)))
    newest = rows.order_by(CookLineRow.started_at.desc(), CookLineRow.cook_id.desc())
    return [(_line(row), mass_g[row.cook_id]) for row in newest]


def _where(query: LogQuery) -> Any:
    parts = [CookLineRow.kitchen_id == kitchen_here()]
    # Every word somewhere; a per cent sign that was typed is one. As bytes: both sides are folded, and it takes half.
    parts += [fn.LOCATE(word.encode(), CookLineRow.words) > 0 for word in folded(query.text).split()]
    if query.dish:
        parts.append(CookLineRow.dish == query.dish)
    if query.formula_id is not None:
        parts.append(CookLineRow.formula_id == query.formula_id)
    if query.since is not None:
        parts.append(CookLineRow.started_at >= query.since)
    if query.until is not None:
        parts.append(CookLineRow.started_at < query.until)
    if query.sort != "newest":
        parts.append(CookLineRow.score.is_null(False))
    if query.least_score is not None:
        parts.append(CookLineRow.score >= query.least_score)
    if query.lot:
        held = CookLotRow.select(CookLotRow.cook_id).where(
            (CookLotRow.kitchen_id == kitchen_here()) & (CookLotRow.lot == query.lot)
        )
        parts.append(CookLineRow.cook_id.in_(held))
    return reduce(and_, parts)


def _line(row: Any) -> LogLine:
    return LogLine(
        row.cook_id, row.formula_id, row.formula_name, row.dish, row.started_at, row.finished_at,
        row.pieces, row.piece_mass_g, row.batch_mass_g, row.fat_frac, row.score, row.remark,
    )  # fmt: skip
