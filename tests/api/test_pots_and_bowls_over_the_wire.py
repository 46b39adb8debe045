"""Pots and bowls over the wire: written down once, learnt, used, and refused where they cannot have been."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.storage.weighing_repository import add_event

POT = {"start_g": 2000.0, "left_g": 1500.0, "boil": "simmer", "diameter_mm": 240.0}


def _learning(client) -> dict:
    return client.get("/api/learning").get_json()


def _row(client, figure: str) -> dict:
    return next(r for r in _learning(client)["learnt"] if r["figure"] == figure)


def _minutes(client) -> float:
    pot = client.post("/api/sauces/pot", json=POT).get_json()
    return pot["cook"]["minutes"]["usual"]


def test_a_pot_is_written_down_once_and_its_factor_moves_the_minutes(client) -> None:
    usual = _minutes(client)
    took = {**POT, "took_s": usual * 60 / 1.5}
    for n in range(3):
        for _ in range(2):
            answer = client.post("/api/learning/pot", json=took, headers={"Idempotency-Key": f"pot-{n:08d}"})
            assert answer.status_code == 200, answer.get_json()
    row = _row(client, "evaporation")
    assert (row["key"], row["name"], row["counted"]) == ("simmer-240", "Simmer, pot of 24 cm", 3)
    assert [d["cook"] for d in row["data"]] == [1, 2, 3]
    assert row["sure"]
    use = {"figure": "evaporation", "level": "pot", "key": row["key"], "factor": row["proposed"]}
    used = client.post("/api/learning/use", json={**use, "revision": _learning(client)["revision"]})
    assert used.status_code == 200, used.get_json()
    assert _minutes(client) == pytest.approx(usual / row["proposed"])
    # Written down after it, it asks for the same.
    client.post("/api/learning/pot", json=took)
    assert _row(client, "evaporation")["data"][-1]["factor"]["usual"] == pytest.approx(1.5, rel=0.01)
    aside = {"figure": "evaporation", "cook": 4, "piece": 0, "aside": True}
    assert client.post("/api/learning/aside", json=aside).status_code == 200
    assert _row(client, "evaporation")["counted"] == 3


@pytest.mark.parametrize(
    ("changed", "pointer"),
    [({"took_s": 0}, "/took_s"), ({"took_s": 1e-45}, "/took_s"), ({"took_s": 59.0}, "/took_s"),
     ({"left_g": 1999.0, "took_s": 600}, "/left_g"), ({"left_g": 2500.0}, "/left_g"),
     ({"boil": "stew"}, "/boil"), ({"diameter_mm": 5.0}, "/diameter_mm"), ({"took_s": 1e308}, "/took_s")],
)  # fmt: skip
def test_what_no_pot_does_is_refused_and_teaches_nothing(client, changed, pointer) -> None:
    answer = client.post("/api/learning/pot", json={**POT, "took_s": 1200, **changed})
    assert answer.status_code == 422
    assert pointer in {f["pointer"] for f in answer.get_json()["fields"]}
    assert _learning(client)["learnt"] == []


@pytest.fixture
def weighed(client) -> dict:
    """A run with forty pieces of 85 g on record, of 3,400 g and 24 for the bowl."""
    smash = FORMULAS.plain(slipway_smash())
    smash["shape"]["loss_g"] = 24.0
    formula = client.post("/api/formulas", json={"formula": smash}).get_json()
    run = client.post("/api/weighings", json={"formula_id": formula["id"]}).get_json()
    for n in range(run["plan"]["pieces"]):
        add_event(run["id"], token=f"kept-{n:06d}", kind="keep", value=85.0, about=None, at_s=float(n))
    return run


def _leftover(client, run: dict, left_g: float):
    return client.put(f"/api/weighings/{run['id']}/leftover", json={"left_g": left_g})


def _finish(client, run: dict, action: str = "finish") -> dict:
    body = {"token": f"token-{action}-1", "action": action}
    return client.post(f"/api/weighings/{run['id']}/actions", json=body).get_json()


def test_what_is_left_says_what_stayed_on_the_bowl(client, weighed) -> None:
    assert _leftover(client, weighed, 0).status_code == 422
    done = _finish(client, weighed)
    assert done["running"]["counted"] == weighed["plan"]["pieces"]
    shaped = sum(r["shown_g"] for r in done["running"]["records"])
    mix = done["plan"]["bowl_g"]
    noted = _leftover(client, weighed, 4.0)
    assert noted.status_code == 200, noted.get_json()
    assert noted.get_json()["left_g"] == 4.0
    row = _row(client, "bowl")
    assert (row["name"], row["counted"], row["data"][0]["cook"]) == ("Bowl and gloves", 1, weighed["id"])
    assert row["data"][0]["observed"] == pytest.approx(mix - shaped - 4.0)
    # Weighed again it is the same batch.
    _leftover(client, weighed, 2.0)
    assert [d["observed"] for d in _row(client, "bowl")["data"]] == [pytest.approx(mix - shaped - 2.0)]
    # Opened again, what was left is not known any more.
    _finish(client, weighed, "reopen")
    assert "left_g" not in client.get(f"/api/weighings/{weighed['id']}").get_json()
    assert _learning(client)["learnt"] == []


@pytest.mark.parametrize("left", [-1, 1e9, "two"])
def test_what_no_bowl_holds_is_refused(client, weighed, left) -> None:
    _finish(client, weighed)
    assert _leftover(client, weighed, left).status_code == 422


def test_more_than_was_mixed_is_refused(client, weighed) -> None:
    _finish(client, weighed)
    refused = _leftover(client, weighed, 500.0)
    assert refused.status_code == 422
    assert "more than" in refused.get_json()["detail"]
    assert client.put("/api/weighings/99999/leftover", json={"left_g": 1}).status_code == 404
