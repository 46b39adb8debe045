"""How a surface gives heat: metal, burner, fire and lid, turned into what touches a piece."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heat_formulas import KITCHEN
from vianda.core.equipment.heating import (
    METALS,
    POWER_W_M2,
    Heating,
    heated_c,
    heats_up_s,
    lateral_gain_frac,
    lid_air_c,
    plate_store_j_m2_k,
)
from vianda.core.equipment.kitchen import SurfaceKind
from vianda.core.heat.boundary_conditions import CHEESE_C, Around, cook_stages, resting_stage
from vianda.core.heat.conduction import stages as cs
from vianda.core.heat.conduction.faces import SHUT, Face
from vianda.core.heat.conduction.skin import AIR_KIND, FACE_FIELDS, KIND, RADIANT, STORE_KIND, H
from vianda.core.model.formula import Heat, HeatStage
from vianda.core.model.styles import Form


def _around(
    kind: SurfaceKind, *, form: Form = "disc", temp_c: float = 230.0, fat: str = "", **heating: object
) -> Around:
    surface = next(s for s in KITCHEN.surfaces if s.kind == kind)
    surface = replace(surface, heating=replace(surface.heating, **heating))  # type: ignore[arg-type]
    kitchen = replace(KITCHEN, surfaces=tuple(surface if s.key == surface.key else s for s in KITCHEN.surfaces))
    heat = Heat(surface.key, temp_c, 71.1, fat=fat)  # type: ignore[arg-type]
    return Around(form, 110.0, kitchen, surface, heat, covered_frac=0.3, on_heat_s=120.0)


def _first(stage: HeatStage, around: Around) -> cs.CookStage:
    return cook_stages((stage,), around)[0]


@given(st.floats(5_000, 80_000), st.floats(4_000, 30_000), st.floats(90, 320), st.floats(0.05, 0.97))
def test_how_hot_after_so_long_and_how_long_to_so_hot_are_each_others_inverse(
    store: float, power: float, set_c: float, share: float
) -> None:
    gain = power / 20.0
    wanted = 20.0 + share * (set_c - 20.0)
    seconds = heats_up_s(store, power, gain, 20.0, wanted, set_c)
    assert heated_c(store, power, gain, seconds, set_c) == pytest.approx(wanted, abs=0.2)


def test_a_plate_never_passes_its_setting_and_a_hot_one_waits_for_nothing() -> None:
    assert heated_c(30_000, 16_000, 800, 1e6, 230) == pytest.approx(230)
    assert heats_up_s(30_000, 16_000, 800, 231, 225, 230) == 0.0


def test_thicker_and_heavier_metal_holds_more() -> None:
    held = {m: plate_store_j_m2_k(Heating(metal=m, thickness_mm=5), "pan") for m in METALS}
    # Density × heat capacity: copper and steel hold most, aluminium least.
    assert held["aluminium"] < held["cast-iron"] < held["copper"]
    assert plate_store_j_m2_k(Heating(thickness_mm=10), "pan") == pytest.approx(2 * held["steel"])
    assert plate_store_j_m2_k(Heating(), "plate") > plate_store_j_m2_k(Heating(), "pan")


@given(st.floats(40, 200), st.floats(0.01, 0.95), st.floats(10, 600))
def test_a_plate_lends_from_what_lies_bare_and_never_more(diameter: float, covered: float, seconds: float) -> None:
    lateral_gain = lateral_gain_frac(Heating(), diameter_mm=diameter, covered_frac=covered, time_s=seconds)
    assert 1.0 <= lateral_gain <= 1.0 / max(covered, 0.05) + 1e-9
    assert (
        lateral_gain
        <= lateral_gain_frac(Heating(metal="copper"), diameter_mm=diameter, covered_frac=covered, time_s=seconds) + 1e-9
    )


def test_a_lid_keeps_the_fires_air_and_a_cold_yard_takes_it() -> None:
    shut, open_ = Heating(), Heating(lid=False)
    assert lid_air_c(shut, 230) > lid_air_c(open_, 230) + 60
    assert lid_air_c(Heating(outdoor_c=-15), 230) < lid_air_c(shut, 230)
    air = {layout: lid_air_c(Heating(layout=layout), 230) for layout in ("even", "ring", "two-zones")}  # type: ignore[arg-type]
    assert air["two-zones"] < air["ring"] < air["even"]


def test_a_plate_has_a_store_and_an_ovens_air_glows_with_itself() -> None:
    plate = _first(HeatStage("surface", "core"), _around("plate")).low
    assert plate.kind == "contact"
    assert plate.store > 30_000
    assert plate.power >= POWER_W_M2["usual"]
    assert plate.row()[KIND] == STORE_KIND
    oven = _first(HeatStage("oven", "core"), _around("oven", form="ball", temp_c=200)).high
    assert oven.row()[KIND] == AIR_KIND
    assert oven.row()[RADIANT] == 200.0
    assert len(oven.row()) == FACE_FIELDS


def test_factors_touch_only_their_own_kind_of_face() -> None:
    plate, room = Face("contact", 230, 350, store=1.0), cs.air(40.0, 8.0)
    assert plate.row(contact=2.0, air=3.0)[H] == 700.0
    assert room.row(contact=2.0, air=3.0)[H] == 24.0


def test_a_press_touches_better_while_it_is_held_and_a_low_flame_worse() -> None:
    usual = _first(HeatStage("surface", "core"), _around("pan"))
    pressed = _first(HeatStage("surface", "core", press=True), _around("pan"))
    assert usual.pressed is None
    assert pressed.pressed is not None
    assert pressed.pressed.h == pytest.approx(600.0)
    assert pressed.low == usual.low
    assert _first(HeatStage("surface", "core", temp_c=120.0), _around("pan")).low.h < usual.low.h


def test_fat_in_the_pan_fills_the_gaps_and_a_tortilla_keeps_heat_off() -> None:
    dry = _first(HeatStage("surface", "core"), _around("pan")).low.h
    assert _first(HeatStage("surface", "core"), _around("pan", fat="oil")).low.h == pytest.approx(1.3 * dry)
    shell = _first(HeatStage("surface", "core", flip=True), _around("pan", form="spread")).low.h
    assert shell < 0.3 * dry


def test_what_a_stage_names_is_what_the_oven_says_and_it_is_off_by_its_offset() -> None:
    around = _around("oven", form="ball", temp_c=200.0, offset_k=-15.0)
    assert _first(HeatStage("oven", "core", temp_c=180.0), around).high.temp_c == 165.0
    # The formula's own temperature was measured at the shelf.
    assert _first(HeatStage("oven", "core"), around).high.temp_c == 200.0


def test_cheese_begins_cold_and_melts_sooner_under_steam() -> None:
    bare = _first(HeatStage("surface", "core", cheese=True), _around("plate")).high
    steamed = _first(HeatStage("surface", "core", cheese=True, cover=True), _around("plate")).high
    assert bare.kind == steamed.kind == "cheese"
    assert bare.begin_c == CHEESE_C
    assert steamed.round_h > 3 * bare.round_h


def test_a_tins_wall_keeps_a_side_from_drying_and_a_tray_does_not() -> None:
    tin = _first(HeatStage("oven", "core"), _around("oven", form="tin", temp_c=175))
    free = _first(HeatStage("oven", "core"), _around("oven", form="loaf", temp_c=175))
    assert (tin.side.kind, free.side.kind) == ("liquid", "air")
    assert tin.high.kind == free.high.kind == "air"


def test_a_broiler_glows_above_and_an_oven_does_not() -> None:
    broiler = _first(HeatStage("broiler", "time", 300.0), _around("oven", form="loaf", temp_c=175))
    assert broiler.high.glow_c == 450.0
    assert _first(HeatStage("oven", "core"), _around("oven", form="loaf", temp_c=175)).high.glow_c is None


def test_patience_is_longer_in_gentle_heat() -> None:
    fierce = _first(HeatStage("surface", "core"), _around("pan"))
    gentle = _first(HeatStage("smoke", "core"), _around("grate"))
    loaf = _first(HeatStage("oven", "core"), _around("oven", form="loaf"))
    assert fierce.seconds < gentle.seconds < loaf.seconds


def test_foil_keeps_warm_and_a_winter_yard_does_not() -> None:
    around = _around("pan")
    foil, bare = resting_stage("foil", 600.0, around), resting_stage("open", 600.0, around)
    assert foil.high.h < bare.high.h
    assert foil.high.emissivity < bare.high.emissivity
    yard = resting_stage("open", 600.0, _around("grate", outdoor_c=-10.0))
    assert yard.high.temp_c == -10.0
    assert resting_stage("open", 60.0, _around("pan", form="ball")).low == SHUT
