"""Shopping, what is kept of things, deliveries and the calendar, over the wire."""

from __future__ import annotations

import csv
import io
from datetime import date

import pytest
from icalendar import Calendar

from vianda.core.basis.units import c_from_f
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.storage import formula_repository, service_repository
from vianda.storage.tables import StockedRow, TickRow

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
SPAN = {"from_day": "2026-12-01", "to_day": "2026-12-31", "unit_system": "metric"}


def _formula(client, make) -> int:
    return client.post("/api/formulas", json={"formula": FORMULAS.plain(make())}).get_json()["id"]


def _serve(client, *dishes: tuple[int, int], **changes) -> int:
    service = {
        "name": "Friday burgers",
        "day": "2026-12-04",
        "dishes": [{"formula_id": key, "guests": guests} for key, guests in dishes],
        "timing": TIMING,
        **changes,
    }
    made = client.post("/api/services", json={"service": service})
    assert made.status_code == 201, made.get_json()
    return made.get_json()["id"]


def _shopping(client, **span) -> dict:
    found = client.post("/api/shopping", json=SPAN | span)
    assert found.status_code == 200, found.get_json()
    return found.get_json()


def _line(found: dict, key: str) -> dict:
    return next(x for x in found["shopping"]["lines"] if x["key"] == key)


def _lot(**changes) -> dict:
    return {
        "key": "new",
        "meat": "chuck",
        "name": "Norquay, chuck",
        "left_mass_g": 2000,
        "price_per_kg": "9.40",
        "delivered": "2026-12-03",
        "use_by": "2026-12-06",
        **changes,
    }


def test_every_friday_of_the_span_is_bought_for(client) -> None:
    smash = _formula(client, slipway_smash)
    _serve(client, (smash, 0))
    once = _line(_shopping(client), "chuck")["needed"]
    _serve(client, (smash, 0), name="Every week", repeat="weekly")
    found = _shopping(client)
    assert [s["day"] for s in found["servings"]] == [
        "2026-12-04", "2026-12-04", "2026-12-11", "2026-12-18", "2026-12-25",
    ]  # fmt: skip
    assert _line(found, "chuck")["needed"] == pytest.approx(5 * once)
    until = _shopping(client, to_day="2026-12-11")
    assert _line(until, "chuck")["needed"] == pytest.approx(3 * once)


def test_which_lot_goes_into_which_dish_of_the_span_is_told(client) -> None:
    smash = _formula(client, slipway_smash)
    _serve(client, (smash, 0))
    before = _shopping(client)
    delivered = client.post("/api/deliveries", json={"lot": _lot(), "temp_c": 3.0, "unit_system": "metric"})
    assert delivered.status_code in (200, 201), delivered.get_json()
    found = _shopping(client)
    mine = [u for u in found["shopping"]["from_lots"] if u["lot"] == "Norquay, chuck"]
    assert mine
    assert {(u["dish"], u["day"]) for u in mine} == {(slipway_smash().name, "2026-12-04")}
    taken = sum(u["mass_g"] for u in mine)
    assert 0 < taken <= 2000
    # What comes out of it need not be bought.
    was, now = _line(before, "chuck"), _line(found, "chuck")
    assert was["buy"] - now["buy"] == pytest.approx(taken, abs=0.1)
    assert found["shopping"]["strayed"] == []


def test_guests_of_the_evening_count(client) -> None:
    smash = _formula(client, slipway_smash)
    _serve(client, (smash, 0))
    usual = slipway_smash().dish.guests
    before = _line(_shopping(client), "soft-100")["needed"]
    _serve(client, (smash, 2 * usual), day="2026-12-05")
    assert _line(_shopping(client), "soft-100")["needed"] == pytest.approx(3 * before)


def test_a_dish_that_is_gone_or_undated_is_told_and_the_rest_is_bought(client) -> None:
    smash, loaf = _formula(client, slipway_smash), _formula(client, keepers_loaf)
    _serve(client, (smash, 0), (loaf, 0))
    _serve(client, (loaf, 0), day="", name="Some day")
    client.delete(f"/api/formulas/{loaf}")
    found = _shopping(client)
    assert found["servings"][0]["problems"] == ["A dish is no longer on the shelf."]
    assert found["undated"] == 1
    assert _line(found, "chuck")["dishes"] == ["Slipway smash"]


