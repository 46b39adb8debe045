"""Published law and advice: 9 CFR 319.15, FDA Food Code 3-401.11, 9 CFR 318.23, USDA, Canada, UK.

The texts are from memory (high confidence unless said); the tables stand in src/vianda/core/data.
"""

from __future__ import annotations

import csv
from importlib.resources import files

import pytest

from formulas import blended
from vianda.core.basis.units import c_from_f
from vianda.core.blend.blend import blend_fats, blend_figures, blend_meats, blend_spread
from vianda.core.blend.connective import collagen_figures
from vianda.core.blend.label_names import label_names
from vianda.core.heat import floor
from vianda.core.inventory.inventory import starter_inventory


def _table(name: str) -> list[dict[str, str]]:
    text = (files("vianda.core.heat") / "data" / name).read_text(encoding="utf-8")
    return list(csv.DictReader(text.splitlines()))


def _judged(parts, rule: str):
    inventory = starter_inventory()
    spread = blend_spread(parts, inventory=inventory)
    blend = blend_figures(
        parts, inventory=inventory, batch_mass_g=1000, step_g=1, band_frac=(0.18, 0.25), spread=spread
    )
    collagen = collagen_figures(
        [p.share_frac for p in parts], blend_meats(parts, inventory=inventory), blend_fats(parts, inventory=inventory)
    )
    return label_names(blend, spread=spread, collagen=collagen, rule=rule)


def _names(parts, rule: str = "US") -> dict[str, bool]:
    return {n.name: n.allowed for n in _judged(parts, rule)}


def test_thirty_per_cent_fat_is_still_ground_beef_and_more_is_not() -> None:
    # 9 CFR 319.15(a) and (b): "shall not contain more than 30 percent fat". Beef patties, (c), have no such limit.
    assert _names(blended(ground_70=1.0)) == {"ground beef": True, "hamburger": True, "beef patties": True}
    over = blended(ground_70=0.99, fat_trim=0.01)
    assert _names(over) == {"ground beef": False, "hamburger": False, "beef patties": True}


def test_beef_fat_may_be_added_to_hamburger_only() -> None:
    assert _names(blended(chuck=0.95, suet=0.05)) == {"ground beef": False, "hamburger": True, "beef patties": True}
    # Boneless trimmings are beef, not fat added as such.
    assert _names(blended(chuck=0.8, trim_50=0.2))["ground beef"]


def test_another_species_takes_every_us_name() -> None:
    assert not any(_names(blended(chuck=0.99, pork_shoulder=0.01)).values())


def test_cheek_over_a_quarter_must_be_declared() -> None:
    assert _names(blended(chuck=0.75, cheek=0.25))["hamburger"]
    assert not _names(blended(chuck=0.74, cheek=0.26))["hamburger"]


def test_limits_of_the_european_union() -> None:
    # Regulation (EU) 1169/2011, Annex VI part B: fat and collagen/meat protein, per cent.
    limits = {
        n.name: [round(t.limit_frac * 100) for t in n.tests]
        for parts in (blended(chuck=1.0), blended(chuck=0.5, pork_shoulder=0.5), blended(lamb_ground=1.0))
        for n in _judged(parts, "EU")
    }
    assert limits == {
        "lean minced meat": [7, 12],
        "minced pure beef": [20, 15],
        "minced meat of other species": [25, 15],
        "minced meat containing pigmeat": [30, 18],
    }
    assert _names(blended(ground_80=1.0), "EU")["minced pure beef"]
    assert not _names(blended(ground_75=1.0), "EU")["minced pure beef"]
    # Shank is lean enough and too sinewy.
    shank = next(n for n in _judged(blended(shank=1.0), "EU") if n.name == "minced pure beef")
    assert shank.bar == "collagen"


def test_grades_of_canada() -> None:
    # Food and Drug Regulations: extra lean 10, lean 17, medium 23, regular 30 per cent fat at most.
    for parts, best in (
        (blended(ground_90=1.0), "extra lean ground beef"),
        (blended(ground_85=1.0), "lean ground beef"),
        (blended(ground_80=1.0), "medium ground beef"),
        (blended(ground_70=1.0), "regular ground beef"),
    ):
        assert next(n for n, allowed in _names(parts, "CA").items() if allowed) == best


def test_a_beefburger_in_the_united_kingdom_is_62_per_cent_beef() -> None:
    assert _names(blended(chuck=0.62, pork_shoulder=0.38), "UK")["beefburger"]
    assert not _names(blended(chuck=0.61, pork_shoulder=0.39), "UK")["beefburger"]


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
    # 9 CFR 318.23(b), from memory: 151 °F for 41 s … 156 °F for 13 s, "157 °F (and up)" for 10 s: its last row.
    rows = _table("patties_9cfr_318_23.csv")
    assert [int(r["temp_f"]) for r in rows] == list(range(151, 158))
    assert (rows[-1]["temp_f"], rows[-1]["seconds"]) == ("157", "10")
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
