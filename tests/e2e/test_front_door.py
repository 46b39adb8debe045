"""The front door in a real browser: a kitchen of one's own by keyboard, a line corrected by a tap, a recipe kept."""

from __future__ import annotations

import json
import re

import pytest
from playwright.sync_api import Page, expect

RECIPE = """Night-watch meatballs
Serves 6
Makes 30 meatballs
Ingredients
500 g beef mince (15% fat)
250 g pork mince
1 cup rice
parsley
1 egg, beaten
10 g salt
Tomato sauce:
400 g passata
1 tbsp olive oil
Method
Preheat the oven to 220C and bake for 15 minutes.
"""


def _tab_to(page: Page, name: str, *, most: int = 60) -> None:
    """Press Tab until the control of that name has the focus, as a cook without a mouse does."""
    for _ in range(most):
        page.keyboard.press("Tab")
        if name in (
            page.evaluate("document.activeElement?.innerText || document.activeElement?.getAttribute('aria-label')")
            or ""
        ):
            return
    raise AssertionError(f"{name} cannot be reached by Tab")


def test_from_nothing_to_an_own_kitchen_and_a_first_plan_by_keyboard(watch, untouched) -> None:
    watched = watch(untouched)
    page = watched.page
    watched.go("/")
    expect(page.get_by_role("heading", name="Set up my own kitchen")).to_be_visible()
    assert watched.axe() == []
    _tab_to(page, "Set up my own")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Your kitchen, in five answers")).to_be_visible()
    assert watched.axe() == []
    page.get_by_label("Country").focus()
    page.keyboard.type("United K")
    expect(page.get_by_label("Country")).to_have_value("UK")
    expect(page.get_by_label("Currency")).to_have_attribute("placeholder", "GBP")
    page.get_by_label("flat bottom, across").focus()
    page.keyboard.type("26 cm")
    page.get_by_label("What is it called?").focus()
    page.keyboard.type("Mast-house")
    page.keyboard.press("Enter")
    # It opens on the line, with nobody else's formulas below.
    line = page.get_by_label("What you have, in one line")
    expect(line).to_be_visible()
    expect(page.get_by_text("The shelf is empty.")).to_be_visible()
    line.focus()
    page.keyboard.type("600 g 80/20, pan, 4 people")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Put it on the bench")).to_be_visible()
    assert watched.axe() == []
    _tab_to(page, "Put it on the bench")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    watched.saved()
    kitchens = watched.get("/kitchens")
    assert [(k["name"], k["demo"]) for k in kitchens["kitchens"]] == [("Mast-house", False)]
    assert watched.get("/kitchen")["kitchen"]["surfaces"][0]["width_mm"] == 260


def test_the_demo_is_looked_round_left_and_deleted(watch, untouched) -> None:
    watched = watch(untouched)
    page = watched.page
    watched.go("/")
    page.get_by_role("button", name="Look round").click()
    expect(page.get_by_role("link", name=re.compile("Slipway smash"))).to_be_visible()
    page.get_by_role("link", name="Set up a kitchen of your own").click()
    page.get_by_role("button", name="Open my kitchen").click()
    expect(page.get_by_text("The shelf is empty.")).to_be_visible()
    page.get_by_role("link", name="Kitchen", exact=True).click()
    listed = page.get_by_role("region", name="Kitchens")
    listed.get_by_role("button", name="Open Yard Galley, Kestrel Sound").click()
    # Every screen is made anew for the other kitchen, its links too.
    expect(page.get_by_role("heading", name="Yard Galley, Kestrel Sound", level=1)).to_be_visible()
    page.get_by_role("link", name="Shelf", exact=True).click()
    expect(page.get_by_role("link", name=re.compile("Slipway smash"))).to_be_visible()
    page.get_by_role("link", name="Kitchen", exact=True).click()
    # What the screens of the demo still ask for is answered before it is gone.
    page.wait_for_load_state("networkidle")
    listed.get_by_role("button", name="Delete demo").click()
    listed.get_by_role("button", name="Delete the demo with its records").click()
    expect(page.get_by_role("heading", name="My kitchen")).to_be_visible()
    assert [k["demo"] for k in watched.get("/kitchens")["kitchens"]] == [False]


