"""A cook at the stove, over the wire: what is foretold after each reading, and the simulated thermometers."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services import cooks


def _begun(client, formula) -> dict:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(formula)}).get_json()
    return client.post("/api/cooks", json={"formula_id": made["id"]}).get_json()


@pytest.fixture
def smash(client) -> dict:
    return _begun(client, slipway_smash())


@pytest.fixture
def grill(client) -> dict:
    return _begun(client, beacon_grill())


def _say(client, cook: dict, kind: str, place: int, value: float | None = None) -> None:
    said = {"token": f"{kind}-{place}-{int(value or 0)}-{cook['id']}", "kind": kind, "place": place, "value": value}
    answer = client.post(f"/api/cooks/{cook['id']}/events", json={**said, "late_s": 0})
    assert answer.status_code == 200, answer.get_json()


def _foretold(client, cook: dict) -> dict:
    answer = client.get(f"/api/cooks/{cook['id']}/forecast")
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def test_nothing_is_foretold_before_anything_is_on(client, smash) -> None:
    found = _foretold(client, smash)
    assert found["said"] == 0
    assert found["forecast"] == {"metal": True}


def test_a_surface_that_was_read_is_waited_for(client, smash) -> None:
    _say(client, smash, "surface", 0, 190.0)
    wait = _foretold(client, smash)["forecast"]["surface"]
    assert wait["place"] == 1
    assert wait["hot_at_s"] > 30
    assert "190" in str(wait["message"])


def test_a_wave_on_the_heat_is_foretold_and_a_slip_is_named(client, grill) -> None:
    _say(client, grill, "done", 0)
    _say(client, grill, "done", 1)
    found = _foretold(client, grill)
    heat = found["forecast"]["on_the_heat"]
    assert found["said"] == 2
    assert [e["place"] for e in heat["ends"]] == [2, 3]
    assert not heat["moved"]
    assert heat["off_s"]["low"] < heat["off_s"]["usual"] < heat["off_s"]["high"]
    _say(client, grill, "probe", 2, 95.0)
    slip = _foretold(client, grill)["forecast"]["on_the_heat"]
    assert slip["doubtful"]
    assert not slip["moved"]
    assert slip["off_s"] == heat["off_s"]


def test_a_cook_that_is_over_is_not_foretold(client, smash) -> None:
    _say(client, smash, "done", 0)
    _say(client, smash, "done", 1)
    assert "on_the_heat" in _foretold(client, smash)["forecast"]
    client.put(
        f"/api/cooks/{smash['id']}/outcome", json={"outcome": {"note": "", "next_time": ""}, "revision": 1}
    )  # fmt: skip
    assert "on_the_heat" not in _foretold(client, smash)["forecast"]
    assert client.get("/api/cooks/99999/forecast").status_code == 404


def test_the_simulated_thermometers_are_held_in_this_cook(client, smash, grill) -> None:
    def read(cook: dict, of: str, at: float) -> tuple[int, dict]:
        answer = client.post(f"/api/cooks/{cook['id']}/simulated-reading", json={"of": of, "since_start_s": at})
        return answer.status_code, answer.get_json()

    status, refused = read(smash, "core", 30.0)
    assert (status, refused["detail"]) == (422, "Nothing lies on the heat yet.")
    status, surface = read(smash, "surface", 30.0)
    assert status == 200
    assert 150 < surface["shown_c"] < 250
    # A grate is no plate.
    assert read(grill, "surface", 30.0)[0] == 422
    for place in (0, 1):
        _say(client, grill, "done", place)
    early, late = read(grill, "core", 60.0)[1], read(grill, "core", 5000.0)[1]
    assert early["shown_c"] < 40 < late["shown_c"] < 90
    assert read(grill, "core", 60.0)[1] == early
    assert read(grill, "elbow", 60.0)[0] == 422


@pytest.mark.parametrize(
    ("kind", "value", "says"),
    [
        ("surface", 500.0, ""), ("surface", 500.1, "A surface reads 0 to 500 °C."),
        ("surface", 0.0, ""), ("surface", -0.1, "A surface reads 0 to 500 °C."),
        ("probe", 120.0, ""), ("probe", 120.1, "A core reads −20 to 120 °C."),
        ("probe", -20.0, ""), ("probe", -20.1, "A core reads −20 to 120 °C."),
    ],
)  # fmt: skip
def test_what_no_thermometer_reads_is_refused_and_spoils_nothing_later(client, smash, kind, value, says) -> None:
    said = {"token": "reading-0001", "kind": kind, "place": 0, "value": value, "late_s": 0}
    answer = client.post(f"/api/cooks/{smash['id']}/events", json=said)
    assert (answer.status_code, answer.get_json().get("detail", "")) == (422 if says else 200, says)
    # What went wrong takes the surface as it was read.
    found = client.post(f"/api/cooks/{smash['id']}/faults", json={"unit_system": "metric"})
    assert found.status_code == 200
    assert found.get_json()["readings"].get("surface_c") == (value if kind == "surface" and not says else None)


def test_a_cook_holds_so_many_happenings_and_answers_with_them_alone(client, smash, monkeypatch) -> None:
    monkeypatch.setattr(cooks, "MOST_EVENTS", 2)
    path = f"/api/cooks/{smash['id']}/events"
    said = [{"token": f"happening-{n}", "kind": "done", "place": n, "late_s": 0} for n in range(3)]
    assert [client.post(path, json=one).status_code for one in said] == [200, 200, 422]
    # What was noted is answered again, however full it is.
    again = client.post(path, json=said[1])
    assert [e["token"] for e in again.get_json()["events"]] == ["happening-0", "happening-1"]
    assert set(again.get_json()) == {"events"}
    assert client.post("/api/cooks/999999/events", json=said[0]).status_code == 404
