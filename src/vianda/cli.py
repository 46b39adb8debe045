"""``vianda …``: evaluate a formula file, and the house-keeping that ``./start`` calls."""

from __future__ import annotations

import argparse
import contextlib
import json
import os
import sys
from pathlib import Path

from pydantic import TypeAdapter

from vianda.core.basis.errors import CoreError
from vianda.core.counsel.listing import counsel_document
from vianda.core.evaluation.evaluate import Evaluation, Sheets, evaluate, sheets
from vianda.interchange.formula_file import formula_file_schema, read_text
from vianda.interchange.service_file import service_file_schema
from vianda.runtime.machine_code import keep_on_disk

MOST_BYTES = 5_000_000


def _evaluate(path: str) -> int:
    """Print the evaluation of a file as JSON: the same figures as the bench shows."""
    try:
        if path == "-":
            text = sys.stdin.read(MOST_BYTES + 1)
        else:
            with Path(path).open(encoding="utf-8") as file:
                text = file.read(MOST_BYTES + 1)
    except (OSError, UnicodeDecodeError) as error:
        print(f"vianda: cannot read {path}: {error}", file=sys.stderr)
        return 2
    if len(text) > MOST_BYTES:
        print(f"vianda: {path} is larger than {MOST_BYTES // 1_000_000} MB.", file=sys.stderr)
        return 2
    keep_on_disk()
    try:
        bundle = read_text(text)
        result = evaluate(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen)
        behind = sheets(bundle.formula, inventory=bundle.inventory, kitchen=bundle.kitchen)
    except CoreError as error:
        where = f" ({error.field})" if error.field else ""
        print(f"vianda: {error.title}: {error.detail}{where}", file=sys.stderr)
        return 1
    whole = TypeAdapter(Evaluation).dump_python(result, mode="json", exclude_none=True)
    whole |= TypeAdapter(Sheets).dump_python(behind, mode="json", exclude_none=True)
    print(json.dumps(whole, indent=2, ensure_ascii=False))
    return 0


def _prepare(*, empty: bool, demo: bool) -> int:
    """Migrate the database; with ``demo``, make the demo kitchen when there is no kitchen yet."""
    # Imported here: evaluating a file needs neither database nor web, and should not wait for them.
    from vianda.services.demo_kitchen import seed_once, take_up_new_ingredients, take_up_new_meats, take_up_pantry
    from vianda.storage.database import DATABASE_ERRORS, BadDatabaseUrlError, blamed, connect_pool
    from vianda.storage.migrate import migrate

    url = os.environ.get("VIANDA_DATABASE_URL", "")
    try:
        database = connect_pool(url)
    except BadDatabaseUrlError as error:
        print(f"vianda: {error}", file=sys.stderr)
        return 2
    try:
        database.connect()
    except DATABASE_ERRORS as error:
        print(f"vianda: the database cannot be used: {blamed(error)}.", file=sys.stderr)
        return 3
    with contextlib.closing(database):
        try:
            applied = migrate(database)
        except DATABASE_ERRORS as error:
            print(f"vianda: the database cannot be prepared: {blamed(error)}.", file=sys.stderr)
            return 3
        seeded = seed_once(with_formulas=not empty) if demo else False
        if not seeded and "0003" in applied:
            take_up_pantry()
        if not seeded and {"0002", "0006"} & set(applied):
            take_up_new_meats()
        if not seeded and {"0002", "0006", "0008"} & set(applied):
            take_up_new_ingredients()
    print(f"migrations applied: {', '.join(applied) or 'none'}; demo kitchen: {'written' if seeded else 'not written'}")
    return 0


def main(arguments: list[str] | None = None) -> int:
    """Run one command and return its exit code."""
    parser = argparse.ArgumentParser(prog="vianda", description="The bench companion for minced beef.")
    commands = parser.add_subparsers(dest="command", required=True)
    one = commands.add_parser("evaluate", help="print every figure of a formula file as JSON")
    one.add_argument("file", help="a formula file, or - for standard input")
    two = commands.add_parser("prepare", help="migrate the database; make the demo kitchen when asked")
    two.add_argument("--demo", action="store_true", help="make the demo kitchen when there is no kitchen yet")
    two.add_argument("--empty", action="store_true", help="with --demo: the kitchen and larder, but no formulas")
    four = commands.add_parser("serve", help="serve the application on a loopback port")
    four.add_argument("--port", type=int, required=True)
    commands.add_parser("openapi", help="print the OpenAPI document")
    commands.add_parser("counsel", help="print every rule of counsel, with threshold and source")
    three = commands.add_parser("schema", help="print the JSON Schema of a file format")
    three.add_argument("kind", nargs="?", default="formula", choices=["formula", "service"])
    given = parser.parse_args(arguments)
    match given.command:
        case "evaluate":
            return _evaluate(given.file)
        case "prepare":
            return _prepare(empty=given.empty, demo=given.demo)
        case "serve":
            from vianda import serving

            # In its place, under its number: whoever started it ends it.
            started = serving.command(port=given.port)
            os.execv(started[0], started)
        case "openapi":
            from vianda.api.web import openapi_document

            print(json.dumps(openapi_document(), indent=1, sort_keys=True))
        case "counsel":
            print(counsel_document(), end="")
        case "schema":
            schema = formula_file_schema() if given.kind == "formula" else service_file_schema()
            print(json.dumps(schema, indent=1, sort_keys=True))
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
