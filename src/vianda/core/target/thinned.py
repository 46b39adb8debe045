"""Smooth aims, thinned out to few meats: the least uncertainty, or the nearest or most urgent that is sure enough.

With every meat allowed, Σ wᵢ (sᵢ − cᵢ)² − Σ uᵢ sᵢ has one least place within the limits, found by sequential quadratic
programming: w = σ², c = 0 for the least uncertainty; w = 1, c = the blend as it is for the nearest; u for what must go
first. A blend of few meats is reached by leaving out the smallest share and solving again: quick, and within a tenth
of the best of all sets in the tests, but not proven best.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from vianda.core.inventory.fat_range import Curve
from vianda.core.target.program import Program

# The surest blend aims at this middle part of the band, so that uncertainty has room on both sides (ours).
MIDDLE_PART = 0.5
ROUNDS = 200
# So many more candidates than meats wanted are kept when the rest is left out at once.
AT_ONCE = 4
# Shares below this are nothing.
NOTHING = 1e-6
# A target of one value is given this much room, as whole grams need it.
POINT_ROOM = 0.0005
KEPT_WITHIN = 1e-5
EVENNESS = 1e-3


@dataclass(frozen=True)
class Goal:
    """Σ weightᵢ (shareᵢ − centreᵢ)² − Σ pullᵢ shareᵢ, and how many standard errors to keep from the band's ends."""

    weight: Curve
    centre: Curve
    pull: Curve
    inset_part: float
    margin: float

    def worth(self, shares: Curve) -> float:
        """What is to be as small as can be.

        Parameters
        ----------
        shares : Curve
            Shares of the meats, 0–1, shape ``(n,)``.

        Returns
        -------
        float
            What is to be as small as can be.
        """
        return float((self.weight * (shares - self.centre) ** 2 - self.pull * shares).sum())


def least_uncertainty(program: Program) -> Goal:
    """The least uncertainty, in the middle part of the band.

    Parameters
    ----------
    program : Program
        The wish as numbers.

    Returns
    -------
    Goal
        Σ weightᵢ (shareᵢ − centreᵢ)² − Σ pullᵢ shareᵢ, and how many standard errors to keep from the band's ends.
    """
    # A meat known exactly still should not swallow the blend by rounding alone.
    weight = np.maximum(program.sd, 1e-4) ** 2 * 1e4
    nothing = np.zeros(program.size)
    return Goal(weight, nothing, nothing, (1.0 - MIDDLE_PART) / 2.0, 0.0)


def least_change(program: Program, *, margin: float) -> Goal:
    """The blend as it is, as nearly as the limits and the margin allow.

    Parameters
    ----------
    program : Program
        The wish as numbers.
    margin : float
        How far to stay from the limit, 0–1.

    Returns
    -------
    Goal
        Σ weightᵢ (shareᵢ − centreᵢ)² − Σ pullᵢ shareᵢ, and how many standard errors to keep from the band's ends.
    """
    now = np.array([c.now_frac for c in program.wish.candidates])
    return Goal(np.ones(program.size), now, np.zeros(program.size), 0.0, margin)


def most_urgent(program: Program, urgency: Curve, *, margin: float) -> Goal:
    """As much as can be of what must go first; a touch of evenness keeps the place single.

    Parameters
    ----------
    program : Program
        The wish as numbers.
    urgency : Curve
        How soon each must go, 0–1, shape ``(n,)``.
    margin : float
        How far to stay from the limit, 0–1.

    Returns
    -------
    Goal
        Σ weightᵢ (shareᵢ − centreᵢ)² − Σ pullᵢ shareᵢ, and how many standard errors to keep from the band's ends.
    """
    return Goal(np.full(program.size, EVENNESS), np.zeros(program.size), urgency, 0.0, margin)


def thinned_blends(program: Program, goal: Goal) -> tuple[Curve, ...]:
    """Shares of the best blend for a goal, then of the best ones without one of its meats; none when nothing fits.

    At most ``wish.most_meats`` are above zero, each at least the smallest share.

    Parameters
    ----------
    program : Program
        The wish as numbers.
    goal : Goal
        What is made least.

    Returns
    -------
    tuple[Curve, ...]
        Shares of the best blend for a goal, then of the best ones without one of its meats.
    """
    everyone = list(range(program.size))
    shares = _best(program, goal, everyone)
    if shares is None:
        return ()
    pool = _pool(program, goal, everyone, shares)
    best = _thin(program, goal, *pool)
    if best is None:
        return ()
    blends = [best]
    for left_out in np.nonzero(best)[0]:
        rest = [i for i in pool[0] if i != left_out]
        start = _best(program, goal, rest, near=pool[1]) if rest else None
        if start is None:
            # The pool without this meat cannot do it; perhaps all the others together can.
            rest = [i for i in everyone if i != left_out]
            start = _best(program, goal, rest) if rest else None
        other = _thin(program, goal, rest, start) if start is not None else None
        if other is not None:
            blends.append(other)
    return tuple(blends)


