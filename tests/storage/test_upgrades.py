"""An upgrade from every shape the database ever had, and one that was killed after each of its statements."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from peewee import MySQLDatabase

from database_shape import shape_of
from vianda.storage.database import address_of
from vianda.storage.migrate import MIGRATIONS, migrate


@pytest.fixture
def empty(mariadb) -> Iterator[Any]:
    """An empty database beside the others, thrown away at the end."""
    at = address_of(mariadb.url)
    known = {"host": at.host, "port": at.port, "user": at.user, "password": at.password}
    name = f"{at.name}_upgrade"
    server = MySQLDatabase(at.name, **known)
    server.connect()
    server.execute_sql(f"DROP DATABASE IF EXISTS `{name}`")
    server.execute_sql(f"CREATE DATABASE `{name}`")
    database = MySQLDatabase(name, **known)
    database.connect()
    yield database
    database.close()
    server.execute_sql(f"DROP DATABASE `{name}`")
    server.close()


def _up_to(database: Any, last: int) -> None:
    """The database as it was when so many migrations were known."""
    import vianda.storage.migrate as module

    known = module.MIGRATIONS
    try:
        module.MIGRATIONS = known[:last]
        migrate(database)
    finally:
        module.MIGRATIONS = known


@pytest.fixture(scope="module")
def newest(mariadb) -> dict[str, list[tuple[Any, ...]]]:
    """The shape of a database that was made today."""
    at = address_of(mariadb.url)
    database = MySQLDatabase(at.name, host=at.host, port=at.port, user=at.user, password=at.password)
    database.connect()
    migrate(database)
    shape = shape_of(database)
    database.close()
    return shape


@pytest.mark.parametrize("last", range(1, len(MIGRATIONS)))
def test_a_database_of_each_earlier_shape_becomes_the_newest(empty, newest, last: int) -> None:
    _up_to(empty, last)
    applied = migrate(empty)
    assert applied == [number for number, _ in MIGRATIONS[last:]]
    assert shape_of(empty) == newest
    assert migrate(empty) == []


class _Killed(Exception):
    """The process was killed."""


class _Dying:
    """A database whose process dies after each statement that it has not seen before."""

    def __init__(self, database: Any) -> None:
        self._database = database
        self.deaths = 0
        self._seen: set[str] = set()

    def execute_sql(self, statement: str, parameters: Any = None) -> Any:
        done = self._database.execute_sql(statement, parameters)
        key = f"{statement}{parameters}"
        # What only looks, and the lock that a dead process gives back, change nothing.
        if key not in self._seen and not statement.startswith("SELECT"):
            self._seen.add(key)
            self.deaths += 1
            self._database.execute_sql("SELECT RELEASE_LOCK('vianda-migrate')")
            raise _Killed
        return done


def test_an_upgrade_that_was_killed_after_any_statement_goes_on_from_there(empty, newest) -> None:
    dying = _Dying(empty)
    for _ in range(1000):
        try:
            migrate(dying)
            break
        except _Killed:
            continue
    else:
        pytest.fail("it never came to an end")
    assert dying.deaths > len(MIGRATIONS)
    assert shape_of(empty) == newest
    done = [row[0] for row in empty.execute_sql("SELECT number FROM schema_migration ORDER BY number").fetchall()]
    assert done == [number for number, _ in MIGRATIONS]


def test_in_a_cluster_one_holds_the_lease_and_another_has_it_when_it_ended(empty, monkeypatch) -> None:
    import vianda.storage.migrate as module

    monkeypatch.setattr(module, "_in_cluster", lambda _: True)
    monkeypatch.setattr(module, "LOCK_WAIT_S", 0)
    monkeypatch.setattr(module, "LEASE_S", 2)
    with module._lease(empty):
        assert not module._taken(empty, "another")
    # Given back, it is free at once.
    assert module._taken(empty, "another")
    with pytest.raises(module.MigrationBusyError), module._lease(empty):
        pytest.fail("two had it at once")
    # Whoever died with it holds nobody up for longer than it lasts.
    empty.execute_sql("UPDATE schema_lease SET ends_at = UTC_TIMESTAMP() - INTERVAL 1 SECOND")
    with module._lease(empty):
        pass
    assert migrate(empty) == [number for number, _ in MIGRATIONS]
