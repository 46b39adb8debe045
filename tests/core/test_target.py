"""Solving for a target: the square, mending a batch, and many meats at once."""

from __future__ import annotations

import itertools
from dataclasses import replace
from datetime import date
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import linprog

from vianda.core.basis.errors import InfeasibleBlendError, OutOfRangeError
from vianda.core.blend.cost import usable_frac
from vianda.core.inventory.fat_range import spread_of
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.target.binding import binding_limits, swap_prices
from vianda.core.target.mend import additions
from vianda.core.target.nearest_changes import nearest_changes
from vianda.core.target.pearson import pearson_square
from vianda.core.target.program import program_of
from vianda.core.target.solve import POINT_SLACK_FRAC, Answer, NoBlendError, solve
from vianda.core.target.wish import Aim, Candidate, SpeciesLimit, Wish

INVENTORY = starter_inventory()
BEEF = ("chuck", "round", "rib", "trim-50", "trim-80", "fat-trim", "brisket-point", "sirloin", "ground-80")


def _wish(*meats: str, low: float = 0.20, high: float = 0.24, **more: object) -> Wish:
    return Wish(tuple(Candidate(m) for m in meats), low, high, **more)


def _solve(wish: Wish, *, inventory: Inventory = INVENTORY, batch_g: int = 3000, step_g: int = 1) -> tuple[Answer, ...]:
    return solve(wish, inventory=inventory, batch_mass_g=batch_g, step_g=step_g)


@given(st.floats(0.0, 0.4), st.floats(0.0, 1.0), st.floats(0.01, 0.6))
def test_the_squares_shares_make_the_target(lean: float, at: float, apart: float) -> None:
    rich = min(1.0, lean + apart)
    target = lean + at * (rich - lean)
    s = pearson_square(lean_fat_frac=lean, rich_fat_frac=rich, target_frac=target)
    assert s.lean_share_frac + s.rich_share_frac == pytest.approx(1.0)
    assert s.lean_share_frac * lean + s.rich_share_frac * rich == pytest.approx(target, abs=1e-9)


def test_a_target_outside_the_two_meats_is_infeasible() -> None:
    with pytest.raises(InfeasibleBlendError, match="cannot make it"):
        pearson_square(lean_fat_frac=0.08, rich_fat_frac=0.19, target_frac=0.25)


@given(st.floats(200, 9000), st.floats(0.05, 0.4), st.floats(0.05, 0.4))
def test_an_addition_brings_the_batch_to_the_target(batch: float, fat: float, target: float) -> None:
    found = additions(
        batch_mass_g=batch,
        fat_frac=fat,
        target_frac=target,
        candidates=[(k, "") for k in INVENTORY.meats],
        inventory=INVENTORY,
        step_g=1,
    )
    for a in found:
        # On whole grams the fat is off by at most half a gram's worth.
        assert a.fat_frac == pytest.approx(target, abs=0.5 / a.total_mass_g + 1e-9)
        assert a.add_mass_g > 0
    small = [a.add_mass_g for a in found if not a.more_than_the_batch]
    assert small == sorted(small)


def test_nothing_lean_enough_mends_nothing() -> None:
    found = additions(
        batch_mass_g=1000,
        fat_frac=0.2,
        target_frac=0.01,
        candidates=[("chuck", ""), ("round", "")],
        inventory=INVENTORY,
        step_g=1,
    )
    assert found == ()


