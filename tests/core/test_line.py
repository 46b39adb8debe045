"""One line of cells through a step: the solver against dense algebra, and what is held, boils and leaves."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heat_rigs import MINCE
from vianda.core.heat.conduction.held import last_held
from vianda.core.heat.conduction.line import (
    DRIP_SHARE,
    FAT_SHARE,
    ROOM,
    conduct,
    press_out,
    release,
    settle,
    solve_held,
)
from vianda.core.heat.conduction.props import BLENDED, LATENT_J_KG, blend, heat_content
from vianda.core.heat.conduction.slab import browned, cooked_frac, film_after, is_met, overshot, thin_out, turn_over
from vianda.core.heat.conduction.state import Cells, Line, Mesh, Record
from vianda.runtime.machine_code import folder_name

CELLS = 12


def _solve(diagonal: np.ndarray, off: np.ndarray, right: np.ndarray, *, wet: float, latent: float) -> np.ndarray:
    n = len(diagonal)
    new = np.zeros(n)
    solve_held(diagonal, off, right, np.full(n, latent), np.full(n, wet), np.zeros(n), new, np.zeros((4, n)))
    return new


@given(st.integers(0, 2**31), st.integers(2, 30))
@settings(max_examples=40)
def test_without_boiling_it_is_the_solution_of_the_system(seed: int, cells: int) -> None:
    random = np.random.default_rng(seed)
    off = random.uniform(0.1, 50.0, cells - 1)
    heat = random.uniform(1.0, 100.0, cells)
    diagonal = heat + np.append(off, 0) + np.insert(off, 0, 0)
    right = heat * random.uniform(-20.0, 90.0, cells)
    dense = np.diag(diagonal) - np.diag(off, 1) - np.diag(off, -1)
    assert _solve(diagonal, off, right, wet=0.0, latent=0.0) == pytest.approx(np.linalg.solve(dense, right), abs=1e-8)


def test_a_wet_cell_stays_at_boiling_and_a_dry_one_passes_it() -> None:
    off, heat = np.full(CELLS - 1, 5.0), np.full(CELLS, 10.0)
    diagonal = heat + np.append(off, 0) + np.insert(off, 0, 0)
    right = heat * 80.0
    right[0] += 2000.0
    wet = _solve(diagonal, off, right, wet=1.0, latent=1e9)
    assert wet[0] == pytest.approx(100.0)
    assert np.all(wet <= 100.0 + 1e-9)
    dry = _solve(diagonal, off, right, wet=0.0, latent=0.0)
    assert dry[0] > 150.0
    # With only a little water it boils dry, which takes that much off its heat.
    nearly = _solve(diagonal, off, right, wet=1.0, latent=50.0)
    assert 100.0 < nearly[0] < dry[0]


def _cells(temp_c: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    return np.full(CELLS, temp_c), np.tile(np.array(MINCE.shares), (CELLS, 1)), np.full(CELLS, 0.5)


def _groups(temp, shares, first, mass, out_of) -> tuple[Cells, Mesh]:
    """The cells and their mesh, for what looks only at what leaves."""
    none = np.zeros(CELLS)
    return Cells(temp, shares, none, none, none), Mesh(none, none, none, mass, first, out_of, none)


@given(st.floats(-30, 95), st.floats(-5e4, 2e5))
def test_settling_holds_exactly_the_heat_that_was_gained(start: float, gained: float) -> None:
    temp, shares, mass = _cells(start)
    before = heat_content(shares[0], start) * mass[0]
    steam = np.zeros(CELLS)
    blended = np.empty((CELLS, BLENDED))
    for i in range(CELLS):
        blend(shares[i], blended[i])
    settle(temp, shares[:, 0].copy(), mass, blended, np.full(CELLS, gained), temp.copy(), np.ones(CELLS), steam)
    after = heat_content(shares[0], temp[0]) * mass[0] + LATENT_J_KG * steam[0]
    assert after - before == pytest.approx(gained, abs=0.05)
    assert steam[0] == 0.0 or temp[0] >= 100.0 - 1e-3


def test_a_step_moves_heat_from_warm_to_cold_and_keeps_it() -> None:
    temp, shares, mass = _cells(20.0)
    temp[:4] = 60.0
    before = sum(heat_content(s, t) * m for s, t, m in zip(shares, temp, mass, strict=True))
    into, steam, gained = np.zeros(2), np.zeros(CELLS), np.zeros(CELLS)
    k, width, room, blended = (
        np.full(CELLS, 0.45),
        np.full(CELLS, 0.001),
        np.empty((ROOM, CELLS)),
        np.empty((CELLS, BLENDED)),
    )
    for i in range(CELLS):
        blend(shares[i], blended[i])
    water = shares[:, 0].copy()
    line = Line(temp, water, mass, k, width, np.ones(CELLS - 1), blended)
    conduct(line, np.zeros(4), 5.0, gained, into, steam, room)
    after = sum(heat_content(s, t) * m for s, t, m in zip(shares, temp, mass, strict=True))
    assert after == pytest.approx(before, rel=1e-5)
    assert into == pytest.approx(0.0)
    assert np.all(np.diff(temp) <= 1e-9)
    assert temp[3] < 60.0 and temp[4] > 20.0  # noqa: PT018


def test_what_leaves_comes_to_its_end_and_no_further() -> None:
    temp, shares, mass = _cells(95.0)
    first, out = shares.copy(), np.zeros(4)
    for _ in range(200):
        release(*_groups(temp, shares, first, mass, np.ones(CELLS)), np.zeros(CELLS), 10.0, 1.0, out)
    # Far above 62 °C all of the loose water has gone, and of the fat its share.
    assert shares[0, 0] == pytest.approx(first[0, 0] * (1 - DRIP_SHARE), rel=0.01)
    assert shares[0, 2] == pytest.approx(first[0, 2] * (1 - FAT_SHARE), rel=0.01)
    cold, kept, _ = _cells(20.0)
    release(*_groups(cold, kept, first, mass, np.ones(CELLS)), np.zeros(CELLS), 600.0, 1.0, out)
    assert np.array_equal(kept, first)


def test_what_is_not_meat_lets_nothing_go_and_cold_meat_is_not_pressed_out() -> None:
    temp, shares, mass = _cells(90.0)
    first, out = shares.copy(), np.zeros(4)
    release(*_groups(temp, shares, first, mass, np.zeros(CELLS)), np.zeros(CELLS), 60.0, 1.0, out)
    assert np.array_equal(shares, first)
    cold = np.full(CELLS, 30.0)
    press_out(*_groups(cold, shares, first, mass, np.ones(CELLS)), 0.3, out)
    assert np.array_equal(shares, first)
    press_out(*_groups(temp, shares, first, mass, np.ones(CELLS)), 0.3, out)
    assert out[0] > 0
    assert out[2] > 0


def test_two_fifths_are_counted_from_below_without_a_gap() -> None:
    width = np.full(10, 0.001)
    front = np.array([90.0, 80, 70, 62, 40, 30, 20, 10, 10, 10])
    assert 0.35 < cooked_frac(front, width) < 0.45
    gap = front.copy()
    gap[1] = 50.0
    assert cooked_frac(gap, width) < 0.2
    assert cooked_frac(np.full(10, 20.0), width) == 0.0
    assert cooked_frac(np.full(10, 80.0), width) == pytest.approx(1.0)


def test_turning_twice_is_not_turning() -> None:
    random = np.random.default_rng(3)
    before = [
        random.normal(size=6),
        random.normal(size=(6, 5)),
        random.normal(size=8),
        random.normal(size=7),
        random.normal(size=6),
        random.normal(size=6),
    ]
    before[3][6] = 0.0
    now = [b.copy() for b in before]
    turn_over(Cells(now[0], now[1], now[3], now[4], now[5]), now[2])
    assert np.array_equal(now[0], before[0][::-1])
    # What lies under it stays where it is: the stores are not turned.
    assert np.array_equal(now[2][6:], before[2][6:])
    assert now[3][6] == 1.0
    turn_over(Cells(now[0], now[1], now[3], now[4], now[5]), now[2])
    assert all(np.array_equal(a, b) for a, b in zip(now, before, strict=True))


def test_browning_doubles_in_a_few_kelvin_and_begins_where_it_is_dry() -> None:
    assert browned(94.0, 60.0) == 0.0
    assert browned(150.0, 60.0) == pytest.approx(1.0)
    assert 1.5 < browned(160.0, 60.0) / browned(150.0, 60.0) < 2.0


def test_a_film_neither_runs_dry_below_nought_nor_grows_past_what_runs_off() -> None:
    assert film_after(0.1, 0.0, 1.0, 1.0) == 0.0
    assert film_after(1.4, 1.0, 0.0, 1.0) == 1.5


def test_an_end_is_met_by_its_own_rule() -> None:
    core, coldest, cold = 1, 3, 4
    assert is_met(core, 70.0, 70.0, 68.0, 68.0)
    assert not is_met(core, 75.0, 70.0, 66.0, 68.0)
    assert is_met(coldest, 70.0, 70.0, 0.0, 99.0)
    assert is_met(cold, 4.9, 5.0, 0.0, 0.0)
    assert not is_met(cold, 5.1, 5.0, 0.0, 0.0)
    assert overshot(60.0, 70.0, 67.5) == pytest.approx(0.25)
    assert overshot(60.0, 60.0, 67.5) == 0.0


@given(st.lists(st.floats(0, 100), min_size=2, max_size=30), st.floats(20, 90), st.floats(0, 200))
def test_a_longer_or_a_hotter_hold_is_never_met_sooner(series: list[float], hold_c: float, hold_s: float) -> None:
    times, temp = np.arange(len(series)) * 10.0, np.array(series)[:, None]

    def met(c: float, s: float) -> float:
        found = last_held(times, temp, c, s)
        return found if found >= 0 else np.inf

    assert met(hold_c, hold_s) <= met(hold_c, hold_s + 15.0)
    assert met(hold_c, hold_s) <= met(hold_c + 3.0, hold_s)


def test_machine_code_is_made_anew_when_a_word_of_any_source_changes(tmp_path: Path) -> None:
    # One file's code holds what it took from another; a cache that looks at one file alone keeps old numbers.
    one, other = tmp_path / "one.py", tmp_path / "other.py"
    one.write_text("K = 1.0")
    other.write_text("from one import K")
    before = folder_name(tmp_path.glob("*.py"))
    assert folder_name([other, one]) == before
    one.write_text("K = 2.0")
    assert folder_name(tmp_path.glob("*.py")) != before


def test_when_there_is_no_room_left_every_other_sample_goes() -> None:
    times, temps, more = np.arange(9.0), np.arange(18.0).reshape(9, 2), np.arange(27.0).reshape(9, 3)
    clock = np.array([8.0, 9.0, 1.0])
    kept = thin_out(Record(clock, times, temps, more))
    assert kept == 5
    assert list(times[:kept]) == [0, 2, 4, 6, 8]
    assert list(temps[:kept, 0]) == [0, 4, 8, 12, 16]
    assert clock[2] == 2.0
