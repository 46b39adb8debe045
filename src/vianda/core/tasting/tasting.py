"""A tasting as it is kept: which versions, how many tasters, and what they answered by the codes they saw."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len

from vianda.core.basis import phrase as ph
from vianda.core.basis.bounds import Name
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Phrase, say
from vianda.core.tasting.serving import MOST_RANKED, MOST_TASTERS, Place, TastingKind, serving_plan
from vianda.core.tasting.verdicts import TastingVerdict, paired_verdict, ranking_verdict, triangle_verdict

Code = Annotated[int, Ge(100), Le(999)]


@dataclass(frozen=True, slots=True)
class TastedVersion:
    """One version that is tasted: a kept one by its number, 0 as the formula stood when the tasting was set up."""

    number: Annotated[int, Ge(0), Le(1_000_000)]
    name: Name


@dataclass(frozen=True, slots=True)
class TasterAnswer:
    """What one taster said, in codes: the odd sample, the preferred one, or all from the best to the worst."""

    taster: Annotated[int, Ge(1), Le(MOST_TASTERS)]
    codes: Annotated[tuple[Code, ...], Len(1, MOST_RANKED)]


@dataclass(frozen=True, slots=True)
class Tasting:
    """A tasting. ``seed`` decides orders and codes, so that the same sheet is printed again."""

    kind: TastingKind
    versions: Annotated[tuple[TastedVersion, ...], Len(2, MOST_RANKED)]
    tasters: Annotated[int, Ge(1), Le(MOST_TASTERS)]
    seed: Annotated[int, Ge(0), Le(2_147_483_647)]
    answers: Annotated[tuple[TasterAnswer, ...], Len(0, MOST_TASTERS)] = ()


@dataclass(frozen=True, slots=True)
class VersionTally:
    """What was said of one version: how often it was preferred, or the mean of its ranks; its place, 1 the best."""

    number: int
    name: str
    count: int
    mean_rank: float | None


@dataclass(frozen=True, slots=True)
class TastingResult:
    """What the answers say so far, and of each version; of a triangle there is nothing to say of one version."""

    answered: int
    verdict: TastingVerdict
    tally: tuple[VersionTally, ...]
    best: Literal["", "first", "second"]
    says_best: Phrase | None


def places_of(tasting: Tasting) -> tuple[Place, ...]:
    """Who gets what.

    Parameters
    ----------
    tasting : Tasting
        The tasting.

    Returns
    -------
    tuple[Place, ...]
        One a taster.

    Raises
    ------
    OutOfRangeError
        A number of versions or tasters that the test does not take.
    """
    return serving_plan(tasting.kind, versions=len(tasting.versions), tasters=tasting.tasters, seed=tasting.seed)


def check_answers(tasting: Tasting) -> None:
    """Refuse answers that nobody can have given.

    Parameters
    ----------
    tasting : Tasting
        The tasting with its answers.

    Raises
    ------
    OutOfRangeError
        A taster who is not on the sheet or answers twice, a code that was not in front of them, a rank left out.
    """
    places = {place.taster: place for place in places_of(tasting)}
    answered: set[int] = set()
    for n, answer in enumerate(tasting.answers):
        field = f"/answers/{n}"
        place = places.get(answer.taster)
        if place is None:
            raise OutOfRangeError(f"There is no taster {answer.taster} on this sheet.", field=f"{field}/taster")
        if answer.taster in answered:
            raise OutOfRangeError(f"Taster {answer.taster} answered already.", field=f"{field}/taster")
        answered.add(answer.taster)
        codes = [p.code for p in place.samples]
        for code in answer.codes:
            if code not in codes:
                raise OutOfRangeError(f"{code} was not in front of taster {answer.taster}.", field=f"{field}/codes")
        if tasting.kind == "ranking" and sorted(answer.codes) != sorted(codes):
            raise OutOfRangeError(
                f"Taster {answer.taster} ranks each of the {len(codes)} once.", field=f"{field}/codes"
            )
        if tasting.kind != "ranking" and len(answer.codes) != 1:
            raise OutOfRangeError(f"Taster {answer.taster} names one.", field=f"{field}/codes")


def result_of(tasting: Tasting) -> TastingResult | None:
    """What the answers say.

    Parameters
    ----------
    tasting : Tasting
        The tasting with its answers.

    Returns
    -------
    TastingResult | None
        None before the first answer.

    Raises
    ------
    OutOfRangeError
        An answer that nobody can have given.
    """
    check_answers(tasting)
    if not tasting.answers:
        return None
    version = {p.code: p.version for place in places_of(tasting) for p in place.samples}
    n = len(tasting.answers)
    if tasting.kind == "triangle":
        odd = {place.taster: _odd(place) for place in places_of(tasting)}
        right = sum(answer.codes[0] == odd[answer.taster] for answer in tasting.answers)
        return TastingResult(n, triangle_verdict(right, n), (), "", None)
    if tasting.kind == "paired":
        counts = [sum(version[a.codes[0]] == v for a in tasting.answers) for v in (0, 1)]
        verdict = paired_verdict(counts[0], n)
        tally = tuple(VersionTally(v.number, v.name, counts[at], None) for at, v in enumerate(tasting.versions))
        better = 0 if counts[0] > counts[1] else 1
        if counts[0] == counts[1]:
            return TastingResult(n, verdict, tally, "", None)
        liked = say(
            "“{name}” is preferred by {n}", name=ph.word(tasting.versions[better].name), n=ph.count(counts[better])
        )
        return TastingResult(n, verdict, tally, "second" if better else "first", liked)
    ranks = []
    for answer in tasting.answers:
        place_of = {version[code]: at + 1 for at, code in enumerate(answer.codes)}
        ranks.append([place_of[v] for v in range(len(tasting.versions))])
    means = [sum(row[v] for row in ranks) / n for v in range(len(tasting.versions))]
    firsts = [sum(row[v] == 1 for row in ranks) for v in range(len(tasting.versions))]
    tally = tuple(VersionTally(v.number, v.name, firsts[at], means[at]) for at, v in enumerate(tasting.versions))
    best = min(range(len(means)), key=lambda v: (means[v], v))
    said = say("“{name}” ranks best, at {r}", name=ph.word(tasting.versions[best].name), r=ph.number(means[best]))
    return TastingResult(n, ranking_verdict(ranks), tally, "", said)


def _odd(place: Place) -> int:
    versions = [p.version for p in place.samples]
    return next(p.code for p in place.samples if versions.count(p.version) == 1)
