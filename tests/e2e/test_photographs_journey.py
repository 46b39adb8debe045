"""Photographs in a browser: two added to a cook, one captioned, one removed, and seen where versions are compared."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from photograph_files import camera_file
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


@pytest.mark.parametrize("width", [1280, 390])
def test_a_cook_is_photographed_and_the_picture_stands_beside_its_version(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page

    def send(method: str, path: str, body: dict) -> dict:
        made = getattr(page.request, method)(f"{kestrel.address}/api{path}", data=body)
        assert made.ok, made.text()
        return made.json()

    pictured = FORMULAS.plain(replace(slipway_smash(), name=f"Pictured smash {width}"))
    formula = send("post", "/formulas", {"formula": pictured})
    send("post", f"/formulas/{formula['id']}/versions", {"name": "First"})
    cook = send("post", "/cooks", {"formula_id": formula["id"]})
    send("put", f"/cooks/{cook['id']}/outcome", {"outcome": {"looks": 4}, "revision": cook["revision"]})

    watched.go(f"/log/{cook['id']}")
    section = page.get_by_role("region", name="Photographs")
    expect(section.get_by_role("button", name="Add a photograph")).to_be_visible()
    pictures = [
        {"name": "cut.jpg", "mimeType": "image/jpeg", "buffer": camera_file(2400, 1800)},
        {"name": "plate.png", "mimeType": "image/png", "buffer": camera_file(400, 300, kind="PNG")},
        {"name": "words.jpg", "mimeType": "image/jpeg", "buffer": b"no picture"},
    ]
    # The last one is refused, and the refusal is shown.
    watched.expected.add(422)
    section.get_by_label("Photograph files").set_input_files(pictures)
    kept = section.get_by_role("list", name="Kept photographs").get_by_role("img")
    expect(section.get_by_role("alert")).to_contain_text("words.jpg: This is no photograph that can be read")
    expect(kept).to_have_count(2)
    expect(section.locator("[data-photographs=kept]")).to_be_attached()
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    assert watched.axe() == []

    section.get_by_role("button", name="Photograph 1").click()
    sheet = page.get_by_role("dialog")
    expect(sheet).to_contain_text(re.compile(r"1600 × 1200 pixels"))
    # It has come and is drawn, not only named.
    expect(sheet.get_by_role("img")).to_have_js_property("naturalWidth", 1600)
    assert watched.axe() == []
    sheet.get_by_label("What is seen on it").fill("Cut through, second wave")
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet).to_have_count(0)
    expect(section.get_by_role("img", name="Cut through, second wave")).to_be_visible()

    section.get_by_role("button", name="Photograph 2").click()
    sheet.get_by_role("button", name="Remove", exact=True).click()
    sheet.get_by_role("button", name="Remove it for good").click()
    expect(kept).to_have_count(1)
    page.reload()
    expect(kept).to_have_count(1)
    expect(section.get_by_role("img", name="Cut through, second wave")).to_be_visible()

    watched.go(f"/formula/{formula['id']}/compare")
    seen = page.get_by_role("list", name="Photographs of As it stands")
    expect(seen.get_by_role("img", name="Cut through, second wave")).to_be_visible()
    expect(page.get_by_role("region", name="What happened")).to_contain_text("As wanted, of five")
    assert watched.axe() == []
