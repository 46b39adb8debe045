"""The sauce bench in a browser: a sauce made sharper, kept and dosed; a build stacked until no rule speaks."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import Page, expect

from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, slipway_smash
from vianda.core.model.formula import Formula
from vianda.interchange.kinds import FORMULAS


def _open(watched, formula: Formula, name: str) -> Page:
    """A formula of one's own, which no other journey has changed, at its sauce."""
    page = watched.page
    body = {"formula": FORMULAS.plain(replace(formula, name=name))}
    made = page.request.post(f"{watched.served.address}/api/formulas", data=body)
    assert made.status == 201, made.text()
    watched.go(f"/formula/{made.json()['id']}/sauce")
    expect(page.get_by_role("heading", name="Sauce", exact=True)).to_be_visible()
    return page


def _fill(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def _lies(page: Page, *kinds: str) -> None:
    """The build from the top."""
    layers = page.get_by_role("region", name="Layers, from the top").locator("li")
    for at, kind in enumerate(kinds):
        expect(layers.nth(at)).to_have_attribute("data-layer", kind)
    expect(layers).to_have_count(len(kinds))


@pytest.mark.parametrize(
    ("width", "formula", "portions", "lies"),
    [(1280, slipway_smash(), "20 portions", "1.6 mm thick"), (390, harbour_light_pub(), "4 portions", "mm thick")],
    ids=["wide", "phone"],
)
def test_a_burger_sauce_made_sharper_and_looser_kept_and_dosed(
    watch, kestrel, width: int, formula: Formula, portions: str, lies: str
) -> None:
    watched = watch(kestrel, width=width)
    page = _open(watched, formula, f"Sauced at {width}")
    expect(page.get_by_text("Nothing goes with it yet.")).to_be_visible()
    page.get_by_role("tab", name="Taste").click()
    lines = page.get_by_role("region", name="What is in it")
    expect(lines.get_by_label("Grams of mayonnaise")).to_have_value("150\u00a0g")
    acid = page.locator("[data-taste=acid]")
    expect(acid).to_contain_text("0.73 %")
    assert watched.axe() == []

    page.get_by_role("button", name="Sharper").click()
    proposal = page.locator("[data-proposal]")
    expect(proposal).to_contain_text("+6.3 g cider vinegar")
    # Nothing is changed until it is taken.
    expect(lines.get_by_label("Grams of cider vinegar")).to_have_count(0)
    expect(acid).to_contain_text("→ 0.84 %")
    assert watched.axe() == []
    proposal.get_by_role("button", name="Do it").click()
    expect(lines.get_by_label("Grams of cider vinegar")).to_have_value("6.3\u00a0g")
    expect(acid).to_contain_text("0.84 %")
    page.get_by_role("button", name="Undo the last change").click()
    expect(lines.get_by_label("Grams of cider vinegar")).to_have_count(0)
    page.get_by_role("button", name="Sharper").click()
    proposal.get_by_role("button", name="Do it").click()
    page.get_by_role("button", name="Looser").click()
    expect(proposal).to_contain_text("water")
    proposal.get_by_role("button", name="Do it").click()

    _fill(page, "Its name", f"Slipway sauce {width}")
    page.get_by_role("button", name="Keep this sauce").click()
    expect(page.get_by_text("Written to the pantry and put beside it.")).to_be_visible()
    page.get_by_role("tab", name="What goes with it").click()
    beside = page.get_by_role("list", name="What goes with it")
    expect(beside).to_contain_text(f"Slipway sauce {width}")
    expect(beside).to_contain_text("made in the house")
    expect(beside).to_contain_text(portions)
    watched.saved()
    _fill(page, "A portion", "25 g")
    watched.saved()
    expect(page.get_by_label("A portion", exact=True)).to_have_value("25\u00a0g")
    expect(beside).to_contain_text(lies)
    _fill(page, "Made at once", "40 g")
    watched.saved()
    expect(page.get_by_label("Made at once", exact=True)).to_have_value("40\u00a0g")
    expect(beside).to_contain_text("short")
    page.get_by_role("complementary", name="Counsel").get_by_role("button", name=re.compile("^Make ")).click()
    expect(beside).not_to_contain_text("short")
    expect(page.locator("[data-ticket=allergens]")).to_contain_text("egg")
    assert watched.axe() == []


def test_a_dose_that_is_none_is_refused_in_words_and_nothing_is_lost(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)  # what is typed wrong on purpose
    page = _open(watched, beacon_grill(), "A dose refused")
    page.get_by_role("button", name="Put it beside").click()
    # A bun of 90 mm takes 0.81 of what one of 100 mm does.
    expect(page.get_by_label("A portion", exact=True)).to_have_value("16\u00a0g")
    _fill(page, "A portion", "a lot")
    expect(page.get_by_role("alert")).to_be_visible()
    expect(page.get_by_label("A portion", exact=True)).to_have_value("16\u00a0g")
    page.get_by_role("button", name="Take Mayonnaise away").click()
    expect(page.get_by_text("Nothing goes with it yet.")).to_be_visible()


def test_a_double_is_stacked_until_no_rule_of_the_build_speaks(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, beacon_grill(), "A build")
    page.get_by_role("tab", name="The build").click()
    layers = page.get_by_role("region", name="Layers, from the top")
    another = layers.get_by_label("Another layer")
    for name in ("Leaf", "Tomato slice"):
        another.select_option(label=name)
        layers.get_by_role("button", name="Lay it on").click()
        expect(layers.locator("li").nth(1)).to_contain_text("Butterhead lettuce" if name == "Leaf" else "Tomato")
    counsel = page.get_by_role("complementary", name="Counsel")
    expect(counsel.locator("[data-rule='stack.wet-on-bread']")).to_be_visible()
    counsel.locator("[data-rule='stack.wet-on-bread']").get_by_role("button", name="Build it so").click()
    expect(counsel.locator("[data-rule='stack.wet-on-bread']")).to_have_count(0)
    _lies(page, "crown", "leaf", "tomato", "patty", "heel")
    # By keys: down onto the bread the rule speaks again, up and it is silent.
    down = layers.get_by_role("button", name="Tomato down")
    down.focus()
    page.keyboard.press("Enter")
    _lies(page, "crown", "leaf", "patty", "tomato", "heel")
    expect(counsel.locator("[data-rule='stack.wet-on-bread']")).to_be_visible()
    layers.get_by_role("button", name="Tomato up").click()
    _lies(page, "crown", "leaf", "tomato", "patty", "heel")
    expect(counsel.locator("[data-rule^='stack.wet']")).to_have_count(0)
    picture = page.get_by_role("img", name=re.compile("^From below: Heel"))
    expect(picture).to_be_visible()
    assert watched.axe() == []
    layers.get_by_role("button", name="Back to the usual").click()
    expect(layers.get_by_role("heading")).to_have_text("The usual build, from the top")
