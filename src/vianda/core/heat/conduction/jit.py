"""Compile a numerical function to machine code, once for each state of the sources, and keep it beside them."""

from __future__ import annotations

import hashlib
import shutil
from collections.abc import Callable, Iterable
from functools import lru_cache
from pathlib import Path
from typing import Any, TypeVar, cast

F = TypeVar("F", bound=Callable[..., Any])

HERE = Path(__file__).parent
KEPT_IN = HERE / "__pycache__"


def compiled(function: F) -> F:
    """The same function as machine code; it lets other threads run, so that two cooks do not block each other.

    Examples
    --------
    >>> compiled(lambda x: x + 1.0)(1.0)
    2.0
    """
    from numba import config, njit

    # Numba looks only whether a function's own file has changed, not those whose functions went into its code.
    config.CACHE_DIR = str(KEPT_IN / _now())
    return cast(F, njit(cache=function.__name__ != "<lambda>", error_model="numpy", nogil=True)(function))


def folder_name(sources: Iterable[Path]) -> str:
    """Where machine code made from these sources lies: another folder when a word of any has changed.

    Examples
    --------
    >>> folder_name([]).startswith("machine-")
    True
    """
    digest = hashlib.blake2b(digest_size=8)
    for path in sorted(sources):
        digest.update(path.name.encode() + b"\0" + path.read_bytes())
    return f"machine-{digest.hexdigest()}"


@lru_cache(maxsize=1)
def _now() -> str:
    return folder_name(HERE.glob("*.py"))


def forget_older() -> None:
    """Remove machine code that was made from other states of the sources."""
    for folder in KEPT_IN.glob("machine-*"):
        if folder.name != _now():
            shutil.rmtree(folder, ignore_errors=True)
