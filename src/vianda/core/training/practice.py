"""How good a cook's judgement is by the rounds answered, and which kind comes next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.phrase import Phrase, frac, say
from vianda.core.training.rounds import KINDS, TITLES, RoundKind

# How sure one can say to be of an answer, 0–1: a quarter is a guess among four.
CONFIDENCES = (0.25, 0.5, 0.75, 0.95)
# Days until a kind comes again, by how often in a row it was right and held to be: ours, a ladder of doublings.
COMES_AGAIN_DAYS = (0.0, 1.0, 2.0, 4.0, 8.0, 16.0)
DAY_S = 86_400.0
# Rounds of a kind from which its figures are told; how far confidence and share of right answers may lie apart.
ENOUGH, WIDE_OF = 5, 0.15
# The last rounds of a kind count: judgement moves.
COUNTED = 20


@dataclass(frozen=True, slots=True)
class Answered:
    """A round that was answered: its kind, whether rightly, how sure the cook was (0–1), and when, s."""

    kind: RoundKind
    right: bool
    confidence: float
    at_s: float


@dataclass(frozen=True, slots=True)
class KindStanding:
    """How one kind stands: rounds, share that was right, mean confidence, Brier score; None before there are any.

    A Brier score is the mean of (confidence − right)²: 0 is perfect; always saying a quarter of four answers has 0.19.
    ``rung`` is how many times in a row it was right lately, ``due_s`` when it comes again.
    """

    kind: RoundKind
    title: str
    rounds: int
    right_frac: float | None
    confidence: float | None
    brier: float | None
    rung: int
    due_s: float
    message: Phrase


def standings(answered: Sequence[Answered]) -> tuple[KindStanding, ...]:
    """How every kind stands.

    Parameters
    ----------
    answered : Sequence[Answered]
        In the order in which they were answered.

    Returns
    -------
    tuple[KindStanding, ...]
        One a kind; what was never practised is due from the beginning.

    References
    ----------
    Brier (1950), from memory. The ladder of days is ours.

    Examples
    --------
    >>> s = standings([Answered("fat", True, 0.75, 0.0), Answered("fat", False, 0.75, 60.0)])
    >>> fat = next(k for k in s if k.kind == "fat")
    >>> fat.rounds, fat.brier, fat.rung
    (2, 0.3125, 0)
    """
    return tuple(_standing(kind, [a for a in answered if a.kind == kind]) for kind in KINDS)


def _standing(kind: RoundKind, mine: Sequence[Answered]) -> KindStanding:
    if not mine:
        return KindStanding(kind, TITLES[kind], 0, None, None, None, 0, 0.0, say("Not practised yet."))
    rung = 0
    for one in mine:
        # A lucky guess is no step up.
        rung = 0 if not one.right else min(len(COMES_AGAIN_DAYS) - 1, rung + (one.confidence > CONFIDENCES[0]))
    last = mine[-COUNTED:]
    right = sum(a.right for a in last) / len(last)
    sure = sum(a.confidence for a in last) / len(last)
    brier = sum((a.confidence - a.right) ** 2 for a in last) / len(last)
    due = mine[-1].at_s + COMES_AGAIN_DAYS[rung] * DAY_S
    return KindStanding(kind, TITLES[kind], len(mine), right, sure, brier, rung, due, _told(len(last), right, sure))


def _told(rounds: int, right: float, sure: float) -> Phrase:
    if rounds < ENOUGH:
        return say("Too few to tell.")
    given = {"sure": frac(sure), "right": frac(right)}
    if sure > right + WIDE_OF:
        return say("Surer than right: {sure} sure, {right} right.", **given)
    if right > sure + WIDE_OF:
        return say("Better than you think: {sure} sure, {right} right.", **given)
    return say("As sure as right: {sure} sure, {right} right.", **given)


def next_kinds(answered: Sequence[Answered], *, now_s: float) -> tuple[RoundKind, ...]:
    """Kinds in the order in which they should come.

    Parameters
    ----------
    answered : Sequence[Answered]
        In the order in which they were answered.
    now_s : float
        The time now, s.

    Returns
    -------
    tuple[RoundKind, ...]
        What is due first, the weakest of it first; then what is due soonest. The kind of the last round never comes
        first again while another is due.
    """
    last = answered[-1].kind if answered else None
    stand = standings(answered)

    def order(s: KindStanding) -> tuple[bool, bool, int, float, float]:
        due = s.due_s <= now_s
        weak = -(s.brier if s.brier is not None else 1.0)
        return (not due, s.kind == last, s.rung if due else 0, 0.0 if due else s.due_s, weak)

    return tuple(s.kind for s in sorted(stand, key=order))
