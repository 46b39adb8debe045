"""How the application is served: gunicorn keeps the workers, and each takes a request only when it is whole.

A request that comes byte by byte, or not at all, waits in a buffer and holds no thread: the worker is waitress, which
reads with one loop and hands what is complete to its threads. gunicorn's own thread worker gave each connection a
thread, so that some twenty half-sent requests stopped everybody.
"""

from __future__ import annotations

import contextlib
import json
import logging
import os
import resource
import sys
import time
from typing import Any

from gunicorn.workers.base import Worker
from waitress import create_server, wasyncore
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.task import ErrorTask

from vianda.api.guard import ARCHIVES, HEADERS, LARGEST_FILE, LARGEST_UPLOAD

WORKERS, THREADS = 2, 24
# Connections a worker holds; one that says nothing for so long, s, is closed.
MOST_CONNECTIONS, SILENT_S = 2000, 30
# Bytes of a request line with its headers. A body is at most a photograph; what may hold less is refused by the app.
LARGEST_HEADER = 16_384
GRACE_S = 5
TICK_S = 1.0
# Names under which it is opened beyond this machine, by way of a proxy on it.
HOSTS = "VIANDA_HOSTS"
# Where that proxy asks from, if it is not this machine: of a container the address of its engine.
PROXY = "VIANDA_PROXY"


def _proxy() -> dict[str, Any]:
    """What is believed of who asks: where a proxy of this machine stands before it, what that says; else nothing."""
    if not os.environ.get(HOSTS, "").strip():
        return {}
    headers = {"x-forwarded-for", "x-forwarded-proto"}
    proxy = os.environ.get(PROXY, "127.0.0.1")
    return {"trusted_proxy": proxy, "trusted_proxy_count": 1, "trusted_proxy_headers": headers}


def command(*, port: int, workers: int = WORKERS, threads: int = THREADS, address: str = "127.0.0.1") -> list[str]:
    """What serves the application on a port; of a container's own address only where the engine keeps others out."""
    return [
        sys.executable, "-m", "gunicorn", "--workers", str(workers), "--threads", str(threads),
        "--worker-class", "vianda.serving.BufferedWorker", "--bind", f"{address}:{port}",
        "--config", "python:vianda.serving_hooks", "--no-control-socket",
        "--graceful-timeout", str(GRACE_S), "vianda.app:create_app()",
    ]  # fmt: skip


class Refusal(ErrorTask):
    """What is no request at all is refused as the application refuses: in JSON, with its headers."""

    def execute(self) -> None:
        error = self.request.error
        told = {
            "type": "urn:vianda:problem:malformed",
            "title": "The request cannot be read",
            "status": error.code,
            "detail": f"{error.reason}.",
            "fields": [],
        }
        body = json.dumps(told).encode()
        self.status = f"{error.code} {error.reason}"
        self.response_headers += [*HEADERS.items(), ("Content-Type", "application/problem+json")]
        self.response_headers += [("Cache-Control", "no-store"), ("Content-Length", str(len(body)))]
        self.set_close_on_finish()
        self.content_length = len(body)
        self.write(body)


class _Larger:
    """The settings of the server, but for how much a request may hold."""

    max_request_body_size = LARGEST_UPLOAD

    def __init__(self, settings: Any) -> None:
        self._settings = settings

    def __getattr__(self, name: str) -> Any:
        return getattr(self._settings, name)


class Parser(HTTPRequestParser):
    """Reads a request; only where archives are taken in may it hold one."""

    adj: Any

    def parse_header(self, header_plus: bytes) -> None:
        """The same, with another limit for archives."""
        super().parse_header(header_plus)
        if str(self.path).startswith(ARCHIVES):
            self.adj = _Larger(self.adj)


class Channel(HTTPChannel):
    """A connection."""

    parser_class = Parser

    error_task_class = Refusal


class BufferedWorker(Worker):
    """A worker of gunicorn that reads as waitress does."""

    def run(self) -> None:
        """Serve until told to stop; what is at work then has a moment to end."""
        self._allow_connections()
        # That somebody waits a moment for a thread is no news for a log.
        logging.getLogger("waitress.queue").setLevel(logging.ERROR)
        connections: dict[int, Any] = {}
        listeners = [wrapped.sock for wrapped in self.sockets]
        for listener in listeners:
            listener.setblocking(False)
        server = create_server(
            self.wsgi, map=connections, sockets=listeners, threads=self.cfg.threads, ident=None,
            connection_limit=MOST_CONNECTIONS, channel_timeout=SILENT_S, cleanup_interval=SILENT_S // 3,
            max_request_header_size=LARGEST_HEADER, max_request_body_size=LARGEST_FILE,
            # One more is read while one is answered: so it is seen when somebody hangs up.
            channel_request_lookahead=1, asyncore_use_poll=True, backlog=self.cfg.backlog, **_proxy(),
        )  # fmt: skip
        for one in list(connections.values()):
            if hasattr(one, "channel_class"):
                one.channel_class = Channel
        while self.alive and self.ppid == os.getppid():
            self.notify()
            wasyncore.loop(timeout=TICK_S, use_poll=True, map=connections, count=1)
        self._end(server, connections)

    def _end(self, server: Any, connections: dict[int, Any]) -> None:
        """Accept nothing more, and wait for what is at work."""
        with contextlib.suppress(OSError):
            server.close()
        until = time.monotonic() + self.cfg.graceful_timeout
        while time.monotonic() < until and any(getattr(c, "requests", None) for c in connections.values()):
            self.notify()
            wasyncore.loop(timeout=0.1, use_poll=True, map=connections, count=1)

    def _allow_connections(self) -> None:
        # Each connection is a file; the usual limit is a thousand.
        soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
        wanted = MOST_CONNECTIONS + 500
        if soft < wanted:
            with contextlib.suppress(ValueError, OSError):
                resource.setrlimit(resource.RLIMIT_NOFILE, (min(wanted, hard), hard))
