"""People of a kitchen: what each role may do, invitations, names, and who stays."""

from __future__ import annotations

import csv
import io
import re

import pytest

from accounts import OTHER, WORDS, ids_by_name
from vianda.api.permissions import COMPUTES, OPEN, OWN, READS, WRITES
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services import people
from vianda.storage import tables

pytestmark = pytest.mark.usefixtures("quick")


def test_without_accounts_the_one_cook_may_do_everything_and_nobody_is_asked(client) -> None:
    session = client.get("/api/session").get_json()
    assert session == {"accounts": False, "shift": False, "crew": []}
    assert client.get("/api/formulas").status_code == 200
    assert client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).status_code == 201


@pytest.mark.parametrize(
    ("name", "kept"),
    [("  Ines\u200b  Holm\u202e ", "Ines Holm"), ("Ine\u0301s", "Inés"), ("Инес", "Инес"), ("Odd\x00ny\n", "Oddny")],
)
def test_signs_that_cannot_be_seen_do_not_come_into_a_name(client, name: str, kept: str) -> None:
    made = client.post("/api/session/first-owner", json={"name": name, "password": WORDS})
    assert made.get_json()["person"]["name"] == kept


@pytest.mark.parametrize("name", ["", " \u200b ", "Inеs", "A" * 41])
def test_a_name_of_nothing_of_lookalikes_or_too_long_is_refused(client, name: str) -> None:
    made = client.post("/api/session/first-owner", json={"name": name, "password": WORDS})
    assert made.status_code == 422
    assert made.get_json()["fields"][0]["pointer"] == "/name"


def test_an_invitation_works_once_and_for_its_time(app, owner, monkeypatch: pytest.MonkeyPatch) -> None:
    asked = owner.post("/api/people/invitations", json={"name": "Odd", "role": "cook"}).get_json()
    assert asked["picture"].startswith("data:image/svg+xml")
    token = asked["link"].split("/join#")[1]
    browser = app.test_client()
    seen = browser.post("/api/invitations/look", json={"token": token}).get_json()
    assert (seen["name"], seen["role"], seen["again"]) == ("Odd", "cook", False)
    weak = browser.post("/api/invitations/accept", json={"token": token, "password": "short"})
    assert weak.status_code == 422
    done = browser.post("/api/invitations/accept", json={"token": token, "password": OTHER})
    assert done.get_json()["person"]["name"] == "Odd"
    assert browser.get("/api/formulas").status_code == 200
    for path in ("look", "accept"):
        body = {"token": token} | ({"password": OTHER} if path == "accept" else {})
        assert app.test_client().post(f"/api/invitations/{path}", json=body).status_code == 404
    late = owner.post("/api/people/invitations", json={"name": "Late", "role": "cook"}).get_json()["link"].split("#")[1]
    real = tables.InvitationRow.get(tables.InvitationRow.name == "Late").ends_at
    monkeypatch.setattr("vianda.storage.people_repository.now_utc", lambda: real)
    assert app.test_client().post("/api/invitations/look", json={"token": late}).status_code == 404


def test_by_a_new_link_somebody_sets_another_password_and_is_signed_out_elsewhere(app, owner, come_in) -> None:
    odd = come_in("Odd", "cook")
    link = owner.post(f"/api/people/{ids_by_name(owner)['Odd']}/invitation").get_json()["link"]
    browser = app.test_client()
    new = "three gulls beside a red buoy"
    body = {"token": link.split("#")[1], "password": new}
    assert browser.post("/api/invitations/accept", json=body).status_code == 200
    assert odd.get("/api/formulas").status_code == 401
    assert app.test_client().post("/api/session", json={"name": "Odd", "password": OTHER}).status_code == 422
    assert app.test_client().post("/api/session", json={"name": "Odd", "password": new}).status_code == 200


def test_every_operation_that_is_not_a_get_is_known_to_write_or_to_compute(client) -> None:
    contract = client.get("/api/openapi.json").get_json()["paths"]
    named = {o["operationId"]: method for methods in contract.values() for method, o in methods.items()}
    known = set(WRITES) | COMPUTES | OPEN | OWN
    assert {name for name, method in named.items() if method != "get"} - known == set()
    # And nothing stands in the tables that is no operation any more.
    assert (known | set(READS)) - set(named) == set()
    assert set(WRITES) & COMPUTES == set()


@pytest.mark.parametrize(("role", "may"), [("reader", 0), ("cook", 1), ("chef", 2), ("owner", 3)])
def test_each_role_may_do_its_own_and_what_is_below(client, come_in, role: str, may: int) -> None:
    formula = FORMULAS.plain(slipway_smash())
    number = client.post("/api/formulas", json={"formula": formula}).get_json()["id"]
    browser = come_in("Odd", role)
    tried = [
        ("post", "/api/cooks", {"formula_id": number}),
        ("post", "/api/formulas", {"formula": formula}),
        ("post", "/api/people/invitations", {"name": "Third", "role": "cook"}),
    ]
    assert browser.get("/api/formulas").status_code == 200
    assert browser.post("/api/evaluate", json={"formula": formula, "edits": []}).status_code == 200
    for at, (method, path, body) in enumerate(tried):
        answer = getattr(browser, method)(path, json=body)
        assert (answer.status_code == 201) == (at < may), (role, path, answer.get_json())
        if at >= may:
            assert answer.status_code == 403
            assert f"signed in as {role}" in answer.get_json()["detail"]


