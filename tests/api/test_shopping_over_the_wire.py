"""Shopping, what is kept of things, deliveries and the calendar, over the wire."""

from __future__ import annotations

import csv
import io
from datetime import date, datetime

import pytest
from icalendar import Calendar

from vianda.core.basis.units import c_from_f
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.storage import formula_repository, service_repository
from vianda.storage.tables import StockedRow, TickRow

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
SPAN = {"from_day": "2026-12-01", "to_day": "2026-12-31", "unit_system": "metric"}


@pytest.fixture
def demo_day() -> datetime:
    """The demo's boxes are past their day before anything here is served."""
    return datetime(2026, 11, 27, 9, 0)


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


SHEET = f"shopping/{SPAN['from_day']}/{SPAN['to_day']}"


def test_what_is_in_the_basket_stays_there_for_its_span_alone(client) -> None:
    _serve(client, (_formula(client, slipway_smash), 0))
    tick = {"sheet": SHEET, "line": "meat/chuck", "amount": _line(_shopping(client), "chuck")["bought"]}
    for _ in range(2):
        # Sent twice, as after a lost line, it is in the basket once.
        assert client.put("/api/ticks", json=tick | {"ticked": True}).status_code == 200
    assert [(t["sheet"], t["line"], t["more"]) for t in _shopping(client)["ticked"]] == [(SHEET, "meat/chuck", 0)]
    assert _shopping(client, to_day="2026-12-30")["ticked"] == []
    client.put("/api/ticks", json=tick | {"ticked": False})
    assert _shopping(client)["ticked"] == []


def test_a_list_that_has_grown_since_it_was_ticked_says_by_how_much(client) -> None:
    smash = _formula(client, slipway_smash)
    _serve(client, (smash, 20))
    before = _shopping(client)
    for key, kind in (("soft-100", "bread"), ("salt-fine", "thing")):
        amount = _line(before, key)["bought"]
        client.put("/api/ticks", json={"sheet": SHEET, "line": f"{kind}/{key}", "amount": amount, "ticked": True})
    # Written down by an older version, without how much it was: it stays done.
    client.put("/api/ticks", json={"sheet": SHEET, "line": "meat/chuck", "amount": None, "ticked": True})
    _serve(client, (smash, 1), day="2026-12-05")
    after = _shopping(client)
    more = {t["line"]: t["more"] for t in after["ticked"]}
    assert more["bread/soft-100"] == _line(after, "soft-100")["bought"] - _line(before, "soft-100")["bought"] > 0
    assert more["meat/chuck"] == 0
    # A gram of salt is within what a scale shows.
    assert more["thing/salt-fine"] == 0


@pytest.mark.parametrize(
    "wrong",
    [
        {"sheet": "shopping/2026-12-01"},
        {"sheet": "shopping/2026-13-01/2026-12-07"},
        {"sheet": "set-out/0/2026-12-04"},
        {"sheet": "set-out/1/2026-02-30"},
        {"sheet": "prep/2026-12-0\u0663"},
        {"sheet": "basket"},
        {"sheet": "x" * 61},
        {"line": ""},
        {"line": "x" * 201},
        {"line": "<img onerror=alert(1)>"},
        {"line": "zwölf"},
        {"amount": -1},
        {"amount": 1e308},
        {"amount": "much"},
    ],
)
def test_a_tick_of_no_list_is_refused(client, wrong) -> None:
    tick = {"sheet": SHEET, "line": "meat/chuck", "amount": 1.0, "ticked": True}
    assert client.put("/api/ticks", json=tick | wrong).status_code == 422
    assert TickRow.select().count() == 0


def test_another_kitchen_sees_neither_services_nor_baskets_nor_stock(client) -> None:
    demo = client.get("/api/kitchens").get_json()["here"]
    _serve(client, (_formula(client, slipway_smash), 0))
    tick = {"sheet": SHEET, "line": "meat/chuck", "amount": 1e6, "ticked": True}
    client.put("/api/ticks", json=tick)
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
    client.put("/api/ticks", json=tick | {"line": "meat/round"}, headers=there)
    here = {"Vianda-Kitchen": str(demo)}
    assert [s["on_hand"] for s in client.get("/api/stock", headers=here).get_json()] == [500]
    marks = client.post("/api/shopping", json=SPAN, headers=here).get_json()["ticked"]
    assert [t["line"] for t in marks] == ["meat/chuck"]
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
    counted("services", service_repository, "services_between")
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
    service = _serve(client, (loaf, 52), (gone, 0), name="Wednesday loaves", day="2026-12-02", repeat="weekly")
    client.delete(f"/api/formulas/{gone}")
    client.post("/api/larder/lots", json={"lot": _lot(left_mass_g=9000)})
    asked = {"service_id": service, "today": "2026-11-27", "unit_system": "metric"}
    found = client.post("/api/services/set-out", json=asked).get_json()
    (dish,) = found["dishes"]
    assert (dish["dish"], dish["guests"], found["day"]) == ("Keeper’s loaf", 52, "2026-12-02")
    assert found["problems"] == ["A dish is no longer on the shelf."]
    onion, mix = found["labels"]
    assert (onion["name"], onion["made"], onion["use_by"]) == ("Onion, cooked soft", "2026-12-01", "2026-12-04")
    assert (onion["lot"], onion["from_lots"]) == ("L261201-SOFT-ONION", [])
    assert (mix["name"], mix["made"], mix["use_by"]) == ("Keeper’s loaf, raw mix", "2026-12-01", "2026-12-02")
    # Chuck of the larder is in it; panko, egg and milk are declared.
    assert mix["from_lots"] == ["Norquay, chuck"]
    assert {"egg", "milk"} <= set(mix["allergens"])
    assert mix["lot"] == f"L261201-F{loaf}.1"
    # A week later it is set out for the next time it comes, and the calendar ends somewhere.
    assert client.post("/api/services/set-out", json=asked | {"today": "2026-12-03"}).get_json()["day"] == "2026-12-09"
    assert client.post("/api/services/set-out", json=asked | {"today": "soon"}).status_code == 422
    for far, status in (("2999-12-31", 200), ("3000-01-01", 422), ("9999-12-31", 422), ("1989-12-31", 422)):
        assert client.post("/api/services/set-out", json=asked | {"today": far}).status_code == status
    for far in (("9999-12-30", "9999-12-31"), ("0001-01-01", "0001-01-02")):
        span = SPAN | dict(zip(("from_day", "to_day"), far, strict=True))
        assert client.post("/api/shopping", json=span).status_code == 422
        assert client.post("/api/prep", json=span).status_code == 422
    assert client.post("/api/services/set-out", json=asked | {"service_id": 999_999}).status_code == 404
    empty = client.post("/api/services/set-out", json=asked | {"service_id": _serve(client)}).get_json()
    assert (empty["dishes"], empty["labels"]) == ([], [])


