"""Take the README's pictures from a served demo kitchen: .venv/bin/python scripts/screenshots.py ADDRESS [NAME ...]

Use ./start --fresh-demo --port 8500, so that the pictures hold demo data only.
"""

from __future__ import annotations

import sys
from collections.abc import Callable
from datetime import date, datetime, time, timedelta
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

sys.path.insert(0, str(Path(__file__).parent))

from ops.install import find

FOLDER = Path(__file__).resolve().parents[1] / "docs" / "screenshots"
WIDE, PHONE = (1280, 800), (390, 844)


def _opening(page: Page) -> None:
    page.get_by_label("What you have, in one line").fill(
        "20 meatballs for 6, half beef half pork, gluten free, zorbs, oven 200C"
    )
    page.get_by_role("button", name="Plan it").click()
    page.get_by_role("button", name="Put it on the bench").wait_for()


def _inside(page: Page) -> None:
    page.get_by_role("tab", name="Inside the piece").click()
    page.get_by_role("slider", name="Moment").wait_for()


def _formulas(page: Page, base: str) -> dict[str, int]:
    shelf = page.request.get(f"{base}/api/formulas").json()
    return {item["name"].split(" ")[0]: item["id"] for item in shelf}


def _a_cook(page: Page, base: str, formula: int) -> int:
    """A cook with a few reports and an outcome, for the logbook's picture."""
    cook = page.request.post(f"{base}/api/cooks", data={"formula_id": formula}).json()
    path = f"{base}/api/cooks/{cook['id']}"
    for place in range(5):
        # A cook cannot have happened before it began, so the picture waits a little between its reports.
        page.wait_for_timeout(1500 * (place + 1))
        page.request.post(f"{path}/events", data={"token": f"picture-{place}", "kind": "done", "place": place})
    outcome = {
        "cooked_mass_g": cook["plan"]["portions"]["batch_mass_g"] * 0.71,
        "cooked_diameter_mm": 104.0,
        "crust": 5,
        "juice": 4,
        "bite": 3,
        "bind": 3,
        "grease": 3,
        "salt": 3,
        "looks": 4,
        "note": "The second wave went on too soon: the plate had fallen below 200.",
        "next_time": "Wait for 240 between waves.",
    }
    page.request.put(f"{path}/outcome", data={"outcome": outcome, "revision": 1})
    return int(cook["id"])


def _weighed(page: Page, base: str, formula: int, losses: tuple[float, ...]) -> None:
    """Finished cooks that lost so many times what was forecast."""
    for loss in losses:
        cook = page.request.post(f"{base}/api/cooks", data={"formula_id": formula}).json()
        expected = 1.0 - cook["plan"]["shape"]["cooked_yield_frac"]["usual"]
        left = cook["plan"]["portions"]["batch_mass_g"] * (1.0 - expected * loss)
        outcome = {"cooked_mass_g": round(left), "crust": 3 + (loss > 1.1)}
        path = f"{base}/api/cooks/{cook['id']}/outcome"
        page.request.put(path, data={"outcome": outcome, "revision": cook["revision"]})


def _tested(page: Page, base: str, fats: tuple[str, ...]) -> None:
    """Deliveries of one cut, each analysed."""
    for week, fat in enumerate(fats):
        day = date.today() - timedelta(days=7 * (len(fats) - week))
        lot = {
            "key": "new", "meat": "brisket-flat", "name": f"Norquay flat, {day:%d %b}", "left_mass_g": 0,
            "price_per_kg": "10.10", "delivered": str(day), "use_by": None, "evidence": [], "closed": True,
        }  # fmt: skip
        made = page.request.post(f"{base}/api/larder/lots", data={"lot": lot}).json()
        told = {"kind": "laboratory", "fat": fat, "revision": made["revision"]}
        page.request.post(f"{base}/api/larder/lots/{made['lot']['key']}/evidence", data=told)


def _changed(page: Page, base: str, formula: int) -> None:
    """A version is kept, and the surface made hotter since."""
    path = f"{base}/api/formulas/{formula}"
    page.request.post(f"{path}/versions", data={"name": "As on the pier"})
    stored = page.request.get(path).json()
    heat = {**stored["formula"]["heat"], "surface_temp_c": 250.0}
    page.request.put(path, data={"formula": {**stored["formula"], "heat": heat}, "revision": stored["revision"]})


def _pale(page: Page) -> None:
    """No crust, in a watery pan."""
    page.get_by_role("button", name="No crust").click()
    page.get_by_role("button", name="Grey meat in a watery pan").click()
    page.get_by_role("region", name="Causes, the likeliest first").wait_for()
    page.get_by_label("Surface when laid on").fill("205")
    page.get_by_label("Surface when laid on").press("Enter")
    page.locator("[data-faults=ready]").wait_for()
    page.wait_for_timeout(1500)


def _stacked(page: Page) -> None:
    """A sauce beside it, and a build of its own."""
    page.get_by_role("button", name="Put it beside").click()
    page.get_by_role("list", name="What goes with it").wait_for()
    page.get_by_role("tab", name="The build").click()
    for name in ("Leaf", "Tomato slice", "Raw onion ring"):
        page.get_by_label("Another layer").select_option(label=name)
        page.get_by_role("button", name="Lay it on").click()
        page.wait_for_timeout(500)


def _timed(page: Page) -> None:
    """One task chosen, with why it begins then."""
    page.locator("[data-timetable]").wait_for(timeout=60_000)
    page.get_by_role("option", name="Shape").first.click()
    page.wait_for_timeout(300)


