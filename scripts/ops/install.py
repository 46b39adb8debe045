"""Install what is missing: Debian packages, the Python environment, the front end's packages and its build.

Each step leaves a stamp (a digest of what it was made from) and is skipped while the stamp fits.
"""

from __future__ import annotations

import hashlib
import os
import shutil
import subprocess
from collections.abc import Iterable, Sequence
from pathlib import Path

from ops import places
from ops.tell import refuse, step

UV = "uv==0.13.9"
LEAST_FREE_BYTES = 1_500_000_000
NODE_LEAST = 20

# program -> Debian package
RUN_PROGRAMS = {
    "mariadbd": "mariadb-server-core",
    "my_print_defaults": "mariadb-client-core",
    # Backups.
    "mariadb-dump": "mariadb-client",
}
CHECK_PROGRAMS = RUN_PROGRAMS | {"chromium": "chromium"}
SYSTEM_PATHS = "/usr/sbin:/usr/bin:/sbin:/bin"


def find(program: str) -> str | None:
    """A program on the path, or where Debian puts servers."""
    return shutil.which(program) or shutil.which(program, path=SYSTEM_PATHS)


def digest(paths: Iterable[Path], *words: str) -> str:
    """A digest of files (name and content) and words."""
    sums = hashlib.sha256("\0".join(words).encode())
    for path in sorted(paths):
        sums.update(str(path.relative_to(places.PROJECT)).encode())
        sums.update(path.read_bytes())
    return sums.hexdigest()


def _fresh(stamp: Path, wanted: str) -> bool:
    return stamp.is_file() and stamp.read_text() == wanted


