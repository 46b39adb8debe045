"""What goes on inside a piece while it cooks: a computed curve, with its doubt, beside habit's minutes.

Uncalibrated: no cooking data stands behind it, only published properties and coefficients; see docs/heat-model.md.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from vianda.core.cook_yield import Band
from vianda.core.figures import Figures
from vianda.core.heat.conduction.ensemble import Ensemble, State
from vianda.core.heat.conduction.march import Marched, Probe, march, rest
from vianda.core.heat.conduction.meat import Array, Meat, meat_of
from vianda.core.heat.conduction.mesh import Geometry, mesh_of
from vianda.core.heat.conduction.methods import MODELLED, rest_of, stages_of
from vianda.core.heat.conduction.stages import CookStage, StageName
from vianda.core.phrase import Phrase, say, word
from vianda.core.shape.density import PACKING
from vianda.core.shape.stuff import stuff_of

Cause = Literal["thickness", "conductivity", "contact", "start"]

# From the fridge to the heat: what a piece has warmed to on its way (common practice: cold from the fridge).
START_C = {"soft": 10.0, "chilled": 5.0, "frozen": 5.0}
# Juice and steam carry heat besides conduction; common practice's minutes ask for about a quarter more. Ours, low.
K_FACTOR = 1.25
SLAB_CELLS, BALL_CELLS = 32, 28
SAMPLES = 110
# One standard deviation of what is not well known: 1 mm or 4 %, a factor of 15 %, 2 K. Ours.
THICKNESS_MM, THICKNESS_FRAC, FACTOR, START_K = 0.7, 0.04, 0.15, 2.0
P90 = 1.2816
CANDIDATES = 20
# What the peak may lack of what is wanted: a twentieth of a degree, far below the doubt.
NEAR_K = 0.05


@dataclass(frozen=True, slots=True)
class Mark:
    """Something that happens: at a second, with the core's temperature."""

    kind: Literal["flip", "pull", "peak", "floor"]
    at_s: float
    core_c: float


@dataclass(frozen=True, slots=True)
class HeatCurve:
    """A piece from the first second on the heat to the end of its rest.

    ``temp_c`` is by time, then by depth from below; of a ball from its middle. Bands are from the 10th to the 90th of a
    hundred such pieces. ``flip_s`` None when nothing is flipped. ``reached`` False: within three times habit's longest
    the core does not come to what is wanted; then the curve ends there.
    """

    ball: bool
    size_mm: float
    start_c: float
    depth_mm: tuple[float, ...]
    times_s: tuple[float, ...]
    temp_c: tuple[tuple[float, ...], ...]
    core_c: tuple[float, ...]
    coldest_c: tuple[float, ...]
    stages: tuple[tuple[StageName, float], ...]
    flip_s: Band | None
    target_s: Band
    pull_s: float
    pull_core_c: float
    peak_c: float
    reached: bool
    marks: tuple[Mark, ...]
    cause: Cause
    cause_share: float
    doubt: Phrase
    water_lost_frac: float
    fat_lost_frac: float
    plate_low_c: float | None
    kind: Literal["curve"] = "curve"


@dataclass(frozen=True, slots=True)
class NotModelled:
    """A piece that the model does not reach yet, and why."""

    why: Phrase
    kind: Literal["none"] = "none"


def heat_curve(figures: Figures) -> HeatCurve | NotModelled:
    """The curve of a formula's piece on its surface."""
    style, shape, formula = figures.style, figures.shape, figures.formula
    if style.form not in MODELLED:
        return NotModelled(
            say("What is {form} is not modelled yet; habit’s minutes stand alone.", form=word(style.title.lower()))
        )
    if formula.shape.firmness == "frozen":
        return NotModelled(say("What goes frozen to the heat is not modelled yet; habit’s minutes stand alone."))
    ball = style.form == "ball"
    # A flat piece thickens as it draws in; the mean of raw and cooked is marched.
    size_mm = shape.raw_diameter_mm / 2 if ball else (shape.thickness_mm + shape.cooked_thickness_mm.usual) / 2
    stuff = stuff_of(figures.blend, batch=figures.batch, larder=figures.larder)
    meat = meat_of(stuff.mix, packing=PACKING[shape.packing])
    stages = stages_of(style, surface=figures.surface, surface_temp_c=formula.heat.surface_temp_c, plan=figures.heat)
    return _curve(
        ball=ball, size_mm=size_mm, meat=meat, stages=stages, resting=rest_of(style),
        start_c=START_C[formula.shape.firmness], plate_c=formula.heat.surface_temp_c,
        target_c=formula.heat.core_target_c, floor_c=figures.heat.floors.leading.temp_c,
        expected_s=figures.heat.on_heat_s.usual,
    )  # fmt: skip


