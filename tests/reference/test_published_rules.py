"""Published law and advice: 9 CFR 319.15, FDA Food Code 3-401.11, 9 CFR 318.23, USDA, Canada, UK.

The texts are from memory (high confidence unless said); the tables stand in src/vianda/core/data.
"""

from __future__ import annotations

import csv
from importlib.resources import files

import pytest

from formulas import blended
from vianda.core.blend import blend_figures
from vianda.core.heat import floor
from vianda.core.label_names import label_names
from vianda.core.larder import starter_larder
from vianda.core.units import c_from_f


def _table(name: str) -> list[dict[str, str]]:
    text = (files("vianda.core") / "data" / name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


def _names(parts) -> dict[str, bool]:
    blend = blend_figures(parts, larder=starter_larder(), batch_mass_g=1000, step_g=1)
    return {n.name: n.allowed for n in label_names(blend, rule="US")}


def test_thirty_per_cent_fat_is_still_ground_beef_and_more_is_not() -> None:
    # 9 CFR 319.15(a) and (b): "shall not contain more than 30 percent fat".
    assert _names(blended(ground_70=1.0)) == {"ground beef": True, "hamburger": True}
    over = blended(ground_70=0.99, fat_trim=0.01)
    assert _names(over) == {"ground beef": False, "hamburger": False}


def test_beef_fat_may_be_added_to_hamburger_only() -> None:
    assert _names(blended(chuck=0.95, suet=0.05)) == {"ground beef": False, "hamburger": True}


def test_another_species_takes_both_names() -> None:
    assert _names(blended(chuck=0.99, pork_shoulder=0.01)) == {"ground beef": False, "hamburger": False}


def test_consumer_lines_in_fahrenheit() -> None:
    # USDA: 160 °F ground beef, pork, veal, lamb; 165 °F poultry. US rules are kept in °F and converted exactly.
    assert c_from_f(160) == floor.USDA_GROUND.temp_c
    assert c_from_f(165) == floor.USDA_POULTRY.temp_c
    assert floor.USDA_GROUND.temp_c == pytest.approx(71.1, abs=0.05)


def test_food_code_floor_is_a_pair_of_the_table() -> None:
    pairs = {(int(r["temp_f"]), int(r["seconds"])) for r in _table("food_code_comminuted.csv")}
    assert (155, floor.FOOD_CODE.hold_s) in pairs
    assert c_from_f(155) == floor.FOOD_CODE.temp_c


def test_food_code_celsius_column_is_the_rules_own_rounding() -> None:
    # The Code prints whole °C beside °F: 63/145, 66/150, 68/155, 70/158. Each is within 0.5 °C.
    for row in _table("food_code_comminuted.csv"):
        assert float(row["temp_c"]) == pytest.approx(c_from_f(float(row["temp_f"])), abs=0.5)


def test_patty_holds_fall_as_temperature_rises() -> None:
    # 9 CFR 318.23 (medium confidence at 157 and 158 °F).
    rows = _table("patties_9cfr_318_23.csv")
    assert [int(r["temp_f"]) for r in rows] == list(range(151, 159))
    seconds = [int(r["seconds"]) for r in rows]
    assert seconds == sorted(seconds, reverse=True)
    assert seconds[0] == 41


def test_the_food_code_pair_is_at_least_as_long_as_the_patty_rule_at_the_same_temperature() -> None:
    # Two independent rules at 155 °F: 17 s and 16 s.
    at155 = next(int(r["seconds"]) for r in _table("patties_9cfr_318_23.csv") if r["temp_f"] == "155")
    assert floor.FOOD_CODE.hold_s - at155 == 1


def test_canada_and_the_united_kingdom() -> None:
    assert (floor.CANADA_GROUND.temp_c, floor.CANADA_POULTRY.temp_c) == (71.0, 74.0)
    assert (floor.UK_FSA.temp_c, floor.UK_FSA.hold_s) == (70.0, 120)
