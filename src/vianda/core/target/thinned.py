"""Smooth aims, thinned out to few meats: the least doubtful blend, and the nearest one that is sure enough.

With every meat allowed, Σ wᵢ (sᵢ − cᵢ)² has one least place within the limits, found by sequential quadratic
programming (w = σ², c = 0 for the least doubt; w = 1, c = the blend as it is for the nearest). A blend of few meats is
reached by leaving out the smallest share and solving again: quick, and within a tenth of the best of all sets in the
tests, but not proven best.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from vianda.core.fat_range import Curve
from vianda.core.target.program import Program

# The surest blend aims at this middle part of the band, so that doubt has room on both sides (ours).
MIDDLE_PART = 0.5
ROUNDS = 200
# So many more candidates than meats wanted are kept when the rest is left out at once.
AT_ONCE = 4
# Shares below this are nothing.
NOTHING = 1e-6
# A target of one value is given this much room, as whole grams need it.
POINT_ROOM = 0.0005
KEPT_WITHIN = 1e-5


@dataclass(frozen=True)
class Goal:
    """Σ weightᵢ (shareᵢ − centreᵢ)², and how many standard errors to keep from the band's ends."""

    weight: Curve
    centre: Curve
    inset_part: float
    margin: float


def least_doubt(program: Program) -> Goal:
    """The least doubt, in the middle part of the band."""
    # A meat known exactly still should not swallow the blend by rounding alone.
    weight = np.maximum(program.sd, 1e-4) ** 2 * 1e4
    return Goal(weight, np.zeros(program.size), (1.0 - MIDDLE_PART) / 2.0, 0.0)


def least_change(program: Program, *, margin: float) -> Goal:
    """The blend as it is, as nearly as the limits and the margin allow."""
    now = np.array([c.now_frac for c in program.wish.candidates])
    return Goal(np.ones(program.size), now, 0.0, margin)


def thinned_shares(program: Program, goal: Goal, *, barred: Sequence[int] = ()) -> Curve | None:
    """Shares of the best blend for a goal without the barred candidates, or None when none fits.

    At most ``wish.most_meats`` are above nought, each at least the smallest share.
    """
    wish = program.wish
    inside = [i for i in range(program.size) if i not in set(barred)]
    shares = _best(program, goal, inside, least=False) if inside else None
    if shares is not None and len(inside) > wish.most_meats + AT_ONCE:
        # Most of many candidates get a pinch; leave those out in one go when what is left can still do it.
        required = [i for i in inside if wish.candidates[i].least_frac > 0.0]
        largest = [int(i) for i in np.argsort(-shares) if i in inside][: wish.most_meats + AT_ONCE]
        fewer = sorted({*largest, *required})
        thinned = _best(program, goal, fewer, least=False)
        if thinned is not None:
            inside, shares = fewer, thinned
    while shares is not None:
        present = [i for i in inside if shares[i] > NOTHING]
        if len(present) <= wish.most_meats and all(shares[i] >= wish.least_share_frac - NOTHING for i in present):
            return np.where(shares > NOTHING, shares, 0.0)
        if len(present) <= wish.most_meats:
            # Few enough, but one is a pinch: hold each at the smallest share if that fits.
            held = _best(program, goal, present, least=True)
            if held is not None:
                return held
        thinner = _without_smallest(program, goal, inside, shares)
        if thinner is None:
            return None
        inside, shares = thinner
    return None


def _without_smallest(
    program: Program, goal: Goal, inside: Sequence[int], shares: Curve
) -> tuple[list[int], Curve] | None:
    """Leave out the smallest share that can be spared; None when none can."""
    spare = [i for i in inside if program.wish.candidates[i].least_frac == 0.0]
    for leaving in sorted(spare, key=lambda i: float(shares[i])):
        rest = [i for i in inside if i != leaving]
        without = _best(program, goal, rest, least=False) if rest else None
        if without is not None:
            return rest, without
    return None


def _best(program: Program, goal: Goal, inside: Sequence[int], *, least: bool) -> Curve | None:
    """The goal's best place over the meats named; ``least`` holds each at the smallest share or more."""
    # Imported here: it takes a second, and most evaluations never solve anything.
    from scipy.optimize import linprog, minimize

    wish, chosen = program.wish, np.array(inside, dtype=int)
    width = wish.fat_high_frac - wish.fat_low_frac
    fat_room = POINT_ROOM if width < 2 * POINT_ROOM else -width * goal.inset_part
    matrix = np.array([row.coefficients[chosen] for row in program.rows])
    limits = np.array([row.most + (fat_room if row.about == "fat" else 1e-9) for row in program.rows])
    bounds = [(wish.least_share_frac if least else 0.0, 1.0)] * len(chosen)
    one = np.ones((1, len(chosen)))
    start = linprog(np.zeros(len(chosen)), A_ub=matrix, b_ub=limits, A_eq=one, b_eq=[1.0], bounds=bounds)
    if start.x is None:
        return None
    weight, centre = goal.weight[chosen], goal.centre[chosen]
    constraints: list[dict[str, Any]] = [
        {"type": "eq", "fun": lambda s: float(s.sum()) - 1.0, "jac": lambda s: np.ones_like(s)},
        {"type": "ineq", "fun": lambda s: limits - matrix @ s, "jac": lambda s: -matrix},
    ]
    if goal.margin > 0.0:
        constraints.append(_cone(program, chosen, goal.margin))
    found = minimize(
        lambda s: float((weight * (s - centre) ** 2).sum()),
        start.x,
        jac=lambda s: 2.0 * weight * (s - centre),
        method="SLSQP",
        bounds=bounds,
        constraints=constraints,
        options={"maxiter": ROUNDS, "ftol": 1e-10},
    )
    at = np.clip(found.x, 0.0, 1.0)
    kept = abs(float(at.sum()) - 1.0) < KEPT_WITHIN and all(
        float(np.min(c["fun"](at))) > -KEPT_WITHIN for c in constraints[1:]
    )
    if not kept:
        return None
    shares = np.zeros(program.size)
    shares[chosen] = at
    return shares


def _cone(program: Program, chosen: Curve, margin: float) -> dict[str, Any]:
    """Both ends of the band, kept at a distance of so many standard errors."""
    wish, usual, variance = program.wish, program.usual[chosen], program.sd[chosen] ** 2

    def room(s: Curve) -> Curve:
        sd = margin * float(np.sqrt((variance * s * s).sum()))
        return np.array([wish.fat_high_frac - usual @ s - sd, usual @ s - wish.fat_low_frac - sd])

    def slope(s: Curve) -> Curve:
        sd = max(1e-12, float(np.sqrt((variance * s * s).sum())))
        pull = margin * variance * s / sd
        return np.array([-usual - pull, usual - pull])

    return {"type": "ineq", "fun": room, "jac": slope}
