"""The hands of a cook that is not there: pieces taken from the bowl by feel, and corrected by feel."""

from __future__ import annotations

import hashlib
from statistics import NormalDist

# By feel a hand is off by a few per cent, and takes a little less or more than it was told to: ours.
PIECE_SD_FRAC = 0.035
CORRECTION_LOW, CORRECTION_HIGH = 0.85, 1.1
LEAN_LOW_G, LEAN_HIGH_G = 180.0, 420.0
_NORMAL = NormalDist()


def _share(seed: int, name: str, at: int) -> float:
    digest = hashlib.blake2b(f"{seed}:{name}:{at}".encode(), digest_size=7).digest()
    return (int.from_bytes(digest, "big") + 0.5) / 2**56


def piece_g(*, seed: int, number: int, target_g: float) -> float:
    """What a hand takes from the bowl for a piece, in g; at least a fifth of what was wanted.

    Examples
    --------
    >>> round(piece_g(seed=7, number=1, target_g=85), 1) == round(piece_g(seed=7, number=1, target_g=85), 1)
    True
    """
    return target_g * max(0.2, 1.0 + PIECE_SD_FRAC * _NORMAL.inv_cdf(_share(seed, "piece", number)))


def correction_g(*, seed: int, number: int, wanted_g: float) -> float:
    """What a hand adds (or pinches off) when it is told to add ``wanted_g``."""
    return wanted_g * (CORRECTION_LOW + (CORRECTION_HIGH - CORRECTION_LOW) * _share(seed, "correct", number))


def lean_g(*, seed: int, number: int) -> float:
    """How hard someone leans on the table, in g."""
    return LEAN_LOW_G + (LEAN_HIGH_G - LEAN_LOW_G) * _share(seed, "lean", number)
