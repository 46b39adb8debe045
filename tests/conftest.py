"""What all tests share: the starter larder, the demo kitchen, a throwaway MariaDB, and a served application."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from hashlib import sha256

import pytest
from hypothesis import settings

from ops.mariadb import PrivateMariaDB
from served import PROJECT, Served
from vianda.core.blend.schools import all_schools
from vianda.core.demo.kitchen import yard_galley
from vianda.core.equipment.kitchen import Kitchen, usual_flat_breads, usual_grinders, usual_oven
from vianda.core.equipment.moulds import usual_moulds
from vianda.core.faults.causes import all_causes
from vianda.core.heat.computed import ComputedHeat
from vianda.core.heat.holds import hold_tables
from vianda.core.heat.methods import all_methods
from vianda.core.inventory.inventory import Inventory, starter_inventory
from vianda.core.mix.schools import mix_schools
from vianda.core.model.styles import all_styles
from vianda.core.sauce.schools import sauce_schools
from vianda.runtime.machine_code import keep_on_disk
from vianda.services.demo_kitchen import seed_once
from vianda.storage import tables
from vianda.storage.database import connect_pool
from vianda.storage.here import use_kitchen
from vianda.storage.migrate import migrate

# The first call of a test pays for importing SciPy; a time is a number for a benchmark, never a test.
settings.register_profile("vianda", deadline=None)
settings.load_profile("vianda")
# Only the first run of the tests compiles the run.
keep_on_disk()

TABLES = (
    tables.AuditRow,
    tables.SignedInRow,
    tables.InvitationRow,
    tables.PersonRow,
    tables.RunEventRow,
    tables.RunRow,
    tables.TickRow,
    tables.StockedRow,
    tables.ServiceRow,
    tables.TastingRow,
    tables.TrainingAnswerRow,
    tables.PhotographRow,
    tables.WeighingEventRow,
    tables.WeighingRow,
    tables.CookEventRow,
    tables.ObservationRow,
    tables.CookLineRow,
    tables.CookLotRow,
    tables.CookRow,
    tables.VersionRow,
    tables.ShelfFigureRow,
    tables.FormulaRow,
    tables.LotRow,
    tables.IngredientRow,
    tables.MeatRow,
    tables.KitchenRow,
    tables.RevisionRow,
    tables.AnsweredRow,
)


SHARED = (
    starter_inventory,
    yard_galley,
    all_styles,
    all_schools,
    mix_schools,
    sauce_schools,
    all_methods,
    all_causes,
    hold_tables,
    usual_grinders,
    usual_flat_breads,
    usual_oven,
    usual_moulds,
)


def _as_they_are() -> dict[str, str]:
    return {made.__name__: sha256(repr(made()).encode()).hexdigest() for made in SHARED}


@pytest.fixture(scope="session")
def as_they_were() -> dict[str, str]:
    return _as_they_are()


@pytest.fixture(scope="module", autouse=True)
def _nothing_shared_is_changed(as_they_were: dict[str, str]) -> Iterator[None]:
    """What is read once and shared is the same after each file, whichever files a process is given."""
    yield
    changed = [name for name, digest in _as_they_are().items() if as_they_were[name] != digest]
    assert not changed, f"A test in this file changed what all tests share: {', '.join(changed)}."


@pytest.fixture(scope="session")
def inventory() -> Inventory:
    return starter_inventory()


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
def demo_day() -> datetime | None:
    """The day on which the demo's deliveries come; None: today. Tests with days of their own say which."""
    return None


@pytest.fixture
def database(pool: object, demo_day: datetime | None, monkeypatch: pytest.MonkeyPatch) -> Iterator[object]:
    """An open connection to a freshly seeded database."""
    if demo_day is not None:
        monkeypatch.setattr("vianda.services.demo_kitchen.now_utc", lambda: demo_day)
    pool.connect(reuse_if_open=True)
    # A kitchen's number is never given twice, so no cache of an earlier test is met again.
    for table in TABLES:
        table.delete().execute()
    use_kitchen(None)
    seed_once()
    yield pool
    if not pool.is_closed():
        pool.close()


@pytest.fixture
def app(database: object, mariadb: PrivateMariaDB):
    from vianda.app import create_app

    # A test asks faster than any cook; what is told to one that asks too often has a test of its own.
    more = {"RATELIMIT_ENABLED": False, "PAGES": str(PROJECT / "frontend" / "dist")}
    return create_app({"DATABASE_URL": mariadb.url, **more})


@pytest.fixture
def client(app):
    return app.test_client()


@pytest.fixture(scope="session")
def kestrel(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """The demo kitchen, served."""
    served = Served(tmp_path_factory.mktemp("kestrel"), empty=False)
    yield served
    served.close()


@pytest.fixture(scope="module")
def bare_kitchen(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A kitchen with a larder and no formulas, served; one for each file, since the first journey fills it."""
    served = Served(tmp_path_factory.mktemp("bare"), empty=True)
    yield served
    served.close()


@pytest.fixture(scope="module")
def by_practice() -> Iterator[None]:
    """For rules that have nothing to do with heat.

    The plan stays that of usual practice, so that nothing is simulated.
    """
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(
            "vianda.core.pipeline.compute.computed_heat", lambda case, engine: ComputedHeat(case.usual, 0.0, case)
        )
        yield


@pytest.fixture
def untouched(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A served application that nobody has set up yet."""
    served = Served(tmp_path_factory.mktemp("untouched"), empty=False, demo=False)
    yield served
    served.close()
