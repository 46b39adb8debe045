"""The whole database as one file, checked by restoring it, and brought back in one step.

The file is what ``mariadb-dump`` writes, compressed by gzip: any MariaDB reads it without us. Its first line says what
it is, its last has the digest of all before, so that half a file is never taken for a whole one. It is checked by
restoring it into a database that is thrown away and writing that one out again: the two must be the same to the byte.
"""

from __future__ import annotations

import gzip
import hashlib
import json
import os
import secrets
import shutil
import subprocess
import tempfile
from collections.abc import Iterable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pymysql

from vianda.interchange.sealed import ENDING as SEALED
from vianda.storage.database import Address, address_of, blamed, way_to
from vianda.storage.migrate import MIGRATIONS

FORMAT, VERSION = "vianda-backup", 1
ENDING = ".sql.gz"
_HEAD, _FOOT = b"-- vianda-backup ", b"-- sha256 "
# The newest of so many days, weeks and months are kept.
DAYS, WEEKS, MONTHS = 7, 5, 12
ALL_OF = timedelta(days=2)
CHUNK = 1 << 20


class BackupError(Exception):
    """Why a backup could not be made, checked or brought back, in one line."""


@dataclass(frozen=True, slots=True)
class Contents:
    """What a backup says of itself: when it was made, UTC, and its newest migration."""

    made_at: datetime
    schema: str


def back_up(url: str, folder: Path, *, check: bool = True) -> Path:
    """Write a backup into a folder and check it; nothing stays there under a backup's name that was not checked."""
    at = address_of(url)
    now = datetime.now(UTC)
    _make_folder(folder)
    path = folder / f"vianda-{now:%Y%m%d-%H%M%S}{ENDING}"
    with _half_made(folder) as half:
        _write(at, half, Contents(now, _schema(at)))
        if check:
            check_backup(url, half)
        half.replace(path)
    return path


def check_backup(url: str, path: Path) -> None:
    """Restore a backup into a database that is thrown away, and compare what that one writes out."""
    at = address_of(url)
    read_backup(path)
    with _throwaway(at) as name, tempfile.TemporaryDirectory() as folder:
        _load(at, name, path)
        again = Path(folder) / f"again{ENDING}"
        _write(at, again, Contents(datetime.now(UTC), ""), name=name)
        if _body_digest(again) != _body_digest(path):
            raise BackupError(f"{path.name} does not come back as it was written; it is not to be relied on.")


def restore(url: str, path: Path) -> Contents:
    """Put what a backup holds in the place of what stands, in one step, while nobody is served from it."""
    at = address_of(url)
    contents = read_backup(path)
    newest = MIGRATIONS[-1][0]
    if contents.schema > newest:
        raise BackupError(
            f"{path.name} was made by a newer Vianda (step {contents.schema}; this one knows {newest}). Use that one."
        )
    _refuse_in_use(at)
    with _throwaway(at) as came, _throwaway(at) as went:
        _load(at, came, path)
        with _connected(at) as database, database.cursor() as cursor:
            here, there = _tables(cursor, at.name), _tables(cursor, came)
            moves = [(at.name, went, t) for t in here] + [(came, at.name, t) for t in there]
            # One statement: it happens whole or not at all.
            renamed = ", ".join(f"`{a}`.`{t}` TO `{b}`.`{t}`" for a, b, t in moves)
            cursor.execute("SET foreign_key_checks = 0")
            cursor.execute(f"RENAME TABLE {renamed}")
    return contents


def read_backup(path: Path) -> Contents:
    """What a backup says of itself, after its digest was compared.

    Raises
    ------
    BackupError
        What is no backup, only half of one, or was changed.
    """
    try:
        with gzip.open(path, "rb") as file:
            first = file.readline(CHUNK)
        if not first.startswith(_HEAD):
            raise BackupError(f"{path.name} is no backup of Vianda.")
        told = json.loads(first.removeprefix(_HEAD))
        whole, last = _digested(path)
        contents = Contents(datetime.fromisoformat(told["made_at"]), str(told["schema"]))
    except (OSError, EOFError, ValueError, KeyError) as error:
        if isinstance(error, FileNotFoundError):
            raise BackupError(f"There is no file {path}.") from None
        raise BackupError(f"{path.name} is damaged and cannot be used.") from None
    if told.get("version") != VERSION:
        raise BackupError(f"{path.name} was made by a newer Vianda. Use that one.")
    if last != whole:
        raise BackupError(f"{path.name} is damaged or cut short and cannot be used.")
    return contents


