"""How fat a cut comes and how long hands take, in a browser: learnt, put to use, and taken back."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

DAY = "2031-07-11"


def _post(watched, path: str, body: dict) -> dict:
    made = watched.page.request.post(f"{watched.served.address}/api{path}", data=body)
    assert made.status in (200, 201), made.text()
    return made.json()


# Cuts that no other journey blends: its lots stay in the larder that journeys share.
@pytest.mark.parametrize(("width", "cut", "name"), [(1280, "flank", "Flank"), (390, "shank", "Shank")])
def test_tested_deliveries_make_a_range_that_is_used_and_taken_back(watch, kestrel, width, cut, name) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    for n in range(3):
        lot = {
            "key": "new", "meat": cut, "name": f"Norquay {cut} {n}", "left_mass_g": 2000.0, "price_per_kg": "12",
            "delivered": f"2026-10-{n + 1:02d}", "use_by": None, "evidence": [], "closed": False,
        }  # fmt: skip
        made = _post(watched, "/larder/lots", {"lot": lot})
        test = {"kind": "laboratory", "fat": "23 %", "revision": made["revision"]}
        _post(watched, f"/larder/lots/{made['lot']['key']}/evidence", test)
    watched.go("/log/learnt")
    row = page.get_by_role("region", name="Fat of your cuts").get_by_role("listitem", name=name)
    expect(row).to_contain_text(re.compile(r"points fatter than the table says, from 3 deliveries"))
    row.get_by_text("What was tested").click()
    expect(row.get_by_role("link", name=f"Norquay {cut} 2")).to_be_visible()
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    row.get_by_role("button", name="Use this range").click()
    expect(page.get_by_role("status").filter(has_text=f"{name}: its range is in use")).to_be_visible()
    expect(row).to_contain_text("This range is in use")
    assert [f["meat"] for f in watched.get("/kitchen")["kitchen"]["fats"]] == [cut]
    row.get_by_role("button", name="Back to the table").click()
    expect(row.get_by_role("button", name="Use this range")).to_be_visible()
    assert watched.get("/kitchen")["kitchen"]["fats"] == []


def test_slow_hands_are_timed_used_and_taken_back(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    made = _post(watched, "/formulas", {"formula": FORMULAS.plain(replace(slipway_smash(), name="Timed smash"))})
    timing = {"ready_min": 1110, "cooks": 1, "opens_min": -1, "own": [], "pins": []}
    body = {
        "name": "Timed Friday", "day": DAY, "dishes": [{"formula_id": made["id"], "guests": 10}], "timing": timing,
        "remark": "", "repeat": "", "until": "", "counts": [],
    }  # fmt: skip
    service = _post(watched, "/services", {"service": body})
    try:
        shape = f"f{made['id']}-shape"
        for kind, minute in (("begin", -120), ("end", -108)):
            event = {"token": f"timed-{kind}", "kind": kind, "minute": minute, "task": shape}
            _post(watched, f"/services/{service['id']}/run/events", {"day": DAY, "event": event})
        watched.go("/log/learnt")
        row = page.get_by_role("region", name="Minutes of a task").get_by_role("listitem", name="Shaping")
        expect(row).to_contain_text("Takes longer than the tables say")
        row.get_by_text("What was seen").click()
        seen = row.get_by_role("row").filter(has_text="Timed Friday")
        expect(seen).to_contain_text("12 min")
        assert watched.axe() == []
        row.get_by_role("button", name=re.compile("^Use ×")).click()
        expect(row).to_contain_text("is in use")
        assert [p["task"] for p in watched.get("/kitchen")["kitchen"]["paces"]] == ["shape"]
        row.get_by_role("button", name="Back to × 1.00").click()
        expect(row.get_by_role("button", name=re.compile("^Use ×"))).to_be_visible()
        assert watched.get("/kitchen")["kitchen"]["paces"] == []
        # Its record of the evening is where the reading comes from.
        seen.get_by_role("link").click()
        expect(page).to_have_url(re.compile(rf"/services/{service['id']}/checks/{DAY}"))
        expect(page.get_by_role("heading", level=1)).to_be_visible()
    finally:
        page.request.delete(f"{kestrel.address}/api/services/{service['id']}")
