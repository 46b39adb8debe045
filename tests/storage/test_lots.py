"""Lots and meats in a real MariaDB: revisions, conflicts, caches that another process would have made stale."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from decimal import Decimal

import pytest
from peewee import IntegrityError

from vianda.core.demo.formulas import slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.evaluation.evaluate import evaluate
from vianda.core.inventory.evidence import evidence_of
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.model.formula import BlendPart
from vianda.interchange.formula_file import FormulaBundle, write_file
from vianda.services import formulas, larders
from vianda.services.larders import TypedWeights
from vianda.storage import larder_repository as repository
from vianda.storage.here import kitchen_here
from vianda.storage.records import ConflictError, NotFoundError
from vianda.storage.tables import LotRow, MeatRow
from vianda.storage.transaction import transaction

pytestmark = pytest.mark.usefixtures("database")
BOX = Lot(
    "box", "rib", "Box", 5000, Decimal("17.5000"), date(2026, 11, 24), date(2026, 11, 27), (evidence_of("label", 0.25),)
)


def test_a_lot_comes_back_as_it_was_written() -> None:
    assert repository.create_lot(BOX).lot == BOX
    assert repository.get_lot("box").revision == 1
    assert repository.load_inventory().lots["box"] == BOX


def test_a_lot_is_saved_over_the_revision_seen_and_no_other() -> None:
    repository.create_lot(BOX)
    less = replace(BOX, left_mass_g=3000)
    assert repository.save_lot(less, revision=1).revision == 2
    with pytest.raises(ConflictError) as conflict:
        repository.save_lot(replace(BOX, left_mass_g=1), revision=1)
    assert conflict.value.current.lot == less
    with pytest.raises(NotFoundError):
        repository.save_lot(replace(BOX, key="nowhere"), revision=1)


def test_a_key_taken_by_another_delivery_is_a_conflict_and_the_service_finds_a_free_one() -> None:
    repository.create_lot(BOX)
    with pytest.raises(ConflictError):
        repository.create_lot(replace(BOX, name="Other"))
    keys = [larders.add_lot(replace(BOX, key="new")).lot.key for _ in range(3)]
    assert keys == ["rib-2026-11-24", "rib-2026-11-24-2", "rib-2026-11-24-3"]


def test_a_lot_of_a_meat_that_is_not_there_is_refused_by_the_database_too() -> None:
    with pytest.raises(IntegrityError):
        LotRow.insert(kitchen_id=kitchen_here(), key="ghost", meat="unicorn", document="{}", revision=1).execute()


def test_a_meat_with_lots_cannot_be_deleted_behind_our_back() -> None:
    repository.create_lot(BOX)
    with pytest.raises(IntegrityError):
        MeatRow.delete().where(MeatRow.key == "rib").execute()


def test_the_larder_is_read_anew_when_another_process_wrote_to_it() -> None:
    before = repository.load_inventory()
    assert repository.load_inventory() is before
    # What another process does: write a row, count the change.
    document = '{"key":"far","meat":"rib","name":"Far","left_mass_g":1.0,"price_per_kg":"1","delivered":"2026-11-24"}'
    LotRow.insert(kitchen_id=kitchen_here(), key="far", meat="rib", document=document, revision=1).execute()
    repository.touch(repository.larder_here())
    assert "far" in repository.load_inventory().lots


def test_evidence_is_added_told_and_taken_back_over_revisions() -> None:
    known = larders.add_lot(replace(BOX, evidence=()))
    key = known.lot.key
    told_so = larders.learn(key, kind="butcher", fat="28 %", revision=known.revision)
    weights = TypedWeights("250 g", "155 g", "40 g", "")
    tested = larders.log_fat_test(key, weights, unit_system="metric", revision=told_so.revision)
    assert [f.evidence.kind for f in tested.findings] == ["butcher", "fat-test"]
    assert "250 g raw, 155 g lean residue, 40 g fat" in tested.findings[1].evidence.detail
    widths = [k.known.high_frac - k.known.low_frac for k in (known, told_so, tested)]
    assert widths == sorted(widths, reverse=True)
    back = larders.forget(key, at=0, revision=tested.revision)
    assert [f.evidence.kind for f in back.findings] == ["fat-test"]
    assert back.revision == 4


def test_lots_stand_in_the_order_in_which_they_must_go() -> None:
    for key, use_by, closed in (
        ("c", None, False),
        ("b", date(2026, 12, 1), False),
        ("a", date(2026, 11, 26), False),
        ("z", date(2026, 11, 25), True),
    ):
        repository.create_lot(replace(BOX, key=key, use_by=use_by, closed=closed))
    keys = [k.lot.key for k in larders.list_lots() if not k.lot.key.startswith("norquay")]
    assert keys == ["a", "b", "c", "z"]


def test_a_file_brings_its_meats_and_lots_and_keeps_ours() -> None:
    theirs = replace(starter_inventory().meat("rib"), key="reef-rib", name="Reef rib")
    lot = replace(BOX, key="reef-box", meat="reef-rib")
    inventory = type(starter_inventory()).of([*starter_inventory().meats.values(), theirs], [lot])
    formula = replace(slipway_smash(), parts=(BlendPart("reef-rib", 0.4, lot="reef-box"), BlendPart("chuck", 0.6)))
    content = write_file(FormulaBundle(formula, inventory, yard_galley()))
    done = formulas.import_formula(content)
    assert done.meats_added == ("Reef rib",)
    here = repository.load_inventory()
    assert here.lots["reef-box"] == lot
    there = evaluate(formula, inventory=inventory, kitchen=yard_galley())
    assert evaluate(done.stored.formula, inventory=here, kitchen=yard_galley()).blend == there.blend
    # A second time nothing is added, and our own correction of the meat stays.
    dearer = replace(here.meat("reef-rib"), price_per_kg=Decimal("99"))
    larders.save_meat(dearer, seen=here.meat("reef-rib"))
    again = formulas.import_formula(content)
    assert (again.meats_added, again.meats_differing) == ((), ("Reef rib",))
    assert repository.load_inventory().meat("reef-rib").price_per_kg == Decimal("99")


def test_a_tool_that_is_not_here_gives_way_to_what_suits_best() -> None:
    content = write_file(FormulaBundle(slipway_smash(), starter_inventory(), yard_galley()))
    content["formula"]["grind"]["tool"] = "big-mincer"
    content["kitchen"]["grinders"].append({**content["kitchen"]["grinders"][0], "key": "big-mincer"})
    done = formulas.import_formula(content)
    assert done.replaced == ("grinder",)
    assert done.stored.formula.grind.tool == ""


def test_a_half_taken_file_leaves_what_it_took_and_says_what_it_refused() -> None:
    text = larders.export_csv().splitlines()
    new = text[1].replace("chuck,Chuck", "new-chuck,New chuck", 1)
    wrong = text[2].replace("0.16", "sixteen", 1)
    rows = larders.import_csv("\n".join([text[0], new, wrong, new]))
    assert [r.outcome for r in rows] == ["added", "refused", "refused"]
    assert "stands in the file twice" in rows[2].reason
    assert repository.load_inventory().meat("new-chuck").name == "New chuck"


def test_meats_keep_their_place_and_new_ones_come_last() -> None:
    names = list(repository.load_inventory().meats)
    assert names == list(starter_inventory().meats)
    larders.save_meat(replace(starter_inventory().meat("chuck"), key="aaa", name="Aaa"), seen=None)
    assert list(repository.load_inventory().meats)[-1] == "aaa"


def test_what_a_rolled_back_change_had_read_is_forgotten() -> None:
    before = set(repository.load_inventory().meats)

    def fails_after_reading() -> None:
        with transaction():
            larders.save_meat(replace(starter_inventory().meat("rib"), key="phantom", name="Phantom"), seen=None)
            assert "phantom" in repository.load_inventory().meats
            raise RuntimeError("later in the same use case")

    with pytest.raises(RuntimeError):
        fails_after_reading()
    # Another process reaches the very same revision with a change of its own.
    document = '{"key":"far","meat":"rib","name":"Far","left_mass_g":1.0,"price_per_kg":"1","delivered":"2026-11-24"}'
    LotRow.insert(kitchen_id=kitchen_here(), key="far", meat="rib", document=document, revision=1).execute()
    repository.touch(repository.larder_here())
    after = repository.load_inventory()
    assert set(after.meats) == before
    assert "far" in after.lots
