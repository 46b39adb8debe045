"""Time the ways to a target on this machine, without a server: medians in milliseconds. Bar: 12 meats, 150 ms an aim.

Usage: .venv/bin/python scripts/benchmark_solve.py [rounds]
"""

from __future__ import annotations

import statistics
import sys
import time
from datetime import date
from decimal import Decimal

from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.inventory.lot import Lot
from vianda.core.target.solve import NoBlendError, solve
from vianda.core.target.wish import Aim, Candidate, Wish

TWELVE = (
    "chuck",
    "round",
    "rib",
    "trim-50",
    "trim-80",
    "fat-trim",
    "brisket-point",
    "short-rib-plate",
    "sirloin",
    "ground-80",
    "flank",
    "shoulder-clod",
)
TODAY = date(2026, 11, 24)
# A box of each of a few meats, to be used up on different days.
LOTS = tuple(
    Lot(f"{meat}-box", meat, f"{meat} box", 9000, Decimal("9"), TODAY, date(2026, 11, day))
    for meat, day in (("chuck", 25), ("rib", 26), ("brisket-point", 27), ("round", 29))
)
INVENTORY = Inventory.of(starter_inventory().meats.values(), LOTS)


def _timed(wish: Wish, rounds: int) -> tuple[float, int]:
    """Median milliseconds, and how many answers there were."""
    spent, answers = [], 0
    for _ in range(rounds):
        began = time.perf_counter()
        try:
            answers = len(solve(wish, inventory=INVENTORY, batch_mass_g=3400, step_g=1, grind_loss_frac=0.02))
        except NoBlendError:
            answers = 0
        spent.append((time.perf_counter() - began) * 1000)
    return statistics.median(spent), answers


def main() -> int:
    """Print one line a case."""
    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 5
    began = time.perf_counter()
    import scipy.optimize  # noqa: F401

    print(f"importing SciPy's optimisers {(time.perf_counter() - began) * 1000:.0f} ms, once a process")
    beef = tuple(m.key for m in starter_inventory().meats.values() if m.species == "beef")
    aims: tuple[Aim, ...] = ("cheapest", "nearest", "surest", "use-up-first")
    boxes = {lot.meat: lot.key for lot in LOTS}
    for name, meats in (("12 meats", TWELVE), (f"all beef, {len(beef)}", beef)):
        candidates = tuple(
            Candidate(m, lot=boxes.get(m, ""), now_frac=0.5 if m in ("chuck", "rib") else 0.0) for m in meats
        )
        for aim in aims:
            for sure in (0.0, 0.8):
                wish = Wish(candidates, 0.20, 0.25, aim=aim, confidence_frac=sure, today=TODAY)
                spent, answers = _timed(wish, rounds)
                print(f"{name:14} {aim:12} sure in {sure:3.0%}: {spent:7.0f} ms, {answers} answers")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
