"""The surest blend: from a near answer, grams moved from meat to meat as long as the stated chance grows."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from vianda.core.inventory.fat_range import spread_of
from vianda.core.target.program import Program

# Grams moved at once, as shares of the batch, from coarse to fine (ours); finer moves change a chance by under 0.0005.
MOVES = (0.16, 0.08, 0.04, 0.02, 0.01, 0.005)
MOST_SWEEPS = 60
# A chance is better only by this much: what the grid of the distribution leaves.
BETTER = 1e-5


def chance_of(program: Program, grams: Sequence[int], *, slack: float) -> float:
    """The chance that a batch lies in the band wanted, as the answer states it.

    Parameters
    ----------
    program : Program
        The numbers of a wish.
    grams : Sequence[int]
        Mass of each candidate, g.
    slack : float
        How far round a single value still counts, 0–1.

    Returns
    -------
    float
        Chance, 0–1.
    """
    total = float(sum(grams))
    kept = [i for i, g in enumerate(grams) if g > 0]
    spread = spread_of([grams[i] / total for i in kept], [program.fats[i] for i in kept])
    return spread.chance_within(program.wish.fat_low_frac - slack, program.wish.fat_high_frac + slack)


def surer(program: Program, start: Sequence[int], *, step_g: int, slack: float) -> tuple[int, ...]:
    """A blend from which no move of a half per cent of the batch between two meats makes the chance greater.

    Parameters
    ----------
    program : Program
        The numbers of a wish.
    start : Sequence[int]
        Mass of each candidate, g; within all limits.
    step_g : int
        Step of the scale, g, above 0.
    slack : float
        How far round a single value still counts, 0–1.

    Returns
    -------
    tuple[int, ...]
        Mass of each candidate, g.

    References
    ----------
    Pattern search by pairwise exchange; textbook. Checked against a grid over all shares in the tests.
    """
    best, total = tuple(int(g) for g in start), int(sum(start))
    chance = chance_of(program, best, slack=slack)
    allowed = _within(program, total=total, slack=slack)
    for _ in range(MOST_SWEEPS):
        found: tuple[int, ...] | None = None
        for part in MOVES:
            move = max(step_g, round(part * total / step_g) * step_g)
            for other in _neighbours(best, move):
                if allowed(other) and (now := chance_of(program, other, slack=slack)) > chance + BETTER:
                    found, chance = other, now
            if found is not None:
                break
        if found is None:
            return best
        best = found
    return best


def _neighbours(grams: tuple[int, ...], move: int) -> list[tuple[int, ...]]:
    """Every way to move so much, or all that is left of one meat, to another."""
    out = []
    for i, held in enumerate(grams):
        for j in range(len(grams)):
            if i == j or held <= 0:
                continue
            for part in dict.fromkeys((min(move, held), held)):
                changed = list(grams)
                changed[i] -= part
                changed[j] += part
                out.append(tuple(changed))
    return out


def _within(program: Program, *, total: int, slack: float) -> Callable[[tuple[int, ...]], bool]:
    """Whether grams keep every limit of the wish."""
    wish = program.wish

    def check(grams: tuple[int, ...]) -> bool:
        shares = np.array(grams, dtype=float) / total
        taken = shares[shares > 0]
        if len(taken) > wish.most_meats or taken.min() < wish.least_share_frac - 1e-9:
            return False
        return all(
            float(row.coefficients @ shares) <= row.most + (slack if row.name.startswith("fat") else 0.0) + 1e-9
            for row in program.rows
        )

    return check
