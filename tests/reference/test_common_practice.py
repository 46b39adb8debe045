"""Check values of the trade: common practice, no published source."""

from __future__ import annotations

import pytest

from vianda.core.basis.units import G_PER_LB
from vianda.core.batch.salt_ledger import FINE_SALT_G_PER_TSP, USUAL_SALT_FRAC
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.styles import all_styles


@pytest.mark.parametrize(
    ("key", "fat", "mass"),
    [
        ("smashed", (0.20, 0.30), (55, 115)),
        ("pre-pressed", (0.18, 0.25), (70, 120)),
        ("grilled", (0.18, 0.25), (110, 170)),
        ("slider", (0.15, 0.25), (35, 60)),
        ("smoked", (0.25, 0.30), (200, 280)),
    ],
)
def test_bands_of_the_styles(key: str, fat: tuple[float, float], mass: tuple[float, float]) -> None:
    style = all_styles()[key]
    assert style.fat_band_frac == fat
    assert style.piece_mass_g == mass


@pytest.mark.parametrize(
    ("key", "low", "usual", "high"),
    [
        ("chuck", 14, 19, 28),
        ("sirloin", 3, 8, 13),
        ("round", 3, 8, 12),
        ("rib", 20, 26, 33),
        ("short-rib-plate", 26, 34, 42),
        ("short-rib-chuck", 14, 19, 26),
        ("brisket-flat", 8, 15, 23),
        ("brisket-point", 18, 25, 36),
        ("flank", 5, 8, 12),
        ("shank", 4, 8, 12),
        ("fat-trim", 60, 75, 90),
    ],
)
def test_fat_ranges_of_the_cuts(key: str, low: float, usual: float, high: float) -> None:
    meat = starter_inventory().meat(key)
    found = [f * 100 for f in (meat.fat_low_frac, meat.fat_usual_frac, meat.fat_high_frac)]
    assert found == pytest.approx([low, usual, high])


def test_the_old_rule_of_teaspoons_to_a_pound_is_the_usual_salt_band() -> None:
    # 1 to 1½ teaspoons of fine salt to a pound: 1.32 to 1.98 %, said as 1.3 to 2.0 %.
    assert pytest.approx(USUAL_SALT_FRAC[0], abs=0.0005) == FINE_SALT_G_PER_TSP / G_PER_LB
    assert pytest.approx(USUAL_SALT_FRAC[1], abs=0.0005) == 1.5 * FINE_SALT_G_PER_TSP / G_PER_LB
