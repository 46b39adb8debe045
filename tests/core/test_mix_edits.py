from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from formulas import lines, mixed
from vianda.core.basis.errors import CoreError
from vianda.core.batch.batch import batch_of
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.pantry import starter_pantry
from vianda.core.mix.panade import dry_matter_frac, panade_figures
from vianda.core.model import edit as e
from vianda.core.model.formula import Formula, MixLine

pytestmark = pytest.mark.usefixtures("by_practice")

INVENTORY, KITCHEN = starter_inventory(), yard_galley()
PANTRY = starter_pantry()


def _after(formula: Formula, *edits: e.Edit) -> Formula:
    for edit in edits:
        formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
    return formula


def _grams(formula: Formula) -> dict[str, float]:
    return {x.ingredient: x.mass_g for x in evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN).mix.lines}


@pytest.mark.parametrize("portioning", ["by_piece", "by_batch"])
def test_what_is_said_to_go_in_weighs_what_was_said(portioning: str) -> None:
    start = _after(mixed(lines=()), e.Choose("portioning", portioning))
    said = "1 1/2 cups fine dry crumbs, 300 g milk, 3 large eggs, 5 slices white bread"
    grams = _grams(_after(start, e.AddToMix(said)))
    meat = batch_of(start, inventory=INVENTORY, kitchen=KITCHEN).meat_mass_g
    # By batch the whole mix is what the scale shows: half a gram in two kilograms.
    close = 1e-9 if portioning == "by_piece" else 0.5 / 2000
    said_g = {"dry-crumbs": 162, "milk": 300, "egg": 150, "white-bread": 145}
    assert grams == {key: pytest.approx(g, rel=close) for key, g in said_g.items()}
    if portioning == "by_batch":
        after = batch_of(_after(start, e.AddToMix(said)), inventory=INVENTORY, kitchen=KITCHEN)
        # The meat stands; only the mix is rounded to the scale.
        assert after.meat_weighed_g == round(meat)


def test_more_of_the_same_is_added_to_it() -> None:
    formula = _after(mixed(lines=()), e.Choose("portioning", "by_batch"))
    formula = _after(formula, e.AddToMix("2 eggs"), e.AddToMix("1 egg, 40 g panko"))
    assert _grams(formula)["egg"] == pytest.approx(150, rel=0.5 / 2000)
    assert [x.ingredient for x in formula.mix.lines] == ["egg", "panko"]
    assert formula.mix.lines[0].counted


def test_salt_said_to_go_in_joins_the_salt_that_comes_along() -> None:
    formula = _after(mixed(lines=lines(parmesan=8), salt_frac=0.0, salt_place="none"), e.AddToMix("2 tsp fine salt"))
    salt = evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN).salt
    assert formula.seasoning.salt_place == "mixed"
    assert salt.batch_salt_g == pytest.approx(12, rel=0.01)
    cheese = INVENTORY.pantry["parmesan"].composition.salt_frac()
    assert salt.brought_g == pytest.approx(_grams(formula)["parmesan"] * cheese, rel=1e-6)
    assert all(x.ingredient != "salt-fine" for x in formula.mix.lines)


def test_an_amount_typed_into_a_line_is_read_in_any_measure() -> None:
    start = mixed(lines=lines(panko=8, milk=10, egg=8))
    formula = _after(start, e.TypeFigure("line", "1 cup", item="panko"))
    assert _grams(formula)["panko"] == pytest.approx(50)
    assert formula.mix.lines[0].uncertainty_frac == pytest.approx(0.12)
    formula = _after(
        formula, e.TypeFigure("line", "10 %", item="milk"), e.TypeFigure("line", "3 large eggs", item="egg")
    )
    assert _grams(formula)["egg"] == pytest.approx(150)
    assert next(x for x in formula.mix.lines if x.ingredient == "egg").counted


@pytest.mark.parametrize(
    ("edit", "says"),
    [
        (e.AddToMix("5 unicorns"), "names nothing"),
        (e.AddToMix("40 kg panko"), "more than"),
        (e.TypeFigure("line", "1 cup", item="butter"), ""),
        (e.TakeOut("butter"), "not in this mix"),
        (e.SwapIngredient("panko", "milk"), "in the mix already"),
        (e.SwapIngredient("panko", "salt-fine"), "its own place"),
        (e.PutIn("panko", 6.0), "five|5 times"),
        (e.PutIn("unicorn", 0.1), "holds no"),
        (e.SetFigure("group", 0.1, item="gravel"), "No group"),
        (e.SetFigure("line_temp", 200, item="panko"), "outside what the rules cover"),
        (e.Choose("mix_school", "grandmother"), "No school"),
        (e.Choose("work", "feet"), "by spoon"),
        (e.HoldLine("butter", True), "not in this mix"),
        (e.WeighBowl("800 g", ()), "at least once"),
        (e.WeighBowl("800 g", (e.BowlReading("panko", "900 g"),)), "meat goes in first"),
        (e.WeighBowl("800 g", (e.BowlReading("meat", "700 g"),)), "nothing leaves the bowl"),
        (e.WeighBowl("800 g", (e.BowlReading("meat", "800 g"),)), "no meat in the bowl"),
    ],
)
def test_what_makes_no_sense_is_refused_and_changes_nothing(edit: e.Edit, says: str) -> None:
    start = mixed(lines=lines(panko=8, milk=10, egg=8))
    if not says:
        assert "butter" in _grams(_after(start, edit))
        return
    with pytest.raises(CoreError, match=says):
        _after(start, edit)


