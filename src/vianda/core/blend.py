"""The blend: lean to fat with its doubt, grams of each meat, and which meat brings the doubt."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

from vianda.core.errors import InfeasibleBlendError
from vianda.core.formula import MOST_MEATS, BlendPart
from vianda.core.larder import POULTRY, Larder, Meat
from vianda.core.weighing import SHARE_SLACK, shares_on_scale

# Half of a 90 % band of a normal distribution, in standard deviations.
Z_90 = NormalDist().inv_cdf(0.95)


@dataclass(frozen=True, slots=True)
class PartFigures:
    """One meat in the blend. ``doubt_share_frac``: its part of the blend's variance, 0–1."""

    meat: str
    name: str
    species: str
    kind: str
    share_frac: float
    locked: bool
    mass_g: int
    fat_low_frac: float
    fat_usual_frac: float
    fat_high_frac: float
    fat_mass_g: float
    doubt_share_frac: float


@dataclass(frozen=True, slots=True)
class BlendFigures:
    """The blend as a whole. ``fat_low_frac`` to ``fat_high_frac`` holds nine batches in ten."""

    parts: tuple[PartFigures, ...]
    fat_frac: float
    fat_low_frac: float
    fat_high_frac: float
    batch_mass_g: int

    def chance_fat_above(self, limit_frac: float) -> float:
        """Chance 0–1 that a batch has more fat than a limit (two-piece normal round the usual value)."""
        low_side = (self.fat_frac - self.fat_low_frac) / Z_90
        high_side = (self.fat_high_frac - self.fat_frac) / Z_90
        if low_side + high_side == 0.0:
            return 1.0 if self.fat_frac > limit_frac else 0.0
        weight = 2.0 / (low_side + high_side)
        if limit_frac >= self.fat_frac:
            if high_side == 0.0:
                return 0.0
            return weight * high_side * (1.0 - NormalDist().cdf((limit_frac - self.fat_frac) / high_side))
        if low_side == 0.0:
            return 1.0
        return 1.0 - weight * low_side * NormalDist().cdf((limit_frac - self.fat_frac) / low_side)


def blend_meats(parts: Sequence[BlendPart], *, larder: Larder) -> list[Meat]:
    """The meats of a blend, in order, after checking that the blend is one.

    Raises
    ------
    InfeasibleBlendError
        No meat, too many, one named twice, or shares that do not sum to the whole.
    """
    if not 1 <= len(parts) <= MOST_MEATS:
        raise InfeasibleBlendError(f"A blend has 1 to {MOST_MEATS} meats; this one has {len(parts)}.", field="/parts")
    if len({p.meat for p in parts}) != len(parts):
        raise InfeasibleBlendError("A meat is named twice; put its two shares together.", field="/parts")
    for at, part in enumerate(parts):
        if not 0.0 <= part.share_frac <= 1.0:
            raise InfeasibleBlendError("A share lies between 0 and 100 %.", field=f"/parts/{at}/share_frac")
    total = math.fsum(p.share_frac for p in parts)
    if abs(total - 1.0) > SHARE_SLACK:
        raise InfeasibleBlendError(f"The shares sum to {total * 100:.4g} %; a blend needs 100 %.", field="/parts")
    return [larder.meat(p.meat, field=f"/parts/{at}/meat") for at, p in enumerate(parts)]


def blend_figures(parts: Sequence[BlendPart], *, larder: Larder, batch_mass_g: int, step_g: int) -> BlendFigures:
    """Lean to fat of a blend, with the doubt it inherits from its meats.

    Usual fat F = Σ sᵢ uᵢ. Each meat's range low–usual–high is read as a 90 % range of a two-piece normal;
    with independent meats the half-widths add in squares:
    F − √Σ(sᵢ(uᵢ−lᵢ))² to F + √Σ(sᵢ(hᵢ−uᵢ))².

    Notes
    -----
    Adding the two sides apart is an approximation; against a Monte-Carlo draw it is within half a point of
    fat for the blends in the tests. Two cuts from one careless knife are not independent; then it is wider.

    Source: arithmetic; the ranges carry their own source.

    Examples
    --------
    >>> from vianda.core.larder import starter_larder
    >>> parts = (BlendPart("chuck", 0.5), BlendPart("brisket-point", 0.5))
    >>> b = blend_figures(parts, larder=starter_larder(), batch_mass_g=1000, step_g=1)
    >>> round(b.fat_frac, 3)
    0.22
    """
    meats = blend_meats(parts, larder=larder)
    total = math.fsum(p.share_frac for p in parts)
    shares = [p.share_frac / total for p in parts]
    masses = shares_on_scale(shares, batch_g=batch_mass_g, step_g=step_g)
    fat = math.fsum(s * m.fat_usual_frac for s, m in zip(shares, meats, strict=True))
    below = [s * (m.fat_usual_frac - m.fat_low_frac) for s, m in zip(shares, meats, strict=True)]
    above = [s * (m.fat_high_frac - m.fat_usual_frac) for s, m in zip(shares, meats, strict=True)]
    variances = [b * b + a * a for b, a in zip(below, above, strict=True)]
    variance = math.fsum(variances)
    figures = tuple(
        PartFigures(
            meat=meat.key,
            name=meat.name,
            species=meat.species,
            kind=meat.kind,
            share_frac=share,
            locked=part.locked,
            mass_g=mass,
            fat_low_frac=meat.fat_low_frac,
            fat_usual_frac=meat.fat_usual_frac,
            fat_high_frac=meat.fat_high_frac,
            fat_mass_g=mass * meat.fat_usual_frac,
            doubt_share_frac=v / variance if variance else 0.0,
        )
        for part, meat, share, mass, v in zip(parts, meats, shares, masses, variances, strict=True)
    )
    return BlendFigures(
        parts=figures,
        fat_frac=fat,
        fat_low_frac=max(0.0, fat - math.hypot(*below)),
        fat_high_frac=min(1.0, fat + math.hypot(*above)),
        batch_mass_g=batch_mass_g,
    )


def has_poultry(blend: BlendFigures) -> bool:
    """Whether any bird is in the blend: then the whole mix has the poultry floor."""
    return any(p.species in POULTRY and p.share_frac > 0 for p in blend.parts)
