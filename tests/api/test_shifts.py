"""A device of a shift: taken up by PIN, for what a shift is, until it is over."""

from __future__ import annotations

import re

import pytest

from accounts import OTHER, WORDS
from vianda.api.permissions import WRITES
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

pytestmark = pytest.mark.usefixtures("quick")


def test_a_device_of_a_shift_is_taken_up_by_pin_until_five_are_wrong(app, come_in) -> None:
    cook = come_in("Odd", "cook", pin="4827")
    begun = cook.post("/api/session/shift")
    assert begun.get_json()["shift"]
    person = begun.get_json()["crew"][0]["id"]
    cook.delete("/api/session")
    locked = cook.get("/api/session").get_json()
    assert locked["shift"]
    assert [p["name"] for p in locked["crew"]] == ["Odd"]
    assert cook.get("/api/formulas").status_code == 401
    taken = cook.post("/api/session/pin", json={"person_id": person, "pin": "4827"})
    assert taken.get_json()["by"] == "pin"
    assert cook.get("/api/formulas").status_code == 200
    # With a PIN nobody changes what only a password lets them.
    refused = cook.put("/api/session/password", json={"old": OTHER, "new": WORDS})
    assert refused.status_code == 422
    cook.delete("/api/session")
    for left in (4, 3, 2, 1):
        wrong = cook.post("/api/session/pin", json={"person_id": person, "pin": "1111"})
        assert f"{left} more" in wrong.get_json()["detail"]
    assert (
        "shift is over" in cook.post("/api/session/pin", json={"person_id": person, "pin": "1111"}).get_json()["detail"]
    )
    assert not cook.get("/api/session").get_json()["shift"]
    assert cook.post("/api/session/pin", json={"person_id": person, "pin": "4827"}).status_code == 422
    # And from a device of no shift a PIN is worth nothing.
    assert app.test_client().post("/api/session/pin", json={"person_id": person, "pin": "4827"}).status_code == 422


def test_an_owner_who_came_in_by_pin_does_what_a_chef_does_and_no_more(app, owner) -> None:
    assert owner.put("/api/session/my-pin", json={"password": WORDS, "pin": "4827"}).status_code == 204
    crew = owner.post("/api/session/shift").get_json()["crew"]
    owner.delete("/api/session")
    assert owner.post("/api/session/pin", json={"person_id": crew[0]["id"], "pin": "4827"}).status_code == 200
    number = owner.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    assert number
    contract = owner.get("/api/openapi.json").get_json()["paths"]
    tried = 0
    for path, ways in contract.items():
        for method, said in ways.items():
            if WRITES.get(said.get("operationId")) == "owner":
                refused = owner.open(re.sub(r"{\w+}", "1", path), method=method.upper(), json={})
                assert (refused.status_code, refused.get_json()["type"]) == (403, "urn:vianda:problem:password-wanted")
                tried += 1
    assert tried == sum(role == "owner" for role in WRITES.values())
    # Signing out of the shift's device is theirs, and so is the way back by password.
    assert owner.delete("/api/session").status_code == 200
    assert owner.post("/api/session", json={"name": "Ines Holm", "password": WORDS}).status_code == 200
    assert owner.get("/api/people").status_code == 200


def test_the_end_of_a_shift_signs_out_who_came_by_it(come_in) -> None:
    cook = come_in("Odd", "cook", pin="4827")
    crew = cook.post("/api/session/shift").get_json()["crew"]
    cook.delete("/api/session")
    cook.post("/api/session/pin", json={"person_id": crew[0]["id"], "pin": "4827"})
    kept = cook.get_cookie("vianda").value
    assert cook.delete("/api/session/shift").status_code == 200
    cook.set_cookie("vianda", kept)
    assert cook.get("/api/formulas").status_code == 401


@pytest.mark.parametrize("pin", ["123", "1234", "9876", "5555", "12a4", "123456789", "１２３９"])
def test_a_pin_that_is_none_or_is_tried_first_is_refused(owner, pin: str) -> None:
    answer = owner.put("/api/session/my-pin", json={"password": WORDS, "pin": pin})
    assert answer.status_code == 422
    assert owner.put("/api/session/my-pin", json={"password": WORDS, "pin": "4827"}).status_code == 204
    assert owner.put("/api/session/my-pin", json={"password": OTHER, "pin": "4827"}).status_code == 422