def test_no_role_reaches_above_itself_by_any_operation(app, come_in) -> None:
    """Each write is asked by a role just below its own, with nothing in it: the refusal comes before all else."""
    order = people.ROLES
    browsers = {role: come_in(f"The {role}", role) for role in order[:-1]}
    rules = {rule.endpoint.rsplit(".", 1)[-1]: rule for rule in app.url_map.iter_rules()}
    for operation, role in {**WRITES, **READS}.items():
        rule = rules[operation]
        path = re.sub(r"<[^>]+>", "1", rule.rule)
        [method] = rule.methods - {"HEAD", "OPTIONS"}
        below = browsers[order[order.index(role) - 1]]
        assert below.open(path, method=method, json={}).status_code == 403, operation


def _table(client, path: str) -> list[dict[str, str]]:
    return list(csv.DictReader(io.StringIO(client.get(path).get_data(as_text=True))))


def test_versions_cooks_weighings_and_checks_carry_the_name(come_in, owner) -> None:
    chef, cook = come_in("Odd", "chef"), come_in("Liv", "cook")
    number = chef.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    assert chef.get(f"/api/formulas/{number}").get_json()["changed_by"] == "Odd"
    chef.post(f"/api/formulas/{number}/versions", json={"name": "First"})
    assert chef.get(f"/api/formulas/{number}/versions").get_json()[0]["kept_by"] == "Odd"
    begun = cook.post("/api/cooks", json={"formula_id": number}).get_json()
    assert begun["begun_by"] == "Liv"
    noted = {"outcome": {"note": "x"}, "revision": begun["revision"]}
    assert owner.put(f"/api/cooks/{begun['id']}/outcome", json=noted).get_json()["noted_by"] == "Ines Holm"
    weighed = cook.post("/api/weighings", json={"formula_id": number}).get_json()
    assert owner.get(f"/api/weighings/{weighed['id']}").get_json()["begun_by"] == "Liv"
    [line] = owner.get(f"/api/formulas/{number}/weighings").get_json()
    assert line["begun_by"] == "Liv"
    # The files that leave say so too.
    [row] = _table(owner, "/api/logbook/cooks.csv")
    assert (row["begun_by"], row["noted_by"]) == ("Liv", "Ines Holm")
    assert _table(owner, "/api/weighings.csv")[0]["begun_by"] == "Liv"
    check = {"token": "check-0001", "kind": "measured", "minute": 540, "check": "cold/own-1", "temp": 3.2}
    cook.post("/api/checks/events", json={"day": "2026-12-04", "event": check | {"remark": "Walk-in"}})
    span = {"from_day": "2026-12-04", "to_day": "2026-12-04"}
    sheet = owner.post("/api/checks", json=span).get_json()["sheets"][0]
    assert sheet["rows"][0]["readings"][0]["who"] == "Liv"


def test_one_owner_with_a_password_stays(owner, come_in) -> None:
    ines = ids_by_name(owner)["Ines Holm"]
    for method, path, body in (
        ("put", f"/api/people/{ines}/role", {"role": "chef"}),
        ("put", f"/api/people/{ines}/disabled", {"disabled": True}),
        ("delete", f"/api/people/{ines}", None),
    ):
        refused = getattr(owner, method)(path, json=body)
        assert refused.status_code == 422, path
        assert "owner" in refused.get_json()["detail"] or "command line" in refused.get_json()["detail"]
    come_in("Odd", "owner")
    assert owner.put(f"/api/people/{ines}/role", json={"role": "chef"}).get_json()["role"] == "chef"
    # From this moment on it is a chef who asks.
    assert owner.get("/api/people").status_code == 403


def test_somebody_disabled_is_out_at_once_and_can_be_let_in_again(app, owner, come_in) -> None:
    odd = come_in("Odd", "cook")
    number = ids_by_name(owner)["Odd"]
    owner.put(f"/api/people/{number}/disabled", json={"disabled": True})
    assert odd.get("/api/formulas").status_code == 401
    assert app.test_client().post("/api/session", json={"name": "Odd", "password": OTHER}).status_code == 422
    owner.put(f"/api/people/{number}/disabled", json={"disabled": False})
    assert app.test_client().post("/api/session", json={"name": "Odd", "password": OTHER}).status_code == 200


def test_who_is_deleted_leaves_no_name_behind(owner, come_in) -> None:
    odd = come_in("Odd Berg", "chef")
    number = odd.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    odd.post(f"/api/formulas/{number}/versions", json={"name": "First"})
    cook = odd.post("/api/cooks", json={"formula_id": number}).get_json()["id"]
    assert owner.delete(f"/api/people/{ids_by_name(owner)['Odd Berg']}").status_code == 204
    assert odd.get("/api/formulas").status_code == 401
    assert owner.get(f"/api/formulas/{number}").get_json()["changed_by"] == "somebody who left"
    assert owner.get(f"/api/cooks/{cook}").get_json()["begun_by"] == "somebody who left"
    for table in (tables.PersonRow, tables.AuditRow, tables.FormulaRow, tables.VersionRow, tables.CookRow):
        assert all("Odd Berg" not in str(row.__data__) for row in table.select()), table


def test_the_same_name_in_other_letters_is_the_same_name(owner, come_in) -> None:
    come_in("Odd Berg", "cook")
    for name in ("odd berg", "ODD BERG", " Odd  Berg\u200b"):
        again = owner.post("/api/people/invitations", json={"name": name, "role": "cook"})
        assert again.status_code == 422, name
