"""What is printed, as PDF pages of the real browser: whole, nothing on it that is pressed, in both systems of units."""

from __future__ import annotations

import io
import re
from datetime import date, timedelta

import pytest
from playwright.sync_api import expect
from pypdf import PdfReader

MM_PER_PT = 25.4 / 72
TIMING = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}


@pytest.fixture
def service(watch, kestrel):
    """A page of a kitchen with a service of a burger and a loaf in some days; taken away again."""
    watched = watch(kestrel)
    api = f"{kestrel.address}/api"
    request = watched.page.request
    formulas = {f["name"]: f["id"] for f in request.get(f"{api}/formulas").json()}
    dishes = [{"formula_id": formulas["Slipway smash"], "guests": 20}]
    dishes += [{"formula_id": number, "guests": 8} for name, number in formulas.items() if name.startswith("Keeper")]
    day = (date.today() + timedelta(days=40)).isoformat()
    body = {"service": {"name": "Paper night", "day": day, "dishes": dishes[:2], "timing": TIMING}}
    watched.service = request.post(f"{api}/services", data=body).json()["id"]
    watched.formula = formulas["Slipway smash"]
    yield watched
    request.delete(f"{api}/services/{watched.service}")


def _printed(watched) -> PdfReader:
    data = watched.page.pdf(format="A4", prefer_css_page_size=True, print_background=False)
    return PdfReader(io.BytesIO(data))


def _text(pdf: PdfReader) -> str:
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pdf.pages)).replace("\xa0", " ")


@pytest.mark.parametrize(
    ("path", "ready", "says"),
    [
        ("/slip/{formula}", "article", ["Slipway smash", "Chuck", "ground beef"]),
        ("/build/{formula}", "article", ["Slipway smash", "Patty", "Crown"]),
        ("/services/{service}/set-out", "section", ["Paper night", "Chuck", "Use by"]),
        ("/services/{service}/stations", "[data-stations=ready]", ["At the bench", "Grind", "Paper night"]),
        ("/training", "section", ["How you stand", "When to turn", "Name"]),
    ],
)
def test_a_sheet_is_whole_on_paper_and_says_which_page_it_is(service, path: str, ready: str, says: list[str]) -> None:
    page = service.page
    service.go(path.format(formula=service.formula, service=service.service))
    expect(page.locator(ready).first).to_be_visible()
    metric = _printed(service)
    text = _text(metric)
    for wanted in says:
        assert wanted in text, f"{wanted} is not on paper: {text[:300]}"
    assert f"1 of {len(metric.pages)}" in text
    assert "printed" in text
    # Nothing on paper can be pressed, and nothing leads anywhere.
    assert not re.search(r"\bPrint\b|Skip to|Logbook", text)
    for sheet in metric.pages:
        assert round(float(sheet.mediabox.width) * MM_PER_PT) == 210
    page.keyboard.press("u")
    page.wait_for_timeout(300)
    expect(page.locator(ready).first).to_be_visible()
    assert len(_printed(service).pages) <= len(metric.pages) + 1


def test_masses_are_printed_in_the_units_of_the_screen(service) -> None:
    service.go(f"/slip/{service.formula}")
    expect(service.page.locator("article")).to_be_visible()
    assert re.search(r"\d g\b", _text(_printed(service)))
    service.page.keyboard.press("u")
    expect(service.page.locator("article").get_by_text(re.compile(r"\d\s(oz|lb)")).first).to_be_visible()
    assert re.search(r"\d (oz|lb)", _text(_printed(service)))


def test_labels_are_printed_on_their_own_sheet_one_a_container(service) -> None:
    page = service.page
    service.go(f"/services/{service.service}/labels")
    expect(page.locator("[data-labels=ready]")).to_be_visible()
    page.get_by_label("Printed on").select_option(label="A4, 8 of 99.1 × 67.7 mm")
    more = page.get_by_role("button", name="One container more of Slipway smash, raw mix")
    more.click()
    more.click()
    expect(page.get_by_text("3 of 3")).to_be_visible()
    page.get_by_label("First free label").fill("7")
    expect(page.get_by_role("list", name="Page 2")).to_be_visible()
    expect(page.locator("[data-labels=ready]")).to_be_visible()
    pdf = _printed(service)
    text = _text(pdf)
    assert len(pdf.pages) == 2
    assert text.count("Slipway smash, raw mix") == 3
    assert "ground beef" in text
    assert "Contains gluten (wheat)" in text
    # No head and no page number fall on a label.
    assert "printed" not in text
    assert "1 of 2" not in text.replace("1 of 2 containers", "")
    for name, width_mm, height_mm in (("Roll, 62 × 62 mm", 62, 62), ("Letter, 10 of 4 × 2 in", 216, 279)):
        page.get_by_label("Printed on").select_option(label=name)
        expect(page.locator("[data-labels=ready]")).to_be_visible()
        page.wait_for_timeout(500)
        sheet = _printed(service).pages[0].mediabox
        assert abs(float(sheet.width) * MM_PER_PT - width_mm) < 1
        assert abs(float(sheet.height) * MM_PER_PT - height_mm) < 1
    assert service.axe() == []


def test_a_place_that_the_sheet_does_not_have_is_refused_where_it_is_typed(service) -> None:
    service.go(f"/services/{service.service}/labels")
    expect(service.page.locator("[data-labels=ready]")).to_be_visible()
    service.page.get_by_label("First free label").fill("90")
    expect(service.page.get_by_role("alert")).to_contain_text("1 to 21")


def test_allergens_are_printed_bold(service) -> None:
    service.go(f"/services/{service.service}/labels")
    allergens = service.page.locator("ol b").first
    expect(allergens).to_be_visible()
    assert int(allergens.evaluate("e => getComputedStyle(e).fontWeight")) >= 700
