"""The shelf is paged and searched in the database: what is looked for are columns, what each came to is kept."""

from __future__ import annotations

import json
import unicodedata
from typing import Any

STATEMENTS = (
    """ALTER TABLE formula
        ADD COLUMN IF NOT EXISTS dish VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS style VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS words TEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '',
        ADD INDEX IF NOT EXISTS on_shelf (kitchen_id, deleted, updated_at, id),
        ADD INDEX IF NOT EXISTS by_name (kitchen_id, deleted, name, id)
    """,
    """CREATE TABLE IF NOT EXISTS shelf_figure (
        formula_id INT NOT NULL PRIMARY KEY,
        stamp CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        comes_to TEXT CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        problem TEXT NOT NULL
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci""",
    "ALTER TABLE cook_line ADD INDEX IF NOT EXISTS by_formula (kitchen_id, formula_id, started_at)",
)


def run(database: Any) -> None:
    """Make the columns, and fill them for the formulas that stand."""
    for statement in STATEMENTS:
        database.execute_sql(statement)
    rows = database.execute_sql("SELECT id, name, document FROM formula WHERE dish = ''").fetchall()
    for formula_id, name, document in rows:
        dish, style, words = _columns(name, json.loads(document))
        database.execute_sql(
            "UPDATE formula SET dish = %s, style = %s, words = %s, updated_at = updated_at WHERE id = %s",
            (dish, style, words, formula_id),
        )


def _columns(name: str, document: dict[str, Any]) -> tuple[str, str, str]:
    """As they are read from any age of a formula; the next save writes them as they are then."""
    content = document.get("formula", document)
    dish = content.get("dish") or {}
    parts, mix = content.get("parts") or (), content.get("mix") or {}
    keys = [
        *(str(part.get("meat", "")) for part in parts),
        *(str(line.get("ingredient", "")) for line in mix.get("lines") or ()),
    ]
    kind, style = str(dish.get("dish") or "burger"), str(dish.get("style") or "")
    return kind, style, _folded(" ".join([name, kind, *(key.replace("-", " ") for key in [style, *keys])]))


def _folded(text: str) -> str:
    plain = unicodedata.normalize("NFKD", text.casefold())
    return " ".join("".join(c for c in plain if not unicodedata.combining(c)).split())
