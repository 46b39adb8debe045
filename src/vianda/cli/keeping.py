"""House-keeping of the database: prepare it, back it up, look at a backup, bring one back; and serve."""

from __future__ import annotations

import argparse
import contextlib
import json
import os
import tempfile
from pathlib import Path
from typing import Any

from vianda.cli.answers import Code, CommandError, say

# Whom backups are sealed for, apart by spaces, where nothing else is said.
RECIPIENTS = "VIANDA_BACKUP_RECIPIENTS"


def add(commands: Any) -> None:
    """The commands of this file."""
    two = commands.add_parser("prepare", help="migrate the database; make the demo kitchen when asked")
    two.add_argument("--demo", action="store_true", help="make the demo kitchen when there is no kitchen yet")
    two.add_argument("--backup-to", type=Path, help="a folder for a backup before an upgrade")
    two.add_argument("--empty", action="store_true", help="with --demo: the kitchen and larder, but no formulas")
    two.set_defaults(run=lambda given: _prepare(empty=given.empty, demo=given.demo, backup_to=given.backup_to))
    five = commands.add_parser(
        "backup",
        help="write the whole database into one file of a folder, and see that it can be restored",
        epilog="Example: vianda backup /mnt/usb/vianda --rotate",
    )
    five.add_argument("folder", type=Path)
    five.add_argument("--rotate", action="store_true", help="delete old ones: 7 days, 5 weeks and 12 months are kept")
    five.add_argument(
        "--encrypt-to",
        action="append",
        metavar="age1…",
        help=f"seal it for a recipient; else for those of {RECIPIENTS}",
    )
    five.add_argument("--no-check", action="store_true", help="do not restore it into a database beside, to see")
    five.set_defaults(run=_kept_safe)
    six = commands.add_parser(
        "check-backup",
        help="restore a backup into a database that is thrown away, to see",
        epilog="Example: vianda check-backup /mnt/usb/vianda/vianda-20261129-040000.sql.gz",
    )
    six.add_argument("file", type=Path)
    six.add_argument("--key", type=Path, help="the file of the key that opens a sealed one")
    six.set_defaults(run=_kept_safe)
    seven = commands.add_parser(
        "restore",
        help="put what a backup holds in the place of what stands; stop Vianda first",
        epilog="Example: vianda restore /mnt/usb/vianda/vianda-20261129-040000.sql.gz",
    )
    seven.add_argument("file", type=Path)
    seven.add_argument("--key", type=Path, help="the file of the key that opens a sealed one")
    seven.set_defaults(run=_kept_safe)
    nine = commands.add_parser(
        "key",
        help="make a key that opens sealed backups and archives; keep it away from the kitchen's machine",
        epilog="Example: vianda key kitchen.key    (prints the recipient to seal for)",
    )
    nine.add_argument("file", type=Path)
    nine.set_defaults(run=_key)
    eight = commands.add_parser(
        "certificate",
        help="make the kitchen's own TLS certificate for names and addresses, or keep the one that fits",
        epilog="Example: vianda certificate .vianda/tls galley.local 192.168.1.20",
    )
    eight.add_argument("folder", type=Path)
    eight.add_argument("names", nargs="+", metavar="NAME")
    eight.set_defaults(run=_certificate)
    four = commands.add_parser("serve", help="serve the application on a loopback port")
    four.add_argument("--port", type=int, required=True)
    four.add_argument("--address", default="127.0.0.1", help="in a container its own; on a machine leave it as it is")
    four.add_argument("--admin-port", type=int, help="another loopback port, for figures as Prometheus reads them")
    four.set_defaults(run=_serve)


def _serve(given: argparse.Namespace) -> None:
    from vianda import serving

    if given.admin_port is not None:
        from vianda.serving_hooks import ADMIN_PORT, FOLDER

        os.environ[ADMIN_PORT] = str(given.admin_port)
        # Of this run alone: each worker writes its figures there.
        os.environ[FOLDER] = tempfile.mkdtemp(prefix="vianda-figures-")
    # In its place, under its number: whoever started it ends it.
    started = serving.command(port=given.port, address=given.address)
    os.execv(started[0], started)


