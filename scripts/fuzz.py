"""Throw requests at the whole application in this process, and say which ones it answered with a fault of its own.

Usage: .venv/bin/python scripts/fuzz.py [--requests 20000] [--formulas 20000] [--seed 1]

First requests drawn from the application's own OpenAPI document, shared between its operations (schemathesis); then
real formulas of the demo kitchen with a few of their values replaced by what nobody would type, asked for figures,
workings and edits and taken in as files. The database is a private one that is thrown away. Ends with 1 when any answer
was a 5xx; each is printed with what asked for it. Not part of ./check: it takes minutes.
"""

from __future__ import annotations

import argparse
import collections
import copy
import json
import random
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

from ops.mariadb import PrivateMariaDB

ODD: tuple[Any, ...] = (
    None, True, "", "x" * 5000, "🍔", "<b>", "'; DROP TABLE meat; --", -1, 0, 1e-12, 0.5, 1, 2, 7, 100, 1e6, 1e308,
    -1e308, 2**63, [], {}, [0], {"key": 1}, "NaN", "chuck", "none", "oven", "burger", "meatloaf", "by_weights",
    "no-dairy",
)  # fmt: skip
FIGURES = (
    "guests", "piece_mass", "batch_mass", "thickness", "salt", "surface_temp", "target_core_temp", "cooked_mass",
    "panade", "fat", "cooked_diameter", "meat_temp", "rim", "filling", "loss", "width",
)  # fmt: skip
EDIT_TEXTS = ("", "0", "-1", "1e9", "3 lb", "ten", "½", "85 g", "900 °F", "NaN", "1,5 kg", "🍔", "12 mm", "20 %", "2-3")
MOST_SHOWN = 20
FIRST_OWNER = "/api/session/first-owner"


class Faults:
    """What was answered with a fault, and how often each status came."""

    def __init__(self) -> None:
        self.statuses: collections.Counter[int] = collections.Counter()
        self.found: list[str] = []

    def note(self, status: int, what: str, answer: str) -> None:
        self.statuses[status] += 1
        if status >= 500:
            self.found.append(f"{status} {what[:1500]} -> {answer[:300]}")


