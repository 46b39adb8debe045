"""A write whose answer was lost is sent again with its token: answered as before, and done once."""

from __future__ import annotations

import threading

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

BODY = {"formula": FORMULAS.plain(slipway_smash())}
TOKEN = {"Idempotency-Key": "f0a1b2c3-d4e5f607"}


def _count(client) -> int:
    return len(client.get("/api/formulas").get_json())


def test_a_formula_created_twice_under_one_token_is_one(client) -> None:
    before = _count(client)
    first = client.post("/api/formulas", json=BODY, headers=TOKEN)
    again = client.post("/api/formulas", json=BODY, headers=TOKEN)
    assert (first.status_code, again.status_code) == (201, 201)
    assert again.get_json() == first.get_json()
    assert _count(client) == before + 1
    assert client.post("/api/formulas", json=BODY, headers={"Idempotency-Key": "another-one-1"}).status_code == 201
    assert _count(client) == before + 2


def test_a_cook_begun_and_a_fat_learnt_twice_count_once(client) -> None:
    number = client.get("/api/formulas").get_json()[0]["id"]
    cooks = len(client.get("/api/cooks").get_json())
    answers = [client.post("/api/cooks", json={"formula_id": number}, headers=TOKEN).get_json() for _ in range(3)]
    assert len({a["id"] for a in answers}) == 1
    assert len(client.get("/api/cooks").get_json()) == cooks + 1
    lot = client.get("/api/larder").get_json()["lots"][0]
    path = f"/api/larder/lots/{lot['lot']['key']}/evidence"
    body = {"kind": "butcher", "fat": "21 %", "revision": lot["revision"]}
    learnt = [
        client.post(
            f"/api/larder/lots/{lot['lot']['key']}/evidence", json=body, headers={"Idempotency-Key": "learn-21-x"}
        )
        for _ in range(2)
    ]
    assert [a.status_code for a in learnt] == [200, 200]
    # Without a token the second, from a revision gone by, is a conflict.
    assert client.post(path, json=body).status_code == 409


def test_a_token_of_another_request_is_refused_and_does_nothing(client) -> None:
    before = _count(client)
    client.post("/api/formulas", json=BODY, headers=TOKEN)
    other = {"formula": BODY["formula"] | {"name": "Another"}}
    refused = client.post("/api/formulas", json=other, headers=TOKEN)
    assert refused.status_code == 422
    assert "another request" in refused.get_json()["detail"]
    assert _count(client) == before + 1


@pytest.mark.parametrize("token", ["short", "x" * 81, "with blank 123", "semi;colon-12"])
def test_a_token_that_is_none_is_refused(client, token: str) -> None:
    answer = client.post("/api/formulas", json=BODY, headers={"Idempotency-Key": token})
    assert answer.status_code == 400
    assert "8 to 80" in answer.get_json()["detail"]


def test_a_refused_write_leaves_its_token_free(client) -> None:
    bad = {"formula": BODY["formula"] | {"parts": []}}
    assert client.post("/api/formulas", json=bad, headers=TOKEN).status_code == 422
    assert client.post("/api/formulas", json=BODY, headers=TOKEN).status_code == 201


def test_two_at_once_under_one_token_make_one(app, client) -> None:
    before = _count(client)
    answers: list[tuple[int, int]] = []
    start = threading.Barrier(4)

    def send() -> None:
        own = app.test_client()
        start.wait()
        sent = own.post("/api/formulas", json=BODY, headers=TOKEN)
        answers.append((sent.status_code, sent.get_json().get("id", 0)))

    threads = [threading.Thread(target=send) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(set(answers)) == 1
    assert answers[0][0] == 201
    assert _count(client) == before + 1


def test_answers_are_forgotten_after_a_day(client) -> None:
    from datetime import timedelta

    from vianda.storage.answered_repository import KEPT
    from vianda.storage.clock import now_utc
    from vianda.storage.database import own_connection
    from vianda.storage.tables import AnsweredRow

    client.post("/api/formulas", json=BODY, headers=TOKEN)
    with own_connection():
        AnsweredRow.update(at=now_utc() - KEPT - timedelta(seconds=1)).execute()
    client.post("/api/formulas", json=BODY, headers={"Idempotency-Key": "the-next-day"})
    with own_connection():
        assert [row.token for row in AnsweredRow.select()] == ["the-next-day"]
