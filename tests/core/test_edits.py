"""Each kind of edit: what it does, what it leaves alone, and what it refuses."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from decimal import Decimal
from typing import get_args

import pytest

from formulas import blended, smash
from vianda.core.basis.errors import (
    CoreError,
    InfeasibleBlendError,
    OutOfRangeError,
    UnknownItemError,
    UnreadableEntryError,
)
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import Kitchen, Scale
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.heat.floor import USDA_POULTRY
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.model import edit as e
from vianda.core.model.field_table import FIGURES, range_text, stored_value, with_stored
from vianda.core.model.formula import Formula

BOX = Lot("box", "chuck", "Box", 5000, Decimal("9"), date(2026, 11, 20), None)


@pytest.fixture(scope="module")
def inventory() -> Inventory:
    return Inventory.of(starter_inventory().meats.values(), [BOX])


def _apply(edit: e.Edit, inventory: Inventory, kitchen: Kitchen, formula: Formula | None = None) -> Formula:
    return apply_edit(formula or smash(), edit, inventory=inventory, kitchen=kitchen)


def _shares(formula: Formula) -> dict[str, float]:
    return {p.meat: round(p.share_frac, 6) for p in formula.parts}


def test_a_meat_swapped_keeps_its_share_and_leaves_its_lot(inventory: Inventory, kitchen: Kitchen) -> None:
    boxed = _apply(e.PickLot("chuck", "box"), inventory, kitchen)
    assert boxed.parts[0].lot == "box"
    swapped = _apply(e.SwapMeat("chuck", "rib"), inventory, kitchen, boxed)
    assert (swapped.parts[0].meat, swapped.parts[0].share_frac, swapped.parts[0].lot) == ("rib", 0.55, "")


def test_a_lot_of_another_meat_is_no_lot_of_this_one(inventory: Inventory, kitchen: Kitchen) -> None:
    with pytest.raises(UnknownItemError, match="no lot"):
        _apply(e.PickLot("short-rib-plate", "box"), inventory, kitchen)
    with pytest.raises(InfeasibleBlendError, match="not in this blend"):
        _apply(e.PickLot("rib", ""), inventory, kitchen)


def test_a_lot_is_let_go_again(inventory: Inventory, kitchen: Kitchen) -> None:
    boxed = _apply(e.PickLot("chuck", "box"), inventory, kitchen)
    assert _apply(e.PickLot("chuck", ""), inventory, kitchen, boxed) == smash()


def test_a_meat_joins_with_a_fifth_and_leaves_without_a_trace(inventory: Inventory, kitchen: Kitchen) -> None:
    more = _apply(e.AddMeat("rib"), inventory, kitchen)
    assert _shares(more) == {"chuck": 0.44, "short-rib-plate": 0.2, "brisket-flat": 0.16, "rib": 0.2}
    back = _apply(e.RemoveMeat("rib"), inventory, kitchen, more)
    assert _shares(back) == _shares(smash())


@pytest.mark.parametrize(
    ("edit", "says"),
    [
        (e.AddMeat("unicorn"), "holds no meat"),
        (e.AddMeat("chuck"), "in the blend already"),
        (e.SwapMeat("chuck", "brisket-flat"), "in the blend already"),
        (e.SwapMeat("rib", "sirloin"), "not in this blend"),
        (e.RemoveMeat("rib"), "not in this blend"),
        (e.MoveEdge(5, 0.5), "no edge 5"),
        (e.MoveEdge(0, float("nan")), "needs a place"),
        (e.Choose("style", "boiled"), "No style"),
        (e.Choose("bun", "brioche"), "no bun"),
        (e.Choose("surface", "moon"), "no surface"),
        (e.Choose("portioning", "by_eye"), "by piece, by batch, or by both weights"),
        (e.Choose("doneness", "blue"), "No doneness"),
        (e.Choose("salt_place", "inside"), "into the mix, or nowhere"),
        (e.Choose("grind_tool", "teeth"), "no grinder"),
        (e.Choose("keep", "for ever"), "fresh, made ahead, or frozen"),
        (e.Choose("school", "of fish"), "No school"),
        (e.WriteRemark("x" * 2001), "2000 characters"),
        (e.SetFigure("share", 1.5, item="chuck"), "outside what the rules cover for a share"),
        (e.SetFigure("guests", float("inf")), "That is outside"),
        (e.TypeFigure("part_mass", "99 kg", item="chuck"), "more than the whole batch of 3400 g"),
        (e.TypeFigure("salt", "plenty"), "1.1 %, 37 g or 2 tsp"),
        (e.TypeFigure("thickness", "thick"), "Type something like"),
        (e.LayOut(("chuck",), (0.5, 0.5)), "one share for each"),
    ],
)
def test_what_makes_no_sense_is_refused_in_words_and_changes_nothing(
    inventory: Inventory, kitchen: Kitchen, edit: e.Edit, says: str
) -> None:
    before = smash()
    with pytest.raises(CoreError, match=says):
        _apply(edit, inventory, kitchen, before)
    assert before == smash()


def test_a_ninth_meat_finds_no_place(inventory: Inventory, kitchen: Kitchen) -> None:
    eight = ("chuck", "rib", "round", "flank", "shank", "suet", "sirloin", "trim_50")
    full = smash(parts=blended(**dict.fromkeys(eight, 0.125)))
    with pytest.raises(InfeasibleBlendError, match="at most 8"):
        _apply(e.AddMeat("heart"), inventory, kitchen, full)


def test_salt_typed_in_any_way_is_the_same_salt(inventory: Inventory, kitchen: Kitchen) -> None:
    # 34 g on 3400 g is 1 %; 6 g of fine salt to a teaspoon
    for text in ("1 %", "1", "34 g", "5 2/3 tsp"):
        formula = _apply(e.TypeFigure("salt", text), inventory, kitchen)
        assert formula.seasoning.salt_frac == pytest.approx(0.01), text


def test_salt_given_up_and_taken_again_is_the_salt_there_was(inventory: Inventory, kitchen: Kitchen) -> None:
    without = _apply(e.Choose("salt_place", "none"), inventory, kitchen)
    assert evaluate(without, inventory=inventory, kitchen=kitchen).salt.batch_salt_g == 0
    assert _apply(e.Choose("salt_place", "surface"), inventory, kitchen, without) == smash()
    typed = _apply(e.TypeFigure("salt", "1.5 %"), inventory, kitchen, without)
    assert typed.seasoning.salt_place == "surface"


def test_a_nudge_on_a_coarse_scale_goes_by_its_step(inventory: Inventory, kitchen: Kitchen) -> None:
    coarse = replace(kitchen, scale=Scale(10, 5000))
    assert _apply(e.NudgeFigure("piece_mass", 1), inventory, coarse).shape.piece_mass_g == 90
    assert _apply(e.NudgeFigure("guests", -5), inventory, kitchen).dish.guests == 15
    assert _apply(e.NudgeFigure("guests", -100), inventory, kitchen).dish.guests == 1


def test_nudged_shares_and_grams_move_the_blend(inventory: Inventory, kitchen: Kitchen) -> None:
    assert _shares(_apply(e.NudgeFigure("share", 2, item="chuck"), inventory, kitchen))["chuck"] == 0.57
    parts = _apply(e.NudgeFigure("part_mass", 1, item="chuck"), inventory, kitchen).parts
    assert parts[0].share_frac * 3400 == pytest.approx(1880)


def test_well_done_with_a_bird_in_it_goes_by_the_birds_line(inventory: Inventory, kitchen: Kitchen) -> None:
    mixed = smash(parts=blended(chuck=0.5, turkey_ground=0.5))
    done = _apply(e.Choose("doneness", "well-done"), inventory, kitchen, mixed)
    assert done.heat.target_core_temp_c == pytest.approx(USDA_POULTRY.temp_c)


def test_a_style_brings_its_own_fire_weight_and_bun_but_not_its_own_meat(
    inventory: Inventory, kitchen: Kitchen
) -> None:
    grilled = _apply(e.Choose("style", "grilled"), inventory, kitchen)
    assert (grilled.heat.surface, grilled.shape.piece_mass_g, grilled.shape.bun) == ("charcoal-grate", 140, "soft-90")
    assert grilled.parts == smash().parts
    no_bun = _apply(e.Choose("style", "grilled"), inventory, kitchen, smash(bun="none"))
    assert no_bun.shape.bun == "none"


def test_grind_and_services_are_part_of_the_formula(inventory: Inventory, kitchen: Kitchen) -> None:
    formula = smash()
    for edit in (
        e.Choose("grind_tool", "knife"),
        e.Choose("keep", "frozen"),
        e.TypeFigure("services_per_week", "3"),
        e.NudgeFigure("services_per_week", 1),
    ):
        formula = _apply(edit, inventory, kitchen, formula)
    assert (formula.grind.tool, formula.grind.keep, formula.grind.services_per_week) == ("knife", "frozen", 4)
    assert _apply(e.Choose("grind_tool", ""), inventory, kitchen, formula).grind.tool == ""


@pytest.mark.parametrize("text", ["-3", "1e3", "3.5", "many"])
def test_people_are_counted_in_whole_numbers(inventory: Inventory, kitchen: Kitchen, text: str) -> None:
    with pytest.raises((UnreadableEntryError, OutOfRangeError)):
        _apply(e.TypeFigure("guests", text), inventory, kitchen)


def test_a_range_is_said_as_people_write_numbers() -> None:
    assert range_text("guests", 1e5) == "100000 is outside what the rules cover for guests: 1 to 2000."
    assert range_text("salt", 0.08) == "8 % is outside what the rules cover for the salt: 0 to 5 %."
    assert range_text("batch_mass", 2e6).endswith("50 to 1000000 g.")


def test_every_figure_has_one_row_and_a_stored_one_needs_nothing_else(inventory, kitchen) -> None:
    assert set(FIGURES) == set(get_args(e.Figure))
    formula = smash()
    for figure, rule in FIGURES.items():
        if rule.stored and figure not in ("salt", "thickness", "piece_mass", "batch_mass"):
            changed = with_stored(formula, figure, rule.high)
            assert stored_value(changed, figure) == rule.high
            assert changed == _apply(e.SetFigure(figure, rule.high), inventory, kitchen, formula)
            with pytest.raises(OutOfRangeError, match=rule.label):
                _apply(e.SetFigure(figure, rule.high * 1.01 + 1), inventory, kitchen, formula)
