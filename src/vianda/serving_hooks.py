"""What gunicorn calls of ours: figures of all workers together on a port of this machine for whoever watches.

The port is named by VIANDA_ADMIN_PORT; without it nothing is opened. Each worker writes its figures into a folder, and
the master adds them up when it is asked (prometheus_client's own way with several processes).
"""

from __future__ import annotations

import os
from typing import Any

ADMIN_PORT, FOLDER = "VIANDA_ADMIN_PORT", "PROMETHEUS_MULTIPROC_DIR"


def when_ready(_server: Any) -> None:
    """Open the port once the workers may come."""
    port = os.environ.get(ADMIN_PORT)
    if not port:
        return
    from prometheus_client import CollectorRegistry, start_http_server
    from prometheus_client.multiprocess import MultiProcessCollector

    registry = CollectorRegistry()
    MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    start_http_server(int(port), addr="127.0.0.1", registry=registry)


def child_exit(_server: Any, worker: Any) -> None:
    """A worker that ended has no present figures any more."""
    if os.environ.get(FOLDER):
        from prometheus_client.multiprocess import mark_process_dead

        mark_process_dead(worker.pid)  # type: ignore[no-untyped-call]