def _holds(wish: Wish, inventory: Inventory, answer: Answer, batch_g: int, step_g: int) -> None:
    """Every limit, checked again from the answer alone."""
    slack = POINT_SLACK_FRAC if wish.fat_high_frac - wish.fat_low_frac < 2 * POINT_SLACK_FRAC else 0.0
    assert sum(answer.masses_g) == batch_g
    assert all(m % step_g == 0 and m > 0 for m in answer.masses_g)
    assert len(answer.meats) <= wish.most_meats
    assert all(m >= wish.least_share_frac * batch_g - step_g for m in answer.masses_g)
    fat = sum(
        m * inventory.fat_of(k, lot).usual_frac
        for k, lot, m in zip(answer.meats, answer.lots, answer.masses_g, strict=True)
    )
    assert wish.fat_low_frac - slack - 1e-7 <= fat / batch_g <= wish.fat_high_frac + slack + 1e-7
    shares = dict(zip(answer.meats, answer.shares_frac, strict=True))
    for c in wish.candidates:
        assert c.least_frac - 1e-7 <= shares.get(c.meat, 0.0) <= c.most_frac + 1e-7
        if c.lot and wish.use_stock and c.meat in shares:
            bought = shares[c.meat] * batch_g / usable_frac(inventory.meat(c.meat), grind_loss_frac=0)
            assert bought <= inventory.lots[c.lot].left_mass_g + 1e-3
    for limit in wish.species:
        of = sum(s for k, s in shares.items() if inventory.meat(k).species == limit.species)
        assert limit.least_frac - 1e-7 <= of <= limit.most_frac + 1e-7
    assert answer.chance_in_band >= wish.confidence_frac


@given(
    st.lists(st.sampled_from(sorted(INVENTORY.meats)), min_size=1, max_size=7, unique=True),
    st.floats(0.05, 0.4),
    st.floats(0.0, 0.1),
    st.sampled_from(["cheapest", "nearest", "surest"]),
    st.sampled_from([0.0, 0.6, 0.9]),
    st.integers(200, 6000),
    st.sampled_from([1, 5]),
    st.integers(1, 4),
)
@settings(max_examples=40, deadline=None)
def test_the_solver_never_returns_an_infeasible_answer(
    meats: list[str], low: float, width: float, aim: Aim, sure: float, batch: int, step: int, most: int
) -> None:
    wish = _wish(*meats, low=low, high=low + width, aim=aim, confidence_frac=sure, most_meats=most)
    batch_g = batch // step * step
    try:
        answers = _solve(wish, batch_g=batch_g, step_g=step)
    except NoBlendError as none:
        # That nothing fits is proved beside the enumeration; here it must only say why.
        assert none.detail
        return
    sets = [frozenset(a.meats) for a in answers]
    assert len(set(sets)) == len(sets)
    for answer in answers:
        _holds(wish, INVENTORY, answer, batch_g, step)


def test_the_cheapest_is_as_cheap_as_every_pair_tried_by_hand() -> None:
    wish = _wish(*BEEF, most_meats=2)
    best = _solve(wish)[0]
    price = {k: float(INVENTORY.meat(k).price_per_kg) / usable_frac(INVENTORY.meat(k), grind_loss_frac=0) for k in BEEF}
    fat = {k: INVENTORY.meat(k).fat_usual_frac for k in BEEF}
    tried = []
    for one, two in itertools.product(BEEF, BEEF):
        for s in np.linspace(0.05, 0.95, 901) if one != two else [1.0]:
            f = s * fat[one] + (1 - s) * fat[two]
            if 0.20 - 1e-9 <= f <= 0.24 + 1e-9:
                tried.append(s * price[one] + (1 - s) * price[two])
    # The hand's grid of a thousandth is coarser than the scale: the solver may only be better.
    assert best.price_per_kg <= min(tried) + 1e-6
    assert best.price_per_kg >= min(tried) - 0.02


