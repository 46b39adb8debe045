"""The prep plan of a span, who goes short, and to-dos of the calendar, over the wire."""

from __future__ import annotations

import csv
import io
from dataclasses import replace
from datetime import date, datetime, timedelta

import pytest
from icalendar import Calendar

from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.core.model.formula import Accompaniment
from vianda.interchange.kinds import FORMULAS

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
SPAN = {"from_day": "2026-12-01", "to_day": "2026-12-07", "unit_system": "metric"}


@pytest.fixture
def demo_day() -> datetime:
    """The demo's boxes are past their day before anything here is served."""
    return datetime(2026, 11, 27, 9, 0)


def _serve(client, formula, *days: str) -> int:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(formula)}).get_json()["id"]
    for day in days:
        service = {
            "name": f"Burgers {day}",
            "day": day,
            "dishes": [{"formula_id": made, "guests": 40}],
            "timing": TIMING,
        }
        assert client.post("/api/services", json={"service": service}).status_code == 201
    return made


def _with_onions():
    return replace(slipway_smash(), beside=(Accompaniment("soft-onions", "soft-onion", 30.0),))


def _prep(client, **more) -> dict:
    found = client.post("/api/prep", json=SPAN | more)
    assert found.status_code == 200, found.get_json()
    return found.get_json()


def test_onions_for_two_days_are_cooked_once(client) -> None:
    _serve(client, _with_onions(), "2026-12-03", "2026-12-05")
    found = _prep(client)
    assert [s["day"] for s in found["servings"]] == ["2026-12-03", "2026-12-05"]
    lines = [(d["day"], line) for d in found["plan"]["days"] for line in d["lines"]]
    ((day, onions),) = [(d, x) for d, x in lines if x["key"] == "soft-onion"]
    # Cooked vegetables keep three days in the cold.
    assert day == "2026-12-03"
    assert onions["mass_g"] == pytest.approx(2 * 40 * 30, rel=0.02)
    assert [x["day"] for x in onions["for_days"]] == ["2026-12-03", "2026-12-05"]
    rows = list(
        csv.DictReader(io.StringIO(client.get("/api/prep/2026-12-01/2026-12-07/list.csv").get_data(as_text=True)))
    )
    assert [(r["day"], r["name"]) for r in rows] == [(d, x["name"]) for d, x in lines]
    row = next(r for r in rows if r["station"] == "Hob")
    assert float(row["make_g"]) == pytest.approx(onions["mass_g"], abs=0.6)


@pytest.mark.parametrize(
    ("wrong", "status"),
    [
        ({"day_min": -1}, 422),
        ({"day_min": 1441}, 422),
        ({"to_day": "2026-11-01"}, 422),
        ({"to_day": "2027-12-01"}, 422),
    ],
)
def test_a_span_or_a_day_that_is_none_is_refused(client, wrong, status) -> None:
    assert client.post("/api/prep", json=SPAN | wrong).status_code == status


def test_days_of_no_calendar_are_refused_in_the_file_too(client) -> None:
    assert client.get("/api/prep/today/tomorrow/list.csv").status_code == 422


def test_to_dos_of_the_calendar_stand_on_the_day_on_which_things_are_made(client) -> None:
    first = date.today() + timedelta(days=2)
    _serve(client, _with_onions(), str(first), str(first + timedelta(days=2)))
    todos = list(Calendar.from_ical(client.get("/api/services/calendar.ics").get_data()).walk("VTODO"))
    onions = [t for t in todos if "nion" in str(t["summary"])]
    assert [t.decoded("due") for t in onions] == [first]
    assert str(first + timedelta(days=2)) in str(onions[0]["description"])


def test_who_goes_short_if_no_more_meat_comes(client) -> None:
    made = _serve(client, slipway_smash(), "2026-12-03")
    wants = client.post("/api/shopping/scarcity", json=SPAN).get_json()
    assert {w["dish"] for w in wants} == {"Slipway smash"}
    assert all(w["lacks_g"] == pytest.approx(w["wants_g"]) for w in wants)
    # What lies in no lot counts too.
    chuck = next(w for w in wants if w["meat"] == "Chuck")
    stocked = {"kind": "meat", "key": "chuck", "on_hand": 1000.0}
    assert client.put("/api/stock", json={"stocked": stocked}).status_code == 200
    after = client.post("/api/shopping/scarcity", json=SPAN).get_json()
    assert next(w for w in after if w["meat"] == "Chuck")["lacks_g"] == pytest.approx(chuck["lacks_g"] - 1000.0)
    assert made


def test_a_kitchen_that_serves_nothing_has_nothing_to_make_and_nobody_short(client) -> None:
    assert _prep(client)["plan"]["days"] == []
    assert client.post("/api/shopping/scarcity", json=SPAN).get_json() == []
    _serve(client, beacon_grill(), "2026-12-25")
    assert _prep(client)["plan"]["days"] == []


def test_the_file_is_planned_for_the_same_hands_as_the_screen(client) -> None:
    _serve(client, slipway_smash(), "2026-12-03", "2026-12-04", "2026-12-05")
    for day_min in (0, 60):
        days = [d["day"] for d in _prep(client, day_min=day_min)["plan"]["days"]]
        file = client.get(f"/api/prep/2026-12-01/2026-12-07/list.csv?day_min={day_min}").get_data(as_text=True)
        assert sorted({row["day"] for row in csv.DictReader(io.StringIO(file))}) == days
    for wrong in ("-1", "nan", "inf", "much", "1e308"):
        assert client.get(f"/api/prep/2026-12-01/2026-12-07/list.csv?day_min={wrong}").status_code == 422


def test_what_is_made_is_ticked_on_its_day_and_grows_with_the_services(client) -> None:
    made = _serve(client, _with_onions(), "2026-12-03")
    tick = {"sheet": "prep/2026-12-03", "line": "soft-onion", "amount": 1200.0, "ticked": True}
    assert client.put("/api/ticks", json=tick).status_code == 200
    # On another day nothing of it is made.
    client.put("/api/ticks", json=tick | {"sheet": "prep/2026-12-04"})
    assert [(t["sheet"], t["line"], t["more"]) for t in _prep(client)["ticked"]] == [
        ("prep/2026-12-03", "soft-onion", 0)
    ]
    dishes = [{"formula_id": made, "guests": 10}]
    service = {"name": "Two more", "day": "2026-12-03", "dishes": dishes, "timing": TIMING}
    client.post("/api/services", json={"service": service})
    (mark,) = _prep(client)["ticked"]
    assert mark["more"] == pytest.approx(300.0, rel=0.02)
