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
    found = _post(client, "pot", start_g=800, left_g=650, boil="gentle", diameter_mm=240).get_json()["cook"]
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
    assert file["version"] == 15
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
    way = found["course"]
    assert way[0]["hours"] == 0.0
    assert [p["frac"]["usual"] for p in way] == sorted(p["frac"]["usual"] for p in way)
    assert 0.0 < found["ready_h"]["low"] < found["ready_h"]["high"] < 24.0
    assert "no measurement" in found["keeps"]["text"]
    weak = [line for line in BRINE if line["ingredient"] != "vinegar"]
    assert "Not surely sour" in _post(client, "brine", **{**body, "lines": weak}).get_json()["keeps"]["text"]


@pytest.mark.parametrize(
    "change", [{"vegetable": "unicorn"}, {"vegetable_g": 0}, {"slice_mm": 0}, {"lines": []}, {"vegetable_g": 1e9}]
)
def test_a_brine_that_cannot_be_is_refused(client, change: dict) -> None:
    body = {"lines": BRINE, "vegetable": "onion", "vegetable_g": 200, "slice_mm": 4, **change}
    assert _post(client, "brine", **body).status_code == 422


TOMATO = [{"ingredient": "whole-tomatoes", "mass_g": 800}, {"ingredient": "olive-oil", "mass_g": 30}]


def test_a_pot_says_what_is_left_what_it_tastes_of_and_what_covers_the_balls(client) -> None:
    body = {"lines": TOMATO, "left_frac": 0.8, "boil": "simmer", "diameter_mm": 260, "portions": 4}
    found = _post(client, "pot", **body, balls=20, ball_mm=42).get_json()
    assert found["cook"]["start_g"] == pytest.approx(830)
    assert found["cook"]["left_g"] == pytest.approx(664)
    assert found["after"]["fat"] == pytest.approx(found["before"]["fat"] / 0.8)
    assert found["level_after_mm"] == pytest.approx(0.8 * found["level_before_mm"])
    assert found["portion_g"] == pytest.approx(166)
    assert found["balls"]["sauce_per_ball_g"] == pytest.approx(33.2)
    skimmed = _post(client, "pot", **body, fat_wanted_frac=0.02).get_json()
    assert skimmed["skim_g"] > 10
    assert skimmed["portion_g"] == pytest.approx((664 - skimmed["skim_g"]) / 4)
    thick = _post(client, "pot", **{**body, "left_frac": 0, "dry_frac": 0.15}).get_json()
    assert thick["dry_frac"] == pytest.approx(0.15)
    plain = _post(client, "pot", start_g=1000, left_g=700, boil="gentle", diameter_mm=240).get_json()
    assert plain.get("after") is None
    assert plain["skim_g"] == 0


@pytest.mark.parametrize(
    "change",
    [
        {"left_frac": 0, "left_g": 0},
        {"left_frac": 0, "left_g": 900},
        {"left_frac": 0, "dry_frac": 0.01},
        {"lines": [], "start_g": 0},
        {"lines": [], "start_g": 500, "dry_frac": 0.2},
        {"balls": 3, "ball_mm": 0},
        {"balls": 3, "ball_mm": 400},
        {"left_frac": 0.01},
        {"lines": [{"ingredient": "unicorn", "mass_g": 5}]},
        {"boil": "volcano"},
        {"diameter_mm": float("1e308")},
    ],
)
def test_a_pot_that_cannot_be_is_refused_in_words(client, change: dict) -> None:
    body = {"lines": TOMATO, "left_frac": 0.8, "boil": "simmer", "diameter_mm": 260, **change}
    answer = _post(client, "pot", **body)
    assert answer.status_code == 422
    assert len(answer.get_json()["detail"]) > 15


def test_a_liquid_is_thickened_and_cabbage_fermented(client) -> None:
    gravy = _post(client, "thicken", liquid_g=600, thickener="flour", body="coating").get_json()
    assert gravy["starch_g"]["usual"] == pytest.approx(39)
    crock = _post(client, "ferment", ferment="cabbage", vegetable_g=980, temp_c=21).get_json()
    assert crock["salt_frac"] == pytest.approx(0.0225)
    assert _post(client, "ferment", ferment="cabbage", vegetable_g=980, temp_c=60).status_code == 422
    assert _post(client, "ferment", ferment="cabbage", vegetable_g=980, temp_c=20, salt_frac=0).status_code == 422
    assert _post(client, "thicken", liquid_g=0, thickener="flour", body="thin").status_code == 422


