"""A whole kitchen out as one archive and in again: looked at, all or nothing, and never misread."""

from __future__ import annotations

import hashlib
import io
import json
import zipfile
from collections.abc import Callable
from typing import Any

import pytest

from photograph_files import camera_file
from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.interchange.kitchen_archive import MANIFEST, UnreadableArchiveError
from vianda.storage import tables

ZIP = "application/zip"
NAMES = {
    tables.FormulaRow.changed_by: "Odd", tables.VersionRow.kept_by: "Astri", tables.CookRow.begun_by: "Liv",
    tables.CookRow.noted_by: "Ines", tables.ServiceRow.changed_by: "Sindre", tables.WeighingRow.begun_by: "Runa",
}  # fmt: skip


@pytest.fixture
def lived_in(client) -> Any:
    """The demo kitchen with a version, a cook with a photograph, a weighing, a service with a check, and a tasting."""
    # Two that are alike: what follows is of the second alone.
    for _ in range(2):
        formula = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    number = formula["id"]
    for name in ("First", "Second"):
        assert client.post(f"/api/formulas/{number}/versions", json={"name": name}).status_code == 201
    cook = client.post("/api/cooks", json={"formula_id": number}).get_json()
    event = {"token": "event-0001", "kind": "probe", "place": 0, "value": 61.0, "late_s": 5.0}
    client.post(f"/api/cooks/{cook['id']}/events", json=event)
    outcome = {"cooked_mass_g": 2700.0, "crust": 4, "note": "=1+1 said the cook", "next_time": "less salt"}
    client.put(f"/api/cooks/{cook['id']}/outcome", json={"outcome": outcome, "revision": cook["revision"]})
    client.post(f"/api/cooks/{cook['id']}/photographs", data=camera_file(640, 480), content_type="image/jpeg")
    weighing = client.post("/api/weighings", json={"formula_id": number}).get_json()
    body = {"token": "token-weigh-1", "action": "piece"}
    assert client.post(f"/api/weighings/{weighing['id']}/actions", json=body).status_code == 200
    service = {"name": "Friday burgers", "day": "2026-12-04", "dishes": [{"formula_id": number, "guests": 20}]}
    service["timing"] = {"ready_min": 1110, "cooks": 2, "opens_min": -1, "own": [], "pins": []}
    served = client.post("/api/services", json={"service": service}).get_json()["id"]
    said = {"token": "token-run-1", "kind": "begin", "minute": -40, "task": f"f{number}-preheat"}
    run = {"day": "2026-12-04", "event": said}
    assert client.post(f"/api/services/{served}/run/events", json=run).status_code == 200
    check = {"token": "check-0001", "kind": "measured", "minute": 540, "check": "cold/own-1", "temp": 3.2}
    assert client.post("/api/checks/events", json={"day": "2026-12-04", "event": check}).status_code == 200
    # As if they had been signed in, each with a name of their own.
    for column, name in NAMES.items():
        column.model.update({column: name}).execute()
    return client


def _archive(client, kitchen: int | None = None) -> bytes:
    headers = {"Vianda-Kitchen": str(kitchen)} if kitchen else {}
    answer = client.get("/api/archive", headers=headers)
    assert answer.status_code == 200
    assert answer.content_type == ZIP
    assert ".vianda.zip" in answer.headers["Content-Disposition"]
    return answer.data


def _look(client, data: bytes, into: str = "here", differing: str = "keep", **headers: str):
    return client.post(f"/api/archive/look/{into}/{differing}", data=data, content_type=ZIP, headers=headers)


def _bring(client, data: bytes, digest: str, into: str = "here", differing: str = "keep", **headers: str):
    where = f"/api/archive/bring/{into}/{differing}/{digest}"
    return client.post(where, data=data, content_type=ZIP, headers=headers)


def _counts(report: dict[str, Any]) -> dict[str, tuple[int, int, int, int]]:
    return {p["part"]: (p["added"], p["changed"], p["same"], p["skipped"]) for p in report["parts"]}


def _parts(data: bytes) -> dict[str, Any]:
    with zipfile.ZipFile(io.BytesIO(data)) as opened:
        return {n: json.loads(opened.read(n)) for n in opened.namelist() if n.endswith(".json") and n != MANIFEST}


def _rewritten(data: bytes, change: Callable[[str, bytes], bytes | None]) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(data)) as opened, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        for name in opened.namelist():
            content = change(name, opened.read(name))
            if content is not None:
                made.writestr(name, content)
    return out.getvalue()


def _without_numbers(content: Any) -> Any:
    """What numbers the database gave is of no kitchen."""
    if isinstance(content, dict):
        numbers = ("id", "formula_id", "cook_id", "service_id", "source_id", "about", "sha256")
        return {k: _without_numbers(v) for k, v in content.items() if k not in numbers}
    return [_without_numbers(v) for v in content] if isinstance(content, list) else content


