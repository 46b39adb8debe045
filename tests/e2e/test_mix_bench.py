"""The mix bench in a browser: a bowl filled by cups and slices, a dry loaf mended, salt caught twice, the pantry."""

from __future__ import annotations

import re

import pytest
import show
from hands import agrees, type_figure
from playwright.sync_api import Page, expect


def _open(watched, line: str, heading: str = "Meat") -> Page:
    page = watched.page
    watched.go("/")
    page.get_by_label("What you have, in one line").fill(line)
    page.get_by_role("button", name="Plan it").click()
    page.get_by_role("button", name="Put it on the bench").click()
    expect(page.get_by_role("heading", name=heading, exact=True)).to_be_visible()
    page.keyboard.press("3")
    expect(page.get_by_role("heading", name="Mix", exact=True)).to_be_visible()
    return page


def _add(page: Page, text: str) -> None:
    page.get_by_label("What goes in").fill(text)
    page.get_by_role("button", name="Add", exact=True).click()


def test_fifty_four_balls_filled_in_cups_teaspoons_and_slices(watch, kestrel, from_the_command_line) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)  # what is typed wrong on purpose
    page = _open(watched, "1.5 kg chuck and pork, 54 meatballs for 18")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("54")

    # empty the bowl the school filled, and fill it from the card on the wall
    while page.get_by_role("button", name=re.compile("^Take out ")).count():
        before = page.get_by_role("button", name=re.compile("^Take out ")).count()
        page.get_by_role("button", name=re.compile("^Take out ")).first.click()
        expect(page.get_by_role("button", name=re.compile("^Take out "))).to_have_count(before - 1)
    counsel = page.get_by_role("complementary", name="Counsel")
    expect(counsel).to_contain_text("of binder to a hundred of meat")
    _add(page, "5 slices of white bread, 1/3 cup of moon dust")
    expect(page.get_by_role("alert")).to_contain_text("names nothing in the pantry")
    expect(page.get_by_label("What goes in")).to_have_value(re.compile("moon dust"))
    _add(page, "5 slices white bread, 1/3 cup milk, 2 large eggs + 3 yolks")
    expect(page.get_by_role("spinbutton", name="Amount of White bread")).to_have_value("145\u00a0g")
    expect(page.get_by_label("What goes in")).to_have_value("")
    _add(page, "1/2 cup parmesan, 3 cloves garlic, 2 tsp black pepper, 3 tsp fine salt, a glug of olive oil")
    expect(page.get_by_role("spinbutton", name="Amount of Parmesan, grated")).to_have_value("50\u00a0g")
    expect(page.get_by_role("spinbutton", name="Amount of Whole egg")).to_have_value("100\u00a0g")
    expect(counsel).to_contain_text("Olive oil is a guess")

    watched.saved()
    evaluation = from_the_command_line(watched)
    assert evaluation["portions"]["pieces"] == 54
    assert evaluation["blend"]["batch_mass_g"] == 1500
    grams = {x["ingredient"]: x["mass_g"] for x in evaluation["mix"]["lines"]}
    assert grams["milk"] == pytest.approx(244 / 3, rel=1e-3)
    assert grams["pepper"] == pytest.approx(4.6, rel=1e-3)
    assert evaluation["salt"]["batch_salt_g"] == pytest.approx(18, rel=1e-3)
    agrees(watched.page, evaluation)

    # its bread drinks by itself; the glug is weighed after all
    expect(page.get_by_role("region", name="Panade")).to_contain_text("soft paste")
    type_figure(page, "Amount of Olive oil", "14 g")
    expect(counsel).not_to_contain_text("is a guess")
    page.get_by_role("tab", name="Weigh out").click()
    table = page.get_by_role("region", name="Weighing out")
    expect(table.get_by_role("row", name=re.compile("^Whole egg"))).to_contain_text("2 large eggs")
    expect(table.get_by_role("row", name=re.compile("^Fine salt"))).to_contain_text("1 tbsp")
    page.get_by_role("tab", name="Method").click()
    expect(page.get_by_role("tabpanel")).to_contain_text("Fry a teaspoon")
    page.get_by_role("tab", name="Whole mix").click()
    expect(page.get_by_role("region", name="Allergens and limits")).to_contain_text("egg from whole egg, egg yolk")


