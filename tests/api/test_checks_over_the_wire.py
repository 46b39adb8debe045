"""The checks of an evening over the wire: asked for by the plan, measured once, judged, and kept as a record."""

from __future__ import annotations

import csv
import io
from dataclasses import replace

import pytest

from vianda.core.checks.judge import MOST_READINGS
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
DAY = "2026-12-04"


@pytest.fixture
def burgers(client) -> int:
    formula = replace(slipway_smash(), name="=Burgers")
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(formula)}).get_json()["id"]
    service = {"name": "Friday", "day": DAY, "dishes": [{"formula_id": made, "guests": 20}], "timing": TIMING}
    return client.post("/api/services", json={"service": service}).get_json()["id"]


def _say(client, service: int, token: str, **event):
    body = {"token": f"token-{token}", "minute": 0, **event}
    return client.post(f"/api/services/{service}/run/events", json={"day": DAY, "event": body})


def _measure(client, service: int, token: str, check: str, temp: float, **more):
    answer = _say(client, service, token, kind="measured", check=check, temp=temp, **more)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _sheet(client, service: int, **asked) -> dict:
    answer = client.post(f"/api/services/{service}/run/checks", json={"day": DAY, **asked})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _planned(client, service: int) -> list[dict]:
    kept = client.get(f"/api/services/{service}").get_json()["service"]
    plan = client.post("/api/services/plan", json={"service": kept, "unit_system": "metric"}).get_json()
    return [
        {"task": t["key"], "start_min": t["start_min"], "end_min": t["end_min"], "lanes": t["lanes"]}
        for t in plan["timetable"]["tasks"]
    ]


def test_the_plan_asks_for_each_wave_and_a_reading_answers_it(client, burgers: int) -> None:
    stood = _planned(client, burgers)
    rows = _sheet(client, burgers, stood=stood, now_min=-300)["rows"]
    waves = [r for r in rows if r["kind"] == "core"]
    assert len(waves) == sum("-wave-" in t["task"] for t in stood)
    assert {r["state"] for r in rows} == {"coming"}
    _measure(client, burgers, "0001", waves[0]["key"], 72.0, minute=-9, who=" Ines ", remark="third from the left")
    sheet = _sheet(client, burgers, stood=stood, now_min=-9)
    row = next(r for r in sheet["rows"] if r["key"] == waves[0]["key"])
    assert (row["state"], row["what"]) == ("kept", "third from the left")
    assert (row["readings"][0]["who"], row["readings"][0]["at"]) == ("Ines", "18:21")
    assert (sheet["country"], sheet["name"]) == ("US", "Friday")


def test_a_figure_in_fahrenheit_is_one(client, burgers: int) -> None:
    _measure(client, burgers, "0001", "cold", 41.0, unit_system="us")
    [row] = _sheet(client, burgers)["rows"]
    assert row["readings"][0]["temp_c"] == pytest.approx(5.0)
    assert row["state"] == "kept"


def test_a_repeat_counts_once_and_what_was_done_stands_beside_it(client, burgers: int) -> None:
    for _ in range(3):
        _measure(client, burgers, "0001", "cold", 12.0, minute=-60)
    [row] = _sheet(client, burgers, now_min=-59)["rows"]
    assert (row["state"], len(row["readings"])) == ("missed", 1)
    assert row["corrective"]["text"].startswith("Move it")
    done = _say(client, burgers, "0002", kind="acted", check="cold", minute=-58, remark="Moved to the walk-in")
    assert done.status_code == 200
    [row] = _sheet(client, burgers, now_min=-57)["rows"]
    assert (row["state"], row["actions"][0]["remark"]) == ("settled", "Moved to the walk-in")


