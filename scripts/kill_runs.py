"""Kill workers and the database at random moments while two devices say things, and count what is lost or done twice.

Usage: .venv/bin/python scripts/kill_runs.py [--kills 200] [--seed 1] [--signed-in]

Two devices follow one evening: each says one thing after the other (begun, ticked, added to a cook), keeps it until it
is acknowledged, and sends it again under the same token when no answer came, as the screens do. Meanwhile a worker of
the web server or the whole database is ended by SIGKILL, whatever it is doing, and comes back. At the end everything
that was acknowledged must be there once and in its device's order, nothing else, and no answer may have been a fault
of our own. With --signed-in the kitchen has an owner, both devices are signed in, and for each thing that was
acknowledged the audit log must say who did it. The database is a private one that is thrown away. Ends with 1 when
anything is wrong. Not part of ./check: it takes minutes.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from ops import places
from ops.mariadb import PrivateMariaDB, free_port

DAY = "2026-12-04"
TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
SHEET = f"shopping/{DAY}/{DAY}"
TASKS = 400
OWNER = {"name": "Ines Holm", "password": "a long word for the killed evening"}
# Between two kills, s: sometimes before the last one was got over.
BETWEEN_S = (0.2, 3.0)


class Kitchen:
    """The application as ./start runs it, on a database of its own."""

    def __init__(self, folder: Path) -> None:
        self.database = PrivateMariaDB(folder / "data", port=free_port())
        self.database.start()
        self.environment = {**os.environ, "VIANDA_DATABASE_URL": self.database.url, "VIANDA_PAGES": ""}
        command = [str(places.PYTHON.parent / "vianda"), "prepare", "--demo"]
        subprocess.run(command, env=self.environment, check=True, capture_output=True)
        self.faults: list[str] = []
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor())
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.server = subprocess.Popen(
            [str(places.PYTHON.parent / "vianda"), "serve", "--port", str(self.port)],
            env=self.environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
        while not self._lives():
            if self.server.poll() is not None:
                raise SystemExit("The server did not start.")
            time.sleep(0.2)

    def _lives(self) -> bool:
        try:
            with urllib.request.urlopen(f"{self.address}/api/live", timeout=2):
                return True
        except OSError:
            return False

    def workers(self) -> list[int]:
        """The processes that answer."""
        children = Path(f"/proc/{self.server.pid}/task/{self.server.pid}/children").read_text(encoding="ascii")
        return [int(pid) for pid in children.split()]

    def kill_database(self) -> None:
        """End the database where it stands, and start it again."""
        assert self.database.process is not None
        self.database.process.kill()
        self.database.process.wait()
        self.database.start()

    def ask(self, method: str, path: str, body: dict[str, Any] | None = None) -> Any:
        """An answer, or an exception where there is none."""
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json"} if data else {}
        request = urllib.request.Request(f"{self.address}/api{path}", data=data, method=method, headers=headers)
        with self.opener.open(request, timeout=15) as answer:
            return json.loads(answer.read())

    def sign_in(self) -> None:
        """Give the kitchen an owner, who is signed in from now on."""
        self.ask("POST", "/session/first-owner", OWNER)

    def surely(self, method: str, path: str, body: dict[str, Any] | None = None) -> Any:
        """An answer, however often it has to be asked for: what is said has a token, or is the same said twice."""
        while True:
            try:
                return self.ask(method, path, body)
            except urllib.error.HTTPError as error:
                if error.code == 500:
                    self.faults.append(f"500 to {method} {path}: {error.read()[:200]!r}")
                elif error.code != 503:
                    raise
            except (OSError, ValueError):
                pass
            time.sleep(0.1)

    def close(self) -> None:
        self.server.terminate()
        self.server.wait(20)
        self.database.stop()


@dataclass
class Device:
    """One device: what it said and was acknowledged, in its order, and how long each thing took, s."""

    name: str
    kitchen: Kitchen
    service: int
    cook: int
    random: random.Random
    said: list[str] = field(default_factory=list)
    events: list[str] = field(default_factory=list)
    ticks: dict[str, bool] = field(default_factory=dict)
    took_s: list[float] = field(default_factory=list)

    def run(self, stop: threading.Event) -> None:
        for n in self._numbers(stop):
            begun = time.monotonic()
            what = self.random.choice(("run", "run", "tick", "cook"))
            token = f"{self.name}-{n:06d}"
            if what == "run":
                event = {"token": token, "kind": "begin", "minute": -40, "task": f"{self.name}-{n % TASKS}"}
                self.kitchen.surely("POST", f"/services/{self.service}/run/events", {"day": DAY, "event": event})
                self.said.append(token)
            elif what == "cook":
                event = {"token": token, "kind": "extra", "place": 0, "value": 15.0}
                self.kitchen.surely("POST", f"/cooks/{self.cook}/events", event)
                self.events.append(token)
            else:
                line, on = f"thing/{self.name}-{n % 7}", self.random.random() < 0.6
                tick = {"sheet": SHEET, "line": line, "amount": float(n), "ticked": on}
                self.kitchen.surely("PUT", "/ticks", tick)
                self.ticks[line] = on
            self.took_s.append(time.monotonic() - begun)
            time.sleep(self.random.uniform(0.0, 0.05))

    def _numbers(self, stop: threading.Event) -> Iterator[int]:
        n = 0
        while not stop.is_set():
            yield n
            n += 1


def kill(kitchen: Kitchen, chance: random.Random) -> str:
    """Kill one thing at random; what it was."""
    if chance.random() < 0.4:
        kitchen.kill_database()
        return "database"
    workers = kitchen.workers()
    if workers:
        os.kill(chance.choice(workers), signal.SIGKILL)
    return "worker"


def wrong(kitchen: Kitchen, devices: list[Device], service: int, cook: int, database_url: str) -> list[str]:
    """What is lost, there twice, in another order, or there though nobody said it."""
    found = list(kitchen.faults)
    run = kitchen.surely("POST", f"/services/{service}/run/follow", {"day": DAY, "known": 0})
    kept = [event["token"] for event in run["events"]]
    extras = [event["token"] for event in kitchen.surely("GET", f"/cooks/{cook}")["events"]]
    for device in devices:
        mine = [token for token in kept if token.startswith(f"{device.name}-")]
        if mine != device.said:
            found.append(f"{device.name}: {len(device.said)} acknowledged in the run, {len(mine)} there")
        theirs = [token for token in extras if token.startswith(f"{device.name}-")]
        if sorted(theirs) != device.events:
            found.append(f"{device.name}: {len(device.events)} acknowledged at the cook, {len(theirs)} there")
    if len(kept) != sum(len(d.said) for d in devices) or len(set(kept)) != len(kept):
        found.append("the run holds what nobody said, or the same twice")
    there = {line for (line,) in _ticked(database_url)}
    meant = {line for device in devices for line, on in device.ticks.items() if on}
    if there != meant:
        found.append(f"ticks: {sorted(there ^ meant)} differ")
    return found


def unsigned(devices: list[Device], database_url: str) -> list[str]:
    """What was acknowledged without a line that says who did it; a repeat may have a line of its own."""
    of = "SELECT action, COUNT(*) FROM audit WHERE person = %s GROUP BY action"
    lines = {action: int(count) for action, count in _asked(database_url, of, OWNER["name"])}
    noted = sum(lines.get(action, 0) for action in ("note_run_event", "note_event", "set_tick"))
    acknowledged = sum(len(d.took_s) for d in devices)
    if noted < acknowledged:
        return [f"{acknowledged} acknowledged, {noted} in the audit log: {lines}"]
    return []


def _ticked(database_url: str) -> list[tuple[str]]:
    return _asked(database_url, "SELECT line FROM tick WHERE sheet = %s", SHEET)


def _asked(database_url: str, question: str, about: str) -> list[Any]:
    from vianda.storage.database import connect_pool

    database = connect_pool(database_url)
    with database.connection_context():
        rows = database.execute_sql(question, (about,)).fetchall()
    database.close_all()
    return list(rows)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0] if __doc__ else "")
    parser.add_argument("--kills", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--signed-in", action="store_true")
    asked = parser.parse_args()
    chance = random.Random(asked.seed)
    with tempfile.TemporaryDirectory() as folder:
        kitchen = Kitchen(Path(folder))
        try:
            if asked.signed_in:
                kitchen.sign_in()
            service = {"name": "Killed evening", "day": DAY, "dishes": [], "timing": TIMING}
            number = kitchen.surely("POST", "/services", {"service": service})["id"]
            formula = kitchen.surely("GET", "/formulas")[0]["id"]
            cook = kitchen.surely("POST", "/cooks", {"formula_id": formula})["id"]
            devices = [
                Device(name, kitchen, number, cook, random.Random(f"{asked.seed} {name}"))
                for name in ("griller", "chef")
            ]
            stop = threading.Event()
            threads = [threading.Thread(target=device.run, args=(stop,)) for device in devices]
            for thread in threads:
                thread.start()
            killed = {"worker": 0, "database": 0}
            for _ in range(asked.kills):
                time.sleep(chance.uniform(*BETWEEN_S))
                killed[kill(kitchen, chance)] += 1
            stop.set()
            for thread in threads:
                thread.join()
            found = wrong(kitchen, devices, number, cook, kitchen.database.url)
            if asked.signed_in:
                found += unsigned(devices, kitchen.database.url)
        finally:
            kitchen.close()
    took = sorted(s for device in devices for s in device.took_s)
    print(f"killed: {killed['worker']} workers, {killed['database']} databases")
    print(f"acknowledged: {len(took)}; half within {took[len(took) // 2]:.3f} s, the slowest {took[-1]:.1f} s")
    for line in found:
        print(f"WRONG: {line}")
    print("nothing lost, nothing twice" if not found else f"{len(found)} wrong")
    return 1 if found else 0


if __name__ == "__main__":
    sys.exit(main())