def test_brought_into_a_kitchen_of_its_own_everything_is_there_as_it_was(lived_in) -> None:
    data = _archive(lived_in)
    looked = _look(lived_in, data, "new").get_json()
    assert all((changed, same, skipped) == (0, 0, 0) for _, changed, same, skipped in _counts(looked).values())
    assert not looked["done"]
    before = len(lived_in.get("/api/kitchens").get_json()["kitchens"])
    done = _bring(lived_in, data, looked["digest"], "new")
    assert done.status_code == 200
    report = done.get_json()
    assert report["done"]
    assert _counts(report) == _counts(looked)
    assert len(lived_in.get("/api/kitchens").get_json()["kitchens"]) == before + 1
    again = _archive(lived_in, report["kitchen_id"])
    first, second = _parts(data), _parts(again)
    # Tasks are called after the numbers of their formulas, which are others here.
    for parts in (first, second):
        numbers = [i["id"] for i in parts["formulas-001.json"]["items"] if i["formula"]["name"] == "Slipway smash"]
        [task] = [e.pop("task") for e in parts["evenings-001.json"]["items"][0]["events"]]
        assert task == f"f{max(numbers)}-preheat"
    assert _without_numbers(first) == _without_numbers(second)
    # Each has the name of who did it there, not of who brought it.
    for column, name in NAMES.items():
        assert {getattr(row, column.name) for row in column.model.select()} == {name}, column
    # What a cook sees of it is there too.
    there = {"Vianda-Kitchen": str(report["kitchen_id"])}
    found = lived_in.post("/api/logbook", json={"text": "less salt"}, headers=there).get_json()
    assert found["total"] == 1
    cook = found["lines"][0]["cook_id"]
    shown = lived_in.get(f"/api/cooks/{cook}", headers=there).get_json()
    assert shown["events"][0]["value"] == 61.0
    assert len(lived_in.get(f"/api/cooks/{cook}/photographs", headers=there).get_json()) == 1


def test_brought_into_the_kitchen_it_came_from_nothing_changes(lived_in) -> None:
    data = _archive(lived_in)
    report = _look(lived_in, data).get_json()
    counts = _counts(report)
    assert all((added, changed, skipped) == (0, 0, 0) for added, changed, _, skipped in counts.values())
    assert counts["formulas"][2] > 3
    assert counts["photographs"] == (0, 0, 1, 0)
    assert _bring(lived_in, data, report["digest"]).status_code == 200
    assert _without_numbers(_parts(_archive(lived_in))) == _without_numbers(_parts(data))


def test_looking_writes_nothing(lived_in) -> None:
    data = _archive(lived_in)
    listed = lived_in.get("/api/kitchens").get_json()
    _look(lived_in, data, "new")
    assert lived_in.get("/api/kitchens").get_json() == listed


def test_what_differs_stays_or_gives_way_as_chosen_and_ours_is_kept_as_a_version(lived_in) -> None:
    data = _archive(lived_in)
    loaf = next(f for f in lived_in.get("/api/formulas").get_json() if f["name"] == keepers_loaf().name)
    stored = lived_in.get(f"/api/formulas/{loaf['id']}").get_json()
    changed = {**stored["formula"], "remark": "with more onion here"}
    lived_in.put(f"/api/formulas/{loaf['id']}", json={"formula": changed, "revision": stored["revision"]})
    kept = _look(lived_in, data, differing="keep").get_json()
    [line] = next(p for p in kept["parts"] if p["part"] == "formulas")["lines"]
    assert (line["name"], line["outcome"]) == (loaf["name"], "skipped")
    assert "stays" in line["reason"]
    replaced = _look(lived_in, data, differing="replace").get_json()
    [line] = next(p for p in replaced["parts"] if p["part"] == "formulas")["lines"]
    assert line["outcome"] == "changed"
    assert _bring(lived_in, data, replaced["digest"], differing="replace").status_code == 200
    assert lived_in.get(f"/api/formulas/{loaf['id']}").get_json()["formula"]["remark"] == stored["formula"]["remark"]
    versions = lived_in.get(f"/api/formulas/{loaf['id']}/versions").get_json()
    assert versions[0]["formula"]["remark"] == "with more onion here"
    assert versions[0]["name"].startswith("Before ")


def test_what_was_not_looked_at_is_not_done(lived_in) -> None:
    data = _archive(lived_in)
    looked = _look(lived_in, data).get_json()
    loaf = next(f for f in lived_in.get("/api/formulas").get_json() if f["name"] == keepers_loaf().name)
    stored = lived_in.get(f"/api/formulas/{loaf['id']}").get_json()
    changed = {**stored["formula"], "remark": "changed meanwhile"}
    lived_in.put(f"/api/formulas/{loaf['id']}", json={"formula": changed, "revision": stored["revision"]})
    refused = _bring(lived_in, data, looked["digest"])
    assert refused.status_code == 409
    assert refused.get_json()["current"]["digest"] != looked["digest"]


