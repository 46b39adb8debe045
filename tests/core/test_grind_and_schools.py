from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import blended, smash
from vianda.core.basis.errors import InfeasibleBlendError, UnknownItemError, UnreadableEntryError
from vianda.core.blend.grind import GrindPlan
from vianda.core.blend.schools import all_schools, follow, school_of
from vianda.core.blend.taste import propose
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate, sheets
from vianda.core.inventory.inventory import Inventory
from vianda.core.model import edit as e
from vianda.core.model.formula import BlendPart, Formula, Grind


def _plan(inventory: Inventory, kitchen: Kitchen, formula: Formula) -> GrindPlan:
    return evaluate(formula, inventory=inventory, kitchen=kitchen).grind


def test_sinewy_meat_goes_fine_and_twice(inventory: Inventory, kitchen: Kitchen) -> None:
    loose = _plan(inventory, kitchen, smash(parts=blended(chuck=0.71, shank=0.29)))
    sinewy = _plan(inventory, kitchen, smash(parts=blended(chuck=0.70, shank=0.30)))
    assert (loose.plate_mm, loose.passes) == (4.5, 1)
    assert (sinewy.plate_mm, sinewy.passes) == (3.0, 2)


def test_ground_meat_is_not_ground_again(inventory: Inventory, kitchen: Kitchen) -> None:
    plan = _plan(inventory, kitchen, smash(parts=blended(ground_80=1.0)))
    assert (plan.ground_mass_g, plan.loads, plan.loss_frac, plan.tool_kind) == (0, 0, 0.0, "none")
    assert any("ground already" in s.text for s in plan.steps)


@pytest.mark.parametrize(("tool", "loads"), [("mincer", 2), ("processor", 7), ("knife", 6)])
def test_loads_cover_the_batch_on_the_tool_chosen(
    inventory: Inventory, kitchen: Kitchen, tool: str, loads: int
) -> None:
    formula = replace(smash(), grind=Grind(tool=tool))
    plan = _plan(inventory, kitchen, formula)
    assert plan.loads == loads
    assert plan.loads * kitchen.grinder(tool).load_g >= plan.ground_mass_g


def test_each_way_of_keeping_says_what_it_costs(inventory: Inventory, kitchen: Kitchen) -> None:
    texts = {
        keep: " ".join(p.text for p in _plan(inventory, kitchen, replace(smash(), grind=Grind(keep=keep))).keeping)
        for keep in ("fresh", "made-ahead", "frozen")
    }
    assert "1 to 2 days" in texts["fresh"]
    assert "Salt only when it cooks" in texts["made-ahead"]
    assert "Thaw in the cold" in texts["frozen"]
    assert all("Wash grinder" in text for text in texts.values())


@pytest.mark.parametrize("services", [1, 3, 12])
def test_a_week_is_pieces_by_weight_by_services(inventory: Inventory, kitchen: Kitchen, services: int) -> None:
    slip = sheets(replace(smash(), grind=Grind(services_per_week=services)), inventory=inventory, kitchen=kitchen).slip
    assert slip.week_mass_g == pytest.approx(40 * 85 * services)
    assert slip.week_pieces == 40 * services
    assert sum(line.trimmed_g for line in slip.lines) > slip.batch_mass_g


@pytest.mark.parametrize("key", all_schools())
def test_a_school_fills_a_sensible_start_from_the_larder(inventory: Inventory, kitchen: Kitchen, key: str) -> None:
    formula = apply_edit(smash(), e.Choose("school", key), inventory=inventory, kitchen=kitchen)
    assert sum(p.share_frac for p in formula.parts) == pytest.approx(1.0)
    assert school_of(key).why
    # All are burgers to eat: none is as lean as to be dry, none beyond what a style takes.
    assert 0.14 <= evaluate(formula, inventory=inventory, kitchen=kitchen).blend.fat_frac <= 0.31


@given(st.sampled_from(sorted(all_schools())), st.floats(0.05, 0.9))
def test_what_is_locked_stays_when_the_school_changes(key: str, share: float) -> None:
    from vianda.core.inventory.inventory import starter_inventory

    parts = (BlendPart("flank", share, locked=True), BlendPart("chuck", 1 - share))
    after = follow(school_of(key), parts, inventory=starter_inventory())
    assert after[0] == parts[0]
    assert sum(p.share_frac for p in after) == pytest.approx(1.0)


def test_a_blend_that_is_all_locked_follows_no_school(inventory: Inventory) -> None:
    with pytest.raises(InfeasibleBlendError, match="unlock"):
        follow(school_of("all-chuck"), (BlendPart("rib", 1.0, locked=True),), inventory=inventory)
    with pytest.raises(UnknownItemError, match="known are"):
        school_of("none such")


def test_words_of_taste_become_a_school_a_style_and_an_aim() -> None:
    rich, lean = propose("rich, loose, crusty"), propose("lean and crusty")
    assert (rich.school, rich.style) == ("chuck-and-partner", "smashed")
    assert len(rich.reasons) == 3
    assert lean.fat_aim_frac < rich.fat_aim_frac
    assert propose("thick and beefy").style == "thick"
    assert propose("smoky frumious").unread == ("frumious",)


def test_a_burger_that_is_remembered_asks_what_it_was_like() -> None:
    proposal = propose("like the one I remember")
    assert len(proposal.asks) == 3
    assert proposal.reasons
    with pytest.raises(UnreadableEntryError, match="how it should eat"):
        propose("xyzzy")


def test_a_whole_blend_is_laid_out_and_keeps_locks_of_what_stays(inventory: Inventory, kitchen: Kitchen) -> None:
    start = apply_edit(smash(), e.LockMeat("chuck", True), inventory=inventory, kitchen=kitchen)
    laid = apply_edit(start, e.LayOut(("chuck", "rib"), (0.4, 0.6)), inventory=inventory, kitchen=kitchen)
    assert [(p.meat, p.share_frac, p.locked) for p in laid.parts] == [("chuck", 0.4, True), ("rib", 0.6, False)]
    with pytest.raises(InfeasibleBlendError, match="90 %"):
        apply_edit(start, e.LayOut(("chuck", "rib"), (0.4, 0.5)), inventory=inventory, kitchen=kitchen)
