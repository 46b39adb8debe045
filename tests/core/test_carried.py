"""Carried elsewhere: ice, walls, lines, papers; each figure against a balance done another way."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.carried.carried import COLD_HOLDS, STACK, Carried, Trip, carried
from vianda.core.carried.cold_box import BOXES, LID, MELTS_KJ_KG, BoxFigures, in_a_box, u_w_m2k, warms_to_min
from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.pipeline.compute import compute

PACKED = {
    "mass_kg": 5.0,
    "volume_l": 5.0,
    "heat_j_kg_k": 3300.0,
    "from_c": 3.0,
    "around_c": 25.0,
    "hours": 4.0,
    "line_c": 5.0,
}


def _box(**changes) -> BoxFigures:
    return in_a_box(**{**PACKED, "box_l": 25.0, **changes})


def _carried(make, country: str = "US", **trip) -> Carried:
    kitchen = replace(KITCHEN, country=country)
    return carried(compute(make(), inventory=INVENTORY, kitchen=kitchen), Trip(**trip))


# ---------------------------------------------------------------------------------------------------------------- box


def test_ice_takes_up_what_comes_in_and_what_the_food_brings() -> None:
    found = _box()
    # 25 l as a cube: 0.513 m². All heat of four hours and of 5 kg from 3 °C to 0, over the heat of melting.
    area = 6 * (0.025 ** (2 / 3))
    through = LID.usual * u_w_m2k(BOXES["usual"]) * area * 25.0 * 4 * 3600
    brought = 5.0 * 3300.0 * 3.0
    assert found.ice_kg.usual == pytest.approx((through + brought) / 1000 / MELTS_KJ_KG, rel=1e-9)
    assert found.ice_kg.low < found.ice_kg.usual < found.ice_kg.high


def test_without_ice_it_warms_as_the_differential_equation_says() -> None:
    found = _box()
    conducts = LID.usual * u_w_m2k(BOXES["usual"]) * 6 * (0.025 ** (2 / 3))

    def slope(_: float, temp: list[float]) -> list[float]:
        return [conducts * (25.0 - temp[0]) / (5.0 * 3300.0)]

    done = solve_ivp(slope, (0, 4 * 3600), [3.0], rtol=1e-9, atol=1e-9, dense_output=True)
    assert found.arrives_c == pytest.approx(done.y[0, -1], abs=1e-5)
    assert found.line_min is not None
    assert done.sol(60 * found.line_min)[0] == pytest.approx(5.0, abs=1e-5)


@settings(max_examples=80, deadline=None)
@given(
    st.floats(0.1, 24.0), st.floats(-20.0, 50.0), st.floats(-1.0, 30.0), st.floats(0.1, 200.0), st.floats(0.0, 500.0)
)
def test_ice_grows_with_hours_heat_and_mass_and_never_is_less_than_none(hours, around, packed, mass, litres) -> None:
    trip = {"hours": hours, "around_c": around, "from_c": packed, "mass_kg": mass, "volume_l": mass, "box_l": litres}
    found = _box(**trip)
    assert found.ice_kg.low >= 0.0
    assert found.box_l >= litres
    assert min(packed, around) - 1e-9 <= found.arrives_c <= max(packed, around) + 1e-9
    assert _box(**{**trip, "hours": min(24.0, hours * 1.5)}).ice_kg.usual >= found.ice_kg.usual - 1e-9
    assert _box(**{**trip, "around_c": min(50.0, around + 5)}).ice_kg.usual >= found.ice_kg.usual - 1e-9
    assert _box(**trip, kind="thin").ice_kg.usual >= _box(**trip, kind="thick").ice_kg.usual - 1e-9


@pytest.mark.parametrize(
    ("from_c", "around_c", "minutes"),
    [(5.0, 25.0, 0.0), (5.1, 25.0, 0.0), (3.0, 5.0, None), (3.0, 4.9, None), (3.0, 25.0, 60 * math.log(22 / 20))],
)
def test_a_line_is_passed_at_it_and_never_where_the_air_is_no_warmer(from_c, around_c, minutes) -> None:
    found = warms_to_min(from_c, 5.0, around_c=around_c, rate_per_s=1 / 3600, most_s=7200)
    assert found == (None if minutes is None else pytest.approx(minutes))


@pytest.mark.parametrize(
    "wrong",
    [
        {"hours": 0.0},
        {"hours": 24.1},
        {"around_c": 50.1},
        {"around_c": -20.1},
        {"from_c": -1.1},
        {"from_c": 30.1},
        {"mass_kg": 0.0},
        {"volume_l": 0.0},
        {"box_l": 501.0},
        {"hours": math.nan},
        {"box_l": math.nan},
    ],
)
def test_a_trip_out_of_range_is_refused(wrong) -> None:
    with pytest.raises(OutOfRangeError):
        _box(**wrong)


# ------------------------------------------------------------------------------------------------------------ formula


@pytest.mark.parametrize(("country", "line_c"), [("US", 5.0), ("UK", 8.0), ("CA", 4.0), ("other", 5.0)])
def test_each_country_has_its_own_line_and_source(country: str, line_c: float) -> None:
    found = _carried(slipway_smash, country)
    assert found.line_c == pytest.approx(line_c, abs=1e-9)
    assert found.line_source == COLD_HOLDS[country][1]
    # At the line it is chilled enough; just above it is said to be too warm.
    at = [r.text for r in _carried(slipway_smash, country, from_c=line_c).remarks]
    above = [r.text for r in _carried(slipway_smash, country, from_c=line_c + 0.1).remarks]
    assert not any("chill it first" in text for text in at)
    assert any("chill it first" in text for text in above)


def test_flat_pieces_lie_in_stacks_with_a_paper_under_each_and_one_on_top() -> None:
    found = _carried(slipway_smash)
    assert found.pieces == 40
    assert (found.stacks, found.papers) == (40 // STACK, 40 + 40 // STACK)
    assert _carried(night_watch_balls).papers == 0


@pytest.mark.parametrize("make", [slipway_smash, keepers_loaf, night_watch_balls, supply_boat_ragu])
def test_a_thick_piece_may_lie_out_longer_than_a_thin_one_and_in_cold_air_for_hours(make) -> None:
    found = _carried(make)
    thin = _carried(slipway_smash)
    assert found.out_min is not None
    assert thin.out_min is not None
    assert found.out_min >= thin.out_min
    assert _carried(make, around_c=4.0).out_min is None


def test_a_box_that_is_too_small_is_told_with_the_litres_it_takes() -> None:
    small = _carried(keepers_loaf, box_l=5.0)
    assert any("take a box of" in r.text for r in small.remarks)
    assert not any("take a box of" in r.text for r in _carried(keepers_loaf, box_l=60.0).remarks)
