"""Cubes in the freezer before grinding: how long until they are firm but not solid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.heat.conduction.body import PieceGeometry
from vianda.core.heat.conduction.faces import SHUT
from vianda.core.heat.conduction.meat import Material
from vianda.core.heat.conduction.props import ice_frac
from vianda.core.heat.conduction.run import Setup, Simulation
from vianda.core.heat.conduction.stages import CookStage, air

# Firm: a third of the water that can freeze has; solid: two thirds has. Ours; practice says 30–45 min, firm but not
# solid.
FIRM_FRAC, SOLID_FRAC = 0.33, 0.66
LOOK_EVERY_S, LONGEST_S = 60.0, 6 * 3600.0


@dataclass(frozen=True, slots=True)
class Firming:
    """Seconds until cubes are firm, and until they are solid."""

    firm_s: float
    solid_s: float


def firming(
    *, edge_mm: float, meat: Material, start_c: float = 4.0, freezer_c: float = -18.0, h: float = 6.0
) -> Firming:
    """How long cubes take in one layer, each simulated as the ball that has as much skin by its volume.

    Parameters
    ----------
    edge_mm : float
        10–60 mm.
    meat : Material
        What the piece is made of.
    start_c : float, default 4.0
        Temperature of the cubes when they go in, °C.
    freezer_c : float, default -18.0
        −40 to −5 °C.
    h : float, default 6.0
        W/(m² K) of the freezer's air; natural 5–10, 6 in a full layer on a tray. Ours.

    Returns
    -------
    Firming
        Seconds until cubes are firm, and until they are solid.

    Raises
    ------
    OutOfRangeError
        Cubes are 10 to 60 mm.

    References
    ----------
    The model of heat (Choi & Okos 1986; Schwartzberg's rule for ice); usual practice stands beside it.

    Examples
    --------
    >>> f = firming(edge_mm=28, meat=Material((0.63, 0.18, 0.18, 0.0, 0.01)))
    >>> 25 < f.firm_s / 60 < 50 < f.solid_s / 60
    True
    """
    if not 10.0 <= edge_mm <= 60.0:
        raise OutOfRangeError("Cubes are 10 to 60 mm.", field="/edge_mm")
    if not -40.0 <= freezer_c <= -5.0:
        raise OutOfRangeError("A freezer has −40 to −5 °C.", field="/freezer_c")
    cold = CookStage("freeze", SHUT, air(freezer_c, h, vapour_pa=100.0), "time", LOOK_EVERY_S)
    run = Simulation(
        Setup(PieceGeometry("ball", edge_mm, meat), (cold,), cold, start_c, start_c, freezer_c), keep_every_s=1e9
    )
    water, protein = meat.shares[0], meat.shares[1]
    most = ice_frac(water, protein, freezer_c)
    firm, since = 0.0, 0.0
    while since < LONGEST_S:
        run.stage(cold)
        since += LOOK_EVERY_S
        ice = np.array([ice_frac(water, protein, float(t)) for t in run.now.temp])
        share = float(np.average(ice, weights=run.body.mass)) / most
        if share >= FIRM_FRAC and firm == 0.0:
            firm = since
        if share >= SOLID_FRAC:
            break
    return Firming(firm, since)
