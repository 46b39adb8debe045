"""A database that somebody else keeps: its script, its rights, its certificate, and what is blamed."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pymysql
import pytest

from ops.mariadb import PrivateMariaDB, free_port
from vianda.storage.database import BadDatabaseUrlError, address_of

VIANDA = str(Path(sys.executable).parent / "vianda")


def _openssl(*words: str) -> None:
    subprocess.run(["openssl", *words], check=True, capture_output=True)


@pytest.fixture(scope="module")
def certificates(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An authority, another one, and a certificate of the first for 127.0.0.1."""
    folder = tmp_path_factory.mktemp("tls")
    for name in ("ours", "other"):
        _openssl("req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", f"/CN={name}",
                 "-keyout", str(folder / f"{name}.key"), "-out", str(folder / f"{name}.pem"))  # fmt: skip
    _openssl("req", "-newkey", "rsa:2048", "-nodes", "-subj", "/CN=database", "-keyout", str(folder / "db.key"),
             "-out", str(folder / "db.csr"))  # fmt: skip
    (folder / "names").write_text("subjectAltName=IP:127.0.0.1\n")
    _openssl("x509", "-req", "-in", str(folder / "db.csr"), "-CA", str(folder / "ours.pem"), "-CAkey",
             str(folder / "ours.key"), "-CAcreateserial", "-days", "2", "-extfile", str(folder / "names"), "-out",
             str(folder / "db.pem"))  # fmt: skip
    return folder


