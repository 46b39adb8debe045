"""The meat bench in a browser.

Uncertainty heard, a test logged, the band narrowed, a target reached, a slip printed.
"""

from __future__ import annotations

import re

import show
from hands import type_figure
from playwright.sync_api import Page, expect


def _start(watched, line: str) -> Page:
    page = watched.page
    watched.go("/")
    page.get_by_label("What you have, in one line").fill(line)
    page.get_by_role("button", name="Plan it").click()
    page.get_by_role("button", name="Put it on the bench").click()
    expect(page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    return page


def test_from_doubt_over_a_fat_test_and_the_cheapest_way_to_the_slip(watch, kestrel, from_the_command_line) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)  # what is typed wrong on purpose
    page = _start(watched, "3 kg chuck and rib, charcoal, 20 people")
    counsel = page.get_by_role("complementary", name="Counsel")

    # a 24 % blend of chuck and rib, and how sure that is
    type_figure(page, "Share of Rib", "71.4 %")
    watched.saved()
    before = from_the_command_line(watched)
    assert abs(before["blend"]["fat_frac"] - 0.24) < 0.0005
    expect(page.locator("[data-ticket=lean_to_fat] [data-value]")).to_have_text("76\u00a0:\u00a024")
    expect(counsel).to_contain_text("of batches lie within")
    expect(counsel).to_contain_text("one fat test of it would narrow")
    page.get_by_role("button", name=re.compile("^Batches in the band")).click()
    expect(page.get_by_role("dialog", name="How sure")).to_contain_text("one fat test of Rib")
    page.keyboard.press("Escape")
    formula = page.url

    # a delivery of rib, and a fat test of it
    page.get_by_role("link", name="Larder").click()
    page.get_by_role("button", name="Add a delivery").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Meat", exact=True).select_option("rib")
    sheet.get_by_label("How you call it").fill("Norquay rib")
    sheet.get_by_label("Left of it").fill("a lot")
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet.get_by_role("alert")).to_contain_text("Type something like")
    sheet.get_by_label("Left of it").fill("8 kg")
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet).to_have_count(0)
    page.get_by_role("button", name="Add fat evidence Norquay rib").click()
    sheet = page.get_by_role("dialog")
    known = sheet.locator("[data-known]").inner_text()
    for label, weight in (("Raw sample", "250 g"), ("Lean, drained", "300 g"), ("Fat that ran", "40 g")):
        sheet.get_by_label(label).fill(weight)
    expect(sheet.get_by_role("status")).to_contain_text("was a pan or a bowl weighed too?")
    sheet.get_by_label("Lean, drained").fill("155 g")
    expect(sheet.get_by_role("status")).to_contain_text("% fat ±")
    sheet.get_by_role("button", name="Note the test").click()
    expect(sheet.locator("[data-known]")).not_to_have_text(known)
    expect(sheet).to_contain_text("about four points, nine times in ten")
    page.keyboard.press("Escape")

    # the band narrows on the bench
    page.goto(formula)
    page.get_by_label("Lot of Rib").select_option(label="Norquay rib")
    watched.saved()
    after = from_the_command_line(watched)
    width = [e["blend"]["fat_high_frac"] - e["blend"]["fat_low_frac"] for e in (before, after)]
    assert width[1] < 0.8 * width[0]
    expect(page.locator("[data-ticket=lean_to_fat]")).to_contain_text(show.phrase(after["ticket"][0]["aside"]))

    # the cheapest way to 20 %
    page.get_by_role("tab", name="Reach a target").click()
    page.get_by_label("Fat, at least").fill("19.5")
    page.get_by_label("Fat, at most").fill("nineteen")
    page.get_by_label("Sure in").fill("")
    page.get_by_role("button", name="Find blends").click()
    expect(page.get_by_role("alert")).to_contain_text("was not understood")
    page.get_by_label("Fat, at most").fill("20.5 %")
    page.get_by_label("Chuck at least").fill("30 %")
    page.get_by_role("button", name="Find blends").click()
    first = page.locator("[data-answer='1']")
    expect(first).to_contain_text("Chuck is at its least")
    prices = [
        float(re.search(r"(\d+\.\d+)\s*KSC/kg", card.inner_text()).group(1))
        for card in page.locator("[data-answer]").all()
    ]
    assert prices == sorted(prices)
    expect(page.get_by_role("heading", name="What price would bring another cut in")).to_be_visible()
    first.get_by_role("button", name="Lay it out").click()
    watched.saved()
    laid = from_the_command_line(watched)
    assert 0.195 - 1e-6 <= laid["blend"]["fat_frac"] <= 0.205 + 1e-6
    assert sum(p["mass_g"] for p in laid["blend"]["parts"]) == 3000
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-ticket=lean_to_fat] [data-value]")).not_to_have_text(
        show.phrase(laid["ticket"][0]["value"])
    )
    page.get_by_role("button", name="Redo").click()
    expect(page.locator("[data-ticket=lean_to_fat] [data-value]")).to_have_text(show.phrase(laid["ticket"][0]["value"]))

    # names, money, grind and the slip
    page.get_by_role("tab", name="Names and money").click()
    expect(page.get_by_role("region", name="Names", exact=True)).to_contain_text("ground beef")
    page.get_by_role("tab", name="Grind and slip").click()
    expect(page.get_by_role("region", name="Steps of grinding")).to_contain_text("Mix the cubes before they go through")
    type_figure(page, "Services a week", "3")
    watched.saved()
    page.get_by_role("link", name="Butcher slip").click()
    slip = page.get_by_role("article")
    for part in laid["blend"]["parts"]:
        expect(slip).to_contain_text(part["name"])
    expect(slip).to_contain_text("9000\u00a0g")
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()
    expect(page.get_by_role("navigation", name="Rooms")).to_be_hidden()
    assert page.evaluate("document.documentElement.scrollHeight") <= 1100  # one page of A4 at 96 dpi, with margins


