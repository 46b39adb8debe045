"""The port of a bench scale: what Vianda asks of one, real or simulated."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, Protocol

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.equipment.kitchen import STEPS_G

ScaleState = Literal["steady", "moving", "overload", "underload"]


@dataclass(frozen=True, slots=True)
class Reading:
    """What the display shows: grams on the scale's step, None when it shows dashes.

    ``gross_g`` is the same without the tare. ``at_s`` counts from when the scale was switched on.
    """

    shown_g: float | None
    gross_g: float | None
    state: ScaleState
    at_s: float


class BenchScale(Protocol):
    """A bench scale. A real one keeps what its line says and answers with the display nearest before the moment."""

    def read(self, at_s: float) -> Reading:
        """The display at a moment, at most a second ago."""

    def tare(self, at_s: float) -> None:
        """Call what lies on the scale zero."""


@dataclass(frozen=True, slots=True)
class ScaleMake:
    """How a bench scale behaves.

    Parameters
    ----------
    step_g : int
        1, 2 or 5 g: what the display counts in.
    capacity_g : float
        Beyond this and nine steps the display shows dashes (NIST Handbook 44, 2.20 S.1.7, from memory).
    natural_hz, damping : float
        How the platform swings when loaded: a second-order spring with damping (0–1).
    noise_sd_g : float
        Draught and vibration on each tenth of a second.
    drift_g_per_min : float
        How its zero wanders while it warms up.
    """

    step_g: int
    capacity_g: float
    natural_hz: float = 2.2
    damping: float = 0.45
    noise_sd_g: float = 0.12
    drift_g_per_min: float = 0.06

    def __post_init__(self) -> None:
        if self.step_g not in STEPS_G:
            raise OutOfRangeError("A bench scale for pieces reads in steps of 1, 2, 5 or 10 g.", field="/step_g")
        if not 200 <= self.capacity_g <= 200_000:
            raise OutOfRangeError("A bench scale carries 200 g to 200 kg.", field="/capacity_g")
        if not 0 < self.damping < 1:
            raise OutOfRangeError("Damping lies between 0 and 1.", field="/damping")
