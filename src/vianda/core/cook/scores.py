"""What a cook scores, 1 to 5 between two words, where each score is wanted, and how near a cook came to that."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

ScoreKey = Literal["crust", "juice", "bite", "bind", "grease", "salt", "looks"]
LEAST, MOST = 1.0, 5.0


@dataclass(frozen=True, slots=True)
class ScoreScale:
    """One thing that is scored, 1 to 5 between two words, and where it is wanted.

    Where it is wanted is ours: a deep crust and good juice short of running, the best looks, the middle of the rest.
    """

    key: ScoreKey
    title: str
    low: str
    high: str
    wanted: float


SCALES: Mapping[ScoreKey, ScoreScale] = {
    scale.key: scale
    for scale in (
        ScoreScale("crust", "Crust", "pale", "deep", 4.0),
        ScoreScale("juice", "Juice", "dry", "running", 4.0),
        ScoreScale("bite", "Bite", "mushy", "rubbery", 3.0),
        ScoreScale("bind", "Bind", "crumbles", "tight", 3.0),
        ScoreScale("grease", "Grease", "lean", "greasy", 3.0),
        ScoreScale("salt", "Salt", "bland", "salty", 3.0),
        ScoreScale("looks", "Looks", "poor", "handsome", 5.0),
    )
}


def nearness(scores: Mapping[str, float | None]) -> float | None:
    """How near the scores of a cook lie to where they are wanted.

    A mean of the scores themselves would call a rubbery, greasy, oversalted burger the best of all.

    Parameters
    ----------
    scores : Mapping[str, float | None]
        Scores 1 to 5 by their keys; None or no entry: not given. What is no score is passed over.

    Returns
    -------
    float | None
        5: all that were given are where they are wanted; 1: all are at the end farthest from it. Each loses evenly
        on its way there, and each counts alike. None: none was given.

    Examples
    --------
    >>> nearness({"crust": 4, "salt": 3}), nearness({"salt": 5}), nearness({"crust": 1, "salt": 4})
    (5.0, 1.0, 2.0)
    >>> nearness({"note": None}) is None
    True
    """
    near = []
    for key, scale in SCALES.items():
        given = scores.get(key)
        if given is not None:
            farthest = max(scale.wanted - LEAST, MOST - scale.wanted)
            near.append(MOST - (MOST - LEAST) * abs(given - scale.wanted) / farthest)
    return sum(near) / len(near) if near else None
