"""What touches a face, in machine code: a firm thing or a liquid, or air that also radiates, dries and dews.

A face is a row of numbers, in this order: kind (0 shut, 1 firm, 2 air, 3 something with a heat store of its own, such
as a plate), °C, h in W/(m² K), emissivity, vapour pressure in Pa, °C of what it radiates to, the store in J/(m² K),
power of its burner in W/m², what the burner gives per kelvin below its setting, °C round the store, and W/(m² K) to it.
"""

from __future__ import annotations

import math

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.props import LATENT_J_KG

SHUT_KIND, FIRM_KIND, AIR_KIND, STORE_KIND = 0, 1, 2, 3
KIND, TEMP, H, EMISSIVITY, VAPOUR, RADIANT, STORE, POWER, GAIN, ROUND, ROUND_H = range(11)
FACE_FIELDS = 11

STEFAN_BOLTZMANN = 5.670374419e-8
PRESSURE_PA = 101_325.0
# Lewis relation for water vapour in air: h ÷ (c_p Le^⅔), Le^⅔ ≈ 0.9.
AIR_CP, LEWIS = 1006.0, 0.9
WATER_TO_AIR = 0.622
MM_HG_PA = 133.322
# A film thinner than this dries in patches; more than the other runs off: kg/m², ours.
PATCHY_KG_M2, MOST_FILM = 0.02, 1.5
CLOSE_W_M2, MOST_TRIES = 0.05, 60
# Of the time in which a store would come to rest; a step as long as twice that would swing ever wider.
STORE_STEP_FRAC = 0.3


@compiled
def vapour_pressure_pa(temp_c: float) -> float:
    """Over water from 1 to 100 °C, by Antoine's equation; held below the air's own.

    It lies 0.9 % below the steam tables at 1 °C, 0.4 % at 20 to 60 and 0.1 % at 100.

    Parameters
    ----------
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        Vapour pressure, Pa.
    """
    held = min(max(temp_c, -30.0), 99.5)
    return float(MM_HG_PA * 10.0 ** (8.07131 - 1730.63 / (233.426 + held)))


@compiled
def drying_kg_m2_s(surface_c: float, h: float, vapour_pa: float) -> float:
    """Water that a wet face gives to the air (below zero: dew), by the Lewis relation in its logarithmic form.

    Parameters
    ----------
    surface_c : float
        Surface, °C.
    h : float
        Heat transfer coefficient, W/(m² K), above 0.
    vapour_pa : float
        Vapour, Pa.

    Returns
    -------
    float
        Drying, kg/(m² s).
    """
    rate = h / (AIR_CP * LEWIS) * WATER_TO_AIR
    return rate * math.log((PRESSURE_PA - vapour_pa) / (PRESSURE_PA - vapour_pressure_pa(surface_c)))


@compiled
def _leaves(at: float, h: float, vapour_pa: float, wet: float, most: float) -> float:
    dries = drying_kg_m2_s(at, h, vapour_pa)
    # Dew falls on a dry face as on a wet one.
    return dries if dries < 0.0 else min(wet * dries, most)


@compiled
def _outer(at: float, face: Array, wet: float, most: float) -> float:
    hot = face[RADIANT] + 273.15
    here = at + 273.15
    radiated = face[EMISSIVITY] * STEFAN_BOLTZMANN * (hot**4 - here**4)
    return float(face[H] * (face[TEMP] - at) + radiated - LATENT_J_KG * _leaves(at, face[H], face[VAPOUR], wet, most))


