"""The audit log: each change has one line, in words that name the thing, and nobody changes a line."""

from __future__ import annotations

from accounts import ids_by_name
from vianda.api.permissions import WRITES
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services.audit_words import SAID
from vianda.storage import audit_repository, tables


def test_every_change_stands_in_the_audit_log_and_what_was_refused_does_not(owner, come_in) -> None:
    chef = come_in("Odd", "chef")
    number = chef.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    stored = chef.get(f"/api/formulas/{number}").get_json()
    body = {"formula": stored["formula"] | {"remark": "more salt"}, "revision": stored["revision"]}
    assert chef.put(f"/api/formulas/{number}", json=body).status_code == 200
    assert chef.put(f"/api/formulas/{number}", json=body | {"formula": stored["formula"]}).status_code == 409
    lines = owner.post("/api/audit", json={"person": "Odd"}).get_json()
    assert [line["action"] for line in lines] == ["save_formula", "create_formula", "invitation-accepted"]
    assert lines[0]["about"] == f"/api/formulas/{number}"
    assert [line["said"] for line in lines] == [
        "changed “Slipway smash”", "made “Slipway smash”", "came in by an invitation"
    ]  # fmt: skip
    assert chef.post("/api/audit", json={}).status_code == 403
    # Nothing of the interface changes or deletes a line.
    contract = owner.get("/api/openapi.json").get_json()["paths"]
    assert [(path, list(ways)) for path, ways in contract.items() if "audit" in path] == [("/api/audit", ["post"])]


def test_every_change_has_words_and_a_thing_that_is_gone_is_called_gone(owner, come_in) -> None:
    reads = {"list_people", "read_audit", "list_all_places"}
    assert set(WRITES) - reads <= set(SAID)
    cook = come_in("Liv", "cook")
    number = owner.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    begun = cook.post("/api/cooks", json={"formula_id": number}).get_json()["id"]
    cook.post(f"/api/cooks/{begun}/events", json={"token": "event-0001", "kind": "probe", "place": 0, "value": 61.0})
    service = {"name": "Friday night", "day": "2026-12-04", "dishes": []}
    timing = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    made = owner.post("/api/services", json={"service": {**service, "timing": timing}}).get_json()
    run = {"token": "token-run-1", "kind": "begin", "minute": -40, "task": "preheat"}
    cook.post(f"/api/services/{made['id']}/run/events", json={"day": "2026-12-04", "event": run})
    said = [line["said"] for line in owner.post("/api/audit", json={"person": "Liv"}).get_json()]
    assert said[:3] == [
        "reported from “Friday night”", "reported from the stove, “Slipway smash”", "began to cook “Slipway smash”"
    ]  # fmt: skip
    owner.delete(f"/api/services/{made['id']}")
    owner.put(f"/api/people/{ids_by_name(owner)['Liv']}/role", json={"role": "chef"})
    lines = [line["said"] for line in owner.post("/api/audit", json={}).get_json()]
    assert lines[:3] == ["gave “Liv” another role", "deleted a service", "reported from a service that is gone"]
    assert "wrote a service that is gone down" in lines


def test_what_is_sent_again_has_one_line(owner, come_in) -> None:
    cook = come_in("Liv", "cook")
    number = owner.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    begun = cook.post("/api/cooks", json={"formula_id": number}).get_json()["id"]
    said = {"token": "event-0001", "kind": "probe", "place": 0, "value": 61.0}
    before = tables.AuditRow.select().count()
    for _ in range(3):
        assert cook.post(f"/api/cooks/{begun}/events", json=said).status_code == 200
    assert tables.AuditRow.select().count() == before + 1
    cook.post(f"/api/cooks/{begun}/events", json={**said, "token": "event-0002"})
    assert tables.AuditRow.select().count() == before + 2


