"""Every type of problem once, and what a hostile page or a broken client gets."""

from __future__ import annotations

import json

import pytest
from peewee import OperationalError

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.storage import shelf_repository
from vianda.storage.database import own_connection, proxy

FORMULA = FORMULAS.plain(slipway_smash())


def _post(client, path: str, body, **options):
    return client.post(
        path,
        data=body if isinstance(body, str | bytes) else json.dumps(body),
        content_type=options.pop("content_type", "application/json"),
        **options,
    )


def _changed(pointer: str, value: object) -> dict:
    body = {"formula": json.loads(json.dumps(FORMULA))}
    place = body
    *way, last = pointer.strip("/").split("/")
    for key in way:
        place = place[int(key) if isinstance(place, list) else key]
    place[int(last) if isinstance(place, list) else last] = value
    return body


def _is_problem(answer, status: int, code: str) -> dict:
    assert answer.status_code == status, answer.text
    assert answer.content_type == "application/problem+json"
    content = answer.get_json(force=True)
    assert content["type"] == f"urn:vianda:problem:{code}"
    assert content["status"] == status
    assert content["detail"]
    return content


@pytest.mark.parametrize(
    ("pointer", "value", "code", "field"),
    [
        ("/formula/shape/piece_mass_g", -85, "invalid", "/formula/shape/piece_mass_g"),
        ("/formula/shape/piece_mass_g", 1e9, "invalid", "/formula/shape/piece_mass_g"),
        ("/formula/shape/piece_mass_g", "85", "invalid", "/formula/shape/piece_mass_g"),
        ("/formula/dish/guests", 2.5, "invalid", "/formula/dish/guests"),
        ("/formula/dish/guests", True, "invalid", "/formula/dish/guests"),
        ("/formula/name", "", "invalid", "/formula/name"),
        ("/formula/parts/0/share_frac", 0.9, "infeasible-blend", "/formula/parts"),
        ("/formula/parts/0/meat", "unicorn", "unknown-item", "/formula/parts/0/meat"),
        ("/formula/dish/style", "boiled", "unknown-item", "/formula/dish/style"),
        ("/formula/heat/target_core_temp_c", 12, "out-of-range", "/formula/heat/target_core_temp_c"),
        ("/formula/shape/thickness_mm", 1.0, "out-of-range", "/formula/shape/thickness_mm"),
        ("/formula/parts/0/meat", "'; DROP TABLE meat; --", "invalid", "/formula/parts/0/meat"),
    ],
)
def test_a_bad_value_is_named_with_its_place(client, pointer: str, value: object, code: str, field: str) -> None:
    content = _is_problem(_post(client, "/api/evaluate", _changed(pointer, value)), 422, code)
    assert field in [f["pointer"] for f in content["fields"]]


@pytest.mark.parametrize("text", ["NaN", "Infinity", "-Infinity", "1e400"])
def test_what_is_not_a_finite_number_is_refused(client, text: str) -> None:
    body = (
        json.dumps({"formula": FORMULA}).replace("85.0", text).replace('"piece_mass_g": 85', f'"piece_mass_g": {text}')
    )
    assert text in body
    answer = _post(client, "/api/evaluate", body)
    assert answer.status_code in (400, 422)
    assert answer.content_type == "application/problem+json"


@pytest.mark.parametrize("body", ["", "{", "[1,", "\x00", "{" * 5000])
def test_what_is_not_json_is_malformed(client, body: str) -> None:
    _is_problem(_post(client, "/api/evaluate", body), 400, "malformed")


def test_only_json_is_taken(client) -> None:
    _is_problem(_post(client, "/api/evaluate", {"formula": FORMULA}, content_type="text/plain"), 415, "media-type")


def test_five_megabytes_are_too_large(client) -> None:
    _is_problem(_post(client, "/api/evaluate", b"x" * 5_000_000), 413, "too-large")


@pytest.mark.parametrize("path", ["/api/formulas/999", "/api/cooks/999", "/api/nothing", "/assets/none.js"])
def test_what_is_not_there_is_not_found(client, path: str) -> None:
    _is_problem(client.get(path), 404, "not-found")


def test_a_method_that_is_not_offered(client) -> None:
    _is_problem(client.delete("/api/kitchen"), 405, "method")


def test_the_slower_editor_gets_what_stands(client) -> None:
    path = f"/api/formulas/{client.get('/api/formulas').get_json()[0]['id']}"
    stored = client.get(path).get_json()
    mine = {"formula": stored["formula"] | {"remark": "mine"}, "revision": stored["revision"]}
    theirs = {"formula": stored["formula"] | {"remark": "theirs"}, "revision": stored["revision"]}
    assert client.put(path, json=mine).status_code == 200
    content = _is_problem(client.put(path, json=theirs), 409, "conflict")
    assert content["current"]["formula"]["remark"] == "mine"
    assert content["current"]["revision"] == stored["revision"] + 1


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "evil.example:8427"])
def test_another_host_name_is_refused(client, host: str) -> None:
    _is_problem(client.get("/api/kitchen", headers={"Host": host}), 403, "foreign-host")


