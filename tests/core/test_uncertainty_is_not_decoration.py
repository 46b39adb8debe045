"""Changing what is known of one meat must move every figure of uncertainty as a draw from the larder alone predicts."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from decimal import Decimal

import numpy as np
import pytest

from formulas import blended, smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.inventory.evidence import Evidence
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.model.formula import BlendPart

DRAWS = 200_000
KEYS = ("chuck", "brisket-point", "rib", "round", "trim-50", "mince-unknown", "short-rib-plate", "sirloin")


def _lot(meat: str, evidence: tuple[Evidence, ...]) -> Lot:
    return Lot("box", meat, "Box", 9000, Decimal("9"), date(2026, 11, 20), None, evidence)


def _drawn(inventory: Inventory, parts: tuple[BlendPart, ...], tested: str, found: Evidence | None, seed: int) -> dict:
    """Draw deliveries from the larder's ranges; keep those that agree with the evidence, by weight."""
    rng = np.random.default_rng(seed)
    draws, weight = {}, np.ones(DRAWS)
    for part in parts:
        fat = inventory.meat(part.meat).fat
        z = rng.standard_normal(DRAWS)
        x = np.clip(fat.middle_frac + np.where(z < 0, fat.sd_below, fat.sd_above) * z, 0, 1)
        if part.meat == tested and found is not None:
            # One delivery in fifty is not what its name says.
            wrong = rng.random(DRAWS) < 0.02
            x = np.where(wrong, rng.random(DRAWS), x)
            weight = np.exp(-0.5 * ((x - found.fat_frac) / found.sd_frac) ** 2)
        draws[part.meat] = x
    blend = sum(p.share_frac * draws[p.meat] for p in parts)
    order = np.argsort(blend)
    grown = np.cumsum(weight[order]) / weight.sum()
    mean = {k: np.average(v, weights=weight) for k, v in draws.items()}
    variance = {
        p.meat: p.share_frac**2 * np.average((draws[p.meat] - mean[p.meat]) ** 2, weights=weight) for p in parts
    }
    return {
        "low": float(np.interp(0.05, grown, blend[order])),
        "high": float(np.interp(0.95, grown, blend[order])),
        "in": float(weight[(blend >= 0.20) & (blend <= 0.30)].sum() / weight.sum()),
        "most": max(variance, key=variance.__getitem__),
    }


def _evaluated(parts: tuple[BlendPart, ...], tested: str, found: Evidence | None) -> Evaluation:
    meats = starter_inventory().meats.values()
    lots = [_lot(tested, (found,) if found else ())]
    lotted = tuple(replace(p, lot="box") if p.meat == tested else p for p in parts)
    return evaluate(smash(parts=lotted), inventory=Inventory.of(meats, lots), kitchen=yard_galley())


@pytest.mark.parametrize("seed", range(8))
def test_evidence_on_one_meat_moves_band_chance_and_ranking_as_the_draw_does(seed: int) -> None:
    rng = np.random.default_rng(seed)
    keys = [str(k) for k in rng.choice(KEYS, size=3, replace=False)]
    raw = rng.uniform(0.2, 1.0, size=3)
    parts = tuple(BlendPart(k, float(s)) for k, s in zip(keys, raw / raw.sum(), strict=True))
    tested = keys[int(rng.integers(3))]
    inventory = starter_inventory()
    usual = inventory.meat(tested).fat.usual_frac
    found = Evidence("fat-test", float(np.clip(usual + rng.normal(0, 0.02), 0.01, 0.99)), 0.02)
    for evidence in (None, found):
        blend = _evaluated(parts, tested, evidence).blend
        draw = _drawn(inventory, parts, tested, evidence, seed)
        # The lot's posterior is handed on as its ends and its mean, so the sum is right to about a fifth of a point.
        assert blend.fat_low_frac == pytest.approx(draw["low"], abs=0.003)
        assert blend.fat_high_frac == pytest.approx(draw["high"], abs=0.003)
        assert blend.chance_in_band == pytest.approx(draw["in"], abs=0.03)
        most = max(blend.parts, key=lambda p: p.uncertainty_share_frac)
        runner_up = sorted(p.uncertainty_share_frac for p in blend.parts)[-2]
        if most.uncertainty_share_frac - runner_up > 0.05:
            assert most.meat == draw["most"]


def test_counsel_on_doubt_falls_silent_when_the_box_was_tested() -> None:
    parts = blended(mince_unknown=1.0)
    overrides = [c.rule for c in _evaluated(parts, "mince-unknown", None).counsel]
    evidence_of = [c.rule for c in _evaluated(parts, "mince-unknown", Evidence("fat-test", 0.22, 0.02)).counsel]
    assert "meat.fat-uncertain" in overrides
    assert "meat.fat-uncertain" not in evidence_of


def test_no_band_is_a_constant_of_the_dish() -> None:
    widths = {
        round(b.fat_high_frac - b.fat_low_frac, 4)
        for b in (_evaluated(blended(**{k.replace("-", "_"): 1.0}), k, None).blend for k in KEYS)
    }
    assert len(widths) == len(KEYS)
