"""Cuts from one knife turn out fat or lean together: the blend's range is wider, its mean the same."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import norm

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.blend.blend import blend_figures
from vianda.core.demo.formulas import slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import SHARED_TRIM_FRAC
from vianda.core.inventory.evidence import EvidenceKind, evidence_of
from vianda.core.inventory.fat_range import FatRange, spread_of
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.model.formula import BlendPart
from vianda.core.target.program import program_of
from vianda.core.target.solve import solve
from vianda.core.target.wish import Candidate, Wish

APART = starter_inventory()
ONE_HAND = APART.trimmed_by(0.6)


def _drawn(shares: list[float], ranges: list[FatRange], n: int = 400_000) -> np.ndarray:
    """The same copula by drawing, written on its own: scores, then each range's quantiles by its two halves."""
    rng = np.random.default_rng(11)
    level = rng.standard_normal(n)
    total = np.zeros(n)
    for share, fat in zip(shares, ranges, strict=True):
        c = fat.shared_frac
        score = c * level + np.sqrt(1 - c * c) * rng.standard_normal(n)
        chance, w = norm.cdf(score), fat.below_share
        low = fat.middle_frac + fat.sd_below * norm.ppf(np.clip(chance / (2 * w), 1e-12, 0.5))
        high = fat.middle_frac + fat.sd_above * norm.ppf(np.clip((chance - 2 * w + 1) / (2 * (1 - w)), 0.5, 1 - 1e-12))
        total += share * np.clip(np.where(chance < w, low, high), 0, 1)
    return total


@pytest.mark.parametrize("correlation", [0.3, 0.6])
@pytest.mark.parametrize("keys", [("chuck", "brisket-point"), ("chuck", "brisket-flat", "trim-50", "sirloin")])
def test_the_distribution_is_that_of_a_large_draw(correlation: float, keys: tuple[str, ...]) -> None:
    inventory = APART.trimmed_by(correlation)
    ranges = [inventory.fat_of(k) for k in keys]
    shares = [1 / len(keys)] * len(keys)
    ours, drawn = spread_of(shares, ranges), _drawn(shares, ranges)
    for chance in (0.05, 0.25, 0.5, 0.75, 0.95):
        # 400,000 draws leave 0.0002 or so at the ends.
        assert ours.quantile(chance) == pytest.approx(float(np.quantile(drawn, chance)), abs=6e-4)


def test_one_hand_widens_and_leaves_the_mean() -> None:
    parts = (BlendPart("chuck", 0.5), BlendPart("brisket-point", 0.5))
    apart, together = (
        blend_figures(parts, inventory=i, batch_mass_g=1000, step_g=1, band_frac=(0.18, 0.25))
        for i in (APART, ONE_HAND)
    )
    assert together.fat_frac == apart.fat_frac
    widened = (together.fat_high_frac - together.fat_low_frac) / (apart.fat_high_frac - apart.fat_low_frac)
    # Two parts of like spread: √(1 + 0.6) = 1.26.
    assert widened == pytest.approx(1.26, abs=0.03)
    assert together.chance_in_band < apart.chance_in_band
    assert sum(p.uncertainty_share_frac for p in together.parts) == pytest.approx(1)
    # A test of one of two that move together leaves more than nothing, and less than before.
    assert all(p.tested_width_frac < together.fat_high_frac - together.fat_low_frac for p in together.parts)


@settings(max_examples=60, deadline=None)
@given(st.lists(st.sampled_from(sorted(APART.meats)), min_size=2, max_size=5, unique=True), st.floats(0.05, 0.9))
def test_correlation_never_narrows_a_blend(keys: list[str], correlation: float) -> None:
    shares = [1 / len(keys)] * len(keys)
    apart = spread_of(shares, [APART.fat_of(k) for k in keys])
    inventory = APART.trimmed_by(correlation)
    together = spread_of(shares, [inventory.fat_of(k) for k in keys])
    width = [s.quantile(0.95) - s.quantile(0.05) for s in (apart, together)]
    assert width[1] >= width[0] - 5e-4
    mean = [float(s.at_frac @ s.mass) for s in (apart, together)]
    assert mean[1] == pytest.approx(mean[0], abs=5e-4)


