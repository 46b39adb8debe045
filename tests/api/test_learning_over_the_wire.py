"""What the kitchen learns, from the cook's note to the next forecast."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import timedelta

import pytest

from vianda.core.demo.formulas import beacon_grill, slipway_smash
from vianda.core.learning.from_cook import CookDone, loss_observation
from vianda.interchange.kinds import FORMULAS
from vianda.storage import observation_repository
from vianda.storage.migrate import migrate
from vianda.storage.tables import CookEventRow, CookRow, ObservationRow

NOTED = {"note": "", "next_time": ""}


def _shelve(client, formula) -> int:
    return client.post("/api/formulas", json={"formula": FORMULAS.plain(formula)}).get_json()["id"]


def _begin(client, formula_id: int) -> dict:
    answer = client.post("/api/cooks", json={"formula_id": formula_id})
    assert answer.status_code == 201, answer.get_json()
    return answer.get_json()


def _note(client, cook: dict, **outcome) -> dict:
    body = {"outcome": {**NOTED, **outcome}, "revision": cook["revision"]}
    answer = client.put(f"/api/cooks/{cook['id']}/outcome", json=body)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _probe(client, cook: dict, *, at_s: float, core_c: float) -> None:
    """The first wave is laid on, and probed after so many seconds."""
    before = len(cook["plan"]["stove"]["before"])
    # The clock on the wall has gone on meanwhile.
    row = CookRow.get_by_id(cook["id"])
    CookRow.update(started_at=row.started_at - timedelta(hours=2)).where(CookRow.id == cook["id"]).execute()
    said = [("done", n, None, 60.0) for n in range(before + 1)]
    said.append(("probe", before + 1, core_c, 60.0 + at_s))
    for n, (kind, place, value, since) in enumerate(said):
        event = {"token": f"said-{cook['id']}-{n}", "kind": kind, "place": place, "value": value}
        answer = client.post(f"/api/cooks/{cook['id']}/events", json={**event, "since_start_s": since})
        assert answer.status_code == 200, answer.get_json()


def _learning(client) -> dict:
    answer = client.get("/api/learning")
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _row(found: dict, figure: str, level: str) -> dict:
    [row] = [x for x in found["learnt"] if (x["figure"], x["level"]) == (figure, level)]
    return row


def _yield(client, formula_id: int) -> float:
    whole = client.get(f"/api/formulas/{formula_id}").get_json()["formula"]
    found = client.post("/api/evaluate", json={"formula": whole, "edits": []}).get_json()
    return found["evaluation"]["shape"]["cooked_yield_frac"]["usual"]


def test_a_new_kitchen_has_learnt_nothing(client) -> None:
    found = _learning(client)
    assert (found["learnt"], found["scores"], found["cooks"]) == ([], [], [])


def test_weighings_are_learnt_and_used_and_the_next_forecast_moves(client) -> None:
    smash = _shelve(client, slipway_smash())
    before = _yield(client, smash)
    for _ in range(6):
        cook = _begin(client, smash)
        batch = cook["plan"]["portions"]["batch_mass_g"]
        # A fifth more is lost than was foretold.
        _note(client, cook, cooked_mass_g=round(batch * (1 - 1.2 * (1 - before))))
    found = _learning(client)
    row = _row(found, "loss", "surface")
    assert (row["name"], row["counted"], len(row["data"])) == ("Flat plate 700 × 400", 6, 6)
    assert row["prior"]["usual"] == 1.0
    assert 1.03 < row["posterior"]["usual"] < 1.2
    assert row["news"]
    assert {c["cook_id"] for c in found["cooks"]} == {d["cook"] for d in row["data"]}
    assert found["scores"][0]["cooks"] == 6
    # Nothing is used before somebody says so.
    assert _yield(client, smash) == before
    use = {"figure": "loss", "level": "surface", "key": row["key"], "factor": row["proposed"]}
    used = client.post("/api/learning/use", json={**use, "revision": found["revision"]})
    assert used.status_code == 200, used.get_json()
    assert not _row(used.get_json(), "loss", "surface")["news"]
    assert _yield(client, smash) == pytest.approx(1 - row["proposed"] * (1 - before), abs=1e-9)
    # The style's own share on top of it.
    style = _row(used.get_json(), "loss", "style")
    body = {"figure": "loss", "level": "style", "key": style["key"], "factor": style["proposed"]}
    both = client.post("/api/learning/use", json={**body, "revision": used.get_json()["revision"]})
    assert both.status_code == 200
    whole = row["proposed"] * style["proposed"]
    assert _yield(client, smash) == pytest.approx(1 - whole * (1 - before), abs=1e-9)
    # A cook that loses as is foretold now asks for the same factor as those before: it is no news.
    cook = _begin(client, smash)
    assert cook["plan"]
    _note(client, cook, cooked_mass_g=round(cook["plan"]["portions"]["batch_mass_g"] * _yield(client, smash)))
    newest = _row(_learning(client), "loss", "surface")["data"][-1]
    assert newest["factor"]["usual"] == pytest.approx(whole, rel=0.01)


def test_three_probe_readings_set_the_grate_and_the_next_minutes_move(client) -> None:
    grill = _shelve(client, beacon_grill())
    before = None
    for _ in range(3):
        cook = _begin(client, grill)
        heat = cook["plan"]["heat"]
        before = heat["on_heat_s"]["usual"]
        # The core is where it should come off, a third later than was foretold.
        _probe(client, cook, at_s=1.33 * before, core_c=heat["pull_c"])
        _note(client, cook)
    found = _learning(client)
    row = _row(found, "heat", "surface")
    assert (row["name"], row["counted"]) == ("Charcoal grate 560 × 400", 3)
    assert row["posterior"]["usual"] < 0.9
    assert row["data"][0]["observed"] == pytest.approx(1.33 * before, abs=0.01)
    use = {"figure": "heat", "level": "surface", "key": row["key"], "factor": row["proposed"]}
    client.post("/api/learning/use", json={**use, "revision": found["revision"]})
    after = _begin(client, grill)["plan"]["heat"]["on_heat_s"]["usual"]
    assert 1.05 * before < after < 1.33 * before


def test_a_note_written_again_counts_once_and_what_was_left_out_stays_out(client) -> None:
    smash = _shelve(client, slipway_smash())
    cook = _note(client, _begin(client, smash), cooked_mass_g=2300)
    aside = {"figure": "loss", "cook": cook["id"], "piece": 0, "aside": True}
    left = client.post("/api/learning/aside", json=aside)
    assert left.status_code == 200
    assert (_row(left.get_json(), "loss", "surface")["counted"]) == 0
    cook = _note(client, cook, cooked_mass_g=2200, cooked_diameter_mm=90)
    found = _learning(client)
    row = _row(found, "loss", "surface")
    assert (len(row["data"]), row["counted"]) == (1, 0)
    assert row["data"][0]["observed"] == pytest.approx(1 - 2200 / cook["plan"]["portions"]["batch_mass_g"])
    assert _row(found, "shrink", "style")["counted"] == 1
    client.post("/api/learning/aside", json={**aside, "aside": False})
    assert _row(_learning(client), "loss", "surface")["counted"] == 1
    # Taken out of the note, it was not seen.
    _note(client, cook, cooked_diameter_mm=90)
    assert {x["figure"] for x in _learning(client)["learnt"]} == {"shrink"}


def test_a_ball_s_diameter_follows_from_its_loss_and_is_not_learnt_twice(client) -> None:
    shelf = client.get("/api/formulas").get_json()
    balls = next(item["id"] for item in shelf if item["name"].startswith("Night-watch"))
    _note(client, _begin(client, balls), cooked_diameter_mm=30)
    assert _learning(client)["learnt"] == []


def test_a_stale_kitchen_is_a_conflict_and_changes_nothing(client) -> None:
    smash = _shelve(client, slipway_smash())
    _note(client, _begin(client, smash), cooked_mass_g=2000)
    found = _learning(client)
    row = _row(found, "loss", "surface")
    use = {"figure": "loss", "level": "surface", "key": row["key"], "factor": 1.1, "revision": found["revision"]}
    assert client.post("/api/learning/use", json=use).status_code == 200
    stale = client.post("/api/learning/use", json={**use, "factor": 1.3})
    assert stale.status_code == 409
    assert _row(_learning(client), "loss", "surface")["in_use"] == 1.1


@pytest.mark.parametrize(
    ("change", "status"),
    [
        ({"factor": 0.49}, 422), ({"factor": 2.01}, 422), ({"factor": "NaN"}, 422), ({"factor": 1e308}, 422),
        ({"figure": "luck"}, 422), ({"level": "moon"}, 422), ({"key": "no-such"}, 422), ({"key": ""}, 422),
        ({"figure": "heat", "level": "style", "key": "smashed"}, 422), ({"level": "style", "key": "no-such"}, 422),
        ({"revision": 0}, 422),
    ],
)  # fmt: skip
def test_what_cannot_be_used_is_refused(client, change: dict, status: int) -> None:
    use = {"figure": "loss", "level": "surface", "key": "yard-plate", "factor": 1.1, "revision": 1}
    answer = client.post("/api/learning/use", json={**use, **change})
    assert answer.status_code == status, answer.get_json()


def test_an_observation_that_is_not_there_is_not_left_out(client) -> None:
    answer = client.post("/api/learning/aside", json={"figure": "loss", "cook": 4_000_000, "aside": True})
    assert answer.status_code == 404
    assert client.post("/api/learning/aside", json={"figure": "loss", "cook": 1, "aside": True}).status_code == 404


def test_a_surface_that_was_sold_is_not_proposed_and_its_cooks_still_teach(client) -> None:
    smash = _shelve(client, slipway_smash())
    _note(client, _begin(client, smash), cooked_mass_g=2000)
    ObservationRow.update(surface="sold-grill").execute()
    assert {x["level"] for x in _learning(client)["learnt"]} == {"style"}


def test_weighings_of_before_are_taken_up_as_a_cook_of_today_would_be(client, database) -> None:
    smash = _shelve(client, slipway_smash())
    cook = _note(client, _begin(client, smash), cooked_mass_g=2300, cooked_diameter_mm=88, core_c=71)
    kept = {o.figure: o for f in ("loss", "shrink") for o in observation_repository.observations(f)}
    plan = json.loads(CookRow.get_by_id(cook["id"]).plan)
    del plan["factors"]
    CookRow.update(plan=json.dumps(plan)).where(CookRow.id == cook["id"]).execute()
    _begin(client, smash)
    ObservationRow.delete().execute()
    database.execute_sql("DELETE FROM schema_migration WHERE number = '0017'")
    assert migrate(database) == ["0017"]
    taken = {o.figure: o for f in ("loss", "shrink") for o in observation_repository.observations(f)}
    assert taken["shrink"] == replace(kept["shrink"], at=taken["shrink"].at)
    # The core that was measured was not counted then: all of it is put down to the kitchen.
    shape = plan["shape"]["cooked_yield_frac"]
    again = loss_observation(
        CookDone(cook["id"], taken["loss"].at, "smashed", "yard-plate"),
        batch_mass_g=plan["portions"]["batch_mass_g"], cooked_mass_g=2300, yield_low=shape["low"],
        yield_usual=shape["usual"], yield_high=shape["high"], target_c=71.1,
    )  # fmt: skip
    assert again is not None
    for name in ("observed", "low", "usual", "high", "value", "sd"):
        assert getattr(taken["loss"], name) == pytest.approx(getattr(again, name)), name


def test_a_cook_from_before_factors_were_kept_teaches_no_heat(client) -> None:
    grill = _shelve(client, beacon_grill())
    cook = _begin(client, grill)
    plan = json.loads(CookRow.get_by_id(cook["id"]).plan)
    del plan["factors"]
    CookRow.update(plan=json.dumps(plan)).where(CookRow.id == cook["id"]).execute()
    _probe(client, cook, at_s=400.0, core_c=60.0)
    assert CookEventRow.select().where(CookEventRow.cook == cook["id"]).count() > 1
    _note(client, cook, cooked_mass_g=1000)
    assert {x["figure"] for x in _learning(client)["learnt"]} == {"loss"}


def test_another_kitchen_has_learnt_nothing_of_it(client) -> None:
    smash = _shelve(client, slipway_smash())
    _note(client, _begin(client, smash), cooked_mass_g=2000)
    own = {"name": "Mast-house", "country": "UK", "surfaces": [{"kind": "pan", "width": "28 cm"}]}
    assert client.post("/api/kitchens", json=own).status_code == 201
    assert _learning(client)["learnt"] == []
