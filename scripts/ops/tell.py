"""What the start and check commands say: short lines, one for each long step, one for each refusal."""

from __future__ import annotations

import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import NoReturn


def say(text: str) -> None:
    """One line to the terminal, at once."""
    print(text, flush=True)


def refuse(what: str, do: str) -> NoReturn:
    """End with one plain line: what is wrong, and what to do."""
    print(f"vianda: {what} {do}", file=sys.stderr, flush=True)
    raise SystemExit(1)


@contextmanager
def step(text: str) -> Iterator[None]:
    """A long step: named when it begins, timed when it ends."""
    say(f"· {text} …")
    began = time.monotonic()
    yield
    say(f"  done in {time.monotonic() - began:.1f} s")
