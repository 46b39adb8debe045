"""The heat bench in a browser: the flip of a smashed double, reading along time, and a piece that is not modelled."""

from __future__ import annotations

import re

from hands import type_figure
from playwright.sync_api import Page, expect


def _inside(watched, name: str) -> Page:
    page = watched.page
    formula = next(f["id"] for f in watched.get("/formulas") if name in f["name"])
    watched.go(f"/formula/{formula}/heat")
    page.get_by_role("tab", name="Inside the piece").click()
    return page


def _seconds(text: str) -> list[int]:
    return [int(m) * 60 + int(s) for m, s in re.findall(r"(\d+):(\d\d)", text)]


def test_the_flip_of_a_smashed_double_and_the_core_along_time(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _inside(watched, "Slipway smash")
    flip = page.locator("[data-flip]")
    expect(flip).to_contain_text("habit")
    computed = _seconds(flip.inner_text())[:2]
    assert 15 < computed[0] < computed[1] < 120
    picture = page.get_by_role("img", name=re.compile("^Temperature through .* flip at .* pull at "))
    expect(picture).to_be_visible()

    # The hand along time says the section, in words too.
    hand = page.get_by_role("slider", name="Moment")
    said = page.locator("[data-section]")
    before = said.inner_text()
    hand.focus()
    for _ in range(10):
        page.keyboard.press("ArrowLeft")
    expect(said).not_to_have_text(before)
    expect(said).to_have_text(re.compile(r"At \d+:\d\d: core [\d.]+.°C, coldest"))
    assert watched.axe() == []

    # A hotter plate turns it sooner.
    said_before = flip.inner_text()
    type_figure(page, "Surface, measured", "290 C")
    expect(flip).not_to_have_text(said_before, use_inner_text=True)
    hotter = _seconds(flip.inner_text())[:2]
    assert hotter[0] < computed[0]
    page.keyboard.press("Control+z")


def test_a_loaf_says_that_it_is_not_modelled_yet(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _inside(watched, "Keeper")
    expect(page.get_by_role("tabpanel")).to_contain_text("not modelled yet; habit’s minutes stand alone")
    page.get_by_role("tab", name="Minutes and floor").click()
    expect(page.get_by_role("region", name="Core and floor")).to_be_visible()


def test_the_curve_fits_a_phone(watch, kestrel) -> None:
    watched = watch(kestrel, width=390, height=800)
    page = _inside(watched, "Harbour-light")
    expect(page.get_by_role("slider", name="Moment")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth") <= 0
    assert watched.axe() == []
