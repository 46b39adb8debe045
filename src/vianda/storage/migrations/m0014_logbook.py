"""A narrow line a cook for the logbook, and which lots each cook held; cooks of before are taken up."""

from __future__ import annotations

import json
from typing import Any

from vianda.storage.folded import folded

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS cook_line (
        cook_id INT NOT NULL PRIMARY KEY,
        kitchen_id INT NOT NULL,
        formula_id INT NOT NULL,
        formula_name VARCHAR(80) NOT NULL,
        dish VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        started_at DATETIME(3) NOT NULL,
        finished_at DATETIME(3) NULL,
        pieces INT NOT NULL,
        piece_mass_g DOUBLE NOT NULL,
        batch_mass_g DOUBLE NOT NULL,
        fat_frac DOUBLE NOT NULL,
        score DOUBLE NULL,
        remark VARCHAR(200) NOT NULL,
        words TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        KEY by_start (kitchen_id, started_at, cook_id),
        KEY by_dish (kitchen_id, dish)
    )""",
    """CREATE TABLE IF NOT EXISTS cook_lot (
        cook_id INT NOT NULL,
        kitchen_id INT NOT NULL,
        lot VARCHAR(64) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        name VARCHAR(200) NOT NULL,
        meat VARCHAR(64) NOT NULL,
        mass_g DOUBLE NOT NULL,
        use_by VARCHAR(10) NOT NULL,
        PRIMARY KEY (cook_id, lot),
        KEY by_lot (kitchen_id, lot)
    )""",
)
SCORES = ("crust", "juice", "bite", "bind", "grease", "salt")


def run(database: Any) -> None:
    """Make the tables, and a line for every cook that has none."""
    for statement in STATEMENTS:
        database.execute_sql(statement)
    use_by = {
        (kitchen_id, key): json.loads(document).get("use_by") or ""
        for kitchen_id, key, document in database.execute_sql("SELECT kitchen_id, `key`, document FROM lot").fetchall()
    }
    missing = database.execute_sql("SELECT id FROM cook WHERE id NOT IN (SELECT cook_id FROM cook_line)").fetchall()
    for (cook_id,) in missing:
        found = database.execute_sql(
            "SELECT kitchen_id, formula_id, formula_name, document, plan, started_at, finished_at, outcome "
            "FROM cook WHERE id = %s",
            (cook_id,),
        ).fetchone()
        kitchen_id, formula_id, name, document, plan, started_at, finished_at, outcome = found
        _take_up(database, cook_id, kitchen_id, formula_id, name, json.loads(document), json.loads(plan),
                 started_at, finished_at, json.loads(outcome) if outcome else {}, use_by)  # fmt: skip


def _take_up(
    database: Any, cook_id: int, kitchen_id: int, formula_id: int, name: str, document: Any, plan: Any,
    started_at: Any, finished_at: Any, outcome: Any, use_by: dict[tuple[int, str], str],
) -> None:  # fmt: skip
    portions, parts = plan.get("portions", {}), plan.get("blend", {}).get("parts", [])
    given = [outcome[s] for s in SCORES if outcome.get(s) is not None]
    held = {p["lot"]: p for p in parts if p.get("lot")}
    said = [
        name,
        outcome.get("note", ""),
        outcome.get("next_time", ""),
        *(p.get("lot_name", "") for p in held.values()),
    ]
    dish = document.get("dish") or {}
    database.execute_sql(
        "INSERT IGNORE INTO cook_line VALUES (%s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s)",
        (
            cook_id, kitchen_id, formula_id, name, str(dish.get("dish", "")) if isinstance(dish, dict) else "",
            started_at, finished_at, portions.get("pieces", 0), portions.get("piece_mass_g", 0),
            portions.get("batch_mass_g", 0), plan.get("blend", {}).get("fat_frac", 0),
            sum(given) / len(given) if given else None,
            (outcome.get("next_time") or outcome.get("note") or "")[:200],
            folded(" ".join([*said, *(p["name"] for p in parts)])),
        ),
    )  # fmt: skip
    for key, part in held.items():
        database.execute_sql(
            "INSERT IGNORE INTO cook_lot VALUES (%s, %s, %s, %s, %s, %s, %s)",
            (
                cook_id, kitchen_id, key, part.get("lot_name", ""), part["meat"], part["mass_g"],
                use_by.get((kitchen_id, key), ""),
            ),
        )  # fmt: skip
