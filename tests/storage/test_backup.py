"""The whole database as one file: it comes back as it was, half of it is never taken, and old ones make room."""

from __future__ import annotations

import gzip
import json
import os
import subprocess
import sys
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from urllib.parse import quote

import pymysql
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ops.mariadb import PrivateMariaDB, free_port
from vianda.storage import backup
from vianda.storage.backup import BackupError

VIANDA = str(Path(sys.executable).parent / "vianda")


@pytest.fixture(scope="module")
def kitchen(tmp_path_factory: pytest.TempPathFactory) -> Iterator[PrivateMariaDB]:
    """A demo kitchen in a database of its own, with what is hard to write down."""
    server = PrivateMariaDB(tmp_path_factory.mktemp("kept"), port=free_port())
    server.start()
    assert _vianda(server, "prepare", "--demo").returncode == 0
    with _asked(server) as database, database.cursor() as cursor:
        cursor.execute("UPDATE formula SET name = %s ORDER BY id LIMIT 1", ("😀 'quoted\\\" \r\n ;-- Ω",))
        cursor.execute("CREATE TABLE oddities (id INT AUTO_INCREMENT PRIMARY KEY, b LONGBLOB, d DOUBLE)")
        cursor.execute("INSERT INTO oddities (b, d) VALUES (%s, 0.1), (NULL, 1e308)", (bytes(range(256)) * 50,))
    yield server
    server.stop()


def _vianda(server: PrivateMariaDB, *words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [VIANDA, *words], env={**os.environ, "VIANDA_DATABASE_URL": server.url}, capture_output=True, text=True,
        check=False,
    )  # fmt: skip


def _asked(server: PrivateMariaDB) -> pymysql.Connection:
    at = backup.address_of(server.url)
    return pymysql.connect(
        host=at.host, port=at.port, user=at.user, password=at.password, database=at.name, charset="utf8mb4",
        autocommit=True,
    )  # fmt: skip


def _state(server: PrivateMariaDB) -> dict[str, object]:
    """Every table's rows, and the databases that are there."""
    with _asked(server) as database, database.cursor() as cursor:
        cursor.execute("SHOW DATABASES LIKE 'vianda%'")
        state: dict[str, object] = {"": cursor.fetchall()}
        cursor.execute("SHOW TABLES")
        for (table,) in cursor.fetchall():
            cursor.execute(f"SELECT * FROM `{table}` ORDER BY 1, 2")
            state[table] = cursor.fetchall()
    return state


def test_it_comes_back_as_it_was(kitchen: PrivateMariaDB, tmp_path: Path) -> None:
    before = _state(kitchen)
    made = _vianda(kitchen, "backup", str(tmp_path))
    assert made.returncode == 0, made.stderr
    told = json.loads(made.stdout)
    path = Path(told["backup"])
    assert (told["checked"], path.parent, path.stat().st_mode & 0o777) == (True, tmp_path, 0o600)
    assert [p.name for p in tmp_path.iterdir()] == [path.name]
    with _asked(kitchen) as database, database.cursor() as cursor:
        cursor.execute("DELETE FROM oddities")
        cursor.execute("UPDATE formula SET name = 'spoilt'")
        cursor.execute("CREATE TABLE made_since (id INT)")
    done = _vianda(kitchen, "restore", str(path))
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout)["restored"] == str(path)
    assert _state(kitchen) == before
    # Numbers go on where they were: no key is given twice.
    with _asked(kitchen) as database, database.cursor() as cursor:
        cursor.execute("INSERT INTO oddities (d) VALUES (2.0)")
        assert cursor.lastrowid == 3
        cursor.execute("DELETE FROM oddities WHERE id = 3")


def test_any_mariadb_reads_it_without_us(kitchen: PrivateMariaDB, tmp_path: Path) -> None:
    text = gzip.decompress(backup.back_up(kitchen.url, tmp_path).read_bytes()).decode()
    assert text.startswith('-- vianda-backup {"format": "vianda-backup", "version": 1, "made_at": "')
    assert "CREATE TABLE `formula`" in text


def test_nobody_is_served_while_it_is_brought_back(kitchen: PrivateMariaDB, tmp_path: Path) -> None:
    path = backup.back_up(kitchen.url, tmp_path, check=False)
    before = _state(kitchen)
    with _asked(kitchen), pytest.raises(BackupError, match="stop Vianda first"):
        backup.restore(kitchen.url, path)
    assert _state(kitchen) == before


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda data: data[: len(data) // 2], "is damaged"),
        (lambda data: data[:-40], "is damaged"),
        (lambda data: b"", "is damaged|is no backup"),
        (lambda data: b"not gzip at all", "is damaged"),
        (lambda data: gzip.compress(b"SELECT 1;\n"), "is no backup of Vianda"),
        (lambda data: gzip.compress(gzip.decompress(data).replace(b"Beacon grill", b"Beacon gruel")), "is damaged"),
        (lambda data: gzip.compress(gzip.decompress(data)[:-80]), "cut short"),
        (lambda data: gzip.compress(gzip.decompress(data).replace(b'"version": 1', b'"version": 2', 1)), "newer"),
        (lambda data: gzip.compress(gzip.decompress(data).replace(b'"schema": "00', b'"scheme": "00', 1)), "damaged"),
    ],
)
def test_half_a_file_is_never_taken(kitchen: PrivateMariaDB, tmp_path: Path, spoil, says: str) -> None:
    path = backup.back_up(kitchen.url, tmp_path, check=False)
    path.write_bytes(spoil(path.read_bytes()))
    before = _state(kitchen)
    for use in (backup.check_backup, backup.restore):
        with pytest.raises(BackupError, match=says):
            use(kitchen.url, path)
    assert _state(kitchen) == before


