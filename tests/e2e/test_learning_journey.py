"""What the kitchen learnt, in a browser: three cooks on the grate, its factor put to use, and the next forecast."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import beacon_grill
from vianda.interchange.kinds import FORMULAS


def _post(watched, path: str, body: dict) -> dict:
    made = watched.page.request.post(f"{watched.served.address}/api{path}", data=body)
    assert made.status in (200, 201), made.text()
    return made.json()


def _yield(watched, formula: dict) -> float:
    found = _post(watched, "/evaluate", {"formula": formula, "edits": []})
    return found["evaluation"]["shape"]["cooked_yield_frac"]["usual"]


@pytest.mark.parametrize("width", [1280, 390])
def test_a_grate_s_factor_is_set_from_three_cooks_and_the_next_forecast_moves(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    grill = FORMULAS.plain(replace(beacon_grill(), name=f"Grate taught {width}"))
    made = _post(watched, "/formulas", {"formula": grill})
    before = _yield(watched, grill)
    for n in range(3):
        cook = _post(watched, "/cooks", {"formula_id": made["id"]})
        batch = cook["plan"]["portions"]["batch_mass_g"]
        # The last one had its tray on the scale.
        lost = 1.3 * (1 - before) if n < 2 else 0.02
        body = {"outcome": {"cooked_mass_g": round(batch * (1 - lost))}, "revision": cook["revision"]}
        assert page.request.put(f"{kestrel.address}/api/cooks/{cook['id']}/outcome", data=body).ok

    watched.go("/log")
    page.get_by_role("link", name="Learnt").click()
    expect(page.locator("[data-learnt=ready]")).to_be_visible()
    assert watched.axe() == []
    losses = page.get_by_role("region", name="Cook loss")
    grate = losses.get_by_role("listitem", name="Charcoal grate 560 × 400")
    expect(grate).to_contain_text("Loses more than the tables say")
    grate.get_by_text(re.compile("What was seen")).click()
    tray = grate.get_by_role("row").filter(has_text=f"Grate taught {width}").first
    expect(tray).to_contain_text("outlier, left out")
    # Said by the cook, too: it does not count.
    tray.get_by_role("button", name="Leave out").click()
    expect(tray.get_by_role("button", name="Count it")).to_be_visible()
    assert watched.axe() == []

    use = grate.get_by_role("button", name=re.compile(r"Use × 1\.\d\d"))
    factor = float(use.inner_text().split("×")[1])
    assert factor > 1.05
    use.click()
    expect(grate).to_contain_text(f"× {factor:.2f} is in use")
    after = _yield(watched, grill)
    assert after == pytest.approx(1 - factor * (1 - before))
    grate.get_by_role("button", name="Back to × 1.00").click()
    expect(grate.get_by_role("button", name="Back to × 1.00")).to_have_count(0)
    assert _yield(watched, grill) == pytest.approx(before)
    expect(page.get_by_role("region", name="How good the forecasts were")).to_contain_text("Cook loss")
    assert page.evaluate("document.documentElement.scrollWidth") <= width


def test_a_kitchen_that_cooked_nothing_is_told_what_teaches_it(watch, bare_kitchen) -> None:
    watched = watch(bare_kitchen)
    watched.go("/log/learnt")
    expect(watched.page.get_by_text("no finished cook was weighed")).to_be_visible()
    assert watched.axe() == []