@lru_cache(maxsize=64)
def _curve(
    *, ball: bool, size_mm: float, meat: Meat, stages: tuple[CookStage, ...], resting: CookStage, start_c: float,
    plate_c: float, target_c: float, floor_c: float, expected_s: float,
) -> HeatCurve:  # fmt: skip
    geometry: Geometry = "ball" if ball else "slab"
    cells = BALL_CELLS if ball else SLAB_CELLS
    off = max(THICKNESS_MM / 2 if ball else THICKNESS_MM, THICKNESS_FRAC * size_mm)
    sizes = np.array([size_mm, size_mm + off, max(1.0, size_mm - off)] + [size_mm] * 6) / 1000.0
    k = np.ones(9) * K_FACTOR
    k[3], k[4] = K_FACTOR * (1 + FACTOR), K_FACTOR * (1 - FACTOR)
    h = np.ones(9)
    h[5], h[6] = 1 + FACTOR, 1 - FACTOR
    start = np.full(9, start_c)
    start[7], start[8] = start_c + START_K, start_c - START_K
    ensemble = Ensemble([mesh_of(geometry, float(s), cells=cells) for s in sizes], [meat] * 9, k_factor=k)
    probe = Probe(ensemble, ball=ball)
    state = ensemble.cold(start, plate_c=np.full(9, plate_c))
    done = march(
        ensemble, state, stages, target_c=target_c, probe=probe, h_factor=h, keep_every_s=max(0.5, expected_s / 80)
    )
    return _told(done, ensemble, stages, resting, ball=ball, size_mm=size_mm, start_c=start_c,
                 target_c=target_c, floor_c=floor_c)  # fmt: skip


def _band(times: Array) -> tuple[Band, dict[Cause, float]]:
    """From the spread of one thing at a time: variances of the logarithm add up."""
    usual = float(times[0])
    pairs: dict[Cause, tuple[int, int]] = {
        "thickness": (1, 2), "conductivity": (3, 4), "contact": (5, 6), "start": (7, 8),
    }  # fmt: skip
    parts = {name: (0.5 * math.log(max(times[a], 1e-3) / max(times[b], 1e-3))) ** 2 for name, (a, b) in pairs.items()}
    spread = math.exp(P90 * math.sqrt(sum(parts.values())))
    return Band(usual / spread, usual, usual * spread), parts


_CAUSES: dict[Cause, str] = {
    "thickness": "Most of the doubt is the thickness: measure one with a calliper, or press to a gauge.",
    "conductivity": "Most of the doubt is how fast heat runs through this mix: one probe reading would narrow it.",
    "contact": "Most of the doubt is the heat of the surface: measure it, and lay the pieces flat.",
    "start": "Most of the doubt is how cold they start: take them from the fridge at the last moment.",
}


