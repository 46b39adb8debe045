"""How long the heat of each demo piece takes and how well it is computed, beside SciPy and py-pde on the same slab.

Usage: .venv/bin/python scripts/benchmark_heat.py

Prints the tables of docs/heat-model.md. py-pde is taken along when it is installed; it is not needed for anything else.
"""

from __future__ import annotations

import importlib
import math
import time
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import numpy.typing as npt
from scipy.integrate import solve_ivp

from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.heat.conduction.body import SLAB_CELLS, PieceGeometry, body_of
from vianda.core.heat.conduction.faces import Face
from vianda.core.heat.conduction.meat import Material
from vianda.core.heat.conduction.props import conductivity_of, heat_content
from vianda.core.heat.conduction.run import Factors, Setup, Simulation
from vianda.core.heat.conduction.slab import HEAT_IN, HEAT_OUT
from vianda.core.heat.conduction.stages import CookStage
from vianda.core.heat.curve import HeatCurve, curve_steps
from vianda.core.heat.run_setup import setup_of
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.edit import Choose
from vianda.core.model.formula import Formula
from vianda.core.pipeline.compute import prepare
from vianda.runtime.engine import RememberingEngine

Array = npt.NDArray[np.float64]
# Without fat, which would run out of ours and not of theirs.
LEAN = Material((0.76, 0.22, 0.0, 0.0, 0.02))
SECONDS, HOT_C, H, LATENT = 480.0, 230.0, 350.0, 2.26e6


def _timed(run: Callable[[], object], times: int = 3) -> float:
    best = math.inf
    for _ in range(times):
        began = time.perf_counter()
        run()
        best = min(best, time.perf_counter() - began)
    return best * 1000


def _through(setup: Setup) -> Simulation:
    run = Simulation(setup, keep_every_s=1e9)
    for stage in setup.stages:
        run.stage(stage)
    return run


def _core(run: Simulation) -> float:
    return float((run.now.temp * run.body.core_weight).sum())


def pieces() -> None:
    """One run of each demo piece, the whole answer, and how far it is from four times finer."""
    inventory, kitchen = starter_inventory(), yard_galley()

    def chosen(style: str) -> Formula:
        return apply_edit(night_watch_balls(), Choose("style", style), inventory=inventory, kitchen=kitchen)

    formulas = (
        slipway_smash(),
        beacon_grill(),
        harbour_light_pub(),
        chosen("ball-baked"),
        night_watch_balls(),
        keepers_loaf(),
    )
    for formula in formulas:
        case = prepare(formula, inventory=inventory, kitchen=kitchen).case
        setup = setup_of(case)
        usual = _through(setup)
        ms = _timed(lambda setup=setup: _through(setup))  # type: ignore[misc]
        # To the same moment, four times finer in space and in time; of sizes round this one the farthest off.
        off = max((_off_finer(_sized(setup, by)) for by in (1.0, 0.85, 0.95, 1.07, 1.2)), key=abs)
        tally = usual.now.tally
        closure = abs(usual.stored_j() - _stored_cold(setup) - tally[HEAT_IN] + tally[HEAT_OUT]) / tally[HEAT_IN]
        began = time.perf_counter()
        last = None
        for step in curve_steps(case, engine=RememberingEngine()):
            if isinstance(step, HeatCurve):
                last = step
        whole = (time.perf_counter() - began) * 1000
        assert last is not None
        name = f"{formula.name:26} {formula.dish.style:14}"
        print(
            f"{name} one run {ms:6.1f} ms, with uncertainty {whole:6.0f} ms;"
            f" core off finer at most {off:+.2f} K; heat closes to {closure:.1e}"
        )


def _sized(setup: Setup, by: float) -> Setup:
    piece = replace(setup.piece, size_mm=setup.piece.size_mm * by, width_mm=setup.piece.width_mm * by)
    return replace(setup, piece=piece)


def _off_finer(setup: Setup) -> float:
    fixed = replace(setup, stages=tuple(_for_time(setup)))
    finer = replace(fixed, finer=2 if setup.piece.form == "block" else 4)
    return _core(_through(fixed)) - _core(_through(finer))


def _for_time(setup: Setup) -> list[CookStage]:
    run = Simulation(setup, keep_every_s=1e9)
    found = []
    for stage in setup.stages:
        took, _ = run.stage(stage)
        found.append(replace(stage, end="time", seconds=took))
    return found


def _stored_cold(setup: Setup) -> float:
    return Simulation(setup, keep_every_s=1e9).stored_j()


