"""Breads and wares of the kitchen over the wire: what cannot be, and what a formula still needs."""

from __future__ import annotations

import pytest


def _save(client, **changed):
    stored = client.get("/api/kitchen").get_json()
    return client.put("/api/kitchen", json={"kitchen": stored["kitchen"] | changed, "revision": stored["revision"]})


def _wares(client) -> list[dict]:
    return client.get("/api/kitchen").get_json()["kitchen"]["wares"]


@pytest.mark.parametrize(
    ("ware", "says"),
    [
        ({"kind": "tin", "length_mm": 220, "width_mm": 0, "height_mm": 65}, "measures 5 to 1000 mm"),
        ({"kind": "tin", "length_mm": 220, "width_mm": 110, "height_mm": 65, "base_length_mm": 300}, "never wider"),
        (
            {"kind": "tin", "length_mm": 220, "width_mm": 110, "height_mm": 65, "volume_ml": 9000},
            "does not fit its size",
        ),
        ({"kind": "scoop"}, "has a number, or holds"),
        ({"kind": "scoop", "scoop_number": 2}, "numbered 4 to 100"),
    ],
)
def test_a_ware_that_cannot_be_is_refused_with_the_reason(client, ware: dict, says: str) -> None:
    before = _wares(client)
    answer = _save(client, wares=[*before, {"key": "odd", "name": "Odd one", **ware}])
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]
    assert _wares(client) == before


def test_a_slice_has_two_sides(client) -> None:
    buns = client.get("/api/kitchen").get_json()["kitchen"]["buns"]
    toast = {"key": "toast", "name": "Toast", "diameter_mm": 120, "mass_g": 40, "price_each": "0.10", "allergens": [],
             "kind": "slice"}  # fmt: skip
    assert "two sides" in _save(client, buns=[*buns, toast]).get_json()["detail"]
    assert _save(client, buns=[*buns, toast | {"depth_mm": 90}]).status_code == 200


def test_what_a_formula_is_made_for_cannot_be_put_away(client) -> None:
    kitchen = client.get("/api/kitchen").get_json()["kitchen"]
    fewer = [b for b in kitchen["buns"] if b["key"] != "soft-100"]
    answer = _save(client, buns=fewer)
    assert answer.status_code == 422
    assert "“Slipway smash” is made for “Soft bun, 100 mm”" in answer.get_json()["detail"]
    assert client.get("/api/kitchen").get_json()["kitchen"] == kitchen
    # Nobody shapes with a ring of 120 mm.
    assert _save(client, wares=[w for w in kitchen["wares"] if w["key"] != "ring-120"]).status_code == 200