@given(
    st.sampled_from(["panko", "dry-crumbs", "oats", "saltines", "fresh-crumbs", "crusty-bread"]),
    st.sampled_from(["panko", "dry-crumbs", "rye-crumbs", "gf-crumbs", "potato-flakes"]),
    st.floats(0.3, 2.4),
)
def test_a_crumb_swapped_keeps_its_dry_matter_and_the_state_of_the_panade(one: str, two: str, ratio: float) -> None:
    assume(one != two)
    start = mixed(lines=(MixLine(one, 0.08), MixLine("milk", 0.08 * ratio), MixLine("egg", 0.08)))
    done = _after(start, e.SwapIngredient(one, two))
    line = next(x for x in done.mix.lines if x.ingredient == two)
    assert line.per_meat_frac * dry_matter_frac(PANTRY[two]) == pytest.approx(0.08 * dry_matter_frac(PANTRY[one]))
    states = [
        panade_figures(batch_of(f, inventory=INVENTORY, kitchen=KITCHEN).entered, meat_mass_g=1000)
        for f in (start, done)
    ]
    if min(abs(states[0].ratio - edge) for edge in states[0].edges) > 1e-6 and states[1].ratio > 0:
        assert states[0].state == states[1].state


def test_a_liquid_swapped_brings_the_same_water() -> None:
    start = mixed(lines=lines(panko=8, milk=12, egg=8))
    done = _after(start, e.SwapIngredient("milk", "cream"))
    cream = next(x for x in done.mix.lines if x.ingredient == "cream").per_meat_frac
    water = {k: PANTRY[k].composition.water_g_per_100g for k in ("milk", "cream")}
    assert cream * water["cream"] == pytest.approx(0.12 * water["milk"])


def test_a_held_liquid_stays_when_the_crumb_is_swapped() -> None:
    start = mixed(lines=(MixLine("panko", 0.08), MixLine("milk", 0.12, locked=True), MixLine("egg", 0.08)))
    done = _after(start, e.SwapIngredient("panko", "dry-crumbs"))
    assert next(x for x in done.mix.lines if x.ingredient == "milk").per_meat_frac == 0.12


def test_the_bowl_weighed_again_says_what_went_in() -> None:
    readings = (("meat", "2320"), ("panko", "2440"), ("milk", "2,62 kg"), ("egg", "2720 g"), ("salt", "2742 g"))
    start = mixed(lines=lines(pepper=0.3, egg=8))
    formula = _after(start, e.WeighBowl("820 g", tuple(e.BowlReading(w, s) for w, s in readings)))
    evaluation = evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN)
    assert formula.shape.batch_mass_g == 1500
    # What was not read did not go in.
    assert [x.ingredient for x in formula.mix.lines] == ["panko", "milk", "egg"]
    assert evaluation.blend.batch_mass_g == 1500
    # The scale shows whole grams, so the mix is rounded to one: within half a gram of what was read.
    grams = _grams(formula)
    assert [grams[k] for k in ("panko", "milk", "egg")] == pytest.approx([120, 180, 100], abs=0.1)
    assert evaluation.salt.batch_salt_g == pytest.approx(22, abs=0.1)
    assert evaluation.portions.batch_mass_g == 1922
    panko = next(x for x in formula.mix.lines if x.ingredient == "panko")
    assert panko.uncertainty_frac == pytest.approx(1 / 2**0.5 / 120)


@settings(max_examples=80)
@given(st.integers(2, 40), st.sampled_from(["ball-baked", "loaf-free", "ragu", "smashed"]))
def test_scaling_up_and_back_changes_nothing(times: int, style: str) -> None:
    start = mixed(style=style, guests=14)
    bigger = _after(start, e.SetFigure("guests", 14 * times))
    back = _after(bigger, e.SetFigure("guests", 14))
    assert back == start
    one, many = (evaluate(f, inventory=INVENTORY, kitchen=KITCHEN) for f in (start, bigger))
    ratio = many.portions.batch_mass_g / one.portions.batch_mass_g
    for small, large in zip(one.mix.lines, many.mix.lines, strict=True):
        assert large.per_meat_frac == small.per_meat_frac
        assert large.mass_g == pytest.approx(small.mass_g * ratio, rel=1e-9)
    assert many.mix.whole.fat_frac == pytest.approx(one.mix.whole.fat_frac, rel=1e-12)
    assert many.mix.bind == one.mix.bind