def places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place in a JSON value, by its path."""
    found = [path] if path else []
    items = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, inner in items:
        found += places(inner, (*path, key))
    return found


def at(content: Any, path: tuple[Any, ...]) -> Any:
    """What stands at a place, or None."""
    for key in path:
        try:
            content = content[key]
        except (KeyError, IndexError, TypeError):
            return None
    return content


def spoil(content: Any, others: list[Any], rng: random.Random) -> Any:
    """A copy with one to three values scaled, taken from another of its kind, replaced, left out or doubled."""
    spoilt = copy.deepcopy(content)
    for _ in range(rng.randint(1, 3)):
        path = rng.choice(places(spoilt))
        holder = at(spoilt, path[:-1])
        old, way = holder[path[-1]], rng.random()
        if way < 0.55 and isinstance(old, int | float) and not isinstance(old, bool):
            factor = rng.choice((0, 0.01, 0.3, 0.8, 1.2, 3, 30, -1, 1e9))
            holder[path[-1]] = type(old)(old * factor) if factor < 1e9 else old * factor
        elif way < 0.80 and (theirs := at(rng.choice(others), path)) is not None:
            holder[path[-1]] = copy.deepcopy(theirs)
        elif way < 0.84:
            del holder[path[-1]]
        elif way < 0.90 and isinstance(holder, list):
            holder.insert(path[-1], copy.deepcopy(old))
        else:
            holder[path[-1]] = copy.deepcopy(rng.choice(ODD))
    return spoilt


def fuzz_formulas(client: Any, count: int, rng: random.Random, faults: Faults) -> None:
    """Real formulas, spoilt, for figures, workings and edits, and as files."""
    numbers = [item["id"] for item in client.get("/api/formulas").get_json()]
    stored = [client.get(f"/api/formulas/{n}").get_json()["formula"] for n in numbers]
    files = [client.get(f"/api/formulas/{n}/export").get_json() for n in numbers]
    for _ in range(count):
        way = rng.random()
        if way < 0.70:
            path, body = "/api/evaluate", {"formula": spoil(rng.choice(stored), stored, rng)}
            if rng.random() < 0.5:
                edit = {"kind": "type", "figure": rng.choice(FIGURES), "text": rng.choice(EDIT_TEXTS), "item": ""}
                body["edits"] = [spoil(edit, [edit], rng) if rng.random() < 0.3 else edit]
        elif way < 0.85:
            path, body = "/api/sheets", {"formula": spoil(rng.choice(stored), stored, rng)}
        else:
            path, body = "/api/formulas/import", {"file": spoil(rng.choice(files), files, rng)}
        answer = client.post(path, json=body)
        faults.note(answer.status_code, f"{path} {json.dumps(body)}", answer.get_data(as_text=True))


def takes_only_files(operation: Any) -> bool:
    """Whether every body an operation takes is a file that nothing can be drawn for from its schema."""
    kinds = [body.media_type for body in operation.body]
    return bool(kinds) and all(kind == "application/zip" or kind.startswith("image/") for kind in kinds)


def fuzz_contract(app: Any, count: int, seed: int, faults: Faults) -> None:
    """Requests drawn from the OpenAPI document, the same number for every operation."""
    import hypothesis
    import schemathesis

    schema = schemathesis.openapi.from_wsgi(
        "/api/openapi.json", lambda environ, start: app({"REMOTE_ADDR": "127.0.0.1", **environ}, start)
    )
    operations = [found.ok() for found in schema.get_all_operations()]  # type: ignore[union-attr]
    # With a first owner everything else asks who is there: that one comes last.
    drawn = sorted((o for o in operations if not takes_only_files(o)), key=lambda o: o.path == FIRST_OWNER)
    for operation in operations:
        if operation not in drawn:
            print(f"  {operation.method.upper():6} {operation.path:44} takes a file only: see fuzz_readers", flush=True)
    varied = sum(1 for o in drawn if o.body or o.path_parameters)
    for operation in drawn:
        began, before = time.perf_counter(), sum(faults.statuses.values())

        @hypothesis.seed(seed)
        @hypothesis.settings(
            max_examples=max(1, count // varied),
            deadline=None,
            database=None,
            phases=(hypothesis.Phase.generate,),
            suppress_health_check=list(hypothesis.HealthCheck),
        )
        @hypothesis.given(case=operation.as_strategy())
        def one(case: Any) -> None:
            answer = case.call()
            what = f"{case.method} {case.formatted_path} {str(case.body)[:1200]}"
            faults.note(answer.status_code, what, answer.content.decode(errors="replace"))

        one()
        asked, took = sum(faults.statuses.values()) - before, time.perf_counter() - began
        print(f"  {operation.method.upper():6} {operation.path:44} {asked:5} requests, {took:5.0f} s", flush=True)


def main() -> int:
    """Fuzz, print the statuses and the faults, and say by the exit code whether there were any."""
    asked = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asked.add_argument("--requests", type=int, default=20_000)
    asked.add_argument("--formulas", type=int, default=20_000)
    asked.add_argument("--seed", type=int, default=1)
    options = asked.parse_args()

    from vianda.app import create_app
    from vianda.services.demo_kitchen import seed_once
    from vianda.storage.database import connect_pool
    from vianda.storage.migrate import migrate

    with tempfile.TemporaryDirectory() as folder:
        server = PrivateMariaDB(Path(folder))
        server.start()
        try:
            database = connect_pool(server.url)
            with database.connection_context():
                migrate(database)
                seed_once()
            app = create_app({"DATABASE_URL": server.url, "PAGES": "", "RATELIMIT_ENABLED": False})
            faults = Faults()
            began = time.perf_counter()
            fuzz_formulas(app.test_client(), options.formulas, random.Random(options.seed), faults)
            print(
                f"{options.formulas} formulas in {time.perf_counter() - began:.0f} s: {dict(faults.statuses)}",
                flush=True,
            )
            if options.requests:
                fuzz_contract(app, options.requests, options.seed, faults)
        finally:
            server.stop()
    print(f"{sum(faults.statuses.values())} answers by status: {dict(sorted(faults.statuses.items()))}")
    for fault in faults.found[:MOST_SHOWN]:
        print(fault)
    print(f"{len(faults.found)} faults")
    return 1 if faults.found else 0


if __name__ == "__main__":
    sys.exit(main())