@compiled
def link(
    face: Array, cell_c: float, inner: float, film: float, dt: float, store_c: float, guess_c: float, answer: Array
) -> None:
    """A face made linear round the present: heat into its cell is g (e − T). ``answer``: g, e, skin °C, what dries.

    ``inner`` is 2 k ÷ Δx of the cell, ``film`` the water on the skin. Heat to a skin falls with its temperature, heat
    from it into the cell rises, so there is one answer; Newton held in a bracket finds it.

    Parameters
    ----------
    face : Array
        One face as a row of numbers; see the module.
    cell_c : float
        Cell, °C.
    inner : float
        2 k ÷ Δx of the cell at the face, W/(m² K).
    film : float
        Water on the face, kg/m², 0 or more.
    dt : float
        Length of the step, s, above 0.
    store_c : float
        Store, °C.
    guess_c : float
        Guess, °C.
    answer : Array
        Filled in: g in W/(m² K), e in °C, skin in °C, what dries in kg/(m² s).
    """
    kind = int(face[KIND])
    if kind == SHUT_KIND:
        answer[0], answer[1], answer[2], answer[3] = 0.0, 0.0, cell_c, 0.0
        return
    if kind != AIR_KIND:
        outside = store_c if kind == STORE_KIND else face[TEMP]
        answer[0] = face[H] * inner / (face[H] + inner)
        answer[1] = outside
        answer[2] = (face[H] * outside + inner * cell_c) / (face[H] + inner)
        answer[3] = 0.0
        return
    wet = film / (film + PATCHY_KG_M2)
    most = film / dt
    low = min(min(cell_c, face[TEMP]), 0.0) - 5.0
    # What condenses or radiates can heat a skin above the air.
    high = max(max(cell_c, face[TEMP]), face[RADIANT]) + 1.0
    skin = min(max(guess_c, low), high)
    slope = 0.0
    for _ in range(MOST_TRIES):
        here = _outer(skin, face, wet, most)
        slope = (here - _outer(skin + 0.05, face, wet, most)) / 0.05
        off = here - inner * (skin - cell_c)
        if math.fabs(off) < CLOSE_W_M2 + 1e-6 * inner:
            break
        if off > 0.0:
            low = skin
        else:
            high = skin
        step = skin + off / (slope + inner)
        skin = step if low < step < high else 0.5 * (low + high)
    into = inner * (skin - cell_c)
    slope = max(slope, 1e-6)
    answer[0] = slope * inner / (slope + inner)
    answer[1] = cell_c + into / answer[0]
    answer[2] = skin
    answer[3] = _leaves(skin, face[H], face[VAPOUR], wet, most)


@compiled
def settle_skin(face: Array, cell_c: float, inner: float, film: float, dt: float, answer: Array) -> None:
    """Bring a link's skin to the end of its step, where the cell has come to ``cell_c``, and what dries to its mean.

    Parameters
    ----------
    face : Array
        One face as a row of numbers; see the module.
    cell_c : float
        Cell, °C.
    inner : float
        2 k ÷ Δx of the cell at the face, W/(m² K).
    film : float
        Water on the face, kg/m², 0 or more.
    dt : float
        Length of the step, s, above 0.
    answer : Array
        Filled in: g in W/(m² K), e in °C, skin in °C, what dries in kg/(m² s).
    """
    if answer[0] <= 0.0:
        answer[2] = cell_c
        return
    answer[2] = cell_c + answer[0] * (answer[1] - cell_c) / inner
    if int(face[KIND]) == AIR_KIND:
        wet = film / (film + PATCHY_KG_M2)
        answer[3] = 0.5 * (answer[3] + _leaves(answer[2], face[H], face[VAPOUR], wet, film / dt))


@compiled
def longest_step(face: Array, dt: float) -> float:
    """A step in which a store with little heat in it still follows what it gives and gets, s.

    Parameters
    ----------
    face : Array
        One face as a row of numbers; see the module.
    dt : float
        Length of the step, s, above 0.

    Returns
    -------
    float
        A step in which a store with little heat in it still follows what it gives and gets, s.
    """
    if int(face[KIND]) != STORE_KIND:
        return dt
    return float(min(dt, STORE_STEP_FRAC * face[STORE] / max(face[H] + face[GAIN] + face[ROUND_H], 1e-9)))


@compiled
def store_after(face: Array, store_c: float, into_w_m2: float, dt: float) -> float:
    """°C of a plate, a tin or a slice of cheese after a step: it gives what the meat takes, a burner brings it back.

    Parameters
    ----------
    face : Array
        One face as a row of numbers; see the module.
    store_c : float
        Store, °C.
    into_w_m2 : float
        Into, W/m².
    dt : float
        Length of the step, s, above 0.

    Returns
    -------
    float
        °C of a plate, a tin or a slice of cheese after a step.
    """
    burner = min(max(face[GAIN] * (face[TEMP] - store_c), 0.0), face[POWER])
    return float(store_c + dt * (burner + face[ROUND_H] * (face[ROUND] - store_c) - into_w_m2) / face[STORE])
