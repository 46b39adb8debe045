"""Repositories on a real MariaDB."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal

import pytest

from vianda.core.demo.formulas import DEMO_FORMULAS, slipway_smash
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import usual_flat_breads
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.supply.ticks import Tick
from vianda.services.demo_kitchen import seed_once, take_up_new_meats
from vianda.storage import cook_repository, formula_repository, kitchen_repository, larder_repository, supply_repository
from vianda.storage.here import kitchen_here
from vianda.storage.migrate import migrate
from vianda.storage.migrations import m0004_weighings, m0011_ticks
from vianda.storage.records import ConflictError, NotFoundError
from vianda.storage.tables import CookRow, MeatRow
from vianda.storage.transaction import transaction

pytestmark = pytest.mark.usefixtures("database")


def test_seeding_happens_once() -> None:
    assert not seed_once()
    assert len(formula_repository.list_formulas()) == len(DEMO_FORMULAS)


def test_migrations_run_once(database) -> None:
    assert migrate(database) == []


def test_the_larder_comes_back_to_the_last_digit() -> None:
    assert larder_repository.load_inventory().meats == starter_inventory().meats


def test_the_kitchen_comes_back_whole() -> None:
    assert kitchen_repository.load_kitchen().kitchen == yard_galley()


def test_a_formula_comes_back_whole_with_odd_characters() -> None:
    odd = replace(slipway_smash(), name="Ragù ‘; DROP TABLE formula; -- 🍔", remark="<b>\\ % _ \" ' \n")
    stored = formula_repository.create_formula(odd)
    assert formula_repository.get_formula(stored.id).formula == odd


def test_the_slower_of_two_editors_is_told_what_stands() -> None:
    stored = formula_repository.create_formula(slipway_smash())
    first = formula_repository.save_formula(stored.id, replace(slipway_smash(), remark="first"), revision=1)
    with pytest.raises(ConflictError) as caught:
        formula_repository.save_formula(stored.id, replace(slipway_smash(), remark="second"), revision=1)
    assert caught.value.current == first
    assert formula_repository.get_formula(stored.id).formula.remark == "first"


def test_kept_versions_never_change_and_count_up() -> None:
    stored = formula_repository.create_formula(slipway_smash())
    formula_repository.keep_version(stored.id, name="as begun")
    formula_repository.save_formula(stored.id, replace(slipway_smash(), remark="later"), revision=1)
    formula_repository.keep_version(stored.id, name="later")
    versions = formula_repository.list_versions(stored.id)
    assert [(v.number, v.name, v.formula.remark == "later") for v in versions] == [
        (2, "later", True),
        (1, "as begun", False),
    ]


def test_a_formula_put_away_is_gone_from_the_shelf_but_not_from_the_logbook() -> None:
    stored = formula_repository.create_formula(slipway_smash())
    cook = cook_repository.create_cook(stored.id, stored.formula, {"portions": {}})
    formula_repository.delete_formula(stored.id)
    with pytest.raises(NotFoundError):
        formula_repository.get_formula(stored.id)
    assert cook_repository.get_cook(cook.id).formula_name == "Slipway smash"


def test_a_report_sent_twice_counts_once_and_late_ones_fall_in_place() -> None:
    stored = formula_repository.create_formula(slipway_smash())
    cook = cook_repository.create_cook(stored.id, stored.formula, {})
    for _ in range(2):
        cook_repository.add_event(cook.id, token="token-one", kind="done", place=1, value=None, late_s=0)
    cook_repository.add_event(cook.id, token="token-two", kind="done", place=0, value=None, late_s=30)
    assert [e.token for e in cook_repository.events_of(cook.id)] == ["token-two", "token-one"]


def test_what_one_device_says_stays_in_its_order_however_long_each_message_is_on_its_way() -> None:
    stored = formula_repository.create_formula(slipway_smash())
    cook = cook_repository.create_cook(stored.id, stored.formula, {})
    said = {"kind": "done", "value": None, "late_s": 0.0}
    CookRow.update(started_at=cook.started_at - timedelta(seconds=60)).where(CookRow.id == cook.id).execute()
    # The first was pressed after 2 s and arrives a minute later; the second after 2.5 s.
    cook_repository.add_event(cook.id, token="token-one", place=0, since_start_s=2.0, **said)  # type: ignore[arg-type]
    cook_repository.add_event(
        cook.id,
        token="token-two",
        place=1,
        since_start_s=2.5,
        **said,  # type: ignore[arg-type]
    )
    found = cook_repository.get_cook(cook.id)
    assert [(e.at - found.started_at).total_seconds() for e in found.events] == pytest.approx([2.0, 2.5], abs=0.01)
    # A clock that runs ahead: nothing happens after it was told.
    cook_repository.add_event(
        cook.id,
        token="token-three",
        place=2,
        since_start_s=9999.0,
        **said,  # type: ignore[arg-type]
    )
    ahead = cook_repository.get_cook(cook.id)
    assert (ahead.events[-1].at - ahead.started_at).total_seconds() < 600


def test_a_clock_that_is_set_back_an_hour_keeps_what_happened_in_order(monkeypatch: pytest.MonkeyPatch) -> None:
    stored = formula_repository.create_formula(slipway_smash())
    cook = cook_repository.create_cook(stored.id, stored.formula, {})
    real, shift_s = cook_repository.now_utc, [600.0]
    monkeypatch.setattr(cook_repository, "now_utc", lambda: real() + timedelta(seconds=shift_s[0]))
    say = {"kind": "done", "value": None}
    cook_repository.add_event(cook.id, token="token-one", place=0, late_s=0.0, **say)  # type: ignore[arg-type]
    shift_s[0] -= 3600.0
    cook_repository.add_event(cook.id, token="token-two", place=1, late_s=0.0, **say)  # type: ignore[arg-type]
    cook_repository.add_event(
        cook.id,
        token="token-three",
        place=2,
        late_s=0.0,
        since_start_s=700.0,
        **say,  # type: ignore[arg-type]
    )
    events = cook_repository.events_of(cook.id)
    assert [e.token for e in events] == ["token-one", "token-two", "token-three"]
    assert all(cook.started_at <= e.at for e in events)


def test_a_new_meat_is_seen_at_once_and_known_ones_stay() -> None:
    chuck = replace(starter_inventory().meat("chuck"), price_per_kg=Decimal("99"))
    new = replace(chuck, key="own-cheek", name="Own cheek", price_per_kg=Decimal("7.1234"))
    larder_repository.load_inventory()
    assert larder_repository.add_meats([chuck, new]) == 1
    inventory = larder_repository.load_inventory()
    assert inventory.meat("own-cheek") == new
    assert inventory.meat("chuck").price_per_kg == Decimal("9.40")


def test_what_fails_halfway_leaves_nothing() -> None:
    before = len(formula_repository.list_formulas())

    def halfway() -> None:
        with transaction():
            formula_repository.create_formula(slipway_smash())
            raise RuntimeError("halfway")

    with pytest.raises(RuntimeError):
        halfway()
    assert len(formula_repository.list_formulas()) == before


def test_an_older_larder_takes_up_new_meats_and_keeps_what_a_cook_corrected() -> None:
    shank = larder_repository.load_inventory().meat("shank")
    older = replace(shank, connective="medium", price_per_kg=Decimal("7.77"))
    larder_repository.save_meat(older, seen=shank)
    MeatRow.delete().where(MeatRow.key == "venison-haunch").execute()
    larder_repository.touch("larder")
    assert take_up_new_meats() == 1
    inventory = larder_repository.load_inventory()
    assert (inventory.meat("shank").connective, inventory.meat("shank").price_per_kg) == ("high", Decimal("7.77"))
    assert "venison-haunch" in inventory.meats
    assert take_up_new_meats() == 0


def test_a_kitchen_from_before_flat_breads_gets_them_once(database) -> None:
    old = replace(yard_galley(), buns=tuple(b for b in yard_galley().buns if b.kind in ("bun", "slice")))
    stored = kitchen_repository.load_kitchen()
    kitchen_repository.save_kitchen(old, revision=stored.revision)
    for _ in range(2):
        for statement in m0004_weighings.STATEMENTS:
            database.execute_sql(statement)
    now = kitchen_repository.load_kitchen().kitchen
    assert [b.key for b in now.buns] == [*(b.key for b in old.buns), "tortilla-150", "flatbread-200"]
    assert {b for b in now.buns if b.kind in ("tortilla", "flatbread")} == set(usual_flat_breads())


def test_baskets_of_before_lists_had_names_move_and_a_migration_that_was_cut_off_is_run_again(database) -> None:
    database.execute_sql(m0011_ticks.STATEMENTS[1])
    database.execute_sql(
        "INSERT INTO shopping_tick (kitchen_id, from_day, to_day, kind, item_key)"
        " VALUES (%s, '2026-12-01', '2026-12-07', 'meat', 'chuck')",
        (kitchen_here(),),
    )
    for _ in range(2):
        for statement in m0011_ticks.STATEMENTS:
            database.execute_sql(statement)
    sheet = "shopping/2026-12-01/2026-12-07"
    assert supply_repository.ticks([sheet]) == {sheet: [Tick("meat/chuck", None)]}


def test_only_the_lists_asked_for_are_read_and_one_tick_a_line_is_kept() -> None:
    for amount in (200.0, 300.0):
        supply_repository.set_tick("prep/2026-12-03", Tick("relish", amount), ticked=True)
    supply_repository.set_tick("prep/2026-12-04", Tick("relish", 50.0), ticked=True)
    assert supply_repository.ticks(["prep/2026-12-03"]) == {"prep/2026-12-03": [Tick("relish", 300.0)]}
    assert supply_repository.ticks([]) == {}
    # A service's lists go with it, and those of a service whose number begins alike stay.
    for service in (1, 12):
        supply_repository.set_tick(f"set-out/{service}/2026-12-04", Tick("milk", 1.0), ticked=True)
    supply_repository.clear_sheets("set-out/1/")
    kept = supply_repository.ticks(["set-out/1/2026-12-04", "set-out/12/2026-12-04"])
    assert [len(x) for x in kept.values()] == [0, 1]
