"""What heat finds in a cell: heat capacity, heat content and conductivity by components, ice and melting fat included.

Components: water, protein, fat, carbohydrate, ash, as in ``meat``; Choi & Okos (1986). Ice forms below the first
freezing point by Schwartzberg's rule: of the water that is not bound, the share 1 − T_f ÷ T. Fat melts evenly from 0 °C
to where the last of it is liquid; Choi & Okos's heat capacity of fat does not hold that heat. Machine code.
"""

from __future__ import annotations

import math

import numpy as np

from vianda.core.heat.conduction.jit import compiled
from vianda.core.heat.conduction.meat import CONDUCTIVITY, CP, DENSITY, FAT, Array

# Meat begins to freeze at −1 to −2 °C, and about 0.4 kg of water a kg of protein does not freeze: from memory, medium.
FREEZING_C, BOUND_PER_PROTEIN = -1.2, 0.4
# How many numbers a cell blends to: a, b, c, what freezes, what melts.
BLENDED = 5
FUSION_J_KG = 333_600.0
# Choi & Okos (1986): ice.
ICE_CP0, ICE_CP1 = 2062.3, 6.0769
ICE_K0, ICE_K1, ICE_K2 = 2.2196, -6.2489e-3, 1.0154e-4
ICE_RHO0, ICE_RHO1 = 916.89, -0.13071
# Beef fat: about 65 % solid at 0 °C, 50 at 10, 25 at 30, nothing left at 47, and some 130 kJ a kg of what is solid:
# from memory of published solid-fat contents and melting heats of tallow, low. Other animals' fats take less, sooner.
FAT_MELT_J_KG, FAT_MELTED_C = 85_000.0, 47.0
LATENT_J_KG = 2.26e6
BOILING_C = 100.0
# A cell with less water than this, by its first mass, is dry.
DRY = 1e-6


@compiled
def ice_frac(water: float, protein: float, temp_c: float) -> float:
    """Ice by the cell's first mass at a temperature.

    Parameters
    ----------
    water : float
        Share of water, 0–1.
    protein : float
        Share of protein, 0–1.
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        Ice, 0–1.
    """
    if temp_c >= FREEZING_C:
        return 0.0
    free = water - BOUND_PER_PROTEIN * protein
    if free <= 0.0:
        return 0.0
    return free * (1.0 - FREEZING_C / temp_c)


@compiled
def blend(shares: Array, into: Array) -> None:
    """A cell's heat capacity as a + b T + c T², the water that can freeze, and the fat, so that it is added up once.

    ``into`` has room for the five; they hold until something leaves the cell. What asks for heat takes them one by one:
    a view of a row costs more than the arithmetic.

    Parameters
    ----------
    shares : Array
        Mass of each constituent by the first mass, shape ``(5,)`` or ``(n, 5)``.
    into : Array
        Filled in: what came in through either end, J.
    """
    into[0], into[1], into[2] = 0.0, 0.0, 0.0
    for i in range(5):
        into[0] += shares[i] * CP[i, 0]
        into[1] += shares[i] * CP[i, 1]
        into[2] += shares[i] * CP[i, 2]
    into[3] = max(0.0, shares[0] - BOUND_PER_PROTEIN * shares[1])
    into[4] = shares[2]


@compiled
def melting_j_kg(temp_c: float) -> float:
    """J that a kg of fat has taken up in melting since 0 °C.

    Parameters
    ----------
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        Heat of melting taken up, J/kg of fat.
    """
    return float(FAT_MELT_J_KG * min(max(temp_c, 0.0), FAT_MELTED_C) / FAT_MELTED_C)


@compiled
def taken_along_j_kg(component: int, temp_c: float) -> float:
    """J/kg above cold that one component takes along when it leaves; melted fat its heat of melting too.

    Parameters
    ----------
    component : int
        Which constituent, from 0 (count).
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        Heat taken along, J/kg.
    """
    melted = melting_j_kg(temp_c) if component == FAT else 0.0
    return sensible_j_kg(component, temp_c) + melted


@compiled
def sensible_j_kg(component: int, temp_c: float) -> float:
    """J/kg of one component (liquid water, never ice) above 0 °C.

    Parameters
    ----------
    component : int
        Which constituent, from 0 (count).
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        Sensible, J/kg.
    """
    t = temp_c
    return float(t * (CP[component, 0] + t * (CP[component, 1] / 2.0 + t * CP[component, 2] / 3.0)))


@compiled
def content_at(a: float, b: float, c: float, freezes: float, fat: float, temp_c: float) -> float:
    """J/kg of a blended cell above liquid at 0 °C: components' sensible heat, what melted, less what froze.

    Parameters
    ----------
    a : float
        First coefficient of the heat content; see ``props``, J/kg.
    b : float
        Second coefficient of the heat content, J/(kg K).
    c : float
        Third coefficient of the heat content.
    freezes : float
        Water that freezes, by mass, 0–1.
    fat : float
        Fat that melts, by mass, 0–1.
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        J/kg of a blended cell above liquid at 0 °C.
    """
    t = temp_c
    total = t * (a + t * (b / 2.0 + t * c / 3.0)) + fat * melting_j_kg(t)
    if t < FREEZING_C and freezes > 0.0:
        ice = freezes * (1.0 - FREEZING_C / t)
        total += ice * (t * (ICE_CP0 + t * ICE_CP1 / 2.0) - FUSION_J_KG - sensible_j_kg(0, t))
    return float(total)


