"""The texts of what is sent to be kept: without what nobody sees, and no name that passes for another."""

from __future__ import annotations

import json

from vianda.api.problems import ProblemError, core_problem
from vianda.core.basis.errors import CoreError
from vianda.interchange.kept_texts import plain_texts


def plainly(raw: bytes) -> bytes:
    """JSON as it was sent, its texts as they are kept; what is no JSON is left for the reader to refuse."""
    # JSON holds controls only as escapes, so that most of what is sent is as plain as it looks.
    if raw.isascii() and not any(escape in raw for escape in (b"\\u", b"\\b", b"\\f")):
        return raw
    try:
        sent = json.loads(raw)
    except (ValueError, RecursionError):
        return raw
    try:
        plain = plain_texts(sent)
    except CoreError as error:
        raise ProblemError(core_problem(error, error.field)) from error
    return raw if plain == sent else json.dumps(plain).encode()
