"""Lot sizes against the worked example of Wagner and Whitin, Dynamic version of the economic lot size model (1958).

Table 1: twelve months, demand and cost of setting up by month, 1 for a unit kept a month. The optimum is 864. Table and
optimum are from memory, high: they are reprinted in every textbook of operations management.
"""

from __future__ import annotations

from vianda.core.schedule.lot_sizes import LotItem, lot_sizes

DEMANDS = (69.0, 29.0, 36.0, 61.0, 61.0, 26.0, 34.0, 67.0, 45.0, 67.0, 79.0, 56.0)
SET_UPS = (85.0, 102.0, 102.0, 101.0, 98.0, 114.0, 105.0, 86.0, 119.0, 110.0, 98.0, 114.0)


def test_the_published_plan_costs_864() -> None:
    plan = lot_sizes([LotItem(DEMANDS, SET_UPS, hold=1.0, keeps=11)])
    # The search may stop at a gap of 0.1 %: less than one.
    assert round(plan.cost, 6) == 864.0
    assert [(m.day + 1, m.amount) for m in plan.makings] == [(1, 98), (3, 97), (5, 121), (8, 112), (10, 67), (11, 135)]
