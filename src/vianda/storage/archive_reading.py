"""A whole kitchen out of the database, item by item, as an archive holds it."""

from __future__ import annotations

import json
from collections import defaultdict
from collections.abc import Iterator, Sequence
from datetime import date, datetime
from typing import Any, cast

from vianda.core.inventory.lot import Lot
from vianda.core.inventory.pantry import Ingredient
from vianda.core.learning.figures import LearntFigure
from vianda.core.model.stocked import Stocked
from vianda.core.weighing.weighing_run import WeighingPlan
from vianda.interchange import archive_parts as ap
from vianda.interchange.archive_parts import utc
from vianda.interchange.kept_cook import OutcomeModel
from vianda.interchange.kinds import FORMULAS, SERVICES, STOCK, TASTINGS
from vianda.storage.here import kitchen_here
from vianda.storage.larder_repository import list_ingredients, list_lots
from vianda.storage.tables import (
    CookEventRow,
    CookLotRow,
    CookRow,
    FormulaRow,
    ObservationRow,
    PhotographRow,
    RunEventRow,
    RunRow,
    ServiceRow,
    StockedRow,
    TastingRow,
    TrainingAnswerRow,
    VersionRow,
    WeighingEventRow,
    WeighingRow,
)

# Rows read at once, so that neither thousands of cooks nor their plans are held.
CHUNK = 200


def _all(table: Any) -> Iterator[list[Any]]:
    """All rows of this kitchen in the order of their numbers, some at a time."""
    last = 0
    while True:
        here = (table.kitchen_id == kitchen_here()) & (table.id > last)
        rows = list(table.select().where(here).order_by(table.id).limit(CHUNK))
        if not rows:
            return
        yield rows
        last = rows[-1].id


def _by_owner(table: Any, owner: Any, rows: Sequence[Any], *order: Any) -> dict[int, list[Any]]:
    """What belongs to those rows, each with its own."""
    found: dict[int, list[Any]] = defaultdict(list)
    for one in table.select().where(owner.in_([row.id for row in rows])).order_by(*order):
        found[one.__data__[owner.name]].append(one)
    return found


def lots() -> Iterator[Lot]:
    """All lots."""
    return (stored.lot for stored in list_lots())


def pantry() -> Iterator[Ingredient]:
    """The pantry as it was written down."""
    return (stored.ingredient for stored in list_ingredients())


def stock() -> Iterator[Stocked]:
    """What is kept of things."""
    for rows in _all(StockedRow):
        yield from (STOCK.read(row.document) for row in rows)


def formulas() -> Iterator[ap.FormulaItem]:
    """All formulas with their versions, archived ones too."""
    for rows in _all(FormulaRow):
        versions = _by_owner(VersionRow, VersionRow.formula, rows, VersionRow.number)
        for row in rows:
            yield ap.FormulaItem(
                id=row.id,
                formula=FORMULAS.read(row.document),
                created_at=utc(row.created_at),
                updated_at=utc(row.updated_at),
                archived=bool(row.deleted),
                versions=[
                    ap.VersionItem(
                        number=v.number,
                        name=v.name,
                        created_at=utc(v.created_at),
                        formula=FORMULAS.read(v.document),
                        kept_by=v.kept_by,
                    )
                    for v in versions[row.id]
                ],
                changed_by=row.changed_by,
            )


def services() -> Iterator[ap.ServiceItem]:
    """All services, the oldest first."""
    for rows in _all(ServiceRow):
        yield from (
            ap.ServiceItem(id=row.id, service=SERVICES.read(row.document), changed_by=row.changed_by) for row in rows
        )


