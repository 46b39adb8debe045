"""The API as the screens use it: evaluate with edits, keep, export, import, cook, log."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

FORMULA = FORMULAS.plain(slipway_smash())


def _cli(content: dict, tmp_path: Path) -> dict:
    file = tmp_path / "formula.vianda.json"
    file.write_text(json.dumps(content), encoding="utf-8")
    command = [str(Path(sys.executable).parent / "vianda"), "evaluate", str(file)]
    done = subprocess.run(command, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    return json.loads(done.stdout)


def test_edits_are_applied_in_order_before_the_evaluation(client) -> None:
    edits = [
        {"kind": "choose", "field": "style", "key": "grilled"},
        {"kind": "type", "figure": "guests", "text": "ten"},
        {"kind": "add-meat", "meat": "rib"},
    ]
    answer = client.post("/api/evaluate", json={"formula": FORMULA, "edits": edits}).get_json()
    dish = {
        "dish": "burger",
        "style": "grilled",
        "guests": 10,
        "pieces_per_guest": 1,
        "guests_per_piece": 1,
        "spare_pieces": 0,
    }
    assert answer["formula"]["dish"] == dish
    assert [p["meat"] for p in answer["evaluation"]["blend"]["parts"]][-1] == "rib"


def test_a_bare_number_is_read_in_the_units_of_the_screen(client) -> None:
    edit = {"kind": "type", "figure": "piece_mass", "text": "3"}
    answer = client.post("/api/evaluate", json={"formula": FORMULA, "edits": [edit], "unit_system": "us"}).get_json()
    assert answer["evaluation"]["portions"]["piece_mass_g"] == 85


def test_the_command_line_gives_the_same_figures_as_the_bench(client, tmp_path: Path) -> None:
    stored = client.post("/api/formulas", json={"formula": FORMULA}).get_json()
    export = client.get(f"/api/formulas/{stored['id']}/export")
    assert "slipway-smash.vianda.json" in export.headers["Content-Disposition"]
    bench = client.post("/api/evaluate", json={"formula": stored["formula"]}).get_json()["evaluation"]
    behind = client.post("/api/sheets", json={"formula": stored["formula"]}).get_json()
    assert _cli(export.get_json(), tmp_path) == {**bench, **behind}


def test_a_file_comes_back_as_the_same_formula(client) -> None:
    first = client.get("/api/formulas").get_json()[0]
    content = client.get(f"/api/formulas/{first['id']}/export").get_json()
    done = client.post("/api/formulas/import", json={"file": content}).get_json()
    assert done["stored"]["formula"] == content["formula"]
    assert (done["meats_added"], done["meats_differing"], done["replaced"]) == ([], [], [])


def test_a_file_from_another_kitchen_brings_its_meat_and_says_what_differs(client) -> None:
    content = client.get(f"/api/formulas/{client.get('/api/formulas').get_json()[0]['id']}/export").get_json()
    content["larder"][0]["key"] = content["formula"]["parts"][0]["meat"] = "island-chuck"
    content["larder"][0]["name"] = "Island chuck"
    content["larder"][1]["price_per_kg"] = "1.00"
    content["formula"]["shape"]["bun"] = "their-bun"
    content["kitchen"]["buns"][0]["key"] = "their-bun"
    done = client.post("/api/formulas/import", json={"file": content}).get_json()
    assert done["meats_added"] == ["Island chuck"]
    assert len(done["meats_differing"]) == 1
    assert done["replaced"] == ["bun"]


@pytest.mark.parametrize("file", [None, [], {"format": "x"}, {"format": "vianda-formula", "version": 99}])
def test_a_foreign_file_is_refused_and_nothing_is_added(client, file: object) -> None:
    before = len(client.get("/api/formulas").get_json())
    answer = client.post("/api/formulas/import", json={"file": file})
    assert answer.status_code == 422
    assert answer.get_json(force=True)["type"] == "urn:vianda:problem:unreadable-file"
    assert len(client.get("/api/formulas").get_json()) == before


def test_a_cook_from_the_stove_to_the_logbook(client) -> None:
    formula_id = client.get("/api/formulas").get_json()[0]["id"]
    cook = client.post("/api/cooks", json={"formula_id": formula_id}).get_json()
    path = f"/api/cooks/{cook['id']}"
    event = {"token": "abcdefgh-1", "kind": "probe", "place": 3, "value": 70.5, "late_s": 1.5}
    assert len(client.post(f"{path}/events", json=event).get_json()["events"]) == 1
    assert len(client.post(f"{path}/events", json=event).get_json()["events"]) == 1
    batch = cook["plan"]["portions"]["batch_mass_g"]
    outcome = {"cooked_mass_g": batch * 0.72, "crust": 5, "note": "good", "next_time": "hotter"}
    done = client.put(f"{path}/outcome", json={"outcome": outcome, "revision": 1}).get_json()
    assert done["finished_at"]
    assert done["outcome_figures"]["cooked_yield_frac"] == pytest.approx(0.72)
    assert done["outcome_figures"]["yield_expected"] is True
    assert client.get("/api/cooks").get_json()[0]["outcome"]["next_time"] == "hotter"
    again = client.put(f"{path}/outcome", json={"outcome": outcome, "revision": 1})
    assert (again.status_code, again.get_json()["revision"]) == (200, done["revision"])
    stale = client.put(f"{path}/outcome", json={"outcome": {**outcome, "note": "poor"}, "revision": 1})
    assert stale.status_code == 409


def test_more_off_than_on_is_refused(client) -> None:
    formula_id = client.get("/api/formulas").get_json()[0]["id"]
    cook = client.post("/api/cooks", json={"formula_id": formula_id}).get_json()
    outcome = {"cooked_mass_g": cook["plan"]["portions"]["batch_mass_g"] + 1.0}
    answer = client.put(f"/api/cooks/{cook['id']}/outcome", json={"outcome": outcome, "revision": 1})
    assert answer.status_code == 422
    assert "tray" in answer.get_json(force=True)["detail"]


def test_a_cook_keeps_the_plan_it_began_with(client) -> None:
    formula_id = client.get("/api/formulas").get_json()[0]["id"]
    cook = client.post("/api/cooks", json={"formula_id": formula_id}).get_json()
    stored = client.get(f"/api/formulas/{formula_id}").get_json()
    changed = stored["formula"] | {"dish": stored["formula"]["dish"] | {"guests": 3}}
    client.put(f"/api/formulas/{formula_id}", json={"formula": changed, "revision": stored["revision"]})
    assert client.get(f"/api/cooks/{cook['id']}").get_json()["plan"] == cook["plan"]


def test_the_kitchen_decides_which_floor_leads(client) -> None:
    kitchen = client.get("/api/kitchen").get_json()
    body = {"kitchen": kitchen["kitchen"] | {"setting": "home"}, "revision": kitchen["revision"]}
    assert client.put("/api/kitchen", json=body).status_code == 200
    heat = client.post("/api/evaluate", json={"formula": FORMULA}).get_json()["evaluation"]["heat"]
    assert heat["floors"]["leading"]["key"] == "usda-ground"
    assert client.put("/api/kitchen", json=body).get_json()["revision"] == kitchen["revision"] + 1
    theirs = {**body, "kitchen": kitchen["kitchen"] | {"setting": "food-service"}}
    assert client.put("/api/kitchen", json=theirs).status_code == 409


def test_the_schema_of_the_file_is_served(client) -> None:
    assert client.get("/api/schema/formula-file").get_json()["title"] == "Vianda formula file"


def test_every_operation_in_the_contract_answers_as_the_contract_says(app) -> None:
    """Schemathesis calls what reads, with odd path values, against the contract itself."""
    import schemathesis

    def from_here(environ, start_response):
        # A server says where a request is from; this way of asking has none.
        return app({"REMOTE_ADDR": "127.0.0.1", **environ}, start_response)

    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", from_here)
    for operation in schema.include(method="GET").get_all_operations():
        case = operation.ok().Case(
            path_parameters={
                "formula_id": 1,
                "cook_id": 1,
                "weighing_id": 1,
                "service_id": 1,
                "lot_key": "x",
                "tasting_id": 1,
                "photograph_id": 1,
                "from_day": "2026-12-01",
                "to_day": "2026-12-07",
                "day": "2026-12-04",
            }
        )
        response = case.call()
        # Where you are signed in is asked of somebody who is.
        assert response.status_code in ((401,) if "places" in case.path else (200, 404)), case.path


def test_an_archived_formula_leaves_the_shelf_and_can_be_restored(client) -> None:
    first = client.get("/api/formulas").get_json()[0]
    assert client.delete(f"/api/formulas/{first['id']}").status_code == 204
    assert all(f["id"] != first["id"] for f in client.get("/api/formulas").get_json())
    back = client.post(f"/api/formulas/{first['id']}/restore")
    assert back.get_json()["formula"]["name"] == first["name"]
    assert any(f["id"] == first["id"] for f in client.get("/api/formulas").get_json())
    assert client.post("/api/formulas/999999/restore").status_code == 404