@pytest.mark.parametrize(
    ("event", "pointer"),
    [
        ({"kind": "measured", "check": "fridge", "temp": 4}, "/event/check"),
        ({"kind": "measured", "check": "cold"}, "/event/temp"),
        ({"kind": "measured", "check": "cold", "temp": -40.1}, "/event/temp"),
        ({"kind": "measured", "check": "cold", "temp": 150.1}, "/event/temp"),
        ({"kind": "measured", "check": "cold", "temp": 4, "value": 60}, "/event/value"),
        ({"kind": "measured", "check": "cold", "temp": "NaN"}, "/event/temp"),
        ({"kind": "measured", "check": "cold", "temp": 1e308}, "/event/temp"),
        ({"kind": "measured", "check": "cold/" + "x" * 200, "temp": 4}, "/event/check"),
        ({"kind": "acted", "check": "cold", "remark": "  "}, "/event/remark"),
        ({"kind": "acted", "check": "", "remark": "Moved"}, "/event/check"),
    ],
)
def test_what_cannot_stand_in_a_record_is_refused_at_its_place(client, burgers: int, event, pointer) -> None:
    answer = _say(client, burgers, "0001", **event)
    assert answer.status_code == 422, answer.get_json()
    assert [f["pointer"] for f in answer.get_json()["fields"]] == [pointer]
    assert _sheet(client, burgers)["rows"] == []


@pytest.mark.parametrize("temp", [-40.0, 150.0])
def test_the_bounds_themselves_are_taken(client, burgers: int, temp: float) -> None:
    _measure(client, burgers, "0001", "cold", temp)


def test_one_check_is_not_measured_without_end(client, burgers: int) -> None:
    for n in range(MOST_READINGS):
        _measure(client, burgers, f"{n:04}", "cold", 3.0, minute=n)
    assert _say(client, burgers, "more", kind="measured", check="cold", temp=3.0).status_code == 422
    # Others are, and the sheet is still there.
    _measure(client, burgers, "other", "hot/own-1", 70.0)
    assert len(_sheet(client, burgers)["rows"]) == 2


def test_the_record_names_what_was_cooked_and_not_measured_and_goes_out_as_a_table(client, burgers: int) -> None:
    wave = next(t["task"] for t in _planned(client, burgers) if "-wave-" in t["task"])
    _say(client, burgers, "0001", kind="end", task=wave, minute=-12, value=5)
    _measure(client, burgers, "0002", "cool/own-1", 50.0, minute=40, remark="=1+1 gravy", who="@Ines")
    _say(client, burgers, "0003", kind="take-back", of="token-0002", minute=41)
    _measure(client, burgers, "0004", "cool/own-1", 57.0, minute=41, remark="=1+1 gravy")
    record = _sheet(client, burgers)
    # Somebody worked, so the fridge was to be looked at before.
    assert [(r["kind"], r["state"]) for r in record["rows"]] == [
        ("cold", "not-measured"), ("core", "not-measured"), ("cool", "unfinished"),
    ]  # fmt: skip
    answer = client.get(f"/api/services/{burgers}/checks/{DAY}/record.csv")
    assert answer.content_type == "text/csv; charset=utf-8"
    rows = list(csv.DictReader(io.StringIO(answer.get_data(as_text=True))))
    assert [(r["check"], r["outcome"], r["measured_c"], r["counts"], r["at"]) for r in rows] == [
        ("Cold holding", "not-measured", "", "", ""),
        ("Core at the end", "not-measured", "", "", ""),
        ("Cooling", "unfinished", "50.0", "no", "19:10"),
        ("Cooling", "unfinished", "57.0", "yes", "19:11"),
    ]
    # Nothing that a table program would work out.
    assert rows[2]["note"] == "'=1+1 gravy"
    assert rows[2]["who"] == "'@Ines"
    assert rows[1]["at_least_c"] == "68.3"
    assert client.get(f"/api/services/{burgers}/checks/today/record.csv").status_code == 422
    assert client.get(f"/api/services/99999/checks/{DAY}/record.csv").status_code == 404


def test_an_evening_whose_dish_is_gone_keeps_its_record(client, burgers: int) -> None:
    _measure(client, burgers, "0001", "core/f1-wave-1", 75.0)
    dish = client.get(f"/api/services/{burgers}").get_json()["service"]["dishes"][0]["formula_id"]
    assert client.delete(f"/api/formulas/{dish}").status_code in (200, 204)
    assert [r["state"] for r in _sheet(client, burgers)["rows"]] == ["kept"]
