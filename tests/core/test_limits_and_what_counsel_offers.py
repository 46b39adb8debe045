"""What a kept limit says of each kind of thing, and the changes that counsel offers for it."""

from __future__ import annotations

from dataclasses import replace

import pytest

from formulas import blended, lines, mixed, smash
from heat_formulas import INVENTORY, KITCHEN, edited
from vianda.core.blend.shares import remove_meat, set_share
from vianda.core.counsel.rule import Counsel
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.heat.after import afterwards
from vianda.core.model.edit import Choose, KeepLimit, SetStack, SetStages, TakeBeside, TakeOut
from vianda.core.model.formula import Accompaniment, BlendPart, Formula, HeatStage, StackLayer
from vianda.core.pipeline.compute import prepare

FRY = HeatStage("fry", "core")


def _of(formula: Formula) -> Evaluation:
    return evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN)


def _said(formula: Formula, rule: str) -> Counsel | None:
    return next((c for c in _of(formula).counsel if c.rule == rule), None)


def _keeps(formula: Formula, *limits: str) -> Formula:
    return edited(formula, *(KeepLimit(limit, True) for limit in limits))  # type: ignore[arg-type]


# --- a single thing kept out -----------------------------------------------------------------------------------------


def _without(formula: Formula, key: str) -> Formula:
    return replace(formula, mix=replace(formula.mix, without=(key,)))


def test_a_line_kept_out_is_named_and_can_be_taken_out() -> None:
    found = _said(_without(mixed(lines=lines(egg=8, panko=8)), "egg"), "mix.without")
    assert found is not None
    assert [c.edit for c in found.changes] == [TakeOut("egg")]
    assert _said(_without(mixed(lines=lines(panko=8)), "egg"), "mix.without") is None


def test_a_line_at_nothing_is_not_in_it() -> None:
    assert _said(_without(mixed(lines=lines(egg=0, panko=8)), "egg"), "mix.without") is None
    assert _said(_keeps(mixed(lines=lines(egg=0, panko=8)), "no-egg"), "mix.no-egg") is None
    assert _said(_keeps(mixed(lines=lines(egg=1, panko=8)), "no-egg"), "mix.no-egg") is not None


def test_a_meat_kept_out_is_named_while_it_has_a_share() -> None:
    half = smash(parts=blended(chuck=0.5, round=0.5))
    found = _said(_without(half, "round"), "mix.without")
    assert found is not None
    assert "blend" in found.title.text
    assert found.changes == ()
    nothing = smash(parts=blended(chuck=1.0, round=0.0))
    assert _said(_without(nothing, "round"), "mix.without") is None


def test_what_goes_with_it_and_what_is_laid_on_can_be_left_out() -> None:
    sauced = replace(smash(), beside=(Accompaniment("burger-sauce", "mayonnaise", 20.0),))
    found = _said(_without(sauced, "mayonnaise"), "mix.without")
    assert found is not None
    assert [c.edit for c in found.changes] == [TakeBeside("mayonnaise")]
    layers = (StackLayer("heel"), StackLayer("patty"), StackLayer("cheese", "cheddar"), StackLayer("crown"))
    found = _said(_without(replace(smash(), stack=layers), "cheddar"), "mix.without")
    assert found is not None
    assert [c.edit for c in found.changes] == [SetStack((layers[0], layers[1], layers[3]))]


@pytest.mark.parametrize("kind", ["cheese", "glaze"])
def test_what_a_stage_puts_on_can_be_left_off_and_the_rest_of_the_stage_stays(kind: str) -> None:
    if kind == "cheese":
        base, stage, limit = smash(cheese="cheddar"), HeatStage("surface", "core", cheese=True, press=True), "no-dairy"
    else:
        base = mixed(style="loaf-free", lines=lines(egg=8), glaze="soy-sauce")
        stage, limit = HeatStage("oven", "core", glaze=True), "no-soy"
    formula = _keeps(edited(base, SetStages((stage,))), limit)
    found = _said(formula, f"mix.{limit}")
    assert found is not None
    assert [c.edit for c in found.changes] == [SetStages((replace(stage, **{kind: False}),))]
    assert _said(edited(formula, found.changes[0].edit), f"mix.{limit}") is None


def test_fat_in_the_pan_can_be_another_or_none_and_fat_to_fry_in_only_another() -> None:
    found = _said(_keeps(smash(fat="butter"), "no-dairy"), "mix.no-dairy")
    assert found is not None
    edits = [c.edit for c in found.changes]
    assert edits[-1] == Choose("fat", "")
    assert len(edits) == 2
    fried = edited(mixed(lines=lines(panko=8), parts=blended(chuck=1.0), fat="bacon-fat"), SetStages((FRY,)))
    found = _said(_keeps(fried, "no-pork"), "mix.no-pork")
    assert found is not None
    assert found.changes
    assert Choose("fat", "") not in [c.edit for c in found.changes]


