"""Commands on the kitchens of a database: lists of a span of days, and files in and out."""

from __future__ import annotations

import argparse
from datetime import date
from pathlib import Path
from typing import Any

from vianda.cli.answers import Code, CommandError, kitchen_open, read_text, say, say_kind, written
from vianda.cli.on_files import document

WHAT = ("kitchen", "formula", "service", "larder", "pantry", "cooks", "weighings", "calendar")


def add(commands: Any) -> None:
    """The commands of this file."""
    one = commands.add_parser(
        "shop",
        help="print what has to be bought, made and ordered for the services of a span of days",
        epilog="Example: vianda shop 2026-12-04 2026-12-11 --list butcher --csv > order.csv",
    )
    one.add_argument("first", type=_day, metavar="FROM", help="a day: 2026-12-04")
    one.add_argument("last", type=_day, metavar="TO", help="the last day, counted")
    one.add_argument("--list", default="shopping", choices=["shopping", "prep", "butcher"], help="which list")
    one.add_argument("--csv", action="store_true", help="as CSV instead of JSON")
    _kitchen(one)
    one.set_defaults(run=_shop)
    two = commands.add_parser(
        "import",
        help="take in a formula, a service, a kitchen archive, or a table of the larder or the pantry",
        description="What it is, is read from the file itself. An archive is looked at first with --look.",
        epilog="Example: vianda import yard-galley.vianda.zip --into new --look",
    )
    two.add_argument("file", help="a file, or - for standard input (not an archive)")
    two.add_argument("--into", default="new", choices=["new", "here"], help="an archive: a kitchen of its own, or this")
    two.add_argument("--differing", default="keep", choices=["keep", "replace"], help="an archive: what differs here")
    two.add_argument("--key", type=Path, help="an archive: the file of the key that opens a sealed one")
    two.add_argument("--look", action="store_true", help="an archive: only say what it would do")
    _kitchen(two)
    two.set_defaults(run=_import)
    three = commands.add_parser(
        "export",
        help="write a kitchen, a formula, a service or a table to a file",
        epilog="Examples: vianda export kitchen -o yard-galley.vianda.zip; vianda export formula 3",
    )
    three.add_argument("what", choices=WHAT)
    three.add_argument("number", nargs="?", type=int, help="the number of a formula or a service")
    three.add_argument("--encrypt-to", action="append", metavar="age1…", help="a kitchen: seal it for a recipient")
    three.add_argument("-o", "--output", default="-", help="a file; else standard output")
    _kitchen(three)
    three.set_defaults(run=_export)
    four = commands.add_parser("kitchens", help="print the kitchens there are, with their numbers")
    four.set_defaults(run=_kitchens)
    five = commands.add_parser("formulas", help="print the formulas of a kitchen, with their numbers")
    _kitchen(five)
    five.set_defaults(run=_formulas)


def _kitchen(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--kitchen", type=int, metavar="N", help="the kitchen's number; else the one opened last")


def _day(text: str) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"“{text[:20]}” is no day; write it as 2026-12-04") from None


def _shop(given: argparse.Namespace) -> None:
    from vianda.core.supply.butcher import ButcherSlip
    from vianda.core.supply.prep_plan import PrepPlan
    from vianda.core.supply.shopping import Shopping
    from vianda.interchange.supply_csv import butcher_csv, prep_csv, shopping_csv
    from vianda.services import supply

    with kitchen_open(given.kitchen):
        found: Any
        kind: Any
        table: Any
        match given.list:
            case "shopping":
                found, kind, table = supply.span_shopping(given.first, given.last).shopping, Shopping, shopping_csv
            case "prep":
                found, kind, table = supply.span_prep(given.first, given.last).plan, PrepPlan, prep_csv
            case _:
                found, kind, table = supply.butcher(given.first, given.last).slip, ButcherSlip, butcher_csv
        if given.csv:
            print(table(found), end="")
        else:
            say_kind(kind, found)