def test_labelled_mince_and_rendered_fat_do_not_follow_the_knife() -> None:
    for key in ("ground-80", "ground-90", "suet"):
        assert ONE_HAND.fat_of(key) == APART.fat_of(key)
    assert ONE_HAND.fat_of("trim-50").shared_frac > 0


@pytest.mark.parametrize(("kind", "follows"), [("butcher", True), ("fat-test", False), ("laboratory", False)])
def test_only_what_is_measured_frees_a_lot_from_the_knife(kind: EvidenceKind, follows: bool) -> None:
    lot = Lot("l1", "chuck", "Tuesday", 5000, Decimal(11), date(2026, 11, 3), None, (evidence_of(kind, 0.2),))
    held = Inventory.of(APART.meats.values(), [lot]).trimmed_by(0.6)
    shared = held.fat_of("chuck", "l1").shared_frac
    whole = held.fat_of("chuck").shared_frac
    assert whole == pytest.approx(0.6**0.5)
    assert (shared == pytest.approx(whole)) is follows
    if not follows:
        assert shared < whole / 1.5


def test_the_solvers_margin_has_the_slope_it_says() -> None:
    wish = Wish((Candidate("chuck"), Candidate("brisket-point"), Candidate("ground-80")), 0.15, 0.25)
    program = program_of(wish, inventory=ONE_HAND, batch_mass_g=1000, grind_loss_frac=0.0)
    at = np.array([0.5, 0.3, 0.2])
    sd, slope = program.spread_gradient(at)
    for i in range(3):
        step = np.zeros(3)
        step[i] = 1e-6
        numeric = (program.spread_gradient(at + step)[0] - program.spread_gradient(at - step)[0]) / 2e-6
        assert slope[i] == pytest.approx(numeric, rel=1e-4)
    assert sd == pytest.approx(float(slope @ at))


def test_the_surest_blend_states_the_chance_of_its_own_distribution() -> None:
    keys = ("chuck", "brisket-point", "sirloin", "ground-80")
    wish = Wish(tuple(Candidate(k) for k in keys), 0.18, 0.22, aim="surest")
    apart, together = (
        solve(wish, inventory=i, batch_mass_g=1000, step_g=5, grind_loss_frac=0.0)[0] for i in (APART, ONE_HAND)
    )
    assert together.chance_in_band <= apart.chance_in_band + 1e-6
    spread = spread_of(together.shares_frac, [ONE_HAND.fat_of(m) for m in together.meats])
    assert together.chance_in_band == pytest.approx(spread.chance_within(0.18, 0.22), abs=2e-3)


@pytest.mark.parametrize("correlation", [-0.1, 1.0, float("nan")])
def test_a_correlation_outside_its_range_is_refused(correlation: float) -> None:
    with pytest.raises(OutOfRangeError, match="correlation"):
        replace(FatRange(0.1, 0.2, 0.3), shared_frac=correlation)


def test_a_kitchen_says_who_trims_and_the_working_says_so() -> None:
    from vianda.core.evaluation.evaluate import sheets

    assert SHARED_TRIM_FRAC == {"separate": 0.0, "one-butcher": 0.3, "one-hand": 0.6}
    kitchen = replace(yard_galley(), trimmed_by="one-hand")
    said = sheets(slipway_smash(), inventory=APART.trimmed_by(kitchen.shared_trim_frac), kitchen=kitchen).workings[
        "lean_to_fat"
    ]
    assert "correlate by 0.6" in said.source
    apart = sheets(slipway_smash(), inventory=APART, kitchen=yard_galley()).workings["lean_to_fat"]
    assert "independent" in apart.source
