"""The composition root: the only place that reads the environment and puts the layers together."""

from __future__ import annotations

import importlib
import os
import threading
from pathlib import Path
from typing import Any

from flask import Flask, request

from vianda.api import guard, identity, kitchen_of, web
from vianda.api.observed import log_as_json
from vianda.core.heat.conduction.warm import warm
from vianda.runtime.heavy import GONE
from vianda.runtime.machine_code import keep_on_disk
from vianda.runtime.solver import SOLVER
from vianda.services import people
from vianda.services.sign_in_times import IDLE_MIN, LASTS_H, BadTimesError, times_of
from vianda.serving import HOSTS
from vianda.storage.database import connect_pool

DATABASE_URL = "VIANDA_DATABASE_URL"
PAGES = "VIANDA_PAGES"
# Names under which it is opened beyond this machine, by way of a proxy that says who asks and speaks TLS; and the
# certificate of the kitchen's own authority, to be taken to telephones.
AUTHORITY = "VIANDA_TLS_CA"


def _warmed() -> None:
    # First what every formula needs, then what only a timetable does.
    warm()
    SOLVER.warm_up()


def create_app(config: dict[str, Any] | None = None) -> Flask:
    """The web application.

    Parameters
    ----------
    config : dict
        ``DATABASE_URL`` and ``PAGES`` (folder of built pages); the environment fills what is missing.
    """
    settings = {"DATABASE_URL": os.environ.get(DATABASE_URL), "PAGES": os.environ.get(PAGES)} | (config or {})
    if not settings["DATABASE_URL"]:
        raise SystemExit(f"{DATABASE_URL} is not set; ./start sets it for you.")
    if settings["PAGES"]:
        # Served for good; tests and scripts keep the log as it is.
        log_as_json()
    app = Flask("vianda", static_folder=None)
    hosts = frozenset(name.strip().lower() for name in os.environ.get(HOSTS, "").split(",") if name.strip())
    app.config.update({"HOSTS": hosts, "AUTHORITY": os.environ.get(AUTHORITY)} | settings)
    try:
        people.use_times(times_of(lasts_h=os.environ.get(LASTS_H, ""), idle_min=os.environ.get(IDLE_MIN, "")))
    except BadTimesError as error:
        raise SystemExit(str(error)) from None
    database = connect_pool(settings["DATABASE_URL"])

    def open_connection() -> None:
        # What waits for a long run asks now and then whether anybody still does.
        GONE.set(request.environ.get("waitress.client_disconnected", lambda: False))
        # Pages and scripts need no store: a step can be opened while it is away.
        if request.path.startswith("/api/"):
            database.connect(reuse_if_open=True)
            identity.check(local=guard.is_local())
            kitchen_of.choose()

    def close_connection(_: BaseException | None) -> None:
        if not database.is_closed():
            database.close()

    # The solver's library takes seconds to import; the first cook who asks for a target should not wait for it.
    threading.Thread(target=importlib.import_module, args=("scipy.optimize",), daemon=True).start()
    keep_on_disk()
    # The heat's machine code takes seconds to load too. Tests make many applications and need it in one.
    if settings["PAGES"]:
        threading.Thread(target=_warmed, daemon=True).start()
    web.install(app, pages=Path(settings["PAGES"]).resolve() if settings["PAGES"] else None)
    app.before_request(open_connection)
    app.teardown_request(close_connection)
    return app
