"""What heat finds in meat: density, heat capacity and conductivity by composition and temperature."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vianda.core.inventory.composition import Composition

Array = NDArray[np.float64]

# a + b T + c T², T in °C, of water, protein, fat, carbohydrate, ash: Choi & Okos (1986), as in CoolProp's food
# components; the leading term of water's heat capacity is 1 % nearer to IAPWS.
CP = np.array(
    [
        [4176.2, -0.0909, 5.4731e-3],
        [2008.2, 1.2089, -1.3129e-3],
        [1984.2, 1.4733, -4.8008e-3],
        [1548.8, 1.9625, -5.9399e-3],
        [1092.6, 1.8896, -3.6817e-3],
    ]
)
CONDUCTIVITY = np.array(
    [
        [0.57109, 1.7625e-3, -6.7036e-6],
        [0.17881, 1.1958e-3, -2.7178e-6],
        [0.18071, -2.7604e-4, -1.7749e-7],
        [0.20141, 1.3874e-3, -4.3312e-6],
        [0.32961, 1.4011e-3, -2.9069e-6],
    ]
)
DENSITY = np.array(
    [
        [997.18, 3.1439e-3, -3.7574e-3],
        [1329.9, -0.51840, 0.0],
        [925.59, -0.41757, 0.0],
        [1599.1, -0.31046, 0.0],
        [2423.8, -0.28063, 0.0],
    ]
)
WATER, PROTEIN, FAT = 0, 1, 2


@dataclass(frozen=True, slots=True)
class Material:
    """Mass fractions of water, protein, fat, carbohydrate and ash, which sum to 1; ``packing`` is the share not air."""

    shares: tuple[float, float, float, float, float]
    packing: float = 1.0

    @property
    def density_kg_m3(self) -> float:
        """Raw and cold, with the air between its strands.

        Examples
        --------
        >>> round(Material((0.61, 0.17, 0.21, 0.0, 0.01)).density_kg_m3)
        1030
        """
        cold = polynomial(DENSITY, np.array(4.0))
        return float(self.packing / np.sum(np.array(self.shares) / cold))


def meat_of(composition: Composition, *, packing: float) -> Material:
    """The meat of an analysis; what does not add up to 100 is shared out.

    Parameters
    ----------
    composition : Composition
        Grams of each part in 100 g.
    packing : float
        How firmly it is packed, 0–1.

    Returns
    -------
    Material
        Mass fractions of water, protein, fat, carbohydrate and ash, which sum to 1.

    References
    ----------
    Choi & Okos (1986), from memory, high confidence.
    """
    parts = (
        composition.water_g_per_100g,
        composition.protein_g_per_100g,
        composition.fat_g_per_100g,
        composition.carbohydrate_g_per_100g,
        composition.ash_g_per_100g,
    )
    total = sum(parts)
    shares = tuple(p / total for p in parts) if total > 0 else (1.0, 0.0, 0.0, 0.0, 0.0)
    return Material(shares, packing)  # type: ignore[arg-type]


def polynomial(table: Array, temp_c: Array) -> Array:
    """Each component's value at temperatures: shape (5, *temp.shape).

    Parameters
    ----------
    table : Array
        Coefficients, one row a constituent.
    temp_c : Array
        Temperatures, °C, shape ``(n,)``.

    Returns
    -------
    Array
        Values in the order of what was given.

    References
    ----------
    Choi & Okos (1986), from memory, high confidence.
    """
    shape = (5,) + (1,) * temp_c.ndim
    a, b, c = (table[:, k].reshape(shape) for k in range(3))
    return np.asarray(a + temp_c * (b + temp_c * c))
