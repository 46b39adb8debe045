"""./start: install what is missing, build, start the database, migrate, seed once, serve, stop cleanly."""

from __future__ import annotations

import argparse
import errno
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections import deque
from pathlib import Path
from types import FrameType

sys.path.insert(0, str(Path(__file__).parent))

from ops import front, install, locks, places
from ops.mariadb import PrivateMariaDB, die_with_parent
from ops.tell import refuse, say, step

DEFAULT_PORT, LAN_PORT = 8427, 8443
# A busy machine takes its time over the first imports; a server that ends is seen at once.
SERVER_WAIT_S = 120.0
# So often may the database fall over within an hour: more often, something is wrong with it.
MOST_DATABASE_RESTARTS, WITHIN_S = 5, 3600.0
LARGEST_LOG = 10_000_000
BACKUP_EVERY_S = 24 * 3600.0


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
    parser.add_argument("--backup", action="store_true", help="only make a backup now, of a kitchen that is served too")
    parser.add_argument(
        "--restore", type=Path, metavar="FILE", help="put a backup in the place of what stands, and serve"
    )
    parser.add_argument(
        "--do",
        nargs=argparse.REMAINDER,
        metavar="COMMAND",
        help="run one command of vianda on this kitchen, served or not: ./start --do export kitchen -o mine.zip",
    )
    parser.add_argument(
        "--lan",
        nargs="?",
        type=int,
        const=LAN_PORT,
        metavar="PORT",
        help=f"open it to the kitchen's net over TLS too (default port {LAN_PORT}); an owner must have a password",
    )
    given = parser.parse_args()
    if given.do is not None and not given.do:
        parser.error("say which command: ./start --do --help")
    if given.fresh_demo and (given.backup or given.restore or given.do):
        parser.error("a fresh demo has nothing to keep")
    if given.fresh_demo and given.lan:
        parser.error("a fresh demo is for this machine alone")
    if given.lan is not None and (not 1 <= given.lan <= 65535 or given.lan == given.port):
        parser.error("the port for the net is another number from 1 to 65535")
    if not 1 <= given.port <= 65535:
        parser.error("a port is a number from 1 to 65535")
    return given


def _check_port(port: int, address: str = "127.0.0.1") -> None:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((address, port))
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


def _prepare(url: str, *, demo: bool, empty: bool, backups: Path | None) -> None:
    keep = ["--backup-to", str(backups)] if backups is not None else []
    wanted = [*keep, *(["--demo"] if demo or empty else []), *(["--empty"] if empty else [])]
    command = [str(places.VENV / "bin" / "vianda"), "prepare", *wanted]
    done = subprocess.run(
        command, env={**os.environ, "VIANDA_DATABASE_URL": url}, capture_output=True, text=True, check=False
    )
    if done.returncode != 0:
        output = (done.stdout + done.stderr).strip()
        (places.STATE / "prepare.log").write_text(output + "\n")
        last = (output.splitlines()[-1] if output else "no message").removeprefix("vianda: ").rstrip(".")
        refuse(f"the database could not be prepared: {last[:200]}.", "Check VIANDA_DATABASE_URL and that it runs.")


class Lan:
    """The way in from the kitchen's net: names, the certificate for them, and haproxy before the server."""

    def __init__(self, url: str, port: int) -> None:
        people = _keep(url, "user", "list")
        owners = [p for p in json.loads(people.stdout or "[]") if p["role"] == "owner" and not p["disabled"]]
        if not owners:
            refuse(
                "nobody could be kept out: no owner has a password.",
                "Set one first: ./start --do user add NAME --role owner",
            )
        self.port, self._folder, self.names = port, places.STATE / "tls", front.names()
        made = _keep(url, "certificate", str(self._folder), *self.names)
        if made.returncode != 0:
            refuse(f"no certificate could be made: {_told(made)}.", "See docs/operations.md.")
        self.certificate = json.loads(made.stdout)
        self._front = front.find_front()
        self.process: subprocess.Popen[bytes] | None = None

    @property
    def environment(self) -> dict[str, str]:
        """What the server has to know of it."""
        return {"VIANDA_HOSTS": ",".join(self.names), "VIANDA_TLS_CA": self.certificate["authority"]}

    def open(self, server_port: int) -> None:
        """Let the net in."""
        server = Path(self.certificate["server"])
        self.process = front.start_front(
            self._front, self._folder, server=server, address=f"*:{self.port}", port=server_port
        )

    def tell(self) -> None:
        """Where to open it, and how to know that it is this kitchen."""
        for name in self.names[:-2]:
            say(f"  https://{name}:{self.port}/")
        say("Telephones warn until they trust this kitchen's certificate (docs/operations.md); its SHA-256:")
        say(f"  {self.certificate['sha256']}")


