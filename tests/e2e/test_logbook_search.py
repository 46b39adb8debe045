"""The logbook in a browser: a cook is found by its words, its dish and its lot, and the lot by its cooks."""

from __future__ import annotations

from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS


def _post(watched, path: str, body: dict) -> dict:
    made = watched.page.request.post(f"{watched.served.address}/api{path}", data=body)
    assert made.status in (200, 201), made.text()
    return made.json()


@pytest.mark.parametrize("width", [1280, 390])
def test_last_months_lot_is_found(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    lot = {
        "key": "new", "meat": "chuck", "name": f"Norquay chuck {width}", "left_mass_g": 9000.0,
        "price_per_kg": "9.40", "delivered": "2026-10-30", "use_by": "2026-11-06", "evidence": [], "closed": False,
    }  # fmt: skip
    key = _post(watched, "/deliveries", {"lot": lot, "temp_c": 3.0, "unit_system": "metric"})["lot"]["lot"]["key"]
    smash = slipway_smash()
    parts = tuple(replace(p, lot=key) if p.meat == "chuck" else p for p in smash.parts)
    for formula, said in (
        (replace(smash, name=f"Lot burgers {width}", parts=parts), "Crust dark and even"),
        (replace(keepers_loaf(), name=f"Lot loaf {width}"), "A little dry"),
    ):
        made = _post(watched, "/formulas", {"formula": FORMULAS.plain(formula)})
        cook = _post(watched, "/cooks", {"formula_id": made["id"]})
        crust = 4 if formula.name.startswith("Lot burgers") else 1
        body = {"outcome": {"crust": crust, "note": f"{said} {width}"}, "revision": cook["revision"]}
        assert page.request.put(f"{kestrel.address}/api/cooks/{cook['id']}/outcome", data=body).ok
    watched.go("/log")
    cooks = page.get_by_role("list", name="Cooks").get_by_role("listitem")
    expect(cooks.filter(has_text=f"Lot burgers {width}")).to_be_visible()
    assert watched.axe() == []
    # Worst first among the two: the loaf that came out pale.
    page.get_by_label("Words").fill(f"lot {width}")
    page.get_by_label("Order").select_option(label="Worst first")
    expect(cooks).to_have_count(2)
    expect(cooks.first).to_contain_text(f"Lot loaf {width}")
    page.get_by_label("Order").select_option(label="Best first")
    expect(cooks.first).to_contain_text(f"Lot burgers {width}")
    page.get_by_label("Words").fill(f"CRUST {width}")
    expect(cooks).to_have_count(1)
    expect(cooks.first).to_contain_text("5.0")
    page.get_by_label("Words").fill(f"no such thing {width}")
    expect(page.get_by_text("No cook has all of that.")).to_be_visible()
    page.get_by_role("button", name="Show all").click()
    page.get_by_label("Lot", exact=True).select_option(label=f"Norquay chuck {width}")
    expect(cooks).to_have_count(1)
    expect(page.get_by_role("status")).to_contain_text("1 cook")

    # What else did that delivery go into?
    page.get_by_role("link", name="Where this lot went").click()
    expect(page.locator("[data-trace=ready]")).to_contain_text("Fri 6 Nov")
    held = page.get_by_role("list", name="Cooks that held it").get_by_role("listitem")
    expect(held).to_have_count(1)
    expect(held).to_contain_text("1870 g")
    assert watched.axe() == []
    held.get_by_role("link").click()
    # And back: that cook held this lot, with its day.
    expect(page.get_by_role("main")).to_contain_text(f"Norquay chuck {width}, use by Fri 6 Nov")
    assert watched.axe() == []
    page.get_by_role("link", name=f"Norquay chuck {width}").click()
    expect(page.locator("[data-trace=ready]")).to_be_visible()
