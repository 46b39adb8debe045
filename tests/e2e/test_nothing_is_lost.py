"""Refusals, two windows, a stopped database, a stopped server, a reload at the stove."""

from __future__ import annotations

import re

from playwright.sync_api import expect


def _open(watched, step: str = "meat", name: str = "Slipway smash") -> None:
    watched.go("/")
    watched.page.get_by_role("link", name=re.compile(name)).first.click()
    expect(watched.page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    if step != "meat":
        watched.page.get_by_role("link", name=re.compile(step)).first.click()


def _field(watched, name: str):
    return watched.page.get_by_role("spinbutton", name=name, exact=True)


def _type(watched, name: str, text: str) -> None:
    field = _field(watched, name)
    field.click()
    field.fill(text)
    field.press("Enter")


def test_what_cannot_be_is_refused_beside_its_field_and_the_old_value_stays(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)
    _open(watched, "^4 ?Shape")
    for text, says in (
        ("banana", "was not understood"),
        ("-5 g", "below zero"),
        ("NaN", "was not understood"),
        ("99 kg", "outside what the rules cover"),
        ("'; DROP TABLE formula; --", "was not understood"),
        ("<img src=x onerror=alert(1)>", "was not understood"),
    ):
        _type(watched, "A raw piece", text)
        expect(watched.page.get_by_role("alert")).to_contain_text(says)
        expect(_field(watched, "A raw piece")).to_have_attribute("aria-invalid", "true")
    _field(watched, "A raw piece").press("Escape")
    expect(_field(watched, "A raw piece")).to_have_value("85\u00a0g")


def test_undo_and_redo_go_through_every_step(watch, kestrel) -> None:
    watched = watch(kestrel)
    _open(watched, "^1 ?Dish", "Beacon grill")
    page = watched.page
    _type(watched, "Guests", "30")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("30 × 140")
    page.get_by_role("radio", name="Slider").click()
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("90 × 45")
    page.get_by_role("heading", name="Dish").click()
    page.keyboard.press("Control+z")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("30 × 140")
    page.keyboard.press("Control+z")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("26 × 140")
    page.keyboard.press("Control+Shift+z")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("30 × 140")
    page.keyboard.press("Control+z")
    watched.saved()


def test_two_windows_on_one_formula_lose_nobodys_work(watch, kestrel) -> None:
    one = watch(kestrel)
    two = watch(kestrel, beside=one)
    for watched in (one, two):
        watched.expected.add(409)
        _open(watched, "^1 ?Dish", "Harbour-light")
    _type(one, "Guests", "6")
    one.page.wait_for_timeout(800)
    one.saved()
    _type(two, "Guests", "9")
    sheet = two.page.get_by_role("dialog", name="Changed by two at once")
    expect(sheet).to_be_visible()
    # Both changed the guests: that is told with both figures, and either may stand.
    expect(sheet.get_by_role("region", name="Both changed")).to_contain_text("For how many")
    assert two.axe() == []
    sheet.get_by_role("button", name="Keep mine").click()
    expect(sheet).to_have_count(0)
    two.saved()
    assert two.get(f"/formulas/{two.formula_id()}")["formula"]["dish"]["guests"] == 9
    # What the first window had saved is one step back.
    two.page.get_by_role("button", name="Undo").click()
    expect(_field(two, "Guests")).to_have_value("6")
    # And the first window, stale by now, is asked in its turn and keeps both.
    two.page.wait_for_timeout(800)
    two.saved()
    _type(one, "Guests", "11")
    one.page.get_by_role("button", name="Both: mine as a copy").click()
    expect(one.page.get_by_label("Name of the formula")).to_have_value("Harbour-light pub burger, mine")
    expect(_field(one, "Guests")).to_have_value("11")


def test_two_people_who_changed_different_things_keep_both(watch, kestrel) -> None:
    one = watch(kestrel)
    two = watch(kestrel, beside=one)
    for watched in (one, two):
        watched.expected.add(409)
        _open(watched, "^1 ?Dish", "Night-watch")
    before = one.get(f"/formulas/{one.formula_id()}")["formula"]
    _type(one, "Guests", "33")
    one.page.wait_for_timeout(800)
    one.saved()
    two.go(f"/formula/{two.formula_id()}/notes")
    expect(two.page.locator("[data-settled=true]")).to_be_visible()
    # This window opened before the other one saved: it goes on from there.
    stale = two.get(f"/formulas/{two.formula_id()}")["revision"]
    remark = two.page.get_by_label(re.compile("Remark|remember", re.IGNORECASE)).first
    one.go(f"/formula/{one.formula_id()}/dish")
    expect(one.page.locator("[data-settled=true]")).to_be_visible()
    _type(one, "Guests", "35")
    one.page.wait_for_timeout(800)
    one.saved()
    remark.fill("turn them often")
    remark.blur()
    sheet = two.page.get_by_role("dialog", name="Changed by two at once")
    expect(sheet.locator("[data-merge=ready]")).to_be_visible()
    expect(sheet.get_by_role("region", name="You changed")).to_contain_text("turn them often")
    expect(sheet.get_by_role("region", name="They changed")).to_contain_text("35")
    assert two.axe() == []
    sheet.get_by_role("button", name="Keep both changes").click()
    expect(sheet).to_have_count(0)
    two.saved()
    stored = two.get(f"/formulas/{two.formula_id()}")
    assert (stored["formula"]["remark"], stored["formula"]["dish"]["guests"]) == ("turn them often", 35)
    assert stored["revision"] > stale
    put_back = {"formula": before, "revision": stored["revision"]}
    address = f"{kestrel.address}/api/formulas/{two.formula_id()}"
    assert two.page.request.put(address, data=put_back).status == 200


def test_a_database_that_stops_while_saving_loses_nothing(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected |= {503, 0}
    _open(watched, "^1 ?Dish")
    kestrel.database.stop()
    try:
        _type(watched, "Guests", "17")
        status = watched.page.get_by_role("status").filter(has_text="Not saved")
        expect(status).to_contain_text("Your edits wait here")
    finally:
        kestrel.database.start()
    expect(watched.page.locator("[data-ticket=pieces]")).to_contain_text("34 ×")
    expect(watched.page.get_by_text("Saved", exact=True)).to_be_visible()
    assert watched.get(f"/formulas/{watched.formula_id()}")["formula"]["dish"]["guests"] == 17


def test_unsaved_edits_survive_a_reload_while_the_server_is_down(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected |= {503, 0}
    _open(watched, "^1 ?Dish")
    page = watched.page
    # The evaluation still answers, the saving does not: as when the disk under the store fills.
    page.route(
        re.compile(r"/api/formulas/\d+$"),
        lambda route: (
            route.fulfill(
                status=503,
                content_type="application/problem+json",
                body='{"type":"urn:vianda:problem:store-away","title":"t","status":503,"detail":"d","fields":[]}',
            )
            if route.request.method == "PUT"
            else route.continue_()
        ),
    )
    _type(watched, "Guests", "13")
    expect(page.get_by_role("status").filter(has_text="Not saved")).to_be_visible()
    page.unroute_all()
    page.reload()
    expect(_field(watched, "Guests")).to_have_value("13")
    watched.saved()
    assert watched.get(f"/formulas/{watched.formula_id()}")["formula"]["dish"]["guests"] == 13


def test_the_stove_goes_on_after_a_reload_and_without_its_server(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(0)
    _open(watched, "^8 ?Cook", "Beacon grill")
    page = watched.page
    page.get_by_role("button", name=re.compile("^Cook ")).click()
    page.get_by_role("button", name="It is hot").click()
    page.get_by_role("button", name="They are on").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("First side")
    page.get_by_role("button", name="+ 15 s").click()
    page.wait_for_timeout(1200)
    before = page.locator("[data-timer]").inner_text()
    page.reload()
    expect(page.get_by_role("heading", level=1)).to_have_text("First side")
    after = page.locator("[data-timer]").inner_text()
    seconds = [int(t.split(":")[0]) * 60 + int(t.split(":")[1]) for t in (before, after)]
    assert 0 <= seconds[0] - seconds[1] <= 5

    kestrel.stop_server()
    try:
        page.get_by_role("button", name="Flipped").click()
        expect(page.get_by_role("heading", level=1)).to_have_text("Second side")
        expect(page.get_by_role("status").filter(has_text="nothing is lost")).to_be_visible()
        page.wait_for_timeout(1500)
    finally:
        kestrel.start_server()
    expect(page.get_by_role("status").filter(has_text="nothing is lost")).to_have_count(0)
    events = watched.get(f"/cooks/{page.url.rsplit('/', 1)[1]}")["events"]
    assert [e["kind"] for e in events] == ["done", "done", "extra", "done"]
    page.get_by_role("button", name="Core read").click()
    page.get_by_label("Core temperature").fill("150F")
    page.get_by_role("button", name="Note it").click()
    # Seconds after it was laid on no core is so warm: the reading is there, and does not count.
    expect(page.get_by_role("region", name="Forecast")).to_contain_text("65.6\u00a0°C cannot be the middle")


def test_a_version_kept_can_be_laid_out_again(watch, kestrel) -> None:
    watched = watch(kestrel)
    _open(watched, "^9 ?Notes")
    page = watched.page
    pieces = page.locator("[data-ticket=pieces] [data-value]").inner_text()
    page.get_by_label("Name of the version").fill("as it was")
    page.get_by_role("button", name="Keep this one").click()
    expect(page.get_by_text("as it was")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("heading", name="Notes").click()
    page.keyboard.press("1")
    _type(watched, "Guests", "44")
    expect(page.locator("[data-ticket=pieces]")).to_contain_text("88 ×")
    page.get_by_role("link", name=re.compile("^9 ?Notes")).click()
    page.get_by_role("button", name="Lay it out").click()
    expect(page.locator("[data-ticket=pieces] [data-value]")).to_have_text(pieces)
    watched.saved()


def test_a_file_that_is_none_is_refused_in_words(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)
    watched.go("/")
    for content, says in ((b"not json", "It is not JSON"), (b'{"format":"other"}', "does not say that it is")):
        watched.page.get_by_label("Formula or service file").set_input_files(
            {"name": "f.json", "mimeType": "application/json", "buffer": content}
        )
        sheet = watched.page.get_by_role("dialog", name="That file was not taken")
        expect(sheet).to_contain_text(says)
        watched.page.keyboard.press("Escape")
        expect(sheet).to_have_count(0)


def test_an_archived_formula_comes_back_from_the_shelf_and_from_its_own_address(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(404)
    page = watched.page
    _open(watched, name="Supply-boat")
    address = page.url

    def archive() -> None:
        watched.go("/")
        page.get_by_role("button", name="More: Supply-boat ragù").click()
        page.get_by_role("menuitem", name="Archive").click()
        expect(page.get_by_text("Supply-boat ragù was archived.")).to_be_visible()

    archive()
    page.get_by_role("button", name="Restore").click()
    expect(page.get_by_role("link", name=re.compile("Supply-boat")).first).to_be_visible()
    archive()
    # Among what is archived it stands too, and is found there.
    page.get_by_role("button", name=re.compile("^Archived, ")).click()
    page.get_by_label("Words").fill("boat tomato")
    away = page.get_by_role("list", name="Archived formulas").get_by_role("listitem")
    expect(away.filter(has_text="Supply-boat ragù")).to_have_count(1)
    expect(page.get_by_role("button", name=re.compile(r"^Restore\s*: Supply-boat"))).to_be_visible()
    assert watched.axe() == []
    page.goto(address)
    expect(page.get_by_role("heading", name=re.compile("is not on the shelf"))).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("button", name="Restore").click()
    expect(page.get_by_role("heading", name="Meat", exact=True)).to_be_visible()
    page.goto(re.sub(r"/formula/\d+/", "/formula/999999/", address))
    page.get_by_role("button", name="Restore").click()
    expect(page.get_by_role("alert")).to_contain_text("cannot be restored")


def _page_of_a_cook(watched) -> int:
    """A cook that is over, with its page of the logbook open."""
    _open(watched, "^8 ?Cook", "Beacon grill")
    page = watched.page
    page.get_by_role("button", name=re.compile("^Cook ")).click()
    expect(page.get_by_role("heading", name="Heat the surface and measure it")).to_be_visible()
    cook_id = int(page.url.rsplit("/", 1)[1])
    watched.go(f"/log/{cook_id}")
    expect(page.get_by_role("heading", name="Weigh, rate and note")).to_be_visible()
    return cook_id


def test_a_page_of_the_logbook_waits_for_the_server_and_is_sent_by_itself(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected |= {503, 0}
    cook_id = _page_of_a_cook(watched)
    page = watched.page
    page.route(
        re.compile(r"/api/cooks/\d+/outcome$"),
        lambda route: route.fulfill(
            status=503,
            content_type="application/problem+json",
            body='{"type":"urn:vianda:problem:store-away","title":"t","status":503,"detail":"d","fields":[]}',
        ),
    )
    page.get_by_label("The one thing to change next time").fill("a hotter grate")
    page.get_by_role("button", name="Write it into the logbook").click()
    expect(page.get_by_role("status").filter(has_text="Not written yet")).to_be_visible()
    # Even a closed window: what was typed is here again, and goes.
    page.unroute_all()
    page.reload()
    expect(page.get_by_label("The one thing to change next time")).to_have_value("a hotter grate")
    expect(page.get_by_role("status").filter(has_text=re.compile("^Written$"))).to_be_visible()
    assert watched.get(f"/cooks/{cook_id}")["outcome"]["next_time"] == "a hotter grate"


def test_a_lost_answer_is_no_conflict_with_itself(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected |= {503, 0}
    cook_id = _page_of_a_cook(watched)
    page = watched.page
    taken: list[int] = []

    def lose_the_first(route) -> None:
        answer = route.fetch()
        taken.append(answer.status)
        if len(taken) == 1:
            route.abort("connectionrefused")
        else:
            route.fulfill(response=answer)

    page.route(re.compile(r"/api/cooks/\d+/outcome$"), lose_the_first)
    page.get_by_label("The one thing to change next time").fill("rest it longer")
    page.get_by_role("button", name="Write it into the logbook").click()
    expect(page.get_by_role("status").filter(has_text=re.compile("^Written$"))).to_be_visible()
    expect(page.get_by_role("alert")).to_have_count(0)
    assert taken[:2] == [200, 200]
    assert watched.get(f"/cooks/{cook_id}")["outcome"]["next_time"] == "rest it longer"
