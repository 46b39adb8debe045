"""Round the meat in a browser: a glazed loaf, balls in a pot, pickles, fat skimmed, what cannot be had, the build."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import Locator, Page, expect

from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash, supply_boat_ragu
from vianda.core.model.formula import Formula, StackLayer
from vianda.interchange.kinds import FORMULAS


def _open(watched, formula: Formula, name: str, tab: str | None = None) -> Page:
    page = watched.page
    body = {"formula": FORMULAS.plain(replace(formula, name=name))}
    made = page.request.post(f"{watched.served.address}/api/formulas", data=body)
    assert made.status == 201, made.text()
    watched.go(f"/formula/{made.json()['id']}/sauce")
    expect(page.get_by_role("heading", name="Sauce", exact=True)).to_be_visible()
    if tab:
        page.get_by_role("tab", name=tab, exact=True).click()
    return page


def _fill(where: Page | Locator, label: str, text: str) -> None:
    field = where.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_a_loaf_is_glazed_in_two_coats_and_the_rest_cooked_down(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, keepers_loaf(), "Glazed loaf")
    page.get_by_label("As", exact=True).select_option(label="Glaze")
    page.get_by_label("What", exact=True).select_option(label="Ketchup")
    page.get_by_role("button", name="Put it beside").click()
    glaze = page.locator("[data-glaze]")
    expect(glaze).to_contain_text("2 of them")
    counsel = page.get_by_role("complementary", name="Counsel")
    # No stage brushes it on: one tap does, and the fact is gone.
    counsel.get_by_role("button", name="Brush it on in the last stage").click()
    expect(counsel.get_by_text("no stage of the heat brushes it on")).to_have_count(0)
    _fill(page, "Made at once", "1 kg")
    watched.saved()
    expect(glaze).to_contain_text("cooked to half")
    expect(counsel.get_by_text(re.compile("short of 2 coats"))).to_have_count(0)
    _fill(page, "Coats", "5")
    expect(counsel.get_by_text(re.compile("short of 5 coats"))).to_be_visible()
    counsel.get_by_role("button", name=re.compile("^Make ")).first.click()
    expect(counsel.get_by_text(re.compile("short of 5 coats"))).to_have_count(0)
    parts = page.get_by_role("region", name="One portion by its parts")
    expect(parts.locator("[data-part=mix]")).to_be_visible()
    expect(parts.locator("[data-part=glaze]")).to_contain_text("Ketchup")
    assert watched.axe() == []


@pytest.mark.parametrize("width", [1280, 390])
def test_balls_are_covered_in_a_tomato_sauce_cooked_down(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    page = _open(watched, night_watch_balls(), f"Balls in a pot at {width}", "Pot")
    balls, pot = page.locator("[data-balls]"), page.locator("[data-pot]")
    expect(page.get_by_label("In the pot", exact=True)).to_have_value("school:quick-tomato")
    expect(balls).to_contain_text("54 balls in 3 layers")
    expect(balls).to_contain_text("short of two thirds")
    _fill(page, "Balls in it", "12")
    expect(balls).to_contain_text("12 balls in one layer")
    # As many balls in a narrower pot take less sauce.
    _fill(page, "Pot, inside", "18 cm")
    expect(balls).to_contain_text("12 balls in one layer")
    expect(balls).not_to_contain_text("short")
    # Thicker: more boils off and it takes longer.
    _fill(page, "Dry matter", "16 %")
    expect(page.get_by_label("To be left", exact=True)).to_have_value("561\u00a0g")
    expect(pot).to_contain_text("16.0\u2009%")
    picture = page.get_by_role("img", name=re.compile("With 12 balls in one layer it stands"))
    expect(picture).to_be_visible()
    assert watched.axe() == []


def test_a_level_is_dragged_by_keys_and_what_cannot_be_is_refused(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)
    page = _open(watched, slipway_smash(), "A level", "Pot")
    level = page.get_by_role("slider", name="What is left in the pot")
    expect(level).to_have_attribute("aria-valuenow", "81")
    level.focus()
    page.keyboard.press("ArrowDown")
    expect(level).to_have_attribute("aria-valuenow", "80")
    page.keyboard.press("Shift+ArrowDown")
    expect(level).to_have_attribute("aria-valuenow", "70")
    _fill(page, "Dry matter", "2 %")
    expect(page.get_by_role("alert")).to_contain_text("dry matter now")
    # What stood there stands on, and the next word is taken.
    expect(level).to_have_attribute("aria-valuenow", "70")
    _fill(page, "To be left", "700 g")
    expect(page.get_by_role("alert")).to_have_count(0)
    _fill(page, "Fat wanted", "2 %")
    expect(page.get_by_text(re.compile("^Skim"))).to_be_visible()


def test_a_meat_sauce_has_its_fat_skimmed_and_is_thickened(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)  # a litre is no mass
    page = _open(watched, supply_boat_ragu(), "Skimmed", "Pot")
    page.get_by_label("In the pot", exact=True).select_option(label="Something else, by grams")
    _fill(page, "Goes in", "3 kg")
    _fill(page, "To be left", "2 kg")
    expect(page.locator("[data-pot]")).to_contain_text("1000\u00a0g")
    thick = page.get_by_role("region", name="Thicken it")
    _fill(thick, "Liquid", "1 l")
    expect(page.get_by_role("alert")).to_be_visible()
    _fill(thick, "Liquid", "1 kg")
    thick.get_by_label("With", exact=True).select_option(label="Cornflour")
    expect(thick.locator("[data-thick]")).to_contain_text("Stirred into cold water")
    keep = page.get_by_role("region", name="Keep it")
    expect(keep.locator("[data-kept=within]")).to_be_visible()
    _fill(keep, "Tray, filled", "8 cm")
    expect(keep.locator("[data-kept=too-slow]")).to_be_visible()
    expect(keep).to_contain_text("too slow")
    assert watched.axe() == []


def test_pickles_say_when_they_are_ready_and_what_keeping_rests_on(watch, kestrel) -> None:
    watched = watch(kestrel, width=390)
    watched.expected.add(422)
    page = _open(watched, slipway_smash(), "Pickles", "Jar")
    jar = page.locator("[data-jar]")
    expect(jar).to_contain_text("0.8–6.3 h")
    expect(jar).to_contain_text("an estimate is no measurement")
    _fill(page, "Slices", "8 mm")
    expect(jar).to_contain_text("3.1–25 h")
    _fill(page, "Of that", "20 g")
    expect(jar).to_contain_text("Not surely sour enough")
    _fill(page, "Slices", "thin")
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("Slices", exact=True)).to_have_value("8\u00a0mm")
    _fill(page, "Salt of the whole", "1 %")
    crock = page.get_by_role("region", name="Ferment it")
    expect(crock.get_by_role("alert")).to_contain_text("1.5 to 6")
    _fill(page, "Salt of the whole", "2 %")
    expect(page.locator("[data-crock]")).to_contain_text("20\u00a0g")
    assert watched.axe() == []


def test_a_shaker_is_weighed_and_its_shakes_counted(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, slipway_smash(), "Shaken", "Shaker")
    for before, after in (("80 g", "77.6 g"), ("77.6 g", "75 g")):
        page.get_by_label("Before", exact=True).fill(before)
        page.get_by_label("After", exact=True).fill(after)
        page.get_by_role("button", name="Note it").click()
        expect(page.get_by_label("After", exact=True)).to_have_value("")
    expect(page.get_by_role("list", name="Weighings").locator("li")).to_have_count(2)
    expect(page.locator("[data-shakes]")).to_contain_text("2 shakes a side")
    _fill(page, "Salt on a side", "1 g")
    expect(page.locator("[data-shakes]")).to_contain_text("4 shakes a side")
    page.get_by_role("button", name="Strike weighing 2").click()
    expect(page.get_by_text("One weighing does not show how even it is.")).to_be_visible()
    assert watched.axe() == []


def test_what_cannot_be_had_is_replaced_and_a_pour_is_read_back(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, slipway_smash(), "Swapped", "Taste")
    lines = page.get_by_role("region", name="What is in it")
    expect(lines.get_by_label("Grams of ketchup")).to_have_value("60\u00a0g")
    lines.get_by_role("button", name="Ketchup cannot be had").click()
    offers = page.locator("[data-offers]")
    expect(offers).to_contain_text("tomato paste")
    expect(offers).to_contain_text("would miss nothing")
    offers.get_by_role("button", name="Take it").first.click()
    expect(lines.get_by_label("Grams of ketchup")).to_have_count(0)
    expect(lines.get_by_label("Grams of tomato paste")).to_be_visible()
    page.get_by_role("button", name="Hotter").click()
    page.locator("[data-proposal]").get_by_role("button", name="Do it").click()
    # Said as cooks say it; what is not read comes back to be mended.
    watched.expected.add(422)
    _fill(page, "What goes in", "2 tsp mustard, 3 g blarg")
    expect(page.get_by_role("alert")).to_contain_text("blarg")
    expect(page.get_by_label("What goes in", exact=True)).to_have_value("2 tsp mustard, 3 g blarg")
    _fill(page, "What goes in", "2 tsp mustard")
    expect(lines.get_by_label("Grams of mustard")).to_have_value("10\u00a0g")
    page.get_by_role("button", name="Undo the last change").click()
    expect(lines.get_by_label("Grams of mustard")).to_have_count(0)
    # Poured over the scale without measuring.
    poured = page.get_by_role("form", name="Poured at the bowl")
    poured.get_by_label("What was poured").select_option(label="Mayonnaise")
    poured.get_by_label("Scale before").fill("250 g")
    poured.get_by_label("Scale after").fill("270 g")
    poured.get_by_role("button", name="Add it").click()
    expect(lines.get_by_label("Grams of mayonnaise")).to_have_value("170\u00a0g")
    rounds = page.get_by_role("list", name="Rounds")
    expect(rounds.locator("li")).to_have_count(3)
    expect(rounds).to_contain_text("Poured 20\u00a0g mayonnaise")
    _fill(page, "To", "1 kg")
    expect(lines).to_contain_text("1000\u00a0g")
    expect(rounds.locator("li")).to_have_count(4)
    for left in (3, 2):
        page.get_by_role("button", name="Undo the last change").click()
        expect(rounds.locator("li")).to_have_count(left)
    expect(lines.get_by_label("Grams of mayonnaise")).to_have_value("150\u00a0g")
    assert watched.axe() == []


KINDS = ("heel", "leaf", "patty", "cheese", "crown")


def _double() -> Formula:
    layers = tuple(
        StackLayer(k, "processed-cheese" if k == "cheese" else "", toasted=k in ("heel", "crown"))  # type: ignore[arg-type]
        for k in KINDS
    )
    formula = slipway_smash()
    return replace(formula, dish=replace(formula.dish, guests=2), stack=layers)


def test_a_layer_is_dragged_to_its_place(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, _double(), "Dragged", "The build")
    layers = page.get_by_role("region", name="Layers, from the top").locator("li")
    expect(layers).to_have_count(len(KINDS))
    expect(layers.nth(1)).to_have_attribute("data-layer", "cheese")
    grip, under = layers.nth(1).locator("[data-grip]"), layers.nth(3)
    start, end = grip.bounding_box(), under.bounding_box()
    assert start is not None
    assert end is not None
    page.mouse.move(start["x"] + 10, start["y"] + 10)
    page.mouse.down()
    page.mouse.move(end["x"] + 10, end["y"] + end["height"] / 2, steps=5)
    page.mouse.up()
    expect(layers.nth(3)).to_have_attribute("data-layer", "cheese")
    expect(layers.nth(1)).to_have_attribute("data-layer", "patty")
    page.get_by_role("button", name="Undo").click()
    expect(layers.nth(1)).to_have_attribute("data-layer", "cheese")


def test_the_build_is_printed_and_ticked_off_at_the_stove(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, _double(), "Ticked off", "The build")
    watched.saved()
    made = watched.formula_id()
    page.get_by_role("link", name="Build sheet to print").click()
    expect(page.get_by_role("heading", name="Ticked off")).to_be_visible()
    expect(page.get_by_role("region", name="Built from below").locator("li")).to_have_count(len(KINDS))
    expect(page.get_by_role("region", name="Ready before")).to_contain_text("Bread toasted")
    assert watched.axe() == []

    cook = page.request.post(f"{kestrel.address}/api/cooks", data={"formula_id": made}).json()
    watched.go(f"/stove/{cook['id']}")
    over = page.get_by_role("heading", name="All off the heat")
    heading = page.get_by_role("heading", level=1)
    while True:
        expect(heading).to_be_visible()
        if over.is_visible():
            break
        said = page.locator("main").inner_text()
        page.locator("div.sticky button").first.click()
        expect(page.locator("main")).not_to_have_text(said)
    build = page.get_by_role("region", name="Build")
    rows = build.locator("li button")
    expect(rows).to_have_count(7)
    for at in range(7):
        rows.nth(at).click()
        expect(rows.nth(at)).to_have_attribute("aria-pressed", "true")
    build.get_by_role("button", name="Built: the next one").click()
    expect(build.get_by_role("status")).to_have_text("1 built")
    # What was made ready stays ticked.
    expect(build.locator("[aria-pressed=true]")).to_have_count(2)
    assert watched.axe() == []


def test_a_taco_is_folded_and_grilled_onions_take_their_place_in_the_first_wave(watch, kestrel) -> None:
    watched = watch(kestrel)
    smash = slipway_smash()
    taco = replace(
        smash,
        shape=replace(smash.shape, bun="tortilla-150"),
        stack=(StackLayer("heel", toasted=True), StackLayer("patty"), StackLayer("onion", "onion")),
    )
    page = _open(watched, taco, "Folded", "The build")
    expect(page.get_by_role("img", name=re.compile("^Folded over. From below: Small wheat tortilla"))).to_be_visible()
    expect(page.get_by_text("where it is tasted last")).to_be_visible()
    page.get_by_role("tab", name="What goes with it", exact=True).click()
    page.get_by_label("As", exact=True).select_option(label="Topping")
    page.get_by_label("What", exact=True).select_option(label="Onion slab, grilled")
    page.get_by_role("button", name="Put it beside").click()
    watched.saved()
    page.get_by_role("link", name=re.compile("^8\\s*Cook")).click()
    expect(page.get_by_text("First wave, with what lies beside it")).to_be_visible()
    assert watched.axe() == []


def test_a_cooked_sauce_is_bound_with_starch_instead(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, supply_boat_ragu(), "Bound", "Taste")
    page.get_by_label("Sauce on the bench").select_option(label="Onion gravy, as its school starts")
    lines = page.get_by_role("region", name="What is in it")
    page.get_by_role("button", name="Thicker", exact=True).click()
    starch = page.locator("[data-starch]")
    expect(starch).to_contain_text("cornflour")
    page.get_by_role("button", name="Bind it").click()
    expect(starch).to_have_count(0)
    expect(lines.get_by_label("Grams of maize starch", exact=True)).to_be_visible()
    # Taken back with one tap.
    page.get_by_role("button", name="Undo the last change").click()
    expect(lines.get_by_label("Grams of maize starch", exact=True)).to_have_count(0)