def _pool(program: Program, goal: Goal, inside: list[int], shares: Curve) -> tuple[list[int], Curve]:
    """Of many candidates most get a pinch: those are left out in one go when the rest can do it."""
    wish = program.wish
    if len(inside) <= wish.most_meats + AT_ONCE:
        return inside, shares
    required = [i for i in inside if wish.candidates[i].least_frac > 0.0]
    largest = [int(i) for i in np.argsort(-shares)][: wish.most_meats + AT_ONCE]
    fewer = sorted({*largest, *required})
    thinned = _best(program, goal, fewer, near=shares)
    return (inside, shares) if thinned is None else (fewer, thinned)


def _thin(program: Program, goal: Goal, inside: Sequence[int], shares: Curve) -> Curve | None:
    """Leave out the smallest share and solve again, until there are few enough and none is a pinch."""
    wish = program.wish
    while True:
        present = [i for i in inside if shares[i] > NOTHING]
        if len(present) <= wish.most_meats and all(shares[i] >= wish.least_share_frac - NOTHING for i in present):
            return np.where(shares > NOTHING, shares, 0.0)
        if len(present) <= wish.most_meats:
            # Few enough, but one is a pinch: hold each at the smallest share if that fits.
            held = _best(program, goal, present, near=shares, least=True)
            if held is not None:
                return held
        thinner = _without_smallest(program, goal, present, shares) or _without_smallest(program, goal, inside, shares)
        if thinner is None:
            return None
        inside, shares = thinner


def _without_smallest(
    program: Program, goal: Goal, inside: Sequence[int], shares: Curve
) -> tuple[list[int], Curve] | None:
    """Leave out the smallest share that can be spared; None when none can."""
    spare = [i for i in inside if program.wish.candidates[i].least_frac == 0.0]
    for leaving in sorted(spare, key=lambda i: float(shares[i])):
        rest = [i for i in inside if i != leaving]
        without = _best(program, goal, rest, near=shares) if rest else None
        if without is not None:
            return rest, without
    return None


def _best(
    program: Program, goal: Goal, inside: Sequence[int], *, near: Curve | None = None, least: bool = False
) -> Curve | None:
    """The goal's best place over the meats named, sought from ``near``.

    ``least`` holds each at the smallest share or more.
    """
    # Imported here: it takes a second, and most evaluations never solve anything.
    from scipy.optimize import linprog, minimize

    wish, chosen = program.wish, np.array(inside, dtype=int)
    width = wish.fat_high_frac - wish.fat_low_frac
    fat_room = POINT_ROOM if width < 2 * POINT_ROOM else -width * goal.inset_part
    matrix = np.array([row.coefficients[chosen] for row in program.rows])
    limits = np.array([row.most + (fat_room if row.about == "fat" else 1e-9) for row in program.rows])
    bounds = [(wish.least_share_frac if least else 0.0, 1.0)] * len(chosen)
    weight, centre, pull = goal.weight[chosen], goal.centre[chosen], goal.pull[chosen]
    constraints: list[dict[str, Any]] = [
        {"type": "eq", "fun": lambda s: float(s.sum()) - 1.0, "jac": lambda s: np.ones_like(s)},
        {"type": "ineq", "fun": lambda s: limits - matrix @ s, "jac": lambda s: -matrix},
    ]
    if goal.margin > 0.0:
        constraints.append(_cone(program, chosen, goal.margin))

    def sought(start: Curve) -> Curve | None:
        found = minimize(
            lambda s: float((weight * (s - centre) ** 2 - pull * s).sum()),
            start,
            jac=lambda s: 2.0 * weight * (s - centre) - pull,
            method="SLSQP",
            bounds=bounds,
            constraints=constraints,
            options={"maxiter": ROUNDS, "ftol": 1e-9},
        )
        at: Curve = np.clip(found.x, 0.0, 1.0)
        kept = abs(float(at.sum()) - 1.0) < KEPT_WITHIN and all(
            float(np.min(c["fun"](at))) > -KEPT_WITHIN for c in constraints[1:]
        )
        return at if kept else None

    at = sought(near[chosen] / max(float(near[chosen].sum()), 1e-9)) if near is not None else None
    if at is None:
        # From a place inside the limits; without one there is nothing to seek.
        one = np.ones((1, len(chosen)))
        start = linprog(np.zeros(len(chosen)), A_ub=matrix, b_ub=limits, A_eq=one, b_eq=[1.0], bounds=bounds)
        at = sought(start.x) if start.x is not None else None
    if at is None:
        return None
    shares = np.zeros(program.size)
    shares[chosen] = at
    return shares


def _cone(program: Program, chosen: Curve, margin: float) -> dict[str, Any]:
    """Both ends of the band, kept at a distance of so many standard errors."""
    wish, usual = program.wish, program.usual[chosen]

    def spread(s: Curve) -> tuple[float, Curve]:
        whole = np.zeros(program.size)
        whole[chosen] = s
        sd, gradient = program.spread_gradient(whole)
        return margin * sd, margin * gradient[chosen]

    def room(s: Curve) -> Curve:
        sd, _ = spread(s)
        return np.array([wish.fat_high_frac - usual @ s - sd, usual @ s - wish.fat_low_frac - sd])

    def slope(s: Curve) -> Curve:
        _, pull = spread(s)
        return np.array([-usual - pull, usual - pull])

    return {"type": "ineq", "fun": room, "jac": slope}
