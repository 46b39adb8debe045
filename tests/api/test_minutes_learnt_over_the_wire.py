"""Minutes learnt over the wire: an evening is timed, a factor is proposed, used, and moves the next timetable."""

from __future__ import annotations

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.core.learning.from_run import minutes_observations
from vianda.interchange.kinds import FORMULAS

DAY = "2026-12-04"


@pytest.fixture
def service(client) -> dict:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    body = {
        "name": "Friday", "day": DAY, "dishes": [{"formula_id": made["id"], "guests": 20}],
        "timing": {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []},
        "remark": "", "repeat": "", "until": "", "counts": [],
    }  # fmt: skip
    return client.post("/api/services", json={"service": body}).get_json()


def _task(client, service: dict, ending: str) -> dict:
    body = {"service": service["service"], "unit_system": "metric"}
    tasks = client.post("/api/services/plan", json=body).get_json()["timetable"]["tasks"]
    return next(t for t in tasks if t["key"].endswith(ending))


def _say(client, service: dict, kind: str, minute: int, task: str, n: int = 0) -> None:
    event = {"token": f"minutes-{kind}-{n}-{task}"[:40], "kind": kind, "minute": minute, "task": task}
    answer = client.post(f"/api/services/{service['id']}/run/events", json={"day": DAY, "event": event})
    assert answer.status_code == 200, answer.get_json()


def _learning(client) -> dict:
    return client.get("/api/learning").get_json()


def test_an_evening_is_timed_and_the_next_timetable_follows(client, service) -> None:
    shape = _task(client, service, "-shape")
    usual = shape["end_min"] - shape["start_min"]
    assert _learning(client)["learnt"] == []
    _say(client, service, "begin", -120, shape["key"])
    assert _learning(client)["learnt"] == []
    _say(client, service, "end", -120 + 2 * usual, shape["key"])
    found = _learning(client)
    [row] = found["learnt"]
    assert (row["figure"], row["level"], row["key"], row["name"]) == ("minutes", "task", "shape", "Shaping")
    [seen] = row["data"]
    assert seen["observed"] == 2 * usual
    [run] = found["runs"]
    assert (run["run_id"], run["service_name"], run["day"]) == (seen["cook"], "Friday", DAY)
    assert found["cooks"] == []
    # Asked again nothing doubles.
    assert _learning(client) == found

    use = {"figure": "minutes", "level": "task", "key": "shape", "factor": 2.0, "revision": found["revision"]}
    used = client.post("/api/learning/use", json=use)
    assert used.status_code == 200, used.get_json()
    after = _task(client, service, "-shape")
    assert after["end_min"] - after["start_min"] >= 2 * usual - 1
    assert client.get("/api/kitchen").get_json()["kitchen"]["paces"] == [{"task": "shape", "factor": 2.0}]


def test_an_observation_is_left_out_and_stays_so_when_more_is_said(client, service) -> None:
    shape, mix = _task(client, service, "-shape"), _task(client, service, "-build-1")
    for key in (shape["key"], mix["key"]):
        _say(client, service, "begin", -100, key)
    _say(client, service, "end", -80, shape["key"])
    [row] = _learning(client)["learnt"]
    aside = {"figure": "minutes", "cook": row["data"][0]["cook"], "piece": row["data"][0]["piece"], "aside": True}
    assert client.post("/api/learning/aside", json=aside).status_code == 200
    _say(client, service, "end", -90, mix["key"])
    rows = {r["key"]: r for r in _learning(client)["learnt"]}
    assert (rows["shape"]["counted"], rows["shape"]["data"][0]["aside"]) == (0, True)
    assert rows["build"]["counted"] == 1


def test_a_cook_of_the_same_number_keeps_its_own_observations(client, service) -> None:
    """Cooks and runs are numbered apart."""
    shape = _task(client, service, "-shape")
    _say(client, service, "begin", -100, shape["key"])
    _say(client, service, "end", -80, shape["key"])
    run = _learning(client)["runs"][0]["run_id"]
    formula = service["service"]["dishes"][0]["formula_id"]
    for _ in range(50):
        cook = client.post("/api/cooks", json={"formula_id": formula}).get_json()
        if cook["id"] >= run:
            break
    body = {"outcome": {"cooked_mass_g": 2300}, "revision": cook["revision"]}
    client.put(f"/api/cooks/{cook['id']}/outcome", json=body)
    assert {r["figure"] for r in _learning(client)["learnt"]} == {"loss", "minutes"}


def test_a_service_that_was_deleted_teaches_nothing_and_stops_nothing(client, service) -> None:
    shape = _task(client, service, "-shape")
    _say(client, service, "begin", -100, shape["key"])
    _say(client, service, "end", -80, shape["key"])
    client.delete(f"/api/services/{service['id']}")
    assert _learning(client)["learnt"] == []


@pytest.mark.parametrize(("key", "factor"), [("juggling", 1.2), ("shape", 2.1), ("shape", 0.4)])
def test_what_is_no_pace_is_refused(client, key, factor) -> None:
    revision = client.get("/api/kitchen").get_json()["revision"]
    use = {"figure": "minutes", "level": "task", "key": key, "factor": factor, "revision": revision}
    assert client.post("/api/learning/use", json=use).status_code == 422


def test_windows_that_ask_in_one_moment_are_all_answered_and_nothing_doubles(app, client, service, monkeypatch) -> None:
    for ending in ("-shape", "-build-1"):
        task = _task(client, service, ending)
        _say(client, service, "begin", -120, task["key"])
        _say(client, service, "end", -110, task["key"])
    together = threading.Barrier(6)

    def all_at_once(*said):
        # Each has worked it out before any has written it down.
        found = minutes_observations(*said)
        together.wait(60)
        return found

    monkeypatch.setattr("vianda.services.learning.minutes_observations", all_at_once)

    def ask() -> tuple[int, int]:
        answer = app.test_client().get("/api/learning")
        return answer.status_code, sum(len(r["data"]) for r in answer.get_json().get("learnt", ()))

    with ThreadPoolExecutor(6) as pool:
        answers = [asked.result(120) for asked in [pool.submit(ask) for _ in range(6)]]
    assert answers == [(200, 2)] * 6
