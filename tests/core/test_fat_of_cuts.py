"""How fat a cut comes to a kitchen: what tested deliveries say of the next one, and that each counts once."""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

import numpy as np
import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import slipway_smash
from vianda.core.equipment.cut_fat import CutFat
from vianda.core.inventory.evidence import Evidence, evidence_of
from vianda.core.inventory.fat_range import Z_90
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.lot import Lot
from vianda.core.learning.effects import Seen, learn
from vianda.core.learning.fat_of_cuts import SUPPLIER_SHARE, LearntFat, fats_of_cuts, with_fat
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.larder_here import larder_here

CUT = "brisket-flat"


def _lot(n: int, *evidence: Evidence, meat: str = CUT) -> Lot:
    day = date(2026, 10, 1) + timedelta(days=7 * n)
    return Lot(f"{meat}-{n}", meat, f"Norquay, delivery {n}", 5000.0, Decimal("10.10"), day, None, evidence)


def _larder(inventory: Inventory, *lots: Lot) -> Inventory:
    return replace(inventory, lots={lot.key: lot for lot in lots})


def _learnt(inventory: Inventory, *fats: float, in_use: tuple[CutFat, ...] = ()) -> LearntFat:
    lots = [_lot(n, evidence_of("laboratory", fat)) for n, fat in enumerate(fats)]
    [found] = fats_of_cuts(_larder(inventory, *lots), in_use)
    return found


@pytest.fixture
def table(inventory):
    return inventory.meat(CUT).fat


def test_tests_move_the_range_as_far_as_they_are_worth(inventory, table) -> None:
    wide = table.high_frac - table.low_frac
    widths, means = [], []
    for n in (1, 3, 10, 30):
        found = _learnt(inventory, *([table.usual_frac + 0.05, table.usual_frac + 0.03] * n)[:n])
        widths.append(found.posterior.high - found.posterior.low)
        means.append(found.posterior.usual)
        assert found.counted == n
        assert found.prior.usual == table.usual_frac
    assert table.usual_frac < means[0] < means[1] < means[2] < means[3] < table.usual_frac + 0.05
    assert wide > widths[0] > widths[2]
    # What differs from animal to animal stays, however many were tested.
    assert widths[-1] > 0.3 * wide


def test_the_posterior_is_that_of_brute_force_integration(inventory, table) -> None:
    """Mean of the supplier on a grid; the error's scale as it turned out."""
    fats = (table.usual_frac + 0.04, table.usual_frac - 0.01, table.usual_frac + 0.05)
    found = _learnt(inventory, *fats)
    between, own = (table.sd * math.sqrt(s) for s in (SUPPLIER_SHARE, 1 - SUPPLIER_SHARE))
    error = math.hypot(own, 0.005)
    scale = learn([Seen(f - table.usual_frac, error, (CUT,)) for f in fats], {CUT: between}).scale
    m = np.linspace(table.usual_frac - 0.4, table.usual_frac + 0.4, 20_001)
    log = -0.5 * ((m - table.usual_frac) / between) ** 2
    for fat in fats:
        log = log - 0.5 * ((m - fat) / (scale * error)) ** 2
    p = np.exp(log - log.max())
    p /= p.sum()
    mean = float((p * m).sum())
    spread = math.sqrt(float((p * (m - mean) ** 2).sum()) + (scale * own) ** 2)
    assert found.posterior.usual == pytest.approx(mean, abs=1e-5)
    assert found.posterior.high - mean == pytest.approx(Z_90 * spread, rel=1e-3)


def test_ranges_hold_what_comes_next(inventory, table) -> None:
    """Suppliers drawn from the prior, eight tested deliveries each: nine in ten of the ninth lie in the range."""
    rng = np.random.default_rng(11)
    held, narrower = 0, []
    for _ in range(300):
        supplier = table.usual_frac + rng.normal(0, table.sd * math.sqrt(SUPPLIER_SHARE))
        fats = np.clip(rng.normal(supplier, table.sd * math.sqrt(1 - SUPPLIER_SHARE), 9), 0.005, 0.6)
        tests = [max(0.0, float(f + rng.normal(0, 0.005))) for f in fats[:-1]]
        found = _learnt(inventory, *tests)
        held += found.posterior.low <= fats[-1] <= found.posterior.high
        narrower.append((found.posterior.high - found.posterior.low) / (table.high_frac - table.low_frac))
    assert 0.85 <= held / 300 <= 0.95
    assert np.mean(narrower) < 0.85


