"""A whole kitchen saved to a file, looked at and brought in, in the browser; and the page of the interface."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import expect


def test_a_kitchen_is_saved_looked_at_and_becomes_another(watch, kestrel, tmp_path: Path) -> None:
    watched = watch(kestrel)
    page = watched.page
    before = watched.get("/kitchens")
    watched.go("/kitchen")
    page.get_by_role("link", name="Save or bring in a whole kitchen").click()
    with page.expect_download() as saved:
        page.get_by_role("link", name="Save the archive").click()
    file = tmp_path / saved.value.suggested_filename
    saved.value.save_as(file)
    assert file.name.endswith(".vianda.zip")
    page.get_by_label("Kitchen archive").set_input_files(file)
    bring = page.get_by_role("button", name=re.compile("^Bring it in: .* added$"))
    expect(bring).to_be_visible()
    assert watched.axe() == []
    # Into the kitchen it came from there is nothing to bring.
    page.get_by_role("radio", name="part of this kitchen").click()
    expect(page.get_by_text("there is nothing to bring in")).to_be_visible()
    page.get_by_role("radio", name="a kitchen of its own").click()
    bring.click()
    expect(page.get_by_role("status").get_by_text("was brought in.")).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("button", name=re.compile("^Open ")).click()
    after = watched.get("/kitchens")
    assert len(after["kitchens"]) == len(before["kitchens"]) + 1
    watched.go("/")
    expect(page.get_by_role("link", name="Slipway smash").first).to_be_visible()
    # Other journeys open the kitchen that was opened last.
    page.request.post(f"{kestrel.address}/api/kitchens/{before['here']}/open")


def test_a_file_that_is_no_archive_is_refused_and_nothing_is_offered(watch, kestrel, tmp_path: Path) -> None:
    watched = watch(kestrel, width=390, height=844)
    watched.expected = {422}
    file = tmp_path / "holiday.zip"
    file.write_bytes(b"PK\x03\x04 nothing")
    watched.go("/kitchen/archive")
    watched.page.get_by_label("Kitchen archive").set_input_files(file)
    expect(watched.page.get_by_role("alert")).to_contain_text("holiday.zip cannot be brought in")
    expect(watched.page.get_by_role("button", name=re.compile("Bring it in"))).to_have_count(0)
    assert watched.axe() == []


def test_the_interface_can_be_read_and_searched(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/kitchen/interface")
    expect(page.get_by_role("status")).to_contain_text(" of ")
    page.get_by_label("Find an operation").fill("put formulas revision")
    expect(page.get_by_role("status")).to_have_text(re.compile(r"^1 of \d+$"))
    page.get_by_text("Save a formula over the revision seen").click()
    page.get_by_text("SaveRequest", exact=True).click()
    expect(page.get_by_text("A formula and the revision it was opened at.")).to_be_visible()
    assert watched.axe() == []
    page.get_by_label("Find an operation").fill("moonlight")
    expect(page.get_by_text("No operation has all of these words.")).to_be_visible()
