"""Figures whose smallest change nobody noticed: each is held here to what it should be, by hand."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from counsel_beside_cases import LARDER, bowl
from formulas import lines, mixed, smash
from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.basis.scale_step import whole_steps
from vianda.core.batch.shaker import ShakerTrial, calibrate
from vianda.core.blend.shares import InfeasibleBlendError, add_meat, index_of, remove_meat
from vianda.core.counsel.rule import Counsel
from vianda.core.demo.formulas import beacon_grill
from vianda.core.equipment.first_kitchen import FirstAnswers, HotThing, first_kitchen
from vianda.core.equipment.kitchen import Scale
from vianda.core.evaluation.evaluate import evaluate, sheets
from vianda.core.inventory.composition import Composition
from vianda.core.inventory.fat_test import SAMPLE_SD_AT_100_G, fat_test
from vianda.core.inventory.inventory import Inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.mix.fry_test import BINDER_STEP_FRAC, EGG_STEP_FRAC
from vianda.core.model.edit import KeepLimit
from vianda.core.model.formula import Accompaniment, BlendPart, Formula, MixLine, StackLayer
from vianda.core.model.styles import PROBE_THICKNESS_MM
from vianda.core.pipeline.compute import compute
from vianda.core.reading.mix_line import read_mix
from vianda.core.sauce.brine import Bath, at_rest
from vianda.core.sauce.dose import batch_of_sauce
from vianda.core.sauce.ferment import ferment
from vianda.core.sauce.from_raw import COOKED_BESIDE
from vianda.core.sauce.nudge import nudge
from vianda.core.sauce.thicken import thickening
from vianda.core.shape.density import solid_density_g_per_ml
from vianda.core.shape.filling import egg_row
from vianda.core.stack.rules import StackRemark
from vianda.core.timetable.tasks import tasks_of
from vianda.core.weighing.control_chart import control_chart


def _said(formula: Formula, rule: str, inventory: Inventory = INVENTORY) -> Counsel:
    return next(c for c in evaluate(formula, inventory=inventory, kitchen=KITCHEN).counsel if c.rule == rule)


# ------------------------------------------------------------------------------------------------- scale and weighing


def test_float_dust_is_no_lost_step() -> None:
    # 0.3 / 0.1 is a hair below 3.
    assert whole_steps(0.1 + 0.2, step_g=1) == 0
    for step in (1, 2, 5):
        for n in range(0, 400, 7):
            assert whole_steps(n * step * (1 - 1e-15), step_g=step) == n


def test_a_shaker_says_how_far_whole_shakes_are_off() -> None:
    found = calibrate([ShakerTrial(1.2, 10)], side_g=1.0, pieces=1)
    assert found.off_frac == pytest.approx(found.gives_g.usual / 1.0 - 1.0)
    assert abs(found.off_frac) < 0.1


def test_a_scale_carries_two_hundred_kilograms_at_most() -> None:
    assert Scale(1, 200_000).capacity_g == 200_000
    with pytest.raises(OutOfRangeError):
        Scale(1, 200_001)


def test_eight_on_one_side_end_with_the_reading_and_not_after_it() -> None:
    # Seven above, one below: at the eighth the run is broken, and what comes later heals nothing.
    low = [84.0, 86.0] * 3
    readings = [*low, *([86.5] * 7), 83.0, *([86.5] * 3)]
    found = {b.at for b in control_chart(readings).broken if b.rule == "8-on-one-side"}
    assert all(len({v > 85.2 for v in readings[at - 7 : at + 1]}) == 1 for at in found)
    eight = [*low, *([86.5] * 9)]
    runs = sorted(b.at for b in control_chart(eight).broken if b.rule == "8-on-one-side")
    # From the last low one (86.0 belongs to the high side as well) eight in a row are full.
    assert runs
    assert runs[0] == 12
    assert runs[-1] == len(eight) - 1


def test_a_cup_holds_a_kilogram_at_most() -> None:
    flour = starter_pantry()["flour"]
    assert replace(flour, g_per_cup=1000.0).g_per_cup == 1000.0
    with pytest.raises(OutOfRangeError):
        replace(flour, g_per_cup=1000.5)


def test_the_sample_of_a_fat_test_counts_by_the_root_of_its_mass() -> None:
    tests = [fat_test(raw_g=g, lean_g=0.6 * g, fat_g=0.15 * g, liquid_g=0, step_g=1) for g in (100.0, 400.0, 4900.0)]
    # What does not shrink with the sample is left when it is large; the scale's step is next to nothing.
    rest = tests[2].sd_frac ** 2 - (SAMPLE_SD_AT_100_G**2) * 100.0 / 4900.0
    sample = [math.sqrt(t.sd_frac**2 - rest) for t in tests[:2]]
    assert sample[0] == pytest.approx(SAMPLE_SD_AT_100_G, rel=0.1)
    assert sample[0] / sample[1] == pytest.approx(2.0, rel=0.06)


# ----------------------------------------------------------------------------------------------------- salt and blend


def test_salt_that_comes_along_beyond_what_is_wanted_is_told_wherever_it_is_put() -> None:
    for place in ("mixed", "surface"):
        formula = mixed(lines=lines(pecorino=30), salt_frac=0.003)
        formula = replace(formula, seasoning=replace(formula.seasoning, salt_place=place))
        ledger = compute(formula, inventory=INVENTORY, kitchen=KITCHEN).batch.ledger
        assert ledger.over_frac == pytest.approx(ledger.brought_frac - 0.003)
        assert ledger.over_frac > 0.0


def test_a_meat_leaves_from_any_place_and_no_other_goes_with_it() -> None:
    parts = tuple(BlendPart(m, s) for m, s in (("chuck", 0.5), ("round", 0.3), ("brisket-flat", 0.2)))
    for gone in ("chuck", "round", "brisket-flat"):
        left = remove_meat(parts, meat=gone)
        assert {p.meat for p in left} == {p.meat for p in parts} - {gone}
        assert math.fsum(p.share_frac for p in left) == pytest.approx(1.0)


def test_a_meat_comes_into_what_is_not_held() -> None:
    held = (BlendPart("chuck", 0.9, locked=True), BlendPart("round", 0.1))
    with_it = add_meat(held, meat="brisket-flat")
    assert next(p.share_frac for p in with_it if p.meat == "brisket-flat") == pytest.approx(0.1)
    assert with_it[0].share_frac == 0.9
    all_held = add_meat((BlendPart("chuck", 1.0, locked=True),), meat="round")
    assert [round(p.share_frac, 9) for p in all_held] == [1.0, 0.0]


def test_a_long_name_is_shortened_where_it_is_refused() -> None:
    with pytest.raises(InfeasibleBlendError) as refused:
        index_of((BlendPart("chuck", 1.0),), "x" * 80)
    assert f"“{'x' * 60}”" in str(refused.value)


def test_salting_to_a_limit_meets_it_and_no_less_than_needed() -> None:
    formula = edited(mixed(lines=lines(panko=8, milk=10), salt_frac=0.02), KeepLimit("less-salt", True))
    change = _said(formula, "mix.less-salt").changes[0]
    after = evaluate(edited(formula, change.edit), inventory=INVENTORY, kitchen=KITCHEN)
    assert all(c.rule != "mix.less-salt" for c in after.counsel)
    figures = compute(edited(formula, change.edit), inventory=INVENTORY, kitchen=KITCHEN)
    before = next(b for b in compute(formula, inventory=INVENTORY, kitchen=KITCHEN).served.breaches)
    assert figures.mix.whole.salt_g / figures.mix.whole.mass_g > 0.93 * before.limit_frac


# ------------------------------------------------------------------------------------------------------------ counsel


def test_the_widest_guess_is_named() -> None:
    line = {"uncertainty_frac": 0.45}
    vague = (MixLine("olive-oil", 0.012, **line), MixLine("honey", 0.02, **line), MixLine("milk", 0.30))
    title = _said(mixed(lines=vague), "mix.guessed").title
    assert title.amounts["what"].text == INVENTORY.pantry["honey"].name


def test_what_is_to_cool_says_the_same_as_it_does() -> None:
    hot = mixed(lines=(*lines(panko=8, milk=10, egg=8), MixLine("soft-onion", 0.1, temp_c=45)))
    change = _said(hot, "mix.hot-part").changes[0]
    assert change.label.amounts["t"].value == change.edit.value == 20.0  # type: ignore[union-attr]


def test_a_soupy_panade_is_brought_to_the_middle_of_soft() -> None:
    soup = bowl(put={"milk": 18.6})
    change = _said(soup, "mix.soup").changes[0]
    panade = compute(edited(soup, change.edit), inventory=INVENTORY, kitchen=KITCHEN).mix.panade
    assert panade.state == "soft"
    assert panade.ratio == pytest.approx((panade.edges[2] + panade.edges[3]) / 2, rel=0.03)


def test_sugar_over_a_fire_is_told_as_it_is() -> None:
    formula = smash(style="grilled", surface="charcoal-grate", surface_temp_c=230)
    formula = replace(formula, beside=(Accompaniment("glaze", "sweet-glaze", 20.0, coats=2),))
    found = _said(formula, "sauce.sugar-on-fire", LARDER)
    sugar = LARDER.pantry["sweet-glaze"].composition.sugars_g_per_100g / 100.0
    assert found.reason.amounts["s"].value == pytest.approx(sugar)
    assert sugar > 0.2


def test_a_fried_teaspoon_is_corrected_by_what_is_left() -> None:
    formula = mixed(lines=lines(panko=8, milk=10, egg=8))
    found = {c.verdict: c for c in sheets(formula, inventory=INVENTORY, kitchen=KITCHEN).corrections}
    figures = compute(formula, inventory=INVENTORY, kitchen=KITCHEN)
    apart, tight = found["falls-apart"], found["tight"]
    meat = figures.batch.meat_mass_g * apart.rest_g / figures.batch.mix_mass_g
    panade = figures.mix.panade
    soft = (panade.edges[2] + panade.edges[3]) / 2
    ratio = panade.ratio if panade.state in ("stiff", "soft") else min(soft, 1.5)
    assert apart.egg_g == pytest.approx(EGG_STEP_FRAC * meat)
    assert apart.crumb_g == pytest.approx(BINDER_STEP_FRAC * meat)
    assert apart.liquid_g == pytest.approx(apart.crumb_g * ratio)
    assert (tight.egg_g, tight.plain_meat_g, tight.salt_g) == (0.0, 0.0, 0.0)
    assert tight.liquid_g == pytest.approx(tight.crumb_g * max(ratio, 1.0))
    for c in found.values():
        assert min(c.salt_g, c.salt_tsp, c.crumb_g, c.liquid_g, c.egg_g, c.plain_meat_g, c.rest_g) >= 0.0


@pytest.mark.parametrize("milk", [4.0, 10.0, 18.6])
def test_what_falls_apart_is_wetted_as_its_own_panade_or_middling(milk: float) -> None:
    formula = mixed(lines=lines(panko=8, milk=milk, egg=4))
    figures = compute(formula, inventory=INVENTORY, kitchen=KITCHEN)
    panade = figures.mix.panade
    found = {c.verdict: c for c in sheets(formula, inventory=INVENTORY, kitchen=KITCHEN).corrections}["falls-apart"]
    middle = min((panade.edges[2] + panade.edges[3]) / 2, 1.5)
    ratio = panade.ratio if panade.state in ("stiff", "soft") else middle
    assert found.liquid_g == pytest.approx(found.crumb_g * ratio)


# ------------------------------------------------------------------------------------------------- heat and equipment


def test_a_probe_holds_in_twelve_millimetres_and_not_in_less() -> None:
    assert PROBE_THICKNESS_MM == 12.0
    for mm, probed in ((12.0, True), (11.9, False)):
        formula = smash(style="grilled", thickness_mm=mm, surface="yard-plate")
        assert compute(formula, inventory=INVENTORY, kitchen=KITCHEN).cook.case.usual.probe is probed


def test_a_surface_of_ones_own_is_named_by_its_size() -> None:
    things = (
        HotThing("plate", 600, 400),
        HotThing("pan", 280),
        HotThing("grate", 500, 450),
        HotThing("oven", 450, 350),
    )
    names = [s.name for s in first_kitchen(FirstAnswers(surfaces=things)).surfaces]
    assert "600 × 400" in names[0]
    assert "280 mm" in names[1]
    assert "500 × 450" in names[2]
    assert "450 × 350" in names[3]


def test_gas_is_hot_in_twelve_minutes_and_charcoal_in_twenty_five() -> None:
    grate = next(s for s in KITCHEN.surfaces if s.kind == "grate")
    for fuel, minutes in (("gas", 12.0), ("charcoal", 25.0), ("wood", 40.0)):
        lit = replace(grate, heating=replace(grate.heating, fuel=fuel))
        kitchen = replace(KITCHEN, surfaces=tuple(lit if s.key == grate.key else s for s in KITCHEN.surfaces))
        problem = tasks_of(compute(beacon_grill(), inventory=INVENTORY, kitchen=kitchen))
        assert problem.task("preheat").usual_min == minutes


def test_nothing_at_all_is_as_dense_as_water() -> None:
    assert solid_density_g_per_ml(Composition(0, 0, 0, 0, 0, 0)) == 1.0


def test_as_many_eggs_lie_in_a_loaf_as_its_walls_leave_room_for() -> None:
    row = egg_row(
        mass_g=1000, egg_mass_g=50, density_g_per_ml=1.05, loaf_length_mm=270, loaf_width_mm=120, loaf_height_mm=80
    )
    assert row is not None
    # 270 less two ends of 20 is 230: four of 57 mm.
    assert row.room_for == 4
    longer = egg_row(
        mass_g=1000, egg_mass_g=50, density_g_per_ml=1.05, loaf_length_mm=325.1, loaf_width_mm=120, loaf_height_mm=80
    )
    assert longer is not None
    assert longer.room_for == 5


def test_a_quart_is_a_quarter_of_a_gallon() -> None:
    read = read_mix("1 quart milk", inventory=INVENTORY, kitchen=KITCHEN, meat_mass_g=1000.0)
    amount = read.items[0].amount
    assert amount is not None
    assert amount.mass_g == pytest.approx(4 * INVENTORY.pantry["milk"].g_per_cup, rel=0.01)


# -------------------------------------------------------------------------------------------------------------- sauce


def test_a_pickle_with_much_acid_is_sourer_than_one_with_less() -> None:
    ph = []
    for acid in (2.0, 20.0, 59.0, 62.0, 130.0):
        bath = Bath(1000.0, 20.0, 60.0, acid, 500.0, 450.0)
        ph.append(at_rest(bath).ph.usual)
    assert ph == sorted(ph, reverse=True)
    assert ph[2] - ph[3] < 0.1


def test_whole_portions_come_out_of_a_batch_where_float_dust_says_less() -> None:
    for dose in (0.1, 0.7, 3.0, 17.0):
        made = 30 * dose / 0.97
        assert batch_of_sauce(made, dose, wanted=30).portions == 30


def test_a_ferment_keeps_most_of_itself() -> None:
    for kind, low, usual, high in (("cabbage", 0.75, 0.85, 0.92), ("cucumber", 0.88, 0.93, 0.97)):
        left = ferment(kind, 2000.0, temp_c=20.0).left_g  # type: ignore[arg-type]
        assert (left.low, left.usual, left.high) == pytest.approx((2000 * low, 2000 * usual, 2000 * high))


def test_bands_of_what_is_cooked_beside_the_meat_are_in_order() -> None:
    for rule in COOKED_BESIDE.values():
        assert list(rule.left_frac) == sorted(rule.left_frac)
        assert list(rule.minutes) == sorted(rule.minutes)
    assert COOKED_BESIDE["crisp-bacon"].minutes == (6.0, 8.0, 12.0)


def test_a_gram_of_liquid_can_be_thickened_and_simmers_five_to_ten_minutes() -> None:
    found = thickening(0.5, thickener="cornflour", body="thin")
    assert (found.minutes.low, found.minutes.usual, found.minutes.high) == (5.0, 5.0, 10.0)


def test_no_line_falls_below_half_of_what_it_is() -> None:
    sauce = [("mayonnaise", 100.0), ("ketchup", 300.0), ("relish", 20.0)]
    for handle in ("thicker", "richer", "looser"):
        found = nudge(sauce, handle, pantry=starter_pantry())  # type: ignore[arg-type]
        if found is not None:
            assert all(m.after_g >= 0.5 * m.before_g - 1e-6 for m in found.moved)
    small = nudge([("mayonnaise", 300.0), ("relish", 0.6)], "thicker", pantry=starter_pantry())
    assert small is None or all(m.after_g >= 0.5 * m.before_g - 1e-6 for m in small.moved)


# -------------------------------------------------------------------------------------------------------------- build


def _wet(*kinds: str) -> StackRemark:
    layers = tuple(StackLayer(k, toasted=True) for k in kinds)  # type: ignore[arg-type]
    found = compute(replace(smash(), stack=layers), inventory=INVENTORY, kitchen=KITCHEN).build_remarks
    return next(r for r in found if r.key == "wet-on-bread")


def test_what_is_wet_is_moved_one_place_inward_from_either_bread() -> None:
    below = _wet("heel", "tomato", "leaf", "patty", "cheese", "crown")
    assert [x.kind for x in below.mended] == ["heel", "leaf", "tomato", "patty", "cheese", "crown"]
    above = _wet("heel", "patty", "cheese", "leaf", "tomato", "crown")
    assert [x.kind for x in above.mended] == ["heel", "patty", "cheese", "tomato", "leaf", "crown"]
