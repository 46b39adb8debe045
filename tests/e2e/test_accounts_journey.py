"""Accounts as a kitchen comes to them: an owner, a cook by invitation, a shift by PIN, a sign-in that ended."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect

from served import Served

WORDS, OTHER = "seven herring crates at dawn", "nine lanterns over the slipway"


@pytest.fixture(scope="module")
def galley(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    """A kitchen of its own: accounts are for everybody in it."""
    served = Served(tmp_path_factory.mktemp("galley"), empty=False)
    yield served
    served.close()


def _api(page: Page, method: str, path: str, body: object = None):
    return page.evaluate(
        "async ([m, p, b]) => { const r = await fetch(p, {method: m, headers: b ? {'Content-Type': 'application/json'}"
        " : {}, body: b ? JSON.stringify(b) : undefined}); const t = await r.text();"
        " return {status: r.status, body: t ? JSON.parse(t) : null}; }",
        [method, f"/api{path}", body],
    )


def test_a_kitchen_gets_accounts_a_cook_comes_in_and_a_shift_is_worked(watch, galley) -> None:
    owner = watch(galley)
    page = owner.page
    owner.go("/kitchen")
    page.get_by_role("link", name="People and accounts").click()
    expect(page.get_by_role("heading", name="Accounts")).to_be_visible()
    assert owner.axe() == []
    page.get_by_label("Your name").fill("Ines Holm")
    page.get_by_label("Password", exact=True).fill("short")
    owner.expected = {422}
    page.get_by_role("button", name="Make the first account").click()
    expect(page.get_by_role("alert")).to_contain_text("at least 12")
    page.get_by_label("Password", exact=True).fill(WORDS)
    page.get_by_role("button", name="Make the first account").click()
    expect(page.get_by_role("heading", name="People")).to_be_visible()

    # Asked in, and in by the link on a telephone.
    page.get_by_label("Ask somebody in").fill("Odd Berg")
    page.get_by_label("as", exact=True).select_option("cook")
    page.get_by_role("button", name="Make a link").click()
    sheet = page.get_by_role("dialog", name="For Odd Berg")
    expect(sheet.get_by_role("img")).to_be_visible()
    link = sheet.locator("code").inner_text()
    assert owner.axe() == []
    phone = watch(galley, width=390, height=844)
    phone.page.goto(link)
    expect(phone.page.get_by_role("heading", name="Welcome, Odd Berg")).to_be_visible()
    # The token is out of sight, and was never sent as an address.
    assert phone.page.url.endswith("/join")
    assert phone.axe() == []
    phone.page.get_by_label("Password", exact=True).fill(OTHER)
    phone.page.get_by_label("PIN for a shared device").fill("4827")
    phone.page.get_by_role("button", name="Come in").click()
    expect(phone.page.get_by_role("link", name=re.compile("Odd Berg, cook"))).to_be_visible()

    # A cook looks at a formula and may change nothing that stays.
    phone.page.get_by_role("link", name="Slipway smash").first.click()
    expect(phone.page.get_by_role("note")).to_contain_text("signed in as cook")

    # The device becomes one of a shift, and is taken up by PIN.
    phone.go("/account")
    expect(phone.page.get_by_role("heading", name="Odd Berg")).to_be_visible()
    assert phone.axe() == []
    phone.page.get_by_role("button", name="Use this device for a shift").click()
    expect(phone.page.get_by_role("button", name="End the shift here")).to_be_visible()
    phone.page.get_by_role("button", name="Sign out", exact=True).click()
    expect(phone.page.get_by_text("Who are you?")).to_be_visible()
    assert phone.axe() == []
    phone.page.get_by_role("button", name="Odd Berg").click()
    phone.expected = {422}
    for key in ("1", "3", "1", "2", "OK"):
        phone.page.get_by_role("button", name=key, exact=True).click()
    expect(phone.page.get_by_role("alert")).to_contain_text("4 more tries")
    assert phone.axe() == []
    for digit in "4827":
        phone.page.keyboard.press(digit)
    phone.page.keyboard.press("Enter")
    expect(phone.page.get_by_role("heading", name="Odd Berg")).to_be_visible()

    # The owner sees who did what.
    owner.go("/people")
    expect(page.get_by_role("region", name="Who changed what").get_by_text("took a device up by PIN")).to_be_visible()
    assert owner.axe() == []


def test_a_sign_in_that_ended_asks_again_and_nothing_typed_is_lost(watch, galley) -> None:
    chef = watch(galley)
    page = chef.page
    chef.expected = {401}
    chef.go("/")
    if _api(page, "GET", "/session")["body"]["accounts"] is False:
        _api(page, "POST", "/session/first-owner", {"name": "Ines Holm", "password": WORDS})
        chef.go("/")
    else:
        expect(page.get_by_role("heading", name="Sign in")).to_be_visible()
        assert chef.axe() == []
        page.get_by_label("Name").fill("Ines Holm")
        page.get_by_label("Password", exact=True).fill(WORDS)
        page.get_by_role("button", name="Sign in", exact=True).click()
    page.get_by_role("link", name="Slipway smash").first.click()
    expect(page.locator("[data-settled=true]")).to_be_visible()
    page.get_by_role("link", name=re.compile("Notes")).first.click()
    # Ended elsewhere while the bench is open.
    places = _api(page, "GET", "/session/places")["body"]
    here = next(place for place in places if place["here"])
    assert _api(page, "DELETE", f"/session/places/{here['key']}")["status"] == 204
    remark = page.get_by_label(re.compile("Remark|remember", re.IGNORECASE)).first
    remark.fill("typed after the sign-in had ended")
    remark.blur()
    again = page.get_by_role("dialog", name="Sign in again")
    expect(again).to_be_visible()
    assert chef.axe() == []
    again.get_by_label("Password", exact=True).fill(WORDS)
    again.get_by_role("button", name="Sign in", exact=True).click()
    expect(again).to_be_hidden()
    expect(remark).to_have_value("typed after the sign-in had ended")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    formula = chef.formula_id()
    assert _api(page, "GET", f"/formulas/{formula}")["body"]["formula"]["remark"] == "typed after the sign-in had ended"