@pytest.mark.parametrize("origin", ["https://evil.example", "http://localhost:9999", "null"])
def test_another_origin_is_refused(client, origin: str) -> None:
    answer = _post(client, "/api/evaluate", {"formula": FORMULA}, headers={"Origin": origin})
    _is_problem(answer, 403, "foreign-origin")


def test_a_cross_site_request_is_refused(client) -> None:
    answer = client.get("/api/kitchen", headers={"Sec-Fetch-Site": "cross-site"})
    _is_problem(answer, 403, "foreign-origin")


def test_our_own_origin_is_taken(client) -> None:
    answer = _post(client, "/api/evaluate", {"formula": FORMULA}, headers={"Origin": "http://localhost"})
    assert answer.status_code == 200


def test_every_answer_carries_the_headers(client) -> None:
    for path in ("/", "/api/kitchen", "/api/nothing"):
        with client.get(path) as answer:
            headers = answer.headers
        assert "'unsafe-inline'" not in headers["Content-Security-Policy"]
        assert "script-src 'self'" in headers["Content-Security-Policy"]
        assert headers["X-Content-Type-Options"] == "nosniff"
        assert headers["X-Frame-Options"] == "DENY"


def test_a_broken_server_leaks_nothing(app, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken() -> None:
        raise RuntimeError("secret /path and password")

    monkeypatch.setattr("vianda.services.kitchens.get_kitchen", broken)
    content = _is_problem(app.test_client().get("/api/kitchen"), 500, "internal")
    assert "secret" not in json.dumps(content)


def test_a_store_that_is_away_says_so(app, monkeypatch: pytest.MonkeyPatch) -> None:
    def away() -> None:
        raise OperationalError("(2006, 'server has gone away')")

    monkeypatch.setattr("vianda.services.kitchens.get_kitchen", away)
    _is_problem(app.test_client().get("/api/kitchen"), 503, "store-away")


def test_a_full_disk_says_so(app, monkeypatch: pytest.MonkeyPatch) -> None:
    def full() -> None:
        raise OperationalError("(1114, \"The table 'formula' is full\")")

    monkeypatch.setattr("vianda.services.kitchens.get_kitchen", full)
    _is_problem(app.test_client().get("/api/kitchen"), 507, "disk-full")


def test_a_key_with_letters_that_none_has_is_no_fault_of_the_database(client, monkeypatch: pytest.MonkeyPatch) -> None:
    assert client.post("/api/shelf", json={"dish": "meatloaf"}).status_code == 200
    _is_problem(client.post("/api/shelf", json={"dish": "æ"}), 422, "invalid")

    # Where a pattern was forgotten, the database itself says so.
    def asks() -> None:
        proxy.execute_sql("SELECT 1 FROM formula WHERE dish = %s", ("æ",))

    monkeypatch.setattr("vianda.services.kitchens.get_kitchen", asks)
    _is_problem(client.get("/api/kitchen"), 422, "invalid")


def test_pages_come_while_the_store_is_away(app, monkeypatch: pytest.MonkeyPatch) -> None:
    def away(*_, **__) -> None:
        raise OperationalError("(2002, 'no server')")

    monkeypatch.setattr("playhouse.pool.PooledMySQLDatabase.connect", away)
    client = app.test_client()
    assert client.get("/mark.svg").status_code == 200
    assert client.get("/").status_code == 200
    _is_problem(client.get("/api/kitchen"), 503, "store-away")


def test_a_table_that_is_gone_is_named_and_nobody_is_told_that_nothing_was_lost(client) -> None:
    with own_connection():
        proxy.execute_sql("RENAME TABLE shelf_figure TO shelf_figure_away")
    try:
        answer = client.post("/api/shelf", json={})
        told = answer.get_json(force=True)
        assert (answer.status_code, told["type"]) == (500, "urn:vianda:problem:store-damaged")
        assert "shelf_figure' doesn't exist" in told["detail"]
        assert "Nothing was lost" not in told["detail"]
        assert "./start --restore" in told["detail"]
    finally:
        with own_connection():
            proxy.execute_sql("RENAME TABLE shelf_figure_away TO shelf_figure")
    assert client.post("/api/shelf", json={}).status_code == 200


@pytest.mark.parametrize("code", [1034, 1194, 1712, 1932])
def test_a_corrupt_table_is_told_as_such_and_a_stopped_database_is_not(client, monkeypatch, code: int) -> None:
    def broken(*_: object, **__: object) -> None:
        raise OperationalError(code, "Index for table 'formula' is corrupt; try to repair it")

    monkeypatch.setattr(shelf_repository, "find_lines", broken)
    told = client.post("/api/shelf", json={}).get_json(force=True)
    assert told["type"] == "urn:vianda:problem:store-damaged"
    assert "Index for table 'formula' is corrupt" in told["detail"]

    def away(*_: object, **__: object) -> None:
        raise OperationalError(2013, "Lost connection to MySQL server during query")

    monkeypatch.setattr(shelf_repository, "find_lines", away)
    assert client.post("/api/shelf", json={}).get_json(force=True)["type"] == "urn:vianda:problem:store-away"
