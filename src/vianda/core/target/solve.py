"""Many meats to a target: the cheapest, nearest, surest or first-to-be-used blends, on the scale's step.

A mixed-integer program solved by HiGHS through SciPy: whole scale steps, meats in or out, whole packs. Uncertainty is a
cone; it is laid round the solution in planes (σ(s) ≥ ∇σ(s₀)·s) until they meet it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date
from statistics import NormalDist

import numpy as np

from vianda.core.basis.errors import CoreError
from vianda.core.blend.cost import usable_frac
from vianda.core.inventory.fat_range import Curve, spread_of
from vianda.core.inventory.inventory import Inventory
from vianda.core.target.program import Program, program_of
from vianda.core.target.surest import surer
from vianda.core.target.thinned import Goal, least_change, least_uncertainty, most_urgent, thinned_blends
from vianda.core.target.wish import Wish

MOST_ANSWERS = 3
# So many sets of meats are tried for the answers.
MOST_SETS = 8
MOST_PLANES = 3
MOST_POLISH = 20
# Skewed ranges need a little more room than a normal one (ours; the exact chance is checked in the end).
SKEW_ROOM = 1.25
# A plane within this of the cone is near enough: a fiftieth of the standard error.
CONE_GAP = 0.02
TIME_LIMIT_S = 0.5
# Whole steps are looked for this far from the flowing answer.
REACH_STEPS = 4
MOST_PACKS = 100_000.0
# How near to the best cost is near enough.
COST_GAP = 1e-4
# A target of one value cannot be hit exactly on whole grams; this close is meant (0.05 points).
POINT_SLACK_FRAC = 0.0005
ROUNDING_FRAC = 1e-9


class NoBlendError(CoreError):
    """No blend of these candidates meets the wish."""

    code = "no-blend"
    title = "No blend of these meats meets that"


@dataclass(frozen=True, slots=True)
class Answer:
    """One blend: grams on the scale's step, shares, fat with its chance of lying in the band, cost, uncertainty."""

    meats: tuple[str, ...]
    names: tuple[str, ...]
    lots: tuple[str, ...]
    masses_g: tuple[int, ...]
    shares_frac: tuple[float, ...]
    usual_fats_frac: tuple[float, ...]
    fat_frac: float
    fat_low_frac: float
    fat_high_frac: float
    chance_in_band: float
    price_per_kg: float
    packs: tuple[int, ...]
    first_use_by: date | None


@dataclass
class _Build:
    """Rows of the program over the columns [steps kᵢ | in-or-out yᵢ | packs nᵢ | distances dᵢ]."""

    program: Program
    steps: int
    step_g: int
    batch_mass_g: int
    grind_loss_frac: float
    matrix: list[Curve] = field(default_factory=list)
    low: list[float] = field(default_factory=list)
    high: list[float] = field(default_factory=list)

    @property
    def columns(self) -> int:
        return 4 * self.program.size

    def row(self, low: float, high: float) -> Curve:
        new = np.zeros(self.columns)
        self.matrix.append(new)
        self.low.append(low)
        self.high.append(high)
        return new

    def on_shares(self, coefficients: Curve, most: float) -> Curve:
        """Σ cᵢ · kᵢ ≤ most · steps."""
        new = self.row(-np.inf, most * self.steps + ROUNDING_FRAC * self.steps)
        new[: self.program.size] = coefficients
        return new


def solve(
    wish: Wish, *, inventory: Inventory, batch_mass_g: int, step_g: int, grind_loss_frac: float = 0.0
) -> tuple[Answer, ...]:
    """The best few blends that meet a wish, each of another set of meats, the best first.

    Parameters
    ----------
    wish : Wish
        What is wanted of the blend.
    inventory : Inventory
        The meats, lots and ingredients a formula may name.
    batch_mass_g : int
        The batch, a whole number of the scale's steps.
    step_g : int
        Step of the scale, g, above 0.
    grind_loss_frac : float, default 0.0
        What stays in the grinder, 0–1.

    Returns
    -------
    tuple[Answer, ...]
        Each: one blend.

    Raises
    ------
    NoBlendError
        When none does; ``nearest_changes`` then says what would have to give.

    Notes
    -----
    A confidence is asked of the whole distribution, not of a normal stand-in: the planes are moved out until the
    share of batches in the band is met.

    References
    ----------
    Linear programming; HiGHS (open source) through SciPy.

    Examples
    --------
    >>> from vianda.core.inventory.inventory import starter_inventory
    >>> from vianda.core.target.wish import Candidate
    >>> wish = Wish((Candidate("round"), Candidate("trim-50"), Candidate("chuck")), 0.20, 0.22)
    >>> best = solve(wish, inventory=starter_inventory(), batch_mass_g=2000, step_g=1)[0]
    >>> sum(best.masses_g), 0.20 <= best.fat_frac <= 0.22
    (2000, True)
    """
    program = program_of(wish, inventory=inventory, batch_mass_g=batch_mass_g, grind_loss_frac=grind_loss_frac)
    planes = _first_planes(program)
    kept: tuple[Answer, ...] = ()
    for z in _margins(wish.confidence_frac):
        answers = _answers(program, batch_mass_g, step_g, grind_loss_frac, z, planes)
        kept = tuple(a for a in answers if a.chance_in_band >= wish.confidence_frac)
        if kept:
            break
    if not kept:
        raise NoBlendError("No blend of these meats lies within all the limits at once.", field="/candidates")
    return kept


