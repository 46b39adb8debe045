"""Salt by mass of the meat: for the batch, for a piece, and in teaspoons."""

from __future__ import annotations

from dataclasses import dataclass

from vianda.core.formula import Seasoning

# A US teaspoon of fine table salt: 6 g (SR28 household weight of row 02047); flaky salt weighs half of that.
FINE_SALT_G_PER_TSP = 6.0
# The old rule of 1 to 1½ teaspoons of fine salt to a pound of meat, by mass (common practice).
USUAL_SALT_FRAC = (0.013, 0.020)
# Surface-salted burgers start a little under it: the salt sits where the tongue meets it (our default).
START_SALT_FRAC = 0.011
MOST_SALT_FRAC = 0.05


@dataclass(frozen=True, slots=True)
class SaltFigures:
    """Salt wanted: fraction of the raw meat, grams for batch and piece, teaspoons of fine salt."""

    salt_frac: float
    salt_place: str
    batch_salt_g: float
    piece_salt_g: float
    side_salt_g: float
    batch_salt_tsp: float


def salt_figures(seasoning: Seasoning, *, batch_mass_g: float, piece_mass_g: float) -> SaltFigures:
    """Salt of a batch and a piece.

    Examples
    --------
    >>> s = salt_figures(Seasoning(0.011, "surface"), batch_mass_g=3400, piece_mass_g=85)
    >>> round(s.batch_salt_g, 1), round(s.batch_salt_tsp, 1)
    (37.4, 6.2)
    """
    frac = seasoning.salt_frac if seasoning.salt_place != "none" else 0.0
    batch = frac * batch_mass_g
    piece = frac * piece_mass_g
    return SaltFigures(frac, seasoning.salt_place, batch, piece, piece / 2, batch / FINE_SALT_G_PER_TSP)
