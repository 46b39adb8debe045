"""Remarks of the computed cook: each on both sides of its threshold."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heat_formulas import KITCHEN, curve_of, edited, kitchen_with
from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.equipment.heating import HOT_ENOUGH_K
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.heat.plate_signs import FATS
from vianda.core.heat.remarks import SHORT_LOAF_MM, HeatRemark
from vianda.core.heat.run_setup import Overrides
from vianda.core.model.edit import Choose, Edit, SetFigure, SetStages
from vianda.core.model.formula import Formula, HeatStage


def _remark(
    key: str, formula: Formula, *edits: Edit, kitchen: Kitchen = KITCHEN, overrides: Overrides | None = None
) -> HeatRemark | None:
    return next(
        (r for r in curve_of(formula, *edits, kitchen=kitchen, overrides=overrides).remarks if r.key == key), None
    )


@pytest.mark.parametrize("fat", [f for f in FATS if f])
def test_a_fat_smokes_above_its_point_and_not_below(fat: str) -> None:
    point = FATS[fat].smokes_c  # type: ignore[index]
    pan = (Choose("fat", fat),)
    assert _remark("smoke-point", harbour_light_pub(), *pan, SetFigure("surface_temp", point + 1)) is not None
    assert _remark("smoke-point", harbour_light_pub(), *pan, SetFigure("surface_temp", point - 1)) is None
    assert _remark("smoke-point", harbour_light_pub(), SetFigure("surface_temp", 300.0)) is None


def test_fat_flares_over_a_fire_and_not_on_a_plate() -> None:
    heavy = SetFigure("piece_mass", 260.0)
    over = _remark("flare-up", beacon_grill(), heavy)
    assert over is not None
    assert over.title.amounts["fat"].value > 8
    assert _remark("flare-up", beacon_grill(), SetFigure("piece_mass", 80.0)) is None
    assert _remark("flare-up", harbour_light_pub(), heavy) is None


@pytest.mark.parametrize(("short", "said"), [(HOT_ENOUGH_K + 1, True), (HOT_ENOUGH_K - 1, False), (-20.0, False)])
def test_a_surface_is_too_cool_from_five_kelvin_on(short: float, said: bool) -> None:
    now = Overrides(surface_now_c=240.0 - short)
    assert (_remark("plate-cool", slipway_smash(), overrides=now) is not None) is said


def test_a_cold_oven_or_grate_is_never_called_hot_enough() -> None:
    for formula in (keepers_loaf(), beacon_grill()):
        cold = _remark("plate-cool", formula, overrides=Overrides(surface_now_c=60.0))
        assert cold is not None
        # How fast they come up is not known here, so no time is named.
        assert "wait" not in cold.title.amounts


def test_a_stronger_burner_waits_less_and_a_thicker_plate_more() -> None:
    def wait(**change: object) -> float:
        kitchen = kitchen_with("yard-plate", **change)
        found = _remark("plate-cool", slipway_smash(), kitchen=kitchen, overrides=Overrides(surface_now_c=120.0))
        assert found is not None
        return found.title.amounts["wait"].value

    assert wait(power="strong") < wait() < wait(thickness_mm=20.0)


def test_a_plate_that_falls_by_sixty_kelvin_is_crowded() -> None:
    crowded = _remark("crowded", slipway_smash(), kitchen=kitchen_with("yard-plate", thickness_mm=1.0))
    assert crowded is not None
    assert crowded.reason.amounts["back"].value > 0
    assert _remark("crowded", slipway_smash()) is None


def test_a_late_press_is_said_and_an_early_one_is_not() -> None:
    late = (HeatStage("surface", "two-fifths"), HeatStage("surface", "core", flip=True, press=True))
    early = (replace(late[0], press=True), replace(late[1], press=False))
    assert _remark("late-press", slipway_smash(), SetStages(late)) is not None
    assert _remark("late-press", slipway_smash(), SetStages(early)) is None


def test_fuel_fades_when_the_waves_take_longer_than_it_lasts() -> None:
    # 26 pieces, 14 at once: two waves of about seven and a half minutes.
    assert _remark("fuel-fades", beacon_grill()) is None
    assert _remark("fuel-fades", beacon_grill(), kitchen=kitchen_with("charcoal-grate", lasts_min=12.0)) is not None
    assert _remark("fuel-fades", beacon_grill(), kitchen=kitchen_with("charcoal-grate", fuel="gas")) is None


def test_a_glaze_burns_under_a_fierce_broiler_and_not_in_a_mild_oven() -> None:
    mild = (HeatStage("oven", "time", 600.0), HeatStage("oven", "core", temp_c=150.0, glaze=True))
    fierce = (HeatStage("oven", "core"), HeatStage("broiler", "time", 900.0, glaze=True))
    assert _remark("glaze-burns", keepers_loaf(), SetStages(mild)) is None
    hot = kitchen_with("fan-oven", broiler_c=650.0)
    burnt = _remark("glaze-burns", keepers_loaf(), SetStages(fierce), kitchen=hot)
    assert burnt is not None
    assert burnt.title.amounts["at"].value > 0


def test_a_short_loaf_cooks_from_its_ends_and_a_long_one_does_not() -> None:
    short = _remark("short-loaf", keepers_loaf())
    assert short is not None
    assert short.title.amounts["length"].value < SHORT_LOAF_MM
    assert _remark("short-loaf", keepers_loaf(), SetFigure("piece_mass", 2500.0)) is None
    assert _remark("short-loaf", slipway_smash()) is None


def test_what_simmers_is_told_when_its_core_is_there() -> None:
    simmered = _remark("tender", night_watch_balls())
    assert simmered is not None
    assert 30 < simmered.title.amounts["took"].value < 900
    assert _remark("tender", edited(night_watch_balls(), Choose("style", "ball-baked"))) is None


@pytest.mark.parametrize(("oven_c", "slow"), [(55.0, True), (70.0, False), (175.0, False)])
def test_a_loaf_that_warms_for_more_than_six_hours_is_told(oven_c: float, slow: bool) -> None:
    """5 to 57 °C in the coldest meat within 6 h (USDA FSIS, come-up time; from memory)."""
    stages = (HeatStage("oven", "time", 5 * 3600.0, temp_c=oven_c), HeatStage("oven", "core", temp_c=oven_c))
    heavy = (SetFigure("piece_mass", 3000.0), SetStages(stages))
    found = _remark("warms-slowly", keepers_loaf(), *heavy)
    assert (found is not None) is slow
    if found is not None:
        assert (found.title.amounts["time"].value or 0) > 6 * 3600
