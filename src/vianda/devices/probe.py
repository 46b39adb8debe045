"""The ports of a probe and of a surface thermometer: what Vianda asks of one, real or simulated."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from vianda.core.basis.errors import OutOfRangeError


@dataclass(frozen=True, slots=True)
class ProbeMake:
    """How a thermometer behaves.

    Parameters
    ----------
    lag_s : float
        0.3–30 s until it shows 63 % of a change; a thin probe 2–5.
    noise_sd_k : float
        0–3 K on each reading.
    misplaced_frac : float
        −0.5–0.5: how far its tip lies from the middle, by the thickness of the piece.
    offset_k : float
        −5–5 K it reads too much.
    """

    lag_s: float = 4.0
    noise_sd_k: float = 0.4
    misplaced_frac: float = 0.04
    offset_k: float = 0.0

    def __post_init__(self) -> None:
        if not 0.3 <= self.lag_s <= 30.0:
            raise OutOfRangeError("A probe settles in 0.3 to 30 s.", field="/probe/lag_s")
        if not 0.0 <= self.noise_sd_k <= 3.0:
            raise OutOfRangeError("A probe wavers by at most 3 K.", field="/probe/noise_sd_k")
        if not -0.5 <= self.misplaced_frac <= 0.5:
            raise OutOfRangeError("Its tip lies inside the piece.", field="/probe/misplaced_frac")
        if not -5.0 <= self.offset_k <= 5.0:
            raise OutOfRangeError("A probe is off by at most 5 K.", field="/probe/offset_k")


class Thermometer(Protocol):
    """A probe in meat, or a thermometer on a surface."""

    def read_c(self, at_s: float) -> float:
        """What its display shows at a moment, °C to a tenth."""