def test_a_label_or_a_word_is_no_test_and_several_tests_of_one_delivery_are_one(inventory, table) -> None:
    told = _lot(0, evidence_of("butcher", 0.3), evidence_of("label", 0.3))
    assert fats_of_cuts(_larder(inventory, told), ()) == ()
    once = fats_of_cuts(_larder(inventory, _lot(0, Evidence("fat-test", 0.2, 0.02))), ())[0]
    twice = fats_of_cuts(_larder(inventory, _lot(0, *[Evidence("fat-test", 0.2, 0.02, d) for d in ("a", "b")])), ())[0]
    assert (once.counted, twice.counted) == (1, 1)
    assert twice.data[0].sd_frac == pytest.approx(0.02 / math.sqrt(2))
    assert twice.data[0].fat_frac == pytest.approx(0.2)
    # Entered twice it is known once.
    double = _lot(0, Evidence("fat-test", 0.2, 0.02), Evidence("fat-test", 0.2, 0.02))
    assert fats_of_cuts(_larder(inventory, double), ())[0].posterior == once.posterior


def test_a_delivery_that_was_something_else_is_named_and_does_not_count(inventory, table) -> None:
    fats = [table.usual_frac + d for d in (0.01, -0.01, 0.0, 0.02, -0.02, 0.01)]
    found = _learnt(inventory, *fats, 0.62)
    assert [d.outlier for d in found.data] == [False] * 6 + [True]
    assert found.counted == 6
    assert found.posterior.usual == pytest.approx(table.usual_frac, abs=0.01)


def test_ground_meat_goes_by_its_label(inventory) -> None:
    ground = next(m for m in inventory.meats.values() if m.labelled)
    lot = _lot(0, evidence_of("laboratory", 0.1), meat=ground.key)
    assert fats_of_cuts(_larder(inventory, lot), ()) == ()


def test_what_is_used_moves_blends_of_untested_deliveries_alone(inventory, kitchen, table) -> None:
    tested = [_lot(n, evidence_of("laboratory", table.usual_frac + 0.06)) for n in range(6)]
    new = _lot(9)
    told = _lot(10, evidence_of("label", table.usual_frac))
    held = _larder(inventory, *tested, new, told)
    learnt = {f.meat: f for f in fats_of_cuts(held, ())}
    used = replace(kitchen, fats=with_fat((), learnt, CUT, use=True))
    here = larder_here(held, used)
    fatter = learnt[CUT].posterior.usual
    assert here.fat_of(CUT).usual_frac == pytest.approx(fatter, abs=1e-3)
    assert here.fat_of(CUT, new.key).usual_frac == pytest.approx(fatter, abs=1e-3)
    # A label is an update of what comes here; a delivery that taught it counts once.
    assert held.fat_of(CUT, told.key).usual_frac < here.fat_of(CUT, told.key).usual_frac < fatter
    assert here.fat_of(CUT, tested[0].key) == larder_here(held, kitchen).fat_of(CUT, tested[0].key)
    # Learnt again from the same deliveries it is the same, and no news.
    [again] = fats_of_cuts(here, used.fats)
    assert again.posterior == learnt[CUT].posterior
    assert not again.news
    assert learnt[CUT].news
    blend = [compute(slipway_smash(), inventory=larder_here(held, k), kitchen=k).meat.blend for k in (kitchen, used)]
    assert blend[1].fat_frac > blend[0].fat_frac
    assert with_fat(used.fats, learnt, CUT, use=False) == ()
    assert with_fat(used.fats, {}, CUT, use=True) == used.fats


@pytest.mark.parametrize("ends", [(0.2, 0.1, 0.3), (0.1, 0.3, 0.2), (-0.1, 0.1, 0.2), (0.1, 0.2, 1.1)])
def test_a_range_that_does_not_rise_is_refused(ends) -> None:
    with pytest.raises(OutOfRangeError):
        CutFat(CUT, *ends)
