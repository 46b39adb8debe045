"""A cook as the run sees it: what touches each face, and what ends the stage."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.heat.conduction.faces import SHUT, Face

End = Literal["time", "two-fifths", "core"]
StageName = Literal[
    "surface", "indirect", "smoke", "oven", "broiler", "fry", "simmer", "rest", "chill", "freeze", "hold"
]

# W/(m² K), from memory of published work (see docs/heat-model.md): contact 250–650 double-sided, 200–1200 in a pan.
PRESSED_H, LAID_H = 600.0, 350.0
# A press is held so long; then the piece lies by its own weight, and steam and a crust part it from the plate: ours.
PRESSED_S = 10.0
# Fat fills the gaps between a rough piece and dry iron: ours, low.
FAT_GAIN = 1.3
LID_H, ROOM_H, COLD_H, FOIL_H = 15.0, 8.0, 8.0, 4.0
SIMMER_H, FRY_H = 400.0, 300.0
MEAT_EMISSIVITY = 0.9
ROOM_C, OVER_PLATE_C, SIMMER_C, SMOKE_C, FRY_C, CHILL_C, FREEZE_C, HOLD_C = (
    22.0,
    40.0,
    95.0,
    107.0,
    175.0,
    3.0,
    -18.0,
    65.0,
)
# A rolling ball touches the pan with about a third of its skin at a time; a lump that is stirred, with half: ours.
ROLLED_FRAC, STIRRED_FRAC = 0.33, 0.5
DAMP_AIR_PA, LID_AIR_PA, STEAM_AIR_PA, FOIL_AIR_PA = 1300.0, 8000.0, 55_000.0, 12_000.0
# How damp the air of a fridge or a freezer is, by what it could hold: ours.
COLD_DAMP_FRAC = 0.85


@dataclass(frozen=True, slots=True)
class CookStage:
    """One stage: the faces below and above (of a ball the upper one is its skin; a loaf has a side too), and its end.

    It ends after ``seconds``, when two fifths of the thickness have passed 60 °C, or when the core is as wanted;
    ``seconds`` is then the longest it is waited for. ``flip``: it begins by turning the piece over. ``press_out_frac``
    of the loose juice is pressed out at its start. ``coat_kg_m2`` of water comes onto the upper face with a glaze.
    ``pressed`` is what the lower face meets for the first ``PRESSED_S`` seconds, where it is pressed.
    """

    name: StageName
    low: Face
    high: Face
    end: End
    seconds: float
    side: Face = SHUT
    flip: bool = False
    turn_every_s: float = 0.0
    press_out_frac: float = 0.0
    coat_kg_m2: float = 0.0
    pressed: Face | None = None


def air(temp_c: float, h: float, *, vapour_pa: float = DAMP_AIR_PA, glow_c: float | None = None) -> Face:
    """Air that also radiates; ``glow_c`` when what it sees is hotter than itself.

    Parameters
    ----------
    temp_c : float
        Temperature of the air, °C.
    h : float
        Heat transfer coefficient, W/(m² K), above 0.
    vapour_pa : float, default DAMP_AIR_PA
        Pressure of the water vapour in it, Pa, 0 or more.
    glow_c : float | None, default None
        Temperature of what it sees, °C; None: the air's own.

    Returns
    -------
    Face
        What touches a face.

    References
    ----------
    Newton's law of cooling and the Stefan–Boltzmann law; textbook.
    """
    return Face("air", temp_c, h, MEAT_EMISSIVITY, vapour_pa, glow_c)