def test_a_limit_is_kept_once_and_dropped_again() -> None:
    formula = _after(
        mixed(), e.KeepLimit("no-dairy", True), e.KeepLimit("no-dairy", True), e.KeepLimit("no-pork", True)
    )
    assert formula.mix.avoid == ("no-dairy", "no-pork")
    assert _after(formula, e.KeepLimit("no-dairy", False)).mix.avoid == ("no-pork",)


def test_another_dish_starts_with_its_school_and_keeps_what_is_held() -> None:
    start = mixed(style="smashed", lines=(MixLine("paprika", 0.01, locked=True),))
    loaf = _after(start, e.Choose("style", "loaf-free"))
    keys = [x.ingredient for x in loaf.mix.lines]
    assert {"paprika", "panko", "milk", "egg"} <= set(keys)
    assert loaf.seasoning.salt_place == "mixed"
    assert loaf.dish.dish == "meatloaf"
    tray = _after(start, e.Choose("style", "loaf-tray"))
    assert evaluate(tray, inventory=INVENTORY, kitchen=KITCHEN).mix.resemblance.nearest == "custard-tray-loaf"


def test_a_filled_loaf_holds_eggs_and_its_floor_is_that_of_stuffed_meat() -> None:
    filled = _after(mixed(style="smashed"), e.Choose("style", "loaf-filled"))
    evaluation = evaluate(filled, inventory=INVENTORY, kitchen=KITCHEN)
    assert any(x.ingredient == "boiled-egg" for x in filled.mix.lines)
    assert evaluation.heat.floors.leading.key == "food-code-stuffed"
    assert filled.heat.target_core_temp_c == pytest.approx(evaluation.heat.floors.leading.temp_c)
    plain = _after(filled, e.Choose("style", "loaf-free"))
    assert all(x.ingredient != "boiled-egg" for x in plain.mix.lines)


EDITS = (
    st.builds(e.AddToMix, text=st.sampled_from(["2 eggs", "1/3 cup panko", "a glug of olive oil", "1 kg milk", "no"]))
    | st.builds(
        e.SetFigure,
        figure=st.sampled_from(["group"]),
        value=st.floats(-1, 6),
        item=st.sampled_from(["crumb", "liquid", "egg", "cheese", "onion", "tomato", "x"]),
    )
    | st.builds(e.SetFigure, figure=st.just("panade"), value=st.floats(0, 9))
    | st.builds(e.PutIn, ingredient=st.sampled_from(["panko", "ketchup", "bacon"]), per_meat_frac=st.floats(0, 6))
    | st.builds(e.TakeOut, ingredient=st.sampled_from(["panko", "milk", "egg"]))
    | st.builds(
        e.SwapIngredient,
        ingredient=st.sampled_from(["panko", "milk", "egg"]),
        to=st.sampled_from(["dry-crumbs", "water", "olive-oil", "", "yolk"]),
    )
    | st.builds(
        e.Choose,
        field=st.just("mix_school"),
        key=st.sampled_from(sorted(["purist", "mixed-in", "cheese-ball", "custard-tray-loaf", "milk-sauce"])),
    )
    | st.builds(
        e.Choose,
        field=st.just("style"),
        key=st.sampled_from(
            ["smashed", "ball-baked", "ball-simmered", "loaf-free", "loaf-tin", "loaf-tray", "loaf-filled", "ragu"]
        ),
    )
    | st.builds(e.SetFigure, figure=st.just("salt"), value=st.floats(0, 0.05))
    | st.builds(e.Choose, field=st.just("portioning"), key=st.sampled_from(["by_piece", "by_batch"]))
)


@settings(max_examples=120)
@given(st.lists(EDITS, max_size=8))
def test_any_run_of_changes_answers_or_refuses_and_the_masses_close(edits: list[e.Edit]) -> None:
    formula = mixed()
    for edit in edits:
        try:
            changed = _after(formula, edit)
            evaluation = evaluate(changed, inventory=INVENTORY, kitchen=KITCHEN)
        except CoreError as refused:
            assert refused.detail
            continue
        formula = changed
        whole, portions = evaluation.mix.whole, evaluation.portions
        assert whole.mass_g == pytest.approx(portions.batch_mass_g, rel=1e-9)
        worked_in = evaluation.salt.batch_salt_g if evaluation.salt.salt_place == "mixed" else 0.0
        parts = whole.meat_g + sum(x.mass_g for x in evaluation.mix.lines) + worked_in
        assert parts == pytest.approx(whole.mass_g, rel=1e-9)
        light = portions.pieces - portions.heavier_pieces
        assert (
            light * portions.piece_mass_g + portions.heavier_pieces * portions.heavier_mass_g == portions.batch_mass_g
        )
        assert replace(formula) == formula
