"""The answer of a search, waited for or line by line: how far it is, then what was found, or why nothing was."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

from flask import Response, current_app, request
from pydantic import TypeAdapter

from vianda.api.problems import Problem, internal
from vianda.core.basis.errors import CoreError
from vianda.runtime.searching import Looking, Search

LINES = "application/x-ndjson"
_LOOKING = TypeAdapter(Looking)


def wants_lines() -> bool:
    """Whether the one who asks takes an answer line by line."""
    return LINES in request.accept_mimetypes.values()


def in_lines(search: Search[Any], answer: TypeAdapter[Any], refusal: Callable[[CoreError], Problem]) -> Response:
    """A line with ``looking`` now and then, and one with ``found`` or ``problem`` at the end.

    What is refused before the first line is refused as a whole.
    """
    steps = search.steps()
    first = next(steps)
    log = current_app.logger

    def lines() -> Iterator[bytes]:
        # A browser that hangs up ends the generator, and with it the search.
        try:
            yield line(first)
            for step in steps:
                yield line(step)
        except CoreError as error:
            yield b'{"problem":' + refusal(error).model_dump_json(exclude_none=True).encode() + b"}\n"
        except Exception:
            # The status went out with the first line: what broke is said in the last.
            log.exception("a search broke")
            yield b'{"problem":' + internal().model_dump_json(exclude_none=True).encode() + b"}\n"
        finally:
            steps.close()

    def line(step: Any) -> bytes:
        if isinstance(step, Looking):
            return b'{"looking":' + _LOOKING.dump_json(step) + b"}\n"
        return b'{"found":' + answer.dump_json(step, exclude_none=True) + b"}\n"

    response = Response(lines(), content_type=LINES, headers={"Cache-Control": "no-store"})
    # Before its first line nobody has begun the generator, and closing it would not reach the search.
    response.call_on_close(steps.close)
    return response
