"""How many cooks and editors a machine serves: what each thing costs in processor time, and whether the sum holds.

Usage: .venv/bin/python scripts/benchmark_capacity.py [--seconds 30] [--editors 20] [--devices 20] [--curves 0.1]

First each thing alone, some dozens of times: processor milliseconds of the server and of the database. Then all at
once, each editor and device at its own pace: the processor time that was forecast beside what was taken, and how long
answers took. Not part of ./check: a benchmark holds a number, not a test.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import secrets
import sys
import tempfile
import threading
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path
from typing import Any

from kill_runs import Kitchen

TICKS = os.sysconf("SC_CLK_TCK")
# How often each does it, s: an edit while somebody drags and types, a report at a stove, a page that is opened.
EDIT_EVERY_S, EVENT_EVERY_S, PAGE_EVERY_S = 1.0, 10.0, 15.0
# How full a processor may be on average, so that what comes at once is still answered soon.
FULL_FRAC = 0.6
WARM, TIMES = 5, 40


def cpu_s(pid: int) -> float:
    """Processor time of a process, s."""
    fields = Path(f"/proc/{pid}/stat").read_text(encoding="ascii").rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / TICKS


class Load:
    """A kitchen, and what people do in it."""

    def __init__(self, kitchen: Kitchen) -> None:
        self.kitchen = kitchen
        shelf = kitchen.ask("GET", "/formulas")
        self.first = kitchen.ask("GET", f"/formulas/{next(f['id'] for f in shelf if f['name'] == 'Slipway smash')}")
        self.took: dict[str, list[float]] = {}
        self._lock = threading.Lock()

    def cpu(self) -> float:
        """Of the servers and the database together, s."""
        assert self.kitchen.database.process is not None
        pids = [*self.kitchen.workers(), self.kitchen.database.process.pid]
        return sum(cpu_s(pid) for pid in pids)

    def timed(self, name: str, work: Callable[[], object]) -> None:
        began = time.perf_counter()
        work()
        with self._lock:
            self.took.setdefault(name, []).append(time.perf_counter() - began)

    def new_formula(self) -> dict[str, Any]:
        content = self.first["formula"] | {"name": f"Load {secrets.token_hex(4)}"}
        made: dict[str, Any] = self.kitchen.ask("POST", "/formulas", {"formula": content})
        return made

    def edit(self, mine: dict[str, Any]) -> None:
        """A figure changed, answered and saved, as the bench does."""
        change = {"kind": "set", "figure": "salt", "value": round(random.uniform(0.008, 0.014), 4)}
        answer = self.kitchen.ask("POST", "/evaluate", {"formula": mine["formula"], "edits": [change]})
        body = {"formula": answer["formula"], "revision": mine["revision"]}
        mine |= self.kitchen.ask("PUT", f"/formulas/{mine['id']}", body)

    def event(self, cook: int) -> None:
        """Something said at the stove."""
        body = {"token": secrets.token_hex(8), "kind": "probe", "place": 0, "value": 60.0, "late_s": 0.0}
        self.kitchen.ask("POST", f"/cooks/{cook}/events", body)

    def page(self) -> None:
        """The shelf."""
        self.kitchen.ask("POST", "/shelf", {})

    def curve(self) -> None:
        """A curve of the heat that nobody asked for before."""
        formula = self.first["formula"]
        shape = formula["shape"] | {"thickness_mm": round(random.uniform(5.0, 9.0), 3)}
        body = json.dumps({"formula": formula | {"shape": shape}}).encode()
        request = urllib.request.Request(
            f"{self.kitchen.address}/api/heat/curve", data=body, headers={"Content-Type": "application/json"}
        )
        # It comes line by line, until its uncertainty is known.
        with urllib.request.urlopen(request, timeout=120) as answer:
            answer.read()


def each_alone(load: Load) -> dict[str, float]:
    """Processor seconds of one of each."""
    mine = load.new_formula()
    cook = load.kitchen.ask("POST", "/cooks", {"formula_id": mine["id"]})["id"]
    kinds: dict[str, Callable[[], object]] = {
        "edit": lambda: load.edit(mine), "event": lambda: load.event(cook), "page": load.page, "curve": load.curve,
    }  # fmt: skip
    costs = {}
    for name, work in kinds.items():
        times = TIMES // 4 if name == "curve" else TIMES
        for _ in range(WARM):
            work()
        before = load.cpu()
        for _ in range(times):
            work()
        costs[name] = (load.cpu() - before) / times
    return costs


def together(load: Load, given: argparse.Namespace) -> float:
    """Everybody at once for a while; processor seconds a second."""
    until = time.monotonic() + given.seconds
    load.took.clear()

    def often(every_s: float, name: str, work: Callable[[], object]) -> None:
        time.sleep(random.uniform(0, every_s))
        while time.monotonic() < until:
            began = time.monotonic()
            load.timed(name, work)
            time.sleep(max(0.0, every_s * random.uniform(0.7, 1.3) - (time.monotonic() - began)))

    threads = []
    for _ in range(given.editors):
        mine = load.new_formula()
        threads.append(threading.Thread(target=often, args=(EDIT_EVERY_S, "edit", lambda m=mine: load.edit(m))))
        threads.append(threading.Thread(target=often, args=(PAGE_EVERY_S, "page", load.page)))
    for _ in range(given.devices):
        cook = load.kitchen.ask("POST", "/cooks", {"formula_id": load.first["id"]})["id"]
        threads.append(threading.Thread(target=often, args=(EVENT_EVERY_S, "event", lambda c=cook: load.event(c))))
    if given.curves:
        threads.append(threading.Thread(target=often, args=(1 / given.curves, "curve", load.curve)))
    before, began = load.cpu(), time.monotonic()
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return (load.cpu() - before) / (time.monotonic() - began)


def main() -> int:
    """Measure and tell."""
    parser = argparse.ArgumentParser(description=(__doc__ or "").splitlines()[0])
    parser.add_argument("--seconds", type=int, default=30)
    parser.add_argument("--editors", type=int, default=20)
    parser.add_argument("--devices", type=int, default=20)
    parser.add_argument("--curves", type=float, default=0.1, help="curves of the heat a second, all together")
    given = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        kitchen = Kitchen(Path(folder))
        try:
            load = Load(kitchen)
            costs = each_alone(load)
            used = together(load, given)
        finally:
            kitchen.close()
    for name, cost in costs.items():
        print(f"{name:6} {1000 * cost:7.1f} ms of processor each")
    rates = {
        "edit": given.editors / EDIT_EVERY_S, "page": given.editors / PAGE_EVERY_S,
        "event": given.devices / EVENT_EVERY_S, "curve": given.curves,
    }  # fmt: skip
    forecast = sum(costs[name] * rate for name, rate in rates.items())
    print(
        f"\n{given.editors} editors, {given.devices} devices, {given.curves:g} curves a second for {given.seconds} s:"
    )
    print(f"forecast {forecast:.2f} processors, taken {used:.2f}")
    for name, took in sorted(load.took.items()):
        took.sort()
        p50, p95 = took[len(took) // 2], took[int(len(took) * 0.95)]
        print(f"{name:6} {len(took):5} answered, p50 {1000 * p50:6.0f} ms, p95 {1000 * p95:6.0f} ms")
    editor = costs["edit"] / EDIT_EVERY_S + costs["page"] / PAGE_EVERY_S
    print(f"\none processor, {FULL_FRAC:.0%} full: {FULL_FRAC / editor:.0f} editors at work, or")
    devices = FULL_FRAC / (costs["event"] / EVENT_EVERY_S)
    print(f"{devices:.0f} devices at stoves, or {FULL_FRAC / costs['curve']:.1f} curves a second")
    return 0


if __name__ == "__main__":
    sys.exit(main())