def _margins(confidence_frac: float) -> tuple[float, ...]:
    """Standard errors to keep from the band's ends: for one end that binds, for two, and with room for skew."""
    if confidence_frac <= 0.0:
        return (0.0,)
    normal = NormalDist()
    two_ends = normal.inv_cdf((1.0 + confidence_frac) / 2.0)
    return (max(0.0, normal.inv_cdf(confidence_frac)), two_ends, two_ends * SKEW_ROOM)


def _first_planes(program: Program) -> list[Curve]:
    """Planes touching the cone of uncertainty at each meat alone and at all alike; they hold for every answer."""
    points = [*np.eye(program.size), np.full(program.size, 1.0 / program.size)]
    return [program.spread_gradient(point)[1] for point in points]


def _answers(
    program: Program, batch_mass_g: int, step_g: int, grind_loss_frac: float, z: float, planes: list[Curve]
) -> tuple[Answer, ...]:
    if program.wish.aim == "surest":
        near = _thinned(program, least_uncertainty(program), batch_mass_g, step_g, grind_loss_frac)
        return _surest(program, near, batch_mass_g, step_g)
    if program.wish.aim == "nearest" and z > 0.0:
        return _thinned(program, least_change(program, margin=z), batch_mass_g, step_g, grind_loss_frac)
    if program.wish.aim == "use-up-first" and z > 0.0:
        goal = most_urgent(program, np.array(_urgency(program)), margin=z)
        return _thinned(program, goal, batch_mass_g, step_g, grind_loss_frac)
    forbidden: list[Curve] = []
    answers: list[Answer] = []
    for _ in range(MOST_SETS):
        flowing, grams = _one(program, batch_mass_g, step_g, grind_loss_frac, z, planes, forbidden)
        if flowing is None:
            break
        # A set of meats is tried once, whether it can meet the uncertainty or not.
        forbidden.append((flowing[program.size : 2 * program.size] > 0.5).astype(float))
        if grams is not None:
            answers.append(_answer(program, grams, batch_mass_g))
        if len(answers) == MOST_ANSWERS:
            break
    return tuple(answers)


def _surest(program: Program, near: tuple[Answer, ...], batch_mass_g: int, step_g: int) -> tuple[Answer, ...]:
    """Each near answer made as sure as it goes; of one set of meats the surest is kept."""
    found: dict[tuple[str, ...], Answer] = {}
    for start in near:
        grams = [0] * program.size
        for key, lot, mass in zip(start.meats, start.lots, start.masses_g, strict=True):
            at = next(
                i
                for i, (meat, c) in enumerate(zip(program.meats, program.wish.candidates, strict=True))
                if meat.key == key and c.lot == lot and not grams[i]
            )
            grams[at] = mass
        better = surer(program, grams, step_g=step_g, slack=_slack(program.wish))
        for answer in (_answer(program, better, batch_mass_g), start):
            held = found.get(answer.meats)
            if held is None or answer.chance_in_band > held.chance_in_band:
                found[answer.meats] = answer
    return tuple(sorted(found.values(), key=lambda a: -a.chance_in_band)[:MOST_ANSWERS])