def cooks() -> Iterator[ap.CookItem]:
    """All cooks with what happened and what they held."""
    for rows in _all(CookRow):
        events = _by_owner(CookEventRow, CookEventRow.cook, rows, CookEventRow.at, CookEventRow.id)
        held = _by_owner(CookLotRow, CookLotRow.cook_id, rows, CookLotRow.lot)
        for row in rows:
            yield ap.CookItem(
                id=row.id,
                formula_id=row.__data__["formula"],
                formula=FORMULAS.read(row.document),
                plan=json.loads(row.plan),
                started_at=utc(row.started_at),
                finished_at=utc(row.finished_at) if row.finished_at else None,
                outcome=OutcomeModel.model_validate(json.loads(row.outcome)) if row.outcome else None,
                events=[
                    ap.CookEventItem(token=e.token, kind=e.kind, place=e.place, value=e.value, at=utc(e.at))
                    for e in events[row.id]
                ],
                lots=[
                    ap.HeldItem(lot=x.lot, name=x.name, meat=x.meat, mass_g=x.mass_g, use_by=x.use_by)
                    for x in held[row.id]
                ],
                begun_by=row.begun_by,
                noted_by=row.noted_by,
            )


def weighings() -> Iterator[ap.WeighingItem]:
    """All runs of check-weighing."""
    for rows in _all(WeighingRow):
        events = _by_owner(WeighingEventRow, WeighingEventRow.weighing, rows, WeighingEventRow.id)
        for row in rows:
            yield ap.WeighingItem(
                id=row.id,
                formula_id=row.__data__["formula"],
                formula_name=row.formula_name,
                plan=WeighingPlan(**json.loads(row.plan)),
                seed=row.seed,
                started_at=utc(row.started_at),
                finished_at=utc(row.finished_at) if row.finished_at else None,
                left_g=row.left_g,
                events=[
                    ap.WeighingEventItem(id=e.id, token=e.token, kind=e.kind, value=e.value, about=e.about, at_s=e.at_s)
                    for e in events[row.id]
                ],
                begun_by=row.begun_by,
            )


def tastings() -> Iterator[ap.TastingItem]:
    """All blind tastings."""
    for rows in _all(TastingRow):
        for row in rows:
            yield ap.TastingItem(
                formula_id=row.formula_id, created_at=utc(row.created_at), tasting=TASTINGS.read(row.document)
            )


def evenings() -> Iterator[ap.EveningItem]:
    """All services as they were cooked, with what was measured."""
    for rows in _all(RunRow):
        events = _by_owner(RunEventRow, RunEventRow.run, rows, RunEventRow.id)
        for row in rows:
            said = events[row.id]
            yield ap.EveningItem(
                id=row.id,
                service_id=row.service_id,
                day=date.fromisoformat(row.day),
                started_at=utc(row.started_at),
                name=row.name,
                ready_min=row.ready_min,
                learnt=not said or row.learnt >= said[-1].id,
                events=[
                    ap.CheckEventItem(
                        token=e.token, kind=e.kind, task=e.task, minute=e.minute, value=e.value, of_token=e.of_token,
                        at=utc(e.at), check_key=e.check_key, temp_c=e.temp_c, who=e.who, remark=e.remark,
                    )
                    for e in said
                ],
            )  # fmt: skip


def observations() -> Iterator[ap.ObservationItem]:
    """All that was learnt from."""
    o = ObservationRow
    for row in o.select().where(o.kitchen_id == kitchen_here()).order_by(o.figure, o.cook_id, o.piece):
        yield ap.ObservationItem(
            figure=cast(LearntFigure, row.figure), source_id=row.cook_id, piece=row.piece, style=row.style,
            surface=row.surface,
            at=utc(row.at), observed=row.observed, low=row.low, usual=row.usual, high=row.high, value=row.value,
            sd=row.sd, aside=bool(row.aside), thing=row.task,
        )  # fmt: skip


def training() -> Iterator[ap.TrainingItem]:
    """All rounds that were answered."""
    for rows in _all(TrainingAnswerRow):
        for row in rows:
            yield ap.TrainingItem(
                token=row.token, kind=row.kind, correct=bool(row.correct), confidence=row.confidence, at=utc(row.at)
            )


def photographs() -> Iterator[tuple[int, int, str, datetime, bytes]]:
    """Number, cook, caption, time and file of every photograph."""
    p = PhotographRow
    numbers = [row.id for row in p.select(p.id).where(p.kitchen_id == kitchen_here()).order_by(p.id)]
    for number in numbers:
        row = p.get_by_id(number)
        yield row.id, row.cook_id, row.caption, utc(row.at), bytes(row.jpeg)
