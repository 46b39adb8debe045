"""What an attack and a careless change once broke: none of it may take the service or a screen down."""

from __future__ import annotations

from copy import deepcopy
from dataclasses import replace

import pytest

from vianda.core.demo.formulas import keepers_loaf
from vianda.interchange.kinds import FORMULAS
from vianda.services import kitchens
from vianda.services import pantry as pantry_service
from vianda.storage import kitchen_repository
from vianda.storage.transaction import transaction


def _exported(client, name: str) -> dict:
    item = next(f for f in client.get("/api/formulas").get_json() if name in f["name"])
    return client.get(f"/api/formulas/{item['id']}/export").get_json()


def _house(key: str, lines: list[tuple[str, float]], like: dict) -> dict:
    made_of = [{"ingredient": k, "mass_g": g} for k, g in lines]
    return {**like, "key": key, "name": key, "house": {"lines": made_of, "yield_g": 0, "keeps_days": 3}}


def _with_things(client, things: list[dict], used: str) -> dict:
    content = deepcopy(_exported(client, "loaf"))
    content["pantry"] += things
    line = {**content["formula"]["mix"]["lines"][0], "ingredient": used, "per_meat_frac": 0.01}
    content["formula"]["mix"]["lines"].append(line)
    return content


def _like(client) -> dict:
    things = client.get("/api/pantry").get_json()["ingredients"]
    return next(t["ingredient"] for t in things if t["ingredient"]["key"] == "yard-rub")


def test_an_import_of_house_formulas_inside_each_other_answers(client) -> None:
    """Seven levels of thirty lines are 30⁷ walks for who works each of them out anew."""
    like = _like(client)
    things = [_house("nest-0", [("milk", 10)] * 30, like)]
    things += [_house(f"nest-{n}", [(f"nest-{n - 1}", 10)] * 30, like) for n in range(1, 8)]
    answer = client.post("/api/formulas/import", json={"file": _with_things(client, things, "nest-7")})
    assert answer.status_code == 201, answer.get_json()
    assert client.get("/api/pantry").status_code == 200


@pytest.mark.parametrize(("levels", "status"), [(12, 201), (13, 422), (480, 422)])
def test_a_chain_of_house_formulas_is_bounded(client, levels: int, status: int) -> None:
    like = _like(client)
    mark = f"chain{levels}"
    things = [_house(f"{mark}-1", [("milk", 10)], like)]
    things += [_house(f"{mark}-{n}", [(f"{mark}-{n - 1}", 10)], like) for n in range(2, levels + 1)]
    before = len(client.get("/api/pantry").get_json()["ingredients"])
    answer = client.post("/api/formulas/import", json={"file": _with_things(client, things, f"{mark}-{levels}")})
    assert answer.status_code == status, answer.get_json()
    if status == 422:
        assert "more than 12 house formulas" in answer.get_json()["detail"]
        assert len(client.get("/api/pantry").get_json()["ingredients"]) == before


def test_a_file_whose_house_formulas_hold_each_other_is_refused(client) -> None:
    like = _like(client)
    ring = [_house("ring-a", [("ring-b", 10)], like), _house("ring-b", [("ring-a", 10)], like)]
    answer = client.post("/api/formulas/import", json={"file": _with_things(client, ring, "ring-a")})
    assert answer.status_code == 422
    assert "ingredient of itself" in answer.get_json()["detail"]


def test_an_import_keeps_the_room_of_the_pantry_and_a_full_one_can_be_corrected(client, monkeypatch) -> None:
    held = client.get("/api/pantry").get_json()["ingredients"]
    like = _like(client)
    monkeypatch.setattr(pantry_service, "MOST_INGREDIENTS", len(held) + 1)
    two = [_house("room-1", [("milk", 10)], like), _house("room-2", [("room-1", 10)], like)]
    refused = client.post("/api/formulas/import", json={"file": _with_things(client, two, "room-2")})
    assert refused.status_code == 422
    assert f"at most {len(held) + 1} things" in refused.get_json()["detail"]
    fits = client.post("/api/formulas/import", json={"file": _with_things(client, two[:1], "room-1")})
    assert fits.status_code == 201, fits.get_json()
    # Full now, and fuller than a tightened limit: what is here can still be corrected and retired.
    monkeypatch.setattr(pantry_service, "MOST_INGREDIENTS", 10)
    milk = next(t for t in held if t["ingredient"]["key"] == "cumin")
    body = {"ingredient": {**milk["ingredient"], "retired": True}, "revision": milk["revision"]}
    assert client.put("/api/pantry/cumin", json=body).status_code == 200


