"""Keep a database of today's shape as a fixture, so that every later version can be tried on it.

Usage: .venv/bin/python scripts/keep_kitchen.py [--tree FOLDER]

Makes the demo kitchen on a private database, works in it over the wire as its cooks would (a version, a tasting, cooks,
a photograph, a weighing, a service and its evening, checks, a delivery, ticks, what was learnt, people), and writes
every table with its rows into tests/fixtures/kept-kitchens.tar.xz, under the number of its newest migration. To be run
when a migration is added, before it: the last state of the shape that it changes. With --tree the code of another
checkout is run (an earlier commit's); what it does not know yet is passed over, and told.
"""

from __future__ import annotations

import argparse
import base64
import contextlib
import io
import json
import lzma
import os
import subprocess
import sys
import tarfile
import tempfile
from pathlib import Path
from typing import Any
from urllib.parse import urlparse

from ops import places

KEPT = places.PROJECT / "tests" / "fixtures" / "kept-kitchens.tar.xz"
DAY, BEFORE = "2026-12-04", "2026-12-03"
TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
DELIVERED = {
    "key": "new", "meat": "chuck", "name": "Norquay Butchery, Thursday", "left_mass_g": 5000.0,
    "price_per_kg": "9.40", "delivered": BEFORE, "use_by": None, "evidence": [], "closed": False,
}  # fmt: skip


class Wire:
    """Asks an application of any age, in the newest words first and in older ones after."""

    def __init__(self, client: Any) -> None:
        self.client = client

    def ask(self, method: str, path: str, *bodies: Any, **more: Any) -> Any:
        """The answer to the first body that is taken; None when that version takes none."""
        said = ""
        for body in bodies or (None,):
            found = self.client.open(path, method=method, json=body, **more)
            if found.status_code < 400:
                return found.get_json(silent=True) or {}
            said = found.get_data(as_text=True)[:160]
        print(f"  passed over: {method} {path}: {said}")
        return None


def live() -> None:
    """Make the demo kitchen and work in it. Run under the source that is to be kept."""
    from vianda.app import create_app
    from vianda.services import demo_kitchen
    from vianda.storage.database import connect_pool
    from vianda.storage.migrate import migrate

    url = os.environ["VIANDA_DATABASE_URL"]
    database = connect_pool(url)
    with database.connection_context():
        migrate(database)
        (getattr(demo_kitchen, "make_demo", None) or demo_kitchen.seed_once)()
    app = create_app({"DATABASE_URL": url, "PAGES": "", "RATELIMIT_ENABLED": False})
    app.config["PROPAGATE_EXCEPTIONS"] = False
    wire = Wire(app.test_client())
    shelf = wire.ask("GET", "/api/formulas")
    by_name = {line["name"]: line["id"] for line in shelf}
    smash = by_name["Slipway smash"]
    _design(wire, smash)
    _cook(wire, smash)
    _serve(wire, smash)
    _people(wire, app)


def _design(wire: Wire, smash: int) -> None:
    wire.ask("POST", f"/api/formulas/{smash}/versions", {"name": "before the fair"})
    stored = wire.ask("GET", f"/api/formulas/{smash}")
    with contextlib.suppress(KeyError, TypeError):
        stored["formula"]["name"] = "Slipway smash, thicker"
        body = {"formula": stored["formula"], "revision": stored["revision"]}
        wire.ask("PUT", f"/api/formulas/{smash}", body)
    tasting = wire.ask(
        "POST", f"/api/formulas/{smash}/tastings", {"kind": "triangle", "versions": [1, 0], "tasters": 6}
    )
    if tasting:
        answers = [{"taster": p["taster"], "codes": [p["samples"][0]["code"]]} for p in tasting["places"]]
        wire.ask("PUT", f"/api/tastings/{tasting['id']}/answers", {"answers": answers, "revision": tasting["revision"]})
    shown = (wire.ask("GET", "/api/training") or {}).get("next")
    if shown:
        answer = {k: shown[k] for k in ("formula_id", "seed", "stamp")} | {"kind": shown["round"]["kind"]}
        wire.ask("POST", "/api/training/answers", {**answer, "choice": 0, "confidence": 0.75, "token": "round-0001"})


def _cook(wire: Wire, smash: int) -> None:
    cook = wire.ask("POST", "/api/cooks", {"formula_id": smash})
    number = cook.get("id") or cook.get("cook_id")
    probe = {"kind": "probe", "place": 0, "value": 61.0}
    wire.ask("POST", f"/api/cooks/{number}/events", {"token": "event-0001", "late_s": 5.0, **probe}, probe)
    now = wire.ask("GET", f"/api/cooks/{number}")
    outcome = {"cooked_mass_g": 2700.0, "crust": 4, "note": "a hot night", "next_time": "less salt"}
    wire.ask("PUT", f"/api/cooks/{number}/outcome", {"outcome": outcome, "revision": now.get("revision", 1)}, outcome)
    from PIL import Image

    picture = io.BytesIO()
    Image.linear_gradient("L").convert("RGB").resize((320, 240)).save(picture, "JPEG")
    wire.ask("POST", f"/api/cooks/{number}/photographs", data=picture.getvalue(), content_type="image/jpeg")
    run = wire.ask("POST", "/api/weighings", {"formula_id": smash})
    if run:
        for n, said in enumerate(["piece", "piece", "piece", "finish"]):
            path = f"/api/weighings/{run['id']}/actions"
            wire.ask("POST", path, {"token": f"token-weigh-{n}", "action": said}, {"action": said})
        wire.ask("PUT", f"/api/weighings/{run['id']}/leftover", {"left_g": 25.0})
    pot = {"boil": "simmer", "diameter_mm": 240.0, "left_g": 1500.0, "start_g": 2000.0, "took_s": 1200.0}
    wire.ask("POST", "/api/learning/pot", pot)


