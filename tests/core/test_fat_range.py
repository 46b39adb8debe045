"""The distribution of a blend against a Monte-Carlo draw from the larder alone."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq

from vianda.core.inventory.evidence import Evidence, disagrees, evidence_of, updated, width_after_test
from vianda.core.inventory.fat_range import FatRange, FatSpread, spread_of
from vianda.core.inventory.inventory import starter_inventory

INVENTORY = starter_inventory()
DRAWS = 200_000
# Half of a 90 % range by the standard deviation: NIST e-Handbook, 1.3.6.7.1.
Z_90 = 1.6448536


def _draw(fat: FatRange, rng: np.random.Generator) -> np.ndarray:
    """Deliveries of a meat: half of them below a middle, half above, each half of a normal; the mean is right."""
    z = rng.standard_normal(DRAWS)
    low, mean, high = fat.low_frac, fat.usual_frac, fat.high_frac
    if low == high:
        return np.full(DRAWS, mean)

    def off(middle: float) -> float:
        return middle + ((high - middle) - (middle - low)) / Z_90 / np.sqrt(2 * np.pi) - mean

    middle = brentq(off, low - (high - low), high + (high - low))
    return np.clip(middle + np.where(z < 0, middle - low, high - middle) / Z_90 * z, 0.0, 1.0)


def mean_of(spread: FatSpread) -> float:
    return float((spread.at_frac * spread.mass).sum())


def _batches(shares: list[float], fats: list[FatRange], seed: int) -> np.ndarray:
    rng = np.random.default_rng(seed)
    return sum(s * _draw(f, rng) for s, f in zip(shares, fats, strict=True))


BLENDS = [
    {"chuck": 1.0},
    {"chuck": 0.55, "short-rib-plate": 0.25, "brisket-flat": 0.20},
    {"sirloin": 0.85, "fat-trim": 0.15},
    {"mince-unknown": 0.5, "suet": 0.03, "round": 0.47},
    dict.fromkeys(("chuck", "round", "rib", "bacon", "trim-50", "shank", "veal-ground", "pork-belly"), 0.125),
]


@pytest.mark.parametrize("blend", BLENDS, ids=lambda b: "+".join(b))
def test_quantiles_and_chances_are_those_of_a_draw(blend: dict[str, float]) -> None:
    # 200 000 draws: the 5 % quantile of these blends has a standard error of at most 0.02 points, a chance of 0.0011.
    shares, fats = list(blend.values()), [INVENTORY.meat(k).fat for k in blend]
    spread, batches = spread_of(shares, fats), _batches(shares, fats, seed=3)
    for chance in (0.05, 0.5, 0.95):
        assert spread.quantile(chance) == pytest.approx(float(np.quantile(batches, chance)), abs=0.001)
    for limit in (0.15, 0.20, 0.25, 0.30):
        assert spread.chance_above(limit) == pytest.approx(float((batches > limit).mean()), abs=0.005)
    assert spread.chance_within(0.18, 0.25) == pytest.approx(
        float(((batches >= 0.18) & (batches <= 0.25)).mean()), abs=0.006
    )


def test_one_meat_has_its_own_quantiles() -> None:
    spread = spread_of([1.0], [FatRange(0.14, 0.19, 0.28)])
    assert [spread.quantile(c) for c in (0.05, 0.95)] == pytest.approx([0.14, 0.28], abs=0.0005)
    assert mean_of(spread) == pytest.approx(0.19, abs=1e-4)
    assert spread.chance_above(0.28) == pytest.approx(0.05, abs=0.001)


def test_what_is_known_exactly_has_no_doubt() -> None:
    spread = spread_of([0.5, 0.5], [FatRange(0.1, 0.1, 0.1), FatRange(0.3, 0.3, 0.3)])
    assert spread.quantile(0.05) == pytest.approx(0.2, abs=1e-5)
    assert (spread.chance_above(0.1999), spread.chance_above(0.2001)) == (1.0, 0.0)


# Far enough from no fat at all that neither prior nor posterior is cut off there.
SYMMETRIC = st.tuples(st.floats(0.25, 0.5), st.floats(0.005, 0.05))


@given(SYMMETRIC, st.floats(0.0, 1.0), st.floats(0.005, 0.04))
@settings(max_examples=60)
def test_a_symmetric_prior_is_updated_as_the_textbook_says(
    prior: tuple[float, float], away: float, error: float
) -> None:
    # Conjugate normal: precisions add, means are weighted by them. Grid of a tenth of a point.
    usual, half = prior
    seen = usual + (away - 0.5) * 2 * half
    fat = FatRange(max(0.0, usual - half), usual, usual + half)
    after = updated(fat, [Evidence("fat-test", seen, error)], misnamed_frac=0.0)
    own, test = 1 / fat.sd**2, 1 / error**2
    assert after.usual_frac == pytest.approx((usual * own + seen * test) / (own + test), abs=0.001)
    assert (after.high_frac - after.low_frac) / 2 == pytest.approx(1.6449 / (own + test) ** 0.5, abs=0.001)


def test_two_findings_in_either_order_leave_the_same() -> None:
    prior = INVENTORY.meat("chuck").fat
    one, two = evidence_of("label", 0.20), Evidence("fat-test", 0.23, 0.02)
    assert updated(prior, [one, two]) == updated(prior, [two, one])


def test_the_same_finding_entered_twice_counts_once() -> None:
    prior, found = INVENTORY.meat("mince-unknown").fat, evidence_of("label", 0.20)
    assert updated(prior, [found, found]) == updated(prior, [found])
    assert updated(prior, [found, evidence_of("label", 0.21)]) != updated(prior, [found])


def test_evidence_narrows_and_a_rougher_kind_narrows_less() -> None:
    prior = INVENTORY.meat("mince-unknown").fat
    widths = []
    for kind in ("laboratory", "label", "butcher"):
        after = updated(prior, [evidence_of(kind, 0.20)])
        widths.append(after.high_frac - after.low_frac)
    assert widths == sorted(widths)
    assert widths[-1] < prior.high_frac - prior.low_frac


def test_a_box_with_the_wrong_name_is_believed_over_its_name_and_spoken_of() -> None:
    sirloin = INVENTORY.meat("sirloin").fat
    found = evidence_of("laboratory", 0.45)
    assert updated(sirloin, [found]).usual_frac == pytest.approx(0.45, abs=0.005)
    assert disagrees(sirloin, found)
    assert not disagrees(sirloin, evidence_of("label", 0.10))


def test_a_test_gains_most_where_least_is_known() -> None:
    fats = [INVENTORY.meat(k).fat for k in ("ground-80", "chuck", "mince-unknown")]
    gains = [1 - width_after_test(f) / (1.6449 * f.sd) for f in fats]
    assert gains == sorted(gains)
    assert gains[-1] > 0.6


@pytest.mark.parametrize("share", [0.0, 5e-324, 1e-300, 1e-12, 1e-8])
def test_a_share_next_to_nothing_neither_breaks_nor_moves_the_blend(share: float) -> None:
    alone = spread_of([1.0], [INVENTORY.meat("chuck").fat])
    beside = spread_of([1.0 - share, share], [INVENTORY.meat("chuck").fat, INVENTORY.meat("suet").fat])
    assert beside.quantile(0.95) == pytest.approx(alone.quantile(0.95), abs=1e-4)


@given(st.lists(st.tuples(st.floats(0.02, 0.5), st.floats(0.02, 0.2), st.floats(0.3, 0.7)), min_size=1, max_size=5))
@settings(max_examples=60)
def test_the_fat_on_the_ticket_is_the_mean_of_the_distribution(parts: list[tuple[float, float, float]]) -> None:
    """One definition: Σ share × usual, as ticket, solver and labels state it, is what batches have on average."""
    fats = [FatRange(low, low + place * width, low + width) for low, width, place in parts]
    # Where the tail would pass zero it is cut off there, which moves a mean by more than rounding.
    assume(all(f.middle_frac - 4 * f.sd_below > 0 for f in fats))
    shares = [1.0 / len(fats)] * len(fats)
    headline = sum(s * f.usual_frac for s, f in zip(shares, fats, strict=True))
    assert mean_of(spread_of(shares, fats)) == pytest.approx(headline, abs=2e-4)


@pytest.mark.parametrize("key", [m.key for m in INVENTORY.meats.values()])
def test_every_meat_of_the_larder_has_its_ends_and_its_mean(key: str) -> None:
    fat = INVENTORY.meat(key).fat
    spread = spread_of([1.0], [fat])
    assert mean_of(spread) == pytest.approx(fat.usual_frac, abs=0.0015)
    assert spread.quantile(0.05) == pytest.approx(fat.low_frac, abs=0.001)
    assert spread.quantile(0.95) == pytest.approx(fat.high_frac, abs=0.002)


def test_half_chuck_and_half_point_is_one_figure() -> None:
    """Both usual figures are analyses, that is means: 19 and 25 % make 22.0 %, and that is the distribution's mean."""
    spread = spread_of([0.5, 0.5], [INVENTORY.meat("chuck").fat, INVENTORY.meat("brisket-point").fat])
    usual = (INVENTORY.meat("chuck").fat_usual_frac + INVENTORY.meat("brisket-point").fat_usual_frac) / 2
    assert mean_of(spread) == pytest.approx(usual, abs=5e-4)


@pytest.mark.parametrize(("usual", "met"), [(0.115, True), (0.13, True), (0.185, True), (0.1, False)])
def test_a_very_lopsided_range_keeps_its_mean_as_far_as_it_can(usual: float, met: bool) -> None:
    spread = spread_of([1.0], [FatRange(0.10, usual, 0.20)])
    assert (abs(mean_of(spread) - usual) < 0.001) is met