def backups_in(folder: Path) -> list[tuple[datetime, Path]]:
    """Backups of a folder by the moment in their names, the newest first."""
    found = []
    # Sealed ones too (``interchange/sealed.py``).
    for path in folder.glob(f"vianda-*{ENDING}*"):
        with suppress(ValueError):
            moment = path.name.removeprefix("vianda-").removesuffix(SEALED).removesuffix(ENDING)
            found.append((datetime.strptime(moment, "%Y%m%d-%H%M%S").replace(tzinfo=UTC), path))
    return sorted(found, reverse=True)


def kept(made: Iterable[datetime]) -> set[datetime]:
    """Which backups are kept: all of two days, and the newest of each of the last days, weeks and months that have any.

    Examples
    --------
    >>> days = [datetime(2026, 11, d, h, tzinfo=UTC) for d in range(1, 30) for h in (3, 15)]
    >>> sorted(d.day for d in kept(days))
    [1, 8, 15, 22, 23, 24, 25, 26, 27, 28, 28, 29, 29]
    """
    newest = sorted(made, reverse=True)
    # Two of one day were made for two reasons.
    chosen = {one for one in newest if newest[0] - one <= ALL_OF}
    for most, span in ((DAYS, "%Y%m%d"), (WEEKS, "%G%V"), (MONTHS, "%Y%m")):
        firsts: dict[str, datetime] = {}
        for one in newest:
            firsts.setdefault(one.strftime(span), one)
        chosen |= set(list(firsts.values())[:most])
    return chosen


def rotate(folder: Path) -> list[Path]:
    """Delete backups that are not kept any more, and what broke off half made; returns what was deleted."""
    found = backups_in(folder)
    keep = kept(moment for moment, _ in found)
    gone = [path for moment, path in found if moment not in keep]
    for path in (*gone, *folder.glob(f".half-*{ENDING}*")):
        path.unlink(missing_ok=True)
    return gone


def _make_folder(folder: Path) -> None:
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    except OSError as error:
        raise BackupError(f"{folder} cannot be made: {error.strerror}.") from None


@contextmanager
def _half_made(folder: Path) -> Iterator[Path]:
    half = folder / f".half-{secrets.token_hex(6)}{ENDING}"
    try:
        # It holds everything a kitchen knows: nobody else reads it.
        os.close(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600))
        yield half
    except OSError as error:
        raise BackupError(f"{folder} cannot be written to: {error.strerror}.") from None
    finally:
        half.unlink(missing_ok=True)


def _write(at: Address, path: Path, contents: Contents, *, name: str = "") -> None:
    told = {"format": FORMAT, "version": VERSION, "made_at": contents.made_at.isoformat(), "schema": contents.schema}
    head = _HEAD + json.dumps(told).encode() + b"\n"
    options = [
        "--single-transaction", "--skip-lock-tables", "--quick", "--hex-blob", "--order-by-primary",
        "--default-character-set=utf8mb4", "--skip-comments", "--skip-dump-date", "--no-tablespaces",
    ]  # fmt: skip
    with _program(at, "mariadb-dump", "mysqldump") as command, gzip.open(path, "wb", compresslevel=6) as out:
        sums = hashlib.sha256(head)
        out.write(head)
        with subprocess.Popen(
            [*command, *options, name or at.name], stdout=subprocess.PIPE, stderr=subprocess.PIPE
        ) as dump:
            assert dump.stdout is not None
            assert dump.stderr is not None
            while part := dump.stdout.read(CHUNK):
                sums.update(part)
                out.write(part)
            said = dump.stderr.read().decode(errors="replace")
        if dump.returncode != 0:
            raise BackupError(f"The database could not be read out: {_last_line(said)}")
        out.write(_FOOT + sums.hexdigest().encode() + b"\n")


def _load(at: Address, name: str, path: Path) -> None:
    with _program(at, "mariadb", "mysql") as command, gzip.open(path, "rb") as file:
        with subprocess.Popen(
            [*command, "--default-character-set=utf8mb4", name], stdin=subprocess.PIPE, stderr=subprocess.PIPE
        ) as client:
            assert client.stdin is not None
            assert client.stderr is not None
            with suppress(BrokenPipeError):
                shutil.copyfileobj(file, client.stdin, CHUNK)
            with suppress(BrokenPipeError):
                client.stdin.close()
            said = client.stderr.read().decode(errors="replace")
        if client.returncode != 0:
            raise BackupError(f"{path.name} could not be read in: {_last_line(said)}")


def _last_line(said: str) -> str:
    lines = [line for line in said.splitlines() if line.strip()]
    return lines[-1][:200] if lines else "no message"


