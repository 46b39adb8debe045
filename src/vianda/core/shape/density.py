"""How heavy a millilitre of raw mix is: by what is in it, and by how tightly it is packed."""

from __future__ import annotations

import math

from vianda.core.inventory.composition import Composition
from vianda.core.model.formula import Packing

# kg/m³ = a + b T + c T² of water, protein, fat, carbohydrate, ash: Choi & Okos (1986).
_RHO = (
    (997.18, 3.1439e-3, -3.7574e-3),
    (1329.9, -0.5184, 0.0),
    (925.59, -0.41757, 0.0),
    (1599.1, -0.31046, 0.0),
    (2423.8, -0.28063, 0.0),
)
COLD_C = 4.0
# Share of the space that is meat; the rest is air between the strands. Ours: no published source.
PACKING: dict[Packing, float] = {"loose": 0.93, "light": 0.97, "firm": 1.0}
# What loose packing adds to the shrink of the diameter. Ours; practice says that it does.
PACKING_SHRINK: dict[Packing, float] = {"loose": 0.02, "light": 0.005, "firm": 0.0}


def solid_density_g_per_ml(composition: Composition, *, temp_c: float = COLD_C) -> float:
    """Density without air: 1 ÷ Σ (xᵢ ÷ ρᵢ), the volumes of the components added up.

    Parameters
    ----------
    composition : Composition
        Grams of each part in 100 g.
    temp_c : float, default COLD_C
        Temperature, °C.

    Returns
    -------
    float
        Density without air, g/ml.

    References
    ----------
    Choi & Okos (1986), "Effects of temperature and composition on the thermal properties of foods".

    Examples
    --------
    >>> from vianda.core.inventory.composition import sr28_composition
    >>> round(solid_density_g_per_ml(sr28_composition("23572")), 3)
    1.03
    """
    shares = (
        composition.water_g_per_100g,
        composition.protein_g_per_100g,
        composition.fat_g_per_100g,
        composition.carbohydrate_g_per_100g,
        composition.ash_g_per_100g,
    )
    total = math.fsum(shares)
    if total <= 0:
        return 1.0
    volume = sum(x / total / (a + b * temp_c + c * temp_c**2) for x, (a, b, c) in zip(shares, _RHO, strict=True))
    return 1.0 / volume / 1000.0


def ground_beef_composition(fat_frac: float) -> Composition:
    """Raw ground beef of a fat, by SR28's own regression: water 77.024 − 0.7575 F, protein 22.826 − 0.2826 F, ash
    1.117 − 0.0138 F, F in per cent. For previews, before any meat is named.

    Parameters
    ----------
    fat_frac : float
        Fat by mass, 0–1.

    Returns
    -------
    Composition
        Grams of each part in 100 g of the food as bought raw.

    References
    ----------
    SR28's regression for ground beef.

    Examples
    --------
    >>> round(ground_beef_composition(0.20).water_g_per_100g, 2)
    61.87
    """
    f = fat_frac * 100.0
    return Composition(77.024 - 0.7575 * f, 22.826 - 0.2826 * f, f, 0.0, 1.117 - 0.0138 * f, 66.0)
