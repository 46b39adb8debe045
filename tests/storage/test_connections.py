"""Connections of a process: enough for its threads, and one that is waited for in vain is told as a store away."""

from __future__ import annotations

import threading
from collections.abc import Iterator

import pytest

from vianda.app import create_app
from vianda.serving import THREADS
from vianda.storage import database
from vianda.storage.database import own_connection, proxy


@pytest.fixture
def with_one(pool, mariadb, monkeypatch: pytest.MonkeyPatch) -> Iterator[object]:
    """An application whose process may hold one connection."""
    monkeypatch.setattr(database, "MOST_CONNECTIONS", 1)
    monkeypatch.setattr(database, "WAIT_S", 0.2)
    with pool.connection_context():
        pass
    app = create_app({"DATABASE_URL": mariadb.url, "PAGES": None})
    yield app.test_client()
    proxy.close_all()
    proxy.initialize(pool)


def test_every_thread_has_a_connection_and_some_are_left_for_streams() -> None:
    # Each thread has one as long as it answers, however long it waits for a run of the heat model.
    assert database.MOST_CONNECTIONS >= THREADS + 4


def test_when_all_are_in_use_it_is_told_to_be_away_and_answers_again_after(with_one) -> None:
    taken, enough = threading.Event(), threading.Event()

    def hold() -> None:
        with own_connection():
            taken.set()
            enough.wait(30)

    other = threading.Thread(target=hold)
    other.start()
    assert taken.wait(30)
    told = with_one.get("/api/kitchens")
    assert (told.status_code, told.get_json()["type"].rsplit(":", 1)[-1]) == (503, "store-away")
    enough.set()
    other.join()
    assert with_one.get("/api/kitchens").status_code == 200