def test_bowls_that_are_done_stay_done_for_their_day_and_go_with_their_service(client) -> None:
    loaf = _formula(client, keepers_loaf)
    service = _serve(client, (loaf, 8), (loaf, 8), day="2026-12-02", repeat="weekly")
    asked = {"service_id": service, "today": "2026-12-02", "unit_system": "metric"}
    found = client.post("/api/services/set-out", json=asked).get_json()
    portions = [p for dish in found["dishes"] for bowl in dish["bowls"] for p in bowl["portions"]]
    # The same loaf twice is two dishes with bowls of their own.
    assert len({p["line"] for p in portions}) == len(portions)
    milk = next(p for p in portions if p["key"] == "milk")
    tick = {"sheet": found["sheet"], "line": milk["line"], "amount": milk["amount"], "ticked": True}
    assert client.put("/api/ticks", json=tick).status_code == 200
    marks = client.post("/api/services/set-out", json=asked).get_json()["ticked"]
    assert [(t["line"], t["more"]) for t in marks] == [(milk["line"], 0)]
    # Next week nothing is weighed yet.
    assert client.post("/api/services/set-out", json=asked | {"today": "2026-12-03"}).get_json()["ticked"] == []
    client.delete(f"/api/services/{service}")
    assert TickRow.select().count() == 0


def test_one_slip_for_the_butcher_of_all_services_in_a_span(client) -> None:
    smash, loaf = _formula(client, slipway_smash), _formula(client, keepers_loaf)
    _serve(client, (smash, 40), (loaf, 0))
    _serve(client, (smash, 60), day="2026-12-05", name="Saturday")
    client.put("/api/stock", json={"stocked": {"kind": "meat", "key": "chuck", "supplier": "=Norquay", "lead_days": 2}})
    span = SPAN | {"to_day": "2026-12-07"}
    found = client.post("/api/butcher", json=span).get_json()
    orders = {o["blend"]["name"]: o for o in found["slip"]["blends"]}
    burgers = orders["Slipway smash"]
    assert [(d["day"], d["comes_on"]) for d in burgers["days"]] == [
        ("2026-12-04", "2026-12-03"),
        ("2026-12-05", "2026-12-04"),
    ]
    one = burgers["blend"]
    # A loaf is portioned after its panade is in: its pieces are none of the butcher's.
    assert (one["portioned"], orders["Keeper’s loaf"]["blend"]["portioned"]) == (True, False)
    assert one["pieces"] == sum(d["pieces"] for d in burgers["days"]) == found["slip"]["pieces"]
    assert one["mass_g"] == pytest.approx(sum(d["mass_g"] for d in burgers["days"]))
    assert burgers["week_mass_g"] == pytest.approx(one["mass_g"])
    # Every cut as the shopping list has it.
    lines = {x["key"]: x for x in _shopping(client, to_day="2026-12-07")["shopping"]["lines"]}
    for cut in found["slip"]["cuts"]:
        line = lines[cut["meat"]]
        assert (cut["needed_g"], cut["order_g"]) == (line["needed"], line["bought"])
    chuck = next(c for c in found["slip"]["cuts"] if c["meat"] == "chuck")
    assert (chuck["supplier"], chuck["order_by"]) == ("=Norquay", "2026-12-02")
    text = client.get("/api/butcher/2026-12-01/2026-12-07/slip.csv").get_data(as_text=True)
    rows = list(csv.DictReader(io.StringIO(text)))
    assert {r["what"] for r in rows} == {"blend", "cut of a blend", "cut"}
    assert sum(float(r["mass_g"]) for r in rows if r["what"] == "blend") == pytest.approx(
        found["slip"]["mass_g"], abs=2.0
    )
    # No table program takes a supplier for a formula.
    assert {r["supplier"] for r in rows if r["cut"] == chuck["name"] and r["what"] == "cut"} == {"'=Norquay"}


def test_a_slip_of_days_without_a_service_is_empty(client) -> None:
    found = client.post("/api/butcher", json=SPAN).get_json()
    assert (found["slip"]["blends"], found["slip"]["cuts"], found["slip"]["mass_g"]) == ([], [], 0)
    assert client.get("/api/butcher/2026-12-08/2026-12-07/slip.csv").status_code == 422
    assert client.get("/api/butcher/soon/later/slip.csv").status_code == 422
