"""The kitchen fat test: weigh a sample raw, cook it out, weigh what is left and the fat that ran out.

Fat = rendered fat + the fat that stays in the cooked lean. What stays is taken from SR28's pan-browned crumbles.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from vianda.core.basis.band import along
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.inventory.evidence import Evidence

# Fat of raw ground beef → fat left in it after pan-browning and draining, g/g.
# SR28: 23481, 23560, 23476, 23565, 23570, 23575, 23580, 13494 (cooked) by their raw fat.
FAT_LEFT = (
    (0.03, 0.0546),
    (0.05, 0.0758),
    (0.07, 0.0951),
    (0.10, 0.1204),
    (0.15, 0.1530),
    (0.20, 0.1736),
    (0.25, 0.1821),
    (0.30, 0.1786),
)
# How hard it is drained and pressed moves that by a fifth either way (ours).
FAT_LEFT_UNCERTAINTY = 0.20
# Fat that stays on pan, paper and spoon: about this share of what ran out is not weighed (ours).
FAT_LOST_UNCERTAINTY = 0.05
# Two handfuls of one batch differ: standard error of a 100 g sample, falling with its root (ours).
SAMPLE_SD_AT_100_G = 0.012
LEAST_SAMPLE_G, MOST_SAMPLE_G = 20.0, 5000.0
ROUNDS = 60


@dataclass(frozen=True, slots=True)
class FatTest:
    """What a test found: fat 0–1 with its standard error, and where the error comes from (standard errors)."""

    raw_g: float
    lean_g: float
    fat_g: float
    liquid_g: float
    steam_g: float
    left_frac: float
    fat_frac: float
    sd_frac: float
    sd_weighing_frac: float
    sd_left_frac: float
    sd_lost_frac: float
    sd_sample_frac: float

    def evidence(self) -> Evidence:
        """The test as evidence on the delivery it was taken from.

        Returns
        -------
        Evidence
            One thing known about a delivery.
        """
        return Evidence(
            "fat-test",
            self.fat_frac,
            self.sd_frac,
            f"{self.raw_g:g} g raw, {self.lean_g:g} g lean residue, {self.fat_g:g} g fat, {self.liquid_g:g} g liquid",
        )


def fat_test(*, raw_g: float, lean_g: float, fat_g: float, liquid_g: float, step_g: float) -> FatTest:
    """Fat of a sample from its weights.

    F = (fat + φ(F) · lean) ÷ raw, solved by repetition; φ is the fat that pan-browned, drained crumbles keep.

    Parameters
    ----------
    raw_g : float
        Raw sample, g, above 0.
    lean_g : float
        Lean residue, drained, g.
    fat_g : float
        Rendered fat, g.
    liquid_g : float
        Watery liquid poured off apart from the fat, g.
    step_g : float
        Step of the scale used, g.

    Returns
    -------
    FatTest
        What a test found.

    Raises
    ------
    OutOfRangeError
        Sample too small to say anything, or more weighed out than went in.

    Notes
    -----
    Beef; for other species φ is borrowed. Good to about four points nine times in ten.

    References
    ----------
    SR28 for φ; the errors are ours.

    Examples
    --------
    >>> t = fat_test(raw_g=200, lean_g=128, fat_g=18, liquid_g=6, step_g=1)
    >>> round(t.fat_frac, 3), round(t.sd_frac, 3)
    (0.201, 0.024)
    """
    for name, value in (("sample", raw_g), ("residue", lean_g), ("fat", fat_g), ("liquid", liquid_g)):
        if not math.isfinite(value) or value < 0:
            raise OutOfRangeError(f"The {name} weighs zero or more, in grams.", field="/fat_test")
    if not LEAST_SAMPLE_G <= raw_g <= MOST_SAMPLE_G:
        raise OutOfRangeError(
            f"A sample weighs {LEAST_SAMPLE_G:g} to {MOST_SAMPLE_G:g} g; 100 to 250 g is best.", field="/fat_test/raw_g"
        )
    if lean_g <= 0:
        raise OutOfRangeError("The lean residue weighs more than zero.", field="/fat_test/lean_g")
    steam_g = raw_g - lean_g - fat_g - liquid_g
    if steam_g < -2.0 * step_g:
        raise OutOfRangeError(
            f"{lean_g + fat_g + liquid_g:g} g came out of {raw_g:g} g: was a pan or a bowl weighed too?",
            field="/fat_test/lean_g",
        )
    fat = fat_g / raw_g
    for _ in range(ROUNDS):
        fat = (fat_g + _left(fat) * lean_g) / raw_g
    left = _left(fat)
    # A reading is off by at most half a step, evenly: standard error step/√12.
    reading = step_g / math.sqrt(12.0)
    weighing = reading * math.sqrt(1.0 + left**2 + fat**2) / raw_g
    kept = FAT_LEFT_UNCERTAINTY * left * lean_g / raw_g
    lost = FAT_LOST_UNCERTAINTY * fat_g / raw_g
    sample = SAMPLE_SD_AT_100_G * math.sqrt(100.0 / raw_g)
    return FatTest(
        raw_g=raw_g,
        lean_g=lean_g,
        fat_g=fat_g,
        liquid_g=liquid_g,
        steam_g=max(0.0, steam_g),
        left_frac=left,
        fat_frac=min(1.0, fat),
        sd_frac=math.sqrt(weighing**2 + kept**2 + lost**2 + sample**2),
        sd_weighing_frac=weighing,
        sd_left_frac=kept,
        sd_lost_frac=lost,
        sd_sample_frac=sample,
    )


def _left(fat_frac: float) -> float:
    """Fat kept by the drained lean, held at the ends of the rows."""
    if fat_frac <= FAT_LEFT[0][0]:
        return FAT_LEFT[0][1] * fat_frac / FAT_LEFT[0][0]
    return FAT_LEFT[-1][1] if fat_frac >= FAT_LEFT[-1][0] else along(FAT_LEFT, fat_frac)