def _a_week(page: Page, base: str, dishes: dict[str, tuple[int, int]]) -> None:
    """A service a name: its formula, and in how many days it is."""
    timing = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    for name, (formula, days) in dishes.items():
        service = {
            "name": name,
            "day": str(date.today() + timedelta(days=days)),
            "dishes": [{"formula_id": formula, "guests": 0}],
            "timing": timing,
        }
        page.request.post(f"{base}/api/services", data={"service": service})


def _basket(page: Page) -> None:
    """Two things are in the basket."""
    page.locator("[data-shopping=ready]").wait_for()
    for name in ("Brisket flat", "Pork shoulder"):
        page.get_by_role("checkbox", name=name).click()
    page.get_by_role("heading", name="Shopping").click()
    page.wait_for_timeout(500)


def _late(page: Page, base: str, dishes: tuple[int, ...]) -> None:
    """Two dishes under way, the plate of the second a quarter of an hour late."""
    day, ready_min = date.today() + timedelta(days=9), 1110
    timing = {"ready_min": ready_min, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    served = [{"formula_id": formula, "guests": 0} for formula in dishes]
    service = {"name": "Wednesday at the canteen", "day": str(day), "dishes": served, "timing": timing}
    kept = page.request.post(f"{base}/api/services", data={"service": service}).json()
    ask = {"service": kept["service"], "unit_system": "metric"}
    tasks = page.request.post(f"{base}/api/services/plan", data=ask).json()["timetable"]["tasks"]
    plate = next(t for t in tasks if t["key"] == f"f{dishes[1]}-preheat")
    now = plate["start_min"] + 15
    path = f"{base}/api/services/{kept['id']}/run/events"
    for n, task in enumerate(t for t in tasks if t["start_min"] < now and t is not plate):
        said = {"token": f"picture-{n:03d}", "kind": "begin", "minute": task["start_min"], "task": task["key"]}
        page.request.post(path, data={"day": str(day), "event": said})
        if task["end_min"] <= now:
            said |= {"token": f"picture-end-{n:03d}", "kind": "end", "minute": task["end_min"]}
            page.request.post(path, data={"day": str(day), "event": said})
    page.clock.set_fixed_time(datetime.combine(day, time()) + timedelta(minutes=ready_min + now))
    page.goto(f"{base}/services/{kept['id']}/cook")
    page.locator("[data-under-way]").wait_for(timeout=60_000)


def _core_read(page: Page) -> None:
    """A wave that is on for half a minute, and a core that is warmer than computed."""
    for word in ("It is hot", "They are on"):
        page.get_by_role("button", name=word).click()
    page.wait_for_timeout(35_000)
    page.get_by_role("button", name="Core read").click()
    page.get_by_role("textbox", name="Core temperature").fill("14 C")
    page.get_by_role("button", name="Note it").click()
    page.get_by_text("The timer follows this").wait_for()


def main() -> int:
    """Take every picture; the shelf late, so that it shows what the others left."""
    base = sys.argv[1].rstrip("/")
    FOLDER.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=find("chromium"), args=["--no-sandbox"])
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        ids = _formulas(page, base)
        smash, pub = ids["Slipway"], ids["Harbour-light"]
        loaf, grill = ids["Keeper’s"], ids["Beacon"]
        cook = _a_cook(page, base, smash)
        stove = page.request.post(f"{base}/api/cooks", data={"formula_id": grill}).json()["id"]
        pictures: list[tuple[str, str, tuple[int, int], Callable[[Page], None] | None]] = [
            *((step, f"/formula/{smash}/{step}", WIDE, None) for step in ("dish", "meat", "shape", "cook")),
            ("heat", f"/formula/{pub}/heat", WIDE, _inside),
            ("mix", f"/formula/{loaf}/mix", WIDE, None),
            ("sauce", f"/formula/{pub}/sauce", WIDE, _stacked),
            ("pantry", "/pantry", WIDE, None),
            ("time", f"/formula/{pub}/time", WIDE, _timed),
            ("larder", "/larder", WIDE, None),
            ("stove", f"/stove/{stove}", WIDE, _core_read),
            ("log", f"/log/{cook}", WIDE, None),
            ("wrong", f"/log/{cook}/wrong", WIDE, _pale),
            ("learnt", "/log/learnt", WIDE, None),
            ("compare", f"/formula/{grill}/compare", WIDE, None),
            ("kitchen", "/kitchen", WIDE, None),
            ("shopping", "/shopping", PHONE, _basket),
            ("shelf", "/", WIDE, _opening),
            # The last: the page's clock stands in that evening from then on.
            ("under-way", "/services", WIDE, lambda p: _late(p, base, (loaf, smash))),
        ]
        _weighed(page, base, smash, (1.12, 1.05, 0.1, 1.18, 1.09, 1.14))
        _weighed(page, base, grill, (1.2, 1.31, 1.24))
        _tested(page, base, ("19 %", "22 %", "17 %", "21 %"))
        _changed(page, base, grill)
        _weighed(page, base, grill, (1.27, 1.14, 1.22))
        _a_week(page, base, {"Burger night": (smash, 3), "Winter loaf": (loaf, 5)})
        for name, path, (width, height), act in pictures:
            if len(sys.argv) > 2 and name not in sys.argv[2:]:
                continue
            page.set_viewport_size({"width": width, "height": height})
            page.goto(base + path)
            page.wait_for_load_state("networkidle")
            page.wait_for_timeout(300)
            if act:
                act(page)
                page.wait_for_timeout(300)
            page.screenshot(path=FOLDER / f"{name}.png")
            print(name)
        browser.close()
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
