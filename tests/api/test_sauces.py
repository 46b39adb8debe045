"""Sauces over the API: taste, nudge, pot, schools, and formulas that carry them."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS

SMASH, LOAF = FORMULAS.plain(slipway_smash()), FORMULAS.plain(keepers_loaf())
SAUCE = [
    {"ingredient": "mayonnaise", "mass_g": 150},
    {"ingredient": "ketchup", "mass_g": 60},
    {"ingredient": "relish", "mass_g": 30},
]


def _post(client, path: str, **body: object):
    return client.post(f"/api/sauces/{path}", json=body)


def test_a_sauce_is_tasted_beside_the_nearest_school_or_the_one_named(client) -> None:
    found = _post(client, "taste", lines=SAUCE).get_json()
    assert found["school"] == "sweet-tomato"
    assert found["whole_g"] == found["left_g"] == 240
    assert {b["where"] for b in found["bands"]} == {"within"}
    hot = _post(client, "taste", lines=SAUCE, school="hot").get_json()
    assert next(b for b in hot["bands"] if b["taste"] == "pungency")["where"] == "below"
    side = _post(client, "taste", lines=SAUCE, role="side").get_json()
    assert (side["school"], side["bands"]) == ("", [])


def test_what_is_left_is_said_in_grams_or_as_a_share(client) -> None:
    lines = [{"ingredient": "tomatoes", "mass_g": 800}]
    grams = _post(client, "taste", lines=lines, left_g=600).get_json()
    share = _post(client, "taste", lines=lines, left_frac=0.75).get_json()
    assert grams["taste"] == share["taste"]
    assert grams["left_frac"] == pytest.approx(0.75)
    assert grams["taste"]["acid"] == pytest.approx(
        _post(client, "taste", lines=lines).get_json()["taste"]["acid"] / 0.75
    )


def test_the_same_thing_twice_is_one_line_of_both(client) -> None:
    twice = [*SAUCE, {"ingredient": "ketchup", "mass_g": 40}]
    once = [{**line, "mass_g": 100} if line["ingredient"] == "ketchup" else line for line in SAUCE]
    tastes = [_post(client, "taste", lines=lines).get_json()["taste"] for lines in (twice, once)]
    assert tastes[0] == tastes[1]


def test_a_word_gives_the_lines_after_it(client) -> None:
    found = _post(client, "nudge", lines=SAUCE, handle="sharper").get_json()
    assert [m["ingredient"] for m in found["nudge"]["moved"]] == ["cider-vinegar"]
    assert {line["ingredient"] for line in found["lines"]} == {"mayonnaise", "ketchup", "relish", "cider-vinegar"}
    after = _post(client, "taste", lines=found["lines"]).get_json()["taste"]
    assert after["acid"] == pytest.approx(found["nudge"]["after"]["acid"])
    assert found["left_frac"] == 1.0


def test_in_the_pot_what_is_added_stays_in_it(client) -> None:
    lines = [{"ingredient": "tomatoes", "mass_g": 800}, {"ingredient": "olive-oil", "mass_g": 20}]
    found = _post(client, "nudge", lines=lines, left_frac=0.7, handle="sweeter", role="cooking-sauce").get_json()
    again = _post(client, "taste", lines=found["lines"], left_frac=found["left_frac"], role="cooking-sauce").get_json()
    assert again["taste"]["sugar"] == pytest.approx(found["nudge"]["after"]["sugar"])
    assert again["left_g"] == pytest.approx(574 + sum(m["change_g"] for m in found["nudge"]["moved"]))


def test_no_change_is_no_fault(client) -> None:
    found = _post(client, "nudge", lines=[{"ingredient": "olive-oil", "mass_g": 50}], handle="richer").get_json()
    assert found.get("nudge") is None
    assert found["lines"] == [{"ingredient": "olive-oil", "mass_g": 50}]


@pytest.mark.parametrize(
    ("path", "body", "status"),
    [
        ("taste", {"lines": []}, 422),
        ("taste", {"lines": [{"ingredient": "ketchup", "mass_g": 0}]}, 422),
        ("taste", {"lines": [{"ingredient": "ketchup", "mass_g": -1}]}, 422),
        ("taste", {"lines": [{"ingredient": "ketchup", "mass_g": 1e308}]}, 422),
        ("taste", {"lines": [{"ingredient": "unicorn", "mass_g": 1}]}, 422),
        ("taste", {"lines": SAUCE * 11}, 422),
        ("taste", {"lines": SAUCE, "left_g": 500}, 422),
        ("taste", {"lines": SAUCE, "left_g": 1}, 422),
        ("taste", {"lines": SAUCE, "left_frac": 1.5}, 422),
        ("taste", {"lines": SAUCE, "school": "nobody"}, 422),
        ("taste", {"lines": SAUCE, "role": "cheese"}, 422),
        ("nudge", {"lines": SAUCE, "handle": "better"}, 422),
        ("nudge", {"lines": SAUCE}, 422),
        ("pot", {"start_g": 100, "left_g": 200, "boil": "simmer", "diameter_mm": 200}, 422),
        ("pot", {"start_g": 0, "left_g": 0, "boil": "simmer", "diameter_mm": 200}, 422),
        ("pot", {"start_g": 100, "left_g": 50, "boil": "fierce", "diameter_mm": 200}, 422),
    ],
)
def test_what_cannot_be_is_refused_with_a_reason(client, path: str, body: dict, status: int) -> None:
    answer = client.post(f"/api/sauces/{path}", json=body)
    assert answer.status_code == status
    assert answer.get_json()["detail"]


def test_a_pot_says_how_long_and_what_binds(client) -> None:
    found = _post(client, "pot", start_g=800, left_g=650, boil="gentle", diameter_mm=240).get_json()
    assert found["minutes"]["low"] < found["minutes"]["usual"] < found["minutes"]["high"]
    assert found["bound_by"] == "surface"
    assert found["water_g"] == 150


def test_schools_are_offered_with_their_bands(client) -> None:
    found = client.get("/api/sauces/schools").get_json()
    assert found[0]["key"] == "sweet-tomato"
    assert all(s["roles"] and s["bands"] and s["lines"] and s["why"] for s in found)


def test_a_formula_carries_what_goes_with_it_through_edits_store_and_file(client) -> None:
    edits = [
        {"kind": "put-beside", "role": "burger-sauce", "ingredient": "mayonnaise"},
        {"kind": "type-beside", "ingredient": "mayonnaise", "what": "dose", "text": "15 g"},
        {"kind": "set-stack", "layers": [{"kind": "heel", "toasted": True}, {"kind": "patty"}, {"kind": "crown"}]},
    ]
    answer = client.post("/api/evaluate", json={"formula": SMASH, "edits": edits})
    assert answer.status_code == 200, answer.get_json()
    formula = answer.get_json()["formula"]
    stored = client.post("/api/formulas", json={"formula": {**formula, "name": "Sauced smash"}}).get_json()
    again = client.get(f"/api/formulas/{stored['id']}").get_json()["formula"]
    assert again["beside"] == [
        {"role": "burger-sauce", "ingredient": "mayonnaise", "dose_g": 15.0, "made_g": 0.0, "coats": 0}
    ]
    assert [x["kind"] for x in again["stack"]] == ["heel", "patty", "crown"]
    file = client.get(f"/api/formulas/{stored['id']}/export").get_json()
    assert file["version"] == 10
    assert "mayonnaise" in {i["key"] for i in file["pantry"]}


def test_what_goes_with_it_counts_on_the_ticket(client) -> None:
    plain = client.post("/api/evaluate", json={"formula": LOAF}).get_json()["evaluation"]
    edit = {"kind": "put-beside", "role": "gravy", "ingredient": "soy-sauce"}
    after = client.post("/api/evaluate", json={"formula": LOAF, "edits": [edit]}).get_json()["evaluation"]
    assert after["served"]["salt_g"] > plain["served"]["salt_g"] + 5
    assert "soy" in {a["name"] for a in after["served"]["allergens"]}


@pytest.mark.parametrize(
    "edit",
    [
        {"kind": "put-beside", "role": "burger-sauce", "ingredient": "unicorn"},
        {"kind": "type-beside", "ingredient": "mayonnaise", "what": "dose", "text": "20 g"},
        {"kind": "take-beside", "ingredient": "mayonnaise"},
        {"kind": "set-stack", "layers": [{"kind": "roof"}]},
        {"kind": "set-stack", "layers": [{"kind": "patty"}] * 25},
    ],
)
def test_an_edit_that_cannot_be_changes_nothing(client, edit: dict) -> None:
    answer = client.post("/api/evaluate", json={"formula": SMASH, "edits": [edit]})
    assert answer.status_code == 422


def test_the_pantry_says_where_a_sauce_is_used(client) -> None:
    edit = {"kind": "put-beside", "role": "burger-sauce", "ingredient": "tahini"}
    formula = client.post("/api/evaluate", json={"formula": SMASH, "edits": [edit]}).get_json()["formula"]
    client.post("/api/formulas", json={"formula": {**formula, "name": "Tahini smash"}})
    things = client.get("/api/pantry").get_json()["ingredients"]
    assert next(t for t in things if t["ingredient"]["key"] == "tahini")["in_formulas"] == ["Tahini smash"]


BRINE = [
    {"ingredient": "vinegar", "mass_g": 200},
    {"ingredient": "water", "mass_g": 100},
    {"ingredient": "sugar", "mass_g": 60},
    {"ingredient": "salt-fine", "mass_g": 8},
]


def test_a_brine_says_where_it_comes_to_rest_and_never_that_it_is_safe(client) -> None:
    body = {"lines": BRINE, "vegetable": "onion", "vegetable_g": 200, "slice_mm": 4}
    found = _post(client, "brine", **body).get_json()
    # Two thirds vinegar of 5 %: half of its acid goes into as much water as the onion holds.
    assert found["rest"]["acid_frac"] == pytest.approx(0.0214, abs=0.001)
    assert found["after_day"]["low"] < found["after_day"]["high"] <= 1.0
    assert found["after_three_days"]["usual"] >= found["after_day"]["usual"]
    assert "no measurement" in found["keeps"]["text"]
    weak = [line for line in BRINE if line["ingredient"] != "vinegar"]
    assert "Not surely sour" in _post(client, "brine", **{**body, "lines": weak}).get_json()["keeps"]["text"]


@pytest.mark.parametrize(
    "change", [{"vegetable": "unicorn"}, {"vegetable_g": 0}, {"slice_mm": 0}, {"lines": []}, {"vegetable_g": 1e9}]
)
def test_a_brine_that_cannot_be_is_refused(client, change: dict) -> None:
    body = {"lines": BRINE, "vegetable": "onion", "vegetable_g": 200, "slice_mm": 4, **change}
    assert _post(client, "brine", **body).status_code == 422
