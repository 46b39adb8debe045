"""The kitchen's own checks over the wire: a fridge, a delivery, a tray that cools overnight; and a span on record."""

from __future__ import annotations

import csv
import io
from datetime import date, timedelta

import pytest

DAY = "2026-12-04"
TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}


def _say(client, token: str, *, day: str = DAY, **event):
    body = {"token": f"token-{token}", "kind": "measured", "minute": 540, **event}
    return client.post("/api/checks/events", json={"day": day, "event": body})


def _record(client, first: str = DAY, last: str = DAY) -> list[dict]:
    answer = client.post("/api/checks", json={"from_day": first, "to_day": last})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()["sheets"]


def test_the_fridge_in_the_morning_is_on_the_record_of_its_day(client) -> None:
    assert _record(client) == []
    said = _say(client, "0001", check="cold/own-1", temp=3.2, who="Ines", remark="Walk-in")
    assert said.status_code == 200, said.get_json()
    [sheet] = _record(client)
    [row] = sheet["rows"]
    assert (sheet["service_id"], sheet["day"], row["state"], row["what"]) == (0, DAY, "kept", "Walk-in")
    assert (row["readings"][0]["at"], row["readings"][0]["who"]) == ("09:00", "Ines")
    # Struck out it does not count, and with no other reading the check is gone.
    _say(client, "0002", kind="take-back", of="token-0001")
    assert _record(client) == []


def test_a_tray_that_cools_overnight_goes_on_after_midnight(client) -> None:
    """57 to 5 °C within 6 h: FDA Food Code 3-501.14, from memory."""
    _say(client, "0001", check="cool/own-1", temp=57.0, minute=1320, remark="Stock")
    _say(client, "0002", check="cool/own-1", temp=20.0, minute=1439)
    assert _record(client)[0]["rows"][0]["state"] == "unfinished"
    # As long as it may still be going on, it says when to measure again; after two days it was not finished.
    times = {"2026-12-05T00:10": "running", "2026-12-06T00:00": "running", "2026-12-06T00:01": "unfinished"}
    for now, state in times.items():
        body = {"from_day": DAY, "to_day": DAY, "now": now}
        [row] = client.post("/api/checks", json=body).get_json()["sheets"][0]["rows"]
        assert row["state"] == state
    _say(client, "0003", check="cool/own-1", temp=4.8, minute=1320 + 360)
    [row] = _record(client)[0]["rows"]
    assert (row["state"], row["readings"][-1]["at"]) == ("kept", "04:00")


@pytest.mark.parametrize(
    "event",
    [
        {"kind": "begin", "task": "mix"}, {"kind": "restart"}, {"kind": "take-back"},
        {"check": "cold", "temp": 3, "minute": -1}, {"check": "cold", "temp": 3, "minute": 2880},
        {"check": "warm", "temp": 3}, {"check": "cold"},
    ],
)  # fmt: skip
def test_only_checks_are_written_down_of_no_service(client, event) -> None:
    assert _say(client, "0001", **event).status_code == 422
    assert _record(client) == []


def test_a_core_of_what_nobody_knows_is_held_against_the_strictest_line(client) -> None:
    """165 °F, poultry: FDA Food Code 3-401.11, from memory."""
    _say(client, "0001", check="core/own-1", temp=73.8)
    assert _record(client)[0]["rows"][0]["state"] == "missed"
    _say(client, "0002", check="core/own-1", temp=73.9)
    assert _record(client)[0]["rows"][0]["state"] == "kept"


@pytest.mark.parametrize("minute", [0, 2879])
def test_the_first_and_the_last_minute_are_taken(client, minute: int) -> None:
    assert _say(client, "0001", check="cold", temp=3, minute=minute).status_code == 200