@pytest.mark.parametrize(("low", "high"), [(0.20, 0.26), (0.14, 0.18), (0.26, 0.28), (0.10, 0.30), (0.195, 0.205)])
def test_the_surest_has_the_greatest_chance_of_all_blends(low: float, high: float) -> None:
    """Against a grid of a twentieth over every set of up to three: never more than half a point of chance below."""
    meats = ("chuck", "round", "trim-50", "brisket-point", "ground-80", "rib")
    found = _solve(_wish(*meats, aim="surest", most_meats=3, low=low, high=high))[0]
    fats = {k: INVENTORY.meat(k).fat for k in meats}
    best = 0.0
    for three in itertools.combinations(meats, 3):
        for a, b in itertools.product(range(21), range(21)):
            steps = {k: n for k, n in zip(three, (a, b, 20 - a - b), strict=True) if n != 0}
            fat = sum(n * fats[k].usual_frac for k, n in steps.items()) / 20
            if min(steps.values()) < 0 or not low <= fat <= high:
                continue
            spread = spread_of([n / 20 for n in steps.values()], [fats[k] for k in steps])
            best = max(best, spread.chance_within(low, high))
    assert found.chance_in_band >= best - 0.005


def test_the_nearest_keeps_a_blend_that_fits_already() -> None:
    now = (Candidate("chuck", now_frac=0.6), Candidate("rib", now_frac=0.4), Candidate("trim-50"))
    best = _solve(Wish(now, 0.20, 0.24, aim="nearest"))[0]
    assert dict(zip(best.meats, best.masses_g, strict=True)) == {"chuck": 1800, "rib": 1200}


def test_the_nearest_that_is_sure_enough_moves_more_than_the_nearest() -> None:
    now = {"chuck": 0.6, "rib": 0.4}
    candidates = tuple(
        Candidate(m, now_frac=now.get(m, 0.0)) for m in ("chuck", "rib", "trim-50", "ground-80", "round")
    )
    loose = _solve(Wish(candidates, 0.20, 0.24, aim="nearest"))[0]
    sure = _solve(Wish(candidates, 0.20, 0.24, aim="nearest", confidence_frac=0.8))[0]
    assert loose.chance_in_band < 0.8 <= sure.chance_in_band

    def moved(answer: Answer) -> float:
        shares = dict(zip(answer.meats, answer.shares_frac, strict=True))
        return sum(abs(shares.get(m, 0.0) - now.get(m, 0.0)) for m in (*now, *shares))

    assert moved(sure) > moved(loose)


def _by_linear_programming(cost: list[float], meats: tuple[str, ...], low: float, high: float) -> float:
    """The least cost of shares that sum to one within a fat band: another formulation, without whole numbers."""
    fat = [INVENTORY.meat(k).fat_usual_frac for k in meats]
    found = linprog(
        cost,
        A_ub=[fat, [-f for f in fat]],
        b_ub=[high, -low],
        A_eq=[[1.0] * len(meats)],
        b_eq=[1.0],
        bounds=[(0, 1)] * len(meats),
    )
    return float(found.fun)


