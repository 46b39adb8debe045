"""The blend: lean to fat with its uncertainty, grams of each meat, and which meat brings the uncertainty."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.errors import InfeasibleBlendError
from vianda.core.basis.scale_step import SHARE_SLACK, shares_on_scale
from vianda.core.inventory.evidence import width_after_test
from vianda.core.inventory.fat_range import Z_90, FatRange, FatSpread, correlated_variance, spread_of
from vianda.core.inventory.inventory import POULTRY, Inventory, Meat
from vianda.core.model.formula import MOST_MEATS, BlendPart

CURVE_POINTS = 41


@dataclass(frozen=True, slots=True)
class PartFigures:
    """One meat in the blend, with what is known of its fat (after the evidence on its lot).

    ``uncertainty_share_frac``: its part of the blend's variance, 0–1. ``tested_width_frac``: the width of the blend's
    90 % band if this meat alone were put through one kitchen fat test.
    """

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
    uncertainty_share_frac: float
    lot: str = ""
    lot_name: str = ""
    tested_width_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class BlendFigures:
    """The blend as a whole. ``fat_low_frac`` to ``fat_high_frac`` holds nine batches in ten.

    Chances are of a batch lying below, within and above the style's band. ``curve`` draws the uncertainty:
    (fat, relative likelihood).
    """

    parts: tuple[PartFigures, ...]
    fat_frac: float
    fat_low_frac: float
    fat_high_frac: float
    batch_mass_g: int
    chance_below_band: float = 0.0
    chance_in_band: float = 0.0
    chance_above_band: float = 0.0
    curve: tuple[tuple[float, float], ...] = ()


def blend_meats(parts: Sequence[BlendPart], *, inventory: Inventory) -> list[Meat]:
    """The meats of a blend, in order, after checking that the blend is one.

    Parameters
    ----------
    parts : Sequence[BlendPart]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    list[Meat]
        Each: one meat or fat as bought.

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
    return [inventory.meat(p.meat, field=f"/parts/{at}/meat") for at, p in enumerate(parts)]


def blend_fats(parts: Sequence[BlendPart], *, inventory: Inventory) -> list[FatRange]:
    """What is known of the fat of each part, in order.

    Parameters
    ----------
    parts : Sequence[BlendPart]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    list[FatRange]
        Each: fat by mass of raw meat, 0–1.
    """
    return [inventory.fat_of(p.meat, p.lot) for p in parts]


def blend_spread(parts: Sequence[BlendPart], *, inventory: Inventory) -> FatSpread:
    """The fat of the blend as a distribution; cuts of one knife move together.

    Parameters
    ----------
    parts : Sequence[BlendPart]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.

    Returns
    -------
    FatSpread
        The fat of a blend as a distribution.

    References
    ----------
    A sum of quantities that share one factor; textbook.
    """
    blend_meats(parts, inventory=inventory)
    return spread_of([p.share_frac for p in parts], blend_fats(parts, inventory=inventory))


