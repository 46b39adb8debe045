"""The curve over the wire."""

from __future__ import annotations

from vianda.core.demo import keepers_loaf, slipway_smash
from vianda.interchange.formula_model import FormulaModel


def _ask(client, formula):
    return client.post("/api/heat/curve", json={"formula": FormulaModel.from_core(formula).model_dump(mode="json")})


def test_a_curve_comes_whole(client) -> None:
    curve = _ask(client, slipway_smash()).get_json()
    assert curve["kind"] == "curve"
    assert len(curve["temp_c"]) == len(curve["times_s"]) < 200
    assert curve["flip_s"]["low"] < curve["flip_s"]["high"]
    assert {m["kind"] for m in curve["marks"]} >= {"flip", "pull", "peak"}


def test_what_is_not_modelled_is_an_answer_and_no_error(client) -> None:
    answer = _ask(client, keepers_loaf())
    assert answer.status_code == 200
    assert answer.get_json()["kind"] == "none"


def test_what_is_no_formula_is_refused(client) -> None:
    assert client.post("/api/heat/curve", json={"formula": {}}).status_code == 422
    assert client.post("/api/heat/curve", data="no").status_code == 415
