"""Which kitchen a request is about: the header or the query of a window says it, else the one opened last.

A window keeps to the kitchen it was opened in, so that a record of one is never written into another.
"""

from __future__ import annotations

from flask import request

from vianda.services import kitchens
from vianda.storage.records import NotFoundError

HEADER, QUERY = "Vianda-Kitchen", "kitchen"


def choose() -> None:
    """Take the kitchen that the request names; refuse one that is not there any more."""
    said = request.headers.get(HEADER) or request.args.get(QUERY, "")
    # The list of kitchens is how a window finds another when its own was deleted.
    if not said or request.path.startswith("/api/kitchens"):
        kitchens.here(None)
        return
    if not (said.isascii() and said.isdigit() and len(said) < 10) or not kitchens.is_kitchen(int(said)):
        kitchens.here(None)
        raise NotFoundError(f"kitchen {said[:10]}")
    kitchens.here(int(said))
