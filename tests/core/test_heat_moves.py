"""No labels over one model: everything that is offered moves something, by more than the mesh does."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heat_formulas import BAKED, FLAT_TWO, curve_of, kitchen_with
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, slipway_smash, supply_boat_ragu
from vianda.core.equipment.heating import Heating
from vianda.core.heat.curve import HeatCurve
from vianda.core.heat.run_setup import Overrides
from vianda.core.model.edit import Choose, SetFigure, SetStages
from vianda.core.model.formula import HeatStage


# No labels over one model: each thing that is offered moves a temperature, a loss or the browning by more than what the
# mesh does (0.2 K, a tenth of a per cent, a twentieth).
def moves(a: HeatCurve, b: HeatCurve) -> bool:
    return (
        abs(a.pull_s.usual - b.pull_s.usual) > 0.01 * a.pull_s.usual
        or abs(a.peak_c - b.peak_c) > 0.2
        or abs(a.water_lost_frac - b.water_lost_frac) > 0.001
        or any(abs(x - y) > 0.05 * max(x, y, 0.02) for x, y in zip(a.browned, b.browned, strict=True))
    )


TWO_ZONES = (beacon_grill(), Choose("method", "two-zones"))


GLAZED = (keepers_loaf(), Choose("method", "broiled-and-glazed"))


@pytest.mark.parametrize(
    ("case", "key", "change"),
    [
        ((slipway_smash(),), "yard-plate", {"thickness_mm": 4.0}),
        ((slipway_smash(),), "yard-plate", {"metal": "aluminium"}),
        ((slipway_smash(),), "yard-plate", {"heat_factor": 1.3}),
        ((harbour_light_pub(),), "iron-pan", {"power": "gentle"}),
        ((harbour_light_pub(),), "iron-pan", {"power": "strong"}),
        (BAKED, "fan-oven", {"fan": False}),
        ((*GLAZED,), "fan-oven", {"offset_k": -20.0}),
        (GLAZED, "fan-oven", {"broiler_c": 600.0}),
        (BAKED, "fan-oven", {"heat_factor": 0.8}),
        ((beacon_grill(),), "charcoal-grate", {"fuel": "gas"}),
        (TWO_ZONES, "charcoal-grate", {"layout": "ring"}),
        (TWO_ZONES, "charcoal-grate", {"lid": False}),
        (TWO_ZONES, "charcoal-grate", {"outdoor_c": -10.0}),
    ],
)
def test_every_property_of_the_equipment_moves_something(case: tuple, key: str, change: dict) -> None:
    assert moves(curve_of(*case), curve_of(*case, kitchen=kitchen_with(key, **change)))


@pytest.mark.parametrize(
    "changed",
    [
        {"press": True},
        {"cover": True},
        {"cheese": True},
        {"turn_every_s": 45.0},
        {"temp_c": 180.0},
        {"flip": False},
        {"kind": "indirect"},
        {"kind": "smoke"},
        {"kind": "oven"},
        {"kind": "broiler"},
        {"kind": "fry"},
        {"kind": "simmer"},
    ],
    ids=str,
)
def test_every_property_of_a_stage_moves_something(changed: dict) -> None:
    usual = curve_of(harbour_light_pub(), SetStages(FLAT_TWO))
    other = curve_of(harbour_light_pub(), SetStages((FLAT_TWO[0], replace(FLAT_TWO[1], **changed))))
    assert moves(usual, other)


def test_a_glaze_and_foil_and_a_cover_move_a_loaf() -> None:
    plain = (HeatStage("broiler", "time", 420.0), HeatStage("oven", "core", temp_c=160.0))
    glazed = (plain[0], replace(plain[1], glaze=True))
    covered = (HeatStage("oven", "time", 1800.0, cover=True), plain[1])
    usual = curve_of(keepers_loaf(), SetStages(plain))
    assert moves(usual, curve_of(keepers_loaf(), SetStages(glazed)))
    assert moves(usual, curve_of(keepers_loaf(), SetStages(covered)))
    assert curve_of(keepers_loaf()).core_c[-1] > curve_of(keepers_loaf(), Choose("resting", "open")).core_c[-1] + 0.3


def test_a_crowded_plate_falls_further_than_a_lone_piece() -> None:
    thin = kitchen_with("yard-plate", thickness_mm=2.0, power="gentle")
    alone = (SetFigure("guests", 1), SetFigure("pieces_per_guest", 1))
    one, many = curve_of(slipway_smash(), *alone, kitchen=thin), curve_of(slipway_smash(), kitchen=thin)
    assert one.plate_low_c is not None
    assert many.plate_low_c is not None
    assert many.plate_low_c < one.plate_low_c - 3
    assert "crowded" in {r.key for r in many.remarks}


def test_a_cool_plate_says_how_long_to_wait() -> None:
    cool = curve_of(slipway_smash(), overrides=Overrides(surface_now_c=180.0))
    remark = next(r for r in cool.remarks if r.key == "plate-cool")
    assert 20 < remark.title.amounts["wait"].value < 600
    assert cool.pull_s.usual > curve_of(slipway_smash()).pull_s.usual
    assert "plate-cool" not in {r.key for r in curve_of(slipway_smash()).remarks}


def test_a_heating_out_of_its_ranges_is_refused() -> None:
    for change in (
        {"thickness_mm": 0.5},
        {"thickness_mm": 60.0},
        {"offset_k": 90.0},
        {"heat_factor": 3.0},
        {"outdoor_c": -45.0},
        {"broiler_c": 20.0},
        {"lasts_min": -1.0},
    ):
        with pytest.raises(OutOfRangeError):
            Heating(**change)  # type: ignore[arg-type]


@pytest.mark.parametrize("kind", ["surface", "oven"])
def test_a_cover_moves_a_flat_piece_on_every_surface_it_is_offered_for(kind: str) -> None:
    for start in (slipway_smash, beacon_grill):
        bare = (HeatStage(kind, "time", 60.0), HeatStage(kind, "core", flip=True))  # type: ignore[arg-type]
        covered = tuple(replace(s, cover=True) for s in bare)
        assert moves(curve_of(start(), SetStages(bare)), curve_of(start(), SetStages(covered)))


def test_crumbs_brown_once_their_juice_has_boiled_away_and_a_stronger_burner_is_sooner_through_it() -> None:
    gentle, usual, strong = (
        curve_of(supply_boat_ragu(), kitchen=kitchen_with("iron-pan", power=power))
        for power in ("gentle", "usual", "strong")
    )
    assert gentle.yield_frac > usual.yield_frac > strong.yield_frac
    assert gentle.browned[0] < usual.browned[0] < strong.browned[0]
