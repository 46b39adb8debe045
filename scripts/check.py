"""./check: every linter, type check, test and browser journey, from a clean machine. The exit code tells."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent))

from ops import install, locks, places
from ops.tell import refuse, say

BIN = places.VENV / "bin"
AT_ONCE = 2
# One more than there are processors where CI runs: a browser is waited for, and a database.
WORKERS = 3


def _run(title: str, command: Sequence[str | Path], *, cwd: Path = places.PROJECT) -> bool:
    began = time.monotonic()
    # Linters print much when all is well; only a failure is worth reading.
    done = subprocess.run([str(c) for c in command], cwd=cwd, capture_output=True, text=True, check=False)
    took = time.monotonic() - began
    if done.returncode != 0:
        say(f"· {title}: FAILED after {took:.1f} s\n{done.stdout}{done.stderr}")
        return False
    say(f"· {title}: ok in {took:.1f} s")
    return True


def _stale(title: str, command: Sequence[str | Path], file: Path) -> bool:
    """Whether a committed, generated file equals what the code generates now."""
    done = subprocess.run([str(c) for c in command], cwd=places.PROJECT, capture_output=True, text=True, check=False)
    if done.returncode != 0 or done.stdout != file.read_text():
        say(f"· {title}: FAILED, {file.relative_to(places.PROJECT)} is stale; run scripts/generate")
        return False
    say(f"· {title}: ok")
    return True


def _types_stale(npm: str) -> bool:
    title = "the front end's types fit the contract"
    fresh = places.STATE / "contract.d.ts"
    command = [npm, "exec", "--", "openapi-typescript", "../docs/openapi.json", "-o", str(fresh)]
    done = subprocess.run(command, cwd=places.FRONTEND, capture_output=True, text=True, check=False)
    committed = places.FRONTEND / "src" / "lib" / "api" / "generated" / "contract.d.ts"
    if done.returncode != 0 or fresh.read_text() != committed.read_text():
        say(f"· {title}: FAILED\n{done.stdout}{done.stderr}")
        say("  frontend/src/lib/api/generated/contract.d.ts is stale; run scripts/generate")
        return False
    say(f"· {title}: ok")
    return True


def _looked_over(npm: str) -> list[Callable[[], bool]]:
    """All that looks at the code without running its tests; the longest first, since two are done at a time."""
    docs = places.PROJECT / "docs"
    vianda = BIN / "vianda"
    return [
        lambda: _run("format and lint of the front end", [npm, "run", "lint"], cwd=places.FRONTEND),
        lambda: _run("tests of the front end", [npm, "test"], cwd=places.FRONTEND),
        lambda: _run("types of the front end", [npm, "run", "check"], cwd=places.FRONTEND),
        lambda: _run("types of the Python code", [BIN / "mypy"]),
        lambda: _run("docstrings of the core", [BIN / "python", "scripts/check_docstrings.py"]),
        lambda: _types_stale(npm),
        lambda: _stale("the contract is fresh", [vianda, "openapi"], docs / "openapi.json"),
        lambda: _stale("the file format is fresh", [vianda, "schema"], docs / "formula-file.schema.json"),
        lambda: _stale("the service file is fresh", [vianda, "schema", "service"], docs / "service-file.schema.json"),
        lambda: _stale("the archive is fresh", [vianda, "schema", "archive"], docs / "kitchen-archive.schema.json"),
        lambda: _stale("the list of rules is fresh", [vianda, "counsel"], docs / "counsel.md"),
        lambda: _run("layers", [BIN / "lint-imports"]),
        lambda: _run("format of the Python code", [BIN / "ruff", "format", "--check", "."]),
        lambda: _run("lint of the Python code", [BIN / "ruff", "check", "."]),
        lambda: _run("the scripts' shell", ["bash", "-n", "start", "check", ".ci/run", "scripts/generate"]),
    ]


def main() -> int:
    """Install, lint, test; return 0 when all is well."""
    began = time.monotonic()
    install.check_room()
    with locks.waiting(places.STATE / "install.lock", "another start is installing"):
        install.programs(install.CHECK_PROGRAMS)
        install.python_environment(dev=True)
        compiling = install.begin_compiling()
        install.node_packages()
        install.pages()
        install.end_compiling(compiling)
    npm = install.find("npm")
    if npm is None:
        refuse("npm was not found.", "Install Node 20 or newer and try again.")
    with ThreadPoolExecutor(AT_ONCE) as pool:
        good = list(pool.map(lambda look: look(), _looked_over(npm)))
    say("· tests and browser journeys")
    environment = {**os.environ, "VIANDA_DATABASE_URL": ""}
    # A file in one process: a journey finds its kitchen as the one before it in the file left it. In the order of
    # their names: those with few tests, which pytest-xdist would put last, are the longest.
    parallel = ["-n", str(WORKERS), "--dist", "loadfile", "--no-loadscope-reorder"]
    tests = subprocess.run([BIN / "pytest", *parallel, *sys.argv[1:]], cwd=places.PROJECT, env=environment, check=False)
    good.append(tests.returncode == 0)
    say(f"{'all is well' if all(good) else 'SOMETHING FAILED'} after {time.monotonic() - began:.0f} s")
    return 0 if all(good) else 1


if __name__ == "__main__":
    raise SystemExit(main())
