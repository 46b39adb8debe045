"""A cook as stages: what touches either face, and what ends the stage."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.heat.conduction.faces import Face

End = Literal["time", "two-fifths", "core"]
StageName = Literal["slow", "first-side", "second-side", "gentle", "bake", "brown", "simmer", "rest"]

# W/(m² K), from memory of published work (see docs/heat-model.md): contact 250–650 double-sided, 200–1200 in a pan.
PRESSED_H, LAID_H = 600.0, 350.0
FAN_H, LID_H, ROOM_H, SIMMER_H = 28.0, 15.0, 8.0, 400.0
# Coals at 600–700 °C glow on a grate with 15–25 kW/m², over 200 K between meat and grate: about 90. Ours, low.
FIRE_H = 90.0
MEAT_EMISSIVITY = 0.9
ROOM_C, OVER_PLATE_C, SIMMER_C, SLOW_C = 22.0, 40.0, 95.0, 107.0
# A rolling ball touches the pan with about a third of its skin at a time: ours.
ROLLED_FRAC = 0.33
DAMP_AIR_PA, LID_AIR_PA = 1300.0, 8000.0


@dataclass(frozen=True, slots=True)
class CookStage:
    """One stage: the faces below and above (of a ball the upper one is its skin), and what ends it.

    It ends after ``seconds``, when two fifths of the thickness have passed 60 °C, or when the core is as wanted;
    ``seconds`` is then the longest it is waited for. ``flip``: it begins by turning the piece over.
    """

    name: StageName
    low: Face
    high: Face
    end: End
    seconds: float
    flip: bool = False
    step_s: float = 1.0


def air(temp_c: float, h: float, *, vapour_pa: float = DAMP_AIR_PA) -> Face:
    """Air that also radiates."""
    return Face("air", temp_c, h, MEAT_EMISSIVITY, vapour_pa)


SHUT = Face("shut", 0.0, 0.0)
