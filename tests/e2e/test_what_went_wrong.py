"""A fault found in a browser, and the next version made of it with one tap."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import slipway_smash
from vianda.core.model.formula import BlendPart
from vianda.interchange.kinds import FORMULAS


def _cooked(watched, name: str) -> dict:
    def call(method: str, path: str, body: dict) -> dict:
        answer = watched.page.request.fetch(f"{watched.served.address}/api{path}", method=method, data=body)
        assert answer.ok, answer.text()
        return answer.json()

    fat = replace(slipway_smash(), name=name, parts=(BlendPart("chuck", 0.5), BlendPart("trim-50", 0.5)))
    made = call("POST", "/formulas", {"formula": FORMULAS.plain(fat)})
    cook = call("POST", "/cooks", {"formula_id": made["id"]})
    body = {"outcome": {"core_c": 71, "note": "A pool of fat", "next_time": ""}, "revision": cook["revision"]}
    return call("PUT", f"/cooks/{cook['id']}/outcome", body)


@pytest.mark.parametrize("width", [1280, 390])
def test_a_fault_is_found_and_the_next_version_made(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    cook = _cooked(watched, f"Greasy {width}")
    watched.go(f"/log/{cook['id']}")
    page.get_by_role("link", name="what went wrong?").click()
    ready = page.locator("[data-faults=ready]")
    expect(ready).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("button", name="Greasy or dense").click()
    causes = page.get_by_role("region", name="Causes, the likeliest first").get_by_role("listitem")
    fat = causes.and_(page.get_by_label("Too much fat for the way it is cooked", exact=True))
    expect(fat).to_contain_text("fat is rich for this style")
    assert watched.axe() == []

    # Questions are answered until none tells much; the fat in the pan is one of them.
    question = page.get_by_role("region", name="The question that tells most")
    page.get_by_label("Core at the end").fill("71,5")
    page.get_by_label("Core at the end").press("Enter")
    expect(page.get_by_label("Core at the end")).to_have_value(re.compile("^71.5"))
    for _ in range(40):
        expect(ready).to_be_visible()
        if not question.is_visible():
            break
        asked = question.locator("p").first.inner_text()
        yes = "fat in the pan" in asked
        question.get_by_role("button", name="Yes" if yes else "No", exact=True).click()
        expect(page.get_by_text(asked, exact=True)).to_have_count(0)
    expect(page.get_by_text("No further question would tell much.")).to_be_visible()
    expect(causes.first).to_contain_text("Too much fat for the way it is cooked")
    expect(causes.first).to_contain_text("most likely")

    causes.first.get_by_role("button", name=re.compile("^New version: ")).click()
    page.wait_for_url(re.compile(rf"/formula/{cook['formula_id']}/notes"))
    versions = page.request.get(f"{kestrel.address}/api/formulas/{cook['formula_id']}/versions").json()
    assert [v["name"].startswith("Set") for v in versions] == [True]
    parts = page.request.get(f"{kestrel.address}/api/formulas/{cook['formula_id']}").json()["formula"]["parts"]
    assert next(p["share_frac"] for p in parts if p["meat"] == "trim-50") < 0.5


def test_what_helps_is_noted_with_the_cook_once(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    cook = _cooked(watched, "Noted")
    watched.go(f"/log/{cook['id']}/wrong")
    page.get_by_role("button", name="Grey meat in a watery pan").click()
    crowded = page.get_by_role("listitem", name="Too many at once")
    for _ in range(2):
        crowded.get_by_role("button", name="Note it for next time").click()
        expect(page.get_by_text("Noted with the cook: Fewer at once")).to_be_visible()
    kept = page.request.get(f"{kestrel.address}/api/cooks/{cook['id']}").json()["outcome"]["next_time"]
    assert kept == "Fewer at once, and let the surface come back between waves."
