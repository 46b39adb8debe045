"""Blind tastings: orders and codes, exact verdicts against published tables and SciPy, and answers that cannot be."""

from __future__ import annotations

import math
from collections import Counter
from dataclasses import replace
from itertools import pairwise, product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.tasting.serving import MOST_TASTERS, serving_plan, williams
from vianda.core.tasting.tasting import TastedVersion, TasterAnswer, Tasting, check_answers, places_of, result_of
from vianda.core.tasting.verdicts import (
    critical_count,
    friedman,
    friedman_p,
    paired_verdict,
    ranking_verdict,
    triangle_verdict,
)

KINDS = st.sampled_from(["triangle", "paired", "ranking"])


@given(KINDS, st.integers(3, MOST_TASTERS), st.integers(0, 2**31 - 1), st.integers(3, 5))
def test_a_sheet_is_blind_and_the_same_again(kind: str, tasters: int, seed: int, ranked: int) -> None:
    versions = ranked if kind == "ranking" else 2
    plan = serving_plan(kind, versions=versions, tasters=tasters, seed=seed)
    assert plan == serving_plan(kind, versions=versions, tasters=tasters, seed=seed)
    assert [place.taster for place in plan] == list(range(1, tasters + 1))
    codes = [p.code for place in plan for p in place.samples]
    # No code is met twice: nobody learns one from a neighbour.
    assert len(set(codes)) == len(codes)
    assert all(100 <= code <= 999 for code in codes)
    for place in plan:
        counts = sorted(Counter(p.version for p in place.samples).values())
        assert counts == {"triangle": [1, 2], "paired": [1, 1], "ranking": [1] * versions}[kind]


@pytest.mark.parametrize(("kind", "versions", "orders"), [("triangle", 2, 6), ("paired", 2, 2), ("ranking", 4, 4)])
def test_every_order_is_served_as_often_as_the_others(kind: str, versions: int, orders: int) -> None:
    plan = serving_plan(kind, versions=versions, tasters=4 * orders, seed=9)
    served = Counter(tuple(p.version for p in place.samples) for place in plan)
    assert len(served) == orders
    assert set(served.values()) == {4}


@pytest.mark.parametrize("versions", [2, 3, 4, 5, 6])
def test_williams_orders_are_balanced(versions: int) -> None:
    rows = williams(versions)
    for place in range(versions):
        assert len(set(Counter(row[place] for row in rows).values())) == 1
    after = Counter(pair for row in rows for pair in pairwise(row))
    assert len(after) == versions * (versions - 1)
    assert len(set(after.values())) == 1


@pytest.mark.parametrize(
    ("kind", "versions", "tasters"),
    [("triangle", 3, 6), ("paired", 3, 6), ("ranking", 2, 6), ("ranking", 6, 6), ("paired", 2, 2), ("paired", 2, 61)],
)
def test_what_cannot_be_served_is_refused(kind: str, versions: int, tasters: int) -> None:
    with pytest.raises(OutOfRangeError):
        serving_plan(kind, versions=versions, tasters=tasters, seed=1)


# Least right answers of a triangle at one in twenty, ISO 4120 and Roessler et al. 1978 (from memory).
TRIANGLE = {5: 4, 6: 5, 7: 5, 8: 6, 9: 6, 10: 7, 11: 7, 12: 8, 15: 9, 20: 11, 24: 13, 30: 15}
# Least agreeing choices of a paired preference, two-sided, one in twenty (from memory).
PAIRED = {6: 6, 8: 8, 10: 9, 12: 10, 15: 12, 20: 15, 30: 21}


@pytest.mark.parametrize(("tasters", "needed"), TRIANGLE.items())
def test_a_triangle_needs_what_the_table_says(tasters: int, needed: int) -> None:
    assert critical_count(tasters, 1 / 3, sides=1) == needed
    assert triangle_verdict(needed, tasters).found
    assert not triangle_verdict(needed - 1, tasters).found


