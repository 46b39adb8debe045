"""Check-weighing over the wire: what goes on record, what is refused, what a dropped line may not lose."""

from __future__ import annotations

import csv
import io
import itertools
import json
from datetime import timedelta

import pytest

from vianda.services import weighings
from vianda.storage import clock

_tokens = itertools.count()


class Hours:
    """A clock that the test turns; the scale swings and settles by it."""

    def __init__(self, monkeypatch: pytest.MonkeyPatch) -> None:
        self.now = clock.now_utc()
        for module in ("vianda.services.weighings", "vianda.storage.weighing_repository"):
            monkeypatch.setattr(f"{module}.now_utc", lambda: self.now)

    def wait(self, seconds: float) -> None:
        self.now += timedelta(seconds=seconds)


@pytest.fixture
def hours(monkeypatch: pytest.MonkeyPatch) -> Hours:
    # One scale and one pair of hands, so that nothing here hangs on luck.
    monkeypatch.setattr("vianda.services.weighings.secrets.randbelow", lambda _: 20261125)
    return Hours(monkeypatch)


def _begin(client, **more) -> dict:
    formula = next(f for f in client.get("/api/formulas").get_json() if f["name"] == "Slipway smash")
    begun = client.post("/api/weighings", json={"formula_id": formula["id"], **more})
    assert begun.status_code == 201, begun.get_json()
    return begun.get_json()


def _post(client, run: dict, action: str, *, token: str = "", **more):
    token = token or f"token-{next(_tokens):06d}"
    body = {"token": token, "action": action, **more}
    return client.post(f"/api/weighings/{run['id']}/actions", json=body)


def _act(client, run: dict, action: str, **more) -> dict:
    answer = _post(client, run, action, **more)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def _good_piece(client, run: dict, hours: Hours) -> dict:
    _act(client, run, "piece")
    for _ in range(6):
        hours.wait(4)
        verdict = client.get(f"/api/weighings/{run['id']}/display").get_json()["verdict"]
        if verdict["kind"] == "good":
            break
        _act(client, run, "correct")
    return _act(client, run, "keep")


def test_a_run_from_the_first_piece_to_the_record(client, hours: Hours) -> None:
    run = _begin(client)
    assert (run["plan"]["pieces"], run["plan"]["piece_g"], run["plan"]["tolerance_g"]) == (40, 85, 2)
    for number in range(1, 13):
        now = _good_piece(client, run, hours)
        assert now["running"]["counted"] == number
        assert now["on_record"]
    assert now["running"]["good"] == 12
    assert now["running"]["chart"]["upper_g"] > now["running"]["chart"]["mean_g"]
    shaped = sum(r["shown_g"] for r in now["running"]["records"])
    assert now["running"]["bowl"]["left_g"] == pytest.approx(3400 - shaped)
    done = _act(client, run, "finish")
    assert done["finished_at"]
    assert client.get(f"/api/weighings/{run['id']}").get_json() == done
    rows = list(
        csv.DictReader(io.StringIO(client.get(f"/api/weighings/{run['id']}/records.csv").get_data(as_text=True)))
    )
    assert [int(r["piece"]) for r in rows] == list(range(1, 13))
    assert sum(float(r["reading_g"]) for r in rows) == pytest.approx(shaped)
    line = client.get(f"/api/formulas/{run['formula_id']}/weighings").get_json()[0]
    assert (line["id"], line["counted"], line["good"]) == (run["id"], 12, 12)


def test_what_cannot_go_on_record(client, hours: Hours) -> None:
    run = _begin(client)
    hours.wait(2)
    empty = _post(client, run, "keep")
    assert empty.status_code == 422
    assert empty.get_json()["detail"] == "Nothing lies on the scale."
    _act(client, run, "piece")
    hours.wait(0.25)
    assert "settled" in _post(client, run, "keep").get_json()["detail"]
    hours.wait(4)
    assert _post(client, run, "keep").status_code == 200
    assert "take it off first" in _post(client, run, "keep").get_json()["detail"]
    assert _post(client, run, "count", about=999_999).status_code == 422
    assert client.get(f"/api/weighings/{run['id']}").get_json()["running"]["counted"] == 1


