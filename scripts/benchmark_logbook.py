"""Time the logbook over very many cooks, on a database of its own that is thrown away.

Usage: .venv/bin/python scripts/benchmark_logbook.py [--cooks 20000] [--rounds 60] [--serve]
Prints the median of a page in milliseconds, by what is asked. Bar: 50 ms for a page among 20,000 cooks. ``--serve``
serves the kitchen at http://127.0.0.1:8513 afterwards, so that its screens can be looked at, until Ctrl-C.
"""

from __future__ import annotations

import argparse
import json
import random
import statistics
import tempfile
import time
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

from ops.mariadb import PrivateMariaDB, free_port

NEWEST = datetime(2026, 11, 28, 19, 0)
NOTES = (
    "Crust dark and even, salt right.", "No crust: the plate had cooled.", "Grey, a little dry; pulled late.",
    "Fell apart at the flip.", "Juicy, but greasy at the edge.", "Best so far.", "",
)  # fmt: skip
NEXT = ("Plate at 260", "Less salt", "Thinner", "Rest it longer", "Fatter chuck", "Colder hands", "")
CHUNK = 500
ASKED: dict[str, dict[str, Any]] = {
    "newest": {},
    "two words": {"text": "chuck crust"},
    "no such word": {"text": "aubergine"},
    "a dish": {"dish": "meatloaf"},
    "scored 4.5": {"least_score": 4.5},
    "a month": {"from_day": "2024-03-01", "to_day": "2024-03-31"},
    "a lot": {"lot": "lot-17"},
}


def make_cooks(client: Any, cooks: int, *, seed: int = 1) -> None:
    """So many cooks of the kitchen's formulas over six years, each begun as a cook is and then noted."""
    from vianda.storage.tables import CookLineRow, CookLotRow, CookRow

    rng = random.Random(seed)
    shelf = client.get("/api/formulas").get_json()
    begun = [client.post("/api/cooks", json={"formula_id": item["id"]}).get_json()["id"] for item in shelf]
    patterns = [CookRow.get_by_id(cook_id) for cook_id in begun]
    lines = {cook_id: CookLineRow.get(CookLineRow.cook_id == cook_id) for cook_id in begun}
    first = max(begun) + 1
    for start in range(0, cooks, CHUNK):
        whole, narrow, lots = [], [], []
        for n in range(start, min(cooks, start + CHUNK)):
            pattern = rng.choice(patterns)
            line, cook_id = lines[pattern.id], first + n
            when = NEWEST - timedelta(minutes=(cooks - n) * 6 * 365 * 1440 / cooks + rng.random() * 60)
            scores = {name: rng.randint(1, 5) for name in ("crust", "juice", "bite", "bind", "grease", "salt")}
            outcome = {**scores, "note": rng.choice(NOTES), "next_time": rng.choice(NEXT)}
            lot = f"lot-{n // 40}"
            done = {"started_at": when, "finished_at": when + timedelta(hours=1)}
            whole.append({**pattern.__data__, "id": cook_id, **done, "outcome": json.dumps(outcome)})
            narrow.append(
                {
                    **line.__data__, "cook_id": cook_id, **done, "score": statistics.mean(scores.values()),
                    "remark": outcome["next_time"] or outcome["note"],
                    "words": f"{line.words} {outcome['note']} {outcome['next_time']}".casefold(),
                }
            )  # fmt: skip
            lots.append(
                {"cook_id": cook_id, "kitchen_id": line.kitchen_id, "lot": lot, "name": f"Delivery {n // 40}",
                 "meat": "chuck", "mass_g": 1000.0, "use_by": "2026-12-06"}
            )  # fmt: skip
        CookRow.insert_many(whole).execute()
        CookLineRow.insert_many(narrow).execute()
        CookLotRow.insert_many(lots).execute()


def main() -> int:
    """Make the cooks, ask for pages in turn, and say how long each took."""
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0] if __doc__ else "")
    parser.add_argument("--cooks", type=int, default=20_000)
    parser.add_argument("--rounds", type=int, default=60)
    parser.add_argument("--serve", action="store_true")
    given = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        database = PrivateMariaDB(Path(folder) / "data", port=free_port())
        database.start()
        try:
            return _timed(database, given.cooks, given.rounds, serve=given.serve)
        finally:
            database.stop()


def _timed(database: PrivateMariaDB, cooks: int, rounds: int, *, serve: bool) -> int:
    from vianda.app import create_app
    from vianda.services.demo_kitchen import seed_once
    from vianda.storage.database import proxy
    from vianda.storage.migrate import migrate

    app = create_app({"DATABASE_URL": database.url, "PAGES": str(Path(__file__).parent.parent / "frontend" / "dist")})
    with proxy.connection_context():
        migrate(proxy)
        seed_once()
    with app.test_client() as client:
        began = time.perf_counter()
        make_cooks(client, cooks)
        print(f"{cooks} cooks made in {time.perf_counter() - began:.0f} s")
        taken: dict[str, list[float]] = {name: [] for name in ASKED}
        for _ in range(rounds):
            for name, asked in ASKED.items():
                began = time.perf_counter()
                answer = client.post("/api/logbook", json=asked)
                taken[name].append((time.perf_counter() - began) * 1000)
                assert answer.status_code == 200
        for name, times in taken.items():
            total = client.post("/api/logbook", json=ASKED[name]).get_json()["total"]
            print(f"{name:14} {statistics.median(times):6.1f} ms median of {rounds}, {total} found")
    if serve:
        app.run(host="127.0.0.1", port=8513)
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
