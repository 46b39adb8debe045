"""Every view: no accessibility violation by axe-core, keyboard, units, the width of a phone."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

# A burger on every step; balls, a loaf and a sauce where they are drawn or asked otherwise.
SHELF = {
    "Harbour-light": ("dish", "meat", "mix", "shape", "heat", "sauce", "cook", "notes"),
    "Keeper": ("dish", "shape", "heat", "cook"),
    "Night-watch": ("shape", "cook"),
    "Supply-boat": ("shape", "cook"),
}
STEPS = ("dish", "meat", "mix", "shape", "heat", "sauce", "cook", "notes")


def _formula(watched, name: str = "Harbour-light") -> int:
    return next(f["id"] for f in watched.get("/formulas") if name in f["name"])


@pytest.mark.parametrize("width", [1280, 390])
def test_no_view_breaks_an_accessibility_rule(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=800)
    page = watched.page
    formula = _formula(watched)
    cook = page.request.post(f"{kestrel.address}/api/cooks", data={"formula_id": formula}).json()["id"]
    found = {}
    for path in [
        "/",
        "/log",
        "/kitchen",
        "/larder",
        "/pantry",
        "/services",
        "/shopping",
        "/prep",
        "/butcher",
        f"/slip/{formula}",
        f"/build/{formula}",
        f"/log/{cook}",
        f"/stove/{cook}",
        "/nowhere",
    ] + [f"/formula/{_formula(watched, name)}/{step}" for name, steps in SHELF.items() for step in steps]:
        watched.go(path)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        page.wait_for_timeout(250)
        found[path] = watched.axe()
        overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        assert overflow <= 0, f"{path} scrolls sideways by {overflow} px at {width}"
    assert {path: lines for path, lines in found.items() if lines} == {}


def test_sheets_break_no_accessibility_rule(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.go(f"/formula/{_formula(watched)}/heat")
    watched.page.locator("[data-ticket=core]").click()
    expect(watched.page.get_by_role("dialog")).to_be_visible()
    assert watched.axe() == []
    watched.page.keyboard.press("Escape")
    watched.page.keyboard.press("Shift+?")
    expect(watched.page.get_by_role("dialog", name="Keys")).to_be_visible()
    assert watched.axe() == []


def test_the_opening_answer_breaks_no_accessibility_rule(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.go("/")
    watched.page.get_by_role("button", name="700 g unknown mince").click()
    expect(watched.page.get_by_role("button", name="Put it on the bench")).to_be_visible()
    assert watched.axe() == []


@pytest.mark.parametrize("width", [1280, 390])
def test_the_tabs_of_the_meat_bench_break_no_accessibility_rule(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=800)
    page = watched.page
    watched.go(f"/formula/{_formula(watched)}/meat")
    for tab, then in (
        ("Reach a target", "Find blends"),
        ("Names and money", None),
        ("Grind and slip", None),
        ("Blend", None),
    ):
        page.get_by_role("tab", name=tab).click()
        if then:
            page.get_by_role("button", name=then).click()
            expect(page.get_by_role("region", name="Blends found")).to_be_visible()
        expect(page.get_by_role("tabpanel", name=tab)).to_be_visible()
        assert watched.axe() == [], tab
        overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        assert overflow <= 0, f"{tab} scrolls sideways by {overflow} px at {width}"
    page.get_by_role("tab", name="Reach a target").click()
    for way in ("Two meats, in a square", "Mend a batch"):
        page.get_by_role("radio", name=way).click()
        page.wait_for_timeout(250)
        assert watched.axe() == [], way


@pytest.mark.parametrize("width", [1280, 390])
def test_the_tabs_of_the_mix_break_no_accessibility_rule(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=800)
    page = watched.page
    for name, tabs in (("Harbour-light", ("Salt",)), ("Keeper", ("Salt", "Whole mix", "Method", "Weigh out", "Bowl"))):
        watched.go(f"/formula/{_formula(watched, name)}/mix")
        for tab in tabs:
            page.get_by_role("tab", name=tab).click()
            expect(page.get_by_role("tabpanel", name=tab)).to_be_visible()
            assert watched.axe() == [], tab
            overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            assert overflow <= 0, f"{tab} scrolls sideways by {overflow} px at {width}"
    page.get_by_role("tab", name="Weigh out").click()
    page.get_by_role("button", name="By eye: weigh the bowl").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    assert watched.axe() == []


@pytest.mark.parametrize("width", [1280, 390])
def test_the_tabs_of_the_shape_bench_break_no_accessibility_rule(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=800)
    page = watched.page
    for name in ("Harbour-light", "Keeper", "Night-watch", "Supply-boat"):
        watched.go(f"/formula/{_formula(watched, name)}/shape")
        for tab in ("Divide", "Lay out"):
            page.get_by_role("tab", name=tab).click()
            expect(page.get_by_role("tabpanel", name=tab)).to_be_visible()
            assert watched.axe() == [], (name, tab)
            overflow = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            assert overflow <= 0, f"{name}, {tab} scrolls sideways by {overflow} px at {width}"


@pytest.mark.parametrize("width", [1280, 390])
def test_the_weighing_view_breaks_no_accessibility_rule(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=800)
    page = watched.page
    run = page.request.post(f"{kestrel.address}/api/weighings", data={"formula_id": _formula(watched)}).json()
    watched.go(f"/weigh/{run['id']}")
    expect(page.get_by_role("button", name="Lay on piece 1")).to_be_visible()
    assert watched.axe() == []
    page.keyboard.press("p")
    expect(page.locator("[data-next]")).to_have_text(re.compile("^(Keep|Add|Pinch off)"))
    page.keyboard.press("k")
    expect(page.locator("[data-counted]")).to_have_text(re.compile("^1 of "))
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth") <= 0


def test_the_kitchens_sheets_break_no_accessibility_rule(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/kitchen")
    for opener in ("Add a bread", "Edit Soft bun, 100 mm", "Add a mould", "Edit Loaf tin 220 × 110 × 65"):
        page.get_by_role("button", name=opener, exact=True).click()
        expect(page.get_by_role("dialog")).to_be_visible()
        page.wait_for_timeout(300)
        assert watched.axe() == [], opener
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


def test_the_pantrys_sheets_break_no_accessibility_rule(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/pantry")
    # axe looks at every cell behind a sheet; a hundred rows alike would tell it nothing new.
    page.get_by_label("Find").fill("panko")
    for opener in ("Change Yard rub", "Write one down", "Edit Panko", "Add an ingredient"):
        page.get_by_role("button", name=opener, exact=True).click()
        expect(page.get_by_role("dialog")).to_be_visible()
        page.wait_for_timeout(500)
        assert watched.axe() == [], opener
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


def test_the_larders_sheets_break_no_accessibility_rule(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/larder")
    for opener in ("Add fat evidence Norquay chuck", "Edit Norquay chuck", "Add a delivery", "Edit Rib"):
        page.get_by_role("button", name=opener, exact=True).click()
        expect(page.get_by_role("dialog")).to_be_visible()
        assert watched.axe() == [], opener
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


def test_keys_lead_to_every_step_and_flip_the_units(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go(f"/formula/{_formula(watched)}/dish")
    expect(page.get_by_role("heading", name="Dish")).to_be_visible()
    for key, title in (
        ("2", "Meat"),
        ("3", "Mix"),
        ("4", "Shape"),
        ("5", "Heat"),
        ("8", "Cook"),
        ("9", "Notes"),
        ("1", "Dish"),
    ):
        page.keyboard.press(key)
        expect(page.get_by_role("heading", name=title, exact=True, level=1)).to_be_visible()
    ticket = page.locator("[data-ticket=core]")
    expect(ticket).to_contain_text("61\u00a0°C")
    page.keyboard.press("u")
    expect(ticket).to_contain_text("142\u00a0°F")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("7.9\u00a0oz")
    page.keyboard.press("u")
    expect(ticket).to_contain_text("61\u00a0°C")


def test_the_main_figures_stay_in_sight_at_1280_by_800(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    for step in STEPS:
        watched.go(f"/formula/{_formula(watched)}/{step}")
        expect(page.locator("[data-ticket=core]")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollHeight <= innerHeight"), step


def test_the_kitchens_country_decides_which_floor_is_drawn(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go("/kitchen")
    try:
        for country, setting, floor in (
            ("UK", "home", "UK FSA advice"),
            ("US", "home", "USDA consumer advice"),
            ("CA", "home", "Canada"),
        ):
            watched.go("/kitchen")
            page.get_by_label("Country").select_option(country)
            expect(page.get_by_role("status").filter(has_text="Saved")).to_be_visible()
            page.get_by_label("Setting").select_option(setting)
            page.wait_for_timeout(300)
            watched.go(f"/formula/{_formula(watched)}/heat")
            expect(page.get_by_role("region", name="Core and floor")).to_contain_text(f"{floor} leads")
    finally:
        kitchen = watched.get("/kitchen")
        page.request.put(
            f"{kestrel.address}/api/kitchen",
            data={
                "kitchen": kitchen["kitchen"] | {"country": "US", "setting": "food-service"},
                "revision": kitchen["revision"],
            },
        )


def test_the_stove_has_targets_for_a_knuckle(watch, kestrel) -> None:
    watched = watch(kestrel, width=390, height=844)
    page = watched.page
    cook = page.request.post(f"{kestrel.address}/api/cooks", data={"formula_id": _formula(watched)}).json()["id"]
    watched.go(f"/stove/{cook}")
    expect(page.get_by_role("button", name="It is hot")).to_be_visible()
    for button in page.get_by_role("button").all():
        box = button.bounding_box()
        assert box["height"] >= 56, button.inner_text()
        assert box["width"] >= 56, button.inner_text()
    expect(page.locator("[data-theme=stove]")).to_have_count(1)
    assert re.match(
        r"rgb\(17, 24, 27\)|oklch",
        page.locator("[data-theme=stove]").evaluate("e => getComputedStyle(e).backgroundColor"),
    )