def test_what_is_in_the_basket_stays_there_for_its_span_alone(client) -> None:
    _serve(client, (_formula(client, slipway_smash), 0))
    tick = {k: v for k, v in SPAN.items() if k != "unit_system"} | {"kind": "meat", "key": "chuck"}
    for _ in range(2):
        # Sent twice, as after a lost line, it is in the basket once.
        assert client.put("/api/shopping/ticks", json=tick | {"ticked": True}).status_code == 200
    assert _shopping(client)["ticked"] == [["meat", "chuck"]]
    assert _shopping(client, to_day="2026-12-30")["ticked"] == []
    client.put("/api/shopping/ticks", json=tick | {"ticked": False})
    assert _shopping(client)["ticked"] == []


def test_another_kitchen_sees_neither_services_nor_baskets_nor_stock(client) -> None:
    demo = client.get("/api/kitchens").get_json()["here"]
    _serve(client, (_formula(client, slipway_smash), 0))
    tick = {"from_day": SPAN["from_day"], "to_day": SPAN["to_day"], "kind": "meat", "key": "chuck", "ticked": True}
    client.put("/api/shopping/ticks", json=tick)
    client.put("/api/stock", json={"stocked": {"kind": "thing", "key": "salt-fine", "on_hand": 500}})
    own = {"name": "Mast-house", "country": "UK", "surfaces": [{"kind": "pan", "width": "28 cm"}]}
    other = client.post("/api/kitchens", json=own).get_json()["here"]
    there = {"Vianda-Kitchen": str(other)}
    found = client.post("/api/shopping", json=SPAN, headers=there).get_json()
    assert (found["servings"], found["ticked"], found["shopping"]["lines"]) == ([], [], [])
    assert client.get("/api/stock", headers=there).get_json() == []
    # What is written there is not seen here, and goes with that kitchen.
    stocked = {"kind": "thing", "key": "salt-fine", "on_hand": 9}
    client.put("/api/stock", json={"stocked": stocked}, headers=there)
    client.put("/api/shopping/ticks", json=tick | {"key": "round"}, headers=there)
    here = {"Vianda-Kitchen": str(demo)}
    assert [s["on_hand"] for s in client.get("/api/stock", headers=here).get_json()] == [500]
    assert client.post("/api/shopping", json=SPAN, headers=here).get_json()["ticked"] == [["meat", "chuck"]]
    # The demo is deleted at will, with all that was written in it, and nothing else goes.
    assert client.delete(f"/api/kitchens/{demo}", headers=there).status_code == 200
    for table in (StockedRow, TickRow):
        assert table.select().where(table.kitchen_id == demo).count() == 0
        assert table.select().where(table.kitchen_id == other).count() == 1


def test_what_is_kept_of_a_thing_is_taken_off_and_said_once(client) -> None:
    _serve(client, (_formula(client, slipway_smash), 0))
    need = _line(_shopping(client), "salt-fine")["needed"]
    for on_hand in (1.0, 10.0):
        stocked = {"kind": "thing", "key": "salt-fine", "on_hand": on_hand, "pack": 1000, "supplier": "Norquay"}
        assert client.put("/api/stock", json={"stocked": stocked}).status_code == 200
    line = _line(_shopping(client), "salt-fine")
    assert line["used"] == 10.0
    assert line["buy"] == pytest.approx(need - 10.0)
    assert (line["packs"], line["supplier"]) == (1, "Norquay")
    assert len(client.get("/api/stock").get_json()) == 1


@pytest.mark.parametrize(
    "stocked",
    [
        {"kind": "thing", "key": "unicorn-horn"},
        {"kind": "meat", "key": "salt-fine"},
        {"kind": "bread", "key": "chuck"},
        {"kind": "soup", "key": "chuck"},
        {"kind": "thing", "key": "salt-fine", "on_hand": -1},
        {"kind": "thing", "key": "salt-fine", "on_hand": 1e308},
        {"kind": "thing", "key": "salt-fine", "pack": -0.1},
        {"kind": "thing", "key": "salt-fine", "lead_days": 31},
        {"kind": "thing", "key": "salt-fine", "shelf": "x" * 41},
        {"kind": "thing", "key": "'; DROP TABLE stocked; --"},
    ],
)
def test_what_cannot_be_kept_is_refused_and_nothing_is_lost(client, stocked) -> None:
    client.put("/api/stock", json={"stocked": {"kind": "thing", "key": "milk", "on_hand": 500}})
    refused = client.put("/api/stock", json={"stocked": stocked})
    assert refused.status_code == 422, refused.get_json()
    assert [s["on_hand"] for s in client.get("/api/stock").get_json()] == [500]


