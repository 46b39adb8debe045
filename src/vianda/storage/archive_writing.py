"""A whole kitchen into the database: what is here already, and how each item of an archive is written down."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from dataclasses import asdict
from typing import Any, cast

from peewee import fn

from vianda.core.model.formula import Formula
from vianda.core.model.service import Service
from vianda.core.model.stocked import Stocked
from vianda.interchange import archive_parts as ap
from vianda.interchange.archive_parts import naive
from vianda.interchange.kinds import FORMULAS, SERVICES, TASTINGS
from vianda.storage.archive_reading import stock
from vianda.storage.clock import now_utc
from vianda.storage.formula_repository import columns_of
from vianda.storage.here import kitchen_here
from vianda.storage.logbook_repository import HeldLot, index_cook
from vianda.storage.records import CookEvent, EventKind, StoredCook
from vianda.storage.service_repository import columns_of as service_columns
from vianda.storage.tables import (
    CookEventRow,
    CookRow,
    FormulaRow,
    ObservationRow,
    PhotographRow,
    RunEventRow,
    RunRow,
    ServiceRow,
    TastingRow,
    TrainingAnswerRow,
    VersionRow,
    WeighingEventRow,
    WeighingRow,
)

# As many as a cook may have.
MOST_PHOTOGRAPHS = 12

# What is here already, by what two kitchens tell it apart by.


def formulas_here() -> list[tuple[int, Formula, bool]]:
    """Number, formula and whether it is archived, the one touched last first."""
    f = FormulaRow
    rows = f.select().where(f.kitchen_id == kitchen_here()).order_by(f.deleted, f.updated_at.desc(), f.id.desc())
    return [(row.id, FORMULAS.kept(row.document), bool(row.deleted)) for row in rows]


def versions_here(formula_id: int) -> list[tuple[str, Formula]]:
    """Name and formula of each kept version."""
    rows = VersionRow.select().where(VersionRow.formula == formula_id).order_by(VersionRow.number)
    return [(row.name, FORMULAS.read(row.document)) for row in rows]


def last_version(formula_id: int) -> int:
    """The highest number of a kept version, 0 for none."""
    return int(VersionRow.select(fn.MAX(VersionRow.number)).where(VersionRow.formula == formula_id).scalar() or 0)


def unused_service_id() -> int:
    """A number that no service has and no evening was cooked under: for evenings whose service was deleted."""
    row = ServiceRow.create(
        kitchen_id=kitchen_here(), document="", revision=1, updated_at=now_utc(), first_day="", last_day=""
    )
    ServiceRow.delete().where(ServiceRow.id == row.id).execute()
    return int(row.id)


def services_here() -> dict[Service, int]:
    """Each service by what it is."""
    rows = ServiceRow.select().where(ServiceRow.kitchen_id == kitchen_here()).order_by(ServiceRow.id)
    return {SERVICES.kept(row.document): row.id for row in rows}


def moments_here(table: type[Any], owner: str, moment: str) -> dict[tuple[int, Any], int]:
    """Numbers of records by what they are of and when they began."""
    rows = table.select(table.id, getattr(table, owner), getattr(table, moment)).where(
        table.kitchen_id == kitchen_here()
    )
    return {(row.__data__[owner], getattr(row, moment)): row.id for row in rows}


def cooks_here() -> dict[tuple[int, Any], int]:
    """Cooks by formula and begin."""
    return moments_here(CookRow, "formula", "started_at")


def weighings_here() -> dict[tuple[int, Any], int]:
    """Weighings by formula and begin."""
    return moments_here(WeighingRow, "formula", "started_at")


def tastings_here() -> dict[tuple[int, Any], int]:
    """Tastings by formula and when they were set up."""
    return moments_here(TastingRow, "formula_id", "created_at")


def evenings_here() -> dict[tuple[int, Any], int]:
    """Evenings by service and day."""
    return moments_here(RunRow, "service_id", "day")


def photographs_here() -> set[tuple[int, Any]]:
    """Photographs by cook and moment."""
    return set(moments_here(PhotographRow, "cook_id", "at"))


def stock_here() -> dict[tuple[str, str], Stocked]:
    """What is kept of things."""
    return {(one.kind, one.key): one for one in stock()}


def training_here() -> set[str]:
    """Tokens of rounds that were answered."""
    rows = TrainingAnswerRow.select(TrainingAnswerRow.token).where(TrainingAnswerRow.kitchen_id == kitchen_here())
    return {row.token for row in rows}


def observations_here() -> set[tuple[str, int, int]]:
    """Keys of what was learnt from."""
    o = ObservationRow
    rows = o.select(o.figure, o.cook_id, o.piece).where(o.kitchen_id == kitchen_here())
    return {(row.figure, row.cook_id, row.piece) for row in rows}


def newest_pot() -> int:
    """The highest number of a pot that was written down."""
    of = (ObservationRow.kitchen_id == kitchen_here()) & (ObservationRow.figure == "evaporation")
    rows = ObservationRow.select(ObservationRow.cook_id).where(of).order_by(ObservationRow.cook_id.desc()).limit(1)
    return next((row.cook_id for row in rows), 0)


def pots_here() -> set[tuple[Any, float]]:
    """Pots that were written down, by moment and figure."""
    of = (ObservationRow.kitchen_id == kitchen_here()) & (ObservationRow.figure == "evaporation")
    return {(row.at, row.value) for row in ObservationRow.select().where(of)}


# In: each returns the number that the item has here.


def put_formula(item: ap.FormulaItem, formula: Formula) -> int:
    """Write a formula down with all its versions."""
    number = FormulaRow.insert(
        kitchen_id=kitchen_here(), revision=1, created_at=naive(item.created_at), updated_at=naive(item.updated_at),
        deleted=item.archived, changed_by=item.changed_by, **columns_of(formula),
    ).execute()  # fmt: skip
    put_versions(int(number), item.versions, after=0)
    return int(number)


def put_versions(formula_id: int, versions: Sequence[ap.VersionItem], *, after: int) -> None:
    """Write kept versions down, numbered on after those that are here."""
    for at, version in enumerate(versions, start=after + 1):
        VersionRow.insert(
            formula=formula_id,
            number=at,
            name=version.name,
            document=FORMULAS.text(version.formula),
            created_at=naive(version.created_at),
            kept_by=version.kept_by,
        ).execute()


def put_service(service: Service, *, changed_by: str) -> int:
    """Write a service down, under the name of who wrote it there."""
    row = ServiceRow.create(
        kitchen_id=kitchen_here(), revision=1, **{**service_columns(service), "changed_by": changed_by}
    )
    return int(row.id)


def put_cook(item: ap.CookItem, formula_id: int) -> int:
    """Write a cook down with its events and lots, and its line of the logbook."""
    outcome = item.outcome.model_dump(mode="json") if item.outcome else None
    started, finished = naive(item.started_at), naive(item.finished_at) if item.finished_at else None
    number = int(
        CookRow.insert(
            kitchen_id=kitchen_here(), formula=formula_id, formula_name=item.formula.name,
            document=FORMULAS.text(item.formula), plan=json.dumps(item.plan), started_at=started,
            finished_at=finished, outcome=json.dumps(outcome) if outcome is not None else None, revision=1,
            begun_by=item.begun_by, noted_by=item.noted_by,
        ).execute()
    )  # fmt: skip
    rows = [
        {"cook": number, "token": e.token, "kind": e.kind, "place": e.place, "value": e.value, "at": naive(e.at)}
        for e in item.events
    ]
    if rows:
        CookEventRow.insert_many(rows).execute()
    events = tuple(CookEvent(e.token, cast(EventKind, e.kind), e.place, e.value, naive(e.at)) for e in item.events)
    stored = StoredCook(
        number, formula_id, item.formula.name, 1, started, finished, item.formula, item.plan, outcome, events
    )
    index_cook(stored, [HeldLot(x.lot, x.name, x.meat, x.mass_g, x.use_by) for x in item.lots])
    return number


def put_weighing(item: ap.WeighingItem, formula_id: int) -> int:
    """Write a run of check-weighing down; what an event is about is another of the same run."""
    number = int(
        WeighingRow.insert(
            kitchen_id=kitchen_here(), formula=formula_id, formula_name=item.formula_name,
            plan=json.dumps(asdict(item.plan)), seed=item.seed, started_at=naive(item.started_at),
            finished_at=naive(item.finished_at) if item.finished_at else None, left_g=item.left_g,
            begun_by=item.begun_by,
        ).execute()
    )  # fmt: skip
    numbers: dict[int, int] = {}
    for e in item.events:
        about = numbers.get(e.about) if e.about is not None else None
        numbers[e.id] = int(
            WeighingEventRow.insert(
                weighing=number, token=e.token, kind=e.kind, value=e.value, about=about, at_s=e.at_s
            ).execute()
        )
    return number


def put_tasting(item: ap.TastingItem, formula_id: int) -> None:
    """Write a blind tasting down."""
    TastingRow.insert(
        kitchen_id=kitchen_here(), formula_id=formula_id, document=TASTINGS.text(item.tasting), revision=1,
        created_at=naive(item.created_at),
    ).execute()  # fmt: skip


def put_evening(item: ap.EveningItem, service_id: int, renumbered: Callable[[str], str]) -> int:
    """Write an evening down with what was said and measured; tasks are called after formulas of here."""
    number = int(
        RunRow.insert(
            kitchen_id=kitchen_here(), service_id=service_id, day=str(item.day), started_at=naive(item.started_at),
            name=item.name, ready_min=item.ready_min,
        ).execute()
    )  # fmt: skip
    last = 0
    for e in item.events:
        last = int(
            RunEventRow.insert(
                run=number, token=e.token, kind=e.kind, task=renumbered(e.task), minute=e.minute, value=e.value,
                of_token=e.of_token, at=naive(e.at), check_key=renumbered(e.check_key), temp_c=e.temp_c, who=e.who,
                remark=e.remark,
            ).execute()
        )  # fmt: skip
    if item.learnt:
        RunRow.update(learnt=last).where(RunRow.id == number).execute()
    return number


def put_observation(item: ap.ObservationItem, source_id: int) -> None:
    """Write down what was learnt from."""
    ObservationRow.insert(
        kitchen_id=kitchen_here(), figure=item.figure, cook_id=source_id, piece=item.piece, style=item.style,
        surface=item.surface, at=naive(item.at), observed=item.observed, low=item.low, usual=item.usual,
        high=item.high, value=item.value, sd=item.sd, aside=item.aside, task=item.thing,
    ).execute()  # fmt: skip


def put_training(item: ap.TrainingItem) -> None:
    """Write a round of the trainer down."""
    TrainingAnswerRow.insert(
        kitchen_id=kitchen_here(), token=item.token, kind=item.kind, correct=item.correct,
        confidence=item.confidence, at=naive(item.at),
    ).execute()  # fmt: skip


def put_photograph(
    item: ap.PhotographItem, cook_id: int, files: Mapping[str, bytes], *, width: int, height: int
) -> None:
    """Keep a photograph: ``files`` has the ``jpeg`` and the ``small`` one."""
    PhotographRow.insert(
        kitchen_id=kitchen_here(), cook_id=cook_id, caption=item.caption, width=width, height=height,
        at=naive(item.at), **files,
    ).execute()  # fmt: skip
