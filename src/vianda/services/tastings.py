"""Blind tastings of a formula's versions: set up, served by code, answered, and what that says."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.tasting.serving import Place, TastingKind
from vianda.core.tasting.tasting import (
    TastedVersion,
    TasterAnswer,
    Tasting,
    TastingResult,
    check_answers,
    places_of,
    result_of,
)
from vianda.runtime.newest import Newest
from vianda.storage import formula_repository, tasting_repository
from vianda.storage.caches import on_rollback
from vianda.storage.tasting_repository import StoredTasting
from vianda.storage.transaction import transaction

AS_IT_STANDS = "As it stands"
MOST_KEPT = 256
_RESULTS: Newest[TastingResult | None] = Newest(MOST_KEPT)
on_rollback(_RESULTS.forget)


@dataclass(frozen=True, slots=True)
class ServedTasting:
    """A tasting with who gets what, and what the answers say so far."""

    id: int
    formula_id: int
    formula_name: str
    revision: int
    created_at: datetime
    tasting: Tasting
    places: tuple[Place, ...]
    result: TastingResult | None


def set_up(formula_id: int, kind: TastingKind, numbers: Sequence[int], tasters: int) -> ServedTasting:
    """Set up a tasting of versions by their numbers; 0 is the formula as it stands."""
    if len(set(numbers)) < len(numbers):
        raise OutOfRangeError("Each version once: a test of one against itself finds nothing.", field="/versions")
    names = {v.number: v.name for v in formula_repository.list_versions(formula_id)} | {0: AS_IT_STANDS}
    for n, number in enumerate(numbers):
        if number not in names:
            raise OutOfRangeError(f"There is no version {number}.", field=f"/versions/{n}")
    tasting = Tasting(
        kind, tuple(TastedVersion(n, names[n]) for n in numbers), tasters, seed=secrets.randbelow(2_147_483_648)
    )
    # Orders that cannot be served are refused before anything is kept.
    places_of(tasting)
    with transaction():
        return served(tasting_repository.create_tasting(formula_id, tasting))


def get_tasting(tasting_id: int) -> ServedTasting:
    """One tasting."""
    return served(tasting_repository.get_tasting(tasting_id))


def list_tastings(formula_id: int) -> list[ServedTasting]:
    """Tastings of a formula, the newest first."""
    return [served(t) for t in tasting_repository.list_tastings(formula_id)]


def answer(tasting_id: int, answers: tuple[TasterAnswer, ...], *, revision: int) -> ServedTasting:
    """Write down what the tasters said, in place of what stood there."""
    with transaction():
        answered = replace(tasting_repository.get_tasting(tasting_id).tasting, answers=answers)
        check_answers(answered)
        return served(tasting_repository.save_tasting(tasting_id, answered, revision=revision))


def served(stored: StoredTasting) -> ServedTasting:
    """A tasting with who gets what, and what the answers say."""
    name = formula_repository.names_of([stored.formula_id]).get(stored.formula_id, "")
    return ServedTasting(
        stored.id,
        stored.formula_id,
        name,
        stored.revision,
        stored.created_at,
        stored.tasting,
        places_of(stored.tasting),
        # Rank sums are counted out and power is simulated once for each state of the answers.
        _RESULTS.of((stored.id, stored.revision), lambda: result_of(stored.tasting)),
    )
