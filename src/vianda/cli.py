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
from vianda.interchange.kitchen_archive import archive_schema
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


def _prepare(*, empty: bool, demo: bool, quiet: bool = False, backup_to: Path | None = None) -> int:
    """Migrate the database; with ``demo``, make the demo kitchen when there is no kitchen yet."""
    # Imported here: evaluating a file needs neither database nor web, and should not wait for them.
    from vianda.services.demo_kitchen import seed_once, take_up_new_ingredients, take_up_new_meats, take_up_pantry
    from vianda.storage.database import DATABASE_ERRORS, BadDatabaseUrlError, blamed, connect_pool
    from vianda.storage.migrate import migrate, pending

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
            if backup_to is not None and (waiting := pending(database)):
                # An upgrade can be taken back: what it finds is kept first.
                from vianda.storage.backup import BackupError, back_up

                try:
                    kept = back_up(url, backup_to)
                except BackupError as error:
                    print(
                        f"vianda: before the upgrade ({', '.join(waiting)}) no backup was made: {error}",
                        file=sys.stderr,
                    )
                    return 3
                print(f"kept before the upgrade: {kept}")
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
    if not quiet:
        made = "written" if seeded else "not written"
        print(f"migrations applied: {', '.join(applied) or 'none'}; demo kitchen: {made}")
    return 0


def _kept_safe(given: argparse.Namespace) -> int:
    """Make, check or bring back a backup; what was done goes to standard output as JSON."""
    from vianda.storage.backup import BackupError, back_up, check_backup, restore, rotate
    from vianda.storage.database import BadDatabaseUrlError

    url = os.environ.get("VIANDA_DATABASE_URL", "")
    try:
        if given.command == "backup":
            path = back_up(url, given.folder, check=not given.no_check)
            gone = rotate(given.folder) if given.rotate else []
            told = {"backup": str(path), "checked": not given.no_check, "deleted": [str(one) for one in gone]}
        elif given.command == "check-backup":
            check_backup(url, given.file)
            told = {"backup": str(given.file), "checked": True}
        else:
            contents = restore(url, given.file)
            told = {"restored": str(given.file), "made_at": contents.made_at.isoformat()}
    except (BackupError, BadDatabaseUrlError) as error:
        print(f"vianda: {error}", file=sys.stderr)
        return 3
    print(json.dumps(told))
    return _prepare(empty=False, demo=False, quiet=True) if given.command == "restore" else 0


def main(arguments: list[str] | None = None) -> int:
    """Run one command and return its exit code."""
    parser = argparse.ArgumentParser(prog="vianda", description="The bench companion for minced beef.")
    commands = parser.add_subparsers(dest="command", required=True)
    one = commands.add_parser("evaluate", help="print every figure of a formula file as JSON")
    one.add_argument("file", help="a formula file, or - for standard input")
    two = commands.add_parser("prepare", help="migrate the database; make the demo kitchen when asked")
    two.add_argument("--demo", action="store_true", help="make the demo kitchen when there is no kitchen yet")
    two.add_argument("--backup-to", type=Path, help="a folder for a backup before an upgrade")
    two.add_argument("--empty", action="store_true", help="with --demo: the kitchen and larder, but no formulas")
    five = commands.add_parser(
        "backup",
        help="write the whole database into one file of a folder, and see that it can be restored",
        epilog="Example: vianda backup /mnt/usb/vianda --rotate",
    )
    five.add_argument("folder", type=Path)
    five.add_argument("--rotate", action="store_true", help="delete old ones: 7 days, 5 weeks and 12 months are kept")
    five.add_argument("--no-check", action="store_true", help="do not restore it into a database beside, to see")
    six = commands.add_parser("check-backup", help="restore a backup into a database that is thrown away, to see")
    six.add_argument("file", type=Path)
    seven = commands.add_parser(
        "restore", help="put what a backup holds in the place of what stands; stop Vianda first"
    )
    seven.add_argument("file", type=Path)
    four = commands.add_parser("serve", help="serve the application on a loopback port")
    four.add_argument("--port", type=int, required=True)
    commands.add_parser("openapi", help="print the OpenAPI document")
    commands.add_parser("counsel", help="print every rule of counsel, with threshold and source")
    three = commands.add_parser("schema", help="print the JSON Schema of a file format")
    three.add_argument("kind", nargs="?", default="formula", choices=["formula", "service", "archive"])
    given = parser.parse_args(arguments)
    match given.command:
        case "evaluate":
            return _evaluate(given.file)
        case "prepare":
            return _prepare(empty=given.empty, demo=given.demo, backup_to=given.backup_to)
        case "backup" | "check-backup" | "restore":
            return _kept_safe(given)
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
            schemas = {"formula": formula_file_schema, "service": service_file_schema, "archive": archive_schema}
            print(json.dumps(schemas[given.kind](), indent=1, sort_keys=True))
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