def test_another_bread_is_never_the_one_that_lies_there() -> None:
    # A bread of the same allergens under another key is no way out; one without them is, of the same kind first.
    now = KITCHEN.bun(smash().shape.bun)
    free = replace(now, key="aa-free", name="Free", allergens=())
    flat = replace(now, key="ab-flat", name="Flat", allergens=(), kind="flatbread")
    kitchen = replace(KITCHEN, buns=(flat, free, *KITCHEN.buns))
    found = next(
        c
        for c in evaluate(_keeps(smash(), "no-gluten"), inventory=INVENTORY, kitchen=kitchen).counsel
        if c.rule == "mix.no-gluten"
    )
    assert [c.edit for c in found.changes] == [Choose("bun", "aa-free")]
    own = replace(KITCHEN, buns=tuple(replace(b, allergens=("gluten (wheat)",)) for b in KITCHEN.buns))
    found = next(
        c
        for c in evaluate(_keeps(smash(), "no-gluten"), inventory=INVENTORY, kitchen=own).counsel
        if c.rule == "mix.no-gluten"
    )
    assert found.changes == ()


def test_for_a_tortilla_another_tortilla_comes_before_a_bun_of_its_width() -> None:
    taco = replace(smash(), shape=replace(smash().shape, bun="tortilla-150"))
    now = KITCHEN.bun("tortilla-150")
    near = replace(now, key="near-bun", name="Near bun", allergens=(), kind="bun")
    far = replace(now, key="far-tortilla", name="Far tortilla", allergens=(), diameter_mm=now.diameter_mm + 60)
    found = next(
        c
        for c in evaluate(
            _keeps(taco, "no-gluten"), inventory=INVENTORY, kitchen=replace(KITCHEN, buns=(near, far, *KITCHEN.buns))
        ).counsel
        if c.rule == "mix.no-gluten"
    )
    assert [c.edit for c in found.changes] == [Choose("bun", "far-tortilla")]


def test_a_limit_without_a_usual_swap_says_to_leave_it_out() -> None:
    found = _said(_keeps(mixed(lines=lines(sesame_seed=2)), "no-sesame"), "mix.no-sesame")
    assert found is not None
    reason = found.reason.amounts["reason"].text
    assert reason is not None
    assert reason.startswith("Without it")
    assert [c.edit for c in found.changes] == [TakeOut("sesame-seed")]
    swapped = _said(_keeps(mixed(lines=lines(milk=10)), "no-dairy"), "mix.no-dairy")
    assert swapped is not None
    words = swapped.reason.amounts["reason"].text
    assert words is not None
    assert "no usual swap" not in words
    assert [c.edit.to for c in swapped.changes] == ["chicken-stock", "water"]  # type: ignore[union-attr]


# --- names, shares and what comes after ------------------------------------------------------------------------------


def _bars(formula: Formula, rule: str) -> dict[str, str]:
    found = evaluate(formula, inventory=INVENTORY, kitchen=replace(KITCHEN, naming_rule=rule))  # type: ignore[arg-type]
    return {n.name: n.bar for n in found.names}


def test_canada_names_no_pork_and_beef_as_ground_beef_whatever_else_is_in_it() -> None:
    both = mixed(lines=lines(panko=10), parts=blended(chuck=0.5, pork_shoulder=0.5))
    beef = mixed(lines=lines(panko=10), parts=blended(chuck=1.0))
    nearly = mixed(lines=lines(), parts=blended(chuck=0.999, pork_shoulder=0.001))
    assert _bars(both, "CA")["regular ground beef"] == "other-species"
    assert _bars(beef, "CA")["regular ground beef"] == "binder"
    assert _bars(nearly, "CA")["regular ground beef"] == "other-species"


def test_a_share_set_in_the_middle_leaves_the_ones_before_it_alone() -> None:
    parts = (BlendPart("a", 0.2, locked=True), BlendPart("b", 0.3), BlendPart("c", 0.5))
    found = set_share(parts, meat="c", share_frac=0.6)
    assert [p.share_frac for p in found] == pytest.approx([0.2, 0.2, 0.6])
    assert sum(p.share_frac for p in found) == 1.0
    first = set_share((BlendPart("a", 0.6), BlendPart("b", 0.3), BlendPart("c", 0.1)), meat="b", share_frac=0.3)
    assert [p.share_frac for p in first] == pytest.approx([0.6, 0.3, 0.1])


def test_a_meat_that_leaves_gives_its_share_to_the_others_alike() -> None:
    parts = (BlendPart("a", 0.2), BlendPart("b", 0.5), BlendPart("c", 0.3))
    found = remove_meat(parts, meat="c")
    assert [p.share_frac for p in found] == pytest.approx([2 / 7, 5 / 7])
    assert sum(p.share_frac for p in found) == 1.0


def test_the_juice_lost_while_held_is_what_an_hour_takes_and_no_more() -> None:
    case = prepare(smash(), inventory=INVENTORY, kitchen=KITCHEN).case
    hold = next(line for line in afterwards(case) if line.key == "hold")
    lost = hold.message.amounts["lost"].value
    # No more than the cupboard's air can boil off: 10 W/(m² K) by 10 K on two faces, of some 6.5 kg/m² of patty.
    assert 0.005 < lost < 2 * 10 * 10 * 3600 / 2.26e6 / 6.5 * 1.2
