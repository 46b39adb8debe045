"""Which kitchen a request is about: every repository reads and writes the records of that one alone."""

from __future__ import annotations

from contextvars import ContextVar

from vianda.storage.records import NotFoundError
from vianda.storage.tables import KitchenRow

_here: ContextVar[int | None] = ContextVar("kitchen_here", default=None)


def use_kitchen(kitchen_id: int | None) -> None:
    """Say which kitchen is meant from now on in this request; None for the one chosen last."""
    _here.set(kitchen_id)


def kitchen_here() -> int:
    """The kitchen meant, or else the one chosen last; ``NotFoundError`` before the first is set up."""
    found = _here.get()
    if found is not None:
        return found
    row = KitchenRow.select(KitchenRow.id).order_by(KitchenRow.chosen.desc(), KitchenRow.id).first()
    if row is None:
        raise NotFoundError("no kitchen")
    return int(row.id)
