"""What goes over the wire for an edit: figures, not what stands behind them."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import DEMO_FORMULAS
from vianda.interchange.kinds import FORMULAS

MOST_BYTES = 25_000


@pytest.mark.parametrize("make", DEMO_FORMULAS)
def test_the_answer_to_an_edit_is_small(client, make) -> None:
    edit = {"kind": "nudge", "figure": "guests", "steps": 1}
    answer = client.post("/api/evaluate", json={"formula": FORMULAS.plain(make()), "edits": [edit]})
    assert answer.status_code == 200
    assert len(answer.get_data()) <= MOST_BYTES


def test_a_working_is_fetched_when_it_is_opened(client) -> None:
    answer = client.post("/api/sheets", json={"formula": FORMULAS.plain(DEMO_FORMULAS[0]())}).get_json()
    assert answer["workings"]["lean_to_fat"]["steps"]
    assert [c["verdict"] for c in answer["corrections"]]
