"""How hard to press: a ball between plate and press, pressed to a disc."""

from __future__ import annotations

from vianda.core.basis.band import Band

# Yield stress of cold mince in Pa, low–usual–high: ours, from memory of hand-felt forces; low confidence.
YIELD_STRESS_PA = (600.0, 1000.0, 2000.0)
N_PER_KG = 9.80665


def press_kg(*, diameter_mm: float, thickness_mm: float) -> Band:
    """Push that holds a disc of cold mince at a thickness, as kilograms on a scale: F = 2 π τ R³ ÷ (3 t).

    Parameters
    ----------
    diameter_mm : float
        Diameter it is pressed out to, mm.
    thickness_mm : float
        Thickness it is pressed down to, mm.

    Returns
    -------
    Band
        A usual value with its range.

    Notes
    -----
    A plastic paste pressed between rough plates, slowly. τ is a guess, so the push is good to a factor of two: it says
    that a thin smash takes leaning in, and that twice as thin takes near six times the push.

    References
    ----------
    Covey & Stanmore (1981), parallel-plate plastometer; from memory.

    Examples
    --------
    >>> round(press_kg(diameter_mm=132, thickness_mm=6).usual)
    10
    """
    radius, thick = diameter_mm / 2000.0, thickness_mm / 1000.0
    low, usual, high = (2.0 * 3.141592653589793 * t * radius**3 / (3.0 * thick) / N_PER_KG for t in YIELD_STRESS_PA)
    return Band(low, usual, high)
