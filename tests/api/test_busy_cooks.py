"""A cook's calendar over the wire: away on the day of the service, and the timetable goes round it."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

CALENDAR = """BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//Kestrel//Galley//EN
BEGIN:VEVENT
UID:boat@kestrel.invalid
DTSTAMP:20261101T000000Z
DTSTART:20261106T163000Z
DTEND:20261106T171500Z
RRULE:FREQ=WEEKLY
SUMMARY:The supply boat
END:VEVENT
END:VCALENDAR
"""


def _service(client, **changes) -> dict:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    timing = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": [], "away": []}
    dishes = [{"formula_id": made, "guests": 20}]
    return {"name": "Friday burgers", "day": "2026-12-04", "dishes": dishes, "timing": timing, **changes}


def _busy(client, service: dict, **changes):
    asked = {"service": service, "cook": 2, "calendar": CALENDAR, "utc_offset_min": 60, **changes}
    return client.post("/api/services/busy", json=asked)


def _plan(client, service: dict) -> dict:
    answer = client.post("/api/services/plan", json={"service": service, "unit_system": "metric"})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()["timetable"]


def test_nobody_works_while_the_calendar_has_them_elsewhere(client) -> None:
    service = _service(client)
    answer = _busy(client, service)
    assert answer.status_code == 200, answer.get_json()
    after = answer.get_json()
    # 16:30 in UTC is half past five where the clock is an hour ahead.
    assert after["timing"]["away"] == [{"cook": 2, "from_min": 1050, "to_min": 1095}]
    table = _plan(client, after)
    assert [(a["lane"], a["starts"], a["ends"]) for a in table["away"]] == [("cook-1", "17:30", "18:15")]
    mine = [t for t in table["tasks"] if "cook-1" in t["lanes"]]
    assert mine
    assert all(t["end_min"] <= -60 or t["start_min"] >= -15 for t in mine)
    # Read again it replaces what was said of that cook, and leaves the others.
    after["timing"]["away"].append({"cook": 1, "from_min": 600, "to_min": 660})
    again = _busy(client, after, utc_offset_min=0).get_json()["timing"]["away"]
    assert again == [{"cook": 1, "from_min": 600, "to_min": 660}, {"cook": 2, "from_min": 990, "to_min": 1035}]


def test_two_who_are_both_away_make_it_late_and_one_who_stays_mends_it(client) -> None:
    service = _service(client)
    service["timing"]["opens_min"] = 960
    service["timing"]["away"] = [{"cook": n, "from_min": 970, "to_min": 1100} for n in (1, 2)]
    table = _plan(client, service)
    assert table["late_min"] > 0 or table["impossible"]
    stays = [o for o in table["offers"] if o["edit"] and o["edit"]["kind"] == "drop-away"]
    assert stays
    edit = {"service": service, "edit": stays[0]["edit"], "unit_system": "metric"}
    mended = client.post("/api/services/edit", json=edit).get_json()
    assert len(mended["timing"]["away"]) == 1
    assert _plan(client, mended)["late_min"] < table["late_min"] or table["impossible"]


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"cook": 3}, "/timing/away"),
        ({"cook": 0}, "/cook"),
        ({"calendar": "BEGIN"}, "/calendar"),
        ({"utc_offset_min": 900}, "/utc_offset_min"),
    ],
)
def test_what_cannot_be_read_says_where(client, changes: dict, field: str) -> None:
    answer = _busy(client, _service(client), **changes)
    assert answer.status_code == 422
    assert field in answer.get_data(as_text=True)


def test_a_calendar_is_read_for_a_day(client) -> None:
    answer = _busy(client, _service(client, day=""))
    assert answer.status_code == 422
    assert "day first" in answer.get_json()["detail"]