def run(command: Sequence[str | Path], *, cwd: Path, what: str, env: dict[str, str] | None = None) -> None:
    """Run one command of an installation; what goes wrong is one plain line."""
    done = subprocess.run(
        [str(c) for c in command],
        cwd=cwd,
        env={**os.environ, **(env or {})},
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode == 0:
        return
    output = (done.stdout + done.stderr).strip()
    log = places.STATE / "install.log"
    log.write_text(output + "\n")
    lower = output.lower()
    if "no space left" in lower or "enospc" in lower:
        refuse(f"{what} stopped: the disk is full.", "Make room (about 1.5 GB) and run the command again.")
    signs = (
        "could not resolve",
        "failed to resolve",
        "temporary failure",
        "network is unreachable",
        "enotfound",
        "eai_again",
        "error sending request",
        "connection refused",
        "timed out",
        "econnrefused",
        "failed to fetch",
        "no matching distribution",
        "no route to host",
    )
    if any(sign in lower for sign in signs):
        refuse(f"{what} could not reach its package source.", "Connect to the network and run the command again.")
    last = output.splitlines()[-1] if output else "no message"
    refuse(f"{what} failed: {last[:160]}.", f"The whole output is in {log.relative_to(places.PROJECT)}.")


def check_room() -> None:
    """Refuse early when the disk is nearly full and something is still to be installed."""
    places.STATE.mkdir(exist_ok=True)
    free = shutil.disk_usage(places.PROJECT).free
    if free < LEAST_FREE_BYTES and not (places.PYTHON.exists() and places.PAGES.exists()):
        refuse(f"only {free / 1e6:.0f} MB are free on the disk.", "Make room (about 1.5 GB) and run the command again.")


def programs(wanted: dict[str, str]) -> None:
    """Debian packages of the programs that are missing."""
    missing = sorted({package for program, package in wanted.items() if find(program) is None})
    if not missing:
        return
    apt = find("apt-get")
    if apt is None:
        refuse(f"{', '.join(missing)} is missing and there is no apt-get here.", "Install it by hand and try again.")
    prefix: list[str] = []
    if os.geteuid() != 0:
        if find("sudo") is None:
            refuse(f"{', '.join(missing)} is missing.", f"Run as root: apt-get install {' '.join(missing)}")
        prefix = ["sudo"]
    with step(f"installing {', '.join(missing)}"):
        quiet = {"DEBIAN_FRONTEND": "noninteractive"}
        run([*prefix, apt, "update", "-qq"], cwd=places.PROJECT, what="apt-get update", env=quiet)
        run(
            [*prefix, apt, "install", "-y", "-qq", "--no-install-recommends", *missing],
            cwd=places.PROJECT,
            what="apt-get install",
            env=quiet,
        )


def _uv() -> Path:
    uv = places.TOOLS / "uv" / "bin" / "uv"
    if not uv.exists():
        command: list[str | Path] = [
            "python3",
            "-m",
            "pip",
            "install",
            "-q",
            "--root-user-action=ignore",
            "--target",
            places.TOOLS / "uv",
            UV,
        ]
        run(command, cwd=places.PROJECT, what="installing uv")
    return uv


def python_environment(*, dev: bool) -> None:
    """The virtual environment from the lock file; ``dev`` adds what the checks need."""
    dev_locks = [places.LOCK_DEV, places.LOCK_DATA]
    used = dev_locks if dev else [places.LOCK_RUN]
    stamp = places.STATE / "python.stamp"
    wanted = digest([*used, places.PROJECT / "pyproject.toml"], "dev" if dev else "run", str(places.PROJECT))
    # An environment with the checks' packages serves for running too.
    serves = digest([*dev_locks, places.PROJECT / "pyproject.toml"], "dev", str(places.PROJECT))
    if places.PYTHON.exists() and (_fresh(stamp, wanted) or _fresh(stamp, serves)):
        return
    with step("installing Python packages"):
        uv = _uv()
        if not places.PYTHON.exists():
            run([*_this_python(), "-m", "venv", "--without-pip", places.VENV], cwd=places.PROJECT, what="venv")
        sync: list[str | Path] = [uv, "pip", "sync", "-q", "--python", places.PYTHON, "--require-hashes", *used]
        run(sync, cwd=places.PROJECT, what="installing Python packages")
        own: list[str | Path] = [
            uv,
            "pip",
            "install",
            "-q",
            "--python",
            places.PYTHON,
            "--no-deps",
            "--no-build-isolation",
            "-e",
            ".",
        ]
        run(own, cwd=places.PROJECT, what="installing Vianda")
        stamp.write_text(wanted)


def begin_compiling() -> subprocess.Popen[bytes] | None:
    """Compile the heat model to machine code beside its files, while other things are installed; None: it is done."""
    folder = places.PROJECT / "src" / "vianda" / "core" / "heat" / "conduction"
    stamp = places.STATE / "compiled.stamp"
    lock = places.LOCK_RUN.read_text()
    wanted = digest(folder.glob("*.py"), str(places.PROJECT), lock[lock.find("numba==") :][:20])
    if _fresh(stamp, wanted) and any(folder.glob("__pycache__/machine-*/**/*.nbc")):
        return None
    stamp.write_text(wanted)
    command = [str(places.PYTHON), "-m", "vianda.runtime.machine_code"]
    return subprocess.Popen(command, cwd=places.PROJECT, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)


def end_compiling(compiling: subprocess.Popen[bytes] | None) -> None:
    """Wait for it. Where it failed, functions are compiled when they are first used."""
    if compiling is None:
        return
    with step("compiling the heat model"):
        if compiling.wait() != 0:
            (places.STATE / "compiled.stamp").unlink(missing_ok=True)


def _this_python() -> list[str]:
    import sys

    return [sys.executable]


def _frontend_sources() -> list[Path]:
    kept = [p for p in (places.FRONTEND / "src").rglob("*") if p.is_file()]
    public = places.FRONTEND / "public"
    kept += [p for p in public.rglob("*") if p.is_file()] if public.exists() else []
    kept += [p for p in places.FRONTEND.glob("*") if p.is_file()]
    return kept


def node_packages() -> None:
    """The front end's packages from its lock file."""
    node, npm = find("node"), find("npm")
    if node is None or npm is None:
        refuse("Node.js with npm is needed and was not found.", f"Install Node {NODE_LEAST} or newer and try again.")
    version = subprocess.run([node, "--version"], capture_output=True, text=True, check=True).stdout
    if int(version.lstrip("v").split(".")[0]) < NODE_LEAST:
        refuse(f"Node {version.strip()} is too old.", f"Install Node {NODE_LEAST} or newer and try again.")
    stamp = places.STATE / "node.stamp"
    wanted = digest([places.FRONTEND / "package-lock.json", places.FRONTEND / "package.json"])
    if (places.FRONTEND / "node_modules").exists() and _fresh(stamp, wanted):
        return
    with step("installing front-end packages"):
        run([npm, "ci", "--no-audit", "--no-fund"], cwd=places.FRONTEND, what="npm ci")
        stamp.write_text(wanted)


def pages() -> None:
    """The built pages."""
    stamp = places.STATE / "pages.stamp"
    wanted = digest(_frontend_sources())
    if (places.PAGES / "index.html").exists() and _fresh(stamp, wanted):
        return
    node_packages()
    with step("building the pages"):
        run([find("npm") or "npm", "run", "build"], cwd=places.FRONTEND, what="building the pages")
        stamp.write_text(wanted)
