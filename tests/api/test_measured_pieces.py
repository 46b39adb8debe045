"""A cooked piece under the ruler: its thickness beside what was forecast, in the logbook and its file."""

from __future__ import annotations

import csv
import io
import json

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.storage.tables import CookRow


@pytest.fixture
def cook(client) -> dict:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    return client.post("/api/cooks", json={"formula_id": made["id"]}).get_json()


def _note(client, cook: dict, **outcome) -> object:
    body = {"outcome": outcome, "revision": cook["revision"]}
    return client.put(f"/api/cooks/{cook['id']}/outcome", json=body)


@pytest.mark.parametrize(("beyond", "expected"), [(-0.6, False), (-0.4, True), (0.0, True)])
def test_a_thickness_stands_beside_its_forecast(client, cook, beyond, expected) -> None:
    # A ruler reads half a millimetre: so far beside the band it may still be within.
    band = cook["plan"]["shape"]["cooked_thickness_mm"]
    done = _note(client, cook, cooked_thickness_mm=band["low"] + beyond).get_json()
    figures = done["outcome_figures"]
    assert figures["cooked_thickness_mm"] == pytest.approx(band["low"] + beyond)
    assert figures["thickness_expected"] is expected


def test_it_is_refused_when_it_can_only_be_the_diameter(client, cook) -> None:
    raw = cook["plan"]["shape"]["thickness_mm"]
    refused = _note(client, cook, cooked_thickness_mm=3.01 * raw)
    assert refused.status_code == 422
    assert refused.get_json(force=True)["fields"][0]["pointer"] == "/outcome/cooked_thickness_mm"
    assert "Was the diameter measured?" in refused.get_json(force=True)["detail"]
    assert _note(client, cook, cooked_thickness_mm=2.99 * raw).status_code == 200


@pytest.mark.parametrize("bad", [0, -3, 1001, "thick"])
def test_what_is_no_thickness_is_refused(client, cook, bad) -> None:
    assert _note(client, cook, cooked_thickness_mm=bad).status_code in (400, 422)


def test_the_logbook_file_has_it(client, cook) -> None:
    assert _note(client, cook, cooked_thickness_mm=5.5).status_code == 200
    rows = csv.DictReader(io.StringIO(client.get("/api/logbook/cooks.csv").get_data(as_text=True)))
    assert next(row for row in rows if row["cook"] == str(cook["id"]))["cooked_thickness_mm"] == "5.5"


def test_a_cook_from_before_thickness_was_forecast_can_be_noted(client, cook) -> None:
    row = CookRow.get_by_id(cook["id"])
    plan = json.loads(row.plan)
    # What a piece's plan came to hold at one time.
    for name in ("packing", "cooked_thickness_mm", "volume_ml", "water_lost_g", "fat_rendered_g"):
        del plan["shape"][name]
    CookRow.update(plan=json.dumps(plan)).where(CookRow.id == row.id).execute()
    done = _note(client, cook, cooked_thickness_mm=plan["shape"]["thickness_mm"] + 0.4)
    assert (done.status_code, done.get_json()["outcome_figures"]["thickness_expected"]) == (200, True)


def test_a_sauce_is_asked_for_its_mass_alone_and_a_diameter_of_it_is_refused(client) -> None:
    ragu = next(f for f in client.get("/api/formulas").get_json() if "ragù" in f["name"])
    cook = client.post("/api/cooks", json={"formula_id": ragu["id"]}).get_json()
    assert [m["title"] for m in cook["measures"]] == ["All of it, cooked", "Meat, last read"]
    refused = _note(client, cook, cooked_diameter_mm=80)
    assert refused.status_code == 422
    assert refused.get_json(force=True)["fields"][0]["pointer"] == "/outcome/cooked_diameter_mm"
    assert _note(client, cook, cooked_mass_g=0.9 * cook["measures"][0]["expected"]).status_code == 200
