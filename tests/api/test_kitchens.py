"""Kitchens beside one another over the wire: set up, opened, deleted, and never mixed."""

from __future__ import annotations

import pytest

from vianda.storage.tables import CookRow, FormulaRow, IngredientRow, KitchenRow, LotRow, MeatRow

OWN = {"name": "Mast-house", "country": "UK", "surfaces": [{"kind": "pan", "width": "28 cm"}, {"kind": "oven"}]}


def _own(client, **changed) -> int:
    answer = client.post("/api/kitchens", json=OWN | changed)
    assert answer.status_code == 201, answer.get_json()
    return answer.get_json()["here"]


def _in(kitchen: int) -> dict[str, str]:
    return {"Vianda-Kitchen": str(kitchen)}


def test_an_own_kitchen_is_set_up_from_a_few_answers_and_opens_empty(client) -> None:
    own = _own(client)
    kitchen = client.get("/api/kitchen").get_json()["kitchen"]
    assert (kitchen["name"], kitchen["currency_code"], kitchen["naming_rule"]) == ("Mast-house", "GBP", "UK")
    assert [(s["kind"], s["width_mm"]) for s in kitchen["surfaces"]] == [("pan", 280), ("oven", 440)]
    assert client.get("/api/formulas").get_json() == []
    larder = client.get("/api/larder").get_json()
    # The starters' prices are invented for the demo: here none is known.
    assert {float(m["price_per_kg"]) for m in larder["meats"]} == {0.0}
    assert client.get("/api/kitchens").get_json()["here"] == own


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"surfaces": []}, "/surfaces"),
        ({"surfaces": [{"kind": "pan", "width": "zorp"}]}, "/surfaces/0/width"),
        ({"surfaces": [{"kind": "pan", "width": "-5 cm"}]}, "/surfaces/0/width"),
        ({"surfaces": [{"kind": "pan", "width": "9 m"}]}, "/surfaces/0/width"),
        ({"currency_code": "!!"}, "/currency_code"),
        ({"country": "MARS"}, "/country"),
        ({"scale_step_g": 3}, "/scale_step_g"),
    ],
)
def test_an_answer_that_cannot_be_is_refused_and_nothing_is_set_up(client, changed: dict, field: str) -> None:
    before = client.get("/api/kitchens").get_json()
    answer = client.post("/api/kitchens", json=OWN | changed)
    assert answer.status_code == 422
    assert field in str(answer.get_json())
    assert client.get("/api/kitchens").get_json() == before


def test_a_window_keeps_to_its_kitchen_and_no_record_crosses(client) -> None:
    demo = client.get("/api/kitchens").get_json()["here"]
    stored = client.get("/api/formulas").get_json()[0]
    own = _own(client)
    # The demo's formula is not there in the other kitchen, to read, change, cook, archive or export.
    path = f"/api/formulas/{stored['id']}"
    assert client.get(path, headers=_in(own)).status_code == 404
    assert client.delete(path, headers=_in(own)).status_code == 404
    assert client.get(f"{path}/export", headers=_in(own)).status_code == 404
    assert client.get(f"{path}/versions", headers=_in(own)).status_code == 404
    assert client.get(path, headers=_in(demo)).status_code == 200
    # A link cannot carry a header: the query says it.
    assert client.get(f"{path}/export?kitchen={demo}").status_code == 200
    # The same meat is another record in each.
    meat = next(m for m in client.get("/api/larder", headers=_in(own)).get_json()["meats"] if m["key"] == "chuck")
    body = {"meat": meat | {"name": "Chuck of the mast-house"}, "seen": meat}
    changed = client.put("/api/larder/meats/chuck", json=body, headers=_in(own))
    assert changed.status_code == 200, changed.get_json()
    names = {
        k: next(m["name"] for m in client.get("/api/larder", headers=_in(k)).get_json()["meats"] if m["key"] == "chuck")
        for k in (own, demo)
    }
    assert names == {own: "Chuck of the mast-house", demo: "Chuck"}


@pytest.mark.parametrize("said", ["999999", "0", "-1", "x", "1e3", "９"])
def test_a_kitchen_that_is_not_there_is_refused_but_the_list_answers(client, said: str) -> None:
    assert client.get(f"/api/formulas?kitchen={said}").status_code == 404
    assert client.get(f"/api/kitchens?kitchen={said}").status_code == 200


def test_the_demo_can_be_deleted_and_come_back_to_and_leaves_the_own_kitchen_alone(client) -> None:
    demo = client.get("/api/kitchens").get_json()["here"]
    formula = client.get("/api/formulas").get_json()[0]
    assert client.post("/api/cooks", json={"formula_id": formula["id"]}).status_code == 201
    own = _own(client)
    kept = client.post("/api/opening", json={"line": "1 kg chuck, 6 burgers"}).get_json()["opening"]["formula"]
    mine = client.post("/api/formulas", json={"formula": kept}).get_json()["id"]
    left = client.delete(f"/api/kitchens/{demo}").get_json()
    assert left["kitchens"] == [{"id": own, "name": "Mast-house", "demo": False}]
    for table in (FormulaRow, CookRow, MeatRow, LotRow, IngredientRow):
        assert table.select().where(table.kitchen_id == demo).count() == 0
    assert client.get(f"/api/formulas/{mine}").status_code == 200
    again = client.post("/api/kitchens/demo").get_json()
    assert again["here"] not in (own, demo)
    assert len(client.get("/api/formulas").get_json()) == 6
    assert client.post(f"/api/kitchens/{own}/open").get_json()["here"] == own


def test_a_kitchen_of_ones_own_is_never_deleted(client) -> None:
    own = _own(client)
    assert client.delete(f"/api/kitchens/{own}").status_code == 422
    assert client.delete("/api/kitchens/424242").status_code == 422
    assert KitchenRow.select().where(KitchenRow.id == own).exists()


def test_before_the_first_kitchen_the_list_is_empty_and_the_rest_says_so(client) -> None:
    demo = client.get("/api/kitchens").get_json()["here"]
    left = client.delete(f"/api/kitchens/{demo}").get_json()
    assert left == {"kitchens": [], "here": 0}
    assert client.get("/api/formulas").status_code == 404
    assert client.get("/api/kitchens").status_code == 200
