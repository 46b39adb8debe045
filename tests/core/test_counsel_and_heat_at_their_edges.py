"""Counsel, heat, shape and sauce at the figures where their answers turn."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from scipy.special import ellipe

from formulas import mixed
from heat_formulas import FLAT_TWO, INVENTORY, KITCHEN, curve_of, edited
from vianda.core.basis.errors import OutOfRangeError
from vianda.core.counsel.rule import Counsel
from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, slipway_smash
from vianda.core.editing.set_shape import set_size, set_thickness, size_now
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.heat.case import CookCase
from vianda.core.heat.fit import Observed, ProbeReading, fit, model_cores
from vianda.core.heat.remarks import CRUST_FROM_C
from vianda.core.heat.run_setup import Overrides, setup_of
from vianda.core.inventory.fat_test import SAMPLE_SD_AT_100_G, fat_test
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.model.edit import Choose, SetFigure, SetStages
from vianda.core.model.formula import Formula, HeatStage, MixLine
from vianda.core.pipeline.compute import compute, prepare
from vianda.core.sauce.compose import MOST_G, scaled
from vianda.core.sauce.glaze import coat_g, showing_dm2
from vianda.core.sauce.nudge import HANDLES, nudge
from vianda.core.sauce.schools import sauce_schools
from vianda.core.sauce.swap import WATCHED, swaps_for
from vianda.core.sauce.tastes import taste_of
from vianda.core.shape.vessel import HEADSPACE_MM
from vianda.core.target.solve import solve
from vianda.core.target.wish import Candidate, Wish
from vianda.core.weighing.weighing_run import Kept, WeighingPlan, running

PANTRY = starter_pantry()


def _counsel(formula: Formula) -> dict[str, Counsel]:
    return {c.rule: c for c in evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN).counsel}


def _case(formula: Formula) -> CookCase:
    return prepare(formula, inventory=INVENTORY, kitchen=KITCHEN).case


# ------------------------------------------------------------------------------------------------------ tin and sizes


def _tinned(headspace_mm: float) -> Formula:
    formula = edited(keepers_loaf(), Choose("style", "loaf-tin"))
    vessel = compute(formula, inventory=INVENTORY, kitchen=KITCHEN).piece.shape.vessel
    assert vessel is not None
    mould = next(m for m in KITCHEN.moulds if m.key == formula.shape.mould)
    return set_thickness(formula, mould.height_mm - headspace_mm, inventory=INVENTORY, kitchen=KITCHEN)


@pytest.mark.parametrize(("room_mm", "said"), [(HEADSPACE_MM + 1.5, False), (HEADSPACE_MM - 1.5, True), (2.0, True)])
def test_a_tin_that_is_nearly_full_is_told(room_mm: float, said: bool) -> None:
    formula = _tinned(room_mm)
    vessel = compute(formula, inventory=INVENTORY, kitchen=KITCHEN).piece.shape.vessel
    assert vessel is not None
    assert vessel.headspace_mm == pytest.approx(room_mm, abs=0.8)
    told = [c for key, c in _counsel(formula).items() if "brim" in c.title.text]
    assert bool(told) is said


def test_a_tin_is_filled_to_its_brim_at_most() -> None:
    formula = edited(keepers_loaf(), Choose("style", "loaf-tin"))
    mould = next(m for m in KITCHEN.moulds if m.key == formula.shape.mould)
    set_thickness(formula, mould.height_mm, inventory=INVENTORY, kitchen=KITCHEN)
    for beyond in (0.5, 10.0):
        with pytest.raises(OutOfRangeError) as refused:
            set_thickness(formula, mould.height_mm + beyond, inventory=INVENTORY, kitchen=KITCHEN)
        assert refused.value.field == "/shape/thickness_mm"
        assert f"{mould.height_mm:.0f} mm" in refused.value.detail


@pytest.mark.parametrize(("figure", "wanted"), [("cooked_mass", 110.0), ("cooked_diameter", 105.0)])
def test_a_size_asked_of_the_cooked_piece_is_the_cooked_pieces(figure: str, wanted: float) -> None:
    formula = beacon_grill()
    after = set_size(formula, figure, wanted, inventory=INVENTORY, kitchen=KITCHEN)  # type: ignore[arg-type]
    assert size_now(after, figure, inventory=INVENTORY, kitchen=KITCHEN) == pytest.approx(wanted, rel=0.02)  # type: ignore[arg-type]
    piece = compute(after, inventory=INVENTORY, kitchen=KITCHEN).piece.shape
    cooked = piece.cooked_mass_g.usual if figure == "cooked_mass" else piece.cooked_diameter_mm.usual
    assert cooked == pytest.approx(wanted, rel=0.02)


# ------------------------------------------------------------------------------------------------------------- stages


@pytest.mark.parametrize(
    ("kind", "temp_c", "taken"),
    [
        ("freeze", -40.0, True),
        ("freeze", -40.5, False),
        ("chill", 12.0, True),
        ("chill", 12.5, False),
        ("indirect", 50.0, True),
        ("indirect", 49.0, False),
        ("indirect", 400.0, True),
        ("indirect", 401.0, False),
    ],
)
def test_a_stage_has_the_temperatures_of_its_kind(kind: str, temp_c: float, taken: bool) -> None:
    first = HeatStage(kind, "time", 600.0, temp_c=temp_c)  # type: ignore[arg-type]
    stages = (first, *FLAT_TWO)
    if taken:
        assert edited(harbour_light_pub(), SetStages(stages)).heat.stages[0].temp_c == temp_c
        return
    with pytest.raises(OutOfRangeError) as refused:
        edited(harbour_light_pub(), SetStages(stages))
    assert refused.value.field is not None
    assert refused.value.field.endswith("/temp_c")


@pytest.mark.parametrize("at_c", [CRUST_FROM_C - 1.0, CRUST_FROM_C + 1.0])
def test_a_plate_too_cool_for_a_crust_is_told_so(at_c: float) -> None:
    remark = next(
        r for r in curve_of(slipway_smash(), overrides=Overrides(surface_now_c=at_c)).remarks if r.key == "plate-cool"
    )
    assert ("little crust" in remark.reason.text) is (at_c < CRUST_FROM_C)


# ---------------------------------------------------------------------------------------------------------------- fit


@pytest.mark.parametrize("true", [0.85, 1.2])
def test_what_was_fitted_is_told_by_how_much_it_is_off(true: float) -> None:
    setup = setup_of(_case(harbour_light_pub()))
    real = replace(setup, factors=replace(setup.factors, k=setup.factors.k * true))
    moments = (150.0, 240.0, 330.0)
    readings = tuple(ProbeReading(t, c) for t, c in zip(moments, model_cores(real, moments), strict=True))
    found = fit(setup, Observed(readings))
    assert found.message.amounts["by"].value == pytest.approx(abs(found.factor - 1.0))
    assert ("faster" in found.message.text) is (true > 1.0)


def test_the_error_of_a_sample_falls_with_the_root_of_its_mass() -> None:
    def variance(raw_g: float) -> float:
        return fat_test(raw_g=raw_g, lean_g=0.6 * raw_g, fat_g=0.15 * raw_g, liquid_g=0, step_g=0.01).sd_frac ** 2

    # The scale's step is next to nothing here; what is left beside the sample is the same at any mass.
    by_hand = SAMPLE_SD_AT_100_G**2 * (100.0 / 150.0 - 100.0 / 600.0)
    assert variance(150.0) - variance(600.0) == pytest.approx(by_hand, rel=1e-4)
    assert variance(100.0) - variance(400.0) == pytest.approx(SAMPLE_SD_AT_100_G**2 * 0.75, rel=1e-4)


# -------------------------------------------------------------------------------------------------------------- sauce


@pytest.mark.parametrize("school", sorted(sauce_schools()))
def test_a_swap_tells_every_taste_that_will_be_noticed(school: str) -> None:
    lines = list(sauce_schools()[school].lines)
    before = taste_of(lines, pantry=PANTRY)
    for key, _ in lines:
        for found in swaps_for(lines, key, pantry=PANTRY):
            off = {
                name: abs(found.after.of(name) - before.of(name)) / max(least, frac * before.of(name))
                for name, (least, frac) in WATCHED.items()
            }
            assert set(found.missed) == {name for name, v in off.items() if v > 1.0 + 1e-6}
            assert found.miss == pytest.approx(max(off.values()))


def test_a_sauce_is_scaled_to_a_tonne_and_no_more() -> None:
    lines = (("mayonnaise", 150.0), ("ketchup", 50.0))
    assert math.fsum(g for _, g in scaled(lines, whole_g=MOST_G)) == pytest.approx(1e6)
    for given in ({"whole_g": 1e6 + 0.5}, {"ingredient": "ketchup", "mass_g": 1e6 + 0.5}, {"whole_g": 0.009}):
        with pytest.raises(OutOfRangeError):
            scaled(lines, **given)  # type: ignore[arg-type]


def test_the_arch_of_a_round_loaf_is_half_an_ellipse() -> None:
    formula = keepers_loaf()
    shape = compute(formula, inventory=INVENTORY, kitchen=KITCHEN).piece.shape
    elliptic = replace(shape, section_power=2.0)
    a, b = shape.width_mm / 2, shape.thickness_mm
    # The perimeter of an ellipse by the complete elliptic integral (SciPy), half of it over the base.
    big, small = max(a, b), min(a, b)
    arch = 2 * big * ellipe(1 - (small / big) ** 2)
    ends = math.pi / 4 * shape.width_mm * b
    area = arch * (shape.length_mm - 2 * shape.end_mm) + arch * shape.end_mm + ends
    assert showing_dm2(elliptic, "loaf", pieces=1) == pytest.approx(area / 1e4, rel=2e-3)


def test_a_coat_is_its_area_by_its_thickness() -> None:
    one, two = coat_g(4.0, coat_mm=0.5), coat_g(8.0, coat_mm=0.5)
    assert two.usual == pytest.approx(2 * one.usual)
    thick = coat_g(4.0, coat_mm=1.0)
    assert thick.usual == pytest.approx(2 * one.usual)


@pytest.mark.parametrize("only_add", [False, True])
def test_a_nudge_takes_some_out_where_it_may(only_add: bool) -> None:
    fewer = 0
    for school in sauce_schools().values():
        for handle in sorted(HANDLES):
            found = nudge(list(school.lines), handle, pantry=PANTRY, only_add=only_add)
            if found is None:
                continue
            fewer += any(m.after_g < m.before_g - 1e-6 for m in found.moved)
            assert all(m.after_g >= 0.5 * m.before_g - 1e-6 for m in found.moved)
    # Of all schools and words some are met by less of a thing; in the pot none can be.
    assert (fewer == 0) if only_add else (fewer > 5)


def test_the_guess_that_may_be_furthest_off_is_named_and_not_the_heaviest() -> None:
    wide, heavy = MixLine("honey", 0.02, uncertainty_frac=0.9), MixLine("olive-oil", 0.03, uncertainty_frac=0.4)
    for order in ((wide, heavy), (heavy, wide)):
        formula = mixed(lines=(*order, MixLine("milk", 0.3)))
        assert _counsel(formula)["mix.guessed"].title.amounts["what"].text == INVENTORY.pantry["honey"].name


# ----------------------------------------------------------------------------------------------------- packs and piles


@pytest.mark.parametrize(("pack_g", "trim"), [(500, 0.0), (500, 0.25), (800, 0.1), (1250, 0.4)])
def test_packs_are_bought_for_what_is_left_after_the_trim(pack_g: int, trim: float) -> None:
    chuck = replace(INVENTORY.meats["chuck"], pack_mass_g=pack_g, trim_loss_frac=trim)
    rib = replace(INVENTORY.meats["rib"], pack_mass_g=0)
    inventory = replace(INVENTORY, meats={**INVENTORY.meats, "chuck": chuck, "rib": rib})
    wish = Wish((Candidate("chuck", least_frac=0.5), Candidate("rib")), 0.15, 0.30, whole_packs=True)
    for answer in solve(wish, inventory=inventory, batch_mass_g=2000, step_g=1):
        at = answer.meats.index("chuck")
        assert answer.packs[at] == math.ceil(answer.masses_g[at] / (pack_g * (1.0 - trim)) - 1e-9)
        assert [n for k, n in zip(answer.meats, answer.packs, strict=True) if k == "rib"] in ([], [0])


def test_a_reading_set_aside_is_judged_by_the_piece_that_comes_next() -> None:
    # The third piece of three is heavier: 86 g against 85.
    plan = WeighingPlan("disc", 3, 85.0, 1, 86.0, False, 256.0, 0.0, 1, 5000, 2)
    targets = [plan.target_g(n) for n in (1, 2, 3)]
    assert len(set(targets)) == 2
    for before in range(3):
        kept = [Kept(n + 1, targets[n], 10 * n) for n in range(before)] + [Kept(9, 120.0, 99, "odd")]
        aside = running(plan, kept).records[-1]
        assert aside.number == 0
        assert aside.target_g == targets[before]
        assert aside.off_g == 120.0 - targets[before]


# ------------------------------------------------------------------------------------------------------------- bounds


@pytest.mark.parametrize(
    ("value", "taken"), [(80.0, True), (79.0, False), (400.0, True), (401.0, False), (-1.0, False), (1e308, False)]
)
def test_a_heat_beyond_any_surface_is_refused(value: float, taken: bool) -> None:
    if taken:
        edited(beacon_grill(), SetFigure("surface_temp", value))
        return
    with pytest.raises(OutOfRangeError):
        edited(beacon_grill(), SetFigure("surface_temp", value))