def _told(
    done: Marched, ensemble: Ensemble, stages: tuple[CookStage, ...], resting: CookStage, *, ball: bool,
    size_mm: float, start_c: float, target_c: float, floor_c: float,
) -> HeatCurve:  # fmt: skip
    kept = done.kept
    target, parts = _band(done.ended_s[:, -1])
    flips = [n for n, s in enumerate(stages) if s.flip]
    flip = _band(done.ended_s[:, flips[0] - 1])[0] if flips else None
    pull = _pull(done, ensemble, stages, resting, ball=ball, target_c=target_c)
    shown = [n for n, at in enumerate(kept.times_s) if at <= pull.at_s + 1e-6]
    times = [kept.times_s[n] for n in shown] + [pull.at_s + t for t in pull.rest_times]
    # The lower side is the one that was down first; after the flip it is the upper one.
    fields = [kept.temp_c[n][::-1] if kept.flipped[n] else kept.temp_c[n] for n in shown] + [
        row[::-1] if pull.flipped else row for row in pull.rest_temp
    ]
    one = Probe(ensemble.pick(np.array([0])), ball=ball)
    stack = np.stack(fields)
    core, coldest = one.core_c(stack), one.coldest_c(stack)
    middles = (np.cumsum(ensemble.width[0]) - ensemble.width[0] / 2) * 1000.0
    peak_at = int(np.argmax(core))
    # Where the core never gets there, there is no moment to take it off.
    marks = [Mark("pull", pull.at_s, float(np.interp(pull.at_s, times, core)))] if done.reached[0] else []
    if flip:
        marks.append(Mark("flip", flip.usual, float(np.interp(flip.usual, times, core))))
    marks.append(Mark("peak", times[peak_at], float(core[peak_at])))
    past = np.nonzero(coldest >= floor_c - 1e-9)[0]
    if len(past):
        marks.append(Mark("floor", times[int(past[0])], float(core[int(past[0])])))
    total = sum(parts.values())
    cause = max(parts, key=lambda name: parts[name])
    mass = float(np.sum(ensemble.mass[0]))
    # As hot as it was measured; what is turned down for a gentle finish is not a surface that fell.
    hot = [n for n, s in enumerate(stages) if s.low.kind == "contact" and s.low.temp_c == stages[0].low.temp_c]
    plates = [p for p, s in zip(kept.plate_c, kept.stage, strict=True) if s in hot]
    return HeatCurve(
        ball=ball, size_mm=size_mm, start_c=start_c,
        depth_mm=tuple(round(float(d), 3) for d in middles),
        times_s=tuple(round(t, 1) for t in times),
        temp_c=tuple(tuple(round(float(t), 1) for t in row) for row in fields),
        core_c=tuple(round(float(t), 2) for t in core), coldest_c=tuple(round(float(t), 2) for t in coldest),
        stages=tuple((s.name, round(float(done.ended_s[0, n]), 1)) for n, s in enumerate(stages)),
        flip_s=flip, target_s=target, pull_s=pull.at_s, pull_core_c=float(np.interp(pull.at_s, times, core)),
        peak_c=float(core[peak_at]), reached=bool(done.reached[0]), marks=tuple(sorted(marks, key=lambda m: m.at_s)),
        cause=cause, cause_share=parts[cause] / total if total > 0 else 0.0, doubt=say(_CAUSES[cause]),
        water_lost_frac=float(pull.state.lost_kg[0]) / mass, fat_lost_frac=float(pull.state.fat_lost_kg[0]) / mass,
        plate_low_c=min(plates) if plates else None,
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Pull:
    at_s: float
    state: State
    flipped: bool
    rest_times: tuple[float, ...]
    rest_temp: tuple[Array, ...]


def _pull(
    done: Marched, ensemble: Ensemble, stages: tuple[CookStage, ...], resting: CookStage, *, ball: bool,
    target_c: float,
) -> _Pull:  # fmt: skip
    """The earliest moment of the last stage from which the core still comes to what is wanted while it rests."""
    kept = done.kept
    last = [n for n, stage in enumerate(kept.stage) if stage == len(stages) - 1]
    last = last[len(last) // 3 :]
    picks = sorted({last[round(i)] for i in np.linspace(0, len(last) - 1, min(CANDIDATES, len(last)))})
    many = ensemble.pick(np.zeros(len(picks), dtype=int))
    times, fields = rest(many, _joined([kept.states[n] for n in picks]), resting)
    cores = Probe(many, ball=ball)
    peaks = np.max(np.stack([cores.core_c(f) for f in fields]), axis=0)
    good = [at for at, peak in enumerate(peaks) if peak >= target_c - NEAR_K]
    at = good[0] if good and done.reached[0] else len(picks) - 1
    chosen = picks[at]
    return _Pull(
        kept.times_s[chosen], kept.states[chosen], kept.flipped[chosen], times[2::3],
        tuple(field[at] for field in fields[2::3]),
    )  # fmt: skip


def _joined(states: list[State]) -> State:
    names = State.__dataclass_fields__
    joined = {
        name: np.concatenate([getattr(s, name) for s in states], axis=1 if name == "shares" else 0) for name in names
    }
    return State(**joined)
