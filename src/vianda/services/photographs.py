"""Photographs of a cook: read, written anew, captioned, given out and deleted."""

from __future__ import annotations

from vianda.core.basis.errors import OutOfRangeError
from vianda.interchange.photograph import read_photograph
from vianda.storage import photograph_repository
from vianda.storage.cook_repository import get_cook
from vianda.storage.photograph_repository import StoredPhotograph
from vianda.storage.transaction import transaction

MOST_A_COOK = 12


def add(cook_id: int, data: bytes) -> tuple[StoredPhotograph, ...]:
    """Keep a photograph of a cook; returns all of its."""
    get_cook(cook_id)
    # Read before anything is held: it takes a second.
    kept = read_photograph(data)
    with transaction():
        number = photograph_repository.add_photograph(
            cook_id, kept.jpeg, kept.small, width=kept.width, height=kept.height, most=MOST_A_COOK
        )
    if number is None:
        raise OutOfRangeError(f"A cook keeps at most {MOST_A_COOK} photographs; remove one first.")
    return of(cook_id)


def of(cook_id: int) -> tuple[StoredPhotograph, ...]:
    """Those of a cook, in the order in which they were added."""
    get_cook(cook_id)
    return tuple(photograph_repository.photographs_of([cook_id]))


def jpeg(photograph_id: int, *, small: bool) -> bytes:
    """One as a file."""
    return photograph_repository.jpeg_of(photograph_id, small=small)


def caption(photograph_id: int, text: str) -> None:
    """Say what is seen on one."""
    photograph_repository.set_caption(photograph_id, text.strip())


def remove(photograph_id: int) -> None:
    """Delete one for good."""
    photograph_repository.delete_photograph(photograph_id)