@pytest.mark.parametrize(("tasters", "needed"), PAIRED.items())
def test_a_preference_needs_what_the_table_says(tasters: int, needed: int) -> None:
    assert critical_count(tasters, 0.5, sides=2) == needed
    assert paired_verdict(needed, tasters).found
    assert paired_verdict(tasters - needed, tasters).found
    assert not paired_verdict(needed - 1, tasters).found


def test_exact_chances_are_scipy_s() -> None:
    for n, right in ((7, 4), (12, 9), (30, 11)):
        assert triangle_verdict(right, n).p_value == pytest.approx(
            stats.binomtest(right, n, 1 / 3, alternative="greater").pvalue
        )
        assert paired_verdict(right, n).p_value == pytest.approx(stats.binomtest(right, n).pvalue)


# Hollander & Wolfe, Nonparametric Statistical Methods, table A.22: three and four treatments (from memory).
FRIEDMAN = [
    (3, 3, 6.0, 0.028), (3, 4, 6.5, 0.042), (3, 5, 6.4, 0.039), (3, 6, 7.0, 0.029), (3, 8, 6.25, 0.047),
    (3, 10, 6.2, 0.046), (4, 3, 7.4, 0.033), (4, 4, 7.8, 0.036),
]  # fmt: skip


@pytest.mark.parametrize(("versions", "tasters", "statistic", "chance"), FRIEDMAN)
def test_friedman_s_exact_chances_are_the_table_s(versions: int, tasters: int, statistic: float, chance: float) -> None:
    assert friedman_p(statistic, versions=versions, tasters=tasters) == pytest.approx(chance, abs=0.0006)


def test_friedman_is_counted_out_rightly() -> None:
    """Every way in which four tasters can rank three, in turn."""
    orders = [(1, 2, 3), (1, 3, 2), (2, 1, 3), (2, 3, 1), (3, 1, 2), (3, 2, 1)]
    found = Counter(
        round(friedman([sum(r[v] for r in rows) for v in range(3)], 4), 9) for rows in product(orders, repeat=4)
    )
    for q in found:
        chance = sum(n for other, n in found.items() if other >= q - 1e-9) / 6**4
        assert friedman_p(q, versions=3, tasters=4) == pytest.approx(chance)


def test_many_tasters_come_to_scipy_s_statistic_and_its_chance() -> None:
    rng = np.random.default_rng(3)
    ranks = [tuple(int(x) + 1 for x in rng.permutation(5)) for _ in range(40)]
    found = ranking_verdict(ranks)
    whole = stats.friedmanchisquare(*zip(*ranks, strict=True))
    sums = [sum(row[v] for row in ranks) for v in range(5)]
    assert friedman(sums, 40) == pytest.approx(whole.statistic)
    assert found.p_value == pytest.approx(whole.pvalue)


def test_six_tasters_find_only_a_large_difference() -> None:
    found = triangle_verdict(3, 6)
    assert found.smallest == pytest.approx(0.8, abs=0.02)
    # Its power, worked out by hand from the least count that the table gives.
    right = found.smallest + (1 - found.smallest) / 3
    assert stats.binom.sf(4, 6, right) >= 0.8 > stats.binom.sf(4, 6, right - 0.02)
    assert triangle_verdict(30, 60).smallest < 0.35
    # Five who all agree are still no verdict: nothing can be found at all.
    assert paired_verdict(5, 5).smallest is None
    assert not paired_verdict(5, 5).found
    assert ranking_verdict([(1, 2, 3)] * 12).smallest < ranking_verdict([(1, 2, 3)] * 6).smallest


def test_the_power_of_a_ranking_is_what_its_words_promise() -> None:
    """Drawn anew with another generator: the difference it names is found in about four of five."""
    verdict = ranking_verdict([(1, 2, 3)] * 10)
    rng, found = np.random.default_rng(77), 0
    for _ in range(600):
        liked = rng.normal(size=(10, 3)) + np.linspace(0, verdict.smallest, 3)
        ranks = stats.rankdata(liked, axis=1).astype(int)
        q = friedman(ranks.sum(axis=0).tolist(), 10)
        found += friedman_p(round(q, 9), versions=3, tasters=10) < 0.05
    assert found / 600 == pytest.approx(0.8, abs=3 * math.sqrt(0.16 / 600) + 0.04)


