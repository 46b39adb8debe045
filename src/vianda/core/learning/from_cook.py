"""What one finished cook says of what is learnt: its weighing, its measuring, its probe readings."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from vianda.core.cook.stove_log import StoveEvent, wave_logs
from vianda.core.heat.case import CookCase
from vianda.core.heat.conduction.run import ANYTHING_C, Setup, rough_times_of, times_of
from vianda.core.heat.engine import DIRECT, Engine
from vianda.core.heat.fit import BESIDE_THICK_K, BESIDE_THIN_K, PROBE_SD_K, THIN_MM
from vianda.core.heat.run_setup import Overrides, setup_of
from vianda.core.heat.uncertainty import P90, UNMEASURED, Cause, uncertainty_pairs
from vianda.core.learning.figures import Observation
from vianda.core.shape.cook_loss import done_factor

# What clings to the pan and to the scale, of the raw mass; a ruler on a ragged edge, mm: ours.
WEIGHED_FRAC, RULER_MM = 0.012, 2.0
# A loss or a shrink below this is nothing that was measured: the pieces were weighed raw, or the plate with them.
LEAST_FRAC = 0.01
# Causes that differ from cook to cook; the others are what is learnt.
COOKS_OWN: tuple[Cause, ...] = ("thickness", "start", "surface")
# How far the factor is moved on both sides to see what it does, in logarithms; how little is too little.
STEP, LEAST_RESPONSE = 0.35, 0.08
# No single reading says more than this, in logarithms of the factor.
FURTHEST = math.log(4.0)


@dataclass(frozen=True, slots=True)
class CookDone:
    """A finished cook: its number, when, its style and surface, and the factors that its forecasts were made with."""

    cook: int
    at: float
    style: str
    surface: str
    loss_factor: float = 1.0
    shrink_factor: float = 1.0
    heat_factor: float = 1.0


def loss_observation(
    done: CookDone,
    *,
    batch_mass_g: float,
    cooked_mass_g: float,
    yield_low: float,
    yield_usual: float,
    yield_high: float,
    target_c: float,
    core_c: float | None = None,
) -> Observation | None:
    """What the scale says of the loss in the heat.

    Parameters
    ----------
    done : CookDone
        The cook.
    batch_mass_g : float
        Raw, g, above 0.
    cooked_mass_g : float
        All that came off, g.
    yield_low, yield_usual, yield_high : float
        What was expected to be left, 0–1.
    target_c : float
        Core it was planned for, °C.
    core_c : float | None, default None
        Core it reached, °C, if it was measured: what is lost more or less for that is no news of the kitchen.

    Returns
    -------
    Observation | None
        Of the figure "loss"; None where nothing was lost, so that something else was weighed.

    Examples
    --------
    >>> o = loss_observation(CookDone(1, 0.0, "smash", "plate"), batch_mass_g=1000, cooked_mass_g=670, yield_low=0.64,
    ...                      yield_usual=0.70, yield_high=0.76, target_c=71.1)
    >>> round(o.observed, 3), round(o.value, 3), round(o.sd, 3)
    (0.33, 0.095, 0.036)
    """
    lost, expected = 1.0 - cooked_mass_g / batch_mass_g, 1.0 - yield_usual
    if lost < LEAST_FRAC or expected < LEAST_FRAC:
        return None
    further = done_factor(core_c) / done_factor(target_c) if core_c is not None else 1.0
    value = math.log(lost / (expected * further)) + math.log(done.loss_factor)
    return Observation(
        "loss",
        done.cook,
        done.at,
        done.style,
        done.surface,
        lost,
        (1.0 - yield_high) * further,
        expected * further,
        (1.0 - yield_low) * further,
        value,
        WEIGHED_FRAC / lost,
    )


def shrink_observation(
    done: CookDone,
    *,
    raw_mm: float,
    cooked_mm: float,
    cooked_low_mm: float,
    cooked_usual_mm: float,
    cooked_high_mm: float,
) -> Observation | None:
    """What the ruler says of the shrink.

    Parameters
    ----------
    done : CookDone
        The cook.
    raw_mm, cooked_mm : float
        Diameter of a piece raw and cooked, mm, above 0.
    cooked_low_mm, cooked_usual_mm, cooked_high_mm : float
        What the cooked diameter was expected to be, mm.

    Returns
    -------
    Observation | None
        Of the figure "shrink"; None where it did not shrink.
    """
    shrunk, expected = 1.0 - cooked_mm / raw_mm, 1.0 - cooked_usual_mm / raw_mm
    if shrunk < LEAST_FRAC or expected < LEAST_FRAC:
        return None
    return Observation(
        "shrink",
        done.cook,
        done.at,
        done.style,
        done.surface,
        shrunk,
        1.0 - cooked_high_mm / raw_mm,
        expected,
        1.0 - cooked_low_mm / raw_mm,
        math.log(shrunk / expected) + math.log(done.shrink_factor),
        RULER_MM / raw_mm / shrunk,
    )


@dataclass(frozen=True, slots=True)
class CoreReading:
    """A probe in the middle of a piece: which wave, seconds since it was laid on, °C.

    ``surface_c`` is what the surface measured before that wave; None where nobody did.
    """

    wave: int
    at_s: float
    core_c: float
    surface_c: float | None = None


def readings_of(stove: Mapping[str, Any], events: Sequence[StoveEvent]) -> list[CoreReading]:
    """Probe readings on the heat, counted from when their wave was laid on; the last of each wave.

    Parameters
    ----------
    stove : Mapping[str, Any]
        The stove plan as a cook keeps it.
    events : Sequence[StoveEvent]
        What was said at the stove, in order.

    Returns
    -------
    list[CoreReading]
        By wave. Readings of one wave are of one piece or of its neighbours: the last says most and counts once.
    """
    found = []
    for log in wave_logs(stove, events):
        if log.laid_s is not None and log.cores:
            at_s, core_c = log.cores[-1]
            found.append(CoreReading(log.wave, at_s - log.laid_s, core_c, log.surface[1] if log.surface else None))
    return found


def heat_observation(
    done: CookDone, case: CookCase, reading: CoreReading, *, engine: Engine = DIRECT
) -> Observation | None:
    """What a probe reading says of how fast heat passes on this surface.

    Parameters
    ----------
    done : CookDone
        The cook.
    case : CookCase
        The piece and how it was cooked.
    reading : CoreReading
        The reading.
    engine : Engine, default DIRECT
        Who runs the simulations.

    Returns
    -------
    Observation | None
        Of the figure "heat", in seconds from raw to that reading; None where the reading says nothing: on another
        surface than the formula's, before the last stage, after the last, or where heat hardly depends on it.

    References
    ----------
    The logarithm of the time is a quadratic in that of the factor through three runs of the heat model. What differs
    from cook to cook: one cause at a time, their squares summed.
    """
    setup = _asked(case, 0.0, done, reading)
    if setup is None or reading.at_s <= 0.0 or not setup.start_c < reading.core_c < 100.0:
        return None
    pairs = uncertainty_pairs(setup, UNMEASURED)
    others = [pairs[cause][0] for cause in COOKS_OWN if cause in pairs]
    slower = _asked(case, -STEP, done, reading)
    faster = _asked(case, STEP, done, reading)
    colder = replace(setup, pull_c=reading.core_c - 2.0)
    if slower is None or faster is None:
        return None
    ended = engine.each(rough_times_of, [setup, slower, faster, colder, *others])
    base, slow, fast, cold, *moved = ended
    # Ratios hardly feel a coarse mesh; what is compared with a clock is computed on the fine one.
    [usual_s] = engine.each(_usual_s, [setup])
    # Where the last stage adds nothing, the core was that warm before it began: the time is not the model's.
    if any(len(e) > 1 and e[-1] - e[-2] < 1.0 for e in (base, slow, fast)):
        return None
    log_base, log_slow, log_fast = (math.log(e[-1]) for e in (base, slow, fast))
    response = (log_fast - log_slow) / (2 * STEP)
    bend = (log_fast + log_slow - 2 * log_base) / STEP**2
    if response > -LEAST_RESPONSE:
        return None
    asked = _root(math.log(reading.at_s / usual_s), response, bend)
    beside = BESIDE_THIN_K if setup.piece.size_mm < THIN_MM else BESIDE_THICK_K
    per_k = abs(log_base - math.log(max(cold[-1], 1e-3))) / 2.0
    parts = [(math.log(max(e[-1], 1e-3)) - log_base) ** 2 for e in moved]
    log_sd = math.sqrt(sum(parts) + (per_k * math.hypot(PROBE_SD_K, beside)) ** 2)
    spread = math.exp(P90 * math.hypot(log_sd, 0.2 * response))
    return Observation(
        "heat",
        done.cook,
        done.at,
        done.style,
        done.surface,
        reading.at_s,
        usual_s / spread,
        usual_s,
        usual_s * spread,
        asked + math.log(done.heat_factor),
        log_sd / -response,
        piece=reading.wave,
    )


def _asked(case: CookCase, move: float, done: CookDone, reading: CoreReading) -> Setup | None:
    """The cook with its heat moved, until the core has so much; None where it is not cooked on one surface alone."""
    heating = replace(case.surface.heating, heat_factor=done.heat_factor * math.exp(move))
    setup = setup_of(
        replace(case, surface=replace(case.surface, heating=heating)), Overrides(surface_now_c=reading.surface_c)
    )
    own = {"oven"} if case.surface.kind == "oven" else {"surface"}
    if any(stage.name not in own for stage in setup.stages) or setup.stages[-1].end != "core":
        return None
    return replace(setup, pull_c=reading.core_c, coldest_c=ANYTHING_C)


def _usual_s(setup: Setup) -> float:
    return times_of(setup)[0][-1]


def _root(log_ratio: float, response: float, bend: float) -> float:
    """Where a x + b x² ÷ 2 is a ratio of times: by the straight line where the curve never reaches it."""
    inside = response**2 + 2 * bend * log_ratio
    straight = abs(bend) < 1e-6 or inside <= 0.0
    # Of the two, the one on which more heat is less time.
    x = log_ratio / response if straight else (-response - math.sqrt(inside)) / bend
    return max(-FURTHEST, min(FURTHEST, x))
