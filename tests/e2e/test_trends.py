"""Cooks on control charts in a browser, and the logbook as a file."""

from __future__ import annotations

from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


@pytest.mark.parametrize("width", [1280, 390])
def test_a_cook_that_calls_for_a_look_is_found_on_its_chart(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page

    def call(method: str, path: str, body: dict) -> dict:
        answer = page.request.fetch(f"{kestrel.address}/api{path}", method=method, data=body)
        assert answer.ok, answer.text()
        return answer.json()

    name = f"Charted {width}"
    made = call("POST", "/formulas", {"formula": FORMULAS.plain(replace(slipway_smash(), name=name))})
    for mass in (*(2250, 2450) * 6, 1200):
        cook = call("POST", "/cooks", {"formula_id": made["id"]})
        call("PUT", f"/cooks/{cook['id']}/outcome", {"outcome": {"cooked_mass_g": mass}, "revision": cook["revision"]})
    watched.go("/log")
    page.get_by_label("Words").fill(name)
    expect(page.locator("[data-log=ready]")).to_contain_text("13 cooks")
    with page.expect_download() as saved:
        page.get_by_role("link", name="CSV").click()
    text = saved.value.path().read_text(encoding="utf-8")
    assert text.count("\n") == 14
    assert name in text

    page.get_by_role("link", name="Trends").click()
    expect(page.locator("[data-trends=ready]")).to_be_visible()
    page.get_by_label("Formula", exact=True).select_option(label=name)
    chart = page.get_by_role("region", name="Yield")
    expect(chart).to_contain_text("1 of 13 cooks calls for a look")
    expect(chart.get_by_role("listitem")).to_contain_text("beyond the limits")
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    chart.get_by_role("link").click()
    expect(page.get_by_role("heading", level=1, name=name)).to_be_visible()
