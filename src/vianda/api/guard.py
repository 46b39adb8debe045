"""Keep other web pages out of a loopback port, and say in headers what this page may do."""

from __future__ import annotations

import functools
import math
import time
from collections.abc import Callable
from typing import Any, TypeVar, cast
from urllib.parse import urlsplit

from flask import Flask, Response, after_this_request, current_app, request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from limits import parse

from vianda.api.problems import ProblemError, problem, too_large
from vianda.interchange.kitchen_archive import MEDIA_TYPE as ARCHIVE_TYPE
from vianda.interchange.photograph import LARGEST_BYTES

# Bytes a request may hold: what is typed, and one photograph.
LARGEST_BODY, LARGEST_FILE = 1_000_000, LARGEST_BYTES
# Where a whole kitchen is taken in, and how much that may be; more goes by the command line.
ARCHIVES, LARGEST_UPLOAD = "/api/archive/", 100_000_000
MOST_REQUESTS = "300 per second"
View = TypeVar("View", bound=Callable[..., Any])
# Under which an application keeps its own.
LIMITER = "vianda-limiter"
LOCAL_NAMES = frozenset({"127.0.0.1", "localhost", "[::1]"})
LOOPBACK = frozenset({"127.0.0.1", "::1"})

CONTENT_POLICY = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' data:",
        "font-src 'self'",
        "connect-src 'self'",
        "manifest-src 'self'",
        "base-uri 'none'",
        "form-action 'none'",
        "frame-ancestors 'none'",
    )
)
HEADERS = {
    "Content-Security-Policy": CONTENT_POLICY,
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=(), screen-wake-lock=(self)",
}


def _name_of(host: str) -> str:
    return host.rsplit(":", 1)[0] if not host.endswith("]") else host


def _place_of(origin: str) -> str | None:
    try:
        return urlsplit(origin).netloc
    except ValueError:
        # Brackets that do not close: no address of anything, so not this one.
        return None


def limited(rate: str, by: Callable[[], str], *, forgiven: bool = False) -> Callable[[View], View]:
    """A view that may be asked so often, counted by what ``by`` says; ``forgiven``: anew after one that was right.

    Each is counted before it is looked at, so that many at once are not looked at before they are counted.
    """
    most = parse(rate)

    def decorate(view: View) -> View:
        @functools.wraps(view)
        def run(**given: Any) -> Any:
            limiter: Limiter = current_app.extensions[LIMITER]
            if not limiter.enabled:
                return view(**given)
            key = (view.__name__, by())
            if not limiter.limiter.hit(most, *key):
                raise _too_often(limiter.limiter.get_window_stats(most, *key).reset_time - time.time())
            answer = view(**given)
            if forgiven:
                limiter.limiter.clear(most, *key)
            return answer

        return cast(View, run)

    return decorate


def _too_often(seconds: float) -> ProblemError:
    wait = max(1, math.ceil(seconds))

    @after_this_request
    def say_when(response: Response) -> Response:
        response.headers["Retry-After"] = str(wait)
        return response

    minutes = math.ceil(wait / 60)
    when = "a minute" if minutes == 1 else f"{minutes} minutes"
    return ProblemError(problem(429, "too-often", "Tried too often", f"That was tried too often. Wait {when}."))


def is_local() -> bool:
    """Whether it is asked from this machine, under a name of this machine alone."""
    return _name_of(request.host) in LOCAL_NAMES and (request.remote_addr or "") in LOOPBACK


def install(app: Flask) -> None:
    """Check Host and Origin on every request and set the headers on every answer."""
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_BODY
    app.config.setdefault("HOSTS", frozenset())

    def check() -> None:
        if not request.headers.get("Host"):
            raise ProblemError(problem(400, "malformed", "The request cannot be read", "The request names no host."))
        # A rebound DNS name reaches this port with its own name in Host.
        if not is_local() and _name_of(request.host).lower() not in app.config["HOSTS"]:
            raise ProblemError(problem(403, "foreign-host", "Not from here", "Vianda does not answer to that name."))
        origin = request.headers.get("Origin")
        if origin is not None and _place_of(origin) != request.host:
            raise ProblemError(
                problem(403, "foreign-origin", "Not from here", "Another page may not talk to this kitchen.")
            )
        if request.headers.get("Sec-Fetch-Site") in ("cross-site", "same-site") and request.path.startswith("/api/"):
            raise ProblemError(
                problem(403, "foreign-origin", "Not from here", "Another page may not talk to this kitchen.")
            )
        largest = LARGEST_FILE if request.mimetype.startswith("image/") else LARGEST_BODY
        if request.path.startswith(ARCHIVES) and request.mimetype == ARCHIVE_TYPE:
            largest = LARGEST_UPLOAD
        request.max_content_length = largest
        length = request.content_length
        if length is not None and length > largest:
            raise ProblemError(problem(413, "too-large", "That is too large", too_large(largest)))

    def headers(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        if request.is_secure:
            response.headers.setdefault("Strict-Transport-Security", "max-age=31536000")
        if request.path.startswith("/api/"):
            # A file that never changes says so itself.
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    app.before_request(check)
    app.after_request(headers)
    # A program that has run wild, not a cook: a drag asks some twenty times a second. Each process counts its own.
    app.config.setdefault("RATELIMIT_DEFAULT", MOST_REQUESTS)
    app.extensions[LIMITER] = Limiter(
        get_remote_address, app=app, storage_uri="memory://", strategy="fixed-window", headers_enabled=True
    )