def _deliver(client, temp_c: float, token: str, *, meat: str = "chuck"):
    lot = {
        "key": "new", "meat": meat, "name": "Norquay Butchery, Friday", "left_mass_g": 5000.0, "price_per_kg": "9.40",
        "delivered": DAY, "use_by": None, "evidence": [], "closed": False,
    }  # fmt: skip
    measured = {"token": token, "day": DAY, "minute": 615, "who": "Rafe"}
    body = {"lot": lot, "temp_c": temp_c, "unit_system": "metric", "measured": measured}
    return client.post("/api/deliveries", json=body)


def test_a_delivery_is_on_the_record_taken_or_refused(client) -> None:
    assert _deliver(client, 5.0, "token-0001").status_code == 201
    assert _deliver(client, 5.2, "token-0002").status_code == 422
    rows = _record(client)[0]["rows"]
    assert [(r["kind"], r["state"], r["what"]) for r in rows] == [
        ("delivery", "kept", "Norquay Butchery, Friday"),
        ("delivery", "settled", "Norquay Butchery, Friday"),
    ]
    assert rows[1]["actions"][0]["remark"] == "Refused"
    assert {r["readings"][0]["at"] for r in rows} == {"10:15"}
    # Nobody measured: there is no figure to keep.
    assert _record(client, "2026-12-05", "2026-12-05") == []


def _service(client, name: str) -> int:
    service = {"name": name, "day": DAY, "dishes": [], "timing": TIMING}
    return client.post("/api/services", json={"service": service}).get_json()["id"]


def test_a_record_stays_true_when_its_service_is_moved_and_deleted(client) -> None:
    service = _service(client, "Friday")
    event = {"token": "token-0001", "kind": "measured", "minute": -60, "check": "cold", "temp": 3.0}
    assert client.post(f"/api/services/{service}/run/events", json={"day": DAY, "event": event}).status_code == 200
    kept = client.get(f"/api/services/{service}").get_json()
    moved = {**kept["service"], "timing": {**kept["service"]["timing"], "ready_min": 600}}
    saved = client.put(f"/api/services/{service}", json={"service": moved, "revision": kept["revision"]})
    assert saved.status_code == 200
    [sheet] = _record(client)
    assert (sheet["name"], sheet["rows"][0]["readings"][0]["at"]) == ("Friday", "17:30")
    assert client.delete(f"/api/services/{service}").status_code == 200
    [sheet] = _record(client)
    assert (sheet["name"], sheet["rows"][0]["readings"][0]["at"]) == ("Friday", "17:30")


def test_a_span_holds_each_day_and_goes_out_as_one_table(client) -> None:
    _say(client, "0001", check="cold", temp=3.0)
    _say(client, "0002", day="2026-12-06", check="cold", temp=9.0)
    service = _service(client, "=Friday")
    event = {"token": "token-0001", "kind": "measured", "minute": 5, "check": "hot/own-1", "temp": 70.0}
    client.post(f"/api/services/{service}/run/events", json={"day": DAY, "event": event})
    sheets = _record(client, DAY, "2026-12-06")
    assert [(s["day"], s["name"]) for s in sheets] == [(DAY, ""), (DAY, "=Friday"), ("2026-12-06", "")]
    answer = client.get(f"/api/checks/{DAY}/2026-12-06/record.csv")
    rows = list(csv.DictReader(io.StringIO(answer.get_data(as_text=True))))
    assert [(r["day"], r["service"], r["measured_c"], r["outcome"]) for r in rows] == [
        (DAY, "", "3.0", "kept"), (DAY, "'=Friday", "70.0", "kept"), ("2026-12-06", "", "9.0", "missed"),
    ]  # fmt: skip


def test_a_span_is_not_endless(client) -> None:
    last = str(date.fromisoformat(DAY) + timedelta(days=62))
    answer = client.post("/api/checks", json={"from_day": DAY, "to_day": last})
    assert answer.status_code == 422
    assert client.post("/api/checks", json={"from_day": last, "to_day": DAY}).status_code == 422