def _shelf(client) -> list[dict]:
    return client.post("/api/shelf", json={}).get_json()["items"]


def test_a_formula_that_cannot_be_worked_out_stays_on_the_shelf_with_its_reason(client) -> None:
    """A change of the kitchen is refused beforehand; one that got past it must not empty the shelf."""
    client.post("/api/formulas", json={"formula": FORMULAS.plain(keepers_loaf())})
    before = _shelf(client)
    assert all(item["problem"] == "" for item in before)
    kitchen = client.get("/api/kitchen").get_json()
    ovens = [s["key"] for s in kitchen["kitchen"]["surfaces"] if s["kind"] == "oven"]
    changed = deepcopy(kitchen)
    for surface in changed["kitchen"]["surfaces"]:
        if surface["key"] in ovens:
            surface["kind"] = "pan"
    body = {"kitchen": changed["kitchen"], "revision": kitchen["revision"]}
    refused = client.put("/api/kitchen", json=body)
    assert refused.status_code == 422
    assert "needs an oven" in refused.get_json()["detail"] or "last one" in refused.get_json()["detail"]

    stored = kitchen_repository.load_kitchen()
    pans = tuple(replace(s, kind="pan") if s.key in ovens else s for s in stored.kitchen.surfaces)
    with transaction():
        spoilt = kitchen_repository.save_kitchen(replace(stored.kitchen, surfaces=pans), revision=stored.revision)
    try:
        shelf = _shelf(client)
        assert [i["id"] for i in shelf] == [i["id"] for i in before]
        broken = [i for i in shelf if i["problem"]]
        assert broken
        assert all("oven" in i["problem"] and "lean_to_fat" not in i for i in broken)
        assert any("lean_to_fat" in i for i in shelf)
        # With one formula broken already, the kitchen can still be changed and mended.
        kitchens.save_kitchen(replace(spoilt.kitchen, name="Mended"), revision=spoilt.revision)
    finally:
        now = kitchen_repository.load_kitchen()
        with transaction():
            kitchen_repository.save_kitchen(stored.kitchen, revision=now.revision)
    assert all(item["problem"] == "" for item in _shelf(client))


@pytest.mark.parametrize("text", ["x", "-", "--3", "1e400", "²", "∞", "9" * 60, "1..2", "-x F", "🍔", "1/0", "0x10"])
@pytest.mark.parametrize("kind", ["mass_g", "length_mm", "temp_c", "frac", "number", "time_s", "delta_temp_k"])
def test_a_field_never_takes_the_service_down(client, kind: str, text: str) -> None:
    answer = client.post("/api/read", json={"kind": kind, "text": text, "unit_system": "metric"})
    assert answer.status_code in (200, 422), answer.get_data(as_text=True)


@pytest.mark.parametrize(("text", "kelvin"), [("-10", -10.0), ("+18 F", 10.0), ("2 K", 2.0), ("½", 0.5)])
def test_a_difference_of_temperatures_is_read(client, text: str, kelvin: float) -> None:
    answer = client.post("/api/read", json={"kind": "delta_temp_k", "text": text, "unit_system": "metric"})
    assert answer.get_json()["value"] == pytest.approx(kelvin)


@pytest.mark.parametrize("formula", ["a string", [], [[1, 2]], ["ab"], 7, None, {"heat": "hot"}, {"heat": ["ab"]}])
@pytest.mark.parametrize("version", range(1, 9))
def test_a_file_whose_formula_is_no_formula_is_refused(client, formula: object, version: int) -> None:
    file = {"format": "vianda-formula", "version": version, "formula": formula, "larder": [], "kitchen": {}}
    assert client.post("/api/formulas/import", json={"file": file}).status_code == 422


@pytest.mark.parametrize("origin", ["http://[", "null", "[::1", "http://[::1", "//", "http://\\"])
def test_an_origin_that_is_no_address_is_refused(client, origin: str) -> None:
    answer = client.get("/api/kitchen", headers={"Origin": origin})
    assert answer.status_code == 403
    assert answer.get_json()["type"].endswith("foreign-origin")


@pytest.mark.parametrize("host", ["[", "]", "[::1", "a b", "127.0.0.1:notaport", "", "x" * 5000])
def test_a_host_that_is_no_address_is_refused(client, host: str) -> None:
    assert client.get("/api/kitchen", headers={"Host": host}).status_code < 500


class UnknownServerError(Exception):
    """What a server raises by its own name."""


