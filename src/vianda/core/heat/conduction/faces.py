"""What touches a face: a plate, air that may also radiate and dry it, a liquid, or nothing at all."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from vianda.core.heat.conduction.meat import Array

FaceKind = Literal["contact", "air", "liquid", "fire", "shut"]

STEFAN_BOLTZMANN = 5.670374419e-8
LATENT_J_KG = 2.26e6
PRESSURE_PA = 101_325.0
# Lewis relation for water vapour in air: h ÷ (c_p Le^⅔), Le^⅔ ≈ 0.9.
AIR_CP, LEWIS = 1006.0, 0.9
WATER_TO_AIR = 0.622
MM_HG_PA = 133.322
# A film thinner than this dries in patches: kg/m², ours.
PATCHY_KG_M2 = 0.02
# How near the heat to the skin and from it must come, and how often it is tried: bisection alone would do in as many.
CLOSE_W_M2, MOST_TRIES = 0.05, 40


@dataclass(frozen=True, slots=True)
class Face:
    """A face's surroundings: temperature, coefficient in W/(m² K), emissivity, and its vapour pressure in Pa.

    A ``fire`` below a grate is glow, hot gas and bars in one coefficient. A ``contact`` takes its temperature from the
    plate when the plate is modelled.
    """

    kind: FaceKind
    temp_c: float
    h: float
    emissivity: float = 0.0
    vapour_pa: float = 1000.0


def vapour_pressure_pa(temp_c: Array) -> Array:
    """Over water from 1 to 100 °C, by Antoine's equation (good to half a per cent); held below the air's own pressure.

    Examples
    --------
    >>> round(float(vapour_pressure_pa(np.array(20.0))) / 100, 1)
    23.3
    """
    held = np.clip(temp_c, -30.0, 99.5)
    return np.asarray(MM_HG_PA * 10.0 ** (8.07131 - 1730.63 / (233.426 + held)))


def drying_kg_m2_s(surface_c: Array, *, h: Array, vapour_pa: Array) -> Array:
    """Water that a wet face gives to the air, by the Lewis relation in its logarithmic form; never taken from it."""
    rate = h / (AIR_CP * LEWIS) * WATER_TO_AIR
    return np.asarray(
        np.maximum(0.0, rate * np.log((PRESSURE_PA - vapour_pa) / (PRESSURE_PA - vapour_pressure_pa(surface_c))))
    )


@dataclass(frozen=True, slots=True)
class Link:
    """A face made linear round the present: heat into the outer cell is g (e − T), W/m²; and what dries from it."""

    g: Array
    e: Array
    surface_c: Array
    drying: Array


def air_link(
    cell_c: Array, *, inner: Array, air_c: Array, h: Array, emissivity: Array, vapour_pa: Array, film: Array,
    most: Array, guess_c: Array,
) -> Link:  # fmt: skip
    """A face to air: convection, radiation and drying against conduction from the cell, solved for the skin.

    ``inner`` is 2 k ÷ Δx of the outer cell, ``film`` the water on the skin (kg/m²), ``most`` what can dry of it,
    kg/(m² s). Heat to the skin falls with its temperature, heat from it into the cell rises, so there is one answer;
    Newton held in a bracket finds it from the skin of the step before.
    """
    wet = film / (film + PATCHY_KG_M2)
    low = np.minimum(np.minimum(cell_c, air_c), 0.0) - 5.0
    high = np.maximum(cell_c, air_c) + 1.0
    skin = np.clip(guess_c, low, high)

    def dries(at: Array) -> Array:
        return np.minimum(wet * drying_kg_m2_s(at, h=h, vapour_pa=vapour_pa), most)

    def outer(at: Array) -> Array:
        radiated = emissivity * STEFAN_BOLTZMANN * ((air_c + 273.15) ** 4 - (at + 273.15) ** 4)
        return np.asarray(h * (air_c - at) + radiated - LATENT_J_KG * dries(at))

    slope = np.zeros_like(skin)
    for _ in range(MOST_TRIES):
        here = outer(skin)
        slope = (here - outer(skin + 0.05)) / 0.05
        off = here - inner * (skin - cell_c)
        if np.all(np.abs(off) < CLOSE_W_M2 + 1e-6 * inner):
            break
        low, high = np.where(off > 0, skin, low), np.where(off > 0, high, skin)
        step = skin + off / (slope + inner)
        skin = np.where((step > low) & (step < high), step, (low + high) / 2)
    into = inner * (skin - cell_c)
    g = slope * inner / (slope + inner)
    g = np.maximum(g, 1e-9)
    return Link(g, cell_c + into / g, skin, dries(skin))


def firm_link(cell_c: Array, *, inner: Array, outside_c: Array, h: Array) -> Link:
    """A face to something at a known temperature: its coefficient in series with half a cell."""
    g = h * inner / np.maximum(h + inner, 1e-12)
    skin = np.where(h + inner > 0, (h * outside_c + inner * cell_c) / np.maximum(h + inner, 1e-12), cell_c)
    return Link(g, np.asarray(outside_c + np.zeros_like(cell_c)), skin, np.zeros_like(cell_c))
