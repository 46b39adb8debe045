"""What a process remembers of the database, and how it forgets.

A cache is filled under the revision it was read at. Inside a transaction that is rolled back, that revision was never
true: another process may reach the same number with other rows. So a rollback forgets everything.
"""

from __future__ import annotations

from collections.abc import Callable

_FORGET: list[Callable[[], None]] = []


def on_rollback(forget: Callable[[], None]) -> None:
    """Have a cache emptied when a transaction is rolled back."""
    _FORGET.append(forget)


def forget_all() -> None:
    """Empty every cache of this process."""
    for forget in _FORGET:
        forget()