def test_a_school_is_followed_and_what_is_locked_stays(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _start(watched, "2 kg sirloin and chuck, flat top, 12 people")
    page.get_by_role("button", name="Lock the share of Sirloin").click()
    page.get_by_label("Start as a school does").select_option("chuck-and-partner")
    expect(page.get_by_role("spinbutton", name="Share of Brisket point")).to_be_visible()
    expect(page.get_by_role("spinbutton", name="Share of Sirloin")).to_have_value("50\u00a0%")
    expect(page.get_by_text("lifts chuck to a smash's fat")).to_be_visible()


def test_a_batch_is_mended_and_two_meats_are_squared(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)  # a target outside the two meats
    page = _start(watched, "1 kg round, iron pan, 6 people")
    page.get_by_role("tab", name="Reach a target").click()
    page.get_by_role("radio", name="Mend a batch").click()
    page.get_by_label("Fat wanted").fill("20")
    page.get_by_role("button", name="What to add").click()
    # 1000 g at 8 % with suet of 94 %: 1000 × 12 ÷ 74 = 162 g
    row = page.get_by_role("row").filter(has_text="Suet")
    expect(row).to_contain_text("162\u00a0g")
    page.get_by_role("radio", name="Two meats, in a square").click()
    page.get_by_label("The other").select_option("trim-50")
    page.get_by_label("Fat wanted").fill("20 %")
    expect(page.get_by_role("img", name=re.compile("30 parts to 12"))).to_be_visible()
    page.get_by_role("button", name="Lay it out").click()
    expect(page.locator("[data-ticket=lean_to_fat] [data-value]")).to_have_text("80\u00a0:\u00a020")
    page.get_by_label("Fat wanted").fill("60 %")
    expect(page.get_by_role("alert")).to_contain_text("cannot make it")


def test_the_larder_takes_a_file_row_by_row(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.expected.add(422)  # a range that does not rise
    watched.go("/larder")
    text = page.request.get(f"{kestrel.address}/api/larder/file.csv").text().splitlines()
    mine = text[1].replace("chuck,Chuck", "reef-chuck,Reef chuck", 1)
    bad = text[2].replace("beef", "unicorn", 1)
    page.get_by_label("Larder file").set_input_files(
        {"name": "l.csv", "mimeType": "text/csv", "buffer": "\n".join([text[0], mine, bad]).encode()}
    )
    report = page.get_by_role("dialog", name="The file was read")
    expect(report).to_contain_text("1 added, 0 corrected, 0 as they were, 1 refused")
    expect(report.get_by_role("row").filter(has_text="species")).to_contain_text("3")
    page.keyboard.press("Escape")
    page.get_by_label("Find").fill("reef")
    expect(page.get_by_role("region", name="Larder table")).to_contain_text("Reef chuck")
    page.get_by_role("button", name="Edit Reef chuck").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Usually").fill("90 %")
    sheet.get_by_role("button", name="Save").click()
    expect(sheet.get_by_role("alert")).to_contain_text("must rise")
    sheet.get_by_label("Usually").fill("21 %")
    sheet.get_by_label("retired").check()
    sheet.get_by_role("button", name="Save").click()
    expect(sheet).to_have_count(0)
    expect(page.get_by_role("region", name="Larder table")).not_to_contain_text("Reef chuck")


def test_words_of_taste_open_a_plan(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/")
    page.get_by_role("button", name="rich, loose, crusty").click()
    expect(page.get_by_text("Rich: two points more fat")).to_be_visible()
    page.get_by_role("button", name="Put it on the bench").click()
    expect(page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    expect(page.locator("[data-ticket=lean_to_fat]")).to_contain_text(":")


def test_a_tool_of_the_kitchen_is_corrected_and_the_loads_follow(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.expected.add(422)  # a grinder without plates
    formula = next(f["id"] for f in watched.get("/formulas") if "Beacon" in f["name"])
    watched.go("/kitchen")
    page.get_by_role("button", name="Edit Bench mincer").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Plates, mm").fill("")
    sheet.get_by_role("button", name="Save").click()
    expect(sheet.get_by_role("alert")).to_contain_text("at least one plate")
    sheet.get_by_label("Plates, mm").fill("3, 4.5, 6, 8")
    sheet.get_by_label("A load").fill("1 kg")
    sheet.get_by_role("button", name="Save").click()
    expect(sheet).to_have_count(0)
    watched.go(f"/formula/{formula}/meat")
    page.get_by_role("tab", name="Grind and slip").click()
    expect(page.get_by_role("region", name="Steps of grinding")).to_contain_text("in 4 loads of about 910\u00a0g")


def test_on_a_phone_a_refused_limit_comes_into_sight(watch, kestrel) -> None:
    watched = watch(kestrel, width=390, height=844)
    watched.expected.add(422)
    page = watched.page
    formula = next(f["id"] for f in watched.get("/formulas") if "Beacon" in f["name"])
    watched.go(f"/formula/{formula}/meat")
    page.get_by_role("tab", name="Reach a target").click()
    page.get_by_label("Fat, at least").fill("much")
    page.get_by_role("button", name="Find blends").click()
    expect(page.get_by_label("Fat, at least")).to_be_focused()
    expect(page.get_by_role("alert")).to_be_in_viewport()
    page.get_by_label("Fat, at least").fill("18 %")
    # A limit that is folded away comes out when it is refused.
    page.get_by_text("More limits").click()
    page.get_by_label("Collagen of protein, at most").fill("little")
    page.get_by_text("More limits").click()
    expect(page.get_by_label("Collagen of protein, at most")).to_be_hidden()
    page.get_by_role("button", name="Find blends").click()
    expect(page.get_by_label("Collagen of protein, at most")).to_be_focused()
    expect(page.get_by_role("alert")).to_be_in_viewport()
