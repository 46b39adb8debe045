"""Put the blueprints, the guard and the problems on a Flask application, and serve the built pages."""

from __future__ import annotations

import mimetypes
from pathlib import Path

from flask import Flask, Response, abort, request, send_from_directory
from flask_compress import Compress
from werkzeug.routing import PathConverter
from werkzeug.security import safe_join

from vianda.api import (
    archive_routes,
    bench_routes,
    cook_routes,
    fault_routes,
    formula_routes,
    guard,
    heat_routes,
    identity,
    kitchen_routes,
    larder_routes,
    learning_routes,
    logbook_routes,
    observed,
    pantry_routes,
    people_routes,
    photograph_routes,
    problems,
    recipe_routes,
    run_routes,
    sauce_routes,
    service_routes,
    session_routes,
    supply_routes,
    target_routes,
    tasting_routes,
    training_routes,
    weighing_routes,
)
from vianda.api import cook_schemas as cs
from vianda.api import larder_schemas as ls
from vianda.api import schemas as s
from vianda.api.contract import JSON_TYPE, openapi
from vianda.core.inventory.inventory import Meat
from vianda.interchange.kinds import INGREDIENTS, MEATS, as_kept
from vianda.services import larders, tastings
from vianda.services.archives import ArchiveReport
from vianda.storage.clock import now_utc
from vianda.storage.kitchen_repository import StoredKitchen
from vianda.storage.larder_repository import StoredIngredient, StoredLot
from vianda.storage.records import StoredCook, StoredFormula, StoredService
from vianda.storage.tasting_repository import StoredTasting

API_VERSION = "1"
COMPRESSED = [
    "application/json",
    "application/problem+json",
    "text/html",
    "text/css",
    "text/javascript",
    "text/csv",
    "text/calendar",
    "image/svg+xml",
]


def openapi_document() -> dict[str, object]:
    """The OpenAPI document of this API."""
    return openapi(API_VERSION)


class ScreenConverter(PathConverter):
    """Every path but those of the API, whose unknown addresses and wrong methods are told apart by its own routes."""

    regex = "(?!api/)[^/].*?"


def install(app: Flask, *, pages: Path | None) -> None:
    """Everything the web needs. ``pages`` is the folder of built pages."""
    app.url_map.converters["screen"] = ScreenConverter
    observed.install(app)
    guard.install(app)
    identity.install(app)
    # Text is a fifth of its size on the wire. What streams (curves, the scale) goes out line by line as it is.
    app.config["COMPRESS_MIMETYPES"] = COMPRESSED
    app.config["COMPRESS_ALGORITHM"] = ["br", "gzip"]
    app.config["COMPRESS_ALGORITHM_STREAMING"] = ["br", "gzip"]
    app.config["COMPRESS_BR_LEVEL"] = 4
    Compress(app)
    problems.register(
        app,
        {
            ArchiveReport: lambda r: problems.dump(archive_routes.archive_answer(r)),
            StoredFormula: lambda f: problems.dump(s.formula_answer(f)),
            StoredService: lambda f: problems.dump(service_routes.service_answer(f)),
            StoredKitchen: lambda k: problems.dump(s.kitchen_answer(k)),
            StoredIngredient: lambda i: INGREDIENTS.plain(as_kept(i.ingredient)),
            StoredLot: lambda lot: problems.dump(ls.lot_answer(larders.known(lot))),
            Meat: MEATS.plain,
            StoredTasting: lambda t: problems.dump(tasting_routes.tasting_answer(tastings.served(t))),
            StoredCook: lambda c: problems.dump(cs.cook_answer(c, now_utc())),
        },
    )
    for module in (
        archive_routes,
        bench_routes,
        formula_routes,
        cook_routes,
        fault_routes,
        heat_routes,
        kitchen_routes,
        larder_routes,
        learning_routes,
        logbook_routes,
        pantry_routes,
        people_routes,
        photograph_routes,
        recipe_routes,
        sauce_routes,
        run_routes,
        service_routes,
        session_routes,
        supply_routes,
        target_routes,
        tasting_routes,
        training_routes,
        weighing_routes,
    ):
        app.register_blueprint(module.blueprint)

    @app.get("/api/openapi.json")
    def api_document() -> Response:
        return Response(app.json.dumps(openapi_document()), content_type=JSON_TYPE)

    @app.get("/", defaults={"path": "index.html"})
    @app.get("/<screen:path>")
    def page(path: str) -> Response:
        if pages is None:
            abort(404)
        file = pages / path
        # Every address without a file is a screen of the one page.
        if "." not in path.rsplit("/", 1)[-1]:
            file, path = pages / "index.html", "index.html"
        if not file.is_file():
            abort(404)
        kind = mimetypes.guess_type(path)[0]
        inside = safe_join(str(pages), path)
        if kind in COMPRESSED and inside is not None:
            # Read whole, so that it is compressed whole.
            response = Response(Path(inside).read_bytes(), mimetype=kind)
            response.add_etag()
            response.make_conditional(request)
        else:
            response = send_from_directory(pages, path)
        hashed = path.startswith("assets/")
        response.headers["Cache-Control"] = "max-age=31536000, immutable" if hashed else "no-cache"
        return response
