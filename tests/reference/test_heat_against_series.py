"""Conduction against the textbook series for a slab and a sphere (Carslaw & Jaeger; Incropera, chapter 5).

A step of one kelvin, where properties hardly move and nothing drips: the bar of 0.15 °C in a step of a hundred is then
0.0015 K. Roots of the transcendental equations by bisection here, not from tables.
"""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
import pytest

from vianda.core.heat.conduction.ensemble import Ensemble, Sides
from vianda.core.heat.conduction.meat import Meat, capacity, conductivity
from vianda.core.heat.conduction.mesh import mesh_of

MINCE = Meat((0.60, 0.17, 0.22, 0.0, 0.01))
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


def _firm(temp_c: float, h: float) -> Sides:
    one = np.ones(1)
    return Sides(one, temp_c * one, h * one, 0 * one, 0 * one, np.zeros(1, dtype=bool))


def _properties() -> tuple[float, float]:
    at = np.full((1, 1), (START_C + AROUND_C) / 2)
    shares = np.array(MINCE.shares)[:, None, None]
    return float(conductivity(shares, at)[0, 0]), float(capacity(shares, at)[0, 0])


@pytest.mark.parametrize("h", [30.0, 400.0])
@pytest.mark.parametrize("seconds", [60.0, 240.0, 600.0])
def test_a_slab_between_two_like_faces(h: float, seconds: float) -> None:
    size = 0.020
    mesh = mesh_of("slab", size, cells=32)
    ensemble = Ensemble([mesh], [MINCE], k_factor=np.ones(1))
    state = ensemble.cold(np.array([START_C]), plate_c=np.zeros(1))
    dt = 0.25
    for _ in range(round(seconds / dt)):
        ensemble.step(state, dt, _firm(AROUND_C, h), _firm(AROUND_C, h))
    k, cp = _properties()
    fourier = k / (MINCE.density_kg_m3 * cp) * seconds / (size / 2) ** 2
    for x, temp in zip(mesh.middle, state.temp_c[0], strict=True):
        share = _slab(abs(x - size / 2) / (size / 2), fourier, h * size / 2 / k)
        assert temp == pytest.approx(AROUND_C - share, abs=BAR_K)


@pytest.mark.parametrize("h", [30.0, 400.0])
@pytest.mark.parametrize("seconds", [120.0, 600.0])
def test_a_ball(h: float, seconds: float) -> None:
    radius = 0.021
    mesh = mesh_of("ball", radius, cells=32)
    ensemble = Ensemble([mesh], [MINCE], k_factor=np.ones(1))
    state = ensemble.cold(np.array([START_C]), plate_c=np.zeros(1))
    dt = 0.25
    for _ in range(round(seconds / dt)):
        ensemble.step(state, dt, _firm(0.0, 0.0), _firm(AROUND_C, h))
    k, cp = _properties()
    fourier = k / (MINCE.density_kg_m3 * cp) * seconds / radius**2
    for r, temp in zip(mesh.middle, state.temp_c[0], strict=True):
        assert temp == pytest.approx(AROUND_C - _sphere(r / radius, fourier, h * radius / k), abs=BAR_K)


def test_the_series_are_the_tabulated_ones() -> None:
    # One-term values of the textbook tables, from memory: Bi 1, slab ζ₁ 0.8603 C₁ 1.1191; sphere ζ₁ 1.5708 C₁ 1.2732.
    fo = 1.0
    assert _slab(0, fo, 1.0) == pytest.approx(1.1191 * math.exp(-(0.8603**2) * fo), abs=2e-4)
    assert _sphere(0, fo, 1.0) == pytest.approx(1.2732 * math.exp(-(1.5708**2) * fo), abs=2e-4)
