"""A kitchen's database, a formula file and a kept plan from before the core was laid out in rooms still open."""

from __future__ import annotations

import gzip
import json
from pathlib import Path

import pytest

from ops.mariadb import PrivateMariaDB
from served import PROJECT
from vianda.core.demo.formulas import keepers_loaf
from vianda.interchange.formula_file import read_text
from vianda.storage.database import connect_pool, proxy
from vianda.storage.migrate import migrate

FIXTURES = Path(__file__).parent.parent / "fixtures"


@pytest.fixture
def november(pool: object, tmp_path: Path):
    """A client on a server of its own, filled with what a kitchen held in November 2026."""
    from vianda.app import create_app

    kept = json.loads(gzip.decompress((FIXTURES / "kitchen-2026-11.json.gz").read_bytes()))
    server = PrivateMariaDB(tmp_path / "mariadb")
    server.start()
    url = server.url
    database = connect_pool(url)
    try:
        with database.connection_context():
            database.execute_sql("SET FOREIGN_KEY_CHECKS=0")
            for statement in kept["create"]:
                database.execute_sql(statement)
            for table, rows in kept["rows"].items():
                columns = ", ".join(f"`{c}`" for c in rows["columns"])
                marks = ", ".join(["%s"] * len(rows["columns"]))
                for values in rows["values"]:
                    database.execute_sql(f"INSERT INTO `{table}` ({columns}) VALUES ({marks})", values)
            migrate(database)
        app = create_app({"DATABASE_URL": url, "PAGES": str(PROJECT / "frontend" / "dist")})
        yield app.test_client()
    finally:
        database.close_all()
        server.stop()
        proxy.initialize(pool)


def test_everything_a_kitchen_kept_still_opens(november) -> None:
    shelf = november.get("/api/formulas").get_json()
    assert len(shelf) == 7
    for line in shelf:
        stored = november.get(f"/api/formulas/{line['id']}").get_json()
        assert november.post("/api/evaluate", json={"formula": stored["formula"]}).status_code == 200
    cooks = november.get("/api/cooks").get_json()
    assert len(cooks) == 7
    opened = [november.get(f"/api/cooks/{c['id']}") for c in cooks]
    assert [o.status_code for o in opened] == [200] * 7
    done = next(o.get_json() for o in opened if o.get_json()["formula_name"] == "Slipway smash")
    assert (done["outcome"]["juice"], done["plan"]["portions"]["pieces"]) == (5, 40)
    smash = next(line["id"] for line in shelf if line["name"] == "Slipway smash")
    assert [v["name"] for v in november.get(f"/api/formulas/{smash}/versions").get_json()] == ["first"]
    assert november.get("/api/kitchen").status_code == 200
    catalogue = november.get("/api/catalogue").get_json()
    assert (len(catalogue["meats"]), len(catalogue["pantry"]), len(catalogue["lots"])) == (55, 101, 3)
    runs = november.get(f"/api/formulas/{smash}/weighings").get_json()
    assert november.get(f"/api/weighings/{runs[0]['id']}").status_code == 200


def test_a_file_exported_in_november_holds_the_same_formula() -> None:
    bundle = read_text((FIXTURES / "keepers-loaf.v6.vianda.json").read_text(encoding="utf-8"))
    assert bundle.formula == keepers_loaf()
    assert {m.key for m in bundle.inventory.meats.values()} == {"chuck", "round", "pork-shoulder"}
