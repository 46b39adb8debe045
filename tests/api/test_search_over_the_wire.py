"""Timetables line by line: how far it is, the answer, a refusal in the first or last line, and a hang-up."""

from __future__ import annotations

import json
from collections.abc import Iterator
from threading import Event

import pytest

from vianda.core.basis.errors import OutOfRangeError
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.runtime import searching
from vianda.runtime.searching import Search
from vianda.services import timetables

LINES = {"Accept": "application/x-ndjson"}


@pytest.fixture
def go_on() -> Iterator[Event]:
    found = Event()
    yield found
    found.set()


def _asked(client, **more):
    return client.post("/api/timetable", json={"formula": FORMULAS.plain(slipway_smash())}, headers=LINES, **more)


def test_the_answer_by_lines_is_the_answer_as_a_whole(client) -> None:
    by_lines = [json.loads(line) for line in _asked(client).get_data(as_text=True).splitlines()]
    whole = client.post("/api/timetable", json={"formula": FORMULAS.plain(slipway_smash())})
    assert whole.content_type == "application/json"
    assert by_lines[-1] == {"found": whole.json}
    assert all(set(line) == {"looking"} for line in by_lines[:-1])


def test_what_is_refused_at_once_is_refused_as_a_whole(client) -> None:
    answer = client.post(
        "/api/short-of-time", json={"formula": FORMULAS.plain(slipway_smash()), "minutes": 0}, headers=LINES
    )
    assert answer.status_code == 422
    assert answer.content_type == "application/problem+json"


@pytest.mark.parametrize(
    ("raised", "status"), [(OutOfRangeError("Not so.", field="/timing"), 422), (ZeroDivisionError("secret"), 500)]
)
def test_what_goes_wrong_later_stands_in_the_last_line(client, monkeypatch, go_on, raised, status) -> None:
    def look(_) -> None:
        assert go_on.wait(30)
        raise raised

    monkeypatch.setattr(timetables, "timetable_of", lambda formula, *, unit_system=None: Search(look))
    answer = _asked(client, buffered=False)
    assert answer.status_code == 200
    lines = iter(answer.response)
    assert set(json.loads(next(lines))) == {"looking"}
    go_on.set()
    last = json.loads(list(lines)[-1])["problem"]
    assert last["status"] == status
    assert "secret" not in last["detail"]
    if status == 422:
        # A pointer into the body that was sent.
        assert last["fields"] == [{"pointer": "/formula/timing", "detail": "Not so."}]


@pytest.mark.parametrize("read", [0, 1])
def test_a_browser_that_hangs_up_ends_the_search(client, monkeypatch, go_on, read) -> None:
    """Whether it has read a line or none."""
    stopped = Event()

    class Told(searching._Watched):
        def stop(self) -> None:
            super().stop()
            stopped.set()

    monkeypatch.setattr(searching, "_Watched", Told)
    monkeypatch.setattr(
        timetables, "timetable_of", lambda formula, *, unit_system=None: Search(lambda _: go_on.wait(30))
    )
    answer = _asked(client, buffered=False)
    for _ in range(read):
        next(iter(answer.response))
    assert not stopped.is_set()
    answer.close()
    assert stopped.is_set()