@pytest.fixture(scope="module")
def others(certificates: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[PrivateMariaDB]:
    """A server whose usual script is latin1, with a certificate, two databases and three users."""
    options = (
        f"ssl-cert={certificates / 'db.pem'}\nssl-key={certificates / 'db.key'}\nssl-ca={certificates / 'ours.pem'}\n"
        "character-set-server=latin1\ncollation-server=latin1_swedish_ci\n"
    )
    server = PrivateMariaDB(tmp_path_factory.mktemp("others"), port=free_port(), options=options)
    server.start()
    statements = (
        "CREATE DATABASE theirs CHARACTER SET latin1",
        "CREATE USER owner@'127.0.0.1' IDENTIFIED BY 'o', least@'127.0.0.1' IDENTIFIED BY 'l',"
        " nobody@'127.0.0.1' IDENTIFIED BY 'n'",
        "GRANT ALL ON theirs.* TO owner@'127.0.0.1'",
        "GRANT SELECT, INSERT, UPDATE, DELETE ON theirs.* TO least@'127.0.0.1'",
    )
    with pymysql.connect(unix_socket=str(server.socket), user="root") as root, root.cursor() as cursor:
        for statement in statements:
            cursor.execute(statement)
    yield server
    server.stop()


def _url(server: PrivateMariaDB, who: str, more: str = "") -> str:
    return f"mysql://{who}@127.0.0.1:{server.port}/theirs{more}"


def _run(url: str, *words: str, code: str = "") -> subprocess.CompletedProcess[str]:
    command = [sys.executable, "-c", code] if code else [VIANDA, *words]
    return subprocess.run(
        command, env={**os.environ, "VIANDA_DATABASE_URL": url}, capture_output=True, text=True, check=False
    )


SAVE = """
import os
from vianda.app import create_app
app = create_app({"DATABASE_URL": os.environ["VIANDA_DATABASE_URL"], "PAGES": ""})
client = app.test_client()
first = client.get("/api/formulas").get_json()[0]
one = client.get(f"/api/formulas/{first['id']}").get_json()
body = {"formula": {**one["formula"], "name": "Smash 😀 Ω"}, "revision": one["revision"]}
saved = client.put(f"/api/formulas/{first['id']}", json=body)
found = client.post("/api/shelf", json={"text": "😀"}).get_json()
print(saved.status_code, [item["name"] for item in found["items"]])
"""


def test_every_script_is_kept_and_once_migrated_the_least_rights_suffice(others: PrivateMariaDB) -> None:
    made = _run(_url(others, "owner:o"), "prepare", "--demo")
    assert made.returncode == 0, made.stderr
    # Again, by somebody who may change no table: there is nothing to change.
    assert _run(_url(others, "least:l"), "prepare").returncode == 0
    saved = _run(_url(others, "least:l"), code=SAVE)
    assert saved.stdout.strip() == "200 ['Smash 😀 Ω']", saved.stderr
    with pymysql.connect(unix_socket=str(others.socket), user="root", database="theirs") as root:
        cursor = root.cursor()
        cursor.execute(
            "SELECT DISTINCT character_set_name FROM information_schema.columns"
            " WHERE table_schema = 'theirs' AND character_set_name IS NOT NULL"
        )
        assert {row[0] for row in cursor.fetchall()} == {"utf8mb4", "ascii"}


def test_a_database_of_before_is_changed_to_every_script_and_keeps_what_it_holds(others: PrivateMariaDB) -> None:
    from vianda.storage.migrations import m0025_every_script

    class Plain:
        def __init__(self, connection: pymysql.Connection) -> None:
            self._connection = connection

        def execute_sql(self, sql: str) -> object:
            cursor = self._connection.cursor()
            cursor.execute(sql.replace("%%", "%"))
            return cursor

    with pymysql.connect(unix_socket=str(others.socket), user="root", charset="utf8mb4") as root:
        database = Plain(root)
        database.execute_sql("CREATE DATABASE before_it CHARACTER SET latin1")
        root.select_db("before_it")
        database.execute_sql(
            "CREATE TABLE t (id INT PRIMARY KEY, a VARCHAR(20) NOT NULL DEFAULT 'x', b TEXT NULL,"
            " k VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL)"
        )
        database.execute_sql("INSERT INTO t VALUES (1, 'Rag\u00f9', NULL, 'Key')")
        m0025_every_script.run(database)
        database.execute_sql("INSERT INTO t (id, b, k) VALUES (2, '😀', 'K')")
        rows = database.execute_sql("SELECT a, b, k FROM t ORDER BY id").fetchall()  # type: ignore[attr-defined]
        assert rows == (("Ragù", None, "Key"), ("x", "😀", "K"))
        kept = database.execute_sql("SHOW CREATE TABLE t").fetchone()[1]  # type: ignore[attr-defined]
        assert "`k` varchar(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL" in kept
        assert "DEFAULT CHARSET=utf8mb4" in kept


def test_a_certificate_is_verified_and_its_authority_can_be_named(others: PrivateMariaDB, certificates: Path) -> None:
    good = _run(_url(others, "least:l", f"?ssl_ca={certificates / 'ours.pem'}"), "prepare")
    assert good.returncode == 0, good.stderr
    bad = _run(_url(others, "least:l", f"?ssl_ca={certificates / 'other.pem'}"), "prepare")
    assert (bad.returncode, "certificate is not one to trust" in bad.stderr) == (3, True)
    # The certificate is of 127.0.0.1: under another name it is another server's.
    elsewhere = _url(others, "least:l", f"?ssl_ca={certificates / 'ours.pem'}").replace("127.0.0.1", "localhost")
    other_name = _run(elsewhere, "prepare")
    assert (other_name.returncode, "certificate is not one to trust" in other_name.stderr) == (3, True)


@pytest.mark.parametrize(
    ("who", "name", "says"),
    [
        ("least:wrong", "theirs", "the name or the password is not right"),
        ("nobody:n", "theirs", "this user may not use that database"),
        ("least:l", "nowhere", "may not use that database"),
    ],
)
def test_the_text_blames_what_is_at_fault(others: PrivateMariaDB, who: str, name: str, says: str) -> None:
    done = _run(_url(others, who).replace("/theirs", f"/{name}"), "prepare")
    assert (done.returncode, done.stdout) == (3, "")
    assert says in done.stderr
    assert "Traceback" not in done.stderr


def test_nobody_at_the_address_is_said_so() -> None:
    done = _run(f"mysql://a:b@127.0.0.1:{free_port()}/x", "prepare")
    assert (done.returncode, "nothing answers at that address" in done.stderr) == (3, True)


@pytest.mark.parametrize(
    ("url", "says"),
    [
        ("postgres://a:b@h/x", "must look like"),
        ("mysql://a:b@h", "must look like"),
        ("mysql://a:b@h:none/x", "must look like"),
        ("mysql://a:b@h/x?tls=perhaps", "tls is on or off"),
        ("mysql://a:b@h/x?ssl_ca=/no/such/file", "names no file"),
        ("mysql://a:b@h/x?sslmode=none", "not sslmode"),
    ],
)
def test_what_is_no_address_is_refused(url: str, says: str) -> None:
    with pytest.raises(BadDatabaseUrlError, match=says):
        address_of(url)


@pytest.mark.parametrize(
    ("url", "verified"),
    [
        ("mysql://a:b@127.0.0.1/x", False),
        ("mysql://a:b@localhost/x", False),
        ("mysql://a:b@[::1]/x", False),
        ("mysql://a:b@127.0.0.1/x?socket=/run/db.sock", False),
        ("mysql://a:b@db.example/x", True),
        ("mysql://a:b@192.168.1.9/x", True),
        ("mysql://a:b@192.168.1.9/x?tls=off", False),
    ],
)
def test_beyond_loopback_the_line_is_encrypted_and_verified(url: str, verified: bool) -> None:
    assert bool(address_of(url).tls_ca) is verified


def test_names_and_passwords_may_hold_signs() -> None:
    at = address_of("mysql://a%40b:p%2Fw%3A@h:3307/kitchen?tls=off")
    assert (at.user, at.password, at.port, at.name) == ("a@b", "p/w:", 3307, "kitchen")
