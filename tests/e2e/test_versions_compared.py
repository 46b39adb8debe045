"""Two versions compared in a browser, and tasted blind."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


def _two_versions(watched, name: str) -> int:
    def call(method: str, path: str, body: dict) -> dict:
        answer = watched.page.request.fetch(f"{watched.served.address}/api{path}", method=method, data=body)
        assert answer.ok, answer.text()
        return answer.json()

    smash = replace(slipway_smash(), name=name)
    made = call("POST", "/formulas", {"formula": FORMULAS.plain(smash)})
    call("POST", f"/formulas/{made['id']}/versions", {"name": "At 240"})
    hotter = replace(smash, heat=replace(smash.heat, surface_temp_c=260.0))
    call("PUT", f"/formulas/{made['id']}", {"formula": FORMULAS.plain(hotter), "revision": made["revision"]})
    return made["id"]


@pytest.mark.parametrize("width", [1280, 390])
def test_two_versions_are_compared_after_a_blind_triangle(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    formula = _two_versions(watched, f"Compared {width}")
    watched.go(f"/formula/{formula}/notes")
    page.get_by_role("link", name="Compare, and taste blind").click()
    differs = page.get_by_role("region", name="What differs")
    expect(differs).to_contain_text("One change")
    expect(differs.get_by_role("row").last).to_contain_text("240 °C")
    expect(differs.get_by_role("row").last).to_contain_text("260 °C")
    expect(page.get_by_role("region", name="Forecast").get_by_role("row").nth(1)).to_be_visible()
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width

    # Three of four versions cannot be ranked where there are two: said, and nothing is lost.
    blind = page.get_by_role("region", name="Taste them blind")
    watched.expected.add(422)
    blind.get_by_role("radio", name="Ranking").click()
    blind.get_by_role("button", name="Make the sheet").click()
    expect(blind.get_by_role("alert")).to_contain_text("3 to 5 versions")
    blind.get_by_role("radio", name="Triangle").click()
    blind.get_by_label("Tasters").fill("7")
    blind.get_by_label("Tasters").press("Enter")
    blind.get_by_role("button", name="Make the sheet").click()

    page.wait_for_url(re.compile(r"/tastings/\d+"))
    expect(page.get_by_role("heading", name="Triangle test")).to_be_visible()
    assert watched.axe() == []
    sheet = page.request.get(f"{kestrel.address}/api{page.url.split(str(kestrel.address))[1]}").json()
    for n, place in enumerate(sheet["places"]):
        versions = [p["version"] for p in place["samples"]]
        odd = next(p["code"] for p in place["samples"] if versions.count(p["version"]) == 1)
        wrong = next(p["code"] for p in place["samples"] if p["code"] != odd)
        row = page.get_by_role("listitem", name=f"Taster {place['taster']}", exact=True)
        # Five of seven find it.
        code = row.get_by_role("button", name=str(odd if n < 5 else wrong))
        code.click()
        expect(code).to_have_attribute("aria-pressed", "true")
        expect(page.locator("[data-tasting=ready]")).to_contain_text(f"{n + 1} of 7")
    says = page.get_by_role("region", name="What it says")
    expect(says).to_contain_text("The difference is tasted. 5 of 7 named the odd one")
    # Tapped wrongly, and taken back: four of six are no verdict.
    row.get_by_role("button", pressed=True).click()
    expect(says).to_contain_text("6 of 7")
    page.get_by_text("For whoever serves: which code is which").click()
    expect(page.get_by_text("As it stands")).to_be_visible()
    assert watched.axe() == []
    # It stays where it was when the page is opened again, and stands with the formula.
    page.reload()
    expect(says).to_contain_text("5 of 6 named the odd one")
    page.get_by_role("link", name=f"Compared {width}").click()
    expect(page.get_by_role("list", name="Tastings").get_by_role("listitem")).to_contain_text("5 of 6")


def test_a_formula_without_versions_says_what_to_do(watch, kestrel) -> None:
    watched = watch(kestrel)
    made = watched.page.request.post(
        f"{kestrel.address}/api/formulas", data={"formula": FORMULAS.plain(replace(slipway_smash(), name="Bare"))}
    ).json()
    watched.go(f"/formula/{made['id']}/compare")
    expect(watched.page.get_by_text("No version is kept yet")).to_be_visible()
    assert watched.axe() == []


def test_a_ranking_is_tapped_in_order(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    formula = _two_versions(watched, "Ranked")
    api = f"{kestrel.address}/api/formulas/{formula}"
    assert page.request.post(f"{api}/versions", data={"name": "At 260"}).ok
    made = page.request.post(f"{api}/tastings", data={"kind": "ranking", "versions": [1, 2, 0], "tasters": 3}).json()
    watched.go(f"/tastings/{made['id']}")
    codes = [p["code"] for p in made["places"][0]["samples"]]
    row = page.get_by_role("listitem", name="Taster 1", exact=True)
    for n in (2, 0, 1):
        row.get_by_role("button", name=str(codes[n])).click()
    expect(row.get_by_role("button", name=re.compile(f"^{codes[2]}"))).to_contain_text("1.")
    expect(page.get_by_role("region", name="What it says")).to_contain_text("1 of 3")
    kept = page.request.get(f"{kestrel.address}/api/tastings/{made['id']}").json()["tasting"]["answers"]
    assert kept == [{"taster": 1, "codes": [codes[2], codes[0], codes[1]]}]
