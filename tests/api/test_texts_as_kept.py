"""Every text that is kept is one that can be seen, and no name passes for another, by whichever way it came."""

from __future__ import annotations

import csv
import io
import json

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

# A right-to-left override, a space of no width, a soft hyphen, a bell.
UNSEEN = "\u202e\u200b\u00ad\x07"
LOOKALIKE = "smаsh"  # with a Cyrillic а


def _named(name: str) -> dict:
    return {**FORMULAS.plain(slipway_smash()), "name": name}


def test_a_formula_is_kept_under_what_can_be_read_of_its_name(client) -> None:
    kept = client.post("/api/formulas", json={"formula": _named(f"Slip{UNSEEN}way Cafe\u0301")})
    assert kept.status_code == 201
    found = client.get(f"/api/formulas/{kept.get_json()['id']}").get_json()
    assert found["formula"]["name"] == "Slipway Café"


@pytest.mark.parametrize("name", ["👩‍🍳 smash", "Hackfleisch für Öfen", "Котлеты smash", "肉丸", "نیم‌پز", "½ µ °C"])
def test_what_a_script_or_a_picture_needs_stays(client, name: str) -> None:
    kept = client.post("/api/formulas", json={"formula": _named(name)}).get_json()
    assert client.get(f"/api/formulas/{kept['id']}").get_json()["formula"]["name"] == name


def test_lines_and_tabs_of_a_note_stay(client) -> None:
    number = client.post("/api/formulas", json={"formula": _named("Smash")}).get_json()["id"]
    cook = client.post("/api/cooks", json={"formula_id": number}).get_json()
    outcome = {"note": f"one{UNSEEN}\n\ttwo", "next_time": "смаsh is no name"}
    client.put(f"/api/cooks/{cook['id']}/outcome", json={"outcome": outcome, "revision": cook["revision"]})
    kept = client.get(f"/api/cooks/{cook['id']}").get_json()["outcome"]
    assert (kept["note"], kept["next_time"]) == ("one\n\ttwo", "смаsh is no name")


@pytest.mark.parametrize(
    ("path", "body", "pointer"),
    [
        ("/api/formulas", {"formula": _named(f"Slipway {LOOKALIKE}")}, "/formula/name"),
        ("/api/services", {"service": {"name": LOOKALIKE, "day": "2026-12-04", "dishes": []}}, "/service/name"),
    ],
)
def test_a_name_that_passes_for_another_is_refused_at_its_place(client, path: str, body: dict, pointer: str) -> None:
    answer = client.post(path, json=body)
    assert answer.status_code == 422
    told = answer.get_json()
    assert f"“{LOOKALIKE}” mixes Latin and Cyrillic letters" in told["detail"]
    assert told["fields"][0]["pointer"] == pointer


def test_a_meat_by_form_and_by_file(client) -> None:
    text = client.get("/api/larder/file.csv").get_data(as_text=True)
    rows = list(csv.DictReader(io.StringIO(text.removeprefix("\ufeff"))))
    chuck = next(row for row in rows if row["key"] == "chuck")
    for name, kept in ((f"Ch{UNSEEN}uck", "Chuck"), ("Сhuck", None)):
        out = io.StringIO()
        table = csv.DictWriter(out, fieldnames=list(chuck))
        table.writeheader()
        table.writerow({**chuck, "name": name})
        report = client.post("/api/larder/file", json={"text": out.getvalue()}).get_json()
        meats = {m["key"]: m["name"] for m in client.get("/api/catalogue").get_json()["meats"]}
        if kept is None:
            assert "look alike" in json.dumps(report, ensure_ascii=False)
            assert meats["chuck"] == "Chuck"
        else:
            assert meats["chuck"] == kept


def test_a_formula_file_is_read_like_what_is_typed(client) -> None:
    number = client.post("/api/formulas", json={"formula": _named("Smash")}).get_json()["id"]
    file = client.get(f"/api/formulas/{number}/export").get_json()
    file["formula"]["name"] = LOOKALIKE
    answer = client.post("/api/formulas/import", json={"file": file})
    assert answer.status_code == 422
    assert "look alike" in answer.get_json()["detail"]
    file["formula"]["name"] = f"{UNSEEN}Smash two"
    kept = client.post("/api/formulas/import", json={"file": file}).get_json()["stored"]
    assert client.get(f"/api/formulas/{kept['id']}").get_json()["formula"]["name"] == "Smash two"


@pytest.mark.parametrize("raw", [b'{"formula": "\\ud800"}', b'{"formula": ' + b"9" * 5000 + b"\\u0041", b"\\u"])
def test_what_is_no_text_at_all_is_refused_as_before(client, raw: bytes) -> None:
    answer = client.post("/api/formulas", data=raw, content_type="application/json")
    assert answer.status_code in (400, 422)
