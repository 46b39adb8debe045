"""Conduction against the textbook series for a slab, a sphere and a rectangle (Carslaw & Jaeger; Incropera, chapter 5).

A step of one kelvin, where properties hardly move and nothing drips: the bar of 0.15 °C in a step of a hundred is then
0.0015 K. Mesh and steps are those a cook is computed with. Roots of the transcendental equations by bisection here, not
from tables.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest

from heat_rigs import MINCE, ball, flat, loaf, through
from vianda.core.heat.conduction.faces import Face
from vianda.core.heat.conduction.props import conductivity_of, heat_capacity
from vianda.core.heat.conduction.run import Setup, Simulation

START_C, AROUND_C = 20.0, 21.0
# 0.15 °C in a hundred, for a step of one.
BAR_K = 0.0015


def _root(f: Callable[[float], float], low: float, high: float) -> float:
    for _ in range(200):
        middle = (low + high) / 2
        low, high = (middle, high) if f(low) * f(middle) > 0 else (low, middle)
    return (low + high) / 2


def _slab(x: float, fo: float, biot: float) -> float:
    """Share of the first difference that is left at x (0 middle, 1 face), both faces alike."""
    total = 0.0
    for n in range(60):
        z = _root(lambda v: v * math.sin(v) - biot * math.cos(v), n * math.pi + 1e-12, n * math.pi + math.pi / 2)
        total += 4 * math.sin(z) / (2 * z + math.sin(2 * z)) * math.exp(-(z**2) * fo) * math.cos(z * x)
    return total


def _sphere(r: float, fo: float, biot: float) -> float:
    total = 0.0
    for n in range(60):
        z = _root(lambda v: v * math.cos(v) - (1 - biot) * math.sin(v), n * math.pi + 1e-9, (n + 1) * math.pi - 1e-9)
        weight = 4 * (math.sin(z) - z * math.cos(z)) / (2 * z - math.sin(2 * z))
        shape = math.sin(z * r) / (z * r) if r > 1e-9 else 1.0
        total += weight * math.exp(-(z**2) * fo) * shape
    return total


def _warm(h: float) -> Face:
    return Face("liquid", AROUND_C, h)


def _diffusivity() -> tuple[float, float]:
    at, shares = (START_C + AROUND_C) / 2, np.array(MINCE.shares)
    k = conductivity_of(shares, at)
    return k, k / (MINCE.density_kg_m3 * heat_capacity(shares, at))


@pytest.mark.parametrize("h", [30.0, 400.0])
@pytest.mark.parametrize("seconds", [60.0, 240.0, 600.0])
def test_a_slab_between_two_like_faces(h: float, seconds: float) -> None:
    run = through(flat(20, seconds, low=_warm(h), high=_warm(h), start_c=START_C, flip=False))
    k, alpha = _diffusivity()
    middle = np.cumsum(run.body.width) - run.body.width / 2
    for x, temp in zip(middle, run.now.temp, strict=True):
        share = _slab(abs(x - 0.01) / 0.01, alpha * seconds / 0.01**2, h * 0.01 / k)
        assert temp == pytest.approx(AROUND_C - share, abs=BAR_K)


@pytest.mark.parametrize("h", [30.0, 400.0])
@pytest.mark.parametrize("seconds", [120.0, 600.0])
def test_a_ball(h: float, seconds: float) -> None:
    radius = 0.021
    run = through(ball(42, seconds, around=_warm(h), start_c=START_C))
    k, alpha = _diffusivity()
    middle = np.cumsum(run.body.width) - run.body.width / 2
    for r, temp in zip(middle, run.now.temp, strict=True):
        share = _sphere(r / radius, alpha * seconds / radius**2, h * radius / k)
        assert temp == pytest.approx(AROUND_C - share, abs=BAR_K)


@pytest.mark.parametrize("h", [30.0, 120.0])
@pytest.mark.parametrize("seconds", [900.0, 3000.0])
def test_a_rectangle_is_the_product_of_two_slabs(h: float, seconds: float) -> None:
    width, height = 0.110, 0.065
    warm = _warm(h)
    setup = loaf(110, 65, seconds, around=warm, start_c=START_C)
    stage = replace(setup.stages[0], low=warm, high=warm, side=warm)
    run = through(replace(setup, stages=(stage,)))
    k, alpha = _diffusivity()
    x = np.cumsum(run.body.width) - run.body.width / 2
    y = np.cumsum(run.body.height) - run.body.height / 2 - height / 2
    across = [_slab(v / (width / 2), alpha * seconds / (width / 2) ** 2, h * width / 2 / k) for v in x]
    up = [_slab(abs(v) / (height / 2), alpha * seconds / (height / 2) ** 2, h * height / 2 / k) for v in y]
    assert np.max(np.abs(run.now.temp - (AROUND_C - np.outer(up, across)))) < BAR_K


def test_half_the_step_leaves_a_quarter_of_its_error() -> None:
    # Second order in time, of all three bodies, beside a run in a twelfth of the step.
    def at(setup: Setup, factor: float) -> np.ndarray:
        run = Simulation(setup, keep_every_s=1e9, step_factor=factor)
        run.stage(setup.stages[0])
        return run.now.temp

    warm = _warm(60.0)
    block = loaf(110, 65, 1200.0, around=warm, start_c=START_C)
    for setup, usual in (
        (flat(20, 120.0, low=warm, high=warm, start_c=START_C, flip=False), 4.0),
        (ball(42, 300.0, around=warm, start_c=START_C), 8.0),
        (replace(block, stages=(replace(block.stages[0], low=warm, high=warm, side=warm),)), 4.0),
    ):
        fine = at(setup, usual / 12)
        once, twice = (float(np.max(np.abs(at(setup, f) - fine))) for f in (usual / 2, usual))
        assert once < twice / 3.2, setup.piece.form


def test_the_series_are_the_tabulated_ones() -> None:
    # One-term values of the textbook tables, from memory: Bi 1, slab ζ₁ 0.8603 C₁ 1.1191; sphere ζ₁ 1.5708 C₁ 1.2732.
    fo = 1.0
    assert _slab(0, fo, 1.0) == pytest.approx(1.1191 * math.exp(-(0.8603**2) * fo), abs=2e-4)
    assert _sphere(0, fo, 1.0) == pytest.approx(1.2732 * math.exp(-(1.5708**2) * fo), abs=2e-4)
