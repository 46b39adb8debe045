"""A kitchen's data from every shape the database ever had still opens, with nothing of it lost.

``scripts/keep_kitchen.py`` made each with the code of its time: a demo kitchen that had been worked in with whatever
that version could do. Shapes 0015 and 0016 came with 0017 in one change, so that nobody had data in them.
"""

from __future__ import annotations

import base64
import io
import json
import tarfile
import zipfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from peewee import MySQLDatabase

from database_shape import shape_of
from vianda.interchange.kept_plan import up_to_date
from vianda.storage import caches
from vianda.storage.database import address_of, connect_pool, proxy
from vianda.storage.migrate import MIGRATIONS, migrate

KEPT = Path(__file__).parent.parent / "fixtures" / "kept-kitchens.tar.xz"
NEVER_ALONE = {"0015", "0016"}
OWNER = {"name": "Ines Holm", "password": "a long word for the fair kitchen"}


def _kept() -> dict[str, dict[str, Any]]:
    with tarfile.open(KEPT, "r:xz") as file:
        return {m.name[:4]: json.load(found) for m in file.getmembers() if (found := file.extractfile(m))}


ALL = _kept()
NUMBERS = [number for number, _ in MIGRATIONS]


def test_a_kitchen_is_kept_of_every_shape_but_perhaps_the_newest() -> None:
    assert set(NUMBERS) - {NUMBERS[-1]} - NEVER_ALONE <= set(ALL)


def _value(value: Any) -> Any:
    return base64.b64decode(value["base64"]) if isinstance(value, dict) else value


def _filled(database: Any, kept: dict[str, Any]) -> None:
    database.execute_sql("SET FOREIGN_KEY_CHECKS=0")
    for statement in kept["create"]:
        database.execute_sql(statement)
    for table, rows in kept["rows"].items():
        columns = ", ".join(f"`{c}`" for c in rows["columns"])
        one = "(" + ", ".join(["%s"] * len(rows["columns"])) + ")"
        values = [_value(v) for row in rows["values"] for v in row]
        many = ", ".join([one] * len(rows["values"]))
        database.execute_sql(f"INSERT INTO `{table}` ({columns}) VALUES {many}", values)
    database.execute_sql("SET FOREIGN_KEY_CHECKS=1")


def _counts(database: Any) -> dict[str, int]:
    tables = [name for (name,) in database.execute_sql("SHOW TABLES").fetchall()]
    return {t: database.execute_sql(f"SELECT COUNT(*) FROM `{t}`").fetchone()[0] for t in tables}


@pytest.fixture(scope="module")
def newest(pool: Any) -> dict[str, Any]:
    with pool.connection_context():
        return shape_of(pool)


@pytest.fixture(params=sorted(ALL))
def opened(request: pytest.FixtureRequest, pool: Any, mariadb: Any) -> Iterator[tuple[Any, dict[str, Any], Any]]:
    """What was kept, the database that it became, and a client of today's application on it."""
    from vianda.app import create_app

    at = address_of(mariadb.url)
    name = f"{at.name}_kept"
    server = MySQLDatabase(at.name, host=at.host, port=at.port, user=at.user, password=at.password)
    server.connect()
    server.execute_sql(f"DROP DATABASE IF EXISTS `{name}`")
    server.execute_sql(f"CREATE DATABASE `{name}`")
    url = mariadb.url.removesuffix(at.name) + name
    database = connect_pool(url)
    try:
        # One process serves one database: what it remembers is told apart by the kitchen's number alone.
        caches.forget_all()
        with database.connection_context():
            _filled(database, ALL[request.param])
        yield (
            ALL[request.param],
            database,
            create_app({"DATABASE_URL": url, "PAGES": "", "RATELIMIT_ENABLED": False}).test_client(),
        )
    finally:
        database.close_all()
        server.execute_sql(f"DROP DATABASE `{name}`")
        server.close()
        proxy.initialize(pool)
        caches.forget_all()


