"""Carried elsewhere over the wire: what a trip takes, and trips that cannot be."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import slipway_smash
from vianda.interchange.kinds import FORMULAS

TRIP = {"hours": 2.0, "around_c": 25.0, "from_c": 3.0, "box": "usual", "box_l": 25.0}


def _asked(client, **changes):
    body = {"formula": FORMULAS.plain(slipway_smash()), "trip": TRIP | changes, "unit_system": "metric"}
    return client.post("/api/carried", json=body)


def test_a_trip_takes_ice_and_papers(client) -> None:
    found = _asked(client).get_json()
    assert (found["pieces"], found["papers"]) == (40, 48)
    assert [b["key"] for b in found["boxes"]] == ["thin", "usual", "thick"]
    assert found["box"]["ice_kg"]["usual"] * 1000 == pytest.approx(found["boxes"][1]["ice_g"])
    longer = _asked(client, hours=6.0).get_json()
    assert longer["box"]["ice_kg"]["usual"] > found["box"]["ice_kg"]["usual"]


@pytest.mark.parametrize(
    "wrong",
    [{"hours": 0}, {"hours": 25}, {"around_c": 80}, {"from_c": 40}, {"box": "bag"}, {"box_l": -1}, {"hours": 1e308}],
)
def test_a_trip_that_cannot_be_is_refused(client, wrong) -> None:
    assert _asked(client, **wrong).status_code == 422
