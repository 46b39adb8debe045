from __future__ import annotations

import pytest
from hypothesis import given, reject
from hypothesis import strategies as st

from formulas import blended, smash
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.units import c_from_f
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate, sheets
from vianda.core.heat.doneness import doneness_at, target_for
from vianda.core.heat.floor import floors_for
from vianda.core.heat.practice import first_side_s
from vianda.core.inventory.inventory import Inventory
from vianda.core.model.styles import all_styles, style_of
from vianda.core.pipeline.compute import prepare


@pytest.mark.parametrize(
    ("country", "setting", "poultry", "key"),
    [
        ("US", "home", False, "usda-ground"),
        ("US", "food-service", False, "food-code"),
        ("US", "home", True, "usda-poultry"),
        ("US", "food-service", True, "food-code-poultry"),
        ("CA", "home", False, "canada-ground"),
        ("CA", "food-service", True, "canada-poultry"),
        ("UK", "food-service", False, "uk-fsa"),
        ("other", "home", False, "usda-ground"),
    ],
)
def test_country_and_setting_decide_which_floor_leads(country: str, setting: str, poultry: bool, key: str) -> None:
    choice = floors_for(country=country, setting=setting, poultry=poultry)
    assert choice.leading.key == key
    assert key not in [o.key for o in choice.others]
    assert len(choice.others) == 3


def test_a_bird_in_the_blend_raises_the_floor_of_the_whole(inventory: Inventory, kitchen: Kitchen) -> None:
    plain = evaluate(smash(), inventory=inventory, kitchen=kitchen)
    mixed = evaluate(smash(parts=blended(chuck=0.9, turkey_ground=0.1)), inventory=inventory, kitchen=kitchen)
    assert mixed.heat.floors.leading.temp_c > plain.heat.floors.leading.temp_c
    assert "poultry" in mixed.heat.floors.why


@pytest.mark.parametrize(
    ("core", "name"),
    [
        (48.9, "raw"),
        (49, "rare"),
        (54, "medium-rare"),
        (58, "medium"),
        (64, "medium-well"),
        (71, "well-done"),
        (90, "well-done"),
    ],
)
def test_doneness_bands_meet(core: float, name: str) -> None:
    assert doneness_at(core) == name


def test_well_done_never_aims_below_the_leading_floor() -> None:
    assert target_for("well-done", floor_c=73.9) == 73.9
    assert target_for("well-done", floor_c=68.3) == c_from_f(160)


def test_smash_minutes_are_those_of_the_table() -> None:
    # Common practice, no published source: ¾–1½ min at 5 mm, 1½–2½ at 8 mm.
    smashed = style_of("smashed")
    at5, at8 = first_side_s(smashed, thickness_mm=5), first_side_s(smashed, thickness_mm=8)
    assert (at5.low, at5.high, at8.low, at8.high) == (45, 90, 90, 150)


@given(st.sampled_from(sorted(all_styles())), st.floats(4, 40), st.floats(0.1, 10))
def test_thicker_never_takes_less_time(key: str, thickness: float, more: float) -> None:
    try:
        thin = first_side_s(style_of(key), thickness_mm=thickness)
    except OutOfRangeError:
        reject()
    thick = first_side_s(style_of(key), thickness_mm=thickness + more)
    assert thick.low >= thin.low - 1e-9
    assert thick.high >= thin.high - 1e-9


def test_the_table_refuses_what_it_does_not_reach() -> None:
    with pytest.raises(OutOfRangeError, match="2 mm"):
        first_side_s(style_of("smashed"), thickness_mm=2)


def test_pull_takes_the_low_end_of_carry_over(inventory: Inventory, kitchen: Kitchen) -> None:
    heat = prepare(
        smash(style="thick", thickness_mm=28, piece_mass_g=225), inventory=inventory, kitchen=kitchen
    ).case.usual
    assert heat.pull_c == pytest.approx(heat.target_c - heat.carry_over_k.low)


@pytest.mark.parametrize(
    ("changes", "reach"),
    [
        ({}, "usually"),
        ({"surface_temp_c": 150}, "may-fall-short"),
        ({"style": "grilled", "thickness_mm": 16, "piece_mass_g": 140}, "usually"),
        ({"style": "grilled", "thickness_mm": 17, "piece_mass_g": 140}, "may-fall-short"),
        ({"style": "thick", "thickness_mm": 28, "piece_mass_g": 225}, "thermometer-decides"),
    ],
)
def test_habit_says_when_it_may_fall_short(inventory: Inventory, kitchen: Kitchen, changes: dict, reach: str) -> None:
    assert prepare(smash(**changes), inventory=inventory, kitchen=kitchen).case.usual.reach == reach


def test_every_wave_is_timed_and_the_last_holds_the_rest(inventory: Inventory, kitchen: Kitchen) -> None:
    stove = sheets(smash(guests=21), inventory=inventory, kitchen=kitchen).stove
    assert stove.at_once * (stove.waves - 1) + stove.last_wave == 42
    assert all(step.timer_s > 0 for step in stove.each_wave if step.kind != "lay")


def test_a_piece_wider_than_its_pan_is_refused(inventory: Inventory, kitchen: Kitchen) -> None:
    with pytest.raises(OutOfRangeError, match="wider than Iron pan"):
        evaluate(smash(surface="iron-pan", piece_mass_g=900, thickness_mm=5), inventory=inventory, kitchen=kitchen)
