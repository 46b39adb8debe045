"""March runs through their stages, each at its own pace, and keep what is worth looking at."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from vianda.core.heat.conduction.ensemble import Ensemble, Sides, State
from vianda.core.heat.conduction.faces import Face
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.stages import CookStage

# Two fifths of the thickness past 60 °C is when habit flips: common practice, no published source.
FLIP_FRAC, COOKED_C = 0.4, 60.0
REST_STEP_S = 4.0
KINDS = {"shut": 0, "contact": 1, "liquid": 1, "fire": 1, "air": 2}


@dataclass
class Kept:
    """The first run, moment by moment: times in s, all cells, plate, and states to begin a rest from."""

    times_s: list[float] = field(default_factory=list)
    temp_c: list[Array] = field(default_factory=list)
    plate_c: list[float] = field(default_factory=list)
    stage: list[int] = field(default_factory=list)
    states: list[State] = field(default_factory=list)
    flipped: list[bool] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Marched:
    """When each run ended each stage (s, shape runs × stages), whether it got there, and how the first one went."""

    ended_s: Array
    reached: Array
    kept: Kept


class Probe:
    """Where the core is, and how much of a piece has passed a temperature."""

    def __init__(self, ensemble: Ensemble, *, ball: bool) -> None:
        self.ball = ball
        self.share = ensemble.width / np.sum(ensemble.width, axis=1, keepdims=True)

    def core_c(self, temp_c: Array) -> Array:
        """The geometric middle, where a probe is held."""
        if self.ball:
            return np.asarray(temp_c[:, 0])
        cells = temp_c.shape[1]
        return np.asarray((temp_c[:, cells // 2 - 1] + temp_c[:, cells // 2]) / 2)

    def coldest_c(self, temp_c: Array) -> Array:
        """The coldest place, wherever it is."""
        return np.asarray(np.min(temp_c, axis=1))

    def cooked_frac(self, temp_c: Array) -> Array:
        """How much of the thickness has passed 60 °C, counted from below without a gap."""
        past = np.minimum.accumulate(temp_c >= COOKED_C, axis=1)
        return np.asarray(np.sum(self.share * past, axis=1))


def march(
    ensemble: Ensemble, state: State, stages: Sequence[CookStage], *, target_c: float, probe: Probe, h_factor: Array,
    keep_every_s: float,
) -> Marched:  # fmt: skip
    """March all runs until each has gone through all its stages or has been waited for too long."""
    runs = ensemble.runs
    at = np.zeros(runs, dtype=int)
    since = np.zeros(runs)
    ended = np.full((runs, len(stages)), np.nan)
    reached = np.ones(runs, dtype=bool)
    kept, now, next_kept = Kept(), 0.0, 0.0
    flipped = False
    low, high = _sides(stages, at, h_factor)
    while np.any(at < len(stages)):
        if at[0] < len(stages) and now >= next_kept - 1e-9:
            _keep(kept, state, now, int(at[0]), flipped)
            next_kept = now + keep_every_s
        # The finest step that any of them wants; a switch is begun gently.
        dt = min(stages[min(k, len(stages) - 1)].step_s for k in at)
        if float(np.min(since[at < len(stages)])) < 4.0 * dt:
            dt /= 2.0
        ensemble.step(state, dt, low, high)
        now += dt
        since += dt
        core, cooked = probe.core_c(state.temp_c), probe.cooked_frac(state.temp_c)
        changed = False
        for run in range(runs):
            if at[run] >= len(stages):
                continue
            stage = stages[at[run]]
            late = since[run] >= stage.seconds - 1e-9
            met = (
                late if stage.end == "time"
                else core[run] >= target_c if stage.end == "core"
                else cooked[run] >= FLIP_FRAC
            )  # fmt: skip
            if not (met or late):
                continue
            if not met:
                reached[run] = False
            ended[run, at[run]] = now
            at[run] += 1
            since[run] = 0.0
            changed = True
            if run == 0 and at[0] == len(stages):
                _keep(kept, state, now, len(stages) - 1, flipped)
            if at[run] < len(stages) and stages[at[run]].flip:
                _flip(state, run)
                flipped = flipped or run == 0
        if changed:
            low, high = _sides(stages, at, h_factor)
    return Marched(ended, reached, kept)


def rest(ensemble: Ensemble, state: State, stage: CookStage) -> tuple[tuple[float, ...], Array]:
    """Seconds, and all cells of all runs at each, while they rest: shape (times, runs, cells). ``state`` is changed."""
    low, high = _sides([stage], np.zeros(ensemble.runs, dtype=int), np.ones(ensemble.runs))
    times, fields, steps = [], [], max(1, math.ceil(stage.seconds / REST_STEP_S))
    for step in range(1, steps + 1):
        ensemble.step(state, REST_STEP_S, low, high)
        times.append(step * REST_STEP_S)
        fields.append(state.temp_c.copy())
    return tuple(times), np.stack(fields)


def _keep(kept: Kept, state: State, now: float, stage: int, flipped: bool) -> None:
    one = state.pick(np.array([0]))
    kept.times_s.append(now)
    kept.temp_c.append(one.temp_c[0].copy())
    kept.plate_c.append(float(one.plate_c[0]))
    kept.stage.append(stage)
    kept.states.append(one.copy())
    kept.flipped.append(flipped)


def _flip(state: State, run: int) -> None:
    state.temp_c[run] = state.temp_c[run, ::-1].copy()
    state.shares[:, run] = state.shares[:, run, ::-1].copy()
    for one, other in (("film_low", "film_high"), ("feed_low", "feed_high"), ("skin_low_c", "skin_high_c")):
        first, second = getattr(state, one), getattr(state, other)
        first[run], second[run] = second[run], first[run]


def _sides(stages: Sequence[CookStage], at: Array, h_factor: Array) -> tuple[Sides, Sides]:
    now = [stages[min(int(k), len(stages) - 1)] for k in at]
    return _side([s.low for s in now], h_factor), _side([s.high for s in now], h_factor)


def _side(faces: list[Face], h_factor: Array) -> Sides:
    return Sides(
        kind=np.array([KINDS[f.kind] for f in faces]),
        temp_c=np.array([f.temp_c for f in faces]),
        h=np.array([f.h for f in faces]) * h_factor,
        emissivity=np.array([f.emissivity for f in faces]),
        vapour_pa=np.array([f.vapour_pa for f in faces]),
        on_plate=np.array([f.kind == "contact" for f in faces]),
    )
