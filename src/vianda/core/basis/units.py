"""Exact unit definitions used at the door (entries) and in published rules stated in US units.

Sources: international avoirdupois pound and inch (1959 agreement, exact); US customary teaspoon as 1/768
US gallon of 231 cubic inches (NIST Handbook 44, appendix C).
"""

from __future__ import annotations

from typing import Literal

UnitSystem = Literal["metric", "us"]

G_PER_LB = 453.59237
G_PER_OZ = G_PER_LB / 16
MM_PER_IN = 25.4
ML_PER_US_GALLON = 231 * 2.54**3
ML_PER_TSP = ML_PER_US_GALLON / 768
ML_PER_TBSP = ML_PER_TSP * 3
ML_PER_CUP = ML_PER_TSP * 48


def c_from_f(temp_f: float) -> float:
    """Degrees Celsius from degrees Fahrenheit: (F − 32) / 1.8.

    Parameters
    ----------
    temp_f : float
        Temperature, °F.

    Returns
    -------
    float
        The same temperature, °C.

    Examples
    --------
    >>> round(c_from_f(160), 1)
    71.1
    """
    return (temp_f - 32.0) / 1.8


def f_from_c(temp_c: float) -> float:
    """Degrees Fahrenheit from degrees Celsius: 1.8 C + 32.

    Parameters
    ----------
    temp_c : float
        Temperature, °C.

    Returns
    -------
    float
        The same temperature, °F.
    """
    return temp_c * 1.8 + 32.0