@pytest.mark.parametrize(
    ("method", "path", "status", "allow"),
    [
        ("GET", "/api/read", 405, {"POST", "OPTIONS"}),
        ("PUT", "/api/formulas", 405, {"GET", "HEAD", "POST", "OPTIONS"}),
        ("DELETE", "/api/kitchen", 405, {"GET", "HEAD", "PUT", "OPTIONS"}),
        ("POST", "/api/nothing", 404, None),
        ("GET", "/api/nothing", 404, None),
        ("GET", "/api/" + "a" * 3000, 404, None),
    ],
)
def test_a_wrong_method_and_a_wrong_address_are_told_apart(client, method, path, status, allow) -> None:
    answer = client.open(path, method=method)
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"
    if allow is not None:
        assert {m.strip() for m in answer.headers["Allow"].split(",")} == allow


@pytest.mark.parametrize("error", [OSError, UnknownServerError])
def test_a_request_that_breaks_off_is_answered(client, monkeypatch, error: type[Exception]) -> None:
    """The server raises an error of its own when a chunk says no length."""

    def broken(*args: object, **kwargs: object) -> bytes:
        raise error("Invalid chunk size: b'zz'")

    monkeypatch.setattr("flask.Request.get_data", broken)
    answer = client.post("/api/read", json={"kind": "number", "text": "1", "unit_system": "metric"})
    assert answer.status_code == 400
    assert "broke off" in answer.get_json()["detail"]


def _read_mix(client, text: str) -> list[str]:
    """What a bowl holds after a phrase: the keys of the lines it added."""
    item = next(f for f in client.get("/api/formulas").get_json() if "smash" in f["name"].lower())
    formula = client.get(f"/api/formulas/{item['id']}").get_json()["formula"]
    body = {"formula": formula, "edits": [{"kind": "add-to-mix", "text": text}]}
    after = client.post("/api/evaluate", json=body).get_json()
    return [x["ingredient"] for x in after["formula"]["mix"]["lines"]]


def test_an_alias_that_comes_with_a_file_never_changes_what_a_word_means(client) -> None:
    before = _read_mix(client, "2 large eggs")
    thing = {
        **_like(client),
        "key": "red-dust",
        "name": "Red dust",
        "house": None,
        "aliases": ["large egg", "egg", "rust"],
    }
    done = client.post("/api/formulas/import", json={"file": _with_things(client, [thing], "red-dust")})
    assert done.status_code == 201, done.get_json()
    assert any("egg" in line and "Red dust".lower() in line for line in done.get_json()["renamed"])
    assert _read_mix(client, "2 large eggs") == before
    assert _read_mix(client, "20 g rust") == ["red-dust"]


def test_a_thing_of_a_file_with_a_name_that_is_taken_comes_under_another(client) -> None:
    thing = {**_like(client), "key": "their-panko", "name": "Panko", "house": None, "aliases": []}
    done = client.post("/api/formulas/import", json={"file": _with_things(client, [thing], "their-panko")})
    assert done.status_code == 201, done.get_json()
    names = [t["ingredient"]["name"] for t in client.get("/api/pantry").get_json()["ingredients"]]
    assert names.count("Panko") == 1
    assert "Panko, from a file" in names


TWO_CUBES = [{"name": "cube", "mass_g": 5}, {"name": "Cubes", "mass_g": 9}]


@pytest.mark.parametrize(("change", "field"), [
    ({"name": "Panko"}, "/ingredient/name"),
    ({"name": "pankos"}, "/ingredient/name"),
    ({"name": "Quay dust", "aliases": ["egg"]}, "/ingredient/aliases"),
    ({"name": "Quay dust", "pieces": TWO_CUBES}, "/ingredient/pieces"),
])  # fmt: skip
def test_a_name_that_is_taken_is_refused_with_what_it_means_here(client, change: dict, field: str) -> None:
    thing = {**_like(client), "key": "quay-dust", "house": None, **change}
    answer = client.put("/api/pantry/quay-dust", json={"ingredient": thing, "revision": 0})
    assert answer.status_code == 422, answer.get_json()
    assert answer.get_json()["fields"][0]["pointer"] == field


def test_two_meats_of_one_name_are_refused_typed_and_in_a_file(client) -> None:
    meat = next(m for m in client.get("/api/larder").get_json()["meats"] if m["key"] == "chuck")
    typed = client.put("/api/larder/meats/my-chuck", json={"meat": {**meat, "key": "my-chuck"}, "seen": None})
    assert typed.status_code == 422
    assert "already" in typed.get_json()["detail"]
