"""What ./start and ./check stand on: locks, stamps, refusals in one line, a private MariaDB."""

from __future__ import annotations

import contextlib
import errno
import os
import shutil
import signal
import socket
import stat
import subprocess
import sys
import time
from pathlib import Path

import pymysql
import pytest

from ops import install, locks, places, tell
from ops.mariadb import PrivateMariaDB, free_port
from vianda.storage.database import address_of

SCRIPTS = Path(places.__file__).parent.parent


def test_a_lock_is_held_by_one_and_tells_the_other_where(tmp_path: Path) -> None:
    held = locks.take(tmp_path / "kitchen.lock")
    locks.note(held, "http://127.0.0.1:8427/")
    with pytest.raises(locks.TakenError) as taken:
        locks.take(tmp_path / "kitchen.lock")
    assert taken.value.note == "http://127.0.0.1:8427/"
    held.close()
    locks.take(tmp_path / "kitchen.lock").close()


def test_a_second_start_waits_for_the_first_to_install(tmp_path: Path) -> None:
    lock = tmp_path / "install.lock"
    code = (
        "import sys, time; sys.path.insert(0, sys.argv[1])\n"
        "from pathlib import Path\nfrom ops import locks\n"
        "with locks.waiting(Path(sys.argv[2]), 'another start is installing'):\n    print('in', flush=True)\n"
    )
    command = [sys.executable, "-c", code, str(SCRIPTS), str(lock)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as other:
        assert other.stdout is not None
        with locks.waiting(lock, ""):
            assert "waiting" in other.stdout.readline()
        assert other.stdout.readline() == "in\n"
    assert other.returncode == 0


def test_a_digest_changes_with_a_name_a_content_and_a_word(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(places, "PROJECT", tmp_path)
    one = tmp_path / "a.lock"
    one.write_text("x")
    first = install.digest([one], "run")
    assert install.digest([one], "run") == first
    assert install.digest([one], "dev") != first
    one.write_text("y")
    assert install.digest([one], "run") != first
    two = one.rename(tmp_path / "b.lock")
    two.write_text("x")
    assert install.digest([two], "run") != first


def test_a_refusal_is_one_line_and_ends(capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as ended:
        tell.refuse("port 80 is taken.", "Choose another.")
    assert ended.value.code == 1
    assert capsys.readouterr().err == "vianda: port 80 is taken. Choose another.\n"


def test_a_missing_program_without_apt_is_said(monkeypatch: pytest.MonkeyPatch, capsys) -> None:
    monkeypatch.setattr(install, "find", lambda program: None)
    with pytest.raises(SystemExit):
        install.programs({"mariadbd": "mariadb-server-core"})
    assert "mariadb-server-core is missing" in capsys.readouterr().err


def test_a_nearly_full_disk_is_refused_before_anything_is_installed(
    monkeypatch: pytest.MonkeyPatch, capsys, tmp_path: Path
) -> None:
    usage = shutil.disk_usage(tmp_path)
    monkeypatch.setattr(shutil, "disk_usage", lambda _: usage._replace(free=12_000_000))
    monkeypatch.setattr(places, "STATE", tmp_path / "state")
    monkeypatch.setattr(places, "PYTHON", tmp_path / "none")
    with pytest.raises(SystemExit):
        install.check_room()
    assert "only 12 MB are free" in capsys.readouterr().err


def _connects(port: int) -> bool:
    try:
        with socket.create_connection(("127.0.0.1", port), timeout=1):
            return True
    except OSError:
        return False


def test_a_private_database_keeps_its_secret_and_leaves_nothing_running(tmp_path: Path) -> None:
    server = PrivateMariaDB(tmp_path / "kitchen")
    server.start()
    try:
        assert _connects(server.port)
        assert stat.S_IMODE((tmp_path / "kitchen" / "password").stat().st_mode) == 0o600
        assert stat.S_IMODE((tmp_path / "kitchen" / "provision.sql").stat().st_mode) == 0o600
        assert "bind-address=127.0.0.1" in (tmp_path / "kitchen" / "my.cnf").read_text()
        pid = server.process.pid
    finally:
        server.stop()
    assert not _connects(server.port)
    with pytest.raises(ProcessLookupError):
        os.kill(pid, 0)


def test_a_database_dies_with_the_start_that_made_it_however_that_ends(tmp_path: Path) -> None:
    code = (
        "import sys, time; sys.path.insert(0, sys.argv[1])\n"
        "from pathlib import Path\nfrom ops.mariadb import PrivateMariaDB\n"
        "db = PrivateMariaDB(Path(sys.argv[2])); db.start(); print(db.process.pid, flush=True); time.sleep(60)\n"
    )
    command = [sys.executable, "-c", code, str(SCRIPTS), str(tmp_path / "k")]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as parent:
        assert parent.stdout is not None
        pid = int(parent.stdout.readline())
        parent.send_signal(signal.SIGKILL)
    for _ in range(100):
        state = Path(f"/proc/{pid}/stat")
        if not state.exists() or state.read_text().split()[2] == "Z":
            break
        time.sleep(0.1)
    else:
        raise AssertionError("the database lives on")


def test_a_deep_folder_gets_a_short_socket(tmp_path: Path) -> None:
    deep = tmp_path / ("d" * 60) / ("e" * 60)
    server = PrivateMariaDB(deep)
    server.start()
    try:
        assert server.socket_folder is not None
        assert len(str(server.socket_folder / "db.sock")) < 100
    finally:
        server.stop()
    assert server.socket_folder is None


def test_a_free_port_is_free() -> None:
    with socket.socket() as one:
        one.bind(("127.0.0.1", free_port()))


@pytest.mark.parametrize(
    ("arguments", "says"),
    [(["--port", "0"], "from 1 to 65535"), (["--port", "many"], "invalid int"), (["--porridge"], "unrecognized")],
)
def test_start_refuses_what_it_does_not_know(arguments: list[str], says: str) -> None:
    done = subprocess.run([sys.executable, str(SCRIPTS / "start.py"), *arguments], capture_output=True, text=True)
    assert done.returncode == 2
    assert says in done.stderr


def _asks(server: PrivateMariaDB) -> str:
    at = address_of(server.url)
    with pymysql.connect(host=at.host, port=at.port, user=at.user, password=at.password, database=at.name) as one:
        cursor = one.cursor()
        cursor.execute("SELECT note FROM kept")
        return cursor.fetchone()[0]  # type: ignore[index]


@pytest.mark.parametrize("spoil", [Path.unlink, lambda p: p.write_text(""), lambda p: p.write_bytes(b"\x00\x00")])
def test_a_password_that_was_lost_is_written_anew_and_nothing_else_is(tmp_path: Path, spoil) -> None:
    server = PrivateMariaDB(tmp_path / "kitchen")
    server.start()
    at = address_of(server.url)
    with pymysql.connect(
        host=at.host, port=at.port, user=at.user, password=at.password, database=at.name, autocommit=True
    ) as one:
        one.cursor().execute("CREATE TABLE kept AS SELECT 'still here' AS note")
    server.stop()
    path = tmp_path / "kitchen" / "password"
    spoil(path)
    again = PrivateMariaDB(tmp_path / "kitchen")
    again.start()
    try:
        assert _asks(again) == "still here"
        assert (len(path.read_text()), path.stat().st_mode & 0o777) == (48, 0o600)
        # Another program finds the way to the one that runs.
        assert PrivateMariaDB(tmp_path / "kitchen").running_url() == again.url
    finally:
        again.stop()


class _Falls:
    """A process that is gone whenever it is looked at."""

    def poll(self) -> int | None:
        return 1


class _Stands:
    def poll(self) -> int | None:
        return None


@pytest.mark.parametrize(("apart_s", "restarts"), [(10.0, 5), (719.0, 5), (721.0, 40)])
def test_a_database_may_fall_over_so_often_within_an_hour_and_not_for_ever(
    monkeypatch: pytest.MonkeyPatch, apart_s: float, restarts: int
) -> None:
    import start

    clock, started = [0.0], []

    class Database:
        process = _Falls()

        def start(self) -> None:
            started.append(clock[0])
            if len(started) == 40:
                raise start.StopRequested

    def sleep(seconds: float) -> None:
        clock[0] += apart_s if seconds < 1 else 0.0

    monkeypatch.setattr(start.time, "sleep", sleep)
    monkeypatch.setattr(start.time, "monotonic", lambda: clock[0])
    with contextlib.suppress(start.StopRequested):
        assert start._watch(_Stands(), Database(), None) == 1
    assert len(started) == restarts


def test_a_backup_a_day_is_begun_when_the_last_one_is_a_day_old(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    import start

    begun: list[list[str]] = []

    class Working:
        def __init__(self, command: list[object], **_: object) -> None:
            begun.append([str(word) for word in command])

        def poll(self) -> int:
            return 3

    now = [1_000_000.0]
    monkeypatch.setattr(start.time, "monotonic", lambda: now[0])
    monkeypatch.setattr(start.subprocess, "Popen", Working)
    monkeypatch.setattr(start.places, "STATE", tmp_path)
    said: list[str] = []
    monkeypatch.setattr(start, "say", said.append)
    folder = tmp_path / "backups"
    folder.mkdir()
    (folder / "vianda-20261129-040000.sql.gz").touch()
    hours_old = time.time() - 20 * 3600
    os.utime(folder / "vianda-20261129-040000.sql.gz", (hours_old, hours_old))
    daily = start.DailyBackup("mysql://x", folder)
    daily.look()
    now[0] += 3.9 * 3600
    daily.look()
    assert begun == []
    now[0] += 0.2 * 3600
    daily.look()
    assert begun[0][1:] == ["backup", str(folder), "--rotate"]
    # One that failed is said, and the next one comes a day later.
    daily.look()
    assert said == ["· the daily backup failed; see backup.log in .vianda"]
    assert len(begun) == 1
    now[0] += 24.1 * 3600
    daily.look()
    assert len(begun) == 2


@pytest.mark.parametrize(
    ("number", "says"),
    [(errno.EROFS, "cannot be written to"), (errno.EACCES, "cannot be written to"), (errno.ENOSPC, "the disk is full")],
)
def test_a_folder_that_cannot_be_written_to_is_said_in_one_line(monkeypatch, tmp_path, capsys, number, says) -> None:
    import start

    def refused(_: Path) -> None:
        raise OSError(number, os.strerror(number), "/kitchen/.vianda/kitchen.lock")

    monkeypatch.setattr(sys, "argv", ["start.py", "--port", str(free_port())])
    monkeypatch.setattr(start.places, "STATE", tmp_path)
    monkeypatch.setattr(start.locks, "take", refused)
    monkeypatch.delenv("VIANDA_DATABASE_URL", raising=False)
    before = {n: signal.getsignal(n) for n in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)}
    try:
        with pytest.raises(SystemExit) as ended:
            start.main()
    finally:
        for n, handler in before.items():
            signal.signal(n, handler)
    told = capsys.readouterr().err
    assert ended.value.code == 1
    assert says in told
    assert told.strip().count("\n") <= 1
    assert "Traceback" not in told
