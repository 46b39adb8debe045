"""Who asks, and for what: known to every repository of a request, so that a change is written with its name."""

from __future__ import annotations

from contextvars import ContextVar
from dataclasses import dataclass, field


@dataclass(slots=True)
class Actor:
    """A person who is signed in, and the change they ask for ("" for none).

    ``about`` is the address asked for, ``made`` that of what is new. ``noted``: it stands in the audit log.
    """

    person_id: int
    name: str
    action: str = ""
    about: str = ""
    made: str = ""
    noted: bool = field(default=False)


_actor: ContextVar[Actor | None] = ContextVar("actor", default=None)


def acts(actor: Actor | None) -> None:
    """Say who asks from now on in this request; None for the cook of a kitchen without accounts."""
    _actor.set(actor)


def actor() -> Actor | None:
    """Who asks."""
    return _actor.get()


def actor_name() -> str:
    """Their name, "" where there are no accounts."""
    found = _actor.get()
    return found.name if found is not None else ""


def made(address: str) -> None:
    """Say where what is new is found: the address that was asked for has no number of it yet.

    Of several the first is named; an address that is of a thing already stays (a copy is told by what was copied).
    """
    found = _actor.get()
    if found is not None and not found.made and not any(part.isdigit() for part in found.about.split("/")):
        found.made = address


def done_before() -> None:
    """Say that what is asked for was done already: whoever repeats it changes nothing, and has no line of their own."""
    found = _actor.get()
    if found is not None:
        found.noted = True
