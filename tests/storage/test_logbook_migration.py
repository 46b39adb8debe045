"""Cooks of before the logbook had lines are taken up once, with the lots they held."""

from __future__ import annotations

import json
from datetime import date
from decimal import Decimal

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.core.inventory.lot import Lot
from vianda.storage import cook_repository, formula_repository, larder_repository, logbook_repository
from vianda.storage.logbook_repository import LogQuery
from vianda.storage.migrate import migrate
from vianda.storage.tables import CookLineRow, CookLotRow, CookRow

PLAN = {
    "portions": {"pieces": 8, "piece_mass_g": 85, "batch_mass_g": 680},
    "blend": {
        "fat_frac": 0.2,
        "parts": [
            {"meat": "chuck", "name": "Chuck", "lot": "chuck-1", "lot_name": "Norquay, Monday", "mass_g": 400},
            {"meat": "round", "name": "Round", "lot": "", "lot_name": "", "mass_g": 280},
        ],
    },
}


def _again(database) -> None:
    for table in (CookLineRow, CookLotRow):
        table.delete().execute()
    database.execute_sql("DELETE FROM schema_migration WHERE number IN ('0014', '0020')")
    assert migrate(database) == ["0014", "0020"]


def test_what_was_cooked_before_is_found_and_traced(database) -> None:
    lot = Lot("chuck-1", "chuck", "Norquay, Monday", 5000.0, Decimal("9.40"), date(2026, 11, 30), date(2026, 12, 6))
    larder_repository.create_lot(lot)
    stored = formula_repository.create_formula(slipway_smash())
    done = cook_repository.create_cook(stored.id, stored.formula, PLAN)
    begun = cook_repository.create_cook(stored.id, stored.formula, PLAN)
    cook_repository.save_outcome(
        done.id, {"crust": 5, "juice": 4, "salt": 4, "note": "Good", "next_time": "Hotter"}, revision=1
    )
    # A cook from long before has less in its plan.
    CookRow.update(plan=json.dumps({"portions": {}})).where(CookRow.id == begun.id).execute()
    _again(database)
    old, new = logbook_repository.find_lines(LogQuery(), before=None, most=9)[::-1]
    assert (old.cook_id, old.dish, old.pieces, old.remark) == (done.id, "burger", 8, "Hotter")
    # The crust a point past where it is wanted, of three it can lose four by; juice there; salt half way to its end.
    assert old.score == pytest.approx((5 - 4 / 3 + 5 + 3) / 3)
    assert (new.cook_id, new.pieces, new.score) == (begun.id, 0, None)
    assert [x.cook_id for x in logbook_repository.find_lines(LogQuery(text="monday good"), before=None, most=9)] == [
        done.id
    ]
    [held] = logbook_repository.lots_of(done.id)
    assert (held.lot, held.use_by, held.mass_g) == ("chuck-1", "2026-12-06", 400)
    # Nothing is made twice by a start that was cut off.
    database.execute_sql("DELETE FROM schema_migration WHERE number = '0014'")
    migrate(database)
    assert logbook_repository.count_lines(LogQuery()) == 2
