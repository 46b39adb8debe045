"""Every format that leaves the house, read by a reader that is not ours.

JSON by ``jsonschema`` against the schemas that are handed out, JSON-LD by ``pyld`` (expanded to triples), iCalendar by
``icalendar``, CSV by the standard library in its strict mode.
"""

from __future__ import annotations

import csv
import io
import json
import zipfile
from typing import Any

import pytest
from icalendar import Calendar
from jsonschema import Draft202012Validator
from pyld import jsonld
from referencing import Registry, Resource

from photograph_files import camera_file
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS

DAYS = ("2026-12-01", "2026-12-31")
# A name that a table program would run, with every sign that CSV quotes.
NAME = '=HYPERLINK("x"), "smash"'


@pytest.fixture
def lived_in(client) -> Any:
    """A kitchen with one record of each kind, under a name that is hard to write."""
    formula = FORMULAS.plain(slipway_smash()) | {"name": NAME}
    number = client.post("/api/formulas", json={"formula": formula}).get_json()["id"]
    client.post(f"/api/formulas/{number}/versions", json={"name": "As it was"})
    timing = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    dishes = [{"formula_id": number, "guests": 20}]
    service = {"name": "Friday burgers", "day": "2026-12-04", "dishes": dishes, "timing": timing}
    assert client.post("/api/services", json={"service": service}).status_code == 201
    cook = client.post("/api/cooks", json={"formula_id": number}).get_json()
    client.post(
        f"/api/cooks/{cook['id']}/events",
        json={"token": "event-0001", "kind": "probe", "place": 0, "value": 61.0, "late_s": 5.0},
    )
    said = {"outcome": {"note": "line one\nline two, with a comma", "crust": 4}, "revision": cook["revision"]}
    assert client.put(f"/api/cooks/{cook['id']}/outcome", json=said).status_code == 200
    client.post(f"/api/cooks/{cook['id']}/photographs", data=camera_file(640, 480), content_type="image/jpeg")
    weighing = client.post("/api/weighings", json={"formula_id": number}).get_json()["id"]
    for action in ("piece", "keep"):
        body = {"token": f"token-{action}", "action": action, "seen_g": 85, "seen_at": 5.0}
        client.post(f"/api/weighings/{weighing}/actions", json=body)
    check = {"token": "check-0001", "kind": "measured", "minute": 540, "check": "cold/own-1", "temp": 3.2}
    check |= {"who": "Ines", "remark": "-1 shelf"}
    assert client.post("/api/checks/events", json={"day": "2026-12-04", "event": check}).status_code == 200
    client.formula = number
    return client


def _table(client, path: str) -> list[dict[str, str]]:
    answer = client.get(path)
    assert answer.status_code == 200, path
    assert answer.content_type.startswith("text/csv")
    text = answer.get_data().decode("utf-8")
    # RFC 4180: records end with CR LF, and each has as many fields as the heading.
    assert text.endswith("\r\n")
    rows = list(csv.reader(io.StringIO(text, newline=""), strict=True))
    assert all(len(row) == len(rows[0]) for row in rows), path
    # What begins so is run by table programs.
    for cell in (cell for row in rows[1:] for cell in row):
        assert not cell.startswith(("=", "+", "@", "\t")), cell
        assert not cell.startswith("-") or cell[1:].replace(".", "").isdigit(), cell
    return [dict(zip(rows[0], row, strict=True)) for row in rows[1:]]


@pytest.mark.parametrize(
    ("path", "column"),
    [
        ("/api/larder/file.csv", "name"),
        ("/api/pantry/file.csv", "name"),
        ("/api/logbook/cooks.csv", "formula"),
        ("/api/weighings.csv", "formula"),
        (f"/api/shopping/{DAYS[0]}/{DAYS[1]}/list.csv", "for"),
        (f"/api/prep/{DAYS[0]}/{DAYS[1]}/list.csv", "name"),
        (f"/api/butcher/{DAYS[0]}/{DAYS[1]}/slip.csv", "name"),
        (f"/api/checks/{DAYS[0]}/{DAYS[1]}/record.csv", "check"),
    ],
)
def test_every_table_is_rfc_4180_and_runs_nowhere(lived_in, path: str, column: str) -> None:
    rows = _table(lived_in, path)
    assert rows
    assert all(column in row for row in rows)


def test_a_cook_comes_back_from_its_table_as_it_was_said(lived_in) -> None:
    [row] = _table(lived_in, "/api/logbook/cooks.csv")
    assert row["formula"] == f"'{NAME}"
    assert row["note"] == "line one\nline two, with a comma"
    [weighed] = _table(lived_in, "/api/weighings.csv")
    assert weighed["formula"] == f"'{NAME}"
    assert float(weighed["tolerance_g"]) > 0


def test_a_formula_and_a_service_fit_their_schemas(lived_in) -> None:
    formula_schema = lived_in.get("/api/schema/formula-file").get_json()
    service_schema = lived_in.get("/api/schema/service-file").get_json()
    formula = lived_in.get(f"/api/formulas/{lived_in.formula}/export").get_json()
    service = lived_in.get(f"/api/services/{lived_in.get('/api/services').get_json()[0]['id']}/export").get_json()
    named = Registry().with_resource("formula-file.schema.json", Resource.from_contents(formula_schema))
    Draft202012Validator.check_schema(formula_schema)
    Draft202012Validator(formula_schema).validate(formula)
    Draft202012Validator(service_schema, registry=named).validate(service)
    # And the schema can refuse.
    assert list(Draft202012Validator(formula_schema).iter_errors(formula | {"colour": "red"}))
    formula["formula"]["parts"][0]["share_frac"] = 2
    assert list(Draft202012Validator(formula_schema).iter_errors(formula))


