"""Step 7 in a browser: the hour on the plate, too little time, roots in the same oven, a bar dragged, the list."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from playwright.sync_api import Page, expect

from vianda.core.demo.formulas import keepers_loaf, night_watch_balls, slipway_smash
from vianda.core.model.formula import Formula
from vianda.interchange.kinds import FORMULAS


def _open(watched, formula: Formula, name: str) -> Page:
    page = watched.page
    body = {"formula": FORMULAS.plain(replace(formula, name=name))}
    made = page.request.post(f"{watched.served.address}/api/formulas", data=body)
    assert made.status == 201, made.text()
    watched.go(f"/formula/{made.json()['id']}/time")
    expect(page.get_by_role("heading", name="Time", exact=True)).to_be_visible()
    # The first timetable of a process loads its solver.
    expect(_state(page)).to_be_visible(timeout=60_000)
    return page


def _burger_night(watched) -> int:
    """Forty guests, two cooks, who can begin at twenty to five: it just goes."""
    formula = {"formula": FORMULAS.plain(replace(slipway_smash(), name="Burger night"))}
    post = watched.page.request.post
    made = post(f"{watched.served.address}/api/formulas", data=formula).json()["id"]
    timing = {"ready_min": 1140, "cooks": 2, "opens_min": 1000, "own": [], "pins": [], "away": []}
    dishes = [{"formula_id": made, "guests": 40}]
    service = {"name": "Burger night for 40", "day": "2031-03-07", "dishes": dishes, "timing": timing}
    kept = post(f"{watched.served.address}/api/services", data={"service": service})
    assert kept.status == 201, kept.text()
    return int(kept.json()["id"])


def _state(page: Page):
    return page.locator("[data-timetable]")


def _type(page: Page, label: str, text: str) -> None:
    field = page.get_by_label(label, exact=True)
    field.fill(text)
    field.press("Enter")


def test_too_little_time_is_told_and_one_tap_makes_it_possible(watch, kestrel) -> None:
    watched = watch(kestrel)
    watched.expected.add(422)
    page = _open(watched, slipway_smash(), "Short of time")
    state = _state(page)
    expect(state).to_have_attribute("data-timetable", "on-time")
    expect(state).to_contain_text("to have it on the plate at 18:30")
    _type(page, "Work begins at", "17:30")
    expect(state).to_have_attribute("data-timetable", "late")
    expect(state).to_contain_text("It cannot be on the plate before")
    offers = page.get_by_role("list", name="What would help")
    offer = offers.get_by_role("listitem").filter(has_text=re.compile(r"^On the plate at \d\d:\d\d"))
    expect(offer).to_contain_text("On time")
    offer.get_by_role("button", name="Take it").click()
    expect(state).to_have_attribute("data-timetable", "on-time")
    expect(page.get_by_label("On the plate at", exact=True)).not_to_have_value("18:30")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("On the plate at", exact=True)).to_have_value("18:30")
    expect(state).to_have_attribute("data-timetable", "late")
    # What is no time of day is refused, and what stood there stands.
    _type(page, "On the plate at", "6")
    expect(page.get_by_text("in the morning or the evening")).to_be_visible()
    expect(page.get_by_label("On the plate at", exact=True)).to_have_value("18:30")
    assert watched.axe() == []


def test_roots_share_the_oven_and_a_bar_is_pinned_by_keys_and_by_hand(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = _open(watched, keepers_loaf(), "With roots")
    form = page.get_by_role("form", name="One more task")
    form.get_by_label("What", exact=True).fill("Roots")
    form.get_by_label("How long").fill("40 min")
    form.get_by_label("It takes").select_option(label="Fan oven, tray 530 × 325")
    form.get_by_label("Oven at").fill("200 °C")
    form.get_by_label("A cook stands at it").uncheck()
    form.get_by_role("button", name="Add it").click()
    roots = page.get_by_role("option", name=re.compile("^Roots"))
    expect(roots).to_be_visible()
    roots.click()
    chosen = page.locator("[data-chosen]")
    expect(chosen).to_contain_text("Roots")
    chosen.get_by_role("button", name="Leave it out").click()
    expect(page.locator("[data-task=own-1]")).to_have_count(0)
    # The arrow keys move a bar, and it then begins there.
    shape = page.get_by_role("option", name=re.compile("^Shape 4 loaves"))
    before = shape.get_attribute("aria-label")
    shape.click()
    expect(page.get_by_role("listbox", name="Tasks in time")).to_be_focused()
    page.keyboard.press("Shift+ArrowLeft")
    expect(shape).to_have_attribute("aria-label", re.compile("pinned$"))
    assert before != shape.get_attribute("aria-label")
    expect(chosen).to_contain_text("Pinned: it begins when you said.")
    chosen.get_by_role("button", name="Let it go").click()
    expect(shape).not_to_have_attribute("aria-label", re.compile("pinned$"))
    # Up and down go from task to task in time.
    page.get_by_role("listbox", name="Tasks in time").focus()
    page.keyboard.press("ArrowUp")
    expect(chosen).to_contain_text("The mix chills")
    page.keyboard.press("ArrowDown")
    expect(chosen).to_contain_text("Shape 4 loaves")
    # Dragged an inch to the left.
    box = shape.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 8, box["y"] + 8)
    page.mouse.down()
    page.mouse.move(box["x"] - 40, box["y"] + 8, steps=4)
    page.mouse.up()
    expect(shape).to_have_attribute("aria-label", re.compile("pinned$"))
    page.get_by_role("button", name="Let everything pinned go").click()
    expect(shape).not_to_have_attribute("aria-label", re.compile("pinned$"))
    watched.saved()


@pytest.mark.parametrize("width", [390])
def test_on_a_phone_the_day_is_a_list(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    page = _open(watched, slipway_smash(), "On a phone")
    day = page.get_by_role("list", name="On the day")
    rows = day.get_by_role("listitem")
    expect(rows.first).to_contain_text("into cubes")
    expect(rows.last).to_contain_text("Build")
    page.locator("[data-row=wave-1]").get_by_role("button").click()
    expect(page.locator("[data-chosen=wave-1]")).to_contain_text("the plate is late")
    _type(page, "Cooks", "2")
    expect(page.get_by_role("link", name=re.compile("^7\\s*Time"))).to_be_visible()
    expect(_state(page)).to_have_attribute("data-timetable", "on-time")
    assert watched.axe() == []


def test_two_dishes_of_one_evening_have_one_timetable(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    for make, name in ((keepers_loaf, "Evening loaf"), (slipway_smash, "Evening smash")):
        body = {"formula": FORMULAS.plain(replace(make(), name=name))}
        assert page.request.post(f"{watched.served.address}/api/formulas", data=body).status == 201
    watched.go("/services")
    page.get_by_label("Its name").fill("Friday")
    page.get_by_role("button", name="Begin it").click()
    expect(page.get_by_label("Service", exact=True)).to_have_value("Friday")
    dish = page.get_by_label("Also on the plate")
    dish.select_option(label="Evening loaf")
    state, lanes = _state(page), page.get_by_role("listbox", name="Tasks in time")
    expect(state).to_be_visible(timeout=60_000)
    dish.select_option(label="Evening smash")
    dishes = page.get_by_role("list", name="Dishes")
    expect(dishes.get_by_role("listitem")).to_have_count(2)
    expect(lanes.get_by_role("option", name=re.compile("Evening smash")).first).to_be_visible()
    expect(lanes.get_by_role("option", name=re.compile("Evening loaf")).first).to_be_visible()
    _type(page, "Cooks", "2")
    expect(page.get_by_label("Cooks", exact=True)).to_have_value("2")
    _type(page, "Guests of Evening smash", "10")
    expect(lanes.get_by_role("option", name=re.compile("^Shape 20 pieces, Evening smash"))).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="Saved")).to_be_visible()
    assert watched.axe() == []
    # It comes back as it was left.
    page.reload()
    expect(page.get_by_label("Guests of Evening smash")).to_have_value("10")
    expect(page.get_by_label("Cooks", exact=True)).to_have_value("2")
    page.get_by_role("button", name="Leave out Evening loaf").click()
    expect(dishes.get_by_role("listitem")).to_have_count(1)
    page.get_by_role("button", name="Delete this service").click()
    page.get_by_role("button", name="Delete Friday").click()
    expect(page.get_by_text("None yet.")).to_be_visible()


def test_loaf_balls_and_burgers_of_one_evening_come_to_the_table_together(watch, kestrel) -> None:
    watched = watch(kestrel)
    page = watched.page
    dishes = []
    for make, name, guests in (
        (keepers_loaf, "Supper loaf", 0),
        (night_watch_balls, "Supper balls", 12),
        (slipway_smash, "Supper smash", 10),
    ):
        body = {"formula": FORMULAS.plain(replace(make(), name=name))}
        made = page.request.post(f"{watched.served.address}/api/formulas", data=body).json()["id"]
        dishes.append({"formula_id": made, "guests": guests})
    # One cook, who comes at five: more than two hands can do.
    timing = {"ready_min": 1140, "cooks": 1, "opens_min": 1020, "own": [], "pins": []}
    service = {"name": "Three dishes", "day": "2031-04-11", "dishes": dishes, "timing": timing}
    one = page.request.post(f"{watched.served.address}/api/services", data={"service": service}).json()["id"]
    watched.go(f"/services/{one}")
    expect(_state(page)).to_have_attribute("data-timetable", "late", timeout=60_000)
    help_ = page.get_by_role("list", name="What would help").get_by_role("listitem")
    expect(help_.first).to_be_visible()
    _type(page, "Work begins at", "13:00")
    _type(page, "Cooks", "2")
    expect(_state(page)).to_have_attribute("data-timetable", "on-time", timeout=60_000)
    lanes = page.get_by_role("listbox", name="Tasks in time")
    for name in ("Supper loaf", "Supper balls", "Supper smash"):
        expect(lanes.get_by_role("option", name=re.compile(name)).first).to_be_visible()
    # One oven is asked for two heats, and the hour to turn it is told.
    expect(page.get_by_text("goes from")).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("tab", name="List").click()
    tasks = page.get_by_role("list", name="On the day").get_by_role("listitem")
    for end in ("Slice and plate, Supper loaf", "Supper balls", "Supper smash"):
        expect(tasks.filter(has_text=end).last).to_contain_text("18:")
    page.request.delete(f"{kestrel.address}/api/services/{one}")


def test_one_cook_of_a_burger_night_for_forty_is_ill_and_the_other_called_away(watch, kestrel, tmp_path) -> None:
    watched = watch(kestrel)
    page = watched.page
    watched.go(f"/services/{_burger_night(watched)}")
    expect(_state(page)).to_have_attribute("data-timetable", "on-time", timeout=60_000)
    # Cook 2 is ill: all day.
    page.get_by_text("Who is away", exact=True).click()
    form = page.get_by_role("form", name="A cook is away")
    form.get_by_label("Who").select_option("2")
    form.get_by_role("button", name="Away all day").click()
    away = page.get_by_role("list", name="Away")
    expect(away).to_contain_text("Cook 2")
    expect(_state(page)).to_have_attribute("data-timetable", "late", timeout=60_000)
    help_ = page.get_by_role("list", name="What would help").get_by_role("listitem")
    expect(help_.filter(has_text="Cook 2 stays")).to_have_count(1)
    assert watched.axe() == []
    # Nobody stays: it is served later.
    help_.filter(has_text="On the plate at").get_by_role("button", name="Take it").click()
    expect(_state(page)).to_have_attribute("data-timetable", "on-time", timeout=60_000)
    # The other one's calendar has the boat at six.
    calendar = tmp_path / "cook.ics"
    calendar.write_text(
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Kestrel//EN\r\nBEGIN:VEVENT\r\nUID:b@kestrel.invalid\r\n"
        "DTSTAMP:20310101T000000Z\r\nDTSTART:20310307T180000\r\nDTEND:20310307T183000\r\nEND:VEVENT\r\n"
        "END:VCALENDAR\r\n"
    )
    form.get_by_label("Who").select_option("1")
    form.get_by_label("Read their calendar").set_input_files(calendar)
    expect(away).to_contain_text("18:00–18:30")
    away.get_by_role("listitem").filter(has_text="Cook 2").get_by_role("button", name="There after all").click()
    expect(away.get_by_role("listitem")).to_have_count(1)
    assert watched.axe() == []


@pytest.mark.parametrize("width", [1280, 390])
def test_orders_as_they_come_are_held_by_a_second_cook(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    watched.expected.add(422)
    page = _open(watched, slipway_smash(), f"To order at {width}")
    page.get_by_role("tab", name="Orders as they come").click()
    state = page.locator("[data-orders]")
    expect(state).to_have_attribute("data-orders", "enough")
    _type(page, "Orders an hour", "40")
    expect(state).to_have_attribute("data-orders", "short")
    expect(state.get_by_role("status")).to_contain_text("asked for in the rush")
    assert watched.axe() == []
    # Three cooks have hands enough; what is held ready is told in the table.
    _type(page, "Cooks", "3")
    expect(state).to_have_attribute("data-orders", "enough")
    expect(page.get_by_role("row").filter(has_text="enough")).to_have_count(1)
    # What is no number, or more than is drawn, is refused and says why; what stood there stands.
    _type(page, "Portions an order", "many")
    expect(page.get_by_role("alert")).to_contain_text("was not understood")
    expect(page.get_by_label("Portions an order", exact=True)).to_have_value("2")
    _type(page, "Open for", "9000 min")
    expect(page.get_by_role("alert")).to_be_visible()
    _type(page, "Open for", "90 min")
    expect(state).to_be_visible()
    # It stands there still after a look at the lanes.
    page.get_by_role("tab", name="Lanes").click()
    page.get_by_role("tab", name="Orders as they come").click()
    expect(page.get_by_label("Orders an hour", exact=True)).to_have_value("40")


@pytest.mark.parametrize("width", [1280, 390])
def test_short_of_time_the_meat_is_bought_ground_and_it_fits(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    page = _open(watched, slipway_smash(), f"Boat is early {width}")
    page.get_by_role("tab", name="Short of time").click()
    state = page.locator("[data-short]")
    expect(state).to_have_attribute("data-short", "none", timeout=60_000)
    expect(state.get_by_role("status")).to_contain_text("The quickest found takes")
    page.get_by_role("button", name="45 min").click()
    expect(state).to_have_attribute("data-short", "ways", timeout=60_000)
    way = page.get_by_role("region", name="Way 1")
    expect(way).to_contain_text("Meat bought ground")
    assert watched.axe() == []
    way.get_by_role("button", name="Change it so").click()
    expect(state).to_have_attribute("data-short", "fits", timeout=60_000)
    expect(state.get_by_role("status")).to_contain_text("It fits")
    watched.saved()
    # Minutes are read as times are read everywhere.
    _type(page, "On the plate within", "0.5 h")
    expect(page.get_by_label("On the plate within")).to_have_value("30 min")
    expect(state).to_have_attribute("data-short", "none", timeout=60_000)
    # Less than a minute is no minute, and is not taken for one.
    watched.expected |= {422}
    _type(page, "On the plate within", "10 s")
    expect(page.get_by_role("alert")).to_be_visible()


# The first search that is asked for by lines never ends by itself.
ENDLESS = """
const real = window.fetch;
window.fetch = (url, options) => {
  if (url !== "/api/short-of-time" || window.hungUp !== undefined) return real(url, options);
  window.hungUp = false;
  const line = JSON.stringify({ looking: { plans: 12, seconds: 3.2 } }) + "\\n";
  const body = new ReadableStream({
    start(out) {
      out.enqueue(new TextEncoder().encode(line));
      options.signal.addEventListener("abort", () => {
        window.hungUp = true;
        out.error(options.signal.reason);
      });
    },
  });
  return Promise.resolve(new Response(body));
};
"""


@pytest.mark.parametrize("width", [1280, 390])
def test_a_long_search_tells_how_far_it_is_and_is_stopped(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    watched.page.add_init_script(ENDLESS)
    page = _open(watched, keepers_loaf(), f"Loaf in a hurry {width}")
    page.get_by_role("tab", name="Short of time").click()
    expect(page.get_by_text("12 plans tried in 3 s")).to_be_visible()
    assert watched.axe() == []
    page.get_by_role("button", name="Stop looking").click()
    stopped = page.get_by_text("Stopped before what would make it quicker was found.")
    expect(stopped).to_be_visible()
    assert page.evaluate("window.hungUp")
    expect(page.locator("[data-short]")).to_have_count(0)
    page.get_by_role("button", name="Look again").click()
    expect(stopped).to_have_count(0)
    expect(page.locator("[data-short]")).to_be_visible(timeout=60_000)
    watched.saved()


@pytest.mark.parametrize("width", [1280, 390])
def test_carried_to_the_pier_it_takes_ice_and_papers(watch, kestrel, width: int) -> None:
    watched = watch(kestrel, width=width)
    page = _open(watched, slipway_smash(), f"To the pier {width}")
    page.get_by_role("tab", name="Carried elsewhere").click()
    state = page.locator("[data-carried]")
    expect(state).to_contain_text("40 raw pieces")
    expect(state).to_contain_text("Papers, in 8 stacks")
    expect(state.get_by_role("status")).to_contain_text("of ice")
    before = state.get_by_role("status").inner_text()
    _type(page, "On the way", "6 h")
    expect(page.get_by_label("On the way")).to_have_value("6 h")
    expect(state.get_by_role("status")).not_to_have_text(before)
    _type(page, "Packed at", "50 °F")
    expect(page.get_by_label("Packed at")).to_have_value(re.compile(r"^10\s°C$"))
    expect(page.get_by_role("list", name="What to mind")).to_contain_text("chill it first")
    page.get_by_label("Box", exact=True).select_option(label="Heavy box, 60 mm of foam")
    expect(page.get_by_label("Ice by box")).to_contain_text("Heavy box")
    assert watched.axe() == []


def test_a_side_dish_of_before_is_put_beside_another_with_one_tap(watch, kestrel) -> None:
    watched = watch(kestrel)
    own = {"key": "own-1", "title": "Winter slaw", "minutes": 15, "hands": True, "surface": "", "hot": False}
    timing = {"ready_min": 1110, "cooks": 1, "opens_min": -1, "own": [own], "pins": []}
    service = {"name": "Slaw night", "day": "", "dishes": [], "timing": timing}
    kept = watched.page.request.post(f"{kestrel.address}/api/services", data={"service": service})
    assert kept.status == 201, kept.text()
    page = _open(watched, slipway_smash(), "With slaw")
    again = page.get_by_role("button", name="Winter slaw, 15 min")
    again.click()
    expect(page.get_by_role("option", name=re.compile("^Winter slaw"))).to_have_count(1)
    # It stands in this timetable now, and is not offered twice.
    expect(again).to_have_count(0)
    watched.saved()
    page.request.delete(f"{kestrel.address}/api/services/{kept.json()['id']}")
