"""A service as it is cooked, over the wire: said once, followed by every device, kept for its day and its kitchen."""

from __future__ import annotations

import pytest

from vianda.storage.tables import RunEventRow, RunRow

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
DAY = "2026-12-04"


def _service(client, **changes) -> int:
    service = {"name": "Friday", "day": DAY, "dishes": [], "timing": TIMING, **changes}
    made = client.post("/api/services", json={"service": service})
    assert made.status_code == 201, made.get_json()
    return made.get_json()["id"]


def _event(token: str = "token-0001", **changes) -> dict:
    return {"token": token, "kind": "begin", "minute": -40, "task": "f1-mix", **changes}


def _say(client, service: int, event: dict, *, day: str = DAY) -> dict:
    said = client.post(f"/api/services/{service}/run/events", json={"day": day, "event": event})
    assert said.status_code == 200, said.get_json()
    return said.get_json()


def _follow(client, service: int, known: int, *, day: str = DAY) -> dict:
    return client.post(f"/api/services/{service}/run/follow", json={"day": day, "known": known}).get_json()


def test_what_one_device_says_the_other_follows(client) -> None:
    service = _service(client)
    opened = client.post(f"/api/services/{service}/run", json={"now": "2026-12-04T17:50"}).get_json()
    assert (opened["day"], opened["number"], opened["events"], opened["marks"]) == (DAY, 0, [], [])
    said = _say(client, service, _event())
    assert [m["task"] for m in said["marks"]] == ["f1-mix"]
    theirs = _follow(client, service, 0)
    assert (theirs["changed"], theirs["marks"], theirs["number"]) == (True, said["marks"], said["number"])
    # Nothing was said since: nothing is sent.
    same = _follow(client, service, said["number"])
    assert (same["changed"], same["events"]) == (False, [])
    _say(client, service, _event("token-0002", kind="end", minute=-30, value=10))
    assert _follow(client, service, said["number"])["marks"][0]["ended_min"] == -30
    # Opened anew it is all there.
    again = client.post(f"/api/services/{service}/run", json={"now": "2026-12-05T00:10"}).get_json()
    assert [e["token"] for e in again["events"]] == ["token-0001", "token-0002"]


def test_said_again_after_a_lost_answer_it_counts_once(client) -> None:
    service = _service(client)
    for _ in range(3):
        said = _say(client, service, _event())
    assert len(said["events"]) == 1
    # What is said under a token first stands.
    assert _say(client, service, _event(minute=5))["events"][0]["minute"] == -40


def test_each_day_service_and_kitchen_has_a_run_of_its_own(client) -> None:
    service, other = _service(client), _service(client, name="Saturday")
    _say(client, service, _event())
    assert _follow(client, other, 0)["marks"] == []
    assert _follow(client, service, 0, day="2026-12-11")["marks"] == []
    # The same token on another day is another thing said.
    assert len(_say(client, service, _event(), day="2026-12-11")["events"]) == 1
    demo = client.get("/api/kitchens").get_json()["here"]
    own = {"name": "Mast-house", "country": "UK", "surfaces": [{"kind": "pan", "width": "28 cm"}]}
    there = {"Vianda-Kitchen": str(client.post("/api/kitchens", json=own).get_json()["here"])}
    assert (
        client.post(f"/api/services/{service}/run/follow", json={"day": DAY}, headers=there).get_json()["number"] == 0
    )
    body = {"day": DAY, "event": _event()}
    assert client.post(f"/api/services/{service}/run/events", json=body, headers=there).status_code == 404
    assert (
        client.post(f"/api/services/{service}/run", json={"now": "2026-12-04T12:00"}, headers=there).status_code == 404
    )
    # With its kitchen it goes.
    assert RunRow.select().count() == 2
    assert client.delete(f"/api/kitchens/{demo}", headers=there).status_code == 200
    assert (RunRow.select().count(), RunEventRow.select().count()) == (0, 0)


@pytest.mark.parametrize(
    "wrong",
    [
        {"token": "short"},
        {"token": "x" * 41},
        {"token": "token 0001"},
        {"kind": "burn"},
        {"minute": -10_000_000},
        {"minute": 721},
        {"minute": 1.5},
        {"task": ""},
        {"task": "x" * 121},
        {"kind": "longer"},
        {"kind": "longer", "value": 1e308},
        {"kind": "take-back"},
        {"kind": "take-back", "of": "no token"},
    ],
)
def test_what_cannot_be_said_is_refused_and_writes_nothing(client, wrong) -> None:
    body = {"day": DAY, "event": _event(**wrong)}
    assert client.post(f"/api/services/{_service(client)}/run/events", json=body).status_code == 422
    assert RunEventRow.select().count() == 0


def test_no_service_no_run(client) -> None:
    assert client.post("/api/services/999999/run", json={"now": "2026-12-04T12:00"}).status_code == 404
    assert client.post("/api/services/999999/run/events", json={"day": DAY, "event": _event()}).status_code == 404
    service = _service(client)
    assert client.post(f"/api/services/{service}/run", json={"now": "soon"}).status_code == 422
    assert client.post(f"/api/services/{service}/run", json={"now": "9999-12-31T23:00"}).status_code == 422
    # A run with emoji and markup in its tasks is kept to the letter.
    odd = "🍔 <b>'; DROP TABLE run; --"
    assert _say(client, service, _event(task=odd))["marks"][0]["task"] == odd