def test_a_reading_with_someone_on_the_scale_is_set_aside_and_can_be_taken_back(client, hours: Hours) -> None:
    run = _begin(client)
    _act(client, run, "piece")
    hours.wait(4)
    _act(client, run, "lean")
    hours.wait(2)
    bad = _act(client, run, "keep")
    record = bad["running"]["records"][-1]
    assert (record["aside"], record["number"], bad["running"]["counted"]) == ("odd", 0, 0)
    assert record["shown_g"] > 200
    # The same piece may be weighed again.
    hours.wait(6)
    good = _act(client, run, "keep")
    assert good["running"]["counted"] == 1
    counted = _act(client, run, "count", about=record["id"])
    assert counted["running"]["counted"] == 2
    back = _act(client, run, "set-aside", about=record["id"])
    assert back["running"]["counted"] == 1
    assert back["running"]["records"][0]["aside"] == "cook"


def test_a_press_that_is_sent_twice_counts_once(client, hours: Hours) -> None:
    run = _begin(client)
    _act(client, run, "piece")
    hours.wait(4)
    first = _act(client, run, "keep", token="the-same-press")
    again = _act(client, run, "keep", token="the-same-press")
    assert again == first


def test_a_press_made_while_the_line_was_down_keeps_what_was_seen(client, hours: Hours) -> None:
    run = _begin(client)
    _act(client, run, "piece")
    hours.wait(4)
    seen = client.get(f"/api/weighings/{run['id']}/display").get_json()["reading"]["shown_g"]
    hours.wait(60)
    kept = _act(client, run, "keep", seen_g=seen + 1, late_s=58.0)
    assert kept["running"]["records"][-1]["shown_g"] == seen + 1
    # A fresh press reads the scale itself, whatever the window claims.
    _act(client, run, "piece")
    hours.wait(4)
    fresh = _act(client, run, "keep", seen_g=5.0, late_s=0.1)
    assert fresh["running"]["records"][-1]["shown_g"] > 60


def test_a_clock_set_back_neither_loses_nor_refuses(client, hours: Hours) -> None:
    run = _begin(client)
    _act(client, run, "piece")
    hours.wait(4)
    before = _act(client, run, "keep")
    hours.wait(-3600)
    assert client.get(f"/api/weighings/{run['id']}/display").get_json()["reading"]["state"] in ("steady", "moving")
    _act(client, run, "piece")
    now = client.get(f"/api/weighings/{run['id']}").get_json()
    assert now["running"]["records"] == before["running"]["records"]


def test_a_finished_run_is_closed_until_it_is_opened_again(client, hours: Hours) -> None:
    run = _begin(client)
    _act(client, run, "finish")
    assert "finished" in _post(client, run, "piece").get_json()["detail"]
    _act(client, run, "reopen")
    assert _post(client, run, "piece").status_code == 200


def test_a_finer_or_coarser_scale(client, hours: Hours) -> None:
    run = _begin(client, step_g=5)
    assert (run["plan"]["step_g"], run["plan"]["tolerance_g"]) == (5, 5)
    kept = _good_piece(client, run, hours)
    assert kept["running"]["records"][0]["shown_g"] % 5 == 0
    formula = run["formula_id"]
    assert client.post("/api/weighings", json={"formula_id": formula, "step_g": 3}).status_code == 422
    assert client.post("/api/weighings", json={"formula_id": 10**6}).status_code == 404


@pytest.mark.parametrize(
    "wrong",
    [
        {"action": "fly"},
        {"token": "short"},
        {"token": "<img onerror=x>"},
        {"about": 0},
        {"late_s": -1},
        {"seen_g": 1e308},
        {"seen_g": "heavy"},
        {"more": 1},
    ],
)
def test_what_does_not_fit_is_refused_and_changes_nothing(client, hours: Hours, wrong: dict) -> None:
    run = _begin(client)
    body = {"token": "a-good-token", "action": "piece", **wrong}
    assert client.post(f"/api/weighings/{run['id']}/actions", json=body).status_code == 422
    assert client.get(f"/api/weighings/{run['id']}").get_json()["newest"] == 0


