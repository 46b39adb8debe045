"""./check: every linter, type check, test and browser journey, from a clean machine. The exit code tells."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from collections.abc import Sequence
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent))

from ops import install, locks, places
from ops.tell import refuse, say

BIN = places.VENV / "bin"


def _run(title: str, command: Sequence[str | Path], *, cwd: Path = places.PROJECT) -> bool:
    say(f"· {title}")
    began = time.monotonic()
    # Linters print much when all is well; only a failure is worth reading.
    done = subprocess.run([str(c) for c in command], cwd=cwd, capture_output=True, text=True, check=False)
    if done.returncode != 0:
        say(done.stdout + done.stderr)
        say(f"  FAILED after {time.monotonic() - began:.1f} s")
        return False
    say(f"  ok in {time.monotonic() - began:.1f} s")
    return True


def _stale(title: str, command: Sequence[str | Path], file: Path) -> bool:
    """Whether a committed, generated file equals what the code generates now."""
    say(f"· {title}")
    done = subprocess.run([str(c) for c in command], cwd=places.PROJECT, capture_output=True, text=True, check=False)
    if done.returncode != 0 or done.stdout != file.read_text():
        say(f"  FAILED: {file.relative_to(places.PROJECT)} is stale; run scripts/generate")
        return False
    say("  ok")
    return True


def _types_stale() -> bool:
    say("· the front end's types fit the contract")
    npm = install.find("npm") or "npm"
    fresh = places.STATE / "contract.d.ts"
    command = [npm, "exec", "--", "openapi-typescript", "../docs/openapi.json", "-o", str(fresh)]
    done = subprocess.run(command, cwd=places.FRONTEND, capture_output=True, text=True, check=False)
    committed = places.FRONTEND / "src" / "lib" / "api" / "generated" / "contract.d.ts"
    if done.returncode != 0 or fresh.read_text() != committed.read_text():
        say(done.stdout + done.stderr)
        say("  FAILED: frontend/src/lib/api/generated/contract.d.ts is stale; run scripts/generate")
        return False
    say("  ok")
    return True


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
    good = [
        _run("format of the Python code", [BIN / "ruff", "format", "--check", "."]),
        _run("lint of the Python code", [BIN / "ruff", "check", "."]),
        _run("types of the Python code", [BIN / "mypy"]),
        _run("layers", [BIN / "lint-imports"]),
        _run("docstrings of the core", [BIN / "python", "scripts/check_docstrings.py"]),
        _run("the scripts' shell", ["bash", "-n", "start", "check", ".ci/run", "scripts/generate"]),
        _stale("the contract is fresh", [BIN / "vianda", "openapi"], places.PROJECT / "docs" / "openapi.json"),
        _stale(
            "the file format is fresh", [BIN / "vianda", "schema"], places.PROJECT / "docs" / "formula-file.schema.json"
        ),
        _stale(
            "the service file's format is fresh",
            [BIN / "vianda", "schema", "service"],
            places.PROJECT / "docs" / "service-file.schema.json",
        ),
        _stale("the list of rules is fresh", [BIN / "vianda", "counsel"], places.PROJECT / "docs" / "counsel.md"),
        _types_stale(),
        _run("format and lint of the front end", [npm, "run", "lint"], cwd=places.FRONTEND),
        _run("types of the front end", [npm, "run", "check"], cwd=places.FRONTEND),
        _run("tests of the front end", [npm, "test"], cwd=places.FRONTEND),
    ]
    say("· tests and browser journeys")
    environment = {**os.environ, "VIANDA_DATABASE_URL": ""}
    # Two at a time, a file in one process: a journey finds its kitchen as the one before it in the file left it.
    parallel = ["-n", "2", "--dist", "loadfile"]
    tests = subprocess.run([BIN / "pytest", *parallel, *sys.argv[1:]], cwd=places.PROJECT, env=environment, check=False)
    good.append(tests.returncode == 0)
    say(f"{'all is well' if all(good) else 'SOMETHING FAILED'} after {time.monotonic() - began:.0f} s")
    return 0 if all(good) else 1


if __name__ == "__main__":
    raise SystemExit(main())