def _digested(path: Path) -> tuple[str, str]:
    """The digest of all but the last line, and what that line says it is."""
    sums, held = hashlib.sha256(), b""
    with gzip.open(path, "rb") as file:
        while part := file.read(CHUNK):
            held += part
            sums.update(held[:-200])
            held = held[-200:]
    at = held.rfind(_FOOT)
    if at < 0:
        return sums.hexdigest(), ""
    sums.update(held[:at])
    return sums.hexdigest(), held[at:].removeprefix(_FOOT).strip().decode()


def _body_digest(path: Path) -> str:
    """The digest of what the database wrote out, without what is said of it."""
    sums = hashlib.sha256()
    with gzip.open(path, "rb") as file:
        file.readline()
        for line in file:
            if not line.startswith(_FOOT):
                sums.update(line)
    return sums.hexdigest()


@contextmanager
def _program(at: Address, *names: str) -> Iterator[list[str]]:
    """A program of MariaDB's with all it needs to get in; the password stands in a file that only we read."""
    found = next((path for name in names if (path := shutil.which(name))), None)
    if found is None:
        raise BackupError(f"{names[0]} is missing. Install it: apt-get install mariadb-client")
    place = f"socket={at.socket}\n" if at.socket else f"host={at.host}\nport={at.port}\nprotocol=tcp\n"
    tls = f"ssl-ca={at.tls_ca}\nssl-verify-server-cert\n" if at.tls_ca else ""
    descriptor, path = tempfile.mkstemp(prefix="vianda-", suffix=".cnf")
    try:
        with os.fdopen(descriptor, "w") as file:
            file.write(f"[client]\n{place}user={_quoted(at.user)}\npassword={_quoted(at.password)}\n{tls}")
        yield [found, f"--defaults-file={path}"]
    finally:
        os.unlink(path)


def _quoted(text: str) -> str:
    """Text as an option file of MariaDB's takes it, whatever signs it has."""
    escaped = text.replace("\\", "\\\\").replace('"', '\\"').replace("\n", "\\n")
    return f'"{escaped}"'


@contextmanager
def _connected(at: Address) -> Iterator[pymysql.Connection]:
    try:
        database = pymysql.connect(
            user=at.user, password=at.password, database=at.name, charset="utf8mb4", connect_timeout=5, autocommit=True,
            **way_to(at),
        )  # fmt: skip
    except (pymysql.MySQLError, OSError) as error:
        raise BackupError(f"The database cannot be used: {blamed(error)}.") from None
    try:
        yield database
    finally:
        with suppress(pymysql.MySQLError, OSError):
            database.close()


@contextmanager
def _throwaway(at: Address) -> Iterator[str]:
    """A database beside ours, for a while."""
    name = f"{at.name}_{secrets.token_hex(5)}"
    with _connected(at) as database, database.cursor() as cursor:
        try:
            cursor.execute(f"CREATE DATABASE `{name}` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
        except pymysql.MySQLError as error:
            raise BackupError(
                f"A backup is checked in a database beside “{at.name}”, and this user may not make one "
                f"({blamed(error)}). GRANT ALL ON `{at.name}\\_%`.* to it, or leave the check out."
            ) from None
    try:
        yield name
    finally:
        with _connected(at) as database, database.cursor() as cursor:
            cursor.execute("SET foreign_key_checks = 0")
            cursor.execute(f"DROP DATABASE IF EXISTS `{name}`")


def _refuse_in_use(at: Address) -> None:
    # What a server remembers of a kitchen is that of before.
    with _connected(at) as database, database.cursor() as cursor:
        cursor.execute(
            "SELECT COUNT(*) FROM information_schema.processlist WHERE db = %s AND id <> CONNECTION_ID()", (at.name,)
        )
        (others,) = cursor.fetchone() or (0,)
    if others:
        raise BackupError(f"“{at.name}” is being served; stop Vianda first.")


def _tables(cursor: pymysql.cursors.Cursor, name: str) -> list[str]:
    cursor.execute("SELECT table_name FROM information_schema.tables WHERE table_schema = %s ORDER BY 1", (name,))
    return [row[0] for row in cursor.fetchall()]


def _schema(at: Address) -> str:
    with _connected(at) as database, database.cursor() as cursor:
        if "schema_migration" not in _tables(cursor, at.name):
            raise BackupError(f"“{at.name}” holds no kitchen yet.")
        cursor.execute("SELECT MAX(number) FROM schema_migration")
        (number,) = cursor.fetchone() or ("",)
    return str(number or "")
