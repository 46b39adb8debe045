"""Cooks that hold the same lots end at once: each is kept, each takes its grams, and nobody is sent away."""

from __future__ import annotations

import threading
from collections import Counter
from dataclasses import replace

import pytest
from peewee import OperationalError

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services import again
from vianda.storage import cook_repository

MEATS = ("chuck", "short-rib-plate", "brisket-flat")
AT_ONCE = 6
ROUNDS = 4


@pytest.fixture
def lots(client) -> dict[str, str]:
    found = {}
    for meat in MEATS:
        lot = {"key": "new", "meat": meat, "name": f"Box of {meat}", "left_mass_g": 900_000.0, "price_per_kg": "9.00",
               "delivered": "2026-11-28", "use_by": "2026-12-20"}  # fmt: skip
        made = client.post("/api/larder/lots", json={"lot": lot})
        assert made.status_code == 201, made.get_json()
        found[meat] = made.get_json()["lot"]["key"]
    return found


def _left_g(client) -> dict[str, float]:
    return {x["lot"]["meat"]: x["lot"]["left_mass_g"] for x in client.get("/api/larder").get_json()["lots"]}


def test_cooks_of_three_lots_that_end_at_once_are_all_kept(client, lots) -> None:
    smash = slipway_smash()
    held = {p.meat: replace(p, lot=lots[p.meat]) for p in smash.parts}
    # Each order of the meats is another order in which their lots would be taken.
    orders = [MEATS, MEATS[::-1], (MEATS[1], MEATS[2], MEATS[0])]
    made = []
    for n, order in enumerate(orders):
        body = {"formula": FORMULAS.plain(replace(smash, name=f"Order {n}", parts=tuple(held[m] for m in order)))}
        made.append(client.post("/api/formulas", json=body).get_json()["id"])
    before = _left_g(client)
    cooks = [
        client.post("/api/cooks", json={"formula_id": made[n % len(made)]}).get_json() for n in range(AT_ONCE * ROUNDS)
    ]
    statuses: Counter[int] = Counter()
    for start in range(0, len(cooks), AT_ONCE):
        gate = threading.Barrier(AT_ONCE)

        def end(cook: dict, gate: threading.Barrier = gate) -> None:
            body = {"outcome": {"crust": 4, "note": "", "next_time": ""}, "revision": cook["revision"]}
            own = client.application.test_client()
            gate.wait(30)
            statuses[own.put(f"/api/cooks/{cook['id']}/outcome", json=body).status_code] += 1

        threads = [threading.Thread(target=end, args=(cook,)) for cook in cooks[start : start + AT_ONCE]]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(60)
    assert statuses == {200: len(cooks)}
    after = _left_g(client)
    for meat in MEATS:
        each = next(p["bought_g"] for p in cooks[0]["plan"]["cost"]["parts"] if p["meat"] == meat)
        assert before[meat] - after[meat] == pytest.approx(len(cooks) * each)


def test_what_the_database_takes_back_is_done_again_from_the_start(client, monkeypatch) -> None:
    formula = client.get("/api/formulas").get_json()[0]["id"]
    cook = client.post("/api/cooks", json={"formula_id": formula}).get_json()
    real, calls = cook_repository.save_outcome, []

    def deadlocked_twice(*given, **named):
        calls.append(1)
        found = real(*given, **named)
        if len(calls) <= 2:
            raise OperationalError(1213, "Deadlock found when trying to get lock; try restarting transaction")
        return found

    monkeypatch.setattr(cook_repository, "save_outcome", deadlocked_twice)
    body = {"outcome": {"crust": 4, "note": "", "next_time": ""}, "revision": cook["revision"]}
    done = client.put(f"/api/cooks/{cook['id']}/outcome", json=body)
    assert (done.status_code, len(calls), done.get_json()["revision"]) == (200, 3, cook["revision"] + 1)


@pytest.mark.parametrize(("code", "tries"), [(1213, len(again.WAITS_S) + 1), (1020, len(again.WAITS_S) + 1), (2006, 1)])
def test_it_is_given_up_in_the_end_and_at_once_where_the_database_is_away(monkeypatch, code: int, tries: int) -> None:
    monkeypatch.setattr(again.time, "sleep", lambda _: None)
    calls = []

    def never() -> None:
        calls.append(1)
        raise OperationalError(code, "no")

    with pytest.raises(OperationalError):
        again.done_again(never)
    assert len(calls) == tries