def test_a_part_that_breaks_a_rule_leaves_nothing_behind(lived_in) -> None:
    data = _archive(lived_in)
    broken = _with_items(data, "cooks", lambda items: [*items, {**items[0], "id": 9999, "plan": {"portions": {}}}])
    listed = lived_in.get("/api/kitchens").get_json()
    refused = _look(lived_in, broken, "new")
    assert refused.status_code == 422
    assert "plan of cook 9999" in refused.get_json()["detail"]
    assert _bring(lived_in, broken, "0" * 64, "new").status_code == 422
    assert lived_in.get("/api/kitchens").get_json() == listed


def test_a_new_bring_sent_again_with_its_token_makes_one_kitchen(lived_in) -> None:
    data = _archive(lived_in)
    digest = _look(lived_in, data, "new").get_json()["digest"]
    token = {"Idempotency-Key": "bring-kitchen-1"}
    first = _bring(lived_in, data, digest, "new", **token).get_json()
    assert _bring(lived_in, data, digest, "new", **token).get_json() == first


def _with_items(data: bytes, part: str, change: Callable[[list[Any]], list[Any]]) -> bytes:
    """The archive with other items in the first file of a part, its own sums made to fit."""
    import hashlib

    path = f"{part}-001.json"
    with zipfile.ZipFile(io.BytesIO(data)) as opened:
        content, manifest = json.loads(opened.read(path)), json.loads(opened.read(MANIFEST))
    content["items"] = change(content["items"])
    text = json.dumps(content).encode()
    for entry in manifest["files"]:
        if entry["path"] == path:
            entry |= {"items": len(content["items"]), "sha256": hashlib.sha256(text).hexdigest()}
    new = {path: text, MANIFEST: json.dumps(manifest).encode()}
    return _rewritten(data, lambda name, old: new.get(name, old))


def _manifest(change: Callable[[dict[str, Any]], Any]) -> Callable[[str, bytes], bytes]:
    def apply(name: str, old: bytes) -> bytes:
        if name != MANIFEST:
            return old
        content = json.loads(old)
        change(content)
        return json.dumps(content).encode()

    return apply


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda name, old: None if name == MANIFEST else old, "no kitchen archive"),
        (lambda name, old: b"{" if name == MANIFEST else old, "not JSON"),
        (lambda name, old: b"[" * 100_000 if name == MANIFEST else old, "not JSON"),
        (lambda name, old: b'{"format": "other"}' if name == MANIFEST else old, "does not say"),
        (_manifest(lambda m: m.update(version=2)), "Update Vianda"),
        (_manifest(lambda m: m.update(version="1")), "/version"),
        (_manifest(lambda m: m["files"].pop()), "lists is not what"),
        (_manifest(lambda m: m["files"].append(m["files"][0])), "lists is not what"),
        (_manifest(lambda m: m["files"][0].update(path="../../kitchen-001.json")), "path"),
        (_manifest(lambda m: m["files"][0].update(part="cellar")), "no kitchen archive has"),
        (_manifest(lambda m: m["files"][0].update(version=2)), "Update Vianda"),
        (lambda name, old: old + b" " if name == "meats-001.json" else old, "SHA-256 differs"),
        (lambda name, old: old[:-5] if name.endswith(".jpg") else old, "SHA-256 differs"),
        (lambda name, old: None if name.endswith(".jpg") else old, "not in the archive"),
    ],
)
def test_an_archive_that_is_not_whole_is_refused_with_the_place(lived_in, change, says: str) -> None:
    answer = _look(lived_in, _rewritten(_archive(lived_in), change), "new")
    assert answer.status_code == 422
    assert says in answer.get_json()["detail"]


def test_a_field_that_does_not_fit_is_named_with_file_and_item(lived_in) -> None:
    data = _archive(lived_in)

    def hot(items: list[Any]) -> list[Any]:
        items[1]["fat_usual_frac"] = 3.0
        return items

    answer = _look(lived_in, _with_items(data, "meats", hot), "new")
    assert answer.status_code == 422
    assert "meats-001.json" in answer.get_json()["detail"]
    assert "/items/1/fat_usual_frac" in answer.get_json()["detail"]
    odd = _look(lived_in, _with_items(data, "meats", lambda items: [{**items[0], "colour": "red"}]), "new")
    assert "/items/0/colour" in odd.get_json()["detail"]


