"""Measure the first page and a bench as a phone meets them: .venv/bin/python scripts/lighthouse.py [ADDRESS]

Lighthouse's mobile preset (a slow phone on a slow line, simulated) with Debian's Chromium, against a served demo
kitchen (./start --fresh-demo --port 8500). Bars: performance at least 90, accessibility 100. Lighthouse itself is
put under .tools/ the first time, from the package index set up on this machine; it is no part of ./check.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import urllib.request
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).parent))

from ops import places
from ops.install import find

VERSION = "12.8.2"
HOME = places.PROJECT / ".tools" / "lighthouse"
BARS = {"performance": 90, "accessibility": 100}
FACTS = ("first-contentful-paint", "largest-contentful-paint", "total-blocking-time", "cumulative-layout-shift")


def _program() -> Path:
    """Lighthouse's command, installed if it is missing."""
    program = HOME / "node_modules" / ".bin" / "lighthouse"
    if not program.exists():
        HOME.mkdir(parents=True, exist_ok=True)
        install = ["npm", "install", "--no-save", "--no-audit", "--prefix", str(HOME), f"lighthouse@{VERSION}"]
        subprocess.run(install, check=True)
    return program


def _report(program: Path, address: str) -> dict[str, Any]:
    """One run's report, as Lighthouse writes it (JSON)."""
    command = [
        str(program),
        address,
        "--quiet",
        "--output=json",
        "--only-categories=performance,accessibility",
        "--chrome-flags=--headless=new --no-sandbox --disable-gpu",
    ]
    environment = {**os.environ, "CHROME_PATH": find("chromium") or "chromium"}
    done = subprocess.run(command, env=environment, capture_output=True, text=True, check=True)
    report: dict[str, Any] = json.loads(done.stdout)
    return report


def main() -> int:
    """Print the scores and the facts behind them; 1 when a bar is missed."""
    base = (sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8500").rstrip("/")
    with urllib.request.urlopen(f"{base}/api/formulas") as answer:
        formula = json.load(answer)[0]["id"]
    program, missed = _program(), False
    for path in ("/", f"/formula/{formula}/meat", "/kitchen"):
        report = _report(program, base + path)
        scores = {key: round(report["categories"][key]["score"] * 100) for key in BARS}
        facts = ", ".join(f"{key} {report['audits'][key]['displayValue']}" for key in FACTS)
        print(f"{path}: {', '.join(f'{key} {score}' for key, score in scores.items())} ({facts})")
        missed = missed or any(scores[key] < bar for key, bar in BARS.items())
    return int(missed)


if __name__ == "__main__":
    sys.exit(main())
