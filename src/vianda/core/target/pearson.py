"""The Pearson square: how much of two meats makes a target."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vianda.core.basis.errors import InfeasibleBlendError, OutOfRangeError


@dataclass(frozen=True, slots=True)
class PearsonSquare:
    """The square as it is drawn: the two fats on the left, the target in the middle, the parts on the right.

    ``lean_parts`` stands across from the fatter meat's corner and is read for the leaner one; shares sum to 1.
    """

    lean_fat_frac: float
    rich_fat_frac: float
    target_frac: float
    lean_parts: float
    rich_parts: float
    lean_share_frac: float
    rich_share_frac: float


def pearson_square(*, lean_fat_frac: float, rich_fat_frac: float, target_frac: float) -> PearsonSquare:
    """Shares of a leaner and a fatter meat for a target fat.

    Parts of the lean = rich fat − target; parts of the rich = target − lean fat, in points.

    Parameters
    ----------
    lean_fat_frac : float
        Fat of the leaner meat, 0–1.
    rich_fat_frac : float
        Fat of the fatter meat, 0–1.
    target_frac : float
        Fat that is wanted, 0–1, between the two.

    Returns
    -------
    PearsonSquare
        The square as it is drawn.

    Raises
    ------
    InfeasibleBlendError
        The target lies outside the two meats, or they are alike.
    OutOfRangeError
        Fat lies between 0 and 100 %.

    References
    ----------
    A textbook method (feed and meat formulation); arithmetic.

    Examples
    --------
    Trim of 50 % and round of 8 % for a blend of 20 %: 30 parts of round to 12 of trim.

    >>> s = pearson_square(lean_fat_frac=0.08, rich_fat_frac=0.50, target_frac=0.20)
    >>> round(s.lean_parts), round(s.rich_parts), round(s.rich_share_frac, 4)
    (30, 12, 0.2857)
    """
    for value in (lean_fat_frac, rich_fat_frac, target_frac):
        if not 0.0 <= value <= 1.0:
            raise OutOfRangeError("Fat lies between 0 and 100 %.", field="/target_frac")
    if lean_fat_frac > rich_fat_frac:
        raise OutOfRangeError("The first meat of the square is the leaner one.", field="/lean")
    if rich_fat_frac - lean_fat_frac < 1e-6:
        raise InfeasibleBlendError("The two meats are equally fat; no mixing changes that.", field="/lean")
    if not lean_fat_frac - 1e-9 <= target_frac <= rich_fat_frac + 1e-9:
        raise InfeasibleBlendError(
            f"{target_frac * 100:.3g} % lies outside {lean_fat_frac * 100:.3g} to {rich_fat_frac * 100:.3g} %: these "
            "two meats cannot make it.",
            field="/target_frac",
        )
    lean_parts = (rich_fat_frac - target_frac) * 100.0
    rich_parts = (target_frac - lean_fat_frac) * 100.0
    whole = lean_parts + rich_parts
    return PearsonSquare(
        lean_fat_frac, rich_fat_frac, target_frac, lean_parts, rich_parts, lean_parts / whole, rich_parts / whole
    )


@dataclass(frozen=True, slots=True)
class FirstSquare:
    """Two meats and a target, 0–1, that make a square which can be drawn."""

    one: str
    two: str
    target_frac: float


# What stands across from a blend of one meat: fat trim for a leaner one than its style, lean round for a fatter one.
# How far above its fat the target lies at most, 0-1. Ours.
RICH_PARTNER, LEAN_PARTNER = "trim-50", "round"
TARGET_ABOVE_FRAC = 0.05


def first_square(
    meats: Sequence[tuple[str, float]], *, blend_fat_frac: float, usual_frac: tuple[float, float]
) -> FirstSquare:
    """The square that a cook is shown first: the leanest and the fattest of the blend, and the fat it has.

    Parameters
    ----------
    meats : Sequence[tuple[str, float]]
        Key and usual fat, 0–1, of each meat of the blend, one or more.
    blend_fat_frac : float
        Fat of the blend, 0–1.
    usual_frac : tuple[float, float]
        Fat that is usual for the style, from and to, 0–1.

    Returns
    -------
    FirstSquare
        Two unlike meats and a target between them.

    References
    ----------
    Ours.

    Examples
    --------
    >>> first_square([("chuck", 0.2), ("round", 0.08)], blend_fat_frac=0.15, usual_frac=(0.2, 0.3))
    FirstSquare(one='round', two='chuck', target_frac=0.15)
    >>> first_square([("round", 0.08)], blend_fat_frac=0.08, usual_frac=(0.2, 0.3))
    FirstSquare(one='round', two='trim-50', target_frac=0.13)
    """
    by_fat = sorted(meats, key=lambda meat: meat[1])
    if by_fat[0][1] < by_fat[-1][1]:
        return FirstSquare(by_fat[0][0], by_fat[-1][0], blend_fat_frac)
    only, fat = by_fat[0]
    partner = RICH_PARTNER if fat < usual_frac[0] else LEAN_PARTNER
    return FirstSquare(only, partner, min(usual_frac[0], fat + TARGET_ABOVE_FRAC))
