"""Fat of cuts learnt over the wire: deliveries are tested, the range is used, blends follow, and it is taken back."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

CUT = "brisket-flat"


def _lot(client, n: int, fat: str | None) -> str:
    lot = {
        "key": "new", "meat": CUT, "name": f"Norquay flat {n}", "left_mass_g": 4000.0, "price_per_kg": "10.10",
        "delivered": f"2026-11-{n + 1:02d}", "use_by": None, "evidence": [], "closed": False,
    }  # fmt: skip
    made = client.post("/api/larder/lots", json={"lot": lot})
    assert made.status_code in (200, 201), made.get_json()
    stored = made.get_json()
    key = stored["lot"]["key"]
    if fat is not None:
        body = {"kind": "laboratory", "fat": fat, "revision": stored["revision"]}
        told = client.post(f"/api/larder/lots/{key}/evidence", json=body)
        assert told.status_code == 200, told.get_json()
    return key


def _learning(client) -> dict:
    return client.get("/api/learning").get_json()


def _blend_fat(client) -> float:
    formula = FORMULAS.plain(slipway_smash())
    return client.post("/api/evaluate", json={"formula": formula}).get_json()["evaluation"]["blend"]["fat_frac"]


def test_tested_deliveries_make_a_range_that_is_used_and_taken_back(client) -> None:
    assert _learning(client)["fats"] == []
    before = _blend_fat(client)
    for n in range(4):
        _lot(client, n, "24 %")
    _lot(client, 9, None)
    found = _learning(client)
    [fat] = found["fats"]
    assert (fat["meat"], fat["counted"], fat["news"], "in_use" in fat) == (CUT, 4, True, False)
    assert fat["prior"]["usual"] < fat["posterior"]["usual"] < 0.24
    assert [d["fat_frac"] for d in fat["data"]] == [0.24] * 4

    use = {"meat": CUT, "use": True, "revision": found["revision"]}
    used = client.post("/api/learning/use-fat", json=use)
    assert used.status_code == 200, used.get_json()
    [now] = used.get_json()["fats"]
    assert now["in_use"]["usual"] == pytest.approx(fat["posterior"]["usual"], abs=1e-4)
    assert (now["news"], now["posterior"]) == (False, fat["posterior"])
    assert _blend_fat(client) > before

    # A window that has not seen it is told.
    assert client.post("/api/learning/use-fat", json={**use, "use": False}).status_code == 409
    back = {"meat": CUT, "use": False, "revision": used.get_json()["revision"]}
    assert client.post("/api/learning/use-fat", json=back).status_code == 200
    assert _blend_fat(client) == pytest.approx(before)


def test_the_range_goes_out_with_the_formula_and_is_computed_with_elsewhere(client) -> None:
    for n in range(4):
        _lot(client, n, "24 %")
    client.post("/api/learning/use-fat", json={"meat": CUT, "use": True, "revision": _learning(client)["revision"]})
    made = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    file = client.get(f"/api/formulas/{made['id']}/export").get_json()
    assert file["version"] == 15
    assert [f["meat"] for f in file["kitchen"]["fats"]] == [CUT]


@pytest.mark.parametrize(
    ("body", "status"),
    [({"meat": "chuck", "use": True}, 422), ({"meat": "no-such", "use": True}, 422), ({"meat": "", "use": True}, 422),
     ({"meat": CUT, "use": "perhaps"}, 422), ({"meat": "no-such", "use": False}, 200)],
)  # fmt: skip
def test_what_was_not_learnt_is_not_used(client, body, status) -> None:
    answer = client.post("/api/learning/use-fat", json={**body, "revision": _learning(client)["revision"]})
    assert answer.status_code == status
