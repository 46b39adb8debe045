"""A national table other than the US one: the United Kingdom's composition of foods (McCance and Widdowson).

From memory, medium confidence: beef mince, raw, 16.2 g fat and 19.7 g protein in 100 g; braising steak, raw, lean and
fat, 8.6 g fat and 20.7 g protein. Other cattle, other trim: what is checked is that our ranges hold them, and that the
lean of our meats has the protein of theirs to within 2 g in 100 g (theirs is nitrogen × 6.25, and sampled apart).
"""

from __future__ import annotations

import pytest

from vianda.core.inventory.inventory import starter_inventory


@pytest.mark.parametrize(("meat", "fat", "protein_g"), [("mince-unknown", 0.162, 19.7), ("under-blade", 0.086, 20.7)])
def test_the_uk_figures_lie_in_our_ranges(meat: str, fat: float, protein_g: float) -> None:
    ours = starter_inventory().meat(meat)
    assert ours.fat_low_frac <= fat <= ours.fat_high_frac
    assert ours.protein_frac(fat) * 100 == pytest.approx(protein_g, abs=2.0)
