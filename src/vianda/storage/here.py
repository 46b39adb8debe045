"""Which kitchen a request is about: every repository reads and writes the records of that one alone."""

from __future__ import annotations

from contextvars import ContextVar

from vianda.storage.records import NotFoundError
from vianda.storage.tables import KitchenRow

_here: ContextVar[int | None] = ContextVar("kitchen_here", default=None)
# The one chosen last, looked up once a request: what a request does is done in one kitchen.
_chosen: ContextVar[int | None] = ContextVar("kitchen_chosen", default=None)


def use_kitchen(kitchen_id: int | None) -> None:
    """Say which kitchen is meant from now on in this request; None for the one chosen last."""
    _here.set(kitchen_id)
    _chosen.set(None)


def choose_anew() -> None:
    """Look the kitchen chosen last up again: another was opened, or one is gone."""
    _chosen.set(None)


def chosen_kitchen() -> int | None:
    """The kitchen meant as far as it was said or looked up; None where nobody asked yet."""
    found = _here.get()
    return found if found is not None else _chosen.get()


def kitchen_here() -> int:
    """The kitchen meant, or else the one chosen last; ``NotFoundError`` before the first is set up."""
    found = _here.get()
    if found is None:
        found = _chosen.get()
    if found is not None:
        return found
    row = KitchenRow.select(KitchenRow.id).order_by(KitchenRow.chosen.desc(), KitchenRow.id).first()
    if row is None:
        raise NotFoundError("no kitchen")
    _chosen.set(row.id)
    return int(row.id)
