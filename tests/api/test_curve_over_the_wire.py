"""The heat over the wire: a stream of lines, questions, ways, signs and a probe; and what is refused."""

from __future__ import annotations

import json
from concurrent.futures import ThreadPoolExecutor

import pytest

from vianda.core.demo.formulas import beacon_grill, harbour_light_pub, keepers_loaf, slipway_smash
from vianda.core.model.formula import Formula
from vianda.interchange.kinds import FORMULAS


def _body(formula: Formula, **more: object) -> dict:
    return {"formula": FORMULAS.plain(formula), **more}


def _lines(client, formula: Formula, **more: object) -> list[dict]:
    answer = client.post("/api/heat/curve", json=_body(formula, **more))
    assert answer.status_code == 200, answer.get_data(as_text=True)
    assert answer.content_type == "application/x-ndjson"
    return [json.loads(line) for line in answer.get_data(as_text=True).splitlines()]


def test_first_a_curve_then_how_its_doubt_comes_along_then_the_whole(client) -> None:
    formula = _changed(slipway_smash(), surface_temp_c=237.0)
    first, *between, last = _lines(client, formula)
    assert first["kind"] == last["kind"] == "curve"
    assert first["uncertainty"] is None
    assert [line["kind"] for line in between] == ["progress"] * len(between)
    assert between
    assert last["flip_s"]["low"] < last["flip_s"]["usual"] < last["flip_s"]["high"]
    assert len(last["temp_c"]) == len(last["times_s"]) <= 150
    # Asked again it comes at once, from memory.
    assert _lines(client, formula) == [last]


def _changed(formula: Formula, **heat: object) -> Formula:
    from dataclasses import replace

    return replace(formula, heat=replace(formula.heat, **heat))  # type: ignore[arg-type]


def test_two_cooks_at_once_both_get_their_answers(app) -> None:
    formulas = [_changed(keepers_loaf(), surface_temp_c=171.0), _changed(slipway_smash(), surface_temp_c=233.0)]

    def run(formula: Formula) -> list[dict]:
        with app.test_client() as client:
            return _lines(client, formula)

    with ThreadPoolExecutor(2) as pool:
        loaf, smash = pool.map(run, formulas)
    assert loaf[-1]["form"] == "block"
    assert smash[-1]["form"] == "slab"


def test_a_reading_refits_and_says_so_and_one_that_cannot_be_is_not_used(client) -> None:
    said = _lines(client, beacon_grill(), observed={"probes": [{"at_s": 240, "core_c": 40}]})[0]["fitted"]
    assert said["of"] == "conductivity"
    assert not said["refused"]
    odd = _lines(client, beacon_grill(), observed={"probes": [{"at_s": 60, "core_c": 95}]})[0]["fitted"]
    assert odd["refused"]


def test_a_cool_surface_is_told_how_long_to_wait(client) -> None:
    remarks = _lines(client, slipway_smash(), surface_now_c=170)[0]["remarks"]
    assert "plate-cool" in {r["key"] for r in remarks}


@pytest.mark.parametrize(
    ("path", "more", "status"),
    [
        ("curve", {"observed": {"probes": [{"at_s": 60, "core_c": 900}]}}, 422),
        ("curve", {"observed": {"turned_s": 1}}, 422),
        ("curve", {"surface_now_c": 5000}, 422),
        ("curve", {"observed": {"probes": [{"at_s": 60, "core_c": 50}] * 13}}, 422),
        ("curve", {"nonsense": 1}, 422),
        ("ask", {"kind": "how-thick", "value": 2}, 422),
        ("ask", {"kind": "how-thick"}, 422),
        ("ask", {"kind": "why"}, 422),
        ("ask", {"kind": "how-long", "value": 1e308}, 422),
        ("probe", {"at_s": 0}, 422),
    ],
)
def test_bad_questions_are_refused_with_a_reason(client, path: str, more: dict, status: int) -> None:
    answer = client.post(f"/api/heat/{path}", json=_body(slipway_smash(), **more))
    assert answer.status_code == status
    problem = answer.get_json()
    assert problem["detail"]
    assert problem["type"].startswith("urn:vianda")


def test_stages_that_cannot_be_gone_through_are_refused_before_the_first_line(client) -> None:
    body = _body(slipway_smash())
    body["formula"]["heat"]["stages"] = [{"kind": "surface", "until": "time", "time_s": 60}]
    answer = client.post("/api/heat/curve", json=body)
    assert answer.status_code == 422
    assert "until the core" in answer.get_json()["detail"]


