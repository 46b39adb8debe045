"""File locks, so that two starts at once do not get into each other's way."""

from __future__ import annotations

import fcntl
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

from ops.tell import say


class TakenError(RuntimeError):
    """Another process holds the lock; ``note`` is what it wrote into it."""

    def __init__(self, note: str) -> None:
        super().__init__(note)
        self.note = note


def take(path: Path) -> IO[str]:
    """Hold a lock until the process ends, or raise ``TakenError`` at once."""
    path.parent.mkdir(parents=True, exist_ok=True)
    file = path.open("a+")
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        file.seek(0)
        note = file.read().strip()
        file.close()
        raise TakenError(note) from None
    return file


def note(file: IO[str], text: str) -> None:
    """Write into a held lock what others should know."""
    file.seek(0)
    file.truncate()
    file.write(text)
    file.flush()


@contextmanager
def waiting(path: Path, why: str) -> Iterator[None]:
    """Hold a lock for a while; wait when another holds it."""
    path.parent.mkdir(parents=True, exist_ok=True)
    with path.open("a+") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            say(f"· waiting: {why}")
            fcntl.flock(file, fcntl.LOCK_EX)
        yield
