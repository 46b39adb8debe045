"""Ways of cooking and rows of stages: all are gone through, or refused with a reason."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heat_formulas import FLAT_TWO, INVENTORY, KITCHEN, curve_of, edited
from vianda.core.basis.errors import CoreError, OutOfRangeError
from vianda.core.demo.formulas import beacon_grill, keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.equipment.kitchen import SurfaceKind
from vianda.core.heat.methods import all_methods, check_stages, fitted, fresh_stage, methods_for, stage_choices
from vianda.core.model.edit import Choose, Edit, SetFigure, SetStages
from vianda.core.model.formula import HeatStage
from vianda.core.model.styles import Form, all_styles, style_of


@pytest.mark.parametrize("key", sorted(all_styles()))
def test_every_ready_made_way_of_every_style_is_gone_through(key: str) -> None:
    start = {
        "burger": slipway_smash,
        "meatball": night_watch_balls,
        "meatloaf": keepers_loaf,
        "sauce": supply_boat_ragu,
    }
    formula = edited(start[style_of(key).dish](), Choose("style", key))
    surface = KITCHEN.surface(formula.heat.surface)
    for method in methods_for(style_of(key).form, surface, KITCHEN):
        curve = curve_of(formula, Choose("method", method.key))
        assert len(curve.stages) == len(method.stages)
        assert all(s.to_s >= s.from_s for s in curve.stages)


def test_every_way_belongs_to_some_style() -> None:
    forms = {s.form for s in all_styles().values()}
    assert all(set(m.forms) <= forms and m.stages and m.why for m in all_methods().values())


@pytest.mark.parametrize(
    ("stages", "says"),
    [
        ((HeatStage("surface", "time", 60.0),), "until the core"),
        ((HeatStage("surface", "time", 1.0), FLAT_TWO[1]), "5 s to 6 h"),
        ((HeatStage("surface", "core", temp_c=900.0),), "50 to 400"),
        ((HeatStage("simmer", "core", cheese=True),), "out of sauce and fat"),
        ((HeatStage("surface", "core", glaze=True),), "loaf"),
        ((HeatStage("surface", "core", turn_every_s=2.0),), "10 s"),
        (FLAT_TWO * 7, "at most 12"),
    ],
)
def test_stages_that_cannot_be_gone_through_are_refused(stages: tuple, says: str) -> None:
    with pytest.raises(OutOfRangeError, match=says):
        edited(slipway_smash(), SetStages(stages))


def test_a_loaf_is_not_flipped_and_a_kitchen_without_an_oven_bakes_nothing() -> None:
    with pytest.raises(OutOfRangeError, match="oven"):
        edited(keepers_loaf(), SetStages((HeatStage("fry", "core"),)))
    bare = replace(KITCHEN, surfaces=KITCHEN.surfaces[:2])
    with pytest.raises(OutOfRangeError, match="needs an oven"):
        apply_edit(slipway_smash(), SetStages((HeatStage("oven", "core"),)), inventory=INVENTORY, kitchen=bare)


def test_another_style_or_surface_lets_go_of_a_way_it_does_not_have() -> None:
    zoned = edited(beacon_grill(), Choose("method", "two-zones"))
    assert zoned.heat.method == "two-zones"
    assert edited(zoned, Choose("surface", "iron-pan")).heat.method == ""
    assert edited(zoned, Choose("style", "smashed")).heat.method == ""
    with pytest.raises(OutOfRangeError, match="not a way"):
        edited(slipway_smash(), Choose("method", "baked"))


STAGES = st.builds(
    HeatStage,
    kind=st.sampled_from(["chill", "freeze", "surface", "indirect", "smoke", "oven", "broiler", "fry", "simmer"]),
    until=st.sampled_from(["time", "two-fifths", "core"]),
    time_s=st.floats(0, 900),
    temp_c=st.none() | st.floats(40, 420),
    flip=st.booleans(),
    turn_every_s=st.sampled_from([0.0, 0.0, 30.0]),
    press=st.booleans(),
    cover=st.booleans(),
    cheese=st.booleans(),
    glaze=st.booleans(),
)

COLD = st.lists(
    st.builds(
        HeatStage,
        kind=st.sampled_from(["chill", "freeze"]),
        until=st.just("time"),
        time_s=st.floats(5, 6 * 3600),
        temp_c=st.none() | st.floats(-40, 12),
    ),
    max_size=2,
)


STARTS = {"smash": slipway_smash, "grill": beacon_grill, "loaf": keepers_loaf, "balls": night_watch_balls}


def _legal(stage: HeatStage, start: str) -> HeatStage:
    """The same without what this piece or this place does not take, so that most rows are gone through."""
    formula = STARTS[start]()
    form, on = style_of(formula.dish.style).form, KITCHEN.surface(formula.heat.surface).kind
    choices = {c.kind: c for c in stage_choices(form, on)}
    kind = stage.kind if stage.kind in choices and stage.kind not in ("chill", "freeze") else "oven"
    may = choices[kind]
    return replace(
        stage,
        kind=kind,
        until=stage.until if stage.until in may.ends else "core",
        time_s=max(5.0, stage.time_s),
        temp_c=None if stage.temp_c is None else min(400.0, max(50.0, stage.temp_c)),
        turn_every_s=stage.turn_every_s if "turn_every_s" in may.actions else 0.0,
        **{d: getattr(stage, d) and d in may.actions for d in ("flip", "press", "cover", "cheese", "glaze")},
    )


@given(st.sampled_from(sorted(STARTS)), st.lists(STAGES, min_size=1, max_size=3))
@settings(max_examples=40, deadline=None)
def test_a_row_of_stages_is_taken_or_refused_with_a_reason(start: str, stages: list[HeatStage]) -> None:
    try:
        assert edited(STARTS[start](), SetStages(tuple(stages))).heat.stages == tuple(stages)
    except CoreError as refusal:
        assert str(refusal)
        assert refusal.field.startswith("/heat/stages")


@given(
    st.sampled_from(sorted(STARTS)),
    COLD,
    st.lists(STAGES, min_size=0, max_size=3),
    STAGES,
    st.floats(46, 94),
    st.booleans(),
)
@settings(max_examples=60, deadline=None)
def test_any_row_of_stages_gives_numbers(
    start: str, cold: list[HeatStage], stages: list[HeatStage], last: HeatStage, target: float, frozen: bool
) -> None:
    row = (*cold, *(_legal(s, start) for s in (*stages, replace(last, until="core"))))
    edits: list[Edit] = [SetFigure("target_core_temp", target), SetStages(row)]
    if frozen:
        edits.append(Choose("firmness", "frozen"))
    curve = curve_of(edited(STARTS[start](), *edits))
    flat = [t for line in curve.temp_c for t in line] + list(curve.core_c) + list(curve.log10) + list(curve.surface_c)
    assert all(math.isfinite(t) for t in flat)
    assert max(t for line in curve.temp_c for t in line) < 500
    assert 0.15 < curve.yield_frac <= 1.0
    assert all(b >= a - 1e-9 for a, b in pairwise(curve.log10))
    assert curve.pull_s.usual == pytest.approx(curve.stages[-1].to_s)


@pytest.mark.parametrize("form", ["disc", "filled", "spread", "ball", "loaf", "tin", "tray", "crumbled"])
@pytest.mark.parametrize("on", ["plate", "pan", "grate", "oven"])
def test_what_is_offered_is_taken_and_what_is_not_is_refused(form: Form, on: SurfaceKind) -> None:
    offered = {(c.kind, d) for c in stage_choices(form, on) for d in c.actions}
    for choice in stage_choices(form, on):
        for action in ("flip", "press", "cover", "cheese", "glaze", "turn_every_s"):
            stage = replace(HeatStage(choice.kind, "core"), **{action: 60.0 if action == "turn_every_s" else True})
            if (choice.kind, action) in offered:
                check_stages((stage,), form=form, on=on, kitchen=KITCHEN)
                assert fitted((stage,), form, on) == (stage,)
            else:
                with pytest.raises(OutOfRangeError):
                    check_stages((stage,), form=form, on=on, kitchen=KITCHEN)
    check_stages((fresh_stage(form), HeatStage(fresh_stage(form).kind, "core")), form=form, on=on, kitchen=KITCHEN)


def test_a_press_is_let_go_where_a_kitchens_pan_becomes_a_grate() -> None:
    pressed = (HeatStage("surface", "core", press=True),)
    assert fitted(pressed, "disc", "pan") == pressed
    assert not fitted(pressed, "disc", "grate")[0].press
