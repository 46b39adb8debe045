"""The timetable over the wire: it follows the formula, refuses what cannot be, and is in the file."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.formula_file import read_file
from vianda.interchange.kinds import FORMULAS


def _ask(client, formula: dict):
    return client.post("/api/timetable", json={"formula": formula, "unit_system": "metric"})


def _edit(client, formula: dict, *edits: dict) -> dict:
    answer = client.post("/api/evaluate", json={"formula": formula, "edits": list(edits)})
    assert answer.status_code == 200, answer.get_data(as_text=True)
    return answer.get_json()["formula"]


def test_a_timetable_follows_the_formula_and_its_kitchen(client) -> None:
    formula = FORMULAS.plain(slipway_smash())
    first = _ask(client, formula)
    assert first.status_code == 200
    found = first.get_json()
    assert found["ready"] == "18:30"
    assert found["late_min"] == 0
    assert [t["key"] for t in found["tasks"]][-1] == "build-3"
    assert _ask(client, formula).get_json() == found
    late = _edit(client, formula, {"kind": "type-timing", "what": "opens", "text": "18:00"})
    told = _ask(client, late).get_json()
    assert told["late_min"] > 0
    taken = _edit(client, late, next(o["edit"] for o in told["offers"] if o.get("edit")))
    assert _ask(client, taken).get_json()["late_min"] < told["late_min"]


@pytest.mark.parametrize(
    "edit",
    [
        {"kind": "type-timing", "what": "ready", "text": "25:00"},
        {"kind": "type-timing", "what": "cooks", "text": "0"},
        {"kind": "type-timing", "what": "colour", "text": "1"},
        {"kind": "add-task", "title": "<b>", "text": "1e308"},
        {"kind": "add-task", "title": "x", "text": "5 min", "surface": "'; DROP TABLE formula; --"},
        {"kind": "drop-task", "task": "own-1"},
        {"kind": "pin-task", "task": "mix", "start_min": 1e9},
        {"kind": "pin-task", "task": "", "start_min": 5},
        {"kind": "pin-task", "task": "mix"},
    ],
)
def test_what_cannot_be_is_refused_and_changes_nothing(client, edit: dict) -> None:
    formula = FORMULAS.plain(keepers_loaf())
    answer = client.post("/api/evaluate", json={"formula": formula, "edits": [edit]})
    assert answer.status_code == 422
    assert answer.get_json()["detail"]


@pytest.mark.parametrize(
    "timing",
    [
        {"ready_min": 1440},
        {"ready_min": -1},
        {"cooks": 21},
        {"opens_min": -2},
        {"opens_min": 1440},
        {"own": [{"key": "a", "title": "a", "minutes": 0}]},
        {"own": [{"key": f"t{n}", "title": "a", "minutes": 5} for n in range(31)]},
        {"pins": [{"task": "mix", "start_min": 10_000_000}]},
    ],
)
def test_a_timing_past_its_bounds_is_refused(client, timing: dict) -> None:
    formula = FORMULAS.plain(keepers_loaf())
    answer = _ask(client, {**formula, "timing": {**formula["timing"], **timing}})
    assert answer.status_code == 422


def test_own_tasks_of_one_name_or_one_key_do_not_break_it(client) -> None:
    formula = FORMULAS.plain(keepers_loaf())
    own = [{"key": "mix", "title": "Mix", "minutes": 5}, {"key": "mix", "title": "Mix", "minutes": 5}]
    answer = _ask(client, {**formula, "timing": {**formula["timing"], "own": own}})
    assert answer.status_code == 422
    assert "key" in answer.get_json()["detail"]


def test_the_hour_is_kept_with_the_formula_and_comes_back_from_its_file(client) -> None:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(keepers_loaf())})
    assert made.status_code == 201
    stored = made.get_json()
    add = {"kind": "add-task", "title": "Greens", "text": "15 min", "hot": True}
    formula = _edit(client, stored["formula"], {"kind": "type-timing", "what": "ready", "text": "19:45"}, add)
    saved = client.put(f"/api/formulas/{stored['id']}", json={"formula": formula, "revision": stored["revision"]})
    assert saved.status_code == 200, saved.get_data(as_text=True)
    file = client.get(f"/api/formulas/{stored['id']}/export").get_json()
    assert file["version"] == 15
    timing = read_file(file).formula.timing
    assert timing.ready_min == 19 * 60 + 45
    assert [t.title for t in timing.own] == ["Greens"]
    older = {**file, "version": 10, "formula": {k: v for k, v in file["formula"].items() if k != "timing"}}
    assert read_file(older).formula.timing.ready_min == 1110


def test_own_tasks_of_before_are_offered_once_each_the_newest_first(client) -> None:
    def own(title: str, minutes: float) -> dict:
        return {"key": "own-1", "title": title, "minutes": minutes, "hands": True, "surface": "", "hot": False}

    timing = {"ready_min": 1110, "cooks": 1, "opens_min": -1, "pins": []}
    before = len(client.get("/api/own-tasks").get_json())
    for name, tasks in (("One", [own("Roots", 40)]), ("Two", [own("roots", 50), {**own("Greens", 8), "key": "own-2"}])):
        service = {"name": name, "day": "", "dishes": [], "timing": timing | {"own": tasks}}
        assert client.post("/api/services", json={"service": service}).status_code == 201
    found = client.get("/api/own-tasks").get_json()
    assert len(found) == before + 2
    assert {(t["title"], t["minutes"]) for t in found} >= {("roots", 50), ("Greens", 8)}
