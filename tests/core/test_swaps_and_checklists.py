"""What takes the place of what cannot be had, and the list to tick of a build."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError
from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.model.edit import SetStack
from vianda.core.model.formula import Formula, StackLayer
from vianda.core.sauce.schools import sauce_schools
from vianda.core.sauce.swap import WATCHED, families, swaps_for
from vianda.core.sauce.tastes import taste_of, tastes_written
from vianda.core.stack.checklist import CheckLine

PANTRY = starter_pantry()
SAUCE = [("mayonnaise", 150.0), ("ketchup", 60.0), ("relish", 30.0)]


@settings(max_examples=50)
@given(st.sampled_from(sorted(sauce_schools())), st.integers(0, 7), st.floats(0.5, 20.0))
def test_a_replacement_is_told_truly_and_kept_in_its_family(school: str, at: int, size: float) -> None:
    lines = [(k, g * size) for k, g in sauce_schools()[school].lines]
    gone, had = lines[at % len(lines)]
    before = taste_of(lines, pantry=PANTRY)
    for found in swaps_for(lines, gone, pantry=PANTRY):
        assert any({gone, found.ingredient} <= family for family in families())
        assert found.ingredient not in dict(lines)
        assert found.added[0][0] == found.ingredient
        assert gone not in dict(found.added)
        assert all(grams > 0.0 for _, grams in found.added)
        # The sauce stays about as much as it was.
        whole = sum(g for _, g in lines)
        assert sum(g for _, g in found.added) == pytest.approx(had, abs=0.2 * whole)
        rest = [(k, g) for k, g in lines if k != gone]
        again = taste_of([*rest, *found.added], pantry=PANTRY)
        for name, (least, frac) in WATCHED.items():
            assert again.of(name) == pytest.approx(found.after.of(name), abs=1e-9)
            off = abs(again.of(name) - before.of(name)) / max(least, frac * before.of(name))
            assert (name in found.missed) == (off > 1.0 + 1e-6)
            assert off <= found.miss + 1e-9


def test_tomato_paste_and_what_it_lacks_are_ketchup() -> None:
    first = swaps_for(SAUCE, "ketchup", pantry=PANTRY)[0]
    assert first.ingredient == "tomato-paste"
    assert {k for k, _ in first.added} == {"tomato-paste", "salt-fine", "sugar", "vinegar", "water"}
    assert first.missed == ()
    # Ketchup of 60 g is about 26 g of paste: SR28 has 4.8 and 18.9 g of carbohydrate but sugar for the rest.
    assert 15.0 < dict(first.added)["tomato-paste"] < 40.0


def test_one_sour_thing_stands_for_another_by_its_strength() -> None:
    sauce = [("mayonnaise", 150.0), ("lemon-juice", 20.0)]
    found = next(s for s in swaps_for(sauce, "lemon-juice", pantry=PANTRY) if s.ingredient == "vinegar")
    wanted = 20.0 * tastes_written()["lemon-juice"].acetic_g_per_100g / tastes_written()["vinegar"].acetic_g_per_100g
    assert dict(found.added)["vinegar"] == pytest.approx(wanted, rel=0.05)
    # Another sour thing never comes along as a helper of a sour thing.
    assert len({"vinegar", "cider-vinegar", "lime-juice"} & set(dict(found.added))) == 1


def test_what_stands_in_no_family_has_no_replacement() -> None:
    assert swaps_for([("egg", 50.0), ("ketchup", 50.0)], "egg", pantry=PANTRY) == ()


def test_what_is_retired_or_gone_from_the_pantry_is_not_offered() -> None:
    less = {k: replace(v, retired=True) if k == "tomato-paste" else v for k, v in PANTRY.items()}
    assert "tomato-paste" not in {s.ingredient for s in swaps_for(SAUCE, "ketchup", pantry=less)}
    with pytest.raises(UnknownItemError, match="in this sauce"):
        swaps_for(SAUCE, "honey", pantry=PANTRY)


def test_every_family_holds_only_what_the_pantry_knows() -> None:
    for family in families():
        assert family <= set(PANTRY), family - set(PANTRY)
        assert len(family) > 2


# --------------------------------------------------------------------------------------------------- the list to tick


def _lines(formula: Formula) -> tuple[CheckLine, ...]:
    return evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN).beside.checklist


def _built(*kinds: str, toasted: bool = True) -> Formula:
    bread = ("heel", "crown", "club")
    layers = tuple(StackLayer(k, toasted=toasted and k in bread) for k in kinds)  # type: ignore[arg-type]
    return replace(slipway_smash(), stack=layers)


def test_every_layer_is_on_the_list_from_below() -> None:
    kinds = ("heel", "sauce", "leaf", "patty", "cheese", "patty", "tomato", "crown")
    lines = _lines(_built(*kinds))
    built = [line for line in lines if line.when == "build"]
    assert len(built) == len(kinds)
    assert built[0].title == "Heel"
    assert built[-1].title == "Crown"
    assert [line.when for line in lines] == sorted((line.when for line in lines), key=lambda w: w == "build")
    before = {line.title for line in lines if line.when == "before"}
    assert before == {"Bread toasted", "Leaves washed", "Tomato sliced"}
    assert all(line.mass_g > 0.0 for line in built[1:-1])


def test_bread_that_is_not_toasted_asks_for_no_toasting() -> None:
    lines = _lines(_built("heel", "patty", "crown", toasted=False))
    assert "Bread toasted" not in {line.title for line in lines}
    assert lines[0].how.text == "Cut face in."


def test_what_is_ready_once_is_said_once() -> None:
    lines = _lines(_built("heel", "tomato", "patty", "tomato", "crown"))
    assert [line.title for line in lines].count("Tomato sliced") == 1


def test_a_loaf_on_a_plate_has_no_list() -> None:
    assert _lines(keepers_loaf()) == ()


# ------------------------------------------------------------------------------------------------ what meat lies there


def _meat(formula: Formula):
    e = evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN)
    return e, next(layer for layer in e.beside.build.layers if layer.kind == "patty")


def test_balls_lie_in_a_roll_together_and_its_bread_counts() -> None:
    formula = night_watch_balls()
    plain = evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN)
    assert plain.beside.build.layers[0].name == "3 balls"
    none = replace(formula, shape=replace(formula.shape, bun="none"))
    roll = edited(none, SetStack((StackLayer("heel"), StackLayer("patty"), StackLayer("crown"))))
    assert roll.shape.bun != "none"
    e, meat = _meat(roll)
    assert meat.name == "3 balls"
    assert e.beside.builds == formula.dish.guests
    assert meat.mass_g == pytest.approx(3 * e.shape.cooked_mass_g.usual)
    assert meat.thickness_mm == pytest.approx(e.shape.cooked_thickness_mm.usual)
    # A roll for each guest, not for each ball; the piece stays as it was.
    bread = next(t for t in e.served.things if t.kind == "bread")
    assert bread.used_g == pytest.approx(formula.dish.guests * KITCHEN.bun(roll.shape.bun).mass_g)
    assert e.shape.raw_diameter_mm == plain.shape.raw_diameter_mm
    assert e.served.energy_kcal > plain.served.energy_kcal + 100
    # A build without bread has none.
    assert not [t for t in _meat(edited(roll, SetStack((StackLayer("patty"),))))[0].served.things if t.kind == "bread"]


def test_a_kitchen_without_bread_says_so() -> None:
    bare = replace(KITCHEN, buns=tuple(b for b in KITCHEN.buns if b.diameter_mm == 0))
    none = replace(night_watch_balls(), shape=replace(night_watch_balls().shape, bun="none"))
    with pytest.raises(OutOfRangeError, match="no bread to build with"):
        apply_edit(none, SetStack((StackLayer("heel"), StackLayer("patty"))), inventory=INVENTORY, kitchen=bare)


def test_everybody_gets_as_thick_a_slice_of_the_loaf() -> None:
    formula = keepers_loaf()
    e, meat = _meat(formula)
    assert meat.name == "Slice of the loaf"
    loaves = e.portions.pieces
    assert meat.mass_g * formula.dish.guests == pytest.approx(loaves * e.shape.cooked_mass_g.usual)
    assert meat.thickness_mm * formula.dish.guests == pytest.approx(loaves * e.shape.cooked_diameter_mm.usual)
    assert 10.0 < meat.thickness_mm < 60.0
    assert meat.width_mm < e.shape.width_mm


def test_a_double_holds_two_patties_of_one_piece_each() -> None:
    e, meat = _meat(slipway_smash())
    assert [layer.name for layer in e.beside.build.layers].count("Patty") == 2
    assert meat.mass_g == pytest.approx(e.shape.cooked_mass_g.usual)


def test_a_meat_sauce_is_a_spoonful() -> None:
    formula = supply_boat_ragu()
    e, meat = _meat(formula)
    assert meat.name == "Meat sauce"
    assert meat.mass_g * formula.dish.guests == pytest.approx(e.portions.pieces * e.shape.cooked_mass_g.usual)
    # As high as it is spooned, it weighs about as much as water.
    assert math.pi / 4 * (meat.width_mm / 10) ** 2 * meat.thickness_mm / 10 == pytest.approx(meat.mass_g)
