"""Every working ends in the figure it explains, whatever the formula."""

from __future__ import annotations

from types import SimpleNamespace

import pytest
from hypothesis import given, reject, settings
from hypothesis import strategies as st

from formulas import smash, whole
from vianda.core.basis.errors import CoreError
from vianda.core.basis.phrase import Amount
from vianda.core.blend.schools import all_schools
from vianda.core.demo.formulas import DEMO_FORMULAS
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import NamingRule
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model import edit as e
from vianda.core.model.formula import Formula
from vianda.core.model.styles import all_styles

INVENTORY, KITCHEN = starter_inventory(), yard_galley()


def _evaluated(formula: Formula) -> SimpleNamespace:
    return whole(formula, inventory=INVENTORY, kitchen=KITCHEN)


def _amounts(evaluation: SimpleNamespace, working: str) -> list[Amount]:
    return [a for step in evaluation.workings[working].steps for a in step.amounts.values()]


def _has(amounts: list[Amount], kind: str, value: float) -> bool:
    return any(a.kind == kind and a.value == pytest.approx(value) for a in amounts)


FORMULAS = st.builds(
    lambda style, school, guests: (style, school, guests),
    st.sampled_from(sorted(all_styles())),
    st.sampled_from(sorted(all_schools())),
    st.integers(1, 120),
)


def _formula(choice: tuple[str, str, int]) -> Formula:
    formula = smash()
    try:
        for edit in (e.Choose("style", choice[0]), e.Choose("school", choice[1]), e.SetFigure("guests", choice[2])):
            formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
        _evaluated(formula)
    except CoreError:
        reject()
    return formula


@given(FORMULAS)
@settings(max_examples=60)
def test_the_figure_stands_in_its_own_working(choice: tuple[str, str, int]) -> None:
    formula = _formula(choice)
    v = _evaluated(formula)
    assert _has(_amounts(v, "lean_to_fat"), "lean_to_fat", v.blend.fat_frac)
    assert _has(_amounts(v, "pieces"), "mass_g", v.portions.batch_mass_g)
    assert _has(_amounts(v, "cooked_mass"), "mass_g", v.shape.cooked_mass_g.usual)
    if v.shape.form != "crumbled":
        assert _has(_amounts(v, "diameter"), "length_mm", v.shape.raw_diameter_mm)
    assert _has(_amounts(v, "core"), "temp_c", v.heat.pull_c)
    assert _has(_amounts(v, "minutes"), "time_s", v.heat.on_heat_s.low)
    assert _has(_amounts(v, "salt"), "mass_g", v.salt.batch_salt_g)
    assert _has(_amounts(v, "cost"), "money", float(v.cost.portion_cost))
    assert _has(_amounts(v, "waves"), "count", v.stove.waves)
    assert _has(_amounts(v, "chances"), "frac", v.blend.chance_in_band)
    for part, line in zip(v.blend.parts, v.cost.parts, strict=True):
        assert _has(_amounts(v, "part_masses"), "mass_g", part.mass_g)
        assert _has(_amounts(v, "cost"), "price_per_kg", float(line.price_per_kg_used))


@given(FORMULAS)
@settings(max_examples=40)
def test_the_arithmetic_shown_adds_up(choice: tuple[str, str, int]) -> None:
    formula = _formula(choice)
    v = _evaluated(formula)
    points = [s.amounts["points"].value for s in v.workings["lean_to_fat"].steps if "points" in s.amounts]
    assert sum(points) == pytest.approx(v.blend.fat_frac)
    costs = [s.amounts["cost"].value for s in v.workings["cost"].steps if "used" in s.amounts]
    assert sum(costs) == pytest.approx(float(v.cost.meat_cost))


@pytest.mark.parametrize("rule", ["US", "EU", "CA", "UK", "none"])
def test_every_name_stands_in_the_working_with_its_source(rule: NamingRule) -> None:
    from dataclasses import replace

    v = whole(smash(), inventory=INVENTORY, kitchen=replace(KITCHEN, naming_rule=rule))
    texts = [a.text for a in _amounts(v, "names")]
    assert all(n.name in texts for n in v.names)
    assert (v.names == ()) is (rule == "none")
    assert "local rules decide" in v.workings["names"].source


@pytest.mark.parametrize("make", DEMO_FORMULAS)
def test_every_working_names_a_source(make) -> None:
    for working in _evaluated(make()).workings.values():
        assert working.title
        assert working.steps
        assert len(working.source) > 10