def _slab(piece_mm: float = 20.0, hot_c: float = HOT_C) -> Setup:
    plate = Face("liquid", hot_c, H)
    above = Face("liquid", 40.0, 10.0)
    stage = CookStage("surface", plate, above, "time", SECONDS)
    return Setup(PieceGeometry("slab", piece_mm, LEAN), (stage,), stage, 5.0, hot_c, 70.0, factors=Factors(drip=1e-6))


def _enthalpy_rate(setup: Setup) -> tuple[Callable[[float, Array], Array], Array, Callable[[Array], Array]]:
    """The same slab for a solver of its own step: heat content per cell is simulated, and holds at boiling."""
    body = body_of(setup.piece)
    shares = np.array(LEAN.shares)
    grid, hot_grid = np.linspace(0.0, 100.0, 401), np.linspace(100.0, 300.0, 401)
    table = np.array([heat_content(shares, t) for t in grid])
    boiling, water = table[-1], shares[0] * LATENT
    dry = np.array([0.0, *shares[1:]])
    hot = boiling + water + np.array([heat_content(dry, t) - heat_content(dry, 100.0) for t in hot_grid])
    k_wet = np.array([conductivity_of(shares, t) for t in grid])
    k_dry = np.array([conductivity_of(dry, t) for t in hot_grid])

    def temperature(content: Array) -> Array:
        wet = np.interp(content, table, grid)
        return np.where(content > boiling + water, np.interp(content, hot, hot_grid), wet)

    def rate(_: float, content: Array) -> Array:
        temp = temperature(content)
        left = np.clip(1.0 - (content - boiling) / water, 0.0, 1.0)
        k = left * np.interp(temp, grid, k_wet) + (1.0 - left) * np.interp(temp, hot_grid, k_dry)
        half = body.width / (2.0 * k)
        through = (temp[:-1] - temp[1:]) / (half[:-1] + half[1:])
        gained = np.zeros_like(temp)
        gained[:-1] -= through
        gained[1:] += through
        gained[0] += (HOT_C - temp[0]) / (1.0 / H + half[0])
        gained[-1] += (40.0 - temp[-1]) / (0.1 + half[-1])
        return np.asarray(gained / body.mass)

    begin = np.full(len(body.width), float(np.interp(setup.start_c, grid, table)))
    return rate, begin, temperature


def beside_scipy() -> None:
    """A 20 mm slab that boils and dries from below for eight minutes, ours and SciPy's, at like accuracy."""
    setup = _slab()
    ours = _timed(lambda: _through(setup))
    core = _core(_through(setup))
    fine = _core(_through(replace(setup, finer=4)))
    print(f"boiling slab: ours {ours:.1f} ms, core {core:.2f} °C, four times finer {fine:.2f}")
    rate, begin, temperature = _enthalpy_rate(setup)
    for method, rtol in (("LSODA", 1e-4), ("BDF", 1e-4)):
        found: list[Array] = []

        def solve(method: str = method, rtol: float = rtol, found: list[Array] = found) -> None:
            done = solve_ivp(rate, (0.0, SECONDS), begin, method=method, rtol=rtol, atol=20.0)
            found.append(done.y[:, -1])

        ms = _timed(solve, times=1)
        temp = temperature(found[-1])
        middle = float(temp[len(temp) // 2 - 1 : len(temp) // 2 + 1].mean())
        print(f"  SciPy {method}: {ms:.0f} ms, core {middle:.2f} °C: {ms / ours:.0f} times ours")


def beside_py_pde() -> None:
    """Plain conduction by py-pde, explicit, since it knows no phases: on half as many cells and on as many."""
    try:
        pde = importlib.import_module("pde")
    except ImportError:
        print("  py-pde is not installed: pip install py-pde to compare")
        return
    ours = _timed(lambda: _through(_slab(hot_c=99.0)))
    for cells, dt in ((40, 0.3), (SLAB_CELLS, 0.15)):
        field = pde.ScalarField(pde.CartesianGrid([[0.0, 0.02]], cells), 5.0)
        equation = pde.DiffusionPDE(1.4e-7, bc={"x-": {"value": 100.0}, "x+": {"derivative": 0.0}})

        def solve(field: Any = field, equation: Any = equation, dt: float = dt) -> None:
            equation.solve(field, t_range=SECONDS, dt=dt, tracker=None, backend="numpy")

        ms = _timed(solve, times=1)
        print(f"  py-pde, plain diffusion on {cells} cells: {ms:.0f} ms: {ms / ours:.0f} times ours ({ours:.1f} ms)")


def main() -> int:
    """Print everything, once all is compiled."""
    _through(_slab())
    pieces()
    beside_scipy()
    beside_py_pde()
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
