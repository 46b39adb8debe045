"""At the stove: the surface is read and waited for, a core reading moves when it comes off, a slip is named."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.interchange.kinds import FORMULAS


def _begin(watched, formula, name: str) -> int:
    def post(path: str, body: dict) -> dict:
        made = watched.page.request.post(f"{watched.served.address}/api{path}", data=body)
        assert made.status == 201, made.text()
        return made.json()

    made = post("/formulas", {"formula": FORMULAS.plain(replace(formula, name=name))})
    return post("/cooks", {"formula_id": made["id"]})["id"]


def _read(page, which: str, text: str) -> None:
    page.get_by_role("button", name=f"{which} read").click()
    field = page.get_by_role("textbox", name=f"{which} temperature")
    field.fill(text)
    page.get_by_role("button", name="Note it").click()
    expect(field).to_be_hidden()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_plate_that_is_not_hot_yet_is_waited_for(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    watched.go(f"/stove/{_begin(watched, slipway_smash(), f'Smash on a cold plate {width}')}")
    expect(page.get_by_role("heading", name="Heat the surface and measure it")).to_be_visible()
    _read(page, "Surface", "205 C")
    expect(page.get_by_role("timer", name="Until the surface is hot enough")).to_have_text(re.compile(r"^1:\d\d$"))
    expect(page.locator("[data-surface]")).to_contain_text("It reads 205\u00a0°C")
    # Waited for, and measured again: it is hot.
    _read(page, "Surface", "239 C")
    expect(page.get_by_role("timer", name="Until the surface is hot enough")).to_have_text("Hot")
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width


def test_a_core_reading_moves_when_it_comes_off_and_a_slip_does_not(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go(f"/stove/{_begin(watched, beacon_grill(), 'Grill foretold')}")
    page.get_by_role("button", name="It is hot").click()
    page.get_by_role("button", name="They are on").click()
    forecast = page.get_by_role("region", name="Forecast")
    expect(forecast).to_contain_text(re.compile(r"Off at \d+:\d\d on the heat"))
    expect(forecast).to_contain_text("tells most")
    expect(page.locator("[data-on-surface]")).to_contain_text(re.compile(r"14 of 26\s+on for 0:"))
    assert watched.axe() == []

    _read(page, "Core", "95 C")
    expect(forecast).to_contain_text("cannot be the middle of this piece")
    expect(forecast).to_have_attribute("data-forecast", "doubtful")
    expect(forecast).not_to_contain_text("The timer follows this")

    # The simulated probe fills the field; it counts once it is noted.
    page.get_by_role("button", name="Core read").click()
    page.get_by_role("button", name="Read the simulated probe").click()
    expect(page.get_by_role("textbox", name="Core temperature")).to_have_value(re.compile(r"\d"))
    page.get_by_role("textbox", name="Core temperature").fill("12 C")
    page.get_by_role("button", name="Note it").click()
    expect(forecast).to_contain_text("warmer than computed")
    expect(forecast).to_contain_text("sooner than planned")
    expect(forecast).to_contain_text("(not counted)")
    expect(forecast).to_contain_text("The timer follows this")

    # Another window, after a reload, foretells the same.
    said = forecast.inner_text()
    page.reload()
    expect(forecast).to_contain_text("sooner than planned")
    assert forecast.inner_text().splitlines()[0] == said.splitlines()[0]
