from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from formulas import blended, lines, mixed
from vianda.core.batch.lines import entering
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.mix.schools import BAND_GROUPS, follow_mix, group_amounts, mix_schools, resembles, schools_for
from vianda.core.model import edit as e
from vianda.core.model.formula import Formula, MixLine
from vianda.core.model.styles import styles_for

DISHES = ("burger", "meatball", "meatloaf", "sauce")
INVENTORY = starter_inventory()


def _on(dish: str, formula: Formula | None = None) -> Formula:
    return formula or mixed(style=styles_for(dish)[0].key)


def _resembles(formula: Formula):
    return resembles(
        formula.dish.dish,
        entering(formula.mix.lines, pantry=INVENTORY.pantry),
        place=formula.seasoning.salt_place,
        parts=formula.parts,
        inventory=INVENTORY,
    )


@pytest.mark.parametrize("key", sorted(mix_schools()))
def test_a_mix_moved_to_a_school_resembles_it_wholly(key: str) -> None:
    school = mix_schools()[key]
    for dish in school.dishes:
        found = _resembles(follow_mix(_on(dish), school, inventory=INVENTORY))
        assert (found.nearest, found.exact) == (key, True)


@pytest.mark.parametrize("key", sorted(mix_schools()))
def test_moving_twice_changes_nothing_more(key: str) -> None:
    school = mix_schools()[key]
    once = follow_mix(_on(school.dishes[0]), school, inventory=INVENTORY)
    assert follow_mix(once, school, inventory=INVENTORY) == once


def _with_group(school_key: str, group: str, per: float) -> Formula:
    school = mix_schools()[school_key]
    formula = follow_mix(_on(school.dishes[0]), school, inventory=INVENTORY)
    return apply_edit(formula, e.SetFigure("group", per, item=group), inventory=INVENTORY, kitchen=yard_galley())


# Every band of every school, at both its edges and a hair outside.
EDGES = [(s.key, group, at) for s in mix_schools().values() for group in s.bands for at in (0, 1)]


@pytest.mark.parametrize(("key", "group", "at"), EDGES)
def test_at_the_edge_of_a_band_a_mix_is_still_in_it(key: str, group: str, at: int) -> None:
    school = mix_schools()[key]
    edge = school.band(group)[at]
    likeness = next(x for x in _resembles(_with_group(key, group, edge)).all if x.key == key)
    assert likeness.misfits == ()
    outside = edge + (1e-4 if at else -1e-4)
    if outside >= 0:
        likeness = next(x for x in _resembles(_with_group(key, group, outside)).all if x.key == key)
        assert [m.group for m in likeness.misfits] == [group]
        assert likeness.distance > 0


@given(
    st.sampled_from(DISHES),
    st.dictionaries(
        st.sampled_from(["panko", "milk", "egg", "parmesan", "onion", "fresh-crumbs", "egg-white", "tomatoes", "rice"]),
        st.floats(0, 1.5),
        max_size=6,
    ),
)
def test_the_same_mix_always_gets_the_same_answer_and_the_nearest_leads(dish: str, amounts: dict[str, float]) -> None:
    formula = mixed(style=styles_for(dish)[0].key, lines=tuple(MixLine(k, v) for k, v in amounts.items()))
    backwards = replace(formula, mix=replace(formula.mix, lines=formula.mix.lines[::-1]))
    one, two = _resembles(formula), _resembles(backwards)
    assert [x.key for x in one.all] == [x.key for x in two.all]
    # Float dust is no distance: schools that far apart tie, and go by the centres of their bands.
    distances = [round(x.distance, 9) for x in one.all]
    assert distances == sorted(distances)
    assert {x.key for x in one.all} == {s.key for s in schools_for(dish)}
    assert (one.nearest == "") is (distances[0] > 4.0)


