"""Errors as ``application/problem+json`` (RFC 9457): a stable type, a sentence for people, JSON pointers."""

from __future__ import annotations

from http import HTTPStatus
from typing import Any

from flask import Flask, Response, current_app, json, request
from pydantic import BaseModel, ValidationError
from pydantic_core import ErrorDetails
from werkzeug.exceptions import HTTPException, MethodNotAllowed

from vianda.core.basis.bounds import REFUSALS
from vianda.core.basis.errors import CoreError
from vianda.runtime.heavy import NobodyWaitsError, TooManyError
from vianda.storage.database import DATABASE_AWAY, DATABASE_ERRORS, asked_with_letters, damage
from vianda.storage.records import ConflictError, NotFoundError

PREFIX = "urn:vianda:problem:"


class FieldProblem(BaseModel):
    """One place in the request and what is wrong there."""

    pointer: str
    detail: str


class Problem(BaseModel):
    """A problem as sent. ``current`` is what stands in the kitchen when someone else was faster."""

    type: str
    title: str
    status: int
    detail: str
    fields: list[FieldProblem] = []
    current: Any | None = None


class ProblemError(Exception):
    """A problem raised by the web layer itself."""

    def __init__(self, problem: Problem) -> None:
        super().__init__(problem.detail)
        self.problem = problem


def problem(
    status: int, code: str, title: str, detail: str, *, fields: list[FieldProblem] | None = None, current: Any = None
) -> Problem:
    """A problem with our type prefix."""
    return Problem(type=PREFIX + code, title=title, status=status, detail=detail, fields=fields or [], current=current)


def problem_response(body: Problem) -> Response:
    """The response that carries a problem."""
    return Response(
        body.model_dump_json(exclude_none=True), status=body.status, content_type="application/problem+json"
    )


def core_problem(error: CoreError, pointer: str) -> Problem:
    """What the trade refuses, at its place in the request."""
    fields = [FieldProblem(pointer=pointer, detail=error.detail)] if pointer else []
    return problem(422, error.code, error.title, error.detail, fields=fields)


def too_large(largest: int) -> str:
    """What is said of a request that holds more than so many bytes."""
    return f"A request may hold at most {largest // 1_000_000} MB."


def internal() -> Problem:
    """What was not foreseen."""
    return problem(500, "internal", "Something broke here", "The fault is ours and was written to the log.")


def _pointer(found: ErrorDetails) -> str:
    """A JSON pointer to where something was found; a variant of a union is no place in the body."""
    refused = found.get("ctx", {}).get("error")
    inside = refused.field if isinstance(refused, CoreError) else ""
    return "".join(f"/{part}" for part in found["loc"]) + inside


def _detail(found: ErrorDetails) -> str:
    refused = found.get("ctx", {}).get("error")
    if isinstance(refused, CoreError):
        return refused.detail
    if found["type"] == "predicate_failed":
        return REFUSALS.get(found["msg"].split("'")[1], found["msg"])
    return found["msg"]


def from_validation(error: ValidationError) -> Problem:
    """A problem with one pointer a finding; inputs are not echoed."""
    found = error.errors(include_url=False, include_input=False)[:20]
    fields = [FieldProblem(pointer=_pointer(e), detail=_detail(e)) for e in found]
    malformed = any(e["type"] == "json_invalid" for e in error.errors(include_input=False))
    if malformed:
        return problem(400, "malformed", "The request is not JSON", f"{fields[0].detail}.")
    for at, e in enumerate(found):
        refused = e.get("ctx", {}).get("error")
        if isinstance(refused, CoreError):
            # The trade refused it, and says so in its own words.
            return problem(422, refused.code, refused.title, refused.detail, fields=[fields[at]])
    where = fields[0].pointer or "the request"
    return problem(422, "invalid", "A value does not fit", f"{where}: {fields[0].detail}.", fields=fields)


_HTTP = {
    404: ("not-found", "There is nothing here"),
    405: ("method", "That cannot be done here"),
    413: ("too-large", "That is too large"),
    415: ("media-type", "Send JSON"),
}


