"""Versions compared and tasted blind, over the wire."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

SMASH = slipway_smash()


@pytest.fixture
def formula(client) -> int:
    """A formula with a version kept, changed in one thing since."""
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(SMASH)}).get_json()
    kept = client.post(f"/api/formulas/{made['id']}/versions", json={"name": "First"})
    assert kept.status_code == 201
    hotter = replace(SMASH, heat=replace(SMASH.heat, surface_temp_c=260.0))
    body = {"formula": FORMULAS.plain(hotter), "revision": made["revision"]}
    assert client.put(f"/api/formulas/{made['id']}", json=body).status_code == 200
    return made["id"]


def _compare(client, formula: int, before: int, after: int) -> dict:
    body = {"before": before, "after": after, "unit_system": "metric"}
    answer = client.post(f"/api/formulas/{formula}/compare", json=body)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _cook(client, formula: int, **outcome) -> None:
    cook = client.post("/api/cooks", json={"formula_id": formula}).get_json()
    body = {"outcome": {"note": "", "next_time": "", **outcome}, "revision": cook["revision"]}
    assert client.put(f"/api/cooks/{cook['id']}/outcome", json=body).status_code == 200


def test_two_versions_are_compared_by_design_forecast_and_cooks(client, formula: int) -> None:
    for crust in (5, 4, 5):
        _cook(client, formula, crust=crust, cooked_mass_g=2000, cooked_thickness_mm=6.0)
    found = _compare(client, formula, 1, 0)
    assert [(d["step"], d["what"]) for d in found["differences"]] == [("Heat", "Surface")]
    assert (found["before"]["name"], found["after"]["name"]) == ("First", "As it stands")
    assert (found["before"]["cooks"], len(found["after"]["cooks"])) == ([], 3)
    assert [t["id"] for t in found["before"]["ticket"]] == [t["id"] for t in found["after"]["ticket"]]
    crust = next(f for f in found["figures"] if f["key"] == "crust")
    assert (crust["after_cooks"], crust["before_cooks"]) == (3, 0)
    assert crust["after"] == pytest.approx(14 / 3)
    assert {f["key"] for f in found["figures"]} == {"crust", "near", "thick", "yield"}
    thick = next(f for f in found["figures"] if f["key"] == "thick")
    assert (thick["title"], thick["after"]) == ("Thickness, cooked", 6.0)


def test_a_version_compared_with_itself_differs_in_nothing(client, formula: int) -> None:
    assert _compare(client, formula, 1, 1)["differences"] == []


def test_a_version_that_is_not_there_is_not_compared(client, formula: int) -> None:
    body = {"before": 1, "after": 7, "unit_system": "metric"}
    assert client.post(f"/api/formulas/{formula}/compare", json=body).status_code == 404
    assert client.post("/api/formulas/999999/compare", json={**body, "after": 0}).status_code == 404


def test_a_tasting_is_set_up_answered_and_says_what_it_found(client, formula: int) -> None:
    body = {"kind": "triangle", "versions": [1, 0], "tasters": 6}
    made = client.post(f"/api/formulas/{formula}/tastings", json=body)
    assert made.status_code == 201, made.get_json()
    sheet = made.get_json()
    assert [v["name"] for v in sheet["tasting"]["versions"]] == ["First", "As it stands"]
    assert "result" not in sheet
    answers = []
    for place in sheet["places"]:
        versions = [p["version"] for p in place["samples"]]
        odd = next(p["code"] for p in place["samples"] if versions.count(p["version"]) == 1)
        answers.append({"taster": place["taster"], "codes": [odd]})
    path = f"/api/tastings/{sheet['id']}/answers"
    saved = client.put(path, json={"answers": answers, "revision": sheet["revision"]})
    assert saved.status_code == 200, saved.get_json()
    assert saved.get_json()["result"]["verdict"]["found"]
    # The same sheet is read again, with the same codes.
    again = client.get(f"/api/tastings/{sheet['id']}").get_json()
    assert again == saved.get_json()
    assert [t["id"] for t in client.get(f"/api/formulas/{formula}/tastings").get_json()] == [sheet["id"]]
    # Two windows: the slower one is told what stands.
    stale = client.put(path, json={"answers": [], "revision": sheet["revision"]})
    assert stale.status_code == 409
    assert stale.get_json()["current"]["result"]["answered"] == 6
    # A lost answer is sent again, and is no conflict with itself.
    assert client.put(path, json={"answers": answers, "revision": sheet["revision"]}).status_code == 200


@pytest.mark.parametrize(
    "change",
    [
        {"versions": [1, 1]}, {"versions": [1]}, {"versions": [1, 9]}, {"tasters": 2}, {"tasters": 61},
        {"kind": "guess"}, {"kind": "ranking"}, {"tasters": "many"}, {"versions": [1, 0, 1]},
    ],
)  # fmt: skip
def test_a_tasting_that_cannot_be_is_refused(client, formula: int, change: dict) -> None:
    body = {"kind": "triangle", "versions": [1, 0], "tasters": 6, **change}
    answer = client.post(f"/api/formulas/{formula}/tastings", json=body)
    assert answer.status_code == 422, answer.get_json()
    assert client.get(f"/api/formulas/{formula}/tastings").get_json() == []


def test_answers_that_nobody_gave_are_refused(client, formula: int) -> None:
    body = {"kind": "paired", "versions": [1, 0], "tasters": 6}
    sheet = client.post(f"/api/formulas/{formula}/tastings", json=body).get_json()
    codes = [p["code"] for p in sheet["places"][0]["samples"]]
    free = next(c for c in range(100, 1000) if c not in [p["code"] for s in sheet["places"] for p in s["samples"]])
    for answers in (
        [{"taster": 9, "codes": codes[:1]}],
        [{"taster": 1, "codes": codes}],
        [{"taster": 1, "codes": [free]}],
        [{"taster": 1, "codes": [99]}],
        [{"taster": 1, "codes": []}],
        [{"taster": 1, "codes": codes[:1]}, {"taster": 1, "codes": codes[:1]}],
    ):
        answer = client.put(f"/api/tastings/{sheet['id']}/answers", json={"answers": answers, "revision": 1})
        assert answer.status_code == 422, answer.get_json()
    assert client.put("/api/tastings/999999/answers", json={"answers": [], "revision": 1}).status_code == 404


def test_a_formula_that_was_archived_keeps_its_tastings(client, formula: int) -> None:
    body = {"kind": "paired", "versions": [1, 0], "tasters": 6}
    sheet = client.post(f"/api/formulas/{formula}/tastings", json=body).get_json()
    client.delete(f"/api/formulas/{formula}")
    kept = client.get(f"/api/tastings/{sheet['id']}")
    assert kept.status_code == 200
    assert kept.get_json()["formula_name"] == SMASH.name
