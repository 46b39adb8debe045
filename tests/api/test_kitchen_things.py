"""Breads and moulds of the kitchen over the wire: what cannot be, and what a formula still needs."""

from __future__ import annotations

import pytest


def _save(client, **changed):
    stored = client.get("/api/kitchen").get_json()
    return client.put("/api/kitchen", json={"kitchen": stored["kitchen"] | changed, "revision": stored["revision"]})


def _wares(client) -> list[dict]:
    return client.get("/api/kitchen").get_json()["kitchen"]["moulds"]


@pytest.mark.parametrize(
    ("mould", "says"),
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
def test_a_ware_that_cannot_be_is_refused_with_the_reason(client, mould: dict, says: str) -> None:
    before = _wares(client)
    answer = _save(client, moulds=[*before, {"key": "odd", "name": "Odd one", **mould}])
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]
    assert _wares(client) == before


def test_a_slice_has_two_sides(client) -> None:
    buns = client.get("/api/kitchen").get_json()["kitchen"]["buns"]
    toast = {
        "key": "toast",
        "name": "Toast",
        "diameter_mm": 120,
        "mass_g": 40,
        "price_each": "0.10",
        "allergens": [],
        "kind": "slice",
    }
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
    assert _save(client, moulds=[w for w in kitchen["moulds"] if w["key"] != "ring-120"]).status_code == 200


def _surfaces(client) -> list[dict]:
    return client.get("/api/kitchen").get_json()["kitchen"]["surfaces"]


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"thickness_mm": 0.4}, "1 to 40 mm"),
        ({"thickness_mm": 55}, "1 to 40 mm"),
        ({"offset_k": 99}, "60 K"),
        ({"outdoor_c": -50}, "Outdoor"),
        ({"heat_factor": 4}, "0.5 to 2"),
        ({"broiler_c": 40}, "150 to 700"),
    ],
)
def test_a_surface_that_cannot_be_is_refused_with_the_reason(client, change: dict, says: str) -> None:
    first, *rest = _surfaces(client)
    answer = _save(client, surfaces=[first | {"heating": first["heating"] | change}, *rest])
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]
    assert _surfaces(client)[0] == first


def test_a_surface_in_use_stays_and_so_does_the_last_oven_a_way_needs(client) -> None:
    surfaces = _surfaces(client)
    gone = _save(client, surfaces=[s for s in surfaces if s["key"] != "iron-pan"])
    assert gone.status_code == 422
    assert "is made for “Iron pan, 30 cm”" in gone.get_json()["detail"]
    spare = {**next(s for s in surfaces if s["kind"] == "oven"), "key": "spare-oven", "name": "Spare oven"}
    assert _save(client, surfaces=[*surfaces, spare]).status_code == 200
    # Ovens that loaf and balls bake in are in use themselves; only the pub burger's way needs any oven at all.
    for item in client.get("/api/formulas").get_json():
        if "Harbour" not in item["name"]:
            client.delete(f"/api/formulas/{item['id']}")
            continue
        stored = client.get(f"/api/formulas/{item['id']}").get_json()
        formula = stored["formula"] | {"heat": stored["formula"]["heat"] | {"method": "pan-then-oven"}}
        saved = client.put(f"/api/formulas/{item['id']}", json={"formula": formula, "revision": stored["revision"]})
        assert saved.status_code == 200
    bare = _save(client, surfaces=[s for s in surfaces if s["kind"] != "oven"])
    assert bare.status_code == 422
    assert "cooked in an oven, and this would be the last one" in bare.get_json()["detail"]
    assert _save(client, surfaces=[*(s for s in surfaces if s["kind"] != "oven"), spare]).status_code == 200


def test_a_file_whose_way_this_kitchen_cannot_go_is_taken_in_its_styles_own_way(client) -> None:
    pub = next(f for f in client.get("/api/formulas").get_json() if "Harbour" in f["name"])
    file = client.get(f"/api/formulas/{pub['id']}/export").get_json()
    file["formula"]["heat"]["method"] = "pan-then-oven"
    for item in client.get("/api/formulas").get_json():
        client.delete(f"/api/formulas/{item['id']}")
    assert _save(client, surfaces=[s for s in _surfaces(client) if s["kind"] != "oven"]).status_code == 200
    done = client.post("/api/formulas/import", json={"file": file}).get_json()
    assert done["replaced"] == ["way of cooking"]
    assert done["stored"]["formula"]["heat"]["method"] == ""


def test_who_trims_the_cuts_moves_the_range_of_every_blend(client) -> None:
    item = next(f for f in client.get("/api/formulas").get_json() if "smash" in f["name"].lower())
    stored = client.get(f"/api/formulas/{item['id']}").get_json()["formula"]

    def band() -> tuple[float, float]:
        blend = client.post("/api/evaluate", json={"formula": stored}).get_json()["evaluation"]["blend"]
        return blend["fat_frac"], blend["fat_high_frac"] - blend["fat_low_frac"]

    mean, width = band()
    assert _save(client, trimmed_by="one-hand").status_code == 200
    assert band()[0] == mean
    assert band()[1] > width * 1.05
    assert _save(client, trimmed_by="my cousin").status_code == 422
    assert _save(client, trimmed_by="separate").status_code == 200
    assert band() == (mean, width)
