"""The heat bench in a browser: a smash's flip, the pub burger's floor, a loaf glazed, balls, a cool plate, a
reading."""

from __future__ import annotations

import re

import pytest
from hands import type_figure
from playwright.sync_api import Page, expect


def _heat(watched, name: str, tab: str = "Inside the piece") -> Page:
    page = watched.page
    formula = next(f["id"] for f in watched.get("/formulas") if name in f["name"])
    watched.go(f"/formula/{formula}/heat")
    page.get_by_role("tab", name=tab).click()
    return page


def _seconds(text: str) -> list[int]:
    return [int(m) * 60 + int(s) for m, s in re.findall(r"(\d+):(\d\d)", text)]


def _uncertainty_shown(page: Page) -> None:
    """Until the band of uncertainty has come in."""
    expect(page.locator("[data-there]")).to_contain_text("check from")


def test_the_flip_of_a_smashed_double_and_the_core_along_time(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Slipway smash")
    _uncertainty_shown(page)
    flip = page.locator("[data-flip]")
    expect(flip).to_contain_text("usual practice")
    computed = _seconds(flip.inner_text())[:2]
    assert 20 < computed[0] < computed[1] < 130
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
    expect(said).to_have_text(re.compile(r"At \d+:\d\d: core [\d.]+.°C, every place at least"))
    assert watched.axe() == []

    # A thicker one is turned later; the ticket says so too.
    ticket = page.locator("[data-ticket=core]").inner_text()
    said_before = flip.inner_text()
    type_figure(page, "Surface, measured", "290 C")
    expect(flip).not_to_have_text(said_before, use_inner_text=True)
    # The first answer is the usual value alone; its band comes after it.
    _uncertainty_shown(page)
    hotter = _seconds(flip.inner_text())[:2]
    assert hotter[0] <= computed[0]
    expect(page.locator("[data-ticket=core]")).not_to_have_text(ticket, use_inner_text=True)
    page.keyboard.press("Control+z")
    watched.saved()


def test_a_pub_burger_medium_with_the_floor_shown(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Harbour-light")
    _uncertainty_shown(page)
    lines = page.get_by_role("region", name="Published lines")
    leading = lines.get_by_role("row").filter(has_text="leads")
    expect(leading).to_contain_text("FDA Food Code")
    expect(leading).to_contain_text("not met")
    expect(lines).to_contain_text("Most at risk: children")
    page.get_by_role("tab", name="Ask").click()
    asked = page.get_by_role("listitem", name="What would meet the floor")
    answer = page.locator("[data-answer=reach-floor]")
    expect(answer).to_contain_text("Leave it on for")
    # The moment stands on the curve, beside one that is typed.
    drawn = page.get_by_role("figure", name=re.compile("meets the floor"))
    expect(drawn).to_have_accessible_name(re.compile(r"off as asked 4:00"))
    page.get_by_role("textbox", name="Time after which it is off").fill("9 min")
    expect(drawn).to_have_accessible_name(re.compile(r"off as asked 9:00"))
    assert watched.axe() == []
    asked.get_by_role("button", name="Use this answer").click()
    page.get_by_role("tab", name="Inside the piece").click()
    expect(leading).not_to_contain_text("not met")
    page.keyboard.press("Control+z")
    expect(leading).to_contain_text("not met")
    watched.saved()


def test_a_loaf_from_browned_to_rested(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Keeper", "The way")
    page.get_by_label("Way of cooking").select_option(label="Browned, glazed, baked")
    stages = page.get_by_role("list", name="Stages").get_by_role("listitem")
    expect(stages).to_have_count(4)
    page.get_by_role("radio", name="under foil").click()
    # One coat less, by hand.
    page.get_by_role("button", name="Leave stage 3 out").click()
    expect(stages).to_have_count(3)
    expect(page.get_by_role("button", name="Back to the way chosen")).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("tab", name="Inside the piece").click()
    _uncertainty_shown(page)
    expect(page.get_by_role("img", name=re.compile("glaze at 7:00.*pull at .*peak at "))).to_be_visible()
    expect(page.get_by_role("region", name="Uncertainty")).to_contain_text("%")
    page.get_by_role("tab", name="Minutes and floor").click()
    expect(page.get_by_role("list", name=re.compile("^Stages"))).to_contain_text("Under the broiler")
    watched.saved()
    page.get_by_role("tab", name="The way").click()
    page.get_by_label("Way of cooking").select_option("")
    watched.saved()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_flip_is_moved_along_the_time_axis_of_the_way(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = _heat(watched, "Beacon grill", "The way")
    axis = page.get_by_role("group", name="Stages in time")
    flip = axis.get_by_role("slider", name="on the surface, stage 1, ends")
    expect(flip).to_have_attribute("aria-valuetext", re.compile(r"at \d:\d\d, two fifths"))
    assert watched.axe() == []
    # By key: it ends by the clock from now on, a step later.
    was = int(flip.get_attribute("aria-valuenow") or 0)
    flip.press("ArrowRight")
    first = page.get_by_role("listitem", name="Stage 1")
    expect(first.get_by_label("How long")).to_have_value("time")
    expect(flip).to_have_attribute("aria-valuetext", re.compile(r"^at \d:\d\d$"))
    # The row is there before the curve is: the axis moves with the curve.
    expect(flip).not_to_have_attribute("aria-valuenow", str(was))
    now = int(flip.get_attribute("aria-valuenow") or 0)
    assert 0 < now - was <= 10
    # By hand: to the middle of where it was, as one step back.
    box, handle = axis.bounding_box(), flip.bounding_box()
    assert box is not None
    assert handle is not None
    middle = handle["x"] + handle["width"] / 2
    page.mouse.move(middle, handle["y"] + 20)
    page.mouse.down()
    page.mouse.move(box["x"] + (middle - box["x"]) / 2, handle["y"] + 20, steps=6)
    page.mouse.up()
    halfway = re.compile("|".join(f"^{s}$" for s in range(int(now / 2) - 10, int(now / 2) + 11) if s % 5 == 0))
    expect(first.get_by_label("Time")).to_have_value(re.compile(r"^[12]:\d\d$"))
    expect(flip).to_have_attribute("aria-valuenow", halfway)
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    page.keyboard.press("Control+z")
    expect(flip).to_have_attribute("aria-valuenow", str(now))
    page.keyboard.press("Control+z")
    expect(first.get_by_label("How long")).to_have_value("two-fifths")
    watched.saved()


def test_balls_baked_then_simmered(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Night-watch", "The way")
    page.get_by_label("Way of cooking").select_option(label="Baked for colour, then simmered")
    first = page.get_by_role("listitem", name="Stage 1")
    expect(first.get_by_label("Where")).to_have_value("oven")
    first.get_by_label("Time").fill("8 min")
    first.get_by_label("Time").press("Enter")
    expect(first.get_by_label("Time")).to_have_value("8:00")
    page.get_by_role("tab", name="Inside the piece").click()
    _uncertainty_shown(page)
    expect(page.get_by_role("tabpanel")).to_contain_text("In the sauce")
    watched.saved()
    page.get_by_role("tab", name="The way").click()
    page.get_by_label("Way of cooking").select_option("")
    watched.saved()


def test_a_plate_that_is_too_cool_and_one_without_a_thermometer(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Slipway smash", "Ask")
    now = page.get_by_role("region", name="How hot it is now")
    now.get_by_label("It measures").fill("180 C")
    now.get_by_role("button", name="Use it").click()
    expect(now.locator("[data-cool]")).to_contain_text(re.compile(r"short: wait \d+:\d\d"))
    now.get_by_label("Heated for").fill("3:00")
    now.get_by_role("button", name="Read the simulated thermometer").click()
    expect(now.get_by_label("It measures")).to_have_value(re.compile(r"^(8|9)\d.°C$"))
    expect(now.locator("[data-cool]")).to_contain_text("short: wait")
    cubes = page.get_by_role("region", name="Cubes in the freezer")
    expect(cubes.locator("[data-firm]")).to_contain_text(re.compile(r"firm after .*\d+:\d\d"))
    before = cubes.locator("[data-firm]").inner_text()
    cubes.get_by_label("Their edge").fill("40 mm")
    expect(cubes.locator("[data-firm]")).not_to_have_text(before, use_inner_text=True)
    now.get_by_label("A drop rolls up and skitters about").check()
    now.get_by_label("Fat shimmers and runs like water").check()
    expect(now.locator("[data-guess]")).to_contain_text("190–210")
    now.get_by_label("Fat shimmers and runs like water").uncheck()
    watched.expected.add(422)
    now.get_by_label("A drop of water lies there and steams").check()
    expect(now.get_by_role("alert")).to_contain_text("contradict")
    assert watched.axe() == []


def test_one_probe_reading_narrows_the_times_and_a_wild_one_is_refused(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Harbour-light")
    _uncertainty_shown(page)
    there = page.locator("[data-there]")
    wide = _seconds(there.inner_text())[:2]
    page.get_by_role("button", name="Hold this curve to compare").click()
    page.get_by_role("button", name="Read the simulated probe").click()
    fitted = page.locator("[data-fitted]")
    expect(fitted).to_contain_text("Fitted to what you saw")
    _uncertainty_shown(page)
    narrow = _seconds(there.inner_text())[:2]
    assert narrow[1] / narrow[0] < wide[1] / wide[0]
    expect(page.get_by_text("held:")).to_be_visible()
    page.get_by_role("button", name="Forget what was seen").click()
    expect(fitted).to_have_count(0)
    page.get_by_label("Probe at").fill("1:00")
    page.get_by_label("It read").fill("95 C")
    page.get_by_role("button", name="Fit to it").click()
    expect(fitted).to_contain_text("was not used")
    assert watched.axe() == []


def test_a_thinner_pan_is_written_down_and_the_surface_falls_further(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Slipway smash")
    _uncertainty_shown(page)
    fell = page.get_by_text("Surface falls to", exact=True).locator("..")
    before = float(re.search(r"(\d+).°C", fell.inner_text()).group(1))
    watched.go("/kitchen")
    page.get_by_role("button", name="Edit Flat plate 700 × 400").click()
    page.get_by_label("Thickness").fill("3 mm")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("region", name="Surfaces")).to_contain_text("steel, 3 mm, usual burner")
    page = _heat(watched, "Slipway smash")
    _uncertainty_shown(page)
    after = float(re.search(r"(\d+).°C", fell.inner_text()).group(1))
    assert after < before - 5
    watched.go("/kitchen")
    page.get_by_role("button", name="Edit Flat plate 700 × 400").click()
    page.get_by_label("Thickness").fill("")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("status")).to_have_text("Saved")


def test_chilled_first_it_lies_off_the_clock_and_later_waves_are_told(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _heat(watched, "Slipway smash")
    _uncertainty_shown(page)
    remark = page.locator("main").get_by_text("Laid on as soon as it is scraped")
    expect(remark).to_contain_text(re.compile(r"a later wave finds \d+.°C"))
    flip = page.locator("[data-flip]")
    warm = flip.inner_text()

    page.get_by_role("tab", name="The way").click()
    page.get_by_role("button", name="Chill it first").click()
    stages = page.get_by_role("list", name="Stages").get_by_role("listitem")
    expect(stages).to_have_count(3)
    expect(stages.nth(0)).to_contain_text("before the heat")
    expect(stages.nth(1)).to_contain_text("0:00–")
    # What is cold is not offered among what is hot, nor the other way round.
    assert stages.nth(0).get_by_label("Where").locator("option").all_inner_texts() == [
        "in the fridge",
        "in the freezer",
    ]
    assert "in the freezer" not in stages.nth(1).get_by_label("Where").locator("option").all_inner_texts()
    watched.expected.add(422)  # warmer than any fridge
    stages.nth(0).get_by_label("How cold").fill("20 C")
    stages.nth(0).get_by_label("How cold").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("−40 to 12")
    stages.nth(0).get_by_label("Time").fill("30 min")
    stages.nth(0).get_by_label("Time").press("Enter")
    expect(stages.nth(0).get_by_label("Time")).to_have_value("30:00")
    watched.saved()
    assert watched.axe() == []

    page.get_by_role("tab", name="Inside the piece").click()
    expect(flip).not_to_have_text(warm, use_inner_text=True)
    page.get_by_role("tab", name="Minutes and floor").click()
    expect(page.get_by_role("region", name="Minutes")).to_contain_text("In the freezer first")
    page.get_by_role("tab", name="The way").click()
    page.get_by_role("button", name="Back to the style").click()
    expect(stages).to_have_count(2)
    watched.saved()


def test_the_heat_bench_fits_a_phone(watch, kestrel) -> None:
    watched = watch(kestrel, width=390, height=800)
    page = _heat(watched, "Harbour-light")
    expect(page.get_by_role("slider", name="Moment")).to_be_visible()
    for tab in ("Inside the piece", "The way", "Ask"):
        page.get_by_role("tab", name=tab).click()
        assert page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth") <= 0
    assert watched.axe() == []


def test_cheese_laid_on_counts_and_a_limit_it_breaks_is_kept_by_one_tap(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/")
    page.get_by_role("link", name=re.compile("Harbour-light pub")).first.click()
    page.get_by_role("link", name=re.compile("^5 ?Heat")).click()
    page.get_by_role("tab", name="The way").click()
    page.get_by_label("Way of cooking").select_option("cheese-under-cover")
    expect(page.locator("[data-ticket=allergens]")).to_contain_text("milk")
    page.get_by_label("Cheese laid on").select_option(label="Cheddar")
    page.get_by_role("link", name=re.compile("^3 ?Mix")).click()
    page.get_by_role("tab", name="Whole mix").click()
    served = page.get_by_role("region", name="A portion as served")
    expect(served).to_contain_text("Cheddar")
    page.get_by_label("No dairy").check()
    limit = page.get_by_role("heading", name="No dairy, but cheddar comes with it")
    expect(limit).to_be_visible()
    page.get_by_role("button", name="Leave it off").click()
    expect(limit).to_have_count(0)
    expect(served).not_to_contain_text("Cheddar")
    expect(page.locator("[data-ticket=allergens]")).not_to_contain_text("milk")
