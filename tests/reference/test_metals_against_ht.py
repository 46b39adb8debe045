"""Metals of pans and plates against the table of materials in ``ht`` 1.2.0 (ASHRAE and VDI, by its documentation)."""

from __future__ import annotations

import pytest
from ht.insulation import Cp_material, k_material, rho_material

from vianda.core.equipment.heating import METALS

IN_THE_TABLE = {
    "steel": "Metals, steel",
    "cast-iron": "Metals, iron, cast",
    "stainless": "Metals, stainless steel",
    "aluminium": "Metals, aluminium alloys",
    "copper": "Metals, copper",
}


@pytest.mark.parametrize("metal", sorted(IN_THE_TABLE))
def test_a_metal_stores_and_conducts_what_the_table_says(metal: str) -> None:
    ours, name = METALS[metal], IN_THE_TABLE[metal]  # type: ignore[index]
    # Alloys differ: carbon steels conduct 40 to 60, irons weigh 7.0 to 7.5. A tenth either way covers the table.
    stored = ours.density_kg_m3 * ours.cp_j_kg_k
    assert stored == pytest.approx(rho_material(name) * Cp_material(name), rel=0.10)
    assert ours.k_w_m_k == pytest.approx(k_material(name), rel=0.10)


def test_every_metal_offered_is_in_the_table() -> None:
    assert set(METALS) == set(IN_THE_TABLE)
