"""What a cook observed, and what it says of this piece: one multiplier, with a prior and bounds, or a refusal.

Conductivity is fitted where a hot surface cooks, heat from the air where an oven does; never contact, which runs to its
bound. Source: findings of a prototype; prior and bounds ours.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.phrase import Amount, Phrase, delta_temp, frac, say
from vianda.core.heat.conduction.run import Setup, Simulation, times_of

# Standard deviation of ln(factor) before anything is known; the factor stays between the bounds.
PRIOR_SD, LOW, HIGH = 0.2, 0.5, 2.0
# A probe is out by a degree, and by what a place beside the middle differs: more in a thin piece. Ours.
PROBE_SD_K, BESIDE_THIN_K, BESIDE_THICK_K, THIN_MM = 1.0, 1.5, 0.5, 20.0
# The eye calls the moment to turn within a tenth of its time; a scale and what clings to it, three points of yield.
CUE_SD, YIELD_SD = 0.12, 0.03
# Residuals beyond this say that the model and the reading do not speak of the same piece.
MOST_RESIDUAL_K = 3.0
MOST_READINGS = 12


@dataclass(frozen=True, slots=True)
class ProbeReading:
    """A probe in the middle: seconds from the start, °C."""

    at_s: float
    core_c: float


@dataclass(frozen=True, slots=True)
class Observed:
    """Probe readings on the heat; when it was ready to turn; what was left of the raw mass (0–1) after the cook."""

    probes: tuple[ProbeReading, ...] = ()
    turned_s: float | None = None
    cooked_yield_frac: float | None = None

    def __post_init__(self) -> None:
        if len(self.probes) > MOST_READINGS:
            raise OutOfRangeError(f"At most {MOST_READINGS} probe readings of one piece.", field="/probes")
        for n, reading in enumerate(self.probes):
            if not 1.0 <= reading.at_s <= 6 * 3600:
                raise OutOfRangeError("A reading is taken 1 s to 6 h from the start.", field=f"/probes/{n}/at_s")
            if not -20.0 <= reading.core_c <= 110.0:
                raise OutOfRangeError("A core reads −20 to 110 °C.", field=f"/probes/{n}/core_c")
        if self.turned_s is not None and not 5.0 <= self.turned_s <= 3600.0:
            raise OutOfRangeError("It is ready to turn after 5 s to 60 min.", field="/turned_s")
        if self.cooked_yield_frac is not None and not 0.3 <= self.cooked_yield_frac <= 1.0:
            raise OutOfRangeError("Between three tenths and all of it is left.", field="/cooked_yield_frac")

    @property
    def any(self) -> bool:
        """Whether there is anything."""
        return bool(self.probes) or self.turned_s is not None or self.cooked_yield_frac is not None


NOTHING_SEEN = Observed()


@dataclass(frozen=True, slots=True)
class HeatFit:
    """What was learnt: the multiplier on conductivity or on air, on drip, the standard deviation left, and the words.

    ``residual_k`` is the largest that is left. ``refused``: then nothing was changed.
    """

    of: Literal["conductivity", "air"]
    factor: float
    sd: float
    drip_factor: float
    residual_k: float
    refused: bool
    message: Phrase


def fits_air(setup: Setup) -> bool:
    """Whether air does most of the heating, so that its coefficient is what a reading speaks of.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.

    Returns
    -------
    bool
        Whether air does most of the heating, so that its coefficient is what a reading speaks of.
    """
    kinds = {face.kind for s in setup.stages for face in (s.low, s.high)}
    return not kinds & {"contact", "fire"} and any(
        f.kind == "air" and f.temp_c > 90.0 for s in setup.stages for f in (s.high, s.side)
    )


def fit(setup: Setup, observed: Observed) -> HeatFit:
    """The multiplier that answers best to the readings and to what was known before.

    Minimises Σ ((model − reading) ÷ its error)² + (ln factor ÷ 0.2)².

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    observed : Observed
        What the cook saw of this piece.

    Returns
    -------
    HeatFit
        What was learnt.

    References
    ----------
    Maximum a posteriori with a log-normal prior; textbook. Its width, 0.2, is ours.
    """
    air = fits_air(setup)
    of: Literal["conductivity", "air"] = "air" if air else "conductivity"

    def with_factor(theta: float) -> Setup:
        f = setup.factors
        change = {"air": f.air * math.exp(theta)} if air else {"k": f.k * math.exp(theta)}
        return replace(setup, factors=replace(f, **change))

    theta, sd, residual = 0.0, PRIOR_SD, 0.0
    if observed.probes or observed.turned_s is not None:
        theta, sd = _least(lambda t: _misfit(with_factor(t), observed) + (t / PRIOR_SD) ** 2)
        residual = _worst(with_factor(theta), observed)
    if residual > MOST_RESIDUAL_K:
        return HeatFit(
            of,
            1.0,
            PRIOR_SD,
            1.0,
            residual,
            True,
            say(
                "The nearest this model comes to that reading is {gap} off: it was not used. Is the probe in the "
                "middle, the clock started when it was laid on, the thickness as measured?",
                gap=delta_temp(residual),
            ),
        )
    drip = 1.0
    if observed.cooked_yield_frac is not None:
        drip = _drip(with_factor(theta), observed.cooked_yield_frac)
    return HeatFit(of, math.exp(theta), sd, drip, residual, False, _curve_of(of, math.exp(theta), sd, drip, observed))


def _curve_of(of: str, factor: float, sd: float, drip: float, observed: Observed) -> Phrase:
    what = "heat runs through it" if of == "conductivity" else "the air heats it"
    timed = bool(observed.probes) or observed.turned_s is not None
    faster = "faster" if factor >= 1 else "slower"
    text = ""
    amounts: dict[str, Amount] = {}
    if timed:
        text = f"Fitted to what you saw: {what} {{by}} {faster} than usual, and the uncertainty of it falls to {{sd}}."
        amounts = {"by": frac(abs(factor - 1.0)), "sd": frac(sd)}
    if observed.cooked_yield_frac is not None:
        text += " It loses {drip} of the juice that is usual."
        amounts["drip"] = frac(drip)
    return say(text.strip() or "Nothing was observed.", **amounts)


def model_cores(setup: Setup, at_s: tuple[float, ...]) -> list[float]:
    """The core at moments, on the heat or, after the last stage, resting.

    Parameters
    ----------
    setup : Setup
        All that decides how the piece cooks.
    at_s : tuple[float, ...]
        Moments from the start, s.

    Returns
    -------
    list[float]
        The core at moments, on the heat or, after the last stage, resting.
    """
    run = Simulation(setup, keep_every_s=max(1.0, max(at_s) / 300))
    for stage in setup.stages:
        run.stage(stage)
        if run.now.clock[0] >= max(at_s):
            break
    if run.now.clock[0] < max(at_s):
        run.stage(setup.resting)
    times, temp, _ = run.samples()
    core = temp.reshape(len(times), -1) @ run.body.core_weight.ravel()
    return [float(np.interp(t, times, core)) for t in at_s]


def _misfit(setup: Setup, observed: Observed) -> float:
    total = 0.0
    if observed.probes:
        cores = model_cores(setup, tuple(p.at_s for p in observed.probes))
        total += sum(((c - p.core_c) / probe_sd_k(setup)) ** 2 for c, p in zip(cores, observed.probes, strict=True))
    if observed.turned_s is not None:
        ended, _ = times_of(setup)
        turn = _turn(setup, ended)
        if turn:
            total += (math.log(turn / observed.turned_s) / CUE_SD) ** 2
    return total


def probe_sd_k(setup: Setup) -> float:
    """How far a probe is out, its place beside the middle included.

    Parameters
    ----------
    setup : Setup
        The piece it is held in.

    Returns
    -------
    float
        One standard deviation, K.
    """
    return PROBE_SD_K + (BESIDE_THIN_K if setup.piece.size_mm < THIN_MM else BESIDE_THICK_K)


def _turn(setup: Setup, ended: tuple[float, ...]) -> float:
    for n, stage in enumerate(setup.stages):
        if stage.end == "two-fifths":
            return ended[n]
    return 0.0


def _worst(setup: Setup, observed: Observed) -> float:
    if not observed.probes:
        return 0.0
    cores = model_cores(setup, tuple(p.at_s for p in observed.probes))
    return max(abs(c - p.core_c) for c, p in zip(cores, observed.probes, strict=True))


def _least(misfit: Callable[[float], float]) -> tuple[float, float]:
    """Where a misfit is least between the bounds, and the standard deviation its curve leaves."""
    from scipy.optimize import minimize_scalar

    found = minimize_scalar(misfit, bounds=(math.log(LOW), math.log(HIGH)), method="bounded", options={"xatol": 0.004})
    theta = float(found.x)
    step = 0.06
    bend = (misfit(theta + step) + misfit(theta - step) - 2 * float(found.fun)) / step**2
    sd = math.sqrt(2.0 / bend) if bend > 0 else PRIOR_SD
    return theta, min(PRIOR_SD, max(0.03, sd))


def _drip(setup: Setup, left_frac: float) -> float:
    """The multiplier on drip at which as much is left as was weighed."""
    from vianda.core.heat.conduction.slab import FAT_LOST, WATER_LOST

    def off(drip: float) -> float:
        run = Simulation(
            replace(setup, factors=replace(setup.factors, drip=setup.factors.drip * drip)), keep_every_s=1e9
        )
        for stage in setup.stages:
            run.stage(stage)
        lost = (run.now.tally[WATER_LOST] + run.now.tally[FAT_LOST]) / run.body.mass_kg
        return float(((1.0 - lost - left_frac) / YIELD_SD) ** 2 + (math.log(drip) / 0.3) ** 2)

    from scipy.optimize import minimize_scalar

    found = minimize_scalar(off, bounds=(LOW, HIGH), method="bounded", options={"xatol": 0.02})
    return float(found.x)
