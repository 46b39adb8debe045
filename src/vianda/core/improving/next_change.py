"""The one change of a formula that promises most, by what its cooks scored and by the table of faults."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from statistics import NormalDist

from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Phrase, count, number, say, word
from vianda.core.cook.scores import LEAST, MOST, SCALES, ScoreKey
from vianda.core.counsel.rule import Change
from vianda.core.counsel.rules import counsel_on
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.faults.causes import all_causes
from vianda.core.faults.ranking import ChanceWord, word_of
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.heat.uncertainty import P90
from vianda.core.improving.levers import SHOWS, Lever, LeverKey, lever_amount, lever_edit, lever_values, levers_for
from vianda.core.improving.scoring import ScoredCook, ScoreModel, score_model, squared_gain
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.formula import Formula
from vianda.core.model.styles import style_of
from vianda.core.pipeline.compute import compute

# Steps that are tried of each lever; changes shown; a gain below this many squared points is none: ours.
TRIED_STEPS = (-1.0, -0.5, 0.5, 1.0)
MOST_SHOWN, LEAST_GAIN = 3, 0.05
# A score that a change moves by less is not told, points.
LEAST_MOVE = 0.1
# A score this near to where it is wanted is there, points.
NEAR_POINTS = 0.5
# A lever that differed by at least this many steps among the cooks is one they say something of.
TRIED_APART = 0.25


@dataclass(frozen=True, slots=True)
class ScoreNow:
    """Where a score of the formula as it stands is known to lie, 1–5, and where it is wanted.

    ``least`` to ``most`` holds it with eight in ten.
    """

    key: ScoreKey
    title: str
    low: str
    high: str
    now: float
    least: float
    most: float
    wanted: float
    cooks: int


@dataclass(frozen=True, slots=True)
class ScoreMove:
    """What a change is expected to do to a score, 1–5."""

    key: ScoreKey
    title: str
    now: float
    then: float
    wanted: float


@dataclass(frozen=True, slots=True)
class NextChange:
    """One change: where its lever stands and would stand, what it does, how likely it is for the better, and why.

    ``gain`` is in squared points, all scores together.
    """

    lever: LeverKey
    title: Phrase
    change: Change
    moves: tuple[ScoreMove, ...]
    gain: float
    chance: float
    word: ChanceWord
    why: tuple[Phrase, ...]


@dataclass(frozen=True, slots=True)
class NextChanges:
    """The changes that promise most, the best first; ``cooks`` were scored. ``message`` says what there is to say."""

    cooks: int
    scores: tuple[ScoreNow, ...]
    changes: tuple[NextChange, ...]
    message: Phrase


def next_changes(
    formula: Formula,
    cooked: Sequence[tuple[Formula, Mapping[ScoreKey, float]]],
    *,
    inventory: Inventory,
    kitchen: Kitchen,
    engine: Engine = DIRECT,
) -> NextChanges:
    """What to change next of a formula.

    Parameters
    ----------
    formula : Formula
        As it stands.
    cooked : Sequence[tuple[Formula, Mapping[ScoreKey, float]]]
        What was cooked of it in any version, and how it was scored.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    engine : Engine, default DIRECT
        Who runs the simulations.

    Returns
    -------
    NextChanges
        Each is one change alone, whose effect can be told afterwards. What crosses a limit that the formula keeps now
        is not offered.

    References
    ----------
    ``scoring``: Bayesian linear regression; the expected squared distance of every score from where it is wanted.
    """
    form = style_of(formula.dish.style).form
    base = lever_values(formula, inventory=inventory, kitchen=kitchen)
    levers = [lever for lever in levers_for(form) if lever.key in base]
    cooks = list(_scored(cooked, base, inventory, kitchen))
    keys = [key for key in SCALES if any(key in c.scores for c in cooks)]
    if not keys:
        return NextChanges(
            0, (), (), say("No cook of it was scored yet. Score crust, juice and the rest of one, and this begins.")
        )
    models = {key: score_model(key, levers, base, cooks, form=form) for key in keys}
    scores = tuple(_now(key, models[key]) for key in keys)
    tried = sorted(_tried(levers, models), key=lambda t: -t[2])
    found: list[NextChange] = []
    limits: set[str] | None = None
    for at, steps, gain, sd in tried:
        lever = levers[at]
        if gain < LEAST_GAIN or len(found) == MOST_SHOWN:
            break
        if any(c.lever == lever.key for c in found):
            continue
        value = round((base[lever.key] + steps * lever.step) / lever.grain) * lever.grain
        if limits is None:
            limits = _limits(formula, inventory, kitchen, engine)
        change = _allowed(formula, lever, value, base[lever.key], steps, limits, inventory, kitchen, engine)
        if change is None:
            continue
        chance = NormalDist(gain, max(sd, 1e-9)).cdf(0.0)
        moves = tuple(_moves(models, at, steps))
        found.append(
            NextChange(
                lever.key,
                change.label,
                change,
                moves,
                gain,
                1.0 - chance,
                word_of(1.0 - chance),
                tuple(_why(lever, at, steps, moves, models, base, cooks, form)),
            )
        )
    return NextChanges(len(cooks), scores, tuple(found), _message(found, scores))


def _scored(
    cooked: Sequence[tuple[Formula, Mapping[ScoreKey, float]]],
    base: Mapping[LeverKey, float],
    inventory: Inventory,
    kitchen: Kitchen,
) -> Iterator[ScoredCook]:
    for formula, scores in cooked:
        given = {key: float(value) for key, value in scores.items() if key in SCALES}
        if not given:
            continue
        try:
            levers = lever_values(formula, inventory=inventory, kitchen=kitchen)
        except CoreError:
            # A meat of it is no longer in the larder: where its levers stood is not known.
            continue
        if set(base) <= set(levers):
            yield ScoredCook(levers, given)


def _now(key: ScoreKey, model: ScoreModel) -> ScoreNow:
    scale, now, sd = SCALES[key], float(model.mean[0]), math.sqrt(float(model.cov[0, 0]))
    return ScoreNow(
        key,
        scale.title,
        scale.low,
        scale.high,
        _on_scale(now),
        _on_scale(now - P90 * sd),
        _on_scale(now + P90 * sd),
        scale.wanted,
        model.cooks,
    )


def _on_scale(score: float) -> float:
    return min(MOST, max(LEAST, score))


def _tried(levers: Sequence[Lever], models: Mapping[ScoreKey, ScoreModel]) -> Iterator[tuple[int, float, float, float]]:
    """Lever, steps, expected gain and its standard deviation."""
    for at in range(len(levers)):
        for steps in TRIED_STEPS:
            each = [squared_gain(m, at, steps, SCALES[key].wanted) for key, m in models.items()]
            yield at, steps, sum(g for g, _ in each), math.sqrt(sum(v for _, v in each))


def _limits(formula: Formula, inventory: Inventory, kitchen: Kitchen, engine: Engine) -> set[str]:
    figures = compute(formula, inventory=inventory, kitchen=kitchen, engine=engine)
    return {c.rule for c in counsel_on(figures) if c.severity == "limit"}


def _allowed(
    formula: Formula,
    lever: Lever,
    value: float,
    now: float,
    steps: float,
    limits: set[str],
    inventory: Inventory,
    kitchen: Kitchen,
    engine: Engine,
) -> Change | None:
    """The change, where the formula can be changed so and crosses no limit that it keeps now."""
    edit = lever_edit(formula, lever, value, inventory=inventory)
    if edit is None:
        return None
    try:
        changed = apply_edit(formula, edit, inventory=inventory, kitchen=kitchen)
        after = lever_values(changed, inventory=inventory, kitchen=kitchen)[lever.key]
        # A group that is not there cannot be less.
        if abs(after - now) < 0.25 * abs(value - now) or _limits(changed, inventory, kitchen, engine) - limits:
            return None
    except CoreError:
        return None
    label = say(
        f"{lever.more if steps > 0 else lever.less}: {{to}} instead of {{now}}",
        to=lever_amount(lever.key, after),
        now=lever_amount(lever.key, now),
    )
    return Change(label, edit)


def _moves(models: Mapping[ScoreKey, ScoreModel], at: int, steps: float) -> Iterator[ScoreMove]:
    for key, model in models.items():
        move = float(model.mean[1 + at]) * steps
        if abs(move) >= LEAST_MOVE:
            now = float(model.mean[0])
            yield ScoreMove(key, SCALES[key].title, _on_scale(now), _on_scale(now + move), SCALES[key].wanted)


def _nearer(move: ScoreMove) -> float:
    """Squared points that a score comes nearer to where it is wanted."""
    return (move.now - move.wanted) ** 2 - (move.then - move.wanted) ** 2


def _why(
    lever: Lever,
    at: int,
    steps: float,
    moves: Sequence[ScoreMove],
    models: Mapping[ScoreKey, ScoreModel],
    base: Mapping[LeverKey, float],
    cooks: Sequence[ScoredCook],
    form: str,
) -> Iterator[Phrase]:
    """What is off, what the table of faults says of it, and what the cooks say."""
    better = sorted((m for m in moves if _nearer(m) > 0), key=_nearer, reverse=True)
    for move in better[:2]:
        scale = SCALES[move.key]
        end = scale.low if move.now < move.wanted else scale.high
        yield say(
            "{score} stands at {now}, toward “{end}”; wanted {wanted}.",
            score=word(scale.title), now=number(move.now), end=word(end), wanted=number(move.wanted),
        )  # fmt: skip
        for key in lever.little if steps > 0 else lever.much:
            cause = all_causes()[key]
            share = max((p for s, p in cause.makes.items() if s in SHOWS and SHOWS[s][0] == move.key), default=0.0)
            if share > 0 and form in cause.forms:
                yield say(
                    "“{cause}” shows there in about {n} of ten batches.",
                    cause=word(cause.title), n=count(max(1, round(10 * share))),
                )  # fmt: skip
    apart = [c for c in cooks if abs(c.levers[lever.key] - base[lever.key]) >= TRIED_APART * lever.step]
    if not apart:
        yield say("Nobody here has cooked it otherwise yet: this is the table of faults alone.")
        return
    told = better[0] if better else (moves[0] if moves else None)
    if told is not None:
        slope = float(models[told.key].mean[1 + at]) * steps
        table = float(models[told.key].prior[1 + at]) * steps
        yield say(
            "{n} of {all} scored cooks were made otherwise: with them {score} moves by {slope} points, by the table "
            "alone by {table}.",
            n=count(len(apart)), all=count(len(cooks)), score=word(told.title.lower()), slope=number(slope),
            table=number(table),
        )  # fmt: skip


def _message(found: Sequence[NextChange], scores: Sequence[ScoreNow]) -> Phrase:
    if found:
        return say("One change at a time: what it did can then be told.")
    if all(abs(s.now - s.wanted) <= NEAR_POINTS for s in scores):
        return say("Every score is within half a point of where it is wanted: cook it again as it is.")
    return say("No single change of the formula promises more than chance. Look at how it was cooked.")
