"""How long the curve of each demo piece takes, how far it is from a finer run, and SciPy on the same slab.

Usage: .venv/bin/python scripts/benchmark_heat.py
Prints milliseconds and kelvins. Bars: a curve with its doubt at most 2 s; the core within 0.2 K of a run four times
finer.
"""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from scipy.integrate import solve_ivp

from vianda.core.apply_edit import apply_edit
from vianda.core.compute import compute
from vianda.core.demo import beacon_grill, harbour_light_pub, night_watch_balls, slipway_smash
from vianda.core.edit import Choose
from vianda.core.heat.conduction.ensemble import Ensemble, Sides
from vianda.core.heat.conduction.meat import Array, Meat, capacity, conductivity
from vianda.core.heat.conduction.mesh import mesh_of
from vianda.core.heat.curve import HeatCurve, heat_curve
from vianda.core.kitchen import yard_galley
from vianda.core.larder import starter_larder

MINCE = Meat((0.60, 0.17, 0.22, 0.0, 0.01))
BELOW_C, ABOVE_C, H, SECONDS = 90.0, 40.0, 400.0, 600.0


def _timed(run: Callable[[], object]) -> float:
    began = time.perf_counter()
    run()
    return (time.perf_counter() - began) * 1000


def _curves() -> None:
    larder, kitchen = starter_larder(), yard_galley()
    baked = apply_edit(night_watch_balls(), Choose("style", "ball-baked"), larder=larder, kitchen=kitchen)
    for formula in (slipway_smash(), beacon_grill(), harbour_light_pub(), baked, night_watch_balls()):
        figures = compute(formula, larder=larder, kitchen=kitchen)
        found: list[object] = []
        ms = _timed(lambda figures=figures, found=found: found.append(heat_curve(figures)))  # type: ignore[misc]
        curve = found[0]
        assert isinstance(curve, HeatCurve)
        print(f"{formula.name:26} {formula.dish.style:14} {ms:6.0f} ms for nine runs and the rests; "
              f"core there at {curve.target_s.usual:.0f} s")  # fmt: skip


def _firm(temp_c: float, h: float) -> Sides:
    one = np.ones(1)
    return Sides(one, temp_c * one, h * one, 0 * one, 0 * one, np.zeros(1, dtype=bool))


def _march(dt: float, cells: int) -> Array:
    ensemble = Ensemble([mesh_of("slab", 0.02, cells=cells)], [MINCE], k_factor=np.ones(1))
    state = ensemble.cold(np.array([5.0]), plate_c=np.zeros(1))
    for _ in range(round(SECONDS / dt)):
        ensemble.step(state, dt, _firm(BELOW_C, H), _firm(ABOVE_C, 10.0))
    return np.asarray(state.temp_c[0])


def _lines(method: str) -> Array:
    """The same slab by the method of lines: nothing drips here, nothing boils."""
    mesh = mesh_of("slab", 0.02, cells=32)
    shares = np.repeat(np.array(MINCE.shares)[:, None], 32, axis=1)
    mass = MINCE.density_kg_m3 * mesh.width

    def rate(_: float, temp: Array) -> Array:
        half = mesh.width / (2.0 * conductivity(shares, temp))
        through = (temp[:-1] - temp[1:]) / (half[:-1] + half[1:])
        gained = np.zeros_like(temp)
        gained[:-1] -= through
        gained[1:] += through
        gained[0] += (BELOW_C - temp[0]) / (1.0 / H + half[0])
        gained[-1] += (ABOVE_C - temp[-1]) / (0.1 + half[-1])
        return np.asarray(gained / (mass * capacity(shares, temp)))

    done = solve_ivp(rate, (0.0, SECONDS), np.full(32, 5.0), method=method, rtol=1e-3, atol=0.1)
    return np.asarray(done.y[:, -1])


def main() -> int:
    """Print everything."""
    _march(1.0, 32)
    _curves()
    fine = float(np.interp(0.5, np.linspace(0, 1, 128), _march(0.25, 128)))
    usual = float(np.interp(0.5, np.linspace(0, 1, 32), _march(1.0, 32)))
    print(f"20 mm slab: middle {usual:.2f} °C, four times finer {fine:.2f} °C")
    ours = _timed(lambda: _march(1.0, 32))
    for method in ("LSODA", "BDF"):
        theirs = _timed(lambda method=method: _lines(method))  # type: ignore[misc]
        print(
            f"20 mm slab, {SECONDS:.0f} s: ours {ours:.0f} ms with drip and fat, SciPy {method} {theirs:.0f} ms without"
        )
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
