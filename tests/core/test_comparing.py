"""Two versions side by side: what differs, and how sure the difference of their cooks is."""

from __future__ import annotations

from dataclasses import replace

import pytest
from scipy import stats

from vianda.core.comparing.differences import Difference, differences, made_alike
from vianda.core.comparing.outcomes import compared
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.model.formula import BlendPart, HeatStage, Timing

SMASH = slipway_smash()


def _found(inventory, after) -> dict[str, Difference]:
    return {d.what: d for d in differences(SMASH, after, inventory=inventory)}


def test_one_change_is_said_with_both_of_its_figures(inventory) -> None:
    hotter = replace(SMASH, heat=replace(SMASH.heat, surface_temp_c=260.0))
    [one] = differences(SMASH, hotter, inventory=inventory)
    assert (one.step, one.what) == ("Heat", "Surface")
    assert one.before.amounts["x"].value == SMASH.heat.surface_temp_c
    assert (one.after.amounts["x"].kind, one.after.amounts["x"].value) == ("temp_c", 260.0)


def test_meats_are_named_and_what_comes_or_goes_is_said(inventory) -> None:
    parts = (BlendPart("chuck", 0.6, lot="norquay"), BlendPart("brisket-flat", 0.2), BlendPart("round", 0.2))
    found = _found(inventory, replace(SMASH, parts=parts))
    assert found["Chuck, share"].after.amounts["x"].value == 0.6
    assert found["Chuck, lot"].after.amounts["x"].text == "norquay"
    assert found["Plate short rib"].after.text == "none"
    assert found["Round"].before.text == "none"
    assert "Brisket flat, share" not in found


def test_stages_are_said_in_their_order(inventory) -> None:
    stages = (HeatStage("surface", "two-fifths"), HeatStage("surface", "core", flip=True))
    found = _found(inventory, replace(SMASH, heat=replace(SMASH.heat, stages=stages)))
    assert found["Stages"].after.amounts["x"].text == "surface two fifths, surface core turned"
    assert found["Stages"].before.text == "none"


def test_what_does_not_decide_how_it_comes_out_is_no_difference(inventory) -> None:
    other = replace(
        SMASH,
        name="Another name",
        remark="Said",
        timing=Timing(ready_min=600),
        dish=replace(SMASH.dish, guests=3, spare_pieces=2),
        parts=tuple(replace(p, locked=True) for p in SMASH.parts),
    )
    assert differences(SMASH, other, inventory=inventory) == ()
    assert made_alike(SMASH, other)
    saltier = replace(other, seasoning=replace(SMASH.seasoning, salt_frac=0.012))
    assert not made_alike(SMASH, saltier)


def test_a_batch_at_hand_is_part_of_the_design(inventory) -> None:
    by_batch = replace(SMASH, shape=replace(SMASH.shape, portioning="by_batch", batch_mass_g=3000.0))
    assert not made_alike(by_batch, replace(by_batch, shape=replace(by_batch.shape, batch_mass_g=3100.0)))
    assert made_alike(SMASH, replace(SMASH, shape=replace(SMASH.shape, batch_mass_g=9999.0)))


def test_two_dishes_differ_in_every_step_without_breaking(inventory) -> None:
    found = differences(SMASH, keepers_loaf(), inventory=inventory)
    assert {d.step for d in found} >= {"Dish", "Meat", "Salt", "Mix", "Shape", "Heat"}
    # What has no value on one side is said to be as usual or none, never left blank.
    assert all(d.before.text and d.after.text for d in found)


# Two versions of a patty.
ALIKE = ("disc", "spread")


def test_the_difference_of_means_is_welch_s() -> None:
    a, b = [3.0, 3.0, 4.0, 2.0], [5.0, 4.0, 5.0]
    [one] = compared({"crust": (a, b)}, forms=ALIKE)
    test = stats.ttest_ind(b, a, equal_var=False)
    assert one.difference == pytest.approx(sum(b) / 3 - sum(a) / 4)
    assert one.range_of is not None
    assert one.range_of.low == pytest.approx(test.confidence_interval().low)
    assert (one.says.text == "More than chance") == (test.pvalue < 0.05)
    assert (one.before_cooks, one.after_cooks) == (4, 3)


def test_one_cook_says_nothing_and_none_is_not_shown() -> None:
    found = {f.key: f for f in compared({"crust": ([3.0], [5.0]), "juice": ([], [4.0]), "salt": ([], [])}, forms=ALIKE)}
    assert set(found) == {"crust", "juice"}
    assert (found["crust"].difference, found["crust"].range_of) == (2.0, None)
    assert found["juice"].difference is None
    [two] = compared({"crust": ([3.0, 4.0], [5.0, 4.0])}, forms=ALIKE)
    assert two.range_of is not None


def test_cooks_that_are_all_alike_have_no_spread_to_measure_by() -> None:
    [same] = compared({"crust": ([3.0, 3.0], [3.0, 3.0])}, forms=ALIKE)
    [other] = compared({"crust": ([3.0, 3.0], [4.0, 4.0])}, forms=ALIKE)
    assert (same.says.text, other.says.text) == ("No difference", "All cooks of each version alike")


@pytest.mark.parametrize(
    ("forms", "title", "says"),
    [
        (("disc", "filled"), "Thickness, cooked", "More than chance"),
        (("tin", "loaf"), "Height, cooked", "More than chance"),
        (("disc", "loaf"), "Thickness or height, cooked", "Of other shapes: not compared"),
        (("ball", "tray"), "Thickness or height, cooked", "Of other shapes: not compared"),
    ],
)
def test_sizes_are_called_by_the_form_and_not_compared_across_shapes(forms, title: str, says: str) -> None:
    seen = ([20.0, 21.0, 20.5], [60.0, 61.0, 60.5])
    thick, crust = compared({"thick": seen, "crust": seen}, forms=forms)
    assert (thick.title, thick.says.text) == (title, says)
    # What was seen of each is still shown.
    assert (thick.before, thick.after) == (20.5, 60.5)
    assert (thick.difference is None) == (thick.range_of is None) == says.startswith("Of other")
    assert crust.says.text == "More than chance"
    [one] = compared({"thick": ([20.0], [])}, forms=forms)
    assert one.says.text == "Seen of one version only"
