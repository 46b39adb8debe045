"""The logbook as a file, and figures of cooks on control charts."""

from __future__ import annotations

import csv
import io
from dataclasses import replace

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.interchange.logbook_csv import COLUMNS

SMASH = slipway_smash()


def _shelve(client, formula, name: str) -> int:
    body = {"formula": FORMULAS.plain(replace(formula, name=name))}
    return client.post("/api/formulas", json=body).get_json()["id"]


def _cook(client, formula: int, **outcome) -> int:
    cook = client.post("/api/cooks", json={"formula_id": formula}).get_json()
    if outcome:
        said = {"note": "", "next_time": "", **outcome}
        body = {"outcome": said, "revision": cook["revision"]}
        assert client.put(f"/api/cooks/{cook['id']}/outcome", json=body).status_code == 200
    return cook["id"]


def _rows(client, **asked) -> list[dict[str, str]]:
    answer = client.get("/api/logbook/cooks.csv", query_string=asked)
    assert answer.status_code == 200, answer.get_json()
    assert answer.content_type == "text/csv; charset=utf-8"
    assert 'filename="logbook.csv"' in answer.headers["Content-Disposition"]
    return list(csv.DictReader(io.StringIO(answer.get_data(as_text=True))))


def test_every_cook_is_a_row_with_what_was_said_of_it(client) -> None:
    smash, loaf = _shelve(client, SMASH, "Out smash"), _shelve(client, keepers_loaf(), "Out loaf")
    done = _cook(
        client, smash, crust=5, salt=3, cooked_mass_g=2400, core_c=71.5, note='Said "good", ümläut', next_time=""
    )
    begun = _cook(client, loaf)
    rows = _rows(client)
    assert list(rows[0]) == list(COLUMNS)
    assert [int(r["cook"]) for r in rows] == [begun, done]
    assert (rows[0]["finished_utc"], rows[0]["crust"], rows[0]["note"]) == ("", "", "")
    row = rows[1]
    assert (row["formula"], row["dish"], row["pieces"]) == ("Out smash", "burger", "40")
    assert (row["cooked_mass_g"], row["core_c"], row["crust"], row["juice"]) == ("2400.0", "71.5", "5", "")
    assert row["looks"] == ""
    assert row["note"] == 'Said "good", ümläut'
    assert row["begun_utc"].endswith("Z")
    # The same in JSON, numbers as numbers.
    whole = client.get("/api/logbook/cooks.json").get_json()
    assert (whole["format"], whole["version"]) == ("vianda-logbook", 2)
    assert whole["cooks"][1]["cooked_mass_g"] == 2400
    assert whole["cooks"][0]["crust"] is None


def test_only_what_is_looked_for_is_in_the_file(client) -> None:
    smash, loaf = _shelve(client, SMASH, "Out smash"), _shelve(client, keepers_loaf(), "Out loaf")
    _cook(client, smash, crust=4)
    _cook(client, loaf, crust=2)
    assert [r["formula"] for r in _rows(client, dish="meatloaf")] == ["Out loaf"]
    assert [r["formula"] for r in _rows(client, least_score=4)] == ["Out smash"]
    assert [r["formula"] for r in _rows(client, text="smash", formula_id=smash)] == ["Out smash"]
    assert _rows(client, from_day="2031-01-01") == []
    kitchen = client.get("/api/kitchens").get_json()["here"]
    assert len(_rows(client, kitchen=kitchen)) == 2


def test_a_note_that_a_table_program_would_run_is_text(client) -> None:
    _cook(client, _shelve(client, SMASH, "=1+1"), note="=HYPERLINK(1)", next_time="+2")
    [row] = _rows(client)
    assert (row["formula"], row["note"], row["next_time"]) == ("'=1+1", "'=HYPERLINK(1)", "'+2")
    [cook] = client.get("/api/logbook/cooks.json").get_json()["cooks"]
    assert cook["note"] == "=HYPERLINK(1)"


@pytest.mark.parametrize(
    "asked",
    [
        {"least_score": "much"}, {"least_score": 6}, {"from_day": "yesterday"}, {"formula_id": 0}, {"colour": "red"},
        {"from_day": "2026-12-02", "to_day": "2026-12-01"}, {"text": "x" * 201}, {"utc_offset_min": 900},
    ],
)  # fmt: skip
def test_an_address_that_cannot_be_read_is_refused(client, asked: dict) -> None:
    for ending in ("csv", "json"):
        answer = client.get(f"/api/logbook/cooks.{ending}", query_string=asked)
        assert answer.status_code == 422, answer.get_data(as_text=True)[:200]
        assert answer.get_json()["detail"]


def _trends(client, **of) -> dict[str, dict]:
    answer = client.post("/api/logbook/trends", json=of)
    assert answer.status_code == 200, answer.get_json()
    return {t["figure"]: t for t in answer.get_json()}


def test_cooks_stand_on_a_chart_in_their_order_with_their_forecasts(client) -> None:
    smash = _shelve(client, SMASH, "Charted")
    # The plate was scraped dry at the last one.
    masses = (*(2250, 2450) * 6, 1200)
    cooks = [_cook(client, smash, cooked_mass_g=m, crust=4) for m in masses]
    found = _trends(client, formula_id=smash)
    assert set(found) == {"yield", "score"}
    chart = found["yield"]
    assert [p["cook_id"] for p in chart["points"]] == cooks
    assert chart["points"][0]["low"] < chart["points"][0]["value"] < chart["points"][0]["high"]
    assert chart["lower"] < chart["mean"] < chart["upper"]
    assert [(b["rule"], b["at"]) for b in chart["broken"]] == [("beyond-3s", 12)]
    # All alike: nothing to call a limit by.
    assert found["score"]["broken"] == []
    assert {p["value"] for p in found["score"]["points"]} == {5.0}


def test_charts_are_of_what_is_asked_for(client) -> None:
    smash, loaf = _shelve(client, SMASH, "A"), _shelve(client, keepers_loaf(), "B")
    for formula in (smash, smash, loaf, loaf, loaf):
        _cook(client, formula, crust=3)
    assert len(_trends(client, formula_id=smash)["score"]["points"]) == 2
    assert len(_trends(client, dish="meatloaf")["score"]["points"]) == 3
    assert len(_trends(client)["score"]["points"]) == 5
    # Too few for limits: none are drawn. One alone is no trend.
    assert "upper" not in _trends(client, formula_id=smash)["score"]
    once = _shelve(client, SMASH, "C")
    _cook(client, once, crust=3)
    assert _trends(client, formula_id=once) == {}
    assert client.post("/api/logbook/trends", json={"formula_id": 0}).status_code == 422