def test_what_was_kept_becomes_the_newest_shape_and_all_of_it_opens(opened: Any, newest: dict[str, Any]) -> None:
    kept, database, client = opened
    with database.connection_context():
        before = _counts(database)
        last = max(row[0] for row in kept["rows"]["schema_migration"]["values"])
        assert migrate(database) == [number for number in NUMBERS if number > last]
        assert shape_of(database) == newest
        after = _counts(database)
    assert {t: n for t, n in before.items() if after.get(t, 0) < n} == {}
    if before.get("person"):
        assert client.post("/api/session", json=OWNER).status_code == 200
    _formulas_open(client, kept)
    _cooks_open(client, kept)
    _services_open(client, kept)
    for path in ("/api/kitchen", "/api/catalogue", "/api/larder", "/api/pantry", "/api/learning", "/api/stock"):
        assert client.get(path).status_code == 200, path
    _goes_out_whole(client, kept)


def _rows(kept: dict[str, Any], table: str) -> list[dict[str, Any]]:
    rows = kept["rows"].get(table, {"columns": [], "values": []})
    return [dict(zip(rows["columns"], values, strict=True)) for values in rows["values"]]


def _formulas_open(client: Any, kept: dict[str, Any]) -> None:
    formulas = _rows(kept, "formula")
    assert {line["id"] for line in client.post("/api/shelf", json={}).get_json()["items"]} == {
        f["id"] for f in formulas
    }
    for formula in formulas:
        stored = client.get(f"/api/formulas/{formula['id']}").get_json()
        assert stored["formula"]["name"] == formula["name"]
        body = {"formula": stored["formula"]}
        found = client.post("/api/evaluate", json=body)
        assert found.status_code == 200, (formula["name"], found.get_json())
    for version in _rows(kept, "formula_version"):
        versions = client.get(f"/api/formulas/{version['formula_id']}/versions").get_json()
        assert version["name"] in [v["name"] for v in versions]
    for tasting in _rows(kept, "tasting"):
        assert client.get(f"/api/tastings/{tasting['id']}").get_json()["result"]["answered"] == 6


def _cooks_open(client: Any, kept: dict[str, Any]) -> None:
    for cook in _rows(kept, "cook"):
        found = client.get(f"/api/cooks/{cook['id']}").get_json()
        assert found.get("plan"), found
        # The version of 0018 could not finish a cook of a smashed piece whose core had been measured.
        if cook["outcome"] is None:
            continue
        assert (found["outcome"]["note"], found["outcome"]["crust"]) == ("a hot night", 4)
        assert [e["value"] for e in found["events"]] == [61.0]
    for photograph in _rows(kept, "photograph"):
        assert client.get(f"/api/photographs/{photograph['id']}/file").get_data()[:3] == b"\xff\xd8\xff"
    for run in _rows(kept, "weighing"):
        assert client.get(f"/api/weighings/{run['id']}").status_code == 200


def _services_open(client: Any, kept: dict[str, Any]) -> None:
    for service in _rows(kept, "service"):
        stored = client.get(f"/api/services/{service['id']}").get_json()["service"]
        assert (stored["name"], stored["day"]) == ("Friday burgers", "2026-12-04")
    noted = client.get("/api/checks/2026-12-01/2026-12-07/record.csv").get_data(as_text=True)
    for event in _rows(kept, "run_event"):
        if event["kind"] == "measured" and event.get("temp_c") is not None:
            assert f"{event['temp_c']:g}" in noted


def _goes_out_whole(client: Any, kept: dict[str, Any]) -> None:
    """The archive reads every part there is."""
    answer = client.get("/api/archive")
    assert answer.status_code == 200
    with zipfile.ZipFile(io.BytesIO(answer.get_data())) as archive:
        parts = {name: archive.read(name) for name in archive.namelist()}
    assert len([name for name in parts if name.endswith(".jpg")]) == len(_rows(kept, "photograph"))


@pytest.mark.parametrize(("part", "figure"), [
    ("shape", "end_mm"), ("shape", "section_power"), ("shape", "ball_mm"),
    ("stove", "in_squares"), ("stove", "footprint_mm"),
])  # fmt: skip
def test_a_figure_that_came_between_two_shapes_follows_from_the_others(part: str, figure: str) -> None:
    (cook,) = _rows(ALL["0004"], "cook")
    plan = up_to_date(json.loads(cook["plan"]))
    older = {**plan, part: {k: v for k, v in plan[part].items() if k != figure}}
    found = up_to_date(older)[part][figure]
    # The smashed pieces of the demo lie staggered, which the older plan did not know.
    assert found == (pytest.approx(plan[part][figure]) if figure != "in_squares" else plan["stove"]["at_once"])
