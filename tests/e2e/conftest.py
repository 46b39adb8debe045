"""A real browser on the served application; every page is watched for errors and for requests that leave."""

from __future__ import annotations

import io
import json
import re
import subprocess
import sys
from collections.abc import Callable, Iterator
from contextlib import redirect_stdout
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from served import PROJECT, Served
from vianda.cli.main import main

# How long a state is waited for, not how fast it must come: on a busy machine a first curve takes seconds, and a
# machine that stood still for twenty has failed a journey in which nothing was wrong.
PATIENCE_MS = 60_000
expect.set_options(timeout=PATIENCE_MS)
AXE = PROJECT / "frontend" / "node_modules" / "axe-core" / "axe.min.js"


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    for item in items:
        if "e2e" in str(item.fspath):
            item.add_marker("e2e")


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict:
    from ops.install import find

    # Chromium in a container started by root has no sandbox to use; the pages are our own.
    return {"executable_path": find("chromium"), "args": ["--no-sandbox", "--disable-background-networking"]}


@pytest.fixture(scope="session", autouse=True)
def compiled() -> None:
    """The simulation's machine code is there before a page asks for it, as it is after every start."""
    subprocess.run([sys.executable, "-m", "vianda.runtime.machine_code"], check=True)


class Watched:
    """A page with what went wrong on it. ``expected`` are the statuses a journey provokes on purpose."""

    def __init__(self, page: Page, served: Served) -> None:
        self.page = page
        self.served = served
        self.expected: set[int] = set()
        self.errors: list[str] = []
        self.foreign: list[str] = []
        page.on("pageerror", lambda e: self.errors.append(f"page error: {e}"))
        page.on("console", self._console)
        page.on("request", self._request)

    def _console(self, message) -> None:
        if message.type not in ("error", "warning"):
            return
        # Journeys that are not about it keep the shell's worker out, and the browser says so.
        if "Service Worker registration blocked" in message.text:
            return
        status = re.search(r"status of (\d{3})", message.text)
        refused = "ERR_CONNECTION_REFUSED" in message.text or any(
            away in message.text
            for away in ("ERR_EMPTY_RESPONSE", "ERR_INTERNET_DISCONNECTED", "ERR_INCOMPLETE_CHUNKED")
        )
        if (status and int(status.group(1)) in self.expected) or (refused and 0 in self.expected):
            return
        self.errors.append(f"console {message.type}: {message.text}")

    def _request(self, request) -> None:
        if not request.url.startswith((self.served.address, "data:", "blob:")):
            self.foreign.append(request.url)

    def go(self, path: str) -> None:
        self.page.goto(self.served.address + path)

    def get(self, path: str):
        return self.page.request.get(f"{self.served.address}/api{path}").json()

    def formula_id(self) -> int:
        return int(re.search(r"/formula/(\d+)", self.page.url).group(1))

    def saved(self) -> None:
        # The ticket says so from the moment an edit is made, so an older "Saved" is never taken for this one.
        expect(self.page.locator("[data-settled=true]")).to_be_visible()
        expect(self.page.get_by_text("Saved", exact=True)).to_be_visible()

    def axe(self) -> list[str]:
        """What axe-core finds by WCAG A and AA, as lines."""
        self.page.evaluate(AXE.read_text())
        # Only violations are written out in full: a long table that passes costs axe more than one that fails.
        found = self.page.evaluate(
            "axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],"
            " resultTypes: ['violations']})"
        )
        return [
            f"{v['impact']} {v['id']}: {[n['target'] for n in v['nodes']][:3]} {v['nodes'][0].get('failureSummary')}"
            for v in found["violations"]
        ]


@pytest.fixture
def watch(browser: Browser) -> Iterator[Callable[..., Watched]]:
    """Open watched pages; at the end none may have erred or left the machine."""
    opened: list[Watched] = []
    contexts: list[BrowserContext] = []

    def open_page(
        served: Served, *, width: int = 1280, height: int = 800, beside: Watched | None = None, shell: bool = False
    ) -> Watched:
        # What keeps the shell for when the line is down stands between page and server: only its own journey has it.
        workers = "allow" if shell else "block"
        if beside is None:
            context = browser.new_context(viewport={"width": width, "height": height}, service_workers=workers)
            contexts.append(context)
        else:
            context = beside.page.context
        context.set_default_timeout(PATIENCE_MS)
        watched = Watched(context.new_page(), served)
        opened.append(watched)
        return watched

    yield open_page
    errors = [e for w in opened for e in w.errors]
    if errors:
        # A page is told that the fault is the server's; what it was stands in the log.
        errors += [fault for served in {w.served for w in opened} for fault in served.faults()[-3:]]
    foreign = [u for w in opened for u in w.foreign]
    for context in contexts:
        context.close()
    assert errors == []
    assert foreign == []


@pytest.fixture
def from_the_command_line(tmp_path: Path) -> Callable[[Watched], dict]:
    """What ``vianda evaluate`` says of the formula on the bench, by way of its exported file."""

    def run(watched: Watched) -> dict:
        watched.saved()
        file = tmp_path / "export.json"
        file.write_text(json.dumps(watched.get(f"/formulas/{watched.formula_id()}/export")), encoding="utf-8")
        # In this process: a new one would load the heat's machine code anew each time (a process of its own is tried in
        # tests/api/test_command_line.py).
        with redirect_stdout(io.StringIO()) as printed:
            assert main(["evaluate", str(file)]) == 0
        return json.loads(printed.getvalue())

    return run
