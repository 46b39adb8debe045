"""The application as ./start runs it, for browser journeys: `vianda serve` and a private MariaDB."""

from __future__ import annotations

import os
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

from ops.mariadb import PrivateMariaDB, free_port

PROJECT = Path(__file__).resolve().parents[1]


class Served:
    """The application on a loopback port with its own database, as ./start runs it; both can be stopped and started."""

    def __init__(self, folder: Path, *, empty: bool, demo: bool = True, more: dict[str, str] | None = None) -> None:
        self.database = PrivateMariaDB(folder / "data", port=free_port())
        self.database.start()
        self.environment = {
            **os.environ,
            "VIANDA_DATABASE_URL": self.database.url,
            "VIANDA_PAGES": str(PROJECT / "frontend" / "dist"),
            **(more or {}),
        }
        command = [
            str(Path(sys.executable).parent / "vianda"),
            "prepare",
            *(["--demo"] if demo else []),
            *(["--empty"] if empty else []),
        ]
        subprocess.run(command, env=self.environment, check=True, capture_output=True)
        self.log = folder / "server.log"
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None
        self.start_server()

    def start_server(self) -> None:
        with self.log.open("ab") as log:
            self.process = subprocess.Popen(
                [str(Path(sys.executable).parent / "vianda"), "serve", "--port", str(self.port)],
                env=self.environment,
                stdout=log,
                stderr=log,
            )
        # How long is waited for, not how fast it must be: on a busy machine two workers take their time to load.
        deadline = time.monotonic() + 120
        while time.monotonic() < deadline and self.process.poll() is None:
            try:
                with urllib.request.urlopen(f"{self.address}/api/live", timeout=2):
                    return
            except OSError:
                time.sleep(0.1)
        self.stop_server()
        raise RuntimeError("the server did not start")

    def faults(self) -> list[str]:
        """Lines of the log that tell of a fault of the server's own."""
        found = self.log.read_text(errors="replace").splitlines() if self.log.exists() else []
        return [line for line in found if '"level": "ERROR"' in line or "Traceback" in line]

    def stop_server(self) -> None:
        if self.process is not None:
            self.process.terminate()
            self.process.wait(15)
            self.process = None

    def close(self) -> None:
        self.stop_server()
        self.database.stop()
