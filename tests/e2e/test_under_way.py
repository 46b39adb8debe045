"""A service under way in a browser: the plate starts a quarter late, and what moves and what gives is said."""

from __future__ import annotations

import datetime as dt
import re
from dataclasses import replace

import pytest
from playwright.sync_api import Page, expect

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

DAY = dt.date(2026, 12, 4)
READY_MIN = 18 * 60 + 30


def _service(watched, name: str, guests: int = 20) -> int:
    """A service of one dish, kept; its number."""
    post = watched.page.request.post
    formula = {"formula": FORMULAS.plain(replace(slipway_smash(), name=f"{name} smash"))}
    made = post(f"{watched.served.address}/api/formulas", data=formula).json()
    timing = {"ready_min": READY_MIN, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    service = {
        "name": name,
        "day": str(DAY),
        "dishes": [{"formula_id": made["id"], "guests": guests}],
        "timing": timing,
        "remark": "",
        "repeat": "",
        "until": "",
        "counts": [],
    }
    kept = post(f"{watched.served.address}/api/services", data={"service": service})
    assert kept.status == 201, kept.text()
    return kept.json()["id"]


def _tasks(watched, service_id: int) -> list[dict]:
    service = watched.get(f"/services/{service_id}")["service"]
    body = {"service": service, "unit_system": "metric"}
    planned = watched.page.request.post(f"{watched.served.address}/api/services/plan", data=body)
    return planned.json()["timetable"]["tasks"]


def _at(page: Page, minute: int) -> None:
    """Put the page's clock so many minutes from the hour on the plate; it then goes on."""
    page.clock.set_fixed_time(dt.datetime.combine(DAY, dt.time()) + dt.timedelta(minutes=READY_MIN + minute))


def _row(page: Page, task: dict):
    return page.locator(f'[data-row="{task["key"]}"]')


@pytest.mark.parametrize("width", [1280, 390])
def test_the_plate_starts_a_quarter_late(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    page = watched.page
    service_id = _service(watched, f"Late at {width}")
    tasks = _tasks(watched, service_id)
    plate = next(t for t in tasks if t["key"].endswith("preheat"))
    _at(page, plate["start_min"] - 1)
    watched.go(f"/services/{service_id}/cook")
    state = page.locator("[data-under-way]")
    expect(state).to_be_visible(timeout=60_000)
    # Everything that is planned before the plate is done when it should be.
    for task in tasks:
        if task["end_min"] <= plate["start_min"] and task is not plate:
            row = _row(page, task)
            expect(row).to_be_visible()
            if row.get_by_role("button", name=re.compile("^Done")).count() == 0:
                continue
            row.get_by_role("button", name=re.compile("^Done")).click()
            expect(_row(page, task)).to_have_attribute("data-status", "done")
    expect(state).to_have_attribute("data-under-way", "on-time")
    before = state.inner_text()
    _at(page, plate["start_min"] + 15)
    late = _row(page, plate)
    expect(page.get_by_role("list", name="Now").locator(f'[data-row="{plate["key"]}"]')).to_be_visible()
    expect(late).to_contain_text(f"was {plate['starts']}")
    expect(state).to_have_attribute("data-under-way", "late")
    assert state.inner_text() != before
    assert watched.axe() == []
    late.get_by_role("button", name=re.compile("^Begin")).click()
    expect(late).to_have_attribute("data-status", "running")
    # It takes a quarter of an hour more than usual: the evening is later still.
    told = state.inner_text()
    late.get_by_role("button", name=re.compile(r"^\+15")).click()
    expect(state).not_to_have_text(told)
    # What was said is still there after a reload, and the last of it can be taken back.
    later = state.inner_text()
    page.reload()
    expect(_row(page, plate)).to_have_attribute("data-status", "running", timeout=60_000)
    expect(state).to_have_text(later)
    page.get_by_role("button", name="Begin the evening again").click()
    expect(page.get_by_role("list", name="At work")).to_have_count(0)
    page.get_by_role("button", name="Take the last one back").click()
    expect(_row(page, plate)).to_have_attribute("data-status", "running")


def test_a_service_leads_to_the_stove_and_back(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    service_id = _service(watched, "There and back")
    watched.go(f"/services/{service_id}")
    page.get_by_role("link", name="Cook it").click()
    expect(page.locator("[data-under-way]")).to_be_visible(timeout=60_000)
    page.get_by_role("link", name="Back to the service").click()
    expect(page.get_by_label("Service", exact=True)).to_have_value("There and back")


def test_nothing_to_cook_and_no_such_service_are_said(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(404)
    page = watched.page
    service = watched.page.request.post(
        f"{kestrel.address}/api/services",
        data={
            "service": {
                "name": "Empty",
                "day": "",
                "dishes": [],
                "timing": {"ready_min": READY_MIN, "cooks": 1, "opens_min": -1, "own": [], "pins": []},
                "remark": "",
                "repeat": "",
                "until": "",
                "counts": [],
            }
        },
    ).json()
    watched.go(f"/services/{service['id']}/cook")
    expect(page.get_by_role("heading", name="Nothing to cook yet")).to_be_visible()
    watched.go("/services/999999/cook")
    expect(page.get_by_role("heading", name="This service is not here")).to_be_visible()


def test_two_devices_follow_one_run_and_the_griller_loses_the_line(watch, kestrel) -> None:
    chef = watch(kestrel)
    service_id = _service(chef, "Two devices")
    tasks = _tasks(chef, service_id)
    first = min((t for t in tasks if t["hands"]), key=lambda t: t["start_min"])
    griller = watch(kestrel, width=390, height=844, shell=True)
    griller.expected |= {0}
    for watched in (chef, griller):
        _at(watched.page, first["start_min"])
        watched.go(f"/services/{service_id}/cook")
        expect(watched.page.locator("[data-under-way]")).to_be_visible(timeout=60_000)
    there, here = _row(chef.page, first), _row(griller.page, first)
    here.get_by_role("button", name=re.compile("^Begin")).click()
    expect(there).to_have_attribute("data-status", "running")
    there.get_by_role("button", name=re.compile("^Done")).click()
    expect(here).to_have_attribute("data-status", "done")
    assert griller.axe() == []
    # How it calls is switched on and off, and stays so.
    voice = griller.page.get_by_role("switch", name="Voice")
    voice.click()
    expect(voice).to_be_checked()
    # The line drops and the page is loaded anew: the evening is there, and what is said waits.
    griller.page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    griller.page.context.set_offline(True)
    griller.page.reload()
    expect(here).to_have_attribute("data-status", "done")
    expect(voice).to_be_checked()
    following = next(t for t in tasks if t["hands"] and t["start_min"] >= first["end_min"])
    mine, theirs = _row(griller.page, following), _row(chef.page, following)
    mine.get_by_role("button", name=re.compile("^Begin")).click()
    expect(mine).to_have_attribute("data-status", "running")
    expect(griller.page.get_by_text("1 thing said waits here and will be sent.")).to_be_visible()
    assert griller.axe() == []
    expect(theirs).to_have_attribute("data-status", "to-do")
    griller.page.context.set_offline(False)
    expect(theirs).to_have_attribute("data-status", "running")
    expect(griller.page.get_by_text("The line is down")).to_be_hidden()
    # Said in this window, it is taken back at both.
    griller.page.get_by_role("button", name="Take the last one back").click()
    expect(theirs).to_have_attribute("data-status", "to-do")


def _check(page: Page, key: str):
    return page.locator(f'[data-check="{key}"]').first


@pytest.mark.parametrize("width", [1280, 390])
def test_a_core_is_missed_seen_to_and_kept_and_the_record_says_all_of_it(watch, kestrel, tmp_path, width) -> None:
    """With the line down in between: what was measured waits, is sent once, and stands at the other device."""
    griller, chef = watch(kestrel, width=width, height=844), watch(kestrel, width=width, height=844)
    griller.expected.add(0)
    service_id = _service(griller, f"Measured night {width}")
    tasks = _tasks(griller, service_id)
    first, second = [t for t in tasks if "-wave-" in t["key"]][:2]
    core = f"core/{first['key']}"
    # All before the first wave went as planned, and the wave is on.
    said = [
        {"kind": "end", "task": t["key"], "minute": t["end_min"], "value": t["end_min"] - t["start_min"]}
        for t in tasks
        if t["end_min"] <= first["start_min"]
    ]
    said.append({"kind": "begin", "task": first["key"], "minute": first["start_min"]})
    for n, event in enumerate(said):
        answer = griller.page.request.post(
            f"{griller.served.address}/api/services/{service_id}/run/events",
            data={"day": str(DAY), "event": {"token": f"before-{n:04}", **event}},
        )
        assert answer.ok, answer.text()
    for watched in (griller, chef):
        _at(watched.page, first["end_min"] - 1)
        watched.go(f"/services/{service_id}/cook")
    page = griller.page
    later = page.get_by_role("list", name="To measure later")
    expect(later.get_by_text("Core of one piece").first).to_be_visible(timeout=60_000)
    for watched in (griller, chef):
        _at(watched.page, first["end_min"])
    # It comes off the heat: its core is asked for.
    _row(page, first).get_by_role("button", name=re.compile("^Done")).click()
    expect(_check(page, core)).to_have_attribute("data-state", "due")
    page.get_by_label("Measured by").fill("Ines")
    page.get_by_label("Measured by").press("Tab")
    form = page.get_by_role("list", name="Measure now").locator(f'[data-check="{core}"]')
    box = form.get_by_role("textbox")
    # Nothing is guessed out of what is no figure.
    box.fill("hot")
    form.get_by_role("button", name=re.compile("^Write it down")).click()
    expect(form.get_by_role("alert")).to_contain_text("Type a plain figure")
    box.fill("58,5")
    form.get_by_role("button", name=re.compile("^Write it down")).click()
    expect(_check(page, core)).to_have_attribute("data-state", "missed")
    expect(form).to_contain_text("Back to the heat until 68.3")
    assert griller.axe() == []

    # Back on the plate, with the line down.
    page.context.set_offline(True)
    form.get_by_label("What was done").fill("Back on for a minute")
    form.get_by_role("button", name=re.compile("^That was done")).click()
    form.get_by_role("textbox").first.fill("75")
    form.get_by_role("button", name=re.compile("^Write it down")).click()
    expect(form).to_contain_text("75 °C is written down here and waits for the line.")
    page.context.set_offline(False)
    measured = page.get_by_role("list", name="Measured").locator(f'[data-check="{core}"]')
    expect(measured).to_have_attribute("data-state", "kept")
    expect(measured).to_contain_text("Ines")
    theirs = chef.page.get_by_role("list", name="Measured").locator(f'[data-check="{core}"]')
    expect(theirs).to_contain_text("Back on for a minute")
    expect(theirs).to_have_attribute("data-state", "kept")

    # A tray of gravy goes to cool: nobody planned it.
    chef.page.get_by_role("button", name="Measure something else").click()
    other = chef.page.get_by_role("group", name="Something else")
    other.get_by_label("What", exact=True).fill("Gravy, 6 L")
    other.get_by_role("textbox").last.fill("57")
    other.get_by_role("button", name=re.compile("^Write it down")).click()
    gravy = page.get_by_role("list", name="Measured").get_by_role("listitem").filter(has_text="Gravy, 6 L")
    expect(gravy).to_contain_text("again at")
    assert chef.axe() == []

    # The record of the evening: on the page, and as a table.
    page.get_by_role("link", name="The record").click()
    expect(page.locator("[data-record=ready]")).to_be_visible()
    row = _check(page, core)
    expect(row).to_have_attribute("data-state", "kept")
    for words in ("58.5", "75", "Ines", "Back on for a minute", "FDA Food Code"):
        expect(row).to_contain_text(words)
    expect(page.get_by_role("listitem").filter(has_text="Gravy, 6 L")).to_contain_text("Not measured to the end")
    assert griller.axe() == []
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as CSV").click()
    kept = tmp_path / "record.csv"
    download.value.save_as(kept)
    assert "58.5" in kept.read_text()
    assert "75.0" in kept.read_text()
    # The second wave is not done yet: the record does not speak of it.
    assert second["key"] not in (page.locator("main").inner_html() or "")
