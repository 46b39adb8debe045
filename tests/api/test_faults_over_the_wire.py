"""What went wrong with a cook, over the wire."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.core.model.formula import BlendPart
from vianda.interchange.kinds import FORMULAS

FAT = replace(slipway_smash(), name="Fat trial", parts=(BlendPart("chuck", 0.5), BlendPart("trim-50", 0.5)))


@pytest.fixture
def cook(client) -> dict:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(FAT)}).get_json()
    cook = client.post("/api/cooks", json={"formula_id": made["id"]}).get_json()
    batch = cook["plan"]["portions"]["batch_mass_g"]
    body = {"outcome": {"cooked_mass_g": round(0.5 * batch), "core_c": 80, "note": "", "next_time": ""}, "revision": 1}
    return client.put(f"/api/cooks/{cook['id']}/outcome", json=body).get_json()


def _ask(client, cook: dict, **asked) -> dict:
    answer = client.post(f"/api/cooks/{cook['id']}/faults", json={"unit_system": "metric", **asked})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def test_before_anything_is_said_it_offers_symptoms_and_what_was_measured(client, cook) -> None:
    found = _ask(client, cook)
    assert "found" not in found
    assert {"dry", "no-crust"} <= {s["key"] for s in found["symptoms"]}
    assert "crumbles" not in {s["key"] for s in found["symptoms"]}
    assert found["readings"]["core_c"] == 80
    assert found["readings"]["loss_ratio"] > 1.2
    assert found["formula_name"] == "Fat trial"


def test_causes_come_with_their_figures_and_a_change(client, cook) -> None:
    found = _ask(client, cook, symptoms=["greasy"])["found"]
    fat = next(c for c in found["causes"] if c["key"] == "too-fat")
    assert fat["change"]["edit"]["kind"] == "set"
    assert fat["chance"] > fat["before"]
    assert found["question"]["bits"] > 0
    # The change is one the bench makes.
    whole = {"formula": FORMULAS.plain(FAT), "edits": [fat["change"]["edit"]], "unit_system": "metric"}
    made = client.post("/api/evaluate", json=whole)
    assert made.status_code == 200
    assert made.get_json()["formula"]["parts"] != whole["formula"]["parts"]


def test_answers_and_measurements_move_the_ranking(client, cook) -> None:
    def chance(cause: str, **asked) -> float:
        causes = _ask(client, cook, symptoms=["no-crust"], **asked)["found"]["causes"]
        return next(c["chance"] for c in causes if c["key"] == cause)

    assert chance("plate-cool", surface_c=180) > chance("plate-cool") > chance("plate-cool", surface_c=240)
    assert chance("crowded", answers={"crowded": True}) > chance("crowded", answers={"crowded": False})
    # Looked for and not there.
    assert chance("plate-cool", absent=["watery"]) < chance("plate-cool")


def test_the_typed_core_counts_before_the_noted_one(client, cook) -> None:
    hot, right = (
        next(c for c in _ask(client, cook, symptoms=["dry"], **said)["found"]["causes"] if c["key"] == "overcooked")
        for said in ({}, {"core_c": 71})
    )
    assert hot["chance"] > right["chance"]


@pytest.mark.parametrize(
    "asked",
    [
        {"symptoms": ["boring"]}, {"symptoms": ["crumbles"]}, {"symptoms": ["dry"] * 6}, {"symptoms": "dry"},
        {"surface_c": 501}, {"surface_c": "NaN"}, {"surface_c": -1}, {"core_c": 1e308}, {"core_c": 121},
        {"answers": {"crowded": "perhaps"}}, {"answers": {"x" * 41: True}}, {"absent": ["boring"]},
        {"answers": {f"a{n}": True for n in range(61)}}, {"unit_system": "cubits"}, {"extra": 1},
    ],
)  # fmt: skip
def test_what_cannot_be_read_is_refused(client, cook, asked: dict) -> None:
    answer = client.post(f"/api/cooks/{cook['id']}/faults", json={"unit_system": "metric", **asked})
    assert answer.status_code == 422, answer.get_json()
    assert answer.get_json()["detail"]


def test_a_cook_that_is_not_there_has_no_faults(client) -> None:
    assert client.post("/api/cooks/999999/faults", json={"unit_system": "metric"}).status_code == 404


def test_a_formula_that_can_no_longer_be_worked_out_says_why(client, cook) -> None:
    kitchen = client.get("/api/kitchen").get_json()
    client.delete(f"/api/formulas/{cook['formula_id']}")
    # Nothing on the shelf needs the plate any more, and it is sold.
    for item in client.get("/api/formulas").get_json():
        client.delete(f"/api/formulas/{item['id']}")
    surfaces = [s for s in kitchen["kitchen"]["surfaces"] if s["key"] != "yard-plate"]
    body = {"kitchen": {**kitchen["kitchen"], "surfaces": surfaces}, "revision": kitchen["revision"]}
    assert client.put("/api/kitchen", json=body).status_code == 200
    answer = client.post(f"/api/cooks/{cook['id']}/faults", json={"unit_system": "metric", "symptoms": ["dry"]})
    assert answer.status_code == 422
    assert "yard-plate" in answer.get_json()["detail"]


def test_what_to_change_next_follows_the_scores_of_the_formula_alone(client, cook) -> None:
    """A cook without scores says nothing; those of another formula do not count."""
    path = f"/api/formulas/{cook['formula_id']}/next-change"
    none = client.get(path).get_json()
    assert (none["cooks"], none["changes"]) == (0, [])
    bland = {"outcome": {"salt": 1, "note": "", "next_time": ""}, "revision": cook["revision"]}
    assert client.put(f"/api/cooks/{cook['id']}/outcome", json=bland).status_code == 200
    found = client.get(path).get_json()
    assert found["cooks"] == 1
    assert found["changes"][0]["lever"] == "salt"
    assert [s["key"] for s in found["scores"]] == ["salt"]
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    assert client.get(f"/api/formulas/{made['id']}/next-change").get_json()["cooks"] == 0
    assert client.get("/api/formulas/99999/next-change").status_code == 404
