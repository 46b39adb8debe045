"""What is seen of requests from outside: a number each, a line of the log for what counts, figures, readiness."""

from __future__ import annotations

import io
import json
import logging
import re
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from prometheus_client import REGISTRY

from ops.mariadb import free_port
from served import Served
from vianda.api.observed import HEADER, log_as_json
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


@pytest.fixture
def log() -> io.StringIO:
    """What would stand in the log."""
    out = io.StringIO()
    root = logging.getLogger("vianda")
    before = (root.handlers[:], root.level, root.propagate)
    log_as_json(out)
    yield out
    root.handlers[:], root.level, root.propagate = before[0], before[1], before[2]


def _lines(log: io.StringIO) -> list[dict]:
    return [json.loads(line) for line in log.getvalue().splitlines()]


def test_each_answer_has_a_number_and_a_proxys_is_taken_over(client) -> None:
    one, two = (client.get("/api/live").headers[HEADER] for _ in range(2))
    assert one != two
    assert re.fullmatch(r"[0-9a-f]{16}", one)
    assert client.get("/api/live", headers={HEADER: "proxy-4711-a"}).headers[HEADER] == "proxy-4711-a"
    for odd in ("x", "a" * 65, "two words", "line\tend"):
        assert client.get("/api/live", headers={HEADER: odd}).headers[HEADER] != odd


def test_a_write_and_a_refusal_are_written_down_and_a_read_is_not(client, log) -> None:
    client.get("/api/formulas")
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())})
    client.get("/api/formulas/999999")
    first, second = _lines(log)
    assert (first["operation"], first["method"], first["status"]) == ("create_formula", "POST", 201)
    assert first["request"] == made.headers[HEADER]
    assert re.fullmatch(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z", first["at"])
    assert (second["operation"], second["status"]) == ("get_formula", 404)


def test_no_line_says_who_asked_or_what_was_typed(client, log, monkeypatch: pytest.MonkeyPatch) -> None:
    words = "seven herring crates at dawn"
    client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": words})
    client.post("/api/session", json={"name": "Ines Holm", "password": "nine lanterns"})
    client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash()) | {"remark": "a secret"}})
    text = log.getvalue()
    assert len(_lines(log)) >= 2
    for word in ("Ines", "Holm", words, "lanterns", "secret", "127.0.0.1", "Slipway"):
        assert word not in text


def test_answers_are_counted_by_operation_and_status(client) -> None:
    def count() -> float:
        return (
            REGISTRY.get_sample_value("vianda_requests_total", {"operation": "list_formulas", "status": "200"}) or 0.0
        )

    before = count()
    client.get("/api/formulas")
    client.get("/api/formulas")
    assert count() == before + 2


def test_ready_says_what_a_database_waits_for(client, monkeypatch: pytest.MonkeyPatch) -> None:
    assert client.get("/api/ready").get_json() == {"ready": True, "why": ""}
    monkeypatch.setattr("vianda.api.bench_routes.pending_here", lambda: ["0099"])
    waits = client.get("/api/ready")
    assert waits.status_code == 503
    assert "0099" in waits.get_json()["why"]


def test_figures_of_all_workers_are_on_a_port_of_this_machine(tmp_path: Path) -> None:
    served = Served(tmp_path, empty=True)
    try:
        served.stop_server()
        admin = free_port()
        program = str(Path(sys.executable).parent / "vianda")
        served.process = subprocess.Popen(
            [program, "serve", "--port", str(served.port), "--admin-port", str(admin)],
            env=served.environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
        deadline = time.monotonic() + 120
        while time.monotonic() < deadline:
            try:
                for _ in range(30):
                    urllib.request.urlopen(f"{served.address}/api/formulas", timeout=5).read()
                break
            except OSError:
                time.sleep(0.2)
        text = urllib.request.urlopen(f"http://127.0.0.1:{admin}/metrics", timeout=20).read().decode()
        counted = re.search(r'vianda_requests_total\{operation="list_formulas",status="200"\} (\d+)', text)
        # Whichever worker answered: all of them together.
        assert int(counted[1]) >= 30
        assert "vianda_request_seconds_bucket" in text
        # And they are not on the port of the kitchen.
        page = urllib.request.urlopen(f"{served.address}/metrics", timeout=20).read().decode()
        assert "vianda_requests_total" not in page
    finally:
        served.close()
