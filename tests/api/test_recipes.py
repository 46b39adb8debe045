"""Recipes over the wire: JSON-LD in and out, kept with their sauces, and read again to the same grams."""

from __future__ import annotations

import json

import pytest

PLAIN = """Balls
Makes 20 meatballs
Serves 5
500 g beef mince
1 egg
40 g panko
60 ml milk
8 g salt
Bake at 200 C for 20 minutes."""
LD = {
    "@context": "https://schema.org",
    "@graph": [
        {"@type": "WebPage"},
        {
            "@type": ["Recipe", "Thing"],
            "name": "Ferry loaf",
            "recipeYield": ["8", "8 slices"],
            "recipeIngredient": ["1 kg beef mince", "2 eggs", "80 g oats", "15 g salt"],
            "recipeInstructions": [
                {"@type": "HowToSection", "itemListElement": [{"@type": "HowToStep", "text": "Shape into a loaf."}]},
                {"@type": "HowToStep", "text": "Bake at 170 C for 70 minutes."},
            ],
        },
    ],
}


def _read(client, text: str):
    return client.post("/api/recipe/read", json={"text": text})


def test_a_schema_org_recipe_is_read_wherever_it_stands_in_the_document(client) -> None:
    answer = _read(client, json.dumps(LD)).get_json()
    assert answer["recipe"]["name"] == "Ferry loaf"
    assert answer["recipe"]["formula"]["dish"]["guests"] == 8
    assert answer["text"].split("\n")[:2] == ["Ferry loaf", "Serves 8"]
    assert answer["evaluation"]["portions"]["pieces"] >= 1


@pytest.mark.parametrize("text", ["{", "[]", '{"@type": "Person"}', "[" * 5000, '{"@type": "Recipe"}'])
def test_json_without_a_recipe_is_refused_with_a_reason(client, text: str) -> None:
    answer = _read(client, text)
    if answer.status_code == 200:
        assert answer.get_json()["recipe"]["formula"] is not None
        return
    assert answer.status_code == 422
    assert answer.get_json()["detail"]


def test_a_kept_recipe_stands_on_the_shelf_with_its_sauce_in_the_pantry(client) -> None:
    text = PLAIN + "\nTomato sauce:\n400 g passata\n1 tbsp olive oil\n"
    kept = client.post("/api/recipe/keep", json={"text": text})
    assert kept.status_code == 201, kept.get_json()
    assert client.get("/api/formulas").get_json()[0]["id"] == kept.get_json()["id"]
    names = [i["ingredient"]["name"] for i in client.get("/api/pantry").get_json()["ingredients"]]
    assert any("Tomato sauce" in n for n in names)


def test_a_recipe_written_out_is_a_schema_org_recipe_and_reads_back_to_the_same_grams(client) -> None:
    kept = client.post("/api/recipe/keep", json={"text": PLAIN}).get_json()
    written = client.get(f"/api/formulas/{kept['id']}/recipe")
    assert written.content_type.startswith("application/ld+json")
    recipe = json.loads(written.data)
    assert (recipe["@context"], recipe["@type"]) == ("https://schema.org", "Recipe")
    assert all(isinstance(i, str) for i in recipe["recipeIngredient"])
    assert {s["@type"] for s in recipe["recipeInstructions"]} == {"HowToStep"}
    again = _read(client, written.data.decode()).get_json()["recipe"]["formula"]
    assert again["dish"]["guests"] == 5
    before = {line["ingredient"]: line["per_meat_frac"] for line in kept["formula"]["mix"]["lines"]}
    after = {line["ingredient"]: line["per_meat_frac"] for line in again["mix"]["lines"]}
    assert after.keys() == before.keys()
    for key, frac in before.items():
        # Grams are written with four digits.
        assert after[key] == pytest.approx(frac, rel=2e-3), key


def test_a_mix_is_read_over_the_wire_with_its_pieces(client) -> None:
    formula = client.post("/api/opening", json={"line": "1 kg mince, 20 meatballs"}).get_json()["opening"]["formula"]
    body = {"formula": formula, "text": "1 egg, beaten, 12 widgets"}
    answer = client.post("/api/read/mix", json=body).get_json()
    assert [i["ingredient"] for i in answer["items"]] == ["egg"]
    assert [p["status"] for p in answer["pieces"] if p["status"] == "unread"] == ["unread", "unread"]
