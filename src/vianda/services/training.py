"""The trainer: which round comes next, from which formula of the shelf, and what an answer is worth."""

from __future__ import annotations

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC

from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.basis.phrase import Phrase
from vianda.core.pipeline.compute import compute
from vianda.core.training.practice import CONFIDENCES, KindStanding, next_kinds, standings
from vianda.core.training.rounds import MadeRound, Round, RoundKind, make_round
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.storage import formula_repository, training_repository
from vianda.storage.clock import now_utc
from vianda.storage.records import NotFoundError, StoredFormula
from vianda.storage.transaction import transaction

# Formulas that are looked through for a round of one kind; seeds are below this.
MOST_LOOKED_AT, SEEDS = 8, 2**31


@dataclass(frozen=True, slots=True)
class ServedRound:
    """A round with what it is made of; ``stamp`` changes when the formula does."""

    formula_id: int
    seed: int
    stamp: str
    round: Round


@dataclass(frozen=True, slots=True)
class Training:
    """The next round, None where no formula has one, how sure one may say to be, and how every kind stands."""

    next: ServedRound | None
    confidences: tuple[float, ...]
    standings: tuple[KindStanding, ...]


@dataclass(frozen=True, slots=True)
class Judged:
    """Which answer was right, by its number from 0, why, and how every kind stands now."""

    right: int
    why: Phrase
    standings: tuple[KindStanding, ...]


def training() -> Training:
    """The round that should come next in this kitchen."""
    answered = training_repository.answers()
    seed = secrets.randbelow(SEEDS)
    formulas = formula_repository.list_formulas()[:MOST_LOOKED_AT]
    # Another formula first each time.
    turned = [*formulas[seed % len(formulas) :], *formulas[: seed % len(formulas)]] if formulas else []
    found = None
    for kind in next_kinds(answered, now_s=now_utc().replace(tzinfo=UTC).timestamp()):
        found = next((r for f in turned if (r := _served(kind, f, seed)) is not None), None)
        if found is not None:
            break
    return Training(found, CONFIDENCES, standings(answered))


def _made(kind: RoundKind, stored: StoredFormula, seed: int) -> MadeRound | None:
    inventory, kitchen = context()
    try:
        figures = compute(stored.formula, inventory=inventory, kitchen=kitchen, engine=ENGINE)
        return make_round(kind, figures, seed=seed, engine=ENGINE)
    except CoreError:
        # A formula that cannot be computed in this kitchen teaches nothing.
        return None


def _served(kind: RoundKind, stored: StoredFormula, seed: int) -> ServedRound | None:
    made = _made(kind, stored, seed)
    return None if made is None else ServedRound(stored.id, seed, _stamp(made), made.round)


def _stamp(made: MadeRound) -> str:
    return hashlib.blake2b(repr(made).encode(), digest_size=8).hexdigest()


def answer(
    kind: RoundKind, formula_id: int, seed: int, stamp: str, *, choice: int, confidence: float, token: str
) -> Judged:
    """Judge an answer, and keep it once."""
    if confidence not in CONFIDENCES:
        raise OutOfRangeError("So sure nobody can say to be: choose one that is offered.", field="/confidence")
    try:
        made = _made(kind, formula_repository.get_formula(formula_id), seed)
    except NotFoundError:
        made = None
    if made is None or _stamp(made) != stamp:
        raise OutOfRangeError("The formula was changed meanwhile: this round no longer stands.", field="/stamp")
    if not 0 <= choice < len(made.round.answers):
        raise OutOfRangeError("There is no such answer.", field="/choice")
    with transaction():
        training_repository.add_answer(token, kind, right=choice == made.right, confidence=confidence)
    return Judged(made.right, made.why, standings(training_repository.answers()))


def begin_anew() -> Training:
    """Forget what was answered."""
    with transaction():
        training_repository.forget_answers()
    return training()
