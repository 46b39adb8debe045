"""Short of time over the wire: what fits, what it costs, and what is refused."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS


def _asked(client, **changes):
    body = {"formula": FORMULAS.plain(slipway_smash()), "minutes": 45, "unit_system": "metric", **changes}
    return client.post("/api/short-of-time", json=body)


def test_what_makes_it_fit_comes_with_its_edits_and_its_cost(client) -> None:
    answer = _asked(client)
    assert answer.status_code == 200, answer.get_json()
    found = answer.get_json()
    assert found["fits"] is False
    first = found["ways"][0]
    assert first["fits"] is True
    assert first["needs_min"] <= 45
    assert float(first["portion_cost"]) < float(found["portion_cost"])
    edits = [e for s in first["shortcuts"] for e in s["edits"]]
    body = {"formula": FORMULAS.plain(slipway_smash()), "edits": edits, "unit_system": "metric"}
    changed = client.post("/api/evaluate", json=body).get_json()["formula"]
    again = _asked(client, formula=changed).get_json()
    assert (again["fits"], again["needs_min"]) == (True, first["needs_min"])


@pytest.mark.parametrize("minutes", [0, 721, 15.5, "soon", None, 1e308])
def test_what_is_no_number_of_minutes_is_refused(client, minutes) -> None:
    assert _asked(client, minutes=minutes).status_code == 422
