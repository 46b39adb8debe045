"""How hot a surface is when nobody has a thermometer: what a drop of water, fat or a hand does, as a band.

Common practice, no published source; smoke points from memory, medium confidence: they fall with use and salt.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.equipment.kitchen import SurfaceKind
from vianda.core.model.formula import PanFat

SignKind = Literal["drop", "fat", "hand"]


@dataclass(frozen=True, slots=True)
class Fat:
    """A fat for the pan: its name and where it begins to smoke, °C."""

    title: str
    smokes_c: float


FATS: Mapping[PanFat, Fat] = {
    "oil": Fat("Refined oil", 225.0),
    "clarified-butter": Fat("Clarified butter", 240.0),
    "butter": Fat("Butter", 150.0),
    "dripping": Fat("Beef dripping", 205.0),
    "bacon-fat": Fat("Bacon fat", 190.0),
}


@dataclass(frozen=True, slots=True)
class Sign:
    """Something one sees or feels, the band of surface temperature it stands for, and where it can be looked for."""

    key: str
    kind: SignKind
    title: str
    low_c: float
    high_c: float
    surfaces: tuple[SurfaceKind, ...]

    @property
    def usual_c(self) -> float:
        """The middle of the band."""
        return (self.low_c + self.high_c) / 2


_HOT: tuple[SurfaceKind, ...] = ("plate", "pan")
SIGNS: tuple[Sign, ...] = (
    Sign("drop-sits", "drop", "A drop of water lies there and steams", 80.0, 120.0, _HOT),
    Sign("drop-sizzles", "drop", "A drop sizzles away in a second or two", 120.0, 185.0, _HOT),
    Sign("drop-skitters", "drop", "A drop rolls up and skitters about", 190.0, 260.0, _HOT),
    Sign("fat-still", "fat", "Fat lies still", 80.0, 150.0, _HOT),
    Sign("fat-shimmers", "fat", "Fat shimmers and runs like water", 170.0, 210.0, _HOT),
    Sign("fat-smokes", "fat", "Fat just begins to smoke", 0.0, 0.0, _HOT),
    Sign("hand-2", "hand", "A hand over the grate bears 2 to 3 seconds", 230.0, 290.0, ("grate",)),
    Sign("hand-5", "hand", "A hand over the grate bears 5 seconds", 175.0, 220.0, ("grate",)),
    Sign("hand-8", "hand", "A hand over the grate bears 8 seconds and more", 120.0, 165.0, ("grate",)),
)
SMOKE_WIDTH_K = 15.0


@dataclass(frozen=True, slots=True)
class SurfaceGuess:
    """The band that signs leave, °C, and its middle."""

    low_c: float
    usual_c: float
    high_c: float


def guess_surface(signs: tuple[str, ...], *, fat: PanFat = "") -> SurfaceGuess:
    """What several signs have in common.

    Parameters
    ----------
    signs : tuple[str, ...]
        Keys of what is seen.
    fat : PanFat, default ''
        The fat in the pan; "" for none.

    Returns
    -------
    SurfaceGuess
        The band that signs leave, °C, and its middle.

    Raises
    ------
    UnknownItemError, OutOfRangeError
        An unknown sign; smoke without a fat; or signs that contradict each other.
    OutOfRangeError
        Say what you see: a drop, fat, or how long a hand bears it.

    References
    ----------
    Common practice, no published source.

    Examples
    --------
    >>> g = guess_surface(("drop-skitters", "fat-shimmers"))
    >>> g.low_c, g.high_c
    (190.0, 210.0)
    """
    if not signs:
        raise OutOfRangeError("Say what you see: a drop, fat, or how long a hand bears it.", field="/signs")
    low, high = 0.0, 1000.0
    for key in signs:
        sign = next((s for s in SIGNS if s.key == key), None)
        if sign is None:
            raise UnknownItemError(f"No sign “{key[:40]}”.", field="/signs")
        a, b = sign.low_c, sign.high_c
        if key == "fat-smokes":
            if not fat:
                raise OutOfRangeError("Which fat smokes? Choose it first.", field="/fat")
            a, b = FATS[fat].smokes_c - SMOKE_WIDTH_K, FATS[fat].smokes_c + SMOKE_WIDTH_K
        low, high = max(low, a), min(high, b)
    if low > high:
        raise OutOfRangeError(
            "Those signs contradict each other: look again, one at a time, where the meat will lie.", field="/signs"
        )
    return SurfaceGuess(low, (low + high) / 2, high)
