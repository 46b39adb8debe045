"""What to change next, in a browser: two bland cooks, and the version that is made of the best change."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import expect

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

RIGHT = {"crust": 4, "juice": 4, "bite": 3, "bind": 3, "grease": 3, "salt": 3}


@pytest.mark.parametrize("width", [1280, 390])
def test_two_bland_cooks_make_the_next_version_saltier(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width, height=844)
    page = watched.page

    def send(method: str, path: str, body: dict) -> dict:
        made = getattr(page.request, method)(f"{kestrel.address}/api{path}", data=body)
        assert made.ok, made.text()
        return made.json()

    bland = FORMULAS.plain(replace(slipway_smash(), name=f"Bland smash {width}"))
    formula = send("post", "/formulas", {"formula": bland})
    first = send("post", "/cooks", {"formula_id": formula["id"]})
    send("put", f"/cooks/{first['id']}/outcome", {"outcome": {**RIGHT, "salt": 1}, "revision": first["revision"]})
    cook = send("post", "/cooks", {"formula_id": formula["id"]})
    send("put", f"/cooks/{cook['id']}/outcome", {"outcome": {"note": "Quiet night"}, "revision": cook["revision"]})

    watched.go(f"/log/{cook['id']}")
    section = page.get_by_role("region", name="What to change next")
    expect(section).to_contain_text("by 1 scored cook:")
    # Scored on the page: the advice follows what was just written.
    for key, value in {**RIGHT, "salt": 1}.items():
        page.get_by_role("button", name=f"{key.title()} {value} of 5").click()
    page.get_by_role("button", name="Write it into the logbook").click()
    expect(section).to_contain_text("by 2 scored cooks:")
    best = section.get_by_role("article", name="Change 1")
    expect(best).to_contain_text(re.compile(r"More salt: 1\.[35]\s%"))
    expect(best).to_contain_text("toward “bland”; wanted 3")
    expect(best).to_contain_text("Nobody here has cooked it otherwise yet")
    assert watched.axe() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    best.get_by_role("button", name=re.compile("^Make it a version")).click()
    expect(page).to_have_url(re.compile(rf"/formula/{formula['id']}/notes"))
    expect(page.get_by_text(re.compile("^More salt: "))).to_be_visible()
    now = watched.get(f"/formulas/{formula['id']}")["formula"]
    assert now["seasoning"]["salt_frac"] > bland["seasoning"]["salt_frac"]
