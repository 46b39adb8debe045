"""The logbook over the wire: found by text, dish, day, score and lot, a page at a time; and where a lot went."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services import logbook
from vianda.services.logbook import PAGE
from vianda.storage.tables import CookLineRow, CookRow


def _shelve(client, formula, name: str) -> int:
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(replace(formula, name=name))})
    assert made.status_code == 201, made.get_json()
    return made.get_json()["id"]


def _cook(client, formula_id: int, **outcome) -> int:
    cook = client.post("/api/cooks", json={"formula_id": formula_id}).get_json()
    if outcome:
        body = {"outcome": outcome, "revision": cook["revision"]}
        done = client.put(f"/api/cooks/{cook['id']}/outcome", json=body)
        assert done.status_code == 200, done.get_json()
    return cook["id"]


def _look(client, **asked) -> dict:
    answer = client.post("/api/logbook", json=asked)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _ids(page: dict) -> list[int]:
    return [line["cook_id"] for line in page["lines"]]


def _at(cook_id: int, when: datetime) -> None:
    CookRow.update(started_at=when).where(CookRow.id == cook_id).execute()
    CookLineRow.update(started_at=when).where(CookLineRow.cook_id == cook_id).execute()


@pytest.fixture
def cooked(client) -> dict[str, int]:
    smash, loaf = _shelve(client, slipway_smash(), "Ragù night"), _shelve(client, keepers_loaf(), "Loaf")
    found = {
        "hot": _cook(client, smash, crust=5, juice=4, note="Plate at 260, salt 100% right", next_time="thinner"),
        "pale": _cook(client, smash, crust=1, note="no crust"),
        "loaf": _cook(client, loaf, juice=3, next_time="Rest it longer"),
        "begun": _cook(client, loaf),
    }
    for n, cook_id in enumerate(found.values()):
        _at(cook_id, datetime(2026, 12, 1 + n, 23, 30))
    return found


@pytest.mark.parametrize(
    ("asked", "wanted"),
    [
        ({}, ["begun", "loaf", "pale", "hot"]),
        ({"text": "RAGU"}, ["pale", "hot"]),
        ({"text": "ragu crust"}, ["pale"]),
        ({"text": "chuck"}, ["begun", "loaf", "pale", "hot"]),
        ({"text": "100%"}, ["hot"]),
        ({"text": "%"}, ["hot"]),
        ({"text": "_"}, []),
        ({"text": "😀"}, []),
        ({"text": "Grüße"}, []),
        ({"text": "'; DROP TABLE cook; --"}, []),
        ({"dish": "meatloaf"}, ["begun", "loaf"]),
        # A crust of 5 is a point past where it is wanted.
        ({"least_score": 4.5}, []),
        ({"least_score": 4.3}, ["hot"]),
        ({"least_score": 3.6}, ["loaf", "hot"]),
        ({"least_score": 1}, ["loaf", "pale", "hot"]),
        # By how near they came: what nobody scored is not among them.
        ({"sort": "best"}, ["hot", "loaf", "pale"]),
        ({"sort": "worst"}, ["pale", "loaf", "hot"]),
        ({"sort": "worst", "text": "chuck", "least_score": 3.6}, ["loaf", "hot"]),
        ({"from_day": "2026-12-03"}, ["begun", "loaf"]),
        ({"to_day": "2026-12-02"}, ["pale", "hot"]),
        # Half past eleven at night in London is the next day in Berlin.
        ({"from_day": "2026-12-03", "to_day": "2026-12-03", "utc_offset_min": 60}, ["pale"]),
        ({"text": "thinner", "dish": "meatloaf"}, []),
    ],
)
def test_cooks_are_found(client, cooked, asked, wanted) -> None:
    page = _look(client, **asked)
    assert _ids(page) == [cooked[name] for name in wanted]
    assert (page["total"], page.get("next")) == (len(wanted), None)


@pytest.mark.parametrize("sort", ["best", "worst"])
def test_every_scored_cook_is_reached_once_in_the_order_of_its_score(client, cooked, sort, monkeypatch) -> None:
    monkeypatch.setattr(logbook, "PAGE", 3)
    smash = _shelve(client, slipway_smash(), "Many scores")
    for n in range(8):
        _cook(client, smash, crust=1 + n % 3)
    found, before = [], None
    for _ in range(10):
        page = _look(client, sort=sort, **({"before": before} if before else {}))
        found += [(line["score"], line["cook_id"]) for line in page["lines"]]
        before = page.get("next")
        if before is None:
            break
    assert len({cook for _, cook in found}) == len(found) == 11
    scores = [score for score, _ in found]
    assert scores == sorted(scores, reverse=sort == "best")


def test_a_line_says_what_it_was_and_what_next(client, cooked) -> None:
    line = next(x for x in _look(client)["lines"] if x["cook_id"] == cooked["hot"])
    assert (line["formula_name"], line["dish"], line["remark"]) == ("Ragù night", "burger", "thinner")
    assert line["score"] == pytest.approx((5 - 4 / 3 + 5) / 2)
    assert line["started_at"] == "2026-12-01T23:30:00.000Z"
    begun = next(x for x in _look(client)["lines"] if x["cook_id"] == cooked["begun"])
    assert "finished_at" not in begun
    assert "score" not in begun


def test_what_is_said_later_is_found_and_what_no_longer_stands_is_not(client, cooked) -> None:
    cook = client.get(f"/api/cooks/{cooked['pale']}").get_json()
    outcome = {**cook["outcome"], "note": "Wet plate"}
    assert (
        client.put(
            f"/api/cooks/{cooked['pale']}/outcome", json={"outcome": outcome, "revision": cook["revision"]}
        ).status_code
        == 200
    )
    assert _ids(_look(client, text="wet plate")) == [cooked["pale"]]
    assert _ids(_look(client, text="no crust")) == []


def test_pages_follow_one_another_without_a_gap_or_a_double(client) -> None:
    smash = _shelve(client, slipway_smash(), "Paged")
    first = _cook(client, smash)
    row = CookLineRow.get(CookLineRow.cook_id == first)
    same = dict(row.__data__)
    # Three at each moment: the number decides among them.
    for n in range(2 * PAGE + 4):
        when = datetime(2026, 1, 1) + timedelta(minutes=n // 3)
        CookLineRow.insert(**{**same, "cook_id": 10_000 + n, "started_at": when}).execute()
    seen: list[int] = []
    before = None
    sizes = []
    while True:
        page = _look(client, text="paged", **({"before": before} if before else {}))
        # Counted once, on the first page.
        assert page.get("total") == (2 * PAGE + 5 if before is None else None)
        sizes.append(len(page["lines"]))
        seen += _ids(page)
        before = page.get("next")
        if before is None:
            break
    assert sizes == [PAGE, PAGE, 5]
    assert seen == [first, *range(10_000 + 2 * PAGE + 3, 9_999, -1)]


@pytest.mark.parametrize(
    ("asked", "pointer"),
    [
        ({"text": "x" * 201}, "/text"), ({"least_score": 0.9}, "/least_score"), ({"least_score": 5.1}, "/least_score"),
        ({"from_day": "2026-12-02", "to_day": "2026-12-01"}, "/to_day"), ({"before": 0}, "/before"),
        ({"utc_offset_min": 841}, "/utc_offset_min"), ({"from_day": "soon"}, "/from_day"),
        ({"dish": "burgér"}, "/dish"), ({"lot": "½"}, "/lot"),
    ],
)  # fmt: skip
def test_what_cannot_be_asked_is_refused_at_its_place(client, asked, pointer) -> None:
    answer = client.post("/api/logbook", json=asked)
    assert answer.status_code == 422
    assert [f["pointer"] for f in answer.get_json()["fields"]] == [pointer]


def test_a_dish_that_no_key_is_written_like_has_no_trend(client) -> None:
    answer = client.post("/api/logbook/trends", json={"dish": "Ä"})
    assert (answer.status_code, answer.get_json()["fields"][0]["pointer"]) == (422, "/dish")


@pytest.mark.parametrize("asked", [{"least_score": 1}, {"least_score": 5}, {"utc_offset_min": -840}, {"before": 10**9}])
def test_the_bounds_themselves_are_taken(client, asked) -> None:
    assert client.post("/api/logbook", json=asked).status_code == 200


def test_a_lot_is_followed_into_its_cooks_and_each_cook_says_what_it_held(client) -> None:
    lot = {
        "key": "new", "meat": "chuck", "name": "Norquay chuck, Monday", "left_mass_g": 9000.0, "price_per_kg": "9.40",
        "delivered": "2026-11-30", "use_by": "2026-12-06", "evidence": [], "closed": False,
    }  # fmt: skip
    key = client.post("/api/deliveries", json={"lot": lot, "temp_c": 3.0, "unit_system": "metric"}).get_json()["lot"][
        "lot"
    ]["key"]
    formula = slipway_smash()
    parts = tuple(replace(p, lot=key) if p.meat == "chuck" else p for p in formula.parts)
    smash = _shelve(client, replace(formula, parts=parts), "From a lot")
    cooked, begun = _cook(client, smash, crust=4), _cook(client, smash)
    trace = client.get(f"/api/lots/{key}/trace").get_json()
    assert (trace["name"], trace["use_by"]) == ("Norquay chuck, Monday", "2026-12-06")
    assert [w["cook"]["cook_id"] for w in trace["cooks"]] == [begun, cooked]
    chuck_g = next(
        p["mass_g"] for p in client.get(f"/api/cooks/{cooked}").get_json()["plan"]["blend"]["parts"]
        if p["meat"] == "chuck"
    )  # fmt: skip
    assert [w["mass_g"] for w in trace["cooks"]] == [chuck_g, chuck_g]
    # What is only begun took nothing yet.
    assert trace["used_g"] == chuck_g
    assert trace["left_g"] < 9000.0
    held = client.get(f"/api/cooks/{cooked}").get_json()["held"]
    assert [(h["lot"], h["use_by"], h["mass_g"]) for h in held] == [(key, "2026-12-06", chuck_g)]
    assert _ids(_look(client, lot=key)) == [begun, cooked]
    assert _ids(_look(client, text="monday")) == [begun, cooked]
    choices = client.get("/api/logbook/choices").get_json()
    assert {"key": key, "name": "Norquay chuck, Monday"} in choices["lots"]
    assert choices["dishes"] == ["burger"]
    assert client.get("/api/lots/nothing/trace").status_code == 404


@pytest.mark.parametrize("offset_min", [-840, 0, 840])
def test_the_first_and_the_last_day_of_the_calendar_are_asked_for_like_others(client, offset_min: int) -> None:
    asked = {"from_day": "0001-01-01", "to_day": "9999-12-31", "utc_offset_min": offset_min}
    everything = client.post("/api/logbook", json={}).get_json()["total"]
    assert client.post("/api/logbook", json=asked).get_json()["total"] == everything
