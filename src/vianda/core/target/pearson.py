"""The Pearson square: how much of two meats makes a target."""

from __future__ import annotations

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
        Fat 0–1, the target between the other two.
    rich_fat_frac : float
        Rich fat, 0–1.
    target_frac : float
        Target, 0–1.

    Returns
    -------
    PearsonSquare
        The square as it is drawn.

    Raises
    ------
    InfeasibleBlendError
        The target lies outside the two meats, or they are alike.

    Source: a textbook method (feed and meat formulation); arithmetic.
    OutOfRangeError
        Fat lies between 0 and 100 %.

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
