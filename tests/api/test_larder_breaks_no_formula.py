"""What is written down in larder and pantry never leaves a formula of the shelf impossible without saying so first."""

from __future__ import annotations

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


def _lot_of(client, meat: str) -> dict:
    body = {
        "lot": {
            "key": "x",
            "meat": meat,
            "name": "Tuesday",
            "left_mass_g": 5000,
            "price_per_kg": "11.00",
            "delivered": "2026-11-24",
        }
    }
    return client.post("/api/larder/lots", json=body).get_json()


def _made_of(client, lot: dict) -> dict:
    formula = FORMULAS.plain(slipway_smash())
    formula["parts"][0] |= {"lot": lot["lot"]["key"]}
    formula["name"] = "Made of Tuesday"
    return client.post("/api/formulas", json={"formula": formula}).get_json()


def test_a_finding_that_makes_a_formula_impossible_is_refused_and_names_it(client) -> None:
    lot = _lot_of(client, FORMULAS.plain(slipway_smash())["parts"][0]["meat"])
    _made_of(client, lot)
    path = f"/api/larder/lots/{lot['lot']['key']}/evidence"

    def learn(fat: str):
        revision = next(
            k["revision"] for k in client.get("/api/larder").get_json()["lots"] if k["lot"]["key"] == lot["lot"]["key"]
        )
        return client.post(path, json={"kind": "laboratory", "fat": fat, "revision": revision})

    refused = learn("98 %")
    assert refused.status_code == 422
    assert "“Made of Tuesday” could not be worked out any more" in refused.get_json()["detail"]
    assert "archive" in refused.get_json()["detail"]
    assert learn("24 %").status_code == 200
    assert all(not item["problem"] for item in client.post("/api/shelf", json={}).get_json()["items"])


def test_a_lot_that_no_formula_is_made_of_takes_any_finding(client) -> None:
    lot = _lot_of(client, "chuck")
    path = f"/api/larder/lots/{lot['lot']['key']}/evidence"
    assert client.post(path, json={"kind": "laboratory", "fat": "98 %", "revision": 1}).status_code == 200


def test_a_meat_corrected_into_fat_names_the_formula_and_leaves_the_meat(client) -> None:
    key = FORMULAS.plain(slipway_smash())["parts"][0]["meat"]
    client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())})
    meat = next(m for m in client.get("/api/larder").get_json()["meats"] if m["key"] == key)
    fat = {**meat, "fat_low_frac": 0.96, "fat_usual_frac": 0.98, "fat_high_frac": 0.99}
    refused = client.put(f"/api/larder/meats/{key}", json={"meat": fat, "seen": meat})
    assert refused.status_code == 422
    assert "could not be worked out any more" in refused.get_json()["detail"]
    assert next(m for m in client.get("/api/larder").get_json()["meats"] if m["key"] == key) == meat
    fatter = {**meat, "fat_high_frac": meat["fat_high_frac"] + 0.01}
    assert client.put(f"/api/larder/meats/{key}", json={"meat": fatter, "seen": meat}).status_code == 200