def test_all_aims_agree_with_linear_programs_of_another_make() -> None:
    # Without a smallest share and with room for every meat the whole-number program is a linear one; on 100 kg a
    # gram's rounding is worth nothing.
    free = {"least_share_frac": 0.0, "most_meats": 8}
    meats = BEEF[:8]
    price = [float(INVENTORY.meat(k).price_per_kg) / usable_frac(INVENTORY.meat(k), grind_loss_frac=0) for k in meats]
    cheapest = _solve(_wish(*meats, **free), batch_g=100_000)[0]
    assert cheapest.price_per_kg == pytest.approx(_by_linear_programming(price, meats, 0.20, 0.24), abs=1e-3)

    # Nearest: distances split into what is added and what is taken away, on twice as many columns.
    now = {"chuck": 0.5, "fat-trim": 0.5}
    target = [now.get(k, 0.0) for k in meats]
    candidates = tuple(Candidate(k, now_frac=now.get(k, 0.0)) for k in meats)
    nearest = _solve(Wish(candidates, 0.20, 0.24, aim="nearest", **free), batch_g=100_000)[0]
    fat = np.array([INVENTORY.meat(k).fat_usual_frac for k in meats])
    n = len(meats)
    split = linprog(
        np.ones(2 * n),
        A_ub=np.array([np.r_[fat, -fat], np.r_[-fat, fat]]),
        b_ub=[0.24 - fat @ target, fat @ target - 0.20],
        A_eq=[np.r_[np.ones(n), -np.ones(n)]],
        b_eq=[0.0],
        bounds=[(0, 1)] * n + [(0, t) for t in target],
    )
    shares = dict(zip(nearest.meats, nearest.shares_frac, strict=True))
    moved = sum(abs(shares.get(k, 0.0) - t) for k, t in zip(meats, target, strict=True))
    assert moved == pytest.approx(float(split.fun), abs=1e-3)

    # First to be used up: the most of what has one day left (worth a half) and three (worth a quarter).
    lots = [
        Lot(f"{k}-box", k, k, 900_000, Decimal("9"), date(2026, 11, 20), day)
        for k, day in (("rib", date(2026, 11, 25)), ("chuck", date(2026, 11, 27)))
    ]
    inventory = Inventory.of(INVENTORY.meats.values(), lots)
    boxed = tuple(Candidate(k, lot=f"{k}-box" if k in ("rib", "chuck") else "") for k in meats)
    first = _solve(
        Wish(boxed, 0.20, 0.24, aim="use-up-first", today=date(2026, 11, 24), **free),
        inventory=inventory,
        batch_g=100_000,
    )[0]
    worth = {"rib": 1 / 2, "chuck": 1 / 4}
    used = sum(worth.get(k, 0.0) * s for k, s in zip(first.meats, first.shares_frac, strict=True))
    least = _by_linear_programming([-worth.get(k, 0.0) for k in meats], meats, 0.20, 0.24)
    assert used == pytest.approx(-least, abs=1e-3)


def test_what_must_go_first_is_used_first() -> None:
    lots = [
        Lot("old", "brisket-point", "Old box", 5000, Decimal("10.9"), date(2026, 11, 20), date(2026, 11, 25)),
        Lot("new", "chuck", "New box", 5000, Decimal("9.4"), date(2026, 11, 24), date(2026, 12, 2)),
    ]
    inventory = Inventory.of(INVENTORY.meats.values(), lots)
    wish = Wish(
        (Candidate("brisket-point", lot="old"), Candidate("chuck", lot="new"), Candidate("round")),
        0.20,
        0.24,
        aim="use-up-first",
        today=date(2026, 11, 24),
    )
    best = _solve(wish, inventory=inventory)[0]
    cheapest = _solve(replace(wish, aim="cheapest"), inventory=inventory)[0]

    def share_of_old(answer: Answer) -> float:
        return dict(zip(answer.meats, answer.shares_frac, strict=True)).get("brisket-point", 0.0)

    assert share_of_old(best) > share_of_old(cheapest)
    _holds(wish, inventory, best, 3000, 1)


def test_stock_bounds_what_is_taken_from_a_lot() -> None:
    inventory = Inventory.of(
        INVENTORY.meats.values(), [Lot("box", "trim-50", "Box", 200, Decimal("1"), date(2026, 11, 20), None)]
    )
    wish = Wish((Candidate("trim-50", lot="box"), Candidate("chuck"), Candidate("rib")), 0.19, 0.24)
    for answer in _solve(wish, inventory=inventory):
        _holds(wish, inventory, answer, 3000, 1)


def test_whole_packs_are_paid_for_whole() -> None:
    # 300 g from 500 g packs: one pack of 95 % at 11.40 beats 300 g of sirloin only when the rest is not paid for.
    wish = _wish("ground-95", "sirloin", "trim-50", low=0.20, high=0.24, whole_packs=True)
    for answer in _solve(wish, batch_g=400):
        packed = [n for k, n in zip(answer.meats, answer.packs, strict=True) if INVENTORY.meat(k).pack_mass_g]
        assert all(n >= 1 for n in packed)


