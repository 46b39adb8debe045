"""A pot's minutes and what stayed in a bowl, in a browser: written down where they are seen, and learnt."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import slipway_smash, supply_boat_ragu
from vianda.interchange.kinds import FORMULAS


def _post(watched, path: str, body: dict) -> dict:
    made = watched.page.request.post(f"{watched.served.address}/api{path}", data=body)
    assert made.status in (200, 201), made.text()
    return made.json()


@pytest.mark.parametrize("width", [1280, 390])
def test_a_pot_that_took_longer_is_written_down_and_learnt(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page
    ragu = FORMULAS.plain(replace(supply_boat_ragu(), name=f"Pot taught {width}"))
    made = _post(watched, "/formulas", {"formula": ragu})
    watched.go(f"/formula/{made['id']}/sauce")
    page.get_by_role("tab", name="Pot", exact=True).click()
    page.get_by_label("In the pot", exact=True).select_option(label="Something else, by grams")
    page.get_by_text("How long did it take?").click()
    page.get_by_label("From the boil").fill("55 min")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("status").filter(has_text="Written down.")).to_be_visible()
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    # Nothing boiled off: said beside the form, and nothing is lost.
    watched.expected.add(422)
    page.get_by_label("From the boil").fill("20 min")
    page.get_by_label("Left, weighed").fill("799 g")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("alert")).to_contain_text("too little to tell by weighing")
    expect(page.get_by_label("Left, weighed")).to_have_value("799 g")
    watched.go("/log/learnt")
    pots = page.get_by_role("region", name="What a pot boils off")
    expect(pots.get_by_role("listitem").first).to_contain_text("pot of")


def test_what_is_left_in_the_bowl_is_written_down_and_learnt(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    plain = slipway_smash()
    smash = FORMULAS.plain(replace(plain, name="Bowl taught", shape=replace(plain.shape, loss_g=60.0)))
    formula = _post(watched, "/formulas", {"formula": smash})
    run = _post(watched, "/weighings", {"formula_id": formula["id"]})
    act = f"{kestrel.address}/api/weighings/{run['id']}/actions"
    page.request.post(act, data={"token": "bowl-piece-1", "action": "piece"})
    for n in range(60):
        kept = page.request.post(act, data={"token": f"bowl-keep-{n:03d}", "action": "keep"})
        if kept.ok:
            break
        page.wait_for_timeout(500)
    done = _post(watched, f"/weighings/{run['id']}/actions", {"token": "bowl-finish", "action": "finish"})
    shaped = sum(r["shown_g"] for r in done["running"]["records"] if r["number"])
    left = done["plan"]["bowl_g"] - shaped - 12
    watched.go(f"/weigh/{run['id']}")
    page.get_by_label("Left in the bowl, weighed").fill(f"{left:.0f} g")
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_role("status").filter(has_text="Written down.")).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("link", name="What is learnt").click()
    bowl = page.get_by_role("region", name="Loss on bowl and gloves").get_by_role("listitem", name="Bowl and gloves")
    bowl.get_by_text(re.compile("^What was seen")).click()
    expect(bowl.get_by_role("link", name=f"Weighing {run['id']}")).to_be_visible()
    assert watched.axe() == []
