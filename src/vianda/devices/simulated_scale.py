"""A bench scale that is not there: what it shows follows from a seed, what was done to it, and the moment.

It holds no state of its own, so that every process of the server sees the same display.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist
from typing import Literal

from vianda.devices.scale import Reading, ScaleMake

ScaleAction = Literal["load", "tare", "lean"]

TICK_S = 0.1
# The display calls itself steady when all of the last so many ticks agree within one step.
STEADY_TICKS = 6
# A hand on the edge of the table: how long it leans.
LEAN_S = 4.0
# Long before this a swing is below a thousandth of a gram.
SETTLED_S = 10.0
_NORMAL = NormalDist()


@dataclass(frozen=True, slots=True)
class Done:
    """Something done to the scale: grams laid on (or, below zero, taken off), tared, or leant on with so many."""

    at_s: float
    action: ScaleAction
    grams: float = 0.0


@dataclass(frozen=True, slots=True)
class SimulatedScale:
    """The display of a simulated scale at any moment, past ones too.

    Examples
    --------
    >>> scale = SimulatedScale(ScaleMake(step_g=1, capacity_g=5000), seed=7, actions=(Done(1.0, "load", 85.0),))
    >>> scale.read(0.9).shown_g, scale.read(4.0).shown_g, scale.read(4.0).state
    (0.0, 85.0, 'steady')
    """

    make: ScaleMake
    seed: int
    actions: Sequence[Done]

    def read(self, at_s: float) -> Reading:
        """The display at a moment: the newest tick, and whether it and those before it agree."""
        tick = math.floor(at_s / TICK_S + 1e-9)
        step = self.make.step_g
        newest = self._platform_g(tick)
        tare = self._tare_g(tick)
        gross = newest - self._zero_g(tick)
        if gross > self.make.capacity_g + 9 * step:
            return Reading(None, None, "overload", tick * TICK_S)
        if gross < -20 * step:
            return Reading(None, None, "underload", tick * TICK_S)
        lately = [self._shown_g(self._platform_g(k) - tare) for k in range(tick - STEADY_TICKS + 1, tick + 1)]
        # One piece lifted and another laid on shake it, however alike they are.
        touched = any(0.0 <= at_s - d.at_s < STEADY_TICKS * TICK_S for d in self.actions if d.action == "load")
        steady = not touched and max(lately) - min(lately) <= step
        shown = self._shown_g(newest - tare)
        return Reading(shown, self._shown_g(gross), "steady" if steady else "moving", tick * TICK_S)

    def tare(self, at_s: float) -> None:
        """Nothing to send: a tare is among the things done to it, from which it is made anew for each reading."""

    def _shown_g(self, grams: float) -> float:
        step = self.make.step_g
        # Adding zero turns −0 into 0.
        return math.floor(grams / step + 0.5) * step + 0.0

    def _platform_g(self, tick: int) -> float:
        """What presses on the cell at a tick, with its swing, its noise and its drift."""
        at = tick * TICK_S
        press = sum(self._pressed_g(done, at) for done in self.actions if done.at_s <= at)
        return press + self.make.drift_g_per_min * at / 60.0 + self.make.noise_sd_g * _gauss(self.seed, tick)

    def _pressed_g(self, done: Done, at_s: float) -> float:
        since = at_s - done.at_s
        if done.action == "load":
            return done.grams * self._step_response(since)
        if done.action == "lean" and since < LEAN_S:
            # A weight shifted on and off again, held almost still in between.
            rise = min(1.0, since / 0.6, (LEAN_S - since) / 0.4)
            return done.grams * rise * (1.0 + 0.001 * math.sin(9.0 * since))
        return 0.0

    def _step_response(self, since_s: float) -> float:
        """Unit step of a damped spring: 1 − e^(−ζωt) (cos ω_d t + ζ/√(1−ζ²) sin ω_d t)."""
        if since_s > SETTLED_S:
            return 1.0
        zeta, omega = self.make.damping, 2.0 * math.pi * self.make.natural_hz
        root = math.sqrt(1.0 - zeta**2)
        swing = omega * root * since_s
        return 1.0 - math.exp(-zeta * omega * since_s) * (math.cos(swing) + zeta / root * math.sin(swing))

    def _tare_g(self, tick: int) -> float:
        tared = [d for d in self.actions if d.action == "tare" and d.at_s <= tick * TICK_S]
        return self._platform_g(math.floor(tared[-1].at_s / TICK_S + 1e-9)) if tared else 0.0

    def _zero_g(self, tick: int) -> float:
        """The drift alone, which the overload guard does not count."""
        return self.make.drift_g_per_min * tick * TICK_S / 60.0


def _gauss(seed: int, tick: int) -> float:
    """Standard normal noise of one tick, the same for ever."""
    digest = hashlib.blake2b(f"{seed}:{tick}".encode(), digest_size=7).digest()
    return _NORMAL.inv_cdf((int.from_bytes(digest, "big") + 0.5) / 2**56)
