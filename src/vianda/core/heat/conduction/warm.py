"""A moment of each geometry, so that every function of the run has been compiled."""

from __future__ import annotations

from vianda.core.heat.conduction.body import PieceGeometry
from vianda.core.heat.conduction.faces import SHUT
from vianda.core.heat.conduction.held import last_held
from vianda.core.heat.conduction.meat import Material
from vianda.core.heat.conduction.run import Setup, cook
from vianda.core.heat.conduction.stages import CookStage, air


def warm() -> None:
    """Simulation a moment of each geometry, so that everything there is has been compiled."""
    around = air(100.0, 10.0)
    meat = Material((0.6, 0.17, 0.22, 0.0, 0.01))
    low = CookStage("oven", around, around, "time", 40.0, around)
    turned = CookStage("oven", around, around, "time", 1.0, around, flip=True, press_out_frac=0.1)
    for piece in (
        PieceGeometry("slab", 12.0, meat),
        PieceGeometry("block", 40.0, meat, 80.0),
        PieceGeometry("ball", 20.0, meat),
    ):
        stages = (low, turned) if piece.form == "slab" else (CookStage("oven", SHUT, around, "time", 40.0, around),)
        cooked = cook(Setup(piece, stages, low, 5.0, 100.0, 70.0), keep_every_s=10.0)
        flat = cooked.temp_c.reshape(len(cooked.times_s), -1)
        last_held(cooked.times_s, flat, 60.0, 0.0)
