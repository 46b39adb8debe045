"""Services leave and come back as files: whole, with what is pinned, once, and never half."""

from __future__ import annotations

import json
from dataclasses import replace

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.model.formula import Formula
from vianda.interchange.kinds import FORMULAS
from vianda.interchange.service_file import service_file_schema


def _formula(client, formula: Formula) -> int:
    return client.post("/api/formulas", json={"formula": FORMULAS.plain(formula)}).get_json()["id"]


def _service(client) -> tuple[int, int, int]:
    """A service of two dishes, with a task of the second pinned and one of its own."""
    smash, loaf = _formula(client, slipway_smash()), _formula(client, replace(keepers_loaf(), name="Wednesday loaf"))
    timing = {
        "ready_min": 1110,
        "cooks": 2,
        "opens_min": -1,
        "own": [{"key": "roots", "title": "Roots", "minutes": 40, "hands": False, "hot": True, "surface": ""}],
        "pins": [{"task": f"f{loaf}-preheat", "start_min": -150}, {"task": "roots", "start_min": -60}],
    }
    service = {
        "name": "Wednesday at the canteen",
        "day": "2026-12-02",
        "dishes": [{"formula_id": smash, "guests": 12}, {"formula_id": loaf, "guests": 0}],
        "timing": timing,
        "remark": "=cmd() 🍔 <b>",
        "repeat": "weekly",
        "counts": [{"day": "2026-11-25", "guests": 24, "left": 2, "lacking": 0}],
    }
    made = client.post("/api/services", json={"service": service})
    assert made.status_code == 201, made.get_json()
    return made.get_json()["id"], smash, loaf


def _export(client, service: int) -> dict:
    answer = client.get(f"/api/services/{service}/export")
    assert answer.status_code == 200
    return json.loads(answer.get_data(as_text=True))


def _import(client, file) -> tuple[int, dict]:
    answer = client.post("/api/services/import", json={"file": file})
    return answer.status_code, answer.get_json()


def test_a_file_names_its_formulas_by_their_place(client) -> None:
    service, _, _ = _service(client)
    file = _export(client, service)
    assert [d["formula_id"] for d in file["service"]["dishes"]] == [1, 2]
    assert [f["formula"]["name"] for f in file["formulas"]] == ["Slipway smash", "Wednesday loaf"]
    assert {p["task"] for p in file["service"]["timing"]["pins"]} == {"f2-preheat", "roots"}


def test_in_the_same_kitchen_the_formulas_that_are_there_are_used(client) -> None:
    service, smash, loaf = _service(client)
    status, done = _import(client, _export(client, service))
    assert (status, done["formulas_added"], done["remarks"]) == (201, [], [])
    again = done["stored"]["service"]
    assert done["stored"]["id"] != service
    assert again == client.get(f"/api/services/{service}").get_json()["service"]
    assert [d["formula_id"] for d in again["dishes"]] == [smash, loaf]


def test_where_a_formula_is_lacking_it_comes_with_the_service(client) -> None:
    service, smash, loaf = _service(client)
    file = _export(client, service)
    client.delete(f"/api/formulas/{loaf}")
    status, done = _import(client, file)
    assert (status, done["formulas_added"]) == (201, ["Wednesday loaf"])
    new = done["stored"]["service"]["dishes"][1]["formula_id"]
    assert new not in (smash, loaf)
    # What was pinned is pinned on the formula that came.
    assert {p["task"] for p in done["stored"]["service"]["timing"]["pins"]} == {f"f{new}-preheat", "roots"}
    plan = {"service": done["stored"]["service"], "unit_system": "metric"}
    tasks = client.post("/api/services/plan", json=plan).get_json()["timetable"]["tasks"]
    assert {t["key"] for t in tasks if t["pinned"]} == {f"f{new}-preheat", "roots"}


def test_a_dish_that_is_off_the_shelf_stays_behind_with_what_was_pinned_of_it(client) -> None:
    service, _, loaf = _service(client)
    client.delete(f"/api/formulas/{loaf}")
    file = _export(client, service)
    assert [d["formula_id"] for d in file["service"]["dishes"]] == [1]
    assert [p["task"] for p in file["service"]["timing"]["pins"]] == ["roots"]
    assert len(file["formulas"]) == 1


@pytest.mark.parametrize(
    ("spoil", "field"),
    [
        (lambda f: f | {"format": "other"}, "/format"),
        (lambda f: f | {"version": 2}, "/version"),
        (lambda f: f | {"version": 0}, "/version"),
        (lambda f: f | {"version": True}, "/version"),
        (lambda f: f | {"more": 1}, "/more"),
        (lambda f: f | {"service": f["service"] | {"day": "4 December"}}, "/service/day"),
        (lambda f: f | {"formulas": f["formulas"][:1]}, "/service/dishes/1/formula_id"),
        (lambda f: f | {"formulas": [f["formulas"][0], {"format": "x"}]}, "/formulas/1/format"),
        (lambda f: f | {"formulas": f["formulas"] * 5}, "/formulas"),
        (lambda f: [f], "/format"),
        (lambda _: None, "/format"),
    ],
)
def test_a_file_that_does_not_fit_says_where_and_leaves_nothing(client, spoil, field) -> None:
    service, _, _ = _service(client)
    file = _export(client, service)
    before = len(client.get("/api/formulas").get_json()), len(client.get("/api/services").get_json())
    status, problem = _import(client, spoil(file))
    assert status == 422
    # Behind the file's own place in the request.
    assert field in json.dumps(problem)
    assert (len(client.get("/api/formulas").get_json()), len(client.get("/api/services").get_json())) == before


def test_a_broken_second_formula_takes_the_first_back_too(client) -> None:
    service, smash, loaf = _service(client)
    file = _export(client, service)
    for one in (smash, loaf):
        client.delete(f"/api/formulas/{one}")
    before = len(client.get("/api/formulas").get_json())
    # It reads well, but no larder can hold a part of a meat that did not come with it.
    file["formulas"][1]["formula"]["parts"][0]["meat"] = "unheard-of"
    status, _ = _import(client, file)
    assert status in (404, 422)
    assert len(client.get("/api/formulas").get_json()) == before


def test_no_such_service_and_the_schema(client) -> None:
    assert client.get("/api/services/999999/export").status_code == 404
    assert client.get("/api/schema/service-file").get_json() == json.loads(json.dumps(service_file_schema()))
