"""A thermometer that is not there: it follows a truth handed to it, with lag, noise, and its tip beside the middle.

It holds no state of its own, so that every process of the server sees the same display.
"""

from __future__ import annotations

import hashlib
import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

from vianda.devices.probe import ProbeMake

_NORMAL = NormalDist()
TICK_S = 1.0


@dataclass(frozen=True, slots=True)
class Truth:
    """What goes on where the tip may lie: seconds, depths as a share of the thickness (rising), °C by time and
    depth."""

    times_s: Sequence[float]
    depths_frac: Sequence[float]
    temp_c: Sequence[Sequence[float]]

    def at(self, second: float, depth_frac: float) -> float:
        """°C at a moment and a depth, straight between what is known, and held beyond it."""
        row, share = _between(self.times_s, second)
        low = _read(self.depths_frac, self.temp_c[row], depth_frac)
        high = _read(self.depths_frac, self.temp_c[min(row + 1, len(self.temp_c) - 1)], depth_frac)
        return low + share * (high - low)


def _between(points: Sequence[float], x: float) -> tuple[int, float]:
    if x <= points[0] or len(points) == 1:
        return 0, 0.0
    for n in range(1, len(points)):
        if x < points[n]:
            return n - 1, (x - points[n - 1]) / (points[n] - points[n - 1])
    return len(points) - 1, 0.0


def _read(points: Sequence[float], values: Sequence[float], x: float) -> float:
    n, share = _between(points, x)
    return values[n] + share * (values[min(n + 1, len(values) - 1)] - values[n])


@dataclass(frozen=True, slots=True)
class SimulatedProbe:
    """The display of a simulated probe, pushed in at ``from_s`` from a room at 22 °C.

    Examples
    --------
    >>> steady = Truth((0.0, 100.0), (0.0, 1.0), ((60.0, 60.0), (60.0, 60.0)))
    >>> still = SimulatedProbe(ProbeMake(lag_s=4, noise_sd_k=0), steady, seed=1, from_s=0.0)
    >>> still.read_c(4.0), still.read_c(40.0)
    (46.0, 60.0)
    """

    make: ProbeMake
    truth: Truth
    seed: int
    from_s: float = 0.0
    before_c: float = 22.0

    def read_c(self, at_s: float) -> float:
        """First-order lag behind the truth, then noise, to a tenth of a degree."""
        depth = 0.5 + self.make.misplaced_frac
        shown, second, step = self.before_c, self.from_s, min(0.5, self.make.lag_s / 8)
        while second < at_s - 1e-9:
            dt = min(step, at_s - second)
            second += dt
            shown += (self.truth.at(second, depth) - shown) * (1.0 - math.exp(-dt / self.make.lag_s))
        digest = hashlib.blake2b(f"{self.seed}:{math.floor(at_s / TICK_S)}".encode(), digest_size=7).digest()
        noise = _NORMAL.inv_cdf((int.from_bytes(digest, "big") + 0.5) / 2**56)
        return round(shown + self.make.offset_k + self.make.noise_sd_k * noise, 1)