def test_a_dry_loaf_of_beef_becomes_a_panade_loaf_and_keeps_what_is_held(watch, kestrel, from_the_command_line) -> None:
    watched = watch(kestrel)
    page = _open(watched, "1 kg 90/10, meatloaf for 6")
    counsel = page.get_by_role("complementary", name="Counsel")
    page.get_by_label("Bands drawn").select_option("Dry crumb loaf")
    page.get_by_role("button", name="Move the mix to it").click()
    # So little crumb finds enough in the egg and the ketchup; without them it drinks the meat.
    expect(counsel).to_contain_text("fat and no panade")
    expect(page.get_by_role("region", name="Panade")).to_contain_text("but for the water of egg")
    page.get_by_role("button", name="Take out Whole egg").click()
    page.get_by_role("button", name=re.compile("^Take out .*ketchup", re.I)).click()
    expect(counsel).to_contain_text("and nothing for it to drink")
    expect(page.get_by_role("region", name="Panade")).to_contain_text("it will drink the meat")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(counsel).not_to_contain_text("and nothing for it to drink")
    expect(page.get_by_role("button", name="Hold Whole egg")).to_be_visible()
    bind = _index(page, "Looseness")

    page.get_by_role("button", name="Hold Whole egg").click()
    expect(page.get_by_role("button", name="Hold Whole egg")).to_have_attribute("aria-pressed", "true")
    egg = page.get_by_role("spinbutton", name="Amount of Whole egg").input_value()
    page.get_by_label("Bands drawn").select_option("Firm panade loaf")
    page.get_by_role("button", name="Move the mix to it").click()
    expect(page.get_by_role("region", name="Panade")).to_contain_text("a stiff paste")
    expect(counsel).not_to_contain_text("nothing for it to drink")
    expect(page.get_by_role("spinbutton", name="Amount of Whole egg")).to_have_value(egg)
    expect(page.get_by_role("button", name=re.compile("^Resembles"))).to_contain_text("Firm panade loaf")
    assert _index(page, "Looseness") > bind

    # the liquid by keyboard, to a soft paste and back by undo
    marker = page.get_by_role("slider", name="Liquid to one of crumb")
    stiff = marker.get_attribute("aria-valuenow") or ""
    marker.focus()
    for _ in range(4):
        marker.press("ArrowRight")
    expect(page.get_by_role("region", name="Panade")).to_contain_text("a soft paste")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(page.get_by_role("region", name="Panade")).to_contain_text("a stiff paste")
    # All four steps are back before the next thing is pressed: counsel moves while they arrive.
    expect(marker).to_have_attribute("aria-valuenow", stiff)
    watched.saved()

    # beef alone is said, and softened in one tap
    counsel.get_by_role("button", name=re.compile("^Half beef")).click()
    expect(page.locator("[data-ticket=lean_to_fat]")).not_to_contain_text("90\u00a0:\u00a010")
    watched.saved()
    agrees(watched.page, from_the_command_line(watched))


def _index(page: Page, title: str) -> float:
    page.get_by_role("tab", name="Whole mix").click()
    text = page.get_by_role("button", name=re.compile(f"^{title}:")).inner_text()
    page.get_by_role("tab", name="Bowl").click()
    return float(re.search(r"\n([\d.]+)\n", text).group(1))


def test_salt_is_caught_twice_when_bacon_brings_its_own(watch, kestrel, from_the_command_line) -> None:
    watched = watch(kestrel)
    page = _open(watched, "2 kg round and bacon, meatballs for 16")
    counsel = page.get_by_role("complementary", name="Counsel")
    page.get_by_role("tab", name="Salt").click()
    ledger = page.get_by_role("table", name="Salt ledger")
    expect(ledger).to_contain_text("Bacon")
    type_figure(page, "Salt in all, of the meat", "6 tsp")
    expect(counsel).to_contain_text("is salted already")
    expect(counsel).to_contain_text("salt in all")
    watched.saved()
    before = from_the_command_line(watched)["salt"]
    assert before["batch_salt_g"] == pytest.approx(36, abs=0.05)
    # All of it together is what the cook sees, and one tap brings it down.
    counsel.get_by_role("button", name=re.compile("^Bring it to")).click()
    expect(counsel).not_to_contain_text("Past 2.2\u00a0% most people")
    watched.saved()
    after = from_the_command_line(watched)["salt"]
    assert after["batch_salt_g"] < before["batch_salt_g"]
    assert after["ledger"]["brought_frac"] == before["ledger"]["brought_frac"]
    expect(ledger.get_by_role("row", name=re.compile("^To add"))).to_contain_text(
        show.amount({"kind": "mass_g", "value": after["batch_salt_g"], "high": None, "text": ""})
    )


