"""Every document under the plain names of today: formulas, versions, cooks with their plans, lots, pantry, kitchen."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from vianda.interchange import upgrades

Json = dict[str, Any]
# Table, its key, the column with a document, and what brings that up to date.
DOCUMENTS: tuple[tuple[str, str, str, Callable[[Json], Json]], ...] = (
    ("formula", "id", "document", upgrades.formula),
    ("formula_version", "id", "document", upgrades.formula),
    ("cook", "id", "document", upgrades.formula),
    ("cook", "id", "plan", upgrades.plan),
    ("lot", "key", "document", upgrades.lot),
    ("ingredient", "key", "document", upgrades.ingredient),
    ("kitchen", "id", "document", upgrades.kitchen),
)


def run(database: Any) -> None:
    """Rewrite each document once; a second run finds nothing to change."""
    for table, key, column, newer in DOCUMENTS:
        rows = database.execute_sql(f"SELECT `{key}`, `{column}` FROM `{table}`").fetchall()
        for row, text in rows:
            before = json.loads(text)
            after = newer(before)
            if after != before:
                database.execute_sql(
                    f"UPDATE `{table}` SET `{column}` = %s WHERE `{key}` = %s",
                    (json.dumps(after, ensure_ascii=False), row),
                )
