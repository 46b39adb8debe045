"""What is seen of requests from outside: a line of the log for what counts, and figures for whoever watches.

No line and no figure says who asked or what was typed: an operation, a status, how long it took, and a number that
the answer carries too, so that what somebody tells of can be found.
"""

from __future__ import annotations

import logging
import re
import secrets
import sys
import time
from typing import TextIO

from flask import Flask, Response, g, request
from prometheus_client import Counter, Histogram
from pythonjsonlogger.json import JsonFormatter

from vianda.api.permissions import WRITES
from vianda.services.again import AGAIN

LOG = logging.getLogger("vianda.requests")
HEADER = "X-Request-Id"
# A proxy's own number is taken over where it is one.
_NUMBER = re.compile(r"[A-Za-z0-9-]{8,64}")
# From here on a request is slow, s.
SLOW_S = 1.0
BOUNDS_S = (0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 5.0, 10.0, 30.0)

REQUESTS = Counter("vianda_requests", "Requests answered", ["operation", "status"])
SECONDS = Histogram("vianda_request_seconds", "How long an answer took", ["operation"], buckets=BOUNDS_S)
TAKEN_BACK = Counter("vianda_transactions_again", "Transactions that the database took back and that were done again")


def log_as_json(stream: TextIO = sys.stderr) -> None:
    """One JSON document a line, each with its time (UTC) and level."""
    handler = logging.StreamHandler(stream)
    formatter = JsonFormatter(
        "%(asctime)s %(levelname)s %(name)s %(message)s",
        rename_fields={"asctime": "at", "levelname": "level", "name": "of"},
    )
    formatter.converter = time.gmtime
    formatter.default_time_format, formatter.default_msec_format = "%Y-%m-%dT%H:%M:%S", "%s.%03dZ"
    handler.setFormatter(formatter)
    root = logging.getLogger("vianda")
    root.handlers[:] = [handler]
    root.setLevel(logging.INFO)
    root.propagate = False


def install(app: Flask) -> None:
    """Number each request, count it, and write down what counts."""
    if TAKEN_BACK.inc not in AGAIN:
        AGAIN.append(TAKEN_BACK.inc)

    def begin() -> None:
        said = request.headers.get(HEADER, "")
        g.request_id = said if _NUMBER.fullmatch(said) else secrets.token_hex(8)
        g.began_s = time.monotonic()

    def end(response: Response) -> Response:
        number = getattr(g, "request_id", "")
        response.headers[HEADER] = number
        if not request.path.startswith("/api/"):
            return response
        operation = (request.endpoint or "none").rsplit(".", 1)[-1]
        took_s = time.monotonic() - getattr(g, "began_s", time.monotonic())
        REQUESTS.labels(operation, str(response.status_code)).inc()
        SECONDS.labels(operation).observe(took_s)
        slow = took_s >= SLOW_S and not response.is_streamed
        if response.status_code >= 400 or slow or operation in WRITES:
            level = logging.ERROR if response.status_code >= 500 else logging.INFO
            seen = {
                "request": number, "operation": operation, "method": request.method,
                "status": response.status_code, "ms": round(took_s * 1000),
            }  # fmt: skip
            LOG.log(level, "answered", extra=seen)
        return response

    # The first to begin and the last to end.
    app.before_request_funcs.setdefault(None, []).insert(0, begin)
    app.after_request(end)
