"""The pantry and the mix over the API."""

from __future__ import annotations

from typing import get_args

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.model.formula import Limit
from vianda.interchange.kinds import FORMULAS

LOAF = FORMULAS.plain(keepers_loaf())
SMASH = FORMULAS.plain(slipway_smash())


def _thing(client, key: str) -> dict:
    return next(t for t in client.get("/api/pantry").get_json()["ingredients"] if t["ingredient"]["key"] == key)


def _evaluate(client, formula: dict, *edits: dict) -> dict:
    answer = client.post("/api/evaluate", json={"formula": formula, "edits": list(edits)})
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def test_the_catalogue_offers_ingredients_and_schools_of_mixing(client) -> None:
    catalogue = client.get("/api/catalogue").get_json()
    assert len(catalogue["pantry"]) > 60
    assert next(i for i in catalogue["pantry"] if i["key"] == "yard-rub")["house"]
    assert {s["key"] for s in catalogue["mix_schools"]} >= {"purist", "cheese-ball", "custard-tray-loaf"}
    assert {s["dish"] for s in catalogue["styles"]} == {"burger", "meatball", "meatloaf", "sauce"}


def test_a_bowl_is_filled_over_the_wire(client) -> None:
    edits = [
        {"kind": "choose", "field": "style", "key": "ball-baked"},
        {"kind": "choose", "field": "mix_school", "key": "cheese-ball"},
        {"kind": "add-to-mix", "text": "2 tsp paprika, a pinch of cayenne"},
        {"kind": "set", "figure": "group", "value": 0.1, "item": "egg"},
        {"kind": "set", "figure": "panade", "value": 1.5},
        {"kind": "hold-line", "ingredient": "egg", "locked": True},
        {"kind": "keep-limit", "limit": "no-pork", "on": True},
        {"kind": "take-out", "ingredient": "parsley"},
    ]
    done = _evaluate(client, SMASH, *edits)
    mix = done["evaluation"]["mix"]
    assert mix["panade"]["ratio"] == pytest.approx(1.5)
    assert mix["resemblance"]["nearest"] == "cheese-ball"
    assert done["formula"]["mix"]["avoid"] == ["no-pork"]
    assert {x["ingredient"] for x in mix["lines"]} >= {"paprika", "cayenne", "egg"}
    assert "milk" in [a["name"] for a in done["evaluation"]["served"]["allergens"]]


def test_the_bowl_is_weighed_over_the_wire(client) -> None:
    readings = [{"what": "meat", "shown": "1500"}, {"what": "panko", "shown": "1580"}]
    done = _evaluate(client, LOAF, {"kind": "weigh-bowl", "bowl": "500 g", "readings": readings})
    panko = next(x for x in done["formula"]["mix"]["lines"] if x["ingredient"] == "panko")
    assert panko["per_meat_frac"] == pytest.approx(0.08)


def test_a_house_formula_is_worked_out_before_it_is_kept(client) -> None:
    rub = _thing(client, "yard-rub")["ingredient"]
    twice = [{**x, "mass_g": 2 * x["mass_g"]} for x in rub["house"]["lines"]]
    doubled = {**rub, "house": {**rub["house"], "lines": twice, "yield_g": 400}}
    figures = client.post("/api/pantry/house", json={"ingredient": doubled}).get_json()
    assert figures["salt_frac"] == pytest.approx(_thing(client, "yard-rub")["figures"]["salt_frac"])
    own = {**doubled, "key": "my-rub", "name": "My rub"}
    kept = client.put("/api/pantry/my-rub", json={"ingredient": own, "revision": 0})
    assert kept.status_code == 200
    assert kept.get_json()["salt_frac"] > 0.3
    used = _evaluate(client, LOAF, {"kind": "put-in", "ingredient": "my-rub", "per_meat_frac": 0.01})
    entries = used["evaluation"]["salt"]["ledger"]["entries"]
    assert any(e["name"] == "My rub" for e in entries)


@pytest.mark.parametrize(
    ("key", "text", "grams"), [("mayonnaise", "2 tbsp", 27.5), ("milk", "80 g", 80), ("milk", "1/2 cup", 122)]
)
def test_an_amount_is_read_for_the_ingredient_it_is_of(client, key: str, text: str, grams: float) -> None:
    body = {"ingredient": key, "text": text, "unit_system": "metric"}
    assert client.post("/api/pantry/amount", json=body).get_json()["mass_g"] == pytest.approx(grams)


