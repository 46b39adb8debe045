"""Photographs of a cook over the wire: kept once, given out as they are, never to another kitchen."""

from __future__ import annotations

import io

import pytest
from PIL import Image

from photograph_files import MAKER, camera_file
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS
from vianda.services.photographs import MOST_A_COOK

SMALL = camera_file(64, 48)


@pytest.fixture
def cook(client) -> int:
    formula = client.post("/api/formulas", json={"formula": FORMULAS.plain(slipway_smash())}).get_json()
    return client.post("/api/cooks", json={"formula_id": formula["id"]}).get_json()["id"]


def _add(client, cook: int, data: bytes = SMALL, *, kind: str = "image/jpeg", **headers):
    return client.post(f"/api/cooks/{cook}/photographs", data=data, content_type=kind, headers=headers)


def _list(client, cook: int) -> list[dict]:
    return client.get(f"/api/cooks/{cook}/photographs").get_json()


def test_a_photograph_is_kept_and_comes_back_without_its_camera(client, cook) -> None:
    answer = _add(client, cook, camera_file(3000, 2000, turned=6))
    assert answer.status_code == 201
    [one] = answer.get_json()
    assert (one["width"], one["height"], one["caption"]) == (1067, 1600, "")
    assert one["at"].endswith("Z")
    assert _list(client, cook) == [one]
    for size, side in (("file", 1600), ("small", 320)):
        got = client.get(f"/api/photographs/{one['id']}/{size}")
        assert got.content_type == "image/jpeg"
        assert "immutable" in got.headers["Cache-Control"]
        assert "private" in got.headers["Cache-Control"]
        assert got.headers["X-Content-Type-Options"] == "nosniff"
        assert MAKER.encode() not in got.data
        with Image.open(io.BytesIO(got.data)) as opened:
            assert opened.height == side
    # Whatever else is asked of the API is never kept by a browser.
    assert client.get(f"/api/cooks/{cook}").headers["Cache-Control"] == "no-store"


def test_sent_again_with_its_token_it_is_kept_once(client, cook) -> None:
    first = _add(client, cook, **{"Idempotency-Key": "photo-0001"})
    again = _add(client, cook, **{"Idempotency-Key": "photo-0001"})
    assert (first.status_code, again.status_code) == (201, 201)
    assert first.get_json() == again.get_json()
    assert len(_list(client, cook)) == 1
    other = _add(client, cook, camera_file(80, 60), **{"Idempotency-Key": "photo-0001"})
    assert other.status_code == 422
    assert len(_list(client, cook)) == 1


def test_it_is_captioned_and_removed_for_good(client, cook) -> None:
    _add(client, cook)
    [one, two] = _add(client, cook, camera_file(60, 80)).get_json()
    said = client.put(f"/api/photographs/{one['id']}/caption", json={"caption": " Cut through <b>🍔</b> "})
    assert said.status_code == 204
    assert [p["caption"] for p in _list(client, cook)] == ["Cut through <b>🍔</b>", ""]
    long = client.put(f"/api/photographs/{one['id']}/caption", json={"caption": "x" * 121})
    assert long.status_code == 422
    assert client.delete(f"/api/photographs/{one['id']}").status_code == 204
    assert [p["id"] for p in _list(client, cook)] == [two["id"]]
    # Asked for a second time, by a window that did not know.
    assert client.delete(f"/api/photographs/{one['id']}").status_code == 204
    assert client.get(f"/api/photographs/{one['id']}/file").status_code == 404
    assert client.put(f"/api/photographs/{one['id']}/caption", json={"caption": "late"}).status_code == 404


def test_a_cook_keeps_so_many(client, cook) -> None:
    for n in range(MOST_A_COOK):
        assert len(_add(client, cook).get_json()) == n + 1
    one_more = _add(client, cook)
    assert one_more.status_code == 422
    assert f"at most {MOST_A_COOK}" in one_more.get_json()["detail"]
    client.delete(f"/api/photographs/{_list(client, cook)[0]['id']}")
    assert _add(client, cook).status_code == 201


@pytest.mark.parametrize(
    ("data", "kind", "status"),
    [
        (SMALL, "application/json", 415),
        (SMALL, "image/gif", 415),
        (SMALL, "multipart/form-data; boundary=x", 415),
        (b"", "image/jpeg", 422),
        (b"not a picture", "image/png", 422),
        (SMALL[:400], "image/jpeg", 422),
        (b"\xff" * 16_000_001, "image/jpeg", 413),
        # What is no picture keeps to the megabyte of everything else.
        (b"{" * 1_000_001, "application/json", 413),
    ],
)
def test_what_is_no_photograph_is_refused_and_the_cook_stands(client, cook, data, kind, status) -> None:
    answer = _add(client, cook, data, kind=kind)
    assert answer.status_code == status, answer.get_data(as_text=True)
    assert answer.content_type == "application/problem+json"
    assert answer.get_json()["detail"]
    assert _list(client, cook) == []


def test_a_picture_of_a_name_that_lies_is_read_as_what_it_is(client, cook) -> None:
    """A browser names the kind by the ending of the file."""
    assert _add(client, cook, SMALL, kind="image/png").status_code == 201


def test_a_cook_that_is_not_there_keeps_none(client) -> None:
    assert _add(client, 99_999).status_code == 404
    assert client.get("/api/cooks/99999/photographs").status_code == 404


def test_another_kitchen_sees_none_of_it(client, cook) -> None:
    [one] = _add(client, cook).get_json()
    mine = client.get("/api/kitchens").get_json()["here"]
    own = {"name": "Mast-house", "country": "UK", "surfaces": [{"kind": "pan", "width": "28 cm"}]}
    second = client.post("/api/kitchens", json=own).get_json()["here"]
    client.post(f"/api/kitchens/{mine}/open")
    assert second != mine
    elsewhere = {"Vianda-Kitchen": str(second)}
    assert client.get(f"/api/photographs/{one['id']}/file", headers=elsewhere).status_code == 404
    assert client.get(f"/api/cooks/{cook}/photographs", headers=elsewhere).status_code == 404
    assert client.delete(f"/api/photographs/{one['id']}", headers=elsewhere).status_code == 204
    assert _add(client, cook, **elsewhere).status_code == 404
    # A picture on a page cannot say a header: its address does.
    assert client.get(f"/api/photographs/{one['id']}/small?kitchen={mine}").status_code == 200
    assert client.get(f"/api/photographs/{one['id']}/small?kitchen={second}").status_code == 404


def test_versions_are_compared_with_what_their_cooks_looked_like(client, cook) -> None:
    formula = client.get(f"/api/cooks/{cook}").get_json()["formula_id"]
    client.post(f"/api/formulas/{formula}/versions", json={"name": "First"})
    [one] = _add(client, cook).get_json()
    asked = {"before": 1, "after": 0, "unit_system": "metric"}
    side = client.post(f"/api/formulas/{formula}/compare", json=asked).get_json()["after"]
    assert side["photographs"] == []
    cooked = client.get(f"/api/cooks/{cook}").get_json()
    client.put(f"/api/cooks/{cook}/outcome", json={"outcome": {"looks": 5}, "revision": cooked["revision"]})
    found = client.post(f"/api/formulas/{formula}/compare", json=asked).get_json()
    assert [(p["id"], p["cook_id"]) for p in found["after"]["photographs"]] == [(one["id"], cook)]
    near = next(f for f in found["figures"] if f["key"] == "near")
    assert (near["title"], near["after"]) == ("As wanted, of five", 5.0)