def test_a_rub_of_the_house_is_written_down_and_its_salt_counts(watch, kestrel, from_the_command_line) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)
    page = watched.page
    watched.go("/pantry")
    page.get_by_role("button", name="Write one down").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Name", exact=True).fill("Breakwater rub")
    for thing, text in (("Fine salt", "50 g"), ("Paprika", "3 tbsp"), ("Garlic", "2 cloves")):
        sheet.get_by_label("Add from the pantry").select_option(thing)
        sheet.get_by_label(thing, exact=True).fill(text)
    expect(sheet).to_contain_text("Goes in")
    sheet.get_by_label("Comes out").fill("20 g")
    expect(sheet.get_by_role("alert")).to_contain_text("without a drop of water")
    sheet.get_by_label("Comes out").fill("")
    expect(sheet.get_by_role("alert")).to_have_count(0)
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet).to_have_count(0)
    expect(page.get_by_role("region", name="House formulas table")).to_contain_text("Breakwater rub")

    page = _open(watched, "1 kg chuck and pork, meatballs for 8")
    _add(page, "20 g breakwater rub")
    expect(page.get_by_role("spinbutton", name="Amount of Breakwater rub")).to_have_value("20\u00a0g")
    watched.saved()
    entries = from_the_command_line(watched)["salt"]["ledger"]["entries"]
    rub = next(e for e in entries if e["name"] == "Breakwater rub")
    assert rub["per_meat_frac"] == pytest.approx(0.02 * 50 / 76.4, rel=0.02)
    watched.go("/pantry")
    row = page.get_by_role("row", name=re.compile("^Breakwater rub"))
    expect(row).to_contain_text("Baked ball for 8")


def test_a_bowl_filled_by_eye_is_read_from_the_scale(watch, kestrel, from_the_command_line) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)
    page = _open(watched, "1 kg chuck and pork, meatballs for 8")
    page.get_by_role("tab", name="Weigh out").click()
    page.get_by_role("button", name="By eye: weigh the bowl").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("The empty bowl").fill("820 g")
    for name, shown in (("the meat", "2020"), ("panko", "2110"), ("whole milk", "2050"), ("whole egg", "2350")):
        sheet.get_by_label(f"After {name}", exact=True).fill(shown)
    sheet.get_by_role("button", name="This is what is in it").click()
    expect(sheet.get_by_role("alert")).to_contain_text("nothing leaves the bowl")
    sheet.get_by_label("After whole milk", exact=True).fill("2250")
    sheet.get_by_role("button", name="This is what is in it").click()
    expect(sheet).to_have_count(0)
    watched.saved()
    evaluation = from_the_command_line(watched)
    grams = {x["ingredient"]: x["mass_g"] for x in evaluation["mix"]["lines"]}
    assert evaluation["blend"]["batch_mass_g"] == 1200
    assert [grams["panko"], grams["milk"], grams["egg"]] == pytest.approx([90, 140, 100], abs=0.1)
    agrees(watched.page, evaluation)


def test_a_bar_is_dragged_and_one_drag_is_one_step_back(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, "1 kg chuck and pork, meatloaf for 6")
    handle = page.get_by_role("slider", name="Onion, parts to a hundred of meat")
    before = handle.get_attribute("aria-valuenow")
    box = handle.bounding_box()
    y = box["y"] + box["height"] / 2
    page.mouse.move(box["x"] + box["width"] / 2, y)
    page.mouse.down()
    for step in range(1, 9):
        page.mouse.move(box["x"] + box["width"] / 2 + 12 * step, y)
    page.mouse.up()
    expect(handle).not_to_have_attribute("aria-valuenow", before)
    watched.saved()
    page.keyboard.press("Control+z")
    expect(handle).to_have_attribute("aria-valuenow", before)
    handle.focus()
    handle.press("ArrowRight")
    expect(handle).to_have_attribute("aria-valuenow", "12.5")
