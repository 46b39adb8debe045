"""How every command answers: JSON on standard output, one plain line on standard error, and an exit code."""

from __future__ import annotations

import contextlib
import json
import os
import sys
from collections.abc import Iterator
from enum import IntEnum
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from vianda.core.basis.errors import CoreError

MOST_BYTES = 5_000_000


class Code(IntEnum):
    """What an exit code means; the same for every command."""

    DONE = 0
    REFUSED = 1
    USAGE = 2
    AWAY = 3


CODES = """exit codes:
  0  done
  1  refused: the file or the request breaks a rule; the reason is on standard error
  2  it was called wrongly, or a file cannot be read or written
  3  the database or a backup cannot be used"""


class CommandError(Exception):
    """Ends the command with a code and one line."""

    def __init__(self, code: Code, line: str) -> None:
        super().__init__(line)
        self.code = code


def say(content: Any) -> None:
    """Write a document to standard output as JSON."""
    print(json.dumps(content, indent=2, ensure_ascii=False))


def say_kind(kind: Any, value: Any) -> None:
    """Write one of the core's objects to standard output as JSON; what is not there is left out."""
    say(TypeAdapter(kind).dump_python(value, mode="json", exclude_none=True))


def refused(error: CoreError) -> CommandError:
    """What a rule refuses, with its place."""
    where = f" ({error.field})" if error.field else ""
    return CommandError(Code.REFUSED, f"{error.title}: {error.detail}{where}")


def read_text(path: str, *, most: int = MOST_BYTES) -> str:
    """The text of a file, or of standard input for ``-``."""
    try:
        if path == "-":
            text = sys.stdin.read(most + 1)
        else:
            with Path(path).open(encoding="utf-8") as file:
                text = file.read(most + 1)
    except (OSError, UnicodeDecodeError) as error:
        raise CommandError(Code.USAGE, f"cannot read {path}: {error}") from None
    if len(text) > most:
        raise CommandError(Code.USAGE, f"{path} is larger than {most // 1_000_000} MB.")
    return text


@contextlib.contextmanager
def written(path: str) -> Iterator[Any]:
    """A file to write to that is there whole or not at all; standard output for ``-``."""
    if path == "-":
        yield sys.stdout.buffer
        sys.stdout.buffer.flush()
        return
    part = Path(f"{path}.part")
    try:
        with part.open("wb") as file:
            yield file
        part.replace(path)
    except OSError as error:
        raise CommandError(Code.USAGE, f"cannot write {path}: {error.strerror or error}") from None
    finally:
        part.unlink(missing_ok=True)


@contextlib.contextmanager
def kitchen_open(kitchen: int | None) -> Iterator[None]:
    """The database of VIANDA_DATABASE_URL, and the kitchen that is meant: one by number, or the one opened last."""
    # Imported here: what works on a file alone needs no database, and should not wait for it.
    from vianda.services import kitchens
    from vianda.storage.database import DATABASE_ERRORS, BadDatabaseUrlError, blamed, connect_pool
    from vianda.storage.records import NotFoundError

    try:
        database = connect_pool(os.environ.get("VIANDA_DATABASE_URL", ""))
    except BadDatabaseUrlError as error:
        raise CommandError(Code.USAGE, str(error)) from None
    try:
        database.connect()
    except DATABASE_ERRORS as error:
        raise CommandError(Code.AWAY, f"the database cannot be used: {blamed(error)}.") from None
    with contextlib.closing(database):
        try:
            if kitchen is not None and not kitchens.is_kitchen(kitchen):
                raise CommandError(Code.REFUSED, f"there is no kitchen {kitchen}.")
            kitchens.here(kitchen)
            yield
        except NotFoundError as error:
            raise CommandError(Code.REFUSED, f"there is no such thing: {error}.") from None
        except DATABASE_ERRORS as error:
            raise CommandError(Code.AWAY, f"the database cannot be used: {blamed(error)}.") from None
        finally:
            kitchens.here(None)
