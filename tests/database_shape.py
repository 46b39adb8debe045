"""The shape of a database, as its server tells it: to see whether two are alike."""

from __future__ import annotations

from typing import Any


def shape_of(database: Any) -> dict[str, list[tuple[Any, ...]]]:
    """Every column, index and foreign key, as the server tells them."""
    columns = database.execute_sql(
        "SELECT table_name, column_name, column_type, is_nullable, column_default, character_set_name, collation_name,"
        " extra FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY table_name, column_name"
    ).fetchall()
    indexes = database.execute_sql(
        "SELECT table_name, index_name, seq_in_index, column_name, non_unique FROM information_schema.statistics"
        " WHERE table_schema = DATABASE() ORDER BY table_name, index_name, seq_in_index"
    ).fetchall()
    rules = database.execute_sql(
        "SELECT table_name, constraint_name, referenced_table_name, delete_rule"
        " FROM information_schema.referential_constraints WHERE constraint_schema = DATABASE() ORDER BY 1, 2"
    ).fetchall()
    return {"columns": list(columns), "indexes": list(indexes), "rules": list(rules)}
