"""The shelf looked through: found by words and dish, in three orders, page by page, archived, restored and copied."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services import shelf
from vianda.storage.tables import FormulaRow


def _put(client, formula, name: str) -> int:
    body = {"formula": FORMULAS.plain(replace(formula, name=name))}
    return client.post("/api/formulas", json=body).get_json()["id"]


def _look(client, **asked) -> dict:
    answer = client.post("/api/shelf", json=asked)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _names(page: dict) -> list[str]:
    return [item["name"] for item in page["items"]]


@pytest.fixture
def stood(client) -> dict[str, int]:
    for item in client.get("/api/formulas").get_json():
        assert client.delete(f"/api/formulas/{item['id']}").status_code == 204
    return {
        "Ragù-style smash": _put(client, slipway_smash(), "Ragù-style smash"),
        "aunt's loaf": _put(client, keepers_loaf(), "aunt's loaf"),
        "Balls 100%": _put(client, night_watch_balls(), "Balls 100%"),
    }


@pytest.mark.parametrize(
    ("asked", "wanted"),
    [
        ({}, ["Balls 100%", "aunt's loaf", "Ragù-style smash"]),
        ({"sort": "newest"}, ["Balls 100%", "aunt's loaf", "Ragù-style smash"]),
        ({"sort": "name"}, ["aunt's loaf", "Balls 100%", "Ragù-style smash"]),
        ({"text": "RAGU"}, ["Ragù-style smash"]),
        # By what it is made of, by its style and kind of dish.
        ({"text": "short rib"}, ["Ragù-style smash"]),
        ({"text": "meatloaf"}, ["aunt's loaf"]),
        ({"text": "smash chuck"}, ["Ragù-style smash"]),
        ({"text": "%"}, ["Balls 100%"]),
        ({"text": "_"}, []),
        ({"text": "' OR 1=1 --"}, []),
        ({"dish": "meatball"}, ["Balls 100%"]),
        ({"dish": "meatball", "text": "loaf"}, []),
    ],
)
def test_formulas_are_found(client, stood, asked, wanted) -> None:
    page = _look(client, **asked)
    assert (_names(page), page["total"], page.get("next")) == (wanted, len(wanted), None)


def test_the_one_touched_last_comes_first_and_is_found_by_its_new_name(client, stood) -> None:
    one = client.get(f"/api/formulas/{stood['aunt' + chr(39) + 's loaf']}").get_json()
    body = {"formula": {**one["formula"], "name": "Sunday loaf"}, "revision": one["revision"]}
    assert client.put(f"/api/formulas/{one['id']}", json=body).status_code == 200
    assert _names(_look(client))[0] == "Sunday loaf"
    assert _names(_look(client, text="sunday")) == ["Sunday loaf"]
    assert _names(_look(client, text="aunt")) == []


def test_what_is_archived_stands_apart_and_comes_back(client, stood) -> None:
    away = _look(client)["archived"]
    assert client.delete(f"/api/formulas/{stood['Balls 100%']}").status_code == 204
    page = _look(client)
    assert ("Balls 100%" in _names(page), page["archived"]) == (False, away + 1)
    put_away = next(i for i in _look(client, archived=True)["items"] if i["name"] == "Balls 100%")
    # It is worked out as well: what is looked for may be its fat.
    assert put_away["lean_to_fat"]
    assert client.post(f"/api/formulas/{put_away['id']}/restore", json={}).status_code in (200, 201)
    assert "Balls 100%" in _names(_look(client))


def test_a_copy_has_a_name_of_its_own_and_changes_nothing_of_the_first(client, stood) -> None:
    first = stood["Ragù-style smash"]
    made = client.post(f"/api/formulas/{first}/copy", headers={"Idempotency-Key": "copy-it-once"}, json={})
    assert made.status_code == 201
    again = client.post(f"/api/formulas/{first}/copy", headers={"Idempotency-Key": "copy-it-once"}, json={})
    assert again.get_json()["id"] == made.get_json()["id"]
    assert made.get_json()["formula"]["name"] == "Ragù-style smash 2"
    third = client.post(f"/api/formulas/{first}/copy", json={}).get_json()
    assert third["formula"]["name"] == "Ragù-style smash 3"
    kept = client.get(f"/api/formulas/{first}").get_json()["formula"]
    assert {**third["formula"], "name": kept["name"]} == kept
    assert client.post("/api/formulas/999999/copy", json={}).status_code == 404


def test_a_name_of_eighty_letters_can_be_copied(client, stood) -> None:
    long = _put(client, slipway_smash(), "n" * 80)
    assert client.post(f"/api/formulas/{long}/copy", json={}).get_json()["formula"]["name"] == "n" * 78 + " 2"


@pytest.mark.parametrize("sort", ["touched", "name", "newest"])
def test_every_formula_is_reached_page_by_page_once(client, stood, sort, monkeypatch) -> None:
    monkeypatch.setattr(shelf, "PAGE", 2)
    for n in range(4):
        _put(client, slipway_smash(), f"Same name {n % 2}")
    # All at one moment: the order is still one.
    FormulaRow.update(updated_at=FormulaRow.get_by_id(stood["Balls 100%"]).updated_at).execute()
    found, before = [], None
    for _ in range(10):
        page = _look(client, sort=sort, **({"before": before} if before else {}))
        found += [item["id"] for item in page["items"]]
        before = page.get("next")
        if before is None:
            break
    assert len(found) == len(set(found)) == 7
    if sort != "name":
        assert found == sorted(found, reverse=True)


def test_a_line_says_how_often_it_was_cooked_and_when_last(client, stood) -> None:
    formula = stood["Ragù-style smash"]
    client.post("/api/cooks", json={"formula_id": formula})
    last = client.post("/api/cooks", json={"formula_id": formula}).get_json()
    line = next(i for i in _look(client)["items"] if i["id"] == formula)
    assert (line["cooks"], line["last_cooked"]) == (2, last["started_at"])
    other = next(i for i in _look(client)["items"] if i["name"] == "aunt's loaf")
    assert (other["cooks"], other.get("last_cooked")) == (0, None)


@pytest.mark.parametrize("bad", [{"sort": "price"}, {"before": 0}, {"text": "x" * 20_000}, {"archived": "maybe"}])
def test_what_cannot_be_asked_is_refused(client, bad) -> None:
    assert client.post("/api/shelf", json=bad).status_code in (400, 422)
