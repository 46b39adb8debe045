"""./start: install what is missing, build, start the database, migrate, seed once, serve, stop cleanly."""

from __future__ import annotations

import argparse
import errno
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from types import FrameType

sys.path.insert(0, str(Path(__file__).parent))

from ops import install, locks, places
from ops.mariadb import PrivateMariaDB, die_with_parent
from ops.tell import refuse, say, step

DEFAULT_PORT = 8427
# A busy machine takes its time over the first imports; a server that ends is seen at once.
SERVER_WAIT_S = 120.0
MOST_DATABASE_RESTARTS = 5


class StopRequested(Exception):
    """Ctrl-C or a polite end."""


def _arguments() -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="./start", description="Start Vianda on this machine.")
    parser.add_argument("--port", type=int, default=DEFAULT_PORT, help=f"loopback port (default {DEFAULT_PORT})")
    parser.add_argument(
        "--fresh-demo", action="store_true", help="serve a newly made demo kitchen from a data folder of its own"
    )
    parser.add_argument(
        "--empty", action="store_true", help="with a new data folder: the demo kitchen and its larder, no formulas"
    )
    given = parser.parse_args()
    if not 1 <= given.port <= 65535:
        parser.error("a port is a number from 1 to 65535")
    return given


def _check_port(port: int) -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError as error:
            if error.errno == errno.EACCES:
                refuse(f"port {port} needs more rights.", "Choose one above 1023: ./start --port 8500")
            refuse(f"port {port} is taken by another program.", f"Choose another: ./start --port {port + 1}")


def _install(*, private_database: bool) -> None:
    install.check_room()
    with locks.waiting(places.STATE / "install.lock", "another start is installing"):
        if private_database:
            install.programs(install.RUN_PROGRAMS)
        install.python_environment(dev=False)
        compiling = install.begin_compiling()
        install.pages()
        install.end_compiling(compiling)


def _prepare(url: str, *, demo: bool, empty: bool) -> None:
    wanted = [*(["--demo"] if demo or empty else []), *(["--empty"] if empty else [])]
    command = [str(places.VENV / "bin" / "vianda"), "prepare", *wanted]
    done = subprocess.run(
        command, env={**os.environ, "VIANDA_DATABASE_URL": url}, capture_output=True, text=True, check=False
    )
    if done.returncode != 0:
        output = (done.stdout + done.stderr).strip()
        (places.STATE / "prepare.log").write_text(output + "\n")
        last = (output.splitlines()[-1] if output else "no message").removeprefix("vianda: ").rstrip(".")
        refuse(f"the database could not be prepared: {last[:200]}.", "Check VIANDA_DATABASE_URL and that it runs.")


def _serve(url: str, port: int) -> subprocess.Popen[bytes]:
    log = (places.STATE / f"server-{port}.log").open("ab")
    command = [places.VENV / "bin" / "vianda", "serve", "--port", str(port)]
    return subprocess.Popen(
        [str(c) for c in command],
        env={**os.environ, "VIANDA_DATABASE_URL": url, "VIANDA_PAGES": str(places.PAGES)},
        stdin=subprocess.DEVNULL,
        stdout=log,
        stderr=log,
        start_new_session=True,
        preexec_fn=die_with_parent,
    )


def _await_server(server: subprocess.Popen[bytes], port: int) -> None:
    deadline = time.monotonic() + SERVER_WAIT_S
    while time.monotonic() < deadline and server.poll() is None:
        try:
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/live", timeout=2):
                return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    log = (places.STATE / f"server-{port}.log").relative_to(places.PROJECT)
    refuse("the server did not start.", f"See {log}.")


def _stop(server: subprocess.Popen[bytes] | None) -> None:
    if server is None or server.poll() is not None:
        return
    server.terminate()
    try:
        server.wait(10)
    except subprocess.TimeoutExpired:
        os.killpg(server.pid, signal.SIGKILL)
        server.wait()


def _watch(server: subprocess.Popen[bytes], database: PrivateMariaDB | None) -> int:
    """Until told to stop: a database that fell over is set up again; a dead server ends the run."""
    restarts = 0
    while True:
        time.sleep(0.5)
        if server.poll() is not None:
            say("vianda: the server ended by itself; see its log in .vianda")
            return 1
        if database is not None and database.process is not None and database.process.poll() is not None:
            restarts += 1
            if restarts > MOST_DATABASE_RESTARTS:
                say("vianda: the database keeps falling over; see db.log in the data folder")
                return 1
            say("· the database stopped; starting it again")
            time.sleep(2.0)
            database.start()


def _asked_to_stop(_number: int, _frame: FrameType | None) -> None:
    raise StopRequested


def main() -> int:
    """Run until Ctrl-C; return the exit code."""
    given = _arguments()
    signal.signal(signal.SIGINT, _asked_to_stop)
    signal.signal(signal.SIGTERM, _asked_to_stop)
    signal.signal(signal.SIGHUP, _asked_to_stop)
    began = time.monotonic()
    folder = places.STATE / ("fresh-demo" if given.fresh_demo else "kitchen")
    server: subprocess.Popen[bytes] | None = None
    database: PrivateMariaDB | None = None
    try:
        try:
            held = locks.take(places.STATE / f"{folder.name}.lock")
        except locks.TakenError as taken:
            refuse(
                f"this kitchen is already being served{' at ' + taken.note if taken.note else ''}.",
                "Open that address, or stop it first.",
            )
        _check_port(given.port)
        # A fresh demo never touches a database that someone named.
        url = None if given.fresh_demo else os.environ.get("VIANDA_DATABASE_URL")
        _install(private_database=not url)
        if given.fresh_demo:
            shutil.rmtree(folder, ignore_errors=True)
        if not url:
            new = not (folder / "db").exists()
            database = PrivateMariaDB(folder)
            if new:
                with step("making the database"):
                    database.start()
            else:
                database.start()
            url = database.url
        _prepare(url, demo=given.fresh_demo, empty=given.empty)
        server = _serve(url, given.port)
        _await_server(server, given.port)
        address = f"http://127.0.0.1:{given.port}/"
        locks.note(held, address)
        say(f"\nVianda is ready after {time.monotonic() - began:.1f} s:  {address}\nStop it with Ctrl-C.")
        return _watch(server, database)
    except StopRequested:
        say("\nstopping …")
        return 0
    except OSError as error:
        if error.errno == errno.ENOSPC:
            refuse("the disk is full.", "Make room and start again.")
        raise
    finally:
        for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(number, signal.SIG_IGN)
        _stop(server)
        if database is not None:
            database.stop()


if __name__ == "__main__":
    raise SystemExit(main())
