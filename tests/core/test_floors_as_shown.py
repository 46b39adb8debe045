"""The floor as a cook reads it: the figure on the screen counts, and each country's own lines only.

Floors and holds: USDA FSIS, FDA Food Code 2022 3-401.11, Health Canada, UK FSA; all from memory, high confidence.
"""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import smash
from vianda.core.basis.units import c_from_f
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.heat.floor import FOOD_CODE, USDA_GROUND, Floor, floors_for, shown_c, target_meant
from vianda.core.heat.holds import hold_tables, holds_of
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.edit import SetFigure
from vianda.core.model.formula import Formula

INVENTORY = starter_inventory()
PLACES = [("US", "home"), ("US", "food-service"), ("CA", "home"), ("UK", "food-service"), ("other", "home")]
FLOORS = [
    floors_for(country=c, setting=s, poultry=p).leading  # type: ignore[arg-type]
    for c, s in PLACES
    for p in (False, True)
]

pytestmark = pytest.mark.usefixtures("by_practice")


def _judged(target_c: float, country: str, setting: str, units: str = "metric") -> Evaluation:
    kitchen = replace(yard_galley(), country=country, setting=setting, unit_system=units)
    return evaluate(smash(target_core_temp_c=target_c), inventory=INVENTORY, kitchen=kitchen)


def _said(evaluation: Evaluation, key: str) -> str | None:
    found = next((c for c in evaluation.counsel if c.rule == key), None)
    return None if found is None else found.title.text


@pytest.mark.parametrize(
    ("country", "setting", "units", "typed", "below"),
    [
        # 155 °F is 68.33 °C, shown as 68.3.
        ("US", "food-service", "metric", 68.3, False),
        ("US", "food-service", "metric", 68.2, True),
        ("US", "food-service", "us", c_from_f(155), False),
        ("US", "food-service", "us", c_from_f(154), True),
        # 160 °F is 71.11 °C, shown as 71.1.
        ("US", "home", "metric", 71.1, False),
        ("US", "home", "metric", 71.0, True),
        ("CA", "home", "metric", 71.0, False),
        ("CA", "home", "metric", 70.9, True),
        # 71 °C is 159.8 °F, shown as 160.
        ("CA", "home", "us", c_from_f(160), False),
        ("CA", "home", "us", c_from_f(159), True),
        ("UK", "food-service", "metric", 70.0, False),
        ("UK", "food-service", "metric", 69.9, True),
        ("UK", "food-service", "us", c_from_f(158), False),
        ("UK", "food-service", "us", c_from_f(157), True),
    ],
)
def test_the_figure_on_the_screen_meets_the_floor_and_one_step_less_does_not(
    country: str, setting: str, units: str, typed: float, below: bool
) -> None:
    judged = _judged(typed, country, setting, units)
    assert (_said(judged, "heat.below-floor") is not None) == below
    # What is asked of the heat is the whole floor, not the rounded figure.
    floor = judged.heat.floors.leading.temp_c
    assert (judged.heat.target_c < floor) == below
    assert judged.heat.below_floor == below


@given(st.sampled_from(FLOORS), st.floats(-3, 3), st.sampled_from(["metric", "us"]))
def test_a_target_is_never_lowered_and_a_gap_is_never_shown_as_nothing(floor: Floor, off: float, units: str) -> None:
    kept = floor.temp_c + off
    meant = target_meant(kept, floor, unit_system=units)  # type: ignore[arg-type]
    assert meant >= kept
    assert meant in (kept, floor.temp_c)
    if meant < floor.temp_c:
        gap = shown_c(floor.temp_c, unit_system=units) - shown_c(meant, unit_system=units)  # type: ignore[arg-type]
        assert gap > (0.5 if units == "us" else 0.09)


def _with_change(evaluation: Evaluation, key: str, formula: Formula, country: str, setting: str) -> Evaluation:
    counsel = next(c for c in evaluation.counsel if c.rule == key)
    kitchen = replace(yard_galley(), country=country, setting=setting)
    (change,) = counsel.changes
    assert isinstance(change.edit, SetFigure)
    changed = apply_edit(formula, change.edit, inventory=INVENTORY, kitchen=kitchen)
    return evaluate(changed, inventory=INVENTORY, kitchen=kitchen)


@pytest.mark.parametrize(
    ("country", "setting", "target", "hold_s"),
    [
        ("US", "food-service", 68.4, 17),
        ("US", "food-service", 69.9, 17),
        ("US", "food-service", 70.0, None),
        ("UK", "food-service", 70.0, 120),
        ("UK", "food-service", 74.9, 120),
        ("UK", "food-service", 75.0, 30),
        ("UK", "food-service", 79.9, 30),
        ("UK", "food-service", 80.0, 6),
        ("US", "home", 71.2, None),
        ("CA", "home", 71.0, None),
    ],
)
def test_the_hold_is_the_kitchens_own_tables(country: str, setting: str, target: float, hold_s: float | None) -> None:
    judged = _judged(target, country, setting)
    found = next((c for c in judged.counsel if c.rule == "heat.hold-needed"), None)
    if hold_s is None:
        assert found is None
        return
    assert found is not None
    assert found.title.amounts["time"].value == hold_s
    own = {round(h.temp_c, 3) for h in holds_of(judged.heat.floors.leading)}
    named = [a.value for part in (found.title, found.reason) for a in part.amounts.values() if a.kind == "temp_c"]
    assert {round(t, 3) for t in named} <= own


@pytest.mark.parametrize(("country", "setting", "target"), [("US", "food-service", 69.0), ("UK", "food-service", 71.0)])
def test_after_its_change_the_note_is_true(country: str, setting: str, target: float) -> None:
    before = _judged(target, country, setting)
    after = _with_change(before, "heat.hold-needed", smash(target_core_temp_c=target), country, setting)
    found = next((c for c in after.counsel if c.rule == "heat.hold-needed"), None)
    if country == "US":
        assert found is None
    else:
        assert found is not None
        assert (found.title.amounts["t"].value, found.title.amounts["time"].value) == (75.0, 30.0)
        assert not found.changes


def test_the_floors_stand_in_the_tables_they_come_from() -> None:
    tables = {t.key: t for t in hold_tables()}
    assert min((h.temp_c for h in tables["food-code"].holds if h.time_s == 0), default=0) == pytest.approx(70.0)
    assert any(h.temp_c == FOOD_CODE.temp_c and h.time_s == FOOD_CODE.hold_s for h in tables["food-code"].holds)
    assert pytest.approx(71.111, abs=1e-3) == USDA_GROUND.temp_c