def test_what_is_no_formula_is_refused(client) -> None:
    assert client.post("/api/heat/curve", json={"formula": {}}).status_code == 422
    assert client.post("/api/heat/curve", data="no").status_code == 415


def test_ways_questions_afterwards_and_signs(client) -> None:
    ways = client.post("/api/heat/ways", json=_body(beacon_grill())).get_json()
    assert {m["key"] for m in ways["methods"]} >= {"two-zones", "turned-often", "smoke-then-sear"}
    assert not ways["by_hand"]
    assert {s["key"] for s in ways["signs"]} == {"hand-2", "hand-5", "hand-8"}
    asked = client.post("/api/heat/ask", json=_body(harbour_light_pub(), kind="reach-floor")).get_json()
    assert asked["change"]["figure"] == "target_core_temp"
    after = client.post("/api/heat/after", json=_body(slipway_smash())).get_json()
    assert [line["key"] for line in after] == ["hold", "cool", "reheat"]
    guess = client.post("/api/heat/signs", json={"signs": ["drop-skitters"], "fat": ""}).get_json()
    assert guess == {"low_c": 190.0, "usual_c": 225.0, "high_c": 260.0}
    odd = client.post("/api/heat/signs", json={"signs": ["drop-sits", "fat-shimmers"], "fat": ""})
    assert odd.status_code == 422
    assert "contradict" in odd.get_json()["detail"]


def test_the_simulated_probe_reads_the_same_piece_the_same(client) -> None:
    def read(at_s: float, seed: int) -> float:
        return client.post(
            "/api/heat/probe", json=_body(harbour_light_pub()) | {"at_s": at_s, "seed": seed}
        ).get_json()["shown_c"]

    assert read(300, 7) == read(300, 7)
    assert read(300, 7) < read(480, 7)
    assert 10 < read(300, 7) < 75


def test_an_edit_sets_stages_and_the_plan_follows_them(client) -> None:
    stages = [
        {"kind": "surface", "until": "time", "time_s": 90},
        {"kind": "oven", "until": "core", "temp_c": 170, "flip": True},
    ]
    edit = {"kind": "set-stages", "stages": stages}
    body = _body(harbour_light_pub(), edits=[edit], unit_system="metric")
    answer = client.post("/api/evaluate", json=body).get_json()
    assert [s["kind"] for s in answer["formula"]["heat"]["stages"]] == ["surface", "oven"]
    assert [s["kind"] for s in answer["evaluation"]["heat"]["stages"]] == ["preheat", "first-side", "bake", "rest"]
    assert answer["evaluation"]["heat"]["model"] == "conduction"
    back = client.post(
        "/api/evaluate", json={**body, "formula": answer["formula"], "edits": [{"kind": "set-stages", "stages": []}]}
    )
    assert back.get_json()["formula"]["heat"]["stages"] == []


def test_the_simulated_surface_thermometer_follows_the_burner(client) -> None:
    def read(heated_s: float) -> float:
        return client.post("/api/heat/surface", json=_body(slipway_smash(), heated_s=heated_s)).get_json()["shown_c"]

    # 10 mm of steel on 16 kW/m²: 39 kJ/(m² K), so 0.4 K a second, less two kelvins and a waver.
    assert read(240) == pytest.approx(20 + 16_000 * 240 / 38_465 - 2, abs=6)
    assert read(60) < read(240) < read(900) == pytest.approx(238, abs=6)
    loaf = client.post("/api/heat/surface", json=_body(keepers_loaf(), heated_s=60))
    assert loaf.status_code == 422
    assert "plate or a pan" in loaf.get_json()["detail"]


def test_cubes_in_the_freezer(client) -> None:
    cubes = client.post("/api/heat/firming", json=_body(slipway_smash(), edge_mm=28)).get_json()
    assert 1200 < cubes["firm_s"] < cubes["solid_s"]
    assert client.post("/api/heat/firming", json=_body(slipway_smash(), edge_mm=2)).status_code == 422


def test_more_long_runs_than_the_line_holds_are_told_to_ask_again(client, monkeypatch) -> None:
    from vianda.runtime.heavy import LONG_RUNS

    monkeypatch.setattr(LONG_RUNS, "_most", 0)
    for path, more in (("curve", {}), ("ask", {"kind": "how-thick", "value": 240}), ("after", {})):
        answer = client.post(f"/api/heat/{path}", json={"formula": FORMULAS.plain(slipway_smash()), **more})
        told = answer.get_json(force=True)
        assert (answer.status_code, answer.headers["Retry-After"]) == (429, "2")
        assert told["type"] == "urn:vianda:problem:too-many"
