"""Meats, lots, evidence and targets over the API."""

from __future__ import annotations

from dataclasses import replace

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.core.model.formula import BlendPart
from vianda.interchange.kinds import FORMULAS

FORMULA = FORMULAS.plain(slipway_smash())
LOT = {
    "key": "new",
    "meat": "chuck",
    "name": "Tuesday's chuck",
    "left_mass_g": 5000.0,
    "price_per_kg": "9.10",
    "delivered": "2026-11-24",
    "use_by": "2026-11-27",
    "evidence": [],
    "closed": False,
}


def _meat(client, key: str) -> dict:
    return next(m for m in client.get("/api/larder").get_json()["meats"] if m["key"] == key)


def _lot(client, **changes: object) -> dict:
    answer = client.post("/api/larder/lots", json={"lot": {**LOT, **changes}})
    assert answer.status_code == 201, answer.get_json()
    return answer.get_json()


def _width(lot: dict) -> float:
    return lot["known"]["high_frac"] - lot["known"]["low_frac"]


def test_the_larder_holds_at_least_forty_meats_of_every_species(client) -> None:
    meats = client.get("/api/larder").get_json()["meats"]
    assert len(meats) >= 40
    assert {m["species"] for m in meats} == {"beef", "pork", "veal", "lamb", "turkey", "chicken", "venison"}


def test_a_meat_is_added_corrected_and_retired_without_breaking_a_formula(client) -> None:
    chuck = _meat(client, "chuck")
    dearer = {**chuck, "price_per_kg": "20.00"}
    assert client.put("/api/larder/meats/chuck", json={"meat": dearer, "seen": chuck}).status_code == 200
    retired = {**_meat(client, "chuck"), "retired": True}
    client.put("/api/larder/meats/chuck", json={"meat": retired, "seen": _meat(client, "chuck")})
    evaluation = client.post("/api/evaluate", json={"formula": FORMULA}).get_json()["evaluation"]
    assert evaluation["cost"]["parts"][0]["price_per_kg"] == "20.0000"
    own = {**chuck, "key": "island-chuck", "name": "Island chuck", "retired": False}
    assert client.put("/api/larder/meats/island-chuck", json={"meat": own, "seen": None}).status_code == 200
    assert _meat(client, "island-chuck")["name"] == "Island chuck"


def test_two_windows_on_one_meat_lose_nothing(client) -> None:
    seen = _meat(client, "rib")
    client.put("/api/larder/meats/rib", json={"meat": {**seen, "price_per_kg": "18.00"}, "seen": seen})
    late = client.put("/api/larder/meats/rib", json={"meat": {**seen, "price_per_kg": "19.00"}, "seen": seen})
    assert late.status_code == 409
    assert late.get_json()["current"]["price_per_kg"] == "18.0000"


def test_evidence_narrows_a_lot_and_the_formula_that_takes_from_it(client) -> None:
    lot = _lot(client)
    before = _width(lot)
    key = lot["lot"]["key"]
    assert key == "chuck-2026-11-24"
    weights = {"raw": "200 g", "lean": "128 g", "fat": "18 g", "liquid": "6 g"}
    read = client.post("/api/larder/fat-test", json={"weights": weights, "unit_system": "metric"}).get_json()
    assert read["test"]["fat_frac"] == pytest.approx(0.201, abs=0.001)
    body = {"weights": weights, "unit_system": "metric", "revision": lot["revision"]}
    tested = client.post(f"/api/larder/lots/{key}/fat-test", json=body).get_json()
    assert _width(tested) < before
    edit = {"kind": "pick-lot", "meat": "chuck", "lot": key}
    plain = client.post("/api/evaluate", json={"formula": FORMULA}).get_json()["evaluation"]["blend"]
    sure = client.post("/api/evaluate", json={"formula": FORMULA, "edits": [edit]}).get_json()["evaluation"]["blend"]
    assert sure["fat_high_frac"] - sure["fat_low_frac"] < plain["fat_high_frac"] - plain["fat_low_frac"]
    said = client.post(
        f"/api/larder/lots/{key}/evidence", json={"kind": "butcher", "fat": "22 %", "revision": tested["revision"]}
    ).get_json()
    assert len(said["findings"]) == 2
    back = client.post(f"/api/larder/lots/{key}/forget", json={"at": 0, "revision": said["revision"]}).get_json()
    assert [f["evidence"]["kind"] for f in back["findings"]] == ["butcher"]
    stale = client.post(f"/api/larder/lots/{key}/forget", json={"at": 0, "revision": 1})
    assert stale.status_code == 409


def test_a_label_is_no_news_of_a_meat_that_goes_by_its_label(client) -> None:
    lot = _lot(client, meat="ground-80")
    body = {"kind": "label", "fat": "20 %", "revision": 1}
    answer = client.post(f"/api/larder/lots/{lot['lot']['key']}/evidence", json=body)
    assert answer.status_code == 422
    assert "no news" in answer.get_json()["detail"]