def test_a_locked_line_stays_and_the_school_makes_room_for_it(inventory: Inventory, kitchen: Kitchen) -> None:
    formula = mixed(style="loaf-free", lines=(MixLine("egg", 0.06, locked=True), *lines(dry_crumbs=9, ketchup=5)))
    moved = apply_edit(formula, e.Choose("mix_school", "firm-panade-loaf"), inventory=inventory, kitchen=kitchen)
    by_key = {line.ingredient: line for line in moved.mix.lines}
    assert by_key["egg"] == MixLine("egg", 0.06, locked=True)
    assert "dry-crumbs" not in by_key
    assert by_key["panko"].per_meat_frac == pytest.approx(0.08)


def test_a_locked_crumb_leaves_the_rest_of_its_group_to_the_school() -> None:
    formula = mixed(style="loaf-free", lines=(MixLine("dry-crumbs", 0.05, locked=True),))
    moved = follow_mix(formula, mix_schools()["firm-panade-loaf"], inventory=INVENTORY)
    crumb = group_amounts(entering(moved.mix.lines, pantry=INVENTORY.pantry))["crumb"]
    assert crumb == pytest.approx(0.08)
    heavy = replace(formula, mix=replace(formula.mix, lines=(MixLine("dry-crumbs", 0.12, locked=True),)))
    moved = follow_mix(heavy, mix_schools()["firm-panade-loaf"], inventory=INVENTORY)
    assert [x.ingredient for x in moved.mix.lines if x.ingredient in ("panko", "dry-crumbs")] == ["dry-crumbs"]


def test_a_seasoning_of_ones_own_survives_a_move_but_not_a_cleared_bowl() -> None:
    formula = mixed(style="loaf-free", lines=lines(dry_crumbs=9, egg=8, paprika=1))
    loaf = follow_mix(formula, mix_schools()["fresh-bread-loaf"], inventory=INVENTORY)
    assert any(x.ingredient == "paprika" for x in loaf.mix.lines)
    burger = follow_mix(mixed(style="smashed", lines=lines(paprika=1)), mix_schools()["purist"], inventory=INVENTORY)
    assert burger.mix.lines == ()


def test_a_beef_only_ball_is_further_from_the_school_of_mixed_meats() -> None:
    formula = follow_mix(_on("meatball"), mix_schools()["soft-paste-ball"], inventory=INVENTORY)
    beef = replace(formula, parts=blended(chuck=1.0))
    assert _resembles(formula).exact
    assert not _resembles(beef).exact


@settings(max_examples=60)
@given(st.sampled_from(BAND_GROUPS), st.floats(0, 2), st.booleans())
def test_a_group_is_moved_to_what_was_asked_and_keeps_its_parts(group: str, wanted: float, locked: bool) -> None:
    start = lines(panko=4, dry_crumbs=2, milk=6, water=3, egg=5, yolk=1, parmesan=4, soft_onion=6)
    formula = mixed(
        style="loaf-free", lines=tuple(replace(x, locked=locked and x.ingredient == "panko") for x in start)
    )
    moved = apply_edit(
        formula, e.SetFigure("group", max(wanted, 0.04), item=group), inventory=INVENTORY, kitchen=yard_galley()
    )
    after = group_amounts(entering(moved.mix.lines, pantry=INVENTORY.pantry))
    assert after[group] == pytest.approx(max(wanted, 0.04))
    before = group_amounts(entering(formula.mix.lines, pantry=INVENTORY.pantry))
    for other in BAND_GROUPS:
        if other != group:
            assert after[other] == pytest.approx(before[other])
    by_key = {x.ingredient: x.per_meat_frac for x in moved.mix.lines}
    if group == "liquid":
        assert by_key["milk"] == pytest.approx(2 * by_key["water"])
    if locked and group == "crumb":
        assert by_key["panko"] == 0.04


def test_what_a_school_starts_with_gets_no_counsel_on_the_mix(inventory: Inventory, kitchen: Kitchen) -> None:
    for dish in ("meatball", "meatloaf", "sauce"):
        for style in styles_for(dish):
            counsel = evaluate(mixed(style=style.key), inventory=inventory, kitchen=kitchen).counsel
            spoken = [c.rule for c in counsel if c.step == "mix" and c.severity != "note"]
            assert spoken in ([], ["mix.egg-rounded"]), style.key
