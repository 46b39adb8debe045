"""The kitchen's checks in a browser: a fridge, a display that is too warm, stock that cools, a figure typed wrong."""

from __future__ import annotations

import datetime as dt
import re

import pytest
from playwright.sync_api import expect

# A day of its own: the kitchen is shared with other journeys.
DAY = dt.datetime(2031, 9, 3, 9, 0)


@pytest.mark.parametrize("width", [1280, 390])
def test_the_fridge_the_display_and_the_stock_are_written_down(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    watched.expected.add(422)
    page = watched.page
    day = DAY + dt.timedelta(days=width)
    page.clock.set_fixed_time(day)
    watched.go("/log")
    page.get_by_role("link", name="Checks").click()
    expect(page.get_by_text("Nothing was measured in these days.")).to_be_visible()
    assert watched.axe() == []
    form = page.get_by_role("form", name="A check to write down")
    write = form.get_by_role("button", name="Write it down")

    form.get_by_label("Of what").fill("Walk-in")
    form.get_by_label("Measured by").fill("Ines")
    form.get_by_label("Temperature").fill("cold")
    write.click()
    expect(form.get_by_role("alert")).to_contain_text("is not a temperature")
    expect(form.get_by_label("Of what")).to_have_value("Walk-in")
    # In whatever unit the thermometer has.
    form.get_by_label("Temperature").fill("38 F")
    write.click()
    row = page.get_by_role("listitem").filter(has_text="Walk-in")
    expect(row).to_have_attribute("data-state", "kept")
    expect(row).to_contain_text(re.compile(r"3\.3\s°C"))
    expect(row).to_contain_text("09:00, Ines")

    form.get_by_label("Of what").fill("Display")
    form.get_by_label("Temperature").fill("9")
    write.click()
    display = page.get_by_role("listitem").filter(has_text="Display")
    expect(display).to_have_attribute("data-state", "missed")
    # The same check goes on: what was done, and the next figure.
    form.get_by_label("Check", exact=True).select_option(label="Go on: Cold holding, Display")
    form.get_by_label("What was done, if missed").fill("Moved to the walk-in")
    write.click()
    expect(display).to_have_attribute("data-state", "settled")
    expect(display).to_contain_text("Moved to the walk-in")
    # It is seen to: the next figure goes to a new check, and the form says so.
    expect(form.get_by_label("Check", exact=True)).to_have_value("cold")
    form.get_by_label("Of what").fill("Drawer")
    form.get_by_label("Temperature").fill("4")
    write.click()
    expect(page.get_by_role("listitem").filter(has_text="Drawer")).to_have_attribute("data-state", "kept")
    expect(display).to_have_attribute("data-state", "settled")

    form.get_by_label("Check", exact=True).select_option(label="Cooling: the first figure starts its clock")
    form.get_by_label("Of what").fill("Stock, 8 L")
    form.get_by_label("Temperature").fill("57")
    write.click()
    stock = page.get_by_role("listitem").filter(has_text="Stock, 8 L")
    expect(stock).to_contain_text("Again at 11:00")
    # Typed wrong: struck out, and still there to read.
    form.get_by_label("Check", exact=True).select_option(label="Go on: Cooling, Stock, 8 L")
    page.clock.set_fixed_time(day + dt.timedelta(minutes=115))
    form.get_by_label("Temperature").fill("120 F")
    write.click()
    wrong = re.compile(r"48\.9\s°C")
    expect(stock).to_contain_text(wrong)
    stock.get_by_role("button", name="Typed wrong").last.click()
    expect(stock.locator(".line-through")).to_contain_text(wrong)
    form.get_by_label("Temperature").fill("20")
    write.click()
    expect(stock).to_contain_text("Again at 15:00")
    assert watched.axe() == []
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as CSV").click()
    assert "Moved to the walk-in" in download.value.path().read_text()
