"""A service under way over the wire: marks in, the rest of the evening out, and nothing misread in silence."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.interchange.kinds import FORMULAS

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}


@pytest.fixture
def service(client) -> dict:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    return {
        "name": "Friday",
        "day": "2026-12-04",
        "dishes": [{"formula_id": made["id"], "guests": 20}],
        "timing": TIMING,
        "remark": "",
        "repeat": "",
        "until": "",
        "counts": [],
    }


def _planned(client, service: dict) -> list[dict]:
    found = client.post("/api/services/plan", json={"service": service, "unit_system": "metric"}).get_json()
    return found["timetable"]["tasks"]


def _ask(client, service: dict, now: int, marks: list[dict], stood: list[dict] | None = None):
    body = {"service": service, "unit_system": "metric", "now_min": now, "marks": marks, "stood": stood or []}
    return client.post("/api/services/under-way", json=body)


def _stood(tasks: list[dict]) -> list[dict]:
    return [
        {"task": t["key"], "start_min": t["start_min"], "end_min": t["end_min"], "lanes": t["lanes"]} for t in tasks
    ]


def test_a_plate_that_starts_a_quarter_late_moves_the_evening_and_says_so(client, service) -> None:
    tasks = _planned(client, service)
    plate = next(t for t in tasks if t["key"].endswith("preheat"))
    now = plate["start_min"] + 15
    marks = [
        {"task": t["key"], "begun_min": t["start_min"], "ended_min": t["end_min"]}
        for t in tasks
        if t["end_min"] <= now and t is not plate
    ]
    found = _ask(client, service, now, marks, _stood(tasks))
    assert found.status_code == 200
    answer = found.get_json()
    assert answer["late_min"] > 0
    assert answer["says"]["text"].startswith("On the plate at")
    assert answer["served"] > answer["ready"] == "18:30"
    moved = {m["key"]: m for m in answer["moved"]}
    assert moved[plate["key"]]["later_min"] == 15
    assert moved[plate["key"]]["was"] == plate["starts"]
    by_key = {t["key"]: t for t in answer["tasks"]}
    assert by_key.keys() == {t["key"] for t in tasks}
    assert by_key[plate["key"]]["start_min"] == now
    assert {t["status"] for t in answer["tasks"] if t["key"] in {m["task"] for m in marks}} <= {"done"}
    assert all(t["start_min"] >= now for t in answer["tasks"] if t["status"] == "to-do")
    assert 0.0 <= answer["on_time_frac"] <= 1.0


def test_an_evening_as_planned_is_on_time_and_nothing_moves(client, service) -> None:
    tasks = _planned(client, service)
    now = tasks[len(tasks) // 2]["start_min"]
    marks = []
    for t in tasks:
        if t["end_min"] <= now:
            marks.append({"task": t["key"], "begun_min": t["start_min"], "ended_min": t["end_min"]})
        elif t["start_min"] < now:
            marks.append({"task": t["key"], "begun_min": t["start_min"]})
    answer = _ask(client, service, now, marks, _stood(tasks)).get_json()
    assert answer["moved"] == []
    assert answer["gives"] == []
    assert answer["late_min"] == 0
    assert answer["says"]["text"].startswith("Still on the plate at")
    status = {t["key"]: t["status"] for t in answer["tasks"]}
    assert {k for k, s in status.items() if s == "running"} == {m["task"] for m in marks if "ended_min" not in m}


def test_without_a_plan_of_before_the_one_of_the_service_counts(client, service) -> None:
    tasks = _planned(client, service)
    first = min(t["start_min"] for t in tasks)
    answer = _ask(client, service, first, []).get_json()
    assert {t["key"] for t in answer["tasks"]} == {t["key"] for t in tasks}
    assert answer["late_min"] == 0


def test_meat_that_waits_too_long_is_said_first(client, service) -> None:
    tasks = _planned(client, service)
    build = next(t for t in tasks if "build-1" in t["key"])
    wave = next(t for t in tasks if t["key"].endswith("wave-1"))
    now = wave["end_min"] + 25
    marks = [
        {"task": t["key"], "begun_min": t["start_min"], "ended_min": t["end_min"]}
        for t in tasks
        if t["start_min"] < build["start_min"] and t["key"] != build["key"] and t["end_min"] <= now
    ]
    answer = _ask(client, service, now, marks, _stood(tasks)).get_json()
    says = " ".join(g["text"] for g in answer["gives"])
    assert "is good" in says
    wait = next(g for g in answer["gives"] if "is good" in g["text"])
    assert wait["amounts"]["wait"]["value"] > wait["amounts"]["most"]["value"]


def test_the_kitchens_places_and_cooks_go_there_and_back(client, service) -> None:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(beacon_grill())}).get_json()
    service["dishes"].append({"formula_id": made["id"], "guests": 20})
    tasks = _planned(client, service)
    first = min(t["start_min"] for t in tasks)
    answer = _ask(client, service, first, [], _stood(tasks)).get_json()
    lanes = {t["key"]: sorted(t["lanes"]) for t in tasks}
    assert {t["key"]: sorted(t["lanes"]) for t in answer["tasks"]} == lanes
    names = {slipway_smash().name, beacon_grill().name}
    assert {t["dish"] for t in answer["tasks"]} == names


@pytest.mark.parametrize(
    ("now", "marks", "says"),
    [
        (0, [{"task": "soup", "begun_min": -5}], "not in this timetable"),
        (-60, [{"task": "KEY", "begun_min": -59}], "after now"),
        (-10, [{"task": "KEY", "begun_min": -20, "ended_min": -25}], "before it began"),
        (-10, [{"task": "KEY", "begun_min": -20}, {"task": "KEY", "begun_min": -15}], "twice"),
        (700, [], "half a day"),
    ],
)
def test_what_cannot_have_happened_is_refused_with_its_reason(client, service, now, marks, says) -> None:
    key = _planned(client, service)[0]["key"]
    marks = [{**m, "task": m["task"].replace("KEY", key)} for m in marks]
    refused = _ask(client, service, now, marks)
    assert refused.status_code == 422
    assert says in refused.get_json()["detail"]


@pytest.mark.parametrize(
    "wrong",
    [
        {"now_min": 721},
        {"now_min": -64801},
        {"now_min": 1.5},
        {"now_min": None},
        {"marks": [{"task": "", "begun_min": 0}]},
        {"marks": [{"task": "x", "begun_min": 0, "still_min": -1}]},
        {"marks": [{"task": "x", "begun_min": 0, "still_min": 721}]},
        {"marks": [{"task": "x", "begun_min": 0, "more": 1}]},
        {"marks": [{"task": "x", "begun_min": 0}] * 401},
        {"stood": [{"task": "x", "start_min": 0, "end_min": 99999, "lanes": []}]},
        {"stood": [{"task": "x", "start_min": 0, "end_min": 1, "lanes": ["cook-0"] * 9}]},
    ],
)
def test_what_does_not_fit_is_refused(client, service, wrong) -> None:
    body = {"service": service, "unit_system": "metric", "now_min": 0, "marks": [], "stood": [], **wrong}
    assert client.post("/api/services/under-way", json=body).status_code == 422


def test_lanes_that_mean_nothing_are_left_out(client, service) -> None:
    tasks = _planned(client, service)
    stood = [{**x, "lanes": ["waits", "cook-x", "-1", "nothing-7"]} for x in _stood(tasks)]
    first = min(t["start_min"] for t in tasks)
    answer = _ask(client, service, first, [], stood)
    assert answer.status_code == 200
    assert answer.get_json()["moved"] == []


def test_a_service_without_dishes_has_nothing_under_way(client, service) -> None:
    refused = _ask(client, {**service, "dishes": []}, 0, [])
    assert refused.status_code == 422
    assert "choose a dish" in refused.get_json()["detail"]