VERSIONS = (TastedVersion(1, "First"), TastedVersion(2, "Hotter"))
TRIANGLE_SHEET = Tasting("triangle", VERSIONS, 6, 4)


def _odd_codes(tasting: Tasting) -> list[int]:
    found = []
    for place in places_of(tasting):
        versions = [p.version for p in place.samples]
        found.append(next(p.code for p in place.samples if versions.count(p.version) == 1))
    return found


def test_a_triangle_counts_who_named_the_odd_one() -> None:
    assert result_of(TRIANGLE_SHEET) is None
    odd = _odd_codes(TRIANGLE_SHEET)
    other = places_of(TRIANGLE_SHEET)[5].samples[0].code
    other = other if other != odd[5] else places_of(TRIANGLE_SHEET)[5].samples[1].code
    answers = tuple(TasterAnswer(n + 1, (code,)) for n, code in enumerate([*odd[:5], other]))
    found = result_of(replace(TRIANGLE_SHEET, answers=answers))
    assert found is not None
    assert found.verdict.says.amounts["right"].value == 5
    assert found.verdict.found


def test_a_preference_names_the_version_behind_the_codes() -> None:
    sheet = Tasting("paired", VERSIONS, 8, 4)
    second = [next(p.code for p in place.samples if p.version == 1) for place in places_of(sheet)]
    found = result_of(replace(sheet, answers=tuple(TasterAnswer(n + 1, (c,)) for n, c in enumerate(second))))
    assert found is not None
    assert (found.best, [t.count for t in found.tally], found.verdict.found) == ("second", [0, 8], True)
    tied = [*second[:4], *(next(p.code for p in place.samples if p.version == 0) for place in places_of(sheet)[4:])]
    even = result_of(replace(sheet, answers=tuple(TasterAnswer(n + 1, (c,)) for n, c in enumerate(tied))))
    assert even is not None
    assert (even.best, even.verdict.p_value) == ("", 1.0)


def test_a_ranking_gives_mean_ranks() -> None:
    sheet = Tasting("ranking", (*VERSIONS, TastedVersion(3, "Leaner")), 5, 4)
    answers = []
    for place in places_of(sheet):
        code = {p.version: p.code for p in place.samples}
        answers.append(TasterAnswer(place.taster, (code[2], code[0], code[1])))
    found = result_of(replace(sheet, answers=tuple(answers)))
    assert found is not None
    assert [t.mean_rank for t in found.tally] == [2.0, 3.0, 1.0]
    assert found.says_best is not None
    assert found.says_best.amounts["name"].text == "Leaner"
    assert found.verdict.found


@pytest.mark.parametrize(
    ("answers", "said"),
    [
        ([(7, 0)], "no taster 7"), ([(1, 0), (1, 0)], "answered already"), ([(1, None)], "not in front of"),
        ([(1, 0, 1)], "names one"),
    ],
)  # fmt: skip
def test_answers_that_nobody_can_have_given_are_refused(answers: list, said: str) -> None:
    places = {p.taster: p for p in places_of(TRIANGLE_SHEET)}
    theirs = places[2].samples[0].code

    def codes(taster: int, at: tuple) -> tuple[int, ...]:
        mine = places.get(taster, places[1]).samples
        return tuple(theirs if n is None else mine[n].code for n in at)

    given_ = tuple(TasterAnswer(taster, codes(taster, tuple(at))) for taster, *at in answers)
    with pytest.raises(OutOfRangeError, match=said):
        check_answers(replace(TRIANGLE_SHEET, answers=given_))


def test_a_rank_left_out_is_refused() -> None:
    sheet = Tasting("ranking", (*VERSIONS, TastedVersion(3, "Leaner")), 3, 4)
    code = places_of(sheet)[0].samples[0].code
    for codes in ((code,), (code, code, code)):
        with pytest.raises(OutOfRangeError, match="ranks each"):
            check_answers(replace(sheet, answers=(TasterAnswer(1, codes),)))
