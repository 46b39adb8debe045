"""Text is sent compressed to whoever takes it, and what streams is not held back."""

from __future__ import annotations

import gzip
import json

from served import PROJECT
from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

BODY = {"formula": FORMULAS.plain(slipway_smash())}


def test_an_answer_is_compressed_for_who_takes_it(client) -> None:
    plain = client.post("/api/evaluate", json=BODY)
    small = client.post("/api/evaluate", json=BODY, headers={"Accept-Encoding": "gzip"})
    assert "Content-Encoding" not in plain.headers
    assert small.headers["Content-Encoding"] == "gzip"
    assert "Accept-Encoding" in small.headers["Vary"]
    assert json.loads(gzip.decompress(small.get_data())) == plain.get_json()
    assert len(small.get_data()) < 0.4 * len(plain.get_data())


def test_pages_and_their_styles_are_compressed(client) -> None:
    page = client.get("/", headers={"Accept-Encoding": "br, gzip"}).get_data(as_text=False)
    asset = next(PROJECT.glob("frontend/dist/assets/*.css"))
    styles = client.get(f"/assets/{asset.name}", headers={"Accept-Encoding": "gzip"})
    assert page
    assert styles.headers["Content-Encoding"] == "gzip"
    assert gzip.decompress(styles.get_data()) == asset.read_bytes()


def test_a_curve_comes_line_by_line_as_it_is(client) -> None:
    answer = client.post("/api/heat/curve", json=BODY, headers={"Accept-Encoding": "br, gzip"})
    assert "Content-Encoding" not in answer.headers
    assert json.loads(answer.get_data().splitlines()[0])["kind"] == "curve"