def _serve(wire: Wire, smash: int) -> None:
    told = {"name": "Friday burgers", "day": DAY, "dishes": [{"formula_id": smash, "guests": 20}]}
    service = wire.ask("POST", "/api/services", {"service": {**told, "timing": TIMING}}, {"service": told})
    if service:
        number = service.get("id") or service["service"]["id"]
        begun = {"token": "token-run-1", "kind": "begin", "minute": -40, "task": f"f{smash}-preheat"}
        wire.ask("POST", f"/api/services/{number}/run/events", {"day": DAY, "event": begun})
    cold = {"token": "check-0001", "kind": "measured", "minute": 540, "check": "cold/own-1", "temp": 3.2}
    wire.ask("POST", "/api/checks/events", {"day": DAY, "event": cold})
    measured = {"token": "delivery-1", "day": BEFORE, "minute": 615, "who": "Rafe"}
    taken = {"lot": DELIVERED, "temp_c": 3.0, "unit_system": "metric"}
    wire.ask("POST", "/api/deliveries", {**taken, "measured": measured}, taken)
    wire.ask("PUT", "/api/stock", {"stocked": {"kind": "meat", "key": "chuck", "on_hand": 1000.0}})
    wire.ask("PUT", "/api/ticks", {"sheet": f"prep/{BEFORE}", "line": "soft-onion", "amount": 1200.0, "ticked": True})


def _people(wire: Wire, app: Any) -> None:
    owner = {"name": "Ines Holm", "password": "a long word for the fair kitchen"}
    if wire.ask("POST", "/api/session/first-owner", owner) is None:
        return
    asked = wire.ask("POST", "/api/people/invitations", {"name": "Rafe Birch", "role": "cook"})
    accepted = {"token": asked["link"].split("#")[1], "password": "another long word for the van", "pin": ""}
    Wire(app.test_client()).ask("POST", "/api/invitations/accept", accepted)
    wire.ask("POST", "/api/people/invitations", {"name": "Maud Lind", "role": "chef"})


def _plain(value: Any) -> Any:
    if isinstance(value, bytes):
        return {"base64": base64.b64encode(value).decode()}
    return value if value is None or isinstance(value, int | float | str) else str(value)


def _tables(url: str) -> tuple[str, dict[str, Any]]:
    """The number of the newest migration, and every table as it was made with its rows."""
    import pymysql

    at = urlparse(url)
    line = pymysql.connect(
        host=at.hostname, port=at.port or 3306, user=at.username, password=at.password or "", database=at.path[1:],
        charset="utf8mb4",
    )  # fmt: skip
    kept: dict[str, Any] = {"create": [], "rows": {}}
    with line, line.cursor() as cursor:
        cursor.execute("SHOW TABLES")
        for (table,) in sorted(cursor.fetchall()):
            cursor.execute(f"SHOW CREATE TABLE `{table}`")
            kept["create"].append(cursor.fetchall()[0][1])
            cursor.execute(f"SELECT * FROM `{table}`")
            columns = [d[0] for d in cursor.description]
            values = [[_plain(v) for v in row] for row in cursor.fetchall()]
            if values:
                kept["rows"][table] = {"columns": columns, "values": values}
        cursor.execute("SELECT MAX(number) FROM schema_migration")
        return cursor.fetchall()[0][0], kept


def _add(number: str, kept: dict[str, Any]) -> None:
    """Put it beside the others; all are packed anew, since they are alike but for a few rows."""
    parts: dict[str, bytes] = {}
    if KEPT.exists():
        with tarfile.open(KEPT, "r:xz") as old:
            parts = {m.name: found.read() for m in old.getmembers() if (found := old.extractfile(m))}
    parts[f"{number}.json"] = json.dumps(kept, ensure_ascii=False, separators=(",", ":")).encode()
    with (
        lzma.open(KEPT, "wb", preset=9 | lzma.PRESET_EXTREME) as pressed,
        tarfile.open(fileobj=pressed, mode="w") as new,
    ):
        for name, content in sorted(parts.items()):
            part = tarfile.TarInfo(name)
            part.size = len(content)
            new.addfile(part, io.BytesIO(content))


def keep(tree: Path) -> None:
    from ops.mariadb import PrivateMariaDB

    with tempfile.TemporaryDirectory() as folder:
        server = PrivateMariaDB(Path(folder) / "data")
        server.start()
        try:
            environment = {**os.environ, "PYTHONPATH": f"{tree / 'src'}", "VIANDA_DATABASE_URL": server.url}
            # -P and the path of that tree first: its package hides the installed one.
            command = [str(places.PYTHON), "-P", str(Path(__file__).resolve()), "--live"]
            environment["PYTHONPATH"] += os.pathsep + str(Path(__file__).parent)
            subprocess.run(command, env=environment, check=True)
            number, kept = _tables(server.url)
        finally:
            server.stop()
    _add(number, kept)
    print(number, {table: len(rows["values"]) for table, rows in kept["rows"].items()})


def main(arguments: list[str]) -> int:
    parser = argparse.ArgumentParser(description=(__doc__ or "").splitlines()[0])
    parser.add_argument("--tree", type=Path, default=places.PROJECT)
    parser.add_argument("--live", action="store_true", help=argparse.SUPPRESS)
    asked = parser.parse_args(arguments)
    if asked.live:
        live()
    else:
        keep(asked.tree.resolve())
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
