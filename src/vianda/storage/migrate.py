"""Bring the database to the newest shape: numbered migrations, each once, one process at a time."""

from __future__ import annotations

import secrets
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from peewee import OperationalError

from vianda.storage.database import NOT_SERVING, proxy, was_taken_back
from vianda.storage.migrations import (
    m0001_first_tables,
    m0002_lots_and_yield,
    m0003_pantry,
    m0004_weighings,
    m0005_plain_names,
    m0006_kitchens,
    m0007_answered,
    m0008_grown_pantry,
    m0009_services,
    m0010_supply,
    m0011_ticks,
    m0012_runs,
    m0013_checks,
    m0014_logbook,
    m0015_days_of_services,
    m0016_logbook_in_order,
    m0017_observations,
    m0018_tastings,
    m0019_training,
    m0020_nearness,
    m0021_photographs,
    m0022_minutes,
    m0023_leftover,
    m0024_shelf,
    m0025_every_script,
    m0026_people,
)

MIGRATIONS: tuple[tuple[str, tuple[str, ...] | Callable[[Any], None]], ...] = (
    ("0001", m0001_first_tables.STATEMENTS),
    ("0002", m0002_lots_and_yield.STATEMENTS),
    ("0003", m0003_pantry.STATEMENTS),
    ("0004", m0004_weighings.STATEMENTS),
    ("0005", m0005_plain_names.run),
    ("0006", m0006_kitchens.STATEMENTS),
    ("0007", m0007_answered.STATEMENTS),
    ("0008", m0008_grown_pantry.STATEMENTS),
    ("0009", m0009_services.STATEMENTS),
    ("0010", m0010_supply.STATEMENTS),
    ("0011", m0011_ticks.STATEMENTS),
    ("0012", m0012_runs.STATEMENTS),
    ("0013", m0013_checks.STATEMENTS),
    ("0014", m0014_logbook.run),
    ("0015", m0015_days_of_services.run),
    ("0016", m0016_logbook_in_order.STATEMENTS),
    ("0017", m0017_observations.run),
    ("0018", m0018_tastings.STATEMENTS),
    ("0019", m0019_training.STATEMENTS),
    ("0020", m0020_nearness.run),
    ("0021", m0021_photographs.STATEMENTS),
    ("0022", m0022_minutes.STATEMENTS),
    ("0023", m0023_leftover.STATEMENTS),
    ("0024", m0024_shelf.run),
    ("0025", m0025_every_script.run),
    ("0026", m0026_people.STATEMENTS),
)
LOCK_WAIT_S, LEASE_S = 30, 60


class MigrationBusyError(RuntimeError):
    """Another process is migrating and does not finish."""


def migrate(database: Any) -> list[str]:
    """Apply what is missing and return the numbers applied.

    MariaDB commits each DDL statement by itself, so there is no transaction here; a named lock keeps two
    starts apart. Call it inside a connection context.
    """
    _await_cluster(database)
    got = database.execute_sql("SELECT GET_LOCK('vianda-migrate', %s)", (LOCK_WAIT_S,)).fetchone()[0]
    if got != 1:
        raise MigrationBusyError("Another start is changing the database; try again in a minute.")
    try:
        with _lease(database):
            return _migrate(database)
    finally:
        database.execute_sql("SELECT RELEASE_LOCK('vianda-migrate')")


def _migrate(database: Any) -> list[str]:
    done = _done(database)
    applied = []
    if not done:
        # Whatever the server makes of a database: names are written in every script.
        database.execute_sql("ALTER DATABASE CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
        database.execute_sql(
            "CREATE TABLE IF NOT EXISTS schema_migration (number CHAR(4) PRIMARY KEY, applied_at DATETIME NOT NULL)"
        )
    for number, change in MIGRATIONS:
        if number in done:
            continue
        if callable(change):
            change(database)
        else:
            for statement in change:
                database.execute_sql(statement)
        database.execute_sql("INSERT INTO schema_migration VALUES (%s, UTC_TIMESTAMP())", (number,))
        applied.append(number)
    return applied


def _in_cluster(database: Any) -> bool:
    row = database.execute_sql("SHOW VARIABLES LIKE 'wsrep_on'").fetchone()
    return row is not None and str(row[1]).upper() == "ON"


def _await_cluster(database: Any) -> None:
    """A node that has just joined does not serve yet."""
    until = time.monotonic() + LOCK_WAIT_S
    while True:
        try:
            database.execute_sql("SELECT 1 FROM information_schema.tables LIMIT 1")
            return
        except OperationalError as error:
            if error.args[:1] != (NOT_SERVING,) or time.monotonic() > until:
                raise
        time.sleep(0.5)


@contextmanager
def _lease(database: Any) -> Iterator[None]:
    """In a cluster a named lock holds on its own node alone: there a row says who is at it, and until when.

    The cluster takes one of two that take the row at once, and refuses the other when it commits. Whoever dies with it
    holds the others up for a minute; each step can be done twice.
    """
    if not _in_cluster(database):
        yield
        return
    database.execute_sql(
        "CREATE TABLE IF NOT EXISTS schema_lease"
        " (id INT PRIMARY KEY, holder CHAR(32) NOT NULL, ends_at DATETIME NOT NULL)"
    )
    database.execute_sql("INSERT IGNORE INTO schema_lease VALUES (1, '', '2000-01-01')")
    holder, until = secrets.token_hex(16), time.monotonic() + LEASE_S + LOCK_WAIT_S
    while not _taken(database, holder):
        if time.monotonic() > until:
            raise MigrationBusyError("Another start is changing the database; try again in a minute.")
        time.sleep(1.0)
    try:
        yield
    finally:
        database.execute_sql("UPDATE schema_lease SET ends_at = '2000-01-01' WHERE id = 1 AND holder = %s", (holder,))


def _taken(database: Any, holder: str) -> bool:
    try:
        changed = database.execute_sql(
            "UPDATE schema_lease SET holder = %s, ends_at = UTC_TIMESTAMP() + INTERVAL %s SECOND"
            " WHERE id = 1 AND ends_at < UTC_TIMESTAMP()",
            (holder, LEASE_S),
        ).rowcount
    except OperationalError as error:
        # Another took it in the same moment.
        if not was_taken_back(error):
            raise
        return False
    return bool(changed)


def pending(database: Any) -> list[str]:
    """What an upgrade would apply to a database that holds a kitchen already; nothing of a new one."""
    done = _done(database)
    return [number for number, _ in MIGRATIONS if number not in done] if done else []


def pending_here() -> list[str]:
    """What the database that is served from lacks; nothing, where an older Vianda meets a newer one."""
    return pending(proxy)


def _done(database: Any) -> set[str]:
    """What was applied. Asked without changing anything: once migrated, the application needs no right to."""
    there = database.execute_sql(
        "SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'schema_migration'"
    ).fetchone()
    if there is None:
        return set()
    return {row[0] for row in database.execute_sql("SELECT number FROM schema_migration").fetchall()}