@pytest.mark.parametrize(
    ("changes", "status"),
    [
        ({"meat": "unicorn"}, 422),
        ({"left_mass_g": -1.0}, 422),
        ({"delivered": "yesterday"}, 422),
        ({"use_by": "2026-11-01"}, 422),
        ({"price_per_kg": "cheap"}, 422),
    ],
)
def test_a_lot_that_cannot_be_is_refused(client, changes: dict, status: int) -> None:
    answer = client.post("/api/larder/lots", json={"lot": {**LOT, **changes}})
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"


def test_the_larder_goes_out_and_comes_back_as_a_file_with_a_report(client) -> None:
    text = client.get("/api/larder/file.csv").get_data(as_text=True)
    again = client.post("/api/larder/file", json={"text": text}).get_json()["rows"]
    assert {r["outcome"] for r in again} == {"unchanged"}
    lines = text.splitlines()
    changed = "\n".join(
        [
            lines[0],
            lines[1].replace("9.4000", "9.90"),
            lines[2].replace("beef", "unicorn"),
            lines[3].replace("under-blade", "my-blade", 1).replace("Chuck under blade", "Our under blade"),
            lines[3].replace("under-blade", "their-blade", 1),
        ]
    )
    report = client.post("/api/larder/file", json={"text": changed}).get_json()["rows"]
    assert [r["outcome"] for r in report] == ["corrected", "refused", "added", "refused"]
    assert report[1]["line"] == 3
    assert "species" in report[1]["reason"]
    # Two meats of one name would be one to whoever reads them.
    assert "already" in report[3]["reason"]


def _solve(client, **more: object) -> dict:
    body = {
        "formula": FORMULA,
        "candidates": [{"meat": m} for m in ("chuck", "round", "trim-50", "rib")],
        "typed": {"fat_low": "20", "fat_high": "22 %"},
        "aim": "cheapest",
        **more,
    }
    answer = client.post("/api/target/solve", json=body)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()


def test_an_answer_can_be_laid_on_the_bench_as_it_is(client) -> None:
    best = _solve(client)["answers"][0]["answer"]
    edit = {"kind": "lay-out", "meats": best["meats"], "shares_frac": best["shares_frac"]}
    evaluation = client.post("/api/evaluate", json={"formula": FORMULA, "edits": [edit]}).get_json()["evaluation"]
    assert [p["mass_g"] for p in evaluation["blend"]["parts"]] == best["masses_g"]
    assert evaluation["blend"]["fat_frac"] == pytest.approx(best["fat_frac"])


def test_what_cannot_be_solved_says_what_would_have_to_give(client) -> None:
    solved = _solve(client, typed={"fat_low": "40", "fat_high": "45"}, candidates=[{"meat": "chuck"}])
    assert solved["answers"] == []
    assert "go down to" in solved["changes"][0]["text"]


def test_the_square_takes_its_meats_in_either_order(client) -> None:
    squares = [
        client.post("/api/target/square", json={"one": {"meat": a}, "two": {"meat": b}, "target": "20"}).get_json()
        for a, b in (("round", "trim-50"), ("trim-50", "round"))
    ]
    assert squares[0] == squares[1]
    assert squares[0]["lean"] == "round"


@pytest.mark.parametrize("formula", [slipway_smash(), replace(slipway_smash(), parts=(BlendPart("round", 1.0),))])
def test_the_first_square_of_a_formula_can_be_drawn(client, formula) -> None:
    body = {"formula": FORMULAS.plain(formula)}
    first = client.post("/api/target/square/first", json=body).get_json()
    asked = {k: {"meat": first[k]} for k in ("one", "two")} | {"target": f"{first['target_frac'] * 100:.2f}"}
    answer = client.post("/api/target/square", json=asked)
    assert answer.status_code == 200, answer.get_json()
    assert 0 < answer.get_json()["square"]["rich_share_frac"] < 1


def test_a_lean_batch_is_mended(client) -> None:
    body = {"batch": "2 kg", "fat": "12", "target": "20", "unit_system": "metric"}
    found = client.post("/api/target/mend", json=body).get_json()["additions"]
    suet = next(a for a in found if a["meat"] == "suet")
    assert suet["add_mass_g"] == pytest.approx(2000 * 0.08 / 0.74, abs=1)


def test_words_of_taste_become_a_formula(client) -> None:
    answer = client.post("/api/target/propose", json={"formula": FORMULA, "words": "rich, loose, crusty"}).get_json()
    assert answer["formula"]["dish"]["style"] == "smashed"
    aim = answer["proposal"]["fat_aim_frac"]
    assert answer["evaluation"]["blend"]["fat_frac"] == pytest.approx(aim, abs=0.013)
    refused = client.post("/api/target/propose", json={"formula": FORMULA, "words": "xyzzy"})
    assert refused.status_code == 422


def test_the_opening_line_also_takes_words_of_taste(client) -> None:
    opened = client.post("/api/opening", json={"line": "rich, loose, crusty"}).get_json()["opening"]
    assert opened["formula"]["dish"]["style"] == "smashed"
    assert any("Crusty" in r["text"] for r in opened["assumed"])
    assert all(p["status"] != "unread" for p in opened["pieces"])
    assert client.post("/api/opening", json={"line": "xyzzy"}).status_code == 422


