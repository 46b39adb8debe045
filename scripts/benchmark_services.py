"""Time the screens of services over a year of them, on a database of its own that is thrown away.

Usage: .venv/bin/python scripts/benchmark_services.py [--services 300] [--formulas 60] [--rounds 20]
Prints the median of each answer in milliseconds once dishes were worked out. Bar: 50 ms for a screen.
"""

from __future__ import annotations

import argparse
import statistics
import tempfile
import time
from datetime import date, timedelta
from pathlib import Path
from typing import Any

from ops.mariadb import PrivateMariaDB, free_port

FIRST = date(2026, 1, 5)
TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": [], "away": []}


def make_year(client: Any, services: int, formulas: int) -> list[int]:
    """So many formulas, copies of the demo's, and so many services of one or two of them; the services' numbers."""
    shelf = client.get("/api/formulas").get_json()
    ids = []
    for n in range(formulas):
        whole = client.get(f"/api/formulas/{shelf[n % len(shelf)]['id']}").get_json()["formula"]
        body = {"formula": {**whole, "name": f"{whole['name']}, {n + 1}"}}
        ids.append(client.post("/api/formulas", json=body).get_json()["id"])
    made = []
    for n in range(services):
        dishes = [{"formula_id": ids[(n * k) % len(ids)], "guests": 20 + n % 30} for k in range(1, 2 + n % 2)]
        day = str(FIRST + timedelta(days=n * 365 // services))
        service = {"name": f"Evening {n + 1}", "day": day, "dishes": dishes, "timing": TIMING}
        made.append(client.post("/api/services", json={"service": service}).get_json()["id"])
    return made


def main() -> int:
    """Make the year, ask for each screen in turn, and say how long each took."""
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0] if __doc__ else "")
    parser.add_argument("--services", type=int, default=300)
    parser.add_argument("--formulas", type=int, default=60)
    parser.add_argument("--rounds", type=int, default=20)
    given = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        database = PrivateMariaDB(Path(folder) / "data", port=free_port())
        database.start()
        try:
            return _timed(database, given.services, given.formulas, given.rounds)
        finally:
            database.stop()


def _timed(database: PrivateMariaDB, services: int, formulas: int, rounds: int) -> int:
    from vianda.app import create_app
    from vianda.services.demo_kitchen import seed_once
    from vianda.storage.database import proxy
    from vianda.storage.migrate import migrate

    app = create_app({"DATABASE_URL": database.url, "PAGES": ""})
    with proxy.connection_context():
        migrate(proxy)
        seed_once()
    week = {"from_day": "2026-06-01", "to_day": "2026-06-07", "unit_system": "metric"}
    months = {"from_day": "2026-06-01", "to_day": "2026-08-01", "unit_system": "metric"}
    with app.test_client() as client:
        made = make_year(client, services, formulas)
        out = {"service_id": made[150 % len(made)], "today": "2026-06-01", "unit_system": "metric"}
        asked: dict[str, tuple[str, str, dict[str, Any] | None]] = {
            "shelf": ("GET", "/api/formulas", None),
            "services": ("GET", "/api/services", None),
            "one service": ("GET", f"/api/services/{made[0]}", None),
            "shopping, a week": ("POST", "/api/shopping", week),
            "shopping, two months": ("POST", "/api/shopping", months),
            "prep, a week": ("POST", "/api/prep", {**week, "day_min": 0}),
            "butcher, a week": ("POST", "/api/butcher", week),
            "set out": ("POST", "/api/services/set-out", out),
            "checks, a week": ("POST", "/api/checks", {"from_day": week["from_day"], "to_day": week["to_day"]}),
            "calendar": ("GET", "/api/services/calendar.ics", None),
        }
        for name, (method, path, body) in asked.items():
            taken = []
            for n in range(rounds + 1):
                began = time.perf_counter()
                answer = client.open(path, method=method, json=body) if body else client.open(path, method=method)
                took = (time.perf_counter() - began) * 1000
                assert answer.status_code == 200, (name, answer.get_data(as_text=True)[:200])
                if n:
                    taken.append(took)
                else:
                    first = took
            print(f"{name:22} {statistics.median(taken):7.1f} ms median of {rounds}, the first one {first:.0f}")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
