"""A span reads the services that may come in it, by columns that follow what each service says."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import pytest

from vianda.core.model.service import Service
from vianda.core.supply.occurrences import days_of
from vianda.storage import kitchen_repository, service_repository
from vianda.storage.here import kitchen_here
from vianda.storage.migrate import migrate
from vianda.storage.tables import ServiceRow

pytestmark = pytest.mark.usefixtures("database")

FIRST, LAST = date(2026, 12, 1), date(2026, 12, 7)
SERVICES = {
    "without a day": Service("A"),
    "the day before": Service("B", "2026-11-30"),
    "the first day": Service("C", "2026-12-01"),
    "the last day": Service("D", "2026-12-07"),
    "the day after": Service("E", "2026-12-08"),
    "weekly since March": Service("F", "2026-03-06", repeat="weekly"),
    "weekly until the first": Service("G", "2026-11-03", repeat="weekly", until="2026-12-01"),
    "weekly until the day before": Service("H", "2026-11-03", repeat="weekly", until="2026-11-30"),
    "weekly from the day after": Service("I", "2026-12-08", repeat="weekly"),
    # What does not repeat comes once, whatever end was given before.
    "once, with an end left over": Service("J", "2026-11-02", until="2026-12-31"),
}
IN_SPAN = {"the first day", "the last day", "weekly since March", "weekly until the first"}


def _read() -> set[str]:
    names = {s.name: key for key, s in SERVICES.items()}
    return {names[s.service.name] for s in service_repository.services_between(FIRST, LAST)}


def test_a_span_reads_what_may_come_in_it_and_nothing_else() -> None:
    for service in SERVICES.values():
        service_repository.create_service(service)
    assert _read() == IN_SPAN
    assert service_repository.count_undated() == 1


@pytest.mark.parametrize("key", SERVICES)
def test_whatever_comes_on_a_day_of_the_span_is_read(key: str) -> None:
    service_repository.create_service(SERVICES[key])
    comes = bool(days_of(SERVICES[key], first=FIRST, last=LAST))
    assert comes == (key in IN_SPAN)
    assert (_read() == {key}) == comes


def test_a_service_that_is_moved_is_read_where_it_went() -> None:
    stored = service_repository.create_service(SERVICES["the day after"])
    assert _read() == set()
    moved = replace(SERVICES["the day after"], day="2026-12-05")
    service_repository.save_service(stored.id, moved, revision=stored.revision)
    assert _read() == {"the day after"}
    service_repository.save_service(stored.id, replace(moved, day=""), revision=stored.revision + 1)
    assert (_read(), service_repository.count_undated()) == (set(), 1)


def test_services_kept_before_there_were_such_columns_are_taken_up(database) -> None:
    for service in SERVICES.values():
        service_repository.create_service(service)
    ServiceRow.update(first_day="", last_day="").execute()
    assert _read() == set()
    database.execute_sql("DELETE FROM schema_migration WHERE number = '0015'")
    assert migrate(database) == ["0015"]
    assert _read() == IN_SPAN
    assert service_repository.count_undated() == 1


def test_another_kitchen_s_services_are_not_read() -> None:
    service_repository.create_service(SERVICES["the first day"])
    mine, kitchen = kitchen_here(), kitchen_repository.load_kitchen().kitchen
    other = kitchen_repository.create_kitchen(kitchen)
    # The kitchen that was opened last is the one meant.
    assert kitchen_here() == other
    assert _read() == set()
    kitchen_repository.choose_kitchen(mine)
    assert _read() == {"the first day"}
    kitchen_repository.choose_kitchen(other)
    kitchen_repository.delete_kitchen(other)
    assert kitchen_here() == mine