def test_a_leaner_target_costs_what_the_shadow_price_says() -> None:
    wish = _wish("round", "trim-50", low=0.10, high=0.24)
    program = program_of(wish, inventory=INVENTORY, batch_mass_g=100_000, grind_loss_frac=0)
    best, leaner = (
        solve(replace(wish, fat_high_frac=high), inventory=INVENTORY, batch_mass_g=100_000, step_g=1)[0]
        for high in (0.24, 0.23)
    )
    shares = [dict(zip(best.meats, best.shares_frac, strict=True)).get(m.key, 0.0) for m in program.meats]
    text = binding_limits(program, shares, priced=True)[0]
    assert "one point leaner costs" in text.text
    assert text.amounts["dear"].value == pytest.approx(leaner.price_per_kg - best.price_per_kg, abs=1e-3)


def test_a_cut_comes_in_just_below_its_swap_price_and_not_above() -> None:
    wish = _wish("round", "trim-50", "sirloin", low=0.20, high=0.20, least_share_frac=0.0)
    program = program_of(wish, inventory=INVENTORY, batch_mass_g=10_000, grind_loss_frac=0)
    usable = np.array([usable_frac(m, grind_loss_frac=0) for m in program.meats])
    swap = next(
        s
        for s in swap_prices(program, usable=usable, prices=[m.price_per_kg for m in program.meats])
        if s.meat == "sirloin"
    )
    for change, comes_in in ((Decimal("-0.05"), True), (Decimal("0.05"), False)):
        cheaper = replace(INVENTORY.meat("sirloin"), price_per_kg=swap.enters_below_per_kg + change)
        inventory = Inventory.of([*(m for m in INVENTORY.meats.values() if m.key != "sirloin"), cheaper])
        best = solve(wish, inventory=inventory, batch_mass_g=10_000, step_g=1)[0]
        assert ("sirloin" in best.meats) is comes_in


@pytest.mark.parametrize(
    ("wish", "says"),
    [
        (_wish("chuck", "round", low=0.25, high=0.28), "Let the fat go down to"),
        (
            Wish((Candidate("chuck", least_frac=0.8), Candidate("fat-trim", most_frac=0.02)), 0.25, 0.28),
            "Let {name} go up to",
        ),
        (_wish("chuck", "pork-belly", low=0.24, high=0.26, species=(SpeciesLimit("pork", 0.0, 0.05),)), "of the blend"),
        (_wish("ground-80", "ground-90", "ground-97", low=0.12, high=0.121, most_meats=1), "allow more meats"),
        (_wish("chuck", low=0.18, high=0.20, confidence_frac=0.9), "less certainty"),
    ],
)
def test_what_cannot_be_is_refused_and_the_smallest_change_named(wish: Wish, says: str) -> None:
    with pytest.raises(NoBlendError):
        _solve(wish)
    program = program_of(wish, inventory=INVENTORY, batch_mass_g=3000, grind_loss_frac=0)
    changes = nearest_changes(program, batch_mass_g=3000)
    assert any(says in c.text for c in changes)


def test_the_change_named_first_is_enough() -> None:
    wish = _wish("chuck", "round", low=0.25, high=0.28)
    program = program_of(wish, inventory=INVENTORY, batch_mass_g=3000, grind_loss_frac=0)
    to = nearest_changes(program, batch_mass_g=3000)[0].amounts["to"].value
    assert _solve(replace(wish, fat_low_frac=to - 1e-6))[0].fat_frac == pytest.approx(to, abs=1e-4)
    with pytest.raises(NoBlendError):
        _solve(replace(wish, fat_low_frac=to + 0.002))


@pytest.mark.parametrize(
    "wrong",
    [
        {"fat_low_frac": 0.3, "fat_high_frac": 0.2},
        {"confidence_frac": 1.0},
        {"most_meats": 9},
        {"candidates": ()},
        {"candidates": (Candidate("chuck"), Candidate("chuck"))},
        {"candidates": (Candidate("chuck", least_frac=0.8, most_frac=0.2),)},
    ],
)
def test_a_wish_that_is_none_is_refused(wrong: dict[str, object]) -> None:
    with pytest.raises(OutOfRangeError):
        replace(_wish("chuck", "round"), **wrong)
