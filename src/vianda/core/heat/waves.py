"""The waves after the first: each finds the surface as the one before and a short change have left it."""

from __future__ import annotations

from dataclasses import dataclass, replace

from vianda.core.equipment.heating import HOT_ENOUGH_K, heated_c, heats_up_s
from vianda.core.heat.conduction.faces import Face
from vianda.core.heat.conduction.run import Cooked, Simulation
from vianda.core.heat.conduction.slab import BROWN_HIGH, BROWN_LOW, STORE_LOW
from vianda.core.heat.cooked import BrownWord, brown_word

# Taken off, scraped, wiped and laid anew: ours.
CHANGE_S = 30.0
# After so many waves one is like the next.
MOST_WAVES = 4


@dataclass(frozen=True, slots=True)
class Wave:
    """A wave that is laid on at once after the change: °C it finds, seconds until it is off, its better crust."""

    laid_c: float
    off_s: float
    brown: BrownWord


def wait_s(cooked: Cooked) -> float:
    """Seconds from taking a wave off until its surface measures what it is meant to; 0 where there is no metal.

    Nearer than ``HOT_ENOUGH_K`` counts as there.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.

    Returns
    -------
    float
        Seconds to wait, s; 0 where there is nothing to wait for.
    """
    metal = _metal(cooked)
    if metal is None:
        return 0.0
    return hot_after_s(cooked, float(cooked.at_pull.edge[STORE_LOW])) or 0.0


def hot_after_s(cooked: Cooked, now_c: float) -> float | None:
    """Seconds until an empty surface that measures so much is as hot as it is meant to be.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.
    now_c : float
        What it measures, °C.

    Returns
    -------
    float | None
        Seconds to wait, s, 0 where it is hot enough; None where there is no metal that is waited for.
    """
    metal = _metal(cooked)
    if metal is None:
        return None
    return heats_up_s(metal.store, metal.power, metal.gain, now_c, metal.temp_c - HOT_ENOUGH_K, metal.temp_c)


def surface_after_c(cooked: Cooked, time_s: float) -> float | None:
    """What an empty surface measures so long after a wave came off.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.
    time_s : float
        Time since it came off, s, 0 or more.

    Returns
    -------
    float | None
        °C; None where there is no metal that is waited for.
    """
    metal = _metal(cooked)
    if metal is None:
        return None
    left_c = float(cooked.at_pull.edge[STORE_LOW])
    return heated_c(metal.store, metal.power, metal.gain, time_s, metal.temp_c, from_c=left_c)


def waves_of(cooked: Cooked, count: int) -> tuple[Wave, ...]:
    """The first wave and those that follow when nobody waits; none where it lies on no metal or never gets there.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece.
    count : int
        Number of waves (count).

    Returns
    -------
    tuple[Wave, ...]
        Each: a wave that is laid on at once after the change.
    """
    metal = _metal(cooked)
    if metal is None or not cooked.reached:
        return ()
    laid_c, found = cooked.setup.surface_c, []
    for _ in range(min(count, MOST_WAVES)):
        run = Simulation(replace(cooked.setup, surface_c=laid_c), keep_every_s=1e9)
        ends = [run.stage(stage) for stage in cooked.setup.stages]
        if not all(met for _, met in ends):
            break
        brown = max(float(run.now.tally[BROWN_LOW]), float(run.now.tally[BROWN_HIGH]))
        found.append(Wave(laid_c, sum(took for took, _ in ends), brown_word(brown)))
        left_c = float(run.now.edge[STORE_LOW])
        laid_c = heated_c(metal.store, metal.power, metal.gain, CHANGE_S, metal.temp_c, from_c=left_c)
    return tuple(found)


def _metal(cooked: Cooked) -> Face | None:
    """What a flat piece is laid on first, when that has a store of heat."""
    first = cooked.setup.stages[0].low
    return first if first.kind == "contact" and cooked.body.form == "slab" else None