def test_the_slower_of_two_windows_gets_what_stands(client) -> None:
    milk = _thing(client, "milk")
    ours = {"ingredient": {**milk["ingredient"], "price_per_kg": "2.00"}, "revision": milk["revision"]}
    assert client.put("/api/pantry/milk", json=ours).status_code == 200
    theirs = {**ours, "ingredient": {**milk["ingredient"], "price_per_kg": "3.00"}}
    late = client.put("/api/pantry/milk", json=theirs)
    assert late.status_code == 409
    assert late.get_json()["current"]["price_per_kg"] == "2.00"
    # The same again, because its answer was lost, is no conflict with itself and writes nothing twice.
    again = client.put("/api/pantry/milk", json=ours)
    assert (again.status_code, again.get_json()["revision"]) == (200, milk["revision"] + 1)


@pytest.mark.parametrize(
    ("edit", "status", "says"),
    [
        ({"kind": "add-to-mix", "text": "5 unicorns"}, 422, "names nothing"),
        ({"kind": "add-to-mix", "text": "x" * 401}, 422, "400"),
        ({"kind": "put-in", "ingredient": "panko", "per_meat_frac": -1}, 422, "greater than or equal to 0"),
        ({"kind": "put-in", "ingredient": "'; DROP TABLE meat", "per_meat_frac": 0.1}, 422, "ingredient"),
        ({"kind": "set", "figure": "group", "value": 0.1, "item": "gravel"}, 422, "No group"),
        ({"kind": "weigh-bowl", "bowl": "1 kg", "readings": []}, 422, "readings"),
        ({"kind": "weigh-bowl", "bowl": "1 kg", "readings": [{"what": "meat", "shown": "nan"}]}, 422, "not understood"),
        ({"kind": "keep-limit", "limit": "no-fun", "on": True}, 422, "limit"),
        ({"kind": "swap-ingredient", "ingredient": "panko", "to": "salt-fine"}, 422, "its own place"),
    ],
)
def test_a_bad_change_is_refused_with_its_place(client, edit: dict, status: int, says: str) -> None:
    answer = client.post("/api/evaluate", json={"formula": LOAF, "edits": [edit]})
    assert answer.status_code == status
    body = answer.get_json()
    assert says in body["detail"]
    assert answer.content_type == "application/problem+json"


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"price_per_kg": "-1"}, "price_per_kg"),
        ({"g_per_cup": 5000}, "g_per_cup"),
        ({"allergens": ["joy"]}, "fourteen"),
        ({"house": {"lines": [{"ingredient": "milk", "mass_g": 100}], "yield_g": 3, "keeps_days": 1}}, "drop of water"),
        ({"house": {"lines": [{"ingredient": "own", "mass_g": 100}], "yield_g": 100, "keeps_days": 1}}, "itself"),
        ({"house": {"lines": [], "yield_g": 100, "keeps_days": 1}}, "lines"),
        ({"key": "Own"}, "key"),
    ],
)
def test_a_bad_ingredient_is_refused_in_words(client, change: dict, says: str) -> None:
    milk = _thing(client, "milk")["ingredient"]
    body = {"ingredient": {**milk, "key": "own", "name": "Own", **change}, "revision": 0}
    answer = client.put("/api/pantry/own", json=body)
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]
    assert all(t["ingredient"]["key"] != "own" for t in client.get("/api/pantry").get_json()["ingredients"])


def test_a_per_cent_means_nothing_where_there_is_no_meat(client) -> None:
    body = {"ingredient": "milk", "text": "8 %", "unit_system": "metric"}
    assert client.post("/api/pantry/amount", json=body).status_code == 422
    gone = client.post("/api/pantry/amount", json={**body, "ingredient": "unicorn", "text": "8 g"})
    assert gone.status_code == 404


def test_the_catalogue_names_every_limit_the_usual_ones_first(client) -> None:
    offered = client.get("/api/catalogue").get_json()["limits"]
    assert {o["key"] for o in offered} == set(get_args(Limit))
    assert [o["title"] for o in offered[:5]] == ["No pork", "No dairy", "No gluten", "No egg", "Halal"]
    assert len({o["title"] for o in offered}) == len(offered)
