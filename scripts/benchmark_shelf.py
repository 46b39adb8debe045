"""Time the shelf over very many formulas, on a database of its own that is thrown away.

Usage: .venv/bin/python scripts/benchmark_shelf.py [--formulas 5000] [--rounds 40] [--serve]
Prints the median of a page in milliseconds, by what is asked. Bar: 50 ms for a page among 5,000 formulas. ``--serve``
serves the kitchen at http://127.0.0.1:8513 afterwards, so that its screens can be looked at, until Ctrl-C.
"""

from __future__ import annotations

import argparse
import random
import statistics
import tempfile
import time
from dataclasses import replace
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

from ops.mariadb import PrivateMariaDB, free_port

CHUNK = 500
NEWEST = datetime(2026, 11, 28, 19, 0)
WORDS = ("harbour", "night", "Sunday", "light", "double", "crew", "pier", "winter", "grilled", "quick", "tin", "onion")
ASKED: dict[str, dict[str, Any]] = {
    "touched last": {},
    "by name": {"sort": "name"},
    "two words": {"text": "winter chuck"},
    "no such word": {"text": "aubergine"},
    "a dish": {"dish": "meatloaf"},
    "archived": {"archived": True},
}


def make_formulas(formulas: int, *, seed: int = 1) -> None:
    """So many formulas like the demo's, each with a name and a salt of its own; every twentieth archived."""
    from vianda.core.demo.formulas import DEMO_FORMULAS
    from vianda.storage import formula_repository
    from vianda.storage.database import proxy
    from vianda.storage.tables import FormulaRow

    rng = random.Random(seed)
    patterns = [make() if callable(make) else make for make in DEMO_FORMULAS]
    with proxy.connection_context():
        kitchen = FormulaRow.select(FormulaRow.kitchen_id).limit(1).scalar()
    for start in range(0, formulas, CHUNK):
        rows = []
        for n in range(start, min(formulas, start + CHUNK)):
            pattern = rng.choice(patterns)
            name = f"{pattern.name} {rng.choice(WORDS)} {rng.choice(WORDS)} {n}"
            when = NEWEST - timedelta(minutes=formulas - n)
            columns = formula_repository.columns_of(replace(pattern, name=name))
            rows.append(
                {**columns, "kitchen_id": kitchen, "revision": 1, "created_at": when, "updated_at": when,
                 "deleted": n % 20 == 0}
            )  # fmt: skip
        with proxy.connection_context():
            FormulaRow.insert_many(rows).execute()


def main() -> int:
    """Make the formulas, ask for pages in turn, and say how long each took."""
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0] if __doc__ else "")
    parser.add_argument("--formulas", type=int, default=5_000)
    parser.add_argument("--rounds", type=int, default=40)
    parser.add_argument("--serve", action="store_true")
    given = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        database = PrivateMariaDB(Path(folder) / "data", port=free_port())
        database.start()
        try:
            return _timed(database, given.formulas, given.rounds, serve=given.serve)
        finally:
            database.stop()


def _timed(database: PrivateMariaDB, formulas: int, rounds: int, *, serve: bool) -> int:
    from vianda.app import create_app
    from vianda.services.demo_kitchen import seed_once
    from vianda.storage.database import proxy
    from vianda.storage.migrate import migrate

    app = create_app({"DATABASE_URL": database.url, "PAGES": str(Path(__file__).parent.parent / "frontend" / "dist")})
    with proxy.connection_context():
        migrate(proxy)
        seed_once()
    with app.test_client() as client:
        make_formulas(formulas)
        began = time.perf_counter()
        client.post("/api/shelf", json={})
        print(f"first page, nothing worked out yet: {(time.perf_counter() - began) * 1000:.0f} ms")
        taken: dict[str, list[float]] = {name: [] for name in ASKED}
        for _ in range(rounds):
            for name, asked in ASKED.items():
                began = time.perf_counter()
                answer = client.post("/api/shelf", json=asked)
                taken[name].append((time.perf_counter() - began) * 1000)
                assert answer.status_code == 200
        for name, times in taken.items():
            total = client.post("/api/shelf", json=ASKED[name]).get_json()["total"]
            print(f"{name:14} {statistics.median(times):6.1f} ms median of {rounds}, {total} found")
        names: list[float] = []
        for _ in range(rounds):
            began = time.perf_counter()
            client.get("/api/formulas")
            names.append((time.perf_counter() - began) * 1000)
        print(f"{'all names':14} {statistics.median(names):6.1f} ms median of {rounds}")
    if serve:
        app.run(host="127.0.0.1", port=8513)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
