"""A device that several people use: what one did waits for them, and never goes under another's name."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import APIRequestContext, Page, expect

from served import Served
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

WORDS = {
    "Ines Holm": "seven herring crates at dawn",
    "Odd Berg": "nine lanterns over the slipway",
    "Liv Sand": "four kettles under the pier",
}


@pytest.fixture(scope="module")
def galley(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    served = Served(tmp_path_factory.mktemp("shared"), empty=False)
    yield served
    served.close()


def _post(request: APIRequestContext, served: Served, path: str, body: object) -> dict:
    done = request.post(f"{served.address}/api{path}", data=body)
    assert done.ok, done.text()
    return done.json()


def _come_in(request: APIRequestContext, served: Served, name: str) -> dict:
    return _post(request, served, "/session", {"name": name, "password": WORDS[name]})


@pytest.fixture
def owner(watch, galley) -> APIRequestContext:
    """The owner's requests; two cooks are let in."""
    request = watch(galley).page.request
    accounts = request.get(f"{galley.address}/api/session").json()["accounts"]
    if accounts:
        _come_in(request, galley, "Ines Holm")
        return request
    _post(request, galley, "/session/first-owner", {"name": "Ines Holm", "password": WORDS["Ines Holm"]})
    for name in ("Odd Berg", "Liv Sand"):
        asked = _post(request, galley, "/people/invitations", {"name": name, "role": "cook"})
        token = asked["link"].split("#")[1]
        browser = watch(galley).page.request
        _post(browser, galley, "/invitations/accept", {"token": token, "password": WORDS[name]})
    return request


def _cook(owner: APIRequestContext, served: Served) -> int:
    made = _post(owner, served, "/formulas", {"formula": FORMULAS.plain(slipway_smash())})
    return _post(owner, served, "/cooks", {"formula_id": made["id"]})["id"]


def _reported(owner: APIRequestContext, served: Served, cook: int) -> list[str]:
    """Who reported from the stove, the first one first."""
    lines = _post(owner, served, "/audit", {}) or []
    mine = [line for line in lines if line["about"] == f"/api/cooks/{cook}/events"]
    return [line["person"] for line in reversed(mine)]


def _until(page: Page, holds: Callable[[], bool]) -> None:
    """What no page shows is asked for again and again."""
    for _ in range(240):
        if holds():
            return
        page.wait_for_timeout(250)
    assert holds()


def _is_reported(page: Page, owner: APIRequestContext, served: Served, cook: int, who: list[str]) -> None:
    """What waits is sent by itself; here it is waited for."""
    _until(page, lambda: _reported(owner, served, cook) == who)


def _sign_in(where, name: str) -> None:
    where.get_by_label("Name").fill(name)
    where.get_by_label("Password", exact=True).fill(WORDS[name])
    where.get_by_role("button", name="Sign in", exact=True).click()


def test_what_one_cook_did_is_not_sent_under_the_name_of_the_next(watch, galley, owner) -> None:
    cook = _cook(owner, galley)
    device = watch(galley)
    device.expected = {0, 401}
    page = device.page
    _come_in(page.request, galley, "Odd Berg")
    device.go(f"/stove/{cook}")
    expect(page.get_by_role("button", name="It is hot")).to_be_visible()

    # The line drops, Odd goes on, and Liv signs in at the same browser meanwhile.
    page.context.set_offline(True)
    page.get_by_role("button", name="It is hot").click()
    expect(page.get_by_role("button", name="They are on")).to_be_visible()
    _come_in(page.request, galley, "Liv Sand")
    page.context.set_offline(False)
    sheet = page.get_by_role("dialog", name="Liv Sand is signed in")
    expect(sheet).to_contain_text("it waits here for Odd Berg")
    assert device.axe() == []
    assert _reported(owner, galley, cook) == []
    # Odd signs in again: it is sent, and it is his.
    sheet.get_by_role("button", name="Sign in as Odd Berg").click()
    assert device.axe() == []
    _sign_in(sheet, "Odd Berg")
    expect(sheet).to_be_hidden()
    _is_reported(page, owner, galley, cook, ["Odd Berg"])

    # Once more; Liv goes on this time, and finds the stove as it was reported.
    page.context.set_offline(True)
    page.get_by_role("button", name="They are on").click()
    expect(page.get_by_role("button", name="They are on")).to_be_hidden()
    _come_in(page.request, galley, "Liv Sand")
    page.context.set_offline(False)
    page.get_by_role("button", name="Go on as Liv Sand").click()
    expect(page.get_by_role("button", name="They are on")).to_be_visible()
    assert _reported(owner, galley, cook) == ["Odd Berg"]
    page.get_by_role("button", name="They are on").click()
    expect(page.get_by_role("button", name="They are on")).to_be_hidden()
    _is_reported(page, owner, galley, cook, ["Odd Berg", "Liv Sand"])


@pytest.mark.parametrize("kept", [True, False])
def test_who_signs_out_is_told_what_waits_and_leaves_nothing_else_behind(watch, galley, owner, kept: bool) -> None:
    cook = _cook(owner, galley)
    device = watch(galley, width=390, height=844)
    device.expected = {503}
    page = device.page
    _come_in(page.request, galley, "Odd Berg")
    # A list that was fetched, and a report that the server does not take.
    device.go("/shopping")
    expect(page.get_by_role("heading", name="Shopping")).to_be_visible()
    _until(page, lambda: any(key.startswith("vianda.shopping") for key in page.evaluate("Object.keys(localStorage)")))
    page.route("**/api/cooks/*/events", lambda route: route.fulfill(status=503, json={"status": 503, "detail": "away"}))
    device.go(f"/stove/{cook}")
    page.get_by_role("button", name="It is hot").click()
    expect(page.get_by_role("button", name="They are on")).to_be_visible()
    device.go("/account")
    page.get_by_role("button", name="Sign out", exact=True).click()
    sheet = page.get_by_role("dialog", name="Not everything is sent yet")
    expect(sheet).to_contain_text("Not sent: 1 list of reports, ticks or notes.")
    assert device.axe() == []
    page.get_by_role("button", name=re.compile("and keep" if kept else "and delete")).click()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    left = page.evaluate("Object.keys(localStorage).filter((key) => key.includes('@'))")
    assert [re.sub(r"@\d+$", "", key) for key in left] == ([f"vianda.stove.{cook}"] if kept else [])
    assert _reported(owner, galley, cook) == []
    # Whoever comes next sees nothing of it; Odd's goes when Odd is back.
    page.unroute("**/api/cooks/*/events")
    _sign_in(page, "Liv Sand")
    expect(page.get_by_role("heading", name="Liv Sand")).to_be_visible()
    device.go(f"/stove/{cook}")
    expect(page.get_by_role("button", name="It is hot")).to_be_visible()
    device.go("/account")
    page.get_by_role("button", name="Sign out", exact=True).click()
    expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
    _sign_in(page, "Odd Berg")
    expect(page.get_by_role("heading", name="Odd Berg")).to_be_visible()
    device.go(f"/stove/{cook}")
    expect(page.get_by_role("button", name="They are on" if kept else "It is hot")).to_be_visible()
    _is_reported(page, owner, galley, cook, ["Odd Berg"] if kept else [])
