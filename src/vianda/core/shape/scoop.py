"""Which numbered scoop comes nearest to a piece, and how far off it is."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.equipment.moulds import SCOOP_NUMBERS, Mould, scoop_ml

# Nearer than this is no difference; farther than the other nobody portions by it. Ours.
SAME_FRAC, TOO_FAR_FRAC = 0.005, 0.25


@dataclass(frozen=True, slots=True)
class ScoopFit:
    """A level scoop: its mass of this mix, how far off that is (0–1, signed), and the number nearest of all made.

    ``key`` is that of the kitchen's own nearest scoop, "" when it has none. ``worth_going_by``: the piece could be made
    as large as it holds, near but not the same. ``another_is_nearer``: a number not in this kitchen would be.
    ``bowl_mm``: across its bowl, half a sphere: V = π d³ ÷ 12.
    """

    key: str
    name: str
    mass_g: float
    error_frac: float
    number_of_all: int
    mass_of_all_g: float
    error_of_all_frac: float
    worth_going_by: bool
    another_is_nearer: bool
    bowl_mm: float = 0.0


def nearest_scoop(*, piece_mass_g: float, density_g_per_ml: float, moulds: Sequence[Mould]) -> ScoopFit:
    """The kitchen's scoop nearest by mass to the piece, and the number nearest of those made.

    A scoop is taken as level and packed as the piece is. Ties go to the smaller error above.

    Parameters
    ----------
    piece_mass_g : float
        Mass of one piece, g, above 0.
    density_g_per_ml : float
        Density of the mix as it is packed, g/ml.
    moulds : Sequence[Mould]
        The tins, trays, scoops and rings of the kitchen.

    Returns
    -------
    ScoopFit
        A level scoop.

    References
    ----------
    32 US fl oz ÷ number, the trade's convention; ounce by NIST Handbook 44, appendix C.

    Examples
    --------
    >>> from vianda.core.equipment.moulds import usual_moulds
    >>> f = nearest_scoop(piece_mass_g=40, density_g_per_ml=1.03, moulds=usual_moulds())
    >>> f.name, round(f.mass_g, 1), round(f.error_frac * 100, 1)
    ('Scoop No. 24', 40.6, 1.5)
    """

    def error(volume_ml: float) -> float:
        return volume_ml * density_g_per_ml / piece_mass_g - 1.0

    number = min(SCOOP_NUMBERS, key=lambda n: abs(error(scoop_ml(n))))
    of_all = scoop_ml(number)
    own = [w for w in moulds if w.kind == "scoop"]
    if not own:
        return ScoopFit("", "", 0.0, 0.0, number, of_all * density_g_per_ml, error(of_all), False, False)
    best = min(own, key=lambda w: abs(error(w.holds_ml)))
    off, least = error(best.holds_ml), error(of_all)
    return ScoopFit(
        best.key,
        best.name,
        best.holds_ml * density_g_per_ml,
        off,
        number,
        of_all * density_g_per_ml,
        least,
        worth_going_by=SAME_FRAC < abs(off) < TOO_FAR_FRAC,
        another_is_nearer=abs(least) < abs(off) - SAME_FRAC,
        bowl_mm=math.cbrt(12_000.0 * best.holds_ml / math.pi),
    )
