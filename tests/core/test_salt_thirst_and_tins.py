"""Cured meat speaks of its salt, typed salt is what goes in, crumb drinks from eggs too, tins fit their batch."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.formulas import harbour_light_pub, keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.editing.apply_edit import apply_edit
from vianda.core.evaluation.evaluate import Evaluation, evaluate
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.model.edit import AddToMix, Choose, Edit, SetFigure, TakeOut
from vianda.core.model.formula import BlendPart, Formula
from vianda.core.opening.opening import open_line
from vianda.core.shape.vessel import HEADSPACE_MM

INVENTORY, KITCHEN = starter_inventory(), yard_galley()


def changed(formula: Formula, *edits: Edit) -> Formula:
    for edit in edits:
        formula = apply_edit(formula, edit, inventory=INVENTORY, kitchen=KITCHEN)
    return formula


def of(formula: Formula) -> Evaluation:
    return evaluate(formula, inventory=INVENTORY, kitchen=KITCHEN)


def rules(e: Evaluation) -> set[str]:
    return {c.rule for c in e.counsel}


def cured(share: float, salt: float) -> Formula:
    blend = (BlendPart("chuck", 1 - share), BlendPart("bacon", share))
    return changed(replace(harbour_light_pub(), parts=blend), SetFigure("salt", salt))


@pytest.mark.parametrize(("share", "salt"), [(0.05, 0.011), (0.25, 0.011), (0.5, 0.011), (0.25, 0.004), (0.1, 0.03)])
def test_cured_meat_speaks_of_its_salt_whatever_is_added(share: float, salt: float) -> None:
    said = rules(of(cured(share, salt))) & {"mix.cured-brings-salt", "mix.cured-and-salted"}
    assert len(said) == 1


def test_meat_that_is_not_cured_says_nothing_of_it() -> None:
    assert not rules(of(harbour_light_pub())) & {"mix.cured-brings-salt", "mix.cured-and-salted"}


def test_what_cured_meat_brings_is_not_added_again() -> None:
    """SR28 10123: 662 mg of sodium in 100 g of bacon, of which fresh meat has 65; 2.542 g of salt to one of sodium."""
    e = of(cured(0.25, 0.011))
    meat = e.portions.batch_mass_g
    brought = 0.25 * meat * (0.00662 - 0.00065) * 2.542
    assert e.salt.brought_g == pytest.approx(brought, rel=2e-3)
    assert e.salt.batch_salt_g == pytest.approx(0.011 * meat - brought, rel=2e-3)


@pytest.mark.parametrize("text", ["1 tsp salt", "6 g salt"])
@pytest.mark.parametrize("start", [harbour_light_pub, slipway_smash, night_watch_balls])
def test_salt_typed_is_salt_added_however_the_batch_divides(start, text: str) -> None:
    """SR28 02047: a teaspoon of table salt weighs 6 g."""
    formula = start()
    for line in formula.mix.lines:
        formula = changed(formula, TakeOut(line.ingredient))
    assert of(changed(formula, AddToMix(text))).salt.batch_salt_g == pytest.approx(6.0, abs=0.002)


@pytest.mark.parametrize(("drink", "dry"), [
    (None, True),
    ("50 g egg", False),
    ("60 g ricotta", False),
    ("60 g parmesan", True),
    ("60 ml milk", False),
    ("5 g egg", True),
])  # fmt: skip
def test_crumb_drinks_from_an_egg_and_a_soft_cheese_too(drink: str | None, dry: bool) -> None:
    formula = night_watch_balls()
    for line in formula.mix.lines:
        formula = changed(formula, TakeOut(line.ingredient))
    formula = changed(formula, AddToMix("60 g panko"))
    if drink:
        formula = changed(formula, AddToMix(drink))
    assert ("mix.crumb-without-liquid" in rules(of(formula))) is dry


@pytest.mark.parametrize("text", ["meatloaf in a tin, 500 g", "meatloaf in a tin, 900 g", "meatloaf in a tin, 1.5 kg"])
def test_a_tin_is_the_smallest_that_holds_the_batch(text: str) -> None:
    formula = open_line(text, inventory=INVENTORY, kitchen=KITCHEN).formula
    assert formula is not None
    volume = of(formula).portions.piece_mass_g / 1.05 * 0.97
    tins = sorted((m for m in KITCHEN.moulds if m.kind == "tin"), key=lambda m: m.holds_ml)
    holding = [m for m in tins if m.filled_ml(m.height_mm - HEADSPACE_MM) >= volume]
    assert formula.shape.mould == holding[0].key


def test_another_style_takes_a_tin_for_the_batch_at_hand() -> None:
    small = changed(keepers_loaf(), Choose("portioning", "by_batch"), SetFigure("batch_mass", 400.0))
    tinned = changed(small, Choose("style", "loaf-tin"))
    tins = sorted((m for m in KITCHEN.moulds if m.kind == "tin"), key=lambda m: m.holds_ml)
    assert tinned.shape.mould == tins[0].key
