"""Two edits of one formula put together."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heat_formulas import INVENTORY, KITCHEN
from vianda.core.comparing.merging import merged
from vianda.core.demo.formulas import DEMO_FORMULAS, keepers_loaf, slipway_smash
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.model.edit import Choose, SetFigure
from vianda.core.model.formula import Formula, MixLine

BASE, LOAF = slipway_smash(), keepers_loaf()


def _merge(base: Formula, mine: Formula, theirs: Formula, **more):
    return merged(base, mine, theirs, inventory=INVENTORY, **more)


def _with(formula: Formula, **sections) -> Formula:
    return replace(formula, **{name: replace(getattr(formula, name), **given) for name, given in sections.items()})


def test_what_each_changed_alone_comes_together() -> None:
    mine = _with(BASE, seasoning={"salt_frac": 0.013}, shape={"thickness_mm": 7.0})
    theirs = _with(replace(BASE, remark="hotter"), heat={"surface_temp_c": 250.0}, dish={"guests": 30})
    done = _merge(BASE, mine, theirs)
    assert done.clashes == ()
    both = done.formula
    assert (both.seasoning.salt_frac, both.shape.thickness_mm) == (0.013, 7.0)
    assert (both.remark, both.heat.surface_temp_c, both.dish.guests) == ("hotter", 250.0, 30)
    assert {line.what for line in done.mine} == {"Salt of the meat", "Thickness"}
    assert {line.what for line in done.theirs} == {"Remark", "Surface", "Guests"}


def test_what_both_changed_otherwise_is_told_and_stands_as_preferred() -> None:
    mine, theirs = _with(BASE, seasoning={"salt_frac": 0.013}), _with(BASE, seasoning={"salt_frac": 0.009})
    for prefer, salt in (("mine", 0.013), ("theirs", 0.009)):
        done = _merge(BASE, mine, theirs, prefer=prefer)
        [clash] = done.clashes
        assert clash.what == "Salt of the meat"
        assert done.formula.seasoning.salt_frac == salt
    # The same change twice is none that clashes.
    assert _merge(BASE, mine, mine).clashes == ()


def test_shares_go_together_so_that_they_sum_to_one() -> None:
    first, second, third = BASE.parts
    mine = replace(BASE, parts=(replace(first, share_frac=0.65), replace(second, share_frac=0.15), third))
    theirs = replace(BASE, parts=(first, replace(second, share_frac=0.15), replace(third, share_frac=0.30)))
    done = _merge(BASE, mine, theirs)
    assert [clash.what for clash in done.clashes] == ["Shares of the meats"]
    assert sum(part.share_frac for part in done.formula.parts) == pytest.approx(1.0)
    # A lot is no share: one changed the shares, the other the lot.
    lots = replace(BASE, parts=(first, second, replace(third, locked=True)))
    both = _merge(BASE, mine, lots)
    assert both.clashes == ()
    assert (both.formula.parts[0].share_frac, both.formula.parts[2].locked) == (0.65, True)


def test_lines_of_the_mix_come_and_go_one_by_one() -> None:
    first, *rest = LOAF.mix.lines
    mine = _with(LOAF, mix={"lines": tuple(rest)})
    theirs = _with(LOAF, mix={"lines": (*LOAF.mix.lines, MixLine("parsley", 0.01)), "soak_min": 25.0})
    done = _merge(LOAF, mine, theirs)
    kept = [line.ingredient for line in done.formula.mix.lines]
    assert first.ingredient not in kept
    assert "parsley" in kept
    assert done.formula.mix.soak_min == 25.0
    more = _with(LOAF, mix={"lines": (replace(first, per_meat_frac=first.per_meat_frac + 0.01), *rest)})
    [clash] = _merge(LOAF, mine, more).clashes
    assert INVENTORY.pantry[first.ingredient].name.lower() in clash.what.lower()


def test_guests_and_weights_follow_from_one_another_and_go_together() -> None:
    mine = apply_edit(BASE, SetFigure("guests", 30), inventory=INVENTORY, kitchen=KITCHEN)
    theirs = apply_edit(BASE, SetFigure("piece_mass", 90.0), inventory=INVENTORY, kitchen=KITCHEN)
    done = _merge(BASE, mine, theirs)
    assert [clash.what for clash in done.clashes] == ["For how many, and how heavy"]
    assert done.formula.dish.guests == 30
    assert done.formula.shape.piece_mass_g == BASE.shape.piece_mass_g


def test_nothing_of_one_side_leaves_the_other_as_it_is() -> None:
    for make in DEMO_FORMULAS:
        formula = make()
        changed = replace(formula, remark="changed")
        assert _merge(formula, changed, formula).formula == changed
        assert _merge(formula, formula, changed).formula == changed
        assert _merge(formula, formula, formula).formula == formula


EDITS = st.sampled_from(
    [
        SetFigure("guests", 12), SetFigure("salt", 0.014), SetFigure("thickness", 9.0),
        SetFigure("surface_temp", 230.0), SetFigure("target_core_temp", 68.0), Choose("style", "thick"),
        Choose("style", "grilled"), SetFigure("piece_mass", 120.0),
    ]
)  # fmt: skip


@settings(max_examples=25)
@given(st.lists(EDITS, max_size=3), st.lists(EDITS, max_size=3))
def test_any_two_runs_of_edits_come_together_and_can_be_worked_out(ours: list, others: list) -> None:
    def made(edits: list) -> Formula:
        formula = BASE
        for edit in edits:
            formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
        return formula

    mine, theirs = made(ours), made(others)
    done = _merge(BASE, mine, theirs)
    evaluate(done.formula, inventory=INVENTORY, kitchen=KITCHEN)
    if not done.clashes:
        # Without a clash it does not matter who came first.
        assert _merge(BASE, theirs, mine).formula == done.formula
    assert _merge(BASE, mine, mine).formula == mine