def blend_figures(
    parts: Sequence[BlendPart],
    *,
    inventory: Inventory,
    batch_mass_g: int,
    step_g: int,
    band_frac: tuple[float, float],
    spread: FatSpread | None = None,
) -> BlendFigures:
    """Lean to fat of a blend, with the uncertainty it inherits from its meats.

    Fat F = Σ sᵢ uᵢ, the mean of the blend's distribution. The band is the 5 % and 95 % quantile of the sum of the
    meats' own distributions (``spread_of``); shares of the uncertainty are shares of the variance,
    (sᵢ σᵢ)² ÷ Σ (sⱼ σⱼ)², and what two cuts of one knife bring together is split between them.

    Parameters
    ----------
    parts : Sequence[BlendPart]
        Meats with their shares.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    batch_mass_g : int
        Batch mass, g.
    step_g : int
        Step of the scale, g, above 0.
    band_frac : tuple[float, float]
        The style's usual band of fat, for the chances.
    spread : FatSpread | None, default None
        Given when it was worked out already.

    Returns
    -------
    BlendFigures
        The blend as a whole.

    References
    ----------
    A sum of independent quantities; textbook.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> parts = (BlendPart("chuck", 0.5), BlendPart("brisket-point", 0.5))
    >>> b = blend_figures(parts, inventory=starter_inventory(), batch_mass_g=1000, step_g=1, band_frac=(0.18, 0.25))
    >>> round(b.fat_frac, 3), b.chance_in_band > 0.6
    (0.22, True)
    """
    meats = blend_meats(parts, inventory=inventory)
    fats = blend_fats(parts, inventory=inventory)
    total = math.fsum(p.share_frac for p in parts)
    shares = [p.share_frac / total for p in parts]
    masses = shares_on_scale(shares, batch_g=batch_mass_g, step_g=step_g)
    found = spread or spread_of(shares, fats)
    spreads, shared = [s * f.sd for s, f in zip(shares, fats, strict=True)], [f.shared_frac for f in fats]
    together = math.fsum(c * x for x, c in zip(spreads, shared, strict=True))
    variances = [x * x * (1.0 - c * c) + c * x * together for x, c in zip(spreads, shared, strict=True)]
    variance = math.fsum(variances)
    low, high = found.quantile(0.05), found.quantile(0.95)
    figures = tuple(
        PartFigures(
            meat=meat.key,
            name=meat.name,
            species=meat.species,
            kind=meat.kind,
            share_frac=share,
            locked=part.locked,
            mass_g=mass,
            fat_low_frac=fat.low_frac,
            fat_usual_frac=fat.usual_frac,
            fat_high_frac=fat.high_frac,
            fat_mass_g=mass * fat.usual_frac,
            uncertainty_share_frac=v / variance if variance else 0.0,
            lot=part.lot,
            lot_name=inventory.lot(part.lot, meat=part.meat).name if part.lot else "",
            tested_width_frac=(high - low) * _left_after_test(spreads, shared, at, share, fat),
        )
        for at, (part, meat, share, mass, fat, v) in enumerate(
            zip(parts, meats, shares, masses, fats, variances, strict=True)
        )
    )
    below, above = 1.0 - found.chance_above(band_frac[0]), found.chance_above(band_frac[1])
    return BlendFigures(
        parts=figures,
        fat_frac=math.fsum(s * f.usual_frac for s, f in zip(shares, fats, strict=True)),
        fat_low_frac=low,
        fat_high_frac=high,
        batch_mass_g=batch_mass_g,
        chance_below_band=below,
        chance_in_band=max(0.0, 1.0 - below - above),
        chance_above_band=above,
        curve=found.curve(CURVE_POINTS),
    )


def _left_after_test(spreads: Sequence[float], shared: Sequence[float], at: int, share: float, fat: FatRange) -> float:
    """What one test of one meat leaves of the blend's width, as a fraction: √(new variance ÷ old)."""
    variance, own = correlated_variance(spreads, shared), spreads[at]
    if variance <= 0.0 or own <= 0.0:
        return 1.0
    tested = min(own, share * width_after_test(fat) / Z_90)
    after = [*spreads[:at], tested, *spreads[at + 1 :]]
    # What is measured leaves less to the knife.
    left = [*shared[:at], shared[at] * tested / own, *shared[at + 1 :]]
    return math.sqrt(correlated_variance(after, left) / variance)


def has_poultry(blend: BlendFigures) -> bool:
    """Whether any bird is in the blend: then the whole mix has the poultry floor.

    Parameters
    ----------
    blend : BlendFigures
        The blend on the scale.

    Returns
    -------
    bool
        Whether any bird is in the blend: then the whole mix has the poultry floor.
    """
    return any(p.species in POULTRY and p.share_frac > 0 for p in blend.parts)
