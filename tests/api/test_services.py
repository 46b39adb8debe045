"""Services over the wire: kept, put in time for all dishes, one kitchen's own, and honest about what is gone."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import keepers_loaf, night_watch_balls
from vianda.interchange.kinds import FORMULAS

TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": [], "away": []}


def _service(**changes) -> dict:
    return {
        "name": "Friday",
        "day": "2026-12-04",
        "dishes": [],
        "timing": TIMING,
        "remark": "",
        "repeat": "",
        "until": "",
        "counts": [],
        **changes,
    }


def _formula(client, make) -> int:
    return client.post("/api/formulas", json={"formula": FORMULAS.plain(make())}).get_json()["id"]


def _plan(client, service: dict):
    return client.post("/api/services/plan", json={"service": service, "unit_system": "metric"})


def test_a_service_is_kept_changed_listed_and_deleted(client) -> None:
    made = client.post("/api/services", json={"service": _service()})
    assert made.status_code == 201
    stored = made.get_json()
    assert stored["service"] == _service()
    assert [s["id"] for s in client.get("/api/services").get_json()] == [stored["id"]]
    saved = client.put(
        f"/api/services/{stored['id']}", json={"service": _service(name="Saturday"), "revision": stored["revision"]}
    )
    assert saved.get_json()["service"]["name"] == "Saturday"
    # The same again is no conflict, an older revision is, with what stands now.
    old = client.put(f"/api/services/{stored['id']}", json={"service": _service(name="Sunday"), "revision": 1})
    assert old.status_code == 409
    assert old.get_json()["current"]["service"]["name"] == "Saturday"
    again = client.put(f"/api/services/{stored['id']}", json={"service": _service(name="Saturday"), "revision": 1})
    assert again.status_code == 200
    assert client.delete(f"/api/services/{stored['id']}").status_code == 200
    for method in ("get", "delete"):
        assert getattr(client, method)(f"/api/services/{stored['id']}").status_code == 404
    gone = client.put(f"/api/services/{stored['id']}", json={"service": _service(), "revision": 2})
    assert gone.status_code == 404


def test_two_dishes_have_one_timetable_and_guests_of_the_service_count(client) -> None:
    loaf, balls = _formula(client, keepers_loaf), _formula(client, night_watch_balls)
    dishes = [{"formula_id": loaf, "guests": 0}, {"formula_id": balls, "guests": 60}]
    found = _plan(client, _service(dishes=dishes)).get_json()
    assert [d["guests"] for d in found["dishes"]] == [keepers_loaf().dish.guests, 60]
    assert {t["dish"] for t in found["timetable"]["tasks"]} == {"Keeper’s loaf", "Night-watch balls"}
    shape = next(t for t in found["timetable"]["tasks"] if t["key"] == f"f{balls}-shape")
    assert shape["title"]["amounts"]["n"]["value"] == 180
    # The formula on the shelf stays as it is.
    assert client.get(f"/api/formulas/{balls}").get_json()["formula"]["dish"]["guests"] == 18


def test_a_dish_that_is_gone_is_named_and_the_rest_is_planned(client) -> None:
    loaf = _formula(client, keepers_loaf)
    found = _plan(client, _service(dishes=[{"formula_id": 999_999}, {"formula_id": loaf}])).get_json()
    assert "no longer on the shelf" in found["dishes"][0]["problem"]
    assert found["dishes"][1]["problem"] == ""
    assert found["timetable"]["tasks"]
    none = _plan(client, _service(dishes=[{"formula_id": 999_999}])).get_json()
    assert none.get("timetable") is None


def test_the_timing_of_a_service_is_edited_as_typed(client) -> None:
    def edit(**edit: object):
        return client.post("/api/services/edit", json={"service": _service(), "edit": edit, "unit_system": "metric"})

    assert edit(kind="type-timing", what="ready", text="7 pm").get_json()["timing"]["ready_min"] == 19 * 60
    own = edit(kind="add-task", title="Roots", text="40 min", surface="fan-oven", oven="200 °C").get_json()
    assert own["timing"]["own"][0]["oven_c"] == 200.0
    assert edit(kind="type-timing", what="ready", text="6").status_code == 422
    assert edit(kind="rename", name="x").status_code == 422


@pytest.mark.parametrize(
    "wrong",
    [
        {"name": ""},
        {"name": "x" * 81},
        {"day": "tomorrow"},
        {"day": "2026-13-01"},
        {"dishes": [{"formula_id": 0}]},
        {"dishes": [{"formula_id": 1, "guests": -1}]},
        {"dishes": [{"formula_id": 1, "guests": 1e308}]},
        {"dishes": [{"formula_id": n} for n in range(1, 10)]},
        {"timing": {**TIMING, "cooks": 0}},
        {"colour": "red"},
    ],
)
def test_a_service_past_its_bounds_is_refused(client, wrong: dict) -> None:
    assert client.post("/api/services", json={"service": _service(**wrong)}).status_code == 422
    assert _plan(client, _service(**wrong)).status_code == 422


def test_services_of_one_kitchen_are_not_those_of_another(client) -> None:
    made = client.post("/api/services", json={"service": _service()}).get_json()
    asked = {"name": "Mast-house", "country": "UK", "surfaces": [{"kind": "pan", "width": "28 cm"}, {"kind": "oven"}]}
    own = client.post("/api/kitchens", json=asked)
    assert own.status_code == 201, own.get_data(as_text=True)
    there = {"Vianda-Kitchen": str(own.get_json()["here"])}
    assert client.get("/api/services", headers=there).get_json() == []
    assert client.get(f"/api/services/{made['id']}", headers=there).status_code == 404
    assert client.delete(f"/api/services/{made['id']}", headers=there).status_code == 404


def test_a_name_with_markup_is_only_a_name(client) -> None:
    name = "<b>'; DROP TABLE service; -- 🍔"
    made = client.post("/api/services", json={"service": _service(name=name)}).get_json()
    assert client.get(f"/api/services/{made['id']}").get_json()["service"]["name"] == name
