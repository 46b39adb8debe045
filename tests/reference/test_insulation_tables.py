"""Walls of cold boxes against the tables of ``ht.insulation``, which are those of ASHRAE Fundamentals and VDI."""

from __future__ import annotations

import pytest
from ht.insulation import k_material

from vianda.core.carried.cold_box import BOXES

# Extruded foam conducts as what is foamed into a wall does.
MATERIALS = {
    "thin": "Expanded polystyrene, molded beads",
    "usual": "Expanded polystyrene, extruded",
    "thick": "Spray-applied Polyurethane foam, 40 kg/m^3",
}


@pytest.mark.parametrize("kind", BOXES)
def test_a_wall_conducts_as_its_table_says(kind: str) -> None:
    # Equal: the figures are the table's own.
    assert BOXES[kind].conducts_w_m_k == k_material(MATERIALS[kind])