def _import(given: argparse.Namespace) -> None:
    if given.file != "-" and _is_zip(given.file):
        _import_archive(given)
        return
    text = read_text(given.file)
    from vianda.services import formulas, larders, pantry, service_files

    with kitchen_open(given.kitchen):
        heading = text.removeprefix("\ufeff").lstrip()
        if heading[:1] in ("{", "["):
            content = document(text)
            if isinstance(content, dict) and content.get("format") == "vianda-service":
                done = service_files.import_service(content)
                say({"service": done.stored.id, "name": done.stored.service.name,
                     "formulas_added": list(done.formulas_added), "remarks": list(done.remarks)})  # fmt: skip
            else:
                one = formulas.import_formula(content)
                say({"formula": one.stored.id, "name": one.stored.formula.name, "remarks": one.remarks()})
            return
        # A larder says of what animal each meat is, a pantry in which group each thing is.
        columns = heading.split("\n", 1)[0]
        rows = pantry.import_csv(text) if "group" in columns else larders.import_csv(text)
        say([{"line": r.line, "key": r.key, "outcome": r.outcome, "reason": r.reason} for r in rows])
        refused = sum(row.outcome == "refused" for row in rows)
        if refused:
            raise CommandError(Code.REFUSED, f"{refused} of {len(rows)} rows were refused; the others were taken in.")


def _is_zip(path: str) -> bool:
    try:
        with Path(path).open("rb") as file:
            # A zip, or one that is sealed.
            return file.read(2) in (b"PK", b"ag")
    except OSError as error:
        raise CommandError(Code.USAGE, f"cannot read {path}: {error.strerror or error}") from None


def _import_archive(given: argparse.Namespace) -> None:
    from vianda.interchange.sealed import opened
    from vianda.services import archives
    from vianda.services.archives import ArchiveReport

    with kitchen_open(given.kitchen), opened(Path(given.file), given.key) as plain, plain.open("rb") as file:
        bring = archives.look_at if given.look else archives.bring_in
        say_kind(ArchiveReport, bring(file, into=given.into, differing=given.differing))


def _export(given: argparse.Namespace) -> None:
    if (given.number is None) == (given.what in ("formula", "service")):
        wants = "wants its number" if given.number is None else "has no number"
        raise CommandError(Code.USAGE, f"export {given.what} {wants}.")
    import json

    from vianda.interchange.logbook_csv import logbook_csv
    from vianda.interchange.sealed import seal
    from vianda.interchange.weighings_csv import weighings_csv
    from vianda.services import archives, formulas, larders, logbook, pantry, service_files, services, weighings
    from vianda.storage.logbook_repository import LogQuery

    with kitchen_open(given.kitchen):
        content: str
        match given.what:
            case "kitchen":
                if given.output == "-":
                    raise CommandError(Code.USAGE, "an archive goes into a file: -o kitchen.vianda.zip")
                with written(given.output) as file:
                    name = archives.write_out(file)
                archive = seal(Path(given.output), given.encrypt_to) if given.encrypt_to else given.output
                say({"kitchen": name, "archive": str(archive)})
                return
            case "formula":
                content = json.dumps(formulas.export_formula(given.number)[1], indent=2, ensure_ascii=False) + "\n"
            case "service":
                content = json.dumps(service_files.export_service(given.number)[1], indent=2, ensure_ascii=False) + "\n"
            case "larder":
                content = larders.export_csv()
            case "pantry":
                content = pantry.export_csv()
            case "cooks":
                content = logbook_csv(logbook.log_rows(LogQuery()))
            case "weighings":
                content = weighings_csv(weighings.every_weighing())
            case _:
                content = services.calendar()
        with written(given.output) as file:
            file.write(content.encode())


def _kitchens(_: argparse.Namespace) -> None:
    from vianda.services import kitchens

    with kitchen_open(None):
        listed, here = kitchens.list_kitchens()
        say([{"kitchen": k.id, "name": k.name, "demo": k.demo, "open": k.id == here} for k in listed])


def _formulas(given: argparse.Namespace) -> None:
    from vianda.storage.formula_repository import list_formulas

    with kitchen_open(given.kitchen):
        say(
            [{"formula": f.id, "name": f.formula.name, "changed_at": f.updated_at.isoformat()} for f in list_formulas()]
        )
