"""Heat through a piece: it closes, it goes the right way, it never breaks, and it does not hang on the mesh."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from heat_rigs import MINCE, OVEN, ball, core, core_after, flat, loaf, plate, through
from vianda.core.heat.conduction.body import Middle
from vianda.core.heat.conduction.faces import SHUT, Face
from vianda.core.heat.conduction.meat import FAT, WATER, Material
from vianda.core.heat.conduction.props import (
    BLENDED,
    FREEZING_C,
    blend,
    content_at,
    heat_content,
    ice_frac,
    sensible_j_kg,
    taken_along_j_kg,
    temperature_at,
)
from vianda.core.heat.conduction.run import Factors, Setup, Simulation
from vianda.core.heat.conduction.skin import drying_kg_m2_s, link, vapour_pressure_pa
from vianda.core.heat.conduction.slab import BROWN_LOW, FAT_LOST, HEAT_IN, HEAT_OUT, WATER_LOST
from vianda.core.heat.conduction.stages import CookStage, air

LEAN = Material((0.70, 0.20, 0.08, 0.0, 0.02))
SMASH, GRILL, BALL, LOAF = flat(6, 60), flat(20, 480), ball(42, 900), loaf(110, 65, 3600)
FROZEN = flat(16, 600, start_c=-18.0)


@pytest.mark.parametrize("setup", [SMASH, GRILL, BALL, LOAF, FROZEN], ids=["smash", "grill", "ball", "loaf", "frozen"])
def test_heat_water_and_fat_close(setup: Setup) -> None:
    cold = Simulation(setup, keep_every_s=1e9)
    run = through(setup)
    tally = run.now.tally
    gained = run.stored_j() - cold.stored_j()
    # The bar is 0.05 %.
    assert gained == pytest.approx(tally[HEAT_IN] - tally[HEAT_OUT], abs=5e-4 * tally[HEAT_IN])
    lost = tally[WATER_LOST] + tally[FAT_LOST]
    left = float(np.sum(run.body.mass * np.sum(run.now.shares, axis=-1)))
    assert left + lost == pytest.approx(run.body.mass_kg, rel=1e-6)


@given(st.floats(-40, 240), st.floats(-30, 150))
@example(FREEZING_C - 1.3e-5, FREEZING_C)
def test_temperature_and_heat_content_are_each_others_inverse(temp: float, guess: float) -> None:
    shares = np.array(MINCE.shares)
    blended = np.empty(BLENDED)
    blend(shares, blended)
    content = content_at(*blended, temp)
    found = temperature_at(*blended, content, guess)
    assert found == pytest.approx(temp, abs=0.01)
    # Just below the freezing point a thousandth of a degree is a hundred joules.
    assert content_at(*blended, found) == pytest.approx(content, abs=0.03)


def test_meat_freezes_below_its_point_and_thawing_costs_about_as_much_as_cooking() -> None:
    shares = np.array(MINCE.shares)
    assert ice_frac(shares[0], shares[1], FREEZING_C) == 0.0
    assert 0.4 < ice_frac(shares[0], shares[1], -18.0) < 0.55
    from_frozen = heat_content(shares, 71.0) - heat_content(shares, -18.0)
    from_cold = heat_content(shares, 71.0) - heat_content(shares, 5.0)
    # A prototype found about twice.
    assert from_frozen / from_cold == pytest.approx(2.0, abs=0.3)


def test_wet_meat_does_not_pass_boiling_until_it_is_dry() -> None:
    now = through(flat(12, 300, flip=False)).now
    wet = now.shares[:, WATER] > 1e-3
    assert np.max(now.temp[wet]) <= 100.5
    assert now.temp[0] > 130
    assert now.shares[0, WATER] < 1e-3


@pytest.mark.parametrize(
    ("change", "warmer"),
    [
        ({"low": plate(250)}, True),
        ({"low": plate(230, 600)}, True),
        ({"high": air(120, 15)}, True),
        ({"size_mm": 17.0}, True),
        ({"start_c": 10.0}, True),
        ({"seconds": 420.0}, True),
        ({"factors": Factors(k=1.2)}, True),
        ({"low": plate(190)}, False),
        ({"low": plate(store=8_000.0)}, False),
        ({"factors": Factors(contact=0.6)}, False),
    ],
)
def test_each_thing_moves_the_core_its_own_way(change: dict, warmer: bool) -> None:
    usual: dict = {"size_mm": 18.0, "seconds": 360.0}
    before, after = core_after(flat(**usual)), core_after(flat(**{**usual, **change}))
    assert (after - before > 0.2) if warmer else (before - after > 0.2)


def test_turning_a_piece_that_is_alike_on_both_sides_changes_nothing() -> None:
    still = through(flat(20, 600, low=OVEN, high=OVEN, flip=False)).now.temp
    turned = through(flat(20, 600, low=OVEN, high=OVEN)).now.temp
    assert np.allclose(still, still[::-1], atol=1e-6)
    assert np.allclose(still, turned, atol=0.05)


def test_turned_often_is_evener_than_turned_once() -> None:
    once = through(flat(20, 480))
    often = flat(20, 480, flip=False)
    often = replace(often, stages=(replace(often.stages[0], turn_every_s=60.0),))
    turned = through(often)
    # Its two outer thirds are nearer to each other, and the middle is warmer.
    third = len(once.now.temp) // 3
    apart = [abs(m.now.temp[:third].mean() - m.now.temp[-third:].mean()) for m in (once, turned)]
    assert apart[1] < apart[0]
    assert core(turned) > core(once)
    assert abs(turned.now.tally[BROWN_LOW] - turned.now.tally[BROWN_LOW + 1]) < abs(
        once.now.tally[BROWN_LOW] - once.now.tally[BROWN_LOW + 1]
    )


@pytest.mark.parametrize(
    ("setup", "finer"),
    [(SMASH, 4), (GRILL, 4), (BALL, 4), (LOAF, 2), (FROZEN, 4)],
    ids=["smash", "grill", "ball", "loaf", "frozen"],
)
def test_the_core_does_not_hang_on_mesh_and_step(setup: Setup, finer: int) -> None:
    # The bar is 0.2 K. Thawing meat stands still for minutes and then moves fast: half a kelvin there.
    bar = 0.5 if setup.start_c < 0 else 0.2
    assert core_after(setup) == pytest.approx(core_after(replace(setup, finer=finer)), abs=bar)


def test_a_plate_gives_heat_and_gets_it_back() -> None:
    run = Simulation(flat(20, 60, flip=False), keep_every_s=1e9)
    stage = run.setup.stages[0]
    run.stage(stage)
    assert 160 < run.now.edge[6] < 220
    run.stage(stage, seconds=900)
    assert run.now.edge[6] > 218


def test_fat_that_melts_holds_the_middle_back_until_it_is_melted() -> None:
    # Lean meat carries heat better; above 47 °C it holds more of it, and loses part of what it was ahead.
    early, middle, late = (
        core_after(flat(18.0, s, meat=LEAN)) - core_after(flat(18.0, s)) for s in (60.0, 240.0, 480.0)
    )
    assert 0.2 < early < middle < 3.5
    assert 0.2 < late < middle - 0.5


def test_melting_takes_its_heat_once_and_gives_it_back() -> None:
    # 85 kJ a kg of fat between 0 and 47 °C (from memory, low), none beyond.
    fat, none = np.array([0.0, 0.0, 1.0, 0.0, 0.0]), sensible_j_kg
    assert heat_content(fat, 47.0) - none(2, 47.0) == pytest.approx(85_000.0)
    assert heat_content(fat, 80.0) - none(2, 80.0) == pytest.approx(85_000.0)
    assert heat_content(fat, 23.5) - none(2, 23.5) == pytest.approx(42_500.0)
    assert heat_content(fat, -18.0) == pytest.approx(none(2, -18.0))
    # What runs out takes its heat of melting along; water has none.
    assert taken_along_j_kg(2, 60.0) == pytest.approx(heat_content(fat, 60.0))
    assert taken_along_j_kg(0, 60.0) == pytest.approx(none(0, 60.0))


def test_a_late_press_costs_juice_and_fat() -> None:
    plain = flat(15, 360)
    pressed = replace(plain, stages=(plain.stages[0], replace(plain.stages[1], press_out_frac=0.3)))
    before, after = through(plain).now.tally, through(pressed).now.tally
    assert after[WATER_LOST] > before[WATER_LOST] * 1.05
    # Of the fat, what lies near the faces has gone already.
    assert after[FAT_LOST] > before[FAT_LOST] * 1.02


def test_steam_under_a_cover_heats_a_cold_face_and_keeps_it_wet() -> None:
    covered = air(98.0, 12.0, vapour_pa=55_000.0)
    steamed, bare = through(flat(15, 90, high=covered, flip=False)), through(flat(15, 90, flip=False))
    assert steamed.now.temp[-1] > bare.now.temp[-1] + 20
    assert steamed.now.edge[1] > bare.now.edge[1]


def test_what_lies_in_the_middle_is_not_meat_and_heats_by_its_own_measure() -> None:
    cheese = Material((0.40, 0.25, 0.30, 0.02, 0.03))
    filled = flat(24, 480)
    filled = replace(filled, piece=replace(filled.piece, middle=Middle(cheese, 6.0)))
    run = through(filled)
    inside = run.body.is_meat == 0
    assert 0.15 < float(np.sum(run.body.width[inside])) / 0.024 < 0.35
    # It neither drips nor renders.
    assert np.allclose(run.now.shares[inside], run.body.first[inside])
    assert np.any(run.now.shares[~inside][:, FAT] < run.body.first[~inside][:, FAT] - 1e-3)


def test_a_loaf_is_as_warm_on_its_left_as_on_its_right_and_coldest_inside() -> None:
    now = through(LOAF).now.temp
    rows, columns = now.shape
    assert now[rows // 2, 0] < now[rows // 2, columns - 1]
    assert np.argmin(now[:, 0]) not in (0, rows - 1)


KINDS = ["contact", "air", "liquid", "fire", "steam", "cold"]


def _face(kind: str, temp: float, h: float) -> Face:
    if kind == "contact":
        return plate(temp, h)
    if kind == "air":
        return air(temp, min(h, 60.0), glow_c=temp + 100.0)
    if kind == "steam":
        return air(98.0, min(h, 40.0), vapour_pa=60_000.0)
    if kind == "cold":
        return air(-temp / 8, min(h, 40.0), vapour_pa=100.0)
    return Face(kind, temp, h)  # type: ignore[arg-type]


@given(
    st.floats(3, 45),
    st.floats(60, 400),
    st.floats(5, 1200),
    st.floats(-25, 30),
    st.floats(0.03, 0.45),
    st.sampled_from(KINDS),
    st.sampled_from(["slab", "ball", "block"]),
    st.sampled_from([0.25, 1.0]),
)
@settings(max_examples=80, deadline=None)
def test_no_cook_in_the_declared_range_breaks(
    size: float, temp: float, h: float, start: float, fat: float, kind: str, form: str, drip: float
) -> None:
    shares = (0.77 - 0.76 * fat, 0.22 - 0.22 * fat, fat, 0.0, 0.01)
    meat = Material(tuple(s / sum(shares) for s in shares))  # type: ignore[arg-type]
    face, factors = _face(kind, temp, h), Factors(drip=drip)
    if form == "slab":
        setup = flat(size, 240, low=face, start_c=start, meat=meat, factors=factors)
    elif form == "ball":
        setup = ball(size, 240, around=face, start_c=start, meat=meat, factors=factors)
    else:
        around = face if face.kind == "air" else air(temp, 28)
        setup = loaf(size * 2 + 20, size + 20, 1200, around=around, start_c=start, meat=meat, factors=factors)
    run = through(setup)
    run.stage(setup.resting)
    now = run.now
    assert np.all(np.isfinite(now.temp))
    assert np.min(now.temp) > min(-60.0, -temp / 8) - 5
    assert np.max(now.temp) <= max(temp + 100.0, 110.0) + 5
    assert np.all(now.shares >= -1e-9)
    assert np.all(now.lethal >= 0)


def _skin(film: float, air_c: float = 200.0, vapour_pa: float = 1300.0) -> float:
    answer = np.empty(BLENDED)
    link(air(air_c, 28.0, vapour_pa=vapour_pa).row(), 60.0, 50.0, film, 1.0, 0.0, 60.0, answer)
    g, e, skin = answer[0], answer[1], answer[2]
    # What comes from outside goes into the cell: the answer balances.
    assert g * (e - 60.0) == pytest.approx(50.0 * (skin - 60.0), abs=0.1)
    return float(skin)


def test_a_wet_skin_stays_below_the_air_and_a_dry_one_comes_near() -> None:
    assert _skin(1.0) < 75 < 110 < _skin(0.0)


def test_damp_air_dries_less() -> None:
    assert _skin(1.0, vapour_pa=8000.0) > _skin(1.0)


def test_vapour_pressure_is_the_steam_tables() -> None:
    # IAPWS saturation: 2.339 kPa at 20 °C, 19.95 at 60, 70.18 at 90 (from memory, high).
    for temp, kpa in ((20.0, 2.339), (60.0, 19.95), (90.0, 70.18)):
        assert vapour_pressure_pa(temp) / 1000 == pytest.approx(kpa, rel=0.005)
    assert 0 < drying_kg_m2_s(20.0, 28.0, 1300.0) < drying_kg_m2_s(60.0, 28.0, 1300.0)
    assert drying_kg_m2_s(20.0, 28.0, 20_000.0) < 0


def test_a_stage_that_never_gets_there_says_so() -> None:
    cool = CookStage("oven", SHUT, air(60.0, 10.0), "core", 1200.0)
    setup = ball(42, 60)
    took, met = Simulation(replace(setup, stages=(cool,)), keep_every_s=1e9).stage(cool)
    assert took == pytest.approx(1200.0)
    assert not met


def test_every_place_must_come_to_what_is_asked_of_the_coldest() -> None:
    setup = flat(16, 400)
    stages = (setup.stages[0], replace(setup.stages[1], end="core", seconds=2000.0))
    wish = replace(setup, stages=stages, pull_c=65.0)
    floor = replace(wish, coldest_c=65.0)
    assert through(floor).now.clock[0] > through(wish).now.clock[0]
    assert np.min(through(floor).now.peak) >= 65.0 > np.min(through(wish).now.peak)
