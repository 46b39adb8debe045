"""Which bun suits a cooked piece."""

from __future__ import annotations

from vianda.core.equipment.kitchen import Bun, Kitchen

# A cooked disc this much narrower than its bun leaves bread without meat at the rim (ours).
NARROW_MM = 5.0
# Bread without meat is a worse fault than meat over the rim (ours).
GAP_WEIGHT = 2.0


def _misfit(bun_mm: float, piece_mm: float) -> float:
    return GAP_WEIGHT * (bun_mm - piece_mm) if bun_mm > piece_mm else piece_mm - bun_mm


def fitting_bun(kitchen: Kitchen, *, cooked_diameter_mm: float) -> Bun:
    """The bun nearest in width to the cooked piece; a millimetre of bare bread counts as two of overhang.

    Parameters
    ----------
    kitchen : Kitchen
        The equipment, its units and the rules in force there.
    cooked_diameter_mm : float
        Diameter of the cooked piece, mm.

    Returns
    -------
    Bun
        Bread.

    Examples
    --------
    >>> from vianda.core.demo.kitchen import yard_galley
    >>> fitting_bun(yard_galley(), cooked_diameter_mm=106).key
    'soft-100'
    >>> fitting_bun(yard_galley(), cooked_diameter_mm=83).key
    'soft-90'
    """
    buns = [b for b in kitchen.buns if b.kind == "bun" and b.diameter_mm > 0]
    if not buns:
        return kitchen.buns[0]
    return min(buns, key=lambda b: _misfit(b.diameter_mm, cooked_diameter_mm))