@pytest.mark.parametrize(
    "span",
    [
        {"from_day": "2026-12-09", "to_day": "2026-12-08"},
        {"from_day": "2026-12-01", "to_day": "2027-02-01"},
        {"from_day": "yesterday", "to_day": "2026-12-08"},
        {"from_day": "2026-02-30", "to_day": "2026-12-08"},
        {"from_day": "", "to_day": ""},
        {"from_day": 5, "to_day": None},
    ],
)
def test_a_span_that_is_none_is_refused(client, span) -> None:
    assert client.post("/api/shopping", json=SPAN | span).status_code == 422


def test_a_delivery_becomes_a_lot_and_is_used(client) -> None:
    _serve(client, (_formula(client, slipway_smash), 0))
    before = _line(_shopping(client), "chuck")
    taken = client.post("/api/deliveries", json={"lot": _lot(), "temp_c": 3.0, "unit_system": "metric"})
    assert taken.status_code == 201
    assert taken.get_json()["arrival"]["taken"] == "taken"
    after = _line(_shopping(client), "chuck")
    assert after["used"] == pytest.approx(min(2000.0, before["needed"]))
    assert [u["use_by"] for u in after["lots"]] == ["2026-12-06"]


def test_a_warm_delivery_is_refused_with_the_line_and_nothing_is_written(client) -> None:
    country = client.get("/api/kitchen").get_json()["kitchen"]["country"]
    assert country == "US"
    lots = len(client.get("/api/larder").get_json()["lots"])
    line = c_from_f(41.0)
    for temp, status in ((line, 201), (line + 0.2, 422), (9.0, 422)):
        answer = client.post("/api/deliveries", json={"lot": _lot(), "temp_c": temp, "unit_system": "metric"})
        assert answer.status_code == status, temp
        if status == 422:
            assert "Refuse it" in answer.get_json()["detail"]
            assert "Food Code 3-202.11" in answer.get_json()["detail"]
            assert "5.0 °C (41 °F)" in answer.get_json()["detail"]
    assert len(client.get("/api/larder").get_json()["lots"]) == lots + 1
    unmeasured = client.post("/api/deliveries", json={"lot": _lot(), "unit_system": "metric"})
    assert unmeasured.get_json()["arrival"]["taken"] == "unmeasured"


@pytest.mark.parametrize(
    "changes",
    [
        {"lot": _lot(left_mass_g=-1)},
        {"lot": _lot(meat="nothing")},
        {"lot": _lot(use_by="2026-12-01")},
        {"lot": _lot(price_per_kg="-1")},
        {"lot": _lot(), "temp_c": 300},
        {"lot": _lot(), "temp_c": 80},
        {"lot": _lot(), "temp_c": "warm"},
    ],
)
def test_a_delivery_that_cannot_be_is_refused(client, changes) -> None:
    answer = client.post("/api/deliveries", json={"temp_c": 3.0, "unit_system": "metric"} | changes)
    assert answer.status_code == 422


def test_the_list_as_a_table(client) -> None:
    name = "=HYPERLINK(1)"
    formula = FORMULAS.plain(slipway_smash()) | {"name": name}
    made = client.post("/api/formulas", json={"formula": formula}).get_json()["id"]
    _serve(client, (made, 0))
    answer = client.get("/api/shopping/2026-12-01/2026-12-31/list.csv")
    assert answer.status_code == 200
    assert "attachment" in answer.headers["Content-Disposition"]
    rows = list(csv.DictReader(io.StringIO(answer.get_data(as_text=True))))
    lines = [x for x in _shopping(client)["shopping"]["lines"] if x["buy"] > 0.005]
    assert [r["name"] for r in rows] == [x["name"] for x in lines]
    assert {r["for"] for r in rows} == {"'" + name}
    chuck = next(r for r in rows if r["name"] == "Chuck")
    assert float(chuck["buy"]) == pytest.approx(_line(_shopping(client), "chuck")["bought"], abs=0.06)
    assert client.get("/api/shopping/today/tomorrow/list.csv").status_code == 422
    assert client.get("/api/shopping/2026-12-31/2026-12-01/list.csv").status_code == 422


