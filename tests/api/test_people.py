"""Accounts: who is let in, what each role may do, and that each way in can be closed again."""

from __future__ import annotations

import csv
import io
import re
from datetime import timedelta

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


def test_with_the_first_owner_everybody_signs_in(app, owner) -> None:
    stranger = app.test_client()
    for method, path in (
        ("get", "/api/formulas"),
        ("post", "/api/shelf"),
        ("get", "/api/openapi.json"),
        ("get", "/api/x"),
    ):
        refused = getattr(stranger, method)(path)
        assert refused.status_code == 401, path
        assert refused.get_json()["type"].endswith("sign-in")
    assert stranger.get("/api/live").status_code == 200
    assert stranger.get("/api/session").get_json() == {"accounts": True, "shift": False, "crew": []}
    again = stranger.post("/api/session/first-owner", json={"name": "Odd", "password": OTHER})
    assert again.status_code == 422
    assert owner.get("/api/formulas").status_code == 200


def test_signing_in_sets_a_cookie_that_only_this_server_reads(app, owner) -> None:
    browser = app.test_client()
    done = browser.post("/api/session", json={"name": "ines holm", "password": WORDS})
    assert done.get_json()["person"]["role"] == "owner"
    [cookie] = [c for c in done.headers.getlist("Set-Cookie") if c.startswith("vianda=")]
    for mark in ("HttpOnly", "SameSite=Strict", "Path=/"):
        assert mark in cookie
    assert "Secure" not in cookie
    token = re.match(r"vianda=([^;]+)", cookie)[1]
    assert len(token) >= 43
    assert all(token not in str(row.__data__) for row in tables.SignedInRow.select())
    over_tls = browser.post(
        "/api/session", json={"name": "Ines Holm", "password": WORDS}, base_url="https://localhost/"
    )
    [secure] = [c for c in over_tls.headers.getlist("Set-Cookie") if c.startswith("__Host-vianda=")]
    assert "Secure" in secure


def test_a_wrong_name_and_a_wrong_password_are_told_alike(app, owner) -> None:
    browser = app.test_client()
    first = browser.post("/api/session", json={"name": "Ines Holm", "password": OTHER})
    second = browser.post("/api/session", json={"name": "Nobody", "password": OTHER})
    assert first.status_code == second.status_code == 422
    assert first.get_json() == second.get_json()
    assert browser.get("/api/formulas").status_code == 401


def test_signed_out_and_revoked_sign_ins_are_over_at_once(app, owner) -> None:
    browser = app.test_client()
    browser.post("/api/session", json={"name": "Ines Holm", "password": WORDS})
    kept = browser.get_cookie("vianda").value
    assert browser.get("/api/formulas").status_code == 200
    assert browser.delete("/api/session").status_code == 200
    browser.set_cookie("vianda", kept)
    assert browser.get("/api/formulas").status_code == 401
    browser.post("/api/session", json={"name": "Ines Holm", "password": WORDS})
    places = owner.get("/api/session/places").get_json()
    [other] = [place for place in places if not place["here"]]
    assert owner.delete(f"/api/session/places/{other['key']}").status_code == 204
    assert browser.get("/api/formulas").status_code == 401
    assert owner.get("/api/formulas").status_code == 200


@pytest.mark.parametrize("key", ["%C2%BD", "none", "0" * 64])
def test_a_sign_in_that_is_not_there_is_said_to_be_missing(owner, key: str) -> None:
    assert owner.delete(f"/api/people/places/{key}").status_code == 404
    assert owner.delete(f"/api/session/places/{key}").status_code == 404


def test_a_sign_in_ends_by_time_and_by_idleness(owner, monkeypatch: pytest.MonkeyPatch) -> None:
    real = tables.SignedInRow.get().created_at
    for later, status in (
        (people.sign_in_times().idle - timedelta(minutes=1), 200),
        (people.sign_in_times().idle, 401),
    ):
        moment = real + later
        monkeypatch.setattr("vianda.storage.people_repository.now_utc", lambda moment=moment: moment)
        monkeypatch.setattr("vianda.storage.people_repository.SEEN_EVERY", timedelta(days=999))
        assert owner.get("/api/formulas").status_code == status


def test_somebody_seen_now_and_then_stays_in_until_the_end(owner, monkeypatch: pytest.MonkeyPatch) -> None:
    real = tables.SignedInRow.get().created_at
    for day in range(0, people.sign_in_times().lasts.days, 3):
        monkeypatch.setattr("vianda.storage.people_repository.now_utc", lambda day=day: real + timedelta(days=day))
        assert owner.get("/api/formulas").status_code == 200
    monkeypatch.setattr("vianda.storage.people_repository.now_utc", lambda: real + people.sign_in_times().lasts)
    assert owner.get("/api/formulas").status_code == 401