def _key(given: argparse.Namespace) -> None:
    from vianda.interchange.sealed import new_key

    try:
        say({"key": str(given.file), "recipient": new_key(given.file)})
    except FileExistsError:
        raise CommandError(
            Code.REFUSED, f"{given.file} is there already, and what was sealed for it needs it."
        ) from None
    except OSError as error:
        raise CommandError(Code.USAGE, f"cannot write {given.file}: {error.strerror}") from None


def recipients(said: list[str] | None) -> list[str]:
    """Whom files are sealed for: those that were said, or those of the environment."""
    return said or os.environ.get(RECIPIENTS, "").split()


def _certificate(given: argparse.Namespace) -> None:
    from vianda.certificates import kitchen_certificate

    try:
        made = kitchen_certificate(given.folder, given.names)
    except OSError as error:
        raise CommandError(Code.USAGE, f"cannot write to {given.folder}: {error.strerror}") from None
    except ValueError as error:
        raise CommandError(Code.REFUSED, f"no certificate for these names: {error}.") from None
    say(
        {
            "authority": str(made.authority), "server": str(made.server), "names": list(made.names),
            "until": made.until.isoformat(), "sha256": made.fingerprint,
        }
    )  # fmt: skip


def _prepare(*, empty: bool, demo: bool, quiet: bool = False, backup_to: Path | None = None) -> None:
    """Migrate the database; with ``demo``, make the demo kitchen when there is no kitchen yet."""
    # Imported here: evaluating a file needs neither database nor web, and should not wait for them.
    from vianda.services.demo_kitchen import seed_once, take_up_new_ingredients, take_up_new_meats, take_up_pantry
    from vianda.storage.database import DATABASE_ERRORS, BadDatabaseUrlError, blamed, connect_pool
    from vianda.storage.migrate import migrate, pending

    url = os.environ.get("VIANDA_DATABASE_URL", "")
    try:
        database = connect_pool(url)
    except BadDatabaseUrlError as error:
        raise CommandError(Code.USAGE, str(error)) from None
    try:
        database.connect()
    except DATABASE_ERRORS as error:
        raise CommandError(Code.AWAY, f"the database cannot be used: {blamed(error)}.") from None
    with contextlib.closing(database):
        try:
            if backup_to is not None and (waiting := pending(database)):
                # An upgrade can be taken back: what it finds is kept first.
                from vianda.storage.backup import BackupError, back_up

                try:
                    kept = _sealed(back_up(url, backup_to), recipients(None))
                except BackupError as error:
                    why = f"before the upgrade ({', '.join(waiting)}) no backup was made: {error}"
                    raise CommandError(Code.AWAY, why) from None
                print(f"kept before the upgrade: {kept}")
            applied = migrate(database)
        except DATABASE_ERRORS as error:
            raise CommandError(Code.AWAY, f"the database cannot be prepared: {blamed(error)}.") from None
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


def _sealed(path: Path, wanted: list[str]) -> Path:
    if not wanted:
        return path
    from vianda.interchange.sealed import seal

    return seal(path, wanted)


def _kept_safe(given: argparse.Namespace) -> None:
    """Make, check or bring back a backup; what was done goes to standard output as JSON."""
    from vianda.interchange.sealed import opened
    from vianda.storage.backup import BackupError, back_up, check_backup, restore, rotate
    from vianda.storage.database import BadDatabaseUrlError

    url = os.environ.get("VIANDA_DATABASE_URL", "")
    try:
        if given.command == "backup":
            path = _sealed(back_up(url, given.folder, check=not given.no_check), recipients(given.encrypt_to))
            gone = rotate(given.folder) if given.rotate else []
            told = {"backup": str(path), "checked": not given.no_check, "deleted": [str(one) for one in gone]}
        elif given.command == "check-backup":
            with opened(given.file, given.key) as plain:
                check_backup(url, plain)
            told = {"backup": str(given.file), "checked": True}
        else:
            with opened(given.file, given.key) as plain:
                contents = restore(url, plain)
            told = {"restored": str(given.file), "made_at": contents.made_at.isoformat()}
    except (BackupError, BadDatabaseUrlError) as error:
        raise CommandError(Code.AWAY, str(error)) from None
    print(json.dumps(told))
    if given.command == "restore":
        _prepare(empty=False, demo=False, quiet=True)
