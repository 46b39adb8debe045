from __future__ import annotations

import copy
import json
from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest

from vianda.core.demo.formulas import DEMO_FORMULAS, slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.heating import Heating
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.evidence import evidence_of
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.model.formula import BlendPart, HeatStage
from vianda.interchange.formula_file import (
    VERSION,
    FormulaBundle,
    UnreadableFileError,
    formula_file_schema,
    read_file,
    read_text,
    write_file,
)


def _file(make=slipway_smash) -> dict:
    return write_file(FormulaBundle(make(), starter_inventory(), yard_galley()))


@pytest.mark.parametrize("make", DEMO_FORMULAS)
def test_a_file_stands_alone_and_gives_the_same_figures(make) -> None:
    bundle = read_text(json.dumps(_file(make)))
    assert bundle.formula == make()
    here = evaluate(make(), inventory=starter_inventory(), kitchen=yard_galley())
    assert evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen) == here


def test_a_file_carries_only_the_meats_it_uses() -> None:
    assert {m["key"] for m in _file()["larder"]} == {"chuck", "short-rib-plate", "brisket-flat"}


def _version_1() -> dict:
    old = _file()
    old["version"] = 1
    del old["lots"]
    del old["formula"]["seasoning"]
    del old["formula"]["heat"]["target_core_temp_c"]
    old["formula"]["heat"]["doneness"] = "medium"
    return old


def test_version_2_is_upgraded_and_gives_figures() -> None:
    old = _file()
    old["version"] = 2
    del old["lots"], old["formula"]["grind"], old["kitchen"]["grinders"]
    for part in old["formula"]["parts"]:
        del part["lot"]
    for meat in old["larder"]:
        for name in ("connective", "cured", "trim_loss_frac", "pack_mass_g", "retired"):
            del meat[name]
    bundle = read_file(old)
    assert bundle.formula == slipway_smash()
    assert bundle.inventory.meat("chuck").trim_loss_frac == 0
    evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen)


def test_a_lot_travels_with_its_evidence() -> None:
    box = Lot("box", "chuck", "Box", 5000, Decimal("9.4"), date(2026, 11, 20), None, (evidence_of("label", 0.2),))
    formula = replace(slipway_smash(), parts=(BlendPart("chuck", 1.0, lot="box"),))
    inventory = Inventory.of(starter_inventory().meats.values(), [box])
    bundle = read_text(json.dumps(write_file(FormulaBundle(formula, inventory, yard_galley()))))
    assert bundle.inventory.lots == {"box": box}
    assert bundle.inventory.fat_of("chuck", "box") == inventory.fat_of("chuck", "box")


def test_version_1_is_upgraded_without_inventing_salt() -> None:
    bundle = read_file(_version_1())
    assert bundle.formula.seasoning.salt_frac == 0
    assert bundle.formula.seasoning.salt_place == "none"
    assert bundle.formula.heat.target_core_temp_c == 61


def test_a_hollow_old_file_says_what_is_wrong() -> None:
    with pytest.raises(UnreadableFileError, match="lacks what that version holds"):
        read_file({"format": "vianda-formula", "version": 1})


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda f: f.update(format="other"), "does not say"),
        (lambda f: f.update(version=VERSION + 1), "Update Vianda"),
        (lambda f: f.update(version="2"), "whole number"),
        (lambda f: f.update(version=True), "whole number"),
        (lambda f: f.update(version=0), "whole number"),
        (lambda f: f["formula"].update(colour="red"), "/formula/colour"),
        (lambda f: f["formula"]["parts"][0].update(share_frac="half"), "/formula/parts/0/share_frac"),
        (lambda f: f["formula"]["parts"].clear(), "/formula/parts"),
        (lambda f: f["kitchen"].pop("country"), "/kitchen/country"),
        (lambda f: f["larder"][0].update(price_per_kg="NaN"), "/larder/0/price_per_kg"),
    ],
)
def test_what_cannot_be_read_is_refused_with_the_place(change, says: str) -> None:
    file = copy.deepcopy(_file())
    change(file)
    with pytest.raises(UnreadableFileError, match=says):
        read_file(file)


@pytest.mark.parametrize("text", ["", "[]", "null", "{", "[" * 100_000, '{"a": 1}', "NaN"])
def test_text_that_is_no_file_is_refused(text: str) -> None:
    with pytest.raises(UnreadableFileError):
        read_text(text)


def test_the_schema_names_every_required_part() -> None:
    schema = formula_file_schema()
    assert set(schema["required"]) == {"format", "version", "formula", "larder", "lots", "pantry", "kitchen"}
    assert schema["additionalProperties"] is False


def test_version_4_is_upgraded_and_shaped_in_nothing() -> None:
    file = write_file(FormulaBundle(slipway_smash(), starter_inventory(), yard_galley()))
    old = json.loads(json.dumps(file))
    old["version"] = 4
    for name in (
        "mould",
        "width_mm",
        "ends",
        "packing",
        "rim_mm",
        "loss_g",
        "remainder",
        "edges",
        "papers",
        "firmness",
    ):
        del old["formula"]["shape"][name]
    del old["formula"]["dish"]["spare_pieces"], old["kitchen"]["moulds"]
    for bread in old["kitchen"]["buns"]:
        del bread["kind"], bread["depth_mm"]
    bundle = read_file(old)
    assert bundle.formula == slipway_smash()
    assert evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen).portions.batch_mass_g == 3400


def test_version_5_is_upgraded_and_cooked_the_styles_own_way_on_usual_surfaces() -> None:
    file = write_file(FormulaBundle(slipway_smash(), starter_inventory(), yard_galley()))
    old = json.loads(json.dumps(file))
    old["version"] = 5
    for name in ("method", "stages", "fat", "resting"):
        del old["formula"]["heat"][name]
    for surface in old["kitchen"]["surfaces"]:
        del surface["heating"]
    bundle = read_file(old)
    assert bundle.formula == slipway_smash()
    assert bundle.kitchen == yard_galley()


def test_stages_and_heating_come_back_as_they_went() -> None:
    stages = (HeatStage("surface", "time", 60.0, press=True), HeatStage("oven", "core", temp_c=170.0, flip=True))
    smash = slipway_smash()
    formula = replace(smash, heat=replace(smash.heat, stages=stages, fat="dripping", resting="foil"))
    kitchen = yard_galley()
    cold = replace(kitchen.surfaces[2], heating=Heating(fuel="wood", layout="ring", outdoor_c=-8.0))
    kitchen = replace(kitchen, surfaces=(*kitchen.surfaces[:2], cold, *kitchen.surfaces[3:]))
    back = read_file(json.loads(json.dumps(write_file(FormulaBundle(formula, starter_inventory(), kitchen)))))
    assert back.formula == formula
    assert back.kitchen == kitchen
