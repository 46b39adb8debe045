"""What goes round the meat takes room beside it, folds with its bread, is dosed by how thick it lies, and is paid."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from counsel_beside_cases import bowl
from formulas import smash
from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.basis.errors import OutOfRangeError, UnreadableEntryError
from vianda.core.equipment.kitchen import Bun, Surface
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.model.edit import PutBeside, TypeBeside
from vianda.core.model.formula import Accompaniment, Formula, HeatStage, StackLayer
from vianda.core.pipeline.compute import compute
from vianda.core.sauce.dose import dose
from vianda.core.sauce.from_raw import MOST_BESIDE_FRAC, taken_frac
from vianda.core.sauce.thicken import one_step_thicker, thickening
from vianda.core.shape.laying import Laying, laying_of
from vianda.core.stack.layers import FOLDED, KINDS, Build, MeatLayer, build_of

PLATE = Surface("plate", "Plate", "plate", 700, 400, False)


# ------------------------------------------------------------------------------------------------- beside the meat


def _laid(pieces: int, taken: float) -> Laying:
    return laying_of(
        "disc",
        surface=PLATE,
        pieces=pieces,
        diameter_mm=132,
        length_mm=132,
        width_mm=132,
        gap_mm=6,
        crumbled_g=0,
        taken_frac=taken,
    )


@given(st.integers(1, 200), st.floats(0.0, 0.5))
def test_every_piece_lies_in_some_wave_whatever_lies_beside_the_first(pieces: int, taken: float) -> None:
    found = _laid(pieces, taken)
    sizes = [found.first_wave, *([found.at_once] * (found.waves - 2)), found.last_wave][: found.waves]
    assert sum(sizes) == pieces
    assert 1 <= found.first_wave <= found.at_once
    assert 1 <= found.last_wave <= found.at_once
    plain = _laid(pieces, 0.0)
    assert plain.waves <= found.waves <= plain.waves + 1
    assert plain.first_wave == plain.at_once


def test_what_lies_beside_the_first_wave_can_make_one_more() -> None:
    # The plate holds 14: 42 make three waves, and a quarter of the first leaves four over.
    assert (_laid(42, 0.0).waves, _laid(42, 0.0).last_wave) == (3, 14)
    found = _laid(42, 0.25)
    assert (found.first_wave, found.waves, found.last_wave) == (10, 4, 4)


def test_half_of_the_surface_is_shared_and_more_goes_on_before_the_meat() -> None:
    holds = 6.0 * 0.7 * 0.4 * 1000 * 0.82
    assert taken_frac([("grilled-onion", 0.499 * holds)], surface=PLATE) == pytest.approx(0.499)
    assert taken_frac([("grilled-onion", 0.501 * holds)], surface=PLATE) == 0.0
    assert MOST_BESIDE_FRAC == 0.5
    # Soft onions have their own turn before the meat.
    assert taken_frac([("soft-onion", 0.3 * holds), ("ketchup", 500)], surface=PLATE) == 0.0
    assert taken_frac([("grilled-onion", 0.0)], surface=PLATE) == 0.0


def test_grilled_onions_leave_the_first_wave_less_room_and_the_working_says_so() -> None:
    plain = smash(guests=40)
    with_onions = replace(plain, beside=(Accompaniment("topping", "grilled-onion", 15.0),))
    before = compute(plain, inventory=INVENTORY, kitchen=KITCHEN)
    after = compute(with_onions, inventory=INVENTORY, kitchen=KITCHEN)
    assert before.cook.stove.first_wave == before.cook.stove.at_once
    assert after.cook.stove.first_wave < after.cook.stove.at_once
    raw = after.beside.things[0].raw
    assert raw is not None
    room = len(after.cook.stove.centres_mm)
    assert after.cook.stove.first_wave == math.floor(room * (1 - raw.surface_frac))
    # In the oven it has a shelf of its own.
    loaf = replace(bowl(), beside=(Accompaniment("topping", "grilled-onion", 15.0),))
    there = compute(loaf, inventory=INVENTORY, kitchen=KITCHEN).cook.stove
    assert there.first_wave == there.at_once


# -------------------------------------------------------------------------------------------------- thin and folded

TORTILLA = next(b for b in KITCHEN.buns if b.kind in FOLDED)
MEAT = MeatLayer("Patty", 60.0, 5.0, TORTILLA.diameter_mm)


def _built(*kinds: str, bun: Bun = TORTILLA, meat: MeatLayer = MEAT) -> Build:
    layers = tuple(StackLayer(k) for k in kinds)  # type: ignore[arg-type]
    return build_of(layers, bun=bun, meat=meat, beside=(), pantry=INVENTORY.pantry, usual=False)


def test_a_tortilla_is_folded_over_with_the_meat_pressed_on_it() -> None:
    found = _built("heel", "patty", "cheese", "onion")
    assert found.folded
    assert [x.folded for x in found.layers] == [True, True, False, False]
    half = TORTILLA.diameter_mm / 2
    assert found.layers[0].width_mm == found.layers[1].width_mm == half
    assert all(x.width_mm <= half for x in found.layers)
    once = sum(x.thickness_mm for x in found.layers)
    assert found.height_mm == pytest.approx(once + found.layers[0].thickness_mm + 5.0)
    # Folding makes nothing heavier.
    assert found.mass_g == pytest.approx(TORTILLA.mass_g + 60.0 + KINDS["cheese"].mass_g + KINDS["onion"].mass_g)
    assert found.layers[0].name == "Small wheat tortilla"
    assert found.overhang_mm == 0.0


def test_a_small_patty_lies_inside_the_fold_and_a_wide_one_hangs_out_of_it() -> None:
    half = TORTILLA.diameter_mm / 2
    inside = _built("heel", "patty", meat=replace(MEAT, width_mm=half))
    assert not inside.layers[1].folded
    wide = _built("heel", "patty", meat=replace(MEAT, width_mm=TORTILLA.diameter_mm + 20.0))
    assert wide.layers[1].folded
    assert wide.overhang_mm == pytest.approx(10.0)


def test_bread_with_a_crown_is_not_folded() -> None:
    assert not _built("heel", "patty", "crown").folded
    assert not _built("patty", "cheese").folded
    bun = next(b for b in KITCHEN.buns if b.kind == "bun")
    assert not _built("heel", "patty", bun=bun).folded


# ------------------------------------------------------------------------------------------- doses by how they lie


def _sauced() -> Formula:
    return edited(smash(), PutBeside("burger-sauce", "mayonnaise"))


@pytest.mark.parametrize(("text", "mm"), [("1 mm", 1.0), ("1.5 mm", 1.5), ("0.2 cm", 2.0), ("1/16 in", 25.4 / 16)])
def test_a_sauce_is_dosed_by_how_thick_it_lies_on_both_faces(text: str, mm: float) -> None:
    formula = edited(_sauced(), TypeBeside("mayonnaise", "dose", text))
    bread = KITCHEN.bun(formula.shape.bun).diameter_mm
    assert dose(formula.beside[0].dose_g, diameter_mm=bread).thickness_mm == pytest.approx(mm)


def test_grams_and_spoons_stay_what_they_are() -> None:
    assert edited(_sauced(), TypeBeside("mayonnaise", "dose", "18 g")).beside[0].dose_g == 18.0
    spoon = edited(_sauced(), TypeBeside("mayonnaise", "dose", "1 tbsp")).beside[0].dose_g
    assert 10.0 < spoon < 16.0
    for text in ("1 min", "inch", "thin"):
        with pytest.raises(UnreadableEntryError):
            edited(_sauced(), TypeBeside("mayonnaise", "dose", text))
    # What is made of it is no coat.
    with pytest.raises(UnreadableEntryError):
        edited(_sauced(), TypeBeside("mayonnaise", "made", "2 mm"))


# ------------------------------------------------------------------------------------------------ bound with starch


@given(st.floats(1.0, 1e5))
def test_starch_binds_its_own_water_too(liquid_g: float) -> None:
    found = one_step_thicker(liquid_g)
    runs = thickening(liquid_g + found.cold_water_g, thickener="cornflour", body="thin").starch_g.usual
    coats = thickening(liquid_g + found.cold_water_g, thickener="cornflour", body="coating").starch_g.usual
    assert found.cornflour_g == pytest.approx((coats - runs) / 2)
    assert found.cold_water_g == pytest.approx(2 * found.cornflour_g)


@pytest.mark.parametrize("liquid_g", [0.0, -1.0, 1.1e6, float("nan")])
def test_no_liquid_is_not_thickened(liquid_g: float) -> None:
    with pytest.raises(OutOfRangeError):
        one_step_thicker(liquid_g)


# --------------------------------------------------------------------------------------------- what is made is paid


def _glazed(made_g: float) -> Formula:
    loaf = replace(bowl(), beside=(Accompaniment("glaze", "ketchup", 20.0, made_g, 2),))
    stages = (HeatStage("oven", until="core", temp_c=175.0, glaze=True),)
    return replace(loaf, heat=replace(loaf.heat, glaze="ketchup", stages=stages))


def test_a_glaze_made_beyond_its_coats_is_paid_and_not_eaten() -> None:
    served = [compute(_glazed(g), inventory=INVENTORY, kitchen=KITCHEN).served for g in (0.0, 50.0, 900.0)]
    glaze = [next(t for t in s.things if t.kind == "glaze") for s in served]
    coats = glaze[0].used_g
    assert coats > 50.0
    assert glaze[1].used_g == coats
    assert glaze[2].used_g == 900.0
    assert glaze[2].eaten_g == glaze[0].eaten_g == coats
    price = INVENTORY.pantry["ketchup"].price_per_kg
    assert float(served[2].cost - served[0].cost) == pytest.approx(float(price) * (900.0 - coats) / 1000)
    assert served[2].energy_kcal == pytest.approx(served[0].energy_kcal)


def test_the_brush_has_a_bowl_of_its_own_where_some_is_left_for_the_table() -> None:
    told = [c for c in evaluate(_glazed(900.0), inventory=INVENTORY, kitchen=KITCHEN).counsel if "one-brush" in c.rule]
    assert len(told) == 1
    assert told[0].severity == "check"
    assert "raw" not in told[0].title.text
    assert "not cooked through" in told[0].reason.text


# ----------------------------------------------------------------------------------------------- when it is tasted


@pytest.mark.parametrize(
    ("kinds", "word"),
    [
        (("heel", "onion", "patty", "crown"), "tasted first"),
        (("heel", "patty", "cheese", "pickle", "crown"), "tasted last"),
        (("heel", "relish", "patty", "onion", "crown"), "first bite to the last"),
        (("heel", "patty", "onion", "patty", "crown"), "every bite"),
    ],
)
def test_where_the_sharp_lies_is_when_it_is_tasted(kinds: tuple[str, ...], word: str) -> None:
    bun = next(b for b in KITCHEN.buns if b.kind == "bun")
    said = _built(*kinds, bun=bun).tasted
    assert said is not None
    assert word in said.text.split("Others")[0]


def test_nothing_sharp_or_no_meat_says_nothing_of_it() -> None:
    assert _built("heel", "patty", "cheese").tasted is None
    assert _built("heel", "onion").tasted is None