def test_a_burger_that_is_remembered_is_asked_about_and_each_answer_is_a_change(client) -> None:
    opened = client.post("/api/opening", json={"line": "like the one I remember"}).get_json()["opening"]
    assert len(opened["questions"]) == 2
    for question in opened["questions"]:
        for answer in question["answers"]:
            body = {"formula": opened["formula"], "edits": [answer["edit"]]}
            assert client.post("/api/evaluate", json=body).status_code == 200


def test_bounds_typed_for_a_meat_and_a_species_hold(client) -> None:
    candidates = [{"meat": "chuck", "least": "40 %", "most": "60"}, {"meat": "pork-belly"}, {"meat": "round"}]
    solved = _solve(client, candidates=candidates, species=[{"species": "pork", "most": "25 %"}])
    shares = dict(zip(*(solved["answers"][0]["answer"][k] for k in ("meats", "shares_frac")), strict=True))
    assert 0.4 - 1e-6 <= shares["chuck"] <= 0.6 + 1e-6
    assert shares.get("pork-belly", 0) <= 0.25 + 1e-6
    bad = {
        "formula": FORMULA,
        "candidates": [{"meat": "chuck", "least": "lots"}],
        "aim": "cheapest",
        "typed": {"fat_low": "20", "fat_high": "22"},
    }
    refused = client.post("/api/target/solve", json=bad)
    assert refused.status_code == 422
    assert refused.get_json()["fields"][0]["pointer"] == "/candidates/0"


def test_a_cook_takes_what_it_used_from_its_lots_once(client) -> None:
    key = _lot(client, left_mass_g=5000.0)["lot"]["key"]
    formula = {**FORMULA, "parts": [{**p, "lot": key} if p["meat"] == "chuck" else p for p in FORMULA["parts"]]}
    stored = client.post("/api/formulas", json={"formula": formula}).get_json()
    cook = client.post("/api/cooks", json={"formula_id": stored["id"]}).get_json()
    bought = cook["plan"]["cost"]["parts"][0]["bought_g"]

    def left() -> float:
        return next(
            k["lot"]["left_mass_g"] for k in client.get("/api/larder").get_json()["lots"] if k["lot"]["key"] == key
        )

    assert left() == 5000
    body = {"outcome": {"cooked_mass_g": 2400.0}, "revision": cook["revision"]}
    done = client.put(f"/api/cooks/{cook['id']}/outcome", json=body).get_json()
    assert left() == pytest.approx(5000 - bought)
    # Correcting the note afterwards takes nothing more.
    client.put(f"/api/cooks/{cook['id']}/outcome", json={**body, "revision": done["revision"]})
    assert left() == pytest.approx(5000 - bought)


def test_a_refused_note_takes_nothing_and_a_lot_never_falls_below_nothing(client) -> None:
    key = _lot(client, left_mass_g=500.0)["lot"]["key"]
    formula = {**FORMULA, "parts": [{**p, "lot": key} if p["meat"] == "chuck" else p for p in FORMULA["parts"]]}
    stored = client.post("/api/formulas", json={"formula": formula}).get_json()
    cook = client.post("/api/cooks", json={"formula_id": stored["id"]}).get_json()
    path = f"/api/cooks/{cook['id']}/outcome"
    refused = client.put(path, json={"outcome": {"cooked_mass_g": 99_000.0}, "revision": 1})
    assert refused.status_code == 422
    lot = next(k["lot"] for k in client.get("/api/larder").get_json()["lots"] if k["lot"]["key"] == key)
    assert lot["left_mass_g"] == 500
    client.put(path, json={"outcome": {"cooked_mass_g": 2400.0}, "revision": 1})
    lot = next(k["lot"] for k in client.get("/api/larder").get_json()["lots"] if k["lot"]["key"] == key)
    assert lot["left_mass_g"] == 0


def test_an_answer_that_is_sure_says_what_that_costs(client) -> None:
    solved = _solve(client, typed={"fat_low": "20", "fat_high": "26", "confidence": "80 %"})
    texts = [p["text"] for p in solved["answers"][0]["binding"]]
    assert any(t.startswith("Being sure in {sure} of batches costs {dear}") for t in texts)
    plain = _solve(client, typed={"fat_low": "20", "fat_high": "26"})
    assert not any("Being sure" in p["text"] for a in plain["answers"] for p in a["binding"])


def test_words_of_taste_choose_a_blend_for_a_loaf_and_leave_it_a_loaf(client) -> None:
    loaf = FORMULAS.plain(keepers_loaf())
    answer = client.post("/api/target/propose", json={"formula": loaf, "words": "rich, crusty"})
    assert answer.status_code == 200
    done = answer.get_json()["formula"]
    assert done["dish"] == loaf["dish"]
    assert FORMULAS.of(done).mix == keepers_loaf().mix
    assert done["parts"] != loaf["parts"]
