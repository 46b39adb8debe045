"""Two edits of one formula are put together over the wire."""

from __future__ import annotations

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


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
