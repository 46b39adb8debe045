"""What a simulated thermometer is held in: a piece that is not quite as computed, and a plate that heats up."""

from __future__ import annotations

import hashlib

from vianda.core.equipment.heating import PLATE_BAND_K, POWER_W_M2, heated_c, plate_store_j_m2_k
from vianda.core.equipment.kitchen import Surface
from vianda.core.heat.curve import HeatCurve
from vianda.devices.probe import ProbeMake
from vianda.devices.simulated_probe import SimulatedProbe, Truth

# How long a probe is left in before its display is read.
HELD_IN_S = 15.0
# When a probe tells most, by the whole time on the heat: ours.
PROBE_AT = 0.7
# How far the simulated piece may differ from what is computed: a factor between these on how fast heat runs.
FACTOR_LOW, FACTOR_HIGH = 0.82, 1.24
# Held on by hand it reads a little too little, and wavers more than a probe in meat.
BY_HAND = ProbeMake(lag_s=2.5, noise_sd_k=1.5, misplaced_frac=0.0, offset_k=-2.0)


def piece_factor(seed: int) -> float:
    """How much faster heat runs in this piece than computed; the same for the same seed.

    Examples
    --------
    >>> FACTOR_LOW <= piece_factor(1) <= FACTOR_HIGH
    True
    """
    share = int.from_bytes(hashlib.blake2b(f"piece:{seed}".encode(), digest_size=4).digest(), "big") / 2**32
    return FACTOR_LOW + (FACTOR_HIGH - FACTOR_LOW) * share


def usual_moment_s(curve: HeatCurve) -> float:
    """When a reading tells most, in seconds from the start."""
    return round(PROBE_AT * curve.pull_s.usual)


def probe_in(curve: HeatCurve, *, seed: int, at_s: float) -> SimulatedProbe:
    """A probe pushed into the middle of a piece, 15 s before it is read at ``at_s``."""
    depths = tuple(d / curve.size_mm for d in curve.depth_mm)
    rows = curve.temp_c
    if curve.form == "ball":
        # Depths run from the middle out; seen through the whole ball they run both ways.
        depths = tuple(0.5 - d for d in reversed(depths)) + tuple(0.5 + d for d in depths)
        rows = tuple(tuple(reversed(row)) + row for row in rows)
    return SimulatedProbe(ProbeMake(), Truth(curve.times_s, depths, rows), seed, from_s=max(0.0, at_s - HELD_IN_S))


def surface_thermometer(surface: Surface, *, set_c: float, heated_s: float, seed: int) -> SimulatedProbe:
    """A thermometer held on a plate or pan that has been heated for so long toward ``set_c`` (°C)."""
    power = POWER_W_M2[surface.heating.power]
    store = plate_store_j_m2_k(surface.heating, surface.kind)

    def hot(at_s: float) -> float:
        return heated_c(store, power, power / PLATE_BAND_K, at_s, set_c)

    times = tuple(max(0.0, heated_s - HELD_IN_S + n) for n in range(int(HELD_IN_S) + 1))
    truth = Truth(times, (0.0, 1.0), tuple((hot(t), hot(t)) for t in times))
    return SimulatedProbe(BY_HAND, truth, seed, from_s=times[0])
