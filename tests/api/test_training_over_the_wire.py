"""The trainer over the wire: a round, its answer kept once, and a round whose formula was changed."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


@pytest.fixture
def smash(client) -> dict:
    return client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()


def _answer(client, shown: dict, choice: int = 0, **more):
    body = {**{k: shown[k] for k in ("formula_id", "seed", "stamp")}, "kind": shown["round"]["kind"], "choice": choice}
    return client.post("/api/training/answers", json={**body, "confidence": 0.75, "token": "round-0001", **more})


def _standing(answer: dict, kind: str) -> dict:
    return next(s for s in answer["standings"] if s["kind"] == kind)


def test_a_round_is_answered_judged_and_counted_once(client, smash) -> None:
    client.delete("/api/training")
    begun = client.get("/api/training").get_json()
    shown = begun["next"]
    kind = shown["round"]["kind"]
    assert _standing(begun, kind)["rounds"] == 0
    assert "right" not in shown["round"]
    judged = _answer(client, shown, 0).get_json()
    assert _standing(judged, kind)["rounds"] == 1
    assert (_standing(judged, kind)["right_frac"] == 1.0) == (judged["right"] == 0)
    assert judged["why"]["text"]
    # Sent again, it is the same answer.
    again = _answer(client, shown, 0).get_json()
    assert _standing(again, kind)["rounds"] == 1
    assert again["right"] == judged["right"]
    # Another kind comes next.
    assert client.get("/api/training").get_json()["next"]["round"]["kind"] != kind
    anew = client.delete("/api/training").get_json()
    assert _standing(anew, kind)["rounds"] == 0


def test_a_round_of_a_formula_that_was_changed_no_longer_stands(client, smash) -> None:
    client.delete("/api/training")
    shown = client.get("/api/training").get_json()["next"]
    stored = client.get(f"/api/formulas/{shown['formula_id']}").get_json()
    other = FORMULAS.plain(replace(slipway_smash(), name="Another name"))
    other["shape"]["piece_mass_g"] = 150
    other["heat"]["surface_temp_c"] = 215
    other["seasoning"]["salt_frac"] = 0.013
    saved = client.put(
        f"/api/formulas/{shown['formula_id']}", json={"formula": other, "revision": stored["revision"]}
    )  # fmt: skip
    assert saved.status_code == 200
    refused = _answer(client, shown, 0)
    assert (refused.status_code, refused.get_json()["detail"]) == (
        422, "The formula was changed meanwhile: this round no longer stands.",
    )  # fmt: skip


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"choice": 9}, "There is no such answer."),
        ({"confidence": 0.6}, "So sure nobody can say to be"),
        ({"confidence": float("1e308")}, "confidence"),
        ({"stamp": "x"}, "no longer stands"),
        ({"formula_id": 999_999}, "no longer stands"),
        ({"kind": "juggling"}, "kind"),
        ({"token": "<b>"}, "token"),
    ],
)
def test_what_cannot_be_answered_is_refused_in_words(client, smash, change: dict, says: str) -> None:
    shown = client.get("/api/training").get_json()["next"]
    refused = _answer(client, shown, **change)
    assert refused.status_code == 422
    assert says in refused.get_json()["detail"]
