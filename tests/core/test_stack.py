"""The build: its sizes add up, its edits keep to their bounds, and what it brings counts once."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from formulas import blended, smash
from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.basis.errors import OutOfRangeError, UnknownItemError, UnreadableEntryError
from vianda.core.demo.formulas import harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.model.edit import PutBeside, SetStack, TakeBeside, TypeBeside
from vianda.core.model.formula import MOST_BESIDE, MOST_LAYERS, Accompaniment, Formula, StackLayer
from vianda.core.pipeline.compute import compute
from vianda.core.pipeline.figures import BesideSheet
from vianda.core.stack.layers import BITE_MM, BITE_MOST_MM, BREADS, KINDS, moved
from vianda.core.stack.rules import StackRemark, remarks_on_build

SOUND = (
    StackLayer("heel", toasted=True),
    StackLayer("sauce", "mayonnaise"),
    StackLayer("patty"),
    StackLayer("cheese", "processed-cheese"),
    StackLayer("patty"),
    StackLayer("onion", "onion"),
    StackLayer("sauce", "mayonnaise"),
    StackLayer("crown", toasted=True),
)


def _sheet(formula: Formula) -> BesideSheet:
    return evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN).beside


def _remarks(formula: Formula) -> tuple[StackRemark, ...]:
    return compute(formula, inventory=INVENTORY, kitchen=KITCHEN).build_remarks


kinds = st.sampled_from(sorted(KINDS))


@given(st.lists(kinds, min_size=1, max_size=MOST_LAYERS))
def test_a_build_adds_up_whatever_is_in_it(found: list) -> None:
    figures = compute(
        replace(slipway_smash(), stack=tuple(StackLayer(k) for k in found)), inventory=INVENTORY, kitchen=KITCHEN
    )
    build = figures.beside.build
    assert build.height_mm == pytest.approx(math.fsum(x.thickness_mm for x in build.layers))
    assert build.mass_g == pytest.approx(math.fsum(x.mass_g for x in build.layers))
    assert len(build.layers) == len(found)
    assert build.overhang_mm >= 0.0
    assert all(math.isfinite(x.width_mm) and x.width_mm > 0 for x in build.layers)
    # The bread of one build is one bread, however many slices it is cut into.
    bread = math.fsum(x.mass_g for x in build.layers if x.kind in BREADS)
    assert bread == pytest.approx(KITCHEN.bun("soft-100").mass_g) or not any(k in BREADS for k in found)
    # What mends a build keeps all that was in it, or adds to it.
    for remark in figures.build_remarks:
        if remark.mended:
            kept = [x.kind for x in remark.mended]
            assert all(kept.count(k) >= found.count(k) for k in set(found)), remark.key


@given(st.lists(kinds, min_size=2, max_size=12, unique=True), st.data())
def test_moving_a_layer_loses_none_and_can_be_undone(found: list, data: st.DataObject) -> None:
    stack = tuple(StackLayer(k) for k in found)
    at, to = (data.draw(st.integers(0, len(stack) - 1)) for _ in range(2))
    there = moved(stack, at, to)
    assert sorted(x.kind for x in there) == sorted(found)
    assert there[to] == stack[at]
    assert moved(there, to, at) == stack


@pytest.mark.parametrize(("at", "to"), [(-1, 0), (0, 3), (3, 0)])
def test_there_is_no_layer_outside_the_build(at: int, to: int) -> None:
    with pytest.raises(OutOfRangeError, match="3 layers"):
        moved((StackLayer("heel"), StackLayer("patty"), StackLayer("crown")), at, to)


def test_a_bite_is_comfortable_to_75_mm_and_tall_to_80() -> None:
    # Common practice, no published source.
    assert (BITE_MM, BITE_MOST_MM) == (75.0, 80.0)
    base = _sheet(replace(slipway_smash(), stack=SOUND)).build.height_mm
    for wanted, word in ((74.9, "comfortable"), (75.1, "tall"), (79.9, "tall"), (80.1, "too tall")):
        # 6 mm of an unnamed layer for each 20 g.
        spare = StackLayer("other", "", (wanted - base) / 6.0 * 20.0)
        assert _sheet(replace(slipway_smash(), stack=(*SOUND[:-1], spare, SOUND[-1]))).build.bite == word


def test_the_usual_build_follows_what_goes_with_it_and_says_that_it_is_usual() -> None:
    plain = _sheet(slipway_smash())
    assert plain.build.usual
    assert [x.kind for x in plain.stack] == ["heel", "patty", "patty", "crown"]
    assert _remarks(slipway_smash()) == ()
    sauced = _sheet(edited(slipway_smash(), PutBeside("burger-sauce", "mayonnaise")))
    assert [x.kind for x in sauced.stack] == ["heel", "sauce", "patty", "patty", "sauce", "crown"]
    # Half of the dose on each face.
    doses = [x.mass_g for x in sauced.build.layers if x.kind == "sauce"]
    assert doses == pytest.approx([10.0, 10.0])
    assert not _sheet(replace(slipway_smash(), stack=SOUND)).build.usual


def test_what_no_rule_speaks_of_is_silent() -> None:
    build = _sheet(replace(slipway_smash(), stack=SOUND)).build
    said = {r.key for r in remarks_on_build(SOUND, build, fat_frac=0.2)}
    assert said <= {"hangs-over"}


def test_a_loaf_is_not_stacked_and_no_rule_speaks_of_it() -> None:
    loaf = edited(keepers_loaf(), PutBeside("gravy", "stock"))
    assert _remarks(loaf) == ()
    assert _sheet(loaf).things[0].role == "gravy"


# --- what comes in counts once ---------------------------------------------------------------------------------------


def test_a_sauce_counts_by_its_dose_and_its_layers_do_not_count_again() -> None:
    bare = evaluate(slipway_smash(), inventory=INVENTORY, kitchen=KITCHEN).served
    sauced = edited(slipway_smash(), PutBeside("burger-sauce", "mayonnaise"))
    once = evaluate(sauced, inventory=INVENTORY, kitchen=KITCHEN).served
    stacked = evaluate(replace(sauced, stack=SOUND), inventory=INVENTORY, kitchen=KITCHEN).served
    c = INVENTORY.pantry["mayonnaise"].composition
    assert once.fat_g - bare.fat_g == pytest.approx(20.0 * c.fat_g_per_100g / 100.0)
    assert once.salt_g - bare.salt_g == pytest.approx(20.0 * c.salt_frac())
    assert once.sugars_g - bare.sugars_g == pytest.approx(20.0 * c.sugars_g_per_100g / 100.0)
    assert sum(t.key == "mayonnaise" for t in stacked.things) == 1
    # The cheese and the onion of the build are there, the sauce is not there twice.
    assert {t.key for t in stacked.things} >= {"processed-cheese", "onion", "mayonnaise"}
    cheese = INVENTORY.pantry["processed-cheese"].composition.fat_g_per_100g * KINDS["cheese"].mass_g / 100.0
    onion = INVENTORY.pantry["onion"].composition.fat_g_per_100g * KINDS["onion"].mass_g / 100.0
    assert stacked.fat_g - once.fat_g == pytest.approx(cheese + onion)


def test_what_goes_with_it_brings_its_allergens_and_breaks_limits() -> None:
    kept = replace(smash(), mix=replace(smash().mix, avoid=("no-egg",)))
    before = evaluate(kept, inventory=INVENTORY, kitchen=KITCHEN)
    after = evaluate(edited(kept, PutBeside("burger-sauce", "mayonnaise")), inventory=INVENTORY, kitchen=KITCHEN)
    assert not any(b.limit == "no-egg" for b in before.served.breaches)
    assert [(b.kind, b.key) for b in after.served.breaches if b.limit == "no-egg"] == [("sauce", "mayonnaise")]
    assert "egg" in {a.name for a in after.served.allergens}
    cheesy = replace(kept, mix=replace(kept.mix, avoid=("no-dairy",)), stack=SOUND)
    found = evaluate(cheesy, inventory=INVENTORY, kitchen=KITCHEN).served.breaches
    assert ("layer", "processed-cheese") in [(b.kind, b.key) for b in found]


def test_its_cost_is_that_of_what_is_made() -> None:
    sauced = edited(slipway_smash(), PutBeside("burger-sauce", "mayonnaise"))
    more = edited(sauced, TypeBeside("mayonnaise", "made", "2 kg"))
    price = float(INVENTORY.pantry["mayonnaise"].price_per_kg)
    costs = [
        float(evaluate(f, inventory=INVENTORY, kitchen=KITCHEN).served.cost) for f in (slipway_smash(), sauced, more)
    ]
    assert costs[1] - costs[0] == pytest.approx(0.4 * price)
    assert costs[2] - costs[0] == pytest.approx(2.0 * price)


def test_balls_in_a_sauce_that_is_named_count_it() -> None:
    balls = night_watch_balls()
    assert evaluate(balls, inventory=INVENTORY, kitchen=KITCHEN).served.simmered
    named = edited(balls, PutBeside("cooking-sauce", "pasta-sauce"))
    served = evaluate(named, inventory=INVENTORY, kitchen=KITCHEN).served
    assert not served.simmered
    assert next(t.eaten_g for t in served.things if t.key == "pasta-sauce") == pytest.approx(90.0 * balls.dish.guests)


# --- edits -----------------------------------------------------------------------------------------------------------


def test_a_thing_is_put_dosed_and_taken_away() -> None:
    formula = edited(slipway_smash(), PutBeside("burger-sauce", "mayonnaise"))
    assert formula.beside == (Accompaniment("burger-sauce", "mayonnaise", 20.0),)
    formula = edited(formula, TypeBeside("mayonnaise", "dose", "1 tbsp"), TypeBeside("mayonnaise", "made", "1 kg"))
    assert formula.beside[0].dose_g == pytest.approx(INVENTORY.pantry["mayonnaise"].g_per_cup / 16, rel=0.01)
    assert formula.beside[0].made_g == 1000.0
    # For another role it takes that role's usual dose, and keeps what is made.
    formula = edited(formula, PutBeside("topping", "mayonnaise"))
    assert formula.beside == (Accompaniment("topping", "mayonnaise", 20.0, 1000.0),)
    assert edited(formula, TakeBeside("mayonnaise")).beside == ()


def test_taking_a_sauce_away_takes_its_layers_too_and_nothing_else() -> None:
    formula = edited(replace(slipway_smash(), stack=SOUND), PutBeside("burger-sauce", "mayonnaise"))
    left = edited(formula, TakeBeside("mayonnaise")).stack
    assert [x.kind for x in left] == [x.kind for x in SOUND if x.kind != "sauce"]


def test_a_glaze_has_coats_and_they_are_counted() -> None:
    formula = edited(keepers_loaf(), PutBeside("glaze", "ketchup"), TypeBeside("ketchup", "coats", "three"))
    assert formula.beside[0].coats == 3
    assert edited(formula, TypeBeside("ketchup", "coats", "12")).beside[0].coats == 12
    for text in ("13", "-1"):
        with pytest.raises(OutOfRangeError):
            edited(formula, TypeBeside("ketchup", "coats", text))


@pytest.mark.parametrize(
    ("edit", "error"),
    [
        (PutBeside("burger-sauce", "unicorn"), UnknownItemError),
        (TakeBeside("mayonnaise"), UnknownItemError),
        (TypeBeside("mayonnaise", "dose", "20 g"), UnknownItemError),
        (SetStack((StackLayer("other", "unicorn"),)), UnknownItemError),
        (SetStack((StackLayer("other", "", 2001.0),)), OutOfRangeError),
        (SetStack((StackLayer("patty"),) * (MOST_LAYERS + 1)), OutOfRangeError),
    ],
)
def test_edits_that_cannot_be_are_refused_by_name(edit: object, error: type[Exception]) -> None:
    with pytest.raises(error):
        edited(slipway_smash(), edit)


@pytest.mark.parametrize("text", ["", "a lot", "🍔", "6 kg", "-20 g", "NaN"])
def test_a_dose_that_is_none_is_refused(text: str) -> None:
    formula = edited(slipway_smash(), PutBeside("burger-sauce", "mayonnaise"))
    with pytest.raises((UnreadableEntryError, OutOfRangeError)):
        edited(formula, TypeBeside("mayonnaise", "dose", text))


def test_there_is_room_for_twelve_and_not_for_one_more() -> None:
    keys = [k for k, i in INVENTORY.pantry.items() if i.group in ("sauce", "vegetable")][: MOST_BESIDE + 1]
    formula = edited(slipway_smash(), *(PutBeside("topping", k) for k in keys[:MOST_BESIDE]))
    assert len(formula.beside) == MOST_BESIDE
    with pytest.raises(OutOfRangeError, match="At most 12"):
        edited(formula, PutBeside("topping", keys[MOST_BESIDE]))
    # One that is there already only changes its role.
    assert len(edited(formula, PutBeside("side", keys[0])).beside) == MOST_BESIDE


def test_the_rail_says_what_goes_with_it_and_how_high_it_is() -> None:
    rail = {s.step: s for s in evaluate(harbour_light_pub(), inventory=INVENTORY, kitchen=KITCHEN).rail}
    assert rail["sauce"].number == 6
    assert rail["sauce"].answer.text == "Nothing yet"
    sauced = edited(harbour_light_pub(), PutBeside("burger-sauce", "mayonnaise"))
    said = {s.step: s for s in evaluate(sauced, inventory=INVENTORY, kitchen=KITCHEN).rail}["sauce"].answer
    assert said.amounts["things"].text == "Mayonnaise"
    assert said.amounts["h"].value > 40.0


def test_a_rich_patty_wants_something_sharp_from_18_per_cent() -> None:
    stack = (StackLayer("heel", toasted=True), StackLayer("patty"), StackLayer("crown", toasted=True))
    build = _sheet(replace(smash(parts=blended(ground_80=1.0)), stack=stack)).build
    for fat, speaks in ((0.179, False), (0.181, True)):
        said = {r.key for r in remarks_on_build(stack, build, fat_frac=fat)}
        assert ("nothing-sharp" in said) is speaks
