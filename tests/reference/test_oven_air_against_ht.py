"""Heat transfer from oven air against the correlations in the library ht 1.2.0 (Churchill's for spheres and cylinders).

Air as a gas at the film temperature: properties by Sutherland and the ideal gas, from memory, good to two per cent. The
correlations themselves are stated good to a quarter, and nobody knows the speed of the air in a fan oven (1 to 4 m/s is
usual): so what is held is that ours lies between the ends of the range.
"""

from __future__ import annotations

import pytest
from ht.conv_external import Nu_external_cylinder
from ht.conv_free_immersed import Nu_sphere_Churchill

from vianda.core.equipment.heating import FAN_H, STILL_H

OVEN_C, SKIN_C = 200.0, 70.0


def _air() -> tuple[float, float, float, float]:
    """Kinematic viscosity m²/s, conductivity W/(m K), Prandtl number, film temperature K."""
    film = (OVEN_C + SKIN_C) / 2 + 273.15
    density = 101_325 / (287.05 * film)
    viscosity = 1.458e-6 * film**1.5 / (film + 110.4)
    conductivity = 2.64638e-3 * film**1.5 / (film + 245.4 * 10 ** (-12 / film))
    return viscosity / density, conductivity, 1007 * viscosity / conductivity, film


@pytest.mark.parametrize("diameter_m", [0.042, 0.10])
def test_still_air_round_a_ball_or_a_loaf(diameter_m: float) -> None:
    nu, k, pr, film = _air()
    grashof = 9.81 / film * (OVEN_C - SKIN_C) * diameter_m**3 / nu**2
    h = Nu_sphere_Churchill(Pr=pr, Gr=grashof) * k / diameter_m
    # Natural convection 5–15; ours must lie within a third of the correlation's.
    assert 5 < h < 15
    assert pytest.approx(h, rel=0.4) == STILL_H


def test_air_of_a_fan_lies_between_a_slow_and_a_fast_one() -> None:
    nu, k, pr, _ = _air()
    slow, fast = (Nu_external_cylinder(Re=v * 0.06 / nu, Pr=pr) * k / 0.06 for v in (1.0, 4.0))
    assert slow < FAN_H < fast
