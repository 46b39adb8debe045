"""Text of a database that was made for another script is kept as utf8mb4; keys that are plain ASCII stay so."""

from __future__ import annotations

from typing import Any


def run(database: Any) -> None:
    """Change what is not utf8mb4 yet: the database, its tables' default, and each column of text."""
    if database.execute_sql("SELECT @@character_set_database").fetchone()[0] != "utf8mb4":
        database.execute_sql("ALTER DATABASE CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
    tables = database.execute_sql(
        "SELECT table_name FROM information_schema.tables"
        " WHERE table_schema = DATABASE() AND table_collation NOT LIKE 'utf8mb4%%'"
    ).fetchall()
    for (table,) in tables:
        database.execute_sql(f"ALTER TABLE `{table}` DEFAULT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
    columns = database.execute_sql(
        "SELECT table_name, column_name, column_type, is_nullable, column_default FROM information_schema.columns"
        " WHERE table_schema = DATABASE() AND character_set_name NOT IN ('ascii', 'utf8mb4')"
    ).fetchall()
    for table, column, kind, nullable, default in columns:
        needed = "NULL" if nullable == "YES" else "NOT NULL"
        usual = "" if default is None else f" DEFAULT {default}"
        database.execute_sql(
            f"ALTER TABLE `{table}` MODIFY `{column}` {kind} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci"
            f" {needed}{usual}"
        )
