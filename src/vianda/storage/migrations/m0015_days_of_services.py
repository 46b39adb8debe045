"""Each service knows its first and last day in columns, so that a span reads only what may come in it."""

from __future__ import annotations

import json
from typing import Any

STATEMENTS = (
    """ALTER TABLE service
        ADD COLUMN IF NOT EXISTS first_day CHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS last_day CHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT ''
    """,
    "ALTER TABLE service ADD INDEX IF NOT EXISTS by_day (kitchen_id, last_day, first_day)",
)
WITHOUT_END = "9999-12-31"


def run(database: Any) -> None:
    """Add the columns, and fill them from what each service says."""
    for statement in STATEMENTS:
        database.execute_sql(statement)
    for service_id, document in database.execute_sql("SELECT id, document FROM service").fetchall():
        said = json.loads(document)
        day = said.get("day") or ""
        last = (said.get("until") or WITHOUT_END) if day and said.get("repeat") else day
        database.execute_sql("UPDATE service SET first_day = %s, last_day = %s WHERE id = %s", (day, last, service_id))
