"""Causes of what went wrong, ranked: what speaks for and against each, what to ask next, and what mends it."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.counsel.rule import Change, Counsel
from vianda.core.counsel.rules import counsel_on
from vianda.core.faults.causes import SYMPTOMS, Cause, Symptom, all_causes
from vianda.core.faults.evidence import BatchReadings, Spoken, evidence_of
from vianda.core.faults.network import MOST_SYMPTOMS, Node, moved, posteriors, uncertainty_bits
from vianda.core.model.styles import Form
from vianda.core.pipeline.figures import Figures

ChanceWord = Literal["most likely", "likely", "possible", "hardly"]

# A question that tells less than this, in bits, is not worth asking: ours.
WORTH_BITS = 0.005
# A word for a chance, from so much on, 0–1: ours.
WORDS: tuple[tuple[float, ChanceWord], ...] = (
    (0.75, "most likely"), (0.40, "likely"), (0.15, "possible"), (0.0, "hardly"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class RankedCause:
    """One cause with its chance now and before anything of this batch was looked at, 0–1.

    ``change`` is what counsel offers to make of the formula; None where it is not the formula.
    """

    key: str
    title: str
    chance: float
    word: ChanceWord
    before: float
    speaks_for: tuple[Phrase, ...]
    speaks_against: tuple[Phrase, ...]
    tonight: str
    next_time: str
    change: Change | None


@dataclass(frozen=True, slots=True)
class NextQuestion:
    """The question that decides most: of which cause it is, and how much it is expected to tell, bits."""

    cause: str
    text: str
    yes: str
    no: str
    bits: float


@dataclass(frozen=True, slots=True)
class WentWrong:
    """Causes, the likeliest first, and what to ask next; None when nothing is worth asking."""

    causes: tuple[RankedCause, ...]
    question: NextQuestion | None


@dataclass(frozen=True, slots=True)
class SymptomChoice:
    """A symptom that a piece of this form can have."""

    key: Symptom
    title: str


def symptoms_for(form: Form) -> tuple[SymptomChoice, ...]:
    """Symptoms that a piece can have.

    Parameters
    ----------
    form : Form
        Its form.

    Returns
    -------
    tuple[SymptomChoice, ...]
        In the order in which they are asked for.

    Examples
    --------
    >>> [s.key for s in symptoms_for("crumbled")]
    ['dry', 'tough', 'greasy', 'no-crust', 'bland', 'salty', 'watery']
    """
    return tuple(SymptomChoice(key, title) for key, (title, forms) in SYMPTOMS.items() if form in forms)


def what_went_wrong(
    figures: Figures,
    symptoms: Sequence[Symptom],
    *,
    readings: BatchReadings,
    answers: Mapping[str, bool],
    absent: Sequence[Symptom] = (),
) -> WentWrong:
    """Causes of symptoms in this batch.

    Parameters
    ----------
    figures : Figures
        The formula as it was cooked.
    symptoms : Sequence[Symptom]
        What is wrong, 1 to 5.
    readings : BatchReadings
        What was measured of the batch.
    answers : Mapping[str, bool]
        Answers to questions, by the cause they are of.
    absent : Sequence[Symptom], default ()
        What is certainly not wrong.

    Returns
    -------
    WentWrong
        The likeliest cause first.

    Raises
    ------
    OutOfRangeError
        No symptom, more than 5, or one that a piece of this form cannot have.
    """
    form = figures.context.style.form
    known = {s.key for s in symptoms_for(form)}
    if not symptoms:
        raise OutOfRangeError("What is wrong with it?", field="/symptoms")
    if len(set(symptoms)) > MOST_SYMPTOMS:
        raise OutOfRangeError(f"At most {MOST_SYMPTOMS} things at once.", field="/symptoms")
    for n, symptom in enumerate(symptoms):
        if symptom not in known:
            raise OutOfRangeError(f"A piece of this form is never “{SYMPTOMS[symptom][0].lower()}”.",
                                  field=f"/symptoms/{n}")  # fmt: skip
    wrong = tuple(dict.fromkeys(symptoms))
    not_wrong = tuple(s for s in dict.fromkeys(absent) if s in known and s not in wrong)
    causes = [c for c in all_causes().values() if form in c.forms]
    counsel = counsel_on(figures)
    spoken = evidence_of(figures, counsel, readings, causes)
    chances = _moved(causes, spoken, answers)
    after = posteriors(_nodes(causes, chances), wrong, not_wrong)
    ranked = [
        _ranked(c, after[c.key], spoken, answers, counsel)
        for c in causes
        # What makes none of this is no cause of it.
        if any(s in c.makes for s in wrong)
    ]
    ranked.sort(key=lambda r: (-r.chance, list(all_causes()).index(r.key)))
    # What was measured or answered is not asked again.
    told = {s.cause for s in spoken if s.measured} | set(answers)
    question = _next_question(causes, chances, wrong, not_wrong, told)
    return WentWrong(tuple(ranked), question)


def _nodes(causes: Sequence[Cause], chances: Mapping[str, float]) -> list[Node]:
    return [Node(c.key, chances[c.key], {str(s): p for s, p in c.makes.items()}) for c in causes]


def _moved(causes: Sequence[Cause], spoken: Sequence[Spoken], answers: Mapping[str, bool]) -> dict[str, float]:
    """Chances before the symptoms, moved by figures, readings and answers."""
    by_cause: dict[str, float] = {}
    for one in spoken:
        by_cause[one.cause] = by_cause.get(one.cause, 0.0) + one.log_ratio
    for cause in causes:
        if cause.key in answers:
            by_cause[cause.key] = by_cause.get(cause.key, 0.0) + _answered(cause, answers[cause.key])
    return {c.key: moved(c.prior, by_cause.get(c.key, 0.0)) for c in causes}


def _answered(cause: Cause, yes: bool) -> float:
    there, absent = cause.question.if_there, cause.question.if_not
    return math.log(there / absent) if yes else math.log((1.0 - there) / (1.0 - absent))


def _ranked(
    cause: Cause, chance: float, spoken: Sequence[Spoken], answers: Mapping[str, bool], counsel: Sequence[Counsel]
) -> RankedCause:
    mine = [s for s in spoken if s.cause == cause.key]
    speaks_for = [s.text for s in mine if s.log_ratio > 0]
    against = [s.text for s in mine if s.log_ratio < 0]
    if cause.key in answers:
        word = cause.question.yes if answers[cause.key] else cause.question.no
        (speaks_for if answers[cause.key] else against).append(say(f"{cause.question.text} {word}."))
    offered = [c for c in counsel if c.rule in cause.rules and c.changes]
    return RankedCause(
        cause.key,
        cause.title,
        chance,
        word_of(chance),
        cause.prior,
        tuple(speaks_for),
        tuple(against),
        cause.tonight,
        cause.next_time,
        offered[0].changes[0] if offered else None,
    )


def word_of(chance: float) -> ChanceWord:
    """A word for a chance.

    Parameters
    ----------
    chance : float
        0–1.

    Returns
    -------
    ChanceWord
        From "hardly" to "most likely".

    Examples
    --------
    >>> word_of(0.75), word_of(0.74), word_of(0.1)
    ('most likely', 'likely', 'hardly')
    """
    return next(word for least, word in WORDS if chance >= least)


def _next_question(
    causes: Sequence[Cause],
    chances: Mapping[str, float],
    wrong: Sequence[str],
    not_wrong: Sequence[str],
    told: Set[str],
) -> NextQuestion | None:
    """The question whose answer is expected to leave least unknown of the causes of this."""
    nodes = _nodes(causes, chances)
    mine = [c for c in causes if any(s in c.makes for s in wrong)]
    keys = {c.key for c in mine}

    def bits(chance_of: Mapping[str, float]) -> float:
        changed = [Node(n.key, chance_of[n.key], n.makes) for n in nodes]
        after = posteriors(changed, wrong, not_wrong)
        return uncertainty_bits({k: after[k] for k in keys})

    now = posteriors(nodes, wrong, not_wrong)
    before = uncertainty_bits({k: now[k] for k in keys})
    best: NextQuestion | None = None
    for cause in mine:
        if cause.key in told:
            continue
        q = cause.question
        yes = now[cause.key] * q.if_there + (1.0 - now[cause.key]) * q.if_not
        left = 0.0
        for answer, share in ((True, yes), (False, 1.0 - yes)):
            moved_to = moved(chances[cause.key], _answered(cause, answer))
            left += share * bits({**chances, cause.key: moved_to})
        if best is None or before - left > best.bits:
            best = NextQuestion(cause.key, q.text, q.yes, q.no, before - left)
    return best if best is not None and best.bits > WORTH_BITS else None