@compiled
def capacity_at(a: float, b: float, c: float, freezes: float, fat: float, temp_c: float) -> float:
    """J/(kg K) of a blended cell; with the heat that thawing and melting take.

    Parameters
    ----------
    a : float
        First coefficient of the heat content; see ``props``, J/kg.
    b : float
        Second coefficient of the heat content, J/(kg K).
    c : float
        Third coefficient of the heat content.
    freezes : float
        Water that freezes, by mass, 0–1.
    fat : float
        Fat that melts, by mass, 0–1.
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        J/(kg K) of a blended cell.
    """
    t = temp_c
    total = a + t * (b + t * c)
    if 0.0 <= t < FAT_MELTED_C:
        total += fat * FAT_MELT_J_KG / FAT_MELTED_C
    if t < FREEZING_C and freezes > 0.0:
        # The slope of content_at, told exactly: across the freezing point a difference would be the half of it.
        ice, more_ice = freezes * (1.0 - FREEZING_C / t), freezes * FREEZING_C / (t * t)
        total += more_ice * (t * (ICE_CP0 + t * ICE_CP1 / 2.0) - FUSION_J_KG - sensible_j_kg(0, t))
        total += ice * (ICE_CP0 + t * ICE_CP1 - (CP[0, 0] + t * (CP[0, 1] + t * CP[0, 2])))
    return float(total)


@compiled
def temperature_at(a: float, b: float, c: float, freezes: float, fat: float, content: float, guess_c: float) -> float:
    """°C at a heat content: Newton from a guess, held in a bracket, since heat content only rises.

    Parameters
    ----------
    a : float
        First coefficient of the heat content; see ``props``, J/kg.
    b : float
        Second coefficient of the heat content, J/(kg K).
    c : float
        Third coefficient of the heat content.
    freezes : float
        Water that freezes, by mass, 0–1.
    fat : float
        Fat that melts, by mass, 0–1.
    content : float
        Heat content, J/kg.
    guess_c : float
        Guess, °C.

    Returns
    -------
    float
        °C at a heat content.
    """
    low, high = -80.0, 900.0
    t = min(max(guess_c, low), high)
    for _ in range(60):
        off = content - content_at(a, b, c, freezes, fat, t)
        if math.fabs(off) < 0.02:
            break
        if off > 0.0:
            low = t
        else:
            high = t
        t = t + off / capacity_at(a, b, c, freezes, fat, t)
        if t <= low or t >= high:
            t = 0.5 * (low + high)
    return t


@compiled
def heat_content(shares: Array, temp_c: float) -> float:
    """J/kg of the cell's first mass above liquid at 0 °C, straight from its shares.

    Parameters
    ----------
    shares : Array
        Mass of each constituent by the first mass, shape ``(5,)`` or ``(n, 5)``.
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        J/kg of the cell's first mass above liquid at 0 °C, straight from its shares.
    """
    blended = np.empty(BLENDED)
    blend(shares, blended)
    return content_at(blended[0], blended[1], blended[2], blended[3], blended[4], temp_c)


@compiled
def heat_capacity(shares: Array, temp_c: float) -> float:
    """J/(kg K) of the cell's first mass, straight from its shares.

    Parameters
    ----------
    shares : Array
        Mass of each constituent by the first mass, shape ``(5,)`` or ``(n, 5)``.
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        J/(kg K) of the cell's first mass, straight from its shares.
    """
    blended = np.empty(BLENDED)
    blend(shares, blended)
    return capacity_at(blended[0], blended[1], blended[2], blended[3], blended[4], temp_c)


@compiled
def conductivity_of(shares: Array, temp_c: float) -> float:
    """W/(m K), components side by side by volume (the parallel rule): the upper bound of the mixing rules.

    Parameters
    ----------
    shares : Array
        Mass of each constituent by the first mass, shape ``(5,)`` or ``(n, 5)``.
    temp_c : float
        Temp, °C.

    Returns
    -------
    float
        W/(m K), components side by side by volume (the parallel rule).
    """
    t = temp_c
    ice = ice_frac(shares[0], shares[1], t)
    volume = 0.0
    total = 0.0
    for i in range(5):
        share = shares[i] - ice if i == 0 else shares[i]
        v = share / (DENSITY[i, 0] + t * (DENSITY[i, 1] + t * DENSITY[i, 2]))
        volume += v
        total += v * (CONDUCTIVITY[i, 0] + t * (CONDUCTIVITY[i, 1] + t * CONDUCTIVITY[i, 2]))
    if ice > 0.0:
        v = ice / (ICE_RHO0 + ICE_RHO1 * t)
        volume += v
        total += v * (ICE_K0 + t * (ICE_K1 + t * ICE_K2))
    return total / volume
