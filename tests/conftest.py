"""What all tests share: the starter larder, the demo kitchen, a throwaway MariaDB, and a served application."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest

PROJECT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(PROJECT / "scripts"))

from ops.mariadb import PrivateMariaDB, free_port  # noqa: E402
from vianda.core.kitchen import Kitchen, yard_galley  # noqa: E402
from vianda.core.larder import Larder, starter_larder  # noqa: E402
from vianda.services.demo_kitchen import seed_once  # noqa: E402
from vianda.storage import tables  # noqa: E402
from vianda.storage.database import connect_pool  # noqa: E402
from vianda.storage.migrate import migrate  # noqa: E402

TABLES = (
    tables.CookEventRow,
    tables.CookRow,
    tables.VersionRow,
    tables.FormulaRow,
    tables.MeatRow,
    tables.KitchenRow,
    tables.RevisionRow,
)


@pytest.fixture(scope="session")
def larder() -> Larder:
    return starter_larder()


@pytest.fixture(scope="session")
def kitchen() -> Kitchen:
    return yard_galley()


@pytest.fixture(scope="session")
def mariadb(tmp_path_factory: pytest.TempPathFactory) -> Iterator[PrivateMariaDB]:
    server = PrivateMariaDB(tmp_path_factory.mktemp("mariadb"))
    server.start()
    yield server
    server.stop()


@pytest.fixture(scope="session")
def pool(mariadb: PrivateMariaDB) -> Iterator[object]:
    database = connect_pool(mariadb.url)
    with database.connection_context():
        migrate(database)
    yield database
    database.close_all()


@pytest.fixture
def database(pool: object) -> Iterator[object]:
    """An open connection to a freshly seeded database."""
    pool.connect(reuse_if_open=True)
    # The larder's revision must not fall back to a number that a cache has seen.
    revision = tables.RevisionRow.get_or_none(tables.RevisionRow.name == "larder")
    for table in TABLES:
        table.delete().execute()
    if revision is not None:
        tables.RevisionRow.insert(name="larder", number=revision.number).execute()
    seed_once()
    yield pool
    if not pool.is_closed():
        pool.close()


@pytest.fixture
def app(database: object, mariadb: PrivateMariaDB):
    from vianda.app import create_app

    return create_app({"DATABASE_URL": mariadb.url, "PAGES": str(PROJECT / "frontend" / "dist")})


@pytest.fixture
def client(app):
    return app.test_client()


class Served:
    """gunicorn on a loopback port with its own database, as ./start runs it; both can be stopped and started."""

    def __init__(self, folder: Path, *, empty: bool) -> None:
        self.database = PrivateMariaDB(folder / "data", port=free_port())
        self.database.start()
        self.environment = {
            **os.environ,
            "VIANDA_DATABASE_URL": self.database.url,
            "VIANDA_PAGES": str(PROJECT / "frontend" / "dist"),
        }
        command = [str(Path(sys.executable).parent / "vianda"), "prepare", *(["--empty"] if empty else [])]
        subprocess.run(command, env=self.environment, check=True, capture_output=True)
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None
        self.start_server()

    def start_server(self) -> None:
        self.process = subprocess.Popen(
            [
                sys.executable, "-m", "gunicorn", "-w", "2", "--threads", "4", "-k", "gthread",
                "-b", f"127.0.0.1:{self.port}", "--no-control-socket", "vianda.app:create_app()",
            ],
            env=self.environment,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )  # fmt: skip
        deadline = time.monotonic() + 20
        while time.monotonic() < deadline:
            try:
                with urllib.request.urlopen(f"{self.address}/api/live", timeout=2):
                    return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError("the server did not start")

    def stop_server(self) -> None:
        if self.process is not None:
            self.process.terminate()
            self.process.wait(15)
            self.process = None

    def close(self) -> None:
        self.stop_server()
        self.database.stop()


@pytest.fixture(scope="session")
def kestrel(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """The demo kitchen, served."""
    served = Served(tmp_path_factory.mktemp("kestrel"), empty=False)
    yield served
    served.close()


@pytest.fixture(scope="session")
def bare_kitchen(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A kitchen with a larder and no formulas, served."""
    served = Served(tmp_path_factory.mktemp("bare"), empty=True)
    yield served
    served.close()


@pytest.fixture
def free_loopback_port() -> Iterator[int]:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        yield probe.getsockname()[1]