def register(app: Flask, current_of: dict[type, Any]) -> None:
    """Map every exception to a problem. ``current_of`` turns stored records into what a 409 carries."""

    def reply(body: Problem) -> Response:
        return problem_response(body)

    app.register_error_handler(ProblemError, lambda e: reply(e.problem))
    app.register_error_handler(ValidationError, lambda e: reply(from_validation(e)))

    def core(e: CoreError) -> Response:
        return reply(core_problem(e, e.field))

    def missing(e: NotFoundError) -> Response:
        return reply(problem(404, "not-found", "There is nothing here", f"There is no such thing: {e}."))

    def conflict(e: ConflictError) -> Response:
        dump = current_of.get(type(e.current))
        return reply(
            problem(
                409,
                "conflict",
                "Someone saved in between",
                "This was saved in another window since you opened it. Both texts are kept: choose which stands.",
                current=dump(e.current) if dump else None,
            )
        )

    def broken(e: Exception) -> Response:
        told = damage(e)
        if told is None:
            return unknown(e)
        current_app.logger.error("database damaged: %s", told)
        return reply(
            problem(
                500,
                "store-damaged",
                "The store is damaged",
                f"The database says: {told.rstrip('.')}. What was kept there may be lost. Stop Vianda and bring back "
                "the newest backup (./start --restore FILE; docs/operations.md). What you typed stays in this window.",
            )
        )

    def away(e: Exception) -> Response:
        if damage(e) is not None:
            return broken(e)
        if asked_with_letters(e):
            return reply(
                problem(422, "invalid", "A value does not fit", "A key is asked for with signs that no key has.")
            )
        current_app.logger.warning("database away: %s", type(e).__name__)
        text = str(e).lower()
        if "full" in text or "no space" in text:
            return reply(
                problem(507, "disk-full", "The disk is full", "Nothing was saved: make room on the disk and try again.")
            )
        return reply(
            problem(
                503,
                "store-away",
                "The store does not answer",
                "Nothing was lost: what you typed stays in this window. The bench and the logbook send it by "
                "themselves; send any other form again when the store is back.",
            )
        )

    def too_many(_: TooManyError) -> Response:
        response = reply(
            problem(
                429,
                "too-many",
                "Too much is computed at once",
                "The kitchen's computer works on as many long runs as it takes. Ask again in a moment.",
            )
        )
        response.headers["Retry-After"] = "2"
        return response

    def gone(_: NobodyWaitsError) -> Response:
        # Nobody reads it; the status is that of a request its sender broke off.
        return Response(status=499)

    def http(e: HTTPException) -> Response:
        status = e.code or 500
        code, title = _HTTP.get(status, ("http", HTTPStatus(status).phrase))
        largest = request.max_content_length
        detail = title + "."
        if status == HTTPStatus.NOT_FOUND:
            detail = "There is nothing at that address."
        elif status == HTTPStatus.REQUEST_ENTITY_TOO_LARGE and largest is not None:
            detail = too_large(largest)
        response = reply(problem(status, code, title, detail))
        if isinstance(e, MethodNotAllowed) and e.valid_methods:
            response.headers["Allow"] = ", ".join(sorted(e.valid_methods))
        return response

    def unknown(e: Exception) -> Response:
        current_app.logger.exception("unexpected error")
        return reply(internal())

    app.register_error_handler(CoreError, core)
    app.register_error_handler(TooManyError, too_many)
    app.register_error_handler(NobodyWaitsError, gone)
    app.register_error_handler(NotFoundError, missing)
    app.register_error_handler(ConflictError, conflict)
    app.register_error_handler(DATABASE_ERRORS[0], broken)
    for kind in DATABASE_AWAY:
        app.register_error_handler(kind, away)
    app.register_error_handler(HTTPException, http)
    app.register_error_handler(Exception, unknown)


def dump(model: BaseModel) -> Any:
    """A model as plain JSON values, for ``current``."""
    return json.loads(model.model_dump_json())
