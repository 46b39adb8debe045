"""Which bun suits a cooked piece."""

from __future__ import annotations

from vianda.core.kitchen import Bun, Kitchen

# A cooked disc this much narrower than its bun leaves bread without meat at the rim (ours).
NARROW_MM = 5.0


def fitting_bun(kitchen: Kitchen, *, cooked_diameter_mm: float) -> Bun:
    """The widest bun the piece still covers to within 5 mm; else the narrowest bun there is.

    Examples
    --------
    >>> from vianda.core.kitchen import yard_galley
    >>> fitting_bun(yard_galley(), cooked_diameter_mm=106).key
    'soft-100'
    """
    buns = sorted((b for b in kitchen.buns if b.diameter_mm > 0), key=lambda b: b.diameter_mm)
    if not buns:
        return kitchen.buns[0]
    covered = [b for b in buns if b.diameter_mm <= cooked_diameter_mm + NARROW_MM]
    return covered[-1] if covered else buns[0]
