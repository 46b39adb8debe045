"""What gives a piece its shape: tins, trays, scoops and rings, measured inside."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache
from typing import Annotated, Literal

from annotated_types import Ge, Le

from vianda.core.basis.bounds import Key, LengthMm, Name
from vianda.core.basis.errors import OutOfRangeError

MouldKind = Literal["tin", "tray", "scoop", "ring"]

# One US fluid ounce in ml: 231 cubic inches to the gallon, 128 of them in it (NIST Handbook 44, appendix C).
US_FL_OZ_ML = 29.5735295625
# A scoop's number says how many level ones fill a US quart: published convention of the trade.
QUART_FL_OZ = 32.0
SCOOP_NUMBERS = (6, 8, 10, 12, 16, 20, 24, 30, 40, 50, 60, 70, 100)


def scoop_ml(number: int) -> float:
    """What a level scoop of a number holds: 32 US fl oz ÷ number, in ml.

    Parameters
    ----------
    number : int
        A scoop's number, 1 or more (count).

    Returns
    -------
    float
        Level volume of the scoop, ml.

    Raises
    ------
    OutOfRangeError
        A scoop's number is 1 or more.

    Examples
    --------
    >>> round(scoop_ml(24), 1)
    39.4
    """
    if number < 1:
        raise OutOfRangeError("A scoop's number is 1 or more.", field="/scoop_number")
    return QUART_FL_OZ * US_FL_OZ_ML / number


@dataclass(frozen=True, slots=True)
class Mould:
    """A tin, tray, scoop or ring; lengths in mm, inside.

    ``length_mm`` × ``width_mm`` is a tin or tray at its brim, ``base_*`` at its bottom (0: straight sides); of a ring
    ``length_mm`` is its diameter. ``volume_ml`` is measured by filling it with water, or what a scoop holds; 0 when it
    follows from the rest. ``scoop_number`` 0 for all but scoops.
    """

    key: Key
    name: Name
    kind: MouldKind
    length_mm: LengthMm = 0.0
    width_mm: LengthMm = 0.0
    height_mm: LengthMm = 0.0
    base_length_mm: LengthMm = 0.0
    base_width_mm: LengthMm = 0.0
    volume_ml: Annotated[float, Ge(0), Le(100_000)] = 0.0
    scoop_number: Annotated[int, Ge(0), Le(100)] = 0

    def __post_init__(self) -> None:
        if self.kind == "scoop":
            if self.scoop_number == 0 and not 2 <= self.volume_ml <= 500:
                raise OutOfRangeError(f"{self.name}: a scoop has a number, or holds 2 to 500 ml.", field="/volume_ml")
            if self.scoop_number and not 4 <= self.scoop_number <= 100:
                raise OutOfRangeError(f"{self.name}: scoops are numbered 4 to 100.", field="/scoop_number")
            return
        sides = [self.length_mm, self.height_mm] + ([self.width_mm] if self.kind != "ring" else [])
        if any(not 5 <= side <= 1000 for side in sides):
            raise OutOfRangeError(f"{self.name}: it measures 5 to 1000 mm each way, inside.", field="/length_mm")
        for brim, base in ((self.length_mm, self.base_length_mm), (self.width_mm, self.base_width_mm)):
            if base and not 0.5 * brim <= base <= brim:
                raise OutOfRangeError(
                    f"{self.name}: the bottom is half of the brim or more, never wider.", field="/base_length_mm"
                )
        if self.volume_ml and not 0.7 <= self.volume_ml / self._by_size_ml() <= 1.1:
            raise OutOfRangeError(
                f"{self.name}: {self.volume_ml:.0f} ml does not fit its size, which gives {self._by_size_ml():.0f} ml.",
                field="/volume_ml",
            )

    @property
    def holds_ml(self) -> float:
        """To the brim: as measured, by its number, or by its size."""
        if self.kind == "scoop":
            return scoop_ml(self.scoop_number) if self.scoop_number else self.volume_ml
        return self.volume_ml or self._by_size_ml()

    def filled_ml(self, height_mm: float) -> float:
        """What it holds up to a height: the prismatoid between bottom and that height; a measured volume scales it.

        Beyond the brim the walls are taken to go on upright.

        Parameters
        ----------
        height_mm : float
            Height to which it is filled, mm, 0 or more.

        Returns
        -------
        float
            Volume up to that height, ml.
        """
        if height_mm > self.height_mm:
            return self.holds_ml + (height_mm - self.height_mm) * self._area_mm2(1.0) / 1000.0
        return self._prismatoid_ml(height_mm) * self.holds_ml / self._by_size_ml()

    def height_of_mm(self, volume_ml: float) -> float:
        """How high a volume stands in it: the inverse of ``filled_ml``, by bisection up to the brim.

        Parameters
        ----------
        volume_ml : float
            Volume in it, ml, 0 or more.

        Returns
        -------
        float
            Height at which it stands, mm.
        """
        holds = self.holds_ml
        if volume_ml >= holds:
            return self.height_mm + (volume_ml - holds) * 1000.0 / self._area_mm2(1.0)
        low, high = 0.0, self.height_mm
        for _ in range(60):
            middle = (low + high) / 2
            low, high = (middle, high) if self.filled_ml(middle) < volume_ml else (low, middle)
        return (low + high) / 2

    def _area_mm2(self, at: float) -> float:
        """Cross-section at a share of its height."""
        if self.kind == "ring":
            return math.pi * self.length_mm**2 / 4
        base_l, base_w = self.base_length_mm or self.length_mm, self.base_width_mm or self.width_mm
        return (base_l + (self.length_mm - base_l) * at) * (base_w + (self.width_mm - base_w) * at)

    def _prismatoid_ml(self, height_mm: float) -> float:
        """Simpson's rule on the cross-section, which is exact here: it is of the second degree in the height."""
        at = height_mm / self.height_mm
        return height_mm * (self._area_mm2(0) + 4 * self._area_mm2(at / 2) + self._area_mm2(at)) / 6000.0

    def _by_size_ml(self) -> float:
        return self._prismatoid_ml(self.height_mm)


@cache
def usual_moulds() -> tuple[Mould, ...]:
    """What the demo kitchen shapes with; a kitchen from before moulds were written down has them too.

    Returns
    -------
    tuple[Mould, ...]
        Each: a tin, tray, scoop or ring.
    """
    scoops = tuple(Mould(f"scoop-{n}", f"Scoop No. {n}", "scoop", scoop_number=n) for n in (12, 16, 20, 24, 30, 40, 60))
    return (
        Mould("loaf-tin", "Loaf tin 220 × 110 × 65", "tin", 220, 110, 65, 200, 95),
        Mould("long-tin", "Long tin 290 × 120 × 75", "tin", 290, 120, 75, 270, 105),
        Mould("small-tray", "Small tray 260 × 180 × 50", "tray", 260, 180, 50, 245, 165),
        Mould("half-tray", "Half tray 325 × 265 × 65", "tray", 325, 265, 65, 300, 240),
        Mould("ring-100", "Ring, 100 mm", "ring", 100, 0, 30),
        Mould("ring-120", "Ring, 120 mm", "ring", 120, 0, 25),
        *scoops,
    )
