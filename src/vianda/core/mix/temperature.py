"""How warm the mix is when cold meat meets the rest, and how long it chills.

Heat capacities by Choi & Okos (1986), in the form of CoolProp's incompressible food components.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.band import Band
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.composition import Composition

# cp in J/(kg K) = a + b T + c T², T in °C: Choi & Okos (1986); the leading term of water as in CoolProp differs by 1 %.
_CP: tuple[tuple[float, float, float], ...] = (
    (4176.2, -0.0909, 5.4731e-3),  # water
    (2008.2, 1.2089, -1.3129e-3),  # protein
    (1984.2, 1.4733, -4.8008e-3),  # fat
    (1548.8, 1.9625, -5.9399e-3),  # carbohydrate
    (1092.6, 1.8896, -3.6817e-3),  # ash
)
# A fridge's still air on a spread of mix, both sides: from memory, medium confidence.
STILL_AIR_H = (6.0, 12.0)
SPREAD_MM = 30.0
FRIDGE_C = 3.0
DENSITY_KG_M3 = 1040.0
COLDEST_C, HOTTEST_C = -1.5, 100.0


@dataclass(frozen=True, slots=True)
class Part:
    """Something that goes into the bowl: grams, composition, temperature."""

    mass_g: float
    composition: Composition
    temp_c: float


def _fractions(composition: Composition) -> tuple[float, ...]:
    """Mass fractions of the components, in the order of ``_CP``."""
    parts = (
        composition.water_g_per_100g,
        composition.protein_g_per_100g,
        composition.fat_g_per_100g,
        composition.carbohydrate_g_per_100g,
        composition.ash_g_per_100g,
    )
    total = math.fsum(parts)
    # Analyses need not sum to 100; heat is carried by all of the mass.
    return tuple(value / total for value in parts) if total > 0 else (1.0, 0.0, 0.0, 0.0, 0.0)


def _capacity(shares: Sequence[float], temp_c: float) -> float:
    return sum(x * (a + b * temp_c + c * temp_c**2) for x, (a, b, c) in zip(shares, _CP, strict=True))


def _enthalpy(shares: Sequence[float], temp_c: float) -> float:
    return sum(
        x * (a * temp_c + b * temp_c**2 / 2 + c * temp_c**3 / 3) for x, (a, b, c) in zip(shares, _CP, strict=True)
    )


def heat_capacity_j_per_kg_k(composition: Composition, *, temp_c: float) -> float:
    """Specific heat of a food without ice: cp = Σ xᵢ (aᵢ + bᵢ T + cᵢ T²).

    Parameters
    ----------
    composition : Composition
        Grams of each part in 100 g.
    temp_c : float
        −1.5 to 100 °C; below, ice forms and the equation does not hold.

    Returns
    -------
    float
        Specific heat, J/(kg K).

    References
    ----------
    Choi & Okos (1986); checked against CoolProp in the tests.

    Examples
    --------
    >>> from vianda.core.inventory.composition import sr28_composition
    >>> round(heat_capacity_j_per_kg_k(sr28_composition("23572"), temp_c=4.0))
    3341
    """
    return _capacity(_fractions(composition), temp_c)


def mixed_temp_c(parts: Sequence[Part]) -> float:
    """The temperature of a mix that neither gains nor loses heat: Σ mᵢ hᵢ(T) = Σ mᵢ hᵢ(Tᵢ).

    What goes in frozen is computed as if it had thawed on its own: ice is not in the equation.

    Parameters
    ----------
    parts : Sequence[Part]
        Meats with their shares.

    Returns
    -------
    float
        Temperature of the mix, °C.

    Raises
    ------
    OutOfRangeError
        Nothing in the bowl.

    References
    ----------
    A balance of heat; textbook. Heat capacities: Choi & Okos (1986).

    Examples
    --------
    >>> from vianda.core.inventory.composition import sr28_composition
    >>> water = sr28_composition("14429")
    >>> round(mixed_temp_c([Part(100, water, 20.0), Part(100, water, 0.0)]), 1)
    10.0
    """
    held = [p for p in parts if p.mass_g > 0]
    if not held:
        raise OutOfRangeError("There is nothing in the bowl.", field="/mix/lines")
    # Heat is linear in the components: they are summed over the bowl once.
    shares = [(p, _fractions(p.composition)) for p in held]
    wanted = sum(p.mass_g * _enthalpy(x, max(COLDEST_C, p.temp_c)) for p, x in shares)
    whole = [sum(p.mass_g * x[at] for p, x in shares) for at in range(len(_CP))]
    temp = sum(p.mass_g * p.temp_c for p in held) / sum(p.mass_g for p in held)
    for _ in range(20):
        step = (_enthalpy(whole, temp) - wanted) / _capacity(whole, temp)
        temp -= step
        if abs(step) < 1e-12:
            break
    return temp


def chill_minutes(*, from_c: float, to_c: float, composition: Composition, air_c: float = FRIDGE_C) -> Band:
    """Minutes in the fridge, spread 3 cm deep: t = ρ c L ÷ h × ln((T₀ − Tₐ) ÷ (T − Tₐ)), L half the depth.

    A lumped model (Biot number about 0.3): the middle runs a little behind. ``Band(0, 0, 0)`` when it is cold enough.

    Parameters
    ----------
    from_c : float
        Temperature of the mix now, °C.
    to_c : float
        Temperature wanted, °C.
    composition : Composition
        Grams of each part in 100 g.
    air_c : float, default FRIDGE_C
        Temperature of the fridge's air, °C.

    Returns
    -------
    Band
        A usual value with its range.

    Raises
    ------
    OutOfRangeError
        When the air is not colder than what is wanted.

    References
    ----------
    Textbook (lumped capacity); the heat transfer of still fridge air from memory.
    """
    if to_c <= air_c:
        raise OutOfRangeError("A fridge cools to its own temperature, not below.", field="/mix")
    if from_c <= to_c:
        return Band(0.0, 0.0, 0.0)
    c = heat_capacity_j_per_kg_k(composition, temp_c=(from_c + to_c) / 2)
    nepers = math.log((from_c - air_c) / (to_c - air_c))
    slow, fast = (DENSITY_KG_M3 * c * (SPREAD_MM / 2000.0) / h * nepers / 60.0 for h in STILL_AIR_H)
    return Band(fast, (fast + slow) / 2, slow)
