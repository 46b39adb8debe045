"""The shelf looked through in a browser: found by words, in another order, copied from its line."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS


@pytest.mark.parametrize("width", [1280, 390])
def test_a_formula_is_found_among_sixty_and_copied(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    made = []
    for n in range(60):
        formula = replace((keepers_loaf, slipway_smash)[n % 2](), name=f"Shelved {width} {n:02d}")
        body = {"formula": FORMULAS.plain(formula)}
        made.append(page.request.post(f"{kestrel.address}/api/formulas", data=body).json()["id"])
    watched.go("/")
    shown = page.get_by_role("list", name="Formulas", exact=True).get_by_role("listitem")
    expect(shown).to_have_count(50)
    page.get_by_role("button", name=re.compile("^Show .* more of")).click()
    expect(shown.filter(has_text=f"Shelved {width} 00")).to_have_count(1)
    page.get_by_label("Words").fill(f"shelved {width} short rib 03")
    expect(shown).to_have_count(1)
    expect(page.get_by_role("status").filter(has_text="1 formula")).to_be_visible()
    # By keyboard: the menu opens, its second entry is not the first.
    page.get_by_role("button", name=f"More: Shelved {width} 03").press("Enter")
    expect(page.get_by_role("menuitem", name="Copy")).to_be_focused()
    assert watched.axe() == []
    page.keyboard.press("Enter")
    expect(page.get_by_role("link", name=f"Shelved {width} 03 2").first).to_be_visible()
    expect(shown).to_have_count(2)
    page.get_by_role("button", name="Show all").click()
    page.get_by_label("Dish").select_option("meatloaf")
    page.get_by_label("Order").select_option("name")
    expect(shown.filter(has_text=f"Shelved {width} 00")).to_have_count(1)
    expect(shown.filter(has_text=f"Shelved {width} 01")).to_have_count(0)
    page.get_by_label("Words").fill("no such thing")
    expect(page.get_by_text("No formula has all of that.")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    copied = page.request.post(f"{kestrel.address}/api/shelf", data={"text": f"Shelved {width}"}).json()["items"]
    for number in {*made, *(item["id"] for item in copied)}:
        page.request.delete(f"{kestrel.address}/api/formulas/{number}")