@pytest.mark.parametrize("width", [1280, 390])
def test_a_line_is_corrected_by_tapping_one_piece(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    page = watched.page
    watched.go("/")
    page.get_by_label("What you have, in one line").fill("8 burgers, 125 g, zorbleflux")
    page.get_by_role("button", name="Plan it").click()
    read = page.get_by_role("group", name="How the line was read")
    expect(read.get_by_role("button", name="zorbleflux")).to_contain_text("not understood")
    assert watched.axe() == []
    read.get_by_role("button", name="zorbleflux").click()
    read.get_by_role("button", name="leave it out").click()
    expect(page.get_by_label("What you have, in one line")).to_have_value("8 burgers, 125 g")
    expect(page.locator("[data-opening]")).to_contain_text("8 × 125")
    # The same weight may be all of it: one tap.
    read.get_by_role("button", name=re.compile("^125 g")).click()
    read.get_by_role("button", name="125 g in all").click()
    expect(page.get_by_label("What you have, in one line")).to_have_value("8 burgers, 125 g in all")
    assert watched.axe() == []


def test_what_cannot_hold_together_is_settled_by_a_choice(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/")
    page.get_by_label("What you have, in one line").fill("4 burgers of 500 g from 1 kg")
    page.get_by_role("button", name="Plan it").click()
    asked = page.get_by_role("group", name="To settle")
    expect(asked).to_be_visible()
    expect(page.get_by_role("button", name="Put it on the bench")).to_have_count(0)
    asked.get_by_role("button").first.click()
    expect(page.get_by_role("button", name="Put it on the bench")).to_be_visible()


def test_a_recipe_is_pasted_two_lines_settled_put_on_the_bench_and_exported_again(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/")
    page.get_by_role("link", name="Paste a whole recipe").click()
    page.get_by_label("Plain text, or a schema.org Recipe").fill(RECIPE)
    tray = page.get_by_role("region", name="Waiting")
    expect(tray).to_contain_text("2 lines wait")
    assert watched.axe() == []
    tray.get_by_role("button", name="cooked rice").click()
    expect(tray).to_contain_text("One line waits")
    tray.get_by_role("button", name="1 tbsp parsley").click()
    expect(tray).to_have_count(0)
    assert watched.axe() == []
    page.get_by_role("button", name="Put it on the bench").click()
    expect(page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    page.keyboard.press("9")
    expect(page.get_by_role("heading", name="Notes", exact=True)).to_be_visible()
    with page.expect_download() as download:
        page.get_by_role("button", name="Export as a recipe").click()
    recipe = json.loads(download.value.path().read_text(encoding="utf-8"))
    assert recipe["@type"] == "Recipe"
    assert recipe["name"] == "Night-watch meatballs"
    assert any("cooked rice" in i for i in recipe["recipeIngredient"])
    pantry = [i["ingredient"]["name"] for i in watched.get("/pantry")["ingredients"]]
    assert any(n.startswith("Tomato sauce") for n in pantry)


def test_a_typed_mix_shows_how_it_is_read_before_it_is_added(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/")
    page.get_by_label("What you have, in one line").fill("1 kg mince, 20 meatballs")
    page.get_by_role("button", name="Plan it").click()
    page.get_by_role("button", name="Put it on the bench").click()
    expect(page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    page.keyboard.press("3")
    page.get_by_label("What goes in").fill("2 tbsp gochujang, 1 egg, beaten")
    read = page.get_by_role("group", name="How the line was read")
    expect(read.get_by_role("button", name="2 tbsp gochujang")).to_contain_text("not in the pantry")
    read.get_by_role("button", name="2 tbsp gochujang").click()
    read.get_by_role("button", name=re.compile("^hot pepper sauce instead")).click()
    expect(page.get_by_label("What goes in")).to_have_value(re.compile("hot pepper sauce"))
    page.get_by_role("button", name="Add", exact=True).click()
    watched.saved()
    expect(page.get_by_role("row", name=re.compile("Hot pepper sauce"))).to_be_visible()
