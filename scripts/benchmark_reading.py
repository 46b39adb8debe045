"""How long reading takes, over the corpora: .venv/bin/python scripts/benchmark_reading.py

Prints the median and the 95th percentile in ms of one opening line (read, settled and planned) and of one mix phrase.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from pathlib import Path

from vianda.core.basis.errors import CoreError
from vianda.core.demo.kitchen import yard_galley
from vianda.core.inventory.inventory import starter_inventory
from vianda.core.opening.opening import open_line
from vianda.core.reading.line import read_line
from vianda.core.reading.mix_line import read_mix

CORPUS = Path(__file__).resolve().parents[1] / "tests" / "corpus"
INVENTORY, KITCHEN = starter_inventory(), yard_galley()


def _lines(name: str) -> list[str]:
    rows = (CORPUS / name).read_text(encoding="utf-8").splitlines()
    return [row.partition(" => ")[0] for row in rows if " => " in row and not row.startswith("#")]


def _times(run: Callable[[str], object], lines: list[str]) -> list[float]:
    took = []
    for line in lines:
        began = time.perf_counter()
        try:
            run(line)
        except CoreError:
            continue
        took.append((time.perf_counter() - began) * 1000)
    return took


def main() -> int:
    """Print the three figures."""
    open_line("1 kg mince", inventory=INVENTORY, kitchen=KITCHEN)
    for name, run, lines in (
        ("line read", lambda x: read_line(x, inventory=INVENTORY, kitchen=KITCHEN), _lines("opening_lines.txt")),
        ("line planned", lambda x: open_line(x, inventory=INVENTORY, kitchen=KITCHEN), _lines("opening_lines.txt")),
        (
            "mix phrase",
            lambda x: read_mix(x, inventory=INVENTORY, kitchen=KITCHEN, meat_mass_g=1000),
            _lines("mix_phrases.txt"),
        ),
    ):
        took = sorted(_times(run, lines))
        late = took[int(0.95 * len(took))]
        print(f"{name:13} {len(took)} texts, median {statistics.median(took):.1f} ms, 95 % {late:.1f} ms")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