def test_one_of_a_newer_application_is_refused(kitchen: PrivateMariaDB, tmp_path: Path, monkeypatch) -> None:
    path = backup.back_up(kitchen.url, tmp_path, check=False)
    monkeypatch.setattr(backup, "MIGRATIONS", backup.MIGRATIONS[:-1])
    with pytest.raises(BackupError, match="made by a newer Vianda"):
        backup.restore(kitchen.url, path)


def test_a_backup_that_does_not_come_back_the_same_is_not_kept(
    kitchen: PrivateMariaDB, tmp_path: Path, monkeypatch
) -> None:
    real = backup._load

    def lossy(at, name: str, path: Path) -> None:
        real(at, name, path)
        with _asked(kitchen) as database, database.cursor() as cursor:
            cursor.execute(f"DELETE FROM `{name}`.oddities ORDER BY id LIMIT 1")

    monkeypatch.setattr(backup, "_load", lossy)
    with pytest.raises(BackupError, match="does not come back as it was written"):
        backup.back_up(kitchen.url, tmp_path)
    assert list(tmp_path.iterdir()) == []
    assert len(_state(kitchen)[""]) == 1  # type: ignore[arg-type]


def test_what_cannot_be_is_said_in_one_line(kitchen: PrivateMariaDB, tmp_path: Path) -> None:
    nowhere = _vianda(kitchen, "restore", str(tmp_path / "none.sql.gz"))
    assert (nowhere.returncode, nowhere.stdout) == (3, "")
    assert nowhere.stderr == f"vianda: There is no file {tmp_path / 'none.sql.gz'}.\n"
    (tmp_path / "file").write_text("")
    inside = _vianda(kitchen, "backup", str(tmp_path / "file" / "folder"))
    assert (inside.returncode, inside.stderr.count("\n")) == (3, 1)
    assert "cannot be made" in inside.stderr


def test_old_ones_make_room_and_what_broke_off_goes(tmp_path: Path) -> None:
    newest = datetime(2026, 11, 29, 4, 0, tzinfo=UTC)
    for n in range(500):
        (tmp_path / f"vianda-{newest - timedelta(days=n):%Y%m%d-%H%M%S}.sql.gz").touch()
    (tmp_path / ".half-0011.sql.gz").touch()
    (tmp_path / "holiday.sql.gz").touch()
    gone = backup.rotate(tmp_path)
    left = [moment for moment, _ in backup.backups_in(tmp_path)]
    assert len(gone) + len(left) == 500
    assert left[:7] == [newest - timedelta(days=n) for n in range(7)]
    assert 7 + 4 <= len(left) <= backup.DAYS + backup.WEEKS + backup.MONTHS
    assert (newest - left[-1]).days > 300
    assert sorted(p.name for p in tmp_path.iterdir() if not p.name.startswith("vianda-")) == ["holiday.sql.gz"]


@settings(max_examples=60, deadline=None)
@given(st.lists(st.datetimes(datetime(2024, 1, 1), datetime(2027, 1, 1), timezones=st.just(UTC)), max_size=60))
def test_the_newest_is_always_kept_and_keeping_twice_changes_nothing(made: list[datetime]) -> None:
    chosen = backup.kept(made)
    assert chosen <= set(made)
    late = {one for one in made if max(made) - one <= backup.ALL_OF}
    assert late <= chosen
    assert len(chosen - late) <= backup.DAYS + backup.WEEKS + backup.MONTHS
    assert backup.kept(chosen) == chosen
    if made:
        assert max(made) in chosen


def test_a_user_and_a_password_of_odd_signs_get_in(kitchen: PrivateMariaDB, tmp_path: Path) -> None:
    user, password = 'o"d\\d', 'p"a\\s#s ;word'
    with pymysql.connect(unix_socket=str(kitchen.socket), user="root", autocommit=True) as root:
        cursor = root.cursor()
        cursor.execute("CREATE USER %s@'127.0.0.1' IDENTIFIED BY %s", (user, password))
        cursor.execute("GRANT ALL ON vianda.* TO %s@'127.0.0.1'", (user,))
    at = backup.address_of(kitchen.url)
    url = f"mysql://{quote(user, safe='')}:{quote(password, safe='')}@{at.host}:{at.port}/{at.name}"
    assert backup.back_up(url, tmp_path, check=False).stat().st_size > 1000
    # It may make no database beside this one: the check says so, and what to do.
    with pytest.raises(BackupError, match="GRANT ALL ON"):
        backup.back_up(url, tmp_path)
    assert len(list(tmp_path.iterdir())) == 1
