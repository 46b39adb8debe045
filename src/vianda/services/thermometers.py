"""What the simulated thermometers show of a formula's piece and its surface."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.heat.curve import heat_curve
from vianda.core.heat.run_setup import Overrides
from vianda.core.model.formula import Formula
from vianda.devices.simulated_piece import piece_factor, probe_in, surface_thermometer, usual_moment_s
from vianda.runtime.engine import ENGINE
from vianda.services.bench import context
from vianda.services.heat_bench import case_of


@dataclass(frozen=True, slots=True)
class Read:
    """What a simulated thermometer shows, °C, and when."""

    at_s: float
    shown_c: float


def read_probe(formula: Formula, *, at_s: float | None, seed: int) -> Read:
    """What the simulated probe shows after a while in the middle of a piece that is not quite as computed.

    ``at_s`` None is when a reading tells most: late, with time left to act on it.
    """
    curve = heat_curve(case_of(formula), overrides=Overrides(k_factor=piece_factor(seed)), engine=ENGINE)
    moment = usual_moment_s(curve) if at_s is None else at_s
    return Read(moment, probe_in(curve, seed=seed, at_s=moment).read_c(moment))


def read_surface(formula: Formula, *, heated_s: float, seed: int) -> Read:
    """What the simulated surface thermometer shows once the plate or pan has been heated for so long.

    Raises
    ------
    OutOfRangeError
        For an oven or a grate, whose heat is not a plate's.
    """
    _, kitchen = context()
    surface = kitchen.surface(formula.heat.surface, field="/formula/heat/surface")
    if surface.kind not in ("plate", "pan"):
        raise OutOfRangeError("Only a plate or a pan is read by this thermometer.", field="/formula/heat/surface")
    thermometer = surface_thermometer(surface, set_c=formula.heat.surface_temp_c, heated_s=heated_s, seed=seed)
    return Read(heated_s, thermometer.read_c(heated_s))