def test_the_calendar_is_read_by_others(client) -> None:
    smash = _formula(client, slipway_smash)
    service = _serve(client, (smash, 0), repeat="fortnightly", until="2027-03-01", remark="Terrace; bring lamps, ice")
    _serve(client, (smash, 0), name="No day", day="")
    answer = client.get("/api/services/calendar.ics")
    assert answer.content_type.startswith("text/calendar")
    events = list(Calendar.from_ical(answer.get_data()).walk("VEVENT"))
    assert [str(e["summary"]) for e in events] == ["Friday burgers"]
    (event,) = events
    assert str(event["uid"]) == f"service-{service}@vianda.invalid"
    assert event.decoded("dtstart").replace(tzinfo=None).isoformat() == "2026-12-04T18:30:00"
    assert event["rrule"]["FREQ"] == ["WEEKLY"]
    assert event["rrule"]["INTERVAL"] == [2]
    assert "Terrace; bring lamps, ice" in str(event["description"])
    # No line is longer than the standard allows, in bytes.
    assert all(len(row) <= 75 for row in answer.get_data().split(b"\r\n"))


def test_a_year_of_services_asks_the_store_no_more_often_than_one(client, monkeypatch) -> None:
    smash = _formula(client, slipway_smash)
    asked = {"formulas": 0, "services": 0}

    def counted(name: str, module, function: str) -> None:
        real = getattr(module, function)

        def once(*given, **named):
            asked[name] += 1
            return real(*given, **named)

        monkeypatch.setattr(module, function, once)

    counted("formulas", formula_repository, "formulas_of")
    counted("services", service_repository, "list_services")
    for n in range(12):
        _serve(client, (smash, 0), name=f"Evening {n}", day=str(date(2026, 12, 1 + n)))
    asked["formulas"] = asked["services"] = 0
    assert len(_shopping(client)["servings"]) == 12
    assert asked == {"formulas": 1, "services": 1}


def test_how_many_came_is_kept_with_the_service_and_foretells(client) -> None:
    counts = [
        {"day": f"2026-11-{d:02d}", "guests": g, "left": 0, "lacking": 0} for d, g in ((6, 38), (13, 44), (20, 41))
    ]
    service = _serve(client, (_formula(client, slipway_smash), 0), counts=counts)
    assert client.get(f"/api/services/{service}").get_json()["service"]["counts"] == counts
    found = client.post("/api/covers", json={"counts": counts}).get_json()["forecast"]
    assert (found["usual"], found["enough"], found["counts"]) == (41, 48, 3)
    few = client.post("/api/covers", json={"counts": counts[:2]})
    assert few.status_code == 200
    assert "forecast" not in few.get_json()


@pytest.mark.parametrize(
    "count",
    [
        {"day": "yesterday", "guests": 4},
        {"day": "", "guests": 4},
        {"day": "2026-12-04", "guests": -1},
        {"day": "2026-12-04", "guests": 10_001},
        {"day": "2026-12-04", "guests": 4.5},
        {"day": "2026-12-04", "guests": "many"},
        {"day": "2026-12-04"},
    ],
)
def test_a_count_that_is_none_is_refused(client, count) -> None:
    assert client.post("/api/covers", json={"counts": [count]}).status_code == 422
    assert client.post("/api/covers", json={"counts": [count] * 401}).status_code == 422


def test_a_service_is_set_out_with_its_guests_and_the_labels_of_what_is_made(client) -> None:
    loaf, gone = _formula(client, keepers_loaf), _formula(client, slipway_smash)
    client.delete(f"/api/formulas/{gone}")
    service = {
        "name": "Wednesday loaves",
        "dishes": [{"formula_id": loaf, "guests": 52}, {"formula_id": gone}],
        "timing": TIMING,
    }
    asked = {"service": service, "served_on": "2026-12-02", "unit_system": "metric"}
    found = client.post("/api/services/set-out", json=asked).get_json()
    (dish,) = found["dishes"]
    assert (dish["dish"], dish["guests"]) == ("Keeper’s loaf", 52)
    assert found["problems"] == ["A dish is no longer on the shelf."]
    (label,) = found["labels"]
    assert (label["name"], label["made"], label["use_by"]) == ("Onion, cooked soft", "2026-12-01", "2026-12-04")
    assert client.post("/api/services/set-out", json=asked | {"served_on": "soon"}).status_code == 422
    empty = client.post("/api/services/set-out", json=asked | {"service": service | {"dishes": []}}).get_json()
    assert (empty["dishes"], empty["labels"]) == ([], [])