def test_a_name_comes_back_as_it_was_kept_but_for_what_nobody_sees(lived_in) -> None:
    data = _with_items(
        _archive(lived_in), "meats", lambda items: [{**items[0], "name": "C\u200bhuсk\u202e"}, *items[1:]]
    )
    looked = _look(lived_in, data, "new")
    assert looked.status_code == 200
    into = _bring(lived_in, data, looked.get_json()["digest"], "new").get_json()["kitchen_id"]
    there = lived_in.get("/api/larder", headers={"Vianda-Kitchen": str(into)}).get_json()["meats"]
    assert "Chuсk" in {meat["name"] for meat in there}


def test_bytes_that_are_no_zip_and_other_kinds_are_refused(client) -> None:
    for data in (b"", b"PK\x03\x04", b"x" * 1000, _archive(client)[:-40]):
        answer = _look(client, data)
        assert answer.status_code == 422, data[:10]
        assert "zip" in answer.get_json()["detail"]
    assert client.post("/api/archive/look/here/keep", data=b"{}", content_type="application/json").status_code == 415
    assert client.post("/api/archive/look/cellar/keep", data=b"", content_type=ZIP).status_code == 404


def test_a_bomb_is_refused_before_it_is_unpacked(client, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vianda.interchange.kitchen_archive.LARGEST_FILE", 100_000)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as made:
        made.writestr(MANIFEST, b"[" + b" " * 5_000_000 + b"]")
    assert len(out.getvalue()) < 10_000
    assert "more than" in _look(client, out.getvalue()).get_json()["detail"]


def test_a_formula_that_this_kitchen_cannot_make_gives_way_or_is_left_out_with_the_reason(lived_in) -> None:
    data = _archive(lived_in)
    answers = {
        "name": "Small galley", "country": "UK", "setting": "home", "unit_system": "metric", "currency_code": "GBP",
        "scale_step_g": 1, "surfaces": [{"kind": "pan", "width": "28 cm", "depth": ""}], "salt": "salt-fine",
    }  # fmt: skip
    made = lived_in.post("/api/kitchens", json=answers)
    assert made.status_code == 201, made.get_json()
    here = {"Vianda-Kitchen": str(made.get_json()["here"])}
    looked = _look(lived_in, data, **here).get_json()
    formulas = next(p for p in looked["parts"] if p["part"] == "formulas")
    assert formulas["added"] + formulas["skipped"] == sum(_counts(looked)["formulas"])
    assert any("ours took its place" in line["reason"] for line in formulas["lines"])
    assert next(p for p in looked["parts"] if p["part"] == "kitchen")["skipped"] == 1
    done = _bring(lived_in, data, looked["digest"], **here)
    assert done.status_code == 200
    shelf = lived_in.post("/api/shelf", json={}, headers=here).get_json()
    assert shelf["total"] == formulas["added"]


def test_an_archive_of_before_there_were_names_is_read_and_names_nobody(lived_in) -> None:
    older = {"formulas": ("changed_by",), "services": ("changed_by",), "cooks": ("begun_by", "noted_by"),
             "weighings": ("begun_by",)}  # fmt: skip
    sums: dict[str, str] = {}

    def without_names(name: str, content: bytes) -> bytes:
        part = name.split("-")[0]
        if part not in older:
            return content
        said = json.loads(content)
        said["version"] = 1
        for item in said["items"]:
            for field in older[part]:
                del item[field]
            for version in item.get("versions", ()):
                del version["kept_by"]
        data = json.dumps(said).encode()
        sums[name] = hashlib.sha256(data).hexdigest()
        return data

    def listed(name: str, content: bytes) -> bytes:
        if name != MANIFEST:
            return content
        said = json.loads(content)
        for entry in said["files"]:
            if entry["path"] in sums:
                entry.update(version=1, sha256=sums[entry["path"]])
        return json.dumps(said).encode()

    data = _rewritten(_rewritten(_archive(lived_in), without_names), listed)
    looked = _look(lived_in, data, "new").get_json()
    there = _bring(lived_in, data, looked["digest"], "new").get_json()["kitchen_id"]
    assert {row.begun_by for row in tables.CookRow.select().where(tables.CookRow.kitchen_id == there)} == {""}
    assert {row.changed_by for row in tables.FormulaRow.select().where(tables.FormulaRow.kitchen_id == there)} == {""}
    assert {row.changed_by for row in tables.ServiceRow.select().where(tables.ServiceRow.kitchen_id == there)} == {""}


def test_who_has_looked_is_in_the_kitchen_they_were_in(lived_in) -> None:
    from vianda.services import archives
    from vianda.storage.here import kitchen_here, use_kitchen

    data = _archive(lived_in)
    use_kitchen(None)
    before = kitchen_here()
    archives.look_at(io.BytesIO(data), into="new")
    assert kitchen_here() == before
    with pytest.raises(UnreadableArchiveError):
        archives.look_at(io.BytesIO(_rewritten(data, lambda n, c: b"{" if n.startswith("cooks") else c)), into="new")
    assert kitchen_here() == before
