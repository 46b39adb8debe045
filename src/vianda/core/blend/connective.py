"""Connective tissue: collagen as a share of protein, by class of cut. It decides grind and, in the EU, the name."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.inventory.fat_range import Z_90, FatRange, normal_cdf
from vianda.core.inventory.inventory import Connective, Meat

# Collagen / protein, g/g: low, usual, high of nine pieces in ten. From memory, low confidence: tender loin muscles
# lie under a tenth, shank and cheek over a fifth, the little protein of fat is mostly its connective net.
COLLAGEN_OF_PROTEIN: dict[Connective, tuple[float, float, float]] = {
    "low": (0.05, 0.08, 0.12),
    "medium": (0.09, 0.13, 0.19),
    "high": (0.17, 0.23, 0.32),
    "fat": (0.35, 0.50, 0.65),
}


@dataclass(frozen=True, slots=True)
class CollagenFigures:
    """Collagen by protein of a blend, 0–1: usual value, standard error, and the share of meat from sinewy cuts."""

    usual_frac: float
    sd_frac: float
    sinewy_share_frac: float

    def chance_above(self, limit_frac: float) -> float:
        """Chance 0–1 that a batch has more collagen by protein than a limit.

        Parameters
        ----------
        limit_frac : float
            The limit, 0–1.

        Returns
        -------
        float
            Chance 0–1 that a batch has more collagen by protein than a limit.
        """
        if self.sd_frac == 0.0:
            return 1.0 if self.usual_frac > limit_frac else 0.0
        import numpy as np

        return float(1.0 - normal_cdf(np.array([(limit_frac - self.usual_frac) / self.sd_frac]))[0])


def collagen_figures(shares_frac: Sequence[float], meats: Sequence[Meat], fats: Sequence[FatRange]) -> CollagenFigures:
    """Collagen by protein of a blend: Σ sᵢ pᵢ cᵢ ÷ Σ sᵢ pᵢ, with p protein and c the class's collagen share.

    Parameters
    ----------
    shares_frac : Sequence[float]
        Shares, 0–1.
    meats : Sequence[Meat]
        The meats, in order.
    fats : Sequence[FatRange]
        The range of fat of each meat, in order.

    Returns
    -------
    CollagenFigures
        Collagen by protein of a blend, 0–1.

    References
    ----------
    Ratio by mass as Regulation (EU) 1169/2011, Annex VI part B, asks; collagen of a class from memory, low
    confidence.

    Examples
    --------
    Lean of one class has the class's figure, however much of it there is.
    """
    protein = [s * m.protein_frac(f.usual_frac) for s, m, f in zip(shares_frac, meats, fats, strict=True)]
    whole = math.fsum(protein)
    if whole <= 0.0:
        return CollagenFigures(0.0, 0.0, 0.0)
    classes = [COLLAGEN_OF_PROTEIN[m.connective] for m in meats]
    usual = math.fsum(p * c[1] for p, c in zip(protein, classes, strict=True)) / whole
    errors = [p * (c[2] - c[0]) / 2.0 / Z_90 for p, c in zip(protein, classes, strict=True)]
    sinewy = math.fsum(s for s, m in zip(shares_frac, meats, strict=True) if m.connective == "high")
    return CollagenFigures(usual, math.hypot(*errors) / whole, sinewy)
