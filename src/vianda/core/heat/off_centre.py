"""What a probe reads that is not quite in the middle, and by how much that place rises afterwards.

The middle of a ball or a loaf still gains 8 to 14 K after it is taken off: its outer half is near boiling by then, and
that holds for any conductivity, air and wetness of the skin in their ranges. Usual practice counts 2 to 5 K, since a
probe a finger's breadth off, or one that measures along its stem, reads a place that is hotter and rises less.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vianda.core.heat.conduction.meat import Array
from vianda.core.heat.conduction.run import Cooked

# How far off a careful hand still holds a tip, and along how much of its stem a plain dial thermometer measures: mm,
# ours; of small pieces no more than this share of the way to the face.
OFF_MM, STEM_MM, OF_THE_WAY = 10.0, 25.0, 0.6


@dataclass(frozen=True, slots=True)
class ProbePlace:
    """A probe that reads ``from_mm`` to ``to_mm`` off the middle: what it reads at the pull, and how much it gains."""

    from_mm: float
    to_mm: float
    reads_c: float
    gains_k: float


def probe_places(cooked: Cooked) -> tuple[ProbePlace, ProbePlace, ProbePlace]:
    """A tip in the middle, a tip a little off it, and one that measures along its stem.

    Parameters
    ----------
    cooked : Cooked
        The run of the piece, rest included.

    Returns
    -------
    tuple[ProbePlace, ProbePlace, ProbePlace]
        In the middle, off it, along the stem; of a slab and a loaf upwards, of a ball along its radius.
    """
    body = cooked.body
    columns = cooked.temp_c[:, :, 0] if body.form == "block" else cooked.temp_c
    width = body.height if body.form == "block" else body.width
    middle = np.cumsum(width) - width / 2
    if body.form != "ball":
        middle = middle - float(np.sum(width)) / 2
    up = middle >= 0.0
    off_mm, columns = middle[up] * 1000.0, columns[:, up]
    half_mm = float(np.sum(width)) * 1000.0 / (1.0 if body.form == "ball" else 2.0)
    aside = min(OFF_MM, OF_THE_WAY * half_mm)
    return (
        _read(cooked, off_mm, columns, 0.0, 0.0),
        _read(cooked, off_mm, columns, aside, aside),
        _read(cooked, off_mm, columns, 0.0, min(STEM_MM, half_mm)),
    )


def _read(cooked: Cooked, off_mm: Array, columns: Array, from_mm: float, to_mm: float) -> ProbePlace:
    along = np.linspace(from_mm, to_mm, 40 if to_mm > from_mm else 1)
    series = np.array([float(np.mean(np.interp(along, off_mm, row))) for row in columns])
    pulled_s = cooked.on_heat_s
    at_pull = float(np.interp(pulled_s, cooked.times_s, series))
    later = float(np.max(series[cooked.times_s >= pulled_s - 1e-9], initial=at_pull))
    return ProbePlace(from_mm, to_mm, at_pull, max(0.0, later - at_pull))