def test_what_cannot_be_had_is_replaced_and_the_lines_stay_one_each(client) -> None:
    lines = [{"ingredient": "ketchup", "mass_g": 60}, {"ingredient": "salt-fine", "mass_g": 1}]
    first = _post(client, "swaps", lines=lines, ingredient="ketchup").get_json()[0]
    assert first["swapped"]["ingredient"] == "tomato-paste"
    keys = [line["ingredient"] for line in first["lines"]]
    assert len(keys) == len(set(keys))
    assert "ketchup" not in keys
    salt = next(line["mass_g"] for line in first["lines"] if line["ingredient"] == "salt-fine")
    assert salt == pytest.approx(1 + dict(first["swapped"]["added"])["salt-fine"])
    assert _post(client, "swaps", lines=lines, ingredient="honey").status_code == 422


def test_what_was_poured_is_read_back_into_the_lines(client) -> None:
    lines = [{"ingredient": "ketchup", "mass_g": 60}]
    found = _post(client, "poured", lines=lines, ingredient="ketchup", before_g=500, after_g=512).get_json()
    assert found["mass_g"] == 12
    assert found["lines"] == [{"ingredient": "ketchup", "mass_g": 72}]
    new = _post(client, "poured", lines=lines, ingredient="mustard", before_g=300, after_g=295).get_json()
    assert new["lines"][1] == {"ingredient": "mustard", "mass_g": 5}
    same = _post(client, "poured", lines=lines, ingredient="mustard", before_g=300, after_g=300)
    assert same.status_code == 422
    assert "nothing was poured" in same.get_json()["detail"]
    assert _post(client, "poured", lines=lines, ingredient="unicorn", before_g=1, after_g=2).status_code in (404, 422)


def test_a_shaker_is_calibrated(client) -> None:
    trials = [{"grams": 2.4, "shakes": 10}, {"grams": 2.6, "shakes": 10}]
    found = _post(client, "shaker", trials=trials, side_g=1.0, pieces=20).get_json()
    assert found["shakes"] == 4
    assert found["per_shake_mg"] == pytest.approx(250)
    assert _post(client, "shaker", trials=[], side_g=1.0, pieces=20).status_code == 422
    assert _post(client, "shaker", trials=[{"grams": 0, "shakes": 1}], side_g=1.0, pieces=1).status_code == 422


def test_the_catalogue_names_roles_layers_and_tastes(client) -> None:
    found = client.get("/api/catalogue").get_json()
    assert found["roles"][0]["title"] == "Burger sauce"
    pantry = {i["key"] for i in found["pantry"]}
    assert all(not layer["ingredient"] or layer["ingredient"] in pantry for layer in found["layers"])
    assert next(layer for layer in found["layers"] if layer["kind"] == "bacon")["ingredient"] == "crisp-bacon"
    assert [t["key"] for t in found["tastes"]][:3] == ["sugar", "salt", "acid"]


def test_a_cook_keeps_the_list_of_its_build(client) -> None:
    made = client.post("/api/formulas", json={"formula": {**SMASH, "name": "Listed"}}).get_json()
    cook = client.post("/api/cooks", json={"formula_id": made["id"]}).get_json()
    titles = [line["title"] for line in cook["plan"]["checklist"]]
    assert titles[-1] == "Crown"
    assert cook["plan"]["builds"] == 20


def test_a_sauce_is_said_scaled_and_its_tray_judged(client) -> None:
    lines = [{"ingredient": "mayonnaise", "mass_g": 150}]
    said = _post(client, "compose", lines=lines, text="60 g ketchup, 2 tsp mustard", unit_system="metric").get_json()
    assert [line["ingredient"] for line in said["lines"]] == ["mayonnaise", "ketchup", "mustard"]
    assert said["reading"]["pieces"]
    refused = _post(client, "compose", lines=lines, text="60 g ketchup, 2 g blarg", unit_system="metric")
    assert refused.status_code == 422
    assert "blarg" in refused.get_json()["detail"]
    twice = _post(client, "scale", lines=said["lines"], ingredient="mayonnaise", mass_g=300).get_json()
    assert twice[1]["mass_g"] == pytest.approx(120)
    assert _post(client, "scale", lines=said["lines"], whole_g=0).status_code == 422
    tray = _post(client, "tray", depth_mm=25, cooled="fridge").get_json()
    assert tray["within"]
    assert tray["lines_c"] == [57, 21, 5]
    assert not _post(client, "tray", depth_mm=80, cooled="fridge").get_json()["within"]
    assert _post(client, "tray", depth_mm=2, cooled="fridge").status_code == 422