def _serve(url: str, port: int, more: dict[str, str]) -> subprocess.Popen[bytes]:
    path = places.STATE / f"server-{port}.log"
    if path.exists() and path.stat().st_size > LARGEST_LOG:
        # The one before it goes: what is not looked at within so many megabytes is looked at no more.
        path.replace(path.with_suffix(".log.1"))
    log = path.open("ab")
    command = [places.VENV / "bin" / "vianda", "serve", "--port", str(port)]
    return subprocess.Popen(
        [str(c) for c in command],
        env={**os.environ, "VIANDA_DATABASE_URL": url, "VIANDA_PAGES": str(places.PAGES), **more},
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


def _keep(url: str, *words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [places.VENV / "bin" / "vianda", *words],
        env={**os.environ, "VIANDA_DATABASE_URL": url}, capture_output=True, text=True, check=False,
    )  # fmt: skip


def _told(done: subprocess.CompletedProcess[str]) -> str:
    return (done.stderr.strip().splitlines() or ["no message"])[-1].removeprefix("vianda: ").rstrip(".")


def _done(url: str, words: list[str]) -> int:
    """One command of vianda, with its own answer and exit code."""
    environment = {**os.environ, "VIANDA_DATABASE_URL": url}
    command = [str(places.VENV / "bin" / "vianda"), *words]
    return subprocess.run(command, env=environment, cwd=_called_from(), check=False).returncode


def _called_from() -> Path:
    return Path(os.environ.get("VIANDA_CALLED_FROM", "."))


def _back_up_now(url: str, folder: Path) -> int:
    done = _keep(url, "backup", str(folder), "--rotate")
    if done.returncode != 0:
        refuse(f"no backup was made: {_told(done)}.", "Nothing was changed.")
    say(f"backup: {json.loads(done.stdout)['backup']}, restored once to see that it can be")
    return 0


def _bring_back(url: str, file: Path, folder: Path, *, new: bool) -> None:
    """First what stands is kept, then the file takes its place."""
    if not new:
        before = _keep(url, "backup", str(folder))
        if before.returncode != 0:
            refuse(f"what stands could not be kept first: {_told(before)}.", "Nothing was changed.")
        say(f"· what stood is kept in {json.loads(before.stdout)['backup']}")
    done = _keep(url, "restore", str(file))
    if done.returncode != 0:
        refuse(f"the backup was not brought back: {_told(done)}.", "What stood stands.")
    say(f"· brought back, as of {json.loads(done.stdout.splitlines()[0])['made_at'][:16].replace('T', ' ')} UTC")


class DailyBackup:
    """A backup a day while it is served, made beside everything else; old ones make room."""

    def __init__(self, url: str, folder: Path) -> None:
        self._url, self._folder = url, folder
        self._at_work: subprocess.Popen[bytes] | None = None
        newest = max((path.stat().st_mtime for path in folder.glob("vianda-*.sql.gz")), default=0.0)
        self._due = time.monotonic() + max(60.0, newest + BACKUP_EVERY_S - time.time())

    def look(self) -> None:
        """Begin one when it is due, and say when one failed."""
        if self._at_work is not None:
            code = self._at_work.poll()
            if code is None:
                return
            self._at_work = None
            if code != 0:
                say("· the daily backup failed; see backup.log in .vianda")
        if time.monotonic() >= self._due:
            self._due = time.monotonic() + BACKUP_EVERY_S
            with (places.STATE / "backup.log").open("ab") as log:
                self._at_work = subprocess.Popen(
                    [places.VENV / "bin" / "vianda", "backup", self._folder, "--rotate"],
                    env={**os.environ, "VIANDA_DATABASE_URL": self._url}, stdin=subprocess.DEVNULL, stdout=log,
                    stderr=log, preexec_fn=die_with_parent,
                )  # fmt: skip


def _watch(
    server: subprocess.Popen[bytes], database: PrivateMariaDB | None, daily: DailyBackup | None, lan: Lan | None = None
) -> int:
    """Until told to stop: a database that fell over is set up again; a dead server ends the run."""
    restarts: deque[float] = deque(maxlen=MOST_DATABASE_RESTARTS)
    while True:
        time.sleep(0.5)
        if daily is not None:
            daily.look()
        if server.poll() is not None:
            say("vianda: the server ended by itself; see its log in .vianda")
            return 1
        if lan is not None and lan.process is not None and lan.process.poll() is not None:
            say("vianda: the way in from the net ended by itself; see haproxy.log in .vianda/tls")
            return 1
        if database is not None and database.process is not None and database.process.poll() is not None:
            now = time.monotonic()
            if len(restarts) == MOST_DATABASE_RESTARTS and now - restarts[0] < WITHIN_S:
                say("vianda: the database keeps falling over; see db.log in the data folder")
                return 1
            restarts.append(now)
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
    if given.do:
        # Standard output is the command's own.
        sys.stdout = sys.stderr
    began = time.monotonic()
    folder = places.STATE / ("fresh-demo" if given.fresh_demo else "kitchen")
    server: subprocess.Popen[bytes] | None = None
    database: PrivateMariaDB | None = None
    lan: Lan | None = None
    try:
        backups = places.STATE / f"{folder.name}-backups"
        try:
            held = locks.take(places.STATE / f"{folder.name}.lock")
        except locks.TakenError as taken:
            if given.backup or given.do:
                at_work = os.environ.get("VIANDA_DATABASE_URL") or PrivateMariaDB(folder).running_url()
                return _done(at_work, given.do) if given.do else _back_up_now(at_work, backups)
            refuse(
                f"this kitchen is already being served{' at ' + taken.note if taken.note else ''}.",
                "Open that address, or stop it first.",
            )
        if not (given.backup or given.do):
            _check_port(given.port)
            if given.lan:
                _check_port(given.lan, "")
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
        if given.backup:
            return _back_up_now(url, backups)
        ours = database is not None and not given.fresh_demo
        if given.do:
            _prepare(url, demo=False, empty=False, backups=backups if ours else None)
            return _done(url, given.do)
        if given.restore:
            _bring_back(url, _called_from() / given.restore, backups, new=database is not None and new)
        _prepare(url, demo=given.fresh_demo, empty=given.empty, backups=backups if ours else None)
        lan = Lan(url, given.lan) if given.lan else None
        server = _serve(url, given.port, lan.environment if lan else {})
        _await_server(server, given.port)
        if lan is not None:
            lan.open(given.port)
        address = f"http://127.0.0.1:{given.port}/"
        locks.note(held, address)
        say(f"\nVianda is ready after {time.monotonic() - began:.1f} s:  {address}\nStop it with Ctrl-C.")
        if lan is not None:
            lan.tell()
        # Who keeps the database keeps its backups too, unless it is ours.
        daily = DailyBackup(url, backups) if ours else None
        return _watch(server, database, daily, lan)
    except StopRequested:
        say("\nstopping …")
        return 0
    except OSError as error:
        if error.errno == errno.ENOSPC:
            refuse("the disk is full.", "Make room and start again.")
        if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
            refuse(
                f"{error.filename or places.STATE} cannot be written to.", "Give yourself the right, or move Vianda."
            )
        raise
    finally:
        for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(number, signal.SIG_IGN)
        _stop(lan.process if lan is not None else None)
        _stop(server)
        if database is not None:
            database.stop()


if __name__ == "__main__":
    raise SystemExit(main())