def test_every_part_of_a_kitchen_archive_fits_its_schema(lived_in) -> None:
    schemas = lived_in.get("/api/schema/kitchen-archive").get_json()["parts"]
    seen = set()
    with zipfile.ZipFile(io.BytesIO(lived_in.get("/api/archive").get_data())) as archive:
        assert archive.testzip() is None
        for name in archive.namelist():
            if name.startswith("photographs/"):
                assert archive.read(name).startswith(b"\xff\xd8")
                continue
            part = name.split("-")[0].removesuffix(".json")
            seen.add(part)
            Draft202012Validator.check_schema(schemas[part])
            Draft202012Validator(schemas[part]).validate(json.loads(archive.read(name)))
    assert {"archive", "kitchen", "formulas", "cooks", "weighings", "evenings", "photographs"} <= seen


def test_a_recipe_is_linked_data(lived_in) -> None:
    recipe = lived_in.get(f"/api/formulas/{lived_in.formula}/recipe").get_json()
    assert recipe["@context"] == "https://schema.org"
    # The vocabulary itself is on the net; its terms are names below its address.
    local = recipe | {"@context": {"@vocab": "https://schema.org/"}}
    [expanded] = jsonld.expand(local)
    assert expanded["@type"] == ["https://schema.org/Recipe"]
    assert expanded["https://schema.org/name"] == [{"@value": NAME}]
    assert len(expanded["https://schema.org/recipeIngredient"]) >= 3
    steps = expanded["https://schema.org/recipeInstructions"]
    assert {kind for step in steps for kind in step["@type"]} == {"https://schema.org/HowToStep"}
    assert "https://schema.org/Recipe" in jsonld.to_rdf(local, {"format": "application/n-quads"})


def test_the_calendar_is_read_with_its_day_and_hour(lived_in) -> None:
    read = Calendar.from_ical(lived_in.get("/api/services/calendar.ics").get_data())
    [event] = read.walk("VEVENT")
    assert str(event["SUMMARY"]) == "Friday burgers"
    assert event.decoded("DTSTART").isoformat() == "2026-12-04T18:30:00"


def test_the_contract_names_every_file_that_can_be_saved(lived_in) -> None:
    contract = lived_in.get("/api/openapi.json").get_json()
    given = {
        media
        for methods in contract["paths"].values()
        for operation in methods.values()
        for code, answer in operation["responses"].items()
        if code.startswith("2")
        for media in answer.get("content", {})
    }
    assert {"text/csv", "text/calendar", "application/zip", "image/jpeg", "application/json"} <= given


def test_a_pantry_file_is_read_back_row_by_row(lived_in) -> None:
    text = lived_in.get("/api/pantry/file.csv").get_data().decode()
    same = lived_in.post("/api/pantry/file", json={"text": text}).get_json()["rows"]
    assert {row["outcome"] for row in same} == {"unchanged"}
    rows = list(csv.DictReader(io.StringIO(text, newline="")))
    panko = next(row for row in rows if row["key"] == "panko")
    changed = panko | {"price_per_kg": "7.10", "pieces": "box = 200; sheet = 4.5"}
    new = panko | {"key": "sea-crumbs", "name": "Sea crumbs", "pieces": "", "house": "", "aliases": ""}
    bad = [
        panko | {"key": "no-price", "price_per_kg": "cheap"},
        panko | {"key": "too-wet", "name": "Too wet", "water_g_per_100g": "180"},
        panko | {"key": "odd-piece", "name": "Odd", "pieces": "egg 50"},
        panko | {"key": "odd-allergen", "name": "Odd two", "allergens": "moonlight"},
        panko | {"key": "twice", "name": "Panko"},
    ]
    out = io.StringIO()
    writer = csv.DictWriter(out, list(panko))
    writer.writeheader()
    writer.writerows([changed, new, *bad])
    report = lived_in.post("/api/pantry/file", json={"text": out.getvalue()}).get_json()["rows"]
    assert [row["outcome"] for row in report] == ["corrected", "added", *["refused"] * 5]
    reasons = [row["reason"] for row in report[2:]]
    assert "price_per_kg" in reasons[0]
    assert "water_g_per_100g" in reasons[1]
    assert "large egg = 50" in reasons[2]
    assert "fourteen" in reasons[3]
    things = {t["ingredient"]["key"]: t["ingredient"] for t in lived_in.get("/api/pantry").get_json()["ingredients"]}
    assert things["panko"]["price_per_kg"] == "7.10"
    assert [p["mass_g"] for p in things["panko"]["pieces"]] == [200, 4.5]
    assert "sea-crumbs" in things
    assert not {"no-price", "too-wet", "odd-piece", "odd-allergen", "twice"} & set(things)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "lacks key"),
        ("key,name\r\n", "lacks group"),
        ("key,colour\r\n", "which no pantry has"),
        ("key,name,group,price_per_kg\r\n" + "x" * 140_000, "breaks off"),
    ],
)
def test_a_table_that_is_no_pantry_is_refused_whole(client, text: str, says: str) -> None:
    answer = client.post("/api/pantry/file", json={"text": text})
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]


def test_house_formulas_are_left_alone_when_a_pantry_is_read_back(client) -> None:
    text = client.get("/api/pantry/file.csv").get_data().decode()
    rows = client.post("/api/pantry/file", json={"text": text}).get_json()["rows"]
    house = [row for row in rows if "follows from its lines" in row["reason"]]
    assert len(house) == 3
    assert keepers_loaf().name
