"""Orders as they come over the wire: bounds of what is asked, the formula's cooks, and refusals with their reason."""

from __future__ import annotations

import pytest

from vianda.core.demo.formulas import keepers_loaf, slipway_smash
from vianda.interchange.kinds import FORMULAS

ORDERS = {
    "per_hour": 40,
    "portions": 2,
    "open_min": 120,
    "rush_factor": 2,
    "rush_from_min": 45,
    "rush_min": 30,
    "wait_min": 12,
}


def _ask(client, orders: dict, make=slipway_smash, cooks: int = 2):
    formula = FORMULAS.plain(make())
    formula["timing"]["cooks"] = cooks
    return client.post("/api/orders", json={"formula": formula, "orders": orders, "unit_system": "metric"})


def test_what_a_kitchen_makes_of_an_evening(client) -> None:
    found = _ask(client, ORDERS).get_json()
    assert found["per_hour"] == min(found["surface_per_hour"], found["hands_per_hour"])
    assert found["rush_per_hour"] == 160
    assert found["held"][0]["ready"] == 0
    assert {h["ready"] for h in found["held"]} >= {0, found["ready"]}
    assert [m["what"]["text"] for m in found["more"]] == ["One more cook", "A second surface like it", "Both"]
    assert all(0 <= h["within_frac"] <= 1 and 0 <= h["wasted_frac"] <= 1 for h in found["held"])
    assert all(h["half_min"] <= h["ninth_min"] for h in found["held"])


def test_the_formulas_cooks_are_the_hands(client) -> None:
    one, four = (_ask(client, ORDERS, cooks=n).get_json()["hands_per_hour"] for n in (1, 4))
    assert four == pytest.approx(4 * one)


def test_an_answer_is_small(client) -> None:
    assert len(_ask(client, ORDERS).data) < 4000


@pytest.mark.parametrize(
    ("field", "inside", "outside"),
    [
        ("per_hour", 0.5, 0),
        ("per_hour", 600, 601),
        ("portions", 1, 0.9),
        ("portions", 20, 20.1),
        ("open_min", 15, 14.9),
        ("open_min", 720, 721),
        ("rush_factor", 1, 0.9),
        ("rush_factor", 10, 10.1),
        ("rush_from_min", 0, -1),
        ("rush_min", 720, 721),
        ("wait_min", 1, 0.9),
        ("wait_min", 240, 241),
    ],
)
def test_each_figure_has_its_bounds(client, field: str, inside: float, outside: float) -> None:
    # A short service, so that the bounds and not the number of orders decide.
    short = ORDERS | {"per_hour": 6, "open_min": 20, "rush_from_min": 0, "rush_min": 0, "rush_factor": 1}
    assert _ask(client, short | {field: inside}).status_code == 200
    refused = _ask(client, short | {field: outside})
    assert refused.status_code == 422
    assert field in str(refused.get_json()["fields"])


@pytest.mark.parametrize("wrong", [None, "40", True, [], {"more": 1}])
def test_what_is_no_number_is_refused(client, wrong) -> None:
    assert _ask(client, ORDERS | {"per_hour": wrong}).status_code == 422


def test_a_loaf_is_not_cooked_to_order(client) -> None:
    refused = _ask(client, ORDERS, make=keepers_loaf)
    assert refused.status_code == 422
    assert "before guests come" in refused.get_json()["detail"]


def test_more_orders_than_are_drawn_are_refused(client) -> None:
    refused = _ask(client, ORDERS | {"per_hour": 600, "open_min": 720})
    assert refused.status_code == 422
    assert "At most 2000" in refused.get_json()["detail"]