def test_a_change_that_is_taken_back_takes_its_line_back(owner, come_in) -> None:
    chef = come_in("Odd", "chef")
    before = tables.AuditRow.select().count()
    bad = FORMULAS.plain(slipway_smash())
    bad["parts"][0]["meat"] = "moon"
    assert chef.post("/api/formulas", json={"formula": bad}).status_code == 422
    assert tables.AuditRow.select().count() == before


def test_what_is_new_is_named_and_a_copy_is_told_by_what_was_copied(owner) -> None:
    number = owner.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    assert owner.post(f"/api/formulas/{number}/copy").status_code == 201
    owner.post("/api/weighings", json={"formula_id": number})
    lot = {
        "key": "new", "meat": "chuck", "name": "Chuck of Friday", "left_mass_g": 5000.0, "price_per_kg": "9.40",
        "delivered": "2026-12-04", "use_by": "2026-12-07",
    }  # fmt: skip
    assert owner.post("/api/larder/lots", json={"lot": lot}).status_code == 201
    said = [line["said"] for line in owner.post("/api/audit", json={}).get_json()]
    assert said[:4] == [
        "wrote the lot “Chuck of Friday” down",
        "began to weigh pieces of “Slipway smash”",
        "copied “Slipway smash”",
        "made “Slipway smash”",
    ]


def test_a_line_of_an_earlier_version_names_no_thing_and_says_of_none_that_it_is_gone(owner) -> None:
    for action, about in (
        ("create_formula", "/api/formulas"),
        ("import_formula", "/api/formulas/import"),
        ("begin_cook", "/api/cooks"),
        ("create_service", "/api/services"),
        ("keep_recipe", "/api/recipe/keep"),
    ):
        audit_repository.note(action, about)
    said = [line["said"] for line in owner.post("/api/audit", json={}).get_json()][:5]
    assert said == [
        "put something on the shelf, from a pasted recipe",
        "wrote a service down",
        "began to cook a dish",
        "took a formula in from a file",
        "made a formula",
    ]


def test_what_was_taken_back_names_nothing_when_it_is_tried_again(database) -> None:
    from vianda.storage.actor import Actor, actor, acts, made
    from vianda.storage.transaction import transaction

    acts(Actor(1, "Liv", "create_formula", "/api/formulas"))
    try:
        try:
            with transaction():
                made("/api/formulas/901")
                raise ZeroDivisionError
        except ZeroDivisionError:
            pass
        with transaction():
            made("/api/formulas/902")
            made("/api/formulas/903")
        assert audit_repository.lines(most=1)[0].about == "/api/formulas/902"
        assert actor().noted
    finally:
        acts(None)


def test_a_thing_of_the_larder_is_told_by_the_name_it_has_now_in_its_own_kitchen(owner) -> None:
    meats = owner.get("/api/larder").get_json()["meats"]
    meat = next(m for m in meats if m["key"] == "chuck")
    body = {"meat": meat | {"name": "Chuck, boneless"}, "seen": meat}
    assert owner.put("/api/larder/meats/chuck", json=body).status_code == 200
    panko = next(t for t in owner.get("/api/pantry").get_json()["ingredients"] if t["ingredient"]["key"] == "panko")
    assert owner.put("/api/pantry/panko", json={k: panko[k] for k in ("ingredient", "revision")}).status_code == 200
    now, here = owner.post("/api/audit", json={}).get_json()[0]["at"], tables.KitchenRow.get().id
    for kitchen, key in ((here, "chuck-of-old"), (here + 1, "chuck")):
        line = {"kitchen_id": kitchen, "action": "save_meat", "about": f"/api/larder/meats/{key}"}
        tables.AuditRow.insert(at=now, person="", **line).execute()
    said = [line["said"] for line in owner.post("/api/audit", json={}).get_json()][:4]
    assert said == [
        "changed the meat “chuck”",
        "changed the meat “chuck-of-old”",
        "changed “Panko” in the pantry",
        "changed the meat “Chuck, boneless”",
    ]
