"""What any heat model answers: stages with times, flip, pull, rest. The screens know only this."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from vianda.core.basis.band import Band as Spread
from vianda.core.basis.phrase import Phrase
from vianda.core.heat.floor import FloorChoice

PlanStageKind = Literal[
    "chill",
    "preheat",
    "press",
    "first-side",
    "second-side",
    "turn",
    "often",
    "finish",
    "indirect",
    "smoke",
    "bake",
    "broil",
    "glaze",
    "brown",
    "fry",
    "simmer",
    "rest",
]
Reach = Literal["usually", "may-fall-short", "thermometer-decides"]


@dataclass(frozen=True, slots=True)
class Stage:
    """One stage on the heat: from–to seconds, the cue that ends it, and what a timer is set to."""

    kind: PlanStageKind
    title: str
    cue: Phrase
    low_s: float
    high_s: float
    timer_s: float


@dataclass(frozen=True, slots=True)
class Practice:
    """Usual practice beside what is computed: usual practice's flip and minutes on the heat, in seconds."""

    flip_s: Spread
    on_heat_s: Spread


@dataclass(frozen=True, slots=True)
class HeatPlan:
    """How to cook the piece.

    ``flip_s`` is all zero where nothing is flipped. ``reach`` says whether the minutes usually bring the coldest
    point to the leading floor. ``pull_c`` is the core at which to take it off; ``probe`` is False for pieces nobody
    can probe (the cue decides). ``below_floor``: the target is below the leading floor. ``meat_lags``: the probe must
    read more than the target, since the coldest meat lies elsewhere.
    """

    model: Literal["conduction", "practice"]
    stages: tuple[Stage, ...]
    surface_low_c: float
    surface_high_c: float
    flip_s: Spread
    on_heat_s: Spread
    rest_s: Spread
    target_c: float
    doneness: str
    pull_c: float
    carry_over_k: Spread
    probe: bool
    reach: Reach
    practice: Practice
    floors: FloorChoice
    before: tuple[Stage, ...] = ()
    below_floor: bool = False
    meat_lags: bool = False
