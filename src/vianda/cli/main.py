"""The command ``vianda``: which commands there are, and how each ends."""

from __future__ import annotations

import argparse
import sys

from vianda.cli import documents, keeping, on_files, on_kitchens, on_people
from vianda.cli.answers import CODES, Code, CommandError, refused
from vianda.core.basis.errors import CoreError


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="vianda",
        description="The bench companion for minced beef. Answers are JSON on standard output; what is wrong is one "
        "line on standard error. Commands on kitchens work on the database of VIANDA_DATABASE_URL; of a kitchen that "
        "./start keeps, say ./start --do COMMAND.",
        epilog=CODES,
        formatter_class=argparse.RawDescriptionHelpFormatter,
    )
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    for module in (on_files, on_kitchens, on_people, keeping, documents):
        module.add(commands)
    return parser


def main(arguments: list[str] | None = None) -> int:
    """Run one command and return its exit code."""
    given = _parser().parse_args(arguments)
    try:
        given.run(given)
    except CoreError as error:
        return _end(refused(error))
    except CommandError as error:
        return _end(error)
    return Code.DONE


def _end(error: CommandError) -> int:
    print(f"vianda: {error}", file=sys.stderr)
    return error.code


if __name__ == "__main__":
    raise SystemExit(main())
