"""The butcher slip: what to say to someone who cuts, grinds and portions the blend for you."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.batch.portions import Portions
from vianda.core.blend.blend import BlendFigures
from vianda.core.blend.cost import CostFigures
from vianda.core.blend.grind import GrindPlan

# Check-weighing of formed pieces: 2 to 3 % or 2 g, whichever is more (common practice).
TOLERANCE_FRAC, TOLERANCE_G = 0.025, 2.0
# Cooked out for its fat from each delivery, g: a size that a kitchen scale weighs to a hundredth. Ours.
SAMPLE_G = 200.0
# Pieces that differ by more from the mass of their blend hold something else too, and are portioned after mixing. Ours.
SAME_MASS_FRAC = 0.02


@dataclass(frozen=True, slots=True)
class SlipLine:
    """One meat on the slip: grams ready to grind for one batch, and a week, trimmed and as bought."""

    name: str
    share_frac: float
    trimmed_g: float
    week_trimmed_g: float
    week_bought_g: float
    packs: int


@dataclass(frozen=True, slots=True)
class Slip:
    """One batch for the butcher, and a week for the supplier. Masses in g, fat 0–1.

    ``portioned``: pieces are of the blend alone, so that whoever grinds it can portion it too. ``sample_g`` of each
    delivery is cooked out.
    """

    lines: tuple[SlipLine, ...]
    batch_mass_g: int
    plate_mm: float
    passes: int
    fat_frac: float
    fat_low_frac: float
    fat_high_frac: float
    pieces: int
    piece_mass_g: int
    piece_tolerance_g: float
    services_per_week: int
    week_mass_g: float
    week_pieces: int
    portioned: bool
    sample_g: float = SAMPLE_G


def butcher_slip(
    *, blend: BlendFigures, cost: CostFigures, portions: Portions, grind: GrindPlan, services_per_week: int
) -> Slip:
    """The slip of a blend. Week = pieces × weight × services, in grams.

    Parameters
    ----------
    blend : BlendFigures
        The blend on the scale.
    cost : CostFigures
        Money and yield.
    portions : Portions
        Pieces and their weights.
    grind : GrindPlan
        How it is ground.
    services_per_week : int
        Services a week, 1 or more (count).

    Returns
    -------
    Slip
        One batch for the butcher, and a week for the supplier.

    Examples
    --------
    Forty pieces of 85 g at three services a week are 10.2 kg of blend.
    """
    lines: Sequence[SlipLine] = [
        SlipLine(
            name=part.name,
            share_frac=part.share_frac,
            trimmed_g=line.trimmed_g,
            week_trimmed_g=line.trimmed_g * services_per_week,
            week_bought_g=line.bought_g * services_per_week,
            packs=line.packs,
        )
        for part, line in zip(blend.parts, cost.parts, strict=True)
    ]
    plate = grind.plate_mm or grind.wanted_plate_mm
    return Slip(
        lines=tuple(lines),
        batch_mass_g=blend.batch_mass_g,
        plate_mm=plate,
        passes=grind.passes,
        fat_frac=blend.fat_frac,
        fat_low_frac=blend.fat_low_frac,
        fat_high_frac=blend.fat_high_frac,
        pieces=portions.pieces,
        piece_mass_g=portions.piece_mass_g,
        piece_tolerance_g=max(TOLERANCE_G, TOLERANCE_FRAC * portions.piece_mass_g),
        services_per_week=services_per_week,
        week_mass_g=float(blend.batch_mass_g * services_per_week),
        week_pieces=portions.pieces * services_per_week,
        portioned=abs(portions.pieces * portions.piece_mass_g - blend.batch_mass_g)
        <= SAME_MASS_FRAC * blend.batch_mass_g,
    )