def _thinned(
    program: Program, goal: Goal, batch_mass_g: int, step_g: int, grind_loss_frac: float
) -> tuple[Answer, ...]:
    """The best blend for a smooth goal, and the best ones without one of its meats."""
    build = _Build(program, batch_mass_g // step_g, step_g, batch_mass_g, grind_loss_frac)
    _lay_rows(build, ())
    found: dict[tuple[str, ...], tuple[float, Answer]] = {}
    for shares in thinned_blends(program, goal):
        flowing = np.concatenate((shares * build.steps, (shares > 0).astype(float)))
        grams = _whole(build, _objective(build), flowing)
        if grams is not None:
            answer = _answer(program, grams, batch_mass_g)
            found.setdefault(tuple(sorted(answer.meats)), (goal.worth(np.array(grams) / batch_mass_g), answer))
    return tuple(answer for _, answer in sorted(found.values(), key=lambda f: f[0])[:MOST_ANSWERS])


def _one(
    program: Program,
    batch_mass_g: int,
    step_g: int,
    grind_loss_frac: float,
    z: float,
    planes: list[Curve],
    forbidden: Sequence[Curve],
) -> tuple[Curve | None, tuple[int, ...] | None]:
    """The best set of meats outside the forbidden ones, or None; and its grams, or None when uncertainty forbids it.

    New planes are kept for the next one.
    """
    build = _Build(program, batch_mass_g // step_g, step_g, batch_mass_g, grind_loss_frac)
    _lay_rows(build, forbidden)
    objective = _objective(build)
    if z > 0.0:
        for gradient in planes:
            _lay_plane(build, gradient, z)
    flowing = _flowing(build, objective)
    for _ in range(MOST_PLANES if z > 0.0 else 0):
        if flowing is None or not _outside_cone(build, flowing, planes, z):
            break
        flowing = _flowing(build, objective)
    if flowing is None:
        return None, None
    met = _polished(build, objective, flowing, planes, z) if z > 0.0 else flowing
    return flowing, None if met is None else _whole(build, objective, met)


def _outside_cone(build: _Build, flowing: Curve, planes: list[Curve], z: float) -> bool:
    """Whether the uncertainty at these shares is more than the planes say; then one more plane is laid there."""
    shares = flowing[: build.program.size] / build.steps
    sd, gradient = build.program.spread_gradient(shares)
    if sd <= max(float(plane @ shares) for plane in planes) * (1.0 + CONE_GAP):
        return False
    planes.append(gradient)
    _lay_plane(build, gradient, z)
    return True


def _polished(build: _Build, objective: Curve, flowing: Curve, planes: list[Curve], z: float) -> Curve | None:
    """The same meats, with planes laid until the uncertainty is met: no choice is left, so each round is quick."""
    n, own = build.program.size, list(planes)
    found: Curve | None = flowing
    high = np.where(flowing[n : 2 * n] > 0.5, float(build.steps), 0.0)
    for _ in range(MOST_POLISH):
        if found is None or not _outside_cone(build, found, own, z):
            return found
        found = _highs(build, objective, np.zeros(n), high, whole_steps=False)
    return found


def _lay_plane(build: _Build, gradient: Curve, z: float) -> None:
    program, wish = build.program, build.program.wish
    build.on_shares(program.usual + z * gradient, wish.fat_high_frac + _slack(wish))
    build.on_shares(z * gradient - program.usual, -wish.fat_low_frac + _slack(wish))


def _slack(wish: Wish) -> float:
    return POINT_SLACK_FRAC if wish.fat_high_frac - wish.fat_low_frac < 2 * POINT_SLACK_FRAC else 0.0


def _lay_rows(build: _Build, forbidden: Sequence[Curve]) -> None:
    program, wish, n, steps = build.program, build.program.wish, build.program.size, build.steps
    whole = build.row(steps, steps)
    whole[:n] = 1.0
    for row in program.rows:
        slack = _slack(wish) if row.name.startswith("fat") else 0.0
        build.on_shares(row.coefficients, row.most + slack)
    for i in range(n):
        # In: at least the smallest share; out: nothing.
        upper = build.row(-np.inf, 0.0)
        upper[i], upper[n + i] = 1.0, -float(steps)
        lower = build.row(0.0, np.inf)
        lower[i], lower[n + i] = 1.0, -math.ceil(wish.least_share_frac * steps - 1e-9)
        pack = program.meats[i].pack_mass_g
        if wish.whole_packs and pack > 0:
            cover = build.row(0.0, np.inf)
            cover[2 * n + i] = pack * _usable(program, i, build.grind_loss_frac)
            cover[i] = -float(build.step_g)
        now = wish.candidates[i].now_frac * steps
        if wish.aim == "nearest":
            for sign in (1.0, -1.0):
                away = build.row(-np.inf, sign * now)
                away[i], away[3 * n + i] = sign, -1.0
    count = build.row(1.0, wish.most_meats)
    count[n : 2 * n] = 1.0
    for chosen in forbidden:
        barred = build.row(-np.inf, float(chosen.sum()) - 1.0)
        barred[n : 2 * n] = np.where(chosen > 0, 1.0, -1.0)


def _usable(program: Program, i: int, grind_loss_frac: float) -> float:
    return usable_frac(program.meats[i], grind_loss_frac=grind_loss_frac)


def _objective(build: _Build) -> Curve:
    program, wish, n = build.program, build.program.wish, build.program.size
    objective = np.zeros(build.columns)
    cost_per_step = program.price_per_kg * build.step_g / 1000.0
    if wish.aim == "cheapest":
        objective[:n] = cost_per_step
        if wish.whole_packs:
            for i, meat in enumerate(program.meats):
                if meat.pack_mass_g > 0:
                    objective[i] = 0.0
                    usable = _usable(program, i, build.grind_loss_frac)
                    objective[2 * n + i] = program.price_per_kg[i] * usable * meat.pack_mass_g / 1000.0
        return objective
    # Among equals the cheaper one: cost counts for a ten-thousandth.
    objective[:n] = cost_per_step / max(1e-9, float(cost_per_step.max())) / build.steps * 1e-4
    if wish.aim == "nearest":
        objective[3 * n : 4 * n] = 1.0 / build.steps
    elif wish.aim == "use-up-first":
        objective[:n] -= np.array(_urgency(build.program)) / build.steps
    return objective


def _urgency(program: Program) -> list[float]:
    """1 for what must go today, falling with the days left; 0 for what has no date."""
    wish = program.wish
    found = []
    for candidate, use_by in zip(wish.candidates, program.use_by, strict=True):
        days = (use_by - wish.today).days if wish.today and use_by and candidate.lot else None
        found.append(0.0 if days is None else 1.0 / (1.0 + max(0, days)))
    return found


def _flowing(build: _Build, objective: Curve) -> Curve | None:
    """Which meats, with shares that flow: not yet on the scale's steps."""
    n = build.program.size
    return _highs(build, objective, np.zeros(n), np.full(n, float(build.steps)), whole_steps=False)


def _whole(build: _Build, objective: Curve, flowing: Curve) -> tuple[int, ...] | None:
    """Grams on the scale's step near the flowing answer, of the same meats.

    Whole steps for every candidate at once would be a knapsack that takes seconds; a blend needs none of that.
    """
    n = build.program.size
    inside, near = flowing[n : 2 * n] > 0.5, flowing[:n]
    for reach in (REACH_STEPS, build.steps):
        low = np.where(inside, np.maximum(0.0, np.floor(near) - reach), 0.0)
        high = np.where(inside, np.minimum(float(build.steps), np.ceil(near) + reach), 0.0)
        whole = _highs(build, objective, low, high, whole_steps=True)
        if whole is not None:
            return tuple(int(k) * build.step_g for k in np.rint(whole[:n]).astype(int))
    return None


def _highs(build: _Build, objective: Curve, low: Curve, high: Curve, *, whole_steps: bool) -> Curve | None:
    # Imported here: it takes a second, and most evaluations never solve anything.
    from scipy.optimize import Bounds, LinearConstraint, milp

    n = build.program.size
    integrality = np.concatenate((np.full(n, float(whole_steps)), np.ones(2 * n), np.zeros(n)))
    wish = build.program.wish
    # Columns that this aim does not use are held at zero: fewer whole numbers to search.
    packs = MOST_PACKS if wish.whole_packs else 0.0
    distance = np.inf if wish.aim == "nearest" else 0.0
    top = np.concatenate((high, np.ones(n), np.full(n, packs), np.full(n, distance)))
    bottom = np.concatenate((low, np.zeros(3 * n)))
    result = milp(
        objective,
        constraints=LinearConstraint(np.array(build.matrix), np.array(build.low), np.array(build.high)),
        bounds=Bounds(bottom, top),
        integrality=integrality,
        options={"time_limit": TIME_LIMIT_S, "mip_rel_gap": COST_GAP},
    )
    return None if result.x is None else np.asarray(result.x, dtype=np.float64)


def _answer(program: Program, grams: Sequence[int], batch_mass_g: int) -> Answer:
    wish = program.wish
    kept = [i for i, g in enumerate(grams) if g > 0]
    shares = [grams[i] / batch_mass_g for i in kept]
    spread = spread_of(shares, [program.fats[i] for i in kept])
    slack = _slack(wish)
    lots = [wish.candidates[i].lot for i in kept]
    use_bys = [day for i in kept if (day := program.use_by[i]) is not None]
    return Answer(
        meats=tuple(program.meats[i].key for i in kept),
        names=tuple(program.meats[i].name for i in kept),
        lots=tuple(lots),
        masses_g=tuple(grams[i] for i in kept),
        shares_frac=tuple(shares),
        usual_fats_frac=tuple(program.fats[i].usual_frac for i in kept),
        fat_frac=math.fsum(s * program.fats[i].usual_frac for s, i in zip(shares, kept, strict=True)),
        fat_low_frac=spread.quantile(0.05),
        fat_high_frac=spread.quantile(0.95),
        chance_in_band=spread.chance_within(wish.fat_low_frac - slack, wish.fat_high_frac + slack),
        price_per_kg=math.fsum(s * program.price_per_kg[i] for s, i in zip(shares, kept, strict=True)),
        packs=tuple(_packs(program, i, grams[i]) for i in kept),
        first_use_by=min(use_bys, default=None),
    )


def _packs(program: Program, i: int, grams: int) -> int:
    pack = program.meats[i].pack_mass_g
    return math.ceil(grams / (pack * (1.0 - program.meats[i].trim_loss_frac)) - 1e-9) if pack > 0 else 0
