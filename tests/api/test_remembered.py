"""What is remembered of the shelf and of services is never older than the formula, the kitchen and its larder."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import beacon_grill
from vianda.interchange.kinds import FORMULAS
from vianda.services import shelf, spans
from vianda.storage.caches import forget_all


def _shelf(client) -> list[dict]:
    answer = client.post("/api/shelf", json={})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()["items"]


def _shelved(client, name: str) -> dict:
    return next(f for f in _shelf(client) if f["name"] == name)


def _counted(monkeypatch: pytest.MonkeyPatch, module, name: str) -> list[int]:
    calls: list[int] = []
    real = getattr(module, name)

    def counting(*given, **named):
        calls.append(1)
        return real(*given, **named)

    monkeypatch.setattr(module, name, counting)
    return calls


def test_a_shelf_that_did_not_change_is_not_worked_out_again(client, monkeypatch) -> None:
    calls = _counted(monkeypatch, shelf, "evaluate")
    first = _shelf(client)
    assert len(calls) == len(first) > 0
    assert _shelf(client) == first
    # Another worker finds it in the database.
    forget_all()
    assert _shelf(client) == first
    assert len(calls) == len(first)


def test_another_core_works_everything_out_anew(client, monkeypatch) -> None:
    first = _shelf(client)
    calls = _counted(monkeypatch, shelf, "evaluate")
    monkeypatch.setattr(shelf, "core_digest", lambda: "of the next release")
    assert _shelf(client) == first
    assert len(calls) == len(first)


def test_one_formula_that_is_saved_is_worked_out_again_alone(client, monkeypatch) -> None:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(beacon_grill()) | {"name": "Mine"}}).get_json()
    _shelf(client)
    calls = _counted(monkeypatch, shelf, "evaluate")
    formula = made["formula"]
    formula["dish"]["guests"] += 7
    saved = client.put(f"/api/formulas/{made['id']}", json={"formula": formula, "revision": made["revision"]})
    assert saved.status_code == 200
    shown = _shelved(client, "Mine")
    assert len(calls) == 1
    pieces = formula["dish"]["guests"] * formula["dish"]["pieces_per_guest"]
    assert shown["pieces"]["amounts"]["n"]["value"] == pieces


def test_a_meat_that_is_corrected_changes_the_shelf_at_once(client) -> None:
    client.post("/api/formulas", json={"formula": FORMULAS.plain(beacon_grill()) | {"name": "Mine"}})
    before = _shelved(client, "Mine")["lean_to_fat"]
    part = beacon_grill().parts[0].meat
    meat = next(m for m in client.get("/api/larder").get_json()["meats"] if m["key"] == part)
    lean = {**meat, "fat_low_frac": 0.02, "fat_usual_frac": 0.03, "fat_high_frac": 0.04}
    assert client.put(f"/api/larder/meats/{part}", json={"meat": lean, "seen": meat}).status_code == 200
    assert _shelved(client, "Mine")["lean_to_fat"] != before


def test_what_a_dish_takes_is_remembered_by_its_guests(client, monkeypatch) -> None:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(beacon_grill())}).get_json()
    timing = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    for day, guests in (("2026-12-04", 20), ("2026-12-05", 30), ("2026-12-06", 20)):
        service = {"name": day, "day": day, "dishes": [{"formula_id": made["id"], "guests": guests}], "timing": timing}
        more = {"remark": "", "repeat": "", "until": "", "counts": []}
        assert client.post("/api/services", json={"service": service | more}).status_code == 201
    forget_all()
    calls = _counted(monkeypatch, spans, "compute")
    span = {"from_day": "2026-12-01", "to_day": "2026-12-07", "unit_system": "metric"}
    first = client.post("/api/shopping", json=span).get_json()
    assert len(calls) == 2
    assert client.post("/api/shopping", json=span).get_json() == first
    assert len(calls) == 2
    # In other units a reason may read otherwise: that is another memory.
    client.post("/api/shopping", json=span | {"unit_system": "us"})
    assert len(calls) == 4


def test_a_list_that_did_not_change_is_not_solved_again_and_one_that_did_is(client, monkeypatch) -> None:
    forget_all()
    formula = client.get("/api/formulas").get_json()[0]["id"]
    service = {"name": "Remembered", "day": "2031-05-06", "dishes": [{"formula_id": formula, "guests": 30}]}
    kept = client.post("/api/services", json={"service": service}).get_json()
    span = {"from_day": "2031-05-05", "to_day": "2031-05-11", "unit_system": "metric"}
    calls = _counted(monkeypatch, spans, "shopping")

    def asked() -> dict:
        answer = client.post("/api/shopping", json=span)
        assert answer.status_code == 200
        return answer.get_json()["shopping"]

    first = asked()
    assert asked() == first
    client.post("/api/prep", json={**span, "day_min": 0})
    assert len(calls) == 1
    # Another number of guests, a delivery, and what is counted: each is a list of its own.
    more = {**service, "dishes": [{"formula_id": formula, "guests": 60}]}
    body = {"service": more, "revision": kept["revision"]}
    assert client.put(f"/api/services/{kept['id']}", json=body).status_code == 200
    second = asked()
    assert second != first
    line = next(x for x in second["lines"] if x["kind"] == "meat")
    lot = {"key": "new", "meat": line["key"], "name": "Box", "left_mass_g": 3000.0, "price_per_kg": "9.00",
           "delivered": "2031-05-01", "use_by": "2031-05-20"}  # fmt: skip
    assert client.post("/api/larder/lots", json={"lot": lot}).status_code == 201
    third = asked()
    assert third != second
    stocked = {"kind": "meat", "key": line["key"], "par": 50_000.0}
    assert client.put("/api/stock", json={"stocked": stocked}).status_code == 200
    assert asked() != third
    assert len(calls) == 4
