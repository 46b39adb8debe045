"""Compile a numerical function to machine code."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar, cast

F = TypeVar("F", bound=Callable[..., Any])


def compiled(function: F) -> F:
    """The same function as machine code; it lets other threads run, so that two cooks do not block each other.

    It is compiled when it is first called. Where the code is kept on disk is the affair of who runs it.

    Parameters
    ----------
    function : F
        A pure function.

    Returns
    -------
    F
        The same function as machine code.

    Examples
    --------
    >>> compiled(lambda x: x + 1.0)(1.0)
    2.0
    """
    from numba import njit

    return cast(F, njit(error_model="numpy", nogil=True)(function))