def test_a_kitchen_says_how_long_a_sign_in_lasts(database, mariadb, monkeypatch: pytest.MonkeyPatch) -> None:
    from vianda.app import create_app

    # As OWASP ASVS 4.0.3 has it at level 2 (3.3.2).
    monkeypatch.setenv("VIANDA_SIGN_IN_LASTS_H", "12")
    monkeypatch.setenv("VIANDA_SIGN_IN_IDLE_MIN", "30")
    client = create_app({"DATABASE_URL": mariadb.url, "PAGES": None}).test_client()
    made = client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": WORDS})
    assert "Max-Age=43200;" in made.headers["Set-Cookie"]
    real, until = tables.SignedInRow.get().created_at, tables.SignedInRow.get().ends_at
    assert until - real == timedelta(hours=12)
    for later, status in ((29, 200), (58, 200), (88, 401)):
        monkeypatch.setattr("vianda.storage.people_repository.now_utc", lambda m=later: real + timedelta(minutes=m))
        assert client.get("/api/formulas").status_code == status


@pytest.mark.parametrize(
    ("name", "text"),
    [
        ("LASTS_H", "0"),
        ("LASTS_H", "2161"),
        ("LASTS_H", "1.5"),
        ("IDLE_MIN", "9"),
        ("IDLE_MIN", "²"),
        ("IDLE_MIN", "-30"),
    ],
)
def test_times_that_are_none_are_refused_at_the_start(mariadb, monkeypatch, name: str, text: str) -> None:
    from vianda.app import create_app

    monkeypatch.setenv(f"VIANDA_SIGN_IN_{name}", text)
    with pytest.raises(SystemExit, match=rf"VIANDA_SIGN_IN_{name} is \d+ to \d+ whole"):
        create_app({"DATABASE_URL": mariadb.url, "PAGES": None})


@pytest.mark.parametrize(
    ("password", "says"),
    [
        ("", "at least 12"),
        ("eleven sign", "at least 12"),
        ("x" * 129, "at most 128"),
        ("passwordpassword", "soon guessed"),
        ("aaaaaaaaaaaaaaaa", "soon guessed"),
        ("Ines Holm 99", "soon guessed"),
    ],
)
def test_a_password_that_is_soon_guessed_is_refused(client, password: str, says: str) -> None:
    answer = client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": password})
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]
    assert not client.get("/api/session").get_json()["accounts"]


@pytest.mark.parametrize(
    "password",
    ["twelve signs!", "w" + "ordy herring " * 8 + "crates zebra", "пять ящиков сельди", "🐟 zeven kisten 🐟"],
)
def test_a_password_may_be_long_and_in_any_script(client, app, password: str) -> None:
    made = client.post("/api/session/first-owner", json={"name": "Ines", "password": password})
    assert made.status_code == 200, made.get_json()
    assert app.test_client().post("/api/session", json={"name": "Ines", "password": password}).status_code == 200


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


def test_tries_are_limited_by_name_and_by_address(database, mariadb) -> None:
    from vianda.app import create_app

    client = create_app({"DATABASE_URL": mariadb.url, "PAGES": None}).test_client()
    client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": WORDS})
    client.delete("/api/session")
    right, wrong = {"name": "Ines Holm", "password": WORDS}, {"name": "Ines Holm", "password": OTHER}
    for _ in range(2):
        # Who is right in the end begins anew: a tablet is handed to and fro all evening.
        assert [client.post("/api/session", json=wrong).status_code for _ in range(4)] == [422] * 4
        assert client.post("/api/session", json=right).status_code == 200
    assert [client.post("/api/session", json=wrong).status_code for _ in range(5)] == [422] * 5
    last = client.post("/api/session", json=right)
    assert (last.status_code, last.get_json()["type"].rsplit(":", 1)[-1]) == (429, "too-often")
    assert 0 < int(last.headers["Retry-After"]) <= 900
    assert re.fullmatch(r"That was tried too often\. Wait (a minute|1?\d minutes)\.", last.get_json()["detail"])
    # Another name is not shut out by it, until thirty came from one place.
    others = [client.post("/api/session", json=wrong | {"name": f"Nobody {n}"}).status_code for n in range(16)]
    assert others == [422] * 14 + [429] * 2


def test_tries_of_one_s_own_password_are_limited_by_person(database, mariadb) -> None:
    from vianda.app import create_app

    client = create_app({"DATABASE_URL": mariadb.url, "PAGES": None}).test_client()
    client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": WORDS})
    asked = [client.put("/api/session/my-pin", json={"password": OTHER, "pin": "4827"}).status_code for _ in range(6)]
    assert asked == [422] * 5 + [429]
    changed = [client.put("/api/session/password", json={"old": OTHER, "new": WORDS}).status_code for _ in range(6)]
    assert changed == [422] * 5 + [429]