def test_the_display_streams_and_tells_of_what_another_window_did(client, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vianda.api.weighing_routes.BEAT_S", 0.01)
    run = _begin(client)
    stream = client.get(f"/api/weighings/{run['id']}/stream")
    assert stream.content_type == "text/event-stream"
    beats = iter(stream.response)
    assert next(beats).startswith(b"retry:")

    def beat() -> dict:
        return json.loads(next(beats).removeprefix(b"data: "))

    assert beat()["newest"] == 0
    moved = _act(client, run, "piece")
    assert beat()["newest"] == moved["newest"] > 0
    stream.close()


def test_streams_are_few_and_are_given_back(client, monkeypatch: pytest.MonkeyPatch) -> None:
    run = _begin(client)
    path = f"/api/weighings/{run['id']}/stream"
    open_ones = [client.get(path) for _ in range(6)]
    refused = client.get(path)
    assert refused.status_code == 503
    assert "Ask for the display" in refused.get_json()["detail"]
    for one in open_ones:
        one.close()
    assert client.get(path).status_code == 200
    assert client.get("/api/weighings/999999/stream").status_code == 404


def test_a_run_does_not_grow_without_end(client, hours: Hours, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(weighings, "MOST_EVENTS", 3)
    run = _begin(client)
    for _ in range(3):
        _act(client, run, "tare")
    assert "full" in _post(client, run, "tare").get_json()["detail"]
    assert _post(client, run, "finish").status_code == 200


def test_what_flickers_as_the_press_arrives_is_kept_as_it_was_seen(client, hours: Hours, monkeypatch) -> None:
    run = _begin(client)
    _act(client, run, "piece")
    hours.wait(4)
    seen = client.get(f"/api/weighings/{run['id']}/display").get_json()["reading"]["shown_g"]
    still = weighings.SimulatedScale.read

    def flickers(scale, at_s: float):
        found = still(scale, at_s)
        newest = (hours.now - began).total_seconds()
        return weighings.Reading(found.shown_g, found.gross_g, "moving", found.at_s) if at_s >= newest else found

    began = hours.now - timedelta(seconds=4)
    monkeypatch.setattr(weighings.SimulatedScale, "read", flickers)
    assert "settled" in _post(client, run, "keep").get_json()["detail"]
    assert "settled" in _post(client, run, "keep", seen_g=seen + 5).get_json()["detail"]
    assert _act(client, run, "keep", seen_g=seen)["running"]["records"][0]["shown_g"] == seen


def test_a_piece_laid_on_just_now_is_never_kept_at_the_weight_of_the_one_before(client, hours: Hours) -> None:
    run = _begin(client)
    kept = _good_piece(client, run, hours)["running"]["records"][0]["shown_g"]
    _act(client, run, "piece")
    hours.wait(0.25)
    assert _post(client, run, "keep", seen_g=kept).status_code == 422


def test_no_two_pieces_are_alike_by_feel(client, hours: Hours) -> None:
    run = _begin(client)
    shown = []
    for _ in range(12):
        _act(client, run, "piece")
        hours.wait(4)
        shown.append(client.get(f"/api/weighings/{run['id']}/display").get_json()["reading"]["shown_g"])
    # Twelve draws with a spread of 3 g show four weights or more, but for one run in ten thousand.
    assert len(set(shown)) >= 4
    assert all(60 < g < 110 for g in shown)


def test_what_the_button_said_goes_on_record_though_the_scale_flickers(client, hours: Hours, monkeypatch) -> None:
    run = _begin(client)
    _act(client, run, "piece")
    hours.wait(4)
    seen = client.get(f"/api/weighings/{run['id']}/display").get_json()["reading"]["shown_g"]
    still = weighings.SimulatedScale.read
    newest = 4.0

    def one_less(scale, at_s: float):
        found = still(scale, at_s)
        now = at_s >= newest - 1e-6
        return weighings.Reading(found.shown_g - now, found.gross_g, "steady", found.at_s)

    monkeypatch.setattr(weighings.SimulatedScale, "read", one_less)
    assert _act(client, run, "keep", seen_g=seen)["running"]["records"][0]["shown_g"] == seen
