"""When a wave that is on the heat comes off, after what was measured of it.

What is not well known of a cook (its thickness, how fast heat runs through it, how it lies on, how cold it started) is
moved by every reading as far as that reading speaks of it, and the time is foretold anew with all of it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from vianda.core.basis.band import Band
from vianda.core.basis.phrase import Phrase, delta_temp, duration, say, temp
from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.run import Setup, Simulation
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.heat.fit import MOST_READINGS, ProbeReading, probe_sd_k
from vianda.core.heat.uncertainty import P90, causes_of, moved

# A display is read and typed within so many seconds: one standard deviation, ours.
READ_WITHIN_S = 2.0
# A reading further off than this many standard deviations is of something else than the middle of this piece: ours.
CANNOT_BE_SD = 3.5
# Readings that were both refused and agree within so much, on the way the core is computed to go, are no slips: ours.
AGREE_K = 4.0
# The model is not straight: it is run anew where the readings have moved it, so many times. No cause goes further.
PASSES, FURTHEST_SD = 2, 3.0
# A core this near what it is taken off at is there.
THERE_K = 0.25
# When a reading tells most, by the whole time on the heat: late, with time left to act on it. Ours.
TELLS_MOST_FRAC = 0.7


@dataclass(frozen=True, slots=True)
class JudgedReading:
    """A reading, seconds from when it was laid on and °C; the band computed by then (eight in ten); if it counts."""

    at_s: float
    core_c: float
    low_c: float
    high_c: float
    used: bool


@dataclass(frozen=True, slots=True)
class WaveForecast:
    """When each stage of a wave ends, seconds from when it was laid on; the last is when it comes off.

    Of a stage that is over the band is what happened. ``planned_off_s`` is what was foretold before any reading.
    ``off_now``: the last reading is what it is taken off at. ``read_at_s`` is when a reading tells most. ``doubtful``:
    what was read cannot be, and does not count.
    """

    ends_s: tuple[Band, ...]
    planned_off_s: float
    readings: tuple[JudgedReading, ...]
    read_at_s: float
    off_now: bool
    doubtful: bool
    message: Phrase


def wave_forecast(
    setup: Setup,
    *,
    ended_s: Sequence[float] = (),
    readings: Sequence[ProbeReading] = (),
    planned_off_s: float | None = None,
    engine: Engine = DIRECT,
) -> WaveForecast | None:
    """When a wave comes off, as it stands.

    Parameters
    ----------
    setup : Setup
        The cook as planned, with the core at which it comes off.
    ended_s : Sequence[float]
        When each stage that is over ended, seconds from when it was laid on.
    readings : Sequence[ProbeReading]
        What the probe read, in order; the newest twelve count.
    planned_off_s : float | None, default None
        When it was planned to come off, s; None: as ``setup`` says.
    engine : Engine, default DIRECT
        Who runs the simulations.

    Returns
    -------
    WaveForecast | None
        None where it does not end by the core, or never gets there.

    References
    ----------
    Linear Bayesian updating of what is not known (the extended Kalman filter's), each unknown with the standard
    deviation of ``uncertainty``; sensitivities by central differences of the heat model; Gauss–Newton with the
    Jacobian held. Textbook. A reading beyond 3.5 standard deviations of its innovation is left out.
    """
    if setup.stages[-1].end != "core" or len(ended_s) >= len(setup.stages):
        return None
    given = tuple(sorted(readings, key=lambda r: r.at_s))[-MOST_READINGS:]
    at_s = tuple(r.at_s for r in given)
    real = as_it_went(setup, ended_s)
    if planned_off_s is None:
        [planned] = engine.each(partial(_gone_through, at_s=()), [setup])
        planned_off_s = float(planned.ends[-1])
    [base] = engine.each(partial(_gone_through, at_s=at_s), [real])
    if not base.reached:
        return None
    causes = causes_of(real)
    coarse = [_coarse(moved(real, cause, by)) for cause in causes for by in (-1.0, 1.0)]
    ran = engine.each(partial(_gone_through, at_s=at_s), coarse)
    open_from = len(ended_s)
    cores = np.array([(b.cores - a.cores) / 2.0 for a, b in zip(ran[::2], ran[1::2], strict=True)]).T
    times = np.array([(b.log_ends - a.log_ends) / 2.0 for a, b in zip(ran[::2], ran[1::2], strict=True)]).T
    noise = np.hypot(probe_sd_k(real), np.abs(base.slopes) * READ_WITHIN_S) ** 2
    judged, keep = _judge(given, base.cores, cores, noise)
    means, spread = np.zeros(len(causes)), np.eye(len(causes))
    found = base
    if any(keep):
        seen = np.array([r.core_c for r in given])[keep]
        h, r = cores[keep], noise[keep]
        gain = h.T @ np.linalg.inv(h @ h.T + np.diag(r))
        spread = np.eye(len(causes)) - gain @ h
        for _ in range(PASSES):
            means = np.clip(gain @ (seen - found.cores[keep] + h @ means), -FURTHEST_SD, FURTHEST_SD)
            at = real
            for cause, by in zip(causes, means, strict=True):
                at = moved(at, cause, float(by))
            [found] = engine.each(partial(_gone_through, at_s=at_s), [at])
    if not found.reached:
        return None
    sds = np.sqrt(np.maximum(0.0, np.einsum("sc,cd,sd->s", times, spread, times)))
    bands = [Band(t, t, t) for t in ended_s]
    for n in range(open_from, len(setup.stages)):
        usual, wide = float(found.ends[n]), math.exp(P90 * float(sds[n]))
        bands.append(Band(usual / wide, usual, usual * wide))
    used = [j for j in judged if j.used]
    off_now = bool(used) and used[-1].core_c >= setup.pull_c - THERE_K and open_from == len(setup.stages) - 1
    doubtful = bool(judged) and not judged[-1].used
    return WaveForecast(
        ends_s=tuple(bands),
        planned_off_s=planned_off_s,
        readings=tuple(judged),
        read_at_s=TELLS_MOST_FRAC * float(found.ends[-1]),
        off_now=off_now,
        doubtful=doubtful,
        message=_message(judged, base.cores, off_now, float(found.ends[-1]) - planned_off_s, setup.pull_c),
    )


def as_it_went(setup: Setup, ended_s: Sequence[float]) -> Setup:
    """The cook with its stages that are over as long as they were; what runs goes on as planned.

    Parameters
    ----------
    setup : Setup
        The cook as planned.
    ended_s : Sequence[float]
        When each stage that is over ended, seconds from when it was laid on.

    Returns
    -------
    Setup
        All that decides how a piece cooks.
    """
    stages, before = list(setup.stages), 0.0
    for n, end in enumerate(ended_s):
        stages[n] = replace(stages[n], end="time", seconds=max(0.5, end - before))
        before = end
    return replace(setup, stages=tuple(stages))


@dataclass(frozen=True)
class _Gone:
    """A run: cores at the moments that were asked, °C, how fast they rose, K/s, and when each stage ended, s."""

    cores: Array
    slopes: Array
    ends: Array
    reached: bool

    @property
    def log_ends(self) -> Array:
        return np.log(np.maximum(self.ends, 1e-3))


def _gone_through(setup: Setup, at_s: tuple[float, ...]) -> _Gone:
    """Through all stages, and on in the last one where a reading was taken later than the model is done."""
    last_s = max(at_s, default=0.0) + 1.0
    run = Simulation(setup, keep_every_s=max(0.5, last_s / 300) if at_s else 1e9)
    ends: list[float] = []
    reached = True
    for stage in setup.stages:
        took, met = run.stage(stage)
        ends.append((ends[-1] if ends else 0.0) + took)
        reached = reached and met
    if not at_s:
        none = np.zeros(0)
        return _Gone(none, none, np.array(ends), reached)
    if ends[-1] < last_s:
        stays = replace(
            setup.stages[-1],
            end="time",
            seconds=last_s - ends[-1],
            flip=False,
            press_out_frac=0.0,
            coat_kg_m2=0.0,
            pressed=None,
        )
        run.stage(stays)
    times, cells, _ = run.samples()
    core = cells.reshape(len(times), -1) @ run.body.core_weight.ravel()
    at = np.array(at_s)
    cores = np.interp(at, times, core)
    return _Gone(cores, np.interp(at + 1.0, times, core) - cores, np.array(ends), reached)


def _coarse(setup: Setup) -> Setup:
    """A loaf on half the mesh: what is compared is one such run with another."""
    return replace(setup, finer=0) if setup.piece.form == "block" else setup


def _judge(
    readings: Sequence[ProbeReading], computed: Array, h: Array, noise: Array
) -> tuple[list[JudgedReading], list[bool]]:
    """Each reading against what is computed after those before it, and whether it counts."""
    judged, keep = [], []
    spread, means = np.eye(h.shape[1] if len(readings) else 0), np.zeros(h.shape[1] if len(readings) else 0)
    for n, reading in enumerate(readings):
        row = h[n]
        expected = float(computed[n] + row @ means)
        var = float(row @ spread @ row + noise[n])
        off = reading.core_c - expected
        used = abs(off) <= CANNOT_BE_SD * math.sqrt(var)
        wide = P90 * math.sqrt(var)
        judged.append(JudgedReading(reading.at_s, reading.core_c, expected - wide, expected + wide, used))
        keep.append(used)
        if used:
            gain = spread @ row / var
            means, spread = means + gain * off, spread - np.outer(gain, row @ spread)
    return judged, keep


def _message(judged: Sequence[JudgedReading], computed: Array, off_now: bool, later_s: float, pull_c: float) -> Phrase:
    if not judged:
        return say("As planned. A core reading moves this.")
    last = judged[-1]
    if not last.used:
        between = {"read": temp(last.core_c), "low": temp(last.low_c), "high": temp(last.high_c)}
        if _agree(judged, computed):
            return say(
                "{read} again, where {low} to {high} is computed: two readings agree, so the plan does not fit this "
                "piece. Go by the probe; this time does not count it.",
                **between,
            )
        return say(
            "{read} cannot be the middle of this piece: {low} to {high} is computed by now. Not counted. Tip in the "
            "middle, from the side? Read again.",
            **between,
        )
    if off_now:
        return say("It reads {read}: off now.", read=temp(last.core_c))
    ahead = last.core_c - float(computed[len(judged) - 1])
    change = "sooner" if later_s < 0 else "later"
    words = {"read": temp(last.core_c), "gap": delta_temp(abs(ahead)), "by": duration(abs(later_s))}
    way = "warmer" if ahead > 0 else "colder"
    return say(f"Read {{read}}, {{gap}} {way} than computed: off {{by}} {change} than planned.", **words)


def _agree(judged: Sequence[JudgedReading], computed: Array) -> bool:
    """Whether the last two were both refused, and differ as the core is computed to have risen between them."""
    if len(judged) < 2 or judged[-2].used or judged[-1].used:
        return False
    rose = float(computed[len(judged) - 1] - computed[len(judged) - 2])
    return abs(judged[-1].core_c - judged[-2].core_c - rose) <= AGREE_K