def test_from_elsewhere_nothing_is_answered_until_there_is_an_owner(database, mariadb) -> None:
    from vianda.app import create_app

    more = {
        "DATABASE_URL": mariadb.url,
        "PAGES": None,
        "RATELIMIT_ENABLED": False,
        "HOSTS": frozenset({"galley.local"}),
    }
    client = create_app(more).test_client()
    there = {"base_url": "https://galley.local/"}
    refused = client.get("/api/formulas", **there)
    assert refused.status_code == 403
    assert refused.get_json()["type"].endswith("no-owner")
    made = client.post("/api/session/first-owner", json={"name": "Thief", "password": WORDS}, **there)
    assert made.status_code == 403
    assert client.get("/api/formulas", base_url="https://other.local/").get_json()["type"].endswith("foreign-host")
    client.post("/api/session/first-owner", json={"name": "Ines Holm", "password": WORDS})
    assert client.get("/api/formulas", **there).status_code == 401
    done = client.post("/api/session", json={"name": "Ines Holm", "password": WORDS}, **there)
    assert done.status_code == 200
    assert client.get("/api/formulas", **there).status_code == 200


def test_another_site_cannot_ask_with_the_cookie(owner) -> None:
    body = {"formula": FORMULAS.plain(slipway_smash())}
    for headers in ({"Origin": "https://elsewhere.example"}, {"Sec-Fetch-Site": "cross-site"}, {"Origin": "null"}):
        assert owner.post("/api/formulas", json=body, headers=headers).status_code == 403
    # A form of another site can send text, not JSON.
    sent = owner.post("/api/formulas", data="{}", content_type="text/plain")
    assert sent.status_code == 415


def test_two_edits_are_put_together_over_the_wire(client) -> None:
    base = FORMULAS.plain(slipway_smash())
    mine, theirs = base | {"remark": "mine"}, base | {"name": "Theirs"}
    body = {"base": base, "mine": mine, "theirs": theirs}
    done = client.post("/api/formulas/merge", json=body).get_json()
    assert done["problem"] == ""
    assert (done["merged"]["formula"]["name"], done["merged"]["formula"]["remark"]) == ("Theirs", "mine")
    assert [line["what"] for line in done["merged"]["theirs"]] == ["Name"]
    bad = client.post("/api/formulas/merge", json=body | {"prefer": "nobody"})
    assert bad.status_code == 422


def test_who_comes_from_elsewhere_is_not_of_this_machine_whatever_name_they_use(client) -> None:
    for host in ("127.0.0.1", "localhost:8427", "[::1]"):
        there = {"base_url": f"http://{host}/", "environ_base": {"REMOTE_ADDR": "10.0.0.9"}}
        assert client.get("/api/formulas", **there).status_code == 403
        made = client.post("/api/session/first-owner", json={"name": "Thief", "password": WORDS}, **there)
        assert made.status_code == 403
    assert client.get("/api/formulas").status_code == 200


def _as(person_id: int) -> dict[str, str]:
    return {"Vianda-Person": str(person_id)}


def test_what_one_did_is_never_taken_under_the_name_of_who_came_after_them(owner, come_in) -> None:
    liv = come_in("Liv", "cook")
    number = owner.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()["id"]
    ids, begin = ids_by_name(owner), {"formula_id": number}
    before = len(owner.get("/api/cooks").get_json())
    # A window that Odd left open on Liv's tablet.
    late = liv.post("/api/cooks", json=begin, headers=_as(ids["Ines Holm"]))
    assert (late.status_code, late.get_json()["type"].rsplit(":", 1)[-1]) == (401, "another-person")
    assert "Liv is signed in" in late.get_json()["detail"]
    assert liv.get("/api/formulas", headers=_as(ids["Ines Holm"])).status_code == 401
    assert len(owner.get("/api/cooks").get_json()) == before
    # Nor is somebody signed out by it, whom the window does not know.
    assert liv.delete("/api/session", headers=_as(ids["Ines Holm"])).status_code == 401
    # Who is there may always be asked, and their own window works.
    assert liv.get("/api/session", headers=_as(ids["Ines Holm"])).get_json()["person"]["name"] == "Liv"
    assert liv.post("/api/cooks", json=begin, headers=_as(ids["Liv"])).status_code == 201
    for odd in ("", "0", "Liv", "1e3", "²", "9" * 400):
        assert (
            liv.post("/api/cooks", json=begin, headers={"Vianda-Person": odd.encode().decode("latin-1")}).status_code
            == 401
        )


def test_an_answer_that_is_kept_is_its_asker_s(owner, come_in) -> None:
    odd, liv = come_in("Odd", "chef"), come_in("Liv", "chef")
    body, token = {"formula": FORMULAS.plain(slipway_smash())}, {"Idempotency-Key": "the-same-token"}
    first = odd.post("/api/formulas", json=body, headers=token)
    again = odd.post("/api/formulas", json=body, headers=token)
    assert (first.status_code, again.get_json()) == (201, first.get_json())
    assert liv.post("/api/formulas", json=body, headers=token).status_code == 422
