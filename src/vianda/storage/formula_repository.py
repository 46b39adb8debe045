"""Formulas and their kept versions in the database."""

from __future__ import annotations

from collections.abc import Collection
from itertools import count

from peewee import Expression, fn

from vianda.core.model.formula import Formula
from vianda.interchange.kinds import FORMULAS
from vianda.storage.actor import actor_name, made
from vianda.storage.clock import now_utc
from vianda.storage.folded import folded
from vianda.storage.here import kitchen_here
from vianda.storage.records import NotFoundError, StoredFormula, StoredVersion, standing_or_conflict
from vianda.storage.tables import FormulaRow, VersionRow

# As long as the column.
LONGEST_NAME = 80


def _stored(row: FormulaRow) -> StoredFormula:
    return StoredFormula(row.id, row.revision, row.updated_at, FORMULAS.kept(row.document), row.changed_by)


def _here() -> Expression:
    """Only the formulas of this kitchen."""
    return FormulaRow.kitchen_id == kitchen_here()


def _row(formula_id: int) -> FormulaRow:
    row = FormulaRow.get_or_none((FormulaRow.id == formula_id) & _here() & ~FormulaRow.deleted)
    if row is None:
        raise NotFoundError(f"formula {formula_id}")
    return row


def list_formulas() -> list[StoredFormula]:
    """All formulas, the one touched last first."""
    query = (
        FormulaRow.select()
        .where(_here() & ~FormulaRow.deleted)
        .order_by(FormulaRow.updated_at.desc(), FormulaRow.id.desc())
    )
    return [_stored(row) for row in query]


def formulas_of(formula_ids: Collection[int], *, archived_too: bool = False) -> dict[int, StoredFormula]:
    """Those formulas that stand on the shelf, or were archived too, by number, in one question."""
    if not formula_ids:
        return {}
    there = _here() if archived_too else _here() & ~FormulaRow.deleted
    rows = FormulaRow.select().where(there & FormulaRow.id.in_(sorted(set(formula_ids))))
    return {row.id: _stored(row) for row in rows}


def names_of(formula_ids: Collection[int]) -> dict[int, str]:
    """What formulas are called, archived ones too, in one question."""
    rows = FormulaRow.select(FormulaRow.id, FormulaRow.name).where(
        _here() & FormulaRow.id.in_(sorted(set(formula_ids)))
    )
    return {row.id: row.name for row in rows}


def get_formula(formula_id: int) -> StoredFormula:
    """One formula as it stands."""
    return _stored(_row(formula_id))


def create_formula(formula: Formula) -> StoredFormula:
    """Add a formula."""
    now = now_utc()
    row = FormulaRow.create(
        kitchen_id=kitchen_here(), revision=1, created_at=now, updated_at=now, changed_by=actor_name(),
        **columns_of(formula),
    )  # fmt: skip
    made(f"/api/formulas/{row.id}")
    return _stored(row)


def columns_of(formula: Formula) -> dict[str, str]:
    """The document, and what the shelf finds it by."""
    dish = formula.dish
    keys = [dish.style, *(p.meat for p in formula.parts), *(line.ingredient for line in formula.mix.lines)]
    words = folded(" ".join([formula.name, dish.dish, *(key.replace("-", " ") for key in keys)]))
    document = FORMULAS.text(formula)
    return {"name": formula.name, "document": document, "dish": dish.dish, "style": dish.style, "words": words}


def save_formula(formula_id: int, formula: Formula, *, revision: int) -> StoredFormula:
    """Save over the revision seen, in one statement; ``ConflictError`` when someone was faster."""
    changed = (
        FormulaRow.update(
            revision=FormulaRow.revision + 1, updated_at=now_utc(), changed_by=actor_name(), **columns_of(formula)
        )
        .where((FormulaRow.id == formula_id) & _here() & (FormulaRow.revision == revision) & ~FormulaRow.deleted)
        .execute()
    )
    if not changed:
        stored = get_formula(formula_id)
        return standing_or_conflict(stored, same=stored.formula == formula)
    return get_formula(formula_id)


def delete_formula(formula_id: int) -> None:
    """Archive a formula. Its versions and cooks stay readable in the logbook."""
    row = _row(formula_id)
    FormulaRow.update(deleted=True, updated_at=now_utc()).where(FormulaRow.id == row.id).execute()


def free_name(name: str) -> str:
    """The name with the first number behind it that no formula here has yet, archived ones too."""
    taken = {row.name.casefold() for row in FormulaRow.select(FormulaRow.name).where(_here())}
    wanted = (f"{name[: LONGEST_NAME - len(str(n)) - 1].rstrip()} {n}" for n in count(2))
    return next(one for one in wanted if one.casefold() not in taken)


def restore_formula(formula_id: int) -> StoredFormula:
    """Bring an archived formula back to the shelf; one that stands there is left as it is."""
    if FormulaRow.get_or_none((FormulaRow.id == formula_id) & _here()) is None:
        raise NotFoundError(f"formula {formula_id}")
    FormulaRow.update(deleted=False, updated_at=now_utc()).where(
        (FormulaRow.id == formula_id) & FormulaRow.deleted
    ).execute()
    return get_formula(formula_id)


def keep_version(formula_id: int, *, name: str) -> StoredVersion:
    """Keep the formula as it stands under a name."""
    row = _row(formula_id)
    # The row lock makes two keepers take two numbers.
    FormulaRow.select().where(FormulaRow.id == row.id).for_update().execute()
    last = VersionRow.select(fn.MAX(VersionRow.number)).where(VersionRow.formula == row.id).scalar() or 0
    VersionRow.create(
        formula=row.id, number=last + 1, name=name, document=row.document, created_at=now_utc(), kept_by=actor_name()
    )
    return get_version(formula_id, last + 1)


def list_versions(formula_id: int) -> list[StoredVersion]:
    """All kept versions of a formula, the newest first."""
    query = VersionRow.select().where(VersionRow.formula == _row(formula_id).id).order_by(VersionRow.number.desc())
    return [_version(row) for row in query]


def get_version(formula_id: int, number: int) -> StoredVersion:
    """One kept version."""
    # An archived formula keeps its versions, but only in its own kitchen.
    if FormulaRow.get_or_none((FormulaRow.id == formula_id) & _here()) is None:
        raise NotFoundError(f"formula {formula_id}")
    row = VersionRow.get_or_none((VersionRow.formula == formula_id) & (VersionRow.number == number))
    if row is None:
        raise NotFoundError(f"version {number}")
    return _version(row)


def _version(row: VersionRow) -> StoredVersion:
    return StoredVersion(row.number, row.name, row.created_at, FORMULAS.read(row.document), row.kept_by)
